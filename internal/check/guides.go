package check

import (
	"codrel/internal/finding"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// placesOf makes places of the spans of a page.
func placesOf(page *model.Page) placer {
	return func(span source.Span) finding.Place {
		return finding.Place{File: page.Path, Span: span, At: page.Lines.Position(span.Start), End: page.Lines.Position(span.End)}
	}
}

// plain reports what of a page is shown as it is written.
func (p *Pass) plain(page *model.Page, spans []source.Span) {
	for _, span := range spans {
		p.report(nil, finding.Finding{Rule: finding.MalformedComment, Form: "plain", Place: placesOf(page)(source.Span{Start: span.Start, End: span.Start})})
	}
}

// page checks the references of a page that stands in no module.
func (p *Pass) page(page *model.Page, nodes []prose.Node) {
	placeOf := placesOf(page)
	prose.Walk(nodes, func(n *prose.Node) bool {
		if n.Kind == prose.Reference {
			p.broken(nil, placeOf(shownSpan(n)), n, link.Scope{})
			p.ambiguous(nil, placeOf(shownSpan(n)), n, link.Scope{})
		}
		return n.Kind != prose.Reference
	})
}

// pages checks the guides and the fragments; inserted are the fragments that
// comments insert.
func (p *Pass) pages(inserted []string, options Options) {
	for _, g := range p.Links.Guides() {
		if applies(options, finding.BrokenReference) || applies(options, finding.AmbiguousReference) {
			p.page(g.Page, g.Nodes)
		}
		if applies(options, finding.BrokenFragment) {
			p.inserts(nil, placesOf(g.Page), g.Nodes)
		}
		if applies(options, finding.MalformedComment) {
			p.plain(g.Page, g.Plain)
		}
	}
	p.fragments(append(inserted, p.inserted...), options)
}
