package link

import (
	"cmp"
	"iter"
	"strings"

	"codrel/internal/model"
)

// This file says on which module's pages a declaration stands. What a module that is
// kept from users declares, and a module that is not gives on, stands where users take
// it from.

// findHomes finds the modules that give on what kept modules declare: of several the
// one with the shortest path.
func (x *Index) findHomes() {
	x.homes = map[*model.Declaration]*model.Module{}
	x.moved = map[*model.Module][]*model.Declaration{}
	x.emptied = map[*model.Module]bool{}
	if x.options.Reach.Includes(model.Internal) {
		return // then kept modules have pages of their own
	}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if m.Internal || !x.takers[m] {
				continue
			}
			for _, given := range x.Gives(m) {
				d := given.Target.Declaration
				if d == nil || d.Parent != nil || given.Name != d.Name || !d.Module.Internal || d.Module.Library != m.Library || !x.InReach(d) {
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
			x.emptied[m] = gone > 0 && left == 0
		}
	}
}

// Home is the module on whose pages a declaration stands.
func (x *Index) Home(d *model.Declaration) *model.Module {
	if len(x.homes) == 0 || !d.Module.Internal {
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
// order of files and lines, then those that it gives on for a module that is kept from users.
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

// OnPagesOf are all declarations, at any depth, that stand on a module's pages.
func (x *Index) OnPagesOf(m *model.Module) iter.Seq[*model.Declaration] {
	if len(x.homes) == 0 || !m.Internal && len(x.moved[m]) == 0 {
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
