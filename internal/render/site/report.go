package site

import (
	"fmt"
	"strconv"
	"strings"

	"codrel/internal/model"
	"codrel/internal/render/plan"
)

// Report is the state of the documentation, for the pages that show it.
type Report struct {
	Findings          []Finding
	Modules           []Share // in the order of the reference
	Documented, Total int
	Taken             int // have no comment of their own, and show another's
}

// Finding is one thing that is wrong, in words.
type Finding struct {
	Severity, Rule, Text string
	File                 string // from the project's root
	Line, Column         int
}

// Share is how much of a module is documented.
type Share struct {
	Module            *model.Module
	Documented, Total int
}

// findingPlace says where a finding is, with a link where that is shown.
func (v view) findingPlace(f Finding) sentence {
	href := v.plan.SourceFile(f.File, f.Line)
	if href != "" {
		href = v.to(href)
	}
	return sentence{{Text: f.File + ":" + strconv.Itoa(f.Line) + ":" + strconv.Itoa(f.Column), Href: href, Name: true}}
}

// findingsTurns are the pages that list the findings.
func (v view) findingsTurns() []turn {
	var out []turn
	for part := range plan.FindingsParts(len(v.options.Report.Findings)) {
		out = append(out, turn{strconv.Itoa(part + 1), plan.FindingsPart(part), part == v.page.Part})
	}
	return out
}

// clean takes the marks out of a text that turn its direction.
func clean(text string) string {
	return strings.Map(func(r rune) rune {
		if turnsDirection(r) {
			return -1
		}
		return r
	}, text)
}

func share(documented, total int) float64 {
	if total == 0 {
		return 100
	}
	return 100 * float64(documented) / float64(total)
}

func percent(documented, total int) string { return fmt.Sprintf("%.1f", share(documented, total)) }

// anchor is a declaration's anchor on the page being drawn.
func (v view) anchor(d *model.Declaration) string {
	if v.onWhole(d) {
		return d.Path()
	}
	return plan.Anchor(d)
}
