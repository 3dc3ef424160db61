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

// memberName is a declaration's name within its page.
func memberName(d *model.Declaration) string {
	if _, below, ok := strings.Cut(d.Path(), "."); ok {
		return below
	}
	return d.Name
}

// permalink is the declaration's address from its own page.
func (v view) permalink(d *model.Declaration) string {
	if anchor := plan.Anchor(d); anchor != "" && plan.PageOf(d) == v.page.Address {
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
