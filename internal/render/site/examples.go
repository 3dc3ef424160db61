package site

import (
	"codrel/internal/model"
	"codrel/internal/render/page"
)

// This file draws the examples among tests on the pages of what they exemplify.

// examples draws those of a declaration, or of a module where d is nil, with headings of a level.
func (v view) examples(m *model.Module, d *model.Declaration, level int) string {
	list := v.maker.Examples(m, d)
	if len(list) == 0 {
		return ""
	}
	w := v.proseWriter(level)
	for i := range list {
		w.example(&list[i])
	}
	return w.String()
}

func (w *proseWriter) example(e *page.Example) {
	title := w.v.say("example")
	if e.Variant != "" {
		title = w.v.say("example-of", "what", e.Variant)
	}
	w.raw(`<p class="part example">`)
	w.anchored(w.v.sourceAddress(e.At.File, int(e.At.Line)), func() { w.escaped(title) })
	w.raw("</p>\n")
	w.draw(e.Body)
	w.block(&page.Block{Kind: page.Code, Text: e.Code, Info: e.Language})
	if e.Output != "" {
		w.raw(`<p class="part">` + escape(w.v.say("output")) + "</p>\n")
		w.block(&page.Block{Kind: page.Code, Text: e.Output})
	}
}
