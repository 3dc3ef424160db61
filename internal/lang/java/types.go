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
	word := r.Word(i)
	if word == "" || isKeyword(word) && !primitives[word] {
		return i, false
	}
	for i++; ; {
		if r.Is(i, '<') {
			if i, ok = r.arguments(i); !ok {
				return i, false
			}
		}
		if !r.Is(i, '.') {
			break
		}
		next := r.annotations(i + 1)
		if r.Word(next) == "" {
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
		if !r.Is(next, '[') || !r.Is(next+1, ']') {
			return i
		}
		i = next + 2
	}
}

// arguments is the index behind what "<" opens; ok is false where that is no list of types.
func (r *reader) arguments(i int) (next int, ok bool) {
	if p := int(r.Tokens[i].Partner); p > i {
		return p + 1, true
	}
	return i + 1, false
}

// overInType is the index behind what may stand in a type beside names and marks: annotations
// and the brackets of arrays.
func (r *reader) overInType(i int, open bool) int {
	switch {
	case open && r.Is(i, '@') && r.Word(i+1) != "":
		return r.annotations(i)
	case r.Is(i, '[') && r.Is(i+1, ']'):
		return i + 2
	}
	return i
}

// typeDeclaration reads a class, an interface, an enumeration, a record or an annotation
// type whose word stands at an index.
func (r *reader) typeDeclaration(from, at, end int, m mods, own owner) int {
	kind, name := model.KindClass, at+1
	switch {
	case r.Is(at, '@'):
		kind, name = model.KindAnnotation, at+2
	case r.Word(at) == "interface":
		kind = model.KindInterface
	case r.Word(at) == "enum":
		kind = model.KindEnum
	case r.Word(at) == "record":
		kind = model.KindRecord
	}
	if r.Word(name) == "" {
		return r.PastUnknown(at, end)
	}
	o := model.Occurrence{Kind: kind}
	extra := &model.Extra{}
	scoped := len(r.scoped)
	defer func() { r.scoped = r.scoped[:scoped] }()
	mark := r.begin(m)
	if kind == model.KindAnnotation {
		r.Arena.Put(model.TokenKeyword, "@interface ")
	} else {
		r.Arena.Put(model.TokenKeyword, r.Word(at)+" ")
	}
	r.Arena.Put(model.TokenName, r.Word(name))
	i := name + 1
	if r.Is(i, '<') {
		i = r.parameters(i, extra)
	}
	components := -1
	var parts []model.Param
	if kind == model.KindRecord && r.Is(i, '(') {
		components = i
		r.Arena.Put(model.TokenPunctuation, "(")
		r.each(i, func(n int, p param) {
			if n > 0 {
				r.Arena.Put(model.TokenPunctuation, ", ")
			}
			parts = append(parts, r.putParam(p))
		})
		r.Arena.Put(model.TokenPunctuation, ")")
		i = r.Close(i, end) + 1
	}
	for i < end && !r.Is(i, '{') && !r.Is(i, ';') && !r.Is(i, '}') {
		how, known := clauses[r.Word(i)]
		if !known {
			i++
			continue
		}
		r.Arena.Put(model.TokenKeyword, " "+r.Word(i)+" ")
		if kind == model.KindInterface && r.Word(i) == "extends" {
			how = model.Extends
		}
		permits := r.Word(i) == "permits"
		for i++; ; i++ {
			next, ok := r.typ(i)
			if !ok {
				break
			}
			mark := r.Arena.Mark()
			r.putType(i, next)
			if !permits {
				extra.Bases = append(extra.Bases, model.Base{Type: r.Arena.Since(mark), Span: r.Span(i, next), How: how})
			}
			if i = next; !r.Is(i, ',') {
				break
			}
			r.Arena.Put(model.TokenPunctuation, ", ")
		}
	}
	o.Signature = r.Arena.Since(mark)
	if len(extra.TypeParams)+len(extra.Bases) > 0 {
		o.Extra = extra
	}
	close := i
	if r.Is(i, '{') {
		close = r.Close(i, end)
	}
	o.Span = r.Span(from, close+1)
	inner := owner{at: r.add(o, own, name, r.words(from), m), name: r.Word(name), kind: kind, parts: parts}
	inner.scope = strings.TrimPrefix(own.scope+"."+inner.name, ".")
	if components >= 0 {
		r.components(components, inner)
	}
	if r.Is(i, '{') {
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
		if r.Word(i) == "" {
			break
		}
		extra.TypeParams = append(extra.TypeParams, model.Param{Name: r.Word(i)})
		r.scoped = append(r.scoped, r.Word(i))
		from := i + 1
		for i++; i < end-1 && !r.Is(i, ','); {
			i = r.OverType(i)
		}
		bounds = append(bounds, [2]int{from, i})
	}
	r.Arena.Put(model.TokenPunctuation, "<")
	for n, bound := range bounds {
		if n > 0 {
			r.Arena.Put(model.TokenPunctuation, ", ")
		}
		r.Arena.Put(model.TokenTypeParam, extra.TypeParams[n].Name)
		if r.Word(bound[0]) == "extends" && !r.bindsNothing(bound[0]+1, bound[1]) {
			r.Arena.Put(model.TokenKeyword, " extends ")
			mark := r.Arena.Mark()
			r.putType(bound[0]+1, bound[1])
			extra.TypeParams[n].Type = r.Arena.Since(mark)
		}
	}
	r.Arena.Put(model.TokenPunctuation, ">")
	return end
}

// bindsNothing reports whether a bound, but for what annotations say, is that of all types.
func (r *reader) bindsNothing(from, to int) bool {
	i := r.annotations(from)
	return r.Word(i) == "Object" && i+1 == to
}

// putType puts the tokens of a type, which stand between two indices, as people write it.
func (r *reader) putType(from, to int) {
	for i := from; i < to; {
		t := &r.Tokens[i]
		text := r.Text[t.From:t.To]
		switch {
		case r.Is(i, '@'):
			next := min(r.annotation(i, to), to)
			if next <= i {
				next = i + 1
			}
			i = next // what is said of a type besides: pages show the type
			continue
		case t.Kind == lexing.Word && (text == "extends" || text == "super") && i > from:
			r.Arena.Put(model.TokenKeyword, " "+text+" ")
		case t.Kind == lexing.Word && primitives[text]:
			r.Arena.Put(model.TokenKeyword, text)
		case t.Kind == lexing.Word:
			end := i + 1
			for end+1 < to && r.Is(end, '.') && r.Word(end+1) != "" {
				end += 2
			}
			r.typeName(i, end)
			i = end
			continue
		case text == ",":
			r.Arena.Put(model.TokenPunctuation, ", ")
		case text == "&":
			r.Arena.Put(model.TokenPunctuation, " & ")
		default:
			r.Arena.Put(model.TokenPunctuation, text)
		}
		i++
	}
}

// typeName puts a name in a type.
func (r *reader) typeName(from, to int) {
	name := r.Dotted(from, to)
	if to == from+1 {
		for i := len(r.scoped) - 1; i >= 0; i-- {
			if r.scoped[i] == name {
				r.Arena.Put(model.TokenTypeParam, name)
				return
			}
		}
	}
	r.Arena.Put(model.TokenType, name)
}
