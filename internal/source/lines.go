package source

import (
	"math/bits"
	"sort"
	"strings"
	"unicode/utf8"
)

// Lines is the line table of one text. It turns byte offsets into positions
// without holding on to the text: beside the line starts it remembers only the
// characters of more than one byte, which most source files hardly have.
// The zero value is the table of an empty text.
type Lines struct {
	starts []int32 // starts[0] == 0, ascending; nil means one line
	wide   []wide  // ascending by offset
	size   int32
}

// wide is one character of more than one byte.
type wide struct {
	offset int32
	bytes  uint8
	units  uint8 // UTF-16 code units
}

// NewLines makes the table of text. A line ends behind "\n"; a lone "\r" does
// not end one, as in Go, C and Python sources on every system of today.
func NewLines(text string) Lines { return linesOf(text, isASCII(text)) }

// linesOf makes the table of a text of which is known whether it is ASCII.
func linesOf(text string, ascii bool) Lines {
	starts := make([]int32, 1+strings.Count(text, "\n"))
	at, n := 0, 1
	for ; at+8 <= len(text); at += 8 {
		for found := newlines(word(text, at)); found != 0; found &= found - 1 {
			starts[n] = int32(at + bits.TrailingZeros64(found)/8 + 1)
			n++
		}
	}
	for ; at < len(text); at++ {
		if text[at] == '\n' {
			starts[n] = int32(at + 1)
			n++
		}
	}
	l := Lines{starts: starts, size: int32(len(text))}
	if !ascii {
		l.wide = wideCharacters(text)
	}
	return l
}

// word is the eight bytes of a text at an offset, the first the lowest.
func word(text string, at int) uint64 {
	b := text[at : at+8]
	return uint64(b[0]) | uint64(b[1])<<8 | uint64(b[2])<<16 | uint64(b[3])<<24 |
		uint64(b[4])<<32 | uint64(b[5])<<40 | uint64(b[6])<<48 | uint64(b[7])<<56
}

const (
	eachByte = 0x0101010101010101
	highBits = 0x80 * eachByte
)

// newlines has the high bit of each byte set that is "\n".
func newlines(w uint64) uint64 {
	w ^= '\n' * eachByte
	return ^((w&^highBits + ^uint64(highBits)) | w | ^uint64(highBits))
}

func wideCharacters(text string) []wide {
	var found []wide
	for i := 0; i < len(text); {
		if i+8 <= len(text) && word(text, i)&highBits == 0 {
			i += 8
			continue
		}
		if text[i] < utf8.RuneSelf {
			i++
			continue
		}
		r, n := utf8.DecodeRuneInString(text[i:])
		if n > 1 {
			units := uint8(1)
			if r > 0xFFFF {
				units = 2
			}
			found = append(found, wide{int32(i), uint8(n), units})
		}
		i += n
	}
	return found
}

// isASCII looks at eight bytes a step: it runs over every byte that is read.
func isASCII(s string) bool {
	for len(s) >= 8 {
		if word(s, 0)&highBits != 0 {
			return false
		}
		s = s[8:]
	}
	for i := 0; i < len(s); i++ {
		if s[i] >= utf8.RuneSelf {
			return false
		}
	}
	return true
}

// Count is the number of lines; a text that ends in a line break has an empty last one.
func (l *Lines) Count() int {
	if l.starts == nil {
		return 1
	}
	return len(l.starts)
}

// Line is the number, from 1, of the line that holds offset.
func (l *Lines) Line(offset int32) int {
	return max(1, sort.Search(len(l.starts), func(i int) bool { return l.starts[i] > offset }))
}

// Start is the offset of the first byte of the line with this number, clipped to the text.
func (l *Lines) Start(line int) int32 {
	switch {
	case line <= 1 || l.starts == nil:
		return 0
	case line > len(l.starts):
		return l.size
	}
	return l.starts[line-1]
}

// Position turns an offset into line and column; the column counts code points.
func (l *Lines) Position(offset int32) Position {
	line, start := l.at(&offset)
	column := offset - start + 1
	for _, w := range l.wideBetween(start, offset) {
		column -= int32(w.bytes) - 1
	}
	return Position{Line: line, Column: int(column)}
}

// UTF16 turns an offset into a zero-based line and a zero-based column in
// UTF-16 code units, as the Language Server Protocol counts.
func (l *Lines) UTF16(offset int32) (line, character int) {
	n, start := l.at(&offset)
	units := offset - start
	for _, w := range l.wideBetween(start, offset) {
		units -= int32(w.bytes) - int32(w.units)
	}
	return n - 1, int(units)
}

func (l *Lines) at(offset *int32) (line int, start int32) {
	*offset = max(0, min(*offset, l.size))
	line = l.Line(*offset)
	return line, l.Start(line)
}

func (l *Lines) wideBetween(start, end int32) []wide {
	from := sort.Search(len(l.wide), func(i int) bool { return l.wide[i].offset >= start })
	to := sort.Search(len(l.wide), func(i int) bool { return l.wide[i].offset >= end })
	return l.wide[from:to]
}
