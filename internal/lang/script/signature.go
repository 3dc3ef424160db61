package script

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file makes the tokens of signatures.

// longestValue is how many bytes a value has that is shown whole.
const longestValue = 60

// variableTokens puts "const name: type = value".
func (r *reader) variableTokens(word string, name source.Span, typeFrom, typeTo, valueFrom, valueTo int) {
	if word != "" {
		r.put(model.TokenKeyword, word+" ")
	}
	r.put(model.TokenName, name.In(r.text))
	if typeTo > typeFrom {
		r.put(model.TokenPunctuation, ": ")
		r.typeTokens(typeFrom, typeTo)
	}
	if valueTo > valueFrom {
		r.value(valueFrom, valueTo)
	}
}

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

// typeTokens puts a type, in which names are references, on one line.
func (r *reader) typeTokens(from, to int) {
	spaced, last, depth := false, byte(0), 0
	for at := from; at < to; {
		c := r.text[at]
		if isBlank(c) {
			at++
			spaced = true
			continue
		}
		if c == '/' && r.commentAt(at) {
			at = min(r.commentEnd(at), to)
			spaced = true
			continue
		}
		if spaced && last != 0 && c != ')' && c != ']' && c != ',' && c != ';' && c != '.' && last != '(' && last != '[' && last != '.' && last != '<' && c != '>' {
			r.put(model.TokenPunctuation, " ")
		}
		spaced = false
		switch {
		case c == '"' || c == '\'':
			end := min(r.quoted(at), to)
			r.put(model.TokenLiteral, r.text[at:end])
			at = end
		case c == '`':
			end := min(r.template(at), to)
			r.put(model.TokenLiteral, strings.Join(strings.Fields(r.text[at:end]), " "))
			at = end
		case startsName(c):
			end := min(r.nameEnd(at), to)
			for end+1 < to && r.text[end] == '.' && startsName(r.text[end+1]) {
				end = min(r.nameEnd(end+1), to)
			}
			if end == at {
				end++
			}
			r.typeName(r.text[at:end], r.byteAt(r.after(end)), depth)
			at = end
		case c >= '0' && c <= '9':
			end := at
			for end < to && (inNames[r.text[end]] || r.text[end] == '.') {
				end++
			}
			r.put(model.TokenLiteral, r.text[at:end])
			at = end
		default:
			end := at
			for end < to && marks[r.text[end]] {
				switch r.text[end] {
				case '{', '(', '[':
					depth++
				case '}', ')', ']':
					depth--
				}
				end++
			}
			end = max(end, at+1)
			// A blank that is written behind the marks goes with them.
			if end+1 < to && r.text[end] == ' ' && strings.IndexByte(",:|&>;{=?", r.text[end-1]) >= 0 && startsName(r.text[end+1]) {
				end++
			}
			r.put(model.TokenPunctuation, r.text[at:end])
			at = end
			if r.text[at-1] == ' ' {
				last = '('
				continue
			}
		}
		last = r.text[at-1]
	}
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
	if depth > 0 && (next == ':' || next == '?') {
		r.put(model.TokenField, word)
		return
	}
	r.put(model.TokenType, word)
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
		at = r.after(nameEnd)
		if r.wordAt(at, "extends") {
			from := r.after(at + len("extends"))
			to := min(r.typeEnd(from), end)
			r.put(model.TokenKeyword, " extends ")
			mark := r.arena.Mark()
			r.typeTokens(from, to)
			p.Type = r.arena.Since(mark)
			at = r.after(to)
		}
		if r.byteAt(at) == '=' && at < end {
			from := r.after(at + 1)
			to := min(r.typeEnd(from), end)
			r.put(model.TokenPunctuation, " = ")
			r.typeTokens(from, to)
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
