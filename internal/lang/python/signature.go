package python

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file makes the tokens of signatures.

func (r *reader) put(kind model.TokenKind, text string) { r.arena.Put(kind, text) }

// longestValue is how many bytes a value has that is shown whole.
const longestValue = 60

// variableSignature puts "name: type = value".
func (r *reader) variableSignature(name source.Span, a assigned) model.Tokens {
	start := r.arena.Begin()
	r.put(model.TokenName, name.In(r.text))
	if !a.annotation.Empty() {
		r.put(model.TokenPunctuation, ": ")
		r.typeTokens(int(a.annotation.Start), int(a.annotation.End))
	}
	if !a.value.Empty() && len(a.names) == 1 {
		if lastName(a.annotation.In(r.text)) == "TypeAlias" {
			r.put(model.TokenPunctuation, " = ")
			r.typeTokens(int(a.value.Start), int(a.value.End))
		} else if a.value.Len() <= longestValue && !strings.Contains(a.value.In(r.text), "\n") {
			r.put(model.TokenPunctuation, " = ")
			r.put(model.TokenLiteral, a.value.In(r.text))
		}
	}
	return r.arena.Since(start)
}

// valueToken puts a default.
func (r *reader) valueToken(from, to int) {
	text := r.text[from:to]
	if strings.ContainsAny(text, "\n#") {
		text = collapsed(r.withoutComments(from, to))
	}
	if len(text) > longestValue {
		cut := longestValue
		for cut > 0 && text[cut]&0xC0 == 0x80 {
			cut--
		}
		text = text[:cut] + "…"
	}
	r.put(model.TokenLiteral, text)
}

// withoutComments is a part of the text whose comments are left out.
func (r *reader) withoutComments(from, to int) string {
	var b strings.Builder
	for at := from; at < to; {
		switch bytesOfLines[r.text[at]] {
		case comment:
			at = r.endOfLine(at)
		case quote:
			end, _ := r.stringEnd(at)
			end = min(end, to)
			b.WriteString(r.text[at:end])
			at = end
		default:
			b.WriteByte(r.text[at])
			at++
		}
	}
	return b.String()
}

// collapsed is a text on one line.
func collapsed(s string) string { return strings.Join(strings.Fields(s), " ") }

// typeTokens puts an annotation, in which names are references. A string in it
// is an annotation itself, except among the arguments of Literal.
func (r *reader) typeTokens(from, to int) {
	literals, depth := -1, 0 // depth of the brackets in which strings are values
	spaced, last := false, ""
	for at := from; at < to; {
		c := r.text[at]
		if isBlank(c) || c == '\\' {
			at++
			spaced = true
			continue
		}
		if c == '#' {
			at = min(r.endOfLine(at), to)
			continue
		}
		if spaced && strings.IndexByte(")]}", c) < 0 && last != "(" && last != "[" {
			r.put(model.TokenPunctuation, " ")
		}
		spaced = false
		switch {
		case startsName(c):
			end := min(r.dottedEnd(at), to)
			if end < to && (r.text[end] == '\'' || r.text[end] == '"') && end-at <= 2 {
				at = end // the prefix of a string
				continue
			}
			last = r.text[at:end]
			r.name(last)
			at = end
		case c == '\'' || c == '"':
			end, _ := r.stringEnd(at)
			end = min(end, to)
			r.quoted(at, end, literals >= 0)
			last, at = "", end
		case c >= '0' && c <= '9':
			end := at
			for end < to && (inNames[r.text[end]] || r.text[end] == '.') {
				end++
			}
			r.put(model.TokenLiteral, r.text[at:end])
			last, at = "", end
		default:
			if c == '[' && literals < 0 && lastName(last) == "Literal" {
				literals = depth
			}
			if strings.IndexByte("([{", c) >= 0 {
				depth++
			} else if strings.IndexByte(")]}", c) >= 0 {
				if depth--; depth <= literals {
					literals = -1
				}
			}
			last = r.text[at : at+1]
			r.put(model.TokenPunctuation, last)
			at++
		}
	}
}

func (r *reader) name(word string) {
	switch word {
	case "None", "True", "False", "and", "or", "not", "if", "else", "lambda", "in", "is", "for", "await":
		r.put(model.TokenKeyword, word)
	default:
		r.put(model.TokenType, word)
	}
}

// dottedEnd is the offset behind a name with the names that follow it behind dots.
func (l *lexer) dottedEnd(at int) int {
	end := l.nameEnd(at)
	for end+1 < len(l.text) && l.text[end] == '.' && startsName(l.text[end+1]) {
		end = l.nameEnd(end + 1)
	}
	return end
}

// quoted puts a string that stands in an annotation.
func (r *reader) quoted(from, to int, value bool) {
	n := 1
	if r.triple(from) {
		n = 3
	}
	inner := r.text[min(from+n, to):max(min(from+n, to), to-n)]
	if value || inner == "" || strings.ContainsAny(inner, "\\'\"\n") || strings.IndexFunc(inner, notOfTypes) >= 0 {
		r.put(model.TokenLiteral, r.text[from:to])
		return
	}
	r.put(model.TokenPunctuation, r.text[from:from+n])
	r.typeTokens(from+n, to-n)
	r.put(model.TokenPunctuation, r.text[to-n:to])
}

// notOfTypes finds characters that no type written as a string has.
func notOfTypes(c rune) bool {
	return c < 0x80 && !inNames[c] && !strings.ContainsRune(" .,[]|()*", c)
}
