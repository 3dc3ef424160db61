package model

import (
	"slices"
	"strings"
)

// Form is what a caller picks of a declaration: one of its overloads, or all of it where it
// has none. Its occurrences are what makes it up: header and body, a stub and the code, one
// for each build, the parts of a type.
type Form struct {
	Occurrences []At // in the order of files and lines; len > 0
	head        int
}

// Head is the occurrence whose signature callers see.
func (f *Form) Head() At { return f.Occurrences[f.head] }

// Doc is the comment on the form itself, or nil.
func (f *Form) Doc() (*Doc, *Facts) {
	for _, at := range f.Occurrences {
		if at.Doc != nil {
			return at.Doc, at.File
		}
	}
	return nil, nil
}

// Visibility is the form's own, as written: that of the occurrence that shows the most.
func (f *Form) Visibility() Visibility {
	v := f.Occurrences[0].Visibility
	for _, at := range f.Occurrences[1:] {
		v = min(v, at.Visibility)
	}
	return v
}

// Split takes a declaration apart into its forms, in the order in which they are written.
// What is no callable has one.
func (d *Declaration) Split() []Form {
	if len(d.Occurrences) == 1 || d.Speaks(Words).Callable == nil {
		return []Form{d.whole()}
	}
	heads := d.heads()
	if len(heads) < 2 || !d.overloaded() && slices.ContainsFunc(heads, func(at At) bool { return len(at.AllConditions()) > 0 }) {
		return []Form{d.whole()}
	}
	var forms []Form
	builds := slices.ContainsFunc(heads, func(at At) bool { return len(at.AllConditions()) > 0 })
	for _, head := range heads {
		if !builds || !slices.ContainsFunc(forms, func(f Form) bool { return f.builtOtherwise(head) }) {
			forms = append(forms, Form{Occurrences: []At{head}})
		}
	}
	slices.SortStableFunc(forms, func(a, b Form) int {
		if a.Head().File != b.Head().File {
			return 0
		}
		return int(a.Head().NameSpan.Start) - int(b.Head().NameSpan.Start)
	})
	heading := make(map[*Occurrence]bool, len(forms))
	for i := range forms {
		heading[forms[i].Head().Occurrence] = true
	}
	for _, at := range d.Occurrences {
		if !heading[at.Occurrence] {
			f := &forms[formOf(forms, at)]
			f.Occurrences = append(f.Occurrences, at)
		}
	}
	return forms
}

// overloaded reports whether the declaration's language tells callables of one name apart by
// their parameters, whatever conditions there are.
func (d *Declaration) overloaded() bool {
	if d.Module == nil {
		return false
	}
	h := d.Module.Library.Habits
	return h != nil && h.Overloads
}

// whole is the declaration as one form.
func (d *Declaration) whole() Form {
	head := d.Speaks(Signature)
	i := slices.IndexFunc(d.Occurrences, func(at At) bool { return at.Occurrence == head.Occurrence })
	return Form{Occurrences: d.Occurrences, head: max(i, 0)}
}

// builtOtherwise reports whether an occurrence is the form under other conditions: then
// callers do not pick between the two.
func (f *Form) builtOtherwise(at At) bool {
	head := f.Head()
	return (len(head.AllConditions()) > 0 || len(at.AllConditions()) > 0) && calledAlike(head, at)
}

// calledAlike reports whether two callables take the same: as many type parameters, and
// parameters of the same types.
func calledAlike(a, b At) bool {
	return len(a.TypeParams()) == len(b.TypeParams()) && slices.Equal(a.ParamTypes(), b.ParamTypes())
}

// formOf is the index of the form that an occurrence is a part of which is no head: the one
// with its parameters, else the last that is written before it.
func formOf(forms []Form, at At) int {
	before := 0
	for i := range forms {
		head := forms[i].Head()
		if head.File == at.File && head.NameSpan.Start < at.NameSpan.Start {
			before = i
		}
	}
	if at.Callable != nil {
		if i := slices.IndexFunc(forms, func(f Form) bool { return calledAlike(f.Occurrences[0], at) }); i >= 0 {
			return i
		}
	}
	return before
}

// heads are the occurrences that callers can tell apart, by signature, each once: the
// one that speaks for the others first, then the rest in order.
func (d *Declaration) heads() []At {
	first := d.Speaks(Signature)
	if len(d.Occurrences) == 1 {
		return []At{first}
	}
	var out []At
	seen := map[string]bool{}
	for _, at := range append([]At{first}, d.Occurrences...) {
		if at.Implementation && !first.Implementation || first.File.Stub && !at.File.Stub {
			continue // callers see other forms than this
		}
		if at.Callable == nil != (first.Callable == nil) || at.Kind.IsType() != first.Kind.IsType() {
			continue // a name that is bound anew, as to a faster twin of what it was
		}
		if text := at.Signature.Text(at.File.Text); !seen[text] {
			seen[text] = true
			out = append(out, at)
		}
	}
	return d.tellingParts(out)
}

// tellingParts leaves, of the heads of a type that comes in parts, those that say more than
// its name: what it builds on. Where none does there is one.
func (d *Declaration) tellingParts(heads []At) []At {
	if len(heads) < 2 || d.Module == nil || !heads[0].Kind.IsType() {
		return heads
	}
	if h := d.Module.Library.Habits; h == nil || !h.Partial {
		return heads
	}
	said := func(at At) bool { return len(at.Bases()) > 0 || at.Callable != nil }
	if telling := slices.DeleteFunc(slices.Clone(heads), func(at At) bool { return !said(at) }); len(telling) > 0 {
		return telling
	}
	longest := slices.MaxFunc(heads, func(a, b At) int { return len(a.Signature) - len(b.Signature) })
	return []At{longest}
}

// Forms are the signatures of a declaration that callers can tell apart, those of several
// builds too: the one that speaks for the others first, then the rest in order.
func (d *Declaration) Forms() []At { return d.heads() }

// Overloads are the signatures of a callable's forms, in the order in which they are
// written; nil where there is one form.
func (d *Declaration) Overloads() []At {
	if len(d.Occurrences) < 2 || d.Speaks(Words).Callable == nil {
		return nil
	}
	forms := d.Split()
	if len(forms) < 2 {
		return nil
	}
	out := make([]At, len(forms))
	for i := range forms {
		out[i] = forms[i].Head()
	}
	return out
}

// AllConditions are what must hold for the occurrence to exist: for its file, then for itself.
func (a At) AllConditions() []string {
	if len(a.File.Conditions) == 0 {
		return a.Conditions()
	}
	return append(slices.Clone(a.File.Conditions), a.Conditions()...)
}

// ParamTypes are the types of the parameters that callers give, in normal form: as
// written, without blanks; "" where none is written.
func (a At) ParamTypes() []string {
	if a.Callable == nil {
		return nil
	}
	out := []string{}
	for i := range a.Callable.Params {
		if p := &a.Callable.Params[i]; !p.Implied {
			out = append(out, strings.Join(strings.Fields(p.Type.Code(a.File.Text)), ""))
		}
	}
	return out
}
