package cfamily

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file reads declarations of functions, variables, fields and types by name, and what
// stands in one with them: a struct, a union, a class or an enumeration.

// template is what stands before a declaration that is one.
type template struct {
	from, to int // its heads, or the same where there are none
	params   []model.Param
	special  bool // all its parameters are given: "template <>"
}

var noTemplate = template{}

// simple reads the declaration that begins at from, of which at is the first word.
func (r *reader) simple(from, at, end int, own *owner, t template) int {
	s := specs{from: from, begin: at, call: -1, tag: noTag, member: own.record, run: r.roomForRun()}
	next := r.specified(&s, end, own, t)
	r.backFromRun(&s)
	return next
}

// specified reads what a declaration says, and gives the index behind it.
func (r *reader) specified(s *specs, end int, own *owner, t template) int {
	from, at := s.from, s.begin
	if t.to <= t.from { // the linkage is not shown
		r.drop(from, at)
	}
	i, stop := r.take(at, end, s, own)
	if stop {
		return max(i, at+1)
	}
	if s.tag.at >= 0 && (r.Is(i, ';') || i >= end || r.Is(i, '}')) && len(s.run) == 0 {
		r.alone(s, own, t, min(i, end))
		return min(i+1, end)
	}
	if s.tag.open >= 0 && s.tag.name >= 0 && !s.typedef && r.Is(i, ';') && s.macrosAlone() { // how it is laid out
		r.dropRun(s)
		r.alone(s, own, t, i)
		return i + 1
	}
	if s.tag.at >= 0 && len(s.run) == 0 && s.tag.open >= 0 && !r.declares(i) { // the semicolon is missing
		r.alone(s, own, t, i)
		return i
	}
	if s.macrosAlone() && (i >= end || r.Is(i, '}')) { // they stand for something whole
		return max(i, at+1)
	}
	if r.plus && r.Is(i, '[') && len(s.run) == 0 { // names for the parts of a value
		return r.UpTo(i, end, ';')
	}
	if r.plus && len(s.run) > 0 && s.guide {
		return r.UpTo(i, end, ';')
	}
	shared := 0 // of what is not shown, what stands before all declarators
	for n := 0; ; n++ {
		d := r.declarator(i, end, s, own)
		if i = d.next; d.name < 0 {
			if r.Is(i, ':') && own.record { // bits without a name
				i = r.overBits(i, end)
			} else if !r.Is(i, ';') && !r.Is(i, ',') {
				return r.lost(i, end, at)
			}
		} else {
			var more bool
			if i, more = r.declare(s, d, i, end, own, t, n); !more {
				return i
			}
		}
		if n == 0 {
			shared = len(r.drops)
		}
		switch {
		case r.Is(i, ','):
			i++
			r.drops, r.sorted = r.drops[:shared], min(r.sorted, shared)
			s.run, s.call = s.run[:0], -1
			r.params = r.params[:0]
			if i, stop = r.take(i, end, s, own); stop {
				return max(i, at+1)
			}
		case r.Is(i, ';'):
			return i + 1
		default:
			return r.lost(i, end, at)
		}
	}
}

// macrosAlone reports whether all words of a run are formed as macros.
func (s *specs) macrosAlone() bool {
	for _, w := range s.run {
		if !w.macro {
			return false
		}
	}
	return len(s.run) > 0 && s.call < 0
}

func boolean(is bool) int {
	if is {
		return 1
	}
	return 0
}

// lost is the index behind what is no declaration.
func (r *reader) lost(i, end, at int) int {
	if i < end && r.Is(i, '}') {
		return max(i, at+1)
	}
	return max(r.PastUnknown(i, end), at+1)
}

// declares reports whether what stands behind the body of a type may be declared with it.
func (r *reader) declares(i int) bool {
	return r.Is(i, '*') || r.Is(i, '&') || r.Is(i, '(') || r.Is(i, ':') || r.Is(i, ',')
}

// overBits is the index behind the width of a bit field, and what it begins with.
func (r *reader) overBits(i, end int) int {
	for i < end && !r.Is(i, ';') && !r.Is(i, ',') && !r.Is(i, '}') {
		i = r.Over(i)
	}
	return min(i, end)
}

// declare adds what a declarator declares, and reads on behind it. more says that further
// declarators may follow.
func (r *reader) declare(s *specs, d declared, i, end int, own *owner, t template, n int) (next int, more bool) {
	body := -1
	tailFrom := i
	if d.fn && !s.typedef {
		i, body = r.tail(i, end, s, &d)
	}
	if r.Is(i, ':') && own.record && !d.fn {
		i = r.overBits(i, end)
	}
	headEnd := i
	if body < 0 && (r.Is(i, '=') || r.Is(i, '{') && !d.fn && r.plus || r.Is(i, '(') && r.plus && !d.fn) {
		i = r.initialiser(i, end)
	}
	stop := i
	if body >= 0 {
		stop = min(r.Over(body), end)
		for r.Word(stop) == "catch" { // of a function that is tried whole
			for stop < end && !r.Is(stop, '{') {
				stop = r.Over(stop)
			}
			stop = min(r.Over(stop), end)
		}
	}
	if n == 0 && s.tag.at >= 0 {
		r.withTag(s, d, own, t, stop)
	}
	if s.friend && body < 0 && own.record || s.typedef && s.tag.at >= 0 && s.tag.name < 0 && s.tag.open >= 0 && n == 0 && !d.pointer && !d.fn && !d.array && d.call < 0 {
		// a friend is declared elsewhere; a type without a name has that of its definition
	} else {
		r.emit(s, d, headEnd, tailFrom, stop, body, own, t, n)
	}
	if n == 0 && s.tag.at >= 0 && s.tag.name < 0 && s.tag.open >= 0 && s.tag.kind != model.KindEnum && !s.typedef && own.record {
		last := int32(len(r.Facts.Occurrences) - 1) // a field of a type without a name has the members
		o := &r.Facts.Occurrences[last]
		inner := owner{at: last, scope: joined(o.Scope, o.Name), kind: s.tag.kind, record: true}
		r.body(s, &inner)
	}
	if body >= 0 {
		return stop, false
	}
	return i, !s.whole || r.Is(i, ';')
}

// initialiser is the index behind a value: a comma or semicolon ends it.
func (r *reader) initialiser(i, end int) int {
	for i < end && !r.Is(i, ',') && !r.Is(i, ';') && !r.Is(i, '}') {
		if r.plus && r.Is(i, '<') && r.OverType(i) > i+1 {
			if after := r.OverType(i); after >= end || r.Tokens[after].Kind == lexing.Mark { // a comparison has a name or a value there
				i = after
				continue
			}
		}
		i = r.Over(i)
	}
	return min(i, end)
}

// tail reads what follows the parameters of a function, and gives the index behind it, and of
// its body or -1.
func (r *reader) tail(i, end int, s *specs, d *declared) (next, body int) {
	if !r.plus && r.Word(i) != "" && d.call >= 0 && r.oldParameters(d.call, d.callEnd-1) && r.oldBody(i, end) {
		d.old = true
		for i < end && !r.Is(i, '{') {
			i = r.Over(i)
		}
		return i, i
	}
	for i < end {
		switch w := r.Word(i); {
		case r.Is(i, '{'):
			return i, i
		case r.Is(i, ';') || r.Is(i, ',') || r.Is(i, '}'):
			return i, -1
		case r.Is(i, '='):
			switch r.Word(i + 1) {
			case "default", "delete":
				s.add(r.Word(i + 1))
				i += 2
			default:
				if i+1 < end && r.Text[r.Tokens[i+1].From:r.Tokens[i+1].To] == "0" {
					s.add("abstract")
					i += 2
				} else {
					return i, -1
				}
			}
		case r.Is(i, ':') && r.plus:
			return r.initialisers(i+1, end)
		case r.IsMark(i, "->") && r.plus:
			s.result[0] = i + 1
			i++
			for i < end && !r.Is(i, '{') && !r.Is(i, ';') && !r.Is(i, '=') && r.Word(i) != "requires" && r.Word(i) != "override" && r.Word(i) != "final" {
				i = r.OverType(i)
			}
			s.result[1] = i
		case r.Is(i, '[') && r.Is(i+1, '['), isAttribute(w):
			i = r.attribute(i, end, s)
		case w == "requires":
			i = r.overRequires(i+1, end)
		case w == "noexcept" || w == "throw":
			if i++; r.Is(i, '(') {
				i = min(r.Over(i), end)
			}
		case w == "override" || w == "final":
			s.add(w)
			i++
		case w == "const" || w == "volatile" || w == "try" || r.Is(i, '&') || r.IsMark(i, "&&") || isQualifier(w):
			i++
		case r.Tokens[i].Kind == lexing.Value:
			i++
		case w != "" && r.Tokens[i].Newline && (s.whole || r.freshAt(i)):
			return i, -1 // its semicolon stands in a macro
		case w != "":
			from := i
			if i++; r.Is(i, '(') {
				i = min(r.Over(i), end)
			}
			r.macroWord(from, i, s)
		case r.Is(i, '('):
			i = min(r.Over(i), end)
		default:
			return i, -1
		}
	}
	return end, -1
}

// freshAt reports whether a declaration surely begins at a word.
func (r *reader) freshAt(i int) bool {
	w := r.Word(i)
	return isStorage(w) && w != "inline" && w != "noreturn" && w != "_Noreturn" || w == "struct" || w == "enum" || w == "union" || w == "class" || w == "namespace" || w == "template" || w == "using" || r.commented(i)
}

// initialisers goes over what a constructor begins its members with, to its body.
func (r *reader) initialisers(i, end int) (next, body int) {
	for i < end {
		for i < end && !r.Is(i, '(') && !r.Is(i, '{') && !r.Is(i, ';') {
			i = r.OverType(i)
		}
		if i >= end || r.Is(i, ';') {
			return i, -1
		}
		i = min(r.Over(i), end)
		if r.IsMark(i, "...") {
			i++
		}
		for r.Word(i) != "" && !r.Is(i+1, '(') && !r.Is(i+1, '{') { // a macro
			i++
		}
		if !r.Is(i, ',') {
			break
		}
		i++
	}
	for i < end && !r.Is(i, '{') && !r.Is(i, ';') {
		i = r.Over(i)
	}
	if i < end && r.Is(i, '{') {
		return i, i
	}
	return i, -1
}

// overRequires is the index behind a constraint ([temp.pre]): expressions that "&&" and "||" join.
func (r *reader) overRequires(i, end int) int {
	for i < end {
		switch {
		case r.Word(i) == "requires":
			if i++; r.Is(i, '(') {
				i = r.Over(i)
			}
			if r.Is(i, '{') {
				i = r.Over(i)
			}
		case r.Is(i, '(') || r.Is(i, '!'):
			if r.Is(i, '!') {
				i++
				continue
			}
			i = r.Over(i)
		case r.Word(i) != "" || r.IsMark(i, "::"):
			q := r.qualified(i, end)
			if q <= i {
				return i + 1
			}
			if i = q; r.Is(i, '(') && (r.IsMark(r.Over(i), "&&") || r.IsMark(r.Over(i), "||")) {
				i = r.Over(i)
			}
		default:
			return i
		}
		if i < end && (r.IsMark(i, "&&") || r.IsMark(i, "||")) {
			i++
			continue
		}
		return min(i, end)
	}
	return end
}

// joined is a scope and a name in it.
func joined(scope, name string) string {
	if scope == "" {
		return name
	}
	return scope + "." + name
}

// scopeOf are the names that qualify a declarator's, without template arguments.
func (r *reader) scopeOf(d declared) string {
	if d.qual < 0 || d.qual >= d.name {
		return ""
	}
	var parts []string
	for i := d.qual; i < d.name; i = r.OverType(i) {
		w := r.Word(i)
		if isMacro(w) { // a type with arguments that are long to write
			if definition, ok := r.macro(w); ok && wordAt(definition) != "" {
				w = wordAt(definition)
			}
		}
		if w != "" && w != "template" {
			parts = append(parts, w)
		}
	}
	return strings.Join(parts, ".")
}

// commentOf is what the comments say of a declarator: those before the declaration speak of the
// first, those behind each of it.
func (r *reader) commentOf(s *specs, n, next int) lexing.Said {
	if !s.said {
		s.said = true
		s.comment = r.said(s.from)
	}
	said := s.comment
	if n > 0 && said.Doc != nil && said.Doc.Span.End <= r.Tokens[s.from].From {
		// one comment for several names is that of each
		said = lexing.Said{Doc: said.Doc, Directives: said.Directives}
	}
	if behind := r.behind(next); behind != nil && n > 0 {
		said.Doc = behind
	} else {
		said.Doc = lexing.JoinDocs(said.Doc, behind)
	}
	return said
}

// emit adds the declaration of a declarator.
func (r *reader) emit(s *specs, d declared, headEnd, tailFrom, stop, body int, own *owner, t template, n int) {
	if d.destructor && !d.fn {
		return // an expression: "~S"
	}
	from := s.from
	if n > 0 { // what stands before all is the first one's
		from = r.firstMark(s, d)
	}
	o := model.Occurrence{Span: r.Span(from, min(stop+boolean(body < 0), len(r.Tokens)))}
	scope := r.scopeOf(d)
	name := r.Span(d.name, d.nameEnd)
	switch {
	case d.operator:
		o.Kind, o.Name = model.KindOperator, r.operatorText(d)
	case s.typedef:
		o.Kind = model.KindType
	case d.destructor:
		o.Kind = model.KindDestructor
		o.Name = "~" + r.Word(d.name+1)
	case d.fn && (own.record && r.Word(d.name) == own.name && !s.typed || r.plus && !s.typed && lastPart(scope) == r.Word(d.name)):
		o.Kind = model.KindConstructor
	case d.fn && own.record && !r.plus: // a macro around its name makes it a pointer to one
		o.Kind = model.KindField
	case d.fn && (own.record || scope != ""):
		o.Kind = model.KindMethod
	case d.fn:
		o.Kind = model.KindFunction
	case own.record || scope != "":
		o.Kind = model.KindField
	case s.constant:
		o.Kind = model.KindConstant
	default:
		o.Kind = model.KindVariable
	}
	if s.friend && o.Kind == model.KindMethod {
		o.Kind = model.KindFunction
	}
	space := r.space
	if own.at < 0 {
		scope = r.intoSpace(scope)
	}
	defer func() { r.space = space }()
	if scope != "" {
		o.Scope = joined(own.scope, scope)
		o.Implementation = true
	}
	if d.fn && body >= 0 && !own.record && !r.header {
		o.Implementation = true
	}
	if d.call >= 0 {
		o.Callable = &model.Callable{}
		r.readParameters(d, &o)
		if d.fn && o.Kind != model.KindConstructor && o.Kind != model.KindDestructor {
			r.result(s, d, &o, n)
		}
	}
	mark := r.Arena.Begin()
	r.signature(s, d, &o, headEnd, tailFrom, t, n)
	o.Signature = r.Arena.Since(mark)
	if len(t.params) > 0 {
		o.Extra = &model.Extra{TypeParams: t.params}
	}
	next := stop
	if r.Is(next, ';') || r.Is(next, ',') {
		next++
	}
	said := r.commentOf(s, n, next)
	at := r.add(o, own, name, said, s)
	if scope != "" {
		if access, ok := r.declaredAs(joined(own.scope, scope), r.Facts.Occurrences[at].Name); ok {
			r.Facts.Occurrences[at].Visibility = access
		}
	}
	if r.plus && t.to > t.from && t.special {
		r.Facts.Occurrences[at].Implementation = true
	}
}

// intoSpace takes a namespace that the file has things of off a scope, and goes there.
func (r *reader) intoSpace(scope string) string {
	longest := ""
	if scope == "" {
		return ""
	}
	for _, m := range r.Facts.Modules {
		name := strings.ReplaceAll(m.Name, "::", ".")
		if (scope == name || strings.HasPrefix(scope, name+".")) && len(name) > len(longest) {
			longest = name
		}
	}
	if longest == "" || r.space != "" {
		return scope
	}
	r.space = strings.ReplaceAll(longest, ".", "::")
	return strings.TrimPrefix(strings.TrimPrefix(scope, longest), ".")
}

// declaredAs is who may see a member that the file declares in its type.
func (r *reader) declaredAs(scope, name string) (model.Visibility, bool) {
	for i := len(r.Facts.Occurrences) - 2; i >= 0 && i > len(r.Facts.Occurrences)-mostSearched; i-- {
		if o := &r.Facts.Occurrences[i]; o.Parent >= 0 && o.Name == name && o.Scope == scope {
			return o.Visibility, true
		}
	}
	return model.Public, false
}

// mostSearched is how many declarations are looked through for what one goes on.
const mostSearched = 2000

func lastPart(scope string) string {
	return scope[strings.LastIndexByte(scope, '.')+1:]
}

// operatorText is the name of an operator as people write it.
func (r *reader) operatorText(d declared) string {
	text := "operator"
	for i := d.name + 1; i < d.nameEnd; i++ {
		part := r.Text[r.Tokens[i].From:r.Tokens[i].To]
		if r.Word(i) != "" && !strings.HasSuffix(text, `""`) && (i == d.name+1 || r.Word(i-1) != "") {
			text += " "
		}
		text += part
	}
	return text
}

// alone adds the type of a declaration that declares nothing else.
func (r *reader) alone(s *specs, own *owner, t template, stop int) {
	g := &s.tag
	switch {
	case s.friend:
		return
	case g.name >= 0:
		r.typeOf(s, own, t, stop, g.name, 0)
	case g.open < 0:
	case g.kind == model.KindEnum:
		r.constants(g.open+1, g.close, own, own, true)
	default: // its members are those of what it stands in
		inner := *own
		inner.record = own.record
		if r.Deeper(g.open, deepest) {
			r.declarations(g.open+1, g.close, &inner)
			r.Shallower()
		}
	}
}

// withTag adds the type that stands in the declaration of something else.
func (r *reader) withTag(s *specs, d declared, own *owner, t template, stop int) {
	g := &s.tag
	drops := append([][2]int(nil), r.drops...)
	params := append([]int(nil), r.params...)
	defer func() {
		r.drops, r.sorted, r.params = append(r.drops[:0], drops...), 0, append(r.params[:0], params...)
	}()
	switch {
	case g.open < 0:
	case g.name >= 0:
		r.typeOf(s, own, t, stop, g.name, 1)
	case s.typedef && !d.pointer && !d.fn && !d.array && d.call < 0:
		r.typeOf(s, own, t, stop, d.name, 2)
	case g.kind == model.KindEnum:
		r.constants(g.open+1, g.close, own, own, true)
	case s.typedef, !own.record: // nobody can name what it has but through what is declared
	}
}

// typeOf adds a struct, a union, a class or an enumeration, with what stands in it. as says
// whether it stands alone (0), with something else (1), or is a type without a name of its own (2).
func (r *reader) typeOf(s *specs, own *owner, t template, stop, name, as int) {
	g := &s.tag
	o := model.Occurrence{Kind: g.kind}
	end := stop
	if g.open >= 0 {
		end = min(g.close+1, len(r.Tokens))
	}
	o.Span = r.Span(s.from, end)
	extra := &model.Extra{TypeParams: t.params}
	mark := r.Arena.Begin()
	r.putTemplate(t)
	if as == 2 {
		r.Arena.Put(model.TokenKeyword, "typedef ")
	}
	r.Arena.Put(model.TokenKeyword, r.Word(g.at)+" ")
	if g.scoped {
		r.Arena.Put(model.TokenKeyword, r.Word(g.at+1)+" ")
	}
	r.Arena.Put(model.TokenName, r.Word(name))
	if as != 2 && g.nameEnd(r) > name+1 { // arguments of a specialisation
		o.Name = r.Word(name) + compact(r.Span(name+1, g.nameEnd(r)).In(r.Text))
		r.put(name+1, g.nameEnd(r), putting{})
	}
	if g.bases >= 0 {
		r.bases(g, extra)
	}
	o.Signature = r.Arena.Since(mark)
	if len(extra.TypeParams) > 0 || len(extra.Bases) > 0 {
		o.Extra = extra
	}
	plain := *s
	if plain.words = nil; g.open < 0 {
		plain.words = []string{"forward"}
	}
	if s.final(r) {
		plain.words = append(plain.words, "final")
	}
	if g.scoped {
		plain.words = append(plain.words, "class")
	}
	var said lexing.Said
	if as != 1 || g.open >= 0 {
		said = r.commentOf(s, 0, stop+boolean(r.Is(stop, ';')))
	}
	var scope string
	if as != 2 && g.nameFrom < name {
		scope = r.scopeOf(declared{qual: g.nameFrom, name: name})
		o.Scope = joined(own.scope, scope)
	}
	named := o.Name
	if named == "" {
		named = r.Word(name)
	}
	whole := own.scope
	if o.Scope != "" {
		whole = o.Scope
	}
	at := r.add(o, own, r.Span(name, name+1), said, &plain)
	if g.open < 0 {
		return
	}
	access := model.Public
	if r.Word(g.at) == "class" {
		access = model.Private
	}
	inner := owner{at: at, scope: joined(whole, named), name: r.Word(name), kind: g.kind, access: access, record: true}
	if g.kind == model.KindEnum {
		r.constants(g.open+1, g.close, &inner, own, false)
		return
	}
	r.body(s, &inner)
}

// body reads the members of the type of a declaration.
func (r *reader) body(s *specs, inner *owner) {
	if r.Deeper(s.tag.open, deepest) {
		r.declarations(s.tag.open+1, s.tag.close, inner)
		r.Shallower()
	}
}

// compact is a text with blanks between words alone.
func compact(text string) string {
	words := strings.Fields(text)
	var b strings.Builder
	for i, w := range words {
		if i > 0 && isNameByte(w[0]) && isNameByte(words[i-1][len(words[i-1])-1]) {
			b.WriteByte(' ')
		}
		b.WriteString(w)
	}
	return b.String()
}

// nameEnd is the index behind the name of a type, with the arguments of a specialisation.
func (g *tag) nameEnd(r *reader) int {
	if g.name >= 0 && r.plus && r.Is(g.name+1, '<') {
		return r.OverType(g.name + 1)
	}
	return g.name + 1
}

// final reports whether nothing may be derived from a class.
func (s *specs) final(r *reader) bool {
	end := s.tag.open
	if s.tag.bases >= 0 {
		end = s.tag.bases
	}
	return end > 0 && r.Word(end-1) == "final"
}

var tagKinds = map[string]model.Kind{"struct": model.KindStruct, "union": model.KindUnion, "enum": model.KindEnum, "class": model.KindClass}

// tagged reads the word of a type with its name, and its body where one stands there.
func (r *reader) tagged(i, end int, s *specs, own *owner) int {
	g := tag{kind: tagKinds[r.Word(i)], at: i, name: -1, open: -1, close: -1, bases: -1}
	if g.kind == model.KindClass && !r.plus {
		return i + 1
	}
	i++
	if g.kind == model.KindEnum && r.plus && (r.Word(i) == "class" || r.Word(i) == "struct") {
		g.scoped = true
		i++
	}
	var names []word
	for i < end {
		w := r.Word(i)
		switch {
		case isAttribute(w), r.Is(i, '[') && r.Is(i+1, '['):
			i = r.attribute(i, end, s)
			continue
		case w == "final" && r.plus && (r.Is(i+1, '{') || r.Is(i+1, ':')):
			i++
			continue
		case w != "" && !r.names.reserved(w) || r.IsMark(i, "::") && r.plus && r.Word(i+1) != "":
			q := r.qualified(i, end)
			if q <= i {
				q = i + 1
			}
			if r.Is(q, '(') && q == i+1 && (isMacro(w) || len(names) == 0) && !r.pointerIn(q, r.Close(q, end)) && (r.Word(r.Over(q)) != "" || r.Is(r.Over(q), '{')) {
				r.macroWord(i, min(r.Over(q), end), s)
				i = min(r.Over(q), end)
				continue
			}
			names = append(names, word{at: i, end: q, macro: isMacro(w) && q == i+1})
			i = q
			continue
		}
		break
	}
	switch {
	case r.Is(i, '{'):
		g.open, g.close = i, r.Close(i, end)
	case r.Is(i, ':') && (!own.record || r.hasBody(i, end) || g.kind == model.KindEnum && r.Is(r.afterType(i+1, end), ';') && len(names) == 1 && g.scoped):
		g.bases = i
		if body := r.bodyOf(i, end); body >= 0 {
			g.open, g.close = body, r.Close(body, end)
		} else if g.kind != model.KindEnum {
			g.bases = -1
		}
	}
	name, rest := -1, len(names)
	if g.open >= 0 || g.bases >= 0 { // a definition: the last is the name
		for n := len(names) - 1; n >= 0 && name < 0; n-- {
			if !names[n].macro || n == 0 {
				name = n
			}
		}
		if name == 0 && len(names) > 1 && names[0].macro {
			name = len(names) - 1
		}
	} else if len(names) > 0 {
		name = 0
		if len(names) > 1 && names[0].macro && (len(names) > 2 || r.Is(i, ';') || !names[1].macro && r.Is(i, ';')) {
			name = 1
		}
		rest = name + 1
	}
	for n, w := range names {
		switch {
		case n == name:
			g.nameFrom, g.name = w.at, w.end-1
			if r.plus && r.Is(g.name, '>') && r.Tokens[g.name].Partner >= 0 {
				g.name = int(r.Tokens[g.name].Partner) - 1
			}
		case n < rest:
			r.macroWord(w.at, w.end, s)
		}
	}
	if rest < len(names) { // what follows is declared with it
		i = names[rest].at
	}
	if r.Word(g.name) == "" {
		g.name = -1
	}
	s.tag, s.typeFrom = g, g.at
	if g.open >= 0 {
		return min(g.close+1, end)
	}
	if g.bases >= 0 {
		return r.afterType(g.bases+1, end)
	}
	return i
}

// hasBody reports whether a body follows before the declaration ends.
func (r *reader) hasBody(i, end int) bool { return r.bodyOf(i, end) >= 0 }

// bodyOf is the index of the body of a type whose bases begin at an index, or -1.
func (r *reader) bodyOf(i, end int) int {
	for i < end && !r.Is(i, ';') && !r.Is(i, '}') && !r.Is(i, ')') && !r.Is(i, '=') {
		if r.Is(i, '{') {
			return i
		}
		i = r.OverType(i)
	}
	return -1
}

// afterType is the index behind a type of an enumeration's values.
func (r *reader) afterType(i, end int) int {
	for i < end && (r.Word(i) != "" || r.IsMark(i, "::")) {
		i = r.OverType(i)
	}
	return i
}

// bases reads and puts the types that a class builds on, or the one of an enumeration's values.
func (r *reader) bases(g *tag, extra *model.Extra) {
	end := g.open
	if end < 0 {
		end = r.afterType(g.bases+1, len(r.Tokens))
	}
	r.Arena.Put(model.TokenPunctuation, " : ")
	for i := g.bases + 1; i < end; {
		next := i
		for next < end && !r.Is(next, ',') {
			next = r.OverType(next)
		}
		from := i
		for w := r.Word(from); w == "public" || w == "private" || w == "protected" || w == "virtual"; w = r.Word(from) {
			r.Arena.Put(model.TokenKeyword, w+" ")
			from++
		}
		mark := r.Arena.Mark()
		r.put(from, next, putting{})
		if g.kind != model.KindEnum && next > from {
			base := model.Base{Type: r.Arena.Since(mark), Span: r.Span(from, next)}
			extra.Bases = append(extra.Bases, base)
		}
		if i = next + 1; i < end {
			r.Arena.Put(model.TokenPunctuation, ", ")
		}
	}
}

// constants reads the constants of an enumeration. Those of one without a name are of what it
// stands in.
func (r *reader) constants(i, end int, own, around *owner, nameless bool) {
	s := specs{}
	for i < end {
		next := i
		for next < end && !r.Is(next, ',') {
			next = r.Over(next)
		}
		at := i
		for at < next && (isAttribute(r.Word(at)) || r.Is(at, '[')) {
			at = min(r.Over(at+boolean(r.Word(at) != "")), next)
		}
		from := i
		i = next + 1
		for at < next && r.Word(at) != "" && r.Is(at+1, '(') { // a macro that makes some
			if r.Word(at+2) != "" && r.Is(at+3, ',') && !r.names.reserved(r.Word(at+2)) { // of a name that it is given
				r.constant(at+2, at+2, at+3, from, own, &s, nameless, next, end)
			}
			at = r.Over(at + 1)
			from = at
		}
		for r.Word(at+1) != "" && r.Tokens[at+1].Newline && at+1 < next && (at+2 >= next || r.Is(at+2, '=')) { // so does one without arguments
			at++
			from = at
		}
		if at >= next || r.Word(at) == "" {
			continue
		}
		r.constant(at, at+1, next, from, own, &s, nameless, next, end)
	}
}

// constant adds the constant whose name a token is; its value is looked for between two others,
// and next ends its entry in a list that goes to end.
func (r *reader) constant(at, low, high, from int, own *owner, s *specs, nameless bool, next, end int) {
	mark := r.Arena.Begin()
	r.Arena.Put(model.TokenName, r.Word(at))
	for n := low; n < high; n = r.Over(n) {
		if r.Is(n, '=') {
			r.value(n+1, high)
			break
		}
	}
	o := model.Occurrence{Kind: model.KindEnumMember, Signature: r.Arena.Since(mark), Span: r.Span(from, next)}
	if nameless {
		o.Kind = model.KindConstant
	}
	s.deprecated, s.words = false, nil
	r.deprecation(at+1, next, s)
	s.words = nil
	said := r.said(from)
	behind := next
	if next < end {
		behind++
	}
	said.Doc = lexing.JoinDocs(said.Doc, r.behindConstant(next, behind))
	index := r.add(o, own, r.Span(at, at+1), said, s)
	if !nameless {
		r.Facts.Occurrences[index].Visibility = model.Public
	}
}

// behindConstant is the comment behind a constant: before its comma, or behind that.
func (r *reader) behindConstant(comma, next int) *model.Doc {
	if doc := r.behind(comma); doc != nil || next == comma {
		return doc
	}
	return r.behind(next)
}

// value puts a value that is short.
func (r *reader) value(from, to int) {
	text := strings.Join(strings.Fields(r.Span(from, to).In(r.Text)), " ")
	if text == "" || len(text) > longestValue || strings.Contains(text, "/*") || strings.Contains(text, "//") || strings.Contains(text, "#") {
		return
	}
	r.Arena.Put(model.TokenPunctuation, " = ")
	r.Arena.Put(model.TokenLiteral, text)
}
