package check

import (
	"strconv"

	"codrel/internal/excerpt"
	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// This file holds the rules on excerpts: pieces of source that guides show.

var brokenExcerpt = Rule{
	Name: finding.BrokenExcerpt, Default: finding.Error, Language: "go",
	Summary: "a guide shows a piece of source that is not there",
	Explanation: `A fence whose words have "excerpt=" shows a piece of real source: a declaration
(excerpt=Plan.Assign), with part=body its body alone, part=head its signature,
part=commented its comment too; or a file (excerpt=file:codrel.yaml). from="..." and
to="..." keep the lines between two that have these texts in them, lines=3-9 those with
these numbers; without=4-6 leaves lines out, and so do remarks in the source that say
"codrel: leave out" and "codrel: go on". What a fence asks for must be there, once.`,
	Wrong: excerptSource + `-- README.md --
# Tides

` + "```go excerpt=Hieght\nconst Height = 2.0\n```" + `
`,
	Right: excerptSource + `-- README.md --
# Tides

` + "```go excerpt=Height\nconst Height = 2.0\n```" + `
`,
	Messages: map[string]string{
		"":          `the excerpt "{name}" is not declared`,
		"near":      `the excerpt "{name}" is not declared; did you mean {near}?`,
		"renamed":   `the excerpt "{name}" is not declared; it is most like {near} now`,
		"several":   `the excerpt "{name}" may be {first} or {second}; write more of the name`,
		"module":    `the excerpt "{name}" is a module; name something in it, or a file as file:PATH`,
		"file":      `there is no file {name} to show; paths begin at the project's folder`,
		"near file": `there is no file {name} to show; did you mean {near}?`,
		"outside":   `{name} lies outside the project, which excerpts are taken from`,
		"no text":   `{name} is no text that an excerpt can be taken from`,
		"no body":   `{name} has no body to show`,
		"no start":  `no line of {name} has "{pattern}" in it, with which the excerpt begins`,
		"starts":    `the excerpt of {name} begins with "{pattern}", which is in the lines {first} and {second}; write more of the line`,
		"no end":    `no line of {name} behind the first has "{pattern}" in it, with which the excerpt ends`,
		"no line":   `{name} has {lines} lines, and no line {line}`,
		"nested":    `the excerpt of {name} has an excerpt in it, in line {line}, which may be out of date; show its source`,
		"empty":     `the excerpt of {name} has no text`,
		"words":     `the words of the fence cannot be read: {problem}`,
		"unclosed":  `the fence of {name} has no end; close it, or nobody can tell where the copy ends`,
		"fence":     `the fence cannot hold {name}, which has such marks in it; open and close it with more of them`,
	},
}

var staleExcerpt = Rule{
	Name: finding.StaleExcerpt, Default: finding.Error, Language: "go",
	Summary: "the copy of a piece of source in a guide is out of date",
	Explanation: `A fence with "excerpt=" holds a copy of what it shows, for those who read the guide
elsewhere. The page shows what the source says now; the copy must say the same, but for
blanks at the ends of lines. "codrel refresh" writes it anew.`,
	Wrong: excerptSource + `-- README.md --
# Tides

` + "```go excerpt=Height\nconst Height = 2.1\n```" + `
`,
	Right: excerptSource + `-- README.md --
# Tides

` + "```go excerpt=Height\nconst Height = 2.0\n```" + `
`,
	Messages: map[string]string{
		"":      `the copy of {name} differs from {place} in {lines}: line {at} is "{was}", the source has "{now}"; "codrel refresh" writes it anew`,
		"more":  `the copy of {name} differs from {place} in {lines}: line {at} "{was}" is gone; "codrel refresh" writes it anew`,
		"less":  `the copy of {name} differs from {place} in {lines}: before line {at}, "{now}" is new; "codrel refresh" writes it anew`,
		"blank": `the fence has no copy of {name} yet; "codrel refresh" writes it`,
	},
}

// excerptSource is a package with something to show.
const excerptSource = `// Package tide predicts water levels.
package tide

// Height is the water level.
const Height = 2.0
`

// excerpts judges the pieces of source that a page shows.
func (p *Pass) excerpts(page *model.Page, nodes []prose.Node, options Options) {
	prose.Walk(nodes, func(n *prose.Node) bool {
		if n.Kind == prose.CodeBlock && prose.MayBeExcerpt(n.Info) {
			for _, f := range p.excerpt(page, n) {
				if applies(options, f.Rule) {
					p.report(nil, f)
				}
			}
		}
		return true
	})
}

func (p *Pass) excerpt(page *model.Page, n *prose.Node) []finding.Finding {
	ask, ok, err := excerpt.Read(n.Info)
	if !ok {
		return nil
	}
	place := page.Place(source.NewSpan(int(n.Span.Start), int(n.Span.Start)+len(n.Info)))
	broken := func(form string, values []finding.Argument) []finding.Finding {
		return []finding.Finding{{Rule: finding.BrokenExcerpt, Form: form, Place: place, Arguments: values}}
	}
	if err != nil {
		return broken("words", []finding.Argument{argument("problem", err.Error())})
	}
	piece, bad := excerpt.Find(p.Links, ask, n.Text)
	if bad != nil {
		return broken(bad.Form, bad.Values)
	}
	if piece.Same(n.Text) {
		return nil
	}
	name := ask.What()
	at, is := prose.FindFence(page.Text, int(n.Span.Start))
	switch {
	case !is:
		return broken("unclosed", []finding.Argument{argument("name", name)})
	case !at.Holds(piece.Text):
		return broken("fence", []finding.Argument{argument("name", name)})
	}
	line, was, now, lines := piece.Difference(n.Text)
	f := finding.Finding{Rule: finding.StaleExcerpt, Place: place, Arguments: []finding.Argument{
		argument("name", name), argument("place", piece.File+":"+strconv.Itoa(piece.Line)), argument("lines", counted(lines)),
		argument("at", strconv.Itoa(line)), argument("was", was), argument("now", now),
	}}
	switch {
	case n.Text == "":
		f.Form = "blank"
	case was == "":
		f.Form = "less"
	case now == "":
		f.Form = "more"
	}
	f.Edits = []finding.Edit{{Place: page.Place(at.Inside), Text: at.Lines(piece.Text)}}
	return []finding.Finding{f}
}

func counted(lines int) string {
	if lines == 1 {
		return "one line"
	}
	return strconv.Itoa(lines) + " lines"
}
