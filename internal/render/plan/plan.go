// Package plan owns what pages there are: addresses, anchors, the order of
// pages, groups and the A to Z list. It is the same for every output format.
//
// It reads the linked project and draws nothing.
package plan

import (
	"cmp"
	"iter"
	"slices"
	"strconv"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"

	"codrel/internal/link"
	"codrel/internal/model"
)

// Kind tells what a page shows.
type Kind uint8

// The kinds of pages.
const (
	HomePage Kind = iota
	LibraryPage
	ModulePage
	TypePage
	TreePage  // all modules of all libraries
	IndexPage // the A to Z list, or one letter of it
	LostPage  // what a server shows where there is no page
	GonePage  // all deprecated declarations with their advice
	SourcePage
	UsersPage   // where the declarations of a module are used
	NamesPage   // names of a module or type, a line each, where its own page has no room for them
	WholePage   // a module with all its types, to be printed
	RelatedPage // all that a type has to do with, where its own page has no room for it
	DetailsPage // plates and texts of declarations that have no room on their module's or type's page
	FindingsPage
	CoveragePage
)

// Page is one page of the plan. Fields that its kind has no use for are empty.
type Page struct {
	Kind    Kind
	Address string // from the site's root
	Title   string
	Library *model.Library
	Module  *model.Module
	Type    *model.Declaration
	File    *model.Facts         // of a SourcePage
	Guide   *link.Guide          // whose text the page shows: of a HomePage, where there is one
	Part    int                  // of several pages about one thing, from 0
	Names   []*model.Declaration // of a UsersPage, NamesPage or DetailsPage: whom it is about
	Letter  string               // of an IndexPage; "" on the first
	Entries []Entry              // of an IndexPage
	// Twins are types of one module whose names differ by case alone, of a page that
	// shows them all. Each has the page at its own address; where a file system folds
	// case there is one file, and it is right for all of them.
	Twins    []*model.Declaration
	Same     *Page // another page of the same twins, whose text this one has
	Previous *Page // in reading order, within the reference
	Next     *Page
}

// Entry is one line of the A to Z list.
type Entry struct {
	Name        string
	Declaration *model.Declaration
	Module      *model.Module // where the entry is a module
}

// Plan is all pages of a site.
type Plan struct {
	Links                    *link.Index
	Pages                    []*Page
	Letters                  []*Page // of the A to Z list, in order; more than one where it is long
	shown                    map[*model.Library][]*model.Module
	libraries                map[*model.Library]string // addresses of their pages
	modules                  map[*model.Module]*moduleView
	Source                   Source
	HasFindings, HasCoverage bool                          // whether there are such pages
	lines                    map[*model.Declaration]string // where names are shown that have no room on their module's page
	lined                    map[*model.Declaration]bool   // the first ones of groups that stand a line each
	away                     map[*model.Declaration]string // addresses of the pages of details that have their plates
	files                    map[*model.Facts]*sourceFile
	aside                    []*Page // pages that stand behind those of the reference
	byPath                   map[string]*model.Facts
	users                    map[*model.Declaration]string // address of the list of users, where it is longer than a note
}

// moduleView is what many pages ask of one module, worked out once.
type moduleView struct {
	folder        string
	page          string                                      // its address
	types         map[*model.Declaration]string               // addresses of their pages
	twins         map[*model.Declaration][]*model.Declaration // of types that share a page
	top           []*model.Declaration
	groups        []Group
	constants     func() map[*model.Declaration][]*model.Declaration // by their types
	beside, below []*model.Module
	users         string // address of the first page of users, or ""
	whole         string // address of the page with everything, or ""
}

// Addresses of the pages that each site has once.
const (
	HomeAddress     = "index.html"
	TreeAddress     = "modules.html"
	IndexAddress    = "a-z/index.html"
	LostAddress     = "404.html"
	GoneAddress     = "deprecated.html"
	FindingsAddress = "findings.html"
	CoverageAddress = "coverage.html"
)

// longIndex is how many entries the A to Z list holds before each letter gets a page.
const longIndex = 1500

// Options is what the plan is told.
type Options struct {
	Source   Source
	Findings int                      // how many findings get a page; negative for no such page
	Coverage bool                     // whether there is a page of what is documented
	Whole    func(module string) bool // of which modules, by path, there is one page with everything; may be nil
}

// fullIndex is how many entries a page of the A to Z list has at most.
const fullIndex = 4000

// New plans the pages of a linked project.
func New(links *link.Index, options Options) *Plan {
	source := options.Source
	p := &Plan{Links: links, lines: map[*model.Declaration]string{}, lined: map[*model.Declaration]bool{}, away: map[*model.Declaration]string{}, libraries: map[*model.Library]string{}, shown: map[*model.Library][]*model.Module{}, modules: map[*model.Module]*moduleView{}}
	project := links.Project
	var users sync.WaitGroup
	if source == FullSource {
		users.Go(links.FindUsers) // takes a while, and nothing else waits for it
	}
	for _, lib := range project.Libraries {
		p.libraries[lib.Library] = Library(lib.Library)
		p.look(lib)
	}
	p.add(&Page{Kind: HomePage, Address: HomeAddress, Title: homeTitle(links), Guide: links.Landing()})
	p.add(&Page{Kind: TreePage, Address: TreeAddress, Title: "All modules"})
	p.add(&Page{Kind: LostPage, Address: LostAddress, Title: "Page not found"})
	for _, lib := range project.Libraries {
		p.add(&Page{Kind: LibraryPage, Address: Library(lib.Library), Title: lib.Name, Library: lib.Library})
		for _, m := range p.Modules(lib.Library) {
			p.module(m)
		}
	}
	if len(p.Deprecated()) > 0 {
		p.add(&Page{Kind: GonePage, Address: GoneAddress, Title: "Deprecated names"})
	}
	p.chain()
	p.index()
	p.sources(source)
	users.Wait()
	p.userLists()
	p.Pages = append(p.Pages, p.aside...)
	p.reports(options)
	p.whole(options.Whole)
	return p
}

// homeTitle is what the landing page is called: as its text is, else as the project.
func homeTitle(links *link.Index) string {
	if g := links.Landing(); g != nil && g.Title != "" {
		return g.Title
	}
	return links.Project.Name
}

func (p *Plan) add(page *Page) *Page {
	p.Pages = append(p.Pages, page)
	return page
}

// look works out what is asked of each module of a library.
func (p *Plan) look(lib *model.Contents) {
	for _, m := range lib.Modules {
		if p.Links.ModuleInReach(m) {
			p.shown[lib.Library] = append(p.shown[lib.Library], m)
		}
	}
	for _, m := range p.shown[lib.Library] {
		top := p.inReach(p.Links.Tops(m))
		v := &moduleView{folder: moduleFolder(m), page: Module(m), top: top, groups: Groups(top, p.Links.ShownKind), types: map[*model.Declaration]string{}}
		for d := range p.owners(top) {
			v.types[d] = v.folder + "/" + pageFile(d)
		}
		v.twins = twins(v.types)
		v.constants = sync.OnceValue(func() map[*model.Declaration][]*model.Declaration { return p.constants(top) })
		v.beside, v.below = p.siblings(m)
		p.modules[m] = v
	}
}

func (p *Plan) module(m *model.Module) {
	page := p.add(&Page{Kind: ModulePage, Address: Module(m), Title: m.Path, Library: m.Library, Module: m})
	p.makeRoom(page, p.modules[m].folder+"/", p.GroupsOf(m))
	shared := map[*model.Declaration]*Page{}
	for d := range p.owners(p.Top(m)) {
		page := p.add(&Page{Kind: TypePage, Address: p.PageOf(d), Title: d.Path(), Library: m.Library, Module: m, Type: d})
		if list := p.modules[m].twins[d]; list != nil {
			page.Twins, page.Title = list, names(list)
			if first := shared[list[0]]; first != nil {
				page.Same = first
				continue
			}
			shared[list[0]] = page
			var groups []Group
			for _, twin := range list {
				groups = append(groups, p.MembersOf(twin)...)
			}
			p.makeRoom(page, strings.TrimSuffix(page.Address, ".html"), groups)
			continue
		}
		p.makeRoom(page, strings.TrimSuffix(page.Address, ".html"), p.MembersOf(d))
		if p.crowded(d) {
			p.aside = append(p.aside, &Page{Kind: RelatedPage, Address: p.Related(d), Title: d.Path(), Library: m.Library, Module: m, Type: d})
		}
	}
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
	return slices.DeleteFunc(p.Members(d), func(member *model.Declaration) bool { return !member.Kind().IsType() })
}

// Libraries are those of the project.
func (p *Plan) Libraries() []*model.Library {
	var out []*model.Library
	for _, lib := range p.Links.Project.Libraries {
		out = append(out, lib.Library)
	}
	return out
}

// Modules are the modules of a library that have a page, in the order of their paths.
func (p *Plan) Modules(lib *model.Library) []*model.Module { return p.shown[lib] }

// Top are the declarations at the top of a module that are in reach, in the
// order of files and lines.
func (p *Plan) Top(m *model.Module) []*model.Declaration { return p.modules[m].top }

// GroupsOf are the groups of a module's declarations, see [Groups].
func (p *Plan) GroupsOf(m *model.Module) []Group { return p.modules[m].groups }

// Declaration is the address at which a declaration in reach is explained: the one that
// it always has, see [Declaration], or that of its plate on a page of details.
func (p *Plan) Declaration(d *model.Declaration) string {
	address := cmp.Or(p.away[d], p.PageOf(d))
	if p.away[d] == "" && p.onTwins(d) {
		return address + "#" + d.Label()
	}
	if anchor := Anchor(d); anchor != "" {
		return address + "#" + anchor
	}
	return address
}

// onTwins reports whether a declaration stands on a page of several types.
func (p *Plan) onTwins(d *model.Declaration) bool {
	v := p.modules[p.Links.Home(d)]
	return v != nil && v.twins[Owner(d)] != nil
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
	if address, ok := v.types[owner]; ok {
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
func (p *Plan) Members(d *model.Declaration) []*model.Declaration { return p.inReach(d.Members) }

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

// chain links the pages of the reference in reading order.
func (p *Plan) chain() {
	var last *Page
	for _, page := range p.Pages {
		if page.Library == nil || page.Same != nil {
			continue
		}
		if last != nil {
			last.Next, page.Previous = page, last
		}
		last = page
	}
}

func (p *Plan) index() {
	entries := p.entries()
	first := &Page{Kind: IndexPage, Address: IndexAddress, Title: "A to Z", Entries: entries}
	p.Letters = []*Page{p.add(first)}
	if len(entries) <= longIndex {
		return
	}
	first.Entries = nil
	for _, e := range entries {
		letter := Letter(e.Name)
		last := p.Letters[len(p.Letters)-1]
		switch {
		case last.Letter != letter:
			last = p.add(&Page{Kind: IndexPage, Address: "a-z/" + letterFile(letter) + ".html", Title: "A to Z: " + letter, Letter: letter})
			p.Letters = append(p.Letters, last)
		case len(last.Entries) == fullIndex:
			part := last.Part + 1
			last = p.add(&Page{Kind: IndexPage, Address: "a-z/" + letterFile(letter) + "-" + strconv.Itoa(part+1) + ".html", Title: "A to Z: " + letter, Letter: letter, Part: part})
			p.Letters = append(p.Letters, last)
		}
		last.Entries = append(last.Entries, e)
	}
}

// entries are all modules and declarations but fields, by name.
func (p *Plan) entries() []Entry {
	var out []Entry
	for _, lib := range p.Links.Project.Libraries {
		for _, m := range p.Modules(lib.Library) {
			out = append(out, Entry{Name: m.Last(), Module: m})
			for d := range p.Links.OnPagesOf(m) {
				if p.Links.InReach(d) && d.Kind() != model.KindField && !d.Blank() {
					out = append(out, Entry{Name: d.Name, Declaration: d})
				}
			}
		}
	}
	type filed struct {
		key   string
		entry Entry
	}
	keys := make(map[string]string, len(out)) // many names are the same
	list := make([]filed, len(out))
	for i, e := range out {
		k, ok := keys[e.Name]
		if !ok {
			k = Letter(e.Name) + strings.ToLower(e.Name)
			keys[e.Name] = k
		}
		list[i] = filed{k, e}
	}
	slices.SortStableFunc(list, func(a, b filed) int {
		return cmp.Or(strings.Compare(a.key, b.key), strings.Compare(a.entry.Name, b.entry.Name))
	})
	for i := range list {
		out[i] = list[i].entry
	}
	return out
}

// Letter is what a name is filed under: its first letter as a capital, or "#"
// for names that begin with something else.
func Letter(name string) string {
	r, _ := utf8.DecodeRuneInString(strings.TrimLeft(name, "_"))
	if !unicode.IsLetter(r) {
		return "#"
	}
	return string(unicode.ToUpper(r))
}

func letterFile(letter string) string {
	if letter == "#" {
		return "other"
	}
	return segment(strings.ToLower(letter)) + "-names"
}

// Group is a run of declarations under one heading.
type Group struct {
	Title        string
	Named        bool // by the maintainer
	Declarations []*model.Declaration
	Deprecated   []*model.Declaration
}

// All are the declarations of the group, the deprecated ones last.
func (g Group) All() []*model.Declaration {
	return append(slices.Clone(g.Declarations), g.Deprecated...)
}

// Groups puts declarations into the groups that the maintainer named, in the
// order in which the names first stand, and then by kind, as users see it, in the
// order in which people read them.
func Groups(list []*model.Declaration, kind func(*model.Declaration) model.Kind) []Group {
	var named, kinds []Group
	put := func(groups *[]Group, title string, named bool, d *model.Declaration) {
		i := slices.IndexFunc(*groups, func(g Group) bool { return g.Title == title })
		if i < 0 {
			*groups = append(*groups, Group{Title: title, Named: named})
			i = len(*groups) - 1
		}
		g := &(*groups)[i]
		if d.Deprecated() {
			g.Deprecated = append(g.Deprecated, d)
			return
		}
		g.Declarations = append(g.Declarations, d)
	}
	for _, title := range kindTitles {
		for _, d := range list {
			if part(d) == "" && title == KindTitle(kind(d)) {
				put(&kinds, title, false, d)
			}
		}
	}
	for _, d := range list {
		if name := part(d); name != "" {
			put(&named, name, true, d)
		}
	}
	return append(named, kinds...)
}

// part is the group that the maintainer put a declaration in, or "".
func part(d *model.Declaration) string {
	for _, o := range d.Occurrences {
		for _, w := range o.Directives() {
			if w.Verb == "part" {
				return w.Object
			}
		}
	}
	return ""
}

// kindTitles are the headings of groups by kind, in the order of reading.
var kindTitles = []string{"Types", "Functions", "Macros", "Constants", "Variables", "Constructors", "Fields", "Index signatures", "Methods", "Operators", "Events", "Others"}

// KindTitle is the heading that declarations of a kind stand under.
func KindTitle(k model.Kind) string {
	switch {
	case k.IsType():
		return "Types"
	case k == model.KindFunction:
		return "Functions"
	case k == model.KindConstant, k == model.KindEnumMember:
		return "Constants"
	case k == model.KindVariable:
		return "Variables"
	case k == model.KindField, k == model.KindProperty:
		return "Fields"
	case k == model.KindConstructor:
		return "Constructors"
	case k == model.KindMacro:
		return "Macros"
	case k == model.KindOperator:
		return "Operators"
	case k == model.KindEvent:
		return "Events"
	case k == model.KindIndexer:
		return "Index signatures"
	case k.IsCallable():
		return "Methods"
	}
	return "Others"
}

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

// constants puts the constants of a module to the types that their signatures say.
func (p *Plan) constants(top []*model.Declaration) map[*model.Declaration][]*model.Declaration {
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
			if typ := p.Links.TypeIn(d, at.File, t.Text).Declaration; typ != nil && p.Links.Home(typ) == p.Links.Home(d) {
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
	v := p.modules[m]
	return v.beside, v.below
}

func (p *Plan) siblings(m *model.Module) (beside, below []*model.Module) {
	around := m.Around()
	inside, nested := m.Below()
	for _, other := range p.shown[m.Library] {
		switch {
		case other.Around() == around:
			beside = append(beside, other)
		case nested && other.Around() == inside:
			below = append(below, other)
		}
	}
	return beside, below
}
