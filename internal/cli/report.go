package cli

import (
	"bufio"
	"fmt"
	"io"
	"os"
	"strings"
	"time"
	"unicode/utf8"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/model"
)

// painter puts colours on words, or leaves them as they are.
type painter bool

// paints reports whether w takes colours: a terminal, and the user did not say no
// (no-color.org).
func paints(w io.Writer) painter {
	return painter(isTerminal(w) && os.Getenv("NO_COLOR") == "" && os.Getenv("TERM") != "dumb")
}

func (p painter) code(code, text string) string {
	if !p {
		return text
	}
	return "\x1b[" + code + "m" + text + "\x1b[0m"
}

func (p painter) severity(s finding.Severity, text string) string {
	switch s {
	case finding.Error:
		return p.code("31", text)
	case finding.Warning:
		return p.code("33", text)
	}
	return p.code("36", text)
}

// findings prints one finding a line: in columns for people, in the form that
// editors and CI read otherwise.
func (a *app) findings(p *project, list []finding.Finding) error {
	switch a.format {
	case "jsonl":
		return a.jsonLines(p, list)
	case "sarif":
		return a.sarif(list)
	}
	out := bufio.NewWriter(a.stdout)
	if isTerminal(a.stdout) {
		a.columns(out, p, list, terminalWidth(a.stdout))
		return out.Flush()
	}
	for i := range list {
		f := &list[i]
		fmt.Fprintf(out, "%s:%d:%d: %s: %s [%s]\n", a.shownFile(p, f.Place.File), f.Place.At.Line, f.Place.At.Column,
			f.Severity, a.message(p, f), f.Rule)
	}
	return out.Flush()
}

// mostPlaces is how many places of a finding its line names; the rest is counted.
const mostPlaces = 3

// message is what a finding says, with the other places of the same cause.
func (a *app) message(p *project, f *finding.Finding) string {
	return finding.OneLine(check.Text(f)) + check.AlsoAt(f, mostPlaces, func(file string) string { return a.shownFile(p, file) })
}

// widest bounds the column of places, in characters, so that long paths do not push every
// message off the screen: a longer one has a line to itself.
const widest = 48

// narrowest is the room a message needs beside the other columns; with less it
// stands below them.
const narrowest = 40

func (a *app) columns(out io.Writer, p *project, list []finding.Finding, width int) {
	places := make([]string, len(list))
	placeWidth, ruleWidth := 0, 0
	for i := range list {
		f := &list[i]
		places[i] = fmt.Sprintf("%s:%d:%d", a.shownFile(p, f.Place.File), f.Place.At.Line, f.Place.At.Column)
		placeWidth = max(placeWidth, min(widest, utf8.RuneCountInString(places[i])))
		ruleWidth = max(ruleWidth, len(f.Rule))
	}
	indent := placeWidth + len("  warning  ") + ruleWidth + 2
	below := width-indent < narrowest
	if below {
		indent = 4
	}
	for i := range list {
		f := &list[i]
		severity := a.paint.severity(f.Severity, pad(f.Severity.String(), len("warning")))
		lines := strings.Join(wrap(a.message(p, f), width-indent), "\n"+strings.Repeat(" ", indent))
		if below {
			fmt.Fprintf(out, "%s  %s  %s\n    %s\n", a.paint.code("2", places[i]), a.paint.severity(f.Severity, f.Severity.String()), f.Rule, lines)
			continue
		}
		place := a.paint.code("2", pad(places[i], placeWidth))
		if utf8.RuneCountInString(places[i]) > placeWidth {
			place = a.paint.code("2", places[i]) + "\n" + strings.Repeat(" ", placeWidth)
		}
		fmt.Fprintf(out, "%s  %s  %s  %s\n", place, severity, pad(f.Rule, ruleWidth), lines)
	}
}

// wrap cuts a text into lines of at most width characters, between words.
func wrap(text string, width int) []string {
	var lines []string
	line := ""
	for word := range strings.FieldsSeq(text) {
		if line != "" && utf8.RuneCountInString(line)+1+utf8.RuneCountInString(word) > width {
			lines = append(lines, line)
			line = ""
		}
		if line != "" {
			line += " "
		}
		line += word
	}
	return append(lines, line)
}

func pad(s string, width int) string {
	return s + strings.Repeat(" ", max(0, width-utf8.RuneCountInString(s)))
}

// closing is the line that sums up what was found.
func (a *app) closing(p *project, s *build.Snapshot, list []finding.Finding) {
	if a.quiet {
		return
	}
	c := s.Coverage
	what := "public declarations"
	if reach := p.Settings.Reach; reach > model.ReachProtected {
		what = "declarations (reach: " + reach.String() + ")"
	}
	if c.Total == 0 {
		fmt.Fprintf(a.stdout, "%s · %s\n", a.counts(list), nothingPublic(p, s, what))
		a.passedOver(s)
		return
	}
	taken := ""
	if c.Inherited > 0 {
		taken = fmt.Sprintf(", %d of them with inherited text", c.Inherited)
	}
	if c.InheritedOnly > 0 {
		taken += fmt.Sprintf(", %d more have inherited text", c.InheritedOnly)
	}
	fmt.Fprintf(a.stdout, "%s · %d of %d %s documented (%.1f %%)%s\n", a.counts(list), c.Documented, c.Total, what, c.Percent(), taken)
	a.passedOver(s)
}

// nothingPublic says why there is nothing to document.
func nothingPublic(p *project, s *build.Snapshot, what string) string {
	read := fmt.Sprintf("%s with %s read", counted(s.Stats.Files, "file"), counted(s.Stats.Declared, "declaration"))
	switch {
	case s.Stats.Declared == 0:
		return "nothing to document: " + read
	case s.Stats.InReach > 0:
		return fmt.Sprintf("nothing to document: %s, and none of %d %s is of a kind that needs a comment", read, s.Stats.InReach, what)
	case p.Settings.Reach <= model.ReachProtected:
		return "nothing here is public: " + read + "; \"reach: internal\" in codrel.yaml shows internal declarations too, \"reach: private\" everything"
	}
	return fmt.Sprintf("nothing is visible with the current setting of reach: %s; \"reach: private\" in codrel.yaml shows everything", read)
}

// passedOver says which files were not read since they are built from others.
func (a *app) passedOver(s *build.Snapshot) {
	var parts []string
	for i, folder := range s.Stats.Passed {
		switch {
		case folder.Minified:
			parts = append(parts, counted(folder.Files, "minified file"))
		case i < mostPassed:
			parts = append(parts, fmt.Sprintf("%s/ (%s generated from other source)", folder.Folder, counted(folder.Files, "file")))
		case i == mostPassed:
			parts = append(parts, counted(len(s.Stats.Passed)-mostPassed, "more folder"))
		}
	}
	if len(parts) > 0 {
		fmt.Fprintf(a.stdout, "Skipped %s.\n", list(parts))
	}
}

// mostPassed is how many folders a line names; the rest is counted.
const mostPassed = 4

func (a *app) counts(list []finding.Finding) string {
	var n [finding.Error + 1]int
	for _, f := range list {
		n[f.Severity]++
	}
	var parts []string
	for s := finding.Error; s > finding.Off; s-- {
		if n[s] > 0 {
			parts = append(parts, a.paint.severity(s, counted(n[s], s.String())))
		}
	}
	if len(parts) == 0 {
		return "no findings"
	}
	return strings.Join(parts, ", ")
}

func counted(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// failed is the error that gives exit code 1 where a finding weighs enough.
func failed(list []finding.Finding, on finding.Severity) error {
	if on == finding.Off {
		return nil
	}
	for _, f := range list {
		if f.Severity >= on {
			return &exit{code: exitFindings}
		}
	}
	return nil
}

// stages prints where the time went.
func (a *app) stages(list []build.StageTime) {
	if !a.verbose {
		return
	}
	for _, st := range list {
		fmt.Fprintf(a.stderr, "%-14s %8.1f ms\n", st.Name, float64(st.Took.Microseconds())/1000)
	}
}

func size(bytes int64) string {
	switch {
	case bytes >= 10<<20:
		return fmt.Sprintf("%d MB", bytes/1e6)
	case bytes >= 10_000:
		return fmt.Sprintf("%d kB", bytes/1000)
	}
	return counted(int(bytes), "byte")
}

func seconds(d time.Duration) string { return fmt.Sprintf("%.2f s", d.Seconds()) }
