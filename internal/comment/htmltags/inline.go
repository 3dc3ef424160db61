package htmltags

import (
	"strings"

	"codrel/internal/prose"
	"codrel/internal/prose/snippet"
)

// This file reads inline tags.

// tag reads the inline tag at an offset and gives the offset behind it.
func (b *builder) tag(at, to int) int {
	end, closed := b.closes[at]
	if !closed || end >= to {
		b.out.Flaws = append(b.out.Flaws, prose.Flaw{Kind: prose.Unclosed, Span: b.parser.span(at, at+2), Text: "{@"})
		b.text("{@", at, at+2, false)
		return at + 2
	}
	word, _, rest := b.first(at+2, end)
	span := b.parser.span(at, end+1)
	from, stop := b.trimmed(rest, end)
	content := b.parser.text[from:stop]
	switch word {
	case "code":
		b.line(at)
		b.add(prose.Node{Kind: prose.Code, Text: strings.Join(strings.Fields(content), " "), Span: span})
	case "literal":
		b.text(content, at, end+1, false)
	case "link", "linkplain":
		b.line(at)
		if strings.HasPrefix(content, "##") { // a place on the page of what the comment is on
			begin := b.parser.nameEnd(from, stop)
			if label, _ := b.trimmed(begin, stop); label < stop {
				for _, n := range b.inlines(label, stop) {
					b.add(n)
				}
			} else {
				b.text(strings.TrimLeft(content, "#"), at, end+1, true)
			}
		} else if content != "" {
			b.add(b.reference(from, stop, word == "link"))
		}
	case "value":
		b.line(at)
		name, begin, _ := b.first(from, stop)
		if strings.HasPrefix(name, "%") || strings.HasPrefix(name, `"`) { // how it is written comes first
			name, begin, _ = b.first(begin+len(name), stop)
		}
		if name == "" { // of what the comment is on
			b.add(prose.Node{Kind: prose.Reference, Info: prose.Value, Span: span, Children: []prose.Node{{Kind: prose.Text, Text: "the value", Span: span}}})
		} else {
			n := b.reference(begin, begin+len(name), true)
			n.Info = prose.Value
			b.add(n)
		}
	case "inheritDoc":
		b.line(at)
		b.add(prose.Node{Kind: prose.Inherited, Strict: true, Target: snippet.Target(content), Span: span, Children: []prose.Node{{Kind: prose.Text, Text: "{@inheritDoc}", Span: span}}})
	case "summary":
		for _, n := range b.inlines(from, stop) {
			b.line(at)
			b.add(n)
		}
	case "return":
		text := b.inlines(from, stop)
		b.line(at)
		b.add(prose.Node{Kind: prose.Text, Text: "Returns ", Span: span})
		for _, n := range text {
			b.add(n)
		}
		b.add(prose.Node{Kind: prose.Text, Text: ".", Span: span})
		b.entry(prose.Results, span, prose.Entry{Span: span, Text: b.blocks(from, stop)})
	case "index":
		term, _, _ := strings.Cut(content, " ")
		if strings.HasPrefix(content, `"`) {
			term, _, _ = strings.Cut(content[1:], `"`)
		}
		b.text(term, at, end+1, true)
		b.out.Words = append(b.out.Words, strings.Fields(term)...)
	case "systemProperty":
		b.line(at)
		b.add(prose.Node{Kind: prose.Code, Text: content, Span: span})
	case "snippet":
		b.snippet(from, stop, at, end+1)
	case "docRoot":
	default:
		if content != "" {
			b.text(content, at, end+1, true)
		}
	}
	return end + 1
}

// snippet reads "{@snippet attributes : code }".
func (b *builder) snippet(from, to, at, end int) {
	colon := strings.IndexByte(b.parser.text[from:to], ':')
	if colon < 0 {
		return // its code stands in a file
	}
	code := b.parser.text[from+colon+1 : to]
	if i := strings.IndexByte(code, '\n'); i >= 0 && strings.TrimSpace(code[:i]) == "" {
		code = code[i+1:]
	}
	shown, marks, _ := snippet.Read(code, snippet.Attributes(b.parser.text[from : from+colon])["region"])
	b.closeLine(at)
	node := b.codeBlock(strings.TrimRight(shown, " \t\r\n"), b.span(at, end), snippet.Nodes(marks, b.span(at, end)))
	if node.Info = "java"; b.holdsBlocks() && strings.TrimSpace(node.Text) != "" {
		b.add(node)
	}
}
