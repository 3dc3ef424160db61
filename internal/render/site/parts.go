package site

import (
	"strconv"
	"strings"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file draws the named sections of comments: what a callable takes, gives
// back and fails with, notes and examples.

// parts draws all named sections, each kind once, in the order that people read them.
// others are parts of another declaration's comment that go with them.
func (w *proseWriter) parts(s *prose.Sections, others ...partOf) {
	for kind := range prose.PartKind(len(prose.PartNames)) {
		var parts []partOf
		for _, p := range s.Of(kind) {
			parts = append(parts, partOf{p, w.scope, 0})
		}
		for _, p := range others {
			if p.Kind == kind {
				parts = append(parts, p)
			}
		}
		if len(parts) == 0 {
			continue
		}
		if kind != prose.Other {
			w.part(w.partTitle(kind, parts), parts)
			continue
		}
		for _, p := range parts {
			w.part(p.Title, []partOf{p})
		}
	}
}

// partTitle is what a named section is called in the language at hand.
func (w *proseWriter) partTitle(kind prose.PartKind, parts []partOf) string {
	if kind == prose.Since && changes(parts) {
		return w.v.say("part-history")
	}
	language := ""
	if m := w.scope.Module; m != nil {
		language = m.Library.Language
	}
	return w.v.sayIn(language, "part-"+prose.PartNames[kind])
}

// changes reports whether notes on versions say more than since when there is a thing.
func changes(parts []partOf) bool {
	for _, p := range parts {
		for i := range p.Entries {
			if p.Entries[i].Default != "" {
				return true
			}
		}
	}
	return false
}

// partOf is a part of a comment, and where its names stand.
type partOf struct {
	*prose.Part
	scope link.Scope
	form  int // that alone has it, or 0
}

func (w *proseWriter) part(title string, parts []partOf) {
	if w.full() {
		return
	}
	level := strconv.Itoa(max(2, min(6, w.level)))
	w.raw("<h" + level + ` class="part">`)
	w.escaped(title)
	w.raw("</h" + level + ">\n")
	open := false
	own := w.scope
	defer func() { w.scope = own }()
	for _, p := range parts {
		w.scope = p.scope
		for i := range p.Entries {
			e := &p.Entries[i]
			if e.Name == "" && len(e.Type) == 0 {
				if open {
					w.raw("</dl>\n")
					open = false
				}
				w.entry = entryName{kind: p.Kind, set: true}
				if p.form > 0 {
					w.raw(`<p class="aside">` + escape(w.v.say("only-in-form", "n", strconv.Itoa(p.form))) + "</p>")
				}
				w.blocks(e.Text)
				w.entry = entryName{}
				continue
			}
			if !open {
				w.raw("<dl class=\"entries\">\n")
				open = true
			}
			w.described(p, e)
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

// described draws one parameter, result or failure as a term with its description.
func (w *proseWriter) described(p partOf, e *prose.Entry) {
	kind := p.Kind
	w.raw("<dt>")
	if kind == prose.Since && e.Default != "" {
		w.escaped(w.v.say("since-"+e.Default, "version", e.Name))
	} else if e.Name != "" {
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
	case kind == prose.Since:
	case e.Default != "":
		w.raw(` <span class="aside">` + escape(w.v.say("default", "value", e.Default)) + "</span>")
	case e.Optional:
		w.raw(` <span class="aside">` + escape(w.v.say("optional")) + "</span>")
	}
	if p.form > 0 {
		w.raw(` <span class="aside">` + escape(w.v.say("only-in-form", "n", strconv.Itoa(p.form))) + "</span>")
	}
	w.raw("</dt><dd>")
	w.entry = entryName{kind, e.Name, true}
	if len(e.Text) == 1 && e.Text[0].Kind == prose.Paragraph && prose.Alone(&e.Text[0], prose.Insert) == nil && !w.takesBlocks(&e.Text[0]) {
		w.inline(e.Text[0].Children)
	} else {
		w.blocks(e.Text)
	}
	w.entry = entryName{}
	w.raw("</dd>\n")
}

// entryName draws a name; a failure's is a type, which links where it means one thing.
func (w *proseWriter) entryName(kind prose.PartKind, name string) {
	if kind == prose.Failures || kind == prose.Warnings {
		if d := w.scope.Declaration; d != nil {
			href := w.v.href(w.v.plan.Links.Type(d.Site().Module, w.scope.File, name))
			w.anchored(href, func() { w.raw(breakable(name)) })
			return
		}
	}
	w.raw(breakable(name))
}

// subjectType says the type that a comment gives a declaration whose signature has none.
func (w *proseWriter) subjectType(d *model.Declaration, typ []prose.Node) {
	if len(typ) == 0 || d.Kind().IsType() || d.Speaks(model.Words).Callable != nil && d.Kind() != model.KindProperty {
		return
	}
	at, behind := d.Speaks(model.Words), false
	for t := range at.Tokens(at.Signature) {
		if behind && strings.HasPrefix(strings.TrimLeft(t.Text, "?! "), ":") {
			return
		}
		behind = behind || t.Kind == model.TokenName
	}
	w.raw(`<p class="of-type">` + escape(w.v.say("type")) + ": ")
	w.inline(typ)
	w.raw("</p>")
}
