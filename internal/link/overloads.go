package link

import (
	"slices"
	"strings"

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
	known := false
	for _, form := range callable.Forms() {
		if form.Callable == nil {
			continue
		}
		known = true
		if fitsForm(form, params) {
			if len(x.Overloads(callable)) > 1 {
				return Target{Declaration: callable, Form: form.Occurrence}, true
			}
			return t, true
		}
	}
	return t, !known
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
