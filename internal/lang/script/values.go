package script

import (
	"strings"

	"codrel/internal/model"
)

// This file reads the objects that names are bound to: what a comment describes in such an
// object is read by users as a member of the name, though no type declares it.

// described reads the members of the object that a declaration is bound to, as far as they
// have a doc comment. The value stands between two offsets, and may be handed to a function
// of the language that freezes it.
func (r *reader) described(index int32, valueAt, end int) {
	if r.wordAt(valueAt, "Object") {
		for _, call := range []string{"Object.freeze(", "Object.seal("} {
			if strings.HasPrefix(r.text[valueAt:], call) {
				valueAt = r.after(valueAt + len(call))
			}
		}
	}
	if r.byteAt(valueAt) != '{' || !strings.Contains(r.text[min(valueAt, end):end], "/**") {
		return
	}
	span := r.facts.Occurrences[index].Span
	first := r.aside(func() {
		r.at = valueAt + 1
		r.within(index, func() { r.braced(func() { r.property(index) }) })
	})
	kept := r.facts.Occurrences[:first]
	for _, o := range r.facts.Occurrences[first:] {
		if o.Doc == nil || !r.typed && r.tellsName(o.Doc, o.Name) { // what a comment names is read by its comment
			continue
		}
		o.Local = true
		kept = append(kept, o)
	}
	clear(r.facts.Occurrences[len(kept):])
	r.facts.Occurrences = kept
	r.facts.Occurrences[index].Span = span
}

// describedType does so for the type of a name, where that is an object.
func (r *reader) describedType(index int32, typeAt, end int) {
	if r.byteAt(typeAt) == '{' && strings.Contains(r.text[typeAt:end], "/**") && r.facts.Occurrences[index].Kind != model.KindFunction {
		r.objectType(index, typeAt)
	}
}

// tellsName reports whether a comment gives a name to what it describes.
func (r *reader) tellsName(doc *model.Doc, own string) bool {
	if tellsNames(doc.Text) {
		return true
	}
	_, _, named := r.valuesOf(doc).called(own)
	return named
}
