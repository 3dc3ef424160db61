package link

import (
	"cmp"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file finds what users can name, and by which names: what modules re-export from one
// another, what is within reach because of it, and the members that types have from bases
// which users cannot name.

// findSurface works it out for the whole project. The order matters: what a module gives
// on decides what is within reach, and that, which bases are out of it.
func (x *Index) findSurface() {
	x.openImports()
	x.findGiven()
	x.replaced = map[*model.Declaration]bool{}
	x.lift()
	x.findHomes()
	if x.unite() {
		x.exportsOf.Clear()
		x.lift()
		x.findHomes()
	}
	x.rename()
	x.findReplaced()
	x.seat()
	x.findHomes() // under the names that users know
	x.added, x.addedTo = map[*model.Declaration][]*model.Declaration{}, map[*model.Declaration]*model.Declaration{}
	x.augment()
	x.exportsOf.Clear()
	x.based.Clear()
	x.speakForOthers()
	x.adopt()
	x.callModules()
}

// openImports decides which imports a module re-exports where that hangs on what is taken:
// a package re-exports what it takes from modules of its own, and so does a module that has
// nothing else.
func (x *Index) openImports() {
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			passes := x.takers[m] && (passesOn(m) || x.isPackage(m))
			for _, f := range m.Files {
				imports := x.imports[f]
				for i := range imports {
					in := &imports[i]
					in.public = in.from.Reexport && in.from.In == "" || passes && in.from.ReexportsOwn && x.isOwn(lib.Library, in)
				}
			}
		}
	}
}

// isPackage reports whether a module stands for those below it.
func (x *Index) isPackage(m *model.Module) bool {
	worder, ok := x.options.FrontEnds[m.Library.Language].(lang.Packages)
	return ok && worder.IsPackage(m)
}

// isOwn reports whether an import takes something out of the library that it stands in.
func (x *Index) isOwn(lib *model.Library, in *imported) bool {
	if in.module != nil && in.module.Library == lib {
		return true
	}
	if in.member == "" || in.member == "*" {
		return false
	}
	t := x.taken(lib, *in, &trail{})
	return t.Module != nil && t.Module.Library == lib
}

// passesOn reports whether a module declares nothing for its users.
func passesOn(m *model.Module) bool {
	return !slices.ContainsFunc(m.Top, func(d *model.Declaration) bool {
		return d.Visibility == model.Public || m.Internal && d.Speaks(model.Words).Visibility == model.Public
	})
}

// Export is a name that a module re-exports from elsewhere, or a further name for what it has.
type Export struct {
	Name   string
	Target Target
	Others []*model.Declaration // further ones that come under the name, of which a build may have one instead
	Doc    *model.Doc           // the comment on the name, where it has one of its own
	Stands *model.Declaration   // what gives the target this name, where that is a declaration to its language
	File   *model.Facts
	Apart  bool // the page of the target stays where users find it without the name
}

// Exports lists what a module re-exports out of other modules, or under other
// names, in the order of its files. Names that cannot be followed are left out.
func (x *Index) Exports(m *model.Module) []Export {
	if !x.takers[m] {
		return nil
	}
	if known, ok := x.exportsOf.Load(m); ok {
		return known.([]Export)
	}
	g := exportList{x: x, of: m, names: map[string]int{}, seen: map[*model.Module]bool{}, stars: map[*model.Module]bool{m: true}}
	g.module(m)
	x.exportsOf.Store(m, g.out)
	return g.out
}

// exportList lists what one module re-exports.
type exportList struct {
	x     *Index
	of    *model.Module
	out   []Export
	names map[string]int // where in the list a name is, counted from 1
	seen  map[*model.Module]bool
	stars map[*model.Module]bool
	apart bool // what is listed now has its page where it is declared
}

func (g *exportList) add(given Export) {
	given.Apart = given.Apart || g.apart
	own := g.of.Find(given.Name)
	switch {
	case given.Target.None() || given.Name == "":
		return
	case g.names[given.Name] > 0:
		first := &g.out[g.names[given.Name]-1]
		if d := given.Target.Declaration; d != nil && first.Target.Declaration != nil && d != first.Target.Declaration && !slices.Contains(first.Others, d) {
			first.Others = append(first.Others, d)
		}
		return
	case own != nil && given.Stands != own && !leftOut(own) && g.x.standsFor(own, &trail{}).None():
		return // its own
	case own != nil && given.Target.Declaration == own && !leftOut(own):
		return
	}
	g.out = append(g.out, given)
	g.names[given.Name] = len(g.out)
}

func (g *exportList) module(m *model.Module) {
	if g.seen[m] {
		return
	}
	g.seen[m] = true
	x, own := g.x, m == g.of
	for _, d := range m.Top {
		if visible(d) && (own || !leftOut(d)) {
			if t := x.standsFor(d, &trail{}); !t.None() {
				g.add(Export{Name: d.Name, Target: t, Stands: d, File: d.Speaks(model.Words).File})
			}
		}
	}
	for _, f := range m.Files {
		for _, i := range x.imports[f] {
			switch {
			case !i.public:
			case i.member == "*" && i.module == nil:
				g.starAt(x.placeAt(m.Library, i.path, &trail{}), f)
			case i.member == "*":
			case i.self && strings.Contains(i.name, "."): // in a namespace
				if d := x.gives(m, defaultOf(m), &trail{}).Declaration; f.DefaultIsModule && d != nil {
					if name, ok := strings.CutPrefix(i.name, d.Written()+"."); ok {
						g.add(Export{Name: name, Target: x.taken(m.Library, i, &trail{}), File: f})
					}
				}
			case x.IsDefault(m, i.name) && !own:
			case i.member == "" && !i.whole && i.module != nil:
				g.add(Export{Name: i.name, Target: Target{Module: i.module}, Doc: i.from.Doc, File: f})
			default:
				g.add(Export{Name: i.name, Target: x.taken(m.Library, i, &trail{}), Doc: i.from.Doc, File: f, Apart: i.from.Apart})
			}
		}
		for _, l := range f.ExportList {
			if m.Find(l.Name) == nil {
				g.add(Export{Name: l.Name, Target: x.gives(m, l.Name, &trail{}), File: f})
			}
		}
		if f.DefaultIsModule {
			g.members(m, f)
		}
	}
	for _, f := range m.More {
		for _, i := range x.imports[f] {
			if givenIn(i.from, m) && i.member != "*" {
				t := Target{Module: i.module}
				if i.member != "" || i.module == nil {
					t = x.taken(m.Library, i, &trail{})
				}
				g.add(Export{Name: i.name, Target: t, Doc: i.from.Doc, File: f, Apart: i.from.Apart})
			}
		}
	}
	for _, f := range m.More {
		for _, i := range x.imports[f] {
			if givenIn(i.from, m) && i.member == "*" && i.module != nil && i.module != m {
				g.starOf(i)
			}
		}
	}
	for _, f := range m.Files { // what is named outweighs what comes with everything
		for _, i := range x.imports[f] {
			if i.public && i.member == "*" && i.module != nil && i.module != m {
				g.starOf(i)
			}
		}
	}
}

// givenIn reports whether a file re-exports something in a module that stands in it.
func givenIn(i *model.Import, m *model.Module) bool {
	h := m.Library.Habits
	return i.Reexport && i.In != "" && h != nil && strings.HasSuffix(m.Written(), h.PathMark+i.In)
}

// Listed is the name of a list of exports whose comment speaks for a declaration that has
// none of its own, or nil.
func (x *Index) Listed(d *model.Declaration) *Export {
	if d.Parent != nil || d.Speaks(model.Words).Doc != nil {
		return nil
	}
	m := x.Home(d)
	if !x.takers[m] {
		return nil
	}
	known, ok := x.listed.Load(m)
	if !ok {
		list := map[*model.Declaration]*Export{}
		exports := x.Exports(m)
		for i := range exports {
			if g := &exports[i]; g.Doc != nil && g.Target.Declaration != nil && list[g.Target.Declaration] == nil {
				list[g.Target.Declaration] = g
			}
		}
		known, _ = x.listed.LoadOrStore(m, list)
	}
	return known.(map[*model.Declaration]*Export)[d]
}

// visible reports whether users can take a declaration from its module, if they can take
// anything from that.
func visible(d *model.Declaration) bool {
	return d.Visibility == model.Public || d.Module.Internal && d.Speaks(model.Words).Visibility == model.Public && !leftOut(d)
}

// starOf lists all that comes with an import of everything.
func (g *exportList) starOf(i imported) {
	was := g.apart
	g.apart = was || i.from.Apart
	g.star(i.module)
	g.apart = was
}

// starAt lists all that comes from a module that is handed on, or the members of a type.
func (g *exportList) starAt(at Target, f *model.Facts) {
	switch {
	case at.Module != nil && at.Module != g.of:
		g.star(at.Module)
	case at.Declaration != nil:
		for _, member := range at.Declaration.Members {
			g.add(Export{Name: member.Name, Target: Target{Declaration: member}, File: f, Apart: true})
		}
	}
}

// star lists all that a module gives.
func (g *exportList) star(m *model.Module) {
	if g.stars[m] {
		return
	}
	g.stars[m] = true
	for _, d := range m.Top {
		if !leftOut(d) && !g.x.IsDefault(m, d.Name) && visible(d) && g.x.standsFor(d, &trail{}).None() {
			g.add(Export{Name: d.Name, Target: Target{Declaration: d}})
		}
	}
	for _, inner := range g.x.openModules(m) {
		name := m.Library.Habits.Last(inner.Written())
		if own := g.x.importable(g.of.Library, g.of.Written()+m.Library.Habits.PathMark+name); own == nil || own == inner || own.Library != g.of.Library { // else it has another one of its own
			g.add(Export{Name: name, Target: Target{Module: inner}})
		}
	}
	if !g.x.takers[m] {
		return
	}
	g.module(m)
	listed := false
	for _, f := range m.Files {
		listed = listed || f.HasExportList
	}
	if listed {
		return
	}
	for _, f := range m.Files { // without a list, what a module takes is taken from it too
		for _, i := range g.x.imports[f] {
			if i.from.ReexportsOwn && i.member == "*" && i.module != nil && i.module.Library == m.Library {
				g.star(i.module)
			} else if i.from.ReexportsOwn && i.module != nil && i.module.Library == m.Library && i.member != "" {
				g.add(Export{Name: i.name, Target: g.x.taken(m.Library, i, &trail{}), File: f})
			}
		}
	}
}

// members lists the members of what a module exports as a whole: its users take them as they
// take what a module gives.
func (g *exportList) members(m *model.Module, f *model.Facts) {
	d := g.x.gives(m, defaultOf(m), &trail{}).Declaration
	if d == nil || d.Module.Library.Elsewhere != nil {
		return
	}
	if d.Kind() != model.KindInterface {
		g.membersOf(d, f)
	}
	if k := d.Kind(); k != model.KindConstant && k != model.KindVariable && k != model.KindNamespace {
		return
	}
	for _, o := range d.Occurrences {
		for t := range o.Tokens(o.Signature) { // what a value has that is of one type
			if typ := g.x.valueType(d, o, t); typ != nil {
				g.membersOf(typ, f)
				for _, from := range g.x.Inherited(typ) {
					for _, member := range from.Members {
						g.add(Export{Name: member.Name, Target: Target{Declaration: member}, File: f})
					}
				}
			}
		}
	}
}

// valueType is the type that a token in the signature of a value names, or nil.
func (x *Index) valueType(d *model.Declaration, o model.At, t model.Token) *model.Declaration {
	if t.Kind != model.TokenType || o.Kind != model.KindConstant && o.Kind != model.KindVariable {
		return nil
	}
	typ := x.TypeOf(d, o.File, t).Declaration
	if typ == nil {
		typ = x.under(Target{Declaration: d}, t.Text).Declaration // in the namespace of its own name
	}
	if typ == nil || typ == d || typ.Module.Library.Elsewhere != nil || typ.Kind() != model.KindInterface && typ.Kind() != model.KindClass {
		return nil
	}
	return typ
}

func (g *exportList) membersOf(d *model.Declaration, f *model.Facts) {
	for _, member := range d.Members {
		if k := member.Kind(); k != model.KindConstructor && k != model.KindIndexer && member.Speaks(model.Words).Visibility == model.Public && !strings.HasPrefix(member.Name, "(") && !strings.HasPrefix(member.Name, "[") && member.Name != "new" {
			g.add(Export{Name: member.Name, Target: Target{Declaration: member}, File: f})
		}
	}
}

// lift puts what a module in reach re-exports out of modules that are kept from
// users within their reach.
func (x *Index) lift() {
	x.lifted = map[*model.Declaration]bool{}
	x.liftedModules, x.wholes, x.handedOn = map[*model.Module]bool{}, map[*model.Module]bool{}, map[*model.Module]handing{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if !m.Internal {
				x.liftGiven(m, 0)
			}
		}
	}
}

func (x *Index) liftGiven(m *model.Module, depth int) {
	if !x.takers[m] || depth > highest {
		return
	}
	for _, given := range x.Exports(m) {
		if other := given.Target.Module; other != nil && other.Internal && !x.wholes[other] && other.Library.Elsewhere == nil { // the whole module under a name
			x.liftWhole(other, m, given.Name, depth)
		}
		if d := given.Target.Declaration; d != nil && d.Module.Library.Elsewhere == nil && (d.Module.Internal || d.Visibility != model.Public) && x.mayLift(d, given.Name) {
			for at, depth := d, 0; at != nil && depth < highest; at, depth = at.Parent, depth+1 {
				x.lifted[at] = true // a member stands on the page of what holds it
			}
			if d.Module.Internal {
				x.liftedModules[d.Module] = true
			}
		}
	}
}

// liftWhole puts a module that another one re-exports under a name within the reach of users, and the
// modules in it that are for all.
func (x *Index) liftWhole(m, by *model.Module, name string, depth int) {
	x.liftedModules[m], x.wholes[m] = true, true
	if h := m.Library.Habits; h != nil && h.Nested && h.ByPath { // the way there is its path
		x.handedOn[m] = handing{by, name}
	}
	for _, d := range m.Top {
		if d.Speaks(model.Words).Visibility == model.Public && !leftOut(d) {
			x.lifted[d] = true
		}
	}
	x.liftGiven(m, depth+1)
	for _, inner := range x.openModules(m) {
		if inner.Internal && !x.wholes[inner] && depth < highest {
			x.liftWhole(inner, m, m.Library.Habits.Last(inner.Written()), depth+1)
		}
	}
}

// HandsOver reports whether a module that is kept from users where it stands is handed on as a whole.
func (x *Index) HandsOver(m *model.Module) bool { return x.wholes[m] }

// handing is how users get a module that is kept from them where it stands.
type handing struct {
	by   *model.Module
	name string
}

// openModules are the modules right below one that it does not keep to itself, in languages in which a
// module says that of each.
func (x *Index) openModules(m *model.Module) (out []*model.Module) {
	h := m.Library.Habits
	if h == nil || !h.Nested {
		return nil
	}
	for _, f := range m.AllFiles() {
		for _, in := range f.Modules {
			last := h.Last(in.Name)
			inner := x.importable(m.Library, m.Written()+h.PathMark+last)
			if in.Kept || in.Tested || inner == nil || slices.Contains(out, inner) {
				continue
			}
			if own := x.ModuleOf(f); own != nil && own.Written()+h.PathMark+in.Name == inner.Written() {
				out = append(out, inner)
			}
		}
	}
	return out
}

// callModules gives modules that are kept from users where they stand the paths under which others hand them on.
func (x *Index) callModules() {
	paths := map[*model.Module]string{} // before any of them is called so
	for m := range x.handedOn {
		paths[m] = x.userPath(m)
	}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if path, ok := paths[m]; ok && path != m.Path && x.module(m.Library, path) == nil && x.mayChange(m) {
				m.Call(path) // of several the first: a path leads to one page
				x.modules[path] = append(x.modules[path], m)
			}
		}
	}
}

// userPath is the path by which users name a module: that of what re-exports it, where it is kept from
// them otherwise.
func (x *Index) userPath(m *model.Module) string {
	path := ""
	for depth := 0; depth < highest; depth++ {
		by, ok := x.handedOn[m]
		if !ok {
			break
		}
		path, m = m.Library.Habits.PathMark+by.name+path, by.by
	}
	return m.Path + path
}

// mayLift reports whether a declaration is for users where a module re-exports it under a
// name: it is, unless a comment keeps it from them, whatever its own name says.
func (x *Index) mayLift(d *model.Declaration, name string) bool {
	if h := d.Module.Library.Habits; h != nil && h.Nested && h.ByPath && d.Parent == nil { // what is handed on is for all, unless an attribute hides it
		return d.Speaks(model.Words).Visibility == model.Public
	}
	return d.Speaks(model.Words).Visibility == model.Public || d.Parent == nil && d.Speaks(model.Words).Doc == nil && d.Speaks(model.Words).Visibility == model.Private ||
		d.Speaks(model.Words).Visibility == model.Private && name != d.Name
}

// Visibility is the effective one of a declaration, seen from outside: what a
// public module re-exports is public wherever it was declared.
func (x *Index) Visibility(d *model.Declaration) model.Visibility {
	if len(x.lifted) == 0 || d.Visibility == model.Public {
		return d.Visibility
	}
	v := model.Public
	for at, depth := d, 0; at != nil && depth < 100; at, depth = at.Parent, depth+1 {
		if x.lifted[at] {
			return v
		}
		v = max(v, at.Speaks(model.Words).Visibility)
	}
	return d.Visibility
}

// rename gives declarations the names that users know them by, where these are others than
// their files write: those under which the module re-exports them on whose pages they stand.
func (x *Index) rename() {
	type naming struct {
		home *model.Module
		name string
	}
	names := map[*model.Declaration]naming{}
	plain := map[*model.Declaration]bool{} // known under their own names too
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if !x.takers[m] || !x.seen(m) || x.isInternal(m) {
				continue
			}
			for _, given := range x.Exports(m) {
				d := given.Target.Declaration
				if d == nil || d.Parent != nil || d.Module.Library != m.Library {
					continue
				}
				if given.Name == d.Name {
					plain[d] = true
					continue
				}
				if x.IsDefault(m, given.Name) || !x.lifted[d] || !x.isInternal(d.Module) && d.Module != m {
					continue
				}
				was, ok := names[d]
				if !ok || cmp.Or(cmp.Compare(len(m.Path), len(was.home.Path)), cmp.Compare(m.Path, was.home.Path)) < 0 {
					names[d] = naming{m, given.Name}
				}
			}
		}
	}
	for d, n := range names {
		if own := d.Module.Find(n.name); own != nil && x.standsFor(own, &trail{}).None() {
			continue // its module has something else of this name
		}
		if !plain[d] && (x.isInternal(d.Module) || leftOut(d) || d.Speaks(model.Words).Visibility == model.Private) {
			if x.mayChange(d.Module) {
				d.Module.Rename(d, n.name)
			}
		}
	}
	if len(names) > 0 {
		x.exportsOf.Clear()
	}
}

// findReplaced finds the constants and variables in whose place pages show what they stand
// for.
func (x *Index) findReplaced() {
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if !x.takers[m] {
				continue
			}
			for _, d := range m.Top {
				t := x.standsFor(d, &trail{})
				if t.Module != nil && x.seen(t.Module) || t.Declaration != nil && (x.InReach(t.Declaration) || !visible(d)) {
					x.withMembers(d, func(d *model.Declaration) bool { x.replaced[d] = true; return true }, 0)
				}
			}
		}
	}
}

// speakForOthers gives second names of callables the words of what they name.
func (x *Index) speakForOthers() {
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if !m.Renamed {
				continue
			}
			for d := range m.Declarations {
				if d.Origin() != nil || !isSame(d) || x.replaced[d] {
					continue
				}
				of := x.sameAs(d)
				if of != nil && d.Speaks(model.Words).Doc != nil && of.Speaks(model.Signature).File != d.Speaks(model.Words).File {
					continue // a comment of its own, which stands in another file than the words would
				}
				if of != nil && of != d && of.Speaks(model.Words).Callable != nil && of.Site() != d && x.mayChange(m) {
					m.Speak(d, of, secondNamed(d.Speaks(model.Words), of))
				}
			}
		}
	}
}

// isSame reports whether a declaration is nothing but a further name of something, in every
// file that has it.
func isSame(d *model.Declaration) bool {
	for _, o := range d.Occurrences {
		if o.Same() == "" {
			return false
		}
	}
	return true
}

// sameAs is the declaration that another one is a second name of, or nil.
func (x *Index) sameAs(d *model.Declaration) *model.Declaration {
	at := d.Speaks(model.Words)
	names := splitPath(at.Same())
	if d.Parent != nil {
		if of := x.promoted(d.Parent, names[0], 0); of != nil && of != d {
			return x.below(of, names[1:])
		}
	}
	t := x.nameAt(d.Module, at.File, names[0], d, &trail{})
	if len(names) > 1 && !t.None() {
		t = x.under(t, at.Same()[len(names[0])+1:])
	}
	return t.Declaration
}

// secondNamed is an occurrence with the words of a callable under another name.
func secondNamed(at model.At, of *model.Declaration) model.At {
	form := of.Speaks(model.Signature)
	made := *form.Occurrence
	made.Name, made.Scope, made.Visibility, made.Export = at.Name, at.Scope, at.Visibility, at.Export
	made.Doc, made.GroupDoc, made.Deprecated = at.Doc, nil, at.Deprecated || form.Deprecated
	if at.File == form.File {
		made.NameSpan, made.Span, made.Line = at.NameSpan, at.Span, at.Line
	}
	if at.Parent < 0 && made.Kind == model.KindMethod {
		made.Kind = model.KindFunction
	}
	if at.Extra != nil && at.Extra.Property {
		made.Kind = model.KindProperty
	}
	if at.Parent >= 0 && made.Kind == model.KindFunction {
		made.Kind = model.KindMethod
	}
	return model.At{Occurrence: &made, File: form.File}
}

// augment adds to modules what other files declare of them ("declare module './plan'").
func (x *Index) augment() {
	for _, lib := range x.Project.Libraries {
		importer, ok := x.options.FrontEnds[lib.Language].(lang.Importer)
		if !ok {
			continue
		}
		for _, m := range lib.Modules {
			for _, d := range m.Top {
				if d.Kind() != model.KindModule || !x.takers[m] && !isRelative(d.Name) {
					continue
				}
				of := x.augmented(importer, m, d)
				if of == nil {
					continue
				}
				x.replaced[d] = true
				x.addTo(of, d.Members)
			}
		}
	}
}

// addTo adds declarations to a module: members to what it has, and new names to itself, or
// to what it exports as a whole.
func (x *Index) addTo(m *model.Module, list []*model.Declaration) {
	var whole *model.Declaration
	if slices.ContainsFunc(m.Files, func(f *model.Facts) bool { return f.DefaultIsModule }) {
		whole = x.gives(m, defaultOf(m), &trail{}).Declaration
	}
	everything := func(*model.Declaration) bool { return true }
	for _, added := range list {
		x.replaced[added] = true
		for _, member := range added.Members {
			x.replaced[member] = true
		}
		own := x.gives(m, added.Name, &trail{}).Declaration
		if whole != nil && whole.Module == m {
			own = whole.Member(added.Name)
		}
		switch {
		case own != nil && own.Module.Library.Elsewhere == nil:
			x.adoptAll(own.Module, own, added.Members, everything, 0)
			x.added[own] = append(x.added[own], added)
			x.addedTo[added] = own
		case whole == nil || whole.Module == m:
			x.adoptAll(m, whole, []*model.Declaration{added}, everything, 0)
		}
	}
}

// augmented is the module that a declaration adds to, or nil.
func (x *Index) augmented(importer lang.Importer, m *model.Module, d *model.Declaration) *model.Module {
	for _, path := range importer.ImportPaths(m, d.Speaks(model.Words).File, d.Name) {
		if of := x.importable(m.Library, path); of != nil && of != m && of.Library == m.Library {
			return of
		}
	}
	return nil
}

func isRelative(name string) bool { return len(name) > 1 && name[0] == '.' }

// adopt gives types the members that they have from bases which users cannot name: to
// them these are the type's own.
func (x *Index) adopt() {
	x.adopters = map[*model.Declaration]*model.Declaration{}
	var modules []*model.Module
	for _, lib := range x.Project.Libraries {
		modules = append(modules, lib.Modules...)
	}
	types := make([][]*model.Declaration, len(modules)) // those with bases
	x.parallel(len(modules), func(i int) {
		for d := range modules[i].Declarations {
			if d.Kind().IsType() && x.InReach(d) && len(x.bases(d)) > 0 && d.Origin() == nil {
				types[i] = append(types[i], d)
			}
		}
	})
	for i, list := range types {
		for _, d := range list {
			x.adoptInto(modules[i], d)
		}
	}
}

func (x *Index) adoptInto(m *model.Module, d *model.Declaration) {
	seen := map[*model.Declaration]bool{d: true}
	implicit := x.implicit(m.Library)
	for level, next := 0, []*model.Declaration{d}; len(next) > 0 && level < highest; level++ {
		var above []*model.Declaration
		var taken []*model.Declaration
		for _, t := range next {
			for _, base := range x.bases(t) {
				if seen[base] || x.InReach(base) || base.Module.Library.Elsewhere != nil {
					continue
				}
				seen[base] = true
				above = append(above, base)
				taken = append(taken, base.Members...)
			}
		}
		if implicit {
			taken = unlikeNames(taken)
		}
		x.adoptAll(m, d, taken, func(member *model.Declaration) bool {
			at := member.Speaks(model.Words)
			return x.options.Reach.Includes(at.Visibility) && !member.Hidden && member.Origin() == nil && !at.Embedded && !member.Blank()
		}, 0)
		next = above
	}
	for _, member := range d.Members {
		if o := member.Origin(); o != nil && x.adopters[o] == nil {
			x.adopters[o] = member
		}
	}
}

// unlikeNames leaves out members of one name: where types embed others, none of several on
// one level is promoted.
func unlikeNames(list []*model.Declaration) []*model.Declaration {
	count := map[string]int{}
	for _, d := range list {
		count[d.Name]++
	}
	return slices.DeleteFunc(slices.Clone(list), func(d *model.Declaration) bool { return count[d.Name] > 1 })
}

func (x *Index) adoptAll(m *model.Module, into *model.Declaration, members []*model.Declaration, wanted func(*model.Declaration) bool, depth int) {
	for _, member := range members {
		if !wanted(member) || depth > highest {
			continue
		}
		if m.Has(into, member.Name) || !x.mayChange(m) {
			continue
		}
		if made := m.Adopt(into, member); made != nil {
			x.adoptAll(m, made, member.Members, wanted, depth+1)
		}
	}
}

// Adopter reports whether a declaration is the first of those that have the words of
// another one as members of their types: rules speak of that once.
func (x *Index) Adopter(d *model.Declaration) bool {
	return d.Origin() == nil || x.adopters[d.Origin()] == nil || x.adopters[d.Origin()] == d
}
