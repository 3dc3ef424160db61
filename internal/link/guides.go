package link

import (
	"cmp"
	"path"
	"slices"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"

	"codrel/internal/comment"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// Guide is a page by the maintainer, taken apart.
type Guide struct {
	Page    *model.Page
	Title   string        // what its front matter says, else its first heading, else its name; "" of a landing page without one
	Part    string        // the part that it belongs to: its own, or that of its folder; "" for none
	Nodes   []prose.Node  // all of its text
	Body    []prose.Node  // the text without the title
	Plain   []source.Span // of what is shown as it is written, since to make something of it would take too long
	anchors func() *prose.Anchors
}

// Anchors are the places of the guide's page that links can lead to.
func (g *Guide) Anchors() *prose.Anchors { return g.anchors() }

// GuideCalled is the guide at one of the paths, or with a title, or what of one stands under a
// heading; nil where nothing is called so. Capitals do not count.
func (x *Index) GuideCalled(name string, paths []string) *Guide {
	for _, g := range x.guides() {
		if slices.Contains(paths, g.Page.Path) || strings.EqualFold(g.Title, name) {
			return g
		}
	}
	for _, g := range x.guides() {
		if part := g.under(name); part != nil {
			return part
		}
	}
	return nil
}

// under is the guide with no more text than what stands under a heading, the heading included;
// nil where it has no such heading.
func (g *Guide) under(heading string) *Guide {
	from, level := -1, uint16(0)
	for i := range g.Body {
		switch n := &g.Body[i]; {
		case n.Kind != prose.Heading:
		case from >= 0 && n.Level <= level:
			return g.of(g.Body[from:i])
		case from < 0 && strings.EqualFold(prose.Line(n.Children), heading):
			from, level = i, n.Level
		}
	}
	if from < 0 {
		return nil
	}
	return g.of(g.Body[from:])
}

func (g *Guide) of(body []prose.Node) *Guide {
	part := *g
	part.Body = body
	return &part
}

// TopAnchor is the anchor of what stands above the text of a guide. No heading has one like it.
const TopAnchor = "-text"

// GroupAnchor is the anchor of the heading, in the overview of a page, of a group of declarations
// that the maintainer named.
func GroupAnchor(title string) string { return "-part-" + prose.Slug(title) }

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

// GuideAt is the guide of a file, the one that speaks for a folder, or the one of a file whose
// ending is left out; paths are from the project's root. It is nil where there is none.
func (x *Index) GuideAt(file string) (found *Guide) {
	for _, g := range x.guides() {
		switch {
		case g.Page.Path == file, g.Page.Name != "" && path.Base(g.Page.Name) == "index" && path.Dir(g.Page.Path) == file:
			return g
		case g.Page.Name != "" && strings.TrimSuffix(g.Page.Path, path.Ext(g.Page.Path)) == file:
			found = g
		}
	}
	return found
}

func (x *Index) readGuides() []*Guide {
	var out []*Guide
	folders := map[string]*Guide{}
	for _, page := range x.Project.Guides {
		g := &Guide{Page: page, Part: page.Part}
		g.Nodes, g.Plain = comment.ReadPage(behindFront(page))
		heading, body, _ := comment.PageTitle(g.Nodes)
		g.Title, g.Body = cmp.Or(page.Title, heading), body
		if g.Title == "" && page.Name != "" {
			g.Title = spoken(path.Base(page.Name))
		}
		g.anchors = sync.OnceValue(func() *prose.Anchors { return x.anchorsOf(g) })
		if page.Name != "" && path.Base(page.Name) == "index" {
			folders[path.Dir(page.Name)] = g
		}
		out = append(out, g)
	}
	for _, g := range out {
		if folder := path.Dir(g.Page.Name); g.Part == "" && g.Page.Name != "" && folder != "." {
			if of := folders[folder]; of != nil {
				g.Part = cmp.Or(of.Page.Part, of.Title)
			} else {
				g.Part = spoken(path.Base(folder))
			}
		}
	}
	return out
}

// behindFront is the text of a page with blanks in the place of its front matter, so that
// places in it stay what they are.
func behindFront(page *model.Page) string {
	if page.Begin == 0 {
		return page.Text
	}
	return strings.Repeat("\n", int(page.Begin)) + page.Text[page.Begin:]
}

// spoken is the name of a file as people would say it.
func spoken(name string) string {
	words := strings.TrimSpace(strings.NewReplacer("-", " ", "_", " ").Replace(name))
	first, size := utf8.DecodeRuneInString(words)
	return string(unicode.ToUpper(first)) + words[size:]
}

// anchorsOf are the anchors of a guide and of the fragments in it.
func (x *Index) anchorsOf(g *Guide) *prose.Anchors {
	a := prose.NewAnchors()
	x.eachInserted(g.Body, a.Note, 0)
	if g.Title != "" {
		a.Top(g.Title, TopAnchor)
	}
	return a
}
