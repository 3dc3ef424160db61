package plan

import (
	"slices"
	"strconv"

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

// Lined reports whether declarations of a group, those without a page of their own,
// stand a line each.
func (p *Plan) Lined(details []*model.Declaration) bool {
	return len(details) > 0 && p.lined[details[0]]
}

// makeRoom decides which groups of a page stand a line each, and plans the pages of
// details that this asks for, with addresses of a stem and a number.
func (p *Plan) makeRoom(page *Page, stem string, groups []Group) {
	lists := make([][]*model.Declaration, len(groups))
	for i, g := range groups {
		lists[i] = g.Details()
	}
	p.lineUp(lists)
	p.details(page, stem, p.leftOut(lists))
	p.listNames(page, stem, lists)
}

// lineUp marks the lists that stand a line each: tables, and of the others the heaviest
// until what is left has room.
func (p *Plan) lineUp(lists [][]*model.Declaration) {
	weights, all := make([]int, len(lists)), 0
	for i, list := range lists {
		if IsTable(list) {
			p.lined[list[0]] = true
			continue
		}
		for _, d := range list {
			weights[i] += p.weight(d)
		}
		all += weights[i]
	}
	for all > roomOnPage {
		i := slices.Index(weights, slices.Max(weights))
		all -= weights[i]
		weights[i] = 0
		p.lined[lists[i][0]] = true
	}
}

// leftOut are the declarations of which their lines leave something out: all but those in
// tables that say no more than a line does.
func (p *Plan) leftOut(lists [][]*model.Declaration) []*model.Declaration {
	var out []*model.Declaration
	for _, list := range lists {
		if !p.Lined(list) {
			continue
		}
		table := IsTable(list)
		for _, d := range list {
			if !table || p.saysMore(d) {
				out = append(out, d)
			}
		}
	}
	return out
}

// details plans the pages that have the plates and texts of declarations, beside the page
// that they belong to.
func (p *Plan) details(of *Page, stem string, list []*model.Declaration) {
	for part, before := 0, of; len(list) > 0; part++ {
		n, weight := 0, 0
		for n < len(list) && (n == 0 || weight < roomOnPage) {
			weight += p.weight(list[n])
			n++
		}
		page := *of
		page.Kind, page.Part, page.Names = DetailsPage, part, list[:n]
		page.Address = stem + "~details-" + strconv.Itoa(part+1) + ".html"
		if page.Previous = before; before != of {
			before.Next = &page
		}
		before = &page
		p.aside = append(p.aside, before)
		for _, d := range page.Names {
			p.away[d] = page.Address
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
	out := p.Links.Inherited(d)
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
func (p *Plan) listNames(of *Page, stem string, lists [][]*model.Declaration) {
	lines, all := make([]int, len(lists)), 0
	for i, list := range lists {
		if p.Lined(list) {
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
		p.aside = append(p.aside, &page)
		for _, d := range page.Names {
			p.lines[d] = page.Address + "#" + Anchor(d)
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
func (p *Plan) Line(d *model.Declaration) string { return p.lines[d] }

// Away is the address of the page of details that has a declaration's plate and text,
// or "" where they stand where it belongs.
func (p *Plan) Away(d *model.Declaration) string { return p.away[d] }

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
		groups[i].Declarations, groups[i].Deprecated = all, nil
	}
	return groups
}
