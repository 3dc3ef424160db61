package link

import (
	"cmp"
	"iter"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file says on which module's pages a declaration stands: at the place from which
// users take it. A module may re-export what another one declares; where that other one is
// kept from users, or lies below the giver, users are meant to take it from the giver.

// findHomes finds the modules that re-export what others declare: of several the one with
// the shortest path, those around what declares it before others.
func (x *Index) findHomes() {
	x.homes = map[*model.Declaration]*model.Module{}
	x.hosted = map[*model.Module][]*model.Declaration{}
	x.emptied = map[*model.Module]bool{}
	x.guests = map[*model.Module][]*model.Declaration{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if !x.takers[m] || !x.seen(m) || x.isInternal(m) {
				continue
			}
			for _, given := range x.Exports(m) {
				d := given.Target.Declaration
				if d == nil || d.Parent != nil || given.Name != d.Name && !x.IsDefault(m, given.Name) || d.Module.Library != m.Library || !x.InReach(d) || !x.lendsTo(d.Module, m) || given.Apart && x.seen(d.Module) && !x.isInternal(d.Module) {
					continue
				}
				if was := x.homes[d]; was == nil || cmp.Or(beside(m, d)-beside(was, d), cmp.Compare(len(m.Path), len(was.Path)), strings.Compare(m.Path, was.Path)) < 0 {
					x.homes[d] = m
				}
			}
		}
	}
	if len(x.homes)+len(x.seated) == 0 {
		return
	}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			for _, d := range m.Top {
				switch home := x.Home(d); {
				case home == m:
				case x.seated[d]:
					x.guests[home] = append(x.guests[home], d)
				default:
					x.hosted[home] = append(x.hosted[home], d)
				}
			}
		}
	}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			x.emptied[m] = x.isEmptied(m)
		}
	}
}

// beside is 0 of a module that lies around the one which declares something, and 1 of others: users are meant
// to take it from the first, in languages whose modules lie in one another, and the others collect.
func beside(m *model.Module, d *model.Declaration) int {
	h := m.Library.Habits
	if h == nil || !h.Nested || strings.HasPrefix(d.Module.Path, m.Path+h.PathMark) {
		return 0
	}
	return 1
}

// isEmptied reports whether all that a module has for users stands on the pages of others,
// and nobody is meant to look for it at the module.
func (x *Index) isEmptied(m *model.Module) bool {
	gone, seated := 0, 0
	for _, d := range m.Top {
		switch {
		case x.Home(d) != m:
			gone++
			if x.seated[d] {
				seated++
			}
		case x.InReach(d):
			return false
		}
	}
	if gone == 0 || x.wholes[m] {
		return false
	}
	if x.isInternal(m) {
		return true
	}
	_, entry := m.Library.Entry(m.Path)
	return !entry && gone == seated && len(x.hosted[m])+len(x.guests[m]) == 0 && !x.worded(m) &&
		!slices.ContainsFunc(x.Exports(m), func(g Export) bool { return g.Target.Declaration == nil || g.Target.Declaration.Module != m })
}

// worded reports whether the comments on a module say something.
func (x *Index) worded(m *model.Module) bool {
	return slices.ContainsFunc(m.Doc, func(doc model.DocOf) bool {
		sections := x.Comments.Of(m.Library.Habits, doc.File, doc.Doc)
		return len(sections.Body)+len(sections.Parts) > 0
	})
}

// isInternal reports whether a module has no pages of its own but for what stands nowhere else.
func (x *Index) isInternal(m *model.Module) bool {
	return m.Internal && !x.options.Reach.Includes(model.Internal)
}

// lendsTo reports whether what a module declares stands on the pages of another one that
// re-exports it.
func (x *Index) lendsTo(m, giver *model.Module) bool {
	if x.isInternal(m) {
		return true
	}
	if m == giver {
		return false
	}
	from, to := x.importPath(m), x.importPath(giver)
	return len(from) > len(to) && strings.HasPrefix(from, to) && strings.ContainsRune("./:", rune(from[len(to)]))
}

// importPath is the path by which users import a module.
func (x *Index) importPath(m *model.Module) string {
	if packaged, ok := x.options.FrontEnds[m.Library.Language].(lang.PackageImports); ok {
		if as := packaged.ImportedAs(m); as != "" {
			return as
		}
	}
	return m.Path
}

// Home is the module on whose pages a declaration stands.
func (x *Index) Home(d *model.Declaration) *model.Module {
	if len(x.homes)+len(x.seated) == 0 {
		return d.Module
	}
	top := d
	for depth := 0; top.Parent != nil && depth < highest; depth++ {
		top = top.Parent
	}
	if home := x.homes[top]; home != nil {
		return home
	}
	return top.Module
}

// Tops are the declarations that stand at the top of a module's pages: its own, in the
// order of files and lines, then those of other modules that stand here.
func (x *Index) Tops(m *model.Module) []*model.Declaration {
	if len(x.homes)+len(x.seated) == 0 {
		return m.Top
	}
	var out []*model.Declaration
	for _, d := range m.Top {
		if x.homes[d] == nil && !x.seated[d] {
			out = append(out, d)
		}
	}
	return append(out, x.hosted[m]...)
}

// Lent are the declarations at the top of a module that are in reach and stand on the
// pages of others.
func (x *Index) Lent(m *model.Module) []*model.Declaration {
	var out []*model.Declaration
	if len(x.homes)+len(x.seated) > 0 {
		for _, d := range m.Top {
			if x.Home(d) != m && x.InReach(d) && !d.Blank() {
				out = append(out, d)
			}
		}
	}
	return out
}

// OnPagesOf are all declarations, at any depth, that stand on a module's pages.
func (x *Index) OnPagesOf(m *model.Module) iter.Seq[*model.Declaration] {
	if len(x.homes)+len(x.seated) == 0 {
		return m.Declarations
	}
	return func(yield func(*model.Declaration) bool) {
		for d := range m.Declarations {
			if x.Home(d) == m && !yield(d) {
				return
			}
		}
		for _, top := range x.hosted[m] {
			if !x.withMembers(top, yield, 0) {
				return
			}
		}
		for _, d := range x.guests[m] {
			if !x.withMembers(d, yield, 0) {
				return
			}
		}
	}
}

// withMembers yields a declaration and all below it but for what comments put there.
func (x *Index) withMembers(d *model.Declaration, yield func(*model.Declaration) bool, depth int) bool {
	if depth > highest || !yield(d) {
		return false
	}
	for _, m := range d.Members {
		if !x.seated[m] && !x.withMembers(m, yield, depth+1) {
			return false
		}
	}
	return true
}
