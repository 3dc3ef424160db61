package plan

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/link"
	"codrel/internal/model"
)

// Guide is the address of the page of a guide.
func Guide(page *model.Page) string {
	if page.Landing {
		return HomeAddress
	}
	var b strings.Builder
	b.WriteString("guides")
	for part := range strings.SplitSeq(page.Name, "/") {
		b.WriteString("/" + segment(part))
	}
	return shortFolder(b.String()) + ".html"
}

// Part is a run of guides that belong together, in their order.
type Part struct {
	Title  string      // "" for those that belong to none
	Index  *link.Guide // the guide that the part is called by, or nil; it is not among the others
	Guides []*link.Guide
}

// Parts are the guides that have pages of their own, part by part. Guides that belong to none
// and stand between two of a part make a part of their own.
func (p *Plan) Parts() []Part {
	var out []Part
	for _, g := range p.guides() {
		if n := len(out) - 1; n < 0 || out[n].Title != g.Part {
			out = append(out, Part{Title: g.Part})
			if g.Part != "" && g.Title == g.Part {
				out[n+1].Index = g
				continue
			}
		}
		last := &out[len(out)-1]
		last.Guides = append(last.Guides, g)
	}
	return out
}

// guides are those that have pages of their own, but for the one that speaks for all.
func (p *Plan) guides() []*link.Guide {
	return slices.DeleteFunc(slices.Clone(p.Links.Guides()), func(g *link.Guide) bool { return g.Page.Landing || isTop(g) })
}

func isTop(g *link.Guide) bool { return Guide(g.Page) == GuidesAddress }

// HasGuides reports whether any guide has a page of its own.
func (p *Plan) HasGuides() bool {
	return slices.ContainsFunc(p.Links.Guides(), func(g *link.Guide) bool { return !g.Page.Landing })
}

// guidePages are the list of the guides, and a page for each.
func (p *Plan) guidePages() (pages []*Page) {
	if !p.HasGuides() {
		return nil
	}
	list := &Page{Kind: GuidesPage, Address: GuidesAddress}
	pages = append(pages, list)
	for _, g := range p.Links.Guides() {
		switch {
		case g.Page.Landing:
		case isTop(g):
			list.Title, list.Guide = g.Title, g
		default:
			pages = append(pages, &Page{Kind: GuidePage, Address: Guide(g.Page), Title: g.Title, Guide: g, place: len(pages)})
		}
	}
	return pages
}

// aroundGuide are the pages before and behind that of a guide.
func (p *Plan) aroundGuide(page *Page) (before, after *Page) {
	pages := p.guidePages()
	if page.place > 0 {
		before = pages[page.place-1]
	}
	if page.place+1 < len(pages) {
		after = pages[page.place+1]
	}
	return before, after
}

// isGuideAddress reports whether an address is one of those that guides have.
func isGuideAddress(address string) bool {
	return strings.HasPrefix(address, path.Dir(GuidesAddress)+"/")
}

// GuideSummary is the first sentence of a guide, plain and not too long.
func (p *Plan) GuideSummary(g *link.Guide) string {
	nodes, _ := p.Links.Opening(g.Body, link.Scope{})
	return summary(nodes)
}
