package site

import (
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file draws what stands for text that is written elsewhere: fragments, and
// the text of what a declaration overrides or fulfils.

// entryName names the parameter, result or failure whose text is being drawn.
type entryName struct {
	kind prose.PartKind
	name string
	set  bool
}

// deepestText bounds how many texts stand for others within one another.
const deepestText = 16

// placeholder draws a paragraph that stands for text from elsewhere, and reports
// whether it is one.
func (w *proseWriter) placeholder(paragraph *prose.Node) bool {
	if n := prose.Alone(paragraph, prose.Insert); n != nil {
		if f := w.v.plan.Links.Fragment(n.Target); f != nil {
			w.elsewhere(link.Scope{}, f.Page, func() { w.blocks(f.Nodes) })
		}
		return true
	}
	n := prose.Alone(paragraph, prose.Inherited)
	if n == nil {
		return false
	}
	nodes, of := w.takenText(n)
	if of == nil && !n.Strict {
		w.tag("p", n, w.inline) // words that may well be meant as they are
	}
	if of != nil {
		w.elsewhere(link.ScopeOf(of), w.file, func() { w.blocks(nodes) })
	}
	return true
}

// elsewhere draws in another scope, and for another page of the maintainer's.
func (w *proseWriter) elsewhere(scope link.Scope, file *model.Page, draw func()) {
	if w.depth >= deepestText {
		return
	}
	was, wasFile := w.scope, w.file
	w.scope, w.file = scope, file
	w.depth++
	draw()
	w.depth--
	w.scope, w.file = was, wasFile
}

// takenText is the text that a node stands for: what the other declaration's
// comment says of the same parameter where the node describes one, else its body.
func (w *proseWriter) takenText(n *prose.Node) ([]prose.Node, *model.Declaration) {
	d := w.scope.Declaration
	if d == nil {
		return nil, nil
	}
	of := w.v.plan.Links.InheritedText(d, n)
	if of == nil {
		return nil, nil
	}
	sections, _ := w.v.plan.Links.Sections(of)
	if !w.entry.set {
		return sections.Body, of
	}
	if e := sections.Entry(w.entry.kind, w.entry.name); e != nil {
		return e.Text, of
	}
	for _, p := range sections.Of(w.entry.kind) {
		if w.entry.name == "" && len(p.Body) > 0 {
			return p.Body, of
		}
	}
	return nil, of
}

// takesBlocks reports whether a paragraph stands for a text of more than one.
func (w *proseWriter) takesBlocks(paragraph *prose.Node) bool {
	n := prose.Alone(paragraph, prose.Inherited)
	if n == nil {
		return false
	}
	nodes, _ := w.takenText(n)
	return len(nodes) != 1 || nodes[0].Kind != prose.Paragraph
}

// takenInLine draws the first paragraph of the text that a node in a line stands for.
func (w *proseWriter) takenInLine(n *prose.Node) {
	nodes, of := w.takenText(n)
	if of == nil || len(nodes) == 0 || nodes[0].Kind != prose.Paragraph {
		return
	}
	w.elsewhere(link.ScopeOf(of), w.file, func() { w.inline(nodes[0].Children) })
}

// taken are the parts of another comment that go with one whose body is taken from
// it: what the comment itself says nothing of.
func (w *proseWriter) taken(own *prose.Sections) []partOf {
	var out []partOf
	for i := range own.Body {
		n := prose.Alone(&own.Body[i], prose.Inherited)
		if n == nil || w.scope.Declaration == nil {
			continue
		}
		of := w.v.plan.Links.InheritedText(w.scope.Declaration, n)
		if of == nil {
			continue
		}
		sections, _ := w.v.plan.Links.Sections(of)
		for j := range sections.Parts {
			if p, ok := missing(own, &sections.Parts[j]); ok {
				out = append(out, partOf{&p, link.ScopeOf(of), 0})
			}
		}
	}
	return out
}

// missing is as much of a part as a comment does not say itself. Examples, notes and
// the like are not taken over.
func missing(own *prose.Sections, p *prose.Part) (prose.Part, bool) {
	if p.Kind > prose.Failures || p.Kind == prose.Results && len(own.Of(prose.Results)) > 0 {
		return prose.Part{}, false
	}
	out := *p
	out.Entries = nil
	if len(own.Of(p.Kind)) > 0 {
		out.Body = nil
	}
	for _, e := range p.Entries {
		if own.Entry(p.Kind, e.Name) == nil {
			out.Entries = append(out.Entries, e)
		}
	}
	return out, len(out.Entries) > 0 || len(out.Body) > 0
}
