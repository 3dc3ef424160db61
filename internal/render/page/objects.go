package page

import (
	"strings"

	"codrel/internal/model"
)

// This file lays out object types in signatures, a member to a line.

// longObject is how many characters the signature of an object type has on one line at most.
const longObject = 56

// opensObjects reports whether a signature has object types that are broken into lines:
// their members have comments, or it is the type's own declaration and long.
func opensObjects(d *model.Declaration, tokens []model.Token) bool {
	braces := false
	for _, t := range tokens {
		if t.Kind == model.TokenComment {
			return true
		}
		braces = braces || t.Kind == model.TokenPunctuation && strings.Contains(t.Text, "{")
	}
	return braces && d.Kind() == model.KindType && textLength(tokens) > longObject
}

// objectWriter keeps where in a signature it is.
type objectWriter struct {
	out   []Token
	open  []byte // brackets, innermost last
	depth int    // of indentation
	fresh bool   // nothing stands in this line yet
}

func (w *objectWriter) line() {
	w.mark("\n" + strings.Repeat("\t", w.depth))
	w.fresh = true
}

// mark adds punctuation.
func (w *objectWriter) mark(text string) {
	w.out = append(w.out, Token{Kind: model.TokenPunctuation, Text: text})
}

// inBraces reports whether the innermost open bracket is a brace.
func (w *objectWriter) inBraces() bool { return len(w.open) > 0 && w.open[len(w.open)-1] == '{' }

// objects is a signature with its object types broken into lines, and its list of
// parameters where that is broken too.
func (m *Maker) objects(d *model.Declaration, at model.At, tokens []model.Token, broken map[int]lineBreak) []Token {
	var w objectWriter
	for i, t := range tokens {
		switch {
		case t.Text == " " && w.inBraces() && i+1 < len(tokens) && strings.HasPrefix(tokens[i+1].Text, "}"):
			continue
		case t.Kind == model.TokenComment:
			w.out = append(w.out, Token{Kind: t.Kind, Text: t.Text, Whole: true})
			w.line()
			continue
		case t.Kind != model.TokenPunctuation:
			w.fresh = false
			w.out = append(w.out, m.Token(d, at, t))
			continue
		}
		if broken[i] == beforeMark {
			w.depth--
			w.mark(",")
			w.line()
		}
		w.marks(t.Text)
		if broken[i] == behindMark {
			if strings.HasSuffix(strings.TrimRight(t.Text, " "), "(") {
				w.depth++
			}
			w.line()
		}
	}
	return trimmed(w.out)
}

// marks adds punctuation: braces open lines and close them, what separates members ends them.
func (w *objectWriter) marks(text string) {
	for i := 0; i < len(text); i++ {
		c := text[i]
		switch {
		case c == ' ' && (w.fresh || w.inBraces() && strings.HasPrefix(text[i:], " }")):
			continue
		case c == '}' && w.inBraces():
			w.open = w.open[:len(w.open)-1]
			w.depth--
			w.line()
			w.mark(string(c))
		case c == '{' && strings.TrimLeft(text[i+1:], " ") != "" && strings.TrimLeft(text[i+1:], " ")[0] == '}':
			w.mark("{}") // an empty one stays on its line
			i += strings.IndexByte(text[i:], '}')
		case c == '{':
			w.mark(string(c))
			w.open = append(w.open, c)
			w.depth++
			w.line()
			continue
		case (c == ';' || c == ',') && w.inBraces():
			w.mark(string(c))
			w.line()
			continue
		default:
			switch {
			case c == '(' || c == '[':
				w.open = append(w.open, c)
			case (c == ')' || c == ']') && len(w.open) > 0 && !w.inBraces():
				w.open = w.open[:len(w.open)-1]
			}
			w.mark(text[i : i+1])
		}
		w.fresh = false
	}
}

// trimmed are tokens without blanks at the end.
func trimmed(list []Token) []Token {
	for n := len(list) - 1; n >= 0; n-- {
		if list[n].Text = strings.TrimRight(list[n].Text, " "); list[n].Text != "" {
			return list[:n+1]
		}
	}
	return nil
}
