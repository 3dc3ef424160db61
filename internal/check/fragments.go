package check

import (
	"slices"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// This file holds the rule on fragments: pieces of text that "insert:" puts into
// comments, the landing page and other fragments.

var brokenFragment = Rule{
	Name: finding.BrokenFragment, Default: finding.Error, Language: "go",
	Summary: "an inserted fragment does not exist, or inserts itself",
	Explanation: `Text that is needed in several places can be a fragment: a Markdown file in
docs/fragments, or in the folder that "fragments:" names in codrel.yaml. A link to
insert:NAME, alone in its paragraph, is replaced by it; in Go comments the link is
defined below the text. A fragment that nothing inserts is a note.`,
	Wrong: `// Package tide predicts water levels.
//
// [heights]
//
// [heights]: insert:heights
package tide
`,
	Right: `// Package tide predicts water levels.
//
// [heights]
//
// [heights]: insert:heights
package tide
-- docs/fragments/heights.md --
All heights are metres above chart datum.
`,
	Messages: map[string]string{
		"":          `there is no fragment "{name}"`,
		"near":      `there is no fragment "{name}"; did you mean {near}?`,
		"circle":    `the fragment inserts itself: {way}`,
		"in a line": `the fragment "{name}" is inserted only where the link is alone in its paragraph`,
		"unused":    `nothing inserts the fragment "{name}"`,
	},
	module: func(p *Pass) {
		if len(p.Links.Project.Fragments) == 0 && !p.insertsAnything() {
			return
		}
		p.eachText(func(d *model.Declaration, f *model.Facts, sections *prose.Sections, _ link.Scope) {
			for nodes := range sections.All {
				p.inserts(d, f.Place, nodes)
			}
		}, "", prose.InsertScheme)
	},
}

// insertsAnything reports whether any file of the module has the scheme in it, so
// that comments need not be taken apart to know that there is nothing.
func (p *Pass) insertsAnything() bool {
	return slices.ContainsFunc(p.Module.Files, func(f *model.Facts) bool { return strings.Contains(f.Text, prose.InsertScheme) })
}

// inserts judges the fragments that a text inserts, and notes which they are.
func (p *Pass) inserts(d *model.Declaration, placeOf placer, nodes []prose.Node) {
	prose.Walk(nodes, func(n *prose.Node) bool {
		if insert := prose.Alone(n, prose.Insert); insert != nil {
			p.inserted = append(p.inserted, insert.Target)
			if p.Links.Fragment(insert.Target) == nil {
				p.noFragment(d, placeOf(shownSpan(insert)), insert.Target)
			}
			return false
		}
		if n.Kind == prose.Insert {
			p.report(d, finding.Finding{
				Rule: finding.BrokenFragment, Form: "in a line", Place: placeOf(shownSpan(n)),
				Arguments: []finding.Argument{argument("name", n.Target)},
			})
		}
		return true
	})
}

func (p *Pass) noFragment(d *model.Declaration, place finding.Place, name string) {
	f := finding.Finding{Rule: finding.BrokenFragment, Place: place, Arguments: []finding.Argument{argument("name", name)}}
	var names []string
	for _, known := range p.Links.Project.Fragments {
		names = append(names, known.Name)
	}
	if near := nearest.Word(name, names); near != "" {
		f.Form = "near"
		f.Arguments = append(f.Arguments, argument("near", near))
	}
	p.report(d, f)
}

// fragments judges the texts of the fragments themselves: what they name and
// insert, circles, and that each is used. used are those that other texts insert.
func (p *Pass) fragments(used []string, options Options) {
	known := map[string]bool{}
	for len(used) > 0 {
		name := used[0]
		used = used[1:]
		f := p.Links.Fragment(name)
		if known[name] || f == nil {
			continue
		}
		known[name] = true
		used = append(used, link.Inserted(f.Nodes)...)
	}
	for _, fragment := range p.Links.Project.Fragments {
		f := p.Links.Fragment(fragment.Name)
		if applies(options, finding.BrokenReference) || applies(options, finding.AmbiguousReference) {
			p.page(f.Page, f.Nodes)
		}
		if applies(options, finding.MalformedComment) {
			p.plain(f.Page, f.Plain)
		}
		if applies(options, finding.BrokenGuideLink) {
			p.leads(f.Page, f.Nodes)
		}
		p.excerpts(f.Page, f.Nodes, options)
		if !applies(options, finding.BrokenFragment) {
			continue
		}
		p.inserts(nil, f.Page.Place, f.Nodes)
		top := finding.Place{File: f.Page.Path, At: f.Page.Lines.Position(0)}
		if way := p.Links.Circle(f.Name); way != nil && f.Name == slices.Min(way) {
			p.report(nil, finding.Finding{
				Rule: finding.BrokenFragment, Form: "circle", Place: top,
				Arguments: []finding.Argument{argument("way", strings.Join(way, " → "))},
			})
		}
		if !known[f.Name] {
			p.report(nil, finding.Finding{
				Rule: finding.BrokenFragment, Form: "unused", Place: top, Severity: finding.Note,
				Arguments: []finding.Argument{argument("name", f.Name)},
			})
		}
	}
}
