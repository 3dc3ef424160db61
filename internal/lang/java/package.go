package java

import (
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads what describes a package in HTML, as it was done before package-info.java.

// packageFile is the name of such a file; it stands beside the sources of its package.
const packageFile = "package.html"

// FileNames are those of files that describe packages.
func (FrontEnd) FileNames() []string { return []string{packageFile} }

// readPackage takes what stands in the body of the page for the comment on the package.
func readPackage(file lang.File) *model.Facts {
	facts := file.Facts(habits.Language)
	if (FrontEnd{}).IsTest(file.Path) {
		facts.Role = model.RoleTest
	}
	from, to := 0, len(facts.Text)
	lower := strings.ToLower(facts.Text)
	if len(lower) == len(facts.Text) { // else letters of other alphabets moved what follows
		if i := strings.Index(lower, "<body"); i >= 0 {
			if end := strings.IndexByte(lower[i:], '>'); end >= 0 {
				from = i + end + 1
			}
		}
		if i := strings.LastIndex(lower[from:], "</body"); i >= 0 {
			to = from + i
		}
	}
	var lines []source.Span
	for at := from; at <= to; {
		end := strings.IndexByte(facts.Text[at:to], '\n')
		if end < 0 {
			end = to - at
		}
		lines = append(lines, source.NewSpan(at, at+len(strings.TrimRight(facts.Text[at:at+end], " \t\r"))))
		at += end + 1
	}
	facts.ModuleDoc = lexing.MakeDoc(facts.Text, lines, source.NewSpan(from, to))
	return facts
}
