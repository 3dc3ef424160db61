package formula

import (
	"strings"
	"unicode/utf8"

	"codrel/internal/prose"
	"codrel/internal/source"
)

// deepest is how deep groups nest in what is drawn.
const deepest = 12

// reader makes nodes of a formula, sign by sign. What it does not know ends the
// whole attempt: a formula is drawn rightly or not at all.
type reader struct {
	text string
	at   int
	span source.Span
}

// group reads to the closing brace, or to the end of the text.
func (r *reader) group(depth int, braced bool) ([]prose.Node, bool) {
	if depth > deepest {
		return nil, false
	}
	var out []prose.Node
	for r.at < len(r.text) {
		switch c := r.text[r.at]; {
		case c == '}':
			if !braced {
				return nil, false
			}
			r.at++
			return out, true
		case c == ' ' || c == '\n':
			r.at++
		case c == '^' || c == '_':
			if len(out) == 0 {
				return nil, false
			}
			r.at++
			inner, ok := r.argument(depth)
			if !ok {
				return nil, false
			}
			kind := prose.Superscript
			if c == '_' {
				kind = prose.Subscript
			}
			out = append(out, prose.Node{Kind: kind, Children: inner, Span: r.span})
		default:
			nodes, ok := r.atom(depth)
			if !ok {
				return nil, false
			}
			out = r.append(out, nodes)
		}
	}
	return out, !braced
}

// append joins what is plain text on both sides.
func (r *reader) append(out, nodes []prose.Node) []prose.Node {
	for _, n := range nodes {
		if (n.Text == signs['-'] || n.Text == signs['+']) && opens(out) {
			n.Text = strings.TrimSpace(n.Text) // of a number, not between two
		}
		if last := len(out) - 1; last >= 0 && n.Kind == prose.Text && out[last].Kind == prose.Text {
			if strings.HasSuffix(out[last].Text, " ") {
				n.Text = strings.TrimLeft(n.Text, " ")
			}
			out[last].Text += n.Text
			continue
		}
		if len(out) == 0 && n.Kind == prose.Text {
			n.Text = strings.TrimLeft(n.Text, " ")
		}
		if n.Kind != prose.Text || n.Text != "" {
			out = append(out, n)
		}
	}
	return out
}

// opens reports whether what comes next is the first of a sum.
func opens(out []prose.Node) bool {
	if len(out) == 0 {
		return true
	}
	last := out[len(out)-1]
	return last.Kind == prose.Text && last.Text != "" && strings.IndexByte("([ ", last.Text[len(last.Text)-1]) >= 0
}

// argument reads a group in braces, or one sign.
func (r *reader) argument(depth int) ([]prose.Node, bool) {
	for r.at < len(r.text) && r.text[r.at] == ' ' {
		r.at++
	}
	if r.at == len(r.text) {
		return nil, false
	}
	if r.text[r.at] == '{' {
		r.at++
		return r.group(depth+1, true)
	}
	if r.text[r.at] >= '0' && r.text[r.at] <= '9' {
		r.at++
		return r.plain(r.text[r.at-1 : r.at]), true
	}
	nodes, ok := r.atom(depth + 1)
	for i := range nodes {
		nodes[i].Text = strings.TrimSpace(nodes[i].Text)
	}
	return nodes, ok
}

func (r *reader) plain(text string) []prose.Node {
	return []prose.Node{{Kind: prose.Text, Text: text, Span: r.span}}
}

func (r *reader) variable(name string) []prose.Node {
	return []prose.Node{{Kind: prose.Emphasis, Children: r.plain(name), Span: r.span}}
}

// atom reads one sign, number, letter, group or command.
func (r *reader) atom(depth int) ([]prose.Node, bool) {
	c := r.text[r.at]
	switch {
	case c == '\\':
		return r.command(depth)
	case c == '{':
		r.at++
		return r.group(depth+1, true)
	case isLetter(c):
		r.at++
		return r.variable(string(c)), true
	case c >= '0' && c <= '9':
		start := r.at
		for r.at < len(r.text) && (r.text[r.at] >= '0' && r.text[r.at] <= '9' || r.text[r.at] == '.' && r.at+1 < len(r.text) && r.text[r.at+1] >= '0' && r.text[r.at+1] <= '9') {
			r.at++
		}
		return r.plain(r.text[start:r.at]), true
	case c >= 0x80:
		_, size := utf8.DecodeRuneInString(r.text[r.at:])
		r.at += size
		return r.plain(r.text[r.at-size : r.at]), true
	}
	r.at++
	sign, ok := signs[c]
	return r.plain(sign), ok
}

// command reads what a backslash begins.
func (r *reader) command(depth int) ([]prose.Node, bool) {
	start := r.at + 1
	r.at = start
	for r.at < len(r.text) && isLetter(r.text[r.at]) {
		r.at++
	}
	if r.at == start {
		if r.at == len(r.text) {
			return nil, false
		}
		r.at++
	}
	name := r.text[start:r.at]
	if sign, ok := commands[name]; ok {
		return r.plain(sign), true
	}
	switch name {
	case "text", "mathrm", "mbox", "operatorname", "textrm", "mathit", "textit", "mathtt", "texttt":
		text, ok := r.words()
		return r.plain(text), ok
	case "mathbf", "boldsymbol", "bm", "textbf":
		inner, ok := r.argument(depth)
		return []prose.Node{{Kind: prose.Strong, Children: inner, Span: r.span}}, ok
	case "sqrt":
		if r.at < len(r.text) && r.text[r.at] == '[' {
			return nil, false
		}
		inner, ok := r.argument(depth)
		return append(r.plain("√"), r.bracketed(inner)...), ok
	case "frac", "dfrac", "tfrac":
		over, ok := r.argument(depth)
		if !ok {
			return nil, false
		}
		under, ok := r.argument(depth)
		return r.append(r.append(r.bracketed(over), r.plain("/")), r.bracketed(under)), ok
	case "left", "right", "big", "Big", "bigl", "bigr", "Bigl", "Bigr", "bigg", "Bigg", "displaystyle", "limits":
		if r.at < len(r.text) && r.text[r.at] == '.' && (name == "left" || name == "right") {
			r.at++ // a bracket that is not drawn
		}
		return nil, true
	case "hat", "bar", "tilde", "dot", "vec", "overline", "widehat":
		return r.accented(name, depth)
	}
	return nil, false
}

// bracketed puts brackets around what is more than one sign.
func (r *reader) bracketed(nodes []prose.Node) []prose.Node {
	simple := len(nodes) == 1
	if len(nodes) == 2 && (nodes[1].Kind == prose.Superscript || nodes[1].Kind == prose.Subscript) {
		simple = true
	}
	if simple && !strings.Contains(nodes[0].Text, " ") {
		return nodes
	}
	return r.append(r.append(r.plain("("), nodes), r.plain(")"))
}

// words reads a group of upright words.
func (r *reader) words() (string, bool) {
	if r.at == len(r.text) || r.text[r.at] != '{' {
		return "", false
	}
	end := strings.IndexByte(r.text[r.at:], '}')
	if end < 0 {
		return "", false
	}
	text := r.text[r.at+1 : r.at+end]
	r.at += end + 1
	return strings.ReplaceAll(text, `\_`, "_"), !strings.ContainsAny(strings.ReplaceAll(text, `\_`, "_"), `\{$`)
}

// accents are the marks that stand above the letter before them.
var accents = map[string]string{"hat": "\u0302", "widehat": "\u0302", "bar": "\u0304", "overline": "\u0304", "tilde": "\u0303", "dot": "\u0307", "vec": "\u20d7"}

// accented reads a letter with a mark above it; a longer part has no such sign.
func (r *reader) accented(name string, depth int) ([]prose.Node, bool) {
	inner, ok := r.argument(depth)
	if !ok || len(inner) != 1 {
		return nil, false
	}
	letter := prose.Plain(inner)
	if utf8.RuneCountInString(letter) != 1 {
		return nil, false
	}
	return r.variable(letter + accents[name]), true
}
