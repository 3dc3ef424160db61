package plan

import (
	"slices"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/search"
)

// This file finds the texts that stand for themselves in comments, with a title: they are parts of
// the page of their library.

// Text is one of them.
type Text struct {
	model.GroupIn
	Module *model.Module // that its file belongs to
}

// Texts are those of a library, in the order of its modules and of their files: they are written
// for users wherever they stand.
func (p *Plan) Texts(lib *model.Library) (out []Text) {
	for _, m := range p.modulesOf(lib) {
		for _, f := range m.Files {
			for i := range f.Groups {
				g := &f.Groups[i]
				if first := lib.Groups[g.Name]; g.Alone && first.Group == g && !slices.ContainsFunc(out, func(t Text) bool { return t.Group == g }) {
					out = append(out, Text{GroupIn: first, Module: m})
				}
			}
		}
	}
	return out
}

// modulesOf are the modules of a library, those out of reach among them.
func (p *Plan) modulesOf(lib *model.Library) []*model.Module {
	for _, contents := range p.Links.Project.Libraries {
		if contents.Library == lib && len(lib.Groups) > 0 {
			return contents.Modules
		}
	}
	return nil
}

// TextAnchor is the anchor of a text on the page of its library.
func TextAnchor(g *model.Group) string { return "text-" + prose.Slug(g.Name) }

// textEntries yields the entries of a library's texts and reports whether to go on.
func (p *Plan) textEntries(lib *model.Library, yield func(search.Entry) bool) bool {
	for _, t := range p.Texts(lib) {
		e := search.Entry{Name: t.Title, Module: lib.Name, Kind: search.GuideKind, Address: p.Library(lib) + "#" + TextAnchor(t.Group)}
		text := ""
		if t.Doc != nil {
			body := p.Links.Comments.Of(lib.Habits, t.File, t.Doc).Body
			e.Summary, text = prose.Plain(prose.Summary(body)), prose.Plain(body)
		}
		if !dealOut(e, text, yield) {
			return false
		}
	}
	return true
}
