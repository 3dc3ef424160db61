package site

import (
	"strconv"

	"codrel/internal/prose"
	"codrel/internal/render/page"
)

// This file draws the named sections of comments: what a callable takes, gives
// back and fails with, notes and examples.

func (w *proseWriter) part(p *page.Part, language string) {
	level := strconv.Itoa(max(2, min(6, w.level)))
	w.raw("<h" + level + ` class="part">`)
	w.escaped(w.v.maker.PartTitle(p, language))
	w.raw("</h" + level + ">\n")
	open := false
	for i := range p.Items {
		item := &p.Items[i]
		if open != (item.Entry != nil) {
			w.raw(map[bool]string{true: "</dl>\n", false: "<dl class=\"entries\">\n"}[open])
			open = !open
		}
		if item.Entry != nil {
			w.described(p.Kind, item)
			continue
		}
		if item.Remark {
			w.raw(`<p class="aside">` + escape(item.InForms(w.v.said.Texts)) + "</p>")
		}
		w.draw(item.Blocks)
	}
	if open {
		w.raw("</dl>\n")
	}
}

// described draws one parameter, result or failure as a term with its description.
func (w *proseWriter) described(kind prose.PartKind, item *page.PartItem) {
	e := item.Entry
	w.raw("<dt>")
	if kind == prose.Since && e.Default != "" {
		w.escaped(w.v.say("since-"+e.Default, "version", e.Name))
	} else if e.Name != "" {
		w.raw(`<code translate="no">`)
		w.anchored(w.v.target(e.To), func() { w.raw(breakable(e.Name)) })
		w.raw("</code>")
	}
	if len(e.Type) > 0 {
		if e.Name != "" {
			w.raw(" ")
		}
		w.raw(`<span class="of-type">`)
		w.line(e.Type)
		w.raw("</span>")
	}
	switch {
	case kind == prose.Since:
	case e.Default != "":
		w.raw(` <span class="aside">` + escape(w.v.say("default", "value", e.Default)) + "</span>")
	case e.Optional:
		w.raw(` <span class="aside">` + escape(w.v.say("optional")) + "</span>")
	}
	if item.Form > 0 {
		w.raw(` <span class="aside">` + escape(item.InForms(w.v.said.Texts)) + "</span>")
	}
	w.raw("</dt><dd>")
	w.line(e.Line)
	w.draw(e.Text)
	w.raw("</dd>\n")
}
