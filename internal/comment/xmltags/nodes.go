package xmltags

import (
	"strings"

	"codrel/internal/prose"
	"codrel/internal/prose/markup"
)

// This file makes the prose tree of elements.

// What elements become beside the kinds of prose.
const (
	transparent = prose.Formula + 1 + iota // what stands in them alone
	listing                                // a list of the standard
	point                                  // an item of it
	seen                                   // a reference
	naming                                 // the name of a parameter
	aside                                  // a note
	section                                // known at the top of a comment
	linked
	hidden
)

// elements are those that the reader knows, with what becomes of them.
var elements = map[string]prose.Kind{
	"summary": section, "remarks": section, "param": section, "typeparam": section, "returns": section, "value": section, "exception": section,
	"example": section, "permission": section, "inheritdoc": section, "include": section, "doc": transparent, "member": transparent,
	"para": prose.Paragraph, "p": prose.Paragraph, "c": prose.Code, "code": prose.CodeBlock, "list": listing, "item": point, "listheader": point,
	"term": transparent, "description": transparent, "see": seen, "seealso": seen, "paramref": naming, "typeparamref": naming, "note": aside,
	"h1": prose.Heading, "h2": prose.Heading, "h3": prose.Heading, "h4": prose.Heading, "h5": prose.Heading, "h6": prose.Heading,
	"ul": prose.List, "ol": prose.List, "li": prose.Item, "pre": prose.CodeBlock, "blockquote": prose.Quote,
	"table": prose.Table, "tr": prose.Row, "td": prose.Cell, "th": prose.Cell, "hr": prose.Ruler, "br": prose.Break,
	"b": prose.Strong, "strong": prose.Strong, "i": prose.Emphasis, "em": prose.Emphasis, "var": prose.Emphasis, "cite": prose.Emphasis,
	"tt": prose.Code, "kbd": prose.Code, "samp": prose.Code, "sup": prose.Superscript, "sub": prose.Subscript, "s": prose.Struck, "del": prose.Struck,
	"a": linked, "img": prose.Image, "div": transparent, "span": transparent, "u": transparent, "font": transparent, "small": transparent, "big": transparent,
	"tbody": transparent, "thead": transparent, "tfoot": transparent, "center": transparent, "caption": transparent, "dl": transparent, "dt": prose.Paragraph, "dd": prose.Paragraph,
	"script": hidden, "style": hidden, "svg": hidden, "iframe": hidden, "object": hidden,
}

// flow makes blocks: what stands in a line gathers in a paragraph.
type flow struct {
	*parser
	out  []prose.Node
	line []prose.Node
}

// blocks are the blocks that nodes make.
func (p *parser) blocks(kids []*node) []prose.Node {
	f := flow{parser: p}
	f.all(kids)
	f.end()
	return f.out
}

// inlines are what stands in a line, of nodes among which blocks lose what makes them so.
func (p *parser) inlines(kids []*node) []prose.Node {
	var out []prose.Node
	for _, b := range p.blocks(kids) {
		if len(out) > 0 {
			out = append(out, prose.Node{Kind: prose.Text, Text: " ", Span: b.Span})
		}
		switch b.Kind {
		case prose.Paragraph, prose.Heading:
			out = append(out, b.Children...)
		case prose.CodeBlock:
			out = append(out, prose.Node{Kind: prose.Code, Text: strings.TrimSpace(b.Text), Span: b.Span})
		default:
			out = append(out, prose.Node{Kind: prose.Text, Text: prose.Plain([]prose.Node{b}), Span: b.Span})
		}
	}
	return out
}

// end closes the paragraph that is open.
func (f *flow) end() {
	line := f.line
	for len(line) > 0 && line[0].Kind == prose.Text {
		if line[0].Text = strings.TrimLeft(line[0].Text, " \t\r\n"); line[0].Text != "" {
			break
		}
		line = line[1:]
	}
	for n := len(line) - 1; n >= 0 && line[n].Kind == prose.Text; n-- {
		if line[n].Text = strings.TrimRight(line[n].Text, " \t\r\n"); line[n].Text != "" {
			break
		}
		line = line[:n]
	}
	f.line = nil
	if len(line) > 0 {
		span := line[0].Span
		span.End = max(span.End, line[len(line)-1].Span.End)
		f.out = append(f.out, prose.Node{Kind: prose.Paragraph, Span: span, Children: line})
	}
}

// block puts a block behind what is there.
func (f *flow) block(n prose.Node) {
	f.end()
	f.out = append(f.out, n)
}

func (f *flow) all(kids []*node) {
	for i, n := range kids {
		if n.text() {
			f.words(n)
		} else {
			f.element(n, inLine(kids, i))
		}
	}
}

// inLine reports whether words stand beside an element on its line.
func inLine(kids []*node, i int) bool {
	if i > 0 && kids[i-1].text() {
		if before := kids[i-1].words; strings.TrimSpace(before[strings.LastIndexByte(before, '\n')+1:]) != "" {
			return true
		}
	}
	if i+1 < len(kids) && kids[i+1].text() {
		after, _, _ := strings.Cut(kids[i+1].words, "\n")
		return strings.TrimSpace(after) != ""
	}
	return false
}

// words puts a text: a line without words in it ends a paragraph.
func (f *flow) words(n *node) {
	text, at := n.words, n.from
	same := len(text) == n.to-n.from // every byte stands where it is written
	for first := true; ; first = false {
		i, size := blankLine(text)
		if !first {
			f.end()
		}
		if i < 0 {
			break
		}
		f.put(text[:i], at, n, same)
		text, at = text[i+size:], at+i+size
	}
	f.put(text, at, n, same)
}

func (f *flow) put(text string, at int, n *node, same bool) {
	if text == "" {
		return
	}
	span := f.place(n)
	if same {
		span = f.span(at, at+len(text))
	}
	f.line = append(f.line, prose.Node{Kind: prose.Text, Text: text, Span: span})
}

// blankLine finds the first line of a text without words, and how much of the text it takes.
func blankLine(text string) (at, size int) {
	for from := 0; ; {
		i := strings.IndexByte(text[from:], '\n')
		if i < 0 {
			return -1, 0
		}
		at = from + i
		end := at + 1
		for end < len(text) && strings.IndexByte(" \t\r", text[end]) >= 0 {
			end++
		}
		if end < len(text) && text[end] == '\n' {
			return at, end + 1 - at
		}
		from = at + 1
	}
}

// element puts an element. inLine says that words stand beside it on its line.
func (f *flow) element(n *node, inLine bool) {
	span := f.place(n)
	kind, known := elements[n.tag.Name]
	switch {
	case !known || kind == transparent || kind == section && n.tag.Name != "inheritdoc":
		f.all(n.kids)
	case n.tag.Name == "inheritdoc":
		f.line = append(f.line, f.inherited(n))
	case kind == seen:
		f.line = append(f.line, f.see(n)...)
	case kind == naming:
		f.line = append(f.line, prose.Node{Kind: prose.Code, Text: n.tag.Attribute("name"), Span: span})
	case kind == linked:
		f.line = append(f.line, f.linked(n)...)
	case kind == prose.Code, kind == prose.CodeBlock && n.tag.Name == "code" && inLine && !strings.Contains(f.plain(n), "\n"):
		if text := strings.Join(strings.Fields(f.plain(n)), " "); text != "" {
			f.line = append(f.line, prose.Node{Kind: prose.Code, Text: text, Span: span})
		}
	case kind == prose.CodeBlock:
		f.code(n)
	case kind == prose.Break:
		f.line = append(f.line, prose.Node{Kind: prose.Break, Span: span})
	case kind == prose.Image:
		if source := n.tag.Attribute("src"); prose.AllowedAddress(source) {
			f.line = append(f.line, prose.Node{Kind: prose.Image, Target: source, Span: span, Children: []prose.Node{{Kind: prose.Text, Text: n.tag.Attribute("alt"), Span: span}}})
		}
	case kind == hidden:
	case kind.Inline() && kind < transparent:
		if kids := f.inlines(n.kids); len(kids) > 0 {
			f.line = append(f.line, prose.Node{Kind: kind, Span: span, Children: kids})
		}
	default:
		f.blockOf(n, kind)
	}
}

// blockOf puts an element that is a block.
func (f *flow) blockOf(n *node, kind prose.Kind) {
	span := f.place(n)
	switch kind {
	case prose.Paragraph:
		f.end()
		f.all(n.kids)
		f.end()
	case prose.Heading:
		f.block(prose.Node{Kind: kind, Level: uint16(n.tag.Name[1] - '0'), Span: span, Children: f.inlines(n.kids)})
	case prose.Quote, aside:
		if kids := f.blocks(n.kids); len(kids) > 0 {
			f.block(prose.Node{Kind: prose.Quote, Span: span, Children: kids})
		}
	case prose.Ruler:
		f.block(prose.Node{Kind: kind, Span: span})
	case listing:
		f.list(n)
	case prose.List:
		level := uint16(0)
		if n.tag.Name == "ol" {
			level = 1
		}
		f.items(n, level)
	case prose.Item, point:
		f.end()
		f.all(n.kids)
		f.end()
	case prose.Table:
		f.table(n)
	default:
		f.all(n.kids)
	}
}

// plain is the text that stands in an element, without the tags in it.
func (p *parser) plain(n *node) string {
	var b strings.Builder
	p.write(&b, n)
	return b.String()
}

func (p *parser) write(b *strings.Builder, n *node) {
	switch cref := n.tag.Attribute("cref"); {
	case n.text():
		b.WriteString(n.words)
	case len(n.kids) == 0 && cref != "":
		b.WriteString(shown(cref))
	case len(n.kids) == 0:
		b.WriteString(n.tag.Attribute("langword") + n.tag.Attribute("name"))
	}
	for _, kid := range n.kids {
		p.write(b, kid)
	}
}

// code puts what stands in "code" or "pre".
func (f *flow) code(n *node) {
	code := strings.Trim(f.plain(n), "\r\n")
	if strings.TrimSpace(code) == "" {
		return
	}
	info := strings.ToLower(n.tag.Attribute("lang") + n.tag.Attribute("language"))
	switch {
	case info == "" && n.tag.Name == "code":
		info = "csharp" // what nearly all examples are in
	case strings.ContainsAny(info, " \t\n"):
		info = ""
	}
	f.block(prose.Node{Kind: prose.CodeBlock, Info: info, Text: strings.TrimRight(markup.Undented(strings.ReplaceAll(code, "\t", "    ")), " \n") + "\n", Span: f.place(n)})
}

// linked makes a link of HTML.
func (p *parser) linked(n *node) []prose.Node {
	label := p.inlines(n.kids)
	if to, ok := prose.Leading(n.tag.Attribute("href")); ok && len(label) > 0 {
		to.Span, to.Children = p.place(n), label
		return []prose.Node{to}
	}
	return label
}

// list puts a list of the standard: points, numbers, terms with what they mean, or a table.
func (f *flow) list(n *node) {
	terms := false
	for _, item := range n.kids {
		terms = terms || item.part("term") != nil && item.part("description") != nil
	}
	switch kind := strings.ToLower(n.tag.Attribute("type")); {
	case kind == "table":
		f.table(n)
	case kind == "number":
		f.items(n, 1)
	case kind == "definition", kind == "" && terms:
		f.definitions(n)
	default:
		f.items(n, 0)
	}
}

// part is an element right in another one, or nil.
func (n *node) part(name string) *node {
	for _, kid := range n.kids {
		if kid.tag.Name == name {
			return kid
		}
	}
	return nil
}

// items puts points or numbers; a term stands in bold before what it means.
func (f *flow) items(n *node, level uint16) {
	list := prose.Node{Kind: prose.List, Level: level, Span: f.place(n)}
	for _, item := range n.kids {
		kind := elements[item.tag.Name]
		if kind != prose.Item && kind != point || item.text() {
			if item.says() || !item.text() {
				list.Children = append(list.Children, prose.Node{Kind: prose.Item, Span: f.place(item), Children: f.blocks([]*node{item})})
			}
			continue
		}
		text := f.pointOf(item)
		if item.tag.Name == "listheader" && len(text) > 0 && text[0].Kind == prose.Paragraph {
			text[0].Children = []prose.Node{{Kind: prose.Strong, Span: text[0].Span, Children: text[0].Children}}
		}
		list.Children = append(list.Children, prose.Node{Kind: prose.Item, Span: f.place(item), Children: text})
	}
	if len(list.Children) > 0 {
		f.block(list)
	}
}

// pointOf is what a point of a list says.
func (f *flow) pointOf(item *node) []prose.Node {
	term, text := item.part("term"), item.part("description")
	if term == nil || text == nil {
		return f.blocks(item.kids)
	}
	name := f.inlines(term.kids)
	if len(name) == 0 {
		return f.blocks(text.kids)
	}
	span := f.place(term)
	head := prose.Node{Kind: prose.Paragraph, Span: span, Children: []prose.Node{{Kind: prose.Strong, Span: span, Children: name}, {Kind: prose.Text, Text: ": ", Span: span}}}
	return led(head, f.blocks(text.kids))
}

// definitions puts terms with what they mean.
func (f *flow) definitions(n *node) {
	list := prose.Node{Kind: prose.List, Info: prose.Terms, Span: f.place(n)}
	for _, item := range n.kids {
		if elements[item.tag.Name] != point {
			continue
		}
		out := prose.Node{Kind: prose.Item, Span: f.place(item)}
		if term := item.part("term"); term != nil {
			if name := f.inlines(term.kids); len(name) > 0 {
				out.Children = append(out.Children, prose.Node{Kind: prose.Paragraph, Span: f.place(term), Children: []prose.Node{{Kind: prose.Strong, Span: f.place(term), Children: name}}})
			}
		}
		if text := item.part("description"); text != nil {
			out.Children = append(out.Children, f.blocks(text.kids)...)
		} else if item.part("term") == nil {
			out.Children = f.blocks(item.kids)
		}
		list.Children = append(list.Children, out)
	}
	if len(list.Children) > 0 {
		f.block(list)
	}
}

// table puts a table, of HTML or of the standard's lists.
func (f *flow) table(n *node) {
	table := prose.Node{Kind: prose.Table, Span: f.place(n)}
	f.rows(n, &table)
	if len(table.Children) > 0 {
		f.block(table)
	}
}

func (f *flow) rows(n *node, table *prose.Node) {
	for _, kid := range n.kids {
		switch kind := elements[kid.tag.Name]; {
		case kid.text():
		case kind == prose.Row || kind == point:
			row := prose.Node{Kind: prose.Row, Span: f.place(kid)}
			if kid.tag.Name == "listheader" || kid.part("th") != nil && len(table.Children) == 0 {
				row.Level = 1
			}
			for _, cell := range kid.kids {
				if !cell.text() {
					row.Children = append(row.Children, prose.Node{Kind: prose.Cell, Span: f.place(cell), Children: f.inlines(cell.kids)})
				}
			}
			if len(row.Children) > 0 {
				table.Children = append(table.Children, row)
			}
		default:
			f.rows(kid, table)
		}
	}
}
