package script

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
)

// valueWords are the words before a name that is needed when the program runs.
var valueWords = map[string]bool{"new": true, "extends": true, "instanceof": true, "return": true, "throw": true, "await": true, "yield": true, "default": true, "in": true, "of": true}

// ValueNames are the names that a TypeScript file uses where the program needs them when
// it runs: called, made, extended, handed on. What it only names in types the compiler
// takes away together with its import. It is nil where nothing is taken away.
func (e FrontEnd) ValueNames(f *model.Facts) map[string]bool {
	if !e.Typed {
		return nil
	}
	out := map[string]bool{}
	text := f.Text
	l := lexer{text: text, typed: true, unclosed: -1, sig: -1}
	before, word := byte('\n'), "" // what stands before the name at hand
	code := func(from, to int) {
		for at := from; at < to; {
			c := text[at]
			switch {
			case isBlank(c):
				at++
			case startsName(c):
				end := min(max(l.nameEnd(at), at+1), to)
				name, next := text[at:end], l.byteAt(l.after(end))
				if next == '(' || next == '.' || next == '`' || valueWords[word] || word == "" && (before == '=' || before == '[' || before == '!' || before == '?') && next != ':' {
					out[name] = true
				}
				before, word = 'a', name
				at = end
			default:
				before, word = c, ""
				at++
			}
		}
	}
	at := 0
	for _, p := range e.Scan(text, nil) {
		if p.Class == lexing.Keyword {
			continue // a word like others here
		}
		code(at, int(p.Span.Start))
		if at = int(p.Span.End); p.Class != lexing.Comment {
			before, word = '"', ""
		}
	}
	code(at, len(text))
	return out
}

// isTypeOnly reports whether the word "type" stands before a name on an import's list.
func (r *reader) isTypeOnly(at int) bool {
	before := strings.TrimRight(r.text[:at], " \t\r\n")
	return strings.HasSuffix(before, "type") && !strings.HasSuffix(before, ".type")
}
