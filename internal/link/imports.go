package link

import (
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file follows imports: what a name of a file stands for. What a module re-exports
// to its users is in surface.go.

// readImports lists the imports of all files.
func (x *Index) readImports() {
	for _, lib := range x.Project.Libraries {
		lists := make([][]imported, len(lib.Files))
		x.parallel(len(lib.Files), func(i int) { lists[i] = x.importsOf(lib.Library, lib.Files[i].Imports) })
		if shared := x.sharedImports(lib); len(shared) > 0 {
			for i := range lists {
				lists[i] = append(lists[i], shared...)
			}
		}
		for i, f := range lib.Files {
			if len(lists[i]) > 0 {
				x.imports[f] = lists[i]
			}
		}
	}
}

// sharedImports lists the imports that all files of a library have: by its project files, and
// by files that take something for all.
func (x *Index) sharedImports(lib *model.Contents) []imported {
	var all []model.Import
	for _, path := range lib.Imports {
		all = append(all, model.Import{Path: path, Member: "*", ForAll: true})
	}
	for _, f := range lib.Files {
		for _, i := range f.Imports {
			if i.ForAll {
				all = append(all, i)
			}
		}
	}
	return x.importsOf(lib.Library, all)
}

// importsOf lists imports whose paths mean the same wherever they stand.
func (x *Index) importsOf(lib *model.Library, list []model.Import) []imported {
	out := make([]imported, 0, len(list))
	for n := range list {
		i := &list[n]
		var m *model.Module
		if i.Path != "" {
			m = x.importable(lib, i.Path)
		}
		name := i.Name
		switch {
		case name != "":
		case m != nil && i.Assumed != i.Path && i.Member == "":
			name = m.Name
		default:
			name = i.Assumed
		}
		if i.Member == "*" {
			name = "."
		}
		out = append(out, imported{name: name, path: i.Path, member: i.Member, whole: i.Whole, public: i.Reexport && i.In == "", module: m, from: i})
	}
	return out
}

// takeFromOthers gives the imports of languages with paths of their own the
// modules that they mean, and finds out which modules take names from others.
func (x *Index) takeFromOthers() {
	x.takers, x.stubbed = map[*model.Module]bool{}, map[*model.Module]bool{}
	for _, lib := range x.Project.Libraries {
		importer, ok := x.options.FrontEnds[lib.Language].(lang.Importer)
		if !ok {
			continue
		}
		for _, list := range [][]*model.Module{lib.Modules, lib.Tests} {
			for _, m := range list {
				for _, f := range m.Files {
					x.takeFrom(lib.Library, importer, m, f)
				}
			}
		}
	}
}

func (x *Index) takeFrom(lib *model.Library, importer lang.Importer, m *model.Module, f *model.Facts) {
	imports := x.imports[f]
	for i := range imports {
		in := &imports[i]
		if h := lib.Habits; h != nil && h.Nested && in.member == "" && in.from.In == "" && has(m, f, in) { // what the module itself has
			in.member, in.path = in.path, ""
		}
		if in.path == "" { // a further name of what the file itself has
			in.path, in.module, in.self = m.Path, m, true
		} else {
			paths := importer.ImportPaths(m, f, in.path)
			in.path = paths[0]
			for _, path := range paths {
				if in.module = x.importable(lib, path); in.module != nil {
					in.path = path
					break
				}
			}
		}
		if in.from.In != "" {
			if inner := x.importable(lib, importer.Below(m.Written(), in.from.In)); inner != nil {
				x.takers[inner] = true
			}
		}
		x.takers[m] = x.takers[m] || in.member != "" || in.public || in.whole || in.from.ReexportsOwn
	}
	x.takers[m] = x.takers[m] || len(f.ExportList) > 0
	x.stubbed[m] = x.stubbed[m] || f.Stub && slices.ContainsFunc(m.Files, func(f *model.Facts) bool { return !f.Stub })
}

// has reports whether a module has itself what an import of one name alone names: it declares that, or the
// file takes it from elsewhere.
func has(m *model.Module, f *model.Facts, in *imported) bool {
	return m.Find(in.path) != nil || in.name != in.path && slices.ContainsFunc(f.Imports, func(i model.Import) bool { return i.Name == in.path && i.Member != "" && i.In == "" })
}

// trail is the way of one question through modules that take names from one another: each
// is asked for each name once, whatever circles they make.
type trail struct {
	few   []nameIn
	many  map[nameIn]bool
	depth int // of trails that this one began in
}

// within is a trail for a name of its own that is asked for on the way; ok is false where
// there are so many in one another that they can only go in a circle, as for
// exports.a = require("./self").b.a.
func (t *trail) within() (inner *trail, ok bool) {
	return &trail{depth: t.depth + 1}, t.depth < mostTrails
}

// mostTrails is how many trails begin in one another at most.
const mostTrails = 20

type nameIn struct {
	module *model.Module
	name   string
}

// first reports whether a module was not asked for a name before.
func (t *trail) first(m *model.Module, name string) bool {
	key := nameIn{m, name}
	if t.many[key] || slices.Contains(t.few, key) {
		return false
	}
	if len(t.few) < 16 {
		t.few = append(t.few, key)
		return true
	}
	if t.many == nil {
		t.many = map[nameIn]bool{}
	}
	t.many[key] = true
	return true
}

// taken is what an import stands for.
func (x *Index) taken(lib *model.Library, i imported, way *trail) Target {
	if i.member == "" {
		if i.module == nil {
			return Target{Address: x.outside(i.path, "")}
		}
		if i.whole {
			return x.whole(i.module, way)
		}
		return Target{Module: i.module}
	}
	if i.module != nil {
		first, rest, dotted := strings.Cut(i.member, ".")
		t := x.gives(i.module, first, way)
		if t.None() {
			t = x.ofKin(i.module, first)
		}
		if dotted && !t.None() {
			t = x.underBy(t, rest, way)
		}
		if !t.None() {
			return t
		}
	}
	if importer, ok := x.options.FrontEnds[lib.Language].(lang.Importer); ok && !i.self {
		if m := x.importable(lib, importer.Below(i.path, i.member)); m != nil {
			return Target{Module: m}
		}
	}
	if h := lib.Habits; h != nil && h.ByPath && !i.self { // a further name of a module
		if m := x.module(lib, i.path+h.PathMark+i.member); m != nil {
			return Target{Module: m}
		}
	}
	if i.module != nil && i.module.Library.Elsewhere == nil {
		return Target{}
	}
	if i.member != "*" {
		switch at := x.placeAt(lib, i.path, way); {
		case at.Declaration != nil:
			return Target{Declaration: at.Declaration.Member(i.member)}
		case at.Module != nil:
			return x.gives(at.Module, i.member, way)
		}
	}
	return Target{Address: x.outside(i.path, i.member)}
}

// placeAt is the module or the type that a path names by what modules hand on, in languages in which
// paths go through these; none for other paths.
func (x *Index) placeAt(lib *model.Library, path string, way *trail) Target {
	h := lib.Habits
	if h == nil || !h.Nested || path == "" {
		return Target{}
	}
	inner, ok := way.within()
	if !ok {
		return Target{}
	}
	names := strings.Split(path, h.PathMark)
	for n := len(names) - 1; n > 0; n-- {
		m := x.importable(lib, strings.Join(names[:n], h.PathMark))
		if m == nil || m.Library.Elsewhere != nil {
			continue
		}
		at := Target{Module: m}
		for _, name := range names[n:] {
			if at.Module == nil {
				return Target{}
			}
			at = x.inPath(at.Module, name, inner, map[*model.Module]bool{})
		}
		if at.Module != nil || at.Declaration != nil && at.Declaration.Kind().IsType() {
			return at
		}
		return Target{}
	}
	return Target{}
}

// inPath is what a name in a path means behind that of a module: what it gives, or a module below it or
// below one that it hands on as a whole.
func (x *Index) inPath(m *model.Module, name string, way *trail, seen map[*model.Module]bool) Target {
	seen[m] = true
	if t := x.gives(m, name, way); !t.None() {
		return t
	}
	if inner := x.importable(m.Library, m.Written()+m.Library.Habits.PathMark+name); inner != nil {
		return Target{Module: inner}
	}
	for _, f := range m.Files {
		for i := range x.wholeImports(f) {
			if i.module != nil && !seen[i.module] && i.from.Reexport && i.from.In == "" {
				if t := x.inPath(i.module, name, way, seen); !t.None() {
					return t
				}
			}
		}
	}
	return Target{}
}

// whole is what a module is to those who take it as a whole: what it gives so, else itself.
func (x *Index) whole(m *model.Module, way *trail) Target {
	for _, f := range m.Files {
		if f.DefaultIsModule {
			if t := x.gives(m, defaultOf(m), way); !t.None() {
				return t
			}
		}
	}
	return Target{Module: m}
}

// gives is what a module has under a name: its own declaration, or what it takes
// from another module.
func (x *Index) gives(m *model.Module, name string, way *trail) Target {
	if d := m.Find(name); d != nil {
		if t := x.standsFor(d, way); !t.None() {
			return t
		}
		return Target{Declaration: d}
	}
	if d := x.constant(m, name); d != nil {
		return Target{Declaration: d}
	}
	if m.Library.Elsewhere != nil {
		return x.elsewhere.gives(m, name)
	}
	if !x.takers[m] || !way.first(m, name) {
		return Target{}
	}
	for _, f := range m.Files {
		for i := range x.importsKnownAs(f, name) {
			if i.member != "*" && i.name == name && i.from.In == "" && (i.member != "" || i.public || i.whole || i.module != nil) {
				if t := x.taken(m.Library, i, way); !t.None() || !i.whole {
					return t
				}
			}
		}
	}
	for _, f := range m.More { // of which the module is a part
		for i := range x.importsKnownAs(f, name) {
			if i.member != "*" && i.name == name && givenIn(i.from, m) {
				if t := x.taken(m.Library, i, way); !t.None() {
					return t
				}
			}
		}
	}
	for _, f := range m.Files { // what is named outweighs what comes with everything
		for i := range x.wholeImports(f) {
			if i.module != nil && i.module != m && i.from.In == "" {
				if t := x.star(i.module, name, way); !t.None() {
					return t
				}
			}
		}
	}
	for _, f := range m.More {
		for i := range x.wholeImports(f) {
			if i.module != nil && i.module != m && givenIn(i.from, m) {
				if t := x.star(i.module, name, way); !t.None() {
					return t
				}
			}
		}
	}
	if !x.IsDefault(m, name) {
		return x.ofWhole(m, name, way)
	}
	if slices.ContainsFunc(m.Files, func(f *model.Facts) bool { return f.AssignsExports && !f.DefaultIsModule }) {
		return Target{Module: m} // what it assigns names to is what it exports as a whole
	}
	return Target{}
}

// ofWhole is a member of what a module exports as a whole: its users take it as they take
// what the module gives.
func (x *Index) ofWhole(m *model.Module, name string, way *trail) Target {
	for _, f := range m.Files {
		if !f.DefaultIsModule {
			continue
		}
		if d := x.gives(m, defaultOf(m), way).Declaration; d != nil && d.Module.Library.Elsewhere == nil {
			return Target{Declaration: d.Member(name)}
		}
	}
	return Target{}
}

// star is what an import of all names brings in under a name.
func (x *Index) star(m *model.Module, name string, way *trail) Target {
	if x.IsDefault(m, name) {
		return Target{}
	}
	if d := m.Find(name); d != nil {
		if leftOut(d) {
			return Target{}
		}
		return x.gives(m, name, way)
	}
	for _, f := range m.Files {
		for i := range x.importsKnownAs(f, name) {
			if i.name == name && f.HasExportList && !i.public {
				return Target{}
			}
		}
	}
	return x.gives(m, name, way)
}

// leftOut reports whether a file that lists what it exports does not name the declaration.
func leftOut(d *model.Declaration) bool {
	for _, o := range d.Occurrences {
		if o.Export == model.NotExported || o.Export == model.Renamed {
			return true
		}
	}
	return false
}

// mayStand reports whether a declaration may stand for what another module gives.
func (x *Index) mayStand(d *model.Declaration) bool {
	return x.takers[d.Module] && d.Parent == nil && d.Origin() == nil
}

// standsFor is what a constant or variable stands for that only gives something else a
// name in its file: what another module gives, as "const {Plan} = require('./berth')"
// does, or what the file exports under this name too. To the language it is a
// declaration, to who reads it an import.
func (x *Index) standsFor(d *model.Declaration, way *trail) Target {
	if !x.mayStand(d) {
		return Target{}
	}
	if t := x.declaredElsewhere(d, way); !t.None() {
		return t
	}
	kind := d.Kind()
	if kind != model.KindConstant && kind != model.KindVariable || !way.first(d.Module, "="+d.Name) {
		return Target{}
	}
	stub := x.stubbed[d.Module] && d.InStub()
	for _, o := range d.Occurrences {
		if stub && !o.File.Stub {
			continue // what only declares it says what it is
		}
		if same := o.Same(); same != "" && isSame(d) {
			first, rest, dotted := strings.Cut(same, ".")
			t := x.nameAt(d.Module, o.File, first, d, way)
			if dotted && !t.None() {
				t = x.underBy(t, rest, way)
			}
			if t.Module != nil || t.Declaration != nil && t.Declaration.Kind().IsType() {
				return t
			}
		}
		for i := range x.importsKnownAs(o.File, d.Name) {
			if i.name != d.Name || i.module == nil && !i.whole || i.member == "*" {
				continue
			}
			if i.self && i.member == d.Name {
				continue
			}
			if t := x.taken(d.Module.Library, i, way); t.Declaration != d && (t.Declaration != nil || t.Module != nil) {
				return t
			}
		}
	}
	return Target{}
}

// declaredElsewhere is what a stub re-exports under the name of what only the code beside it
// declares.
func (x *Index) declaredElsewhere(d *model.Declaration, way *trail) Target {
	if !x.stubbed[d.Module] || d.InStub() {
		return Target{}
	}
	for _, f := range d.Module.Files {
		if f.Stub && f.DefaultIsModule && d.Name != defaultOf(d.Module) && way.first(d.Module, "^"+d.Name) {
			if of := x.gives(d.Module, defaultOf(d.Module), way).Declaration; of != nil && of != d && of.Member(d.Name) != nil && of.Member(d.Name).InStub() {
				return Target{Declaration: of.Member(d.Name)}
			}
		}
		for _, i := range x.imports[f] {
			star := i.member == "*" && i.module != nil && i.module != d.Module
			if !f.Stub || !star && i.name != d.Name || star && !i.from.Reexport || i.member == d.Name && i.self || !way.first(d.Module, "^"+i.path+"#"+d.Name) {
				continue
			}
			var t Target
			if star {
				t = x.star(i.module, d.Name, way)
			} else {
				t = x.taken(d.Module.Library, i, way)
			}
			if t.Declaration != d && (t.Declaration != nil || t.Module != nil) {
				return t
			}
		}
	}
	return Target{}
}

// nameAt is what a bare name means at the top of a file, but for a declaration itself.
func (x *Index) nameAt(m *model.Module, f *model.Facts, name string, but *model.Declaration, way *trail) Target {
	if own := m.Find(name); own != nil {
		if own == but {
			return Target{}
		}
		if t := x.standsFor(own, way); !t.None() {
			return t
		}
		return Target{Declaration: own}
	}
	for i := range x.importsKnownAs(f, name) {
		if i.name == name && i.module != nil {
			return x.taken(m.Library, i, way)
		}
	}
	return Target{}
}

// Type resolves the name of a type in a signature, as the file it stands in sees it.
func (x *Index) Type(m *model.Module, f *model.Facts, name string) Target {
	if t, _, ok := x.ImportedType(m, f, name); ok {
		return t
	}
	name = m.Library.Habits.Dotted(name)
	first, rest, qualified := strings.Cut(name, ".")
	if !qualified {
		return x.bareTarget(m, f, name)
	}
	for i := range x.importsKnownAs(f, first) {
		switch {
		case (i.member != "" || i.whole) && i.name == first:
			return x.under(x.taken(m.Library, i, &trail{}), rest)
		case i.name == first, strings.Contains(i.name, ".") && len(name) > len(i.name) && name[len(i.name)] == '.' && strings.HasPrefix(name, i.name):
			below := name[len(i.name)+1:]
			if i.module == nil {
				return Target{Address: x.outside(i.path, below)}
			}
			return x.under(Target{Module: i.module}, below)
		}
	}
	if x.takers[m] {
		if d := m.Lookup(name); d != nil {
			return Target{Declaration: d}
		}
		if d := m.Find(first); d != nil {
			if t := x.standsFor(d, &trail{}); !t.None() {
				return x.under(t, rest)
			}
			return x.under(Target{Declaration: d}, rest)
		}
	}
	if h := m.Library.Habits; h != nil && h.ByPath {
		if t := x.inType(x.bareTarget(m, f, first), rest); !t.None() { // what is nearer outweighs the path of a module
			return t
		}
		if t := x.byPath(m, strings.Split(name, ".")); !t.None() {
			return t
		}
		if len(h.Roots) > 0 {
			if result, ok := x.fromRoot(Scope{Module: m, File: f}, prose.Name{Path: strings.Split(name, ".")}); ok && result.Outcome == Found {
				return result.Target
			}
		}
	}
	if len(x.called) > 0 {
		if found, _, _ := x.byCalled(m.Library, m)(strings.Split(name, ".")); len(found) == 1 {
			return found[0]
		}
	}
	return Target{}
}

// inType is what dotted names mean in a type: members of bases are its members as well.
func (x *Index) inType(of Target, names string) Target {
	d := of.Declaration
	if d == nil || !d.Kind().IsType() {
		return Target{}
	}
	for name := range strings.SplitSeq(names, ".") {
		if own := d.Member(name); own != nil && own.Kind().IsType() {
			d = own
			continue
		}
		if d = x.innerOfBase(d, name); d == nil {
			return Target{}
		}
	}
	return Target{Declaration: d}
}

// byPath finds a name by the path of its module, as that is written inside of a module or
// of one around it.
func (x *Index) byPath(m *model.Module, names []string) Target {
	mark := m.Library.Habits.PathMark
	around := strings.Split(m.Written(), mark)
	for outer := len(around); outer >= 0; outer-- {
		for n := len(names) - 1; n > 0; n-- {
			path := strings.Join(slices.Concat(around[:outer], names[:n]), mark)
			of := x.module(m.Library, path)
			if of == nil {
				continue
			}
			below := strings.Join(names[n:], ".")
			if d := of.Lookup(below); d != nil {
				return Target{Declaration: d}
			}
			if t := x.ofKin(of, below); !t.None() {
				return t
			}
		}
	}
	return Target{}
}

// ofKin finds a name in what other libraries have in a module of the same path: in some
// languages several may put things into it.
func (x *Index) ofKin(m *model.Module, name string) Target {
	h := m.Library.Habits
	if h == nil || !h.ByPath {
		return Target{}
	}
	for _, of := range x.modules[m.Path] {
		if of == m || of.Library.Habits != h {
			continue
		}
		if d := of.Lookup(name); d != nil {
			return Target{Declaration: d}
		}
	}
	for _, o := range x.elsewhere.usable[m.Path] {
		if of := x.elsewhere.make(o); of != m && of.Library.Habits.SameFamily(h) {
			if d := of.Lookup(name); d != nil {
				return Target{Declaration: d}
			}
		}
	}
	return Target{}
}

// under follows dotted names down from a target.
func (x *Index) under(t Target, names string) Target { return x.underBy(t, names, &trail{}) }

func (x *Index) underBy(t Target, names string, way *trail) Target {
	way, ok := way.within()
	if !ok {
		return Target{}
	}
	switch {
	case t.Declaration != nil:
		d := t.Declaration
		for name := range strings.SplitSeq(names, ".") {
			if d = d.Member(name); d == nil {
				break
			}
		}
		return Target{Declaration: d}
	case t.Module != nil:
		if d := t.Module.Lookup(names); d != nil || !x.takers[t.Module] && t.Module.Library.Elsewhere == nil {
			if d != nil && d.Parent == nil {
				if of := x.standsFor(d, way); !of.None() {
					return of
				}
			}
			return Target{Declaration: d}
		}
		first, rest, deeper := strings.Cut(names, ".")
		given := x.gives(t.Module, first, way)
		if importer, ok := x.options.FrontEnds[t.Module.Library.Language].(lang.Importer); ok && given.None() {
			given.Module = x.importable(t.Module.Library, importer.Below(t.Module.Written(), first))
		}
		if !deeper || given.None() {
			return given
		}
		return x.underBy(given, rest, way)
	}
	return Target{}
}

// bare resolves an unqualified name at the level of a module.
func (x *Index) bare(m *model.Module, f *model.Facts, name string) *model.Declaration {
	return x.bareTarget(m, f, name).Declaration
}

func (x *Index) bareTarget(m *model.Module, f *model.Facts, name string) Target {
	if d := m.Lookup(name); d != nil {
		if x.mayStand(d) {
			if t := x.standsFor(d, &trail{}); !t.None() {
				return t
			}
		}
		return Target{Declaration: d}
	}
	if d := x.constant(m, name); d != nil {
		return Target{Declaration: d}
	}
	if m.Role == model.RoleTest {
		if code := x.module(m.Library, m.Path); code != nil {
			if d := code.Lookup(name); d != nil {
				return Target{Declaration: d}
			}
		}
	}
	if m.Library.Elsewhere != nil {
		return x.elsewhere.beside(m, name)
	}
	switch h := m.Library.Habits; {
	case h != nil && h.SeesOuter:
		if t := x.outwards(m, name); !t.None() {
			return t
		}
	case h != nil && h.ByPath:
		if t := x.ofKin(m, name); !t.None() {
			return t
		}
	}
	return x.broughtIn(m, f, name)
}

// broughtIn resolves an unqualified name that an import of the file may have brought in.
func (x *Index) broughtIn(m *model.Module, f *model.Facts, name string) Target {
	for i := range x.importsKnownAs(f, name) {
		switch {
		case i.name == "." && i.member != "*" && i.member != "":
			if t := x.inTaken(m.Library, i, name); !t.None() {
				return t
			}
		case i.name == "." && i.module != nil:
			if t := x.gives(i.module, name, &trail{}); !t.None() {
				return t
			}
			if t := x.ofKin(i.module, name); !t.None() {
				return t
			}
		case (i.member != "" || i.whole) && i.name == name:
			return x.taken(m.Library, i, &trail{})
		}
	}
	return x.always(m, name)
}

// inTaken is what a name means that comes in bare out of a type: a type in it, or something
// that needs no object.
func (x *Index) inTaken(lib *model.Library, i imported, name string) Target {
	of := x.taken(lib, i, &trail{}).Declaration
	if of == nil {
		return Target{}
	}
	d := x.member(of, name)
	if d == nil || !d.Kind().IsType() && d.Kind() != model.KindConstant && d.Kind() != model.KindEnumMember && !isUnbound(d) {
		return Target{}
	}
	return Target{Declaration: d}
}

// always finds a bare name in the modules whose names every file sees.
func (x *Index) always(m *model.Module, name string) Target {
	if m.Library.Habits == nil {
		return Target{}
	}
	for _, path := range m.Library.Habits.Always {
		for _, of := range x.modules[path] {
			if of != m && of.Library.Habits == m.Library.Habits {
				if d := of.Lookup(name); d != nil {
					return Target{Declaration: d}
				}
			}
		}
	}
	return Target{}
}

// outwards finds a bare name in what other libraries have in the same module, and then in
// the modules around it, the innermost first.
func (x *Index) outwards(m *model.Module, name string) Target {
	for path := m.Written(); path != ""; {
		var found *model.Declaration
		for _, of := range x.modules[path] {
			if of == m || of.Library.Habits != m.Library.Habits {
				continue
			}
			if d := of.Lookup(name); d != nil && (found == nil || of.Library == m.Library) {
				found = d
			}
		}
		for _, o := range x.elsewhere.usable[path] {
			if of := x.elsewhere.make(o); found == nil && of.Library.Habits.SameFamily(m.Library.Habits) {
				found = of.Lookup(name)
			}
		}
		if found != nil {
			return Target{Declaration: found}
		}
		path = path[:max(0, strings.LastIndex(path, m.Library.Habits.PathMark))]
	}
	return Target{}
}
