package site

import (
	"path"
	"slices"
	"strconv"
	"strings"

	"codrel/internal/model"
	"codrel/internal/render/plan"
)

// This file writes the notes in the margin: short sentences about a
// declaration, made of text and links.

// piece is a part of a sentence; Href is "" for plain text.
type piece struct {
	Text string
	Href string
	Name bool // a name of the code
	Gone bool // names something deprecated
}

type sentence []piece

// mostNames is how many names a sentence lists; the rest is counted.
const mostNames = 12

// names writes "A, B and C" with links.
func (v view) names(start string, list []*model.Declaration) sentence {
	if len(list) == 0 {
		return nil
	}
	s := sentence{{Text: start + " "}}
	shown := list
	if len(shown) > mostNames {
		shown = shown[:mostNames-1]
	}
	for i, d := range shown {
		switch {
		case i == 0:
		case i == len(list)-1:
			s = append(s, piece{Text: " and "})
		default:
			s = append(s, piece{Text: ", "})
		}
		s = append(s, piece{Text: v.nameFromHere(d), Href: v.toDeclaration(d), Name: true, Gone: d.Deprecated()})
	}
	if more := len(list) - len(shown); more > 0 {
		s = append(s, piece{Text: " and " + strconv.Itoa(more) + " more"})
	}
	return append(s, piece{Text: "."})
}

// nameFromHere is a declaration's path, with its module's name before it where
// that is another than the page's.
func (v view) nameFromHere(d *model.Declaration) string {
	if d.Module == v.page.Module {
		return d.Path()
	}
	return moduleName(d.Module) + "." + d.Path()
}

func moduleName(m *model.Module) string {
	if m.Name == "" || m.Name == "main" {
		return path.Base(m.Path)
	}
	return m.Name
}

// notes are the sentences beside a declaration.
func (v view) notes(d *model.Declaration) []sentence {
	out := v.written(d)
	if d.Generated() {
		out = append(out, sentence{{Text: "Generated code."}})
	}
	if d.Visibility != model.Public {
		out = append(out, sentence{{Text: visibilityWords[d.Visibility]}})
	}
	return append(out, v.usedBy(d)...)
}

var visibilityWords = map[model.Visibility]string{
	model.Protected:   "For derived types only.",
	model.Internal:    "Internal: for use within the library.",
	model.PackageWide: "For use within its package only.",
	model.Private:     "Private.",
}

// mostPlaces is how many places of a declaration the margin lists.
const mostPlaces = 4

// written says where a declaration stands, and under which conditions.
func (v view) written(d *model.Declaration) []sentence {
	var out []sentence
	shown := d.Occurrences
	if len(shown) > mostPlaces {
		shown = shown[:mostPlaces]
	}
	for _, o := range shown {
		s := sentence{{Text: "Written in "}, {Text: path.Base(o.File.Path), Href: v.sourceAddress(o.File, int(o.Line)), Name: true}}
		s = append(s, piece{Text: ", line " + strconv.Itoa(int(o.Line))})
		if c := conditions(o.File); c != "" {
			s = append(s, piece{Text: ", for "}, piece{Text: c, Name: true})
		}
		out = append(out, append(s, piece{Text: "."}))
	}
	if more := len(d.Occurrences) - len(shown); more > 0 {
		out = append(out, sentence{{Text: "And in " + strconv.Itoa(more) + " more files for other systems."}})
	}
	return out
}

func conditions(f *model.Facts) string { return strings.Join(f.Conditions, " and ") }

// relations are the sentences at the end of a type's page.
func (v view) relations(d *model.Declaration) []sentence {
	r := v.plan.Links.Relations(d)
	var out []sentence
	for _, s := range []sentence{
		v.names("Fulfils", r.Implements),
		v.names("Implemented by", r.ImplementedBy),
		v.names("Embeds", r.Embeds),
		v.names("Embedded in", r.EmbeddedIn),
		v.names("Taken by", r.TakenBy),
		v.names("Returned by", without(r.ReturnedBy, v.plan.Makers(d))),
	} {
		if s != nil {
			out = append(out, s)
		}
	}
	return out
}

func without(list, drop []*model.Declaration) []*model.Declaration {
	return slices.DeleteFunc(slices.Clone(list), func(d *model.Declaration) bool { return slices.Contains(drop, d) })
}

// moduleNotes are the sentences beside a module's heading.
func (v view) moduleNotes(m *model.Module) []sentence {
	var out []sentence
	switch {
	case m.Name == "main":
		out = append(out, sentence{{Text: "A program."}})
	case m.Internal:
		out = append(out, sentence{{Text: "Internal: for use within the library."}})
	}
	files := sentence{{Text: counted(len(m.Files), "file") + ": "}}
	shown := m.Files
	if len(shown) > mostNames {
		shown = shown[:mostNames-1]
	}
	for i, f := range shown {
		if i > 0 {
			files = append(files, piece{Text: ", "})
		}
		files = append(files, piece{Text: path.Base(f.Path), Href: v.sourceAddress(f, 1), Name: true})
	}
	if more := len(m.Files) - len(shown); more > 0 {
		files = append(files, piece{Text: " and " + strconv.Itoa(more) + " more"})
	}
	out = append(out, append(files, piece{Text: "."}))
	if list := v.plan.UsersOfModule(m); list != "" {
		out = append(out, sentence{{Text: "Who uses it", Href: v.to(list)}, {Text: ", name by name."}})
	}
	return out
}

func counted(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return strconv.Itoa(n) + " " + what + "s"
}

// crumb is one step of the way from the landing page to this one.
type crumb struct {
	Text string
	Href string // "" for the page itself
	Name bool
}

func (v view) crumbs() []crumb {
	p := v.page
	out := []crumb{{Text: v.project().Name, Href: v.to(plan.HomeAddress)}}
	if p.Library != nil {
		out = append(out, crumb{Text: p.Library.Name, Href: v.to(v.plan.Library(p.Library)), Name: true})
	}
	if p.Module != nil {
		out = append(out, crumb{Text: p.Module.Path, Href: v.to(v.plan.Module(p.Module)), Name: true})
	}
	switch p.Kind {
	case plan.TypePage:
		out = append(out, crumb{Text: p.Title, Name: true})
	case plan.SourcePage:
		out = append(out, crumb{Text: path.Base(p.File.Path), Name: true})
		if !v.plan.Links.ModuleInReach(p.Module) {
			out[len(out)-2].Href = ""
		}
	case plan.TreePage, plan.IndexPage, plan.LostPage, plan.GonePage, plan.UsersPage:
		out = append(out, crumb{Text: p.Title})
	}
	out[len(out)-1].Href = ""
	return out
}
