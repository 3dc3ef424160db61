package csharp

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file reads types: where they end and how they stand in signatures.

// typ is the index behind the type at an index; ok is false where there is none.
func (r *reader) typ(i int) (end int, ok bool) {
	if word := r.Word(i); word == "ref" || word == "scoped" && (r.Word(i+1) != "" || r.Is(i+1, '(')) {
		if i++; r.Word(i) == "readonly" || r.Word(i) == "struct" {
			i++
		}
	}
	switch word := r.Word(i); {
	case r.Is(i, '('): // a tuple
		if int(r.Tokens[i].Partner) < i {
			return i, false
		}
		i = r.Over(i)
	case word == "delegate" && r.Is(i+1, '*'):
		for i += 2; r.Word(i) != "" || r.Is(i, '['); {
			i = r.Over(i)
		}
		if !r.Is(i, '<') || r.OverType(i) == i+1 {
			return i, false
		}
		i = r.OverType(i)
	case word == "" || isKeyword(word):
		return i, false
	default:
		if i, ok = r.typeName(i); !ok {
			return i, false
		}
	}
	return r.suffixes(i), true
}

// typeName is the index behind the name of a type, with its arguments.
func (r *reader) typeName(i int) (end int, ok bool) {
	for {
		if r.Word(i) == "" {
			return i, false
		}
		if i++; r.Is(i, '<') {
			if int(r.Tokens[i].Partner) < i {
				return i, false
			}
			i = r.OverType(i)
		}
		if !r.Is(i, '.') && !r.IsMark(i, "::") || r.Word(i+1) == "" {
			return i, true
		}
		i++
	}
}

// suffixes is the index behind the marks of arrays, pointers and what may be nothing.
func (r *reader) suffixes(i int) int {
	for {
		switch {
		case r.Is(i, '?'), r.Is(i, '*'):
			i++
		case r.Is(i, '['):
			stop := i + 1
			for r.Is(stop, ',') {
				stop++
			}
			if !r.Is(stop, ']') {
				return i
			}
			i = stop + 1
		default:
			return i
		}
	}
}

// putType puts the tokens of a type, which stand between two indices, as people write it.
func (r *reader) putType(from, to int) {
	for i := from; i < to; {
		t := &r.Tokens[i]
		text := r.Text[t.From:t.To]
		switch {
		case t.Kind == lexing.Word && isPredefined(text):
			r.Arena.Put(model.TokenKeyword, text)
		case t.Kind == lexing.Word && (isKeyword(text) || text == "scoped" || text == "unmanaged" || text == "managed"):
			r.Arena.Put(model.TokenKeyword, text)
			if r.Word(i+1) != "" && i+1 < to {
				r.Arena.Put(model.TokenPunctuation, " ")
			}
		case t.Kind == lexing.Word:
			end := i + 1
			for end+1 < to && (r.Is(end, '.') || r.IsMark(end, "::")) && r.Word(end+1) != "" {
				end += 2
			}
			r.putName(i, end, from)
			i = end
			continue
		case text == ",":
			if r.Is(i+1, ',') || r.Is(i+1, ']') || r.Is(i+1, '>') {
				r.Arena.Put(model.TokenPunctuation, ",")
			} else {
				r.Arena.Put(model.TokenPunctuation, ", ")
			}
		case text == "[" && (r.Is(i-1, '<') || r.Is(i-1, '(') || r.Is(i-1, ',')):
			i = min(r.Over(i), to) // an attribute
			continue
		case text == "*" && i+1 < to && r.Word(i+1) != "":
			r.Arena.Put(model.TokenPunctuation, "* ")
		default:
			r.Arena.Put(model.TokenPunctuation, text)
		}
		i++
	}
}

// putName puts a name in a type: of a type, or, behind one in a tuple, of its part.
func (r *reader) putName(from, to, first int) {
	name := strings.ReplaceAll(r.Dotted(from, to), "@", "")
	switch {
	case from > first && (r.Word(from-1) != "" && !isKeyword(r.Word(from-1)) || r.Is(from-1, '>') || r.Is(from-1, ']') || r.Is(from-1, '?') || r.Is(from-1, ')') || isPredefined(r.Word(from-1))):
		r.Arena.Put(model.TokenPunctuation, " ")
		r.Arena.Put(model.TokenParameter, name)
	case to == from+1 && r.isScoped(name):
		r.Arena.Put(model.TokenTypeParam, name)
	case name == "var" || name == "dynamic" || name == "nint" || name == "nuint":
		r.Arena.Put(model.TokenKeyword, name)
	default:
		r.Arena.Put(model.TokenType.OfArity(r.countArguments(to)), strings.TrimPrefix(name, "global::"))
	}
}

// countArguments is how many types stand in what "<" opens at an index.
func (r *reader) countArguments(i int) int {
	if !r.Is(i, '<') {
		return 0
	}
	n, end := 1, r.OverType(i)
	for i++; i < end-1; i = r.OverType(i) {
		if r.Is(i, ',') {
			n++
		}
	}
	return n
}

func (r *reader) isScoped(name string) bool {
	for i := len(r.scoped) - 1; i >= 0; i-- {
		if r.scoped[i] == name {
			return true
		}
	}
	return false
}

// scope makes known the type parameters that "<" opens, before they are read, and gives the
// index behind them.
func (r *reader) scope(open int) (end int) {
	end = r.OverType(open)
	for i := open + 1; i < end-1; i = r.Over(i) {
		if word := r.Word(i); word != "" && word != "in" && word != "out" {
			r.scoped = append(r.scoped, word)
		}
	}
	return end
}

// typeParameters reads what "<" opens behind the name of a declaration, and puts it.
func (r *reader) typeParameters(open int, extra *model.Extra) (end int) {
	end = r.OverType(open)
	if end == open+1 {
		return end
	}
	r.Arena.Put(model.TokenPunctuation, "<")
	for i := open + 1; i < end-1; i++ {
		for r.Is(i, '[') {
			i = r.Over(i)
		}
		if word := r.Word(i); word == "in" || word == "out" {
			r.Arena.Put(model.TokenKeyword, word+" ")
			i++
		}
		name := strings.TrimPrefix(r.Word(i), "@")
		if name == "" {
			continue
		}
		extra.TypeParams = append(extra.TypeParams, model.Param{Name: name})
		r.scoped = append(r.scoped, name)
		r.Arena.Put(model.TokenTypeParam, name)
		if i++; r.Is(i, ',') {
			r.Arena.Put(model.TokenPunctuation, ", ")
		}
	}
	r.Arena.Put(model.TokenPunctuation, ">")
	return end
}

// constraints reads "where" clauses, puts them and gives the index behind them.
func (r *reader) constraints(i, end int, extra *model.Extra) int {
	for i < end && r.Word(i) == "where" && r.Word(i+1) != "" && r.Is(i+2, ':') {
		name := r.Word(i + 1)
		r.Arena.Put(model.TokenKeyword, " where ")
		r.Arena.Put(model.TokenTypeParam, name)
		r.Arena.Put(model.TokenPunctuation, " : ")
		i += 3
		mark := r.Arena.Mark()
		for i < end {
			next := i
			for next < end && !r.Is(next, ',') && !r.Is(next, '{') && !r.Is(next, ';') && !r.IsMark(next, "=>") && r.Word(next) != "where" {
				next = r.OverType(next)
			}
			r.putConstraint(i, next)
			if i = next; !r.Is(i, ',') {
				break
			}
			r.Arena.Put(model.TokenPunctuation, ", ")
			i++
		}
		for n := range extra.TypeParams {
			if extra.TypeParams[n].Name == name {
				extra.TypeParams[n].Type = r.Arena.Since(mark)
			}
		}
	}
	return i
}

// putConstraint puts what a type parameter must be: a type or a word of the language.
func (r *reader) putConstraint(from, to int) {
	switch word := r.Word(from); {
	case word == "class" || word == "struct" || word == "notnull" || word == "unmanaged" || word == "default" || word == "new" || word == "allows":
		for i := from; i < to; i++ {
			text := r.Text[r.Tokens[i].From:r.Tokens[i].To]
			if r.Word(i) != "" && i > from {
				text = " " + text
			}
			kind := model.TokenKeyword
			if r.Word(i) == "" {
				kind = model.TokenPunctuation
			}
			r.Arena.Put(kind, text)
		}
	default:
		r.putType(from, to)
	}
}
