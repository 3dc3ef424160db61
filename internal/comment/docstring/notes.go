package docstring

import (
	"strconv"
	"strings"

	"codrel/internal/prose"
)

// This file reads what a docstring says at its end and shows elsewhere:
// footnotes, citations and substitutions.

// find collects what lines of explicit markup define, before they are referred to.
func (p *parser) find() {
	for i, l := range p.lines {
		rest, ok := strings.CutPrefix(l.text[l.indent():], ".. ")
		if !ok {
			continue
		}
		switch {
		case strings.HasPrefix(rest, "["):
			if end := strings.IndexByte(rest, ']'); end > 1 {
				p.number(rest[1:end])
			}
		case strings.HasPrefix(rest, "|"):
			p.findSubstitution(rest[1:], i)
		}
	}
}

// number counts the footnotes that ask for it ("#", "#name", "*"); the others keep
// the numbers that they are written with.
func (p *parser) number(label string) {
	if label[0] == '#' || label == "*" {
		p.numbered = append(p.numbered, label)
	} else if n, err := strconv.Atoi(label); err == nil {
		if p.taken == nil {
			p.taken = map[int]bool{}
		}
		p.taken[n] = true
	}
}

// numbers are what the footnotes of each label are called, in their order.
func (p *parser) numbers() map[string][]int {
	if p.counted == nil {
		p.counted = map[string][]int{}
		number := 0
		for _, label := range p.numbered {
			number++
			for p.taken[number] {
				number++
			}
			p.counted[label] = append(p.counted[label], number)
		}
	}
	return p.counted
}

// footnoteLabel is what a footnote is called in the text. Those without a name
// are counted through: at is which of them is meant, from 0.
func (p *parser) footnoteLabel(label string, at int) string {
	if label[0] != '#' && label != "*" {
		return label
	}
	list := p.numbers()[label]
	switch {
	case len(list) == 0:
		return strings.TrimPrefix(label, "#")
	case len(label) > 1:
		at = 0
	}
	return strconv.Itoa(list[min(at, len(list)-1)])
}

// footnote appends a footnote or citation; those that follow one another are one list.
func (p *parser) footnote(out []prose.Node, l line, lines []line, depth int) []prose.Node {
	end := strings.IndexByte(l.text, ']')
	if end < 2 {
		return append(out, p.after(l, dedented(lines[1:]), depth)...)
	}
	label := l.from(1).to(end - 1)
	if p.defined == nil {
		p.defined = map[string]int{}
	}
	text := l.from(end + 1)
	shown := "[" + p.footnoteLabel(label.text, p.defined[label.text]) + "]"
	p.defined[label.text]++
	item := prose.Node{Kind: prose.Item, Span: spanOf(lines), Children: labelled(prose.Label("", shown, "", label.span()), p.after(text.from(text.indent()), dedented(lines[1:]), depth))}
	if n := len(out); n > 0 && out[n-1].Kind == prose.List && out[n-1].Info == prose.Footnotes {
		out[n-1].Children = append(out[n-1].Children, item)
		out[n-1].Span.End = item.Span.End
		return out
	}
	return append(out, prose.Node{Kind: prose.List, Info: prose.Footnotes, Span: item.Span, Children: []prose.Node{item}})
}

// footnoteReference reads "[1]_", whose bracket stands at an offset.
func (in *inline) footnoteReference(i int) int {
	end := in.next("]", i) - i
	if end < 2 || end > longestName || !strings.HasPrefix(in.text[i+end:], "]_") || !in.wordEnd(i+end+2) || strings.ContainsAny(in.text[i+1:i+end], " \n[") {
		return 0
	}
	label := in.text[i+1 : i+end]
	if in.p.referred == nil {
		in.p.referred = map[string]int{}
	}
	n := in.shown(prose.Text, i, i+end+1)
	n.Text = "[" + in.p.footnoteLabel(label, in.p.referred[label]) + "]"
	in.p.referred[label]++
	// A note is raised; a work that is cited is a part of the sentence.
	if label[0] == '#' || label == "*" || strings.Trim(label, "0123456789") == "" {
		n = prose.Node{Kind: prose.Superscript, Children: []prose.Node{n}}
		if i > in.from && in.text[i-1] == ' ' { // the blank that the markup needs
			in.flush(i - 1)
			in.from = i
		}
	}
	return in.node(n, i, i+end+2)
}

// findSubstitution keeps what "|name| replace:: text" says.
func (p *parser) findSubstitution(rest string, at int) {
	name, directive, ok := strings.Cut(rest, "|")
	word, text, found := strings.Cut(strings.TrimSpace(directive), "::")
	if !ok || !found || word != "replace" && word != "unicode" {
		return
	}
	text = strings.TrimSpace(text)
	indent := p.lines[at].indent()
	for _, below := range p.lines[at+1:] {
		if below.blank() || below.indent() <= indent || len(text) > longestAddress {
			break
		}
		text += " " + strings.TrimSpace(below.text)
	}
	if word == "unicode" {
		text = characters(text)
	}
	if p.substitutions == nil {
		p.substitutions = map[string]string{}
	}
	p.substitutions[targetName(name)] = text
}

// characters is what the argument of "unicode::" stands for: words such as 0xA9,
// U+00A9 and text as it is.
func characters(text string) string {
	var b strings.Builder
	for word := range strings.FieldsSeq(text) {
		if word == ".." {
			break
		}
		digits := word
		for _, prefix := range []string{"0x", "U+", "u+", `\x`, `\u`, "x"} {
			if rest, ok := strings.CutPrefix(word, prefix); ok {
				digits = rest
				break
			}
		}
		if code, err := strconv.ParseUint(digits, 16, 21); err == nil && digits != word {
			b.WriteRune(rune(code))
		} else {
			b.WriteString(word)
		}
	}
	return b.String()
}
