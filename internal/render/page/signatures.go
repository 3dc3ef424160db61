package page

import (
	"slices"

	"codrel/internal/model"
)

// How many differing signatures are shown; what is more is counted.
const (
	mostVariants  = 6 // of several builds
	MostOverloads = 60
)

// Signatures are those that a declaration is shown with.
type Signatures struct {
	Forms     []model.At
	Overloads int // how many of them, from the first on, are overloads, which have numbers
	More      int // that are not shown
}

// Signatures are the overloads of a declaration, or what it is in different builds, and the type
// that shares its name.
func (m *Maker) Signatures(d *model.Declaration) Signatures {
	if forms := m.Links.Overloads(d); forms != nil {
		more := max(0, len(forms)-MostOverloads)
		forms = forms[:len(forms)-more]
		return Signatures{withType(d, forms), len(forms), more}
	}
	forms := d.Forms()
	if seen := m.Links.FormsInReach(d); len(forms) > 1 && len(d.Split()) > 1 {
		forms = []model.At{seen[0].Head()}
	}
	more := max(0, len(forms)-mostVariants)
	return Signatures{Forms: withType(d, forms[:len(forms)-more]), More: more}
}

// withType adds to the forms of a callable the type that shares its name.
func withType(d *model.Declaration, forms []model.At) []model.At {
	typ := TypeForm(d)
	if !typ.Kind.IsType() || typ.Kind == model.KindNamespace || slices.ContainsFunc(forms, func(at model.At) bool { return at.Kind.IsType() }) {
		return forms
	}
	return append(slices.Clone(forms), typ)
}
