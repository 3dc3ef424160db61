package link

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file finds modules that are not here whole: the project's own code uses names of them that
// nobody here declares, and a compiler would refuse it if nobody did. Some step of the build makes
// these, or they were left out of the reading.

// MayBeUnseen reports whether a name that is not found may be that of a type in a module that is
// not here whole: the module of the place, or one that is written before it or that the file
// imports the name from.
func (x *Index) MayBeUnseen(from Scope, written string) bool {
	path := prose.ParseName(strings.TrimSuffix(written, ".")).Path
	if len(path) == 0 || from.Module == nil {
		return false
	}
	if isUpper(path[0]) && x.bare(from.Module, from.File, path[0]) == nil {
		if x.unseen()[from.Module] {
			return true
		}
		for _, i := range x.imports[from.File] {
			if (i.name == path[0] || i.member == "*") && x.unseen()[i.module] {
				return true
			}
		}
	}
	for n := len(path) - 1; n > 0; n-- {
		found := x.first(from, x.steps(from, MayBeExternal, prose.Name{Path: path[:n]}), path[:n], prose.Name{Path: path[:n]}, MayBeExternal)
		if m := found.Target.Module; found.Outcome == Found && m != nil {
			return isUpper(path[n]) && x.unseen()[m]
		}
	}
	return false
}

// findUnseen finds them, in languages whose programs make no names as they run, and whose files see
// all of their module.
func (x *Index) findUnseen() map[*model.Module]bool {
	found, at := map[*model.Module]bool{}, map[string][]*model.Module{}
	for _, contents := range x.Project.Libraries {
		for _, m := range contents.Modules {
			at[m.Path] = append(at[m.Path], m)
		}
	}
	// Tests and benchmarks see what other modules of the same path have.
	stands := func(path, name string) bool {
		name, _, _ = strings.Cut(name, ".")
		return slices.ContainsFunc(at[path], func(m *model.Module) bool { return m.Lookup(name) != nil })
	}
	for _, contents := range x.Project.Libraries {
		if h := contents.Library.Habits; h == nil || h.Dynamic || h.Lists || contents.Library.Elsewhere != nil {
			continue
		}
		for _, m := range contents.Modules {
			for _, f := range m.Files {
				for _, i := range x.imports[f] {
					if i.module != nil && i.member != "" && i.member != "*" && !i.self && !found[i.module] && !stands(i.module.Path, i.member) && x.taken(m.Library, i, &trail{}).None() {
						found[i.module] = true
					}
				}
			}
			if !found[m] && x.usesUnseen(m, stands) {
				found[m] = true
			}
		}
	}
	return found
}

// usesUnseen reports whether a signature of a module names a type that stands nowhere, in a file
// for which it could come from nowhere else.
func (x *Index) usesUnseen(m *model.Module, stands func(path, name string) bool) bool {
	whole := map[*model.Facts]bool{}
	for _, f := range m.Files {
		whole[f] = len(f.Problems) == 0
		for _, i := range x.imports[f] {
			if i.module == nil && (i.member == "*" || i.name == "" || i.name == ".") {
				whole[f] = false
			}
		}
	}
	for d := range m.Declarations {
		if x.mayInherit(d, 0) {
			continue
		}
		for _, o := range d.Occurrences {
			inner := false // the name stands behind that of what it is in
			for t := range o.Tokens(o.Signature) {
				if t.Kind == model.TokenType && !inner && whole[o.File] && x.isUnseen(d, o.File, t) && !stands(m.Path, t.Text) {
					return true
				}
				inner = strings.HasSuffix(t.Text, ".")
			}
		}
	}
	return false
}

// isUnseen reports whether a type in a signature leads nowhere, and is nobody's that Codrel knows:
// one that is declared somewhere else may as well lack its import.
func (x *Index) isUnseen(d *model.Declaration, f *model.Facts, t model.Token) bool {
	return isUpper(t.Text) && !strings.Contains(t.Text, ".") && !x.native(Scope{Module: d.Module}, t.Text) && !isTypeParam(d, t.Text) &&
		x.TypeOf(d, f, t).None() && !x.imported(f, t.Text) && !standsIn(d, t.Text) &&
		!slices.ContainsFunc(x.declaring()[t.Text], func(m *model.Module) bool { return m.Library.Habits == d.Module.Library.Habits })
}

// standsIn reports whether a declaration, or one that it stands in, has a name.
func standsIn(d *model.Declaration, name string) bool {
	for ; d != nil; d = d.Parent {
		if d.Name == name {
			return true
		}
	}
	return false
}
