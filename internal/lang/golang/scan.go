package golang

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/source"
)

// Scan finds keywords, numbers, strings and comments as the Go specification
// has them ("Lexical elements").
func (FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	for at := 0; at < len(text); {
		class, end := lexing.Class(0), 0
		switch begins[text[at]] {
		case nothing:
			at++
			continue
		case aName:
			end = at + 1
			for end < len(text) && inNames[text[end]] {
				end++
			}
			if !isKeyword(text[at:end]) {
				at = end
				continue
			}
			class = lexing.Keyword
		case aNumber:
			if text[at] == '.' && (at+1 == len(text) || !isDigit(text[at+1])) {
				at++
				continue
			}
			class, end = lexing.Number, endOfNumber(text, at)
		case aString:
			class, end = lexing.Text, endOfString(text, at)
		case aRawString:
			class, end = lexing.Text, endBehind(text, at+1, "`")
		case aComment:
			class = lexing.Comment
			switch {
			case strings.HasPrefix(text[at+1:], "/"):
				end = endOfLine(text, at)
			case strings.HasPrefix(text[at+1:], "*"):
				end = endBehind(text, at+2, "*/")
			default:
				at++
				continue
			}
		}
		into = append(into, lexing.Piece{Class: class, Span: source.NewSpan(at, end)})
		at = end
	}
	return into
}

// What a byte may begin.
const (
	nothing = iota
	aName
	aNumber
	aString
	aRawString
	aComment
)

var begins = func() (table [256]uint8) {
	for c := range table {
		switch {
		case letters[c]:
			table[c] = aName
		case isDigit(byte(c)) || c == '.':
			table[c] = aNumber
		case c == '"' || c == '\'':
			table[c] = aString
		case c == '`':
			table[c] = aRawString
		case c == '/':
			table[c] = aComment
		}
	}
	return table
}()

var inNames = func() (set [256]bool) {
	for c := range set {
		set[c] = letters[c] || isDigit(byte(c))
	}
	return set
}()

// letters are the bytes that a name can begin with; those of letters beyond
// ASCII are among them, since nothing else of Go's syntax is.
var letters = func() (set [256]bool) {
	for c := range set {
		set[c] = 'a' <= c && c <= 'z' || 'A' <= c && c <= 'Z' || c == '_' || c >= 0x80
	}
	return set
}()

func isDigit(c byte) bool { return '0' <= c && c <= '9' }

func isKeyword(word string) bool {
	// Most names end this question with their length or first letter.
	if len(word) < 2 || len(word) > len("fallthrough") || !keywordStarts[word[0]] {
		return false
	}
	switch word {
	case "break", "case", "chan", "const", "continue", "default", "defer", "else", "fallthrough", "for", "func", "go", "goto",
		"if", "import", "interface", "map", "package", "range", "return", "select", "struct", "switch", "type", "var":
		return true
	}
	return false
}

var keywordStarts = [256]bool{'b': true, 'c': true, 'd': true, 'e': true, 'f': true, 'g': true, 'i': true, 'm': true, 'p': true, 'r': true, 's': true, 't': true, 'v': true}

// endOfNumber takes a sign behind an exponent for part of the number: "e" is a
// digit of hexadecimal numbers, whose exponent is "p".
func endOfNumber(text string, at int) int {
	hex := strings.HasPrefix(text[at:], "0x") || strings.HasPrefix(text[at:], "0X")
	for at < len(text) {
		c := text[at]
		exponent := !hex && (c == 'e' || c == 'E') || c == 'p' || c == 'P'
		switch {
		case exponent && at+1 < len(text) && (text[at+1] == '+' || text[at+1] == '-'):
			at += 2
		case c == '.' || isDigit(c) || c < 0x80 && letters[c]:
			at++
		default:
			return at
		}
	}
	return at
}

// endOfString finds the end of a string or character, at the latest where its line ends.
func endOfString(text string, at int) int {
	quote := text[at]
	for i := at + 1; i < len(text); i++ {
		switch text[i] {
		case quote:
			return i + 1
		case '\\':
			if i+1 < len(text) && text[i+1] != '\n' {
				i++
			}
		case '\n':
			return i
		}
	}
	return len(text)
}

func endOfLine(text string, at int) int {
	i := strings.IndexByte(text[at:], '\n')
	if i < 0 {
		return len(text)
	}
	if i > 0 && text[at+i-1] == '\r' {
		i--
	}
	return at + i
}

func endBehind(text string, from int, mark string) int {
	if i := strings.Index(text[from:], mark); i >= 0 {
		return from + i + len(mark)
	}
	return len(text)
}
