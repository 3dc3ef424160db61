// Package gocomment reads the doc comment language of Go: paragraphs, headings,
// lists, code blocks, links, link definitions and references in brackets, as
// the Go project's "Go Doc Comments" page (go.dev/doc/comment) describes them.
//
// It turns text into the prose tree and resolves nothing.
package gocomment

import (
	"sort"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// Parse reads one comment. Paragraphs that begin with "Deprecated:" come apart
// from the body, without that word.
func Parse(doc *model.Doc) (body, deprecated []prose.Node) {
	p := newParser(doc)
	p.blocks()
	for _, b := range p.out {
		if advice, ok := deprecation(b); ok {
			deprecated = append(deprecated, advice)
			continue
		}
		body = append(body, b)
	}
	return body, deprecated
}

const deprecatedWord = "Deprecated:"

func deprecation(b prose.Node) (prose.Node, bool) {
	if b.Kind != prose.Paragraph || len(b.Children) == 0 || b.Children[0].Kind != prose.Text {
		return b, false
	}
	rest, ok := strings.CutPrefix(b.Children[0].Text, deprecatedWord)
	if !ok {
		return b, false
	}
	trimmed := strings.TrimLeft(rest, " \n")
	first := b.Children[0]
	first.Span.Start += int32(len(first.Text) - len(trimmed))
	first.Span.Start = min(first.Span.Start, first.Span.End)
	first.Text = trimmed
	children := append([]prose.Node{first}, b.Children[1:]...)
	if trimmed == "" {
		children = children[1:]
	}
	b.Children = children
	return b, true
}

// line is one line of the comment: its text and where that stands in the file.
type line struct {
	text string
	at   int32
}

func (l line) blank() bool    { return l.text == "" }
func (l line) indented() bool { return l.text != "" && (l.text[0] == ' ' || l.text[0] == '\t') }
func (l line) span() source.Span {
	return source.Span{Start: l.at, End: l.at + int32(len(l.text))}
}

// cut drops n bytes from the left.
func (l line) cut(n int) line { return line{l.text[n:], l.at + int32(n)} }

type parser struct {
	lines []line
	links map[string]string // targets of link definitions by their text
	out   []prose.Node
}

func newParser(doc *model.Doc) *parser {
	p := &parser{lines: make([]line, 0, len(doc.Lines))}
	rest := doc.Text
	for i := range doc.Lines {
		text, after, _ := strings.Cut(rest, "\n")
		rest = after
		l := line{strings.TrimRight(text, " \t\r"), doc.Lines[i].Start}
		p.lines = append(p.lines, l)
	}
	p.unindent()
	return p
}

// unindent takes off what all lines are indented by, as block comments often are.
func (p *parser) unindent() {
	prefix := indent(p.lines)
	if prefix == "" {
		return
	}
	for i, l := range p.lines {
		if !l.blank() {
			p.lines[i] = l.cut(len(prefix))
		}
	}
}

// indent is the white space that all lines but blank ones begin with.
func indent(lines []line) string {
	prefix, first := "", true
	for _, l := range lines {
		if l.blank() {
			continue
		}
		lead := l.text[:len(l.text)-len(strings.TrimLeft(l.text, " \t"))]
		if first {
			prefix, first = lead, false
			continue
		}
		prefix = prefix[:commonPrefix(prefix, lead)]
	}
	return prefix
}

func commonPrefix(a, b string) int {
	n := 0
	for n < len(a) && n < len(b) && a[n] == b[n] {
		n++
	}
	return n
}

// chunk is a run of lines that make a block or more.
type chunk struct {
	lines []line
	kind  chunkKind
}

type chunkKind uint8

const (
	plainChunk chunkKind = iota
	codeChunk
	listChunk
)

// blocks cuts the lines into chunks and makes the blocks of each. Link
// definitions are taken out first: a text may use one that stands below it.
func (p *parser) blocks() {
	chunks := p.chunks()
	kept := chunks[:0]
	for _, c := range chunks {
		if c.kind == plainChunk && p.define(c.lines) {
			continue
		}
		kept = append(kept, c)
	}
	for i, c := range kept {
		switch c.kind {
		case codeChunk:
			p.code(c.lines)
		case listChunk:
			p.list(c.lines)
		default:
			followed := i+1 < len(kept) && kept[i+1].kind == plainChunk
			p.text(c.lines, i > 0, followed)
		}
	}
}

func (p *parser) chunks() []chunk {
	var out []chunk
	for i := 0; i < len(p.lines); {
		if p.lines[i].blank() {
			i++
			continue
		}
		start := i
		if p.lines[i].indented() || p.opensBlock(i) {
			i = p.endOfBlock(i)
			kind := codeChunk
			if _, _, ok := listMarker(p.lines[start].text); ok && p.lines[start].indented() {
				kind = listChunk
			}
			out = append(out, chunk{p.trimBlank(start, i), kind})
			continue
		}
		for i < len(p.lines) && !p.lines[i].blank() && !p.lines[i].indented() && (i == start || !p.opensBlock(i)) {
			i++
		}
		if c, end, ok := p.unindentedList(start, i); ok {
			out, i = append(out, c...), end
			continue
		}
		out = append(out, chunk{p.lines[start:i], plainChunk})
	}
	return out
}

// opensBlock reports whether an unindented line begins code whose body is
// indented: it ends in an opening brace, or in a backslash as shell commands do.
func (p *parser) opensBlock(i int) bool {
	t := p.lines[i].text
	return (strings.HasSuffix(t, "{") || strings.HasSuffix(t, `\`)) &&
		i+1 < len(p.lines) && p.lines[i+1].indented() && (i == 0 || p.lines[i-1].blank())
}

// endOfBlock is the index behind the indented lines that begin at i, with the
// closing brace that may stand unindented right below them.
func (p *parser) endOfBlock(i int) int {
	i++
	for i < len(p.lines) && (p.lines[i].blank() || p.lines[i].indented()) {
		i++
	}
	if i < len(p.lines) && strings.HasPrefix(p.lines[i].text, "}") && p.lines[i-1].indented() {
		return i + 1
	}
	return i
}

func (p *parser) trimBlank(from, to int) []line {
	for to > from && p.lines[to-1].blank() {
		to--
	}
	return p.lines[from:to]
}

// unindentedList takes a list whose markers stand at the margin. It counts as
// one only where an item goes on in an indented line: without that sign it has
// always been a paragraph.
func (p *parser) unindentedList(from, to int) ([]chunk, int, bool) {
	if to >= len(p.lines) || !p.lines[to].indented() {
		return nil, 0, false
	}
	first := from
	for first < to {
		if _, _, ok := listMarker(p.lines[first].text); ok {
			break
		}
		first++
	}
	if first == to {
		return nil, 0, false
	}
	end := to
	for end < len(p.lines) && !p.lines[end].blank() {
		if _, _, ok := listMarker(p.lines[end].text); !ok && !p.lines[end].indented() {
			break
		}
		end++
	}
	var out []chunk
	if first > from {
		out = append(out, chunk{p.lines[from:first], plainChunk})
	}
	return append(out, chunk{p.lines[first:end], listChunk}), end, true
}

// define takes a chunk whose every line is a link definition "[text]: address".
func (p *parser) define(lines []line) bool {
	for _, l := range lines {
		if _, _, ok := definition(l.text); !ok {
			return false
		}
	}
	if p.links == nil {
		p.links = map[string]string{}
	}
	for _, l := range lines {
		text, target, _ := definition(l.text)
		if _, twice := p.links[text]; !twice {
			p.links[text] = target
		}
	}
	return true
}

func definition(s string) (text, target string, ok bool) {
	if !strings.HasPrefix(s, "[") {
		return "", "", false
	}
	text, target, ok = strings.Cut(s[1:], "]:")
	target = strings.TrimSpace(target)
	if !ok || text == "" || strings.ContainsAny(text, "[]") || strings.ContainsAny(target, " \t") {
		return "", "", false
	}
	i := strings.IndexByte(target, ':')
	return text, target, i > 0 && i+1 < len(target)
}

func (p *parser) code(lines []line) {
	prefix := indent(lines)
	var b strings.Builder
	for i, l := range lines {
		if i > 0 {
			b.WriteByte('\n')
		}
		if !l.blank() {
			b.WriteString(l.text[len(prefix):])
		}
	}
	p.out = append(p.out, prose.Node{Kind: prose.CodeBlock, Text: b.String(), Span: spanOf(lines)})
}

func spanOf(lines []line) source.Span {
	return source.Span{Start: lines[0].at, End: lines[len(lines)-1].span().End}
}

// listMarker reads a bullet or a number at the start of a line. number is 0 for
// bullets, rest is the offset of the item's text.
func listMarker(s string) (number, rest int, ok bool) {
	i := len(s) - len(strings.TrimLeft(s, " \t"))
	body := s[i:]
	n := 0
	switch {
	case strings.HasPrefix(body, "•"):
		n = len("•")
	case body != "" && strings.IndexByte("*+-", body[0]) >= 0:
		n = 1
	default:
		for n < len(body) && n < 9 && body[n] >= '0' && body[n] <= '9' {
			number = number*10 + int(body[n]-'0')
			n++
		}
		if n == 0 || n >= len(body) || body[n] != '.' && body[n] != ')' {
			return 0, 0, false
		}
		n++
	}
	if n >= len(body) || body[n] != ' ' && body[n] != '\t' {
		return 0, 0, false
	}
	for n < len(body) && (body[n] == ' ' || body[n] == '\t') {
		n++
	}
	return number, i + n, n < len(body)
}

// list makes a list of lines of which the first has a marker.
func (p *parser) list(lines []line) {
	node := prose.Node{Kind: prose.List, Span: spanOf(lines)}
	var paragraph []line
	var item prose.Node
	started := false
	flush := func() {
		if len(paragraph) > 0 {
			item.Children = append(item.Children, p.paragraph(paragraph))
			item.Span.End = spanOf(paragraph).End
			paragraph = nil
		}
	}
	for i, l := range lines {
		if l.blank() {
			flush()
			node.Loose = node.Loose || i+1 < len(lines)
			continue
		}
		number, rest, ok := listMarker(l.text)
		if ok {
			flush()
			if started {
				node.Children = append(node.Children, item)
			} else if number > 0 || l.text[rest-2] == '.' || l.text[rest-2] == ')' {
				node.Level = uint16(max(1, min(number, 65535)))
			}
			started = true
			item = prose.Node{Kind: prose.Item, Span: l.span()}
			paragraph = append(paragraph, l.cut(rest))
			continue
		}
		lead := len(l.text) - len(strings.TrimLeft(l.text, " \t"))
		paragraph = append(paragraph, l.cut(lead))
	}
	flush()
	node.Children = append(node.Children, item)
	p.out = append(p.out, node)
}

// text makes a heading or a paragraph of unindented lines.
func (p *parser) text(lines []line, preceded, followed bool) {
	if len(lines) == 1 {
		if rest, ok := strings.CutPrefix(lines[0].text, "# "); ok && strings.TrimSpace(rest) != "" {
			l := lines[0].cut(len(lines[0].text) - len(strings.TrimLeft(rest, " \t")))
			p.heading(l)
			return
		}
		if preceded && followed && impliedHeading(lines[0].text) {
			p.heading(lines[0])
			return
		}
	}
	p.out = append(p.out, p.paragraph(lines))
}

func (p *parser) heading(l line) {
	n := p.paragraph([]line{l})
	n.Kind, n.Level = prose.Heading, 1
	p.out = append(p.out, n)
}

func (p *parser) paragraph(lines []line) prose.Node {
	return prose.Node{Kind: prose.Paragraph, Span: spanOf(lines), Children: p.inline(lines)}
}

// inline reads the text of several lines as one, so that a link's text may
// wrap. starts maps offsets of the joined text back to the file.
func (p *parser) inline(lines []line) []prose.Node {
	if len(lines) == 1 {
		in := inline{text: lines[0].text, links: p.links, starts: []int{0}, lines: lines}
		return in.parse()
	}
	var b strings.Builder
	starts := make([]int, len(lines))
	for i, l := range lines {
		if i > 0 {
			b.WriteByte('\n')
		}
		starts[i] = b.Len()
		b.WriteString(l.text)
	}
	in := inline{text: b.String(), links: p.links, starts: starts, lines: lines}
	return in.parse()
}

// offset is the place in the file of an offset in the joined text.
func (in *inline) offset(at int) int32 {
	i := sort.SearchInts(in.starts, at+1) - 1
	return in.lines[i].at + int32(min(at-in.starts[i], len(in.lines[i].text)))
}
