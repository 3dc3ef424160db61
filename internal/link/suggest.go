package link

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// Near finds what a reference that means nothing was probably meant to be, and
// writes it in the form that the reference has, or "". It never suggests what
// is out of reach. It compares with many names: ask it for findings only.
func (x *Index) Near(from Scope, written string) string {
	if library, rest, ok := prose.CutPrefix(written); ok {
		return x.nearLibrary(from, library, rest)
	}
	r := prose.ParseName(written)
	if r.Module != "" {
		if m := x.module(nil, r.Module); m != nil && len(r.Path) > 0 {
			return x.nearIn(m, r.Module+".", r.Path)
		}
		return ""
	}
	if from.Module == nil {
		return x.nearAnywhere(r.Path)
	}
	// The part that resolves stays as it was written; the first name that does
	// not is replaced.
	for d, depth := from.Declaration, 0; d != nil && depth < 100; d, depth = d.Parent, depth+1 {
		if member := x.member(d, r.Path[0]); member != nil {
			return x.nearMember(member, r.Path[0], r.Path[1:])
		}
	}
	if first := x.bare(from.Module, from.File, r.Path[0]); first != nil {
		return x.nearMember(first, r.Path[0], r.Path[1:])
	}
	for i := range x.importsKnownAs(from.File, r.Path[0]) {
		if i.name == r.Path[0] && i.module != nil && len(r.Path) > 1 {
			return x.nearIn(i.module, i.name+".", r.Path[1:])
		}
	}
	if near := x.nearIn(from.Module, "", r.Path); near != "" {
		return near
	}
	for i := range x.wholeImports(from.File) {
		if i.module == nil || i.module.Library.Elsewhere != nil {
			continue
		}
		if near := x.nearIn(i.module, "", r.Path); near != "" {
			return near
		}
	}
	if from.Declaration != nil {
		if near := x.nearSibling(from.Declaration, r.Path); near != "" {
			return near
		}
	}
	if len(r.Path) > 1 {
		return x.nearAnywhere(r.Path)
	}
	return x.qualified(from.Module, r.Path[0])
}

// nearLibrary is a reference that names its library, with the library or what
// stands behind it put right.
func (x *Index) nearLibrary(from Scope, library, rest string) string {
	if x.isLibrary(library) {
		if near := x.nearAnywhere(prose.ParseName(rest).Path); near != "" && x.Resolve(from, library+":"+near, Explicit).Outcome == Found {
			return library + ":" + near
		}
		return ""
	}
	var libraries []string
	for _, lib := range x.Project.Libraries {
		libraries = append(libraries, lib.Name)
	}
	if word := nearest.Word(library, libraries); word != "" && x.Resolve(from, word+":"+rest, Explicit).Outcome == Found {
		return word + ":" + rest
	}
	return ""
}

// qualified is the whole name of what a bare name can only mean: the one member,
// or the one declaration of another module, that is called so in the library.
func (x *Index) qualified(m *model.Module, name string) string {
	list := x.named()[m.Library][name]
	if len(list) != 1 {
		return ""
	}
	if list[0].Module == m {
		return list[0].Path()
	}
	return x.fromModule(list[0])
}

// Moved is the name of what a reference means that names the right thing and the wrong
// place: a module that it is not in any more, too much before it, or too little
// between. It is "" where nothing, or more than one thing, could be meant.
func (x *Index) Moved(from Scope, written string) string {
	r := prose.ParseName(written)
	if near := x.nearInDotted(from, r.Path); near != "" && r.Module == "" {
		return near
	}
	if m := x.namedModule(from, r); m != nil && len(r.Path) > 0 {
		switch inside := x.inReachCalled(m, r.Path[len(r.Path)-1]); len(inside) {
		case 0: // it may have moved
		case 1:
			return x.namesOf(from, inside[0], r.Module != "")[0]
		default:
			return ""
		}
	}
	// what begins with a name that is declared here is not looked for in other libraries
	begun := from.Module != nil && len(r.Path) > 1 && x.bare(from.Module, from.File, r.Path[0]) != nil
	for n := range r.Path {
		tail := strings.Join(r.Path[n:], ".")
		if len(tail) < shortestTail {
			break
		}
		d := x.only(from, tail)
		if d == nil || begun && d.Module.Library != from.Module.Library {
			continue
		}
		for _, name := range x.namesOf(from, d, r.Module != "") {
			if name != written && x.Resolve(from, name, Explicit).Target.Declaration == d {
				return name
			}
		}
		break
	}
	return ""
}

// namedModule is the module that a reference begins with, or nil.
func (x *Index) namedModule(from Scope, r prose.Name) *model.Module {
	if r.Module != "" {
		return x.module(nil, r.Module)
	}
	if len(r.Path) < 2 {
		return nil
	}
	for i := range x.importsKnownAs(from.File, r.Path[0]) {
		if i.name == r.Path[0] && i.member == "" && i.module != nil {
			return i.module
		}
	}
	return nil
}

// inReachCalled are the declarations of a module, at any depth, that have a name.
func (x *Index) inReachCalled(m *model.Module, name string) (out []*model.Declaration) {
	for d := range m.Declarations {
		if d.Name == name && x.InReach(d) {
			out = append(out, d)
		}
	}
	return out
}

// shortestTail is how long the end of a name is at least that is looked for alone.
const shortestTail = 3

// nearInDotted puts right what stands behind the dotted path of a module.
func (x *Index) nearInDotted(from Scope, names []string) string {
	for n := len(names) - 1; n > 1; n-- {
		for _, m := range x.modules[strings.Join(names[:n], ".")] {
			if from.Module == nil || m.Library == from.Module.Library {
				return x.nearIn(m, m.Path+".", names[n:])
			}
		}
	}
	return ""
}

// only is the one declaration in reach that has a path in some module of the library,
// or, where that has none, of the project; else nil.
func (x *Index) only(from Scope, path string) *model.Declaration {
	var own, other []*model.Declaration
	for _, m := range x.declaring()[firstName(path)] {
		if !x.seen(m) {
			continue
		}
		if d := m.Lookup(path); d != nil && x.InReach(d) {
			if from.Module != nil && m.Library == from.Module.Library {
				own = append(own, d)
			} else {
				other = append(other, d)
			}
		}
	}
	if len(own) == 0 {
		own = other
	}
	if len(own) != 1 {
		return nil
	}
	return own[0]
}

// namesOf are the ways to write a declaration, the shortest that says its module first.
func (x *Index) namesOf(from Scope, d *model.Declaration, whole bool) []string {
	if whole {
		return []string{d.Module.Path + "." + d.Path()}
	}
	if d.Module == from.Module {
		return []string{d.Path()}
	}
	names := []string{x.fromModule(d)}
	if d.Module.Around() != "" && d.Module.Name != "" {
		names = []string{d.Module.Name + "." + d.Path(), d.Path(), d.Module.Path + "." + d.Path()}
	}
	return append(names, d.Module.Library.Name+":"+d.Path())
}

// Kept reports whether what a reference names is declared in the project, but
// nowhere in reach.
func (x *Index) Kept(from Scope, written string) bool {
	r := prose.ParseName(written)
	path := strings.Join(r.Path, ".")
	for _, m := range x.declaring()[firstName(path)] {
		if from.Module != nil && m.Library != from.Module.Library {
			continue
		}
		if d := m.Lookup(path); d != nil && !x.InReach(d) {
			return true
		}
	}
	return false
}

// firstName is what stands before the first dot of a path.
func firstName(path string) string {
	first, _, _ := strings.Cut(path, ".")
	return first
}

// declaringModules are the modules that declare names at their top, by these.
func (x *Index) declaringModules() map[string][]*model.Module {
	out := map[string][]*model.Module{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			for _, d := range m.Top {
				for _, name := range []string{firstName(d.Name), firstName(d.Written())} {
					if list := out[name]; len(list) == 0 || list[len(list)-1] != m {
						out[name] = append(list, m)
					}
				}
			}
		}
	}
	return out
}

// fromModule is a declaration's path behind its module's name, as a reference
// from another module has it.
func (x *Index) fromModule(d *model.Declaration) string {
	if d.Module.Around() != "" || d.Module.Name == "" {
		return d.Path()
	}
	return d.Module.Path + "." + d.Path()
}

// namedAnywhere lists the declarations in reach by name: two of each name at the
// most, since more tell nothing further.
func (x *Index) namedAnywhere() map[*model.Library]map[string][]*model.Declaration {
	out := map[*model.Library]map[string][]*model.Declaration{}
	for _, lib := range x.Project.Libraries {
		names := map[string][]*model.Declaration{}
		out[lib.Library] = names
		for _, m := range lib.Modules {
			if !x.seen(m) {
				continue
			}
			for d := range m.Declarations {
				if list := names[d.Name]; len(list) < 2 && x.InReach(d) {
					names[d.Name] = append(list, d)
				}
			}
		}
	}
	return out
}

func (x *Index) nearSibling(d *model.Declaration, names []string) string {
	if len(names) != 1 {
		return ""
	}
	owner := d
	if d.Parent != nil {
		owner = d.Parent
	}
	return x.namesIn(owner, owner.Members).Closest(names[0])
}

// nearMember replaces the first of names that is no member of d.
func (x *Index) nearMember(d *model.Declaration, prefix string, names []string) string {
	for i, name := range names {
		next := x.member(d, name)
		if next == nil {
			word := x.namesIn(d, d.Members).Closest(name)
			if word == "" {
				return ""
			}
			return strings.Join(append([]string{prefix, word}, names[i+1:]...), ".")
		}
		d, prefix = next, prefix+"."+name
	}
	return ""
}

// nearIn looks for the first name among those of a module, and for later ones
// among the members of what the first is close to.
func (x *Index) nearIn(m *model.Module, prefix string, names []string) string {
	if first := m.Lookup(names[0]); first != nil {
		return x.nearMember(first, prefix+names[0], names[1:])
	}
	word := x.namesIn(m, m.Top).Closest(names[0])
	if word == "" {
		return ""
	}
	d := m.Lookup(word)
	if d == nil {
		return ""
	}
	if len(names) > 1 && x.below(d, names[1:]) == nil {
		return ""
	}
	return prefix + strings.Join(append([]string{word}, names[1:]...), ".")
}

// nearAnywhere compares with the names of all modules: a last resort, taken
// only for references that name more than one thing or stand in no module.
func (x *Index) nearAnywhere(names []string) string {
	for _, m := range x.endings()[names[0]] {
		if x.seen(m) && m.Name == names[0] && len(names) > 1 {
			if near := x.nearIn(m, names[0]+".", names[1:]); near != "" {
				return near
			}
		}
	}
	first := names[0]
	if len(x.names()[first]) == 0 {
		if first = x.tops().Closest(first); first == "" {
			return ""
		}
	}
	for _, m := range x.names()[first] {
		if len(names) == 1 {
			return first
		}
		d := m.Lookup(first)
		if d == nil { // another declaration has the name that users know this one by
			continue
		}
		if x.below(d, names[1:]) != nil {
			return strings.Join(append([]string{first}, names[1:]...), ".")
		}
		if near := x.nearMember(d, first, names[1:]); near != "" {
			return near
		}
	}
	return ""
}

// namesIn are the names in reach of what stands in a module or declaration.
func (x *Index) namesIn(of any, list []*model.Declaration) *nearest.Words {
	if known, ok := x.namedIn.Load(of); ok {
		return known.(*nearest.Words)
	}
	words := nearest.NewWords(x.shownNames(list))
	x.namedIn.Store(of, words)
	return words
}

func (x *Index) shownNames(list []*model.Declaration) []string {
	names := make([]string, 0, len(list))
	for _, d := range list {
		if x.InReach(d) {
			names = append(names, d.Name)
		}
	}
	slices.Sort(names)
	return slices.Compact(names)
}
