package java

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file reads types: where they end, the heads of those that are declared, and how
// they stand in signatures.

// typ is the index behind the type at an index; ok is false where there is none.
func (r *reader) typ(i int) (end int, ok bool) {
	i = r.annotations(i)
	word := r.word(i)
	if word == "" || keywords[word] && !primitives[word] {
		return i, false
	}
	for i++; ; {
		if r.is(i, '<') {
			if i, ok = r.arguments(i); !ok {
				return i, false
			}
		}
		if !r.is(i, '.') {
			break
		}
		next := r.annotations(i + 1)
		if r.word(next) == "" {
			break
		}
		i = next + 1
	}
	return r.dimensions(i), true
}

// dimensions is the index behind the brackets of arrays at an index.
func (r *reader) dimensions(i int) int {
	for {
		next := r.annotations(i)
		if !r.is(next, '[') || !r.is(next+1, ']') {
			return i
		}
		i = next + 2
	}
}

// arguments is the index behind what "<" opens; ok is false where that is no list of types.
func (r *reader) arguments(i int) (next int, ok bool) {
	if p := int(r.tokens[i].Partner); p > i {
		return p + 1, true
	}
	return i + 1, false
}

// pairAngles makes partners of "<" and ">" where only what lists of types are made of stands
// between them. That is once for the file: each would otherwise look for its own.
func (r *reader) pairAngles() {
	var open []int32
	for i := 0; i < len(r.tokens); i++ {
		t := &r.tokens[i]
		switch {
		case t.Kind == lexing.Word:
		case t.Kind == lexing.Value:
			open = open[:0]
		case r.is(i, '<'):
			open = append(open, int32(i))
		case r.is(i, '>') && len(open) > 0:
			last := len(open) - 1
			t.Partner, r.tokens[open[last]].Partner = open[last], int32(i)
			open = open[:last]
		case r.is(i, '@') && len(open) > 0 && r.word(i+1) != "":
			i = r.annotations(i) - 1
		case r.is(i, '[') && r.is(i+1, ']'):
			i++
		case !r.is(i, ',') && !r.is(i, '.') && !r.is(i, '?') && !r.is(i, '&'):
			open = open[:0]
		}
	}
}

// typeDeclaration reads a class, an interface, an enumeration, a record or an annotation
// type whose word stands at an index.
func (r *reader) typeDeclaration(from, at, end int, m mods, own owner) int {
	kind, name := model.KindClass, at+1
	switch {
	case r.is(at, '@'):
		kind, name = model.KindAnnotation, at+2
	case r.word(at) == "interface":
		kind = model.KindInterface
	case r.word(at) == "enum":
		kind = model.KindEnum
	case r.word(at) == "record":
		kind = model.KindRecord
	}
	if r.word(name) == "" {
		return r.lost(at, end)
	}
	o := model.Occurrence{Kind: kind}
	extra := &model.Extra{}
	scoped := len(r.scoped)
	defer func() { r.scoped = r.scoped[:scoped] }()
	mark := r.begin(m)
	if kind == model.KindAnnotation {
		r.arena.Put(model.TokenKeyword, "@interface ")
	} else {
		r.arena.Put(model.TokenKeyword, r.word(at)+" ")
	}
	r.arena.Put(model.TokenName, r.word(name))
	i := name + 1
	if r.is(i, '<') {
		i = r.parameters(i, extra)
	}
	components := -1
	var parts []model.Param
	if kind == model.KindRecord && r.is(i, '(') {
		components = i
		r.arena.Put(model.TokenPunctuation, "(")
		r.each(i, func(n int, p param) {
			if n > 0 {
				r.arena.Put(model.TokenPunctuation, ", ")
			}
			parts = append(parts, r.putParam(p))
		})
		r.arena.Put(model.TokenPunctuation, ")")
		i = r.close(i, end) + 1
	}
	for i < end && !r.is(i, '{') && !r.is(i, ';') && !r.is(i, '}') {
		how, known := clauses[r.word(i)]
		if !known {
			i++
			continue
		}
		r.arena.Put(model.TokenKeyword, " "+r.word(i)+" ")
		if kind == model.KindInterface && r.word(i) == "extends" {
			how = model.Extends
		}
		permits := r.word(i) == "permits"
		for i++; ; i++ {
			next, ok := r.typ(i)
			if !ok {
				break
			}
			mark := r.arena.Mark()
			r.putType(i, next)
			if !permits {
				extra.Bases = append(extra.Bases, model.Base{Type: r.arena.Since(mark), Span: r.span(i, next), How: how})
			}
			if i = next; !r.is(i, ',') {
				break
			}
			r.arena.Put(model.TokenPunctuation, ", ")
		}
	}
	o.Signature = r.arena.Since(mark)
	if len(extra.TypeParams)+len(extra.Bases) > 0 {
		o.Extra = extra
	}
	close := i
	if r.is(i, '{') {
		close = r.close(i, end)
	}
	o.Span = r.span(from, close+1)
	inner := owner{at: r.add(o, own, name, r.doc(from), m), name: r.word(name), kind: kind, parts: parts}
	inner.scope = strings.TrimPrefix(own.scope+"."+inner.name, ".")
	if components >= 0 {
		r.components(components, inner)
	}
	if r.is(i, '{') {
		r.body(i, close, inner)
		return close + 1
	}
	return i + 1
}

// clauses are what may stand behind the name of a type.
var clauses = map[string]model.Inheritance{"extends": model.Extends, "implements": model.Implements, "permits": model.Extends}

// parameters reads the type parameters that "<" opens, with their bounds, and puts them.
func (r *reader) parameters(open int, extra *model.Extra) int {
	end, ok := r.arguments(open)
	if !ok {
		return open + 1
	}
	var bounds [][2]int
	for i := open + 1; i < end-1; i++ { // the names first, since they may stand in the bounds of one another
		i = r.annotations(i)
		if r.word(i) == "" {
			break
		}
		extra.TypeParams = append(extra.TypeParams, model.Param{Name: r.word(i)})
		r.scoped = append(r.scoped, r.word(i))
		from := i + 1
		for i++; i < end-1 && !r.is(i, ','); {
			i = r.overType(i)
		}
		bounds = append(bounds, [2]int{from, i})
	}
	r.arena.Put(model.TokenPunctuation, "<")
	for n, bound := range bounds {
		if n > 0 {
			r.arena.Put(model.TokenPunctuation, ", ")
		}
		r.arena.Put(model.TokenTypeParam, extra.TypeParams[n].Name)
		if r.word(bound[0]) == "extends" {
			r.arena.Put(model.TokenKeyword, " extends ")
			mark := r.arena.Mark()
			r.putType(bound[0]+1, bound[1])
			extra.TypeParams[n].Type = r.arena.Since(mark)
		}
	}
	r.arena.Put(model.TokenPunctuation, ">")
	return end
}

// putType puts the tokens of a type, which stand between two indices, as people write it.
func (r *reader) putType(from, to int) {
	for i := from; i < to; {
		t := &r.tokens[i]
		text := r.text[t.From:t.To]
		switch {
		case r.is(i, '@'):
			next := min(r.annotation(i, to), to)
			if next <= i {
				next = i + 1
			}
			i = next // what is said of a type besides: pages show the type
			continue
		case t.Kind == lexing.Word && (text == "extends" || text == "super") && i > from:
			r.arena.Put(model.TokenKeyword, " "+text+" ")
		case t.Kind == lexing.Word && primitives[text]:
			r.arena.Put(model.TokenKeyword, text)
		case t.Kind == lexing.Word:
			end := i + 1
			for end+1 < to && r.is(end, '.') && r.word(end+1) != "" {
				end += 2
			}
			r.typeName(i, end)
			i = end
			continue
		case text == ",":
			r.arena.Put(model.TokenPunctuation, ", ")
		case text == "&":
			r.arena.Put(model.TokenPunctuation, " & ")
		default:
			r.arena.Put(model.TokenPunctuation, text)
		}
		i++
	}
}

// typeName puts a name in a type.
func (r *reader) typeName(from, to int) {
	name := r.dotted(from, to)
	if to == from+1 {
		for i := len(r.scoped) - 1; i >= 0; i-- {
			if r.scoped[i] == name {
				r.arena.Put(model.TokenTypeParam, name)
				return
			}
		}
	}
	r.arena.Put(model.TokenType, name)
}
