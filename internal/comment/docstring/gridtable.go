package docstring

import (
	"strings"

	"codrel/internal/prose"
)

// This file reads tables that are drawn with "+", "-" and "|", of which a border
// of "=" ends the head (reStructuredText, "Grid Tables").

// isBorder reports whether a line is a border: "+-----+---+".
func isBorder(l line) bool {
	text := strings.TrimSpace(l.text)
	return len(text) > 2 && text[0] == '+' && text[len(text)-1] == '+' && strings.Trim(text, "+-") == "" || isHeadBorder(l)
}

func isHeadBorder(l line) bool {
	text := strings.TrimSpace(l.text)
	return len(text) > 2 && text[0] == '+' && text[len(text)-1] == '+' && strings.Trim(text, "+=") == "" && strings.Contains(text, "=")
}

// endOfGrid is behind the table that begins at a line, or the line itself where
// none does: each of its lines is as wide as the first and begins and ends with a
// border. ok is false where cells go over several columns or rows.
func endOfGrid(lines []line, first int) (end int, ok bool) {
	if !isBorder(lines[first]) {
		return first, false
	}
	indent, top := lines[first].indent(), strings.TrimSpace(lines[first].text)
	ok = true
	for end = first; end < len(lines); end++ {
		text := strings.TrimSpace(lines[end].text)
		if lines[end].indent() != indent || len(text) != len(top) || text[0] != '+' && text[0] != '|' {
			break
		}
		for i := range len(top) {
			if top[i] == '+' && (text[i] != '+' && text[i] != '|' || text[i] == '|' != (text[0] == '|')) {
				ok = false
			}
		}
	}
	if end < first+3 || !isBorder(lines[end-1]) {
		return first, false
	}
	return end, ok
}

// gridTable reads a table whose columns the first border tells.
func (p *parser) gridTable(lines []line) prose.Node {
	table := prose.Node{Kind: prose.Table, Span: spanOf(lines)}
	lines = dedented(lines)
	border := strings.TrimRight(lines[0].text, " ")
	head := false
	for _, l := range lines {
		head = head || isHeadBorder(l)
	}
	start := 1
	for i := 1; i < len(lines); i++ {
		if !isBorder(lines[i]) {
			continue
		}
		if i > start {
			row := prose.Node{Kind: prose.Row, Span: spanOf(lines[start:i])}
			if head {
				row.Level = 1
			}
			from := 0
			for at := 1; at < len(border); at++ {
				if border[at] == '+' {
					row.Children = append(row.Children, p.gridCell(lines[start:i], from+1, at))
					from = at
				}
			}
			table.Children = append(table.Children, row)
		}
		if isHeadBorder(lines[i]) {
			head = false
		}
		start = i + 1
	}
	return table
}

// gridCell reads what stands between two columns.
func (p *parser) gridCell(lines []line, from, to int) prose.Node {
	var parts []line
	for _, l := range lines {
		if cell := l.from(from).to(to - from); strings.TrimSpace(cell.text) != "" {
			cell = cell.from(cell.indent())
			parts = append(parts, cell.to(len(strings.TrimRight(cell.text, " "))))
		}
	}
	if len(parts) == 0 {
		return prose.Node{Kind: prose.Cell, Span: lines[0].from(from).to(0).span()}
	}
	return prose.Node{Kind: prose.Cell, Span: spanOf(parts), Children: p.inline(parts)}
}
