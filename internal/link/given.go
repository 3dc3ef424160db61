package link

import (
	"iter"
	"slices"
	"strings"

	"codrel/internal/model"
)

// This file joins to types the bases that files give them from outside, as implementations of traits
// do wherever they stand.

// given is such a base, with the file that gives it.
type given struct {
	file *model.Facts
	base model.Base
}

// General is a trait that every type has which meets some bounds.
type General struct {
	Trait  *model.Declaration
	Every  string // what such types are called
	Bounds string // as written
	bounds []*model.Declaration
	names  []string // of those that are not of the project
}

// findGiven finds what bases types are given.
func (x *Index) findGiven() {
	x.given = map[*model.Declaration][]given{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			for _, f := range m.Files {
				for i := range f.Given {
					x.give(m, f, &f.Given[i])
				}
			}
		}
	}
}

func (x *Index) give(m *model.Module, f *model.Facts, g *model.Given) {
	for t := range g.Of.In(f.Text) {
		if t.Kind != model.TokenType {
			continue
		}
		if d := x.Type(x.within(m, g.In), f, t.Text).Declaration; d != nil && d.Kind().IsType() && d.Module.Library.Elsewhere == nil {
			x.given[d] = append(x.given[d], given{f, g.Base})
		}
		return
	}
}

// within is the module of a name that stands in the file of another one.
func (x *Index) within(m *model.Module, name string) *model.Module {
	if h := m.Library.Habits; name != "" && h != nil {
		if inner := x.importable(m.Library, m.Written()+h.PathMark+name); inner != nil {
			return inner
		}
	}
	return m
}

// basesOf are the bases of a type, each with what says it: its own head, or another file.
func (x *Index) basesOf(d *model.Declaration) iter.Seq2[model.At, model.Base] {
	return func(yield func(model.At, model.Base) bool) {
		for _, o := range d.Occurrences {
			for _, b := range o.Bases() {
				if !yield(o, b) {
					return
				}
			}
		}
		for _, g := range x.given[d] {
			if !yield(model.At{Occurrence: d.Occurrences[0].Occurrence, File: g.file}, g.base) {
				return
			}
		}
	}
}

// findGenerals finds the traits that every type has which meets some bounds.
func (x *Index) findGenerals() {
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			for _, f := range m.Files {
				for i := range f.Given {
					if g := &f.Given[i]; g.Every != "" {
						x.generalOf(x.within(m, g.In), f, g)
					}
				}
			}
		}
	}
}

func (x *Index) generalOf(m *model.Module, f *model.Facts, g *model.Given) {
	out := General{Every: g.Every, Bounds: g.Bounds.Text(f.Text)}
	for t := range g.Base.Type.In(f.Text) {
		if t.Kind == model.TokenType {
			out.Trait = x.Type(m, f, t.Text).Declaration
			break
		}
	}
	if out.Trait == nil || !x.InReach(out.Trait) {
		return
	}
	before := ""
	for t := range g.Bounds.In(f.Text) {
		lifted := strings.HasSuffix(before, "?") // "?Sized" asks for less, not for more
		if before = t.Text; t.Kind != model.TokenType || lifted {
			continue
		}
		if d := x.Type(m, f, t.Text).Declaration; d != nil {
			out.bounds = append(out.bounds, d)
		} else {
			out.names = append(out.names, lastName(t.Text))
		}
	}
	x.generals = append(x.generals, out)
}

// Generals are the traits that a type has because it meets what they ask of every type, or those of
// which a trait is one.
func (x *Index) Generals(d *model.Declaration) (has, isOne []General) {
	for _, g := range x.generals {
		switch {
		case g.Trait == d:
			isOne = append(isOne, g)
		case d.Kind().IsType() && d.Kind() != model.KindTrait && d.Kind() != model.KindType && x.meets(d, g):
			has = append(has, g)
		}
	}
	return has, isOne
}

// meets reports whether a type says that it has all that is asked of it.
func (x *Index) meets(d *model.Declaration, g General) bool {
	if len(g.bounds)+len(g.names) == 0 {
		return false // all have it, which the page of the trait says
	}
	names := map[string]bool{}
	for at, b := range x.basesOf(d) {
		for t := range b.Type.In(at.File.Text) {
			if t.Kind == model.TokenType {
				names[lastName(t.Text)] = true
				break
			}
		}
	}
	for _, name := range g.names {
		if !names[name] {
			return false
		}
	}
	bases := x.bases(d)
	return !slices.ContainsFunc(g.bounds, func(bound *model.Declaration) bool { return !slices.Contains(bases, bound) })
}

// lastName is the last part of a name.
func lastName(name string) string {
	return name[strings.LastIndexAny(name, ".:")+1:]
}
