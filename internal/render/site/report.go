package site

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"codrel/internal/model"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// Report is the state of the documentation, for the pages that show it.
type Report struct {
	Findings          []Finding
	ToDos             []ToDo
	Modules           []Share // in the order of the reference
	Documented, Total int
	Inherited         int // have no comment of their own, and show another's
}

// Finding is one thing that is wrong, in words.
type Finding struct {
	Severity, Rule, Text string
	File                 string // from the project's root
	Line, Column         int
}

// ToDo is what a comment says is still to do, or is wrong.
type ToDo struct {
	Bug       bool
	Who, Text string
	File      string // from the project's root
	Line      int
	In        *model.Declaration // or nil
}

// Share is how much of a module is documented.
type Share struct {
	Module            *model.Module
	Documented, Total int
}

// shareOf is how much of a library is documented, with its modules that have
// anything to document.
type shareOf struct {
	Library           *model.Library
	Modules           []Share
	Documented, Total int
}

// byLibrary puts the modules to their libraries, in the order of the reference.
func (r *Report) byLibrary() []*shareOf {
	var out []*shareOf
	for _, m := range r.Modules {
		if m.Total == 0 {
			continue
		}
		if len(out) == 0 || out[len(out)-1].Library != m.Module.Library {
			out = append(out, &shareOf{Library: m.Module.Library})
		}
		of := out[len(out)-1]
		of.Modules = append(of.Modules, m)
		of.Documented += m.Documented
		of.Total += m.Total
	}
	return out
}

// worstFirst are the modules that are not documented whole: the least documented
// first, and of two alike the one where more is missing.
func (s *shareOf) worstFirst() []Share {
	out := slices.DeleteFunc(slices.Clone(s.Modules), func(m Share) bool { return m.Documented == m.Total })
	slices.SortStableFunc(out, func(a, b Share) int {
		return cmp.Or(cmp.Compare(share(a.Documented, a.Total), share(b.Documented, b.Total)), cmp.Compare(b.Total-b.Documented, a.Total-a.Documented))
	})
	return out
}

// findingPlace says where a finding is, with a link where that is shown.
func (v view) findingPlace(f Finding) page.Sentence {
	out := page.Piece{Text: f.File + ":" + strconv.Itoa(f.Line) + ":" + strconv.Itoa(f.Column), Name: true}
	if address := v.plan.SourceFile(f.File, f.Line); address != "" {
		out.To = page.At(address)
	}
	return page.Sentence{out}
}

// toDoPlace is the line of a to-do, with a link where that is shown.
func (v view) toDoPlace(t ToDo) page.Sentence {
	out := page.Piece{Text: v.say("to-do-line", "n", strconv.Itoa(t.Line))}
	if address := v.plan.SourceFile(t.File, t.Line); address != "" {
		out.To = page.At(address)
	}
	return page.Sentence{out}
}

// toDosByFile are the to-dos of the page, file by file.
func (v view) toDosByFile() (out [][]ToDo) {
	all := v.options.Report.ToDos
	list := all[v.page.Part*plan.FindingsOnPage : min(len(all), (v.page.Part+1)*plan.FindingsOnPage)]
	for i, t := range list {
		if i == 0 || list[i-1].File != t.File {
			out = append(out, nil)
		}
		out[len(out)-1] = append(out[len(out)-1], t)
	}
	return out
}

// toDosTurns are the pages that list the to-dos.
func (v view) toDosTurns() []turn {
	var out []turn
	for part := range plan.FindingsParts(len(v.options.Report.ToDos)) {
		out = append(out, turn{strconv.Itoa(part + 1), plan.ToDosPart(part), part == v.page.Part})
	}
	return out
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
		return plan.Label(d)
	}
	return plan.Anchor(d)
}
