package check

import (
	"math"
	"strconv"

	"codrel/internal/comment"
	"codrel/internal/finding"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// plain reports what of a page is shown as it is written.
func (p *Pass) plain(page *model.Page, spans []source.Span) {
	for _, span := range spans {
		f := finding.Finding{Rule: finding.MalformedComment, Form: "plain", Place: page.Place(source.Span{Start: span.Start, End: span.Start})}
		if size := span.End - span.Start; size > comment.LongestPage {
			f.Form, f.Arguments = "long", []finding.Argument{argument("size", strconv.FormatFloat(math.Ceil(float64(size)/1e5)/10, 'f', -1, 64))}
		}
		p.report(nil, f)
	}
}

// page checks the references of a page that stands in no module.
func (p *Pass) page(page *model.Page, nodes []prose.Node) {
	prose.Walk(nodes, func(n *prose.Node) bool {
		if n.Kind == prose.Reference {
			p.broken(nil, page.Place(shownSpan(n)), n, link.Scope{})
			p.ambiguous(nil, page.Place(shownSpan(n)), n, link.Scope{})
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
		if applies(options, finding.BrokenGuideLink) {
			p.leads(g.Page, g.Nodes)
		}
		p.excerpts(g.Page, g.Nodes, options)
		if applies(options, finding.BrokenFragment) {
			p.inserts(nil, g.Page.Place, g.Nodes)
		}
		if applies(options, finding.MalformedComment) {
			p.plain(g.Page, g.Plain)
		}
	}
	if applies(options, finding.BrokenGuide) {
		p.titles()
	}
	p.fragments(append(inserted, p.inserted...), options)
}
