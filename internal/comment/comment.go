// Package comment owns the doc comment dialects: it turns the text of a comment
// into the prose tree and named sections.
//
// One dialect a language lives in a folder below; this package picks it and
// keeps the results in a [Table], so that no comment is read twice. It knows
// nothing of what references mean.
package comment

import (
	"strings"

	"codrel/internal/comment/blocktags"
	"codrel/internal/comment/crossmarks"
	"codrel/internal/comment/docstring"
	"codrel/internal/comment/gocomment"
	"codrel/internal/comment/htmltags"
	"codrel/internal/comment/pod"
	"codrel/internal/comment/xmltags"
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
	// Select is the part of a comment that a path finds, as a comment of its own, or "". It
	// is nil where comments take no parts of others by paths.
	Select func(text, path string) string
}

// dialects are those that are read, by the names that languages and comments give them.
var dialects = map[string]Dialect{
	"go": {Parse: func(doc *model.Doc, _ prose.Vocabulary) *Sections {
		body, deprecated := gocomment.Parse(doc)
		return &Sections{Body: body, Deprecated: deprecated}
	}},
	"markdown": {Parse: func(doc *model.Doc, _ prose.Vocabulary) *Sections {
		body, _ := markdown.Read(doc.Text)
		return &Sections{Body: body}
	}},
	"crossmarks": {Parse: crossmarks.Parse},
	"pod":        {Parse: pod.Parse},
	"docstring":  {Parse: docstring.Parse, MayTake: docstring.MayTake},
	"blocktags":  {Parse: blocktags.Parse, MayTake: blocktags.MayTake},
	"nametags":   {Parse: blocktags.ParseNamed, MayTake: blocktags.MayTake},
	"marktags":   {Parse: blocktags.ParseMarked, MayTake: blocktags.MayTakeMarked},
	"htmltags":   {Parse: htmltags.Parse, MayTake: htmltags.MayTake},
	"xmltags":    {xmltags.Parse, xmltags.MayTake, xmltags.Select},
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

// Select takes apart the part of a comment that a path finds; own are words of the maintainer's.
func Select(habits *model.Habits, doc *model.Doc, path string, own prose.Vocabulary) *Sections {
	d := dialectOf(habits, doc)
	if d.Select == nil {
		return &Sections{}
	}
	text := d.Select(doc.Text, path)
	part := &model.Doc{Text: text, Dialect: doc.Dialect, Span: doc.Span}
	for range strings.Count(text, "\n") + 1 {
		part.Lines = append(part.Lines, doc.Span) // all of it stands where the comment does
	}
	return d.Parse(part, own)
}

// LongestPage is how many bytes a page may have to be taken apart.
const LongestPage = markdown.Longest

// ReadPage takes a page of Markdown apart, such as a fragment. plain are the spans of what
// is shown as it is written, since to make something of it would take too long.
func ReadPage(text string) (nodes []prose.Node, plain []source.Span) {
	return markdown.ReadPage(text)
}

// PageTitle is the first heading of a page's text, and the text without it; ok is false
// where there is none.
func PageTitle(nodes []prose.Node) (title string, rest []prose.Node, ok bool) {
	return markdown.Title(nodes)
}
