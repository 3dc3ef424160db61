package plan

import (
	"slices"
	"strings"

	"codrel/internal/link"
	"codrel/internal/prose"
	"codrel/internal/search"
)

// This file makes the search entries of guides: one for each part of a text below a heading.
// The words of a part are dealt out to several entries in the order of their letters, so that
// the data which one word leads to has not all the others in it.

// wordsOfEntry is how many words of a text one entry has.
const wordsOfEntry = 30

// section is the part of a guide below a heading; the first has none.
type section struct {
	title, anchor string
	text          strings.Builder
}

// guideEntries yields the entries of all guides and reports whether to go on.
func (p *Plan) guideEntries(yield func(search.Entry) bool) bool {
	for _, g := range p.Links.Guides() {
		for i, s := range p.sections(g) {
			e := search.Entry{Name: s.title, Module: g.Title, Kind: search.SectionKind, Address: Guide(g.Page)}
			if i == 0 {
				e.Name, e.Module, e.Kind, e.Summary = g.Title, g.Part, search.GuideKind, p.GuideSummary(g)
			} else {
				e.Address += "#s-" + s.anchor
			}
			if e.Name != "" && !dealOut(e, s.text.String(), yield) {
				return false
			}
		}
	}
	return true
}

// dealOut yields an entry for each part of the words of a text and reports whether to go on.
func dealOut(e search.Entry, text string, yield func(search.Entry) bool) bool {
	words := search.SummaryWords(text)
	slices.Sort(words)
	words = slices.Compact(words)
	for first := true; first || len(words) > 0; first = false {
		n := min(len(words), wordsOfEntry)
		e.Words, words = words[:n], words[n:]
		if !yield(e) {
			return false
		}
	}
	return true
}

// sections are the parts of a guide.
func (p *Plan) sections(g *link.Guide) []*section {
	out := []*section{{}}
	var slugs prose.Slugs
	p.Links.EachInserted(g.Body, func(n *prose.Node) {
		switch n.Kind {
		case prose.Heading:
			out = append(out, &section{title: prose.Line(n.Children), anchor: slugs.Next(prose.Slug(prose.Plain(n.Children)))})
		case prose.Text, prose.Code:
			out[len(out)-1].text.WriteString(n.Text + " ")
		}
	})
	return out
}
