package plan

import "strconv"

// FindingsOnPage is how many findings, or to-dos, a page lists.
const FindingsOnPage = 2000

// reports are the pages on the state of the documentation.
func (p *Plan) reports() (pages []*Page) {
	if p.HasFindings {
		for part := range FindingsParts(p.options.Findings) {
			pages = append(pages, &Page{Kind: FindingsPage, Address: FindingsPart(part), Title: "Findings", Part: part})
		}
	}
	if p.HasCoverage {
		pages = append(pages, &Page{Kind: CoveragePage, Address: CoverageAddress, Title: "Coverage"})
	}
	if p.HasToDos {
		for part := range FindingsParts(p.options.ToDos) {
			pages = append(pages, &Page{Kind: ToDosPage, Address: ToDosPart(part), Title: "To-dos", Part: part})
		}
	}
	return pages
}

// FindingsParts is how many pages so many findings, or to-dos, need; there is always one.
func FindingsParts(findings int) int { return max(1, (findings+FindingsOnPage-1)/FindingsOnPage) }

// FindingsPart is the address of one of the pages of findings.
func FindingsPart(part int) string {
	if part == 0 {
		return FindingsAddress
	}
	return "findings-" + strconv.Itoa(part+1) + ".html"
}

// ToDosPart is the address of one of the pages of to-dos.
func ToDosPart(part int) string {
	if part == 0 {
		return ToDosAddress
	}
	return "to-dos-" + strconv.Itoa(part+1) + ".html"
}
