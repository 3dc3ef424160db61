package csharp

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose/markup"
	"codrel/internal/xmlpath"
)

// This file puts text of XML files into comments that include it (Annex D of the standard,
// its element "include").

// included is a comment with the text that it includes from other files.
func (r *reader) included(doc *model.Doc) *model.Doc {
	if doc == nil || r.other == nil || !strings.Contains(doc.Text, includeTag) {
		return doc
	}
	for at, n := 0, 0; n < mostIncludes; n++ {
		i := strings.Index(doc.Text[at:], includeTag)
		if i < 0 {
			break
		}
		at += i
		tag, ok := markup.ReadTag(doc.Text[at:])
		if !ok {
			break
		}
		end := at + tag.Length
		text := r.include(doc, at, end, tag.Attribute("file"), tag.Attribute("path"))
		if !tag.Empty {
			if i := strings.Index(doc.Text[end:], "</include>"); i >= 0 {
				end += i + len("</include>")
			}
		}
		doc = doc.Replaced(at, end, text)
		at += len(text)
	}
	return doc
}

const (
	includeTag   = "<include "
	mostIncludes = 50 // of one comment
)

// include is what a path finds in a file, as it is written there.
func (r *reader) include(doc *model.Doc, from, to int, file, query string) string {
	places := doc.Places()
	missing := model.Untaken{Span: places.Span(from, to), File: file}
	root := r.xml(file)
	if root == nil {
		r.Facts.Untaken = append(r.Facts.Untaken, missing)
		return ""
	}
	text, ok := root.Find(query)
	if !ok {
		missing.Part = query
		r.Facts.Untaken = append(r.Facts.Untaken, missing)
	}
	return text
}

// xml is a file, by its path from the folder of the source, or from one above that; nil
// where there is none that can be read.
func (r *reader) xml(file string) *xmlpath.Document {
	file = strings.ReplaceAll(file, "\\", "/")
	if file == "" || path.IsAbs(file) {
		return nil
	}
	for dir := path.Dir(r.Facts.Path); ; dir = path.Dir(dir) {
		at := path.Join(dir, file)
		root, known := r.taken[at]
		if !known {
			if !slices.Contains(r.Facts.Takes, at) {
				r.Facts.Takes = append(r.Facts.Takes, at)
			}
			if data := r.other(at); data != nil {
				root = xmlpath.Read(data)
			}
			if r.taken == nil {
				r.taken = map[string]*xmlpath.Document{}
			}
			r.taken[at] = root
		}
		if root != nil {
			return root
		}
		if dir == "." || dir == "/" {
			return nil
		}
	}
}
