package link

import (
	"codrel/internal/comment"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// Guide is a page by the maintainer, taken apart.
type Guide struct {
	Page  *model.Page
	Title string        // its first heading; "" where it has none
	Nodes []prose.Node  // all of its text
	Body  []prose.Node  // the text without the title
	Plain []source.Span // of what is shown as it is written, since to make something of it would take too long
}

// Guides are those of the project, in order.
func (x *Index) Guides() []*Guide { return x.guides() }

// Landing is the guide whose text stands on the first page of the site, or nil.
func (x *Index) Landing() *Guide {
	for _, g := range x.guides() {
		if g.Page.Landing {
			return g
		}
	}
	return nil
}

// GuideOf is the guide on a page, or nil.
func (x *Index) GuideOf(page *model.Page) *Guide {
	for _, g := range x.guides() {
		if g.Page == page {
			return g
		}
	}
	return nil
}

func (x *Index) readGuides() []*Guide {
	var out []*Guide
	for _, page := range x.Project.Guides {
		g := &Guide{Page: page}
		g.Nodes, g.Plain = comment.ReadPage(page.Text)
		g.Title, g.Body, _ = comment.PageTitle(g.Nodes)
		out = append(out, g)
	}
	return out
}
