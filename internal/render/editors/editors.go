// Package editors renders the documentation file that editors read beside a library of C#
// (ECMA-334, Annex D): the comment of each member that has a place among the pages, under the
// identifier by which compilers know it.
//
// It owns identifiers of declarations and how a comment stands in the file. The form of the
// file is xmldoc's, the grammar of identifiers memberid's; it knows nothing of pages.
package editors

import (
	"slices"

	"codrel/internal/finding"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/xmldoc"
)

// Made is a documentation file, and what could not be said in it.
type Made struct {
	File xmldoc.File
	// Unnamed are types in signatures whose namespace nobody here knows, as they are written:
	// compilers will not find the members that take them.
	Unnamed []string
	Broken  []Broken
}

// Broken is a comment that is left out since it is no sound XML, and the member that it is of.
type Broken struct {
	ID    string
	Place finding.Place
}

// Make makes the documentation file of a library of C#. Its assembly is called as its project
// file says, else as the library.
func Make(links *link.Index, lib *model.Contents) *Made {
	m := &maker{links: links, made: Made{File: xmldoc.File{Assembly: lib.Name}}, unnamed: map[string]bool{}}
	for _, said := range lib.SaidOf("") {
		if said.Key == model.Assembly && len(said.Names) > 0 {
			m.made.File.Assembly = said.Names[0]
		}
	}
	for _, module := range lib.Modules {
		if links.ModuleInReach(module) {
			m.all(links.Tops(module))
		}
	}
	for name := range m.unnamed {
		m.made.Unnamed = append(m.made.Unnamed, name)
	}
	slices.Sort(m.made.Unnamed)
	return &m.made
}

// maker makes one file.
type maker struct {
	links   *link.Index
	made    Made
	unnamed map[string]bool
}

func (m *maker) all(list []*model.Declaration) {
	for _, d := range list {
		if !m.links.InReach(d) || d.Blank() {
			continue
		}
		m.declaration(d)
		m.all(d.Members)
	}
}

func (m *maker) declaration(d *model.Declaration) {
	if d.Speaks(model.Words).Callable == nil || d.Kind().IsType() {
		at := d.Speaks(model.Words)
		m.add(d, at, at.Doc, at.File)
		return
	}
	for _, form := range m.links.FormsInReach(d) {
		doc, file := form.Doc()
		m.add(d, form.Head(), doc, file)
	}
}

// add adds a member with its comment, if it has one.
func (m *maker) add(d *model.Declaration, at model.At, doc *model.Doc, file *model.Facts) {
	if doc == nil || ofInterface(d, at) {
		return
	}
	id := m.id(d, at)
	text := m.text(link.Scope{Module: d.Site().Module, File: file, Declaration: d.Site()}, doc.Text)
	if !xmldoc.Sound(text) {
		m.made.Broken = append(m.made.Broken, Broken{id, file.Place(doc.Span)})
		return
	}
	m.made.File.Members = append(m.made.File.Members, xmldoc.Member{ID: id, Text: text})
}
