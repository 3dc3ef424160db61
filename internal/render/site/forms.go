package site

import (
	"net/url"
	"slices"
	"strconv"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/render/plan"
)

// This file draws what several forms of one callable have of their own: anchors,
// and comments on one form alone.

// formAnchor is the anchor of a form on a plate, or "" where it has none: it is the
// only one, or another with the same types has it.
func (v view) formAnchor(d *model.Declaration, form model.At, overloads bool) string {
	if !overloads || d.Parent == nil && d.Kind().IsType() {
		return ""
	}
	types := form.ParamTypes()
	for _, other := range d.Overloads() {
		if other.Occurrence == form.Occurrence {
			break
		}
		if slices.Equal(other.ParamTypes(), types) {
			return ""
		}
	}
	if v.onWhole(d) {
		return d.Path() + plan.FormAnchor(d, form)[len(plan.Anchor(d)):]
	}
	return plan.FormAnchor(d, form)
}

// fragmentOf is an anchor as it stands in an address.
func fragmentOf(anchor string) string { return (&url.URL{Fragment: anchor}).EscapedFragment() }

// formLink is the way to a form on this page.
func (v view) formLink(d *model.Declaration, form model.At) string {
	if anchor := v.formAnchor(d, form, true); anchor != "" {
		return "#" + fragmentOf(anchor)
	}
	return v.permalink(d)
}

// otherForm is a form with a comment of its own, beside the one that speaks for all.
type otherForm struct {
	n        int // from 1
	sections *prose.Sections
}

// otherForms are the forms whose comments say something else than the first one's.
func (v view) otherForms(d *model.Declaration) []otherForm {
	var out []otherForm
	seen := map[string]bool{}
	if doc := d.Main().Doc; doc != nil {
		seen[doc.Text] = true
	}
	for i, at := range d.Overloads() {
		if at.Doc == nil || seen[at.Doc.Text] {
			continue
		}
		seen[at.Doc.Text] = true
		out = append(out, otherForm{i + 1, v.plan.Links.Comments.Of(d.Module.Library.Language, at.Doc)})
	}
	return out
}

// formTexts draws what comments on other forms say beside parameters and the like.
func (w *proseWriter) formTexts(forms []otherForm) {
	level := strconv.Itoa(max(2, min(6, w.level)))
	for _, f := range forms {
		if len(f.sections.Body) == 0 {
			continue
		}
		w.raw("<h" + level + ` class="part">`)
		w.escaped(w.v.say("form", "n", strconv.Itoa(f.n)))
		w.raw("</h" + level + ">\n")
		w.blocks(f.sections.Body)
	}
}

// ofForms are the parts of other forms' comments: what the first one says nothing of,
// and results, which may differ from form to form.
func (w *proseWriter) ofForms(own *prose.Sections, forms []otherForm) []partOf {
	var out []partOf
	said := []*prose.Sections{own}
	for _, f := range forms {
		for i := range f.sections.Parts {
			p := f.sections.Parts[i]
			p.Entries = slices.DeleteFunc(slices.Clone(p.Entries), func(e prose.Entry) bool {
				return e.Name != "" && slices.ContainsFunc(said, func(s *prose.Sections) bool { return s.Entry(p.Kind, e.Name) != nil })
			})
			if len(p.Entries) > 0 || len(p.Body) > 0 {
				out = append(out, partOf{&p, w.scope, f.n})
			}
		}
		said = append(said, f.sections)
	}
	return out
}

// formOf is the form of a declaration that a target means, if it means one.
func formOf(t link.Target) (model.At, bool) {
	for _, at := range t.Declaration.Overloads() {
		if at.Occurrence == t.Form {
			return at, true
		}
	}
	return model.At{}, false
}
