package site

import (
	"context"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"codrel/internal/link"
	"codrel/internal/model"
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
			anchor = plan.Label(d) + anchor[len(plan.Anchor(d)):]
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

// formTexts draws what comments on other forms say beside parameters and the like.
func (w *proseWriter) formTexts(forms []page.FormText) {
	level := strconv.Itoa(max(2, min(6, w.level)))
	for i := range forms {
		form := &forms[i]
		w.raw("<h" + level + ` class="part">`)
		if form.N > 0 {
			w.escaped(w.v.say("form", "n", strconv.Itoa(form.N)))
		} else {
			w.escaped(form.Title)
		}
		for _, n := range form.Same {
			w.escaped(w.v.say("comma") + w.v.say("form", "n", strconv.Itoa(n)))
		}
		w.raw("</h" + level + ">\n")
		w.gone(form.Gone)
		w.draw(form.Body)
		if form.From != nil {
			w.raw("<p>")
			w.sentence(w.v.said.Names("text-from", []*model.Declaration{form.From}, 1, nil))
			w.raw("</p>\n")
		}
	}
}

// sentence draws a sentence with names that may be links.
func (w *proseWriter) sentence(s page.Sentence) {
	var b strings.Builder
	if err := w.v.sentence(s).Render(context.Background(), &b); err == nil { // a builder takes all that it is given
		w.raw(b.String())
	}
}

// gone says that something is deprecated, with the advice that there is; nil says nothing.
func (w *proseWriter) gone(g *page.Gone) {
	if g == nil {
		return
	}
	w.raw(`<div class="deprecated"><p><strong>`)
	w.escaped(w.v.say("gone-mark"))
	w.raw("</strong>")
	for _, line := range g.Lines {
		w.raw(" ")
		w.line(line)
	}
	w.raw("</p>\n")
	w.draw(g.Rest)
	w.raw("</div>\n")
}

// anchorOf is the anchor of the form that a target means, or "".
func (v view) anchorOf(t link.Target) string {
	forms := v.plan.Links.Overloads(t.Declaration)
	i := slices.IndexFunc(forms, func(at model.At) bool { return at.Occurrence == t.Form })
	if i < 0 || i >= page.MostOverloads {
		return "" // it has no place on the plate
	}
	return v.formAnchors(t.Declaration, forms[:i+1])[i]
}
