// Package comment owns the doc comment dialects: it turns the text of a comment
// into the prose tree and named sections.
//
// One dialect a language lives in a folder below; this package picks it and
// keeps the results in a [Table], so that no comment is read twice. It knows
// nothing of what references mean.
package comment

import (
	"iter"
	"sync"

	"codrel/internal/comment/blocktags"
	"codrel/internal/comment/docstring"
	"codrel/internal/comment/gocomment"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
	"codrel/internal/source"
)

// Sections is a doc comment, taken apart.
type Sections = prose.Sections

// A Dialect is one way to write doc comments. The zero value takes a comment for plain text.
type Dialect struct {
	// Parse takes a comment apart. own are words of the maintainer's.
	Parse func(doc *model.Doc, own prose.Vocabulary) *Sections
	// MayTake reports whether a comment may say that its text, or a part of it, is another
	// declaration's. It is quick, so that most comments need not be taken apart to know. It
	// is nil where the dialect has no way to say so.
	MayTake func(doc *model.Doc) bool
}

// dialects are those that are read, by the names that languages and comments give them.
var dialects = map[string]Dialect{
	"go": {Parse: func(doc *model.Doc, _ prose.Vocabulary) *Sections {
		body, deprecated := gocomment.Parse(doc)
		return &Sections{Body: body, Deprecated: deprecated}
	}},
	"docstring": {docstring.Parse, docstring.MayTake},
	"blocktags": {blocktags.Parse, blocktags.MayTake},
}

// dialectOf is that of a comment: the one that it names, else its language's.
func dialectOf(habits *model.Habits, doc *model.Doc) Dialect {
	if doc.Dialect != "" || habits == nil {
		return dialects[doc.Dialect]
	}
	return dialects[habits.Dialect]
}

// Read takes the comment of a file in a language apart. own are words of the maintainer's.
func Read(habits *model.Habits, doc *model.Doc, own prose.Vocabulary) *Sections {
	if d := dialectOf(habits, doc); d.Parse != nil {
		return d.Parse(doc, own)
	}
	return &Sections{Body: []prose.Node{{
		Kind: prose.Paragraph, Span: doc.Span,
		Children: []prose.Node{{Kind: prose.Text, Text: doc.Text, Span: doc.Span}},
	}}}
}

// MayTake reports whether a comment may say that its text, or a part of it, is another
// declaration's.
func MayTake(habits *model.Habits, doc *model.Doc) bool {
	d := dialectOf(habits, doc)
	return d.MayTake != nil && d.MayTake(doc)
}

// ReadPage takes a page of Markdown apart, such as a fragment. plain are the spans of what
// is shown as it is written, since to make something of it would take too long.
func ReadPage(text string) (nodes []prose.Node, plain []source.Span) { return markdown.Read(text) }

// PageTitle is the first heading of a page's text, and the text without it; ok is false
// where there is none.
func PageTitle(nodes []prose.Node) (title string, rest []prose.Node, ok bool) {
	return markdown.Title(nodes)
}

// Table holds the sections of doc comments, by the files they stand in. It is safe for use
// by several goroutines.
type Table struct {
	mu    sync.RWMutex
	files map[*model.Facts]*fileTable
	own   map[string]prose.Vocabulary // by language
}

// fileTable holds the sections of the comments of one file.
type fileTable struct {
	mu    sync.RWMutex
	byDoc map[*model.Doc]*Sections
}

// NewTable makes an empty table. own says, by language, what words of the
// maintainer's mean.
func NewTable(own map[string]prose.Vocabulary) *Table {
	return &Table{files: map[*model.Facts]*fileTable{}, own: own}
}

// With is a table that knows what this one does of some files, and nothing of others: what
// is known of a file goes with it.
func (t *Table) With(files iter.Seq[*model.Facts]) *Table {
	out := NewTable(t.own)
	t.mu.RLock()
	defer t.mu.RUnlock()
	for f := range files {
		if known := t.files[f]; known != nil {
			out.files[f] = known
		}
	}
	return out
}

// Of returns the sections of a comment of a file in a language, reading it the first time.
// A nil comment has no text.
func (t *Table) Of(habits *model.Habits, f *model.Facts, doc *model.Doc) *Sections {
	if doc == nil {
		return &Sections{}
	}
	var own prose.Vocabulary
	if habits != nil {
		own = t.own[habits.Language]
	}
	return t.of(f).sections(doc, func() *Sections { return Read(habits, doc, own) })
}

// of is the table of a file.
func (t *Table) of(f *model.Facts) *fileTable {
	t.mu.RLock()
	known := t.files[f]
	t.mu.RUnlock()
	if known != nil {
		return known
	}
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.files[f] == nil {
		t.files[f] = &fileTable{byDoc: map[*model.Doc]*Sections{}}
	}
	return t.files[f]
}

func (t *fileTable) sections(doc *model.Doc, read func() *Sections) *Sections {
	t.mu.RLock()
	s := t.byDoc[doc]
	t.mu.RUnlock()
	if s != nil {
		return s
	}
	s = read()
	t.mu.Lock()
	defer t.mu.Unlock()
	if was := t.byDoc[doc]; was != nil {
		return was
	}
	t.byDoc[doc] = s
	return s
}
