package python

import (
	"codrel/internal/lexing"
	"codrel/internal/source"
)

// Scan finds keywords, numbers, strings and comments.
func (FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	t := tokenizer{lexer: lexer{text: text}, pieces: into}
	for at := 0; at < len(text); {
		at = t.takeLine(at)
	}
	return t.pieces
}

// tokenizer takes logical lines apart: into tokens, from which the names in the code are
// found, and into the pieces that are told apart for those who read it.
type tokenizer struct {
	lexer
	tokens []token // of the logical line
	pieces []lexing.Piece
}

// token is a word, a mark, or anything else that stands for a value.
type token struct {
	from, to int32
	kind     lexing.TokenKind
	depth    int32 // of the brackets around; an opening bracket and its partner have that around them
	chained  bool  // a word behind a dot
}

func (t *tokenizer) piece(class lexing.Class, from, to int) int {
	if to > from {
		t.pieces = append(t.pieces, lexing.Piece{Class: class, Span: source.NewSpan(from, to)})
	}
	return to
}

// takeLine takes the logical line that begins at an offset apart, and gives the offset
// behind it.
func (t *tokenizer) takeLine(at int) int {
	t.tokens = t.tokens[:0]
	depth := int32(0)
	put := func(kind lexing.TokenKind, from, to int) {
		t.tokens = append(t.tokens, token{from: int32(from), to: int32(to), kind: kind, depth: depth})
	}
	for at < len(t.text) {
		switch c := t.text[at]; {
		case c == '\n':
			at++
			if depth == 0 {
				return at
			}
		case c == '#':
			at = t.piece(lexing.Comment, at, t.endOfLine(at))
		case c == '\\':
			at, _ = t.continued(at)
		case c == '"' || c == '\'':
			end, _ := t.stringEnd(at)
			put(lexing.Value, at, end)
			from := at - t.prefix(at)
			if last := len(t.pieces) - 1; last >= 0 { // "0b" of a broken number is no prefix
				from = max(from, int(t.pieces[last].Span.End))
			}
			at = t.piece(lexing.Text, from, end)
		case startsName(c):
			at = t.takeWord(at, put)
		case lexing.NumberAt(t.text, at):
			end := lexing.NumberEnd(t.text, at, &inNames)
			put(lexing.Value, at, end)
			at = t.piece(lexing.Number, at, end)
		case c == '(' || c == '[' || c == '{':
			put(lexing.Mark, at, at+1)
			depth++
			at++
		case c == ')' || c == ']' || c == '}':
			depth = max(0, depth-1)
			put(lexing.Mark, at, at+1)
			at++
		case c == ' ' || c == '\t' || c == '\r' || c == '\f':
			at++
		default:
			end := at + 1
			if end < len(t.text) && t.text[end] == '=' || c == '-' && end < len(t.text) && t.text[end] == '>' {
				end++ // "==", "+=", ":=", "->"
			}
			put(lexing.Mark, at, end)
			at = end
		}
	}
	return at
}

// takeWord takes a name or keyword; the prefix of a string goes with that.
func (t *tokenizer) takeWord(at int, put func(lexing.TokenKind, int, int)) int {
	end := t.nameEnd(at)
	if end < len(t.text) && (t.text[end] == '"' || t.text[end] == '\'') && t.prefix(end) == end-at {
		return end
	}
	put(lexing.Word, at, end)
	keyword := isKeyword(t.text[at:end])
	if keyword {
		t.piece(lexing.Keyword, at, end)
	}
	if n := len(t.tokens); n > 1 && t.is(n-2, '.') && !keyword {
		t.tokens[n-1].chained = true
	}
	return end
}

// is reports whether the token at an index is a mark of one byte.
func (t *tokenizer) is(i int, mark byte) bool {
	return i >= 0 && i < len(t.tokens) && isMark(t.text, t.tokens[i], mark)
}

// isKeyword knows the keywords that are so everywhere (keyword.kwlist).
func isKeyword(word string) bool {
	switch word {
	case "False", "None", "True", "and", "as", "assert", "async", "await", "break", "class", "continue", "def", "del", "elif", "else",
		"except", "finally", "for", "from", "global", "if", "import", "in", "is", "lambda", "nonlocal", "not", "or", "pass", "raise",
		"return", "try", "while", "with", "yield":
		return true
	}
	return false
}
