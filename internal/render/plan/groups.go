package plan

import (
	"slices"

	"codrel/internal/model"
)

// Group is a run of declarations under one heading.
type Group struct {
	Title        string
	Named        bool          // by the maintainer
	Of           model.GroupIn // what comments say of it, where they give it a title
	Declarations []*model.Declaration
	Deprecated   []*model.Declaration
	Asked        bool                 // what something else asks for, as a trait does: the title is its name
	Aside        []*model.Declaration // what its own words keep out of lists, see [model.Declaration.Aside]
}

// All are the declarations of the group, those that stand aside and the deprecated ones last.
func (g Group) All() []*model.Declaration {
	return slices.Concat(g.Declarations, g.Aside, g.Deprecated)
}

// Groups puts declarations into the groups that the maintainer named, in the
// order in which the names first stand, and then by kind, as users see it, in the
// order in which people read them.
func Groups(list []*model.Declaration, kind func(*model.Declaration) model.Kind) []Group {
	var named, kinds, asked []Group
	put := func(groups *[]Group, title string, named bool, d *model.Declaration) {
		i := slices.IndexFunc(*groups, func(g Group) bool { return g.Title == title })
		if i < 0 {
			*groups = append(*groups, Group{Title: title, Named: named})
			i = len(*groups) - 1
		}
		g := &(*groups)[i]
		switch {
		case d.Deprecated():
			g.Deprecated = append(g.Deprecated, d)
		case d.Aside():
			g.Aside = append(g.Aside, d)
		default:
			g.Declarations = append(g.Declarations, d)
		}
	}
	for _, title := range kindTitles {
		for _, d := range list {
			if part(d) == "" && askedBy(d) == "" && title == titleOf(d, kind(d)) {
				put(&kinds, title, false, d)
			}
		}
	}
	for _, d := range list {
		if name := part(d); name != "" {
			put(&named, name, true, d)
		}
	}
	for i := range named {
		if of, ok := named[i].All()[0].Module.Library.Groups[named[i].Title]; ok {
			named[i].Title, named[i].Of = of.Title, of
		}
	}
	inTheirOrder(named)
	slices.SortStableFunc(kinds, func(a, b Group) int { return asideAlone(a) - asideAlone(b) })
	for _, d := range list {
		if by := askedBy(d); by != "" && part(d) == "" {
			put(&asked, by, false, d)
		}
	}
	for i := range asked {
		asked[i].Asked = true
	}
	return slices.Concat(named, kinds, asked)
}

// inTheirOrder puts groups that one file names into the order in which it does so.
func inTheirOrder(named []Group) {
	order := map[string]int{}
	for i := range named {
		of := named[i].Of
		if of.Group == nil || of.File != named[0].Of.File {
			return
		}
		at := slices.IndexFunc(of.File.Groups, func(g model.Group) bool { return g.Name == of.Name })
		if at < 0 {
			return
		}
		order[of.Name] = at
	}
	slices.SortStableFunc(named, func(a, b Group) int { return order[a.Of.Name] - order[b.Of.Name] })
}

// askedBy is what asks for a declaration that stands aside because of it, as a trait does, or "".
func askedBy(d *model.Declaration) string {
	if !d.Aside() {
		return ""
	}
	return d.Speaks(model.Words).Section()
}

// asideAlone is 1 for a group of nothing but what stands aside, which comes last, else 0.
func asideAlone(g Group) int {
	if len(g.Declarations)+len(g.Deprecated) == 0 {
		return 1
	}
	return 0
}

// InNamedGroup reports whether the maintainer put a declaration in a group with a name.
func InNamedGroup(d *model.Declaration) bool { return part(d) != "" }

// part is the group that the maintainer put a declaration in, or "".
func part(d *model.Declaration) string {
	for _, o := range d.Occurrences {
		for _, w := range o.Directives() {
			if w.Verb == "part" {
				return w.Object
			}
		}
	}
	return ""
}

// kindTitles are the headings of groups by kind, in the order of reading.
var kindTitles = []string{"Types", "Functions", "Macros", "Constants", "Variables", "Constructors", "Fields", "Properties", "Index signatures", "Methods", "Operators", "Events", "Others"}

// titleOf is the heading that a declaration, of a kind to its readers, stands under.
func titleOf(d *model.Declaration, k model.Kind) string {
	if h := d.Module.Library.Habits; k == model.KindProperty && h != nil && h.Accessors {
		return "Properties"
	}
	return KindTitle(k)
}

// KindTitle is the heading that declarations of a kind stand under.
func KindTitle(k model.Kind) string {
	switch {
	case k.IsType():
		return "Types"
	case k == model.KindFunction:
		return "Functions"
	case k == model.KindConstant, k == model.KindEnumMember:
		return "Constants"
	case k == model.KindVariable:
		return "Variables"
	case k == model.KindField, k == model.KindProperty:
		return "Fields"
	case k == model.KindConstructor:
		return "Constructors"
	case k == model.KindMacro:
		return "Macros"
	case k == model.KindOperator:
		return "Operators"
	case k == model.KindEvent:
		return "Events"
	case k == model.KindIndexer:
		return "Index signatures"
	case k.IsCallable():
		return "Methods"
	}
	return "Others"
}
