package link

import (
	"slices"
	"strings"
	"sync"

	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file finds names that the rules of C and C++ put beside where they are declared: constants
// of an enumeration without a scope of its own are names of what that stands in (6.2.1 of C's
// standard, [dcl.enum] of C++'s), and a path may go through namespaces and types.

// constant is the constant of a name of an enumeration at the top of a module, or nil.
func (x *Index) constant(m *model.Module, name string) *model.Declaration {
	if h := m.Library.Habits; h == nil || !h.OuterConstants {
		return nil
	}
	find, known := x.constants.Load(m)
	if !known {
		find = x.findConstants(m)
	}
	return find.(func() map[string]*model.Declaration)()[name]
}

// findConstants is how the constants of a module are found, once.
func (x *Index) findConstants(m *model.Module) any {
	find, _ := x.constants.LoadOrStore(m, sync.OnceValue(func() map[string]*model.Declaration {
		found := map[string]*model.Declaration{}
		for _, d := range m.Top {
			for _, c := range constantsOf(d) {
				if found[c.Name] == nil {
					found[c.Name] = c
				}
			}
		}
		return found
	}))
	return find
}

// constantsOf are those of an enumeration that are names of what it stands in.
func constantsOf(d *model.Declaration) []*model.Declaration {
	if d.Kind() != model.KindEnum || slices.Contains(d.Speaks(model.Signature).Modifiers(), "class") {
		return nil
	}
	return d.Members
}

// memberOrConstant is a member of a type, or a constant of an enumeration in it, or nil.
func (x *Index) memberOrConstant(d *model.Declaration, name string) *model.Declaration {
	if own := x.member(d, name); own != nil {
		return own
	}
	if h := d.Module.Library.Habits; h == nil || !h.OuterConstants {
		return nil
	}
	for _, in := range d.Members {
		for _, c := range constantsOf(in) {
			if c.Name == name {
				return c
			}
		}
	}
	return nil
}

// written is what a name with marks between its parts means in the code of a file: "Type::member",
// or one through namespaces.
func (x *Index) written(m *model.Module, f *model.Facts, text string) Target {
	names := strings.Split(m.Library.Habits.Dotted(strings.TrimPrefix(text, "::")), ".")
	if result, ok := x.wholly(Scope{Module: m, File: f}, names); ok {
		return result.Target
	}
	if d := x.bareTarget(m, f, names[0]).Declaration; d != nil && d.Kind().IsType() {
		for _, name := range names[1:] {
			if d = x.memberOrConstant(d, name); d == nil {
				break
			}
		}
		if d != nil {
			return Target{Declaration: d}
		}
	}
	if t := x.byPath(m, names); !t.None() {
		return t
	}
	if len(m.Library.Habits.Roots) > 0 {
		if result, ok := x.fromRoot(Scope{Module: m, File: f}, prose.Name{Path: names}); ok && result.Outcome == Found {
			return result.Target
		}
	}
	return Target{}
}

// namedAnew is the struct or union that a typedef gives another name, or nil.
func (x *Index) namedAnew(d *model.Declaration) *model.Declaration {
	if h := d.Module.Library.Habits; h == nil || !h.OuterConstants || d.Kind() != model.KindType {
		return nil
	}
	for _, at := range d.Occurrences {
		tagged := false
		for t := range at.Tokens(at.Signature) {
			switch {
			case t.Kind == model.TokenType && tagged:
				if of := x.bareTarget(d.Module, at.File, t.Text).Declaration; of != nil && of != d && len(of.Members) > 0 {
					return of
				}
			case t.Kind == model.TokenPunctuation && strings.Contains(t.Text, "("):
				return nil // a type of functions
			}
			if word := strings.TrimSpace(t.Text); word != "" {
				tagged = word == "struct" || word == "union"
			}
		}
	}
	return nil
}

// hasMarks reports whether a name is one with marks between its parts.
func hasMarks(h *model.Habits, text string) bool {
	return h != nil && slices.ContainsFunc(h.NameMarks, func(mark string) bool { return strings.Contains(text, mark) })
}
