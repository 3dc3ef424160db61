package plan

import (
	"slices"
	"strconv"
	"strings"
	"sync"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file decides what stands a line each: large tables of constants, since people
// read them so, and groups of declarations whose texts have no room on the page they
// belong to. Lines have the addresses that their declarations always have; a text that
// a line leaves out stands on a page of details.

const (
	// mostPlates is how many declarations of a group have a plate each where they are
	// no callables; larger groups, as tables of constants are, stand a line each.
	mostPlates = 300
	// mostLined is how many such lines of constants a module's page has. Where there
	// are more, its page has the names alone, since their addresses are there for
	// good, and the lines stand on pages of their own.
	mostLined   = 4500
	linesOnPage = 2500
	// callableLines is how many lines of constants the line of a callable takes the room of.
	callableLines = 4
	// roomOnPage is what declarations may weigh together, as [Plan.weight] guesses it.
	// A page may have 1.5 MB; the guess is rather too high.
	roomOnPage = 1_200_000
	// LongestText is how many bytes of a page one text takes at most.
	LongestText = 300_000
)

// Details are the declarations of a group that have no page of their own.
func (g Group) Details() []*model.Declaration {
	var out []*model.Declaration
	for _, d := range g.All() {
		if !HasPage(d) {
			out = append(out, d)
		}
	}
	return out
}

// Types are the declarations of a group that have pages of their own.
func (g Group) Types() []*model.Declaration {
	return slices.DeleteFunc(g.All(), func(d *model.Declaration) bool { return !HasPage(d) })
}

// IsTable reports whether a group is so large and of such kinds that it is read as a table.
func IsTable(details []*model.Declaration) bool {
	return len(details) > mostPlates && !slices.ContainsFunc(details, func(d *model.Declaration) bool { return d.Kind().IsCallable() })
}

// room is what has no room on a page.
type room struct {
	plan    *Plan
	pages   []*Page                       // those for it
	lines   map[*model.Declaration]string // where names are shown that have no room on their page
	inLines map[*model.Declaration]bool   // the first ones of groups that stand a line each
	away    map[*model.Declaration]string // addresses of the pages of details that have their plates
}

// InLines reports whether declarations of a group, those without a page of their own,
// stand a line each.
func (p *Plan) InLines(details []*model.Declaration) bool {
	return len(details) > 0 && p.roomOf(details[0]).standsInLines(details)
}

// roomOf is the room of the page that a declaration belongs to.
func (p *Plan) roomOf(d *model.Declaration) *room {
	v := p.modules[p.Links.Home(d)]
	if v == nil {
		return &room{}
	}
	owner := Owner(d)
	if list := v.contents().twins[owner]; list != nil {
		owner = list[0]
	}
	return p.roomOn(v, owner)
}

// roomOn is the room of the page of a type, or of the module's own.
func (p *Plan) roomOn(v *modulePlan, owner *model.Declaration) *room {
	known, ok := v.rooms.Load(owner)
	if !ok {
		known, _ = v.rooms.LoadOrStore(owner, sync.OnceValue(func() *room { return p.makeRoom(v, owner) }))
	}
	return known.(func() *room)()
}

// morePages are the pages for what has no room on those of a module and its types.
func (p *Plan) morePages(v *modulePlan) (pages []*Page) {
	for _, page := range v.pages() {
		if page.Same != nil {
			continue
		}
		pages = append(pages, p.roomOn(v, page.Type).pages...)
		if page.Type != nil && page.Twins == nil && p.hasManyRelations(page.Type) {
			pages = append(pages, &Page{Kind: RelatedPage, Address: p.Related(page.Type), Title: page.Title, Library: page.Library, Module: page.Module, Type: page.Type})
		}
	}
	return pages
}

// makeRoom plans the pages for what has no room on the page of a type, or of a module.
func (p *Plan) makeRoom(v *modulePlan, owner *model.Declaration) *room {
	r := &room{plan: p, lines: map[*model.Declaration]string{}, inLines: map[*model.Declaration]bool{}, away: map[*model.Declaration]string{}}
	page := v.pageOf()[owner]
	if page == nil {
		return r // of what no page shows
	}
	stem := strings.TrimSuffix(page.Address, ".html")
	switch {
	case owner == nil:
		r.make(page, v.folder+"/", v.groups())
	case page.Twins != nil:
		var groups []Group
		for _, twin := range page.Twins {
			groups = append(groups, p.MembersOf(twin)...)
		}
		r.make(page, stem, groups)
	default:
		r.make(page, stem, p.MembersOf(owner))
	}
	return r
}

// make decides which groups of a page stand a line each, and plans the pages of
// details that this asks for, with addresses of a stem and a number.
func (r *room) make(page *Page, stem string, groups []Group) {
	lists := make([][]*model.Declaration, len(groups))
	for i, g := range groups {
		lists[i] = g.Details()
	}
	r.lineUp(lists)
	r.details(page, stem, r.leftOut(lists))
	r.listNames(page, stem, lists)
}

// standsInLines reports whether a list stands a line each.
func (r *room) standsInLines(list []*model.Declaration) bool {
	return len(list) > 0 && r.inLines[list[0]]
}

// lineUp marks the lists that stand a line each: tables, and of the others the heaviest
// until what is left has room.
func (r *room) lineUp(lists [][]*model.Declaration) {
	weights, all := make([]int, len(lists)), 0
	for i, list := range lists {
		if IsTable(list) {
			r.inLines[list[0]] = true
			continue
		}
		for _, d := range list {
			weights[i] += r.plan.weight(d)
		}
		all += weights[i]
	}
	for all > roomOnPage {
		i := slices.Index(weights, slices.Max(weights))
		all -= weights[i]
		weights[i] = 0
		r.inLines[lists[i][0]] = true
	}
}

// leftOut are the declarations of which their lines leave something out: all but those in
// tables that say no more than a line does.
func (r *room) leftOut(lists [][]*model.Declaration) []*model.Declaration {
	var out []*model.Declaration
	for _, list := range lists {
		if !r.standsInLines(list) {
			continue
		}
		table := IsTable(list)
		for _, d := range list {
			if !table || r.plan.saysMore(d) {
				out = append(out, d)
			}
		}
	}
	return out
}

// details plans the pages that have the plates and texts of declarations, beside the page
// that they belong to.
func (r *room) details(of *Page, stem string, list []*model.Declaration) {
	for part, before := 0, of; len(list) > 0; part++ {
		n, weight := 0, 0
		for n < len(list) && (n == 0 || weight < roomOnPage) {
			weight += r.plan.weight(list[n])
			n++
		}
		page := *of
		page.Kind, page.Part, page.Names = DetailsPage, part, list[:n]
		page.Address = stem + "~details-" + strconv.Itoa(part+1) + ".html"
		if page.before = before; before != of {
			before.after = &page
		}
		before = &page
		r.pages = append(r.pages, before)
		for _, d := range page.Names {
			r.away[d] = page.Address
		}
		list = list[n:]
	}
}

// weight guesses how many bytes a declaration takes on a page: measured on six trees,
// plates and notes take about 1000, and texts twice to three times what the comment has.
func (p *Plan) weight(d *model.Declaration) int {
	out := 600
	for _, o := range d.Occurrences {
		out += 400 + 12*len(o.Signature)
		if o.Doc != nil {
			out += textWeight(o.Doc)
		}
	}
	if of := p.Links.TextOf(d); of != nil && of != d && of.Speaks(model.Words).Doc != nil {
		out += textWeight(of.Speaks(model.Words).Doc)
	}
	if d.Parent != nil {
		for _, from := range p.Inherited(d) {
			out += 300 * len(from.Members)
		}
	}
	return out
}

// MostInherited is how many members that a type has from its bases its page lists; of
// further bases it says how many they are.
const MostInherited = 1000

// Inherited is what a type's page shows of its bases: members, and bases without them
// where there is no room for more.
func (p *Plan) Inherited(d *model.Declaration) []link.InheritedFrom {
	return withRoom(p.Links.Inherited(d))
}

// InheritedByModule is the same for a module that is a class.
func (p *Plan) InheritedByModule(m *model.Module) []link.InheritedFrom {
	return withRoom(p.Links.InheritedByModule(m))
}

func withRoom(out []link.InheritedFrom) []link.InheritedFrom {
	room := MostInherited
	for i := range out {
		if out[i].Count = len(out[i].Members); out[i].Count > room {
			out[i].Members = nil
		}
		room -= len(out[i].Members)
	}
	return out
}

func textWeight(doc *model.Doc) int { return min(5*len(doc.Text)/2, LongestText) }

// saysMore reports whether there is more to a declaration than a line shows.
func (p *Plan) saysMore(d *model.Declaration) bool {
	of := p.Links.TextOf(d)
	if of == nil {
		return false
	}
	sections, _ := p.Links.Sections(of)
	if d.Deprecated() {
		return len(sections.Body)+len(sections.Parts) > 0 // its line has the advice alone
	}
	return len(sections.Parts) > 0 || prose.Plain(sections.Body) != prose.Plain(prose.Summary(sections.Body))
}

// listNames plans the pages of lines that have no room on the page that they belong to:
// those of the longest groups, until the rest has room.
func (r *room) listNames(of *Page, stem string, lists [][]*model.Declaration) {
	lines, all := make([]int, len(lists)), 0
	for i, list := range lists {
		if r.standsInLines(list) {
			for _, d := range list {
				lines[i] += linesOf(d)
			}
		}
		all += lines[i]
	}
	bare := make([]bool, len(lists))
	for all > mostLined {
		i := slices.Index(lines, slices.Max(lines))
		all -= lines[i]
		lines[i], bare[i] = 0, true
	}
	var names []*model.Declaration
	for i, list := range lists {
		if bare[i] {
			names = append(names, list...)
		}
	}
	for part := 0; len(names) > 0; part++ {
		n, lines := 0, 0
		for n < len(names) && lines < linesOnPage {
			lines += linesOf(names[n])
			n++
		}
		page := *of
		page.Kind, page.Part, page.Names = NamesPage, part, names[:n]
		page.Address = stem + "~names-" + strconv.Itoa(part+1) + ".html"
		r.pages = append(r.pages, &page)
		for _, d := range page.Names {
			r.lines[d] = page.Address + "#" + Anchor(d)
		}
		names = names[n:]
	}
}

// linesOf is the room that the line of a declaration takes, in lines of constants.
func linesOf(d *model.Declaration) int {
	if d.Kind().IsCallable() {
		return callableLines
	}
	return 1
}

// Line is the address of the line that shows a declaration, where the page that it
// belongs to has no room for it; else "".
func (p *Plan) Line(d *model.Declaration) string {
	return p.roomOf(d).lines[d]
}

// Away is the address of the page of details that has a declaration's plate and text,
// or "" where they stand where it belongs.
func (p *Plan) Away(d *model.Declaration) string {
	if HasPage(d) {
		return ""
	}
	return p.roomOf(d).away[d]
}

// MembersOf are the declarations on a type's page in groups, each before those that
// stand in it however deep, and those in it that have pages of their own.
func (p *Plan) MembersOf(d *model.Declaration) []Group {
	groups := Groups(p.Members(d), p.Links.ShownKind)
	if d.Module.Library.TypesApart() && d.Kind() != model.KindNamespace && d.Kind() != model.KindModule { // what has pages of its own comes last
		at := slices.IndexFunc(groups, func(g Group) bool { return !g.Named && g.Title == KindTitle(model.KindClass) })
		if at >= 0 {
			groups = append(slices.Delete(slices.Clone(groups), at, at+1), groups[at])
		}
	}
	for i := range groups {
		var all []*model.Declaration
		for _, member := range groups[i].All() {
			all = append(all, member)
			if !HasPage(member) {
				all = append(all, p.Within(member)...)
			}
		}
		groups[i].Declarations, groups[i].Aside, groups[i].Deprecated = all, nil, nil
	}
	return groups
}
