package site

import (
	"context"
	"net/url"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// This file draws what several forms of one callable have of their own: anchors,
// and comments on one form alone.

// formAnchors are the anchors of forms, in their order; "" where a form has none,
// because another with the same types has it.
func (v view) formAnchors(d *model.Declaration, forms []model.At) []string {
	out := make([]string, len(forms))
	taken := map[string]bool{}
	for i, form := range forms {
		anchor := plan.FormAnchor(d, form)
		if taken[anchor] {
			continue
		}
		taken[anchor] = true
		if v.onWhole(d) {
			anchor = d.Label() + anchor[len(plan.Anchor(d)):]
		}
		out[i] = anchor
	}
	return out
}

// formAnchor is the anchor of a form on a plate, or "". In a language that has overloads the
// only form of a callable has one too: it stays the same when another form comes.
func (v view) formAnchor(d *model.Declaration, forms []model.At, anchors []string, i int) string {
	if anchors != nil {
		return anchors[i]
	}
	h := d.Module.Library.Habits
	if h == nil || !h.Overloads || len(forms) != 1 || !d.Kind().IsCallable() || forms[0].Callable == nil {
		return ""
	}
	return v.formAnchors(d, forms)[0]
}

// fragmentOf is an anchor as it stands in an address.
func fragmentOf(anchor string) string { return (&url.URL{Fragment: anchor}).EscapedFragment() }

// formLink is the way to a form on this page.
func (v view) formLink(d *model.Declaration, anchor string) string {
	if anchor != "" {
		return "#" + fragmentOf(anchor)
	}
	return v.permalink(d)
}

// otherForm is a form with a comment of its own, beside the one that speaks for all.
type otherForm struct {
	n        int    // from 1, or 0 where it is no overload
	title    string // of one that is none
	same     []int  // others with the same comment
	sections *prose.Sections
	scope    link.Scope         // where names in the text stand
	of       *model.Declaration // whose text it is, where that is another's
}

// otherForms are the forms whose comments say something else than the first one's: overloads,
// what shares the name, and what stands for it under other conditions.
func (v view) otherForms(d *model.Declaration) []otherForm {
	var out []otherForm
	main := d.Speaks(model.Words).Doc
	seen := map[string]int{} // index in out
	forms := v.plan.Links.FormsInReach(d)
	for i := range forms {
		doc, of := model.DocOf{Doc: forms[i].Head().Doc, File: forms[i].Head().File}, d
		if h := d.Module.Library.Habits; doc.Doc == nil && h != nil && h.EachForm {
			doc, of = v.plan.Links.TextOfForm(d, &forms[i])
		}
		if len(forms) < 2 || doc.Doc == nil || main != nil && doc.Doc.Text == main.Text {
			continue
		}
		if k, known := seen[doc.Doc.Text]; known {
			out[k].same = append(out[k].same, i+1)
			continue
		}
		seen[doc.Doc.Text] = len(out)
		form := otherForm{n: i + 1, sections: v.plan.Links.Comments.Of(of.Module.Library.Habits, doc.File, doc.Doc), scope: link.ScopeOf(of)}
		if of != d {
			form.of = of
		}
		out = append(out, form)
	}
	for _, at := range d.Occurrences {
		if at.Visibility > d.Speaks(model.Words).Visibility && at.Callable != nil {
			continue // an overload that is kept from users
		}
		if at.Doc == nil || at.Implementation || main == nil || at.Doc.Text == main.Text {
			continue
		}
		title := at.Kind.String()
		if c := page.Conditions(at); c != page.Conditions(d.Speaks(model.Words)) {
			title = v.say("for", "conditions", c)
		} else if at.Kind == d.Speaks(model.Words).Kind {
			continue
		}
		if _, known := seen[at.Doc.Text]; !known && title != "" {
			seen[at.Doc.Text] = len(out)
			out = append(out, otherForm{title: title, sections: v.plan.Links.Comments.Of(d.Module.Library.Habits, at.File, at.Doc), scope: link.ScopeOf(d)})
		}
	}
	return out
}

// formTexts draws what comments on other forms say beside parameters and the like.
func (w *proseWriter) formTexts(forms []otherForm) {
	level := strconv.Itoa(max(2, min(6, w.level)))
	for _, f := range forms {
		gone := f.sections.Obsolete || len(f.sections.Deprecated) > 0
		if len(f.sections.Body) == 0 && !gone {
			continue
		}
		w.raw("<h" + level + ` class="part">`)
		if f.n > 0 {
			w.escaped(w.v.say("form", "n", strconv.Itoa(f.n)))
		} else {
			w.escaped(upperFirst(f.title))
		}
		for _, n := range f.same {
			w.escaped(w.v.say("comma") + w.v.say("form", "n", strconv.Itoa(n)))
		}
		w.raw("</h" + level + ">\n")
		w.formText(f, gone)
	}
}

// formText draws what the comment on one form says.
func (w *proseWriter) formText(f otherForm, gone bool) {
	own := w.Scope
	defer func() { w.Scope = own }()
	w.Scope = f.scope
	if gone {
		w.gone(f.sections.Deprecated)
	}
	w.blocks(f.sections.Body)
	if f.of != nil {
		w.raw("<p>")
		w.sentence(w.v.said.Names("text-from", []*model.Declaration{f.of}, 1, nil))
		w.raw("</p>\n")
	}
}

// sentence draws a sentence with names that may be links.
func (w *proseWriter) sentence(s page.Sentence) {
	var b strings.Builder
	if err := w.v.sentence(s).Render(context.Background(), &b); err == nil { // a builder takes all that it is given
		w.raw(b.String())
	}
}

// upperFirst is a text with a capital at its beginning.
func upperFirst(s string) string {
	r, size := utf8.DecodeRuneInString(s)
	return string(unicode.ToUpper(r)) + s[size:]
}

// gone says that something is deprecated, with the advice that there is.
func (w *proseWriter) gone(advice []prose.Node) {
	w.raw(`<div class="deprecated"><p><strong>`)
	w.escaped(w.v.say("gone-mark"))
	w.raw("</strong>")
	for len(advice) > 0 && advice[0].Kind == prose.Paragraph {
		w.raw(" ")
		w.inline(advice[0].Children)
		advice = advice[1:]
	}
	w.raw("</p>\n")
	w.blocks(advice)
	w.raw("</div>\n")
}

// ofForms are the parts of other forms' comments: what the first one says nothing of, or
// says in other words, and results, which may differ from form to form.
func (w *proseWriter) ofForms(own *prose.Sections, forms []otherForm) []page.PartOf {
	var out []page.PartOf
	if len(forms) == 0 {
		return nil
	}
	type described struct {
		kind       prose.PartKind
		name, text string
	}
	of := func(kind prose.PartKind, e prose.Entry) described {
		return described{kind, e.Name, prose.Plain(e.Text)}
	}
	said := map[described]bool{}
	note := func(s *prose.Sections) {
		for i := range s.Parts {
			for j := range s.Parts[i].Entries {
				e := s.Parts[i].Entries[j]
				said[of(s.Parts[i].Kind, e)] = true
				said[described{kind: s.Parts[i].Kind, name: e.Name}] = true // a name without a text says nothing new
			}
		}
	}
	note(own)
	for _, f := range forms {
		for i := range f.sections.Parts {
			p := f.sections.Parts[i]
			p.Entries = slices.DeleteFunc(slices.Clone(p.Entries), func(e prose.Entry) bool {
				return e.Name != "" && said[of(p.Kind, e)]
			})
			if len(p.Entries) > 0 || len(p.Body) > 0 {
				out = append(out, page.PartOf{Part: &p, Scope: f.scope, Form: f.n})
			}
		}
		note(f.sections)
	}
	return out
}

// anchorOf is the anchor of the form that a target means, or "".
func (v view) anchorOf(t link.Target) string {
	forms := v.plan.Links.Overloads(t.Declaration)
	i := slices.IndexFunc(forms, func(at model.At) bool { return at.Occurrence == t.Form })
	if i < 0 || i >= mostOverloads {
		return "" // it has no place on the plate
	}
	return v.formAnchors(t.Declaration, forms[:i+1])[i]
}
