package docstring

import (
	"strings"

	"codrel/internal/prose"
	"codrel/internal/source"
)

// This file finds the named sections of a docstring and the entries in them.

// sections goes through the lines; what belongs to no section is the body.
func (p *parser) sections() {
	start, fenced := 0, false
	flush := func(to int) {
		p.out.Body = append(p.out.Body, p.blocks(p.lines[start:to], 0)...)
	}
	for i := 0; i < len(p.lines); {
		l := p.lines[i]
		if strings.HasPrefix(strings.TrimLeft(l.text, " "), "```") {
			fenced = !fenced
		}
		end := i
		if !fenced {
			end = p.section(i, flush)
		}
		if end > i {
			start, i = end, end
			continue
		}
		i++
	}
	flush(len(p.lines))
	p.settle()
}

// section reads the section or field that begins at a line, after what stands
// before it was put out. It returns the line behind, or i where none begins there.
func (p *parser) section(i int, flush func(to int)) int {
	if kind, title, ok := p.headed(i); ok {
		flush(i)
		end := p.endOfIndented(i+1, p.lines[i].indent())
		p.within(func() { p.read(kind, title, p.lines[i+1:end], false) })
		return end
	}
	if kind, title, ok := p.underlined(i); ok {
		flush(i)
		end := p.endOfUnderlined(i)
		p.within(func() { p.read(kind, title, p.lines[i+2:end], true) })
		return end
	}
	if f, ok := p.fieldAt(i); ok {
		flush(i)
		end := p.endOfIndented(i+1, p.lines[i].indent())
		// What stands behind an empty line and no deeper than the list is no part of it.
		p.within(func() { p.field(f, p.lines[i:end]) })
		return end
	}
	return i
}

// endOfUnderlined is behind a section whose title stands at a line: before the
// next title that is underlined as it is or has a meaning of its own. Others are
// titles within the section.
func (p *parser) endOfUnderlined(i int) int {
	mark := strings.TrimSpace(p.lines[i+1].text)[0]
	end := i + 2
	for ; end < len(p.lines); end++ {
		if p.lines[end-1].blank() && p.lines[end].indent() <= p.lines[i].indent() && !p.lines[end].blank() {
			if _, ok := p.fieldAt(end); ok {
				break // fields speak of the whole
			}
		}
		if !p.titleAt(end) {
			continue
		}
		if strings.TrimSpace(p.lines[end+1].text)[0] == mark {
			break
		}
		if _, known := p.heading(strings.TrimSuffix(strings.TrimSpace(p.lines[end].text), ":")); known {
			break
		}
	}
	return end
}

// endOfIndented is the index behind the lines that stand further right than a column.
func (p *parser) endOfIndented(i, column int) int {
	end := i
	for ; i < len(p.lines); i++ {
		if p.lines[i].blank() {
			continue
		}
		if p.lines[i].indent() <= column {
			break
		}
		end = i + 1
	}
	return end
}

// headed reads a line such as "Args:" that text stands deeper below.
func (p *parser) headed(i int) (prose.PartKind, line, bool) {
	l := p.lines[i]
	text := strings.TrimSpace(l.text)
	word, ok := strings.CutSuffix(text, ":")
	if !ok || word == "" || word[0] < 'A' || word[0] > 'Z' || strings.HasSuffix(word, ":") {
		return 0, l, false
	}
	next := i + 1
	for next < len(p.lines) && p.lines[next].blank() {
		next++
	}
	if next == len(p.lines) || p.lines[next].indent() <= l.indent() {
		return 0, l, false
	}
	at := l.indent()
	title := l.from(at).to(len(word))
	kind, known := p.heading(word)
	if !known && !strings.Contains(word, " ") && len(word) > 3 && next == i+1 {
		if near := nearHeading(strings.ToLower(word)); near != "" && word != strings.ToUpper(word) {
			p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.UnknownWord, Span: title.span(), Text: word, Near: strings.ToUpper(near[:1]) + near[1:]})
			return prose.Other, title, true
		}
	}
	return kind, title, known
}

// titleAt reports whether a line is underlined.
func (p *parser) titleAt(i int) bool {
	if i+1 >= len(p.lines) {
		return false
	}
	l, under := p.lines[i], p.lines[i+1]
	if l.blank() || l.text[l.indent()] == '>' || l.indent() != under.indent() && !p.slipped(l, under) {
		return false
	}
	line := strings.TrimSpace(under.text)
	return len(line) >= 3 && (strings.Trim(line, "-") == "" || strings.Trim(line, "=") == "" || strings.Trim(line, "~") == "") &&
		strings.Trim(l.text, " -=~") != "" && len(line) >= len(strings.TrimSpace(l.text))-2
}

// slipped reports whether the word of a section stands a blank or two beside its underline.
func (p *parser) slipped(title, under line) bool {
	const most = 2
	_, known := p.heading(strings.TrimSuffix(strings.ToLower(strings.TrimSpace(title.text)), ":"))
	by := title.indent() - under.indent()
	return known && -most <= by && by <= most
}

func (p *parser) underlined(i int) (prose.PartKind, line, bool) {
	if !p.titleAt(i) || p.markdown && p.lines[i].indent() > 0 {
		return 0, line{}, false
	}
	title := p.lines[i].from(p.lines[i].indent())
	word := strings.TrimSuffix(strings.ToLower(title.text), ":")
	if kind, ok := p.heading(word); ok {
		return kind, title, true
	}
	if near := nearHeading(word); near != "" && len(word) > 3 && !strings.Contains(word, " ") && !strings.Contains(near, " ") {
		p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.UnknownWord, Span: title.span(), Text: title.text, Near: strings.ToUpper(near[:1]) + near[1:]})
		return prose.Other, title, true
	}
	return 0, title, false
}

// read makes a part of the lines of a section.
func (p *parser) read(kind prose.PartKind, title line, lines []line, underlined bool) {
	if p.own.Of(title.text) == prose.MeansIgnored {
		return
	}
	part := prose.Part{Kind: kind, Title: title.text, Span: title.span()}
	lines = dedented(lines)
	switch kind {
	case prose.Parameters, prose.TypeParameters, prose.Fields, prose.Failures, prose.Warnings:
		part.Entries, lines = p.entries(kind, lines, underlined)
		part.Body = p.blocks(lines, 0)
	case prose.Results, prose.Series:
		part.Entries = p.results(lines, underlined)
	case prose.SeeAlso:
		part.Body = p.seeAlso(lines, 0)
	default:
		part.Body = p.blocks(lines, 0)
	}
	p.out.Parts = append(p.out.Parts, part)
}

// dedented is the lines without what all are indented by.
func dedented(lines []line) []line {
	margin := -1
	for _, l := range lines {
		if !l.blank() && (margin < 0 || l.indent() < margin) {
			margin = l.indent()
		}
	}
	if margin <= 0 {
		return lines
	}
	out := make([]line, len(lines))
	for i, l := range lines {
		if out[i] = l; !l.blank() {
			out[i] = l.from(margin)
		}
	}
	return out
}

// entries reads "name (type): text" or, underlined, "name : type" with the text
// below. What stands before the first entry comes back as rest.
func (p *parser) entries(kind prose.PartKind, lines []line, underlined bool) (out []prose.Entry, rest []line) {
	for i := 0; i < len(lines); {
		if lines[i].blank() {
			i++
			continue
		}
		e, first, ok := p.entry(kind, lines[i], underlined)
		if !ok || lines[i].indent() > 0 {
			if len(out) == 0 {
				return nil, lines
			}
			// Text at the margin goes on with the entry above it: nothing is lost.
			end := i + 1
			for end < len(lines) && (lines[end].blank() || lines[end].indent() > 0 || !p.isEntry(kind, lines[end], underlined)) {
				end++
			}
			last := &out[len(out)-1]
			last.Text = append(last.Text, p.blocks(dedented(lines[i:end]), 0)...)
			i = end
			continue
		}
		end := i + 1
		for end < len(lines) && (lines[end].blank() || lines[end].indent() > 0) {
			end++
		}
		e.Text = p.described(first, lines[i+1:end])
		out = append(out, e)
		i = end
	}
	return out, nil
}

// entry reads the line that an entry begins with, and what of its text stands there.
func (p *parser) entry(kind prose.PartKind, l line, underlined bool) (e prose.Entry, first line, ok bool) {
	if underlined {
		e, ok = p.namedAbove(kind, l)
		return e, line{}, ok
	}
	return p.namedBefore(kind, l)
}

func (p *parser) isEntry(kind prose.PartKind, l line, underlined bool) bool {
	_, _, ok := p.entry(kind, l, underlined)
	return ok
}

// described makes blocks of the text behind a name and the lines below it.
func (p *parser) described(first line, below []line) []prose.Node {
	below = dedented(below)
	if first.blank() {
		return p.blocks(below, 0)
	}
	return p.blocks(append([]line{first}, below...), 0)
}

// namedBefore reads "name (type, optional): text".
func (p *parser) namedBefore(kind prose.PartKind, l line) (e prose.Entry, first line, ok bool) {
	colon := outsideBrackets(l.text, ':')
	if colon < 0 {
		if kind == prose.Failures && isName(l.text) {
			return prose.Entry{Name: l.text, Span: l.span()}, line{}, true
		}
		return e, first, false
	}
	head := strings.TrimRight(l.text[:colon], " ")
	name, typ := head, ""
	typeAt := 0
	if open := strings.IndexByte(head, '('); open > 0 && strings.HasSuffix(head, ")") {
		name, typ, typeAt = strings.TrimRight(head[:open], " "), head[open+1:len(head)-1], open+1
	}
	shown := strings.Trim(name, "`")
	if kind == prose.Failures {
		shown = unrolled(shown)
	}
	if !areNames(shown) {
		return e, first, false
	}
	e = prose.Entry{Name: shown}
	nameAt := strings.Index(l.text, shown)
	e.Span = l.from(nameAt).to(len(shown)).span()
	if typ != "" {
		p.typed(&e, l.from(typeAt).to(len(typ)))
	}
	rest := l.from(colon + 1)
	return e, rest.from(rest.indent()), true
}

// namedAbove reads "name : type, optional", the head of an underlined section's entry.
func (p *parser) namedAbove(kind prose.PartKind, l line) (prose.Entry, bool) {
	name, typ, typeAt := l.text, "", 0
	if colon := outsideBrackets(l.text, ':'); colon >= 0 {
		if _, note := admonitions[strings.ToLower(l.text[:colon])]; note && colon+1 < len(l.text) {
			return prose.Entry{}, false // "Note: text" names nothing
		}
		name, typ, typeAt = strings.TrimRight(l.text[:colon], " "), l.text[colon+1:], colon+1
	}
	shown := strings.Trim(name, "`")
	if kind == prose.Failures {
		shown = unrolled(shown)
	}
	if !areNames(shown) {
		return prose.Entry{}, false
	}
	e := prose.Entry{Name: shown}
	e.Span = l.from(max(0, strings.Index(l.text, shown))).to(len(shown)).span()
	if strings.TrimSpace(typ) != "" {
		t := l.from(typeAt)
		p.typed(&e, t.from(t.indent()))
	}
	return e, true
}

// typed sets what is said of an entry's type, "optional" and "default" included.
func (p *parser) typed(e *prose.Entry, l line) {
	end := len(l.text)
	if comma := outsideBrackets(l.text, ','); comma >= 0 {
		for rest := comma; rest >= 0 && rest < len(l.text); {
			word := strings.TrimSpace(l.text[rest+1:])
			if word == "optional" || strings.HasPrefix(word, "optional,") || strings.HasPrefix(word, "default") || strings.HasPrefix(word, "keyword-only") {
				e.Optional = strings.HasPrefix(word, "optional") || strings.HasPrefix(word, "default")
				if _, value, ok := strings.Cut(word, "default"); ok {
					e.Default = bareDefault(value)
				}
				end = rest
				break
			}
			next := outsideBrackets(l.text[rest+1:], ',')
			if next < 0 {
				break
			}
			rest += 1 + next
		}
	}
	if strings.TrimSpace(l.text) == "optional" {
		e.Optional = true
		return
	}
	e.Type = p.typeNodes(l.to(end))
}

// bareDefault is a default value as it reads: without the sign before it and the
// quotes and roles around names.
func bareDefault(value string) string {
	value = strings.TrimSpace(value)
	for _, sign := range []string{": ", "is ", "= ", "=", ":"} {
		if rest, ok := strings.CutPrefix(value, sign); ok && !strings.Contains(strings.SplitN(value, "`", 2)[0][1:], ":") {
			value = strings.TrimSpace(rest)
			break
		}
	}
	if rest, ok := strings.CutPrefix(value, ":"); ok { // ":rc:`name`"
		if _, quoted, ok := strings.Cut(rest, ":`"); ok {
			value = quoted
		}
	}
	return strings.TrimRight(strings.ReplaceAll(value, "`", ""), ".")
}

// results reads what is given back: "type: text", or text alone.
func (p *parser) results(lines []line, underlined bool) []prose.Entry {
	for len(lines) > 0 && lines[0].blank() {
		lines = lines[1:]
	}
	if len(lines) == 0 {
		return nil
	}
	if !underlined {
		l := lines[0]
		if colon := outsideBrackets(l.text, ':'); colon > 0 && readsLikeType(l.text[:colon]) {
			e := prose.Entry{Type: p.typeNodes(l.to(colon)), Span: l.to(colon).span()}
			rest := l.from(colon + 1)
			e.Text = p.described(rest.from(rest.indent()), lines[1:])
			return []prose.Entry{e}
		}
		return []prose.Entry{{Text: p.blocks(lines, 0)}}
	}
	var out []prose.Entry
	for i := 0; i < len(lines); {
		if lines[i].blank() {
			i++
			continue
		}
		end := i + 1
		for end < len(lines) && (lines[end].blank() || lines[end].indent() > 0) {
			end++
		}
		l := lines[i]
		var e prose.Entry
		if colon := strings.Index(l.text, " : "); colon > 0 && isName(l.text[:colon]) {
			e.Name, e.Span = l.text[:colon], l.to(colon).span()
			e.Type = p.typeNodes(l.from(colon + 3))
			e.Text = p.blocks(dedented(lines[i+1:end]), 0)
		} else if end > i+1 || readsLikeType(l.text) {
			e.Type, e.Span = p.typeNodes(l), l.span()
			e.Text = p.blocks(dedented(lines[i+1:end]), 0)
		} else { // a plain text, to where the next one begins
			for end < len(lines) && !lines[end].blank() && lines[end].indent() == 0 {
				end++
			}
			e.Text = p.blocks(lines[i:end], 0)
		}
		out = append(out, e)
		i = end
	}
	return out
}

// outsideBrackets is the offset of the first such byte that is in no brackets,
// quotes or role, or -1. A colon counts where it ends a word.
func outsideBrackets(s string, mark byte) int {
	depth := 0
	for i := 0; i < len(s); i++ {
		switch c := s[i]; {
		case c == '(' || c == '[' || c == '{':
			depth++
		case c == ')' || c == ']' || c == '}':
			depth = max(0, depth-1)
		case c == '`':
			if end := strings.IndexByte(s[i+1:], '`'); end >= 0 {
				i += end + 1
			}
		case c == mark && depth == 0:
			if mark != ':' || i+1 == len(s) || s[i+1] == ' ' {
				return i
			}
			if i == 0 { // ":class:`Name`"
				i += max(0, strings.Index(s[1:], ":`"))
			}
		}
	}
	return -1
}

// areNames reports whether a text is a name or several with commas between them.
func areNames(s string) bool {
	if s == "" {
		return false
	}
	for name := range strings.SplitSeq(s, ",") {
		name = strings.TrimSpace(name)
		name = strings.TrimLeft(strings.TrimPrefix(strings.TrimPrefix(name, `\*`), `\*`), "*")
		if name != "..." && !isName(name) {
			return false
		}
	}
	return true
}

// isName reports whether a text is an identifier, maybe with dots.
func isName(s string) bool {
	if s == "" || s[0] >= '0' && s[0] <= '9' || s[0] == '.' {
		return false
	}
	for i := 0; i < len(s); i++ {
		if c := s[i]; c != '_' && c != '.' && (c < '0' || c > '9') && (c|0x20 < 'a' || c|0x20 > 'z') && c < 0x80 {
			return false
		}
	}
	return true
}

// readsLikeType reports whether a text is more likely a type than a sentence.
func readsLikeType(s string) bool {
	s = strings.TrimSpace(s)
	if s == "" || strings.HasSuffix(s, ".") && s != "..." {
		return false
	}
	depth, words := 0, 1
	for i := 0; i < len(s); i++ {
		switch s[i] {
		case '[', '(':
			depth++
		case ']', ')':
			depth--
		case ' ':
			if depth == 0 && (i == 0 || strings.IndexByte("|,", s[i-1]) < 0) && (i+1 == len(s) || s[i+1] != '|') {
				words++
			}
		}
	}
	return words <= 3 && !strings.Contains(s, "  ")
}

// unrolled is the name in a role such as ":class:`Name`".
func unrolled(s string) string {
	if !strings.HasPrefix(s, ":") {
		return s
	}
	if i := strings.Index(s, ":`"); i > 0 {
		s = strings.Trim(s[i+1:], "`")
	}
	return strings.TrimLeft(s, "~!")
}

// spanOf is from the start of the first line to the end of the last.
func spanOf(lines []line) source.Span {
	if len(lines) == 0 {
		return source.Span{}
	}
	return source.Span{Start: lines[0].at, End: max(lines[0].at, lines[len(lines)-1].span().End)}
}
