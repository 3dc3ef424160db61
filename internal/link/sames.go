package link

import (
	"slices"
	"strings"

	"codrel/internal/model"
)

// This file finds, of several things with a name, those that are no other things.

// oneThing leaves out of several targets what only names another of them: "read =
// core.read", or what hangs on it, "read = core.read.plain".
func (x *Index) oneThing(found []Target) []Target {
	if len(found) < 2 {
		return found
	}
	out := slices.DeleteFunc(slices.Clone(found), func(t Target) bool {
		return t.Declaration != nil && x.namesOneOf(t.Declaration, found)
	})
	if len(out) == 0 { // they name one another
		return found
	}
	return out
}

// namesOneOf reports whether a declaration is made of another one of some targets.
func (x *Index) namesOneOf(d *model.Declaration, found []Target) bool {
	if of := d.Site(); of != d && isAmong(of, found) {
		return true
	}
	if d.Parent != nil {
		return false
	}
	return slices.ContainsFunc(d.Occurrences, func(at model.At) bool {
		return at.Same() != "" && x.leadsTo(d, at, splitPath(at.Same()), found)
	})
}

// leadsTo reports whether names at an occurrence of d lead through one of some targets.
func (x *Index) leadsTo(d *model.Declaration, at model.At, names []string, found []Target) bool {
	t := x.nameAt(d.Module, at.File, names[0], d, &trail{})
	for _, name := range append(names[1:], "") {
		if t.Declaration != nil && t.Declaration != d && isAmong(t.Declaration, found) {
			return true
		}
		if t.None() || name == "" {
			return false
		}
		t = x.under(t, name)
	}
	return false
}

func isAmong(d *model.Declaration, found []Target) bool {
	return slices.ContainsFunc(found, func(t Target) bool { return t.Declaration == d })
}

// spare reports whether a target is a variable that takes the place of a module from
// outside where that is missing, as "pwd = None" does: who names it means that module.
func (x *Index) spare(t Target) bool {
	d := t.Declaration
	if d == nil || d.Parent != nil || d.Kind() != model.KindVariable && d.Kind() != model.KindConstant || d.Speaks(model.Words).Doc != nil {
		return false
	}
	return slices.ContainsFunc(x.imports[d.Speaks(model.Words).File], func(i imported) bool {
		return i.module == nil && !i.self && i.name == d.Name && (i.path == d.Name || strings.HasSuffix(i.path, "."+d.Name) || i.member != "")
	})
}
