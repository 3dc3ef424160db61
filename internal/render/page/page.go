// Package page owns what pages say in words, for every form that they are written in: text
// as blocks whose names are resolved, and the parts of comments.
//
// What a comment, a fragment or a guide says is made once here. Whether a target has a page,
// and where, is a question to the plan; how things look, and the words of headings and
// remarks, are the matter of whoever writes a form.
package page

import (
	"strings"

	"codrel/internal/link"
	"codrel/internal/look"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// Target is what a link leads to. What has no page in some form is text there.
type Target struct {
	link.Target              // a declaration or a module, or an address outside
	File        string       // a file of the project, from its root
	Line        int          // in one of these
	Source      *model.Facts // a file of the source
	Page        string       // an address of the plan
	Guide       *link.Guide  // a page by the maintainer
	Heading     string       // a heading of that, as its anchor is made
	Group       *model.Group // a group of the module's declarations
}

// BlockKind tells what a block is.
type BlockKind uint8

// The kinds of blocks.
const (
	Paragraph BlockKind = iota
	Heading
	Code
	List
	Item
	Quote
	Table
	Ruler
	Display // a formula on a line of its own
	Bare    // what stands in a line, without a block around it
)

// Block is one block of a text.
type Block struct {
	Kind    BlockKind
	Level   int                // of a Heading as it is written; of a List the first number, 0 for bullets
	Info    string             // of Code the fence's words; of a List what else it is, see [prose.Terms]
	Loose   bool               // of a List: items are paragraphs
	Text    string             // of Code and of a Display that cannot be drawn; of a Heading its plain words
	Of      *model.Declaration // of a Heading: in whose text it stands; nil for nobody's
	Inlines []Inline           // of a Paragraph, Heading, Display or Bare, and the first line of an Item
	Blocks  []Block            // of a List its items; of an Item or Quote what is in it
	Rows    []Row              // of a Table
	Marks   []Mark             // of Code, in the order of where they begin
	Excerpt *Excerpt           // of Code that is a piece of the source
	Tried   Tried              // of Code that is an example
}

// Tried is what a fence says of how its example is tried.
type Tried struct {
	Fate    string // "shown", "builds", "stops" or "refused"; "" where it runs, or is no example
	Edition string // of the language, where that is not the usual one
	Except  string // a part of the names of systems on which it is not tried
}

// triedAs reads the words of a fence that say it.
func triedAs(info string) (t Tried) {
	if !strings.Contains(info, "=") {
		return t
	}
	f, err := prose.ReadFence(info)
	if err != nil {
		return t
	}
	switch fate := f.Values["example"]; fate {
	case "shown", "builds", "stops", "refused":
		t.Fate = fate
	}
	t.Edition, t.Except = f.Values["edition"], f.Values["except"]
	return t
}

// Words is the short remark on how an example is tried, or "".
func (t Tried) Words(texts look.Texts) string {
	var out []string
	if t.Fate != "" {
		out = append(out, texts.Say("example-"+t.Fate))
	}
	if t.Except != "" {
		out = append(out, texts.Say("example-except", "system", t.Except))
	}
	if t.Edition != "" {
		out = append(out, texts.Say("example-edition", "edition", t.Edition))
	}
	return strings.Join(out, " · ")
}

// Excerpt is where a piece of the source comes from that a guide shows.
type Excerpt struct {
	Name   string  // of what it shows: a declaration, or a file
	To     *Target // the declaration; nil for a file
	File   string
	Line   int
	Source *Target // that line
}

// Mark is a part of code that is shown in another way.
type Mark struct {
	From, To int        // bytes of the code
	Kind     InlineKind // Strong, Emphasis, or Link
	Target   *Target    // of a Link
}

// Row is one row of a table.
type Row struct {
	Head  bool
	Cells []Cell
}

// Cell is one cell of a row.
type Cell struct {
	Inlines       []Inline
	Columns, Rows int    // over how many it goes
	Aligned       string // "right" or "center"; else its text stands at the left
}

// InlineKind tells what stands in a line.
type InlineKind uint8

// The kinds of what stands in a line.
const (
	Text InlineKind = iota
	Emphasis
	Strong
	Label // the word that a note begins with: Text is its kind, Short a version in it
	Struck
	Superscript
	Subscript
	Formula // Text is its source where nothing draws it
	CodeSpan
	Break
	Link
	Picture // Text is what it shows, Short the file of the project, or ""
	Film    // the same
	Place   // Text is the name that links call the place by
	Group   // several without anything around them
)

// Inline is one piece of what stands in a line.
type Inline struct {
	Kind     InlineKind
	Colon    bool    // of a Label: a colon follows
	Text     string  // of Text, CodeSpan, Picture and others
	Short    string  // of a CodeSpan: what is enough of it where it is a link to To
	To       *Target // of a Link or CodeSpan; nil for nothing
	Or       *Target // of a CodeSpan: what it leads to where To has no page
	Children []Inline
}

// Part is a named section of a comment: what a callable takes, gives back, fails with, and
// the like.
type Part struct {
	Kind    prose.PartKind
	Title   string // as written, of a part of the comment's own
	History bool   // of notes on versions: they say more than since when there is a thing
	Items   []PartItem
}

// PartItem is an entry of a part, or text in it.
type PartItem struct {
	Form   int   // that alone has it, or 0
	Also   []int // further forms that have it in the same words
	Entry  *Entry
	Blocks []Block // where it is no entry
	Remark bool    // which form has it is said before the text
}

// Entry is one parameter, result or failure with its description.
type Entry struct {
	Name     string
	To       *Target  // what the name means, where it is that of a type
	Type     []Inline // that the comment gives
	Default  string   // or what happened in a version
	Optional bool
	Line     []Inline // the description, where it is one line
	Text     []Block  // else
}
