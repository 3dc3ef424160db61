package site

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/render/plan"
)

// This file names things in words.

var languageNames = map[string]string{
	"go": "Go", "python": "Python", "javascript": "JavaScript", "typescript": "TypeScript", "java": "Java",
	"c": "C", "cpp": "C++", "csharp": "C#", "rust": "Rust", "perl": "Perl",
}

func languageName(language string) string {
	if name := languageNames[language]; name != "" {
		return name
	}
	return language
}

// kindWords say what a declaration is, "deprecated" included: a heading must
// read well without colours and lines.
func kindWords(d *model.Declaration) string {
	if d.Deprecated() {
		return d.Kind().String() + ", deprecated"
	}
	return d.Kind().String()
}

func moduleKind(m *model.Module) string {
	if m.Name == "main" {
		return "program"
	}
	return "package"
}

// libraryName is the library that the page belongs to, or "".
func (v view) libraryName() string {
	if v.page.Library == nil {
		return ""
	}
	return v.page.Library.Name
}

// mostPlates is how many declarations of a group have a plate each; larger
// groups, as tables of constants are, stand a line each.
const mostPlates = 300

func crowded(g plan.Group) bool {
	list := details(g)
	return len(list) > mostPlates && len(list) == len(g.Declarations)+len(g.Deprecated)
}

func groupAnchor(g plan.Group) string { return "s-all-" + plan.Slug(g.Title) }

// entriesByLetter cuts a sorted list of entries where the first letter changes.
func entriesByLetter(list []plan.Entry) [][]plan.Entry {
	var out [][]plan.Entry
	for i, e := range list {
		if i == 0 || plan.Letter(list[i-1].Name) != plan.Letter(e.Name) {
			out = append(out, nil)
		}
		out[len(out)-1] = append(out[len(out)-1], e)
	}
	return out
}

// memberName is a declaration's name within its page.
func memberName(d *model.Declaration) string {
	if _, below, ok := strings.Cut(d.Path(), "."); ok {
		return below
	}
	return d.Name
}

// permalink is the declaration's address from its own page.
func (v view) permalink(d *model.Declaration) string {
	if anchor := plan.Anchor(d); anchor != "" && v.plan.PageOf(d) == v.page.Address {
		return "#" + anchor
	}
	return v.toDeclaration(d)
}

// details are the declarations of a group that have no page of their own.
func details(g plan.Group) []*model.Declaration {
	var out []*model.Declaration
	for _, d := range g.All() {
		if !d.Kind().IsType() {
			out = append(out, d)
		}
	}
	return out
}
