package docstring

import (
	"strings"

	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
	"codrel/internal/source"
)

// This file makes blocks of lines, as the reStructuredText specification has
// them ("Body Elements"), as far as docstrings use them.

// deepest bounds how deep blocks nest.
const deepest = 50

// blocks makes the blocks of some lines.
func (p *parser) blocks(lines []line, depth int) []prose.Node {
	if p.markdown {
		return p.fromMarkdown(lines)
	}
	var out []prose.Node
	for i := 0; i < len(lines); {
		l := lines[i]
		if l.blank() {
			i++
			continue
		}
		if depth > deepest {
			return append(out, p.literal(lines[i:], ""))
		}
		end := 0
		switch indent, text := l.indent(), l.text[l.indent():]; {
		case strings.HasPrefix(text, ">>> ") || text == ">>>":
			end = endOfDoctest(lines, i)
			out = append(out, p.literal(lines[i:end], "python"))
		case strings.HasPrefix(text, ".. "):
			end = endOfDirective(lines, i)
			out = p.directive(out, lines[i:end], depth)
		case text == "::":
			end = endDeeper(lines, i+1, indent)
			out = append(out, p.literal(lines[i+1:end], ""))
		case isSimpleTable(lines, i):
			end = endOfSimpleTable(lines, i)
			out = append(out, p.simpleTable(lines[i:end]))
		case strings.HasPrefix(text, "+-") || strings.HasPrefix(text, "+="):
			var plain bool
			if end, plain = endOfGrid(lines, i); plain {
				out = append(out, p.gridTable(lines[i:end]))
				break
			}
			end = max(end, endOfParagraph(lines, i)) // drawn in a way that no table of ours has
			out = append(out, p.literal(lines[i:end], ""))
		case isOverlined(lines, i):
			end = i + 3
			t := lines[i+1].from(lines[i+1].indent())
			out = append(out, prose.Node{Kind: prose.Heading, Level: 1, Span: t.span(), Children: p.inline([]line{t})})
		case isOption(lines, i):
			end = endOfOptions(lines, i)
			out = append(out, p.options(lines[i:end], depth))
		case isField(text):
			end = endOfFieldList(lines, i)
			out = append(out, p.fieldList(lines[i:end], depth))
		case isTitle(lines, i):
			end = i + 2
			t := l.from(indent)
			out = append(out, prose.Node{Kind: prose.Heading, Level: 1, Span: t.span(), Children: p.inline([]line{t})})
		case isMarker(text):
			end = endOfList(lines, i, indent)
			out = append(out, p.list(lines[i:end], indent, depth))
		case strings.HasPrefix(text, "| "):
			end = i + 1
			for end < len(lines) && strings.HasPrefix(strings.TrimLeft(lines[end].text, " "), "|") {
				end++
			}
			out = append(out, p.lineBlock(lines[i:end]))
		case indent > 0:
			end = endDeeper(lines, i, indent-1)
			out = append(out, prose.Node{Kind: prose.Quote, Span: spanOf(lines[i:end]), Children: p.blocks(dedented(lines[i:end]), depth+1)})
		default:
			end = endOfParagraph(lines, i)
			if end == i+1 && end < len(lines) && !lines[end].blank() && lines[end].indent() > indent {
				end = endDeeper(lines, end, indent)
				out = p.definition(out, lines[i:end], depth)
				break
			}
			var literal bool
			out, literal = p.paragraph(out, lines[i:end])
			if literal {
				next := endDeeper(lines, end, indent)
				out = append(out, p.literal(lines[end:next], ""))
				end = next
			}
		}
		i = max(end, i+1)
	}
	return out
}

// endDeeper is the index behind lines that stand further right than a column,
// without the empty ones at their end.
func endDeeper(lines []line, i, column int) int {
	end := i
	for ; i < len(lines); i++ {
		if lines[i].blank() {
			continue
		}
		if lines[i].indent() <= column {
			break
		}
		end = i + 1
	}
	return end
}

func endOfParagraph(lines []line, i int) int {
	indent := lines[i].indent()
	for i++; i < len(lines) && !lines[i].blank() && lines[i].indent() == indent; i++ {
		text := lines[i].text[indent:]
		if strings.HasPrefix(text, ">>> ") || strings.HasPrefix(text, ".. ") {
			break
		}
	}
	return i
}

// endOfDirective is behind a directive and what stands deeper below it. A note on a
// version that says nothing itself goes on with the lines right below it, also
// where their author forgot to indent them.
func endOfDirective(lines []line, i int) int {
	indent := lines[i].indent()
	end := endDeeper(lines, i+1, indent)
	text := lines[i].text[indent:]
	if end > i+1 || !strings.HasPrefix(text, ".. version") && !strings.HasPrefix(text, ".. deprecated") {
		return end
	}
	if end < len(lines) && !lines[end].blank() && lines[end].indent() == indent && !isMarked(lines[end].text[indent:]) && !isTitle(lines, end) {
		return endOfParagraph(lines, end)
	}
	return end
}

// isMarked reports whether a line begins something other than a paragraph.
func isMarked(text string) bool {
	return strings.HasPrefix(text, ".. ") || strings.HasPrefix(text, ">>>") || strings.HasPrefix(text, ":") || isMarker(text)
}

// endOfDoctest is behind the examples that begin at a line: those that follow an
// empty line and begin with ">>>" go on with them.
func endOfDoctest(lines []line, i int) int {
	for {
		for i < len(lines) && !lines[i].blank() {
			i++
		}
		next := i
		for next < len(lines) && lines[next].blank() {
			next++
		}
		if next == len(lines) || !strings.HasPrefix(strings.TrimLeft(lines[next].text, " "), ">>>") {
			return i
		}
		i = next
	}
}

// paragraph appends a paragraph and reports whether it announces a literal block.
func (p *parser) paragraph(out []prose.Node, lines []line) ([]prose.Node, bool) {
	last := lines[len(lines)-1]
	literal := strings.HasSuffix(last.text, "::")
	if literal {
		lines = append([]line(nil), lines...)
		if strings.HasSuffix(last.text, " ::") {
			lines[len(lines)-1] = last.to(len(strings.TrimRight(last.text[:len(last.text)-2], " ")))
		} else {
			lines[len(lines)-1] = last.to(len(last.text) - 1)
		}
	}
	return append(out, prose.Node{Kind: prose.Paragraph, Span: spanOf(lines), Children: p.inline(lines)}), literal
}

// literal makes a code block of lines.
func (p *parser) literal(lines []line, info string) prose.Node {
	for len(lines) > 0 && lines[0].blank() {
		lines = lines[1:]
	}
	span := spanOf(lines)
	lines = dedented(lines)
	var b strings.Builder
	for i, l := range lines {
		if i > 0 {
			b.WriteByte('\n')
		}
		b.WriteString(l.text)
	}
	text := strings.TrimRight(b.String(), "\n")
	if info == "" && strings.Contains(text, ">>>") {
		info = "python"
	}
	return prose.Node{Kind: prose.CodeBlock, Text: text, Info: info, Span: span}
}

// definition reads a term with its definition deeper below: an item of a list.
func (p *parser) definition(out []prose.Node, lines []line, depth int) []prose.Node {
	term := lines[0]
	if strings.HasSuffix(term.text, "::") {
		out, _ = p.paragraph(out, lines[:1])
		return append(out, p.literal(lines[1:], ""))
	}
	return p.term(out, lines, depth)
}

// term appends an item that begins with what it defines.
func (p *parser) term(out []prose.Node, lines []line, depth int) []prose.Node {
	term := lines[0]
	head := prose.Node{Kind: prose.Paragraph, Span: term.span(), Children: []prose.Node{{Kind: prose.Strong, Span: term.span(), Children: p.inline(lines[:1])}}}
	item := prose.Node{Kind: prose.Item, Span: spanOf(lines), Children: append([]prose.Node{head}, p.blocks(dedented(lines[1:]), depth+1)...)}
	if n := len(out); n > 0 && out[n-1].Kind == prose.List && out[n-1].Info == prose.Terms {
		out[n-1].Children = append(out[n-1].Children, item)
		out[n-1].Span.End = item.Span.End
		return out
	}
	return append(out, prose.Node{Kind: prose.List, Info: prose.Terms, Span: item.Span, Children: []prose.Node{item}})
}

// isMarker reports whether a line begins with the mark of a list.
func isMarker(text string) bool { return markerLength(text) > 0 }

// markerLength is how long the mark of a list with its blanks is, or 0.
func markerLength(text string) int {
	n := 0
	switch {
	case text == "":
		return 0
	case strings.IndexByte("*-+", text[0]) >= 0:
		n = 1
	case strings.HasPrefix(text, "•"):
		n = len("•")
	case strings.HasPrefix(text, "#."):
		n = 2
	default:
		open := text[0] == '('
		if open {
			n++
		}
		start := n
		for n < len(text) && text[n] >= '0' && text[n] <= '9' && n < start+4 {
			n++
		}
		if n == start || n >= len(text) || text[n] != '.' && text[n] != ')' || open && text[n] != ')' {
			return 0
		}
		n++
	}
	if n < len(text) && text[n] != ' ' {
		return 0
	}
	for n < len(text) && text[n] == ' ' {
		n++
	}
	if n == len(text) {
		return 0
	}
	return n
}

// endOfList is behind the items of a list and what stands deeper in them.
func endOfList(lines []line, i, indent int) int {
	end, numbered := i, isNumbered(lines[i].text[indent:])
	for ; i < len(lines); i++ {
		l := lines[i]
		switch {
		case l.blank():
			continue
		case l.indent() < indent, l.indent() == indent && !isMarker(l.text[indent:]):
			// A lazy line right below an item goes on with it.
			if end == i && l.indent() == indent && !strings.HasPrefix(l.text[indent:], ">>>") && !strings.HasPrefix(l.text[indent:], ".. ") && !strings.HasPrefix(l.text[indent:], ":") {
				end = i + 1
				continue
			}
			return end
		case l.indent() == indent && isNumbered(l.text[indent:]) != numbered:
			return end
		}
		end = i + 1
	}
	return end
}

// isNumbered reports whether the mark of a list counts.
func isNumbered(text string) bool {
	return text[0] >= '0' && text[0] <= '9' || text[0] == '(' || text[0] == '#'
}

func (p *parser) list(lines []line, indent, depth int) prose.Node {
	node := prose.Node{Kind: prose.List, Span: spanOf(lines)}
	first := lines[0].text[indent:]
	if isNumbered(first) {
		node.Level = 1
		if digits := strings.TrimLeft(first, "("); digits[0] >= '1' && digits[0] <= '9' {
			n := 0
			for _, c := range digits {
				if c < '0' || c > '9' {
					break
				}
				n = n*10 + int(c-'0')
			}
			node.Level = uint16(min(n, 65535))
		}
	}
	for i := 0; i < len(lines); {
		if lines[i].blank() {
			node.Loose = true
			i++
			continue
		}
		end := i + 1
		for end < len(lines) && (lines[end].blank() || lines[end].indent() != indent || !isMarker(lines[end].text[indent:])) {
			end++
		}
		l := lines[i].from(indent)
		mark := 0
		if isMarker(l.text) {
			mark = markerLength(l.text)
		}
		var item []line
		item = append(item, l.from(mark))
		for _, below := range lines[i+1 : end] {
			item = append(item, below.from(min(indent+mark, below.indent())))
		}
		node.Children = append(node.Children, prose.Node{Kind: prose.Item, Span: spanOf(lines[i:end]), Children: p.blocks(trimmedEnd(item), depth+1)})
		i = end
	}
	return node
}

func trimmedEnd(lines []line) []line {
	for len(lines) > 0 && lines[len(lines)-1].blank() {
		lines = lines[:len(lines)-1]
	}
	return lines
}

func (p *parser) lineBlock(lines []line) prose.Node {
	node := prose.Node{Kind: prose.Paragraph, Span: spanOf(lines)}
	for i, l := range lines {
		if i > 0 {
			node.Children = append(node.Children, prose.Node{Kind: prose.Break, Span: l.span()})
		}
		at := l.indent() + 1
		node.Children = append(node.Children, p.inline([]line{l.from(min(at+1, len(l.text)))})...)
	}
	return node
}

// isOverlined reports whether a title stands between two lines of one mark.
func isOverlined(lines []line, i int) bool {
	if i+2 >= len(lines) || lines[i+1].blank() {
		return false
	}
	over, under := strings.TrimSpace(lines[i].text), strings.TrimSpace(lines[i+2].text)
	return len(over) >= 3 && over == under && strings.IndexByte(`=-~^"'*+#_.:`, over[0]) >= 0 && strings.Trim(over, over[:1]) == "" &&
		len(over) >= len([]rune(strings.TrimSpace(lines[i+1].text))) && strings.Trim(lines[i+1].text, over[:1]+" ") != ""
}

// isTitle reports whether a line is underlined, as titles are.
func isTitle(lines []line, i int) bool {
	if i+1 >= len(lines) || lines[i+1].blank() {
		return false
	}
	text, under := strings.TrimSpace(lines[i].text), strings.TrimSpace(lines[i+1].text)
	if text == "" || len(under) < 3 || len(under) < len([]rune(text)) || strings.IndexByte(`=-~^"'*+#_.:`, under[0]) < 0 {
		return false
	}
	return strings.Trim(under, under[:1]) == "" && strings.Trim(text, text[:1]) != ""
}

func isSimpleTable(lines []line, i int) bool {
	text := strings.TrimSpace(lines[i].text)
	return strings.HasPrefix(text, "==") && strings.Contains(text, " ") && strings.Trim(text, "= ") == "" && endOfSimpleTable(lines, i) > i+2
}

// endOfSimpleTable is behind the last border of a table that is followed by an empty line.
func endOfSimpleTable(lines []line, i int) int {
	border := strings.TrimSpace(lines[i].text)
	for j := i + 1; j < len(lines) && j < i+500; j++ {
		if strings.TrimSpace(lines[j].text) == border && (j+1 == len(lines) || lines[j+1].blank()) && j > i+1 {
			return j + 1
		}
	}
	return i
}

// simpleTable reads a table whose columns the borders of "=" tell.
func (p *parser) simpleTable(lines []line) prose.Node {
	table := prose.Node{Kind: prose.Table, Span: spanOf(lines)}
	lines = dedented(lines)
	var columns []source.Span
	border := lines[0].text
	for at := 0; at < len(border); {
		if border[at] != '=' {
			at++
			continue
		}
		end := at
		for end < len(border) && border[end] == '=' {
			end++
		}
		columns = append(columns, source.NewSpan(at, end))
		at = end
	}
	head := -1
	for i := 1; i < len(lines)-1; i++ {
		if strings.Trim(lines[i].text, "= ") == "" && !lines[i].blank() {
			head = i
		}
	}
	for i, l := range lines[1 : len(lines)-1] {
		if i+1 == head || l.blank() || strings.Trim(l.text, "- ") == "" {
			continue
		}
		row := prose.Node{Kind: prose.Row, Span: l.span()}
		if i+1 < head {
			row.Level = 1
		}
		for c, column := range columns {
			from, to := min(int(column.Start), len(l.text)), min(int(column.End), len(l.text))
			if c == len(columns)-1 {
				to = len(l.text)
			}
			cell := l.from(from).to(to - from)
			cell = cell.from(cell.indent())
			cell = cell.to(len(strings.TrimRight(cell.text, " ")))
			row.Children = append(row.Children, prose.Node{Kind: prose.Cell, Span: cell.span(), Children: p.inline([]line{cell})})
		}
		table.Children = append(table.Children, row)
	}
	return table
}

// fromMarkdown reads lines as Markdown.
func (p *parser) fromMarkdown(lines []line) []prose.Node {
	if len(lines) == 0 {
		return nil
	}
	in := joined(lines)
	text := in.text
	if p.definitions != "" {
		text += "\n\n" + strings.TrimPrefix(p.definitions, "\n")
	}
	nodes, plain := markdown.Read(text)
	for _, span := range plain {
		at := in.offset(int(span.Start))
		p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.AsWritten, Span: source.Span{Start: at, End: at}})
	}
	prose.Walk(nodes, func(n *prose.Node) bool {
		if !n.Span.Empty() {
			n.Span = source.Span{Start: in.offset(int(n.Span.Start)), End: in.offset(int(n.Span.End))}
			n.Span.End = max(n.Span.End, n.Span.Start)
		} else {
			n.Span = source.Span{Start: lines[0].at, End: lines[0].at}
		}
		return true
	})
	return nodes
}
