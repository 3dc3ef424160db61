package rust

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file reads types, traits and implementations, and what they hold.

// typeItem reads a struct, an enumeration or a union.
func (r *reader) typeItem(it *item, at, end int, own *owner) int {
	kind := map[string]model.Kind{"struct": model.KindStruct, "enum": model.KindEnum, "union": model.KindUnion}[r.Word(at)]
	name, i := r.name(at + 1)
	if name == "" {
		return r.PastUnknown(at, end)
	}
	named := r.Span(at+1, i)
	extra := &model.Extra{}
	i = r.generics(i, end, extra)
	mark := r.Arena.Begin()
	r.putVisibility(it)
	r.Arena.Put(model.TokenKeyword, r.Word(at)+" ")
	r.Arena.Put(model.TokenName, name)
	r.putGenerics(at+2, i)
	if r.Is(i, '(') {
		r.putTuple(i, r.Close(i, end))
		i = min(r.Over(i), end)
	}
	body := r.where(i, end)
	r.putWhere(i, body)
	o := model.Occurrence{Kind: kind, Name: name, Signature: r.Arena.Since(mark)}
	for _, d := range it.attrs.derived {
		extra.Bases = append(extra.Bases, model.Base{Type: r.typeTokens(d[0], d[1]), Span: r.Span(d[0], d[1]), How: model.Implements})
	}
	next := body
	switch {
	case r.Is(body, '{'):
		next = min(r.Close(body, end)+1, end)
	case r.Is(body, ';'):
		next = body + 1
	}
	o.Span = r.Span(it.from, next)
	o.Extra = extra
	index := r.add(o, it, own, named)
	inner := owner{at: index, scope: joined(own.scope, name)}
	switch {
	case !r.Is(body, '{') || !r.Deeper(body, deepest):
	case kind == model.KindEnum:
		r.variants(body+1, r.Close(body, end), &inner)
		r.Shallower()
	default:
		r.fields(body+1, r.Close(body, end), &inner)
		r.Shallower()
	}
	return max(next, at+1)
}

func joined(scope, name string) string {
	if scope == "" {
		return name
	}
	return scope + "." + name
}

// fields reads the fields of a struct, a union or a variant.
func (r *reader) fields(i, end int, own *owner) {
	for i < end {
		it := item{from: i}
		it.at, it.attrs = r.attributes(i, end)
		when := len(r.when)
		r.when = append(r.when, it.attrs.conditions...)
		at := r.visibility(&it, it.at, end, own)
		name, colon := r.name(at)
		next := at
		for next < end && !r.Is(next, ',') {
			next = r.OverType(next)
		}
		next = min(next, end)
		if name != "" && r.Is(colon, ':') {
			mark := r.Arena.Begin()
			r.putVisibility(&it)
			r.Arena.Put(model.TokenName, name)
			r.Arena.Put(model.TokenPunctuation, ": ")
			r.put(colon+1, next)
			o := model.Occurrence{Kind: model.KindField, Name: name, Signature: r.Arena.Since(mark), Span: r.Span(it.from, next)}
			r.add(o, &it, own, r.Span(at, colon))
		}
		r.when = r.when[:when]
		i = max(next+1, i+1)
	}
}

// variants reads those of an enumeration.
func (r *reader) variants(i, end int, own *owner) {
	for i < end {
		it := item{from: i, vis: model.Public}
		it.at, it.attrs = r.attributes(i, end)
		when := len(r.when)
		r.when = append(r.when, it.attrs.conditions...)
		at := it.at
		name, body := r.name(at)
		next := at
		for next < end && !r.Is(next, ',') {
			next = r.Over(next)
		}
		next = min(next, end)
		if name != "" {
			mark := r.Arena.Begin()
			r.Arena.Put(model.TokenName, name)
			switch {
			case r.Is(body, '('):
				r.putTuple(body, r.Close(body, end))
			case r.Is(body, '{'):
				r.Arena.Put(model.TokenPunctuation, " { ")
				r.putFields(body+1, r.Close(body, end))
				r.Arena.Put(model.TokenPunctuation, " }")
			case r.Is(body, '='):
				r.value(body+1, next)
			}
			o := model.Occurrence{Kind: model.KindEnumMember, Name: name, Signature: r.Arena.Since(mark), Span: r.Span(it.from, next)}
			index := r.add(o, &it, own, r.Span(at, body))
			if r.Is(body, '{') && r.Deeper(body, deepest) {
				r.fields(body+1, r.Close(body, end), &owner{at: index, scope: joined(own.scope, name), trait: true})
				r.Shallower()
			}
		}
		r.when = r.when[:when]
		i = max(next+1, i+1)
	}
}

// trait reads a trait, or another name for a bound.
func (r *reader) trait(it *item, at, end int, own *owner) int {
	name, i := r.name(at + 1)
	if name == "" {
		return r.PastUnknown(at, end)
	}
	named := r.Span(at+1, i)
	extra := &model.Extra{}
	generics := i
	i = r.generics(i, end, extra)
	mark := r.Arena.Begin()
	r.putVisibility(it)
	r.putWords(it)
	r.Arena.Put(model.TokenKeyword, "trait ")
	r.Arena.Put(model.TokenName, name)
	r.putGenerics(generics, i)
	body := i
	if r.Is(i, ':') || r.Is(i, '=') {
		body = r.headEnd(i+1, end)
		r.Arena.Put(model.TokenPunctuation, map[bool]string{true: ": ", false: " = "}[r.Is(i, ':')])
		r.put(i+1, body)
	}
	bounds := body
	if r.Word(body) == "where" {
		stop := r.where(body, end)
		r.putWhere(body, stop)
		body = stop
	}
	o := model.Occurrence{Kind: model.KindTrait, Name: name, Signature: r.Arena.Since(mark), Extra: extra}
	for from := i + 1; from < bounds; {
		next := from
		for next < bounds && !r.Is(next, '+') {
			next = r.OverType(next)
		}
		if w := r.Word(from); w != "" && !isKeyword(w) || w == "crate" || w == "super" || w == "self" {
			extra.Bases = append(extra.Bases, model.Base{Type: r.typeTokens(from, next), Span: r.Span(from, next)})
		}
		from = next + 1
	}
	next := body
	if r.Is(body, '{') {
		next = min(r.Close(body, end)+1, end)
	} else if r.Is(body, ';') {
		next = body + 1
	}
	o.Span = r.Span(it.from, next)
	index := r.add(o, it, own, named)
	if r.Is(body, '{') && r.Deeper(body, deepest) {
		r.items(body+1, r.Close(body, end), &owner{at: index, scope: joined(own.scope, name), trait: true})
		r.Shallower()
	}
	return max(next, at+1)
}

// implementation reads what is implemented for a type: its items are members of that.
func (r *reader) implementation(it *item, at, end int, own *owner) int {
	i := r.generics(at+1, end, &model.Extra{})
	if r.Word(i) == "const" {
		i++
	}
	negative := r.Is(i, '!')
	if negative {
		i++
	}
	body, forAt := i, -1
	for body < end && !r.Is(body, '{') && !r.Is(body, ';') && r.Word(body) != "where" {
		if r.Word(body) == "for" && !r.Is(body+1, '<') {
			forAt = body
		}
		body = r.OverType(body)
	}
	typ := i
	if forAt >= 0 {
		typ = forAt + 1
	}
	open := body
	for open < end && !r.Is(open, '{') && !r.Is(open, ';') {
		open = r.OverType(open)
	}
	if !r.Is(open, '{') {
		return min(open+1, end)
	}
	name := r.typeName(typ, body)
	if forAt >= 0 && !negative {
		if name != "" {
			r.implements = append(r.implements, implemented{of: name, space: r.space, from: i, to: forAt, typ: typ, end: body})
		} else if body == typ+1 && r.isScoped(r.Word(typ)) {
			r.every(at, open, typ, i, forAt)
		}
	}
	if r.Deeper(open, deepest) {
		first, _ := r.innerAttributes(open + 1)
		inner := owner{at: -1, scope: name, of: forAt >= 0}
		if forAt >= 0 {
			inner.asks = r.typeTokens(i, forAt).Text(r.Text)
		}
		if name == "" {
			inner.scope = "_"
		}
		r.items(first, r.Close(open, end), &inner)
		r.Shallower()
	}
	return min(r.Close(open, end)+1, end)
}

// implemented is a trait that is implemented for a type.
type implemented struct {
	of, space string
	from, to  int // the tokens of the trait
	typ, end  int // and of the type
}

// every notes a trait that all types have which meet what the head between two tokens asks of a
// parameter.
func (r *reader) every(from, to, param, trait, traitEnd int) {
	name := r.Word(param)
	mark, n := r.Arena.Begin(), 0
	for i := from; i < to; i++ {
		if r.Word(i) != name || !r.Is(i+1, ':') || i == param {
			continue
		}
		end := i + 2
		for end < to && !r.Is(end, ',') && !r.Is(end, '>') && !r.Is(end, '=') {
			end = r.OverType(end)
		}
		if end > i+2 {
			if n++; n > 1 {
				r.Arena.Put(model.TokenPunctuation, " + ")
			}
			r.put(i+2, end)
		}
		i = end
	}
	bounds := r.Arena.Since(mark)
	r.Facts.Given = append(r.Facts.Given, model.Given{
		In: r.space, Base: model.Base{Type: r.typeTokens(trait, traitEnd), Span: r.Span(trait, traitEnd), How: model.Implements}, Every: name, Bounds: bounds,
	})
}

// typeName is the name of the type between two indices, without its path and arguments, or "" where
// it is none that can be declared: a reference, a tuple, a parameter of the implementation.
func (r *reader) typeName(from, to int) string {
	for from < to && (r.Is(from, '&') || r.IsMark(from, "&&") || r.Is(from, '\'') || r.Word(from) == "mut" || r.Word(from) == "dyn" || r.Word(from) != "" && r.Is(from-1, '\'')) {
		if !r.Is(from, '\'') && r.Word(from) != "dyn" && !(r.Word(from) != "" && r.Is(from-1, '\'')) {
			return ""
		}
		from++
	}
	name := ""
	for i := from; i < to; i = r.OverType(i) {
		w, _ := r.name(i)
		switch {
		case w != "" && !isKeyword(w):
			name = w
		case r.IsMark(i, "::") || w == "crate" || w == "self" || w == "super" || r.Is(i, '<') || r.Is(i, '#') || w == "r":
		default:
			return name
		}
	}
	if r.isScoped(name) {
		return ""
	}
	return name
}

// link gives types the traits that the file implements for them.
func (r *reader) link() {
	if len(r.implements) == 0 {
		return
	}
	types := map[string]int{}
	for i := range r.Facts.Occurrences {
		if o := &r.Facts.Occurrences[i]; o.Kind.IsType() && o.Parent < 0 && o.Kind != model.KindTrait {
			types[o.In()+" "+o.Name] = i + 1
		}
	}
	for _, m := range r.implements {
		at := types[m.space+" "+m.of] - 1
		base := model.Base{Type: r.typeTokens(m.from, m.to), Span: r.Span(m.from, m.to), How: model.Implements}
		if at < 0 { // of another file
			r.Facts.Given = append(r.Facts.Given, model.Given{In: m.space, Of: r.typeTokens(m.typ, m.end), Base: base})
			continue
		}
		o := &r.Facts.Occurrences[at]
		if o.Extra == nil {
			o.Extra = &model.Extra{}
		}
		o.Extra.Bases = append(o.Extra.Bases, base)
	}
}

// alias reads another name for a type, or a type that belongs to a trait.
func (r *reader) alias(it *item, at, end int, own *owner) int {
	name, i := r.name(at + 1)
	if name == "" {
		return r.PastUnknown(at, end)
	}
	named := r.Span(at+1, i)
	stop := r.upToSemicolon(at, end)
	extra := &model.Extra{}
	generics := i
	i = r.generics(i, end, extra)
	mark := r.Arena.Begin()
	r.putVisibility(it)
	r.Arena.Put(model.TokenKeyword, "type ")
	r.Arena.Put(model.TokenName, name)
	r.putGenerics(generics, i)
	last := min(stop, end)
	if r.Is(last-1, ';') {
		last--
	}
	if r.Is(i, ':') {
		r.Arena.Put(model.TokenPunctuation, ": ")
		r.put(i+1, last)
	} else {
		eq := i
		for eq < last && !r.Is(eq, '=') {
			eq = r.OverType(eq)
		}
		if eq > i {
			r.putWhere(i, eq)
		}
		if eq < last {
			r.Arena.Put(model.TokenPunctuation, " = ")
			r.put(eq+1, last)
		}
	}
	o := model.Occurrence{Kind: model.KindType, Name: name, Signature: r.Arena.Since(mark), Span: r.Span(it.from, stop), Extra: extra}
	r.add(o, it, own, named)
	return stop
}

// constant reads a constant or a static.
func (r *reader) constant(it *item, at, end int, own *owner) int {
	i := at + 1
	for r.Word(i) == "mut" || r.Word(i) == "ref" {
		i++
	}
	name, colon := r.name(i)
	stop := r.upToSemicolon(at, end)
	if name == "" || !r.Is(colon, ':') && !r.Is(colon, '=') && !r.Is(colon, ';') && !r.Is(colon, '<') {
		return stop
	}
	if name == "_" {
		return stop
	}
	kind := model.KindConstant
	if r.Word(at) == "static" {
		kind = model.KindVariable
	}
	mark := r.Arena.Begin()
	r.putVisibility(it)
	r.Arena.Put(model.TokenKeyword, r.Word(at)+" ")
	if r.Word(at+1) == "mut" {
		r.Arena.Put(model.TokenKeyword, "mut ")
	}
	r.Arena.Put(model.TokenName, name)
	last := stop
	if r.Is(last-1, ';') {
		last--
	}
	eq := colon
	for eq < last && !r.Is(eq, '=') {
		eq = r.OverType(eq)
	}
	if r.Is(colon, ':') {
		r.Arena.Put(model.TokenPunctuation, ": ")
		r.put(colon+1, min(eq, last))
	}
	if eq < last {
		r.value(eq+1, last)
	}
	o := model.Occurrence{Kind: kind, Name: name, Signature: r.Arena.Since(mark), Span: r.Span(it.from, stop)}
	r.add(o, it, own, r.Span(i, colon))
	return stop
}

// upToSemicolon is the index behind the next semicolon that stands in no brackets.
func (r *reader) upToSemicolon(i, end int) int {
	for i < end && !r.Is(i, ';') && !r.Is(i, '}') {
		i = r.Over(i)
	}
	if r.Is(i, '}') {
		return i
	}
	return min(i+1, end)
}

// value puts a value that is short.
func (r *reader) value(from, to int) {
	text := strings.Join(strings.Fields(r.Span(from, to).In(r.Text)), " ")
	if text == "" || len(text) > longestValue || strings.Contains(text, "//") || strings.Contains(text, "/*") {
		return
	}
	r.Arena.Put(model.TokenPunctuation, " = ")
	r.Arena.Put(model.TokenLiteral, text)
}

// longestValue is how many bytes a value has that is shown.
const longestValue = 60

// macro reads "macro_rules! name { (matcher) => { … }; … }".
func (r *reader) macro(it *item, at, end int, own *owner) int {
	name, open := r.name(at + 2)
	if name == "" || !r.Is(open, '{') && !r.Is(open, '(') && !r.Is(open, '[') {
		return r.PastUnknown(at, end)
	}
	stop := r.Close(open, end)
	next := stop + 1
	if r.Is(next, ';') {
		next++
	}
	mark := r.Arena.Begin()
	r.Arena.Put(model.TokenKeyword, "macro_rules! ")
	r.Arena.Put(model.TokenName, name)
	r.Arena.Put(model.TokenPunctuation, " {")
	shown := 0
	for i := open + 1; i < stop && shown < mostMatchers; {
		if r.Tokens[i].Partner > int32(i) {
			r.Arena.Put(model.TokenPunctuation, "\n    ")
			matcher := strings.Join(strings.Fields(r.Span(i, int(r.Tokens[i].Partner)+1).In(r.Text)), " ")
			if len(matcher) > longestMatcher {
				matcher = matcher[:longestMatcher] + " …"
			}
			r.Arena.Put(model.TokenLiteral, strings.ToValidUTF8(matcher, ""))
			r.Arena.Put(model.TokenPunctuation, " => { … };")
			shown++
		}
		for i < stop && !r.Is(i, ';') {
			i = r.Over(i)
		}
		i++
	}
	r.Arena.Put(model.TokenPunctuation, "\n}")
	r.gate(name, open+1, stop)
	if it.vis = model.Private; it.attrs.exported {
		it.vis = model.Public
	}
	o := model.Occurrence{Kind: model.KindMacro, Name: name, Signature: r.Arena.Since(mark), Span: r.Span(it.from, min(next, end))}
	r.add(o, it, own, r.Span(at+2, open))
	r.exportedWithin(open+1, stop)
	return min(next, end)
}

// exportedWithin reads the macros for all that a macro declares when it is called, between two tokens.
func (r *reader) exportedWithin(i, stop int) {
	if r.inMacro {
		return // their own forms are read once
	}
	r.inMacro = true
	defer func() { r.inMacro = false }()
	for ; i < stop; i++ {
		if r.Word(i) != "macro_export" || !r.Is(i-1, '[') || !r.Is(i-2, '#') || !r.Is(i+1, ']') {
			continue
		}
		from, at := i-2, i+2
		for r.Is(at, '#') && r.Is(at+1, '[') {
			at = r.Over(at + 1)
		}
		for r.Is(from-1, ']') && int(r.Tokens[from-1].Partner) > 0 && r.Is(int(r.Tokens[from-1].Partner)-1, '#') {
			from = int(r.Tokens[from-1].Partner) - 1
		}
		if name, open := r.name(at + 2); r.Word(at) == "macro_rules" && r.Is(at+1, '!') && name != "" && (r.Is(open, '{') || r.Is(open, '(') || r.Is(open, '[')) {
			i = r.item(from, stop, &owner{at: -1}) - 1
		}
	}
}

// Bounds of what is shown of a macro: of its forms, and of bytes of each.
const (
	mostMatchers   = 12
	longestMatcher = 200
)

// macroItem reads "macro name(…) { … }".
func (r *reader) macroItem(it *item, at, end int, own *owner) int {
	name, i := r.name(at + 1)
	mark := r.Arena.Begin()
	r.putVisibility(it)
	r.Arena.Put(model.TokenKeyword, "macro ")
	r.Arena.Put(model.TokenName, name)
	named := r.Span(at+1, i)
	if r.Is(i, '(') {
		i = r.Over(i)
	}
	next := i
	if r.Is(i, '{') {
		next = min(r.Over(i), end)
	}
	o := model.Occurrence{Kind: model.KindMacro, Name: name, Signature: r.Arena.Since(mark), Span: r.Span(it.from, next)}
	r.add(o, it, own, named)
	return max(next, at+1)
}

// call reads the call of a macro that stands as an item: what is in its brackets is read where it is
// items and nothing else.
func (r *reader) call(at, end int, own *owner) (next int, ok bool) {
	i := at
	for r.Word(i) != "" && (r.IsMark(i+1, "::")) {
		i += 2
	}
	if r.Word(i) == "" || !r.Is(i+1, '!') {
		return at, false
	}
	open := i + 2
	if r.Word(open) != "" { // "name! ident { … }"
		open++
	}
	if open >= end {
		return end, true
	}
	if int(r.Tokens[open].Partner) < open { // damaged: what stands before the damage is kept
		if !r.Is(open, '{') && !r.Is(open, '(') || own.at >= 0 || own.extern {
			return open, true
		}
		switch first, _ := r.innerAttributes(open + 1); {
		case r.Word(first) == "if" && r.Is(first+1, '#') && r.Deeper(open, deepest):
			r.alternatives(first, end, own)
			r.Shallower()
			return end, true
		case r.beginsItem(first, end):
			return first, true
		}
		return open, true
	}
	stop := int(r.Tokens[open].Partner)
	next = stop + 1
	if r.Is(next, ';') {
		next++
	}
	if own.at >= 0 || own.extern || !r.Deeper(open, deepest) {
		return min(next, end), true
	}
	last, items := r.holdsItems(open+1, stop)
	switch {
	case items:
		r.within = append(r.within, r.Word(i))
		first, inner := r.innerAttributes(open + 1)
		when := len(r.when)
		r.when = append(r.when[:when:when], inner.conditions...)
		r.items(first, last, own)
		r.when = r.when[:when]
		r.within = r.within[:len(r.within)-1]
	case r.Word(open+1) == "if" && r.Is(open+2, '#'):
		r.alternatives(open+1, stop, own)
	default:
		r.within = append(r.within, r.Word(i))
		r.openItems(open+1, stop, own)
		r.within = r.within[:len(r.within)-1]
		r.maybeMade(open+1, stop)
	}
	r.Shallower()
	return min(next, end), true
}

// beginsItem reports whether an item begins at an index, as far as its first words tell.
func (r *reader) beginsItem(i, end int) bool {
	next, _ := r.attributesOnly(i, end)
	if next >= end {
		return false
	}
	at := r.visibility(&item{}, next, end, &owner{at: -1})
	for r.qualifies(at) {
		at++
	}
	switch r.Word(at) {
	case "fn", "struct", "enum", "trait", "impl", "mod", "use", "extern", "type", "union", "const", "static":
		return true
	}
	return false
}

// holdsItems reports whether what stands between two indices is items alone, as far as their heads
// tell. A last "impl Trait" without a body, which asks the macro for one, is not among them: stop is the index
// behind the items.
func (r *reader) holdsItems(i, end int) (stop int, ok bool) {
	found := false
	for i < end {
		next, _ := r.attributesOnly(i, end)
		if next >= end {
			return end, found
		}
		it := item{}
		at := r.visibility(&it, next, end, &owner{at: -1})
		for r.qualifies(at) {
			at++
			if r.Word(at-1) == "extern" && at < end && r.Tokens[at].Kind == lexing.Value {
				at++
			}
		}
		switch r.Word(at) {
		case "use":
			if at = r.upToSemicolon(at, end); !r.Is(at-1, ';') {
				return i, false
			}
			found, i = true, at
			continue
		case "fn", "struct", "enum", "trait", "mod", "type", "union":
			if r.Word(at+1) == "" && !r.IsMark(at+1, "::") || r.Is(at+1, '$') {
				return i, false
			}
		case "const", "static":
			if r.Word(at+1) == "" || !r.Is(at+2, ':') && r.Word(at+1) != "mut" {
				return i, false
			}
			if at = r.upToSemicolon(at, end); !r.Is(at-1, ';') {
				return i, false
			}
			found, i = true, at
			continue
		case "impl", "extern":
		case "macro_rules":
			if !r.Is(at+1, '!') || r.Word(at+2) == "" || !r.Is(at+3, '{') && !r.Is(at+3, '(') {
				return i, false
			}
			found, i = true, min(r.Over(at+3), end)
			if r.Is(i, ';') {
				i++
			}
			continue
		default:
			if r.Word(at) == "" || !r.Is(at+1, '!') {
				return i, false
			}
		}
		word, began := r.Word(at), found
		found = true
		if word == "fn" && !r.plainParameters(at+2, end) {
			return i, false
		}
		for at < end && !r.Is(at, ';') && !r.Is(at, '{') {
			if r.Is(at, '$') || r.IsMark(at, "=>") {
				return i, false
			}
			at = r.Over(at)
		}
		if at >= end {
			return i, word == "impl" && began
		}
		i = min(r.Over(at), end)
	}
	return end, found
}

// plainParameters reports whether the parameters behind the name of a function are written as the
// language writes them.
func (r *reader) plainParameters(i, end int) bool {
	for i < end && !r.Is(i, '(') && !r.Is(i, '{') && !r.Is(i, ';') {
		i = r.OverType(i)
	}
	plain := r.Is(i, '(')
	if plain {
		r.eachParameter(i, r.Close(i, end), func(from, colon, to int) {
			plain = plain && (colon >= 0 || r.isSelf(from, to) || r.IsMark(from, "..."))
		})
	}
	return plain
}

// attributesOnly is the index behind attributes.
func (r *reader) attributesOnly(i, end int) (next int, found bool) {
	for i+1 < end && r.Is(i, '#') && (r.Is(i+1, '[') || r.Is(i+1, '!') && r.Is(i+2, '[')) {
		i = r.Over(i + 1 + boolean(r.Is(i+1, '!')))
		found = true
	}
	return min(i, end), found
}
