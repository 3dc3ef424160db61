package rust

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file knows how files make a crate: what Cargo's manifests say, which file is which module,
// and what the language calls things.

var (
	_ lang.RootFinder       = FrontEnd{}
	_ lang.MarkerJudge      = FrontEnd{}
	_ lang.Placer           = FrontEnd{}
	_ lang.Importer         = FrontEnd{}
	_ lang.TestNamer        = FrontEnd{}
	_ lang.Native           = FrontEnd{}
	_ lang.Library          = FrontEnd{}
	_ lang.CommentPolicy    = FrontEnd{}
	_ lang.Terminology      = FrontEnd{}
	_ lang.ImportWriter     = FrontEnd{}
	_ lang.NameImportWriter = FrontEnd{}
	_ lang.Scanner          = FrontEnd{}
	_ lang.MemberBlocks     = FrontEnd{}
)

// crateOf is the name by which code names a crate.
func crateOf(lib *model.Library) string {
	switch {
	case lib == nil:
		return "crate"
	case lib.Package != "":
		return lib.Package
	}
	return strings.ReplaceAll(lib.Name, "-", "_")
}

// begun are the files that a library begins with, as its manifest says.
func begun(lib *model.Library) []model.Begin {
	if lib == nil {
		return nil
	}
	return lib.Begins
}

// tree finds the modules of the files of a library.
type tree struct {
	root   string
	files  map[string]int // their index, by path
	facts  []*model.Facts
	paths  []string
	kept   []bool // a module on the way is not for users
	reach  []bool // something names the file
	tested []bool
	named  [][]naming // where the file is named
	when   [][]string // see [tree.under]
	plain  []bool     // what the file holds may go without comments
	gates  gates
}

// naming is a place that names a file as that of a module.
type naming struct {
	by   int // the file
	when []string
}

// treeOf finds them: from the files that Cargo begins with, by what these name.
func treeOf(lib *model.Library, files []*model.Facts) *tree {
	t := &tree{root: ".", files: map[string]int{}, facts: files, paths: make([]string, len(files)), kept: make([]bool, len(files)), reach: make([]bool, len(files)), tested: make([]bool, len(files)), named: make([][]naming, len(files)), when: make([][]string, len(files)), plain: make([]bool, len(files))}
	if lib != nil {
		t.root = lib.Root
	}
	for i, f := range files {
		t.files[f.Path] = i
	}
	t.gates = gatesOf(files)
	crate := crateOf(lib)
	begins := map[string]string{}
	for _, b := range begun(lib) {
		begins[b.File] = b.Module
	}
	said := slices.ContainsFunc(begun(lib), func(b model.Begin) bool { return b.Module == crate })
	_, has := t.files[path.Join(t.root, "src/lib.rs")]
	switch {
	case said:
		begins["src/main.rs"] = crate + "::main"
	case has:
		begins["src/lib.rs"], begins["lib.rs"], begins["src/main.rs"] = crate, crate, crate+"::main"
	default:
		begins["lib.rs"], begins["src/main.rs"] = crate, crate
	}
	for file, name := range begins {
		if i, ok := t.files[path.Join(t.root, file)]; ok {
			t.visit(i, name, path.Dir(files[i].Path), false, 0)
		}
	}
	for i, f := range files { // programs, tests, examples: each is a crate of its own
		rel := strings.TrimPrefix(strings.TrimPrefix(f.Path, t.root), "/")
		folder, file := path.Split(rel)
		switch folder {
		case "src/bin/", "tests/", "examples/", "benches/":
			if !t.reach[i] {
				t.visit(i, strings.TrimSuffix(file, ".rs"), path.Dir(f.Path), false, 0)
			}
		}
	}
	for i, f := range files {
		if !t.reach[i] {
			t.paths[i], t.kept[i] = crate+"::"+pathOf(t.root, f.Path), true
		}
	}
	return t
}

// pathOf is the path of a module by that of its file, where nothing names it.
func pathOf(root, file string) string {
	rel := strings.TrimPrefix(strings.TrimPrefix(file, root), "/")
	rel = strings.TrimPrefix(strings.TrimSuffix(rel, ".rs"), "src/")
	return strings.ReplaceAll(strings.TrimSuffix(rel, "/mod"), "/", "::")
}

// visit gives a file its module, and those that it names theirs. Below is the folder in which the
// files of these lie.
func (t *tree) visit(i int, module, below string, kept bool, depth int) {
	if t.reach[i] || depth > deepest {
		return
	}
	t.reach[i], t.paths[i], t.kept[i] = true, module, kept
	f := t.facts[i]
	t.plain[i] = t.plain[i] || f.Unworded
	hidden := map[string]bool{} // modules in the file that are not for users
	open := openIn(f)
	for _, m := range f.Modules {
		around, last := "", m.Name
		if k := strings.LastIndex(m.Name, "::"); k >= 0 {
			around, last = m.Name[:k], m.Name[k+2:]
		}
		hidden[m.Name] = !open[m.Name] || hidden[around]
		inside := kept || hidden[m.Name]
		if !m.Elsewhere {
			continue
		}
		folder := path.Join(below, strings.ReplaceAll(around, "::", "/"))
		candidates := []string{path.Join(folder, last+".rs"), path.Join(folder, last, "mod.rs")}
		if m.File != "" {
			candidates = []string{path.Join(path.Dir(f.Path), m.File)}
			if around != "" {
				candidates = []string{path.Join(folder, m.File)}
			}
		}
		for _, file := range candidates {
			n, ok := t.files[file]
			if !ok {
				continue
			}
			inner := path.Join(path.Dir(file), strings.TrimSuffix(path.Base(file), ".rs"))
			if base := path.Base(file); base == "mod.rs" || m.File != "" {
				inner = path.Dir(file)
			}
			t.tested[n] = m.Tested
			t.plain[n] = t.plain[n] || t.plain[i] || m.Unworded
			t.named[n] = append(t.named[n], naming{i, slices.Concat(f.Conditions, t.gates.of(m.Within), m.Conditions)})
			t.visit(n, module+"::"+m.Name, inner, inside, depth+1)
			break
		}
	}
}

// openIn are the modules that a file names for all: under some conditions, at least.
func openIn(f *model.Facts) map[string]bool {
	out := map[string]bool{}
	for _, m := range f.Modules {
		out[m.Name] = out[m.Name] || !m.Kept
	}
	return out
}

// under are the conditions under which a file is read: those of the places that name it, and of these
// files. Of several places, what they have in common.
func (t *tree) under(i int) []string {
	if t.when[i] != nil {
		return t.when[i]
	}
	t.when[i] = []string{} // for files that name one another
	out := []string{}
	for k, n := range t.named[i] {
		all := slices.Concat(t.under(n.by), n.when)
		if k == 0 {
			out = all
			continue
		}
		out = inBoth(out, all)
	}
	t.when[i] = out
	return out
}

// unworded are the modules of a file whose authors let all in them go without comments.
func (t *tree) unworded(i int) map[string]bool {
	out := map[string]bool{}
	if t.plain[i] {
		out[t.paths[i]] = true
	}
	for _, m := range t.facts[i].Modules {
		if !m.Elsewhere && (t.plain[i] || m.Unworded) {
			out[moduleOf(t.paths[i], m.Name)] = true
		}
	}
	return out
}

// inBoth are the conditions that two lists have in common.
func inBoth(a, b []string) []string {
	return slices.DeleteFunc(a, func(when string) bool { return !slices.Contains(b, when) })
}

// ModulePaths gives each file its module.
func (FrontEnd) ModulePaths(lib *model.Library, files []*model.Facts) []string {
	return treeOf(lib, files).paths
}

// InternalModule is never true: what is not for users is said where a module is named.
func (FrontEnd) InternalModule(string) bool { return false }

// Place puts what stands in modules in a file into these, what is implemented for a type beside that
// type, and macros for all into the crate.
func (FrontEnd) Place(lib *model.Library, files []*model.Facts, paths []string) []lang.Placement {
	t := treeOf(lib, files)
	homes := map[homed][]string{} // modules that declare a type, by its name
	for i, f := range files {
		for n := range f.Occurrences {
			if o := &f.Occurrences[n]; o.Parent < 0 && o.Scope == "" && o.Kind.IsType() {
				homes[homed{o.Name, f.Role}] = append(homes[homed{o.Name, f.Role}], moduleOf(paths[i], o.In()))
			}
		}
	}
	crate := crateOf(lib)
	out := make([]lang.Placement, len(files))
	for i, f := range files {
		p := &out[i]
		if t.kept[i] || t.tested[i] {
			p.Kept = map[string]bool{paths[i]: true}
		}
		for n := range f.Occurrences {
			o := &f.Occurrences[n]
			if o.Extra != nil && len(o.Extra.Within) > 0 {
				if when := t.gates.of(o.Extra.Within); len(when) > 0 {
					if p.UnderOf == nil {
						p.UnderOf = map[int32][]string{}
					}
					p.UnderOf[int32(n)] = when
				}
			}
			if o.Parent >= 0 {
				continue
			}
			home := moduleOf(paths[i], o.In())
			switch {
			case o.Kind == model.KindMacro && o.Visibility == model.Public:
				home = crate
			case o.Scope != "":
				home = homeOf(f, o, paths[i], home, homes[homed{o.Scope, f.Role}])
			}
			if home != paths[i] {
				if p.Others == nil {
					p.Others = map[int32]string{}
				}
				p.Others[int32(n)] = home
			}
		}
		p.Unworded = t.unworded(i)
		p.Under = t.under(i)
		if own := slices.Concat(p.Under, f.Conditions); len(own) > 0 {
			p.Conditions = map[string][]string{paths[i]: own}
		}
		kept := map[string]bool{"": t.kept[i] || t.tested[i]}
		open := openIn(f)
		for _, m := range f.Modules {
			at, around := moduleOf(paths[i], m.Name), ""
			if k := strings.LastIndex(m.Name, "::"); k >= 0 {
				around = m.Name[:k]
			}
			kept[m.Name] = !open[m.Name] || m.Tested || kept[around]
			if !m.Elsewhere {
				p.More = append(p.More, at)
				all := slices.Concat(p.Under, f.Conditions, t.gates.of(m.Within), m.Conditions)
				if p.Conditions == nil {
					p.Conditions = map[string][]string{}
				}
				if other, twice := p.Conditions[at]; twice {
					all = inBoth(all, other)
				}
				p.Conditions[at] = all
			}
			if kept[m.Name] {
				if p.Kept == nil {
					p.Kept = map[string]bool{}
				}
				p.Kept[at] = true
			}
			if m.Doc != nil {
				if p.Docs == nil {
					p.Docs = map[string]*model.Doc{}
				}
				p.Docs[at] = m.Doc
			}
		}
	}
	return out
}

func moduleOf(file, in string) string {
	if in == "" {
		return file
	}
	return file + "::" + in
}

// homed is a type by its name, of code or of tests.
type homed struct {
	name string
	role model.Role
}

// homeOf is the module of those that declare a type which is meant where something is implemented for it:
// that of the implementation, the one that the file takes the type from, or the nearest one. A type that the file
// both declares for itself and takes from elsewhere is there under conditions: what users see of it is the other one.
func homeOf(f *model.Facts, o *model.Occurrence, file, from string, homes []string) string {
	if len(homes) < 2 || slices.Contains(homes, from) && declaresForAll(f, o.Scope, o.In()) {
		return nearestOf(from, homes)
	}
	for i := range f.Imports {
		in := &f.Imports[i]
		if in.Name != o.Scope || in.Member == "" || in.In != o.In() {
			continue
		}
		for _, path := range (FrontEnd{}).ImportPaths(&model.Module{Path: file}, f, in.Path) {
			if slices.Contains(homes, path) {
				return path
			}
		}
	}
	return nearestOf(from, homes)
}

// declaresForAll reports whether a file declares a type for all in a module.
func declaresForAll(f *model.Facts, name, in string) bool {
	return slices.ContainsFunc(f.Occurrences, func(o model.Occurrence) bool {
		return o.Name == name && o.Parent < 0 && o.Scope == "" && o.Kind.IsType() && o.In() == in && o.Visibility == model.Public
	})
}

// nearestOf is the module of those that declare a type that has most of the path in common with where
// something is implemented for it, and of several the shortest.
func nearestOf(from string, homes []string) string {
	best, common := from, -1
	for _, home := range homes {
		if home == from {
			return from
		}
		n := 0
		a, b := strings.Split(home, "::"), strings.Split(from, "::")
		for n < len(a) && n < len(b) && a[n] == b[n] {
			n++
		}
		if n > common || n == common && len(home) < len(best) {
			best, common = home, n
		}
	}
	return best
}

// ImportPaths are the modules that a path may mean, as it is written in a file of a module.
func (FrontEnd) ImportPaths(m *model.Module, _ *model.Facts, written string) []string {
	first, rest, _ := strings.Cut(written, "::")
	crate, _, _ := strings.Cut(m.Written(), "::")
	below := func(module string) string {
		if rest == "" {
			return module
		}
		return module + "::" + rest
	}
	switch first {
	case "crate":
		return []string{below(crate)}
	case "self":
		return []string{below(m.Written())}
	case "super":
		around := m.Written()
		for first == "super" {
			if i := strings.LastIndex(around, "::"); i >= 0 {
				around = around[:i]
			}
			if first, rest, _ = strings.Cut(rest, "::"); first != "super" && first != "" {
				if rest != "" {
					rest = first + "::" + rest
				} else {
					rest = first
				}
			}
		}
		return []string{below(around)}
	}
	return []string{m.Written() + "::" + written, written, crate + "::" + written} // paths of old begin in the crate
}

// Below is the path of a module in another one.
func (FrontEnd) Below(module, name string) string { return module + "::" + name }

// IsNative reports whether a name needs no import: a primitive type, or one of the prelude's.
func (FrontEnd) IsNative(name string) bool { return isPrimitive(name) || prelude[name] }

// prelude are the names that every module has from the standard library.
var prelude = map[string]bool{
	"Copy": true, "Send": true, "Sized": true, "Sync": true, "Unpin": true, "Drop": true, "Fn": true, "FnMut": true, "FnOnce": true, "Box": true, "ToOwned": true, "Clone": true,
	"PartialEq": true, "PartialOrd": true, "Eq": true, "Ord": true, "AsRef": true, "AsMut": true, "Into": true, "From": true, "Default": true, "Iterator": true, "Extend": true,
	"IntoIterator": true, "DoubleEndedIterator": true, "ExactSizeIterator": true, "Option": true, "Some": true, "None": true, "Result": true, "Ok": true, "Err": true,
	"String": true, "ToString": true, "Vec": true, "TryFrom": true, "TryInto": true, "FromIterator": true, "Self": true, "Hash": true, "Debug": true,
}

// IsNativeModule reports whether a crate comes with the language.
func (FrontEnd) IsNativeModule(name string) bool {
	first, _, _ := strings.Cut(name, "::")
	return first == "std" || first == "core" || first == "alloc" || first == "proc_macro"
}

// AsksComment is true of all but what a trait asks for, which has its words from there.
func (FrontEnd) AsksComment(d *model.Declaration) bool {
	at := d.Speaks(model.Words)
	if at.Extra != nil && at.Extra.Aside {
		return false
	}
	return d.Kind() != model.KindField || d.Parent == nil || d.Parent.Kind() != model.KindEnumMember
}

// AsksModuleComment is true of modules that hold anything.
func (FrontEnd) AsksModuleComment(m *model.Module) bool { return m.Count() > 0 && !m.Internal }

// ModuleWord tells crates from modules.
func (FrontEnd) ModuleWord(m *model.Module) string {
	if !strings.Contains(m.Path, "::") {
		return "crate"
	}
	return "module-word"
}

// KindWord uses the words of the language's reference.
func (FrontEnd) KindWord(d *model.Declaration) string {
	switch d.Kind() {
	case model.KindEnumMember:
		return "variant"
	case model.KindVariable:
		return "static"
	case model.KindType:
		if d.Parent != nil {
			return "associated type"
		}
		return "type alias"
	}
	return ""
}

// BlockStyle is how the fields of a type are written behind its name; those of a tuple stand in its
// signature.
func (FrontEnd) BlockStyle(d *model.Declaration) (lang.BlockStyle, bool) {
	form := lang.BlockStyle{Open: " {", Close: "}", End: ",", Remark: "// "}
	switch d.Kind() {
	case model.KindStruct, model.KindUnion, model.KindEnum:
		return form, true
	}
	return form, false
}

// GroupKey is "": the usual headings fit.
func (FrontEnd) GroupKey(string) string { return "" }

// BringIn is the line that brings in a module.
func (FrontEnd) BringIn(m *model.Module, _ bool) string {
	if !strings.Contains(m.Path, "::") {
		return "use " + m.Path + "::*;"
	}
	return "use " + m.Path + ";"
}

// BringNameIn is the line that brings in one name.
func (FrontEnd) BringNameIn(from *model.Module, d *model.Declaration, name string) string {
	return "use " + from.Path + "::" + name + ";"
}
