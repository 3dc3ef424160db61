package model

import (
	"slices"
	"strings"
)

// Aspect is what one asks a declaration about: where several places declare it, not all of
// them can answer.
type Aspect uint8

// Aspects of a declaration.
const (
	Words     Aspect = iota // its comment, its visibility as written, its parameters
	Signature               // what callers see of it
	Nature                  // what kind of thing it is
)

// Speaks is the occurrence that speaks for the declaration in one of its aspects. It is the
// one place that says which occurrence is asked.
func (d *Declaration) Speaks(of Aspect) At {
	switch {
	case of == Signature && len(d.Occurrences) > 1:
		return d.Occurrences[d.signs()]
	case of == Nature:
		return d.Occurrences[d.nature]
	default:
		return d.Occurrences[d.words]
	}
}

// Settle finds who speaks for the declaration, when its occurrences and members are known.
func (d *Declaration) Settle() {
	d.words = int32(d.worded())
	d.nature = d.words
	if len(d.Occurrences) > 1 && len(d.Members) > 0 {
		d.nature = int32(d.holds())
	}
}

// Describe adds an occurrence that has the words for a declaration without any, and says
// nothing else of it.
func (d *Declaration) Describe(at At) {
	d.Occurrences = append(d.Occurrences, at)
	d.words = int32(len(d.Occurrences) - 1)
}

// worded is the first occurrence with a comment of its own, one with text before those
// that are a tag alone (as overloads have that are deprecated), then the first in a group
// that has one, then the first type, or callable, then the first. A namespace that shares
// its name with something else speaks for it last.
func (d *Declaration) worded() int {
	if len(d.Occurrences) == 1 {
		return 0
	}
	whole := slices.ContainsFunc(d.Occurrences, func(o At) bool { return o.Kind != KindNamespace })
	shows := d.Occurrences[0].Visibility // an overload that is kept from more does not speak for one that is not
	for _, o := range d.Occurrences {
		shows = min(shows, o.Visibility)
	}
	first := func(fits func(At) bool) int {
		return slices.IndexFunc(d.Occurrences, func(o At) bool {
			return (!whole || o.Kind != KindNamespace) && (o.Callable == nil || o.Visibility == shows) && fits(o)
		})
	}
	if i := first(func(o At) bool { return o.Doc != nil && !strings.HasPrefix(o.Doc.Text, "@") }); i >= 0 {
		longest := len(d.Occurrences[i].Doc.Text)
		if k := first(func(o At) bool {
			return o.Implementation && o.Doc != nil && len(o.Doc.Text) > longest && !strings.HasPrefix(o.Doc.Text, "@")
		}); k >= 0 {
			return k // the body's, which says more than that of one form
		}
		return i
	}
	if i := first(func(o At) bool { return o.Doc != nil }); i >= 0 {
		return i
	}
	if i := first(func(o At) bool { return o.GroupDoc != nil }); i >= 0 {
		return i
	}
	if i := first(func(o At) bool { return o.Kind.IsType() }); i >= 0 {
		return i // a name that is bound anew under a condition
	}
	if i := first(func(o At) bool { return o.Callable != nil }); i >= 0 {
		return i
	}
	return max(0, first(func(At) bool { return true }))
}

// holds is the occurrence of a declaration with members that says what it is: a type that
// shares its name with a value is the type, since that has the page.
func (d *Declaration) holds() int {
	words := int(d.words)
	if d.Occurrences[words].Kind.IsType() {
		return words
	}
	if i := slices.IndexFunc(d.Occurrences, func(o At) bool { return o.Kind.IsType() && o.Kind != KindNamespace }); i >= 0 {
		return i
	}
	if i := slices.IndexFunc(d.Occurrences, func(o At) bool { return o.Kind.IsType() }); i >= 0 {
		return i
	}
	return words
}

// signs is the occurrence whose signature callers see: a stub's before that of the code,
// and none that only gives a body to forms declared before it.
func (d *Declaration) signs() int {
	stub, code := -1, false
	for i, o := range d.Occurrences {
		code = code || !o.File.Stub
		if o.File.Stub && (stub < 0 || d.Occurrences[stub].Kind == KindNamespace) { // a namespace of the name says nothing of the rest
			stub = i
		}
	}
	if stub >= 0 && code {
		return stub
	}
	if !d.Occurrences[d.words].Implementation {
		return int(d.words)
	}
	if i := slices.IndexFunc(d.Occurrences, func(o At) bool { return !o.Implementation }); i >= 0 {
		return i
	}
	return int(d.words)
}
