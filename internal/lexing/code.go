package lexing

import (
	"strings"
	"unicode/utf8"
)

// This file has what the code of most languages has in common: names, numbers, texts in
// quotes, and lines.

// NameBytes are the bytes that names are made of: letters, digits, "_", all that is beyond
// ASCII, and further ones.
func NameBytes(more string) *[256]bool {
	var set [256]bool
	for c := range set {
		set[c] = c == '_' || 'a' <= c && c <= 'z' || 'A' <= c && c <= 'Z' || IsDigit(byte(c)) || c >= utf8.RuneSelf
	}
	for i := range len(more) {
		set[more[i]] = true
	}
	return &set
}

// IsDigit reports whether a byte is a decimal digit.
func IsDigit(c byte) bool { return '0' <= c && c <= '9' }

// EndOfLine is the offset of the end of the line that an offset is in, or of the text's.
func EndOfLine(text string, at int) int {
	if i := strings.IndexByte(text[at:], '\n'); i >= 0 {
		return at + i
	}
	return len(text)
}

// Quoted is the offset behind the text in quotes that begins at an offset, in which a
// backslash takes the next character, or line end, along. One that is not closed ends with
// its line.
func Quoted(text string, at int) (end int, closed bool) {
	quote := text[at]
	for i := at + 1; i < len(text); i++ {
		switch text[i] {
		case quote:
			return i + 1, true
		case '\n':
			return i, false
		case '\\':
			if strings.HasPrefix(text[i+1:], "\r\n") {
				i++
			}
			i++
		}
	}
	return len(text), false
}

// NumberAt reports whether a number begins at an offset: with a digit, or a point before one.
func NumberAt(text string, at int) bool {
	return IsDigit(text[at]) || text[at] == '.' && at+1 < len(text) && IsDigit(text[at+1])
}

// NumberEnd is the offset behind the number that begins at an offset, with letters for its
// base or type and the sign of an exponent. Names are the bytes of names.
func NumberEnd(text string, at int, names *[256]bool) int {
	base := text[at] == '0' && at+1 < len(text) && text[at+1]|0x20 == 'x'
	for at++; at < len(text); at++ {
		c := text[at]
		switch {
		case c == '.', names[c] && c < utf8.RuneSelf:
		case (c == '+' || c == '-') && !base && text[at-1]|0x20 == 'e':
		default:
			return at
		}
	}
	return at
}
