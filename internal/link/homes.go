package link

import (
	"cmp"
	"iter"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file says on which module's pages a declaration stands: at the place from which
// users take it. A module may give on what another one declares; where that other one is
// kept from users, or lies below the giver, users are meant to take it from the giver.

// findHomes finds the modules that give on what others declare: of several the one with
// the shortest path.
func (x *Index) findHomes() {
	x.homes = map[*model.Declaration]*model.Module{}
	x.moved = map[*model.Module][]*model.Declaration{}
	x.emptied = map[*model.Module]bool{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if !x.takers[m] || !x.seen(m) || x.kept(m) {
				continue
			}
			for _, given := range x.Gives(m) {
				d := given.Target.Declaration
				if d == nil || d.Parent != nil || given.Name != d.Name && !x.IsDefault(m, given.Name) || d.Module.Library != m.Library || !x.InReach(d) || !x.lendsTo(d.Module, m) {
					continue
				}
				if was := x.homes[d]; was == nil || cmp.Or(cmp.Compare(len(m.Path), len(was.Path)), strings.Compare(m.Path, was.Path)) < 0 {
					x.homes[d] = m
				}
			}
		}
	}
	if len(x.homes) == 0 {
		return
	}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			left, gone := 0, 0
			for _, d := range m.Top {
				switch home := x.homes[d]; {
				case home != nil:
					x.moved[home] = append(x.moved[home], d)
					gone++
				case x.InReach(d):
					left++
				}
			}
			x.emptied[m] = x.kept(m) && gone > 0 && left == 0 && !x.wholes[m]
		}
	}
}

// kept reports whether a module has no pages of its own but for what stands nowhere else.
func (x *Index) kept(m *model.Module) bool {
	return m.Internal && !x.options.Reach.Includes(model.Internal)
}

// lendsTo reports whether what a module declares stands on the pages of another one that
// gives it on.
func (x *Index) lendsTo(m, giver *model.Module) bool {
	if x.kept(m) {
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
	if packaged, ok := x.options.FrontEnds[m.Library.Language].(lang.Packaged); ok {
		if as := packaged.ImportedAs(m); as != "" {
			return as
		}
	}
	return m.Path
}

// Home is the module on whose pages a declaration stands.
func (x *Index) Home(d *model.Declaration) *model.Module {
	if len(x.homes) == 0 {
		return d.Module
	}
	top := d
	for depth := 0; top.Parent != nil && depth < highest; depth++ {
		top = top.Parent
	}
	if home := x.homes[top]; home != nil {
		return home
	}
	return d.Module
}

// Tops are the declarations that stand at the top of a module's pages: its own, in the
// order of files and lines, then those of other modules that stand here.
func (x *Index) Tops(m *model.Module) []*model.Declaration {
	if len(x.homes) == 0 {
		return m.Top
	}
	var out []*model.Declaration
	for _, d := range m.Top {
		if x.homes[d] == nil {
			out = append(out, d)
		}
	}
	return append(out, x.moved[m]...)
}

// Lent are the declarations at the top of a module that are in reach and stand on the
// pages of others.
func (x *Index) Lent(m *model.Module) []*model.Declaration {
	var out []*model.Declaration
	if len(x.homes) > 0 {
		for _, d := range m.Top {
			if x.homes[d] != nil && x.InReach(d) && !d.Blank() {
				out = append(out, d)
			}
		}
	}
	return out
}

// OnPagesOf are all declarations, at any depth, that stand on a module's pages.
func (x *Index) OnPagesOf(m *model.Module) iter.Seq[*model.Declaration] {
	if len(x.homes) == 0 {
		return m.Declarations
	}
	return func(yield func(*model.Declaration) bool) {
		for d := range m.Declarations {
			if x.Home(d) == m && !yield(d) {
				return
			}
		}
		for _, top := range x.moved[m] {
			if !withMembers(top, yield, 0) {
				return
			}
		}
	}
}

// withMembers yields a declaration and all below it.
func withMembers(d *model.Declaration, yield func(*model.Declaration) bool, depth int) bool {
	if depth > highest || !yield(d) {
		return false
	}
	for _, m := range d.Members {
		if !withMembers(m, yield, depth+1) {
			return false
		}
	}
	return true
}
