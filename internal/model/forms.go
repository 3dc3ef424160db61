package model

import (
	"slices"
	"strings"
)

// Forms are the occurrences that callers can tell apart, by signature, each once: the
// one that speaks for the others first, then the rest in order.
func (d *Declaration) Forms() []At {
	first := d.Form()
	if len(d.Occurrences) == 1 {
		return []At{first}
	}
	var out []At
	seen := map[string]bool{}
	for _, at := range append([]At{first}, d.Occurrences...) {
		if at.Behind && !first.Behind || first.File.Stub && !at.File.Stub {
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
	return out
}

// Overloads are the forms of a callable that exist side by side, in the order in
// which they are written; nil where there is one. Forms of several builds are none.
func (d *Declaration) Overloads() []At {
	if len(d.Occurrences) < 2 || d.Main().Callable == nil {
		return nil
	}
	forms := d.Forms()
	if len(forms) < 2 || slices.ContainsFunc(forms, func(at At) bool { return len(at.AllConditions()) > 0 }) {
		return nil
	}
	slices.SortStableFunc(forms, func(a, b At) int {
		if a.File != b.File {
			return 0
		}
		return int(a.NameSpan.Start) - int(b.NameSpan.Start)
	})
	return forms
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
