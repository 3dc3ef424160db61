// Package formula reads mathematics in doc text, which is written as TeX writes
// it: where a formula begins and ends, and what of it plain text can show.
//
// The source is kept to the letter on every node. Where each sign of it has one
// meaning (letters, digits, Greek, common operators, sub- and superscripts), the
// node has children that draw it; where a single one has not, it has none and
// renderers show the source. The package knows no dialect and no renderer.
package formula

import (
	"strings"

	"codrel/internal/prose"
	"codrel/internal/source"
)

// most is how far behind its beginning the end of a formula is looked for, in bytes.
const most = 2000

// longest is how long a formula is at most that is drawn instead of quoted, in bytes.
const longest = 600

// Node makes the node of a formula: in a line of text, or as a block of its own.
// All of it stands for one span.
func Node(tex string, display bool, span source.Span) prose.Node {
	n := prose.Node{Kind: prose.Formula, Text: strings.TrimSpace(tex), Span: span}
	if display {
		n.Kind = prose.Display
	}
	if len(tex) <= longest {
		r := reader{text: n.Text, span: span}
		if out, ok := r.group(0, false); ok && len(out) > 0 {
			n.Children = out
		}
	}
	return n
}

// Found is a formula in a text: what stands between its marks, and the offset behind it.
type Found struct {
	Text    string
	End     int
	Display bool
}

// At reads the formula that begins at an offset: "$x$", "$$x$$", "\(x\)" or "\[x\]".
// Money, variables of shells and escaped brackets look the same and are none, so
// what stands between must read like mathematics.
func At(text string, i int) (Found, bool) {
	rest := text[i:]
	switch {
	case strings.HasPrefix(rest, "$$"):
		end := strings.Index(rest[2:min(len(rest), most)], "$$")
		if end <= 0 || blankLine(rest[2:2+end]) {
			return Found{}, false
		}
		return Found{rest[2 : 2+end], i + end + 4, true}, true
	case strings.HasPrefix(rest, "$"):
		return dollar(text, i)
	case strings.HasPrefix(rest, `\(`):
		return between(rest, i, `\)`, false)
	case strings.HasPrefix(rest, `\[`):
		return between(rest, i, `\]`, true)
	}
	return Found{}, false
}

func between(rest string, i int, mark string, display bool) (Found, bool) {
	end := strings.Index(rest[2:min(len(rest), most)], mark)
	if end <= 0 {
		return Found{}, false
	}
	inner := rest[2 : 2+end]
	if blankLine(inner) || !readsLikeFormula(inner) {
		return Found{}, false
	}
	return Found{inner, i + end + 4, display}, true
}

// dollar reads "$x$": no blank stands inside the marks, no letter or digit outside of them.
func dollar(text string, i int) (Found, bool) {
	if i > 0 && (inWord(text[i-1]) || text[i-1] == '\\' || text[i-1] == '$') || i+1 == len(text) || text[i+1] <= ' ' {
		return Found{}, false
	}
	for end := i + 1; end < len(text) && end < i+longest; end++ {
		switch {
		case text[end] == '\\':
			end++
		case text[end] == '`', text[end] == '\n' && end+1 < len(text) && text[end+1] == '\n':
			return Found{}, false
		case text[end] == '$':
			inner := text[i+1 : end]
			if inner == "" || text[end-1] <= ' ' || end+1 < len(text) && inWord(text[end+1]) || !readsLikeFormula(inner) {
				return Found{}, false
			}
			return Found{inner, end + 1, false}, true
		}
	}
	return Found{}, false
}

func inWord(c byte) bool {
	return c == '_' || '0' <= c && c <= '9' || 'a' <= c|0x20 && c|0x20 <= 'z' || c >= 0x80
}

func blankLine(text string) bool { return strings.Contains(text, "\n\n") }

// readsLikeFormula tells mathematics from words: it has a command of TeX, an
// operator between short names, a raised or lowered part, or is one letter.
func readsLikeFormula(text string) bool {
	text = strings.TrimSpace(text)
	if len(text) == 1 {
		return inWord(text[0])
	}
	word, signs := 0, false
	for i := 0; i < len(text); i++ {
		c := text[i]
		switch {
		case c == '\\':
			end := i + 1
			for end < len(text) && isLetter(text[end]) {
				end++
			}
			switch {
			case end > i+2:
				return true
			case end == i+2:
				return false // a class of characters in a pattern
			}
			word = 0
		case isLetter(c):
			word++
		case c == '^' && i > 0:
			return true
		case c == '_' && word == 1 && i+1 < len(text) && (text[i+1] == '{' || inWord(text[i+1])):
			return true
		case c == '(' && word == 1 || strings.IndexByte("=+-*/<>|", c) >= 0:
			signs = true
			if word > 3 {
				return false
			}
			word = 0
		default:
			word = 0
		}
	}
	return signs && word <= 3
}

func isLetter(c byte) bool { return 'a' <= c|0x20 && c|0x20 <= 'z' }
