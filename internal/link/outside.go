package link

import (
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// This file says whether a name that is not found may be one that nobody here has read.

// openPath reports whether a missing last name may yet exist outside the project.
func (x *Index) openPath(m *model.Module, names []string) bool {
	first := m.Lookup(names[0])
	if first == nil {
		return x.takesFromOutside(m, names[0]) || x.elsewhere.open(m)
	}
	return len(names) > 1 && x.open(first, 0)
}

// takesFromOutside reports whether a module has a name, or may have it, from a
// module outside the project of which not all names are known.
func (x *Index) takesFromOutside(m *model.Module, name string) bool {
	for _, f := range m.Files {
		for _, i := range x.imports[f] {
			if (i.module == nil || x.elsewhere.open(i.module)) && i.member != "" && (i.name == name || i.name == "" || i.name == "." || i.member == "*") { // "" is of what gives all its members
				return true
			}
		}
	}
	return false
}

// slip reports whether a bare name that is not found is surely a slip for one of the project,
// although the file takes all names of some modules from outside: what stands in all of these is
// known, and another name is within a letter of it, or two of a long one.
func (x *Index) slip(from Scope, name string) bool {
	standard, ok := x.options.FrontEnds[from.Module.Library.Language].(lang.Standard)
	if !ok || from.File == nil {
		return false
	}
	for _, i := range x.imports[from.File] {
		if i.module != nil || i.name != "" && i.member != "*" {
			continue
		}
		if names := standard.StandardNames(i.path); i.member != "*" || names == nil || names[name] {
			return false
		}
	}
	if x.mayInherit(from.Declaration, 0) {
		return false
	}
	near := x.Near(from, name)
	near = near[strings.LastIndexByte(near, '.')+1:]
	most := 1
	if len(name) >= longName {
		most = 2
	}
	return near != "" && len(name) >= shortName && nearest.Distance(strings.ToLower(name), strings.ToLower(near), most+1) <= most
}

// StandardName is the whole name of a type that a file names, where it is one of those that
// are known to come with the language: with the path of what it stands in. value says that its
// values are never nothing. guess is a module that the file takes whole and of which nothing
// is known, where there is just one: what is known nowhere stands there, or in no other.
func (x *Index) StandardName(m *model.Module, f *model.Facts, name string) (full string, value bool, guess string) {
	standard, ok := x.options.FrontEnds[m.Library.Language].(lang.Standard)
	if !ok {
		return "", false, ""
	}
	if in, last := name[:max(strings.LastIndexByte(name, '.'), 0)], name[strings.LastIndexByte(name, '.')+1:]; in != "" {
		if standard.StandardNames(in)[last] {
			return name, standard.IsStandardValue(in, last), ""
		}
		return "", false, ""
	}
	unknown := 0
	for _, i := range x.imports[f] {
		switch {
		case i.name == name && i.module == nil && i.member != "*":
			full = strings.TrimSuffix(i.path+"."+i.member, ".")
			in, last := full[:max(strings.LastIndexByte(full, '.'), 0)], full[strings.LastIndexByte(full, '.')+1:]
			return full, standard.IsStandardValue(in, last), ""
		case i.module != nil || i.member != "*":
		case standard.StandardNames(i.path) == nil:
			if guess != i.path {
				guess, unknown = i.path, unknown+1
			}
		case standard.StandardNames(i.path)[name]:
			return i.path + "." + name, standard.IsStandardValue(i.path, name), ""
		}
	}
	if unknown != 1 {
		guess = ""
	}
	return "", false, guess
}

// isStandard reports whether a name is that of a type which comes with the language and which
// the file takes from its module.
func (x *Index) isStandard(from Scope, name string) bool {
	if from.File == nil {
		return false
	}
	full, _, _ := x.StandardName(from.Module, from.File, name)
	return full != ""
}

// A slip is sought in names of this many letters, and two letters may be wrong in long ones.
const shortName, longName = 4, 9

// open reports whether the declaration may have members that cannot be seen: it
// embeds or renames something outside the project.
func (x *Index) open(d *model.Declaration, depth int) bool {
	if depth > 8 {
		return true
	}
	if d.Module.Library.Elsewhere != nil {
		h := x.elsewhere.holder(d)
		return h != nil && h.Open
	}
	for _, o := range d.Occurrences {
		if o.Kind == model.KindType && hasTypeToken(o) {
			return true
		}
	}
	if onlyNamed(d) {
		return true
	}
	all := x.embedded(d)
	for _, e := range all {
		if e.declaration == nil || x.open(e.declaration, depth+1) {
			return true
		}
	}
	return false
}

// onlyNamed reports whether a type is declared, and never defined, as a template is of which only
// special forms are.
func onlyNamed(d *model.Declaration) bool {
	return d.Module.ByFile() && d.Kind().IsType() && !slices.ContainsFunc(d.Occurrences, func(o model.At) bool {
		return !slices.Contains(o.Modifiers(), "forward")
	})
}

func hasTypeToken(o model.At) bool {
	for t := range o.Tokens(o.Signature) {
		if t.Kind == model.TokenType && (strings.Contains(t.Text, ".") || isUpper(t.Text)) {
			return true
		}
	}
	return false
}

func isUpper(s string) bool { return s != "" && s[0] >= 'A' && s[0] <= 'Z' }

// MayBeOutside reports whether a name that is not found, or found where users see
// nothing, may well be that of something outside the project: it begins with a package
// that the library imports from there, goes on behind a value whose type is not known,
// is taken from outside by some file of the library, or by a base that nobody here has read.
func (x *Index) MayBeOutside(from Scope, written string) bool {
	r := prose.ParseName(strings.TrimSuffix(written, "."))
	if len(r.Path) == 0 || from.Module == nil {
		return false
	}
	outside := x.outsideOf(from.Module.Library)
	last := r.Path[len(r.Path)-1]
	switch {
	case len(r.Path) > 1 && (outside.roots[r.Path[0]] || x.foreign(from.Module, r.Path[0])) && len(x.modules[r.Path[0]]) == 0:
		return true
	case outside.through(r.Path):
		return true
	case outside.names[last], len(r.Path) == 1 && isTypeParam(from.Declaration, last):
		return true
	case len(r.Path) == 1 && broughtAlong(from.Declaration, last):
		return true
	case len(r.Path) == 1:
		if from.Declaration != nil && (!isUpper(last) || last == strings.ToUpper(last)) && x.mayInherit(from.Declaration, 0) {
			return true // members begin with small letters, and constants have no others
		}
		return says(from.Module, from.Module.Library.Habits.Makes)
	}
	for n := len(r.Path) - 1; n > 0; n-- {
		found := x.first(from, x.steps(from, MayBeExternal, prose.Name{Path: r.Path[:n]}), r.Path[:n], prose.Name{Path: r.Path[:n]}, MayBeExternal)
		d := found.Target.Declaration
		if found.Outcome == Found && d == nil && found.Target.Module != nil {
			if next := r.Path[n]; outside.own && x.isPackage(found.Target.Module) && strings.ToLower(next) == next && x.Near(from, written) == "" && x.Moved(from, written) == "" {
				return true // as well a module that is not source
			}
			h := found.Target.Module.Library.Habits
			return h != nil && (says(found.Target.Module, h.Makes) || h.AnyMember != "" && says(found.Target.Module, []string{h.AnyMember}))
		}
		if found.Outcome == Found && d != nil {
			if n == len(r.Path)-1 && d.Kind().IsType() && broughtAlong(d, last) {
				return true
			}
			return !d.Kind().IsType() && !d.Kind().IsCallable() || d.Kind().IsType() && x.mayInherit(d, 0)
		}
	}
	return false
}

// isTypeParam reports whether a name is that of a type parameter of a declaration or of what
// it stands in.
func isTypeParam(d *model.Declaration, name string) bool {
	for depth := 0; d != nil && depth < highest; d, depth = d.Parent, depth+1 {
		if slices.ContainsFunc(d.Speaks(model.Words).TypeParams(), func(p model.Param) bool { return p.Name == name }) {
			return true
		}
	}
	return false
}

// broughtAlong reports whether the language itself gives the types that a declaration is, or
// stands in, a member of a name.
func broughtAlong(d *model.Declaration, name string) bool {
	for depth := 0; d != nil && depth < highest; d, depth = d.Parent, depth+1 {
		h := d.Module.Library.Habits
		if h == nil || !d.Kind().IsType() {
			continue
		}
		if slices.Contains(h.OfAll, name) || d.Kind() == model.KindEnum && slices.Contains(h.OfEnums, name) {
			return true
		}
	}
	return false
}

// says reports whether the source of a module has one of some words: those by which
// programs make names when they run.
func says(m *model.Module, words []string) bool {
	for _, f := range m.Files {
		for _, word := range words {
			if strings.Contains(f.Text, word) {
				return true
			}
		}
	}
	return false
}

// mayInherit reports whether a declaration stands in a type, or is one, that has bases
// which nobody here has read.
func (x *Index) mayInherit(d *model.Declaration, depth int) bool {
	for ; d != nil && depth < 100; d, depth = d.Parent, depth+1 {
		if d.Kind().IsType() && (x.open(d, 0) || decorated(d) || answersAny(d)) {
			return true
		}
	}
	return false
}

// answersAny reports whether a type answers for members of any name.
func answersAny(d *model.Declaration) bool {
	h := d.Module.Library.Habits
	return h != nil && h.AnyMember != "" && d.Member(h.AnyMember) != nil
}

// decorated reports whether a type is handed to something when the program runs, which
// may give it members.
func decorated(d *model.Declaration) bool {
	at := d.Speaks(model.Words)
	for t := range at.Tokens(at.Signature) {
		switch t.Kind {
		case model.TokenValue:
			return true
		case model.TokenName:
			return false
		}
	}
	return false
}

// outsideNames is what the files of a library take from outside of the project.
type outsideNames struct {
	roots map[string]bool // first names of packages
	names map[string]bool // taken out of modules
	paths map[string]bool // of modules that are not here
	tops  []string        // first names of the library's own modules
	own   bool            // some of the paths are in the library's own packages: it has modules that are not source
}

// list adds what a file that takes all of something outside exports and does not have.
func (o *outsideNames) list(m *model.Module, f *model.Facts) {
	for _, l := range f.ExportList {
		if m.Find(l.Name) == nil {
			o.names[l.Name] = true
		}
	}
}

// through reports whether a dotted name leads through a module that is not source.
func (o *outsideNames) through(names []string) bool {
	for n := len(names); n > 1; n-- {
		if o.paths[strings.Join(names[:n], ".")] {
			return true
		}
	}
	return false
}

// foreign reports whether a dotted path can only begin at the top of some package that is
// not the project's: nothing around a module is called so, and no package comes close.
func (x *Index) foreign(m *model.Module, root string) bool {
	importer, ok := x.options.FrontEnds[m.Library.Language].(lang.Importer)
	if !ok || !m.Library.Habits.Dynamic || root == "" || strings.ToLower(root) != root {
		return false
	}
	if m.Lookup(root) != nil || nearest.Word(root, x.outsideOf(m.Library).tops) != "" {
		return false
	}
	for _, f := range m.Files {
		if x.imported(f, root) {
			return false
		}
	}
	for above := m.Path; above != ""; {
		if x.importable(m.Library, importer.Below(above, root)) != nil {
			return false
		}
		above = above[:max(strings.LastIndexByte(above, '.'), 0)]
	}
	return true
}

func (x *Index) outsideOf(lib *model.Library) *outsideNames {
	if known, ok := x.outsides.Load(lib); ok {
		return known.(*outsideNames)
	}
	out := &outsideNames{roots: map[string]bool{}, names: map[string]bool{}, paths: map[string]bool{}}
	for _, m := range x.modulesOf(lib) {
		for _, f := range m.Files {
			for _, i := range x.imports[f] {
				if i.module != nil {
					continue
				}
				out.paths[i.path] = true
				if root, _, _ := strings.Cut(strings.TrimLeft(i.path, "."), "."); root != "" && i.path[0] != '.' {
					out.roots[root] = true
				}
				switch i.member {
				case "":
				case "*":
					out.list(m, f)
				default:
					out.names[i.member] = true
					out.names[i.name] = true
				}
			}
		}
	}
	seen := map[string]bool{}
	for _, m := range x.modulesOf(lib) {
		if top, _, _ := strings.Cut(m.Path, "."); !seen[top] {
			seen[top] = true
			out.tops = append(out.tops, top)
		}
	}
	for path := range out.paths {
		top, _, below := strings.Cut(path, ".")
		out.own = out.own || below && x.importable(lib, top) != nil
	}
	known, _ := x.outsides.LoadOrStore(lib, out)
	return known.(*outsideNames)
}
