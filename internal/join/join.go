// Package join makes declarations of the occurrences of all files of a library.
//
// What is declared in several files under different conditions is one
// declaration of several occurrences. The package knows no language: which
// files make which module comes from the front end (see lang.Moduler), the rest
// are rules on scopes and names.
package join

import (
	"context"
	"path"
	"runtime"
	"slices"
	"strings"

	"github.com/bmatcuk/doublestar/v4"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/parallel"
)

// Library sets the modules of lib from its files, which must be in the order
// of their paths, code before tests.
func Library(lib *model.Contents, end lang.FrontEnd) {
	paths := make([]string, len(lib.Files))
	moduler, _ := end.(lang.Moduler)
	if moduler != nil {
		paths = moduler.ModulePaths(lib.Library, lib.Files)
	}
	var places []lang.Placement
	if placer, ok := end.(lang.Placer); ok {
		places = placer.Place(lib.Library, lib.Files, paths)
	}
	code, tests, placed := group(lib, paths, places)
	lib.Under, lib.UnderOf = nil, nil
	for f, p := range placed {
		for i, when := range p.UnderOf {
			if lib.UnderOf == nil {
				lib.UnderOf = map[*model.Occurrence][]string{}
			}
			lib.UnderOf[&f.Occurrences[i]] = when
		}
		if len(p.Under) > 0 {
			if lib.Under == nil {
				lib.Under = map[*model.Facts][]string{}
			}
			lib.Under[f] = p.Under
		}
	}
	isEntry := func(m *model.Module) bool { _, ok := lib.Entry(m.Path); return ok }
	entered := slices.ContainsFunc(code, isEntry) // else they are made of what is not here
	each(append(slices.Clone(code), tests...), func(m *model.Module) {
		kept := moduler != nil && moduler.InternalModule(m.Path) || entered && !isEntry(m) || placed.keeps(m)
		m.Internal = kept && !open(lib.Library, m)
		declare(m, placed)
	})
	lib.Modules, lib.Tests = code, tests
	describe(lib, placed)
	lib.SaidInCode, lib.Groups = nil, nil
	for _, f := range lib.Files {
		if f.Role == model.RoleCode {
			lib.SaidInCode = model.JoinSayings(lib.SaidInCode, f.Sayings)
			name(lib.Library, f, f.Groups)
			name(lib.Library, f, placed[f].Groups)
		}
	}
}

// name adds the groups that a file gives a title or a text. The first one to give them is heard.
func name(lib *model.Library, f *model.Facts, groups []model.Group) {
	for i := range groups {
		g := model.GroupIn{Group: &groups[i], File: f}
		known, is := lib.Groups[g.Name]
		if lib.Groups == nil {
			lib.Groups = map[string]model.GroupIn{}
		}
		if !is || known.Doc == nil && g.Doc != nil {
			lib.Groups[g.Name] = g
		}
	}
}

// Again joins anew those modules of a list that a function gives files for, and keeps the
// others. The files are the module's own in their order, some of them with new facts. Where
// files declare things of several modules, the library is joined anew instead.
func Again(modules []*model.Module, files func(*model.Module) []*model.Facts) []*model.Module {
	out := slices.Clone(modules)
	_ = parallel.Each(context.Background(), runtime.GOMAXPROCS(0), len(modules), func(i int) { // which nothing ends
		m := modules[i]
		list := files(m)
		if list == nil {
			return
		}
		out[i] = model.NewModule(m.Library, m.Written())
		out[i].Role, out[i].Name, out[i].Internal, out[i].Files = m.Role, m.WrittenName(), m.Internal, list
		out[i].Conditions, out[i].Unworded = m.Conditions, m.Unworded
		declare(out[i], nil)
	})
	return out
}

// open reports whether the settings let a module count as visible.
func open(lib *model.Library, m *model.Module) bool {
	dir := path.Dir(m.AllFiles()[0].Path)
	return slices.ContainsFunc(lib.Visible, func(pattern string) bool {
		ok, _ := doublestar.Match(pattern, dir)
		return ok
	})
}

// placement is where the occurrences of files belong that are not of their file's own module.
type placement map[*model.Facts]lang.Placement

// of reports whether the occurrence of a file at the top with an index is of a module.
func (p placement) of(m *model.Module, f *model.Facts, top int32) bool {
	other, placed := p[f].Others[top]
	if !placed {
		return slices.Contains(m.Files, f)
	}
	return other == m.Path
}

// keeps reports whether all files of a module are for the library itself.
func (p placement) keeps(m *model.Module) bool {
	if len(p) == 0 || slices.ContainsFunc(m.AllFiles(), func(f *model.Facts) bool { return p[f].Kept[m.Path] }) {
		return len(p) > 0
	}
	return !slices.ContainsFunc(m.AllFiles(), func(f *model.Facts) bool { return !p[f].Inside })
}

// inside reports whether only files for the library itself declare something.
func (p placement) inside(d *model.Declaration) bool {
	if len(p) == 0 {
		return false
	}
	return !slices.ContainsFunc(d.Occurrences, func(o model.At) bool { return !p[o.File].Inside })
}

// group makes the modules, in the order of their paths.
func group(lib *model.Contents, paths []string, places []lang.Placement) (code, tests []*model.Module, placed placement) {
	type key struct {
		path string
		role model.Role
	}
	files, more := map[key][]*model.Facts{}, map[key][]*model.Facts{}
	placed = placement{}
	for i, f := range lib.Files {
		k := key{paths[i], f.Role}
		files[k] = append(files[k], f)
		if places == nil {
			continue
		}
		placed[f] = places[i]
		for other := range others(places[i]) {
			if k := (key{other, f.Role}); other != paths[i] {
				more[k] = append(more[k], f)
				if _, known := files[k]; !known {
					files[k] = nil // there is such a module, if only of parts of files
				}
			}
		}
	}
	made := map[key]*model.Module{}
	for k, list := range files {
		m := model.NewModule(lib.Library, k.path)
		made[k] = m
		m.Role, m.Files, m.More = k.role, list, more[k]
		if h := lib.Habits; len(list) > 0 && (h == nil || len(h.Roots) == 0) { // else a module is called as its path says, not as its file
			m.Name = list[0].Package
		}
		if m.Name == "" {
			m.Name = lib.Habits.Last(k.path)
		}
		if k.role == model.RoleTest {
			tests = append(tests, m)
		} else {
			code = append(code, m)
		}
	}
	for i, f := range lib.Files {
		own := made[key{paths[i], f.Role}]
		for other := range others(placed[f]) {
			if m := made[key{other, f.Role}]; m != own && !slices.Contains(own.Others, m) {
				own.Others = append(own.Others, m)
			}
		}
	}
	byPath := func(a, b *model.Module) int { return strings.Compare(a.Path, b.Path) }
	slices.SortFunc(code, byPath)
	slices.SortFunc(tests, byPath)
	return code, tests, placed
}

// others are the modules that a file declares something of beside its own, each once.
func others(p lang.Placement) map[string]bool {
	out := map[string]bool{}
	for _, other := range p.Others {
		out[other] = true
	}
	for other := range p.Docs {
		out[other] = true
	}
	for _, other := range p.More {
		out[other] = true
	}
	return out
}

// each runs work for every module on all processors; the modules do not touch one another.
func each(modules []*model.Module, work func(*model.Module)) {
	_ = parallel.Each(context.Background(), runtime.GOMAXPROCS(0), len(modules), func(i int) { work(modules[i]) }) // which nothing ends
}

// declare fills one module with the declarations of its files.
func declare(m *model.Module, placed placement) {
	for _, f := range m.Files {
		doc := f.ModuleDoc
		if less, ok := placed[f].Docs[m.Path]; ok {
			doc = less
		}
		if doc != nil {
			m.Doc = append(m.Doc, model.DocOf{Doc: doc, File: f})
		}
		declareFile(m, f, placed)
	}
	for _, f := range m.More {
		if doc := placed[f].Docs[m.Path]; doc != nil {
			m.Doc = append(m.Doc, model.DocOf{Doc: doc, File: f})
		}
		declareFile(m, f, placed)
	}
	m.Unworded = m.Unworded || slices.ContainsFunc(m.AllFiles(), func(f *model.Facts) bool { return placed[f].Unworded[m.Path] })
	for _, f := range m.AllFiles() {
		if len(m.Conditions) == 0 {
			m.Conditions = placed[f].Conditions[m.Path]
		}
	}
	merged := map[*model.Declaration]*model.Declaration{} // of those that are gone, into which
	for d := range m.Declarations {
		if d.Parent == nil && d.Scope != "" {
			if parent := m.Lookup(d.Scope); parent != nil && parent != d {
				if has := m.Attach(d, parent); has != d {
					merged[d] = has
				}
			}
		}
	}
	if len(merged) > 0 { // what stands in them goes along
		for d := range m.Declarations {
			if has := merged[d.Parent]; has != nil && d.Parent != nil {
				if now := m.Attach(d, has); now != d {
					merged[d] = now
				}
			}
		}
	}
	for d := range m.Declarations {
		d.Settle()
	}
	listed := map[string]bool{} // by any of its files: a stub need not say it again
	for _, f := range m.Files {
		for _, name := range f.ExportList {
			listed[name.Name] = true
		}
	}
	judge := judge{}
	for d := range m.Declarations {
		if d.Parent != nil {
			d.Parent.Members = append(d.Parent.Members, d)
		} else {
			m.Top = append(m.Top, d)
		}
		if d.Visibility = judge.visibility(m, d); d.Parent == nil && listed[d.Name] && !m.Internal {
			d.Visibility = model.Public
		}
		d.Hidden = judge.hidden(d)
		if d.Visibility < model.Internal && placed.inside(d) && !open(m.Library, m) {
			d.Visibility = model.Internal
		}
	}
	for d := range m.Declarations {
		if len(d.Occurrences) > 1 && len(d.Members) > 0 {
			d.Settle() // what has members may be something else than its words speak of
		}
	}
}

// declareFile puts the occurrences of a file to their declarations. What encloses one is
// known by its place in the file, or, where it stands elsewhere, by the scope alone.
func declareFile(m *model.Module, f *model.Facts, placed placement) {
	made := make([]*model.Declaration, len(f.Occurrences))
	m.Expect(len(f.Occurrences))
	room := make([]model.At, 0, len(f.Occurrences)) // nearly all are the only one of their declaration
	var declare func(i, depth int) *model.Declaration
	declare = func(i, depth int) *model.Declaration {
		if made[i] != nil || depth > len(f.Occurrences) {
			return made[i]
		}
		o := &f.Occurrences[i]
		var parent *model.Declaration
		if o.Parent >= 0 && int(o.Parent) != i {
			parent = declare(int(o.Parent), depth+1)
		}
		made[i] = m.Declare(parent, o.Scope, o.Named(m.Library.Habits))
		m.Called, m.Renamed = m.Called || o.Called() != "", m.Renamed || o.Same() != ""
		at := model.At{Occurrence: o, File: f}
		if d := made[i]; d.Occurrences == nil {
			room = append(room, at)
			d.Occurrences = slices.Clip(room[len(room)-1:])
		} else {
			d.Occurrences = append(d.Occurrences, at)
		}
		return made[i]
	}
	for i := range f.Occurrences {
		if len(placed) == 0 || placed.of(m, f, outermost(f, int32(i))) {
			declare(i, 0)
		}
	}
}

// outermost is the index of the occurrence at the top of a file that one stands in.
func outermost(f *model.Facts, i int32) int32 {
	for depth := 0; f.Occurrences[i].Parent >= 0 && depth < len(f.Occurrences); depth++ {
		i = f.Occurrences[i].Parent
	}
	return i
}

// visibility is the least of a declaration's own visibility and those around it.
// A scope whose declaration is not in the module (a method on a type that only
// another build declares) is judged by nothing but the own one.
func (j judge) visibility(m *model.Module, d *model.Declaration) model.Visibility {
	v := model.Public
	if m.Internal {
		v = model.Internal
	}
	for depth := 0; d != nil && depth < maxDepth; d, depth = d.Parent, depth+1 {
		v = max(v, j.of(d).own)
	}
	return v
}

// own is a declaration's own visibility: a list of what its file exports
// outweighs how its name is written.
func own(d *model.Declaration) model.Visibility {
	v := d.Speaks(model.Words).Visibility
	if len(d.Occurrences) > 1 && v != model.Public && d.Speaks(model.Words).Callable != nil {
		for _, form := range d.Split() { // what callers see of any form
			v = min(v, form.Visibility())
		}
	}
	if d.Speaks(model.Words).Implementation { // who sees it is said where it is declared
		for _, o := range d.Occurrences {
			if !o.Implementation {
				v = o.Visibility
				break
			}
		}
	}
	h := d.Module.Library.Habits
	parts := len(d.Occurrences) > 1 && d.Kind().IsType() && h != nil && h.Partial
	for _, o := range d.Occurrences {
		if parts {
			v = min(v, o.Visibility)
		}
		switch o.Export {
		case model.Exported:
			return model.Public
		case model.NotExported, model.Renamed:
			v = max(v, model.Internal)
		}
	}
	return v
}

// maxDepth bounds every climb through enclosing declarations.
const maxDepth = 1000

func (j judge) hidden(d *model.Declaration) bool {
	for depth := 0; d != nil && depth < maxDepth; d, depth = d.Parent, depth+1 {
		if j.of(d).hides {
			return true
		}
	}
	return false
}

// judge keeps what declarations of many occurrences say of themselves: each of their
// members asks.
type judge map[*model.Declaration]judged

type judged struct {
	own   model.Visibility
	hides bool
}

func (j judge) of(d *model.Declaration) judged {
	const many = 8
	if len(d.Occurrences) < many {
		return judged{own(d), hides(d)}
	}
	known, ok := j[d]
	if !ok {
		known = judged{own(d), hides(d)}
		j[d] = known
	}
	return known
}

// hides reports whether a word to Codrel keeps a declaration off the pages.
func hides(d *model.Declaration) bool {
	if h := d.Module.Library.Habits; h != nil && h.EachForm && len(d.Occurrences) > 1 && d.Kind().IsCallable() {
		return !slices.ContainsFunc(d.Occurrences, func(o model.At) bool { return !isHidden(o) }) // one overload goes with all
	}
	return slices.ContainsFunc(d.Occurrences, isHidden)
}

// isHidden reports whether a word to Codrel stands beside an occurrence that keeps it off the pages.
func isHidden(o model.At) bool {
	return slices.ContainsFunc(o.Directives(), func(w model.Directive) bool { return w.Verb == "hide" })
}
