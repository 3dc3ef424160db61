package site

import (
	"strconv"

	"codrel/internal/prose"
)

// This file draws the named sections of comments: what a callable takes, gives
// back and fails with, notes and examples.

// parts draws all named sections, each kind once, in the order that people read them.
func (w *proseWriter) parts(s *prose.Sections) {
	for kind := range prose.PartKind(len(prose.PartNames)) {
		parts := s.Of(kind)
		if len(parts) == 0 {
			continue
		}
		if kind != prose.Other {
			w.part(w.v.say("part-"+prose.PartNames[kind]), parts)
			continue
		}
		for _, p := range parts {
			w.part(p.Title, []*prose.Part{p})
		}
	}
}

func (w *proseWriter) part(title string, parts []*prose.Part) {
	if w.full() {
		return
	}
	level := strconv.Itoa(max(2, min(6, w.level)))
	w.raw("<h" + level + ` class="part">`)
	w.escaped(title)
	w.raw("</h" + level + ">\n")
	open := false
	for _, p := range parts {
		for i := range p.Entries {
			e := &p.Entries[i]
			if e.Name == "" && len(e.Type) == 0 {
				if open {
					w.raw("</dl>\n")
					open = false
				}
				w.blocks(e.Text)
				continue
			}
			if !open {
				w.raw("<dl class=\"entries\">\n")
				open = true
			}
			w.entry(p.Kind, e)
		}
		if len(p.Body) > 0 {
			if open {
				w.raw("</dl>\n")
				open = false
			}
			w.blocks(p.Body)
		}
	}
	if open {
		w.raw("</dl>\n")
	}
}

// entry draws one parameter, result or failure as a term with its description.
func (w *proseWriter) entry(kind prose.PartKind, e *prose.Entry) {
	w.raw("<dt>")
	if e.Name != "" {
		w.raw(`<code translate="no">`)
		w.entryName(kind, e.Name)
		w.raw("</code>")
	}
	if len(e.Type) > 0 {
		if e.Name != "" {
			w.raw(" ")
		}
		w.raw(`<span class="of-type">`)
		w.inline(e.Type)
		w.raw("</span>")
	}
	switch {
	case kind == prose.Since && e.Default != "":
		w.raw(` <span class="aside">` + escape(w.v.say("since-"+e.Default)) + "</span>")
	case e.Default != "":
		w.raw(` <span class="aside">` + escape(w.v.say("default", "value", e.Default)) + "</span>")
	case e.Optional:
		w.raw(` <span class="aside">` + escape(w.v.say("optional")) + "</span>")
	}
	w.raw("</dt><dd>")
	if len(e.Text) == 1 && e.Text[0].Kind == prose.Paragraph {
		w.inline(e.Text[0].Children)
	} else {
		w.blocks(e.Text)
	}
	w.raw("</dd>\n")
}

// entryName draws a name; a failure's is a type, which links where it means one thing.
func (w *proseWriter) entryName(kind prose.PartKind, name string) {
	if kind == prose.Failures || kind == prose.Warnings {
		if d := w.scope.Declaration; d != nil {
			href := w.v.href(w.v.plan.Links.Type(d.Module, w.scope.File, name))
			w.anchored(href, func() { w.raw(breakable(name)) })
			return
		}
	}
	w.raw(breakable(name))
}
