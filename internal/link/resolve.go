package link

import (
	"iter"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// Scope is where a reference stands. Every part may be nil: a README has none.
type Scope struct {
	Module      *model.Module
	File        *model.Facts
	Declaration *model.Declaration
}

// ScopeOf is the scope of the comment on a declaration.
func ScopeOf(d *model.Declaration) Scope {
	return Scope{Module: d.Site().Module, File: d.Speaks(model.Words).File, Declaration: d.Site()}
}

// Outcome tells how the resolution of a reference ended.
type Outcome uint8

// The outcomes.
const (
	Missing   Outcome = iota // nothing in the project has this name
	Found                    // exactly one target on the nearest step
	Ambiguous                // several on the nearest step
	External                 // in a module outside the project: it cannot be judged
)

// Result is what a reference resolved to.
type Result struct {
	Outcome    Outcome
	Target     Target // of Found, and of Beyond where a pattern gives an address
	Candidates []Target
	// Unfit is set of Missing where the names were found, and no form of what they
	// name has the parameters that are written.
	Unfit *model.Declaration
	// Partial is set where the first names were found and a later one was not:
	// the reference is surely meant as one.
	Partial bool
	// NoHeading is set where a heading was asked for that is not there.
	NoHeading bool
}

// Strictness tells which steps a reference takes.
type Strictness uint8

// The ways to resolve.
const (
	// Explicit references take every step, nearest first.
	Explicit Strictness = iota
	// Bracketed references follow Go's own rule first: names of the package before members.
	Bracketed
	// Loose references are code spans: every step, but they are never wrong.
	Loose
	// MayBeExternal references are explicit ones of languages whose names say where they
	// come from: a qualified name whose first part means nothing here belongs to
	// another project, and so does a name that the language brings along.
	MayBeExternal
	// Typed references stand where a comment writes a type; as Loose ones they are
	// never wrong.
	Typed
)

// StrictnessOf is how a node of a text that is code or a reference is resolved.
func StrictnessOf(n *prose.Node) Strictness {
	switch {
	case n.Typed:
		return Typed
	case n.Kind == prose.Code:
		return Loose
	case n.MayBeExternal:
		return MayBeExternal
	case n.Kind == prose.Inherited, n.Strict:
		return Explicit
	}
	return Bracketed
}

// Resolve finds what a reference means, from where it stands outwards: own
// members, siblings, enclosing types, the module, what the file imports, the
// library by qualified suffix, other libraries. The nearest step that finds
// anything decides.
func (x *Index) Resolve(from Scope, written string, how Strictness) Result {
	if how == MayBeExternal {
		written = strings.TrimSuffix(written, ".")
	}
	if how == Typed {
		if t, _, ok := x.ImportedType(from.Module, from.File, written); ok {
			return Result{Outcome: foundIf(!t.None()), Target: t}
		}
	}
	return x.ResolveName(from, x.nameOf(from, written), how)
}

// ResolveName is Resolve for a name that is taken apart already.
func (x *Index) ResolveName(from Scope, r prose.Name, how Strictness) Result {
	if r.Section != "" {
		return x.section(from, r, how)
	}
	if r.Library != "" {
		return x.inLibrary(from, r.Library, r)
	}
	if r.Module != "" {
		if result, ok := x.byModulePath(from, r); ok {
			return result
		}
		if how == Bracketed {
			return Result{Outcome: External, Target: Target{Address: x.outside(r.Module, strings.Join(r.Path, "."))}}
		}
		r.Path = r.AfterSlashes()
	}
	for _, name := range r.Path {
		if name == "" {
			return Result{}
		}
	}
	if how == Loose && len(r.Path) == 1 && from.Module != nil && standsForItself(from.Module.Library.Habits, r.Path[0]) {
		return Result{} // a word of the language in a text
	}
	if result, ok := x.fromRoot(from, r); ok {
		return result
	}
	if result, ok := x.wholly(from, r.Path); ok {
		return result
	}
	if typ := ownType(from.Declaration, r.Path); typ != nil {
		return Result{Outcome: Found, Target: Target{Declaration: typ}}
	}
	if own, ok := ownMember(from.Declaration, r.Path); ok {
		if isUpper(r.Path[0]) && ownType(from.Declaration, r.Path[:1]) == nil {
			return Result{Outcome: External} // nobody has read the type
		}
		return x.first(from, func(yield func(step) bool) { yield(x.inScope(from)) }, own, r, how)
	}
	result := x.first(from, x.steps(from, how, r), r.Path, r, how)
	if d := result.Target.Declaration; d != nil && len(r.Path) == 1 && !r.Callable && makes(d) && !strings.HasPrefix(r.Written, "#") {
		result.Target = Target{Declaration: d.Parent} // a bare name is that of the type, also in it
	}
	if result.Outcome == Ambiguous && how == MayBeExternal && len(r.Path) == 1 && wholeNames(from) {
		return Result{Outcome: External, Target: Target{Address: x.outside(r.Path[0], "")}} // the name of a module rather than one of many members
	}
	if result.Outcome != Missing || result.Unfit != nil {
		return result
	}
	if from.Module != nil && len(r.Path) > 1 && from.Module.Library.Habits != nil && x.throughOutside(from, r.Path) {
		return Result{Outcome: External}
	}
	partial := result.Partial && !wholeNames(from) // other libraries have modules below those of this one
	if how == Bracketed && !partial && len(r.Path) > 1 && namesPackage(r.Path[0]) && isUpper(r.Path[1]) {
		return Result{Outcome: External, Target: Target{Address: x.outside(r.Path[0], strings.Join(r.Path[1:], "."))}}
	}
	if how == MayBeExternal && !partial && !x.nearlyOwn(from, r.Path) && (len(r.Path) > 1 || x.native(from, r.Path[0]) || from.Module != nil && x.takesFromOutside(from.Module, r.Path[0]) && !x.slip(from, r.Path[0]) && !x.hasOwnPrefix(from.Module, r.Path[0])) {
		return Result{Outcome: External, Target: Target{Address: x.outside(r.Path[0], strings.Join(r.Path[1:], "."))}}
	}
	return result
}

// standsForItself reports whether a word says where a path begins, or stands for the type at hand: alone and in
// code it is that word.
func standsForItself(h *model.Habits, word string) bool {
	return h != nil && (slices.Contains(h.Roots, word) || len(h.Roots) > 0 && slices.Contains(h.Self, word))
}

// wholly finds what a name means that begins with a module's, in such languages.
func (x *Index) wholly(from Scope, path []string) (Result, bool) {
	if !wholeNames(from) {
		return Result{}, false
	}
	h := from.Module.Library.Habits
	if len(path) == 1 && from.Module.Find(path[0]) != nil {
		return Result{}, false // nearer than a module of the name
	}
	if m := x.importable(from.Module.Library, strings.Join(path, h.PathMark)); m != nil && (len(path) > 1 || x.ModuleInReach(m)) {
		return Result{Outcome: Found, Target: Target{Module: m}}, true
	}
	if len(path) < 2 {
		return Result{}, false
	}
	last := len(path) - 1
	if m := x.importable(from.Module.Library, strings.Join(path[:last], h.PathMark)); m != nil {
		if t := x.gives(m, path[last], &trail{}); !t.None() {
			return Result{Outcome: Found, Target: t}, true
		}
	}
	return Result{}, false
}

// wholeNames reports whether the language of a place is such a one.
func wholeNames(from Scope) bool {
	return from.Module != nil && from.Module.Library.Habits != nil && from.Module.Library.Habits.Whole
}

// nearlyOwn reports whether a name is written almost as that of a module of the library is, in such
// languages: what only begins alike may come from anywhere.
func (x *Index) nearlyOwn(from Scope, path []string) bool {
	if !wholeNames(from) || len(path) < 2 {
		return false
	}
	written := strings.Join(path, from.Module.Library.Habits.PathMark)
	if x.loads(from.Module.Library, written) {
		return false
	}
	for _, lib := range x.Project.Libraries {
		if lib.Library == from.Module.Library && slices.ContainsFunc(lib.Modules, func(m *model.Module) bool {
			return m.Path != written && nearest.Distance(m.Path, written, mostSlips+1) <= mostSlips
		}) {
			return true
		}
	}
	return false
}

// loads reports whether code of a library takes a module of this path from outside the project: then there is one.
func (x *Index) loads(lib *model.Library, path string) bool {
	for _, m := range x.modulesOf(lib) {
		for _, f := range m.Files {
			if slices.ContainsFunc(x.imports[f], func(i imported) bool { return i.module == nil && i.from.Path == path }) {
				return true
			}
		}
	}
	return false
}

// mostSlips is how many letters of a module's name may be wrong for it to be meant.
const mostSlips = 1

// first is what the nearest of the steps finds.
func (x *Index) first(from Scope, steps iter.Seq[step], names []string, r prose.Name, how Strictness) Result {
	partial := false
	var kept []Target // what is out of reach, of the nearest step that found no more
	i := -1
	for step := range steps {
		if i++; len(kept) > 0 && i > lastOfFile {
			break
		}
		found, part, beyond := step(names)
		if beyond != nil && len(kept) == 0 {
			return Result{Outcome: External, Target: *beyond}
		}
		partial = partial || part
		if r.Kind == "" && len(found) > 1 {
			found = declaredFirst(found)
		}
		found = x.oneThing(x.withPages(x.fit(ofArity(ofKind(distinct(found), r.Kind), r.Arity), r)))
		if i > lastOfFile && how == MayBeExternal {
			if found = slices.DeleteFunc(found, x.spare); x.nativeModule(from, names, found) {
				return Result{Outcome: External}
			}
		}
		if how != Bracketed && len(found) > 0 && !slices.ContainsFunc(found, x.hasPage) {
			if len(kept) == 0 {
				kept = found
			}
			continue
		}
		if found = x.nearer(from, x.rather(found)); how == MayBeExternal {
			found = closest(from, found)
		}
		switch {
		case len(found) == 1:
			picked, fits := x.pick(found[0], r.Params)
			if !fits && how == Explicit {
				if h := found[0].Declaration.Module.Library.Habits; h != nil && h.ByFile { // types are written in many ways there, and with names
					return Result{Outcome: Found, Target: found[0]}
				}
				return Result{Partial: true, Unfit: found[0].Declaration}
			}
			return Result{Outcome: Found, Target: picked}
		case len(found) > 1:
			return Result{Outcome: Ambiguous, Candidates: found}
		}
	}
	switch {
	case len(kept) == 1:
		return Result{Outcome: Found, Target: kept[0]}
	case len(kept) > 1:
		return Result{Outcome: Ambiguous, Candidates: kept}
	}
	return Result{Partial: partial}
}

// declaredFirst leaves, of targets on one step, what is declared, where a module of the name lies there too:
// the module is meant where its kind is said.
func declaredFirst(found []Target) []Target {
	if found[0].Declaration == nil {
		return found
	}
	return slices.DeleteFunc(slices.Clone(found), func(t Target) bool { return t.Module != nil && nested(t.Module) })
}

func nested(m *model.Module) bool { return m.Library.Habits != nil && m.Library.Habits.Nested }

// lastOfFile is the index of the last step that stays with what the file itself
// sees: a name that is out of reach there is not looked for in other modules.
const lastOfFile = 2

// hasPage reports whether a target can be linked to.
func (x *Index) hasPage(t Target) bool {
	switch {
	case t.Declaration != nil:
		return x.InReach(t.Declaration)
	case t.Module != nil:
		return x.ModuleInReach(t.Module)
	}
	return true
}

// rather leaves out, of several targets, those that users should not use any more.
func (x *Index) rather(found []Target) []Target {
	if len(found) < 2 {
		return found
	}
	lasting := slices.DeleteFunc(slices.Clone(found), func(t Target) bool { return t.Declaration != nil && t.Declaration.Deprecated() })
	if len(lasting) == 0 {
		return found
	}
	return lasting
}

// native reports whether the language of a place brings a name along.
func (x *Index) native(from Scope, name string) bool {
	if from.Module == nil {
		return false
	}
	native, ok := x.options.FrontEnds[from.Module.Library.Language].(lang.Native)
	return ok && native.IsNative(name)
}

// nativeModule reports whether a name that leads to modules by their last names is that of
// one which the language brings along.
func (x *Index) nativeModule(from Scope, names []string, found []Target) bool {
	if from.Module == nil || len(names) != 1 || len(found) == 0 {
		return false
	}
	library, ok := x.options.FrontEnds[from.Module.Library.Language].(lang.Library)
	return ok && library.IsNativeModule(names[0]) && !slices.ContainsFunc(found, func(t Target) bool { return t.Module == nil || t.Module.Path == names[0] })
}

// distinct drops targets that were found in more than one way.
func distinct(found []Target) []Target {
	if len(found) < 2 {
		return found
	}
	out := found[:0]
	for _, t := range found {
		if !slices.Contains(out, t) {
			out = append(out, t)
		}
	}
	return out
}

// namesPackage reports whether a name reads like a package of the language's own
// library, which a comment may name without importing it.
func namesPackage(name string) bool { return strings.ToLower(name) == name }

// fit drops targets that the form of the reference rules out: parentheses ask
// for something that can be called.
func (x *Index) fit(found []Target, r prose.Name) []Target {
	if !r.Callable {
		return found
	}
	kept := found[:0]
	for _, t := range found {
		if t.Declaration == nil {
			continue
		}
		if t.Declaration = called(t.Declaration, true); t.Declaration.Kind().IsCallable() || t.Declaration.Kind().IsType() || isRead(t.Declaration, r) {
			kept = append(kept, t)
		}
	}
	return kept
}

// isRead reports whether a reference asks for what the language makes to read a part of a
// record, which is called as the part is.
func isRead(d *model.Declaration, r prose.Name) bool {
	return d.Kind() == model.KindField && d.Parent != nil && d.Parent.Kind() == model.KindRecord && len(r.Params) == 0
}

// withPages puts, for targets that have no page, another declaration of the same name in the
// same place that has one, where there is such: a field may be kept to a type and a method
// of its name not.
func (x *Index) withPages(found []Target) []Target {
	for i, t := range found {
		if t.Declaration == nil || x.hasPage(t) {
			continue
		}
		for other := range t.Declaration.Namesakes {
			if is := (Target{Declaration: other}); other.Arity() == t.Declaration.Arity() && x.hasPage(is) {
				found[i] = is
				break
			}
		}
	}
	return found
}

// called is the declaration of the same name that can be called, or that cannot, where one
// of a kind and one of the other share a name.
func called(d *model.Declaration, isCalled bool) *model.Declaration {
	if d.Kind().IsCallable() == isCalled || d.Kind().IsType() {
		return d
	}
	for other := range d.Namesakes {
		if other.Kind().IsCallable() == isCalled && !other.Kind().IsType() {
			return other
		}
	}
	return d
}

func (x *Index) byModulePath(from Scope, r prose.Name) (Result, bool) {
	var lib *model.Library
	if from.Module != nil {
		lib = from.Module.Library
	}
	m := x.module(lib, r.Module)
	if m == nil && lib != nil {
		if m = x.packages[r.Module]; m == nil { // by the name that users import it by
			m = x.importable(lib, r.Module)
		}
	}
	if m == nil {
		return Result{}, false
	}
	if len(r.Path) == 0 {
		return Result{Outcome: Found, Target: Target{Module: m}}, true
	}
	if d := x.path(m, r.Path); d != nil {
		return Result{Outcome: Found, Target: Target{Declaration: d}}, true
	}
	if t := x.under(Target{Module: m}, strings.Join(r.Path, ".")); !t.None() {
		return Result{Outcome: Found, Target: t}, true
	}
	if whole := x.gives(m, defaultOf(m), &trail{}).Declaration; whole != nil { // a member of what the module gives
		if d := x.below(whole, r.Path); d != nil {
			return Result{Outcome: Found, Target: Target{Declaration: d}}, true
		}
	}
	if found, _, _ := x.byCalled(m.Library, m)(r.Path); len(found) == 1 {
		return Result{Outcome: Found, Target: found[0]}, true
	}
	return Result{Partial: true}, true
}

func foundIf(found bool) Outcome {
	if found {
		return Found
	}
	return Missing
}

// isLibrary reports whether a library of this project, or of another, has a name.
func (x *Index) isLibrary(name string) bool {
	return slices.ContainsFunc(x.Project.Libraries, func(lib *model.Contents) bool { return lib.Name == name }) || x.elsewhere.has(name)
}

// inLibrary resolves a reference that names its library: one of this project's
// before those of others.
func (x *Index) inLibrary(from Scope, library string, r prose.Name) Result {
	names := r.Path
	if r.Module != "" {
		names = r.AfterSlashes()
	}
	for _, lib := range x.Project.Libraries {
		if lib.Name == library {
			return x.first(from, slices.Values([]step{x.bySlashedPath(lib.Library, r), x.byWholePath(lib.Library), x.modulesNamed(lib.Library, nil), x.anywhere(lib.Library)}), names, r, Explicit)
		}
	}
	return x.first(from, slices.Values([]step{x.elsewhere.step(x, from, library)}), names, r, Explicit)
}

// bySlashedPath looks in the module whose path a reference writes with "/".
func (x *Index) bySlashedPath(lib *model.Library, r prose.Name) step {
	return func([]string) (found []Target, partial bool, beyond *Target) {
		for _, m := range x.modules[r.Module] {
			if m.Library != lib {
				continue
			}
			if len(r.Path) == 0 {
				found = append(found, Target{Module: m})
			} else if d := x.path(m, r.Path); d != nil {
				found = append(found, Target{Declaration: d})
			}
		}
		return found, false, nil
	}
}

// byWholePath looks in the module whose dotted path is the first names: in as many
// of them as are one. The library may be nil for all.
func (x *Index) byWholePath(lib *model.Library) step {
	return func(names []string) (found []Target, partial bool, beyond *Target) {
		for n := len(names); n > 0 && len(found) == 0; n-- {
			for _, m := range x.modules[strings.Join(names[:n], ".")] {
				if lib != nil && m.Library != lib || !x.seen(m) {
					continue
				}
				if n == len(names) {
					found = append(found, Target{Module: m})
				} else if d := x.path(m, names[n:]); d != nil {
					found = append(found, Target{Declaration: d})
				}
			}
		}
		return found, false, nil
	}
}

// belowLibrary takes the first name for that of a library.
func (x *Index) belowLibrary(names []string) ([]Target, bool, *Target) {
	for _, lib := range x.Project.Libraries {
		if lib.Name != names[0] || len(names) < 2 {
			continue
		}
		for _, step := range []step{x.byWholePath(lib.Library), x.modulesNamed(lib.Library, nil), x.anywhere(lib.Library)} {
			if found, _, _ := step(names[1:]); len(found) > 0 {
				return found, false, nil
			}
		}
	}
	return nil, false, nil
}
