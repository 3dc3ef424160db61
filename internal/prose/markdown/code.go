package markdown

import (
	"strings"

	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"

	"codrel/internal/prose"
)

// This file makes blocks of code of what is written as HTML: bold and slanted parts of it, and
// those that lead to a declaration, are marks.

// htmlCode is the block of a "pre"; a class tells the language, as HTML proposes for "code".
func htmlCode(n *html.Node) []prose.Node {
	var b strings.Builder
	block := prose.Node{Kind: prose.CodeBlock}
	var read func(n *html.Node, depth int)
	read = func(n *html.Node, depth int) {
		for c := n.FirstChild; c != nil && depth <= deepest; c = c.NextSibling {
			if c.Type == html.TextNode {
				b.WriteString(c.Data)
			}
			if c.Type != html.ElementNode || c.DataAtom == atom.Script || c.DataAtom == atom.Style {
				continue
			}
			if c.DataAtom == atom.Br {
				b.WriteByte('\n')
			}
			if language, ok := strings.CutPrefix(attribute(c, "class"), "language-"); ok && c.DataAtom == atom.Code {
				block.Info = language
			}
			from, at := b.Len(), len(block.Children)
			mark, ok := codeMark(c)
			if ok {
				block.Children = append(block.Children, mark)
			}
			read(c, depth+1)
			if ok {
				block.Children[at].Info = prose.MarkInfo(from, b.Len())
			}
		}
	}
	read(n, 0)
	block.Text = b.String()
	return []prose.Node{block}
}

// codeMark is what an element makes of the code in it.
func codeMark(n *html.Node) (prose.Node, bool) {
	switch n.DataAtom {
	case atom.B, atom.Strong, atom.Mark:
		return prose.Node{Kind: prose.Strong}, true
	case atom.I, atom.Em, atom.Var:
		return prose.Node{Kind: prose.Emphasis}, true
	case atom.A:
		if to := Target(attribute(n, "href"), nil); len(to) == 1 && to[0].Kind == prose.Reference {
			return to[0], true
		}
	}
	return prose.Node{}, false
}
