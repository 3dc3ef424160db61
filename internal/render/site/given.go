package site

import (
	"codrel/internal/link"
)

// This file draws what a page shows of other pages: names that a module re-exports, and
// members that a type has from its bases.

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
