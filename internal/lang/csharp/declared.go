package csharp

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads the types that a file declares.

// declaresType reports whether the head of a type begins at an index.
func (r *reader) declaresType(i int) bool {
	switch r.Word(i) {
	case "class", "struct", "interface", "enum":
		return true
	case "delegate":
		return !r.Is(i+1, '*')
	case "record":
		next := i + 1
		if w := r.Word(next); w == "class" || w == "struct" {
			return true
		}
		return r.Word(next) != "" && (r.Is(next+1, '(') || r.Is(next+1, '<') || r.Is(next+1, '{') || r.Is(next+1, ';') || r.Is(next+1, ':'))
	}
	return false
}

var typeKinds = map[string]model.Kind{
	"class": model.KindClass, "struct": model.KindStruct, "interface": model.KindInterface, "enum": model.KindEnum, "record": model.KindRecord,
}

// typeDeclaration reads a type whose word stands at an index, and gives the index behind it.
func (r *reader) typeDeclaration(from, at, end int, m mods, own owner) int {
	if r.Word(at) == "delegate" {
		return r.delegate(from, at, end, m, own)
	}
	kind, name := typeKinds[r.Word(at)], at+1
	if w := r.Word(name); kind == model.KindRecord && (w == "class" || w == "struct") {
		name++
	}
	if r.Word(name) == "" || isKeyword(r.Word(name)) {
		return r.PastUnknown(at, end)
	}
	o := model.Occurrence{Kind: kind}
	extra := &model.Extra{}
	scoped := len(r.scoped)
	defer func() { r.scoped = r.scoped[:scoped] }()
	mark := r.begin(m)
	r.Arena.Put(model.TokenKeyword, r.Span(at, name).In(r.Text)+" ")
	inner := owner{name: strings.TrimPrefix(r.Word(name), "@"), kind: kind}
	r.Arena.Put(model.TokenName, inner.name)
	i := name + 1
	if r.Is(i, '<') {
		i = r.typeParameters(i, extra)
		extra.Arity = int32(len(extra.TypeParams))
	}
	primary := -1
	if r.Is(i, '(') {
		primary = i
		o.Callable = &model.Callable{}
		i = r.parameters(i, end, &o)
	}
	if r.Is(i, ':') {
		i = r.bases(i, end, extra, kind)
	}
	i = r.constraints(i, end, extra)
	for i < end && !r.Is(i, '{') && !r.Is(i, ';') && !r.Is(i, '}') {
		i = r.Over(i)
	}
	o.Signature = r.Arena.Since(mark)
	o.Extra = extra
	stop := min(i, end)
	if r.Is(i, '{') {
		stop = r.Close(i, end)
	}
	o.Span = r.Span(from, min(stop+1, end))
	inner.at = r.add(o, own, r.Span(name, name+1), r.words(from), m)
	inner.scope = strings.TrimPrefix(own.scope+"."+inner.name, ".")
	if primary >= 0 && kind == model.KindRecord {
		r.components(primary, inner, r.Word(name-1) == "struct" && !r.has(m, "readonly"))
	}
	if !r.Is(i, '{') {
		return stop + 1
	}
	if r.Deeper(i, deepest) {
		r.body(i+1, stop, inner)
		r.Shallower()
	}
	return stop + 1
}

// body reads the members of a type.
func (r *reader) body(i, stop int, own owner) {
	if own.kind == model.KindEnum {
		r.constants(i, stop, own)
		return
	}
	for i < stop {
		m, at := r.modifiers(i, stop)
		i = max(i+1, r.member(i, at, stop, m, own))
	}
}

// bases reads the types that a type builds on, and puts them.
func (r *reader) bases(i, end int, extra *model.Extra, kind model.Kind) int {
	r.Arena.Put(model.TokenPunctuation, " : ")
	for i++; i < end; i++ {
		next, ok := r.typ(i)
		if !ok {
			break
		}
		mark := r.Arena.Mark()
		r.putType(i, next)
		how := model.Extends
		if kind != model.KindInterface && (kind == model.KindStruct || looksLikeInterface(r.lastName(i, next)) || len(extra.Bases) > 0) {
			how = model.Implements
		}
		if kind != model.KindEnum {
			extra.Bases = append(extra.Bases, model.Base{Type: r.Arena.Since(mark), Span: r.Span(i, next), How: how})
		}
		if i = next; r.Is(i, '(') { // what the base is made with
			i = r.Over(i)
		}
		if !r.Is(i, ',') {
			break
		}
		r.Arena.Put(model.TokenPunctuation, ", ")
	}
	return i
}

// lastName is the name of a type without its module and its arguments.
func (r *reader) lastName(from, to int) string {
	name := ""
	for i := from; i < to; i = r.OverType(i) {
		if w := r.Word(i); w != "" {
			name = w
		}
	}
	return name
}

// looksLikeInterface reports whether a name is formed as those of interfaces are: nothing
// else tells them from classes where they are used.
func looksLikeInterface(name string) bool {
	return len(name) > 1 && name[0] == 'I' && name[1] >= 'A' && name[1] <= 'Z'
}

// delegate reads the type of functions.
func (r *reader) delegate(from, at, end int, m mods, own owner) int {
	result := at + 1
	name, ok := r.typ(result)
	if !ok || r.Word(name) == "" {
		return r.PastUnknown(at, end)
	}
	o := model.Occurrence{Kind: model.KindDelegate, Callable: &model.Callable{}}
	extra := &model.Extra{}
	scoped := len(r.scoped)
	defer func() { r.scoped = r.scoped[:scoped] }()
	if r.Is(name+1, '<') { // they may stand in the result
		r.scope(name + 1)
	}
	mark := r.begin(m)
	r.Arena.Put(model.TokenKeyword, "delegate ")
	r.result(result, name, &o)
	r.Arena.Put(model.TokenPunctuation, " ")
	r.Arena.Put(model.TokenName, strings.TrimPrefix(r.Word(name), "@"))
	i := name + 1
	if r.Is(i, '<') {
		i = r.typeParameters(i, extra)
		extra.Arity = int32(len(extra.TypeParams))
	}
	if !r.Is(i, '(') {
		return r.PastUnknown(i, end)
	}
	i = r.parameters(i, end, &o)
	i = r.constraints(i, end, extra)
	o.Signature, o.Extra = r.Arena.Since(mark), extra
	i = r.PastUnknown(i, end)
	o.Span = r.Span(from, i)
	r.add(o, own, r.Span(name, name+1), r.words(from), m)
	return i
}

// constants reads the constants of an enumeration.
func (r *reader) constants(i, end int, own owner) {
	for i < end {
		from := i
		m, at := mods{}, i
		for r.Is(at, '[') {
			stop := r.Close(at, end)
			r.attributes(at, stop, &m)
			at = stop + 1
		}
		next := at
		for next < end && !r.Is(next, ',') {
			next = r.Over(next)
		}
		if i = next + 1; r.Word(at) == "" || at >= end {
			continue
		}
		mark := r.Arena.Begin()
		r.Arena.Put(model.TokenName, strings.TrimPrefix(r.Word(at), "@"))
		if r.Is(at+1, '=') {
			r.value(at+2, min(next, end))
		}
		o := model.Occurrence{Kind: model.KindEnumMember, Signature: r.Arena.Since(mark), Span: r.Span(from, min(next, end))}
		m.access, m.said = model.Public, true
		r.add(o, own, r.Span(at, at+1), r.words(from), m)
	}
}

// components adds the properties that a record has by its parameters.
func (r *reader) components(open int, own owner, changeable bool) {
	accessors := " { get; init; }"
	if changeable {
		accessors = " { get; set; }"
	}
	r.each(open, func(_ int, p param) {
		if p.name < 0 {
			return // half written
		}
		mark := r.Arena.Begin()
		r.Arena.Put(model.TokenKeyword, "public ")
		r.putType(p.typ, p.typEnd)
		r.Arena.Put(model.TokenPunctuation, " ")
		r.Arena.Put(model.TokenName, strings.TrimPrefix(r.Word(p.name), "@"))
		r.Arena.Put(model.TokenPunctuation, accessors)
		o := model.Occurrence{Kind: model.KindProperty, Signature: r.Arena.Since(mark), Span: source.Span{Start: r.Tokens[p.from].From, End: r.Tokens[p.name].To}}
		r.add(o, own, r.Span(p.name, p.name+1), lexing.Said{}, mods{access: model.Public, said: true})
	})
}

// begin starts a signature with the modifiers of its declaration, behind what it extends.
func (r *reader) begin(m mods) int {
	mark := r.Arena.Begin()
	if r.extended > 0 {
		r.Arena.Put(model.TokenKeyword, "extension")
		r.putParameters(r.extended, &model.Occurrence{Callable: &model.Callable{}})
		r.Arena.Put(model.TokenPunctuation, " ")
	}
	for _, w := range m.words {
		if word := r.Word(w); !unshown[word] {
			r.Arena.Put(model.TokenKeyword, word+" ")
		}
	}
	return mark
}

// unshown are the modifiers that say nothing to who uses a declaration.
var unshown = lexing.WordSet("async extern fixed partial unsafe")
