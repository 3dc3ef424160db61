package script

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file makes the tokens of signatures.

// longestValue is how many bytes a value has that is shown whole.
const longestValue = 60

// value puts a value that is short enough to be read.
func (r *reader) value(from, to int) {
	if from < to && to-from <= longestValue && !strings.Contains(r.text[from:to], "\n") {
		r.put(model.TokenPunctuation, " = ")
		r.put(model.TokenLiteral, r.text[from:to])
	}
}

// marks are bytes of types that are part of no name, string, number or comment.
var marks [256]bool

func init() {
	for _, c := range []byte("{}()[]<>,;:|&=?.-+!@#*%^~") {
		marks[c] = true
	}
}

// typeTokens puts a piece of a type, in which names are references, on one line.
func (r *reader) typeTokens(from, to int) {
	t := typeWriter{reader: r, to: to, whole: true}
	t.write(from)
}

// putType puts the type that begins at an offset and gives the offset behind it:
// finding the end and making tokens are one pass.
func (r *reader) putType(from int) int {
	t := typeWriter{reader: r, to: len(r.text)}
	return max(from, t.write(from))
}

// typeName puts a name in a type: a keyword, the name of a member or parameter
// within brackets, or the name of a type.
func (r *reader) typeName(word string, next byte, depth int) {
	switch word {
	case "string", "number", "boolean", "void", "undefined", "null", "any", "unknown", "never", "object", "symbol", "bigint", "true", "false",
		"keyof", "typeof", "readonly", "infer", "extends", "is", "asserts", "unique", "new", "this", "in", "as", "abstract", "import":
		if next != ':' || depth == 0 {
			r.put(model.TokenKeyword, word)
			return
		}
	}
	if depth > 0 && (next == ':' || next == '?' || next == '(') {
		r.put(model.TokenField, word)
		return
	}
	r.put(r.namesType(word), word)
}

// namesType is the kind of the token of a name in a type: type parameters hide the
// types that are called as they are.
func (r *reader) namesType(word string) model.TokenKind {
	if len(r.generics) > 0 && slices.Contains(r.generics, word) {
		return model.TokenTypeParam
	}
	return model.TokenType
}

// scoped reads something with type parameters of its own, which end with it.
func (r *reader) scoped(read func()) {
	was := len(r.generics)
	read()
	r.generics = r.generics[:was]
}

// longestGenerics is how many bytes the type parameters of a function type have
// that are looked through for their names.
const longestGenerics = 600

// parametersOf notes the type parameters that a "<" within a type declares: those of a
// function or a method, since there alone a "(" follows. It reports whether it does.
func (r *reader) parametersOf(at int) bool {
	depth, were := 0, len(r.generics)
	expected := false
	for i := at; i < min(len(r.text), at+longestGenerics); i++ {
		switch c := r.text[i]; {
		case c == '<':
			depth++
			expected = depth == 1
		case c == '>' && r.text[i-1] == '=':
		case c == '>':
			if depth--; depth == 0 {
				if r.byteAt(r.after(i+1)) == '(' {
					return true
				}
				r.generics = r.generics[:were]
				return false
			}
		case c == ',':
			expected = depth == 1
		case c == '(' || c == '{' || c == '[':
			depth++
		case c == ')' || c == '}' || c == ']':
			if depth--; depth < 1 {
				r.generics = r.generics[:were]
				return false
			}
		case startsName(c):
			word := r.word(i)
			if expected && word != "const" && word != "in" && word != "out" {
				r.generic(word)
				expected = false
			}
			i += max(len(word), 1) - 1
		}
	}
	r.generics = r.generics[:were]
	return false
}

// typeParamTokens puts "<T extends B = D>" and gives the parameters.
func (r *reader) typeParamTokens(span source.Span) []model.Param {
	if span.Empty() {
		return nil
	}
	var out []model.Param
	r.put(model.TokenPunctuation, "<")
	at, end := int(span.Start)+1, int(span.End)-1
	for n := 0; ; n++ {
		at = r.after(at)
		if at >= end {
			break
		}
		if n > 0 {
			r.put(model.TokenPunctuation, ", ")
		}
		for {
			word := r.word(at)
			next := r.after(at + len(word))
			if word != "const" && word != "in" && word != "out" || next >= end || r.byteAt(next) == ',' {
				break
			}
			r.put(model.TokenKeyword, word+" ")
			at = next
		}
		nameEnd := min(r.nameEnd(at), end)
		if nameEnd <= at {
			break
		}
		p := model.Param{Name: r.text[at:nameEnd]}
		r.put(model.TokenTypeParam, p.Name)
		r.generic(p.Name)
		at = r.after(nameEnd)
		if r.wordAt(at, "extends") {
			from := r.after(at + len("extends"))
			r.put(model.TokenKeyword, " extends ")
			mark := r.arena.Mark()
			to := min(r.putType(from), end)
			p.Type = r.arena.Since(mark)
			at = r.after(to)
		}
		if r.byteAt(at) == '=' && at < end {
			from := r.after(at + 1)
			r.put(model.TokenPunctuation, " = ")
			to := min(r.putType(from), end)
			at = r.after(to)
		}
		out = append(out, p)
		if at >= end || r.byteAt(at) != ',' {
			break
		}
		at++
	}
	r.put(model.TokenPunctuation, ">")
	return out
}

// mostGenerics bounds how many type parameters are remembered at once.
const mostGenerics = 64

// generic notes that a type parameter is in scope.
func (r *reader) generic(name string) {
	if len(r.generics) < mostGenerics {
		r.generics = append(r.generics, name)
	}
}
