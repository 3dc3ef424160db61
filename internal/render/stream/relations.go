package stream

import (
	"codrel/internal/link"
	"codrel/internal/model"
)

// Relations are what a declaration has to do with others, by their IDs. A name of
// another project has that project's name and a colon before its ID.
type Relations struct {
	Extends       []string `json:"extends,omitempty"`
	ExtendedBy    []string `json:"extendedBy,omitempty"`
	Implements    []string `json:"implements,omitempty"`
	ImplementedBy []string `json:"implementedBy,omitempty"`
	Embeds        []string `json:"embeds,omitempty"`
	EmbeddedIn    []string `json:"embeddedIn,omitempty"`
	Overrides     []string `json:"overrides,omitempty"`
	OverriddenBy  []string `json:"overriddenBy,omitempty"`
	TakenBy       []string `json:"takenBy,omitempty"`
	ReturnedBy    []string `json:"returnedBy,omitempty"`
	RaisedBy      []string `json:"raisedBy,omitempty"`
	TextFrom      []string `json:"textFrom,omitempty"`
	NamedInTests  []Test   `json:"namedInTests,omitempty"`
	MentionedIn   []string `json:"mentionedIn,omitempty"` // files
}

// Test is a test that names a declaration.
type Test struct {
	File string `json:"file"`
	Line int32  `json:"line"`
	Test string `json:"test,omitempty"`
}

// relations are those of a declaration, or nil.
func relations(links *link.Index, d *model.Declaration) *Relations {
	r := links.Relations(d)
	out := &Relations{
		Extends: ids(r.Extends), ExtendedBy: ids(r.ExtendedBy), Implements: ids(r.Implements), ImplementedBy: ids(r.ImplementedBy),
		Embeds: ids(r.Embeds), EmbeddedIn: ids(r.EmbeddedIn), Overrides: ids(r.Overrides), OverriddenBy: ids(r.OverriddenBy),
		TakenBy: ids(r.TakenBy), ReturnedBy: ids(r.ReturnedBy), RaisedBy: ids(r.RaisedBy), TextFrom: ids(links.TextsFrom(d)),
	}
	if of := links.TextOf(d); of != nil && of != d {
		out.TextFrom = ids([]*model.Declaration{of})
	}
	for _, t := range links.NamedInTests(d) {
		out.NamedInTests = append(out.NamedInTests, Test{t.File.Path, t.Line, t.Test})
	}
	for _, g := range links.MentionedIn(d) {
		out.MentionedIn = append(out.MentionedIn, g.Page.Path)
	}
	if out.empty() {
		return nil
	}
	return out
}

func (r *Relations) empty() bool {
	for _, list := range [][]string{
		r.Extends, r.ExtendedBy, r.Implements, r.ImplementedBy, r.Embeds, r.EmbeddedIn, r.Overrides, r.OverriddenBy,
		r.TakenBy, r.ReturnedBy, r.RaisedBy, r.TextFrom, r.MentionedIn,
	} {
		if len(list) > 0 {
			return false
		}
	}
	return len(r.NamedInTests) == 0
}

func ids(list []*model.Declaration) []string {
	var out []string
	for _, d := range list {
		id := d.ID()
		if at := d.Module.Library.Elsewhere; at != nil {
			id = at.Project + ":" + id
		}
		out = append(out, id)
	}
	return out
}
