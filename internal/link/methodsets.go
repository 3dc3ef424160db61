package link

import (
	"maps"
	"slices"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file finds which types implement which interfaces without saying so, by comparing
// method sets. What a method is known by and when two are of the same type is the front
// end's to say, see [lang.Implementer].

// methodSet maps a method's name to its signature in normal form.
type methodSet map[string]string

// implementations compares every interface with every type that has its rarest method.
func (x *Index) implementations(modules []*model.Module) []relation {
	var interfaces, types []*model.Declaration
	for _, m := range modules {
		if !x.implicit(m.Library) {
			continue
		}
		for _, d := range m.Top {
			switch {
			case !x.InReach(d):
			case d.Kind() == model.KindInterface:
				interfaces = append(interfaces, d)
			case d.Kind().IsType() && x.implementer(m.Library).CanImplement(d):
				types = append(types, d)
			}
		}
	}
	interfaces = append(interfaces, x.outsideInterfaces(modules)...)
	wanted := make([]methodSet, len(interfaces))
	x.parallel(len(interfaces), func(i int) { wanted[i] = x.interfaceSet(interfaces[i], 0) })
	asked := map[string]bool{}
	for _, set := range wanted {
		for name := range set {
			asked[name] = true
		}
	}
	have := make([]methodSet, len(types))
	x.parallel(len(types), func(i int) {
		set := methodSet{}
		x.typeSet(types[i], asked, set, 0)
		have[i] = set
	})
	byMethod := map[string][]int{}
	for i, set := range have {
		for name := range set {
			byMethod[name] = append(byMethod[name], i)
		}
	}
	found := make([][]relation, len(interfaces))
	x.parallel(len(interfaces), func(i int) { found[i] = match(interfaces[i], wanted[i], types, have, byMethod) })
	return slices.Concat(found...)
}

// outsideInterfaces are those of other projects' modules that some file imports.
func (x *Index) outsideInterfaces(modules []*model.Module) []*model.Declaration {
	var out []*model.Declaration
	if len(x.elsewhere.all) == 0 {
		return nil
	}
	seen := map[*model.Module]bool{}
	for _, m := range modules {
		for _, f := range m.Files {
			for _, i := range x.imports[f] {
				if i.module == nil || i.module.Library.Elsewhere == nil || seen[i.module] || !x.implicit(i.module.Library) {
					continue
				}
				seen[i.module] = true
				for _, d := range i.module.Top {
					if d.Kind() == model.KindInterface {
						out = append(out, d)
					}
				}
			}
		}
	}
	return out
}

func match(face *model.Declaration, wanted methodSet, types []*model.Declaration, have []methodSet, byMethod map[string][]int) []relation {
	if len(wanted) == 0 {
		return nil
	}
	var candidates []int
	first := true
	for name := range wanted {
		if list := byMethod[name]; first || len(list) < len(candidates) {
			candidates, first = list, false
		}
	}
	var out []relation
	for _, i := range candidates {
		if have[i].fulfils(wanted) {
			out = append(out, relation{types[i], face, implements}, relation{face, types[i], implementedBy})
		}
	}
	return out
}

func (s methodSet) fulfils(wanted methodSet) bool {
	for name, signature := range wanted {
		if s[name] != signature {
			return false
		}
	}
	return true
}

// interfaceSet is the method set of an interface, or nil where no claim can be
// made: it is a constraint, or embeds something outside the project.
func (x *Index) interfaceSet(d *model.Declaration, depth int) methodSet {
	if depth > 8 {
		return nil
	}
	if d.Module.Library.Elsewhere != nil {
		return x.elsewhere.interfaceSet(d)
	}
	set, end := methodSet{}, x.implementer(d.Module.Library)
	if end == nil {
		return nil
	}
	for _, member := range d.Members {
		if at := member.Speaks(model.Words); at.Callable != nil && member.Origin() == nil {
			set[end.MethodKey(member)] = end.MethodType(d, at, names{x})
		}
	}
	for _, o := range d.Occurrences {
		for _, b := range o.Bases() {
			if !x.embedInterface(d, o, b, set, depth) {
				return nil
			}
		}
	}
	return set
}

func (x *Index) embedInterface(d *model.Declaration, o model.At, b model.Base, set methodSet, depth int) bool {
	typed := b.Type.List(o.File.Text)
	if len(typed) != 1 || typed[0].Kind != model.TokenType {
		return false
	}
	name := typed[0].Text
	base := x.Type(d.Module, o.File, name).Declaration
	if base == nil {
		brought, ok := x.implementer(d.Module.Library).BroughtMethods(name)
		maps.Copy(set, brought)
		return ok
	}
	switch {
	case base == d || base.Kind() != model.KindInterface:
		return false
	}
	inner := x.interfaceSet(base, depth+1)
	if inner == nil {
		return false
	}
	for k, v := range inner {
		set[k] = v
	}
	return true
}

// typeSet adds the methods of a type, then those it has through what it
// embeds; the shallower one wins. What is embedded from outside the project
// adds nothing: no claim is made of it.
func (x *Index) typeSet(d *model.Declaration, asked map[string]bool, set methodSet, depth int) {
	end := x.implementer(d.Module.Library)
	if depth > 8 || d.Module.Library.Elsewhere != nil || end == nil {
		return
	}
	for _, member := range d.Members {
		at := member.Speaks(model.Words)
		if at.Callable == nil || at.Kind != model.KindMethod || member.Origin() != nil {
			continue
		}
		key := end.MethodKey(member)
		if _, has := set[key]; !has && asked[key] {
			set[key] = end.MethodType(d, at, names{x})
		}
	}
	for _, base := range x.bases(d) {
		if base.Kind() == model.KindInterface {
			for k, v := range x.interfaceSet(base, depth+1) {
				if _, has := set[k]; !has {
					set[k] = v
				}
			}
			continue
		}
		x.typeSet(base, asked, set, depth+1)
	}
}

// implementer is the front end of a library's language where types implement interfaces
// without saying so, else nil.
func (x *Index) implementer(lib *model.Library) lang.Implementer {
	end, _ := x.options.FrontEnds[lib.Language].(lang.Implementer)
	return end
}

// implicit reports whether types of the library's language implement interfaces without
// saying so.
func (x *Index) implicit(lib *model.Library) bool { return x.implementer(lib) != nil }

// names tells front ends what names mean.
type names struct{ x *Index }

func (n names) Type(m *model.Module, f *model.Facts, name string) *model.Declaration {
	return n.x.Type(m, f, name).Declaration
}

func (n names) TypeIn(d *model.Declaration, f *model.Facts, name string) *model.Declaration {
	return n.x.TypeIn(d, f, name).Declaration
}

func (n names) Imported(f *model.Facts, name string) string {
	path := ""
	for _, i := range n.x.imports[f] {
		if i.name == name {
			path = i.path
		}
	}
	return path
}
