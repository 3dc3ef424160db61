package plan

import (
	"slices"
	"strings"

	"codrel/internal/model"
)

// MostRelated is how many names of one relation a type's page lists; where there
// are more, all of them stand on a page of their own.
const MostRelated = 50

// Relation is one list of what a type has to do with.
type Relation struct {
	Key   string // of the text that says it
	Names []*model.Declaration
}

// Relations are what a type has to do with, in the order in which it is read.
// Ways to make the type, and what is added to it, are no part of them: they stand on its page
// before.
func (p *Plan) Relations(d *model.Declaration) []Relation {
	r := p.Links.Relations(d)
	makers, added := p.Makers(d), r.AddedBy
	takers := slices.DeleteFunc(slices.Clone(r.TakenBy), func(d *model.Declaration) bool { return slices.Contains(added, d) })
	others := slices.DeleteFunc(slices.Clone(r.ReturnedBy), func(d *model.Declaration) bool { return slices.Contains(makers, d) })
	all := []Relation{
		{"fulfils", r.Implements}, {"implemented", r.ImplementedBy}, {"extends", r.Extends}, {"extended", r.ExtendedBy}, {"embeds", r.Embeds}, {"embedded", r.EmbeddedIn}, {"taken", takers}, {"returned", others}, {"raised", r.RaisedBy},
	}
	return slices.DeleteFunc(all, func(r Relation) bool { return len(r.Names) == 0 })
}

// hasManyRelations reports whether some relation has no room on the type's page.
func (p *Plan) hasManyRelations(d *model.Declaration) bool {
	return slices.ContainsFunc(p.Relations(d), func(r Relation) bool { return len(r.Names) > MostRelated })
}

// Related is the address of the page with all that a type has to do with.
func (p *Plan) Related(d *model.Declaration) string {
	return strings.TrimSuffix(p.PageOf(d), ".html") + "~all.html" // no other address has "~a" and an "l"
}
