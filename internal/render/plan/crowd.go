package plan

import (
	"strconv"

	"codrel/internal/model"
)

const (
	// mostPlates is how many declarations of a group have a plate each; larger
	// groups, as tables of constants are, stand a line each.
	mostPlates = 300
	// mostLined is how many such lines a module's page has. Where there are more,
	// its page has the names alone, since their addresses are there for good, and
	// the lines stand on pages of their own.
	mostLined   = 4500
	linesOnPage = 2500
)

// Details are the declarations of a group that have no page of their own.
func (g Group) Details() []*model.Declaration {
	var out []*model.Declaration
	for _, d := range g.All() {
		if !d.Kind().IsType() {
			out = append(out, d)
		}
	}
	return out
}

// Crowded reports whether a group's declarations stand a line each.
func (g Group) Crowded() bool {
	list := g.Details()
	return len(list) > mostPlates && len(list) == len(g.Declarations)+len(g.Deprecated)
}

// crowds plans the pages of names that have no room on their module's page.
func (p *Plan) crowds(lib *model.Library, m *model.Module) {
	var lined []*model.Declaration
	for _, g := range p.GroupsOf(m) {
		if g.Crowded() {
			lined = append(lined, g.Details()...)
		}
	}
	if len(lined) <= mostLined {
		return
	}
	folder := p.modules[m].folder
	for part := 0; len(lined) > 0; part++ {
		n := min(linesOnPage, len(lined))
		page := &Page{Kind: NamesPage, Address: folder + "/~names-" + strconv.Itoa(part+1) + ".html", Title: m.Path, Library: lib, Module: m, Part: part, Names: lined[:n]}
		p.aside = append(p.aside, page)
		for _, d := range page.Names {
			p.lines[d] = page.Address + "#" + Anchor(d)
		}
		lined = lined[n:]
	}
}

// Line is the address of the line that shows a declaration, where its module's
// page has no room for it; else "".
func (p *Plan) Line(d *model.Declaration) string { return p.lines[d] }
