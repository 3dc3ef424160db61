package link

import (
	"iter"
	"slices"
	"strings"
	"unicode"

	"codrel/internal/model"
)

// This file picks the form of a callable that a reference means by its parameters.

// FormsInReach are the forms of a declaration that its pages show: of several, those that
// are visible enough.
func (x *Index) FormsInReach(d *model.Declaration) []model.Form {
	forms := d.Split()
	if len(forms) < 2 {
		return forms
	}
	seen := slices.DeleteFunc(slices.Clone(forms), func(f model.Form) bool { return !x.options.Reach.Includes(f.Visibility()) })
	if len(seen) == 0 { // users are handed it under another name than one that keeps it from them
		return forms
	}
	return seen
}

// Overloads are the signatures of the forms of a callable that its pages show, in the order
// in which they are written; nil where that is one.
func (x *Index) Overloads(d *model.Declaration) []model.At {
	if len(d.Occurrences) < 2 || d.Speaks(model.Words).Callable == nil {
		return nil
	}
	forms := x.FormsInReach(d)
	if len(forms) < 2 {
		return nil
	}
	out := make([]model.At, len(forms))
	for i := range forms {
		out[i] = forms[i].Head()
	}
	return out
}

// occurrencesInReach are those of the forms of a declaration that its pages show.
func (x *Index) occurrencesInReach(d *model.Declaration) iter.Seq[model.At] {
	if len(d.Occurrences) == 1 || d.Speaks(model.Words).Callable == nil {
		return slices.Values(d.Occurrences)
	}
	return func(yield func(model.At) bool) {
		for _, f := range x.FormsInReach(d) {
			for _, at := range f.Occurrences {
				if !yield(at) {
					return
				}
			}
		}
	}
}

// formAbove is which of the forms of a member of a base a form can take the place of, or -1:
// one that takes the same; else one that takes the same but for marks that a type may be
// nothing; else one that takes the same but for what hangs on type parameters, of the base or
// of its own.
func formAbove(form *model.Form, aboves []model.Form, base *model.Declaration) int {
	types := form.Head().ParamTypes()
	like := func(same func(a, b string) bool) int {
		return slices.IndexFunc(aboves, func(above model.Form) bool {
			return slices.EqualFunc(types, above.Head().ParamTypes(), same)
		})
	}
	best := like(func(a, b string) bool { return a == b })
	if best < 0 {
		best = like(func(a, b string) bool { return strings.ReplaceAll(a, "?", "") == strings.ReplaceAll(b, "?", "") })
	}
	if best >= 0 || base == nil {
		return best
	}
	around := base.Speaks(model.Words).TypeParams()
	return slices.IndexFunc(aboves, func(above model.Form) bool {
		params := slices.Concat(around, above.Head().TypeParams())
		if len(params) == 0 && base.Arity() == 0 {
			return false
		}
		return slices.EqualFunc(types, above.Head().ParamTypes(), func(own, above string) bool {
			return own == above || len(params) == 0 || hangsOn(above, params)
		})
	})
}

// hangsOn reports whether a type has one of some type parameters in it.
func hangsOn(typ string, params []model.Param) bool {
	for word := range strings.FieldsFuncSeq(typ, func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) && r != '_' && r != '`' }) {
		if slices.ContainsFunc(params, func(p model.Param) bool { return p.Name == word }) {
			return true
		}
	}
	return false
}

// isUnbound reports whether a member stands for itself alone, whatever shares its name.
func isUnbound(d *model.Declaration) bool {
	return standsAlone(d.Speaks(model.Words), d.Module.Library.Habits)
}

// standsAlone reports whether an occurrence stands for itself alone.
func standsAlone(at model.At, h *model.Habits) bool {
	return h != nil && slices.ContainsFunc(at.Modifiers(), func(word string) bool { return slices.Contains(h.Unbound, word) })
}

// overrides reports whether a member takes the place of one of its name in a base. In
// languages whose overloads stand each for itself one of its forms must.
func (x *Index) overrides(member, of *model.Declaration) bool {
	if isUnbound(member) || isUnbound(of) {
		return false
	}
	if h := member.Module.Library.Habits; h == nil || !h.EachForm || member.Speaks(model.Words).Callable == nil || of.Speaks(model.Words).Callable == nil {
		return true
	}
	aboves := x.FormsInReach(of)
	return slices.ContainsFunc(x.FormsInReach(member), func(form model.Form) bool { return formAbove(&form, aboves, of.Parent) >= 0 })
}

// pick narrows a target to the form that a list of parameters fits. fits is false
// where there are forms and none does: a reference without a list means them all.
func (x *Index) pick(t Target, params []string) (picked Target, fits bool) {
	if len(params) == 0 || t.Declaration == nil {
		return t, true
	}
	callable := callableOf(t.Declaration)
	if callable == nil || callable.Module.Library.Elsewhere != nil && len(callable.Occurrences) < 2 {
		return t, true // of another project's only form nobody has said anything
	}
	form, known := fitting(callable, params)
	switch {
	case form != nil && len(x.Overloads(callable)) > 1:
		return Target{Declaration: callable, Form: form}, true
	case form != nil:
		return t, true
	}
	if h := callable.Module.Library.Habits; known && h != nil && h.EachForm && callable.Parent != nil && callable.Kind() != model.KindConstructor {
		if t := x.pickInherited(callable, params); !t.None() {
			return t, true
		}
	}
	return t, !known
}

// fitting is the form of a callable that a list of parameters fits, or nil; known is false
// where it has no forms that could be compared.
func fitting(callable *model.Declaration, params []string) (form *model.Occurrence, known bool) {
	for _, form := range callable.Forms() {
		if form.Callable == nil {
			continue
		}
		known = true
		if fitsForm(form, params) {
			return form.Occurrence, true
		}
	}
	return nil, known
}

// pickInherited is the form that a list of parameters fits of a member of a base that shares a
// member's name: such forms stand beside the member's own.
func (x *Index) pickInherited(member *model.Declaration, params []string) Target {
	for level := range x.levels(member.Parent) {
		for _, base := range level {
			of := alike(base, member)
			if of == nil || of.Speaks(model.Words).Callable == nil {
				continue
			}
			if form, _ := fitting(of, params); form != nil {
				if len(x.Overloads(of)) > 1 {
					return Target{Declaration: of, Form: form}
				}
				return Target{Declaration: of}
			}
		}
	}
	return Target{}
}

// callableOf is what is called where a declaration is: itself, or what makes a value
// of a type; nil where nobody can tell.
func callableOf(d *model.Declaration) *model.Declaration {
	if d.Speaks(model.Words).Callable != nil {
		return d
	}
	for _, m := range d.Members {
		if m.Kind() == model.KindConstructor && m.Speaks(model.Words).Callable != nil {
			return m
		}
	}
	return nil
}

// fitsForm reports whether a list of types, or of names, is that of a form.
func fitsForm(form model.At, params []string) bool {
	types := form.ParamTypes()
	if len(types) != len(params) {
		return false
	}
	i := 0
	for n := range form.Callable.Params {
		p := &form.Callable.Params[n]
		if p.Implied {
			continue
		}
		if !fitsParam(p, types[i], params[i]) {
			return false
		}
		i++
	}
	return true
}

// fitsParam compares a written type, or name, with a parameter: types may leave out
// what stands before their last dot.
func fitsParam(p *model.Param, typ, written string) bool {
	for _, sign := range []string{"...", "**", "*"} {
		written = strings.TrimPrefix(written, sign)
		typ = strings.TrimPrefix(typ, sign)
	}
	name := strings.TrimPrefix(strings.TrimLeft(p.Name, "*"), "...")
	written = strings.TrimSuffix(written, "?")
	return written == typ || written == name || strings.HasSuffix(typ, "."+written) && !strings.ContainsAny(typ, "[]<>(){}|&")
}

// FormsOf are the forms of what a reference names, as references write them.
func (x *Index) FormsOf(d *model.Declaration) []string {
	callable := callableOf(d)
	if callable == nil {
		return nil
	}
	var out []string
	for _, form := range callable.Forms() {
		if form.Callable == nil {
			continue
		}
		types := form.ParamTypes()
		i := 0
		for n := range form.Callable.Params {
			if p := &form.Callable.Params[n]; !p.Implied {
				if types[i] == "" {
					types[i] = p.Name
				}
				i++
			}
		}
		out = append(out, d.Name+"("+strings.Join(types, ", ")+")")
	}
	return out
}
