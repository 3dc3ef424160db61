package python

import (
	"codrel/internal/lexing"
	"codrel/internal/source"
)

// Scan finds keywords, numbers, strings and comments.
func (FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	l := lexer{text: text}
	piece := func(class lexing.Class, from, to int) int {
		into = append(into, lexing.Piece{Class: class, Span: source.NewSpan(from, to)})
		return to
	}
	for at := 0; at < len(text); {
		c := text[at]
		switch {
		case c == '#':
			at = piece(lexing.Comment, at, l.endOfLine(at))
		case c == '"' || c == '\'':
			end, _ := l.stringEnd(at)
			from := at - l.prefix(at)
			if last := len(into) - 1; last >= 0 { // "0b" of a broken number is no prefix
				from = max(from, int(into[last].Span.End))
			}
			at = piece(lexing.Text, from, end)
		case startsName(c):
			end := l.nameEnd(at)
			switch {
			case isKeyword(text[at:end]):
				piece(lexing.Keyword, at, end)
			case end < len(text) && (text[end] == '"' || text[end] == '\'') && l.prefix(end) == end-at:
				// the string comes next and takes its prefix along
			}
			at = end
		case c >= '0' && c <= '9', c == '.' && at+1 < len(text) && text[at+1] >= '0' && text[at+1] <= '9':
			at = piece(lexing.Number, at, l.numberEnd(at))
		default:
			at++
		}
	}
	return into
}

// numberEnd is the offset behind a number ("Numeric literals").
func (l *lexer) numberEnd(at int) int {
	hex := l.text[at] == '0' && at+1 < len(l.text) && l.text[at+1]|0x20 == 'x'
	for at < len(l.text) {
		c := l.text[at]
		switch {
		case c == '.', inNames[c] && c < 0x80:
			at++
			if !hex && c|0x20 == 'e' && at < len(l.text) && (l.text[at] == '+' || l.text[at] == '-') {
				at++
			}
		default:
			return at
		}
	}
	return at
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
