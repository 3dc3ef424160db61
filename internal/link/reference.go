package link

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file takes what a text writes for the name of something: what stands before a single
// ":" may be a library of the project, or the kind that is asked for.

// nameOf is what a text names, from where it stands.
func (x *Index) nameOf(from Scope, written string) prose.Name {
	prefix, rest, ok := prose.CutPrefix(written)
	switch {
	case ok && x.isLibrary(prefix):
		name := prose.ParseName(rest)
		name.Library = prefix
		return name
	case ok && x.isKind(from, prefix):
		name := prose.ParseName(rest)
		name.Kind = prefix
		return name
	}
	return prose.ParseName(written)
}

// isKind reports whether a word is a kind of declaration, or a name space of the language of
// a place.
func (x *Index) isKind(from Scope, word string) bool {
	if _, ok := model.ParseKind(word); ok {
		return true
	}
	if from.Module == nil || from.Module.Library.Habits == nil {
		return false
	}
	for _, space := range from.Module.Library.Habits.Spaces {
		if space == word {
			return true
		}
	}
	return false
}

// ofKind leaves, of several targets, those of the kind or name space that is asked for, those
// that share the name of one of them among them.
func ofKind(found []Target, kind string) []Target {
	if kind == "" {
		return found
	}
	var out []Target
	for _, t := range found {
		if t.Declaration == nil {
			if t.Module != nil && kind == model.KindModule.String() {
				out = append(out, t)
			}
			continue
		}
		for d := range t.Declaration.Namesakes {
			if is := (Target{Declaration: d}); (d.Space() == kind || d.Kind().String() == kind) && !slices.Contains(out, is) {
				out = append(out, is)
			}
		}
	}
	return out
}

// ofArity leaves, of several targets, those with as many type parameters in their name as a
// reference writes arguments, where there are such: most languages have none of these.
func ofArity(found []Target, arity int32) []Target {
	if arity == 0 {
		for i, t := range found {
			if t.Declaration != nil {
				found[i].Declaration = withArity(t.Declaration, 0)
			}
		}
		return found
	}
	var out []Target
	for _, t := range found {
		if t.Declaration == nil {
			continue
		}
		for d := range t.Declaration.Namesakes {
			if is := (Target{Declaration: d}); d.Arity() == arity && !slices.Contains(out, is) {
				out = append(out, is)
			}
		}
	}
	if len(out) == 0 {
		return found
	}
	return out
}

// ResolveNode finds what a node of a text names that is code or a reference.
func (x *Index) ResolveNode(from Scope, n *prose.Node) Result {
	switch {
	case n.Named != nil:
		return x.ResolveName(from, *n.Named, StrictnessOf(n))
	case n.Kind == prose.Code:
		return x.Resolve(from, n.Text, StrictnessOf(n))
	}
	return x.Resolve(from, n.Target, StrictnessOf(n))
}

func splitPath(path string) []string { return strings.Split(path, ".") }
