package link

import (
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// InheritedFrom is what a type has from one of its bases.
type InheritedFrom struct {
	Base    *model.Declaration // nil where a module is the base
	Module  *model.Module
	Members []*model.Declaration
	Count   int // of all of them, where the list is cut
}

// Inherited lists the members that a type has from its bases in reach, at whatever level,
// the nearest base first, each member once and none that the type declares itself.
// Members of bases out of reach are the type's own.
func (x *Index) Inherited(d *model.Declaration) []InheritedFrom {
	if !d.Kind().IsType() {
		return nil
	}
	var out []InheritedFrom
	names := map[string]bool{}
	implicit := x.implicit(d.Module.Library)
	for bases := range x.levels(d) {
		var members []*model.Declaration
		for _, base := range bases {
			if h := base.Module.Library.Habits; h != nil && h.Contracts && base.Kind() == model.KindInterface && d.Kind() != model.KindInterface {
				continue
			}
			if x.InReach(base) {
				members = append(members, base.Members...)
			}
		}
		if implicit {
			members = unlikeNames(members)
		}
		for _, m := range members {
			if names[m.Name] || m == d || hides(d, m) || !x.passesDown(m) {
				continue
			}
			names[m.Name] = true
			if last := len(out) - 1; last < 0 || out[last].Base != m.Parent {
				out = append(out, InheritedFrom{Base: m.Parent})
			}
			out[len(out)-1].Members = append(out[len(out)-1].Members, m)
		}
	}
	return out
}

// hides reports whether a type has a member of its own with the name of another one, and not
// one that nobody else sees.
func hides(d, member *model.Declaration) bool {
	own := alike(d, member)
	return own != nil && own.Speaks(model.Words).Visibility != model.Private
}

// passesDown reports whether a member goes on to the types that have its own as a base.
func (x *Index) passesDown(m *model.Declaration) bool {
	return m.Kind() != model.KindConstructor && !m.Blank() && !m.Speaks(model.Words).Embedded && x.InReach(m)
}

// defaultOf is the name of what a module gives without a name, or "".
func defaultOf(m *model.Module) string {
	if m.Library.Habits == nil {
		return ""
	}
	return m.Library.Habits.Default
}

// IsDefault reports whether a name of a module is that of what it gives without a name.
func (x *Index) IsDefault(m *model.Module, name string) bool {
	return name != "" && name == defaultOf(m)
}

// NameIn is the name by which users take a declaration from a module: "default" where it
// is what the module gives without a name.
func (x *Index) NameIn(m *model.Module, d *model.Declaration) string {
	byDefault := false
	for _, given := range x.Exports(m) {
		if given.Target.Declaration != d {
			continue
		}
		if !x.IsDefault(m, given.Name) {
			return given.Name
		}
		byDefault = true
	}
	if byDefault && (d.Module != m || leftOut(d)) {
		return defaultOf(m)
	}
	return d.Name
}

// Shadowed reports whether the module above a module gives something else under its name.
func (x *Index) Shadowed(m *model.Module) bool {
	importer, ok := x.options.FrontEnds[m.Library.Language].(lang.Importer)
	i := strings.LastIndexAny(m.Path, "./")
	if !ok || i < 0 {
		return false
	}
	above := x.module(m.Library, m.Path[:i])
	return above != nil && importer.Below(above.Path, m.Path[i+1:]) == m.Path && x.gives(above, m.Path[i+1:], &trail{}).Declaration != nil
}
