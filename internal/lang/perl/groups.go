package perl

import (
	"slices"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file makes groups of what is described below one heading: "METHODS", "Reading a log".

// ungrouped are the sections that speak of the module as a whole, whatever lists stand in them.
var ungrouped = lexing.WordSet("NAME SYNOPSIS DESCRIPTION OVERVIEW INTRODUCTION USAGE EXAMPLE EXAMPLES NOTES BUGS CAVEATS HISTORY CHANGES TODO AUTHOR AUTHORS LICENSE COPYRIGHT")

// group puts what paragraphs speak of into the group of the heading above. What stands between that
// and the first of them is the group's text.
func (r *reader) group(paragraphs []paragraph, subjects []subject) {
	var above []int // headings, each deeper than the one before
	grouped := map[int]bool{}
	seen := 0
	for i := range paragraphs {
		p := &paragraphs[i]
		if p.level > 0 {
			for n := len(above); n > 0 && paragraphs[above[n-1]].level >= p.level; n-- {
				above = above[:n-1]
			}
			if p.of == 0 {
				above = append(above, i)
			}
		}
		if p.of <= seen || len(above) == 0 {
			continue
		}
		seen = p.of
		at := above[len(above)-1]
		title := withoutCodes(paragraphs[at].rest)
		if title == "" || len(title) > longestHeading || ungrouped[strings.ToUpper(title)] {
			continue
		}
		names := subjects[p.of-1].names
		name := r.packageIn(names[0]) + " " + title
		for _, of := range names {
			r.join(of, name, paragraphs[at].span())
		}
		if grouped[at] || r.hasGroup[name] {
			continue
		}
		grouped[at] = true
		g := model.Group{Name: name, Title: title}
		var lines []source.Span
		for k := at + 1; k < i && paragraphs[k].of == 0 && paragraphs[k].command == ""; k++ {
			lines = appendParagraph(lines, &paragraphs[k])
			paragraphs[k].of = -1
		}
		if len(lines) > 0 {
			g.Doc = lexing.MakeDoc(r.Text, lines, source.Span{Start: lines[0].Start, End: lines[len(lines)-1].End})
		}
		r.addGroup(g)
	}
}

// packageIn is the package that a declaration is in.
func (r *reader) packageIn(at int) string {
	if in := r.facts.Occurrences[at].In(); in != "" {
		return in
	}
	return r.main
}

// join puts a declaration into a group, unless it is in one.
func (r *reader) join(at int, group string, span source.Span) {
	o := &r.facts.Occurrences[at]
	if slices.ContainsFunc(o.Directives(), func(d model.Directive) bool { return d.Verb == "part" }) {
		return
	}
	if o.Extra == nil {
		o.Extra = &model.Extra{}
	}
	o.Extra.Directives = append(o.Extra.Directives, model.Directive{Verb: "part", Object: group, Span: span})
}

// emptied notes a heading that nothing is left below: references may name it all the same.
func (r *reader) emptied(p *paragraph) {
	title := withoutCodes(p.rest)
	name := r.main + " " + title
	if title == "" || r.hasGroup[name] {
		return
	}
	r.addGroup(model.Group{Name: name, Title: title})
}

func (r *reader) addGroup(g model.Group) {
	if r.hasGroup == nil {
		r.hasGroup = map[string]bool{}
	}
	r.hasGroup[g.Name] = true
	r.facts.Groups = append(r.facts.Groups, g)
}
