// Package blocktags reads the doc comments of JavaScript and TypeScript, those of Java in
// Markdown, and those of C and C++: Markdown with block tags ("@param {number} depth - How
// deep.") and inline links.
//
// It turns text into the prose tree and named sections and resolves nothing.
package blocktags

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
	"codrel/internal/source"
)

// Parse reads one comment. own are words of the maintainer's.
func Parse(doc *model.Doc, own prose.Vocabulary) *prose.Sections {
	p := &parser{out: &prose.Sections{}, own: own}
	return p.parse(linesOf(doc), nil)
}

// parse reads the lines of a comment. define may add definitions of links.
func (p *parser) parse(lines []line, define func(fenced []bool)) *prose.Sections {
	fenced := fences(lines)
	p.findDefinitions(lines, fenced)
	if define != nil {
		define(fenced)
	}
	var block []line
	word := line{}
	for i, l := range lines {
		trimmed := l.from(l.indent())
		if tag, ok := tagAt(trimmed); ok && !fenced[i] {
			p.block(word, block)
			word = tag
			content := trimmed.from(1 + len(tag.text))
			block = append([]line(nil), content.from(content.indent()))
			continue
		}
		block = append(block, l)
	}
	p.block(word, block)
	p.repeated()
	return p.out
}

func linesOf(doc *model.Doc) []line {
	lines := make([]line, len(doc.Lines))
	rest := doc.Text
	for i := range doc.Lines {
		text, after, _ := strings.Cut(rest, "\n")
		rest = after
		lines[i] = line{text: strings.TrimRight(text, " \t\r"), at: doc.Lines[i].Start}
	}
	return lines
}

// MayTake reports whether a comment may say that some of its text is another's.
func MayTake(doc *model.Doc) bool { return strings.Contains(doc.Text, "nherit") }

// mostMarks ends what one comment is marked with: there are no more words.
const mostMarks = 16

type parser struct {
	out         *prose.Sections
	own         prose.Vocabulary
	definitions string // lines of Markdown that say where links lead
	brackets    bool   // names in brackets are links, see [ParseNamed]
	marked      bool   // words behind signs stand in running text, see [ParseMarked]
	byName      bool   // and a name behind "@" is that of a parameter
	listed      bool   // the list at the end of the body is made of words for its entries
}

// line is one line: its text, and where that stands in the file.
type line struct {
	text string
	at   int32
}

func (l line) indent() int { return len(l.text) - len(strings.TrimLeft(l.text, " \t")) }

func (l line) from(n int) line {
	n = min(n, len(l.text))
	return line{l.text[n:], l.at + int32(n)}
}

func (l line) to(n int) line { return line{l.text[:n], l.at} }

func (l line) span() source.Span {
	return source.Span{Start: l.at, End: l.at + int32(len(l.text))}
}

// tagAt reads the word of a block tag that a line begins with.
func tagAt(l line) (line, bool) {
	if len(l.text) < 2 || l.text[0] != '@' {
		return line{}, false
	}
	end := 1
	for end < len(l.text) && isLetter(l.text[end]) {
		end++
	}
	if end == 1 || end < len(l.text) && l.text[end] != ' ' && l.text[end] != '\t' && l.text[end] != '{' && l.text[end] != ':' {
		return line{}, false
	}
	return l.from(1).to(end - 1), true
}

func isLetter(c byte) bool {
	return 'a' <= c|0x20 && c|0x20 <= 'z' || '0' <= c && c <= '9' || c == '-' || c == '_'
}

// block keeps what one tag says; no word stands for the text before the first.
func (p *parser) block(word line, lines []line) {
	for len(lines) > 0 && strings.TrimSpace(lines[len(lines)-1].text) == "" {
		lines = lines[:len(lines)-1]
	}
	meaning, known := p.meaning(word.text)
	switch {
	case word.text == "":
		p.out.Body = append(p.out.Body, p.markdown(lines)...)
	case !known:
		p.unknown(word, lines)
	case meaning.taken:
		span := word.span()
		taken := prose.Node{Kind: prose.Inherited, Strict: true, Span: span, Children: []prose.Node{{Kind: prose.Text, Text: "@" + word.text, Span: span}}}
		p.out.Body = append(p.out.Body, prose.Node{Kind: prose.Paragraph, Span: span, Children: []prose.Node{taken}})
		p.out.Body = append(p.out.Body, p.markdown(lines)...)
	case word.text == "type":
		p.subjectType(lines)
	case meaning.subject:
		p.subject(lines)
	case meaning.silent:
		if meaning.line && len(lines) > 1 && strings.Count(lines[0].text, "{") == strings.Count(lines[0].text, "}") {
			p.out.Body = append(p.out.Body, p.markdown(lines[1:])...)
		}
	case meaning.label:
		p.out.Body = append(p.out.Body, p.labelled(word, lines)...)
	case meaning.mark != "":
		if len(p.out.Marks) < mostMarks && !slices.Contains(p.out.Marks, meaning.mark) {
			p.out.Marks = append(p.out.Marks, meaning.mark)
		}
		if meaning.mark == "event" && len(lines) > 0 { // its name is the subject's
			lines = lines[1:]
		}
		p.out.Body = append(p.out.Body, p.markdown(lines)...)
	case meaning.body:
		text := p.markdown(lines)
		if len(text) > 0 && len(p.out.Body) == 1 && prose.Plain(text[:1]) == prose.Plain(p.out.Body) {
			text = text[1:] // a description that begins with the summary
		}
		p.out.Body = append(p.out.Body, text...)
	case meaning.deprecated:
		p.out.Obsolete = true
		p.out.Deprecated = append(p.out.Deprecated, p.markdown(lines)...)
	case meaning.kind == prose.Other:
		text := p.markdown(lines)
		if meaning.names {
			text = named(text)
		}
		p.other(meaning, word, text)
	default:
		p.entry(meaning.kind, word, lines)
	}
}

// other keeps what is said under a title of its own: once, however often its tag stands.
func (p *parser) other(m meaning, word line, text []prose.Node) {
	if m.names {
		text = []prose.Node{{Kind: prose.List, Span: word.span(), Children: []prose.Node{{Kind: prose.Item, Span: word.span(), Children: text}}}}
	}
	for i := range p.out.Parts {
		part := &p.out.Parts[i]
		if part.Kind != prose.Other || part.Title != m.title {
			continue
		}
		if m.names {
			part.Body[0].Children = append(part.Body[0].Children, text[0].Children...)
		} else {
			part.Body = append(part.Body, text...)
		}
		return
	}
	p.out.Parts = append(p.out.Parts, prose.Part{Kind: prose.Other, Title: m.title, Span: word.span(), Body: text})
}

// subjectType keeps the type that a comment gives its subject, and the text behind it.
func (p *parser) subjectType(lines []line) {
	if len(lines) == 0 || !strings.HasPrefix(lines[0].text, "{") {
		return
	}
	var e prose.Entry
	lines = append([]line(nil), lines...)
	rest := p.typed(&e, lines[0], &lines)
	p.out.Type = e.Type
	if len(lines) > 0 {
		lines[0] = rest
		p.out.Body = append(p.out.Body, p.markdown(lines)...)
	}
}

// subject keeps what stands behind a tag that says what its subject is: "{type} name - text",
// each of which may be missing; a text has a dash before it.
func (p *parser) subject(lines []line) {
	if len(lines) == 0 {
		return
	}
	var e prose.Entry
	lines = append([]line(nil), lines...)
	rest := p.typed(&e, lines[0], &lines)
	if len(e.Type) > 0 && len(p.out.Type) == 0 {
		p.out.Type = e.Type
	}
	text := line{at: rest.at}
	for i := 0; i+1 < len(rest.text); i++ {
		if dash := dashAt(rest.text[i:]); dash > 0 && (i == 0 || rest.text[i-1] == ' ') && strings.Count(rest.text[:i], " ") < 2 {
			text = rest.from(i + dash)
			text = text.from(text.indent())
			break
		}
	}
	lines[0] = text
	p.out.Body = append(p.out.Body, p.markdown(lines)...)
}

// dashAt is the length of a dash with a blank behind it that a text begins with, or 0.
func dashAt(text string) int {
	for _, dash := range []string{"- ", "\u2013 ", "\u2014 "} {
		if strings.HasPrefix(text, dash) {
			return len(dash)
		}
	}
	return 0
}

// part is the section of a kind, in which all tags of that kind gather.
func (p *parser) part(kind prose.PartKind, word line) *prose.Part {
	for i := range p.out.Parts {
		if p.out.Parts[i].Kind == kind {
			return &p.out.Parts[i]
		}
	}
	p.out.Parts = append(p.out.Parts, prose.Part{Kind: kind, Span: word.span()})
	return &p.out.Parts[len(p.out.Parts)-1]
}

// unknown keeps a tag whose word says nothing here as a labelled paragraph.
func (p *parser) unknown(word line, lines []line) {
	p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.UnknownWord, Span: word.span(), Text: "@" + word.text, Near: nearTag(word.text)})
	p.out.Body = append(p.out.Body, p.labelled(word, lines)...)
}

// labelled is a text behind the word of its tag; a word alone says nothing to a reader.
func (p *parser) labelled(word line, lines []line) []prose.Node {
	text := p.markdown(lines)
	if len(text) == 0 {
		return nil
	}
	head := prose.Node{Kind: prose.Strong, Span: word.span(), Children: []prose.Node{{Kind: prose.Text, Text: word.text, Span: word.span()}}}
	if len(text) > 0 && text[0].Kind == prose.Paragraph {
		text[0].Children = append([]prose.Node{head, {Kind: prose.Text, Text: ": ", Span: word.span()}}, text[0].Children...)
	} else {
		text = append([]prose.Node{{Kind: prose.Paragraph, Span: word.span(), Children: []prose.Node{head}}}, text...)
	}
	return text
}

// entry keeps a parameter, result, failure, example and the like.
func (p *parser) entry(kind prose.PartKind, word line, lines []line) {
	first := line{at: word.at}
	if len(lines) > 0 {
		first = lines[0]
	}
	var e prose.Entry
	switch kind {
	case prose.Parameters, prose.Fields, prose.TypeParameters:
		first = p.typed(&e, first, &lines)
		if !strings.HasPrefix(first.text, "{") { // a type that is never closed hides the name
			first = p.named(&e, first)
		}
		if kind == prose.TypeParameters && e.Name == "" {
			return
		}
	case prose.Results, prose.Series:
		first = p.typed(&e, first, &lines)
		e.Span = word.span()
	case prose.Failures:
		first = p.typed(&e, first, &lines)
		e.Span = word.span()
		if len(e.Type) > 0 {
			e.Name, e.Type = strings.Trim(prose.Plain(e.Type), "()!?"), nil
		} else if name, rest, ok := linkedName(first); ok {
			e.Name, first = name, rest
		}
	case prose.Since:
		version, rest, _ := strings.Cut(first.text, " ")
		if version != "" && version[0] >= '0' && version[0] <= '9' || strings.HasPrefix(version, "v") {
			e.Name, e.Span = version, first.to(len(version)).span()
			first = first.from(len(first.text) - len(rest))
		}
	case prose.Examples:
		part := p.part(kind, word)
		part.Body = append(part.Body, p.example(first, lines)...)
		return
	}
	if len(lines) > 0 {
		lines = append([]line{first}, lines[1:]...)
	}
	text := p.markdown(lines)
	part := p.part(kind, word)
	if kind == prose.SeeAlso {
		text = seeAlso(text)
	}
	if kind == prose.Notes || kind == prose.SeeAlso || kind == prose.Caution {
		part.Body = append(part.Body, text...)
		return
	}
	e.Text = text
	part.Entries = append(part.Entries, e)
}

// typed takes a type in braces off a line. It may go on in the next lines.
func (p *parser) typed(e *prose.Entry, l line, lines *[]line) line {
	if !strings.HasPrefix(l.text, "{") || strings.HasPrefix(l.text, "{@") {
		return l
	}
	rest, whole := *lines, l
	for len(rest) > 1 && closes(l.text) < 0 && len(l.text) < 2000 {
		rest = rest[1:]
		e.Type = nil
		// The type goes on below: what counts is where it ends.
		l = line{l.text + " " + strings.TrimSpace(rest[0].text), l.at}
	}
	end := closes(l.text)
	if end < 0 {
		p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.Unclosed, Span: whole.to(1).span(), Text: "{"})
		return whole
	}
	inner := l.text[1:end]
	e.Optional = strings.HasSuffix(inner, "=")
	e.Type = typeNodes(line{strings.TrimSuffix(inner, "="), l.at + 1})
	*lines = rest
	out := l.from(end + 1)
	return out.from(out.indent())
}

// closes is the offset of the brace that closes the one a text begins with, or -1.
func closes(text string) int {
	depth := 0
	for i := 0; i < len(text); i++ {
		switch text[i] {
		case '{':
			depth++
		case '}':
			if depth--; depth == 0 {
				return i
			}
		}
	}
	return -1
}

// named takes a name off a line: "name", "[name=default]", "name=default", "options.name", with
// the dash that may follow it.
func (p *parser) named(e *prose.Entry, l line) line {
	if strings.HasPrefix(l.text, "[") {
		depth, end := 0, -1
		for i := 0; i < len(l.text) && end < 0; i++ {
			switch l.text[i] {
			case '[':
				depth++
			case ']':
				if depth--; depth == 0 {
					end = i
				}
			}
		}
		if end < 0 {
			p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.Unclosed, Span: l.to(1).span(), Text: "["})
			return l
		}
		name, value, valued := strings.Cut(l.text[1:end], "=")
		name = strings.TrimSpace(name)
		e.Name, e.Optional = name, true
		if valued {
			e.Default = strings.TrimSpace(value)
		}
		at := 1 + strings.Index(l.text[1:end], name)
		e.Span = l.from(at).to(len(name)).span()
		return dashed(l.from(end + 1))
	}
	end := 0
	for end < len(l.text) && strings.IndexByte(" \t,:", l.text[end]) < 0 {
		end++
	}
	name, value, valued := strings.Cut(l.text[:end], "=")
	if valued && name != "" { // as in brackets
		e.Default, e.Optional = value, true
	} else {
		name = l.text[:end]
	}
	e.Name = strings.Trim(name, "`")
	e.Span = l.to(len(name)).span()
	return dashed(l.from(end))
}

// dashed is a line without the dash or colon that it begins with.
func dashed(l line) line {
	l = l.from(l.indent())
	for _, mark := range []string{"- ", "– ", "— ", ": "} {
		if strings.HasPrefix(l.text, mark) {
			return l.from(len(mark)).from(l.from(len(mark)).indent())
		}
	}
	if l.text == "-" {
		return l.from(1)
	}
	return l
}

// linkedName reads "{@link Name}" at the start of a failure, or a plain name of a type.
func linkedName(l line) (string, line, bool) {
	if strings.HasPrefix(l.text, "{@link") {
		end := strings.IndexByte(l.text, '}')
		_, target, ok := strings.Cut(l.text[:max(end, 0)], " ")
		if end > 0 && ok {
			name, _, _ := strings.Cut(strings.TrimSpace(target), " ")
			return name, dashed(l.from(end + 1)), true
		}
	}
	word, _, _ := strings.Cut(l.text, " ")
	name := strings.TrimRight(word, ":,")
	if strings.HasSuffix(name, "Error") || strings.HasSuffix(name, "Exception") {
		return name, dashed(l.from(len(name))), true
	}
	return "", l, false
}

// example makes blocks of an example: code, unless it has fences of its own.
func (p *parser) example(first line, lines []line) []prose.Node {
	if len(lines) == 0 {
		return nil
	}
	lines = append([]line{first}, lines[1:]...)
	var out []prose.Node
	if caption, rest, ok := strings.Cut(lines[0].text, "</caption>"); ok && strings.HasPrefix(caption, "<caption>") {
		at := lines[0].from(len("<caption>")).to(len(caption) - len("<caption>"))
		out = append(out, p.markdown([]line{at})...)
		lines[0] = lines[0].from(len(lines[0].text) - len(strings.TrimLeft(rest, " ")))
	}
	for len(lines) > 0 && strings.TrimSpace(lines[0].text) == "" {
		lines = lines[1:]
	}
	var b strings.Builder
	for i, l := range lines {
		if fence := markdown.FenceAt(l.text); fence.Size > 0 || strings.HasPrefix(strings.TrimSpace(l.text), "```") {
			return append(out, p.markdown(lines)...)
		}
		if i > 0 {
			b.WriteByte('\n')
		}
		b.WriteString(l.text)
	}
	if len(lines) == 0 {
		return out
	}
	span := source.Span{Start: lines[0].at, End: max(lines[0].at, lines[len(lines)-1].span().End)}
	return append(out, prose.Node{Kind: prose.CodeBlock, Text: b.String(), Info: "typescript", Span: span})
}

// repeated says which parameters are described twice.
func (p *parser) repeated() {
	seen := map[string]bool{}
	for _, part := range p.out.Parts {
		if part.Kind == prose.Results && len(part.Entries) > 1 && part.Entries[1].Name == "" {
			p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.RepeatedSection, Span: part.Entries[1].Span, Text: "the result"})
		}
		if part.Kind != prose.Parameters && part.Kind != prose.Fields && part.Kind != prose.TypeParameters {
			continue
		}
		for _, e := range part.Entries {
			key := prose.PartNames[part.Kind] + " " + e.Name
			if e.Name != "" && seen[key] {
				p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.RepeatedSection, Span: e.Span, Text: e.Name})
			}
			seen[key] = true
		}
	}
}
