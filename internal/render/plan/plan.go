// Package plan owns what pages there are: addresses, anchors, the order of
// pages, groups and the A to Z list. It is the same for every output format.
//
// It reads the linked project and draws nothing. What a plan says is worked out when it is
// first asked for, a module at a time: one page can be had without the others.
package plan

import (
	"cmp"
	"context"
	"path"
	"slices"
	"strings"
	"sync"

	"golang.org/x/sync/errgroup"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/parallel"
)

// Plan is all pages of a site. It is safe for use by several goroutines.
type Plan struct {
	Links                              *link.Index
	Source                             Source
	HasFindings, HasCoverage, HasToDos bool // whether there are such pages

	options   Options
	shown     map[*model.Library][]*model.Module
	libraries map[*model.Library]string // addresses of their pages
	modules   map[*model.Module]*modulePlan
	members   sync.Map              // of types with many: []*model.Declaration
	places    map[*model.Module]int // among the modules of their library that are shown
	around    func() map[place][]*model.Module
	sources   *sources
	letters   func() []*Page
	pages     func() []*Page
}

// Options is what the plan is told.
type Options struct {
	Source   Source
	Findings int  // how many findings get a page; negative for no such page
	HasToDos bool // whether to-dos get a page
	ToDos    int  // how many these are
	Coverage bool // whether there is a page of what is documented
	Workers  int
	Whole    func(module string) bool // of which modules, by path, there is one page with everything; may be nil
}

// New plans the pages of a linked project.
func New(links *link.Index, options Options) *Plan {
	p := &Plan{
		Links: links, Source: options.Source, HasFindings: options.Findings >= 0, HasToDos: options.HasToDos, HasCoverage: options.Coverage, options: options,
		shown: map[*model.Library][]*model.Module{}, libraries: map[*model.Library]string{}, modules: map[*model.Module]*modulePlan{}, places: map[*model.Module]int{},
	}
	for _, lib := range links.Project.Libraries {
		p.libraries[lib.Library] = Library(lib.Library)
		for _, m := range lib.Modules {
			if links.ModuleInReach(m) {
				p.places[m] = len(p.shown[lib.Library])
				p.shown[lib.Library] = append(p.shown[lib.Library], m)
				p.modules[m] = p.planModule(m)
			}
		}
	}
	p.around = sync.OnceValue(p.modulesAround)
	p.sources = p.newSources()
	p.letters = sync.OnceValue(p.makeIndex)
	p.pages = sync.OnceValue(p.allPages)
	return p
}

// Pages are all pages, in an order that stays the same.
func (p *Plan) Pages() []*Page { return p.pages() }

// Letters are the pages of the A to Z list, in order; more than one where it is long.
func (p *Plan) Letters() []*Page { return p.letters() }

func (p *Plan) allPages() []*Page {
	pages, modules := append(p.fixed(), p.guidePages()...), p.inOrder()
	var ahead errgroup.Group
	if p.Source == FullSource {
		ahead.Go(func() error { p.Links.FindUsers(); return nil }) // takes a while, and little else waits for it
	}
	more := make([][]*Page, len(modules))
	ahead.Go(func() error {
		return parallel.Each(context.Background(), p.options.Workers, len(modules), func(i int) { more[i] = p.morePages(modules[i]) })
	})
	for _, lib := range p.Libraries() {
		pages = append(pages, p.libraryPage(lib))
		for _, m := range p.Modules(lib) {
			pages = append(pages, p.modules[m].pages()...)
		}
	}
	if len(p.Deprecated()) > 0 {
		pages = append(pages, gonePage())
	}
	pages = append(pages, p.letters()...)
	pages = append(pages, p.sources.pages()...)
	_ = ahead.Wait() // which nothing ends
	for _, v := range modules {
		pages = append(pages, v.users().pages...)
	}
	for _, list := range more {
		pages = append(pages, list...)
	}
	pages = append(pages, p.reports()...)
	for _, v := range modules {
		if v.whole != "" {
			pages = append(pages, p.wholePage(v))
		}
	}
	return pages
}

// inOrder are the plans of all modules that have pages.
func (p *Plan) inOrder() (out []*modulePlan) {
	for _, lib := range p.Links.Project.Libraries {
		for _, m := range p.Modules(lib.Library) {
			out = append(out, p.modules[m])
		}
	}
	return out
}

// fixed are the pages that each site has once.
func (p *Plan) fixed() []*Page {
	return []*Page{
		{Kind: HomePage, Address: HomeAddress, Title: homeTitle(p.Links), Guide: p.Links.Landing()},
		{Kind: TreePage, Address: TreeAddress, Title: "All modules"},
		{Kind: LostPage, Address: LostAddress, Title: "Page not found"},
	}
}

func (p *Plan) libraryPage(lib *model.Library) *Page {
	return &Page{Kind: LibraryPage, Address: Library(lib), Title: lib.Name, Library: lib}
}

func gonePage() *Page { return &Page{Kind: GonePage, Address: GoneAddress, Title: "Deprecated names"} }

func (p *Plan) wholePage(v *modulePlan) *Page {
	return &Page{Kind: WholePage, Address: v.whole, Title: v.module.Path, Library: v.module.Library, Module: v.module}
}

// PageAt is the page with an address, or nil. Only the modules that it speaks of are planned.
func (p *Plan) PageAt(address string) *Page {
	at := func(pages []*Page) *Page {
		if i := slices.IndexFunc(pages, func(page *Page) bool { return page.Address == address }); i >= 0 {
			return pages[i]
		}
		return nil
	}
	folder := path.Dir(address)
	switch {
	case strings.HasPrefix(address, "source/"):
		return p.sources.pageAt(address)
	case isGuideAddress(address):
		return at(p.guidePages())
	case folder == path.Dir(IndexAddress):
		return at(p.letters())
	case address == GoneAddress && len(p.Deprecated()) > 0:
		return gonePage()
	case folder == ".":
		return at(append(p.fixed(), p.reports()...))
	}
	for lib, own := range p.libraries {
		if own == address {
			return p.libraryPage(lib)
		}
	}
	for _, v := range p.modules {
		if v.folder != folder {
			continue
		}
		if v.whole == address {
			return p.wholePage(v)
		}
		if page := cmp.Or(at(v.pages()), at(p.morePages(v))); page != nil {
			return page
		}
		return at(v.users().pages)
	}
	return nil
}

// Around are the pages before and behind one in reading order, within the reference; nil
// at its ends, and for pages that are not read in turn.
func (p *Plan) Around(page *Page) (before, after *Page) {
	switch page.Kind {
	case DetailsPage:
		return page.before, page.after
	case GuidePage, GuidesPage:
		return p.aroundGuide(page)
	case LibraryPage, ModulePage, TypePage:
	default:
		return nil, nil
	}
	if page.Same != nil {
		page = page.Same
	}
	return p.beforePage(page), p.afterPage(page)
}

func (p *Plan) beforePage(page *Page) *Page {
	last := func(m *model.Module) *Page { chained := p.modules[m].chained(); return chained[len(chained)-1] }
	libraries := p.Libraries()
	switch modules := p.Modules(page.Library); {
	case page.Kind == LibraryPage:
		at := slices.Index(libraries, page.Library)
		if at == 0 {
			return nil
		}
		if earlier := p.Modules(libraries[at-1]); len(earlier) > 0 {
			return last(earlier[len(earlier)-1])
		}
		return p.libraryPage(libraries[at-1])
	case page.place > 0:
		return p.modules[page.Module].chained()[page.place-1]
	case page.Module == modules[0]:
		return p.libraryPage(page.Library)
	default:
		return last(modules[p.places[page.Module]-1])
	}
}

func (p *Plan) afterPage(page *Page) *Page {
	modules := p.Modules(page.Library)
	next := 0
	if page.Module != nil {
		if chained := p.modules[page.Module].chained(); page.place+1 < len(chained) {
			return chained[page.place+1]
		}
		next = p.places[page.Module] + 1
	}
	if next < len(modules) {
		return p.modules[modules[next]].pages()[0]
	}
	libraries := p.Libraries()
	if at := slices.Index(libraries, page.Library) + 1; at < len(libraries) {
		return p.libraryPage(libraries[at])
	}
	return nil
}

// homeTitle is what the landing page is called: as its text is, else as the project.
func homeTitle(links *link.Index) string {
	if g := links.Landing(); g != nil && g.Title != "" {
		return g.Title
	}
	return links.Project.Name
}

// Libraries are those of the project but for what is nothing but tests.
func (p *Plan) Libraries() []*model.Library {
	var out []*model.Library
	for _, lib := range p.Links.Project.Libraries {
		if len(lib.Modules) > 0 || len(lib.Tests) == 0 {
			out = append(out, lib.Library)
		}
	}
	return out
}

// Modules are the modules of a library that have a page, in the order of their paths.
func (p *Plan) Modules(lib *model.Library) []*model.Module { return p.shown[lib] }

// Declaration is the address at which a declaration in reach is explained: the one that
// it always has, see [Declaration], or that of its plate on a page of details.
func (p *Plan) Declaration(d *model.Declaration) string {
	address := cmp.Or(p.Away(d), p.PageOf(d))
	if p.Away(d) == "" && p.onTwins(d) {
		return address + "#" + Label(d)
	}
	if anchor := Anchor(d); anchor != "" {
		return address + "#" + anchor
	}
	return address
}

// onTwins reports whether a declaration stands on a page of several types.
func (p *Plan) onTwins(d *model.Declaration) bool {
	v := p.modules[p.Links.Home(d)]
	return v != nil && v.contents().twins[Owner(d)] != nil
}

// twins finds types whose addresses differ by case alone, in the order of their names.
func twins(types map[*model.Declaration]string) map[*model.Declaration][]*model.Declaration {
	folded := make(map[string][]*model.Declaration, len(types))
	var out map[*model.Declaration][]*model.Declaration
	for d, address := range types {
		key := strings.ToLower(address)
		folded[key] = append(folded[key], d)
	}
	for _, list := range folded {
		if len(list) < 2 {
			continue
		}
		slices.SortFunc(list, func(a, b *model.Declaration) int { return strings.Compare(a.Path(), b.Path()) })
		for _, d := range list {
			if out == nil {
				out = map[*model.Declaration][]*model.Declaration{}
			}
			out[d] = list
		}
	}
	return out
}

// names are the names of several types, for a title.
func names(list []*model.Declaration) string {
	var out []string
	for _, d := range list {
		out = append(out, d.Path())
	}
	return strings.Join(out, ", ")
}

// PageOf is the address of the page that a declaration belongs to, see [PageOf].
func (p *Plan) PageOf(d *model.Declaration) string {
	v := p.modules[p.Links.Home(d)]
	if v == nil {
		return siteOf(d.Module) + PageOf(d)
	}
	owner := Owner(d)
	if owner == nil {
		return v.page
	}
	if address, ok := v.contents().types[owner]; ok {
		return address
	}
	return v.folder + "/" + pageFile(d)
}

// Library is the address of a library's page, see [Library].
func (p *Plan) Library(lib *model.Library) string { return p.libraries[lib] }

// Module is the address of a module's page, see [Module].
func (p *Plan) Module(m *model.Module) string {
	if v := p.modules[m]; v != nil {
		return v.page
	}
	return siteOf(m) + Module(m)
}

// siteOf is what stands before the address of another project's page, else "".
func siteOf(m *model.Module) string {
	if at := m.Library.Elsewhere; at != nil {
		return at.Site
	}
	return ""
}

// Members are the members of a declaration that are in reach, in source order.
func (p *Plan) Members(d *model.Declaration) []*model.Declaration {
	if len(d.Members) < manyMembers {
		return p.inReach(d.Members)
	}
	if known, ok := p.members.Load(d); ok {
		return known.([]*model.Declaration)
	}
	members := p.inReach(d.Members)
	p.members.Store(d, slices.Clip(members))
	return members
}

// manyMembers is from how many members on a list is kept: a type with so many may have many
// pages, each of which asks.
const manyMembers = 200

// Within are the declarations in reach that stand in another one however deep, each
// before what stands in it, but for what stands on pages of its own.
func (p *Plan) Within(d *model.Declaration) []*model.Declaration {
	var all []*model.Declaration
	for _, member := range p.Members(d) {
		if !HasPage(member) {
			all = append(append(all, member), p.Within(member)...)
		}
	}
	return all
}

func (p *Plan) inReach(list []*model.Declaration) []*model.Declaration {
	var out []*model.Declaration
	for _, d := range list {
		if p.Links.InReach(d) && !d.Blank() {
			out = append(out, d)
		}
	}
	return out
}

// Deprecated are all deprecated declarations in reach, in the order of the reference.
func (p *Plan) Deprecated() []*model.Declaration {
	var out []*model.Declaration
	for _, lib := range p.Links.Project.Libraries {
		for _, m := range p.Modules(lib.Library) {
			for d := range p.Links.OnPagesOf(m) {
				if d.Deprecated() && p.Links.InReach(d) && !d.Blank() {
					out = append(out, d)
				}
			}
		}
	}
	return out
}
