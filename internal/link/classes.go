package link

import (
	"slices"
	"strings"

	"codrel/internal/model"
)

// This file knows modules that are classes, in languages that have no other types: what a module
// declares is a member, and its bases are modules.

// BaseModules are the modules in the project that a module has for bases, in the order of their names in
// the source.
func (x *Index) BaseModules(m *model.Module) []*model.Module {
	if known, ok := x.classes.Load(m); ok {
		return known.([]*model.Module)
	}
	var out []*model.Module
	add := func(f *model.Facts, in string) {
		for _, c := range f.Classes {
			if c.In != in {
				continue
			}
			if base := x.importable(m.Library, c.Base); base != nil && base != m && !slices.Contains(out, base) {
				out = append(out, base)
			}
		}
	}
	for _, f := range m.Files {
		add(f, "")
	}
	for _, f := range m.More {
		add(f, m.Path)
	}
	x.classes.Store(m, out)
	return out
}

// ExtendedModules are the modules in reach that have a module for a base.
func (x *Index) ExtendedModules(m *model.Module) []*model.Module { return x.extended()[m] }

// extendedModules are all that have others for bases, by these.
func (x *Index) extendedModules() map[*model.Module][]*model.Module {
	out := map[*model.Module][]*model.Module{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if !x.ModuleInReach(m) {
				continue
			}
			for _, base := range x.BaseModules(m) {
				out[base] = append(out[base], m)
			}
		}
	}
	for _, list := range out {
		slices.SortFunc(list, func(a, b *model.Module) int { return strings.Compare(a.Path, b.Path) })
	}
	return out
}

// modulesAbove are the bases of a module, those of its bases, and so on, in the order in which the
// language looks for methods: to the end of the first base before the next one (perlobj). Each is
// there once.
func (x *Index) modulesAbove(m *model.Module) []*model.Module {
	var out []*model.Module
	seen := map[*model.Module]bool{m: true}
	var climb func(m *model.Module, depth int)
	climb = func(m *model.Module, depth int) {
		for _, base := range x.BaseModules(m) {
			if !seen[base] && depth < highest {
				seen[base] = true
				out = append(out, base)
				climb(base, depth+1)
			}
		}
	}
	climb(m, 0)
	return out
}

// memberAbove is what a member of a module that is a class takes the place of, or nil.
func (x *Index) memberAbove(member *model.Declaration) *model.Declaration {
	if member.Parent != nil || !isClassMember(member) {
		return nil
	}
	for _, base := range x.modulesAbove(member.Module) {
		if of := base.Find(member.Name); of != nil && of.Parent == nil && isClassMember(of) && x.InReach(of) {
			return of
		}
	}
	return nil
}

// isClassMember reports whether what a module declares goes on to those that have it for a base.
func isClassMember(d *model.Declaration) bool {
	return d.Kind().IsCallable() || d.Kind() == model.KindProperty || d.Kind() == model.KindConstant
}

// InheritedByModule lists what a module has from those that are its bases: each name once, and none that
// it declares itself.
func (x *Index) InheritedByModule(m *model.Module) []InheritedFrom {
	var out []InheritedFrom
	names := map[string]bool{}
	for _, d := range m.Top {
		names[d.Name] = true
	}
	for _, base := range x.modulesAbove(m) {
		from := InheritedFrom{Module: base}
		for _, d := range base.Top {
			if !names[d.Name] && isClassMember(d) && x.InReach(d) {
				names[d.Name] = true
				from.Members = append(from.Members, d)
			}
		}
		if len(from.Members) > 0 {
			out = append(out, from)
		}
	}
	return out
}
