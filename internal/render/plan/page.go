package plan

import (
	"codrel/internal/link"
	"codrel/internal/model"
)

// Kind tells what a page shows.
type Kind uint8

// The kinds of pages.
const (
	HomePage   Kind = iota
	GuidesPage      // all guides
	GuidePage
	LibraryPage
	ModulePage
	TypePage
	TreePage  // all modules of all libraries
	IndexPage // the A to Z list, or one letter of it
	LostPage  // what a server shows where there is no page
	GonePage  // all deprecated declarations with their advice
	SourcePage
	UsersPage   // where the declarations of a module are used
	NamesPage   // names of a module or type, a line each, where its own page has no room for them
	WholePage   // a module with all its types, to be printed
	RelatedPage // all that a type has to do with, where its own page has no room for it
	DetailsPage // plates and texts of declarations that have no room on their module's or type's page
	FindingsPage
	CoveragePage
	ToDosPage
)

// Page is one page of the plan. Fields that its kind has no use for are empty.
type Page struct {
	Kind    Kind
	Address string // from the site's root
	Title   string
	Library *model.Library
	Module  *model.Module
	Type    *model.Declaration
	File    *model.Facts         // of a SourcePage
	Guide   *link.Guide          // whose text the page shows: of a GuidePage, and of a HomePage or GuidesPage where there is one
	Part    int                  // of several pages about one thing, from 0
	Names   []*model.Declaration // of a UsersPage, NamesPage or DetailsPage: whom it is about
	Letter  string               // of an IndexPage; "" on the first
	Entries []Entry              // of an IndexPage
	// Twins are types of one module whose names differ by case alone, of a page that
	// shows them all. Each has the page at its own address; where a file system folds
	// case there is one file, and it is right for all of them.
	Twins  []*model.Declaration
	Same   *Page // another page of the same twins, whose text this one has
	before *Page // of a page of details: the one that is read before it
	after  *Page
	place  int // among the pages of its module that are read in turn
}

// Entry is one line of the A to Z list.
type Entry struct {
	Name        string
	Declaration *model.Declaration
	Module      *model.Module // where the entry is a module
}

// Addresses of the pages that each site has once.
const (
	HomeAddress     = "index.html"
	GuidesAddress   = "guides/index.html"
	TreeAddress     = "modules.html"
	IndexAddress    = "a-z/index.html"
	LostAddress     = "404.html"
	GoneAddress     = "deprecated.html"
	FindingsAddress = "findings.html"
	CoverageAddress = "coverage.html"
	ToDosAddress    = "to-dos.html"
)

// longIndex is how many entries the A to Z list holds before each letter gets a page.
const longIndex = 1500
