package docstring

import (
	"strings"

	"codrel/internal/prose"
	"codrel/internal/prose/formula"
	"codrel/internal/source"
)

// This file reads markup of a capital letter and braces, as in "L{Name}" and
// "C{code}": docstrings that begin their fields with "@" use it.

// longestLettered is how long such a piece is at most, in bytes.
const longestLettered = 1000

// lettered reads a piece whose letter stands at an offset.
func (in *inline) lettered(i int) int {
	s := in.text
	depth, end := 0, -1
	for at := i + 1; at < len(s) && at < i+longestLettered && end < 0; at++ {
		switch s[at] {
		case '{':
			depth++
		case '}':
			if depth--; depth == 0 {
				end = at
			}
		}
	}
	if end <= i+2 {
		return 0
	}
	from, to := i+2, end
	inner := strings.Join(strings.Fields(s[from:to]), " ")
	target, shown := inner, inner
	shownTo := to
	if open := strings.LastIndexByte(inner, '<'); open > 0 && strings.HasSuffix(inner, ">") {
		target, shown = strings.TrimSpace(inner[open+1:len(inner)-1]), strings.TrimSpace(inner[:open])
		shownTo = from + strings.LastIndexByte(s[from:to], '<')
	}
	var n prose.Node
	switch s[i] {
	case 'L':
		name := strings.TrimSuffix(target, "()")
		if !isName(name) {
			n = in.shown(prose.Code, from, to)
			break
		}
		child := in.shown(prose.Code, from, shownTo)
		child.Text = shown
		n = prose.Node{Kind: prose.Reference, MayBeExternal: true, Target: name, Children: []prose.Node{child}}
	case 'C':
		n = in.shown(prose.Code, from, to)
	case 'U':
		child := in.shown(prose.Text, from, shownTo)
		child.Text = shown
		n = leading(target, child)
	case 'B':
		n = prose.Node{Kind: prose.Strong, Children: []prose.Node{in.shown(prose.Text, from, to)}}
	case 'I':
		n = prose.Node{Kind: prose.Emphasis, Children: []prose.Node{in.shown(prose.Text, from, to)}}
	case 'M':
		n = formula.Node(s[from:to], false, source.Span{Start: in.offset(from), End: in.offset(to)})
	default:
		return 0
	}
	return in.node(n, i, end+1)
}

// hasLettered reports whether such a piece stands in a text.
func hasLettered(text string) bool {
	for i := 0; i+1 < len(text); i++ {
		if text[i+1] == '{' && strings.IndexByte("LCUBIM", text[i]) >= 0 && (i == 0 || !isNameByte(text[i-1])) {
			return true
		}
	}
	return false
}
