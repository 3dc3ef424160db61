package script

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads statements of modules and namespaces (ECMA-262, "Scripts and
// Modules"; TypeScript: namespaces, ambient declarations).

// module reads the whole file.
func (r *reader) module() {
	r.parent = -1
	if strings.HasPrefix(r.text, "#!") {
		r.at = r.endOfLine(0)
	}
	first := true
	for {
		if r.next(); r.at >= len(r.text) {
			break
		}
		if first {
			first = r.byteAt(r.at) == '\'' || r.byteAt(r.at) == '"' // directives such as "use strict" stand before the rest
			r.fileComment()
		}
		if r.text[r.at] == '}' || r.text[r.at] == ')' || r.text[r.at] == ']' {
			r.missing(r.at)
			r.at++
			continue
		}
		r.progress(r.statement)
	}
	r.settle()
	r.toldTypes()
	r.names()
}

// progress calls read and makes sure that something was read.
func (r *reader) progress(read func()) {
	was := r.at
	if read(); r.at <= was {
		r.at = was + 1
	}
}

// fileComment takes the first comment of the file that speaks of all of it.
func (r *reader) fileComment() {
	at := r.above
	if at == 0 && strings.HasPrefix(r.text, "#!") {
		at = r.endOfLine(0)
	}
	r.above = r.at
	for at < r.at {
		if isBlank(r.text[at]) || !r.commentAt(at) {
			at++
			continue
		}
		end := r.commentEnd(at)
		text := r.text[at:end]
		span := source.NewSpan(at, end)
		at = end
		if !strings.HasPrefix(text, "/**") || len(text) <= len("/**/") || !r.typed && tellsTypes(text) {
			continue
		}
		if plain := (&reader{lexer: r.lexer, facts: &model.Facts{}}).doc(span); plain != nil && aboutFile(plain.Text) {
			r.facts.ModuleDoc = plain
			if span == r.comment && !strings.Contains(plain.Text, "@license") {
				r.comment = source.Span{}
			}
			return
		}
		if span != r.comment && r.facts.ModuleDoc == nil { // another one follows, which belongs to the declaration
			if plain := (&reader{lexer: r.lexer, facts: &model.Facts{}}).doc(span); plain != nil {
				r.facts.ModuleDoc = plain
			}
		}
	}
	if r.wordAt(r.at, "import") && r.facts.ModuleDoc == nil {
		r.facts.ModuleDoc = r.doc(r.comment)
	}
	r.facts.Directives = nil
	if r.wordAt(r.at, "import") || r.text[r.at] == '"' || r.text[r.at] == '\'' {
		r.facts.Directives = r.directives
	}
}

// heads are what stands before the word that tells what a statement declares.
type heads struct {
	start      int
	comment    source.Span
	directives []model.Directive
	export     bool
	byDefault  bool
	declare    bool
	abstract   bool
	async      bool
}

// statement reads one statement and goes behind it.
func (r *reader) statement() { r.scoped(r.readStatement) }

func (r *reader) readStatement() {
	h := heads{start: r.at, comment: r.comment, directives: r.directives}
	for r.byteAt(r.at) == '@' {
		r.at = r.after(r.decorator(r.at))
	}
	r.headed(&h)
}

// headed reads a statement from where its words begin.
func (r *reader) headed(h *heads) {
	at := r.at
	word := r.word(at)
	after, newline := r.skip(at + len(word))
	next := r.byteAt(after)
	named := !newline && startsName(next)
	switch word {
	case "import":
		if next != '(' && next != '.' {
			r.importing(h, after)
			return
		}
	case "export":
		if next != '=' || r.byteAt(after+1) != '=' {
			r.esModule = true
			r.export(h, after)
			return
		}
	case "declare":
		if named || r.wordAt(after, "global") {
			h.declare = true
			r.at = after
			r.headed(h)
			return
		}
	case "abstract":
		if !newline && r.wordAt(after, "class") {
			h.abstract = true
			r.at = after
			r.headed(h)
			return
		}
	case "async":
		if !newline && r.wordAt(after, "function") {
			h.async = true
			r.at = after
			r.headed(h)
			return
		}
	case "function":
		r.function(h, after)
		return
	case "class":
		r.class(h, after)
		return
	case "interface":
		if r.typed && startsName(next) {
			r.interfaces(h, after)
			return
		}
	case "enum":
		if startsName(next) {
			r.enum(h, after, false)
			return
		}
	case "type":
		if r.typed && named {
			r.alias(h, after)
			return
		}
	case "namespace", "module":
		if r.typed && !newline && (startsName(next) || next == '"' || next == '\'') {
			r.namespace(h, after)
			return
		}
	case "global":
		if r.typed && next == '{' {
			r.namespace(h, at)
			return
		}
	case "const", "let", "var", "using":
		if r.binding(h, word, after) {
			return
		}
	case "return":
		if r.inner > 0 && r.scope == "" {
			r.returned(h, after)
			return
		}
	case "if", "while", "for", "with", "switch", "do", "try", "else", "finally", "catch":
		r.control(word, after)
		return
	case "":
		switch r.byteAt(at) {
		case ';':
			r.at = at + 1
			return
		case '{':
			r.at = r.bracketed(at)
			r.last = r.at
			return
		}
	}
	r.expressionStatement(h)
}

// binding reads what "const", "let", "var" or "using" declares, where the word is one.
func (r *reader) binding(h *heads, word string, after int) bool {
	next := r.byteAt(after)
	switch {
	case word == "const" && r.wordAt(after, "enum"):
		r.enum(h, r.after(after+len("enum")), true)
	case !startsName(next) && next != '{' && next != '[', (word == "let" || word == "using") && goesOn[r.word(after)]:
		return false
	default:
		r.variables(h, word, after)
	}
	return true
}

// finish goes behind the end of a statement whose text ends at an offset.
func (r *reader) finish(at int) {
	r.last = at
	next, newline := r.skip(at)
	if r.byteAt(next) == ';' {
		r.last = next + 1
		r.at = next + 1
		return
	}
	_ = newline
	r.at = at
}

// control passes over a statement that declares nothing at this level.
func (r *reader) control(word string, after int) {
	switch word {
	case "if", "while", "for", "with", "switch", "catch":
		if r.wordAt(after, "await") {
			after = r.after(after + len("await"))
		}
		if r.byteAt(after) == '(' {
			after = r.after(r.bracketed(after))
		}
	}
	r.at = after
	switch c := r.byteAt(after); {
	case c == '{':
		end := r.bracketed(after)
		r.exportsWithin(after+1, end)
		r.at, r.last = end, end
	case c == 0 || c == '}':
	default:
		switch inner := r.word(after); inner {
		case "if", "while", "for", "with", "switch", "do", "try":
			r.control(inner, r.after(after+len(inner)))
		default:
			end := r.whole(after)
			r.exportsWithin(after, end)
			r.finish(end)
		}
	}
	if word == "do" {
		r.loopCondition()
	}
}

// loopCondition goes over the "while (...)" that ends a loop.
func (r *reader) loopCondition() {
	at := r.after(r.at)
	if !r.wordAt(at, "while") {
		return
	}
	if at = r.after(at + len("while")); r.byteAt(at) == '(' {
		r.finish(r.bracketed(at))
	}
}

// whole is the offset of the end of an expression with its commas.
func (r *reader) whole(at int) int {
	for {
		at = r.expression(at)
		if r.byteAt(at) != ',' {
			return at
		}
		at++
	}
}

// decorator is the offset behind "@name.name(...)".
func (r *reader) decorator(at int) int {
	at = r.after(at + 1)
	if r.byteAt(at) == '(' {
		return r.bracketed(at)
	}
	at = r.nameEnd(at)
	for r.byteAt(at) == '.' {
		at = r.nameEnd(at + 1)
	}
	if r.typed && r.byteAt(at) == '<' {
		if end, ok := r.typeArguments(at); ok {
			at = end
		}
	}
	if next := r.after(at); r.byteAt(next) == '(' {
		r.sig = next - 1
		return r.bracketed(next)
	}
	return at
}

// variables reads the declarators of const, let and var.
func (r *reader) variables(h *heads, word string, at int) {
	comment, directives := h.comment, h.directives
	for {
		end := r.declarator(h, word, at, comment, directives)
		next := r.after(end)
		if r.byteAt(next) != ',' {
			r.finish(end)
			return
		}
		r.at = next + 1
		r.nextDoc(true)
		at, comment, directives = r.at, r.comment, r.directives
		if at >= len(r.text) {
			return
		}
	}
}

// declarator reads one name or pattern with its type and value.
func (r *reader) declarator(h *heads, word string, at int, comment source.Span, directives []model.Directive) int {
	if c := r.byteAt(at); c == '{' || c == '[' {
		return r.patternDeclarator(h, word, at, comment, directives)
	}
	end := r.nameEnd(at)
	if end == at {
		return r.expression(at)
	}
	o := model.Occurrence{Kind: kindOfVariable(word), NameSpan: source.NewSpan(at, end), Export: r.exportOf(h)}
	value := r.after(end)
	if r.byteAt(value) == '!' {
		value = r.after(value + 1)
	}
	same, valueAt, typeAt := "", -1, -1
	from := r.arena.Begin()
	r.put(model.TokenKeyword, word+" ")
	r.put(model.TokenName, r.text[at:end])
	if r.byteAt(value) == ':' {
		r.put(model.TokenPunctuation, ": ")
		typeAt = r.after(value + 1)
		end = r.putType(typeAt)
		value = r.after(end)
		if r.wordAt(typeAt, "typeof") {
			same = r.meantPath(r.after(typeAt+len("typeof")), r.back(end))
		}
	}
	stop := end
	if r.byteAt(value) == '=' && r.byteAt(value+1) != '=' {
		valueAt = r.after(value + 1)
		if f, ok := r.functionValue(valueAt); ok {
			r.valueTokens(&o, f)
			o.Kind = model.KindFunction
			o.Signature = r.arena.Since(from)
			o.Span = source.NewSpan(h.start, f.end)
			r.madeWithNew(r.add(o, comment, directives), &f)
			return f.end
		}
		if r.wordAt(valueAt, "class") {
			return r.classValue(h, at, int(o.NameSpan.End), valueAt, comment, directives)
		}
		stop = r.expression(value + 1)
		r.bindValue(o.NameSpan, valueAt, r.back(stop))
		if path := r.meantPath(valueAt, r.back(stop)); path != "" && word == "const" {
			same = path
		}
		r.value(valueAt, r.back(stop))
		defer r.givenValue(o.NameSpan, valueAt) // when the signature is written
	}
	o.Signature = r.arena.Since(from)
	o.Span = source.NewSpan(h.start, r.back(stop))
	if same != "" && same != o.NameSpan.In(r.text) {
		o.Extra = &model.Extra{Same: same}
	}
	switch index := r.add(o, comment, directives); {
	case typeAt >= 0:
		r.describedType(index, typeAt, max(typeAt, end))
	case valueAt >= 0:
		r.described(index, valueAt, max(valueAt, r.back(stop)))
	}
	return stop
}

// patternDeclarator declares each name in a pattern, as in "const { a, b } = c".
func (r *reader) patternDeclarator(h *heads, word string, at int, comment source.Span, directives []model.Directive) int {
	r.sig = -1
	end := r.bracketed(at)
	names, properties := r.bound(at, end)
	value := r.after(end)
	if r.byteAt(value) == ':' {
		value = r.after(r.typeEnd(r.after(value + 1)))
	}
	stop := end
	if r.byteAt(value) == '=' {
		stop = r.expression(value + 1)
	}
	required := ""
	if r.byteAt(value) == '=' {
		required, _ = r.required(r.after(value+1), r.back(stop))
	}
	for i, name := range names {
		o := model.Occurrence{Kind: kindOfVariable(word), NameSpan: name, Span: source.NewSpan(h.start, r.back(stop)), Export: r.exportOf(h)}
		from := r.arena.Begin()
		r.put(model.TokenKeyword, word+" ")
		r.put(model.TokenName, name.In(r.text))
		o.Signature = r.arena.Since(from)
		if i > 0 {
			comment = source.Span{}
		}
		r.add(o, comment, directives)
		if required != "" && properties[i] != "..." && r.inPattern(at, name) {
			r.facts.Imports = append(r.facts.Imports, model.Import{Name: name.In(r.text), Assumed: name.In(r.text), Path: required, Member: properties[i], Span: name})
		}
	}
	return stop
}

// back is an offset without the blanks before it.
func (r *reader) back(at int) int {
	for at > 0 && isBlank(r.text[at-1]) {
		at--
	}
	return at
}

func kindOfVariable(word string) model.Kind {
	if word == "const" || word == "using" {
		return model.KindConstant
	}
	return model.KindVariable
}

// exportOf tells whether a statement exports what it declares.
func (r *reader) exportOf(h *heads) model.Export {
	switch {
	case h.export:
		return model.Exported
	case r.outer:
		if r.ambient || h.declare {
			return model.Exported
		}
	}
	return model.NotExported // settled when the file is read
}

// bound lists the names that a pattern binds, and the properties that they are taken from.
func (r *reader) bound(at, end int) (names []source.Span, properties []string) {
	r.patternNames(at, end, 0, func(property string, name source.Span) {
		if property == "" {
			property = name.In(r.text)
		}
		names, properties = append(names, name), append(properties, property)
	})
	return names, properties
}

// inPattern reports whether a name stands in the pattern that opens at an offset itself,
// and in none within it.
func (r *reader) inPattern(open int, name source.Span) bool {
	return !strings.ContainsAny(r.text[open+1:name.Start], "{[")
}

// patternNames yields, for each element of a pattern, the property that it takes
// and the name that it binds.
func (r *reader) patternNames(at, end, depth int, yield func(property string, name source.Span)) {
	object := r.text[at] == '{'
	end-- // the closing bracket
	at++
	for at < end && depth < deepest {
		at = r.after(at)
		if at >= end {
			return
		}
		if r.text[at] == ',' {
			at++
			continue
		}
		rest := strings.HasPrefix(r.text[at:], "...")
		if rest {
			at = r.after(at + 3)
		}
		property := ""
		name := at
		if object && !rest {
			nameEnd := r.nameEnd(at)
			switch c := r.byteAt(at); {
			case c == '[':
				nameEnd = r.bracketed(at)
			case c == '"' || c == '\'':
				nameEnd = r.quoted(at)
				property = strings.Trim(r.text[at:nameEnd], `"'`)
			case nameEnd == at:
				for nameEnd < end && inNames[r.text[nameEnd]] {
					nameEnd++
				}
				property = r.text[at:nameEnd]
			default:
				property = r.text[at:nameEnd]
			}
			if next := r.after(nameEnd); r.byteAt(next) == ':' {
				name = r.after(next + 1)
			}
		}
		if rest {
			property = "..."
		}
		switch c := r.byteAt(name); {
		case c == '{' || c == '[':
			inner := r.bracketed(name)
			if inner <= end+1 {
				r.patternNames(name, inner, depth+1, func(_ string, n source.Span) { yield(property, n) })
			}
			at = inner
		default:
			nameEnd := r.nameEnd(name)
			if nameEnd > name && nameEnd <= end {
				yield(property, source.NewSpan(name, nameEnd))
			}
			at = max(nameEnd, at+1)
		}
		if next := r.after(at); r.byteAt(next) == '=' {
			at = r.argument(next + 1)
		}
	}
}

// alias reads "type Name<T> = ...".
func (r *reader) alias(h *heads, name int) {
	end := r.nameEnd(name)
	at := r.after(end)
	typeParams := source.Span{}
	if r.byteAt(at) == '<' {
		stop, _ := r.typeArguments(at)
		typeParams = source.NewSpan(at, stop)
		at = r.after(stop)
	}
	if r.byteAt(at) != '=' {
		r.expressionStatement(h)
		return
	}
	from := r.after(at + 1)
	o := model.Occurrence{Kind: model.KindType, NameSpan: source.NewSpan(name, end), Export: r.exportOf(h)}
	mark := r.arena.Begin()
	r.put(model.TokenKeyword, "type ")
	r.put(model.TokenName, r.text[name:end])
	params := r.typeParamTokens(typeParams)
	r.put(model.TokenPunctuation, " = ")
	stop := r.putType(from)
	o.Span = source.NewSpan(h.start, stop)
	o.Extra = model.NewExtra(params, nil, nil)
	o.Signature = r.arena.Since(mark)
	index := r.add(o, h.comment, h.directives)
	r.objectTypes(index, from, r.back(stop))
	r.finish(stop)
}

// objectTypes reads the members of a type that is written as an object, or as several
// types together of which some are objects.
func (r *reader) objectTypes(index int32, at, stop int) {
	for open := []int(nil); ; {
		if r.byteAt(at) == '&' {
			at = r.after(at + 1)
		}
		end := at
		if r.byteAt(at) == '{' {
			if end = r.bracketed(at); !r.mapped(at) {
				open = append(open, at)
			}
		} else if e, ok := r.operandType(at); ok {
			end = e
		}
		if end <= at || end > stop {
			return
		}
		if end == stop {
			for _, at := range open {
				r.objectType(index, at)
			}
			return
		}
		if at = r.after(end); r.byteAt(at) != '&' {
			return // one of several: none of its members is surely there
		}
	}
}

// mapped reports whether braces hold "[K in T]: ...".
func (r *reader) mapped(open int) bool {
	at := r.after(open + 1)
	if c := r.byteAt(at); c == '+' || c == '-' {
		at = r.after(at + 1)
	}
	if r.wordAt(at, "readonly") {
		at = r.after(at + len("readonly"))
	}
	if r.byteAt(at) != '[' {
		return false
	}
	name := r.after(at + 1)
	return r.wordAt(r.after(r.nameEnd(name)), "in")
}

// objectType reads the members of an object in a type: to users they are what those of
// an interface are, though the language has no declaration for them.
func (r *reader) objectType(index int32, open int) {
	first, was := len(r.facts.Occurrences), r.at
	r.at = open + 1
	r.within(index, r.signatures)
	r.local(first)
	r.at = was
}

// namespace reads "namespace A.B { ... }", "module 'name' { ... }" and "global { ... }".
func (r *reader) namespace(h *heads, name int) {
	end := r.nameEnd(name)
	o := model.Occurrence{Kind: model.KindNamespace, Export: r.exportOf(h)}
	if c := r.byteAt(name); c == '"' || c == '\'' {
		end = r.quoted(name)
		o.Name = strings.Trim(r.text[name:end], `"'`)
		o.Kind = model.KindModule
		o.Export = model.Exported
	}
	o.NameSpan = source.NewSpan(name, end)
	mark := r.arena.Begin()
	switch {
	case o.Kind == model.KindModule:
		r.put(model.TokenKeyword, "declare module ")
	case o.NameSpan.In(r.text) != "global":
		r.put(model.TokenKeyword, "namespace ")
	}
	r.put(model.TokenName, o.NameSpan.In(r.text))
	o.Signature = r.arena.Since(mark)
	o.Span = source.NewSpan(h.start, end)
	index := r.add(o, h.comment, h.directives)
	at := r.after(end)
	switch r.byteAt(at) {
	case '.':
		r.deep++
		defer func() { r.deep-- }()
		if r.deep > deepest {
			r.tooDeep(at)
			r.finish(r.whole(at))
			return
		}
		inner := *h
		inner.comment, inner.directives, inner.export = source.Span{}, nil, true
		r.within(index, func() { r.namespace(&inner, r.after(at+1)) })
	case '{':
		r.at = at + 1
		wasAmbient := r.ambient
		r.ambient = r.ambient || h.declare
		r.within(index, r.block)
		r.ambient = wasAmbient
	default:
		r.finish(end)
	}
}

// block reads the statements up to the brace that closes the block.
func (r *reader) block() {
	r.deep++
	defer func() { r.deep-- }()
	for {
		r.next()
		switch {
		case r.at >= len(r.text):
			r.missing(len(r.text))
			r.last = r.at
			return
		case r.text[r.at] == '}':
			r.at++
			r.last = r.at
			return
		case r.deep > deepest:
			r.tooDeep(r.at)
			r.at = r.after(r.whole(r.at))
			if r.byteAt(r.at) == ';' {
				r.at++
			}
		default:
			r.progress(r.statement)
		}
	}
}

// enum reads an enumeration.
func (r *reader) enum(h *heads, name int, constant bool) {
	end := r.nameEnd(name)
	o := model.Occurrence{Kind: model.KindEnum, NameSpan: source.NewSpan(name, end), Span: source.NewSpan(h.start, end), Export: r.exportOf(h)}
	mark := r.arena.Begin()
	if constant {
		r.put(model.TokenKeyword, "const ")
	}
	r.put(model.TokenKeyword, "enum ")
	r.put(model.TokenName, r.text[name:end])
	o.Signature = r.arena.Since(mark)
	index := r.add(o, h.comment, h.directives)
	at := r.after(end)
	if r.byteAt(at) != '{' {
		r.finish(end)
		return
	}
	r.at = at + 1
	r.within(index, func() { r.braced(r.enumMember) })
}

// braced reads members one after the other up to the brace that closes what they
// stand in, whatever stands between them.
func (r *reader) braced(read func()) {
	opened := r.at
	for {
		r.next()
		switch c := r.byteAt(r.at); {
		case r.at >= len(r.text):
			r.missing(opened)
			r.last = r.at
			return
		case c == '}':
			r.at++
			r.last = r.at
			return
		case c == ';' || c == ',':
			r.at++
		default:
			r.progress(read)
		}
	}
}

func (r *reader) enumMember() {
	span, name := r.memberName(r.at)
	if name == "" {
		r.at = r.argument(r.at)
		return
	}
	o := model.Occurrence{Kind: model.KindEnumMember, NameSpan: span, Name: name}
	start := r.at
	stop := int(span.End)
	mark := r.arena.Begin()
	r.put(model.TokenName, name)
	if next := r.after(stop); r.byteAt(next) == '=' {
		valueAt := r.after(next + 1)
		comment, directives := r.comment, r.directives
		stop = r.argument(next + 1)
		r.comment, r.directives = comment, directives
		r.value(valueAt, r.back(stop))
	}
	o.Signature = r.arena.Since(mark)
	o.Span = source.NewSpan(start, r.back(stop))
	r.add(o, r.comment, r.directives)
	r.at = stop
}
