package page

import (
	"path"
	"strings"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/render/plan"
)

// Builder makes blocks of the nodes of a text. It is for one text at a time.
type Builder struct {
	Links  *link.Index
	Scope  link.Scope      // where the names in the text stand
	File   *model.Page     // the file the text is, where it is one
	Hidden map[string]bool // names of sections of comments that are not shown
	Shown  *link.Guide     // the guide that the page shows, whose headings have anchors there
	placed map[string]bool // the places that are made already
	entry  described       // what is being described; nothing outside of entries
	depth  int             // of texts that stand for others
	inner  bool            // a link is open: it holds no other
	form   *model.Form     // the form whose comment it is, where that is not the one that speaks for all
}

// described names the parameter, result or failure whose text is being made.
type described struct {
	kind prose.PartKind
	name string
	set  bool
}

// NewBuilder makes a builder of texts.
func NewBuilder(links *link.Index, scope link.Scope) *Builder {
	return &Builder{Links: links, Scope: scope}
}

// Blocks are the blocks of a text.
func (b *Builder) Blocks(nodes []prose.Node) []Block {
	if len(nodes) == 0 {
		return nil
	}
	out := make([]Block, 0, len(nodes))
	for i := range nodes {
		out = b.block(out, &nodes[i])
	}
	return out
}

// block adds what a node is to a list: a placeholder may be several blocks.
func (b *Builder) block(out []Block, n *prose.Node) []Block {
	switch n.Kind {
	case prose.Paragraph:
		if of, isPlaceholder := b.placeholder(n); isPlaceholder {
			return append(out, of...)
		}
		return append(out, Block{Kind: Paragraph, Inlines: b.Inlines(n.Children)})
	case prose.Heading:
		return append(out, Block{
			Kind: Heading, Level: int(n.Level), Text: prose.Plain(n.Children), Of: b.Scope.Declaration, Inlines: b.Inlines(n.Children),
		})
	case prose.CodeBlock:
		if b.File != nil && prose.MayBeExcerpt(n.Info) {
			return append(out, b.excerpt(n))
		}
		return append(out, Block{Kind: Code, Text: n.Text, Info: n.Info, Marks: b.marks(n), Tried: triedAs(n.Info)})
	case prose.List:
		return append(out, b.list(n))
	case prose.Item:
		return append(out, Block{Kind: Item, Blocks: b.Blocks(n.Children)})
	case prose.Quote:
		return append(out, Block{Kind: Quote, Blocks: b.Blocks(n.Children)})
	case prose.Ruler:
		return append(out, Block{Kind: Ruler})
	case prose.Table:
		return append(out, b.table(n))
	case prose.Display:
		return append(out, Block{Kind: Display, Inlines: []Inline{b.formula(n)}})
	}
	return append(out, Block{Kind: Bare, Inlines: b.inline(nil, n)})
}

func (b *Builder) list(n *prose.Node) Block {
	out := Block{Kind: List, Level: int(n.Level), Info: n.Info, Loose: n.Loose, Blocks: make([]Block, 0, len(n.Children))}
	for i := range n.Children {
		item := &n.Children[i]
		made := Block{Kind: Item}
		switch {
		case item.Kind != prose.Item:
			made.Blocks = b.block(nil, item)
		case !n.Loose && len(item.Children) > 0 && item.Children[0].Kind == prose.Paragraph:
			made.Inlines = b.Inlines(item.Children[0].Children) // a tight item is a line, not a paragraph
			made.Blocks = b.Blocks(item.Children[1:])
		default:
			made.Blocks = b.Blocks(item.Children)
		}
		out.Blocks = append(out.Blocks, made)
	}
	return out
}

func (b *Builder) table(n *prose.Node) Block {
	out := Block{Kind: Table, Rows: make([]Row, 0, len(n.Children))}
	for i := range n.Children {
		row := Row{Head: n.Children[i].Level > 0}
		for j := range n.Children[i].Children {
			cell := &n.Children[i].Children[j]
			columns, rows := cell.CellSpans()
			row.Cells = append(row.Cells, Cell{b.Inlines(cell.Children), columns, rows, cell.Info})
		}
		out.Rows = append(out.Rows, row)
	}
	return out
}

// Inlines are the pieces of what stands in a line.
func (b *Builder) Inlines(nodes []prose.Node) []Inline {
	if len(nodes) == 0 {
		return nil
	}
	out := make([]Inline, 0, len(nodes))
	for i := range nodes {
		out = b.inline(out, &nodes[i])
	}
	return out
}

var around = map[prose.Kind]InlineKind{
	prose.Emphasis: Emphasis, prose.Struck: Struck, prose.Superscript: Superscript, prose.Subscript: Subscript,
}

func (b *Builder) inline(out []Inline, n *prose.Node) []Inline {
	switch n.Kind {
	case prose.Text:
		return append(out, Inline{Kind: Text, Text: n.Text})
	case prose.Emphasis, prose.Struck, prose.Superscript, prose.Subscript:
		return append(out, Inline{Kind: around[n.Kind], Children: b.Inlines(n.Children)})
	case prose.Strong:
		return append(out, b.strong(n))
	case prose.Formula, prose.Display:
		return append(out, b.formula(n))
	case prose.Code:
		return append(out, b.code(n))
	case prose.Break:
		return append(out, Inline{Kind: Break})
	case prose.Link:
		return append(out, b.linked(b.address(n.Target), n.Children))
	case prose.Reference:
		return append(out, b.reference(n))
	case prose.Image, prose.Film:
		return append(out, b.image(n))
	case prose.Anchor:
		if b.Shown == nil || !b.Shown.Anchors().Own(n.Target) || b.placed[n.Target] {
			return out
		}
		if b.placed == nil {
			b.placed = map[string]bool{}
		}
		b.placed[n.Target] = true
		return append(out, Inline{Kind: Place, Text: n.Target})
	case prose.Inherited:
		return append(out, b.inheritedInLine(n)...)
	}
	return append(out, b.Inlines(n.Children)...)
}

// marks are the marked parts of a block of code.
func (b *Builder) marks(code *prose.Node) (out []Mark) {
	for i := range code.Children {
		n := &code.Children[i]
		m := Mark{Kind: Strong}
		m.From, m.To = n.MarkSpan(len(code.Text))
		switch n.Kind {
		case prose.Reference:
			m.Kind, m.Target = Link, &Target{Target: b.Links.ResolveNode(b.Scope, n).Target}
		case prose.Emphasis:
			m.Kind = Emphasis
		}
		if len(out) == 0 || m.From >= out[len(out)-1].To { // marks stand apart
			out = append(out, m)
		}
	}
	return out
}

// strong is strong text, or the label of a note.
func (b *Builder) strong(n *prose.Node) Inline {
	if n.Info == "" {
		return Inline{Kind: Strong, Children: b.Inlines(n.Children)}
	}
	return Inline{Kind: Label, Text: n.Info, Short: n.Target, Colon: strings.HasSuffix(prose.Plain(n.Children), ":")}
}

// formula is mathematics as text where that says the same, else its source.
func (b *Builder) formula(n *prose.Node) Inline {
	if len(n.Children) == 0 {
		return Inline{Kind: Formula, Text: n.Text}
	}
	return Inline{Kind: Formula, Children: b.Inlines(n.Children)}
}

// code is a code span, which leads to the one declaration that it means.
func (b *Builder) code(n *prose.Node) Inline {
	out := Inline{Kind: CodeSpan, Text: n.Text}
	if b.inner {
		return out
	}
	if n.Typed {
		if t, short, ok := b.Links.ImportedType(b.Scope.Module, b.Scope.File, n.Text); ok {
			out.To, out.Short = &Target{Target: t}, short
		}
	}
	if link.ReadsLikeName(n.Text) {
		if r := b.Links.ResolveNode(b.Scope, n); r.Outcome == link.Found {
			out.Or = &Target{Target: r.Target}
		}
	}
	if out.To == nil {
		out.To, out.Or = out.Or, nil
	}
	return out
}

func (b *Builder) reference(n *prose.Node) Inline {
	if n.Info == prose.Value {
		return b.value(n)
	}
	r := b.Links.ResolveNode(b.Scope, n)
	if r.Outcome == link.Found || r.Outcome == link.External {
		return b.linked(&Target{Target: r.Target}, n.Children)
	}
	switch g := b.titled(n); {
	case g != nil:
		return b.toTitled(n, g)
	case r.Outcome == link.Missing && n.Text != "":
		return Inline{Kind: Text, Text: n.Text} // brackets that are no reference stay as they were written
	}
	return b.linked(nil, n.Children)
}

// titled is the text or group of the library that a reference names, or nil.
func (b *Builder) titled(n *prose.Node) *model.Group {
	if b.Scope.Module == nil {
		return nil
	}
	return b.Scope.Module.Library.Groups[n.Target].Group
}

// toTitled leads to a text, or to the file that tells of a group. What the reference shows is the
// title, unless its author gave it other words.
func (b *Builder) toTitled(n *prose.Node, g *model.Group) Inline {
	lib := b.Scope.Module.Library
	shown := n.Children
	if prose.Plain(shown) == n.Target {
		shown = []prose.Node{{Kind: prose.Text, Text: g.Title, Span: n.Span}}
	}
	if g.Alone {
		return b.linked(At(plan.Library(lib)+"#"+plan.TextAnchor(g)), shown)
	}
	m := b.Links.ModuleOf(lib.Groups[g.Name].File)
	if m == nil || !b.Links.ModuleInReach(m) {
		return b.linked(nil, shown)
	}
	return b.linked(&Target{Target: link.Target{Module: m}, Group: g}, shown)
}

// value is the value of the constant that a reference names, where its signature shows it.
func (b *Builder) value(n *prose.Node) Inline {
	d := b.Scope.Declaration
	to := (*Target)(nil)
	if n.Target != "" {
		r := b.Links.ResolveNode(b.Scope, n)
		if d = r.Target.Declaration; d == nil {
			return b.linked(nil, n.Children)
		}
		to = &Target{Target: r.Target}
	}
	text := ""
	if d != nil {
		at := d.Speaks(model.Signature)
		for t := range at.Tokens(at.Signature) {
			if t.Kind == model.TokenLiteral {
				text = t.Text
			}
		}
	}
	if text == "" {
		return b.linked(to, n.Children)
	}
	return b.linked(to, []prose.Node{{Kind: prose.Code, Text: text, Span: n.Span}})
}

// linked is text that leads somewhere, without links inside it: they may not nest.
func (b *Builder) linked(to *Target, shown []prose.Node) Inline {
	if b.inner {
		to = nil
	}
	was := b.inner
	b.inner = true
	children := b.shown(shown)
	b.inner = was
	if to == nil {
		return Inline{Kind: Group, Children: children}
	}
	return Inline{Kind: Link, To: to, Children: children}
}

func (b *Builder) shown(nodes []prose.Node) []Inline {
	out := make([]Inline, 0, len(nodes))
	for i := range nodes {
		n := &nodes[i]
		switch n.Kind {
		case prose.Code:
			out = append(out, Inline{Kind: CodeSpan, Text: n.Text})
		case prose.Link, prose.Reference:
			out = append(out, b.shown(n.Children)...)
		case prose.Emphasis:
			out = append(out, Inline{Kind: Emphasis, Children: b.shown(n.Children)})
		case prose.Strong:
			out = append(out, Inline{Kind: Strong, Children: b.shown(n.Children)})
		case prose.Image, prose.Film:
			out = append(out, b.picture(n))
		default:
			out = b.inline(out, n)
		}
	}
	return out
}

// address is where an address leads: outside, to a place of the guide that the page shows, to
// another guide, or to a file of the project; nil for nowhere.
func (b *Builder) address(target string) *Target {
	if strings.Contains(target, ":") {
		return &Target{Target: link.Target{Address: target}}
	}
	if b.File == nil {
		return nil
	}
	way := link.WayFrom(b.File, target)
	switch g := b.Links.GuideAt(way.File); {
	case way.File == "" && way.Anchor == "":
		return nil
	case g == nil && way.File != b.File.Path:
		return &Target{File: way.File, Line: way.Line()}
	case g == nil:
		return nil
	case way.Anchor == "":
		return &Target{Guide: g}
	default:
		anchor, known := g.Anchors().Find(way.Anchor)
		if !known && g == b.Shown {
			return nil
		}
		return &Target{Guide: g, Heading: anchor}
	}
}

// image is a local picture, or a link to a remote one: pages ask nothing of the network.
func (b *Builder) image(n *prose.Node) Inline {
	if !strings.Contains(n.Target, ":") {
		return b.picture(n)
	}
	text := prose.Plain(n.Children)
	if text == "" {
		text = path.Base(n.Target)
	}
	words := []Inline{{Kind: Text, Text: text}}
	if b.inner {
		return Inline{Kind: Group, Children: words}
	}
	return Inline{Kind: Link, To: &Target{Target: link.Target{Address: n.Target}}, Children: words}
}

func (b *Builder) picture(n *prose.Node) Inline {
	out := Inline{Kind: Picture, Text: prose.Plain(n.Children)}
	if n.Kind == prose.Film {
		out.Kind = Film
	}
	if b.File != nil {
		out.Short = link.WayFrom(b.File, n.Target).File
	}
	return out
}
