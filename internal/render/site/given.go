package site

import (
	"iter"

	"codrel/internal/link"
)

// This file draws what a page shows of other pages: names that a module re-exports, and
// members that a type has from its bases.

// mostGiven is how many names that a module re-exports its page lists; the rest is counted.
// Nobody reads further, and modules that re-export one another in a row would have as many
// as the square of their number.
const mostGiven = 1000

// givenNames yields the re-exported names that a module's page lists, each with its address
// on that page, or "" where something else has that.
func (v view) givenNames(exports []link.Export) iter.Seq2[link.Export, string] {
	own := map[string]bool{}
	for _, d := range v.plan.Top(v.page.Module) {
		own[d.Name] = true
	}
	return func(yield func(link.Export, string) bool) {
		for _, g := range exports[:min(len(exports), mostGiven)] {
			anchor := g.Name
			if own[anchor] {
				anchor = ""
			}
			if !yield(g, anchor) {
				return
			}
		}
	}
}

// isAnother reports whether a module gives something on under another name than its own.
func (v view) isAnother(g link.Export) bool {
	return g.Target.Declaration != nil && g.Name != g.Target.Declaration.Name && !v.plan.Links.IsDefault(v.page.Module, g.Name)
}
