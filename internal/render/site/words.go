package site

import (
	"strings"

	"codrel/internal/look"
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

// look is how the maintainer wants the pages.
func (v view) look() *look.Look { return v.options.Look }

func (v view) say(key string, pairs ...string) string { return v.look().Texts.Say(key, pairs...) }

func (v view) count(n int, thing string) string { return v.look().Texts.Count(n, thing) }

// kindWords say what a declaration is, "deprecated" included: a heading must
// read well without colours and lines.
func (v view) kindWords(d *model.Declaration) string {
	if d.Deprecated() {
		return d.Kind().String() + ", " + v.say("deprecated")
	}
	return d.Kind().String()
}

func (v view) moduleKind(m *model.Module) string {
	if m.Name == "main" {
		return v.say("program")
	}
	return v.say("package")
}

// groupTitle is the heading of a group: the maintainer's own words, or ours.
func (v view) groupTitle(g plan.Group) string {
	if g.Named {
		return g.Title
	}
	return v.say(g.Title)
}

// placeOf says what a declaration is and where, for lists of names.
func (v view) placeOf(d *model.Declaration) sentence {
	key := "kind-in"
	if d.Scope != "" {
		key = "kind-of-in"
	}
	return v.sentenceOf(key, slot("kind", piece{Text: v.kindWords(d)}),
		slot("scope", piece{Text: d.Scope, Foreign: true}), slot("module", piece{Text: shortPath(d.Module), Foreign: true}))
}

// pageTitle is the heading of a page that is about no declaration.
func (v view) pageTitle() string {
	switch v.page.Kind {
	case plan.TreePage:
		return v.say("all-modules")
	case plan.GonePage:
		return v.say("gone-title")
	case plan.LostPage:
		return v.say("lost-title")
	case plan.FindingsPage:
		return v.say("findings")
	case plan.CoveragePage:
		return v.say("coverage")
	case plan.UsersPage:
		return v.say("users-title", "module", v.page.Module.Last())
	case plan.IndexPage:
		if v.page.Letter != "" {
			return v.say("a-z-letter", "letter", v.page.Letter)
		}
		return v.say("a-z")
	}
	return v.page.Title
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

func anchorOf(d *model.Declaration) string { return plan.Anchor(d) }

// memberName is a declaration's name within its page.
func memberName(d *model.Declaration) string {
	if _, below, ok := strings.Cut(d.Path(), "."); ok {
		return below
	}
	return d.Name
}

// permalink is the declaration's address from its own page.
func (v view) permalink(d *model.Declaration) string {
	if anchor := anchorOf(d); anchor != "" && v.plan.PageOf(d) == v.page.Address {
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
