package page

import (
	"codrel/internal/lang"
	"codrel/internal/prose"
	"codrel/internal/render/plan"
)

// This file says what groups of declarations and sections of comments are called.

// GroupTitle is the heading of a group: the maintainer's own words, or ours.
func (m *Maker) GroupTitle(g plan.Group) string {
	if g.Asked {
		return m.Texts.Say("implements-one", "name", g.Title)
	}
	if g.Named {
		return g.Title
	}
	if list := g.All(); len(list) > 0 {
		if worder, ok := m.FrontEnds[list[0].Module.Library.Language].(lang.Terminology); ok {
			if key := worder.GroupKey(g.Title); key != "" {
				return m.Texts.Say(key)
			}
		}
	}
	return m.Texts.Say(g.Title)
}

// PartTitle is what a named section is called in a language of source code.
func (m *Maker) PartTitle(p *Part, language string) string {
	switch {
	case p.Kind == prose.Other:
		return p.Title
	case p.History:
		return m.Texts.Say("part-history")
	}
	return m.Texts.Say(m.Texts.In("part-"+prose.PartNames[p.Kind], language))
}
