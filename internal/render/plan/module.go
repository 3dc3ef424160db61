package plan

import (
	"iter"
	"slices"
	"sync"

	"codrel/internal/model"
)

// modulePlan is what many pages ask of one module, each part worked out when it is first
// asked for: a page needs no more of the plan than the modules that it speaks of.
type modulePlan struct {
	module    *model.Module
	folder    string
	page      string // its address
	whole     string // address of the page with everything, or ""
	contents  func() *moduleContents
	groups    func() []Group
	constants func() map[*model.Declaration][]*model.Declaration // by their types
	siblings  func() siblings
	pages     func() []*Page                      // its own and those of its types, in reading order
	pageOf    func() map[*model.Declaration]*Page // the same by the type that each shows; nil for the module's own
	chained   func() []*Page                      // those of them that are read one after the other
	types     func() *listed                      // those at its top, as contents list them
	rooms     sync.Map                            // of its pages, by type, nil for its own: func() *room
	users     func() *userLists
}

// moduleContents is what a module shows.
type moduleContents struct {
	top   []*model.Declaration
	types map[*model.Declaration]string               // addresses of their pages
	twins map[*model.Declaration][]*model.Declaration // of types that share a page
}

// siblings are the modules around one.
type siblings struct{ beside, below []*model.Module }

func (p *Plan) planModule(m *model.Module) *modulePlan {
	v := &modulePlan{module: m, folder: moduleFolder(m), page: Module(m)}
	if p.options.Whole != nil && p.options.Whole(m.Path) {
		v.whole = v.folder + "/~whole.html"
	}
	v.contents = sync.OnceValue(func() *moduleContents { return p.contents(v) })
	v.groups = sync.OnceValue(func() []Group { return Groups(v.contents().top, p.Links.ShownKind) })
	v.constants = sync.OnceValue(func() map[*model.Declaration][]*model.Declaration { return p.constantsOf(v.contents().top) })
	v.siblings = sync.OnceValue(func() siblings { return p.siblingsOf(m) })
	v.pages = sync.OnceValue(func() []*Page { return p.modulePages(v) })
	v.chained = sync.OnceValue(func() []*Page {
		return slices.DeleteFunc(slices.Clone(v.pages()), func(page *Page) bool { return page.Same != nil })
	})
	v.pageOf = sync.OnceValue(func() map[*model.Declaration]*Page {
		pages := map[*model.Declaration]*Page{}
		for _, page := range v.pages() {
			if pages[page.Type] == nil {
				pages[page.Type] = page
			}
		}
		return pages
	})
	v.types = sync.OnceValue(v.listTypes)
	v.users = sync.OnceValue(func() *userLists { return p.listUsers(v) })
	return v
}

func (p *Plan) contents(v *modulePlan) *moduleContents {
	top := p.inReach(p.Links.Tops(v.module))
	c := &moduleContents{top: top, types: map[*model.Declaration]string{}}
	for d := range p.owners(top) {
		c.types[d] = v.folder + "/" + pageFile(d)
	}
	c.twins = twins(c.types)
	return c
}

// modulePages are the page of a module and those of its types.
func (p *Plan) modulePages(v *modulePlan) []*Page {
	m, c := v.module, v.contents()
	pages := []*Page{{Kind: ModulePage, Address: v.page, Title: m.Path, Library: m.Library, Module: m}}
	shared, place := map[*model.Declaration]*Page{}, 0
	for d := range p.owners(c.top) {
		page := &Page{Kind: TypePage, Address: c.types[d], Title: d.Path(), Library: m.Library, Module: m, Type: d}
		pages = append(pages, page)
		if list := c.twins[d]; list != nil {
			page.Twins, page.Title = list, names(list)
			if page.Same = shared[list[0]]; page.Same != nil {
				continue
			}
			shared[list[0]] = page
		}
		place++
		page.place = place
	}
	return pages
}

// listed is a list with the places of its items.
type listed struct {
	list   []*model.Declaration
	places map[*model.Declaration]int
}

// Types are the types at the top of a module, in the order of its groups, and the place of
// one of them among these; -1 for what is none.
func (p *Plan) Types(m *model.Module, of *model.Declaration) (list []*model.Declaration, place int) {
	types := p.modules[m].types()
	if at, ok := types.places[of]; ok {
		return types.list, at
	}
	return types.list, -1
}

func (v *modulePlan) listTypes() *listed {
	out := &listed{places: map[*model.Declaration]int{}}
	for _, g := range v.groups() {
		for _, d := range g.All() {
			if d.Kind().IsType() {
				out.places[d] = len(out.list)
				out.list = append(out.list, d)
			}
		}
	}
	return out
}

// owners are the declarations among some that have pages, each before those in it.
func (p *Plan) owners(list []*model.Declaration) iter.Seq[*model.Declaration] {
	return func(yield func(*model.Declaration) bool) { p.eachOwner(list, yield, 0) }
}

func (p *Plan) eachOwner(list []*model.Declaration, yield func(*model.Declaration) bool, depth int) bool {
	for _, d := range list {
		if !d.Kind().IsType() {
			continue
		}
		if !yield(d) || holdsPages(d) && depth < deepest && !p.eachOwner(p.Members(d), yield, depth+1) {
			return false
		}
	}
	return true
}

// Nested are the members of a declaration that have pages of their own.
func (p *Plan) Nested(d *model.Declaration) []*model.Declaration {
	if !HasPage(d) || !holdsPages(d) {
		return nil
	}
	return slices.DeleteFunc(slices.Clone(p.Members(d)), func(member *model.Declaration) bool { return !member.Kind().IsType() })
}

// Top are the declarations at the top of a module that are in reach, in the
// order of files and lines.
func (p *Plan) Top(m *model.Module) []*model.Declaration { return p.modules[m].contents().top }

// GroupsOf are the groups of a module's declarations, see [Groups].
func (p *Plan) GroupsOf(m *model.Module) []Group { return p.modules[m].groups() }

// Makers are the functions of a type's module that give the type: the ways to make it.
func (p *Plan) Makers(d *model.Declaration) []*model.Declaration {
	var out []*model.Declaration
	for _, f := range p.Links.Relations(d).ReturnedBy {
		if p.Links.Home(f) == p.Links.Home(d) && f.Parent == d.Parent {
			out = append(out, f)
		}
	}
	return out
}

// ConstantsOf are the constants of its module that have a type, in source order.
func (p *Plan) ConstantsOf(d *model.Declaration) []*model.Declaration {
	v := p.modules[p.Links.Home(d)]
	if v == nil || d.Parent != nil {
		return nil
	}
	return v.constants()[d]
}

// constantsOf puts the constants of a module to the types that their signatures say.
func (p *Plan) constantsOf(top []*model.Declaration) map[*model.Declaration][]*model.Declaration {
	out := map[*model.Declaration][]*model.Declaration{}
	for _, d := range top {
		if d.Kind() != model.KindConstant {
			continue
		}
		at := d.Speaks(model.Words)
		for t := range at.Tokens(at.Signature) {
			if t.Kind != model.TokenType {
				continue
			}
			if typ := p.Links.TypeOf(d, at.File, t).Declaration; typ != nil && p.Links.Home(typ) == p.Links.Home(d) {
				out[typ] = append(out[typ], d)
			}
			break
		}
	}
	return out
}

// Siblings are the modules of the same library that share the module's parent,
// itself among them, and those right below it.
func (p *Plan) Siblings(m *model.Module) (beside, below []*model.Module) {
	s := p.modules[m].siblings()
	return s.beside, s.below
}

func (p *Plan) siblingsOf(m *model.Module) (s siblings) {
	around := p.around()
	s.beside = around[place{m.Library, m.Around()}]
	if inside, nested := m.Below(); nested && inside != m.Around() {
		s.below = around[place{m.Library, inside}]
	}
	return s
}

// place is what lies around modules of a library, see [model.Module.Around].
type place struct {
	library *model.Library
	path    string
}

// modulesAround are the modules with pages by what lies around them.
func (p *Plan) modulesAround() map[place][]*model.Module {
	out := map[place][]*model.Module{}
	for _, lib := range p.Links.Project.Libraries {
		for _, m := range p.Modules(lib.Library) {
			at := place{lib.Library, m.Around()}
			out[at] = append(out[at], m)
		}
	}
	return out
}
