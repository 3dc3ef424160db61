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
	for _, w := range s.lately() {
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
	case d.fn && r.plus && own.record && r.Word(d.name) == own.name: // what looks like its type is a macro
		o.Kind = model.KindConstructor
		if s.typed {
			r.drop(s.typeFrom, s.typeFrom+1)
		}
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
	if r.plus && t.to > t.from && t.special && said.Doc == nil { // one with a comment of its own is a form of its own
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
