package model

import (
	"cmp"
	"iter"
	"strings"

	"codrel/internal/source"
)

// Project is everything that one run reads.
type Project struct {
	Name      string
	Version   string
	Home      *Page // the README, or nil
	Libraries []*Library
	Fragments []Fragment // in the order of their names
}

// Fragment is a piece of text that is used in several places.
type Fragment struct {
	Name string // its path in the folder of fragments, without the ending
	*Page
}

// Page is a text by the maintainer, such as the README.
type Page struct {
	Path  string // from the project's root
	Text  string
	Lines source.Lines
}

// Library is one tree of source in one language.
type Library struct {
	Name     string // unique in the project
	Language string
	Root     string   // folder from the project's root, "." for the root itself
	Prefix   string   // the module path of its root folder, "" where paths start at the root
	Version  string   // the language's own version of it, where its files say one
	Package  string   // what users import the library by as a whole, "" where modules have names of their own
	Entries  []Entry  // the modules that its own files name as those for users; empty for all
	Open     []string // patterns of folders whose modules count as visible even if their language keeps them internal
	Modules  []*Module
	Tests    []*Module // what its test files declare
	Files    []*Facts  // code, then tests, each in the order of paths

	Elsewhere *Elsewhere // the project it belongs to, where that is another
}

// Entry is a module, or a group of them, that a library's own files give to users.
type Entry struct {
	Path   string // the module's; one "*" in it stands for any text
	As     string // what users import it by, with the same "*"; "" for the library's own name
	Closed bool   // what would be imported by such a name is kept all the same
}

// Entry finds what users import the module with a path by. An entry without a "*" is
// nearer than one with it, and of those the one that names more.
func (l *Library) Entry(path string) (as string, ok bool) {
	longest := -1
	for _, e := range l.Entries {
		if e.Closed {
			continue
		}
		if e.Path == path {
			return cmp.Or(e.As, l.Package), true
		}
		if part, fits := starred(e.Path, path); fits && len(e.Path) > longest {
			longest, as = len(e.Path), strings.Replace(e.As, "*", part, 1)
		}
	}
	for _, e := range l.Entries {
		if _, fits := starred(e.As, as); fits && e.Closed {
			return "", false
		}
	}
	return as, longest >= 0
}

// starred is what the "*" of a pattern stands for in a text.
func starred(pattern, text string) (part string, ok bool) {
	before, after, ok := strings.Cut(pattern, "*")
	if !ok || len(text) <= len(before)+len(after) || !strings.HasPrefix(text, before) || !strings.HasSuffix(text, after) {
		return "", false
	}
	return text[len(before) : len(text)-len(after)], true
}

// Elsewhere is another project whose names are known.
type Elsewhere struct {
	Project string
	Site    string // its address, or the way to its pages from the root of this project's; ends in "/"
}

// Module is a language's unit of naming.
type Module struct {
	Library  *Library
	Path     string // the language's own name for it: a Go import path, a Python dotted name
	Name     string // the short name users write before a dot
	Role     Role
	Internal bool // its language keeps it from outside users as a whole
	Files    []*Facts
	Doc      []DocOf // the comments on the module, one for each file that has one
	Top      []*Declaration
	byPath   map[nameKey]*Declaration
	all      [][]Declaration // in pieces, so that addresses never move
	count    int
}

// DocOf is a doc comment and the file it stands in.
type DocOf struct {
	Doc  *Doc
	File *Facts
}

type nameKey struct{ scope, name string }

// Declaration is a thing with a name, made of the places that declare it.
type Declaration struct {
	Module      *Module
	Parent      *Declaration // the enclosing declaration, or nil
	Members     []*Declaration
	Name        string
	Scope       string // enclosing names joined by "."
	Occurrences []At   // in the order of files and lines; len > 0
	Visibility  Visibility
	Primary     int // index of the occurrence that speaks for it: the first with a comment, else the first
	Holding     int // index of the occurrence that says what it is: one that can hold members, where it has any
	Hidden      bool
}

// At is an occurrence and the file it stands in.
type At struct {
	*Occurrence
	File *Facts
}

// Tokens yields the tokens of a part of the occurrence: its signature, a type in it.
func (a At) Tokens(t Tokens) iter.Seq[Token] { return t.In(a.File.Text) }

// NewModule makes a module without declarations.
func NewModule(library *Library, path string) *Module {
	return &Module{Library: library, Path: path, byPath: map[nameKey]*Declaration{}}
}

// Pieces of the list of declarations grow with the module up to a bound.
const (
	smallestPiece = 8
	largestPiece  = 512
)

// Declare returns the declaration of this scope and name, making it where it is new.
func (m *Module) Declare(scope, name string) *Declaration {
	key := nameKey{scope, name}
	if d := m.byPath[key]; d != nil {
		return d
	}
	last := len(m.all) - 1
	if last < 0 || len(m.all[last]) == cap(m.all[last]) {
		m.all = append(m.all, make([]Declaration, 0, max(smallestPiece, min(m.count, largestPiece))))
		last++
	}
	m.all[last] = append(m.all[last], Declaration{Module: m, Name: name, Scope: scope})
	m.count++
	d := &m.all[last][len(m.all[last])-1]
	m.byPath[key] = d
	return d
}

// Lookup finds the declaration with this path below the module, such as "Berth.Assign", or nil.
func (m *Module) Lookup(path string) *Declaration {
	scope, name := "", path
	if i := strings.LastIndexByte(path, '.'); i >= 0 {
		scope, name = path[:i], path[i+1:]
	}
	return m.byPath[nameKey{scope, name}]
}

// Find is the declaration of this scope and name, or nil.
func (m *Module) Find(scope, name string) *Declaration { return m.byPath[nameKey{scope, name}] }

// Declarations are all declarations of the module at any depth, in the order
// they were first met.
func (m *Module) Declarations(yield func(*Declaration) bool) {
	for _, piece := range m.all {
		for i := range piece {
			if !yield(&piece[i]) {
				return
			}
		}
	}
}

// Count is the number of declarations at any depth.
func (m *Module) Count() int { return m.count }

// Last is the last element of the module's path, which people call it by.
func (m *Module) Last() string { return m.Path[strings.LastIndexByte(m.Path, '/')+1:] }

// ID names the module in the project: "library/path".
func (m *Module) ID() string { return m.Library.Name + "/" + m.Path }

// Main is the occurrence that speaks for the declaration.
func (d *Declaration) Main() At { return d.Occurrences[d.Primary] }

// Form is the occurrence whose signature callers see: a stub's before that of the
// code, and none that only gives a body to forms declared before it.
func (d *Declaration) Form() At {
	for _, o := range d.Occurrences {
		if o.File.Stub {
			return o
		}
	}
	if main := d.Main(); !main.Behind {
		return main
	}
	for _, o := range d.Occurrences {
		if !o.Behind {
			return o
		}
	}
	return d.Main()
}

// Kind is what the declaration is.
func (d *Declaration) Kind() Kind { return d.Occurrences[d.Holding].Kind }

// Path is the name with the enclosing names before it, such as "Berth.Assign".
func (d *Declaration) Path() string {
	if d.Scope == "" {
		return d.Name
	}
	return d.Scope + "." + d.Name
}

// ID names the declaration for good: "library/module#Path.Of.Name". It depends
// on the declaration alone, never on its neighbours.
func (d *Declaration) ID() string { return d.Module.ID() + "#" + d.Path() }

// Doc is the declaration's own doc comment and the file it stands in, or nil.
func (d *Declaration) Doc() (*Doc, *Facts) {
	at := d.Main()
	return at.Doc, at.File
}

// Documented reports whether the declaration, or the group it is declared in, has a comment.
func (d *Declaration) Documented() bool {
	for _, o := range d.Occurrences {
		if o.Doc != nil || o.GroupDoc != nil {
			return true
		}
	}
	return false
}

// Deprecated reports whether it is so in all its forms: occurrences without a
// comment say nothing either way.
func (d *Declaration) Deprecated() bool {
	deprecated := false
	for _, o := range d.Occurrences {
		switch {
		case o.Deprecated:
			deprecated = true
		case o.Doc != nil:
			return false
		}
	}
	return deprecated
}

// Member finds a member by its name, or nil.
func (d *Declaration) Member(name string) *Declaration {
	return d.Module.byPath[nameKey{d.Path(), name}]
}

// Generated reports whether every occurrence stands in generated code.
func (d *Declaration) Generated() bool {
	for _, o := range d.Occurrences {
		if !o.File.Generated {
			return false
		}
	}
	return true
}
