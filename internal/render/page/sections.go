package page

import (
	"slices"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/render/plan"
)

// This file says what stands on a page of the reference, and in which order.

// SectionKind tells what a section shows.
type SectionKind uint8

// The kinds of sections.
const (
	ModuleHead      SectionKind = iota // what a module is: its notes, text and examples
	ReexportedNames                    // names that a module re-exports
	LentNames                          // what a module declares and another one shows
	Overview                           // all that a module shows, a line each, by group
	GroupDetails                       // the plates and texts of a group
	TypeHead                           // what a type is: its plate, notes and text
	TypeConstants                      // the constants of a type
	TypeMakers                         // what gives a type
	AddedNames                         // what others add to a type
	MemberGroup                        // the members of a type that belong together
	InheritedNames                     // what a type has from its bases
	TypeRelations                      // what else a type has to do with
	WholeType                          // a type with its members, among others on one page
	Neighbours                         // a drawing of which modules import which
)

// Section is one section of a page. Fields that its kind has no use for are empty.
type Section struct {
	Kind      SectionKind
	Of        *model.Declaration
	Home      *model.Module // of LentNames: which module shows them
	First     bool          // of a MemberGroup: the first of them
	Empty     bool          // of a ModuleHead: nothing of the module is in reach
	Group     plan.Group
	List      []*model.Declaration
	Exports   []link.Export
	Inherited []link.InheritedFrom
	Sentences []Sentence
}

// Sections are those of a page of a module or of a type, in order; nil for other pages.
func (n *Notes) Sections(p *plan.Page) []Section {
	switch {
	case p.Kind == plan.ModulePage, p.Kind == plan.WholePage:
		return n.moduleSections(p)
	case p.Kind != plan.TypePage:
		return nil
	case p.Twins != nil:
		var out []Section
		for _, d := range p.Twins {
			out = append(out, Section{Kind: WholeType, Of: d})
		}
		return out
	}
	return n.typeSections(p.Type)
}

func (n *Notes) moduleSections(p *plan.Page) []Section {
	m := p.Module
	top, exports, lent := n.Plan.Top(m), n.Reexports(m), n.lent(m)
	out := []Section{{Kind: ModuleHead, Empty: len(top)+len(exports)+len(lent) == 0}}
	if len(exports) > 0 {
		out = append(out, Section{Kind: ReexportedNames, Exports: exports})
	}
	out = append(out, lent...)
	if len(top) > 0 {
		out = append(out, Section{Kind: Overview})
		for _, g := range n.Plan.GroupsOf(m) {
			if list := g.Details(); len(list) > 0 {
				out = append(out, Section{Kind: GroupDetails, Group: g, List: list})
			}
		}
	}
	if from := n.Plan.InheritedByModule(m); len(from) > 0 {
		out = append(out, Section{Kind: InheritedNames, Inherited: from})
	}
	if p.Kind == plan.WholePage {
		for _, d := range top {
			if d.Kind().IsType() {
				out = append(out, Section{Kind: WholeType, Of: d})
			}
		}
	}
	return append(out, Section{Kind: Neighbours})
}

func (n *Notes) typeSections(d *model.Declaration) []Section {
	out := []Section{{Kind: TypeHead, Of: d}}
	if list := n.Plan.ConstantsOf(d); len(list) > 0 {
		out = append(out, Section{Kind: TypeConstants, Of: d, List: list})
	}
	if list := n.Plan.Makers(d); len(list) > 0 {
		out = append(out, Section{Kind: TypeMakers, Of: d, List: list})
	}
	for i, g := range n.Plan.MembersOf(d) {
		out = append(out, Section{Kind: MemberGroup, Of: d, Group: g, First: i == 0})
	}
	if list := n.Links.Relations(d).AddedBy; len(list) > 0 {
		out = append(out, Section{Kind: AddedNames, Of: d, List: list})
	}
	if from := n.Plan.Inherited(d); len(from) > 0 {
		out = append(out, Section{Kind: InheritedNames, Of: d, Inherited: from})
	}
	if list := n.Relations(d); len(list) > 0 {
		out = append(out, Section{Kind: TypeRelations, Of: d, Sentences: list})
	}
	return out
}

// Reexports are the names in reach that a module re-exports out of others, or under further
// names, but for those that stand among its own.
func (n *Notes) Reexports(m *model.Module) []link.Export {
	var out []link.Export
	for _, g := range n.Links.Exports(m) {
		switch d := g.Target.Declaration; {
		case d != nil && !n.Links.InReach(d), d != nil && n.Links.Home(d) == m && d.Parent == nil && (g.Name == d.Name || n.Links.IsDefault(m, g.Name)):
		case d != nil:
			out = append(out, g)
		case g.Target.Module != nil && g.Target.Module != m && n.Links.ModuleInReach(g.Target.Module) && g.Target.Module.Path != m.Path+"."+g.Name:
			out = append(out, g)
		}
	}
	return out
}

// lent are the declarations of a module that stand on the pages of others, by those.
func (n *Notes) lent(m *model.Module) []Section {
	var out []Section
	for _, d := range n.Links.Lent(m) {
		home := n.Links.Home(d)
		i := slices.IndexFunc(out, func(s Section) bool { return s.Home == home })
		if i < 0 {
			i, out = len(out), append(out, Section{Kind: LentNames, Home: home})
		}
		out[i].List = append(out[i].List, d)
	}
	return out
}
