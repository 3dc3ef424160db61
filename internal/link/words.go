package link

import (
	"iter"
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file says what a single word means where comments write code or a type: prose
// is full of English words that something in the project is called by as well.

// isPlain reports whether a name could be an English word in the middle of a sentence:
// nothing but small letters.
func isPlain(name string) bool {
	return name != "" && strings.Trim(name, "abcdefghijklmnopqrstuvwxyz") == ""
}

// typeSteps are the places where a type that a comment writes is looked for: what the
// file can name and, where capitals or dots show that a name is meant, the library.
func (x *Index) typeSteps(from Scope, r prose.Name) iter.Seq[step] {
	if from.Module == nil {
		return noSteps
	}
	if len(r.Path) > 1 {
		return x.steps(from, Loose, r)
	}
	return func(yield func(step) bool) {
		name := r.Path[0]
		if !yield(onlyTypes(x.inScope(from))) || !yield(onlyTypes(x.inModule(from))) || !yield(onlyTypes(x.inImports(from))) {
			return
		}
		if isUpper(name) && !x.native(from, name) && !x.native(from, strings.ToLower(name)) {
			yield(onlyTypes(x.anywhere(from.Module.Library)))
		}
	}
}

// wordSteps are the places where a single word in a code span is looked for. It means
// no member of the type that is spoken of, which would be written as one, and nothing
// that the comment's subject takes; an English word is no module but one that the file
// imports.
func (x *Index) wordSteps(from Scope, r prose.Name) iter.Seq[step] {
	name := r.Path[0]
	if from.Module != nil && takes(from.Declaration, name) {
		return noSteps
	}
	return func(yield func(step) bool) {
		switch {
		case from.Module == nil:
			_ = yield(x.byWholePath(nil)) && (isPlain(name) || yield(x.modulesNamed(nil, nil))) && yield(x.anywhere(nil)) && yield(x.elsewhere.step(x, from, ""))
			return
		case isPlain(name):
			_ = yield(declared(x.inModule(from))) && yield(x.inImports(from))
			return
		}
		nested := func(names []string) ([]Target, bool, *Target) {
			found, partial, beyond := x.enclosing(from, names)
			return slices.DeleteFunc(found, func(t Target) bool { return !t.Declaration.Kind().IsType() }), partial, beyond
		}
		lib := from.Module.Library
		_ = yield(nested) && yield(x.inModule(from)) && yield(x.inImports(from)) && !x.native(from, name) &&
			yield(x.modulesNamed(lib, nil)) && yield(x.modulesNamed(nil, lib))
	}
}

// onlyTypes leaves out of what a step finds all that is no type; a name with a capital
// may also be that of a value that stands for one.
func onlyTypes(in step) step {
	return func(names []string) ([]Target, bool, *Target) {
		found, _, beyond := in(names)
		return slices.DeleteFunc(found, func(t Target) bool {
			return t.Declaration == nil || t.Declaration.Kind() == model.KindModule || !t.Declaration.Kind().IsType() && !isUpper(names[0])
		}), false, beyond
	}
}

// declared leaves out of what a step finds the modules.
func declared(in step) step {
	return func(names []string) ([]Target, bool, *Target) {
		found, partial, beyond := in(names)
		return slices.DeleteFunc(found, func(t Target) bool { return t.Declaration == nil }), partial, beyond
	}
}

// takes reports whether a declaration has a parameter of a name.
func takes(d *model.Declaration, name string) bool {
	if d == nil || !d.Kind().IsCallable() {
		return false
	}
	for _, o := range d.Occurrences {
		for t := range o.Tokens(o.Signature) {
			if t.Kind == model.TokenParameter && t.Text == name {
				return true
			}
		}
	}
	return false
}

// ownMember cuts the word off that stands for the object a comment speaks of.
func ownMember(of *model.Declaration, names []string) ([]string, bool) {
	if of == nil || len(names) < 2 {
		return names, false
	}
	if h := of.Module.Library.Habits; h == nil || !slices.Contains(h.Self, names[0]) {
		return names, false
	}
	return names[1:], true
}

// ownType is the type around what a comment speaks of, or that itself, where the word for it stands alone.
func ownType(of *model.Declaration, names []string) *model.Declaration {
	if of == nil || len(names) != 1 || !isUpper(names[0]) {
		return nil
	}
	if h := of.Module.Library.Habits; h == nil || !slices.Contains(h.Self, names[0]) {
		return nil
	}
	for ; of != nil; of = of.Parent {
		if of.Kind().IsType() {
			return of
		}
	}
	return nil
}

// nearer leaves, of several targets, those that the packages around a place re-export, the
// innermost first, and else those that a package re-exports at all: what users are handed
// is rather meant than what is called the same somewhere inside.
func (x *Index) nearer(from Scope, found []Target) []Target {
	if len(found) < 2 {
		return found
	}
	best, out := -1, []Target(nil)
	for _, t := range found {
		rank := x.handed(from, t)
		if rank > best {
			best, out = rank, nil
		}
		if rank == best {
			out = append(out, t)
		}
	}
	return out
}

// handed ranks how near a target is handed to a place: 0 where no package re-exports it, 1
// where one does, more the deeper the package around both lies.
func (x *Index) handed(from Scope, t Target) int {
	if t.Declaration == nil || len(x.homes) == 0 {
		return 0
	}
	top := t.Declaration
	for depth := 0; top.Parent != nil && depth < 100; depth++ {
		top = top.Parent
	}
	home := x.homes[top]
	switch {
	case home == nil:
		return 0
	case from.Module == nil || home.Library != from.Module.Library || !isAround(home, from.Module):
		return 1
	}
	return 2 + len(home.Path)
}

// isAround reports whether a module is another one or a package around it.
func isAround(m, inner *model.Module) bool {
	rest, ok := strings.CutPrefix(inner.Path, m.Path)
	return ok && (rest == "" || m.Path == "" || rest[0] == '.' || rest[0] == '/')
}

// closest leaves, of several targets, the one that lies in the same innermost folder or
// package as the place, where it is alone in that: what a comment names is rather beside
// it than in another part of the library.
func closest(from Scope, found []Target) []Target {
	if len(found) < 2 || from.Module == nil {
		return found
	}
	best, at, alone := 0, -1, false
	for i, t := range found {
		m := t.Module
		if t.Declaration != nil {
			m = t.Declaration.Module
		}
		if m == nil || m.Library != from.Module.Library {
			return found
		}
		switch n := sharedParts(from.Module.Path, m.Path); {
		case n > best:
			best, at, alone = n, i, true
		case n == best:
			alone = false
		}
	}
	if !alone {
		return found
	}
	return found[at : at+1]
}

// sharedParts counts the elements that two module paths begin with alike.
func sharedParts(a, b string) (n int) {
	split := func(path string) []string {
		return strings.FieldsFunc(path, func(r rune) bool { return r == '/' || r == '.' })
	}
	x, y := split(a), split(b)
	for n < len(x) && n < len(y) && x[n] == y[n] {
		n++
	}
	return n
}
