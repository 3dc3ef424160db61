package link

import (
	"slices"
	"strings"

	"codrel/internal/model"
)

// This file finds where declarations belong whose names comments give: "Port.Tides.Reader"
// stands below the namespace "Port.Tides", whichever files declare the two.

// seat puts what comments call by a path under what has the path before its last name.
func (x *Index) seat() {
	x.seated, x.seats = map[*model.Declaration]bool{}, map[*model.Declaration]map[string]*model.Declaration{}
	if len(x.called) == 0 {
		return
	}
	holders := x.namespaces()
	type named struct {
		d    *model.Declaration
		path string
	}
	var all []named
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			for _, d := range m.Top {
				if path := d.Called(); strings.Contains(path, ".") && d.Parent == nil && x.forUsers(d) {
					all = append(all, named{d, path})
				}
			}
		}
	}
	slices.SortStableFunc(all, func(a, b named) int { return strings.Count(a.path, ".") - strings.Count(b.path, ".") })
	for _, n := range all { // what others stand in comes first
		dot := strings.LastIndexByte(n.path, '.')
		under, name := x.holder(holders, n.d, n.path[:dot]), n.path[dot+1:]
		if under == nil || within(under, n.d) || under.Member(name) != nil || x.seats[under][name] != nil {
			continue
		}
		if !x.InReach(n.d) { // its module is kept, but what holds it is not
			x.lifted[n.d], x.liftedModules[n.d.Module] = true, true
		}
		own, other := x.mayChange(n.d.Module), x.mayChange(under.Module)
		if !own || !other {
			continue
		}
		n.d.Module.Seat(n.d, under, name)
		x.seated[n.d] = true
		if x.seats[under] == nil {
			x.seats[under] = map[string]*model.Declaration{}
		}
		x.seats[under][name] = n.d
	}
}

// forUsers reports whether a declaration is within reach, or would be if its module were
// not kept from users.
func (x *Index) forUsers(d *model.Declaration) bool {
	return x.InReach(d) || d.Module.Role == model.RoleCode && x.isInternal(d.Module) && !d.Hidden && !x.replaced[d] && d.Speaks(model.Words).Visibility == model.Public
}

// place is a path in a library.
type place struct {
	library *model.Library
	path    string
}

// namespaces are what could hold names that comments give: types by the paths that users
// know them by.
func (x *Index) namespaces() map[place][]*model.Declaration {
	out := map[place][]*model.Declaration{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			for d := range m.Declarations {
				if d.Kind().IsType() && x.forUsers(d) {
					at := place{lib.Library, knownAs(d)}
					out[at] = append(out[at], d)
				}
			}
		}
	}
	return out
}

// knownAs is the path that users know a declaration by: the one that its comment gives,
// or what holds it has, with the names below that.
func knownAs(d *model.Declaration) string {
	below := ""
	for depth := 0; d != nil && depth < highest; d, depth = d.Parent, depth+1 {
		if path := d.Called(); path != "" {
			return path + below
		}
		below = "." + d.Name + below
	}
	return strings.TrimPrefix(below, ".")
}

// holder is what a path names that can have others below it: what is of the module of d
// before others, and a namespace before types. It is nil where several are as good.
func (x *Index) holder(holders map[place][]*model.Declaration, d *model.Declaration, path string) *model.Declaration {
	list := slices.DeleteFunc(slices.Clone(holders[place{d.Module.Library, path}]), func(h *model.Declaration) bool { return !x.InReach(h) })
	for _, better := range []func(*model.Declaration) bool{
		func(h *model.Declaration) bool { return h.Module == d.Module },
		func(h *model.Declaration) bool { return h.Kind() == model.KindNamespace },
		func(h *model.Declaration) bool { return h.Speaks(model.Words).Doc != nil },
	} {
		if some := slices.DeleteFunc(slices.Clone(list), func(h *model.Declaration) bool { return h == d || !better(h) }); len(some) > 0 {
			list = some
		}
	}
	if len(list) != 1 || list[0] == d {
		return nil
	}
	return list[0]
}

// within reports whether a declaration stands in another one, or is it.
func within(d, of *model.Declaration) bool {
	for depth := 0; d != nil && depth < highest; d, depth = d.Parent, depth+1 {
		if d == of {
			return true
		}
	}
	return false
}
