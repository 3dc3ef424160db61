// Package comment owns the doc comment dialects: it turns the text of a comment
// into the prose tree and named sections.
//
// One dialect a language lives in a folder below; this package picks it and
// keeps the results in a [Table], so that no comment is read twice. It knows
// nothing of what references mean.
package comment

import (
	"sync"

	"codrel/internal/comment/blocktags"
	"codrel/internal/comment/docstring"
	"codrel/internal/comment/gocomment"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
)

// Sections is a doc comment, taken apart.
type Sections = prose.Sections

// Read takes the comment of a file in the language apart. own are words of the
// maintainer's.
func Read(language string, doc *model.Doc, own prose.Vocabulary) *Sections {
	switch language {
	case "go":
		body, deprecated := gocomment.Parse(doc)
		return &Sections{Body: body, Deprecated: deprecated}
	case "python":
		return docstring.Parse(doc, own)
	case "javascript", "typescript":
		return blocktags.Parse(doc, own)
	}
	return &Sections{Body: []prose.Node{{
		Kind: prose.Paragraph, Span: doc.Span,
		Children: []prose.Node{{Kind: prose.Text, Text: doc.Text, Span: doc.Span}},
	}}}
}

// MayTake reports whether a comment may say that its text, or a part of it, is another
// declaration's. It is quick, so that most comments need not be taken apart to know.
func MayTake(language string, doc *model.Doc) bool {
	switch language {
	case "go":
		return false
	case "python":
		return docstring.MayTake(doc)
	}
	return blocktags.MayTake(doc)
}

// ReadPage takes a page of Markdown apart, such as a fragment.
func ReadPage(text string) []prose.Node { return markdown.Parse(text) }

// Table holds the sections of doc comments. It is safe for use by several goroutines.
type Table struct {
	mu    sync.RWMutex
	byDoc map[*model.Doc]*Sections
	own   map[string]prose.Vocabulary // by language
}

// NewTable makes an empty table. own says, by language, what words of the
// maintainer's mean.
func NewTable(own map[string]prose.Vocabulary) *Table {
	return &Table{byDoc: map[*model.Doc]*Sections{}, own: own}
}

// Of returns the sections of a comment, reading it the first time. A nil
// comment has no text.
func (t *Table) Of(language string, doc *model.Doc) *Sections {
	if doc == nil {
		return &Sections{}
	}
	t.mu.RLock()
	s := t.byDoc[doc]
	t.mu.RUnlock()
	if s != nil {
		return s
	}
	s = Read(language, doc, t.own[language])
	t.mu.Lock()
	defer t.mu.Unlock()
	if was := t.byDoc[doc]; was != nil {
		return was
	}
	t.byDoc[doc] = s
	return s
}
