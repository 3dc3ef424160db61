package site

import (
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/render/page"
)

// This file draws the examples among tests on the pages of what they exemplify.

// mostExamples is how many examples a declaration shows.
const mostExamples = 12

// examples draws those of a declaration, or of a module where d is nil, with headings of a level.
func (v view) examples(m *model.Module, d *model.Declaration, level int) string {
	list := v.plan.Links.Examples(m, d)
	if len(list) == 0 || m == nil {
		return ""
	}
	scope := link.Scope{Module: m}
	if d != nil {
		scope = link.ScopeOf(d)
	}
	w := v.proseWriter(scope, level)
	for _, e := range list[:min(len(list), mostExamples)] {
		v.example(w, m, e)
	}
	return w.String()
}

func (v view) example(w *proseWriter, m *model.Module, e link.Example) {
	title := v.say("example")
	if e.Variant != "" {
		title = v.say("example-of", "what", e.Variant)
	}
	w.raw(`<p class="part example">`)
	w.anchored(v.sourceAddress(e.At.File, int(e.At.Line)), func() { w.escaped(title) })
	w.raw("</p>\n")
	if e.At.Doc != nil {
		w.blocks(v.plan.Links.Comments.Of(m.Library.Habits, e.At.File, e.At.Doc).Body)
	}
	w.block(&page.Block{Kind: page.Code, Text: e.Code, Info: m.Library.Language})
	if e.Output != "" {
		w.raw(`<p class="part">` + escape(v.say("output")) + "</p>\n")
		w.block(&page.Block{Kind: page.Code, Text: e.Output})
	}
}
