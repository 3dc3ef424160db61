package docstring

import (
	"strings"

	"codrel/internal/prose"
	"codrel/internal/source"
)

// This file reads sections called "See also": lists of names, with text or without.

// seeAlso makes a list of "name : text" and "name, name", whose text may stand below and
// deeper. A section with a line at its margin that names nothing is prose.
func (p *parser) seeAlso(lines []line, depth int) []prose.Node {
	list := prose.Node{Kind: prose.List, Span: spanOf(lines)}
	for i := 0; i < len(lines); {
		if lines[i].blank() {
			i++
			continue
		}
		names, first, ok := p.seen(lines[i])
		if !ok {
			return p.blocks(lines, depth)
		}
		end := i + 1
		for end < len(lines) && (lines[end].blank() || lines[end].indent() > 0) {
			end++
		}
		list.Children = append(list.Children, p.seenItem(names, p.blocks(withFirst(first, dedented(lines[i+1:end])), depth+1), spanOf(lines[i:end])))
		i = end
	}
	if len(list.Children) == 0 {
		return nil
	}
	return []prose.Node{list}
}

// seenItem is the item of names with what is said of them: a sentence goes on in their
// line, more stands below.
func (p *parser) seenItem(names, text []prose.Node, span source.Span) prose.Node {
	line := prose.Node{Kind: prose.Paragraph, Span: span, Children: names}
	if len(text) > 0 && text[0].Kind == prose.Paragraph {
		line.Children = append(line.Children, prose.Node{Kind: prose.Text, Text: ": "})
		line.Children = append(line.Children, text[0].Children...)
		text = text[1:]
	}
	return prose.Node{Kind: prose.Item, Span: span, Children: append([]prose.Node{line}, text...)}
}

// seen reads the names that a line begins with, and the text behind them.
func (p *parser) seen(l line) (names []prose.Node, text line, ok bool) {
	for _, bullet := range []string{"* ", "- "} {
		if strings.HasPrefix(l.text, bullet) {
			l = l.from(len(bullet))
			l = l.from(l.indent())
		}
	}
	for {
		node, rest, ok := p.seenName(l)
		if !ok {
			return nil, l, false
		}
		if len(names) > 0 {
			names = append(names, prose.Node{Kind: prose.Text, Text: ", "})
		}
		names = append(names, node)
		rest = rest.from(rest.indent())
		switch {
		case rest.blank():
			return names, line{}, true
		case rest.text[0] == ',':
			l = rest.from(1)
			if l = l.from(l.indent()); l.blank() {
				return names, line{}, true // the list goes on in the next line
			}
		case rest.text[0] == ':', strings.HasPrefix(rest.text, "- "), strings.HasPrefix(rest.text, "-- "):
			rest = rest.from(len(rest.text) - len(strings.TrimLeft(rest.text, ":-")))
			return names, rest.from(rest.indent()), true
		default:
			return nil, l, false
		}
	}
}

// seenName reads one name: bare, quoted or in a role.
func (p *parser) seenName(l line) (n prose.Node, rest line, ok bool) {
	start, end := 0, 0
	if tick := strings.IndexByte(l.text, '`'); tick == 0 || tick > 1 && l.text[0] == ':' && l.text[tick-1] == ':' {
		quote := l.text[tick : tick+len(l.text[tick:])-len(strings.TrimLeft(l.text[tick:], "`"))]
		start = tick + len(quote)
		size := strings.Index(l.text[start:], quote)
		if size < 1 {
			return n, l, false
		}
		end = start + size
		rest = l.from(end + len(quote))
	} else {
		for end < len(l.text) && strings.IndexByte(" ,:", l.text[end]) < 0 {
			end++
		}
		end = len(strings.TrimRight(l.text[:end], "."))
		rest = l.from(end)
	}
	shown := l.from(start).to(end - start)
	written := shown.text
	if open := strings.LastIndexByte(written, '<'); open > 0 && strings.HasSuffix(written, ">") {
		written = written[open+1 : len(written)-1]
		shown = shown.to(len(strings.TrimRight(shown.text[:open], " ")))
	}
	short := strings.HasPrefix(written, "~")
	target := strings.TrimSuffix(strings.TrimLeft(written, "~."), "()")
	if !isName(target) {
		return n, l, false
	}
	child := prose.Node{Kind: prose.Code, Text: shown.text, Span: shown.span()}
	if short && shown.text == written {
		child.Text = target[strings.LastIndexByte(target, '.')+1:]
	}
	return prose.Node{Kind: prose.Reference, MayBeExternal: true, Target: target, Span: l.to(len(l.text) - len(rest.text)).span(), Children: []prose.Node{child}}, rest, true
}
