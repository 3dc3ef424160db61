package prose

import (
	"strings"
	"unicode"
)

var (
	powers  = strings.NewReplacer("0", "⁰", "1", "¹", "2", "²", "3", "³", "4", "⁴", "5", "⁵", "6", "⁶", "7", "⁷", "8", "⁸", "9", "⁹")
	indices = strings.NewReplacer("0", "₀", "1", "₁", "2", "₂", "3", "₃", "4", "₄", "5", "₅", "6", "₆", "7", "₇", "8", "₈", "9", "₉")
)

// Raised is what stands above a line, or below it, in a line of plain text, where 10 to the
// third must not become 103: digits of Unicode that stand there, else "^" or "_" before it.
// Endings of words (the "st" of 1st) and numbers of footnotes stay as they are.
func Raised(kind Kind, text string) string {
	mark, digits := "^", powers
	if kind == Subscript {
		mark, digits = "_", indices
	}
	letters, numbers, others := 0, 0, 0
	for _, r := range text {
		switch {
		case '0' <= r && r <= '9':
			numbers++
		case unicode.IsLetter(r):
			letters++
		default:
			others++
		}
	}
	switch {
	case text == "", strings.HasPrefix(text, "["), kind == Superscript && letters > 1 && numbers+others == 0:
		return text
	case letters+others == 0:
		return digits.Replace(text)
	case others > 0:
		return mark + "(" + text + ")"
	}
	return mark + text
}
