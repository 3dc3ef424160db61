// Package markdown turns CommonMark with tables into the prose tree. It alone
// imports goldmark.
//
// Raw HTML never comes through: what it says in harmless elements becomes nodes
// of the tree, the rest is left out. Addresses are filtered here, and "ref:"
// links become references that must resolve, "insert:" links fragments.
package markdown

import (
	"bytes"
	"path"
	"slices"
	"strconv"
	"strings"

	"github.com/yuin/goldmark"
	"github.com/yuin/goldmark/ast"
	"github.com/yuin/goldmark/extension"
	extast "github.com/yuin/goldmark/extension/ast"
	gm "github.com/yuin/goldmark/parser"
	"github.com/yuin/goldmark/text"
	"github.com/yuin/goldmark/util"

	"codrel/internal/prose"
	"codrel/internal/prose/formula"
	"codrel/internal/source"
)

// parser is that of comments, pageParser that of pages, which may have lists of terms: in a
// comment a line that begins with ":" is more likely to be something else.
var (
	parser     = newParser(blockParsers())
	pageParser = newParser(append(blockParsers(), termParsers()...))
)

func newParser(blocks []util.PrioritizedValue) gm.Parser {
	return goldmark.New(
		goldmark.WithParser(gm.NewParser(
			gm.WithBlockParsers(blocks...),
			gm.WithInlineParsers(gm.DefaultInlineParsers()...),
			gm.WithParagraphTransformers(util.Prioritized(definitions{}, 100), util.Prioritized(tables{}, 150), util.Prioritized(crowds{}, 300)),
		)),
		goldmark.WithExtensions(extension.Table, extension.Strikethrough, extension.TaskList, extension.Footnote, extension.Linkify),
		goldmark.WithParserOptions(formulas()...),
	).Parser()
}

// deepest is how deep the tree may nest; what lies deeper is left out, since
// every later stage climbs through it.
const deepest = 200

// Parse reads a text, as [Read] does.
func Parse(src string) []prose.Node {
	nodes, _ := Read(src)
	return nodes
}

// Read reads a text. Spans are those of the text. What would take more time than its
// length is worth is shown as it is written: plain are the spans of that.
func Read(src string) (nodes []prose.Node, plain []source.Span) { return read(src, parser, false) }

// ReadPage reads the text of a page, as [Read] does; what terms mean may stand below them
// behind a ":".
func ReadPage(src string) (nodes []prose.Node, plain []source.Span) {
	return read(src, pageParser, true)
}

func read(src string, parser gm.Parser, page bool) (nodes []prose.Node, plain []source.Span) {
	if len(src) > Longest {
		return asWritten(src), []source.Span{source.NewSpan(0, len(src))}
	}
	c := converter{src: []byte(src), text: src, page: page}
	pc := gm.NewContext()
	nodes = c.children(parser.Parse(text.NewReader(c.src), gm.WithContext(pc)), 0)
	if deep, ok := pc.Get(plainKey).(source.Span); ok && !slices.Contains(c.plain, deep) {
		c.plain = append(c.plain, deep)
	}
	return nodes, c.plain
}

// Title is the text of the first heading, without its pictures, and the nodes without it;
// ok is false where there is none, or it is one of a part that stands below other text.
func Title(nodes []prose.Node) (title string, rest []prose.Node, ok bool) {
	for i := range nodes {
		if nodes[i].Kind != prose.Heading {
			continue
		}
		if i > 0 && nodes[i].Level > 1 {
			break // a part of a text without a title
		}
		words := slices.DeleteFunc(slices.Clone(nodes[i].Children), isPicture)
		if title = prose.Line(words); title == "" {
			title = prose.Line(nodes[i].Children) // a logo alone
		}
		return title, slices.Delete(slices.Clone(nodes), i, i+1), true
	}
	return "", nodes, false
}

// isPicture reports whether a node is a picture, or a link on nothing else.
func isPicture(n prose.Node) bool {
	return n.Kind == prose.Image || n.Kind == prose.Link && len(n.Children) > 0 && !slices.ContainsFunc(n.Children, func(c prose.Node) bool { return !isPicture(c) })
}

// Dialects with forms of their own turn those into links with these at the beginning
// of the address: OutwardScheme for the name of a declaration, of this project or
// another; TakenScheme for text that is another declaration's; NamedScheme for what may be such
// a name; CodeScheme, without a name, for what is code even where raw HTML is around it.
const (
	OutwardScheme = "codrel-outward:"
	TakenScheme   = "codrel-taken:"
	NamedScheme   = "codrel-named:"
	CodeScheme    = "codrel-code:"
)

type converter struct {
	page  bool // what may not lead anywhere is told from text
	src   []byte
	text  string        // the same
	plain []source.Span // of what is shown as it is written
}

func (c *converter) children(n ast.Node, depth int) []prose.Node {
	if depth > deepest {
		return nil
	}
	var out []prose.Node
	var open []element
	for child := n.FirstChild(); child != nil; child = child.NextSibling() {
		if raw, ok := child.(*ast.RawHTML); ok {
			out, open = c.rawTag(out, open, string(raw.Segments.Value(c.src)))
			continue
		}
		out = c.node(out, child, depth)
	}
	return out
}

// node appends what one node of the parser becomes.
func (c *converter) node(out []prose.Node, n ast.Node, depth int) []prose.Node {
	inside := func() []prose.Node { return c.children(n, depth+1) }
	switch n := n.(type) {
	case *ast.Paragraph, *ast.TextBlock:
		return append(out, prose.Node{Kind: prose.Paragraph, Span: blockSpan(n), Children: inside()})
	case *ast.Heading:
		return append(out, prose.Node{Kind: prose.Heading, Level: uint16(n.Level), Span: blockSpan(n), Children: inside()})
	case *ast.FencedCodeBlock:
		info, span := "", blockSpan(n)
		if n.Info != nil {
			info = string(n.Info.Segment.Value(c.src))
			span = source.NewSpan(n.Info.Segment.Start, max(n.Info.Segment.Stop, int(span.End)))
		}
		return append(out, prose.Node{Kind: prose.CodeBlock, Info: info, Text: c.code(n), Span: span})
	case *plain:
		span := blockSpan(n)
		c.plain = append(c.plain, span)
		return append(out, prose.Node{Kind: prose.CodeBlock, Info: "text", Text: strings.TrimRight(c.code(n), "\n"), Span: span})
	case *ast.CodeBlock:
		return append(out, prose.Node{Kind: prose.CodeBlock, Text: c.code(n), Span: blockSpan(n)})
	case *ast.List:
		list := prose.Node{Kind: prose.List, Loose: !n.IsTight, Children: inside()}
		if n.IsOrdered() {
			list.Level = uint16(max(1, min(n.Start, 65535)))
		}
		return append(out, list)
	case *ast.ListItem:
		return append(out, prose.Node{Kind: prose.Item, Children: inside()})
	case *ast.Blockquote:
		return append(out, prose.Node{Kind: prose.Quote, Children: alert(inside())})
	case *ast.ThematicBreak:
		return append(out, prose.Node{Kind: prose.Ruler})
	case *ast.HTMLBlock:
		return append(out, fromHTML(c.lines(n)+string(c.closure(n)))...)
	case *extast.FootnoteList:
		return append(out, prose.Node{Kind: prose.List, Level: 1, Info: prose.Footnotes, Children: inside()})
	case *extast.Footnote:
		item := prose.Node{Kind: prose.Item, Children: inside()}
		if c.page && len(item.Children) > 0 && item.Children[0].Kind == prose.Paragraph {
			first := &item.Children[0]
			first.Children = append([]prose.Node{{Kind: prose.Anchor, Target: footnoteAnchor(n.Index)}}, first.Children...)
		}
		return append(out, item)
	case *extast.DefinitionList:
		return append(out, c.terms(n, depth))
	case *displayBlock:
		return append(out, formula.Node(c.code(n), true, blockSpan(n)))
	case *extast.Table:
		return append(out, prose.Node{Kind: prose.Table, Children: inside()})
	case *extast.TableHeader:
		return append(out, prose.Node{Kind: prose.Row, Level: 1, Children: inside()})
	case *extast.TableRow:
		return append(out, prose.Node{Kind: prose.Row, Children: inside()})
	case *extast.TableCell:
		return append(out, prose.Node{Kind: prose.Cell, Info: prose.Aligned(n.Alignment.String()), Children: inside()})
	default:
		return c.inline(out, n, inside)
	}
}

// terms is a list of terms in bold, each with what is said of it.
func (c *converter) terms(n ast.Node, depth int) prose.Node {
	list := prose.Node{Kind: prose.List, Info: prose.Terms}
	for child := n.FirstChild(); child != nil; child = child.NextSibling() {
		inside := c.children(child, depth+1)
		if _, term := child.(*extast.DefinitionTerm); term {
			strong := prose.Node{Kind: prose.Strong, Children: inside, Span: cover(inside)}
			inside = []prose.Node{{Kind: prose.Paragraph, Children: []prose.Node{strong}, Span: strong.Span}}
		}
		before := child.PreviousSibling()
		_, goesOn := child.(*extast.DefinitionDescription)
		if _, twice := before.(*extast.DefinitionTerm); goesOn || twice && before != nil {
			last := len(list.Children) - 1
			if last >= 0 {
				list.Children[last].Children = append(list.Children[last].Children, inside...)
				continue
			}
		}
		list.Children = append(list.Children, prose.Node{Kind: prose.Item, Children: inside})
	}
	return list
}

func (c *converter) inline(out []prose.Node, n ast.Node, inside func() []prose.Node) []prose.Node {
	switch n := n.(type) {
	case *ast.Text:
		span := source.NewSpan(n.Segment.Start, n.Segment.Stop)
		value := string(n.Segment.Value(c.src))
		if !n.IsRaw() {
			value = unescaped(value)
		}
		if last := len(out) - 1; last >= 0 && out[last].Kind == prose.Text && out[last].Span.End == span.Start && len(out[last].Text) == out[last].Span.Len() && len(value) == span.Len() {
			out[last].Span.End = span.End // cut where a mark or an address might have begun
			out[last].Text = c.text[out[last].Span.Start:span.End]
		} else {
			out = append(out, prose.Node{Kind: prose.Text, Text: value, Span: span})
		}
		switch {
		case n.HardLineBreak():
			out = append(out, prose.Node{Kind: prose.Break, Span: span})
		case n.SoftLineBreak():
			out[len(out)-1].Text += "\n"
		}
		return out
	case *ast.String:
		return append(out, prose.Node{Kind: prose.Text, Text: string(n.Value)})
	case *ast.CodeSpan:
		return append(out, c.codeSpan(n))
	case *ast.Emphasis:
		kind := prose.Emphasis
		if n.Level > 1 {
			kind = prose.Strong
		}
		children := inside()
		return append(out, prose.Node{Kind: kind, Children: children, Span: cover(children)})
	case *extast.Strikethrough:
		children := inside()
		return append(out, prose.Node{Kind: prose.Struck, Children: children, Span: cover(children)})
	case *ast.Link:
		address, shown := addressOf(n.Destination), inside()
		if c.refuses(address) {
			return append(out, placed(n, []prose.Node{{Kind: prose.Refused, Target: address, Children: shown, Span: cover(shown)}})...)
		}
		return append(out, placed(n, Target(address, shown))...)
	case *ast.Image:
		address, shown := addressOf(n.Destination), inside()
		if c.refuses(address) {
			return append(out, placed(n, []prose.Node{{Kind: prose.Refused, Target: address, Children: shown, Span: cover(shown)}})...)
		}
		return append(out, placed(n, image(address, shown))...)
	case *ast.AutoLink:
		return append(out, c.autoLink(n)...)
	case *extast.TaskCheckBox:
		mark := "☐ "
		if n.IsChecked {
			mark = "☑ "
		}
		return append(out, prose.Node{Kind: prose.Text, Text: mark})
	case *extast.FootnoteLink:
		number := []prose.Node{{Kind: prose.Text, Text: "[" + strconv.Itoa(n.Index) + "]"}}
		if c.page {
			number = []prose.Node{{Kind: prose.Link, Target: "#" + footnoteAnchor(n.Index), Children: number}}
		}
		return append(out, prose.Node{Kind: prose.Superscript, Children: number})
	case *extast.FootnoteBacklink:
		return out
	case *formulaSpan:
		return append(out, formula.Node(n.found.Text, n.found.Display, source.NewSpan(n.from, n.to)))
	}
	return append(out, inside()...)
}

// footnoteAnchor is the place of a footnote on a page.
func footnoteAnchor(index int) string { return "footnote-" + strconv.Itoa(index) }

// addressOf is an address as it is written; one without a scheme before its host is one of the web.
func addressOf(destination []byte) string {
	address := unescaped(string(destination))
	if strings.HasPrefix(address, "//") && len(address) > 2 && address[2] != '/' {
		return "https:" + address
	}
	return address
}

// refuses reports whether a page has an address to which nothing may lead.
func (c *converter) refuses(address string) bool {
	_, allowed := prose.Leading(address)
	return c.page && !allowed
}

// placed gives what a node of the parser becomes its place where its text has none.
func placed(n ast.Node, made []prose.Node) []prose.Node {
	if len(made) == 1 && made[0].Span.Empty() && n.Pos() >= 0 {
		made[0].Span = source.NewSpan(n.Pos(), n.Pos()+1)
	}
	return made
}

// Target makes the node of a link with this address: a reference where it
// begins with "ref:", and only the shown text where the address is not allowed.
func Target(address string, shown []prose.Node) []prose.Node {
	if name, ok := strings.CutPrefix(address, "ref:"); ok {
		return []prose.Node{{Kind: prose.Reference, Strict: true, Target: name, Children: shown, Span: cover(shown)}}
	}
	if name, ok := strings.CutPrefix(address, prose.InsertScheme); ok {
		return []prose.Node{{Kind: prose.Insert, Target: name, Children: shown, Span: cover(shown)}}
	}
	if name, ok := strings.CutPrefix(address, OutwardScheme); ok {
		return []prose.Node{{Kind: prose.Reference, Strict: true, MayBeExternal: true, Target: name, Children: shown, Span: cover(shown)}}
	}
	if name, ok := strings.CutPrefix(address, NamedScheme); ok {
		if span := cover(shown); prose.Plain(shown) == name { // no label of its own
			shown = []prose.Node{{Kind: prose.Code, Text: strings.ReplaceAll(strings.TrimLeft(name, "#"), "#", "."), Span: span}}
		}
		return []prose.Node{{Kind: prose.Reference, MayBeExternal: true, Target: strings.TrimLeft(name[strings.IndexByte(name, '/')+1:], "#"), Children: shown, Span: cover(shown)}}
	}
	if name, ok := strings.CutPrefix(address, TakenScheme); ok {
		return []prose.Node{{Kind: prose.Inherited, Strict: true, Target: name, Children: shown, Span: cover(shown)}}
	}
	if address == CodeScheme || !prose.AllowedAddress(address) {
		return shown
	}
	return []prose.Node{{Kind: prose.Link, Target: address, Children: shown, Span: cover(shown)}}
}

func image(address string, alternative []prose.Node) []prose.Node {
	if IsFilm(address) {
		return pictured(prose.Film, address, alternative)
	}
	return pictured(prose.Image, address, alternative)
}

func pictured(kind prose.Kind, address string, alternative []prose.Node) []prose.Node {
	if !prose.AllowedAddress(address) {
		return alternative
	}
	return []prose.Node{{Kind: kind, Target: address, Children: alternative, Span: cover(alternative)}}
}

// IsFilm reports whether an address is that of a film, by its ending.
func IsFilm(address string) bool {
	address, _, _ = strings.Cut(address, "?")
	address, _, _ = strings.Cut(address, "#")
	switch strings.ToLower(path.Ext(address)) {
	case ".mp4", ".webm", ".ogv", ".mov":
		return true
	}
	return false
}

func (c *converter) autoLink(n *ast.AutoLink) []prose.Node {
	address := string(n.URL(c.src))
	label := n.Label(c.src)
	shown := prose.Node{Kind: prose.Text, Text: string(label)}
	if at := cap(c.src) - cap(label); at >= 0 && at+len(label) <= len(c.src) && bytes.Equal(c.src[at:at+len(label)], label) { // it is a part of it
		shown.Span = source.NewSpan(at, at+len(label))
	}
	if name, ok := strings.CutPrefix(address, "ref:"); ok {
		shown = prose.Node{Kind: prose.Code, Text: name, Span: shown.Span}
	} else if name, ok := strings.CutPrefix(address, prose.InsertScheme); ok {
		shown.Text = name
	} else if n.AutoLinkType == ast.AutoLinkEmail {
		address = "mailto:" + address
	}
	return Target(address, []prose.Node{shown})
}

// codeSpan is a code span, its text to the letter.
func (c *converter) codeSpan(n *ast.CodeSpan) prose.Node {
	var b strings.Builder
	span := source.Span{}
	for child := n.FirstChild(); child != nil; child = child.NextSibling() {
		t, ok := child.(*ast.Text)
		if !ok {
			continue
		}
		b.Write(t.Segment.Value(c.src))
		if span.Empty() {
			span = source.NewSpan(t.Segment.Start, t.Segment.Stop)
		}
		span.End = int32(t.Segment.Stop)
	}
	return prose.Node{Kind: prose.Code, Text: strings.ReplaceAll(strings.TrimSpace(b.String()), "\n", " "), Span: span}
}

func (c *converter) code(n ast.Node) string { return strings.TrimSuffix(c.lines(n), "\n") }

func (c *converter) lines(n ast.Node) string {
	var b strings.Builder
	lines := n.Lines()
	for i := range lines.Len() {
		segment := lines.At(i)
		b.Write(segment.Value(c.src))
	}
	return b.String()
}

func (c *converter) closure(n *ast.HTMLBlock) []byte {
	if !n.HasClosure() {
		return nil
	}
	return n.ClosureLine.Value(c.src)
}

func blockSpan(n ast.Node) source.Span {
	lines := n.Lines()
	if lines == nil || lines.Len() == 0 {
		return source.Span{}
	}
	return source.NewSpan(lines.At(0).Start, lines.At(lines.Len()-1).Stop)
}

// cover is the span from the first to the last of the nodes.
func cover(nodes []prose.Node) source.Span {
	if len(nodes) == 0 {
		return source.Span{}
	}
	return source.Span{Start: nodes[0].Span.Start, End: max(nodes[0].Span.Start, nodes[len(nodes)-1].Span.End)}
}
