package plan

import "strconv"

// FindingsOnPage is how many findings a page lists.
const FindingsOnPage = 2000

// reports plans the pages on the state of the documentation.
func (p *Plan) reports(options Options) {
	p.HasFindings, p.HasCoverage = options.Findings >= 0, options.Coverage
	if p.HasFindings {
		for part := range FindingsParts(options.Findings) {
			p.add(&Page{Kind: FindingsPage, Address: FindingsPart(part), Title: "Findings", Part: part})
		}
	}
	if p.HasCoverage {
		p.add(&Page{Kind: CoveragePage, Address: CoverageAddress, Title: "Coverage"})
	}
}

// FindingsParts is how many pages so many findings need; there is always one.
func FindingsParts(findings int) int { return max(1, (findings+FindingsOnPage-1)/FindingsOnPage) }

// FindingsPart is the address of one of the pages of findings.
func FindingsPart(part int) string {
	if part == 0 {
		return FindingsAddress
	}
	return "findings-" + strconv.Itoa(part+1) + ".html"
}

// whole plans the pages that hold a module with all its types.
func (p *Plan) whole(wanted func(module string) bool) {
	if wanted == nil {
		return
	}
	for _, lib := range p.Links.Project.Libraries {
		for _, m := range p.Modules(lib.Library) {
			if wanted(m.Path) {
				v := p.modules[m]
				v.whole = v.folder + "/~whole.html"
				p.add(&Page{Kind: WholePage, Address: v.whole, Title: m.Path, Library: lib.Library, Module: m})
			}
		}
	}
}
