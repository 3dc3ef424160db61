package docstring

import (
	"strings"

	"codrel/internal/prose"
)

// This file reads lists that are told by their own signs: fields inside of other
// text, and options of a command ("Field Lists" and "Option Lists" in the specification).

// isField reports whether a line begins with ":name: ".
func isField(text string) bool { return fieldLength(text) > 0 }

// fieldLength is how long the name of a field with its colons is, or 0.
func fieldLength(text string) int {
	if len(text) < 3 || text[0] != ':' || text[1] == ':' || text[1] == ' ' || text[1] == '`' {
		return 0
	}
	end := outsideBrackets(text[1:], ':')
	if end < 1 || end > 100 || strings.ContainsAny(text[1:end+1], "`:") {
		return 0
	}
	return end + 2
}

// endOfFieldList is behind the fields that begin at a line and what stands deeper in them.
func endOfFieldList(lines []line, i int) int {
	indent := lines[i].indent()
	return endOfTerms(lines, i, func(i int) bool { return isField(lines[i].text[indent:]) })
}

// endOfTerms is behind the entries that begin at a line, and what stands deeper in them.
func endOfTerms(lines []line, i int, begins func(i int) bool) int {
	indent := lines[i].indent()
	end := i
	for ; i < len(lines); i++ {
		switch {
		case lines[i].blank():
			continue
		case lines[i].indent() < indent, lines[i].indent() == indent && !begins(i):
			return end
		}
		end = i + 1
	}
	return end
}

// terms makes a list of entries that begin at the margin: of each, item gets the first
// line and what stands below it.
func terms(lines []line, item func(first line, below []line) []prose.Node) prose.Node {
	list := prose.Node{Kind: prose.List, Info: prose.Terms, Span: spanOf(lines)}
	indent := lines[0].indent()
	for i := 0; i < len(lines); {
		if lines[i].blank() {
			i++
			continue
		}
		end := i + 1
		for end < len(lines) && (lines[end].blank() || lines[end].indent() > indent) {
			end++
		}
		list.Children = append(list.Children, prose.Node{Kind: prose.Item, Span: spanOf(lines[i:end]), Children: item(lines[i].from(indent), dedented(lines[i+1:end]))})
		i = end
	}
	return list
}

// fieldList makes a list of terms: the name of each field, and what it says.
func (p *parser) fieldList(lines []line, depth int) prose.Node {
	return terms(lines, func(l line, below []line) []prose.Node {
		size := fieldLength(l.text)
		name, text := l.from(1).to(size-2), l.from(size)
		return labelled(prose.Label("", name.text+":", "", name.span()), p.after(text.from(text.indent()), below, depth))
	})
}

// isOption reports whether a line begins with an option of a command and two
// blanks behind it, or with one that text stands deeper below.
func isOption(lines []line, i int) bool {
	indent := lines[i].indent()
	size := optionLength(lines[i].text[indent:])
	if size == 0 {
		return false
	}
	rest := lines[i].text[indent+size:]
	return strings.HasPrefix(rest, "  ") || rest == "" && i+1 < len(lines) && !lines[i+1].blank() && lines[i+1].indent() > indent+1
}

// optionLength is how long the options are that a line begins with:
// "-f FILE, --file=FILE"; 0 where it begins with none.
func optionLength(text string) int {
	at := 0
	for {
		start := at
		for at < len(text) && text[at] == '-' {
			at++
		}
		if dashes := at - start; dashes < 1 || dashes > 2 || at == len(text) || !isNameByte(text[at]) {
			return 0
		}
		for at < len(text) && (isNameByte(text[at]) || text[at] == '-') {
			at++
		}
		if at < len(text) && (text[at] == '=' || text[at] == ' ' && at+1 < len(text) && text[at+1] != ' ') { // its argument
			at++
			for at < len(text) && text[at] != ' ' && text[at] != ',' {
				at++
			}
		}
		if !strings.HasPrefix(text[at:], ", -") {
			return at
		}
		at += 2
	}
}

func isNameByte(c byte) bool {
	return c == '_' || '0' <= c && c <= '9' || 'a' <= c|0x20 && c|0x20 <= 'z' || c == '?'
}

// endOfOptions is behind the options that begin at a line and what stands deeper in them.
func endOfOptions(lines []line, i int) int {
	return endOfTerms(lines, i, func(i int) bool { return isOption(lines, i) })
}

// options makes a list of terms: options as code, and what each does.
func (p *parser) options(lines []line, depth int) prose.Node {
	return terms(lines, func(l line, below []line) []prose.Node {
		name := l.to(optionLength(l.text))
		text := l.from(len(name.text))
		blocks := p.after(text.from(text.indent()), below, depth)
		head := prose.Node{Kind: prose.Paragraph, Span: name.span(), Children: []prose.Node{{Kind: prose.Code, Text: name.text, Span: name.span()}}}
		return append([]prose.Node{head}, blocks...)
	})
}
