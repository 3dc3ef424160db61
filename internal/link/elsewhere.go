package link

import (
	"maps"
	"slices"
	"strings"
	"sync"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/source"
	"codrel/internal/symbols"
)

// This file makes modules and declarations of what other projects say of
// themselves, so that their names resolve, are extended and are inherited from like
// those of the project. A module is made when it is first asked for.

// Outside is another project whose names are known.
type Outside struct {
	Table *symbols.Table
	Site  string                              // where its pages are: an address, or the way from this site's root; ends in "/"
	Texts func() map[string]map[string]string // comments by module and path, read when first asked for; may be nil
}

// elsewhere is all other projects.
type elsewhere struct {
	paths  map[string][]*outsideModule // by path
	usable map[string][]*outsideModule // by what users import it by
	mu     sync.Mutex
	made   map[*model.Module]*outsideModule
	more   map[*model.Declaration]*symbols.Holder
	named  func() map[string][]*outsideModule // by the last part of the path, and by name
	topped func() map[string][]*outsideModule // by the names at the top
	all    []*outsideModule
}

// outsideModule is one module of another project.
type outsideModule struct {
	symbols *symbols.Module
	library *model.Library
	texts   func() map[string]map[string]string
	module  *model.Module // nil until it is asked for
}

// newElsewhere takes other projects in; the front ends are those of their languages.
func newElsewhere(projects []Outside, ends map[string]lang.FrontEnd) *elsewhere {
	e := &elsewhere{
		paths: map[string][]*outsideModule{}, usable: map[string][]*outsideModule{}, made: map[*model.Module]*outsideModule{},
		more: map[*model.Declaration]*symbols.Holder{},
	}
	for _, p := range projects {
		project := &model.Elsewhere{Project: p.Table.Name, Site: p.Site}
		for i := range p.Table.Libraries {
			from := &p.Table.Libraries[i]
			lib := &model.Library{Name: from.Name, Language: from.Language, Root: ".", Package: from.Package, Elsewhere: project, Habits: lang.HabitsOf(ends[from.Language])}
			for j := range from.Modules {
				o := &outsideModule{symbols: &from.Modules[j], library: lib, texts: p.Texts}
				e.all = append(e.all, o)
				e.paths[o.symbols.Path] = append(e.paths[o.symbols.Path], o)
				as := o.symbols.As
				if _, packaged := ends[from.Language].(lang.PackageImports); as == "" && !packaged {
					as = o.symbols.Path
				}
				e.usable[as] = append(e.usable[as], o)
			}
		}
	}
	e.named = sync.OnceValue(func() map[string][]*outsideModule {
		return e.index(func(o *outsideModule) []string { return []string{o.symbols.LastName(), o.symbols.Name} })
	})
	e.topped = sync.OnceValue(func() map[string][]*outsideModule {
		return e.index(func(o *outsideModule) []string { return o.symbols.Scope.Tops() })
	})
	return e
}

// index puts modules under the names that each has.
func (e *elsewhere) index(names func(*outsideModule) []string) map[string][]*outsideModule {
	out := map[string][]*outsideModule{}
	for _, o := range e.all {
		for _, name := range names(o) {
			if list := out[name]; name != "" && (len(list) == 0 || list[len(list)-1] != o) {
				out[name] = append(list, o)
			}
		}
	}
	return out
}

// importable is the module that code of a language imports by a path, or nil.
func (e *elsewhere) importable(path string, habits *model.Habits) *model.Module {
	for _, o := range e.usable[path] {
		if path != "" && o.library.Habits.SameFamily(habits) {
			return e.make(o)
		}
	}
	return nil
}

// find is a module with a path, or nil.
func (e *elsewhere) find(path string) *model.Module {
	for _, o := range e.paths[path] {
		return e.make(o)
	}
	return nil
}

// make makes a module with its declarations, once.
func (e *elsewhere) make(o *outsideModule) *model.Module {
	e.mu.Lock()
	defer e.mu.Unlock()
	if o.module != nil {
		return o.module
	}
	m := model.NewModule(o.library, o.symbols.Path)
	m.Name = o.symbols.Name
	if m.Name == "" {
		m.Name = o.symbols.LastName()
	}
	maker := outsideMaker{e: e, module: m, file: &model.Facts{Language: o.library.Language, Stub: true}}
	if o.texts != nil {
		maker.texts = o.texts()[o.symbols.Path]
	}
	maker.scope(nil, &o.symbols.Scope, 0)
	o.module = m
	e.made[m] = o
	return m
}

// OutsideModules are the modules of other projects, each made when it is asked for.
func (x *Index) OutsideModules(yield func(*model.Module) bool) {
	for _, o := range x.elsewhere.all {
		if !yield(x.elsewhere.make(o)) {
			return
		}
	}
}

// of is what is known of a module of another project.
func (e *elsewhere) of(m *model.Module) *outsideModule {
	e.mu.Lock()
	defer e.mu.Unlock()
	return e.made[m]
}

// holder is what is known of a declaration beyond its name and kind, or nil.
func (e *elsewhere) holder(d *model.Declaration) *symbols.Holder {
	e.mu.Lock()
	defer e.mu.Unlock()
	return e.more[d]
}

// outsideMaker makes the declarations of one module.
type outsideMaker struct {
	e      *elsewhere
	module *model.Module
	file   *model.Facts
	texts  map[string]string
}

// deepest bounds how deep declarations of another project's file nest.
const deepest = 50

func (o *outsideMaker) scope(parent *model.Declaration, s *symbols.Scope, depth int) {
	if depth > deepest {
		return
	}
	gone := map[string]bool{}
	for _, name := range s.Gone {
		gone[name] = true
	}
	for _, kind := range slices.Sorted(maps.Keys(s.Names)) {
		for _, name := range s.Names[kind] {
			o.declare(parent, &symbols.Holder{Name: name, Kind: kind, Gone: gone[name]}, s.Forms[name])
		}
	}
	for i := range s.Holders {
		h := &s.Holders[i]
		if d := o.declare(parent, h, s.Forms[h.Name]); d != nil {
			o.e.more[d] = h
			o.scope(d, &h.Scope, depth+1)
		}
	}
}

// declare makes one declaration; nil where the file says a thing twice, or of a kind that nobody knows.
func (o *outsideMaker) declare(parent *model.Declaration, h *symbols.Holder, forms []symbols.Form) *model.Declaration {
	k, known := model.ParseKind(h.Kind)
	scope := ""
	if parent != nil {
		scope = parent.Path()
	}
	named := model.Name{Text: h.Name, Space: o.module.Library.Habits.Space(k), Arity: int32(h.Arity)}
	if !known || h.Name == "" || o.module.Declares(parent, named) {
		return nil
	}
	at := model.At{Occurrence: &model.Occurrence{Kind: k, Name: h.Name, Scope: scope, Parent: -1, Deprecated: h.Gone}, File: o.file}
	if k.IsCallable() {
		at.Callable = &model.Callable{}
	}
	d := o.module.Declare(parent, scope, named)
	o.describe(&at, d.Label())
	d.Occurrences = []model.At{at}
	if at.Callable != nil && len(forms) > 1 {
		d.Occurrences = o.forms(at, d.Label(), forms)
	}
	if parent == nil {
		o.module.Top = append(o.module.Top, d)
	} else {
		parent.Members = append(parent.Members, d)
	}
	return d
}

// describe gives an occurrence the comment of a key, where there is one.
func (o *outsideMaker) describe(at *model.At, key string) {
	if text := o.texts[key]; text != "" {
		at.File = &model.Facts{Language: o.file.Language, Stub: true, Text: text}
		at.Doc = docOf(text)
	}
}

// forms are the forms of a callable, each like the occurrence that is given.
func (o *outsideMaker) forms(like model.At, label string, forms []symbols.Form) []model.At {
	var out []model.At
	if h := o.module.Library.Habits; h != nil && h.EachForm { // a form's text is its own
		like.Occurrence.Doc, like.File = nil, o.file
	}
	for i, form := range forms {
		at := model.At{Occurrence: new(*like.Occurrence), File: like.File}
		at.NameSpan = source.NewSpan(i, i)
		at.Callable = &model.Callable{}
		var types []string
		for _, param := range form {
			name, typ := symbols.CutParam(param)
			types = append(types, typ)
			at.Callable.Params = append(at.Callable.Params, model.Param{Name: name, Type: model.Tokens(model.AppendToken(nil, "", model.TokenPunctuation, typ))})
		}
		at.Signature = model.Tokens(model.AppendToken(nil, "", model.TokenPunctuation, strings.Join(form, ",")))
		o.describe(&at, symbols.TextKey(label, types))
		out = append(out, at)
	}
	return out
}

// docOf is a comment that is a text of its own.
func docOf(text string) *model.Doc {
	doc := &model.Doc{Text: text, Span: source.Span{Start: 0, End: int32(len(text))}}
	start := 0
	for line := range strings.Lines(text) {
		doc.Lines = append(doc.Lines, source.Span{Start: int32(start), End: int32(start + len(strings.TrimSuffix(line, "\n")))})
		start += len(line)
	}
	if strings.HasSuffix(text, "\n") {
		doc.Lines = append(doc.Lines, source.Span{Start: int32(start), End: int32(start)})
	}
	return doc
}

// referred is what a reference of another project's file means.
func (e *elsewhere) referred(m *model.Module, reference string) Target {
	to := symbols.Referred(symbols.Place{Library: m.Library.Name, Module: m.Path}, reference)
	if to.Module != m.Path || to.Library != m.Library.Name {
		if m = e.inProject(m.Library.Elsewhere, to); m == nil {
			return Target{}
		}
	}
	if to.Path == "" {
		return Target{Module: m}
	}
	d := m.Lookup(to.Path)
	if d != nil && to.Arity > 0 {
		d = withArity(d, int32(to.Arity))
	}
	return Target{Declaration: d}
}

// inProject is the module of a place, of the project itself before others.
func (e *elsewhere) inProject(project *model.Elsewhere, to symbols.Place) *model.Module {
	var found *outsideModule
	for _, o := range e.paths[to.Module] {
		if o.library.Name == to.Library && (found == nil || o.library.Elsewhere == project) {
			found = o
		}
	}
	if found == nil {
		return nil
	}
	return e.make(found)
}

// bases are those of a type of another project.
func (e *elsewhere) bases(d *model.Declaration) []*model.Declaration {
	h := e.holder(d)
	if h == nil {
		return nil
	}
	var out []*model.Declaration
	for _, b := range h.Bases {
		if base := e.referred(d.Module, b).Declaration; base != nil && base != d && base.Kind().IsType() {
			out = append(out, base)
		}
	}
	return out
}

// gives is what a module of another project re-exports under a name.
func (e *elsewhere) gives(m *model.Module, name string) Target {
	o := e.of(m)
	if o == nil || o.symbols.Gives[name] == "" {
		return Target{}
	}
	return e.referred(m, o.symbols.Gives[name])
}

// beside is the one declaration that is called so in the library of a module: what
// its files import nobody knows here.
func (e *elsewhere) beside(m *model.Module, name string) Target {
	var found Target
	for _, o := range e.topped()[name] {
		if o.library != m.Library {
			continue
		}
		if !found.None() {
			return Target{}
		}
		found = Target{Declaration: e.make(o).Lookup(name)}
	}
	return found
}

// has reports whether another project has a library of this name.
func (e *elsewhere) has(library string) bool {
	return slices.ContainsFunc(e.all, func(o *outsideModule) bool { return o.library.Name == library })
}

// step looks in all other projects, or in their libraries of one name: in modules
// whose path is the first names, in those that are called as the first, then for
// what has it at its top. What code of the place's language could import is nearer.
func (e *elsewhere) step(x *Index, from Scope, library string) step {
	among := func(list []*outsideModule, names []string) (found []Target) {
		for _, o := range list {
			if library != "" && o.library.Name != library {
				continue
			}
			if m := e.make(o); len(names) == 0 {
				found = append(found, Target{Module: m})
			} else if d := x.path(m, names); d != nil {
				found = append(found, Target{Declaration: d})
			}
		}
		return sameFamily(distinct(found), from)
	}
	return func(names []string) ([]Target, bool, *Target) {
		for n := len(names); n > 0; n-- {
			if found := among(e.paths[strings.Join(names[:n], ".")], names[n:]); len(found) > 0 {
				return found, false, nil
			}
		}
		if found := among(e.named()[names[0]], names[1:]); len(found) > 0 {
			return found, false, nil
		}
		return among(e.topped()[names[0]], names), false, nil
	}
}

// sameFamily leaves out targets that code at a place could not import, if there
// are others.
func sameFamily(found []Target, from Scope) []Target {
	if from.Module == nil || len(found) < 2 {
		return found
	}
	near := slices.DeleteFunc(slices.Clone(found), func(t Target) bool {
		m := t.Module
		if t.Declaration != nil {
			m = t.Declaration.Module
		}
		return !m.Library.Habits.SameFamily(from.Module.Library.Habits)
	})
	if len(near) == 0 {
		return found
	}
	return near
}

// interfaceSet is the method set of an interface of another project, or nil where
// that project makes no claim.
func (e *elsewhere) interfaceSet(d *model.Declaration) methodSet {
	h := e.holder(d)
	if h == nil || len(h.Asks) == 0 {
		return nil
	}
	return h.Asks
}

// open reports whether a module of another project may have more names than are known.
func (e *elsewhere) open(m *model.Module) bool {
	if m.Library.Elsewhere == nil {
		return false
	}
	o := e.of(m)
	return o == nil || o.symbols.Open
}
