package link

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file finds what modules re-export that cannot be found.

// BrokenExport is a name, or everything of a module, that a module gives to its users and
// that is nowhere.
type BrokenExport struct {
	File   *model.Facts
	Span   source.Span
	Name   string // "" for everything
	Path   string // as written, of what it should come from
	Module string // the path of the module that has no such name, or "" where there is no such module
	Listed bool   // it stands on the module's list, and nothing has it
}

// BrokenExports lists them in the order of files. What code makes when it runs, and what
// may come from outside the project, is not listed.
func (x *Index) BrokenExports(m *model.Module) []BrokenExport {
	if !x.takers[m] || m.Library.Elsewhere != nil {
		return nil
	}
	var out []BrokenExport
	for _, f := range m.Files {
		for _, i := range x.imports[f] {
			if b, broken := x.brokenImport(m, f, i); broken {
				out = append(out, b)
			}
		}
		if !f.HasExportList || x.makesNames(m, 0) {
			continue
		}
		for _, l := range f.ExportList {
			if m.Find(l.Name) == nil && !x.MayBeMade(m.Library, l.Name) && !x.imported(f, l.Name) && x.gives(m, l.Name, &trail{}).None() && !x.hasBelow(m, l.Name) {
				out = append(out, BrokenExport{File: f, Span: l.Span, Name: l.Name, Listed: true})
			}
		}
	}
	return out
}

func (x *Index) brokenImport(m *model.Module, f *model.Facts, i imported) (BrokenExport, bool) {
	b := BrokenExport{File: f, Span: i.from.Span, Name: i.from.Member, Path: i.from.Path}
	if i.from.Member == "*" {
		b.Name = ""
	}
	switch {
	case !i.from.Reexport || i.self || i.from.NotLoaded:
		return b, false
	case i.module == nil:
		return b, isRelative(i.from.Path) && x.mayMiss(m) && isCode(i.from.Path) && !passedOver(m, f, i.from.Path)
	case i.member == "" || i.member == "*" || i.module.Library.Elsewhere != nil || x.IsDefault(m, i.member):
		return b, false
	}
	b.Module = i.module.Path
	if x.MayBeMade(m.Library, i.member) {
		return b, false
	}
	if x.handsOn(i.module, i.member, map[*model.Module]bool{}) {
		return b, false // it is taken from elsewhere there
	}
	return b, x.taken(m.Library, i, &trail{}).None() && !x.makesNames(i.module, 0) && !x.hasBelow(i.module, i.member)
}

// mayMiss reports whether a file that is not found is surely not there: some languages
// have modules that are not written in them.
func (x *Index) mayMiss(m *model.Module) bool {
	_, chooses := x.options.FrontEnds[m.Library.Language].(lang.Chooser)
	return chooses
}

// isCode reports whether a path of an import may be that of a file that is read: paths of
// other kinds of files say their ending.
func isCode(written string) bool {
	switch path.Ext(written) {
	case "", ".js", ".mjs", ".cjs", ".jsx", ".ts", ".mts", ".cts", ".tsx":
		return true
	}
	return false
}

// passedOver reports whether a relative path leads into a folder that was not read.
func passedOver(m *model.Module, f *model.Facts, written string) bool {
	at := path.Join(path.Dir(f.Path), written)
	for _, p := range m.Library.Skipped {
		if p.Minified || strings.HasPrefix(at+"/", path.Join(m.Library.Root, p.Folder)+"/") {
			return true
		}
	}
	return false
}

// handsOn reports whether a module takes a name from elsewhere, or one does that it takes everything of.
func (x *Index) handsOn(m *model.Module, name string, seen map[*model.Module]bool) bool {
	seen[m] = true
	for _, f := range m.AllFiles() {
		own := slices.Contains(m.Files, f)
		if own && x.imported(f, name) || slices.ContainsFunc(x.imports[f], func(i imported) bool { return i.name == name && givenIn(i.from, m) }) {
			return true
		}
		if !own {
			continue
		}
		for i := range x.wholeImports(f) {
			if i.module != nil && !seen[i.module] && x.handsOn(i.module, name, seen) {
				return true
			}
		}
	}
	return false
}

// imported reports whether a file takes a name from anywhere.
func (x *Index) imported(f *model.Facts, name string) bool {
	for _, i := range x.imports[f] {
		if i.name == name || strings.HasPrefix(i.name, name+".") {
			return true
		}
	}
	return false
}

// hasBelow reports whether a module of this name lies below another, or may.
func (x *Index) hasBelow(m *model.Module, name string) bool {
	importer, ok := x.options.FrontEnds[m.Library.Language].(lang.Importer)
	return x.isPackage(m) && strings.ToLower(name) == name || ok && x.importable(m.Library, importer.Below(m.Written(), name)) != nil
}

// MayBeMade reports whether a macro of a library that nobody has read may declare a name.
func (x *Index) MayBeMade(lib *model.Library, name string) bool { return x.made()[lib][name] }

// madeNames are all such names.
func (x *Index) madeNames() map[*model.Library]map[string]bool {
	out := map[*model.Library]map[string]bool{}
	for _, lib := range x.Project.Libraries {
		for _, f := range lib.Files {
			for _, name := range f.Made {
				if out[lib.Library] == nil {
					out[lib.Library] = map[string]bool{}
				}
				out[lib.Library][name] = true
			}
		}
	}
	return out
}

// makesNames reports whether a module may have names that its source does not say: it
// makes them when it runs, takes all names of a module that is not here, or is of damaged
// or unlisted source.
func (x *Index) makesNames(m *model.Module, depth int) bool {
	if depth > 8 {
		return true
	}
	if h := m.Library.Habits; h != nil && says(m, h.MayMake) {
		return true
	}
	for _, f := range m.AllFiles() {
		if len(f.Problems) > 0 {
			return true
		}
		own := slices.Contains(m.Files, f)
		for _, i := range x.imports[f] {
			if i.from.In != "" && !givenIn(i.from, m) || i.from.In == "" && !own {
				continue // in another module of the file
			}
			if i.member == "*" && (i.module == nil || i.module.Library.Elsewhere != nil || i.module != m && x.makesNames(i.module, depth+1)) {
				return true
			}
		}
	}
	return false
}
