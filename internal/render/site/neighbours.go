package site

import (
	"slices"
	"strconv"

	"codrel/internal/model"
	"codrel/internal/render/modules"
	"codrel/internal/render/page"
)

// neighbours is the picture of a module between those that import it and those that
// it imports, or "" where it stands alone. The notes beside the module's heading say
// the same in words.
func (v view) neighbours(m *model.Module) string {
	links := v.plan.Links
	ring := map[*model.Module]bool{}
	for _, c := range links.Cycles() {
		if i := slices.Index(c.Modules, m); i >= 0 {
			ring[c.Modules[(i+1)%len(c.Modules)]] = true
			ring[c.Modules[(i+len(c.Modules)-1)%len(c.Modules)]] = true
		}
	}
	neighbour := func(other *model.Module, apart bool) modules.Neighbour {
		n := modules.Neighbour{Name: page.ShortPath(other), Apart: apart, Ring: ring[other]}
		if links.ModuleInReach(other) {
			n.Href = v.to(v.plan.Module(other))
		}
		return n
	}
	var above, below []modules.Neighbour
	for _, other := range links.ImportedBy(m) {
		apart := false
		for _, e := range links.Imports(other) {
			apart = apart || e.To == m && e.Apart
		}
		above = append(above, neighbour(other, apart))
	}
	for _, e := range links.Imports(m) {
		below = append(below, neighbour(e.To, e.Apart))
	}
	paged := func(a, b modules.Neighbour) int { // those with a page first
		switch {
		case (a.Href == "") == (b.Href == ""):
			return 0
		case a.Href != "":
			return -1
		}
		return 1
	}
	slices.SortStableFunc(above, paged)
	slices.SortStableFunc(below, paged)
	return modules.Around(page.ShortPath(m), above, below, func(n int) string { return v.say("and-more", "n", strconv.Itoa(n)) })
}
