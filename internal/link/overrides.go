package link

import (
	"codrel/internal/comment"
	"codrel/internal/model"
)

// This file finds what members take the place of, and whose text describes those
// that have none.

// highest bounds how many levels of bases are climbed; circles end there as well.
const highest = 50

// inherits finds the interfaces that a type fulfils by its own word or through
// its bases, and the members that its own members take the place of.
func (x *Index) inherits(out []relation, d *model.Declaration) []relation {
	bases := x.bases(d)
	if len(bases) == 0 || x.implicit(d.Module.Library.Language) {
		return out
	}
	for _, i := range x.interfacesOf(d) {
		if x.InReach(i) {
			out = append(out, relation{d, i, implements}, relation{i, d, implementedBy})
		}
	}
	for _, member := range d.Members {
		if member.Kind() == model.KindConstructor || !x.InReach(member) {
			continue
		}
		for _, base := range bases {
			if of := x.promoted(base, member.Name, 0); of != nil && of != member && x.InReach(of) {
				out = append(out, relation{member, of, overrides}, relation{of, member, overriddenBy})
				break
			}
		}
	}
	return out
}

// interfacesOf are the interfaces among the bases of a type that is none, on all levels.
func (x *Index) interfacesOf(d *model.Declaration) []*model.Declaration {
	if d.Kind() == model.KindInterface {
		return nil
	}
	var out []*model.Declaration
	seen := map[*model.Declaration]bool{d: true}
	for level, next := 0, []*model.Declaration{d}; len(next) > 0 && level < highest; level++ {
		var above []*model.Declaration
		for _, t := range next {
			for _, base := range x.bases(t) {
				if seen[base] {
					continue
				}
				seen[base] = true
				above = append(above, base)
				if base.Kind() == model.KindInterface {
					out = append(out, base)
				}
			}
		}
		next = above
	}
	return out
}

// TextOf is the declaration whose comment describes a declaration: its own, or,
// where that says nothing, the member that it takes the place of or fulfils. It is
// nil where there is no text at all.
func (x *Index) TextOf(d *model.Declaration) *model.Declaration {
	for level := 0; d != nil && level < highest; level++ {
		if x.hasText(d) {
			return d
		}
		d = x.above(d)
	}
	return nil
}

// hasText reports whether a declaration has a comment with words of its own.
func (x *Index) hasText(d *model.Declaration) bool {
	at := d.Main()
	return at.Doc != nil && saysSomething(x.Comments.Of(d.Module.Library.Language, at.Doc))
}

func saysSomething(s *comment.Sections) bool {
	return len(s.Body) > 0 || len(s.Parts) > 0 || len(s.Deprecated) > 0 || s.Obsolete
}

// above is the member that a member takes the place of, or that it fulfils where
// types fulfil interfaces without saying so.
func (x *Index) above(d *model.Declaration) *model.Declaration {
	if list := x.Relations(d).Overrides; len(list) > 0 {
		return list[0]
	}
	if d.Parent == nil || !d.Kind().IsCallable() || !x.implicit(d.Module.Library.Language) {
		return nil
	}
	var first *model.Declaration
	for _, i := range x.Relations(d.Parent).Implements {
		if m := i.Member(d.Name); m != nil && x.hasText(m) && (first == nil || i.Module == d.Module && first.Module != d.Module) {
			first = m
		}
	}
	return first
}
