package link

import (
	"iter"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file holds the steps that a reference takes from where it stands outwards.

// step looks for names in one place. partial says that the first name was found
// and a later one was not; beyond is set where the place is outside the project.
type step func(names []string) (found []Target, partial bool, beyond *Target)

// steps yields the steps of a reference, the nearest first; most references need but one or
// two of them.
func (x *Index) steps(from Scope, how Strictness, r prose.Name) iter.Seq[step] {
	switch name := r.Path[0]; {
	case how == Typed:
		return x.typeSteps(from, r)
	case how == Loose && len(r.Path) == 1 && !r.Callable:
		return x.wordSteps(from, r)
	case how == Loose && takes(from.Declaration, name):
		return noSteps
	}
	return func(yield func(step) bool) {
		if from.Module == nil {
			_ = yield(x.byWholePath(nil)) && yield(x.modulesNamed(nil, nil)) && yield(x.anywhere(nil)) && yield(x.belowLibrary) && yield(x.elsewhere.step(x, from, ""))
			return
		}
		if !x.nearSteps(from, how, yield) {
			return
		}
		if how == MayBeExternal && (x.native(from, r.Path[0]) || x.isStandard(from, r.Path[0])) {
			return // what the language brings along is nearer than other modules
		}
		lib := from.Module.Library
		if how == MayBeExternal && len(r.Path) == 1 && !yield(x.anywhere(lib)) { // a bare name is rather that of a declaration than of a file
			return
		}
		if !yield(x.modulesNamed(lib, nil)) || !yield(x.modulesNamed(nil, lib)) {
			return
		}
		if how != Bracketed && len(r.Path) > 1 || how == Explicit || how == MayBeExternal {
			_ = yield(x.anywhere(lib)) && yield(x.byWholePath(nil)) && yield(x.anywhere(nil)) && yield(x.belowLibrary) && yield(x.elsewhere.step(x, from, ""))
		}
	}
}

func noSteps(func(step) bool) {}

// nearSteps yields the places that a file itself speaks of, and reports whether to go on.
func (x *Index) nearSteps(from Scope, how Strictness, yield func(step) bool) bool {
	lib := from.Module.Library
	if how != Bracketed && !yield(x.inScope(from)) {
		return false
	}
	module := x.inModule(from)
	if len(x.called) > 0 {
		module = both(x.byCalled(lib, from.Module), module)
	}
	if !yield(module) || !yield(x.inImports(from)) || how == Bracketed && !yield(x.inScope(from)) {
		return false
	}
	if h := lib.Habits; h != nil && h.Nested && h.ByPath { // the words may stand in the file of another module
		if own := x.ModuleOf(from.File); own != nil && own != from.Module && own.Library == lib && !yield(x.inModule(Scope{Module: own, File: from.File})) {
			return false
		}
	}
	_, dotted := x.options.FrontEnds[lib.Language].(lang.Importer)
	return !dotted || yield(x.byDottedPath(from))
}

func (x *Index) inScope(from Scope) step {
	return func(names []string) ([]Target, bool, *Target) { return x.enclosing(from, names) }
}

func (x *Index) inModule(from Scope) step {
	return func(names []string) ([]Target, bool, *Target) { return x.ofModule(from, names) }
}

func (x *Index) inImports(from Scope) step {
	return func(names []string) ([]Target, bool, *Target) { return x.ofImports(from, names) }
}

// enclosing looks among the declaration's own members, then its siblings, then
// those of each enclosing type.
func (x *Index) enclosing(from Scope, names []string) ([]Target, bool, *Target) {
	partial := false
	for d, depth := from.Declaration, 0; d != nil && depth < 100; d, depth = d.Parent, depth+1 {
		member := x.member(d, names[0])
		if member == nil {
			continue
		}
		if found := x.below(member, names[1:]); found != nil {
			return []Target{{Declaration: found}}, false, nil
		}
		partial = true
	}
	return nil, partial, nil
}

func (x *Index) ofModule(from Scope, names []string) ([]Target, bool, *Target) {
	first := x.bare(from.Module, from.File, names[0])
	if first == nil && names[0] == from.Module.Name {
		return x.ofOwnName(from.Module, names[1:])
	}
	if first == nil {
		return x.ofInnerModule(from.Module, names)
	}
	if d := x.below(first, names[1:]); d != nil {
		inner, _, _ := x.ofInnerModule(from.Module, names)
		return append([]Target{{Declaration: d}}, inner...), false, nil
	}
	return nil, !x.open(first, 0), nil
}

// ofInnerModule looks in the module of a name right below one, in languages whose modules lie in one
// another.
func (x *Index) ofInnerModule(m *model.Module, names []string) ([]Target, bool, *Target) {
	h := m.Library.Habits
	if h == nil || !h.Nested {
		return nil, false, nil
	}
	inner := x.importable(m.Library, m.Written()+h.PathMark+names[0])
	switch {
	case inner == nil:
	case len(names) == 1:
		if x.ModuleInReach(inner) {
			return []Target{{Module: inner}}, false, nil
		}
	default:
		return x.inOrBelow(inner, names[1:])
	}
	return nil, false, nil
}

// inOrBelow finds a path in what a module gives, or in one below it.
func (x *Index) inOrBelow(m *model.Module, names []string) ([]Target, bool, *Target) {
	if first := x.gives(m, names[0], &trail{}); first.Declaration != nil {
		if d := x.below(first.Declaration, names[1:]); d != nil {
			return []Target{{Declaration: d}}, false, nil
		}
	} else if first.Module != nil && first.Module != m && len(names) > 1 {
		return x.inOrBelow(first.Module, names[1:])
	}
	return x.ofInnerModule(m, names)
}

// ofOwnName looks below the module's own name: comments may call a module what
// its users call it.
func (x *Index) ofOwnName(m *model.Module, names []string) ([]Target, bool, *Target) {
	if len(names) == 0 {
		return []Target{{Module: m}}, false, nil
	}
	if d := x.path(m, names); d != nil {
		return []Target{{Declaration: d}}, false, nil
	}
	return nil, !x.openPath(m, names), nil
}

func (x *Index) ofImports(from Scope, names []string) ([]Target, bool, *Target) {
	for i := range x.importsKnownAs(from.File, names[0]) {
		if strings.Contains(i.name, ".") { // a module by its whole path
			path := strings.Split(i.name, ".")
			if i.name == "." || len(names) < len(path) || !slices.Equal(names[:len(path)], path) {
				continue
			}
			names = names[len(path)-1:]
		} else if i.name != names[0] {
			continue
		}
		if i.member != "" || i.whole {
			return x.ofTaken(from, i, names[1:])
		}
		if i.module == nil {
			return nil, false, &Target{Address: x.outside(i.path, strings.Join(names[1:], "."))}
		}
		if len(names) == 1 {
			return []Target{{Module: i.module}}, false, nil
		}
		if d := x.path(i.module, names[1:]); d != nil {
			return []Target{{Declaration: d}}, false, nil
		}
		return nil, !x.openPath(i.module, names[1:]), nil
	}
	return nil, false, nil
}

// ofTaken looks below a name that an import takes out of a module.
func (x *Index) ofTaken(from Scope, i imported, names []string) ([]Target, bool, *Target) {
	t := x.taken(from.Module.Library, i, &trail{})
	switch {
	case t.Declaration != nil:
		if d := x.below(t.Declaration, names); d != nil {
			return []Target{{Declaration: d}}, false, nil
		}
		return nil, !x.open(t.Declaration, 0), nil
	case t.Module != nil:
		return x.ofOwnName(t.Module, names)
	case i.module == nil || i.module.Library.Elsewhere != nil:
		return nil, false, &Target{Address: x.outside(i.path, strings.Join(append([]string{i.member}, names...), "."))}
	}
	return nil, false, nil
}

// byDottedPath looks for a module whose path is the first names, dots and all.
func (x *Index) byDottedPath(from Scope) step {
	return func(names []string) ([]Target, bool, *Target) {
		for n := len(names); n > 1; n-- {
			if m := x.module(from.Module.Library, strings.Join(names[:n], ".")); m != nil {
				return x.ofOwnName(m, names[n:])
			}
		}
		if m := x.module(from.Module.Library, names[0]); m != nil && len(names) > 1 {
			return x.ofOwnName(m, names[1:])
		}
		return x.byPathsEnd(from.Module.Library, names), false, nil
	}
}

// byPathsEnd looks in the modules whose dotted path ends in two or more of the
// first names: in as many of them as name one.
func (x *Index) byPathsEnd(lib *model.Library, names []string) (found []Target) {
	for n := len(names); n > 1 && len(found) == 0; n-- {
		end := "." + strings.Join(names[:n], ".")
		for _, m := range x.dotted()[names[n-1]] {
			if m.Library != lib || !strings.HasSuffix(m.Path, end) && !strings.HasSuffix(m.Written(), end) || !x.seen(m) {
				continue
			}
			if n == len(names) {
				found = append(found, Target{Module: m})
			} else if d := x.path(m, names[n:]); d != nil {
				found = append(found, Target{Declaration: d})
			}
		}
	}
	return found
}

// modulesNamed looks in the modules of only (or of all libraries but not) whose
// path ends in the first name. Modules out of reach are not found this way.
func (x *Index) modulesNamed(only, not *model.Library) step {
	return func(names []string) (found []Target, partial bool, beyond *Target) {
		for _, m := range x.endings()[names[0]] {
			if only != nil && m.Library != only || m.Library == not || !x.seen(m) {
				continue
			}
			if len(names) == 1 {
				found = append(found, Target{Module: m})
				continue
			}
			if d := x.path(m, names[1:]); d != nil {
				found = append(found, Target{Declaration: d})
			} else {
				partial = partial || !x.openPath(m, names[1:])
			}
		}
		return found, partial, nil
	}
}

// anywhere looks in every module that declares the first name at its top, among
// what is in reach.
func (x *Index) anywhere(only *model.Library) step {
	return func(names []string) (found []Target, partial bool, beyond *Target) {
		for _, m := range x.names()[names[0]] {
			if only != nil && m.Library != only {
				continue
			}
			d := x.path(m, names)
			if x.InReach(d) {
				found = append(found, Target{Declaration: d})
			}
			partial = partial || d == nil && !x.openPath(m, names)
		}
		return found, partial, nil
	}
}

// path follows names down from the top of a module.
func (x *Index) path(m *model.Module, names []string) *model.Declaration {
	first := m.Lookup(names[0])
	if first == nil {
		if first = x.gives(m, names[0], &trail{}).Declaration; first == nil {
			return nil
		}
	}
	return x.below(first, names[1:])
}

// below follows names down from a declaration.
func (x *Index) below(d *model.Declaration, names []string) *model.Declaration {
	for _, name := range names {
		if d = x.member(d, name); d == nil {
			return nil
		}
	}
	return d
}

// mostVisible is, of the declarations of one name, the one that the most users see: a field may be called as the
// method that sets it.
func mostVisible(d *model.Declaration) *model.Declaration {
	if d == nil {
		return nil
	}
	best := d
	for other := range d.Namesakes {
		if other.Speaks(model.Words).Visibility < best.Speaks(model.Words).Visibility {
			best = other
		}
	}
	return best
}

// member finds a member by name: the declaration's own, or one that it has
// through what it embeds.
func (x *Index) member(d *model.Declaration, name string) *model.Declaration {
	if own := mostVisible(d.Member(name)); own != nil {
		return own
	}
	if seated := x.seats[d][name]; seated != nil {
		return seated
	}
	if same := x.namedAnew(d); same != nil {
		return same.Member(name)
	}
	made := x.madeOf(d)
	for _, base := range slices.Concat(made.bases, made.oneOf) {
		if base == d {
			continue
		}
		if promoted := x.promoted(base, name, 0); promoted != nil {
			return promoted
		}
	}
	return x.ofFieldType(d, name)
}

// ofFieldType finds a member of the type that a field has: references follow
// fields as selectors in code do.
func (x *Index) ofFieldType(d *model.Declaration, name string) *model.Declaration {
	at := d.Speaks(model.Words)
	if at.Kind != model.KindField || at.Embedded {
		return nil
	}
	for t := range at.Tokens(at.Signature) {
		if t.Kind == model.TokenType {
			if typ := x.Type(d.Site().Module, at.File, t.Text).Declaration; typ != nil {
				return x.promoted(typ, name, 0)
			}
			return nil
		}
	}
	return nil
}

func (x *Index) promoted(d *model.Declaration, name string, depth int) *model.Declaration {
	if own := d.Member(name); own != nil && !makes(own) || depth > 8 {
		return own
	}
	made := x.madeOf(d)
	for _, list := range [][]*model.Declaration{made.bases, made.oneOf} {
		for _, base := range list {
			if promoted := x.promoted(base, name, depth+1); promoted != nil {
				return promoted
			}
		}
	}
	return nil
}

// makes reports whether a declaration is a constructor that is called as its type: nobody
// inherits it, and its name alone is that of the type.
func makes(d *model.Declaration) bool {
	return d.Kind() == model.KindConstructor && d.Parent != nil && d.Parent.Name == d.Name
}

// byCalled looks for what comments call by a path: the path whole, or what stands in
// it. What the module itself has under it is meant before others.
func (x *Index) byCalled(lib *model.Library, near *model.Module) step {
	return func(names []string) (found []Target, partial bool, beyond *Target) {
		for n := len(names); n > 0; n-- {
			for _, d := range x.called[strings.Join(names[:n], ".")] {
				if d.Module.Library != lib {
					continue
				}
				if below := x.below(d, names[n:]); below != nil {
					found = append(found, Target{Declaration: below})
				}
				partial = partial || n < len(names)
			}
			if own := slices.DeleteFunc(slices.Clone(found), func(t Target) bool { return t.Declaration.Module != near }); len(own) > 0 {
				found = own
			}
			if len(found) > 0 {
				return found, false, nil
			}
		}
		return nil, partial, nil
	}
}

// both looks in one place, and in another where that one has nothing.
func both(first, second step) step {
	return func(names []string) ([]Target, bool, *Target) {
		if found, partial, beyond := first(names); len(found) > 0 || beyond != nil {
			return found, partial, beyond
		}
		return second(names)
	}
}

// findCalled collects what comments call by paths of their own.
func (x *Index) findCalled() map[string][]*model.Declaration {
	out := map[string][]*model.Declaration{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if !m.Called {
				continue
			}
			for d := range m.Declarations {
				for _, o := range d.Occurrences {
					if path := o.Called(); path != "" && !slices.Contains(out[path], d) {
						out[path] = append(out[path], d)
					}
				}
			}
		}
	}
	return out
}
