package python

import (
	"strings"

	"codrel/internal/lexing"
)

// This file knows the lexical structure of Python ("Lexical analysis" in the
// language reference) as far as it decides where strings, comments and logical
// lines end.

// lexer finds the ends of things in a text.
type lexer struct {
	text  string
	spent int // bytes looked at in formatted strings that turned out to be broken
}

// What a byte may be the beginning of.
const (
	plain = iota
	lineEnd
	comment
	quote
	opening
	closing
	backslash
	equals
	colon
	semicolon
	comma
	letterL // "lambda" brings its own colon, commas and equals signs
)

var bytesOfLines, bytesOfStatements [256]uint8

var inNames = *lexing.NameBytes("")

func init() {
	for c, class := range map[byte]uint8{
		'\n': lineEnd, '#': comment, '\'': quote, '"': quote, '(': opening, '[': opening, '{': opening,
		')': closing, ']': closing, '}': closing, '\\': backslash,
	} {
		bytesOfLines[c], bytesOfStatements[c] = class, class
	}
	for c, class := range map[byte]uint8{'=': equals, ':': colon, ';': semicolon, ',': comma, 'l': letterL} {
		bytesOfStatements[c] = class
	}
}

func startsName(c byte) bool { return inNames[c] && (c < '0' || c > '9') }

// nameEnd is the offset behind the name that begins at an offset, or the offset
// itself where none does.
func (l *lexer) nameEnd(at int) int {
	if at >= len(l.text) || !startsName(l.text[at]) {
		return at
	}
	for at < len(l.text) && inNames[l.text[at]] {
		at++
	}
	return at
}

// wordAt reports whether a whole word stands at an offset.
func (l *lexer) wordAt(at int, word string) bool {
	return strings.HasPrefix(l.text[at:], word) && (at+len(word) == len(l.text) || !inNames[l.text[at+len(word)]])
}

// endOfLine is the offset of the line's end, or of the text's.
func (l *lexer) endOfLine(at int) int { return lexing.EndOfLine(l.text, at) }

// continued is the offset behind a backslash that joins two lines; anywhere
// else a backslash is one byte like others.
func (l *lexer) continued(at int) (next int, joined bool) {
	rest := l.text[at+1:]
	if strings.HasPrefix(rest, "\n") {
		return at + 2, true
	}
	if strings.HasPrefix(rest, "\r\n") {
		return at + 3, true
	}
	return at + 1, false
}

// blanks is the offset behind white space, joined lines and, inside brackets,
// line ends and comments.
func (l *lexer) blanks(at int, bracketed bool) int {
	for at < len(l.text) {
		switch c := l.text[at]; {
		case c == ' ' || c == '\t' || c == '\f' || c == '\r':
			at++
		case c == '\\':
			next, joined := l.continued(at)
			if !joined {
				return at
			}
			at = next
		case bracketed && c == '\n':
			at++
		case bracketed && c == '#':
			at = l.endOfLine(at)
		default:
			return at
		}
	}
	return at
}

// prefix is how many letters of a string's prefix stand before its quote.
func (l *lexer) prefix(at int) int {
	n := 0
	for n < 3 && at-n > 0 && inNames[l.text[at-n-1]] {
		n++
	}
	if n == 3 {
		return 0
	}
	for i := at - n; i < at; i++ {
		switch l.text[i] | 0x20 {
		case 'r', 'b', 'u', 'f', 't':
		default:
			return 0
		}
	}
	return n
}

// stringEnd is the offset behind the string whose opening quote stands at an
// offset. A string that is not closed ends with its line, a triple-quoted one
// with the text.
func (l *lexer) stringEnd(at int) (end int, closed bool) {
	if at > 0 && inNames[l.text[at-1]] {
		for n := l.prefix(at); n > 0; n-- {
			if c := l.text[at-n] | 0x20; (c == 'f' || c == 't') && l.spent <= 4*len(l.text) {
				if end, ok := l.formatted(at, 0); ok {
					return end, true
				}
				break
			}
		}
	}
	return l.plainString(at)
}

func (l *lexer) triple(at int) bool {
	return at+2 < len(l.text) && l.text[at+1] == l.text[at] && l.text[at+2] == l.text[at]
}

func (l *lexer) plainString(at int) (end int, closed bool) {
	text, q := l.text, l.text[at]
	if l.triple(at) {
		for from := at + 3; ; {
			i := strings.IndexByte(text[from:], q)
			if i < 0 {
				return len(text), false
			}
			i += from
			if l.escaped(at+3, i) {
				from = i + 1
				continue
			}
			if l.triple(i) {
				return i + 3, true
			}
			from = i + 1
		}
	}
	return lexing.Quoted(text, at)
}

// escaped reports whether an odd number of backslashes stands before an offset.
func (l *lexer) escaped(from, at int) bool {
	n := 0
	for at-n > from && l.text[at-n-1] == '\\' {
		n++
	}
	return n%2 == 1
}

// deepestString bounds how deep strings are followed in the fields of strings.
const deepestString = 40

// formatted finds the end of a formatted string, in whose fields strings with
// the same quotes may stand (PEP 701). ok is false where it is not well-formed.
func (l *lexer) formatted(at, depth int) (end int, ok bool) {
	start := at
	defer func() {
		if !ok {
			l.spent += end - start
		}
	}()
	text, q, triple := l.text, l.text[at], l.triple(at)
	if depth > deepestString {
		return at, false
	}
	raw := at > 0 && text[at-1]|0x20 == 'r' || at > 1 && text[at-2]|0x20 == 'r' && inNames[text[at-1]]
	if at++; triple {
		at += 2
	}
	for at < len(text) {
		switch c := text[at]; {
		case c == '\\':
			switch {
			case !raw && strings.HasPrefix(text[at:], `\N{`):
				at += 3
			case strings.HasPrefix(text[at+1:], "{"), strings.HasPrefix(text[at+1:], "}"):
				at++
			default:
				at += 2
			}
		case c == q && !triple:
			return at + 1, true
		case c == q && l.triple(at):
			return at + 3, true
		case c == '\n' && !triple:
			return at, false
		case c == '{' && strings.HasPrefix(text[at+1:], "{"):
			at += 2
		case c == '{':
			if at, ok = l.field(at+1, q, triple, depth); !ok {
				return at, false
			}
		default:
			at++
		}
	}
	return len(text), false
}

// field is the offset behind the brace that closes a replacement field.
func (l *lexer) field(at int, q byte, triple bool, depth int) (end int, ok bool) {
	if depth > deepestString {
		return at, false
	}
	text, nested := l.text, 0
	for at < len(text) {
		switch c := text[at]; c {
		case '(', '[', '{':
			nested++
		case ')', ']':
			nested--
		case '}':
			if nested <= 0 {
				return at + 1, true
			}
			nested--
		case '#':
			at = l.endOfLine(at)
			continue
		case '\'', '"':
			if at, ok = l.nestedString(at, depth); !ok {
				return at, false
			}
			continue
		case ':':
			if nested <= 0 {
				return l.formatSpec(at+1, q, triple, depth)
			}
		}
		at++
	}
	return at, false
}

func (l *lexer) nestedString(at, depth int) (end int, ok bool) {
	for n := l.prefix(at); n > 0; n-- {
		if c := l.text[at-n] | 0x20; c == 'f' || c == 't' {
			return l.formatted(at, depth+1)
		}
	}
	return l.plainString(at)
}

// formatSpec reads what stands behind the colon of a field: text in which
// quotes mean nothing, and further fields.
func (l *lexer) formatSpec(at int, q byte, triple bool, depth int) (end int, ok bool) {
	for at < len(l.text) {
		switch c := l.text[at]; {
		case c == '}':
			return at + 1, true
		case c == '{':
			if at, ok = l.field(at+1, q, triple, depth+1); !ok {
				return at, false
			}
			continue
		case c == '\n' && !triple, c == q && !triple:
			return at, false
		}
		at++
	}
	return at, false
}
