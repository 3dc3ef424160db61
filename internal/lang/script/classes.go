package script

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads classes and interfaces.

// class reads a class from behind its word.
func (r *reader) class(h *heads, at int) {
	o := model.Occurrence{Kind: model.KindClass, Export: r.exportOf(h)}
	end := r.nameEnd(at)
	if word := r.text[at:end]; word == "extends" || word == "implements" && r.byteAt(r.after(end)) != '{' {
		end = at
	}
	o.NameSpan = source.NewSpan(at, end)
	if end == at {
		if !h.byDefault && r.byteAt(at) != '{' {
			r.expressionStatement(h)
			return
		}
		o.Name, o.NameSpan = "default", source.NewSpan(h.start, h.start)
	}
	if h.byDefault && end > at {
		o.Export = model.Renamed
		r.givesByDefault(r.text[at:end], o.NameSpan)
	}
	r.classBody(h, &o, r.after(end), h.comment, h.directives)
	r.finish(r.last)
}

// classValue reads "const Name = class ... { ... }", whose name is the constant's.
func (r *reader) classValue(h *heads, name, nameEnd, at int, comment source.Span, directives []model.Directive) int {
	o := model.Occurrence{Kind: model.KindClass, NameSpan: source.NewSpan(name, nameEnd), Export: r.exportOf(h)}
	at = r.after(at + len("class"))
	if word := r.word(at); word != "extends" && word != "" {
		at = r.after(at + len(word))
	}
	r.classBody(h, &o, at, comment, directives)
	return r.last
}

// classBody reads what a class extends and its members.
func (r *reader) classBody(h *heads, o *model.Occurrence, at int, comment source.Span, directives []model.Directive) {
	mark := r.arena.Begin()
	if h.abstract {
		r.put(model.TokenKeyword, "abstract ")
	}
	r.put(model.TokenKeyword, "class ")
	r.put(model.TokenName, r.nameOf(o))
	var typeParams []model.Param
	if r.byteAt(at) == '<' {
		end, _ := r.typeArguments(at)
		typeParams = r.typeParamTokens(source.NewSpan(at, max(at, end)))
		at = r.after(max(end, at+1))
	}
	var bases []model.Base
	bases, at = r.heritage(at)
	o.Signature = r.arena.Since(mark)
	o.Extra = model.NewExtra(typeParams, bases, nil)
	if h.abstract {
		o.Modify("abstract")
	}
	o.Span = source.NewSpan(h.start, max(h.start, at))
	index := r.add(*o, comment, directives)
	r.last = at
	if r.byteAt(at) != '{' {
		r.missing(at)
		return
	}
	r.at = at + 1
	r.within(index, r.members)
}

// heritage reads "extends Base<T> implements A, B" up to the brace of the body.
func (r *reader) heritage(at int) ([]model.Base, int) {
	var bases []model.Base
	for {
		word := r.word(at)
		switch word {
		case "extends", "implements":
		default:
			return bases, at
		}
		r.put(model.TokenKeyword, " "+word+" ")
		from := r.after(at + len(word))
		if word == "implements" {
			for n := 0; ; n++ {
				if n > 0 {
					r.put(model.TokenPunctuation, ", ")
				}
				to := r.typeEnd(from)
				if to == from {
					return bases, from
				}
				mark := r.arena.Mark()
				r.typeTokens(from, to)
				bases = append(bases, model.Base{Type: r.arena.Since(mark), Span: source.NewSpan(from, to), How: model.Implements})
				at = r.after(to)
				if r.byteAt(at) != ',' {
					break
				}
				from = r.after(at + 1)
			}
			continue
		}
		to := max(from, r.superclass(from))
		mark := r.arena.Mark()
		if text := r.text[from:to]; len(text) <= longestValue && !strings.Contains(text, "{") {
			r.typeTokens(from, to)
		} else {
			end := r.nameEnd(from)
			r.put(model.TokenType, r.text[from:end])
			r.put(model.TokenPunctuation, "(…)")
		}
		bases = append(bases, model.Base{Type: r.arena.Since(mark), Span: source.NewSpan(from, to)})
		at = r.after(to)
	}
}

// superclass is the offset behind the expression that a class extends: the
// brace that opens the body is the first one that begins no operand.
func (r *reader) superclass(at int) int {
	r.sig = -1
	arguments := false // what was read last were type arguments
	for at < len(r.text) {
		next := r.after(at)
		ended := arguments
		arguments = false
		switch c := r.byteAt(next); {
		case c == '{':
			if ended || r.sig >= 0 && !r.operandNext() {
				return r.back(at)
			}
			at = r.bracketed(next)
		case c == '(' || c == '[':
			at = r.bracketed(next)
		case c == '<':
			end, ok := r.typeArguments(next)
			if !ok {
				return r.back(at)
			}
			at, arguments = end, true
		case c == '"' || c == '\'':
			at = r.quoted(next)
		case c == '`':
			at = r.template(next)
		case c == 0 || c == ';' || c == '}':
			return r.back(at)
		case startsName(c):
			end := r.nameEnd(next)
			word := r.text[next:end]
			if word == "implements" && r.sig >= 0 {
				return r.back(at)
			}
			at = max(end, next+1)
			if word == "class" {
				_, brace := lexerOnly(&r.lexer).skipHead(r.after(at))
				at = brace
				if r.byteAt(at) == '{' {
					at = r.bracketed(at)
				}
				r.sig = at - 1
				r.opened = at - 1
				continue
			}
		default:
			at = next + 1
		}
		r.sig = at - 1
	}
	return at
}

func lexerOnly(l *lexer) *lexer { return l }

// skipHead is the offset of the brace of a class expression's body.
func (l *lexer) skipHead(at int) (name string, brace int) {
	for at < len(l.text) && l.text[at] != '{' && l.text[at] != ';' {
		if l.text[at] == '(' {
			at = l.bracketed(at)
			continue
		}
		at++
	}
	return "", at
}

// members reads the members of a class up to its closing brace.
func (r *reader) members() {
	forms := ""
	r.deep++
	defer func() { r.deep-- }()
	r.braced(func() { r.scoped(func() { forms = r.member(forms) }) })
}

// member modifiers, in any order.
func isModifier(word string) bool {
	switch word {
	case "public", "private", "protected", "static", "readonly", "abstract", "override", "declare", "async", "get", "set", "accessor", "export", "default", "const", "in", "out":
		return true
	}
	return false
}

// signs after which a word before them is a name and no modifier.
const endsName = "(=;:?!},<"

// modifiers are the words before the name of a member.
type modifiers struct {
	visibility model.Visibility
	accessor   string // "get" or "set"
	shown      []string
	words      []string // all but those of access
	static     bool
	generator  bool
}

// modifiers reads the words from an offset on; ok is false where what begins there
// is a block of a class and no member.
func (r *reader) modifiers(at int) (m modifiers, name int, ok bool) {
	for isModifier(r.word(at)) {
		word := r.word(at)
		next, newline := r.skip(at + len(word))
		if r.isMemberName(word, next, newline) {
			break
		}
		switch word {
		case "private":
			m.visibility = model.Private
		case "protected":
			m.visibility = model.Protected
		case "public", "export", "default":
		case "declare", "override":
			m.words = append(m.words, word)
		case "static":
			if r.byteAt(next) == '{' {
				return m, next, false
			}
			m.static = true
			m.shown, m.words = append(m.shown, word), append(m.words, word)
		default:
			if word == "get" || word == "set" {
				m.accessor = word
			} else {
				m.words = append(m.words, word)
			}
			m.shown = append(m.shown, word)
		}
		at = next
	}
	if r.byteAt(at) == '*' {
		m.generator = true
		at = r.after(at + 1)
	}
	return m, at, true
}

// isMemberName reports whether a word that could be a modifier is the name of the
// member instead: what follows it begins none, or stands on another line.
func (r *reader) isMemberName(word string, next int, newline bool) bool {
	c := r.byteAt(next)
	if c == 0 || strings.IndexByte(endsName, c) >= 0 && (word != "static" || c != '{') {
		return true
	}
	switch word {
	case "get", "set", "async":
		return newline
	case "static", "accessor", "declare", "readonly":
		return newline && !startsName(c) && strings.IndexByte("#[*\"'{", c) < 0
	}
	return false
}

// member reads one member. forms is the name of the method before, if that was a
// form without a body; the result is the same for this one.
func (r *reader) member(forms string) string {
	start, comment, directives := r.at, r.comment, r.directives
	for r.byteAt(r.at) == '@' {
		r.at = r.after(r.decorator(r.at))
	}
	m, at, ok := r.modifiers(r.at)
	if !ok {
		r.at = r.bracketed(at)
		r.last = r.at
		return ""
	}
	if r.byteAt(at) == '[' && r.indexed(at) {
		r.index(at, start, comment, directives)
		return ""
	}
	span, name := r.memberName(at)
	if name == "" {
		r.at = r.expression(at)
		return ""
	}
	o := model.Occurrence{Kind: model.KindField, NameSpan: span, Name: name, Visibility: m.visibility, Span: source.NewSpan(start, start)}
	if strings.HasPrefix(name, "#") {
		o.Visibility = model.Private
	}
	next := r.after(int(span.End))
	mark := r.byteAt(next)
	stop := int(span.End)
	if mark == '?' || mark == '!' {
		next = r.after(next + 1)
		stop = next
	}
	begin := r.memberHead(m, name, mark)
	if c := r.byteAt(next); c == '(' || c == '<' {
		f := function{generator: m.generator}
		if r.begins(&f, next) {
			return r.method(o, m, &f, forms, begin, comment, directives)
		}
	}
	if r.byteAt(next) == ':' {
		from := r.after(next + 1)
		r.put(model.TokenPunctuation, ": ")
		stop = r.putType(from)
		next = r.after(stop)
	}
	if r.byteAt(next) == '=' {
		from := r.after(next + 1)
		stop = r.expression(next + 1)
		r.value(from, r.back(stop))
	}
	o.Signature = r.arena.Since(begin)
	o.Span.End = int32(max(r.back(stop), start))
	r.add(o, comment, directives)
	r.finish(stop)
	return ""
}

// memberHead begins a signature with the words before a member's name, the name,
// and the mark behind it that says it may be missing.
func (r *reader) memberHead(m modifiers, name string, mark byte) int {
	begin := r.arena.Begin()
	for _, word := range m.shown {
		r.put(model.TokenKeyword, word+" ")
	}
	if m.generator {
		r.put(model.TokenPunctuation, "*")
	}
	r.put(model.TokenName, name)
	if mark == '?' {
		r.put(model.TokenPunctuation, "?")
	}
	return begin
}

// method keeps a member that can be called, and gives its name where it is a form
// without a body. forms is the name of such a form before it.
func (r *reader) method(o model.Occurrence, m modifiers, f *function, forms string, begin int, comment source.Span, directives []model.Directive) string {
	o.Kind = model.KindMethod
	switch {
	case m.accessor != "":
		o.Kind = model.KindProperty
	case o.Name == "constructor" && !m.static:
		o.Kind = model.KindConstructor
	}
	r.functionTokens(&o, f)
	o.Modify(m.words...)
	o.Implementation = r.typed && !f.body.Empty() && forms == o.Name && m.accessor == ""
	o.Signature = r.arena.Since(begin)
	o.Span.End = int32(f.end)
	r.add(o, comment, directives)
	r.keepBody(*f)
	if o.Kind == model.KindConstructor {
		r.setInConstructor(*f)
	}
	r.finish(f.end)
	if f.body.Empty() {
		return o.Name
	}
	return ""
}

// memberName reads the name of a member: quoted, computed and private ones too.
func (r *reader) memberName(at int) (source.Span, string) {
	switch c := r.byteAt(at); {
	case c == '"' || c == '\'':
		end := r.quoted(at)
		return source.NewSpan(at, end), r.text[at+1 : max(at+1, end-1)]
	case c == '[':
		end := r.bracketed(at)
		return source.NewSpan(at, end), strings.Join(strings.Fields(r.text[at:end]), " ")
	case c == '#':
		end := r.nameEnd(at + 1)
		return source.NewSpan(at, end), r.text[at:end]
	case c >= '0' && c <= '9' || c == '.' || c == '-':
		end := at + 1
		for end < len(r.text) && (inNames[r.text[end]] || r.text[end] == '.') {
			end++
		}
		return source.NewSpan(at, end), r.text[at:end]
	}
	end := r.nameEnd(at)
	return source.NewSpan(at, end), r.text[at:end]
}

// indexed reports whether brackets are an index signature: "[key: string]".
func (r *reader) indexed(at int) bool {
	if !r.typed {
		return false
	}
	name := r.after(at + 1)
	end := r.nameEnd(name)
	return end > name && r.byteAt(r.after(end)) == ':'
}

// index reads an index signature.
func (r *reader) index(at, start int, comment source.Span, directives []model.Directive) {
	end := r.bracketedType(at)
	o := model.Occurrence{Kind: model.KindIndexer, NameSpan: source.NewSpan(at, at+1), Name: "[]", Callable: &model.Callable{}}
	name := r.after(at + 1)
	nameEnd := r.nameEnd(name)
	begin := r.arena.Begin()
	r.put(model.TokenName, "[")
	r.put(model.TokenParameter, r.text[name:nameEnd])
	r.put(model.TokenPunctuation, ": ")
	typeFrom := r.after(r.after(nameEnd) + 1)
	r.typeTokens(typeFrom, max(typeFrom, end-1))
	r.put(model.TokenPunctuation, "]")
	o.Callable.Params = append(o.Callable.Params, model.Param{Name: r.text[name:nameEnd]})
	stop := end
	if next := r.after(end); r.byteAt(next) == ':' {
		from := r.after(next + 1)
		r.put(model.TokenPunctuation, ": ")
		stop = r.putType(from)
	}
	o.Signature = r.arena.Since(begin)
	o.Span = source.NewSpan(start, stop)
	r.add(o, comment, directives)
	r.finish(stop)
}

// setInConstructor declares what a constructor makes of its object: parameters
// with a modifier, and what is set on "this" under a doc comment.
func (r *reader) setInConstructor(f function) {
	if r.typed {
		r.parameterProperties(f)
	}
	if f.body.Empty() {
		return
	}
	body := f.body.In(r.text)
	for at := 0; ; {
		i := strings.Index(body[at:], "/**")
		if i < 0 {
			return
		}
		i += at
		end := strings.Index(body[i:], "*/")
		if end < 0 {
			return
		}
		end += i + 2
		at = end
		from := r.after(int(f.body.Start) + end)
		if !strings.HasPrefix(r.text[from:], "this.") || from >= int(f.body.End) {
			continue
		}
		name := from + len("this.")
		nameEnd := name
		if r.byteAt(name) == '#' {
			nameEnd = r.nameEnd(name + 1)
		} else {
			nameEnd = r.nameEnd(name)
		}
		sign, ended := r.skip(nameEnd)
		ended = ended && startsName(r.byteAt(sign)) || r.byteAt(sign) == ';' || r.byteAt(sign) == '}'
		if nameEnd == name || r.byteAt(sign) != '=' && !ended || r.byteAt(sign+1) == '=' {
			continue
		}
		o := model.Occurrence{Kind: model.KindField, NameSpan: source.NewSpan(name, nameEnd)}
		if r.byteAt(name) == '#' {
			o.Visibility = model.Private
		}
		stop := nameEnd
		begin := r.arena.Begin()
		r.put(model.TokenName, r.text[name:nameEnd])
		if r.byteAt(sign) == '=' {
			stop = r.back(r.expression(sign + 1))
		}
		o.Signature = r.arena.Since(begin)
		o.Span = source.NewSpan(from, stop)
		r.add(o, source.NewSpan(int(f.body.Start)+i, int(f.body.Start)+end), nil)
	}
}

// parameterProperties declares the parameters of a constructor that have a modifier.
func (r *reader) parameterProperties(f function) {
	at := f.open + 1
	for at < len(r.text) {
		r.at = at
		r.nextDoc(true)
		at = r.at
		comment := r.comment
		if at >= len(r.text) || r.text[at] == ')' {
			return
		}
		start := at
		for r.byteAt(at) == '@' {
			at = r.after(r.decorator(at))
		}
		o := model.Occurrence{Kind: model.KindField}
		property := false
		for isParameterModifier(r.word(at)) {
			next := r.after(r.nameEnd(at))
			if !startsName(r.byteAt(next)) {
				break
			}
			property = true
			switch r.word(at) {
			case "private":
				o.Visibility = model.Private
			case "protected":
				o.Visibility = model.Protected
			}
			at = next
		}
		end := r.nameEnd(at)
		next := r.after(end)
		typeFrom, typeTo := 0, 0
		if r.byteAt(next) == '?' {
			next = r.after(next + 1)
		}
		if r.byteAt(next) == ':' {
			typeFrom = r.after(next + 1)
			typeTo = r.typeEnd(typeFrom)
		}
		r.sig = at - 1
		stop := r.argument(max(at, typeTo))
		if property && end > at {
			o.NameSpan, o.Span = source.NewSpan(at, end), source.NewSpan(start, max(r.back(stop), end))
			begin := r.arena.Begin()
			r.put(model.TokenName, r.text[at:end])
			if typeTo > typeFrom {
				r.put(model.TokenPunctuation, ": ")
				r.typeTokens(typeFrom, typeTo)
				next = r.after(typeTo)
			}
			if r.byteAt(next) == '=' {
				r.value(r.after(next+1), r.back(stop))
			}
			o.Signature = r.arena.Since(begin)
			r.add(o, comment, nil)
		}
		if r.byteAt(stop) != ',' {
			return
		}
		at = stop + 1
	}
}

// interfaces reads an interface.
func (r *reader) interfaces(h *heads, name int) {
	end := r.nameEnd(name)
	o := model.Occurrence{Kind: model.KindInterface, NameSpan: source.NewSpan(name, end), Export: r.exportOf(h)}
	if h.byDefault {
		o.Export = model.Renamed
		r.givesByDefault(r.text[name:end], o.NameSpan)
	}
	at := r.after(end)
	mark := r.arena.Begin()
	r.put(model.TokenKeyword, "interface ")
	r.put(model.TokenName, r.text[name:end])
	var typeParams []model.Param
	if r.byteAt(at) == '<' {
		stop, _ := r.typeArguments(at)
		typeParams = r.typeParamTokens(source.NewSpan(at, max(at, stop)))
		at = r.after(max(stop, at+1))
	}
	var bases []model.Base
	if r.wordAt(at, "extends") {
		r.put(model.TokenKeyword, " extends ")
		from := r.after(at + len("extends"))
		for n := 0; ; n++ {
			if n > 0 {
				r.put(model.TokenPunctuation, ", ")
			}
			to, ok := r.operandType(from)
			if !ok {
				break
			}
			part := r.arena.Mark()
			r.typeTokens(from, to)
			bases = append(bases, model.Base{Type: r.arena.Since(part), Span: source.NewSpan(from, to)})
			at = r.after(to)
			if r.byteAt(at) != ',' {
				break
			}
			from = r.after(at + 1)
		}
	}
	o.Signature = r.arena.Since(mark)
	o.Extra = model.NewExtra(typeParams, bases, nil)
	o.Span = source.NewSpan(h.start, max(h.start, at))
	index := r.add(o, h.comment, h.directives)
	r.last = at
	if r.byteAt(at) != '{' {
		r.expressionStatement(h)
		return
	}
	r.at = at + 1
	r.within(index, r.signatures)
	r.finish(r.last)
}

// signatures reads the members of an interface.
func (r *reader) signatures() { r.braced(r.signatureMember) }

func (r *reader) signatureMember() {
	start, at, comment, directives := r.at, r.at, r.comment, r.directives
	accessor := ""
	var shown []string
	for {
		word := r.word(at)
		if word != "readonly" && word != "get" && word != "set" {
			break
		}
		next := r.after(at + len(word))
		if c := r.byteAt(next); c == 0 || strings.IndexByte(endsName, c) >= 0 {
			break
		}
		if word != "readonly" {
			accessor = word
		}
		shown = append(shown, word)
		at = next
	}
	o := model.Occurrence{Kind: model.KindField}
	open := at
	switch c := r.byteAt(at); {
	case c == '[' && r.indexed(at):
		r.index(at, start, comment, directives)
		return
	case c == '(' || c == '<':
		o.Name, o.NameSpan, o.Kind = "()", source.NewSpan(at, at+1), model.KindMethod
	case r.wordAt(at, "new") && strings.IndexByte("(<", r.byteAt(r.after(at+3))) >= 0:
		open = r.after(at + 3)
		o.Name, o.NameSpan, o.Kind = "new", source.NewSpan(at, at+3), model.KindConstructor
	default:
		o.NameSpan, o.Name = r.memberName(at)
		if o.Name == "" {
			r.at = r.argument(at)
			return
		}
		open = r.after(int(o.NameSpan.End))
	}
	begin := r.arena.Begin()
	for _, word := range shown {
		r.put(model.TokenKeyword, word+" ")
	}
	if o.Name != "()" {
		r.put(model.TokenName, o.Name)
	} else {
		r.put(model.TokenName, "")
	}
	if r.byteAt(open) == '?' {
		r.put(model.TokenPunctuation, "?")
		open = r.after(open + 1)
	}
	stop, ok := r.signatureType(&o, open, accessor)
	if !ok {
		r.at = r.argument(open)
		return
	}
	o.Signature = r.arena.Since(begin)
	o.Span = source.NewSpan(start, max(stop, start))
	r.add(o, comment, directives)
	r.at, r.last = stop, stop
}

// signatureType reads what follows the name of a member of an interface: parameters and a
// result, or a type. ok is false where parameters turn out to be none.
func (r *reader) signatureType(o *model.Occurrence, open int, accessor string) (stop int, ok bool) {
	stop = open
	if c := r.byteAt(open); c == '(' || c == '<' {
		var f function
		if !r.begins(&f, open) {
			return open, false
		}
		if o.Kind == model.KindField {
			o.Kind = model.KindMethod
		}
		if accessor != "" {
			o.Kind = model.KindProperty
		}
		r.functionTokens(o, &f)
		stop = f.end
	} else {
		stop = int(o.NameSpan.End)
		if c == ':' {
			from := r.after(open + 1)
			r.put(model.TokenPunctuation, ": ")
			stop = r.putType(from)
		} else if open > stop && r.byteAt(open-1) == '?' {
			stop = open
		}
	}
	return stop, true
}
