package site

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/render/plan"
)

// mostContents is how many lines each list of the contents has at most; the
// page of all modules and the A to Z list hold the rest.
const mostContents = 60

// beside are the modules that the contents list beside the page's own: those
// with the same parent, or the own one alone where they are too many.
func (v view) beside() []*model.Module {
	beside, _ := v.plan.Siblings(v.page.Module)
	if len(beside) > mostContents {
		return []*model.Module{v.page.Module}
	}
	return beside
}

func (v view) below() []*model.Module {
	_, below := v.plan.Siblings(v.page.Module)
	return below[:min(len(below), mostContents)]
}

// listed are the declarations of a module that the contents list: all of them
// on the module's own page, the types elsewhere, in the order of the overview.
func (v view) listed(m *model.Module) []*model.Declaration {
	var out []*model.Declaration
	for _, g := range v.plan.GroupsOf(m) {
		for _, d := range g.All() {
			if d.Kind().IsType() || v.page.Kind == plan.ModulePage {
				out = append(out, d)
			}
		}
	}
	return out
}

// shortPath is a module's path without what all modules of its library begin with.
func shortPath(m *model.Module) string {
	if rest, ok := strings.CutPrefix(m.Path, m.Library.Prefix+"/"); ok && m.Library.Prefix != "" {
		return rest
	}
	return m.Path
}
