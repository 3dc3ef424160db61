package markdown

import (
	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"

	"codrel/internal/prose"
)

// This file makes nodes of the tables and the lists of terms that are written as HTML.

// htmlTable is a table, and before it its caption.
func htmlTable(n *html.Node, depth int) (out []prose.Node) {
	table := prose.Node{Kind: prose.Table}
	parts := []*html.Node{n}
	for c := n.FirstChild; c != nil; c = c.NextSibling {
		parts = append(parts, c)
	}
	for _, part := range parts {
		switch part.DataAtom {
		case atom.Caption:
			out = append(out, paragraphs(inLines(htmlChildren(part, depth)))...)
		case atom.Table, atom.Thead, atom.Tbody, atom.Tfoot:
			for c := part.FirstChild; c != nil; c = c.NextSibling {
				if c.DataAtom == atom.Tr {
					table.Children = append(table.Children, htmlRow(c, depth))
				}
			}
		}
	}
	if len(table.Children) == 0 {
		return out
	}
	return append(out, table)
}

// htmlRow is a row; one with nothing but headings stands in the head.
func htmlRow(n *html.Node, depth int) prose.Node {
	row := prose.Node{Kind: prose.Row, Level: 1}
	for c := n.FirstChild; c != nil; c = c.NextSibling {
		if c.DataAtom != atom.Td && c.DataAtom != atom.Th {
			continue
		}
		if c.DataAtom == atom.Td {
			row.Level = 0
		}
		row.Children = append(row.Children, prose.Node{
			Kind: prose.Cell, Level: prose.CellLevel(attribute(c, "colspan"), attribute(c, "rowspan")),
			Info: prose.Aligned(attribute(c, "align")), Children: inLines(htmlChildren(c, depth+1)),
		})
	}
	return row
}

// inLines is what stands in nodes, blocks of it as lines: cells hold no blocks.
func inLines(nodes []prose.Node) (out []prose.Node) {
	for _, n := range nodes {
		switch {
		case n.Kind.Inline():
			out = append(out, n)
			continue
		case len(out) > 0:
			out = append(out, prose.Node{Kind: prose.Break})
		}
		if n.Kind == prose.CodeBlock {
			out = append(out, prose.Node{Kind: prose.Code, Text: n.Text, Span: n.Span})
			continue
		}
		out = append(out, inLines(n.Children)...)
	}
	return out
}

// htmlTerms is a list of terms in bold, each with what is said of it.
func htmlTerms(n *html.Node, depth int) []prose.Node {
	list := prose.Node{Kind: prose.List, Info: prose.Terms}
	var add func(n *html.Node, depth int)
	add = func(n *html.Node, depth int) {
		for c := n.FirstChild; c != nil && depth <= deepest; c = c.NextSibling {
			last := len(list.Children) - 1
			switch {
			case c.DataAtom == atom.Div:
				add(c, depth+1)
			case c.DataAtom == atom.Dt:
				term := []prose.Node{{Kind: prose.Strong, Children: inLines(htmlChildren(c, depth+1))}}
				list.Children = append(list.Children, prose.Node{Kind: prose.Item, Children: paragraphs(term)})
			case c.DataAtom == atom.Dd && last < 0:
				list.Children = append(list.Children, prose.Node{Kind: prose.Item, Children: paragraphs(htmlChildren(c, depth+1))})
			case c.DataAtom == atom.Dd:
				item := &list.Children[last]
				item.Children = append(item.Children, paragraphs(htmlChildren(c, depth+1))...)
			}
		}
	}
	add(n, depth)
	if len(list.Children) == 0 {
		return nil
	}
	return []prose.Node{list}
}
