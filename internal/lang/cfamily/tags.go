package cfamily

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file reads the types that stand in declarations: structs, unions, classes and enumerations,
// with their bases, their bodies and their constants.

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
			if after := r.OverType(next); r.plus && r.Is(next, '<') && after > next+1 && r.IsMark(after, "::") { // a list of arguments, no comparison
				next = after
				continue
			}
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
