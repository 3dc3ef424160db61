package site

import (
	"slices"
	"strconv"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/render/modules"
	"codrel/internal/render/page"
)

// This file draws a module between those that import it and those that it imports.

// Bounds of such a picture where it goes on through others, as it does for files that include one
// another: how many rows it has on a side, and how many modules. With more, it shows the nearest.
const (
	mostRows  = 4
	mostDrawn = 30
)

// surroundings is the work on one picture.
type surroundings struct {
	view
	ring map[*model.Module]bool
}

// neighbours is the picture of a module, or "" where it stands alone. The notes beside the
// module's heading say the same in words.
func (v view) neighbours(m *model.Module) string {
	s := surroundings{view: v, ring: map[*model.Module]bool{}}
	for _, c := range v.plan.Links.Cycles() {
		if i := slices.Index(c.Modules, m); i >= 0 {
			s.ring[c.Modules[(i+1)%len(c.Modules)]] = true
			s.ring[c.Modules[(i+len(c.Modules)-1)%len(c.Modules)]] = true
		}
	}
	above, below := s.rows(m, s.importers), s.rows(m, s.imported)
	return modules.Around(page.ShortPath(m), above, below, func(n int) string { return v.say("and-more", "n", strconv.Itoa(n)) })
}

// beside is a module that another one imports, or is imported by.
type beside struct {
	module *model.Module
	apart  bool
}

func (s *surroundings) importers(m *model.Module) (out []beside) {
	for _, other := range s.plan.Links.ImportedBy(m) {
		apart := slices.ContainsFunc(s.plan.Links.Imports(other), func(e link.Edge) bool { return e.To == m && e.Apart })
		out = append(out, beside{other, apart})
	}
	return out
}

func (s *surroundings) imported(m *model.Module) (out []beside) {
	for _, e := range s.plan.Links.Imports(m) {
		out = append(out, beside{e.To, e.Apart})
	}
	return out
}

// rows are the modules on one side, the nearest first. Those with a page come first in each row.
func (s *surroundings) rows(m *model.Module, next func(*model.Module) []beside) (out [][]modules.Neighbour) {
	seen, count := map[*model.Module]bool{m: true}, 0
	row := []*model.Module{m}
	for depth := 0; len(row) > 0 && depth < mostRows && (depth == 0 || m.ByFile()); depth++ {
		var found []*model.Module
		drawn := map[*model.Module]modules.Neighbour{}
		for k, from := range row {
			for _, to := range next(from) {
				if seen[to.module] {
					continue
				}
				n, known := drawn[to.module]
				if !known {
					found = append(found, to.module)
					n = s.neighbour(to, depth == 0)
				}
				n.By = append(n.By, k)
				drawn[to.module] = n
			}
		}
		slices.SortStableFunc(found, func(a, b *model.Module) int { return unpaged(drawn[a]) - unpaged(drawn[b]) })
		if count += len(found); len(found) == 0 || depth > 0 && count > mostDrawn {
			break
		}
		var list []modules.Neighbour
		for _, to := range found {
			seen[to] = true
			list = append(list, drawn[to])
		}
		out, row = append(out, list), found
	}
	return out
}

func (s *surroundings) neighbour(to beside, near bool) modules.Neighbour {
	n := modules.Neighbour{Name: page.ShortPath(to.module), Apart: to.apart, Ring: near && s.ring[to.module]}
	if s.plan.Links.ModuleInReach(to.module) {
		n.Href = s.to(s.plan.Module(to.module))
	}
	return n
}

// unpaged is 1 for what has no page, else 0.
func unpaged(n modules.Neighbour) int {
	if n.Href == "" {
		return 1
	}
	return 0
}
