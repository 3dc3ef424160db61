package docstring

import (
	"slices"
	"strings"

	"codrel/internal/prose"
	"codrel/internal/prose/formula"
)

// This file reads directives and other explicit markup: lines that begin with "..".

// admonitions are directives whose text stands apart under a word.
var admonitions = map[string]string{
	"note": "Note", "warning": "Warning", "tip": "Tip", "hint": "Hint", "important": "Important", "caution": "Caution",
	"danger": "Danger", "attention": "Attention", "error": "Error", "seealso": "See also", "todo": "To do", "admonition": "",
}

// directive appends what the lines of explicit markup become.
func (p *parser) directive(out []prose.Node, lines []line, depth int) []prose.Node {
	l := lines[0].from(lines[0].indent() + len(".. "))
	l = l.from(l.indent())
	name, behind := directiveName(l.text)
	if name == "" {
		return p.explicit(out, l, lines, depth)
	}
	argument := l.from(behind)
	argument = argument.from(argument.indent())
	body := dedented(lines[1:])
	body = withoutOptions(body)
	if title, ok := admonitions[name]; ok {
		return append(out, p.admonition(name, title, l, argument, lines, body, depth))
	}
	switch name {
	case "code-block", "code", "sourcecode", "highlight", "parsed-literal", "ipython", "doctest", "testcode", "testsetup", "plot", "prompt":
		info := argument.text
		if info == "" || name == "doctest" || name == "testcode" || name == "testsetup" || name == "plot" {
			info = "python"
		}
		if len(body) == 0 {
			return out
		}
		return append(out, p.literal(body, info))
	case "math":
		lines := withFirst(argument, body)
		return append(out, formula.Node(p.literal(lines, "").Text, true, spanOf(lines)))
	case "list-table":
		rows := p.blocks(body, depth+1)
		if table, ok := listTable(rows, headRows(lines[1:])); ok {
			rows = []prose.Node{table}
		}
		return append(append(out, p.after(argument, nil, depth)...), rows...)
	case "csv-table":
		return append(append(out, p.after(argument, nil, depth)...), p.literal(body, ""))
	case "graphviz", "productionlist":
		return append(out, p.literal(withFirst(argument, body), ""))
	case "deprecated", "deprecated-removed", "versionadded", "versionchanged", "versionremoved":
		return p.version(out, name, argument, body, depth)
	case "rubric", "centered", "topic":
		out = append(out, prose.Node{Kind: prose.Heading, Level: 2, Span: argument.span(), Children: p.inline([]line{argument})})
		return append(out, p.blocks(body, depth+1)...)
	case "image", "figure":
		if prose.AllowedAddress(argument.text) {
			out = append(out, prose.Node{Kind: prose.Paragraph, Span: l.span(), Children: []prose.Node{{Kind: prose.Link, Target: argument.text, Span: argument.span(),
				Children: []prose.Node{{Kind: prose.Text, Text: argument.text, Span: argument.span()}}}}})
		}
		return append(out, p.blocks(body, depth+1)...)
	case "index", "module", "moduleauthor", "sectionauthor", "currentmodule", "contents", "include", "literalinclude", "only", "container",
		"class", "default-role", "tabularcolumns", "role":
		return append(out, p.blocks(body, depth+1)...) // these speak to the tools that they were written for
	}
	if strings.HasPrefix(name, "auto") || strings.HasPrefix(name, "toc") { // so do those that ask for generated text
		return append(out, p.blocks(body, depth+1)...)
	}
	return append(out, p.after(argument, body, depth)...)
}

// admonition is a box such as a note or a warning, with its title.
func (p *parser) admonition(name, title string, l, argument line, lines, body []line, depth int) prose.Node {
	if name == "admonition" {
		name, title, argument = "", argument.text, line{at: argument.at, last: argument.last}
	}
	label := prose.Node{Kind: prose.Paragraph, Span: l.span(), Children: []prose.Node{
		prose.Label(name, title, "", l.span()),
	}}
	text := p.after
	if name == "seealso" {
		text = func(first line, body []line, depth int) []prose.Node {
			return p.seeAlso(withFirst(first, body), depth+1)
		}
	}
	p.inside++
	children := append([]prose.Node{label}, text(argument, body, depth)...)
	p.inside--
	return prose.Node{Kind: prose.Quote, Span: spanOf(lines), Children: children}
}

// version reads what says since when something is there, was changed, or is no longer to be
// used: of what the directive stands in, or of all that the docstring describes.
func (p *parser) version(out []prose.Node, name string, argument line, body []line, depth int) []prose.Node {
	if p.inside > 0 || underHeading(out) || underHeading(p.out.Body) {
		return append(out, p.versionNote(name, argument, body, depth)...)
	}
	if name == "deprecated" || name == "deprecated-removed" {
		p.out.Obsolete = true
		p.out.Deprecated = append(p.out.Deprecated, p.after(line{at: argument.at, last: argument.last}, afterVersion(argument, body), depth)...)
		return out
	}
	part := p.part(prose.Since)
	version, rest := cutVersion(argument)
	word := map[string]string{"versionadded": "", "versionchanged": "changed", "versionremoved": "removed"}[name]
	part.Entries = append(part.Entries, prose.Entry{Name: version.text, Span: version.span(), Default: word, Text: p.after(rest, body, depth)})
	return out
}

// versionWords are what notes on versions say where they stand in a part of a docstring.
var versionWords = map[string]string{
	"versionadded": "Since", "versionchanged": "Changed in", "versionremoved": "Removed in", "deprecated": "Deprecated since", "deprecated-removed": "Deprecated since",
}

// underHeading reports whether what follows some blocks stands under an underlined title: one
// before all else is that of the whole.
func underHeading(blocks []prose.Node) bool {
	return len(blocks) > 0 && slices.ContainsFunc(blocks[1:], func(n prose.Node) bool { return n.Kind == prose.Heading && n.Level == 1 })
}

// directiveName is the word of a directive, in small letters, and the offset behind its
// colons; "" where a line is none. Notes and versions are known by their words, with one
// colon, or the colons behind the number: else their text would be a comment that nobody reads.
func directiveName(text string) (name string, behind int) {
	word, rest, _ := strings.Cut(text, " ")
	if colons := strings.Index(word, "::"); colons > 0 {
		return strings.ToLower(word[:colons]), colons + len("::")
	}
	name, slip := strings.CutSuffix(strings.ToLower(word), ":")
	_, admonition := admonitions[name]
	_, version := versionWords[name]
	switch {
	case name != "" && strings.HasPrefix(rest, "::"): // a blank before the colons is allowed
		return name, len(word) + len(" ::")
	case slip && (admonition || version), version && rest != "" && rest[0] >= '0' && rest[0] <= '9':
		return name, len(word)
	}
	return "", 0
}

// versionNote is a note on a version as a paragraph: inside of a parameter it
// speaks of that, and of nothing else.
func (p *parser) versionNote(name string, argument line, body []line, depth int) []prose.Node {
	version, rest := cutVersion(argument)
	label, kind := strings.TrimSpace(versionWords[name]+" "+version.text), strings.TrimSuffix(name, "-removed")
	if version.text == "" || version.text[0] < '0' || version.text[0] > '9' {
		label, rest = strings.TrimSuffix(strings.TrimSuffix(versionWords[name], " in"), " since"), argument
		kind = ""
	}
	text := p.after(rest, body, depth)
	if len(text) > 0 {
		label += ":"
	}
	return labelled(prose.Label(kind, label, version.text, argument.span()), text)
}

// labelled puts a strong label before blocks, in their first line where that is one.
func labelled(head prose.Node, text []prose.Node) []prose.Node {
	span := head.Span
	if len(text) > 0 && text[0].Kind == prose.Paragraph {
		text[0].Children = append([]prose.Node{head, {Kind: prose.Text, Text: " ", Span: span}}, text[0].Children...)
		return text
	}
	return append([]prose.Node{{Kind: prose.Paragraph, Span: span, Children: []prose.Node{head}}}, text...)
}

// explicit reads footnotes, targets and comments.
func (p *parser) explicit(out []prose.Node, l line, lines []line, depth int) []prose.Node {
	switch {
	case strings.HasPrefix(l.text, "["):
		return p.footnote(out, l, lines, depth)
	case strings.HasPrefix(l.text, "_"), strings.HasPrefix(l.text, "|"):
		return out
	}
	return out // a comment
}

func withFirst(first line, body []line) []line {
	if first.blank() {
		return body
	}
	return append([]line{first}, body...)
}

// after makes blocks of the text behind a directive and below it.
func (p *parser) after(first line, body []line, depth int) []prose.Node {
	return p.blocks(withFirst(first, body), depth+1)
}

// withoutOptions drops the ":name: value" lines that a directive begins with.
func withoutOptions(lines []line) []line {
	for len(lines) > 0 && strings.HasPrefix(lines[0].text, ":") {
		end := strings.IndexByte(lines[0].text[1:], ':')
		if end <= 0 || strings.Contains(lines[0].text[1:end+1], " ") || strings.HasPrefix(lines[0].text[end+2:], "`") {
			break
		}
		lines = lines[1:]
	}
	for len(lines) > 0 && lines[0].blank() {
		lines = lines[1:]
	}
	return lines
}

func cutVersion(l line) (version, rest line) {
	i := strings.IndexByte(l.text, ' ')
	if i < 0 {
		return l.to(len(strings.TrimRight(l.text, ":"))), line{at: l.at, last: l.last}
	}
	rest = l.from(i)
	return l.to(len(strings.TrimRight(l.text[:i], ",;:"))), rest.from(rest.indent())
}

// afterVersion is the advice of a deprecation: what stands behind the version,
// which itself comes first in words.
func afterVersion(argument line, body []line) []line {
	version, rest := cutVersion(argument)
	if version.text != "" && (version.text[0] < '0' || version.text[0] > '9') {
		rest = argument
	}
	return withFirst(rest, body)
}
