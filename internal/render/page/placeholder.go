package page

import (
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file makes what stands for text that is written elsewhere: fragments, and the text
// of what a declaration overrides or implements.

// deepestText bounds how many texts stand for others within one another.
const deepestText = 16

// placeholder is the text that a paragraph stands for; ok is false where it is none that
// stands for another.
func (b *Builder) placeholder(paragraph *prose.Node) (out []Block, ok bool) {
	if n := prose.Alone(paragraph, prose.Insert); n != nil {
		if f := b.Links.Fragment(n.Target); f != nil {
			b.elsewhere(link.Scope{}, f.Page, func() { out = b.Blocks(f.Nodes) })
		}
		return out, true
	}
	n := prose.Alone(paragraph, prose.Inherited)
	if n == nil {
		return nil, false
	}
	nodes, of := b.inheritedText(n)
	if of == nil && !n.Strict { // words that may well be meant as they are
		return []Block{{Kind: Paragraph, Inlines: b.Inlines(n.Children)}}, true
	}
	if of != nil {
		b.elsewhere(link.ScopeOf(of), b.File, func() { out = b.Blocks(nodes) })
	}
	return out, true
}

// elsewhere makes text in another scope, and of another page of the maintainer's.
func (b *Builder) elsewhere(scope link.Scope, file *model.Page, make func()) {
	if b.depth >= deepestText {
		return
	}
	was, wasFile := b.Scope, b.File
	b.Scope, b.File = scope, file
	b.depth++
	make()
	b.depth--
	b.Scope, b.File = was, wasFile
}

// inheritedText is the text that a node stands for: what the other declaration's
// comment says of the same parameter where the node describes one, else its body.
func (b *Builder) inheritedText(n *prose.Node) ([]prose.Node, *model.Declaration) {
	d := b.Scope.Declaration
	if d == nil {
		return nil, nil
	}
	sections, of := b.Links.TextTaken(d, b.form, n)
	if of == nil {
		return nil, nil
	}
	if !b.entry.set || n.Info != "" {
		return sections.Body, of
	}
	if e := sections.Entry(b.entry.kind, b.entry.name); e != nil {
		return e.Text, of
	}
	for _, p := range sections.Of(b.entry.kind) {
		if b.entry.name == "" && len(p.Body) > 0 {
			return p.Body, of
		}
	}
	return nil, of
}

// inheritsBlocks reports whether a paragraph stands for a text of more than one.
func (b *Builder) inheritsBlocks(paragraph *prose.Node) bool {
	n := prose.Alone(paragraph, prose.Inherited)
	if n == nil {
		return false
	}
	nodes, _ := b.inheritedText(n)
	return len(nodes) != 1 || nodes[0].Kind != prose.Paragraph
}

// inheritedInLine is the first paragraph of the text that a node in a line stands for.
func (b *Builder) inheritedInLine(n *prose.Node) (out []Inline) {
	nodes, of := b.inheritedText(n)
	if of == nil || len(nodes) == 0 || nodes[0].Kind != prose.Paragraph {
		return nil
	}
	b.elsewhere(link.ScopeOf(of), b.File, func() { out = b.Inlines(nodes[0].Children) })
	return out
}
