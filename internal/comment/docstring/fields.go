package docstring

import (
	"strings"

	"codrel/internal/prose"
)

// This file reads field lists: ":param name: text", and the same words behind "@".

// field is the head of one field.
type field struct {
	word     line // "param"
	argument line // "int depth", maybe empty
	text     line // behind the head
}

// fieldAt reads the head of a field.
func (p *parser) fieldAt(i int) (field, bool) {
	l := p.lines[i]
	l = l.from(l.indent())
	if len(l.text) < 3 || l.text[0] != ':' && l.text[0] != '@' {
		return field{}, false
	}
	end := outsideBrackets(l.text[1:], ':')
	if end < 1 {
		return field{}, false
	}
	end++
	inner := l.text[1:end]
	word, argument, _ := strings.Cut(inner, " ")
	if !isName(word) || strings.Contains(word, ".") || len(argument) > 200 {
		return field{}, false
	}
	_, known, bare := p.fieldWord(word)
	known = known || word == "type" || word == "rtype" || word == "vartype"
	if l.text[0] == '@' && !known && (argument != "" || !bare) {
		return field{}, false
	}
	if !known && i > 0 && !p.lines[i-1].blank() && !p.inList(i-1) {
		return field{}, false // a colon in the middle of a paragraph
	}
	f := field{word: l.from(1).to(len(word)), text: l.from(end + 1)}
	f.text = f.text.from(f.text.indent())
	if argument != "" {
		f.argument = l.from(1 + len(word) + 1).to(len(argument))
		f.argument = f.argument.from(f.argument.indent())
	}
	return f, true
}

// inList reports whether a line is a field or goes on with one.
func (p *parser) inList(i int) bool {
	for ; i >= 0 && !p.lines[i].blank(); i-- {
		if t := strings.TrimLeft(p.lines[i].text, " "); strings.HasPrefix(t, ":") || strings.HasPrefix(t, "@") {
			return true
		}
	}
	return false
}

// field keeps what one field says; lines are its own, the head first.
func (p *parser) field(f field, lines []line) {
	text := func() []prose.Node { return p.described(f.text, lines[1:]) }
	word := strings.ToLower(f.word.text)
	kind, known, bare := p.fieldWord(word)
	switch {
	case bare && p.own.Of(word) == prose.MeansIgnored:
	case bare && p.own.Of(word) == prose.MeansMark || p.own.Of(word) == prose.MeansText:
		p.out.Body = append(p.out.Body, text()...)
	case word == "type" || word == "vartype":
		if p.types == nil {
			p.types = map[string][]prose.Node{}
		}
		name := p.types[bareName(f.argument.text)]
		p.types[bareName(f.argument.text)] = append(name, p.typeNodes(typeLines(f, lines)...)...)
	case word == "rtype":
		p.resultOf = p.typeNodes(typeLines(f, lines)...)
	case word == "deprecated" || p.own.Of(word) == prose.MeansDeprecated:
		p.out.Obsolete = true
		p.out.Deprecated = append(p.out.Deprecated, text()...)
	case !known:
		p.unknownField(f, text())
	case kind == prose.Results || kind == prose.Series || kind == prose.Notes || kind == prose.Caution || kind == prose.SeeAlso || kind == prose.Since:
		part := p.part(kind)
		if kind == prose.SeeAlso {
			part.Body = append(part.Body, p.seeAlso(withFirst(f.text, dedented(lines[1:])), 0)...)
			return
		}
		e := prose.Entry{Text: text(), Span: f.word.span()}
		if kind == prose.Results || kind == prose.Series {
			part.Entries = append(part.Entries, e)
		} else {
			part.Body = append(part.Body, e.Text...)
		}
	default:
		e := prose.Entry{Text: text(), Name: unrolled(f.argument.text), Span: f.argument.span()}
		if kind == prose.Failures {
			p.failures(f, e)
			return
		}
		// ":param int depth:" says the type before the name.
		if i := strings.LastIndexByte(f.argument.text, ' '); i > 0 {
			e.Name, e.Span = f.argument.text[i+1:], f.argument.from(i+1).span()
			e.Type = p.typeNodes(f.argument.to(i))
		}
		if name, value, ok := strings.Cut(e.Name, "="); ok && name != "" { // ":param depth=3:"
			e.Name, e.Default = name, value
			e.Span.End = e.Span.Start + int32(len(name))
		}
		if e.Name == "" {
			e.Span = f.word.span()
		}
		part := p.part(kind)
		part.Entries = append(part.Entries, e)
	}
}

// typeLines are the lines of a field that says a type, up to an empty one.
func typeLines(f field, lines []line) []line {
	out := []line{f.text}
	for _, l := range dedented(lines[1:]) {
		if strings.TrimSpace(l.text) == "" {
			break
		}
		out = append(out, l)
	}
	return out
}

// failures keeps ":raises A: text", or the text alone where nothing is named.
func (p *parser) failures(f field, e prose.Entry) {
	part := p.part(prose.Failures)
	if f.argument.text == "" {
		part.Body = append(part.Body, e.Text...)
		return
	}
	part.Entries = append(part.Entries, e)
}

// unknownField keeps a field whose word says nothing here as a labelled
// paragraph. It is worth a word where it looks like one that was meant otherwise.
func (p *parser) unknownField(f field, text []prose.Node) {
	if near := nearField(strings.ToLower(f.word.text)); !bareFieldWords[strings.ToLower(f.word.text)] && p.own.Of(f.word.text) == "" && (near != "" || f.argument.text != "" && isName(f.argument.text)) {
		p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.UnknownWord, Span: f.word.span(), Text: f.word.text, Near: near})
	}
	label := f.word.text
	if f.argument.text != "" {
		label += " " + f.argument.text
	}
	p.out.Body = append(p.out.Body, labelled(prose.Label("", label+":", "", f.word.span()), text)...)
}

// part is the section that fields of a kind gather in.
func (p *parser) part(kind prose.PartKind) *prose.Part {
	if p.fields == nil {
		p.fields = map[prose.PartKind]int{}
	}
	if i := p.fields[kind]; i > 0 {
		return &p.out.Parts[i-1]
	}
	p.out.Parts = append(p.out.Parts, prose.Part{Kind: kind})
	p.fields[kind] = len(p.out.Parts)
	return &p.out.Parts[len(p.out.Parts)-1]
}

func bareName(s string) string { return strings.TrimLeft(strings.ReplaceAll(s, `\`, ""), "*") }

// settle gives entries the types that fields of their own say.
func (p *parser) settle() {
	for i := range p.out.Parts {
		part := &p.out.Parts[i]
		for j := range part.Entries {
			e := &part.Entries[j]
			e.Name = strings.ReplaceAll(e.Name, `\`, "")
			if t := p.types[bareName(e.Name)]; len(e.Type) == 0 && e.Name != "" && (part.Kind == prose.Parameters || part.Kind == prose.Fields) {
				e.Type = t
			}
			if part.Kind == prose.Results && len(e.Type) == 0 && p.resultOf != nil {
				e.Type, p.resultOf = p.resultOf, nil
			}
		}
	}
	if p.resultOf != nil {
		part := p.part(prose.Results)
		part.Entries = append(part.Entries, prose.Entry{Type: p.resultOf})
	}
}
