package site

import (
	"strings"

	"codrel/internal/model"
)

// This file draws object types in signatures, a member to a line.

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
	b     strings.Builder
	open  []byte // brackets, innermost last
	depth int    // of indentation
	fresh bool   // nothing stands in this line yet
}

func (w *objectWriter) line() {
	w.b.WriteString("\n" + strings.Repeat("\t", w.depth))
	w.fresh = true
}

// inBraces reports whether the innermost open bracket is a brace.
func (w *objectWriter) inBraces() bool { return len(w.open) > 0 && w.open[len(w.open)-1] == '{' }

// objects draws a signature with its object types broken into lines, and its list of
// parameters where that is broken too.
func (v view) objects(d *model.Declaration, at model.At, tokens []model.Token, broken map[int]lineBreak) string {
	var w objectWriter
	for i, t := range tokens {
		switch {
		case t.Text == " " && w.inBraces() && i+1 < len(tokens) && strings.HasPrefix(tokens[i+1].Text, "}"):
			continue
		case t.Kind == model.TokenComment:
			w.b.WriteString(`<span class="l">` + escape(t.Text) + "</span>")
			w.line()
			continue
		case t.Kind != model.TokenPunctuation:
			w.fresh = false
			v.token(&w.b, d, at, t)
			continue
		}
		if broken[i] == beforeMark {
			w.depth--
			w.b.WriteString(",")
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
	return strings.TrimRight(w.b.String(), " ")
}

// marks draws punctuation: braces open lines and close them, what separates members ends them.
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
			w.b.WriteByte(c)
		case c == '{' && strings.TrimLeft(text[i+1:], " ") != "" && strings.TrimLeft(text[i+1:], " ")[0] == '}':
			w.b.WriteString("{}") // an empty one stays on its line
			i += strings.IndexByte(text[i:], '}')
		case c == '{':
			w.b.WriteByte(c)
			w.open = append(w.open, c)
			w.depth++
			w.line()
			continue
		case (c == ';' || c == ',') && w.inBraces():
			w.b.WriteByte(c)
			w.line()
			continue
		default:
			switch {
			case c == '(' || c == '[':
				w.open = append(w.open, c)
			case (c == ')' || c == ']') && len(w.open) > 0 && !w.inBraces():
				w.open = w.open[:len(w.open)-1]
			}
			w.b.WriteString(escape(string(c)))
		}
		w.fresh = false
	}
}
