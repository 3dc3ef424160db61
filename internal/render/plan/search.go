package plan

import (
	"iter"
	"slices"
	"strings"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/search"
)

// longestSummary is how much of a first sentence a search result shows, in runes.
const longestSummary = 100

// SearchEntries yields what can be found on the site: guides, and the modules and declarations
// in reach in the order of the reference. Nothing keeps them: a large project has
// more of them than one would like to hold.
func (p *Plan) SearchEntries() iter.Seq[search.Entry] {
	given := p.given()
	return func(yield func(search.Entry) bool) {
		if !p.guideEntries(yield) {
			return
		}
		for _, lib := range p.Links.Project.Libraries {
			if !p.textEntries(lib.Library, yield) {
				return
			}
			for _, m := range p.Modules(lib.Library) {
				if !p.moduleEntries(m, given, yield) {
					return
				}
			}
		}
	}
}

// moduleEntries yields the entries of a module and reports whether to go on.
func (p *Plan) moduleEntries(m *model.Module, given map[*model.Declaration][]givenBy, yield func(search.Entry) bool) bool {
	if !yield(p.moduleEntry(m)) {
		return false
	}
	for _, under := range p.modulesUnder(m) {
		if !yield(under) {
			return false
		}
	}
	for d := range p.Links.OnPagesOf(m) {
		if !p.Links.InReach(d) || d.Blank() {
			continue
		}
		e := p.entry(d)
		e.Also = p.also(d, given[outermost(d)])
		if !yield(e) {
			return false
		}
		for _, alias := range aliases(e, d, given[d]) {
			if !yield(alias) {
				return false
			}
		}
	}
	return true
}

// givenBy is a module that gives a declaration on, and the name it has there.
type givenBy struct {
	module *model.Module
	name   string
}

// given tells of declarations which modules re-export them.
func (p *Plan) given() map[*model.Declaration][]givenBy {
	out := map[*model.Declaration][]givenBy{}
	for _, lib := range p.Links.Project.Libraries {
		for _, m := range p.Modules(lib.Library) {
			for _, g := range p.Links.Exports(m) {
				if d := g.Target.Declaration; d != nil && (d.Module != m || g.Name != d.Name) && !p.Links.IsDefault(m, g.Name) {
					out[d] = append(out[d], givenBy{m, g.Name})
				}
			}
		}
	}
	return out
}

// also are the paths of the modules, beside the one that shows it, in which a declaration
// is known by its own name: those that re-export what holds it, and the one that declares it.
func (p *Plan) also(d *model.Declaration, places []givenBy) []string {
	var out []string
	home := p.Links.Home(d)
	if d.Module != home && p.Links.ModuleInReach(d.Module) {
		out = append(out, d.Module.Path)
	}
	for _, place := range places {
		if place.module != home && place.name == outermost(d).Name {
			out = append(out, place.module.Path)
		}
	}
	return out
}

// aliases are the entries of a declaration with one of its own under its other names.
func aliases(own search.Entry, d *model.Declaration, places []givenBy) (out []search.Entry) {
	for _, place := range places {
		if place.name == d.Name {
			continue
		}
		alias := own
		alias.Module, alias.Name, alias.Also = place.module.Path, place.name, nil
		alias.Summary, alias.Words, alias.Takes, alias.Gives = "", nil, nil, nil // what else it is found by finds the first place
		out = append(out, alias)
	}
	return out
}

// modulesUnder are the names under which a module re-exports others as a whole.
func (p *Plan) modulesUnder(m *model.Module) (out []search.Entry) {
	for _, g := range p.Links.Exports(m) {
		if of := g.Target.Module; of != nil && of != m && g.Name != of.Last() && p.modules[of] != nil {
			e := p.moduleEntry(of)
			e.Name, e.Module = g.Name, m.Path
			out = append(out, e)
		}
	}
	return out
}

func (p *Plan) moduleEntry(m *model.Module) search.Entry {
	e := search.Entry{Name: m.Last(), Module: m.Path, Library: m.Library.Name, Kind: model.KindModule.String(), Address: Module(m)}
	e.Summary = p.ModuleSummary(m)
	return e
}

// ModuleSummary is the first sentence of a module's comment, plain and not too long.
func (p *Plan) ModuleSummary(m *model.Module) string {
	if len(m.Doc) == 0 {
		return ""
	}
	nodes, _ := p.Links.Opening(p.Links.Comments.Of(m.Library.Habits, m.Doc[0].File, m.Doc[0].Doc).Body, link.Scope{})
	return summary(nodes)
}

// Summary is the first sentence of what describes a declaration, plain and not too long.
func (p *Plan) Summary(d *model.Declaration) string {
	nodes, _ := p.Links.Summary(d)
	return plainLine(nodes)
}

func (p *Plan) entry(d *model.Declaration) search.Entry {
	e := search.Entry{
		Name: d.Name, Scope: d.Scope, Module: p.Links.Home(d).Path, Library: d.Module.Library.Name,
		Kind: d.Kind().String(), Address: p.Declaration(d), Deprecated: d.Deprecated(),
	}
	if path := d.Called(); path != "" && d.Scope == "" { // what stands before its name there is how people ask for it
		e.Scope = strings.TrimSuffix(strings.TrimSuffix(path, d.Name), ".")
	}
	e.Summary = p.Summary(d)
	if sections, _ := p.Links.Sections(d); len(sections.Words) > 0 {
		e.Words = append(e.Words, strings.Fields(strings.ToLower(strings.Join(sections.Words, " ")))...)
	}
	if at := d.Speaks(model.Signature); at.Callable != nil {
		forms := p.Links.Overloads(d)
		if forms == nil {
			forms = []model.At{at}
		}
		for _, form := range forms {
			e.Takes, e.Gives = typeNames(e.Takes, d.Module.Library.Habits, form, form.Callable.Params), typeNames(e.Gives, d.Module.Library.Habits, form, form.Callable.Results)
		}
	}
	for _, o := range d.Occurrences {
		for _, w := range o.Directives() {
			if w.Verb == "words" {
				e.Words = append(e.Words, strings.FieldsFunc(strings.ToLower(w.Object), func(r rune) bool { return r == ',' || r == ' ' })...)
			}
		}
	}
	return e
}

func summary(nodes []prose.Node) string { return plainLine(prose.Summary(nodes)) }

func plainLine(nodes []prose.Node) string {
	text := prose.Line(nodes)
	if runes := []rune(text); len(runes) > longestSummary {
		return strings.TrimSpace(string(runes[:longestSummary-1])) + "…"
	}
	return text
}

// typeNames adds the bare names of the types in a list of parameters to a list, each once.
func typeNames(out []string, h *model.Habits, at model.At, params []model.Param) []string {
	for _, param := range params {
		for t := range at.Tokens(param.Type) {
			if t.Kind != model.TokenType {
				continue
			}
			name := h.Dotted(t.Text)
			name = name[strings.LastIndexByte(name, '.')+1:]
			if !slices.Contains(out, name) {
				out = append(out, name)
			}
		}
	}
	return out
}
