package htmltags

import (
	"html"
	"strconv"
	"strings"

	"codrel/internal/prose"
	"codrel/internal/prose/markup"
	"codrel/internal/prose/snippet"
	"codrel/internal/source"
)

// This file makes the prose tree of HTML as people write it in comments: elements that are
// not closed end where the next one of their kind begins, or what they stand in ends.

// deepest is how many elements in one another are told apart.
const deepest = 60

// builder makes nodes of a piece of the text.
type builder struct {
	*parser
	stack []frame
	named int // the frame that a tag in the text closes, or 0

	opening    string // the element that a tag opens at the moment, or ""
	openingTag source.Span
	inline     bool // no blocks may begin
}

// frame is an element that is open.
type frame struct {
	node prose.Node
	name string // of the element; "" for what nothing in the text opened
	from int
	tag  source.Span // that opened it
}

// mustClose are the elements that end nowhere but at their closing tag (HTML Living Standard,
// 13.1.2.4 has those that may be left open).
var mustClose = map[string]bool{
	"b": true, "strong": true, "i": true, "em": true, "var": true, "cite": true, "dfn": true, "sup": true, "sub": true, "s": true, "del": true, "strike": true, "a": true,
	"ul": true, "ol": true, "dl": true, "table": true, "blockquote": true, "h1": true, "h2": true, "h3": true, "h4": true, "h5": true, "h6": true,
}

func (p *parser) blocks(from, to int) []prose.Node {
	return p.build(from, to, false)
}

// inlines makes what stands in a line.
func (p *parser) inlines(from, to int) []prose.Node {
	return p.build(from, to, true)
}

func (p *parser) build(from, to int, inline bool) []prose.Node {
	from, to = p.trimmed(from, to)
	if from == to {
		return nil
	}
	b := builder{parser: p, inline: inline, stack: []frame{{node: prose.Node{Kind: prose.Quote}, from: from}}}
	for at := from; at < to; {
		next := at + 1
		switch c := p.text[at]; {
		case c == '{' && at+1 < to && p.text[at+1] == '@':
			next = b.tag(at, to)
		case c == '<' && at+1 < to:
			next = b.element(at, to)
		default:
			for next < to && p.text[next] != '<' && !(p.text[next] == '{' && next+1 < to && p.text[next+1] == '@') {
				next++
			}
			b.text(p.text[at:next], at, next, true)
		}
		at = max(next, at+1)
	}
	for len(b.stack) > 1 {
		b.pop(to)
	}
	return b.stack[0].node.Children
}

func (b *builder) top() *frame { return &b.stack[len(b.stack)-1] }

// holdsBlocks reports whether what is open holds blocks: text in it needs a paragraph.
func (b *builder) holdsBlocks() bool {
	k := b.top().node.Kind
	return !b.inline && (k == prose.Quote || k == prose.Item)
}

// longestJoined is how long text grows by what follows it.
const longestJoined = 2000

// add puts a node into what is open. Text goes on with text before it.
func (b *builder) add(n prose.Node) {
	t := b.top()
	if last := len(t.node.Children) - 1; n.Kind == prose.Text && last >= 0 {
		if before := &t.node.Children[last]; before.Kind == prose.Text && len(before.Text) < longestJoined {
			before.Text += n.Text
			before.Span.End = max(before.Span.End, n.Span.End)
			return
		}
	}
	t.node.Children = append(t.node.Children, n)
}

func (b *builder) push(n prose.Node, name string, at int) {
	f := frame{node: n, name: name, from: at}
	if name != "" && name == b.opening {
		f.tag = b.openingTag
	}
	b.stack = append(b.stack, f)
}

// pop closes what was opened last.
func (b *builder) pop(at int) {
	f := *b.top()
	b.stack = b.stack[:len(b.stack)-1]
	if mustClose[f.name] && len(b.stack) != b.named && f.tag.End > f.tag.Start {
		b.out.Flaws = append(b.out.Flaws, prose.Flaw{Kind: prose.Unclosed, Span: f.tag, Text: "<" + f.name + ">"})
	}
	f.node.Span = b.span(f.from, at)
	if f.node.Kind == prose.Paragraph || f.node.Kind == prose.Heading || f.node.Kind == prose.Cell || f.name == "dt" {
		f.node.Children = tidied(f.node.Children)
	}
	empty := len(f.node.Children) == 0
	if empty && f.node.Kind != prose.Cell && f.node.Kind != prose.Item {
		return // nothing was said in it
	}
	b.add(f.node)
}

// tidied are the parts of a paragraph without blanks at its ends.
func tidied(nodes []prose.Node) []prose.Node {
	for len(nodes) > 0 && nodes[0].Kind == prose.Text {
		if nodes[0].Text = strings.TrimLeft(nodes[0].Text, " \t\r\n"); nodes[0].Text != "" {
			break
		}
		nodes = nodes[1:]
	}
	for n := len(nodes) - 1; n >= 0 && nodes[n].Kind == prose.Text; n-- {
		if nodes[n].Text = strings.TrimRight(nodes[n].Text, " \t\r\n"); nodes[n].Text != "" {
			break
		}
		nodes = nodes[:n]
	}
	return nodes
}

// line makes sure that what stands in a line may follow.
func (b *builder) line(at int) {
	if b.holdsBlocks() {
		b.push(prose.Node{Kind: prose.Paragraph}, "", at)
	}
	switch b.top().node.Kind { // what stands between items, rows or cells
	case prose.List:
		b.push(prose.Node{Kind: prose.Item}, "", at)
		b.push(prose.Node{Kind: prose.Paragraph}, "", at)
	case prose.Table:
		b.push(prose.Node{Kind: prose.Row}, "", at)
		b.push(prose.Node{Kind: prose.Cell}, "", at)
	case prose.Row:
		b.push(prose.Node{Kind: prose.Cell}, "", at)
	}
}

// text puts text, with what stands for other characters taken for those.
func (b *builder) text(text string, from, to int, entities bool) {
	if strings.TrimSpace(text) == "" {
		if k := b.top().node.Kind; k == prose.Quote || k == prose.Item || k == prose.List || k == prose.Table || k == prose.Row {
			return
		}
	}
	b.line(from)
	if entities && strings.IndexByte(text, '&') >= 0 {
		text = html.UnescapeString(text)
	}
	b.add(prose.Node{Kind: prose.Text, Text: text, Span: b.span(from, to)})
}

// closeLine ends the paragraph, heading or cell's text that is open, and all in it.
func (b *builder) closeLine(at int) {
	for n := len(b.stack) - 1; n > 0; n-- {
		switch b.stack[n].node.Kind {
		case prose.Paragraph, prose.Heading:
			for len(b.stack) > n {
				b.pop(at)
			}
			return
		case prose.Item, prose.Quote, prose.List, prose.Table, prose.Row, prose.Cell:
			return
		}
	}
}

// inCell reports whether a cell is open, right around what follows.
func (b *builder) inCell() bool {
	for n := len(b.stack) - 1; n > 0; n-- {
		if k := b.stack[n].node.Kind; !k.Inline() {
			return k == prose.Cell
		}
	}
	return false
}

// until ends all within the innermost frame of one of the kinds, and reports whether there
// is one.
func (b *builder) until(at int, kinds ...prose.Kind) bool {
	for n := len(b.stack) - 1; n > 0; n-- {
		for _, kind := range kinds {
			if b.stack[n].node.Kind == kind {
				for len(b.stack) > n+1 {
					b.pop(at)
				}
				return true
			}
		}
	}
	return false
}

// closeTo ends all up to the innermost frame of one of the kinds, with it; it goes not
// beyond one of the others.
func (b *builder) closeTo(at int, kind prose.Kind, not ...prose.Kind) bool {
	for n := len(b.stack) - 1; n > 0; n-- {
		k := b.stack[n].node.Kind
		if k == kind {
			for len(b.stack) > n {
				b.pop(at)
			}
			return true
		}
		for _, stop := range not {
			if k == stop {
				return false
			}
		}
	}
	return false
}

// element reads the markup.Tag of an element that may begin at an offset, and gives the offset behind it.
func (b *builder) element(at, to int) int {
	rest := b.parser.text[at:to]
	if strings.HasPrefix(rest, "<!--") {
		if end := strings.Index(rest, "-->"); end >= 0 {
			return at + end + len("-->")
		}
		return to
	}
	e, ok := markup.ReadTag(rest)
	if !ok {
		b.text("<", at, at+1, false)
		return at + 1
	}
	end := at + e.Length
	kind, known := elements[e.Name]
	switch {
	case !known || b.inline && kind < prose.Text && kind != transparent:
		if !known && !(e.Closing && b.unknown[e.Name]) { // what ends it is the same mistake
			if b.unknown == nil {
				b.unknown = map[string]bool{}
			}
			b.unknown[e.Name] = true
			b.out.Flaws = append(b.out.Flaws, prose.Flaw{Kind: prose.NoElement, Span: b.parser.span(at, end), Text: rest[:e.Length]})
		}
		if !known {
			b.text(rest[:e.Length], at, end, false) // List<String> as people forget to write it
		}
	case e.Closing:
		b.close(e.Name, kind, at)
	case len(b.stack) > deepest:
	default:
		b.opening, b.openingTag = e.Name, b.parser.span(at, end)
		next := b.open(e, kind, at, end, to)
		b.opening = ""
		return next
	}
	return end
}

// transparent are elements of which only what stands in them is shown; division are those
// that end a paragraph besides.
const (
	transparent = prose.Formula + 1 + iota
	division
	dropped
	linkOrPlace
	terms
	definition
	head
	caption
)

// elements are those that the reader knows, with what becomes of them.
var elements = map[string]prose.Kind{
	"p": prose.Paragraph, "h1": prose.Heading, "h2": prose.Heading, "h3": prose.Heading, "h4": prose.Heading, "h5": prose.Heading, "h6": prose.Heading,
	"ul": prose.List, "ol": prose.List, "menu": prose.List, "dir": prose.List, "li": prose.Item, "dl": terms, "dt": definition, "dd": definition,
	"pre": prose.CodeBlock, "blockquote": prose.Quote, "table": prose.Table, "tr": prose.Row, "td": prose.Cell, "th": head, "hr": prose.Ruler, "br": prose.Break,
	"b": prose.Strong, "strong": prose.Strong, "i": prose.Emphasis, "em": prose.Emphasis, "var": prose.Emphasis, "cite": prose.Emphasis, "dfn": prose.Emphasis,
	"code": prose.Code, "tt": prose.Code, "kbd": prose.Code, "samp": prose.Code, "sup": prose.Superscript, "sub": prose.Subscript,
	"s": prose.Struck, "del": prose.Struck, "strike": prose.Struck, "a": linkOrPlace, "img": prose.Image,
	"div": division, "section": division, "article": division, "center": division, "header": division, "footer": division, "aside": division, "nav": division,
	"main": division, "figure": division, "figcaption": division, "caption": caption, "address": division, "fieldset": division, "form": division,
	"tbody": transparent, "thead": transparent, "tfoot": transparent, "colgroup": transparent, "col": transparent, "u": transparent, "small": transparent, "big": transparent,
	"span": transparent, "font": transparent, "abbr": transparent, "acronym": transparent, "q": transparent, "ins": transparent, "mark": transparent, "wbr": transparent,
	"html": transparent, "body": transparent, "bdi": transparent, "bdo": transparent, "ruby": transparent, "time": transparent, "label": transparent, "nobr": transparent,
	"script": dropped, "style": dropped, "head": dropped, "title": dropped, "iframe": dropped, "object": dropped, "svg": dropped, "math": transparent,
}

// open begins an element and gives the offset behind its tag, or behind all of it.
func (b *builder) open(e markup.Tag, kind prose.Kind, at, end, to int) int {
	if b.inCell() && b.flattened(kind, at, end) {
		return end
	}
	switch kind {
	case prose.Paragraph, prose.Heading, prose.Quote, prose.Table, prose.Ruler, division:
		b.openBlock(e, kind, at, end)
	case prose.List, terms, prose.Item:
		b.openList(e, kind, at, end)
	case definition:
		b.define(e, at, end)
	case prose.Row, prose.Cell, head:
		b.openRow(e, kind, at, end)
	case prose.CodeBlock:
		return b.preformatted(at, end, to)
	case prose.Code:
		return b.code(e, at, end, to)
	case caption:
		return b.caption(e, end, to)
	case dropped:
		_, behind := b.ending(e.Name, end, to)
		return behind
	case prose.Break:
		b.line(at)
		b.add(prose.Node{Kind: prose.Break, Span: b.span(at, end)})
	case linkOrPlace:
		if n, ok := prose.Leading(e.Attribute("href")); ok {
			b.line(at)
			b.push(n, e.Name, at)
		}
	case prose.Image:
		if source := e.Attribute("src"); prose.AllowedAddress(source) {
			b.line(at)
			span := b.span(at, end)
			b.add(prose.Node{Kind: prose.Image, Target: source, Span: span, Children: []prose.Node{{Kind: prose.Text, Text: e.Attribute("alt"), Span: span}}})
		}
	case transparent:
	default:
		b.line(at)
		b.push(prose.Node{Kind: kind}, e.Name, at)
	}
	return end
}

// flattened keeps blocks out of a cell, which holds what stands in a line, and reports
// whether an element is one: a break tells them apart.
func (b *builder) flattened(kind prose.Kind, at, end int) bool {
	switch kind {
	case prose.Paragraph, prose.Item, definition, prose.Heading, division:
		if len(b.top().node.Children) > 0 {
			b.add(prose.Node{Kind: prose.Break, Span: b.span(at, end)})
		}
		return true
	case prose.List, terms, prose.Quote, prose.Table, prose.Ruler:
		return true
	}
	return false
}

// openBlock begins a block that may stand anywhere between others.
func (b *builder) openBlock(e markup.Tag, kind prose.Kind, at, end int) {
	b.closeLine(at)
	switch {
	case kind == division:
	case kind == prose.Heading:
		b.push(prose.Node{Kind: kind, Level: uint16(e.Name[1] - '0')}, e.Name, end)
	case kind == prose.Quote || kind == prose.Table:
		b.push(prose.Node{Kind: kind}, e.Name, end)
	case !b.holdsBlocks():
	case kind == prose.Ruler:
		b.add(prose.Node{Kind: kind, Span: b.span(at, end)})
	default:
		b.push(prose.Node{Kind: kind}, e.Name, end)
	}
}

// openList begins a list, or an item of the list that is open.
func (b *builder) openList(e markup.Tag, kind prose.Kind, at, end int) {
	if kind == prose.Item {
		b.closeTo(at, prose.Item, prose.List, prose.Table, prose.Quote)
		if b.top().node.Kind != prose.List {
			b.closeLine(at)
			b.push(prose.Node{Kind: prose.List}, "ul", at)
		}
		b.push(prose.Node{Kind: prose.Item}, e.Name, end)
		return
	}
	b.closeLine(at)
	list := prose.Node{Kind: prose.List}
	if kind == terms {
		list.Info = prose.Terms
	} else if e.Name == "ol" {
		list.Level = 1
		if n, err := strconv.Atoi(e.Attribute("start")); err == nil && n > 0 && n < 1<<15 {
			list.Level = uint16(n)
		}
	}
	b.push(list, e.Name, end)
}

// openRow begins a row of the table that is open, or a cell of its row.
func (b *builder) openRow(e markup.Tag, kind prose.Kind, at, end int) {
	if kind == prose.Row {
		if b.until(at, prose.Table) {
			b.push(prose.Node{Kind: prose.Row}, e.Name, end)
		}
		return
	}
	if b.until(at, prose.Row, prose.Table) && b.top().node.Kind == prose.Table {
		b.push(prose.Node{Kind: prose.Row}, "tr", end)
	}
	if row := b.top(); row.node.Kind == prose.Row {
		if kind == head && len(row.node.Children) == 0 {
			row.node.Level = 1
		}
		b.push(prose.Node{Kind: prose.Cell, Level: prose.CellLevel(e.Attribute("colspan"), e.Attribute("rowspan")), Info: prose.Aligned(e.Attribute("align"))}, e.Name, end)
	}
}

// caption puts the caption of a table before it.
func (b *builder) caption(e markup.Tag, end, to int) int {
	stop, behind := b.ending(e.Name, end, to)
	n := len(b.stack) - 1
	if n == 0 || b.stack[n].node.Kind != prose.Table || stop == to {
		return end
	}
	if text := b.inlines(end, stop); len(text) > 0 {
		b.stack[n-1].node.Children = append(b.stack[n-1].node.Children, prose.Node{Kind: prose.Paragraph, Span: b.span(end, stop), Children: text})
	}
	return behind
}

// define begins a term or what is said of it: terms stand in bold before that.
func (b *builder) define(e markup.Tag, at, end int) {
	if e.Name == "dd" && b.closeTo(at, prose.Paragraph, prose.Item, prose.List) && b.top().node.Kind == prose.Item {
		return
	}
	if e.Name == "dd" && b.top().node.Kind == prose.Item {
		return
	}
	b.closeTo(at, prose.Item, prose.List, prose.Table, prose.Quote)
	if b.top().node.Kind != prose.List {
		b.closeLine(at)
		b.push(prose.Node{Kind: prose.List, Info: prose.Terms}, "dl", at)
	}
	b.push(prose.Node{Kind: prose.Item}, "", at)
	if e.Name == "dt" {
		b.push(prose.Node{Kind: prose.Paragraph}, "", end)
		b.push(prose.Node{Kind: prose.Strong}, "dt", end)
	}
}

// close ends an element that a tag closes.
func (b *builder) close(name string, kind prose.Kind, at int) {
	switch kind {
	case transparent, prose.Break, prose.Ruler, prose.Image, caption:
		return
	case division:
		b.closeLine(at)
		return
	case prose.Paragraph:
		b.closeLine(at)
		return
	}
	for n := len(b.stack) - 1; n > 0; n-- {
		f := &b.stack[n]
		if f.name == name || kind == prose.Heading && f.node.Kind == prose.Heading {
			b.named = n
			for len(b.stack) > n {
				b.pop(at)
			}
			b.named = 0
			return
		}
		if isInline(kind) && !f.node.Kind.Inline() {
			return // it closes nothing that is open here
		}
	}
}

// isInline reports whether an element stands in a line.
func isInline(kind prose.Kind) bool {
	return kind.Inline() && kind <= prose.Formula || kind == linkOrPlace
}

// found is where a search for the markup.Tag that closes an element began and ended.
type found struct{ from, to, at int }

// ending is where the markup.Tag that closes an element begins, and the offset behind it; both are to
// where none does. What was found is kept, since many may ask for the same.
func (p *parser) ending(name string, from, to int) (begin, behind int) {
	f, known := p.endings[name]
	if !known || f.to != to || from < f.from || from > f.at {
		f = found{from, to, to}
		for at := from; at < to; at += 2 {
			i := strings.Index(p.text[at:to], "</")
			if i < 0 {
				break
			}
			at += i
			if end := at + 2 + len(name); end <= to && strings.EqualFold(p.text[at+2:end], name) {
				f.at = at
				break
			}
		}
		p.endings[name] = f
	}
	if f.at == to {
		return to, to
	}
	behind = f.at + 2 + len(name)
	if stop := strings.IndexByte(p.text[behind:to], '>'); stop >= 0 {
		behind += stop + 1
	}
	return f.at, behind
}

// preformatted reads what stands in "pre": code as it is, with the markup.Tags in it left out.
func (b *builder) preformatted(at, from, to int) int {
	stop, end := b.ending("pre", from, to)
	b.closeLine(at)
	marked, marks := b.marked(from, stop)
	code := strings.Trim(marked, "\r\n")
	if strings.TrimSpace(code) == "" {
		return end
	}
	node := b.codeBlock(code, b.span(at, end), marks)
	if b.holdsBlocks() {
		b.add(node)
	} else {
		b.line(at)
		b.add(prose.Node{Kind: prose.Code, Text: markup.Plain(code), Span: node.Span})
	}
	return end
}

// codeBlock is code with the signs of marks in it, which nodes tell of in the order of their
// opening.
func (b *builder) codeBlock(code string, span source.Span, marks []prose.Node) prose.Node {
	text, placed := snippet.Placed(markup.Undented(code)+"\n", marks)
	return prose.Node{Kind: prose.CodeBlock, Text: text, Span: span, Children: placed}
}

// code reads an element of code in a line: its text alone counts, and the references in it.
func (b *builder) code(e markup.Tag, at, from, to int) int {
	stop, end := b.ending(e.Name, from, to)
	if stop == to || stop-from > markup.LongestTag {
		return from // never closed
	}
	b.line(at)
	if open := strings.Index(b.parser.text[from:stop], "{@link"); open >= 0 {
		b.stack = append(b.stack, frame{node: prose.Node{Kind: transparent}, from: at})
		n := len(b.stack) - 1
		for _, child := range b.inlines(from, stop) {
			if child.Kind == prose.Text {
				child.Kind = prose.Code
			}
			b.stack[n].node.Children = append(b.stack[n].node.Children, child)
		}
		children := b.stack[n].node.Children
		b.stack = b.stack[:n]
		b.top().node.Children = append(b.top().node.Children, children...)
		return end
	}
	b.add(prose.Node{Kind: prose.Code, Text: strings.Join(strings.Fields(b.plain(from, stop)), " "), Span: b.span(at, end)})
	return end
}

// plain is a piece of the text without tags of elements, and with what inline markup.Tags show.
func (b *builder) plain(from, to int) string {
	text, _ := b.marked(from, to)
	return markup.Plain(text)
}

// marks are the elements that mark a part of code, with what becomes of them.
var marks = map[string]prose.Kind{"b": prose.Strong, "strong": prose.Strong, "mark": prose.Strong, "i": prose.Emphasis, "em": prose.Emphasis}

// marked is such a piece with the signs of marks around what elements and links mark, and the
// nodes of those.
func (b *builder) marked(from, to int) (string, []prose.Node) {
	var out strings.Builder
	var nodes []prose.Node
	var open []string
	for at := from; at < to; {
		switch c := b.parser.text[at]; {
		case c == '{' && at+1 < to && b.parser.text[at+1] == '@':
			if end, ok := b.closes[at]; ok && end < to {
				word, _, rest := b.first(at+2, end)
				switch word {
				case "code", "literal":
					out.WriteString(strings.TrimPrefix(b.parser.text[rest:end], " "))
				default:
					content, stop := b.trimmed(rest, end)
					text := b.parser.text[content:stop]
					if word == "link" || word == "linkplain" {
						label := b.parser.nameEnd(content, stop)
						name := b.parser.text[content:label]
						if text = display(name); strings.TrimSpace(b.parser.text[label:stop]) != "" {
							text = strings.TrimSpace(b.parser.text[label:stop])
						}
						if name != "" && !strings.HasPrefix(name, "##") && !strings.Contains(text, "\n") {
							nodes = append(nodes, prose.Node{Kind: prose.Reference, Strict: true, MayBeExternal: true, Target: snippet.Target(name), Span: b.span(at, end+1)})
							text = markup.Open + text + markup.Close
						}
					}
					out.WriteString(text)
				}
				at = end + 1
				continue
			}
			out.WriteByte(c)
			at++
		case c == '<':
			if e, ok := markup.ReadTag(b.parser.text[at:to]); ok && elements[e.Name] != 0 || ok && e.Name == "p" {
				kind, isMark := marks[e.Name]
				switch n := len(open) - 1; {
				case !isMark || e.Empty:
				case !e.Closing:
					nodes = append(nodes, prose.Node{Kind: kind, Span: b.span(at, at+e.Length)})
					open = append(open, e.Name)
					out.WriteString(markup.Open)
				case n >= 0 && open[n] == e.Name:
					open = open[:n]
					out.WriteString(markup.Close)
				}
				at += e.Length
				continue
			}
			out.WriteByte(c)
			at++
		default:
			next := at + 1
			for next < to && b.parser.text[next] != '<' && b.parser.text[next] != '{' {
				next++
			}
			out.WriteString(markup.Plain(html.UnescapeString(b.parser.text[at:next])))
			at = next
		}
	}
	return out.String(), nodes
}
