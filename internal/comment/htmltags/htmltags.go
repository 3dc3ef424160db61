// Package htmltags reads the doc comments of Java: HTML with block tags ("@param depth how
// deep") and inline tags ("{@link Berth#moor}"), by the language's Documentation Comment
// Specification.
//
// It turns text into the prose tree and named sections and resolves nothing.
package htmltags

import (
	"sort"
	"strings"

	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
	"codrel/internal/prose/markup"
	"codrel/internal/prose/snippet"
	"codrel/internal/source"
)

// Parse reads one comment. own are words of the maintainer's.
func Parse(doc *model.Doc, own prose.Vocabulary) *prose.Sections {
	p := &parser{text: doc.Text, places: doc.Places(), own: own, out: &prose.Sections{}, endings: map[string]found{}}
	p.pairBraces()
	from, word := 0, ""
	at := 0
	starts := p.places.Starts()
	for _, start := range starts {
		begin := start
		for begin < len(p.text) && (p.text[begin] == ' ' || p.text[begin] == '\t') {
			begin++
		}
		name := tagAt(p.text, begin)
		if name == "" || p.within(begin) {
			continue
		}
		p.block(word, at, from, start)
		word, at, from = name, begin, begin+1+len(name)
	}
	p.block(word, at, from, len(p.text))
	return p.out
}

// MayTake reports whether a comment may say that some of its text is another's.
func MayTake(doc *model.Doc) bool { return strings.Contains(doc.Text, "{@inheritDoc") }

type parser struct {
	text    string
	own     prose.Vocabulary
	out     *prose.Sections
	places  model.Places
	closes  map[int]int      // the brace that closes an inline tag, by the one that opens it
	tags    []source.Span    // inline tags that nothing else stands around
	endings map[string]found // of elements, by their name
	unknown map[string]bool  // elements that there are not, which were opened
}

// pairBraces finds where inline tags end: the braces within them have partners.
func (p *parser) pairBraces() {
	p.closes = map[int]int{}
	var open []int
	for i := range len(p.text) {
		switch p.text[i] {
		case '{':
			open = append(open, i)
		case '}':
			if n := len(open) - 1; n >= 0 {
				if p.closes[open[n]] = i; strings.HasPrefix(p.text[open[n]:], "{@") {
					for len(p.tags) > 0 && int(p.tags[len(p.tags)-1].Start) > open[n] {
						p.tags = p.tags[:len(p.tags)-1]
					}
					p.tags = append(p.tags, source.NewSpan(open[n], i+1))
				}
				open = open[:n]
			}
		}
	}
}

// within reports whether an offset stands in an inline tag.
func (p *parser) within(at int) bool {
	i := sort.Search(len(p.tags), func(i int) bool { return int(p.tags[i].End) > at })
	return i < len(p.tags) && int(p.tags[i].Start) < at
}

// tagAt is the word of the block tag at an offset, or "".
func tagAt(text string, at int) string {
	if at+1 >= len(text) || text[at] != '@' || !markup.IsLetter(text[at+1]) {
		return ""
	}
	end := at + 1
	for end < len(text) && (markup.IsLetter(text[end]) || strings.IndexByte("0123456789.-_", text[end]) >= 0) {
		end++
	}
	return strings.TrimRight(text[at+1:end], ".-")
}

func (p *parser) span(from, to int) source.Span { return p.places.Span(from, to) }

// trimmed are the offsets of a piece of the text without the blanks at its ends.
func (p *parser) trimmed(from, to int) (int, int) { return markup.Trimmed(p.text, from, to) }

// first cuts the first word off a piece of the text.
func (p *parser) first(from, to int) (word string, at, rest int) {
	from, to = p.trimmed(from, to)
	end := from
	for end < to && strings.IndexByte(" \t\r\n", p.text[end]) < 0 {
		end++
	}
	return p.text[from:end], from, end
}

// titles are the headings of tags whose text is shown under one.
var titles = map[string]string{
	"apiNote": "API note", "implSpec": "Implementation requirements", "implNote": "Implementation note",
	"serial": "Serial form", "serialData": "Serial data", "serialField": "Serial fields", "hidden": "", "spec": "Specification", "uses": "Uses", "provides": "Provides", "revised": "", "toolGuide": "See tool guide",
}

// words are the block tags, for those that are nearly one.
var words = []string{"param", "return", "throws", "exception", "see", "since", "deprecated", "author", "version", "serial", "serialData", "serialField", "apiNote", "implSpec", "implNote"}

// block keeps what one block tag, whose word stands at an offset, says between two others;
// no word stands for the text before the first.
func (p *parser) block(word string, at, from, to int) {
	from, to = p.trimmed(from, to)
	span := p.span(at, at+1+len(word))
	if word != "" && p.ownWord(word, span, from, to) {
		return
	}
	switch word {
	case "":
		p.out.Body = append(p.out.Body, p.blocks(from, to)...)
	case "param":
		name, begin, rest := p.first(from, to)
		kind := prose.Parameters
		if strings.HasPrefix(name, "<") && strings.HasSuffix(name, ">") && len(name) > 2 {
			kind, name, begin = prose.TypeParameters, name[1:len(name)-1], begin+1
		}
		p.entry(kind, span, prose.Entry{Name: name, Span: p.span(begin, begin+len(name)), Text: p.blocks(rest, to)})
	case "return":
		p.entry(prose.Results, span, prose.Entry{Span: span, Text: p.blocks(from, to)})
	case "throws", "exception":
		name, begin, rest := p.first(from, to)
		p.entry(prose.Failures, span, prose.Entry{Name: name, Span: p.span(begin, begin+len(name)), Text: p.blocks(rest, to)})
	case "since":
		if text := p.text[from:to]; !strings.ContainsAny(text, " \n{<&") {
			p.entry(prose.Since, span, prose.Entry{Name: text, Span: p.span(from, to)})
			return
		}
		p.entry(prose.Since, span, prose.Entry{Span: span, Text: p.blocks(from, to)})
	case "author", "version":
		if from == to {
			return
		}
		kind := prose.Authors
		if word == "version" {
			kind = prose.Version
		}
		p.entry(kind, span, prose.Entry{Span: p.span(from, to), Text: p.blocks(from, to)})
	case "see":
		part := p.part(prose.SeeAlso, span)
		part.Body = append(part.Body, p.see(from, to)...)
	case "deprecated":
		p.out.Obsolete = true
		p.out.Deprecated = append(p.out.Deprecated, p.blocks(from, to)...)
	default:
		title, known := titles[word]
		if !known {
			near := nearest.Word(word, words)
			if near != "" {
				near = "@" + near
			}
			p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.UnknownWord, Span: span, Text: "@" + word, Near: near})
			p.labelled(word, span, from, to)
			return
		}
		if title != "" && to > from {
			p.other(title, span, p.blocks(from, to))
		}
	}
}

// ownWord keeps what a tag with a word of the maintainer's says, and reports whether it is one.
func (p *parser) ownWord(word string, span source.Span, from, to int) bool {
	meaning := p.own.Of(word)
	kind, section := prose.PartNamed(meaning)
	switch {
	case meaning == "":
		return false
	case meaning == prose.MeansIgnored:
	case meaning == prose.MeansLabel:
		p.labelled(word, span, from, to)
	case meaning == prose.MeansDeprecated:
		p.out.Obsolete = true
		p.out.Deprecated = append(p.out.Deprecated, p.blocks(from, to)...)
	case section:
		part := p.part(kind, span)
		part.Body = append(part.Body, p.blocks(from, to)...)
	default:
		p.out.Body = append(p.out.Body, p.blocks(from, to)...)
	}
	return true
}

// labelled keeps a text behind the word of its tag.
func (p *parser) labelled(word string, span source.Span, from, to int) {
	text := p.blocks(from, to)
	if len(text) == 0 {
		return
	}
	head := prose.Node{Kind: prose.Strong, Span: span, Children: []prose.Node{{Kind: prose.Text, Text: word, Span: span}}}
	if text[0].Kind == prose.Paragraph {
		text[0].Children = append([]prose.Node{head, {Kind: prose.Text, Text: ": ", Span: span}}, text[0].Children...)
	} else {
		text = append([]prose.Node{{Kind: prose.Paragraph, Span: span, Children: []prose.Node{head}}}, text...)
	}
	p.out.Body = append(p.out.Body, text...)
}

// part is the section of a kind, in which all tags of that kind gather.
func (p *parser) part(kind prose.PartKind, span source.Span) *prose.Part {
	return p.out.Gather(kind, "", span)
}

func (p *parser) entry(kind prose.PartKind, span source.Span, e prose.Entry) {
	p.out.Enter(kind, span, e)
}

// other keeps a text under a title of its own, once, however often its tag stands.
func (p *parser) other(title string, span source.Span, text []prose.Node) {
	part := p.out.Gather(prose.Other, title, span)
	part.Body = append(part.Body, text...)
}

// see reads the three forms of "@see": a text in quotes, a link, and a name with or without
// a label.
func (p *parser) see(from, to int) []prose.Node {
	if from == to {
		return nil
	}
	if c := p.text[from]; c == '"' || c == '<' || strings.HasPrefix(p.text[from:], "{@") {
		return p.blocks(from, to)
	}
	if strings.HasPrefix(p.text[from:to], "##") {
		if label, stop := p.trimmed(p.nameEnd(from, to), to); label < stop {
			from = label
		}
		return p.blocks(from, to)
	}
	return []prose.Node{{Kind: prose.Paragraph, Span: p.span(from, to), Children: []prose.Node{p.reference(from, to, true)}}}
}

// reference makes a reference of "Name label", whose label may be missing.
func (p *parser) reference(from, to int, code bool) prose.Node {
	from, to = p.trimmed(from, to)
	end := p.nameEnd(from, to)
	written := p.text[from:end]
	span := p.span(from, max(end, from))
	n := prose.Node{Kind: prose.Reference, Strict: true, MayBeExternal: true, Target: snippet.Target(written), Span: span}
	if label, stop := p.trimmed(end, to); label < stop {
		n.Children = p.inlines(label, stop)
		return n
	}
	shown := prose.Node{Kind: prose.Text, Text: display(written), Span: span}
	if code {
		shown.Kind = prose.Code
	}
	n.Children = []prose.Node{shown}
	return n
}

// nameEnd is the offset behind the name that a reference begins with: blanks may stand in its
// brackets.
func (p *parser) nameEnd(from, to int) int {
	end, depth := from, 0
	for ; end < to; end++ {
		c := p.text[end]
		if c == '(' || c == '<' {
			depth++
		} else if (c == ')' || c == '>') && depth > 0 {
			depth--
		} else if depth == 0 && strings.IndexByte(" \t\r\n", c) >= 0 {
			break
		}
	}
	return end
}

// display is how a reference without a label reads.
func display(written string) string {
	return strings.ReplaceAll(strings.TrimLeft(strings.Join(strings.Fields(written), " "), "#"), "#", ".")
}
