package link

import (
	"slices"

	"codrel/internal/model"
)

// This file makes one declaration of what several modules declare under one name for different systems, where a
// module hands on each under its conditions: "pub use linux::*" here and "pub use bsd::*" there.

// unite does so for all modules; what they hand on is known. It reports whether there was anything to do.
func (x *Index) unite() bool {
	changed := map[*model.Module]bool{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if h := m.Library.Habits; h == nil || !h.Nested || !x.takers[m] || !x.seen(m) || x.isInternal(m) {
				continue
			}
			for _, given := range x.Exports(m) {
				for _, other := range given.Others {
					if d := given.Target.Declaration; x.areAlternatives(d, other) && x.mayChange(d.Module) && x.mayChange(other.Module) {
						d.Unite(other)
						changed[other.Module] = true
					}
				}
			}
		}
	}
	for m := range changed {
		m.Prune()
	}
	return len(changed) > 0
}

// areAlternatives reports whether two declarations are the same to users, who never see both: each exists under
// conditions, which differ, and the second has no page.
func (x *Index) areAlternatives(d, other *model.Declaration) bool {
	if d == other || d.Parent != nil || other.Parent != nil || d.Module.Library != other.Module.Library || !d.CanUnite(other) || !x.InReach(d) || x.InReach(other) {
		return false
	}
	if d.Kind() != other.Kind() && !(d.Kind().IsType() && other.Kind().IsType()) {
		return false
	}
	of := func(d *model.Declaration) (out [][]string) {
		for _, at := range d.Occurrences {
			out = append(out, slices.Concat(x.Under(at), at.AllConditions()))
		}
		return out
	}
	own := of(d)
	for _, conditions := range of(other) {
		if slices.ContainsFunc(own, func(o []string) bool { return len(o)+len(conditions) == 0 || slices.Equal(o, conditions) }) {
			return false
		}
	}
	return true
}
