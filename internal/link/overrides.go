package link

import (
	"iter"
	"slices"

	"codrel/internal/comment"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file finds what members take the place of, and whose text describes those
// that have none.

// highest bounds how many levels of bases are climbed; circles end there as well.
const highest = 50

// inherits finds the interfaces that a type fulfils by its own word or through
// its bases, and the members that its own members take the place of.
func (x *Index) inherits(out []relation, d *model.Declaration) []relation {
	bases := x.bases(d)
	if len(bases) == 0 || x.implicit(d.Module.Library) {
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
		for _, of := range x.overridden(d, member) {
			out = append(out, relation{member, of, overrides}, relation{of, member, overriddenBy})
		}
	}
	return out
}

// overridden are the members of bases that a member of a type takes the place of: the nearest
// one, or, in languages whose overloads stand each for itself, the nearest for each form.
func (x *Index) overridden(d, member *model.Declaration) []*model.Declaration {
	if h := member.Module.Library.Habits; h == nil || !h.EachForm || member.Speaks(model.Words).Callable == nil {
		for _, base := range x.bases(d) {
			if of := x.promotedInReach(base, member, 0); of != nil && of != member && x.overrides(member, of) {
				return []*model.Declaration{of}
			}
		}
		return nil
	}
	var out []*model.Declaration
	left := x.boundForms(member)
	for level := range x.levels(d) {
		for _, base := range level {
			of := alike(base, member)
			if of == nil || of == member || !x.InReach(of) || of.Speaks(model.Words).Callable == nil {
				continue
			}
			aboves, all := x.boundForms(of), len(left)
			left = slices.DeleteFunc(left, func(form model.Form) bool { return formAbove(&form, aboves, base) >= 0 })
			if len(left) < all {
				out = append(out, of)
			}
		}
		if len(left) == 0 {
			break
		}
	}
	return out
}

// boundForms are the forms of a member that its pages show, but for those that stand for
// themselves alone.
func (x *Index) boundForms(d *model.Declaration) []model.Form {
	return slices.DeleteFunc(slices.Clone(x.FormsInReach(d)), func(f model.Form) bool { return standsAlone(f.Head(), d.Module.Library.Habits) })
}

// interfacesOf are the interfaces among the bases of a type that is none, on all levels.
func (x *Index) interfacesOf(d *model.Declaration) []*model.Declaration {
	if d.Kind() == model.KindInterface {
		return nil
	}
	var out []*model.Declaration
	for bases := range x.levels(d) {
		for _, base := range bases {
			if base.Kind() == model.KindInterface {
				out = append(out, base)
			}
		}
	}
	return out
}

// levels are the bases of a type, those of its bases, and so on, each base once and at
// its nearest.
func (x *Index) levels(d *model.Declaration) iter.Seq[[]*model.Declaration] {
	return func(yield func([]*model.Declaration) bool) {
		seen := map[*model.Declaration]bool{d: true}
		for level, next := 0, []*model.Declaration{d}; len(next) > 0 && level < highest; level++ {
			var above []*model.Declaration
			for _, t := range next {
				for _, base := range x.bases(t) {
					if !seen[base] {
						seen[base] = true
						above = append(above, base)
					}
				}
			}
			if !yield(above) {
				return
			}
			next = above
		}
	}
}

// promotedInReach is the nearest member in reach, with the name of a member, that a base has
// or inherits.
func (x *Index) promotedInReach(d, member *model.Declaration, depth int) *model.Declaration {
	if own := alike(d, member); own != nil && x.InReach(own) || depth > 8 {
		return own
	}
	for _, base := range x.bases(d) {
		if of := x.promotedInReach(base, member, depth+1); of != nil {
			return of
		}
	}
	return nil
}

// sees reports whether a module is another, or imports it: an interface that it does
// not know of is fulfilled by chance, and its words may not fit.
func (x *Index) sees(m, other *model.Module) bool {
	if m == other {
		return true
	}
	for _, f := range m.Files {
		for _, i := range x.imports[f] {
			if i.module == other {
				return true
			}
		}
	}
	return false
}

// TextOf is the declaration whose comment describes a declaration: its own, or,
// where that says nothing or that its text is another's, the one that is meant, else
// the member that it takes the place of or fulfils. It is nil where there is no text at all.
func (x *Index) TextOf(d *model.Declaration) *model.Declaration {
	asked := d
	for level := 0; d != nil && level < highest; level++ {
		if x.hasText(d) {
			return d
		}
		d = x.nextText(d)
	}
	if x.formSays(asked) {
		return asked
	}
	return nil
}

// formSays reports whether one form of several has a text, where each is described on its own.
func (x *Index) formSays(d *model.Declaration) bool {
	h := d.Module.Library.Habits
	if h == nil || !h.EachForm || len(d.Occurrences) < 2 || !d.Kind().IsCallable() {
		return false
	}
	forms := x.FormsInReach(d)
	return slices.ContainsFunc(forms, func(f model.Form) bool {
		head := f.Head()
		if head.Doc == nil {
			return false
		}
		sections := x.Comments.Of(h, head.File, head.Doc)
		return sections.AllTaken() == nil && saysSomething(sections)
	})
}

// nextText is the declaration whose text stands for that of one without its own.
func (x *Index) nextText(d *model.Declaration) *model.Declaration {
	sections, _ := x.Sections(d)
	if taken := sections.AllTaken(); taken != nil && taken.Target != "" {
		return x.takenFrom(d, taken).Declaration
	}
	if d.Origin() != nil {
		return d.Origin()
	}
	if of := x.textNamed(d); of != nil {
		return of
	}
	if of := x.twinOf(d); of != nil && x.hasText(of) {
		return of
	}
	return x.above(d)
}

// textNamed is the declaration whose text the code itself gives a declaration, or nil.
func (x *Index) textNamed(d *model.Declaration) *model.Declaration {
	at := d.Speaks(model.Words)
	if at.Same() != "" && isSame(d) {
		return x.sameAs(d)
	}
	if at.Extra == nil || at.Extra.TextOf == "" {
		return nil
	}
	names := splitPath(at.Extra.TextOf)
	if d.Parent != nil {
		if of := x.member(d.Parent, names[0]); of != nil {
			return x.below(of, names[1:])
		}
	}
	of := x.Type(d.Module, at.File, at.Extra.TextOf).Declaration
	if of != nil && of.Speaks(model.Words).Callable == nil && !of.Kind().IsType() {
		return nil
	}
	return of
}

// InheritedText is the declaration whose text a node of a declaration's comment stands
// for, or nil.
func (x *Index) InheritedText(d *model.Declaration, n *prose.Node) *model.Declaration {
	of := x.above(d)
	if n.Target != "" {
		of = x.takenFrom(d, n).Declaration
	}
	if of == nil || of == d {
		return nil
	}
	if of = x.TextOf(of); of == d {
		return nil
	}
	return of
}

// takenFrom is what a node names whose text is to stand in its place.
func (x *Index) takenFrom(d *model.Declaration, n *prose.Node) Target {
	if n.Named != nil {
		return x.ResolveName(ScopeOf(d), *n.Named, MayBeExternal).Target
	}
	return x.Resolve(ScopeOf(d), n.Target, Explicit).Target
}

// hasText reports whether a declaration has a comment with words of its own.
func (x *Index) hasText(d *model.Declaration) bool {
	at := d.Speaks(model.Words)
	if at.Doc == nil {
		return false
	}
	sections := x.Comments.Of(d.Module.Library.Habits, at.File, at.Doc)
	if taken := sections.AllTaken(); taken != nil {
		return !taken.Strict && x.InheritedText(d, taken) == nil // words that are meant as they are
	}
	return saysSomething(sections)
}

func saysSomething(s *comment.Sections) bool {
	return len(s.Body) > 0 || len(s.Parts) > 0 || len(s.Deprecated) > 0 || s.Obsolete
}

// textOfBases is the first base of a type that has a text. It is asked for where a
// comment says that its text is another's: a type without a comment has no text.
func (x *Index) textOfBases(d *model.Declaration) *model.Declaration {
	if s, _ := x.Sections(d); s.AllTaken() == nil && !x.takesPart(s) {
		return nil
	}
	for _, base := range x.bases(d) {
		if x.hasText(base) {
			return base
		}
	}
	return nil
}

// takesPart reports whether some of a comment is another declaration's text.
func (x *Index) takesPart(s *comment.Sections) bool {
	found := false
	for nodes := range s.All {
		prose.Walk(nodes, func(n *prose.Node) bool {
			found = found || n.Kind == prose.Inherited
			return !found
		})
	}
	return found
}

// above is the member that a member takes the place of, or that it fulfils where
// types fulfil interfaces without saying so; of a type, the base that it names in its comment's stead.
func (x *Index) above(d *model.Declaration) *model.Declaration {
	if list := x.Relations(d).Overrides; len(list) > 0 {
		return list[0]
	}
	if d.Kind().IsType() {
		return x.textOfBases(d)
	}
	if isUnbound(d) {
		return nil
	}
	if d.Kind() == model.KindConstructor {
		return x.constructorAbove(d)
	}
	if d.Parent != nil && !x.implicit(d.Module.Library) {
		for _, base := range x.bases(d.Parent) { // bases that users cannot name have texts too
			if of := x.promotedText(base, d, 0); of != nil && of != d {
				return of
			}
		}
	}
	if d.Parent == nil || !d.Kind().IsCallable() || !x.implicit(d.Module.Library) {
		return nil
	}
	var first *model.Declaration
	for _, i := range x.Relations(d.Parent).Implements {
		if m := i.Member(d.Name); m != nil && x.sees(d.Module, i.Module) && x.hasText(m) && (first == nil || i.Module == d.Module && first.Module != d.Module) {
			first = m
		}
	}
	return first
}

// constructorAbove is the constructor of a base that takes what one takes, or nil. Like the
// base of a type it is asked for where a comment says that its text is another's.
func (x *Index) constructorAbove(d *model.Declaration) *model.Declaration {
	if s, _ := x.Sections(d); d.Parent == nil || s.AllTaken() == nil && !x.takesPart(s) {
		return nil
	}
	forms := x.FormsInReach(d)
	for _, base := range x.bases(d.Parent) {
		for _, member := range base.Members {
			if member.Kind() != model.KindConstructor || !x.hasText(member) {
				continue
			}
			aboves := x.FormsInReach(member)
			if slices.ContainsFunc(forms, func(own model.Form) bool { return formAbove(&own, aboves, base) >= 0 }) {
				return member
			}
		}
	}
	return nil
}

// alike is the member of a type that has the name of a member of another one, in the same
// name space, or nil.
func alike(d, member *model.Declaration) *model.Declaration {
	own := d.Member(member.Name)
	if own == nil || own.Space() == member.Space() {
		return own
	}
	for other := range own.Namesakes {
		if other.Space() == member.Space() {
			return other
		}
	}
	return nil
}

// promotedText is the nearest member with a text, with the name of a member, that a base has
// or inherits.
func (x *Index) promotedText(d, member *model.Declaration, depth int) *model.Declaration {
	if own := alike(d, member); own != nil && x.hasText(own) || depth > 8 {
		return own
	}
	for _, base := range x.bases(d) {
		if of := x.promotedText(base, member, depth+1); of != nil {
			return of
		}
	}
	return nil
}

// Summary is the first sentence of what describes a declaration, as inline nodes,
// and where names in it stand.
func (x *Index) Summary(d *model.Declaration) ([]prose.Node, Scope) {
	for level := 0; d != nil && level < highest; level++ {
		if d = x.TextOf(d); d == nil {
			break
		}
		sections, _ := x.Sections(d)
		if len(sections.Body) == 0 {
			return nil, ScopeOf(d)
		}
		first := &sections.Body[0]
		taken := prose.Alone(first, prose.Inherited)
		if taken == nil {
			nodes, scope := x.Opening(sections.Body, ScopeOf(d))
			return prose.Summary(nodes), scope
		}
		if taken.Info != "" {
			part, of := x.TextTaken(d, nil, taken)
			if of == nil {
				return nil, Scope{}
			}
			nodes, scope := x.Opening(part.Body, ScopeOf(of))
			return prose.Summary(nodes), scope
		}
		d = x.InheritedText(d, taken)
	}
	return nil, Scope{}
}

// TextsFrom are the declarations that parts of a declaration's comment are taken from: because
// it says so, or because comments above say what it does not.
func (x *Index) TextsFrom(d *model.Declaration) []*model.Declaration {
	doc := d.Speaks(model.Words).Doc
	if doc == nil || !x.hasText(d) {
		return nil
	}
	var out []*model.Declaration
	add := func(of *model.Declaration) {
		if of != nil && !slices.Contains(out, of) {
			out = append(out, of)
		}
	}
	sections, _ := x.Sections(d)
	if comment.MayTake(d.Module.Library.Habits, doc) {
		for nodes := range sections.All {
			prose.Walk(nodes, func(n *prose.Node) bool {
				if n.Kind == prose.Inherited {
					add(x.InheritedText(d, n))
				}
				return true
			})
		}
	}
	for _, of := range x.Taken(d, x.MainForm(d), sections) {
		add(of.Of)
	}
	return out
}

// MayHaveMore reports whether the type of a member, or a type itself, has bases that
// nobody here has read. So has a member that every type of the language has.
func (x *Index) MayHaveMore(d *model.Declaration) bool {
	if h := d.Module.Library.Habits; h != nil && d.Parent != nil && slices.Contains(h.OfAll, d.Name) {
		return true
	}
	for d.Parent != nil && !d.Kind().IsType() {
		d = d.Parent
	}
	return d.Kind().IsType() && x.open(d, 0)
}
