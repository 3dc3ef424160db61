package site

import (
	"codrel/internal/link"
	"codrel/internal/model"
)

// This file draws what a page shows of other pages: names that a module re-exports, and
// members that a type has from its bases.

// given are the names in reach that a module re-exports out of others, or under further
// names, but for those that stand among its own.
func (v view) given(m *model.Module) []link.Export {
	var out []link.Export
	for _, g := range v.plan.Links.Exports(m) {
		switch d := g.Target.Declaration; {
		case d != nil && !v.plan.Links.InReach(d), d != nil && v.plan.Links.Home(d) == m && d.Parent == nil && (g.Name == d.Name || v.plan.Links.IsDefault(m, g.Name)):
		case d != nil:
			out = append(out, g)
		case g.Target.Module != nil && g.Target.Module != m && v.plan.Links.ModuleInReach(g.Target.Module) && g.Target.Module.Path != m.Path+"."+g.Name:
			out = append(out, g)
		}
	}
	return out
}

// givenAnchor is the address of a name on the page of the module that re-exports it, or ""
// where something else has it.
func (v view) givenAnchor(g link.Export) string {
	for _, d := range v.plan.Top(v.page.Module) {
		if d.Name == g.Name {
			return ""
		}
	}
	return g.Name
}

// isAnother reports whether a module gives something on under another name than its own.
func (v view) isAnother(g link.Export) bool {
	return g.Target.Declaration != nil && g.Name != g.Target.Declaration.Name && !v.plan.Links.IsDefault(v.page.Module, g.Name)
}
