package link

import (
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file follows imports: what a name of a file stands for, and what a module
// gives on from others.

// readImports lists the imports of all files.
func (x *Index) readImports() {
	for _, lib := range x.Project.Libraries {
		lists := make([][]imported, len(lib.Files))
		x.parallel(len(lib.Files), func(i int) { lists[i] = x.importsOf(lib, lib.Files[i]) })
		for i, f := range lib.Files {
			if len(lists[i]) > 0 {
				x.imports[f] = lists[i]
			}
		}
	}
}

// importsOf lists the imports of a file whose paths mean the same wherever they stand.
func (x *Index) importsOf(lib *model.Library, f *model.Facts) []imported {
	out := make([]imported, 0, len(f.Imports))
	for _, i := range f.Imports {
		m := x.importable(lib, i.Path)
		name := i.Name
		switch {
		case name != "":
		case m != nil && i.Assumed != i.Path && i.Member == "":
			name = m.Name
		default:
			name = i.Assumed
		}
		if i.Member == "*" {
			name = "."
		}
		out = append(out, imported{name: name, path: i.Path, member: i.Member, public: i.Public, module: m})
	}
	return out
}

// takeFromOthers gives the imports of languages with paths of their own the
// modules that they mean, and finds out which modules take names from others.
func (x *Index) takeFromOthers() {
	x.takers = map[*model.Module]bool{}
	for _, lib := range x.Project.Libraries {
		importer, ok := x.options.FrontEnds[lib.Language].(lang.Importer)
		if !ok {
			continue
		}
		for _, list := range [][]*model.Module{lib.Modules, lib.Tests} {
			for _, m := range list {
				for _, f := range m.Files {
					imports := x.imports[f]
					for i := range imports {
						in := &imports[i]
						paths := importer.ImportPaths(m, f, in.path)
						in.path = paths[0]
						for _, path := range paths {
							if in.module = x.importable(lib, path); in.module != nil {
								in.path = path
								break
							}
						}
						x.takers[m] = x.takers[m] || in.member != "" || in.public
					}
				}
			}
		}
	}
}

// farthest bounds how many modules a name is followed through.
const farthest = 10

// taken is what an import of a single name stands for.
func (x *Index) taken(lib *model.Library, i imported, depth int) Target {
	if i.module != nil {
		if t := x.gives(i.module, i.member, depth+1); !t.None() {
			return t
		}
	}
	if importer, ok := x.options.FrontEnds[lib.Language].(lang.Importer); ok {
		if m := x.importable(lib, importer.Below(i.path, i.member)); m != nil {
			return Target{Module: m}
		}
	}
	if i.module != nil && i.module.Library.Elsewhere == nil {
		return Target{}
	}
	return Target{Address: x.outside(i.path, i.member)}
}

// gives is what a module has under a name: its own declaration, or what it takes
// from another module.
func (x *Index) gives(m *model.Module, name string, depth int) Target {
	if d := m.Find("", name); d != nil {
		return Target{Declaration: d}
	}
	if m.Library.Elsewhere != nil {
		return x.elsewhere.gives(m, name)
	}
	if !x.takers[m] || depth > farthest {
		return Target{}
	}
	for _, f := range m.Files {
		for _, i := range x.imports[f] {
			switch {
			case i.member == "*" && i.module != nil && i.module != m:
				if t := x.star(i.module, name, depth+1); !t.None() {
					return t
				}
			case i.member != "" && i.name == name:
				return x.taken(m.Library, i, depth)
			}
		}
	}
	return Target{}
}

// star is what an import of all names brings in under a name.
func (x *Index) star(m *model.Module, name string, depth int) Target {
	if d := m.Find("", name); d != nil {
		if leftOut(d) {
			return Target{}
		}
		return Target{Declaration: d}
	}
	for _, f := range m.Files {
		for _, i := range x.imports[f] {
			if i.name == name && i.member != "" && f.Listed && !i.public {
				return Target{}
			}
		}
	}
	return x.gives(m, name, depth)
}

// leftOut reports whether a file that lists what it gives away does not name the declaration.
func leftOut(d *model.Declaration) bool {
	for _, o := range d.Occurrences {
		if o.Export == model.NotExported {
			return true
		}
	}
	return false
}

// lift puts what a module in reach gives on out of modules that are kept from
// users within their reach.
func (x *Index) lift() {
	x.lifted = map[*model.Declaration]bool{}
	x.liftedModules = map[*model.Module]bool{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if m.Internal || !x.takers[m] {
				continue
			}
			for _, given := range x.Gives(m) {
				if other := given.Target.Module; other != nil && other.Internal { // the whole module under a name
					x.liftedModules[other] = true
					for _, d := range other.Top {
						if d.Main().Visibility == model.Public && d.Main().Export != model.NotExported {
							x.lifted[d] = true
						}
					}
				}
				if d := given.Target.Declaration; d != nil && (d.Module.Internal || d.Visibility == model.Internal) && d.Main().Visibility == model.Public {
					x.lifted[d] = true
					x.liftedModules[d.Module] = true
				}
			}
		}
	}
}

// Visibility is the effective one of a declaration, seen from outside: what a
// public module gives on is public wherever it was declared.
func (x *Index) Visibility(d *model.Declaration) model.Visibility {
	if len(x.lifted) == 0 || d.Visibility == model.Public {
		return d.Visibility
	}
	v := model.Public
	for at, depth := d, 0; at != nil && depth < 100; at, depth = at.Parent, depth+1 {
		if x.lifted[at] {
			return v
		}
		v = max(v, at.Main().Visibility)
	}
	return d.Visibility
}

// Given is a name that a module gives on from elsewhere.
type Given struct {
	Name   string
	Target Target
}

// Gives lists what a module gives on to its users out of other modules, in the
// order of its files. Names that cannot be followed are left out.
func (x *Index) Gives(m *model.Module) []Given {
	if !x.takers[m] {
		return nil
	}
	return x.givesFrom(m, 0)
}

func (x *Index) givesFrom(m *model.Module, depth int) []Given {
	var out []Given
	seen := map[string]bool{}
	add := func(name string, t Target) {
		if !t.None() && !seen[name] && m.Find("", name) == nil {
			seen[name] = true
			out = append(out, Given{name, t})
		}
	}
	for _, f := range m.Files {
		for _, i := range x.imports[f] {
			switch {
			case !i.public:
			case i.member == "*" && i.module != nil:
				for _, d := range i.module.Top {
					if !leftOut(d) && d.Name != "default" && (d.Visibility == model.Public || i.module.Internal && d.Main().Visibility == model.Public) {
						add(d.Name, Target{Declaration: d})
					}
				}
				if depth < farthest && x.takers[i.module] {
					for _, given := range x.givesFrom(i.module, depth+1) {
						add(given.Name, given.Target)
					}
				}
			case i.member == "" && i.module != nil:
				add(i.name, Target{Module: i.module})
			case i.member != "" && i.member != "*":
				add(i.name, x.taken(m.Library, i, 0))
			}
		}
	}
	return out
}

// Type resolves the name of a type in a signature, as the file it stands in sees it.
func (x *Index) Type(m *model.Module, f *model.Facts, name string) Target {
	first, rest, qualified := strings.Cut(name, ".")
	if !qualified {
		return x.bareTarget(m, f, name)
	}
	for _, i := range x.imports[f] {
		switch {
		case i.member != "" && i.name == first:
			return x.under(x.taken(m.Library, i, 0), rest)
		case i.name == first, strings.Contains(i.name, ".") && len(name) > len(i.name) && name[len(i.name)] == '.' && strings.HasPrefix(name, i.name):
			below := name[len(i.name)+1:]
			if i.module == nil {
				return Target{Address: x.outside(i.path, below)}
			}
			return x.under(Target{Module: i.module}, below)
		}
	}
	if x.takers[m] {
		return Target{Declaration: m.Lookup(name)}
	}
	return Target{}
}

// under follows dotted names down from a target.
func (x *Index) under(t Target, names string) Target {
	switch {
	case t.Declaration != nil:
		return Target{Declaration: t.Declaration.Module.Lookup(t.Declaration.Path() + "." + names)}
	case t.Module != nil:
		if d := t.Module.Lookup(names); d != nil || !x.takers[t.Module] && t.Module.Library.Elsewhere == nil {
			return Target{Declaration: d}
		}
		first, rest, deeper := strings.Cut(names, ".")
		given := x.gives(t.Module, first, 0)
		if !deeper || given.None() {
			return given
		}
		return x.under(given, rest)
	}
	return Target{}
}

// bare resolves an unqualified name at the level of a module.
func (x *Index) bare(m *model.Module, f *model.Facts, name string) *model.Declaration {
	return x.bareTarget(m, f, name).Declaration
}

func (x *Index) bareTarget(m *model.Module, f *model.Facts, name string) Target {
	if d := m.Lookup(name); d != nil {
		if t := x.required(m, f, d); !t.None() {
			return t
		}
		return Target{Declaration: d}
	}
	if m.Role == model.RoleTest {
		if code := x.module(m.Library, m.Path); code != nil {
			if d := code.Lookup(name); d != nil {
				return Target{Declaration: d}
			}
		}
	}
	if m.Library.Elsewhere != nil {
		return x.elsewhere.beside(m, name)
	}
	for _, i := range x.imports[f] {
		switch {
		case i.name == "." && i.module != nil:
			if t := x.gives(i.module, name, 0); !t.None() {
				return t
			}
		case i.member != "" && i.name == name:
			return x.taken(m.Library, i, 0)
		}
	}
	return Target{}
}

// required is what a constant stands for that is made of another module's value,
// as "const {Plan} = require('./berth')" makes one: to the language it is a
// declaration, to who reads it an import.
func (x *Index) required(m *model.Module, f *model.Facts, d *model.Declaration) Target {
	if d.Kind() != model.KindConstant && d.Kind() != model.KindVariable {
		return Target{}
	}
	for _, i := range x.imports[f] {
		switch {
		case i.name != d.Name || i.module == nil:
		case i.member == "":
			return Target{Module: i.module}
		default:
			return x.taken(m.Library, i, 0)
		}
	}
	return Target{}
}
