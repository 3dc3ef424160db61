package link

import (
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
	Beyond                   // in a module outside the project: it cannot be judged
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
}

// How tells which steps a reference takes.
type How uint8

// The ways to resolve.
const (
	// Explicit references take every step, nearest first.
	Explicit How = iota
	// Bracketed references follow Go's own rule first: names of the package before members.
	Bracketed
	// Loose references are code spans: every step, but they are never wrong.
	Loose
	// Outward references are explicit ones of languages whose names say where they
	// come from: a qualified name whose first part means nothing here belongs to
	// another project, and so does a name that the language brings along.
	Outward
	// Typed references stand where a comment writes a type; as Loose ones they are
	// never wrong.
	Typed
)

// HowOf is how a node of a text that is code or a reference is resolved.
func HowOf(n *prose.Node) How {
	switch {
	case n.Typed:
		return Typed
	case n.Kind == prose.Code:
		return Loose
	case n.Outward:
		return Outward
	case n.Kind == prose.Taken, n.Strict:
		return Explicit
	}
	return Bracketed
}

// Resolve finds what a reference means, from where it stands outwards: own
// members, siblings, enclosing types, the module, what the file imports, the
// library by qualified suffix, other libraries. The nearest step that finds
// anything decides.
func (x *Index) Resolve(from Scope, written string, how How) Result {
	if how == Outward {
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
func (x *Index) ResolveName(from Scope, r prose.Name, how How) Result {
	if r.Library != "" {
		return x.inLibrary(from, r.Library, r)
	}
	if r.Module != "" {
		if result, ok := x.byModulePath(from, r); ok {
			return result
		}
		if how == Bracketed {
			return Result{Outcome: Beyond, Target: Target{Address: x.outside(r.Module, strings.Join(r.Path, "."))}}
		}
		r.Path = r.AfterSlashes()
	}
	for _, name := range r.Path {
		if name == "" {
			return Result{}
		}
	}
	if own, ok := ownMember(from.Declaration, r.Path); ok {
		return x.first(from, []step{x.inScope(from)}, own, r, how)
	}
	result := x.first(from, x.steps(from, how, r), r.Path, r, how)
	if result.Outcome != Missing || result.Unfit != nil {
		return result
	}
	partial := result.Partial
	if how == Bracketed && !partial && len(r.Path) > 1 && namesPackage(r.Path[0]) && isUpper(r.Path[1]) {
		return Result{Outcome: Beyond, Target: Target{Address: x.outside(r.Path[0], strings.Join(r.Path[1:], "."))}}
	}
	if how == Outward && !partial && (len(r.Path) > 1 || x.native(from, r.Path[0]) || from.Module != nil && x.takesFromOutside(from.Module, r.Path[0])) {
		return Result{Outcome: Beyond, Target: Target{Address: x.outside(r.Path[0], strings.Join(r.Path[1:], "."))}}
	}
	return result
}

// first is what the nearest of the steps finds.
func (x *Index) first(from Scope, steps []step, names []string, r prose.Name, how How) Result {
	partial := false
	var kept []Target // what is out of reach, of the nearest step that found no more
	for i, step := range steps {
		if len(kept) > 0 && i > lastOfFile {
			break
		}
		found, part, beyond := step(names)
		if beyond != nil && len(kept) == 0 {
			return Result{Outcome: Beyond, Target: *beyond}
		}
		partial = partial || part
		found = x.oneThing(x.fit(ofArity(ofKind(distinct(found), r.Kind), r.Arity), r))
		if i > lastOfFile && how == Outward {
			if found = slices.DeleteFunc(found, x.spare); x.nativeModule(from, names, found) {
				return Result{Outcome: Beyond}
			}
		}
		if how != Bracketed && len(found) > 0 && !slices.ContainsFunc(found, x.hasPage) {
			if len(kept) == 0 {
				kept = found
			}
			continue
		}
		if found = x.nearer(from, x.rather(found)); how == Outward {
			found = closest(from, found)
		}
		switch {
		case len(found) == 1:
			picked, fits := x.pick(found[0], r.Params)
			if !fits && how == Explicit {
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
		if t.Declaration != nil && (t.Declaration.Kind().IsCallable() || t.Declaration.Kind().IsType()) {
			kept = append(kept, t)
		}
	}
	return kept
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
	return slices.ContainsFunc(x.Project.Libraries, func(lib *model.Library) bool { return lib.Name == name }) || x.elsewhere.has(name)
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
			return x.first(from, []step{x.bySlashedPath(lib, r), x.byWholePath(lib), x.modulesNamed(lib, nil), x.anywhere(lib)}, names, r, Explicit)
		}
	}
	return x.first(from, []step{x.elsewhere.step(x, from, library)}, names, r, Explicit)
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
		for _, step := range []step{x.byWholePath(lib), x.modulesNamed(lib, nil), x.anywhere(lib)} {
			if found, _, _ := step(names[1:]); len(found) > 0 {
				return found, false, nil
			}
		}
	}
	return nil, false, nil
}

// step looks for names in one place. partial says that the first name was found
// and a later one was not; beyond is set where the place is outside the project.
type step func(names []string) (found []Target, partial bool, beyond *Target)

func (x *Index) steps(from Scope, how How, r prose.Name) []step {
	name, names := r.Path[0], len(r.Path)
	switch {
	case how == Typed:
		return x.typeSteps(from, r)
	case how == Loose && names == 1 && !r.Callable:
		return x.wordSteps(from, r)
	case how == Loose && takes(from.Declaration, name):
		return nil
	}
	elsewhere := x.elsewhere.step(x, from, "")
	if from.Module == nil {
		return []step{x.byWholePath(nil), x.modulesNamed(nil, nil), x.anywhere(nil), x.belowLibrary, elsewhere}
	}
	inside, module, imports := x.inScope(from), x.inModule(from), x.inImports(from)
	lib := from.Module.Library
	steps := []step{inside, module, imports}
	if len(x.called) > 0 {
		module = both(x.byCalled(lib, from.Module), module)
		steps[1] = module
	}
	if how == Bracketed {
		steps = []step{module, imports, inside}
	}
	if _, ok := x.options.FrontEnds[lib.Language].(lang.Importer); ok {
		steps = append(steps, x.byDottedPath(from))
	}
	if how == Outward && x.native(from, name) {
		return steps // what the language brings along is nearer than other modules
	}
	if how == Outward && names == 1 { // a bare name is rather that of a declaration than of a file
		steps = append(steps, x.anywhere(lib))
	}
	steps = append(steps, x.modulesNamed(lib, nil), x.modulesNamed(nil, lib))
	if how != Bracketed && names > 1 || how == Explicit || how == Outward {
		steps = append(steps, x.anywhere(lib), x.byWholePath(nil), x.anywhere(nil), x.belowLibrary, elsewhere)
	}
	return steps
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
		return nil, false, nil
	}
	if d := x.below(first, names[1:]); d != nil {
		return []Target{{Declaration: d}}, false, nil
	}
	return nil, !x.open(first, 0), nil
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
	for _, i := range x.imports[from.File] {
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
		for _, m := range lib.Modules {
			if !strings.HasSuffix(m.Path, end) || !x.seen(m) {
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
		for _, lib := range x.Project.Libraries {
			if only != nil && lib != only || lib == not {
				continue
			}
			for _, m := range lib.Modules {
				if m.Name != names[0] && m.Last() != names[0] || !x.seen(m) {
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

// member finds a member by name: the declaration's own, or one that it has
// through what it embeds.
func (x *Index) member(d *model.Declaration, name string) *model.Declaration {
	if own := d.Member(name); own != nil {
		return own
	}
	if seated := x.seats[d][name]; seated != nil {
		return seated
	}
	for _, base := range x.bases(d) {
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
	if own := d.Member(name); own != nil || depth > 8 {
		return own
	}
	for _, base := range x.bases(d) {
		if promoted := x.promoted(base, name, depth+1); promoted != nil {
			return promoted
		}
	}
	return nil
}

// openPath reports whether a missing last name may yet exist outside the project.
func (x *Index) openPath(m *model.Module, names []string) bool {
	first := m.Lookup(names[0])
	if first == nil {
		return x.takesFromOutside(m, names[0]) || x.elsewhere.open(m)
	}
	return len(names) > 1 && x.open(first, 0)
}

// takesFromOutside reports whether a module has a name, or may have it, from a
// module outside the project.
func (x *Index) takesFromOutside(m *model.Module, name string) bool {
	for _, f := range m.Files {
		for _, i := range x.imports[f] {
			if i.module == nil && i.member != "" && (i.name == name || i.member == "*") {
				return true
			}
		}
	}
	return false
}

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
	all := x.embedded(d)
	for _, e := range all {
		if e.declaration == nil || x.open(e.declaration, depth+1) {
			return true
		}
	}
	return false
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
	case outside.names[last]:
		return true
	case len(r.Path) == 1:
		if from.Declaration != nil && !isUpper(last) && x.mayInherit(from.Declaration, 0) { // members begin with small letters
			return true
		}
		return says(from.Module, from.Module.Library.Habits.Makes)
	}
	for n := len(r.Path) - 1; n > 0; n-- {
		found := x.first(from, x.steps(from, Outward, prose.Name{Path: r.Path[:n]}), r.Path[:n], prose.Name{Path: r.Path[:n]}, Outward)
		d := found.Target.Declaration
		if found.Outcome == Found && d == nil && found.Target.Module != nil {
			if next := r.Path[n]; outside.own && x.isPackage(found.Target.Module) && strings.ToLower(next) == next && x.Near(from, written) == "" && x.Moved(from, written) == "" {
				return true // as well a module that is not source
			}
			h := found.Target.Module.Library.Habits
			return h != nil && (says(found.Target.Module, h.Makes) || h.AnyMember != "" && says(found.Target.Module, []string{h.AnyMember}))
		}
		if found.Outcome == Found && d != nil {
			return !d.Kind().IsType() && !d.Kind().IsCallable() || d.Kind().IsType() && x.mayInherit(d, 0)
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

// list adds what a file that takes all of something outside gives away and does not have.
func (o *outsideNames) list(m *model.Module, f *model.Facts) {
	for _, l := range f.Names {
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
	for _, m := range lib.Modules {
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
	for _, m := range lib.Modules {
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
