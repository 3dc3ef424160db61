package markdown

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"

	"codrel/internal/prose"
)

// This file turns raw HTML into nodes of the tree. Elements that are not named
// here vanish and leave their text; scripts, styles and frames leave nothing.

func fromHTML(raw string) []prose.Node {
	raw = withDialects(raw)
	body := &html.Node{Type: html.ElementNode, DataAtom: atom.Body, Data: "body"}
	nodes, err := html.ParseFragment(strings.NewReader(raw), body)
	if err != nil {
		return nil
	}
	var out []prose.Node
	for _, n := range nodes {
		out = append(out, htmlNode(n, 0)...)
	}
	return paragraphs(out)
}

// dialectLink is what dialects make of forms of their own: Markdown, which raw HTML has none of.
var dialectLink = regexp.MustCompile("\\[(`[^`\n]*`|[^\\[\\]\n]*)\\]\\(<(codrel-(?:outward|taken|named|code):(?:[^<>\\\\\n]|\\\\.)*)>\\)")

// withDialects puts elements in the place of such links.
func withDialects(raw string) string {
	if !strings.Contains(raw, "](<codrel-") {
		return raw
	}
	return dialectLink.ReplaceAllStringFunc(raw, func(link string) string {
		parts := dialectLink.FindStringSubmatch(link)
		shown := parts[1]
		if code, ok := strings.CutPrefix(shown, "`"); ok {
			shown = "<code>" + html.EscapeString(strings.TrimSuffix(code, "`")) + "</code>"
		}
		if parts[2] == CodeScheme {
			return shown
		}
		return `<a href="` + html.EscapeString(unescaped(parts[2])) + `">` + shown + "</a>"
	})
}

// paragraphs wraps what stands in a line, so that blocks hold only blocks.
func paragraphs(nodes []prose.Node) []prose.Node {
	var out, line []prose.Node
	flush := func() {
		if prose.Plain(line) != "" || hasPlace(line) {
			out = append(out, prose.Node{Kind: prose.Paragraph, Children: line})
		}
		line = nil
	}
	for _, n := range nodes {
		if n.Kind.Inline() {
			line = append(line, n)
			continue
		}
		flush()
		out = append(out, n)
	}
	flush()
	return out
}

// hasPlace reports whether there is a picture, a film or an anchor.
func hasPlace(nodes []prose.Node) bool {
	found := false
	prose.Walk(nodes, func(n *prose.Node) bool {
		found = found || n.Kind == prose.Image || n.Kind == prose.Film || n.Kind == prose.Anchor
		return !found
	})
	return found
}

func htmlChildren(n *html.Node, depth int) []prose.Node {
	var out []prose.Node
	for c := n.FirstChild; c != nil; c = c.NextSibling {
		out = append(out, htmlNode(c, depth+1)...)
	}
	return out
}

func htmlNode(n *html.Node, depth int) []prose.Node {
	if depth > deepest {
		return nil
	}
	if n.Type == html.TextNode {
		return []prose.Node{{Kind: prose.Text, Text: n.Data}}
	}
	if n.Type != html.ElementNode {
		return nil
	}
	inside := func() []prose.Node { return append(anchorOf(n), htmlChildren(n, depth)...) }
	block := func(kind prose.Kind) []prose.Node {
		return []prose.Node{{Kind: kind, Children: paragraphs(inside())}}
	}
	switch n.DataAtom {
	case atom.Script, atom.Style, atom.Iframe, atom.Object, atom.Embed, atom.Template, atom.Svg, atom.Math, atom.Form, atom.Input, atom.Noscript:
		return nil
	case atom.P, atom.Div, atom.Center, atom.Details, atom.Summary, atom.Section:
		return paragraphs(inside())
	case atom.H1, atom.H2, atom.H3, atom.H4, atom.H5, atom.H6:
		return []prose.Node{{Kind: prose.Heading, Level: uint16(n.Data[1] - '0'), Children: inside()}}
	case atom.Pre:
		return htmlCode(n)
	case atom.Ul:
		return block(prose.List)
	case atom.Ol:
		list := prose.Node{Kind: prose.List, Level: 1, Children: paragraphs(inside())}
		if first, err := strconv.ParseUint(attribute(n, "start"), 10, 15); err == nil && first > 0 {
			list.Level = uint16(first)
		}
		return []prose.Node{list}
	case atom.Li:
		return block(prose.Item)
	case atom.Blockquote:
		return block(prose.Quote)
	case atom.Table:
		return htmlTable(n, depth+1)
	case atom.Dl:
		return htmlTerms(n, depth+1)
	case atom.Br:
		return []prose.Node{{Kind: prose.Break}}
	case atom.Hr:
		return []prose.Node{{Kind: prose.Ruler}}
	case atom.Img:
		return image(attribute(n, "src"), []prose.Node{{Kind: prose.Text, Text: attribute(n, "alt")}})
	case atom.Video:
		return film(n)
	}
	return inLine(n, inside())
}

// film is that of a "video" element, or of the first source in it.
func film(n *html.Node) []prose.Node {
	src := attribute(n, "src")
	for c := n.FirstChild; c != nil && src == ""; c = c.NextSibling {
		if c.DataAtom == atom.Source {
			src = attribute(c, "src")
		}
	}
	return pictured(prose.Film, src, []prose.Node{{Kind: prose.Text, Text: attribute(n, "title")}})
}

// anchorOf is the name that an element gives to its place.
func anchorOf(n *html.Node) []prose.Node {
	name := attribute(n, "id")
	if name == "" && n.DataAtom == atom.A {
		name = attribute(n, "name")
	}
	if name == "" || strings.ContainsAny(name, " \t\n") {
		return nil
	}
	return []prose.Node{{Kind: prose.Anchor, Target: name}}
}

func attribute(n *html.Node, name string) string {
	for _, a := range n.Attr {
		if a.Key == name {
			return a.Val
		}
	}
	return ""
}

// element is a tag in a line of text whose end is still to come.
type element struct {
	node *html.Node
	from int // of the nodes that stand in it
}

// rawTag reads one tag that stands in a line. What it encloses gets the node that
// the element has in a block of HTML; a tag without its twin leaves its text.
func (c *converter) rawTag(out []prose.Node, open []element, raw string) ([]prose.Node, []element) {
	z := html.NewTokenizer(strings.NewReader(raw))
	kind := z.Next()
	token := z.Token()
	n := &html.Node{Type: html.ElementNode, DataAtom: token.DataAtom, Data: token.Data, Attr: token.Attr}
	switch {
	case kind == html.EndTagToken:
		for i := len(open) - 1; i >= 0; i-- {
			if open[i].node.Data == token.Data {
				inside := append(anchorOf(open[i].node), out[open[i].from:]...)
				return append(out[:open[i].from], inLine(open[i].node, inside)...), open[:i]
			}
		}
		return out, open
	case token.DataAtom == atom.Br:
		return append(out, prose.Node{Kind: prose.Break}), open
	case token.DataAtom == atom.Img:
		return append(out, htmlNode(n, 0)...), open
	case token.DataAtom == atom.Source:
		if i := len(open) - 1; i >= 0 && open[i].node.DataAtom == atom.Video && len(out) == open[i].from {
			out = append(out, pictured(prose.Film, attribute(n, "src"), nil)...)
		}
		return out, open
	case kind == html.StartTagToken && len(open) < deepest:
		at := len(out)
		if token.DataAtom == atom.Video && attribute(n, "src") != "" {
			out = append(out, film(n)...)
		}
		return out, append(open, element{n, at})
	}
	return out, open
}

// inLine is what an element in a line makes of the nodes in it.
func inLine(n *html.Node, inside []prose.Node) []prose.Node {
	wrap := func(kind prose.Kind) []prose.Node {
		return []prose.Node{{Kind: kind, Children: inside, Span: cover(inside)}}
	}
	switch n.DataAtom {
	case atom.Script, atom.Style, atom.Iframe, atom.Object, atom.Noscript:
		return nil
	case atom.Video: // what else is in it is for those who cannot show it
		return slices.DeleteFunc(inside, func(n prose.Node) bool { return n.Kind != prose.Film })
	case atom.B, atom.Strong:
		return wrap(prose.Strong)
	case atom.I, atom.Em, atom.Var, atom.Cite:
		return wrap(prose.Emphasis)
	case atom.S, atom.Del, atom.Strike:
		return wrap(prose.Struck)
	case atom.Sup:
		return wrap(prose.Superscript)
	case atom.Sub:
		return wrap(prose.Subscript)
	case atom.Code, atom.Kbd, atom.Samp, atom.Tt:
		return []prose.Node{{Kind: prose.Code, Text: prose.Plain(inside), Span: cover(inside)}}
	case atom.A:
		if href := attribute(n, "href"); href != "" {
			return Target(href, inside)
		}
	}
	return inside
}
