package docstring

import (
	"strconv"
	"strings"

	"codrel/internal/prose"
)

// This file makes tables of lists: a list of rows, each a list of cells.

// listTable is the table that a list of lists stands for; ok is false where a row is no list.
func listTable(blocks []prose.Node, heads int) (table prose.Node, ok bool) {
	if len(blocks) != 1 || blocks[0].Kind != prose.List {
		return table, false
	}
	table = prose.Node{Kind: prose.Table, Span: blocks[0].Span}
	for i, item := range blocks[0].Children {
		if len(item.Children) != 1 || item.Children[0].Kind != prose.List {
			return table, false
		}
		row := prose.Node{Kind: prose.Row, Span: item.Span}
		if i < heads {
			row.Level = 1
		}
		for _, cell := range item.Children[0].Children {
			row.Children = append(row.Children, prose.Node{Kind: prose.Cell, Span: cell.Span, Children: inCell(cell.Children)})
		}
		table.Children = append(table.Children, row)
	}
	return table, len(table.Children) > 0
}

// inCell is the text of blocks in a row.
func inCell(blocks []prose.Node) (out []prose.Node) {
	for i, b := range blocks {
		if i > 0 {
			out = append(out, prose.Node{Kind: prose.Text, Text: " ", Span: b.Span})
		}
		switch b.Kind {
		case prose.Paragraph:
			out = append(out, b.Children...)
		default:
			out = append(out, prose.Node{Kind: prose.Text, Text: prose.Plain([]prose.Node{b}), Span: b.Span})
		}
	}
	return out
}

// headRows is the number of rows in the head of a table, by the directive's option.
func headRows(lines []line) int {
	for _, l := range lines {
		if value, ok := strings.CutPrefix(strings.TrimSpace(l.text), ":header-rows:"); ok {
			n, _ := strconv.Atoi(strings.TrimSpace(value))
			return n
		}
	}
	return 0
}
