// Package docstring reads the docstrings of Python (PEP 257): reStructuredText as
// far as docstrings use it, field lists, and sections that are headed with a
// colon or underlined. Where a text plainly is Markdown, it is read as that.
//
// It turns text into the prose tree and named sections and resolves nothing.
package docstring

import (
	"sort"
	"strings"
	"unicode"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// Parse reads one docstring. own are words of the maintainer's.
func Parse(doc *model.Doc, own prose.Vocabulary) *prose.Sections {
	p := &parser{lines: linesOf(doc), out: &prose.Sections{}, own: own}
	p.markdown = plainlyMarkdown(p.lines)
	if p.markdown {
		p.findDefinitions()
	}
	if strings.Contains(doc.Text, ".. ") {
		p.findTargets()
		p.find()
	}
	p.sections()
	p.repeated()
	p.ofBase()
	return p.out
}

// longestTaking is how long a docstring is at most that says nothing but that its
// text is the base class's.
const longestTaking = 80

// MayTake reports whether a docstring may say that its text is the base class's.
func MayTake(doc *model.Doc) bool {
	return len(doc.Text) <= longestTaking && strings.Contains(strings.ToLower(doc.Text), "class")
}

// ofBase reads a docstring that says nothing but that the text is the base class's.
func (p *parser) ofBase() {
	if len(p.out.Body) != 1 || p.out.Body[0].Kind != prose.Paragraph || len(p.out.Parts) > 0 {
		return
	}
	body := &p.out.Body[0]
	switch strings.ToLower(strings.TrimRight(prose.Plain(body.Children), ".")) {
	case "see base class", "see the base class", "see parent class", "see superclass":
		body.Children = []prose.Node{{Kind: prose.Inherited, Span: body.Span, Children: body.Children}}
	}
}

type parser struct {
	lines    []line
	out      *prose.Sections
	own      prose.Vocabulary
	markdown bool
	fields   map[prose.PartKind]int // index in out.Parts, from 1, of parts made of field lists
	types    map[string][]prose.Node
	resultOf []prose.Node // type of the result, where a field of its own gives it

	targets   map[string]string // addresses by the names that the text gives them
	anonymous []string          // those without a name, in their order

	inside        int               // of sections and entries: how deep
	numbered      []string          // labels of footnotes that are counted, in their order
	taken         map[int]bool      // numbers that footnotes are written with
	counted       map[string][]int  // numbers of those that are counted
	defined       map[string]int    // how many footnotes of a label came
	referred      map[string]int    // and how many references to one
	substitutions map[string]string // what names between bars stand for
	definitions   string            // the lines of Markdown that say where links lead
}

// line is one line: its text, and where that stands in the file.
type line struct {
	text string
	at   int32
	last int32 // where the line ends in the file
	cuts []cut
}

// cut is a place in a line's text behind which the file has more bytes than the text.
type cut struct {
	at, bytes int32
	all       int32 // bytes of this cut and of all before it
}

// cutAt appends a cut to others, which stand before it.
func cutAt(cuts []cut, at, bytes int32) []cut {
	all := bytes
	if n := len(cuts); n > 0 {
		all += cuts[n-1].all
	}
	return append(cuts, cut{at, bytes, all})
}

func (l line) blank() bool { return l.text == "" }

func (l line) indent() int { return len(l.text) - len(strings.TrimLeft(l.text, " ")) }

// offset is the place in the file of an offset in the text.
func (l line) offset(i int) int32 {
	at := l.at + int32(i)
	if before := sort.Search(len(l.cuts), func(n int) bool { return l.cuts[n].at >= int32(i) }); before > 0 {
		at += l.cuts[before-1].all
	}
	return max(min(at, l.last), 0)
}

func (l line) span() source.Span { return source.Span{Start: l.at, End: l.offset(len(l.text))} }

// from drops n bytes from the left.
func (l line) from(n int) line {
	n = min(n, len(l.text))
	out := line{text: l.text[n:], at: l.offset(n), last: l.last}
	for _, c := range l.cuts {
		if c.at >= int32(n) {
			out.cuts = cutAt(out.cuts, c.at-int32(n), c.bytes)
		}
	}
	return out
}

// to drops what stands behind n bytes.
func (l line) to(n int) line {
	l.text = l.text[:n]
	return l
}

// linesOf cuts a docstring into lines, tabs widened and escapes of the string
// literal replaced by what they stand for.
func linesOf(doc *model.Doc) []line {
	lines := make([]line, 0, len(doc.Lines))
	rest := doc.Text
	joins := false // the line before goes on in this one
	var run run
	for i := range doc.Lines {
		text, after, _ := strings.Cut(rest, "\n")
		rest = after
		l := line{text: text, at: doc.Lines[i].Start, last: doc.Lines[i].End}
		if strings.Contains(text, "\t") {
			l = widened(l)
		}
		open := joins
		joins = doc.Escaped && continues(text)
		if joins {
			l.text = l.text[:strings.LastIndexByte(l.text, '\\')]
		}
		first := len(lines)
		if doc.Escaped && strings.Contains(l.text, `\`) {
			lines = unescaped(lines, l)
		} else {
			if !joins {
				l.text = trimmedRight(l.text)
			}
			lines = append(lines, l)
		}
		if open && first > 0 && first < len(lines) {
			run.add(lines[:first], lines[first])
			if len(lines) > first+1 { // the string goes to a new line itself
				run.end(lines[:first])
			}
			lines = append(lines[:first], lines[first+1:]...)
		}
		if !joins {
			run.end(lines)
		}
	}
	run.end(lines)
	return lines
}

// run is a line that goes on in others: the text of a line as long as more is put to it.
type run struct {
	open bool
	text []byte
}

// add puts a line behind the last of the lines before it.
func (r *run) add(lines []line, next line) {
	to := &lines[len(lines)-1]
	if !r.open {
		r.open, r.text = true, append(r.text[:0], to.text...)
	}
	at := int32(len(r.text))
	if missing := next.at - to.at - at - to.ahead(); missing != 0 {
		to.cuts = cutAt(to.cuts, at-1, missing)
	}
	for _, c := range next.cuts {
		to.cuts = cutAt(to.cuts, c.at+at, c.bytes)
	}
	r.text = append(r.text, next.text...)
	to.last = next.last
}

// end gives the last of the lines its text.
func (r *run) end(lines []line) {
	if r.open {
		lines[len(lines)-1].text, r.open = string(r.text), false
	}
}

// continues reports whether the last backslash of a line stands for its end: the string
// goes on as if there were none.
func continues(text string) bool {
	n := len(text) - len(strings.TrimRight(text, `\`))
	return n%2 == 1
}

// ahead is how many bytes the file has beyond those of the text.
func (l line) ahead() int32 {
	if n := len(l.cuts); n > 0 {
		return l.cuts[n-1].all
	}
	return 0
}

// trimmedRight is a text without white space at its end; one of nothing else is empty.
func trimmedRight(s string) string { return strings.TrimRightFunc(s, unicode.IsSpace) }

// widened replaces tabs at the start of a line by blanks up to the next column
// of eight, and others by one blank.
func widened(l line) line {
	var b strings.Builder
	leading := true
	for i := 0; i < len(l.text); i++ {
		if l.text[i] != '\t' {
			leading = leading && l.text[i] == ' '
			b.WriteByte(l.text[i])
			continue
		}
		width := 1
		if leading {
			width = 8 - b.Len()%8
		}
		b.WriteString(strings.Repeat(" ", width))
		if width > 1 {
			l.cuts = cutAt(l.cuts, int32(b.Len())-1, int32(1-width))
		}
	}
	l.text = b.String()
	return l
}

// unescaped appends the lines that a line of a string literal stands for.
func unescaped(lines []line, l line) []line {
	var b strings.Builder
	out := line{at: l.at, last: l.last}
	ahead := int32(0) // bytes that the cuts so far make up for
	flush := func(next int32) {
		out.text = trimmedRight(b.String())
		lines = append(lines, out)
		b.Reset()
		out, ahead = line{at: next, last: l.last}, 0
	}
	// reach notes that what was written so far stands for the text up to an offset.
	reach := func(i int) {
		if missing := l.offset(i) - out.at - int32(b.Len()) - ahead; missing != 0 {
			out.cuts = cutAt(out.cuts, int32(b.Len())-1, missing)
			ahead += missing
		}
	}
	for i := 0; i < len(l.text); i++ {
		if l.text[i] != '\\' || i+1 == len(l.text) {
			b.WriteByte(l.text[i])
			reach(i + 1)
			continue
		}
		i++
		switch c := l.text[i]; c {
		case 'n':
			flush(l.offset(i + 1))
			continue
		case 't':
			b.WriteByte(' ')
		case '\\', '\'', '"':
			b.WriteByte(c)
		default:
			b.WriteByte('\\')
			b.WriteByte(c)
		}
		reach(i + 1)
	}
	flush(0)
	return lines
}

// plainlyMarkdown reports whether a text uses forms that Markdown has and
// reStructuredText has not: fences, links in brackets, headings with "#".
func plainlyMarkdown(lines []line) bool {
	for i, l := range lines {
		t := strings.TrimLeft(l.text, " ")
		switch {
		case strings.HasPrefix(t, "```") && !strings.HasPrefix(t, "````"):
			return true
		case strings.HasPrefix(t, "# ") || strings.HasPrefix(t, "## "), strings.HasPrefix(t, "### "):
			if l.indent() == 0 && i+1 < len(lines) && lines[i+1].blank() {
				return true
			}
		}
		if definesLink(t) || strings.HasPrefix(t, "|") && i+1 < len(lines) && isMarkdownRule(lines[i+1].text) {
			return true
		}
		if j := strings.Index(t, "]("); j > 0 && strings.Contains(t[:j], "[") && strings.Contains(t[j:], ")") {
			rest := t[j+2:]
			if strings.HasPrefix(rest, "http") || strings.HasPrefix(rest, "ref:") || strings.HasPrefix(rest, "#") || strings.HasPrefix(rest, "/") || strings.HasPrefix(rest, "./") {
				return true
			}
		}
	}
	return false
}

// definesLink reports whether a line says where a link of Markdown leads: "[name]: https://...".
func definesLink(text string) bool {
	if len(text) < 4 || text[0] != '[' {
		return false
	}
	end := strings.Index(text, "]: ")
	if end < 2 {
		return false
	}
	address := strings.TrimLeft(text[end+3:], " <")
	return strings.HasPrefix(address, "http://") || strings.HasPrefix(address, "https://") || strings.HasPrefix(address, "ref:")
}

// isMarkdownRule reports whether a line is the one below the head of a table: "|---|:-:|".
func isMarkdownRule(text string) bool {
	text = strings.TrimSpace(text)
	return strings.HasPrefix(text, "|") && strings.Contains(text, "--") && strings.Trim(text, "|-: ") == ""
}

// findDefinitions collects the lines that say where links lead: each part of a
// docstring is read alone, and refers to all of them.
func (p *parser) findDefinitions() {
	var b strings.Builder
	for _, l := range p.lines {
		if text := strings.TrimSpace(l.text); definesLink(text) && b.Len() < longestAddress {
			b.WriteString("\n" + text)
		}
	}
	p.definitions = b.String()
}

// within reads a part of a docstring: what it says of versions stays there.
func (p *parser) within(read func()) {
	p.inside++
	read()
	p.inside--
}

// repeated says which sections and which entries stand twice.
func (p *parser) repeated() {
	seen := map[string]bool{}
	flaw := func(e source.Span, text string) {
		p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.RepeatedSection, Span: e, Text: text})
	}
	for i := range p.out.Parts {
		part := &p.out.Parts[i]
		if part.Title != "" && part.Kind < prose.Notes {
			key := "section " + strings.ToLower(part.Title)
			if seen[key] {
				flaw(part.Span, part.Title)
				continue
			}
			seen[key] = true
		}
		if part.Kind != prose.Parameters && part.Kind != prose.TypeParameters && part.Kind != prose.Fields {
			continue
		}
		for _, e := range part.Entries {
			for name := range strings.SplitSeq(e.Name, ",") {
				name = strings.TrimSpace(name)
				if key := prose.PartNames[part.Kind] + " " + bareName(name); name != "" && seen[key] {
					flaw(e.Span, name)
				} else {
					seen[key] = true
				}
			}
		}
	}
}
