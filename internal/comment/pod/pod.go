// Package pod reads Perl's own markup for documentation, as the language's manual describes it
// (perlpod and perlpodspec): commands, verbatim text, ordinary paragraphs, and codes in them.
//
// It turns text into the prose tree and resolves nothing. What a file gets wrong is the matter of
// whoever reads the file: here all is shown as it was meant.
package pod

import (
	"slices"
	"strconv"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// Parse takes a comment apart.
func Parse(doc *model.Doc, _ prose.Vocabulary) *prose.Sections {
	p := parser{out: &prose.Sections{}}
	p.paragraphs = paragraphsOf(doc)
	p.out.Body = p.blocks(0)
	p.name()
	p.deprecation()
	return p.out
}

// deepest is how deep lists, and codes in one another, are read.
const deepest = 40

// parser takes one comment apart.
type parser struct {
	out        *prose.Sections
	paragraphs []Paragraph
	at         int
}

// blocks reads blocks up to the command that ends a list or a region, or to the end.
func (p *parser) blocks(depth int) (out []prose.Node) {
	for p.at < len(p.paragraphs) {
		g := &p.paragraphs[p.at]
		switch g.Kind {
		case Verbatim:
			out = append(out, p.verbatim())
			continue
		case Ordinary:
			p.at++
			out = p.paragraph(out, g.Text)
			continue
		}
		switch g.Command {
		case "head1", "head2", "head3", "head4", "head5", "head6":
			p.at++
			if nodes := p.inlines(g.Text); len(nodes) > 0 {
				out = append(out, prose.Node{Kind: prose.Heading, Level: uint16(g.Command[4] - '0'), Span: g.Text.span(), Children: nodes})
			}
		case "over":
			p.at++
			if depth > deepest {
				continue
			}
			out = p.list(out, depth)
		case "item", "back", "end":
			if depth > 0 {
				return out
			}
			p.at++
			if g.Command == "item" { // of no list
				out = p.paragraph(out, g.Text)
			}
		case "begin":
			p.at++
			out = p.region(out, g, depth)
		case "for":
			p.at++
			out = p.shortRegion(out, g)
		case "pod", "cut", "encoding":
			p.at++
		default: // nobody knows what is meant: it is shown
			p.at++
			out = p.paragraph(out, g.whole)
		}
	}
	return out
}

// paragraph puts a paragraph with codes, unless nothing of it is shown.
func (p *parser) paragraph(out []prose.Node, r Run) []prose.Node {
	if nodes := p.inlines(r); len(nodes) > 0 {
		out = append(out, prose.Node{Kind: prose.Paragraph, Span: r.span(), Children: nodes})
	}
	return out
}

// verbatim reads paragraphs of code in a row: empty lines between them are a part of it.
func (p *parser) verbatim() prose.Node {
	first := &p.paragraphs[p.at]
	var all []string
	span := first.Text.span()
	for size := 0; p.at < len(p.paragraphs) && p.paragraphs[p.at].Kind == Verbatim && size < longestCode; p.at++ {
		r := p.paragraphs[p.at].Text
		all, size, span.End = append(all, r.text), size+len(r.text), r.span().End
	}
	text := unindented(strings.Join(all, "\n\n"))
	return prose.Node{Kind: prose.CodeBlock, Text: text, Info: languageOf(text), Span: span}
}

// longestCode is how many bytes one block of code has at most; the next one goes on.
const longestCode = 64 << 10

// unindented takes off what all lines are indented by.
func unindented(text string) string {
	lines := strings.Split(strings.ReplaceAll(text, "\t", "        "), "\n")
	least := -1
	for _, line := range lines {
		if trimmed := strings.TrimLeft(line, " "); trimmed != "" && (least < 0 || len(line)-len(trimmed) < least) {
			least = len(line) - len(trimmed)
		}
	}
	for i, line := range lines {
		lines[i] = strings.TrimRight(line[min(max(least, 0), len(line)):], " ")
	}
	return strings.Trim(strings.Join(lines, "\n"), "\n")
}

// languageOf is "perl" for what reads like it, else "".
func languageOf(text string) string {
	for _, sign := range []string{"use ", "my ", "->", "=>", "sub ", "print ", "$", "@_"} {
		if strings.Contains(text, sign) && (strings.Contains(text, ";") || strings.Contains(text, "=>") || strings.Contains(text, "->")) {
			return "perl"
		}
	}
	return ""
}

// list reads what stands between "=over" and "=back".
func (p *parser) list(out []prose.Node, depth int) []prose.Node {
	before := p.blocks(depth + 1)
	if !p.command("item") { // no list: text that stands in
		p.command("back")
		if len(before) > 0 {
			out = append(out, prose.Node{Kind: prose.Quote, Children: before, Span: spanOf(before)})
		}
		return out
	}
	out = append(out, before...)
	list := prose.Node{Kind: prose.List, Loose: true}
	p.at--
	for first := true; p.at < len(p.paragraphs) && p.paragraphs[p.at].Kind == Command && p.paragraphs[p.at].Command == "item"; first = false {
		g := &p.paragraphs[p.at]
		p.at++
		label, bullet := itemOf(g.Text)
		if first {
			switch number, err := strconv.Atoi(strings.TrimRight(label, ".)")); {
			case bullet:
			case err == nil && number >= 0 && number < 1<<15:
				list.Level = uint16(max(number, 1))
			default:
				list.Info = prose.Terms
			}
		}
		item := prose.Node{Kind: prose.Item, Span: g.Text.span()}
		rest := g.Text
		if bullet || list.Level > 0 && label != "" {
			rest = g.Text.from(len(label)).trimmed()
		}
		if nodes := p.inlines(rest); len(nodes) > 0 {
			if list.Info == prose.Terms {
				nodes = []prose.Node{{Kind: prose.Strong, Span: rest.span(), Children: nodes}}
			}
			item.Children = append(item.Children, prose.Node{Kind: prose.Paragraph, Span: rest.span(), Children: nodes})
		}
		item.Children = append(item.Children, p.blocks(depth+1)...)
		list.Children = append(list.Children, item)
	}
	p.command("back")
	list.Span = spanOf(list.Children)
	return append(out, list)
}

// command goes past a command, if it is the next.
func (p *parser) command(word string) bool {
	if p.at < len(p.paragraphs) && p.paragraphs[p.at].Kind == Command && p.paragraphs[p.at].Command == word {
		p.at++
		return true
	}
	return false
}

// itemOf is what an entry begins with: a star, or a number; else the word it begins with.
func itemOf(r Run) (label string, bullet bool) {
	label, _, _ = strings.Cut(strings.TrimLeft(r.text, " \t"), " ")
	if i := strings.IndexAny(label, "\n\t"); i >= 0 {
		label = label[:i]
	}
	return label, label == "*" || label == "-" || label == "o"
}

// region reads what stands between "=begin" and "=end": ordinary text where the format's name begins
// with a colon, code where it is text, and nothing that is for one kind of output alone.
func (p *parser) region(out []prose.Node, begin *Paragraph, depth int) []prose.Node {
	format, _, _ := strings.Cut(begin.Text.text, " ")
	format = strings.TrimSpace(format)
	if strings.HasPrefix(format, ":") && depth < deepest {
		out = append(out, p.blocks(depth+1)...)
		p.command("end")
		return out
	}
	for open := 1; p.at < len(p.paragraphs); p.at++ {
		g := &p.paragraphs[p.at]
		if g.Kind == Command && g.Command == "begin" {
			open++
		}
		if g.Kind == Command && g.Command == "end" {
			if open--; open == 0 {
				p.at++
				return out
			}
		}
		if format == "text" && g.Kind != Command {
			out = append(out, prose.Node{Kind: prose.CodeBlock, Text: g.Text.text, Span: g.Text.span()})
		}
	}
	return out
}

// shortRegion reads a paragraph that is for one format.
func (p *parser) shortRegion(out []prose.Node, g *Paragraph) []prose.Node {
	format, _, _ := strings.Cut(g.Text.text, " ")
	if i := strings.IndexByte(format, '\n'); i >= 0 {
		format = format[:i]
	}
	rest := g.Text.from(min(len(format)+1, len(g.Text.text)))
	switch {
	case strings.HasPrefix(format, ":"):
		return p.paragraph(out, rest)
	case format == "text" && rest.text != "":
		return append(out, prose.Node{Kind: prose.CodeBlock, Text: rest.text, Span: rest.span()})
	}
	return out
}

// name makes the text of the section NAME the summary: "Tide::Log - reads old logbooks" says what the
// page has for its title, and what it is about.
func (p *parser) name() {
	for i := range p.out.Body {
		n := &p.out.Body[i]
		if n.Kind != prose.Heading || !strings.EqualFold(prose.Plain(n.Children), "name") {
			continue
		}
		end := i + 1
		var head []prose.Node
		if end < len(p.out.Body) && p.out.Body[end].Kind == prose.Paragraph {
			if said := withoutName(p.out.Body[end]); len(said.Children) > 0 {
				head = []prose.Node{said}
			}
			end++
		}
		rest := append(p.out.Body[:i:i], p.out.Body[end:]...)
		p.out.Body = append(head, rest...)
		return
	}
}

// withoutName is a paragraph without the name and the dash that it begins with.
func withoutName(n prose.Node) prose.Node {
	for i := range n.Children {
		c := n.Children[i]
		if c.Kind != prose.Text {
			continue
		}
		for _, dash := range []string{" - ", " -- ", " – ", " — ", "- ", "-- "} {
			before, behind, ok := strings.Cut(c.Text, dash)
			if !ok || strings.Contains(strings.TrimSpace(before), " ") && !strings.Contains(before, ",") {
				continue
			}
			c.Span.Start = min(c.Span.Start+int32(len(c.Text)-len(behind)), c.Span.End)
			c.Text = strings.TrimLeft(behind, " \n")
			if len(c.Text) > 1 && 'a' <= c.Text[0] && c.Text[0] <= 'z' && (c.Text[1] == ' ' || 'a' <= c.Text[1] && c.Text[1] <= 'z') { // it begins a page
				c.Text = string(c.Text[0]-'a'+'A') + c.Text[1:]
			}
			n.Children = append([]prose.Node{c}, n.Children[i+1:]...)
			if c.Text == "" {
				n.Children = n.Children[1:]
			}
			return n
		}
	}
	if text := prose.Plain(n.Children); !strings.ContainsAny(text, " \n") { // a name alone says nothing
		n.Children = nil
	}
	return n
}

// deprecation finds the paragraph that says so at its beginning.
func (p *parser) deprecation() {
	for i := range p.out.Body {
		n := &p.out.Body[i]
		if n.Kind == prose.Heading {
			return // what is behind speaks of something else
		}
		if n.Kind != prose.Paragraph {
			continue
		}
		text := prose.Plain(n.Children)
		word, _, _ := strings.Cut(text, " ")
		if bare := strings.TrimRight(word, ".:,!"); bare != "DEPRECATED" && (bare != "Deprecated" || bare == word && text != word) {
			continue
		}
		p.out.Obsolete = true
		if strings.TrimSpace(strings.TrimPrefix(text, word)) != "" {
			p.out.Deprecated = []prose.Node{withoutWord(*n, word)}
		}
		p.out.Body = append(p.out.Body[:i:i], p.out.Body[i+1:]...)
		return
	}
}

// withoutWord is a paragraph without the word that it begins with.
func withoutWord(n prose.Node, word string) prose.Node {
	if len(n.Children) == 0 || n.Children[0].Kind != prose.Text || !strings.HasPrefix(n.Children[0].Text, word) {
		return n // the word is set in bold, say, and reads well so
	}
	n.Children = slices.Clone(n.Children)
	first := &n.Children[0]
	rest := strings.TrimLeft(first.Text[len(word):], " \n")
	first.Span.Start = min(first.Span.Start+int32(len(first.Text)-len(rest)), first.Span.End)
	first.Text = rest
	return n
}

func spanOf(nodes []prose.Node) source.Span {
	if len(nodes) == 0 {
		return source.Span{}
	}
	return source.Span{Start: nodes[0].Span.Start, End: max(nodes[0].Span.Start, nodes[len(nodes)-1].Span.End)}
}
