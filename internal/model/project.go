package model

import (
	"cmp"
	"iter"
	"slices"
	"strconv"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/source"
)

// Project is everything that one run reads.
type Project struct {
	Name      string
	Version   string
	Libraries []*Contents
	Guides    []*Page    // by the maintainer, in the order in which they are read
	Fragments []Fragment // in the order of their names
}

// Files yields the files of all libraries.
func (p *Project) Files(yield func(*Facts) bool) {
	for _, lib := range p.Libraries {
		for _, f := range lib.Files {
			if !yield(f) {
				return
			}
		}
	}
}

// Fragment is a piece of text that is used in several places.
type Fragment struct {
	Name string // its path in the folder of fragments, without the ending
	*Page
}

// Page is a text by the maintainer, such as the README.
type Page struct {
	Path     string // from the project's root
	Text     string
	Lines    source.Lines
	Encoding source.Encoding // of the file's bytes
	Landing  bool            // a guide that is the text of the site's first page, as the README is
	Name     string          // of another guide: its path in the folder of guides, without the ending
	Title    string          // of a guide, where its front matter gives one
	Part     string          // the part that a guide belongs to, or ""
	Begin    int32           // where a guide's text begins, behind the front matter
}

// Place makes a finding's place of a span of the page.
func (p *Page) Place(span source.Span) finding.Place {
	return finding.Place{File: p.Path, Span: span, At: p.Lines.Position(span.Start), End: p.Lines.Position(span.End)}
}

// Library is one tree of source in one language: what stays the same of it while its files
// change.
type Library struct {
	Name       string // unique in the project
	Language   string
	Habits     *Habits            // of that language; nil where nobody reads it
	Root       string             // folder from the project's root, "." for the root itself
	Prefix     string             // the module path of its root folder, "" where paths start at the root
	Version    string             // the language's own version of it, where its files say one
	Package    string             // what users import the library by as a whole, "" where modules have names of their own
	Entries    []Entry            // the modules that its own files name as those for users; empty for all
	OwnImports []Entry            // names by which only its own files import; one "*" in them stands for any text
	Imports    []string           // paths of modules all names of which each of its files has, by its project files
	Begins     []Begin            // the files that its project files say it begins with, where these are not the usual ones
	Sayings    []Saying           // what its manifests say of it and its modules beyond that
	SaidInCode []Saying           // and what its code says
	Groups     map[string]GroupIn // by their names
	Skipped    []SkippedFolder    // folders of files that are not read
	Visible    []string           // patterns of folders whose modules count as visible even if their language keeps them internal

	Elsewhere *Elsewhere // the project it belongs to, where that is another
}

// GroupIn is a group with the file that gives it its title and its text.
type GroupIn struct {
	*Group
	File *Facts
}

// Contents is a library with what its files hold at one time.
type Contents struct {
	*Library
	Modules  []*Module
	Tests    []*Module // what its test files declare
	Files    []*Facts  // code, then tests, each in the order of paths
	HasAbout bool      // some files hold comments on what other files declare
	// Under are the conditions under which files are read at all, beyond those that they say.
	Under map[*Facts][]string
	// UnderOf are those of occurrences, by the macros that these stand in.
	UnderOf map[*Occurrence][]string
}

// Begin is a file that modules of a library are found from.
type Begin struct {
	File   string `json:"file"`   // from the library's root
	Module string `json:"module"` // the path of its module
}

// Saying is something that a library's own files say of it, or of one of its modules, to
// those who use it: what it is built for, to whom it opens what others do not see.
type Saying struct {
	Key    string   `json:"key"`              // one of those below
	Module string   `json:"module,omitempty"` // the path of the module; "" for the library
	Names  []string `json:"names,omitempty"`  // of whom, or of what
}

// The keys of sayings.
const (
	BuiltFor       = "built-for"       // platforms
	Assembly       = "assembly"        // the file that is made of it, without suffix
	LetsIn         = "lets-in"         // other libraries, which may use what it keeps internal
	Called         = "module-name"     // as other libraries ask for it
	OnlyTo         = "exported-to"     // the only libraries that may import a module
	Installs       = "installs"        // the headers for users, as patterns of paths
	InstallsPartly = "installs-partly" // some of them, where the rest is known only when a build runs
	Reflected      = "reflected"       // all may look into a module when they run; without a module, into each
	Features       = "features"        // what users may switch on
	ByDefault      = "by-default"      // those that are on unless they are switched off
	Edition        = "edition"         // of the language
	OnlyRead       = "reflected-by"    // the only libraries that may
)

// JoinSayings is what two lists say together: each thing once, with the names of both.
func JoinSayings(a, b []Saying) []Saying {
	out := slices.Clone(a)
	for _, said := range b {
		i := slices.IndexFunc(out, func(s Saying) bool { return s.Key == said.Key && s.Module == said.Module })
		if i < 0 {
			out = append(out, said)
			continue
		}
		names := slices.Clone(out[i].Names)
		for _, name := range said.Names {
			if !slices.Contains(names, name) {
				names = append(names, name)
			}
		}
		out[i].Names = names
	}
	return out
}

// Said are all sayings of a library and its modules.
func (l *Library) Said() []Saying { return JoinSayings(l.Sayings, l.SaidInCode) }

// SaidOf are the sayings of a module, or with "" those of the library itself.
func (l *Library) SaidOf(module string) []Saying {
	var out []Saying
	for _, s := range l.Said() {
		if s.Module == module {
			out = append(out, s)
		}
	}
	return out
}

// Entry is a module that a library's own files give to users.
type Entry struct {
	Path   string `json:"path"`             // the module's
	As     string `json:"as,omitempty"`     // what users import it by
	Beside string `json:"beside,omitempty"` // the path of the module that has the code of what this one only declares, or ""
}

// Entry finds what users import the module with a path by.
func (l *Library) Entry(path string) (as string, ok bool) {
	for i := range l.Entries {
		if e := &l.Entries[i]; e.Path == path {
			return cmp.Or(e.As, l.Package), true
		}
	}
	return "", false
}

// OtherNames are what users may import the module with a path by as well.
func (l *Library) OtherNames(path string) (out []string) {
	first := true
	for i := range l.Entries {
		if e := &l.Entries[i]; e.Path == path {
			if !first {
				out = append(out, e.As)
			}
			first = false
		}
	}
	return out
}

// Inner finds the path of the module that the library's own files import by a name: one of
// its entries, or one of the names that are theirs alone.
func (l *Library) Inner(as string) (path string, ok bool) {
	for i := range l.Entries {
		if e := &l.Entries[i]; e.As == as {
			return e.Path, true
		}
	}
	for i := range l.OwnImports {
		e := &l.OwnImports[i]
		if e.As == as {
			return e.Path, true
		}
		before, after, starred := strings.Cut(e.As, "*")
		if starred && len(as) > len(before)+len(after) && strings.HasPrefix(as, before) && strings.HasSuffix(as, after) {
			return strings.Replace(e.Path, "*", as[len(before):len(as)-len(after)], 1), true
		}
	}
	return "", false
}

// SkippedFolder is a folder whose files are not read, since they are built from others.
type SkippedFolder struct {
	Folder   string `json:"folder,omitempty"` // from the library's root
	Files    int    `json:"files"`
	Minified bool   `json:"minified,omitempty"` // not a folder, but all files without blanks and comments
}

// Elsewhere is another project whose names are known.
type Elsewhere struct {
	Project string
	Site    string // its address, or the way to its pages from the root of this project's; ends in "/". "" where it has none
}

// Module is a language's unit of naming.
type Module struct {
	Library  *Library
	Path     string // the language's own name for it, by which users know it: a Go import path, a Python dotted name
	written  string // that which its files give it, where it is another one, else ""
	Name     string // the short name users write before a dot
	Role     Role
	Internal bool      // its language keeps it from outside users as a whole
	Files    []*Facts  // whose own module it is: each file has one
	More     []*Facts  // of other modules, which declare some things of this one
	Others   []*Module // those that some of its own files declare things of
	Doc      []DocOf   // the comments on the module, one for each file that has one
	Top      []*Declaration
	names    nameTable
	labelled bool            // some names carry more than their text
	all      [][]Declaration // in pieces, so that addresses never move
	count    int
	expected int  // how many more are likely to come
	Called   bool // comments give some of its declarations paths, see [Occurrence.Called]
	// Conditions are those under which there is such a module at all, as its language writes them.
	Conditions []string
	Unworded   bool // what it holds may go without comments, as an attribute in its code says
	Renamed    bool // some of its declarations are other names of something, see [Occurrence.Same]
	changed    bool // linking made it say more than its files do
	settled    bool // it is part of a snapshot, and changes no more
}

// AllFiles are the files that declare something of the module, its own first.
func (m *Module) AllFiles() []*Facts {
	if len(m.More) == 0 {
		return m.Files
	}
	return append(slices.Clip(m.Files), m.More...)
}

// DocOf is a doc comment and the file it stands in.
type DocOf struct {
	Doc  *Doc
	File *Facts
}

// Name is what a declaration is known by among those that the same thing encloses: its
// text, the name space of its language that it is in, and how many type parameters are a
// part of it.
type Name struct {
	Text  string
	Space string // "" for the one that most names share
	Arity int32  // 0 where the language does not tell names apart by it
}

// Declaration is a thing with a name, made of the places that declare it.
type Declaration struct {
	Module      *Module
	Parent      *Declaration // the enclosing declaration, or nil
	Members     []*Declaration
	Name        string
	Scope       string       // enclosing names joined by "."
	Occurrences []At         // in the order of files and lines; len > 0
	next        *Declaration // another one of the same name, in another name space or with another arity
	rare        *rare        // what few have, or nil: there are as many declarations as names in all source
	words       int32        // indices of the occurrences that speak for it, see [Declaration.Speaks]
	nature      int32
	Visibility  Visibility
	Hidden      bool
	gone        bool // what it was made of went to another one
}

// rare is what few declarations have.
type rare struct {
	space  string
	arity  int32
	origin *Declaration
	key    *nameKey // as its files write it, where that is not its name in its parent
	cut    int      // where the name that its files write begins in that of the key
	plain  []At     // its own occurrences, where it has the words of another
}

// none is what a declaration has where it has nothing that is rare.
var none rare

func (d *Declaration) seldom() *rare {
	if d.rare == nil {
		return &none
	}
	return d.rare
}

// rarely is what few declarations have, to be set.
func (d *Declaration) rarely() *rare {
	if d.rare == nil {
		d.rare = &rare{}
	}
	return d.rare
}

// Space is the name space that the name is in, see [Name].
func (d *Declaration) Space() string { return d.seldom().space }

// Arity is how many type parameters are a part of the name, see [Name].
func (d *Declaration) Arity() int32 { return d.seldom().arity }

// Origin is the declaration whose words these are, where that is another one: of a member
// that a type has from a base which users cannot name, and of a second name.
func (d *Declaration) Origin() *Declaration { return d.seldom().origin }

// key is what the declaration is found by: its name as its files write it, which users may
// know it by another one of.
func (d *Declaration) key() nameKey {
	if d.rare != nil && d.rare.key != nil {
		return *d.rare.key
	}
	return nameKey{d.Parent, d.Name}
}

// keep holds on to what the declaration is found by, whatever it is called from now on.
func (d *Declaration) keep() {
	key := d.key()
	d.rarely().key = &key
}

// has reports whether the declaration has the name, of those with its text.
func (d *Declaration) has(name Name) bool { return d.Space() == name.Space && d.Arity() == name.Arity }

// At is an occurrence and the file it stands in.
type At struct {
	*Occurrence
	File *Facts
}

// Tokens yields the tokens of a part of the occurrence: its signature, a type in it.
func (a At) Tokens(t Tokens) iter.Seq[Token] { return t.In(a.File.Text) }

// ByFile reports whether the modules of the language are files that others include.
func (m *Module) ByFile() bool { return m.Library.Habits != nil && m.Library.Habits.ByFile }

// NewModule makes a module without declarations.
func NewModule(library *Library, path string) *Module {
	return &Module{Library: library, Path: path}
}

// Call gives the module the path by which users know it, which is not the one where it stands.
func (m *Module) Call(path string) {
	m.changed = true
	if m.written == "" {
		m.written = m.Path
	}
	if h := m.Library.Habits; h != nil && m.Name == h.Last(m.Path) {
		m.Name = h.Last(path)
	}
	m.Path = path
}

// Written is the path that the module's files give it: paths in code lead through that.
func (m *Module) Written() string {
	if m.written != "" {
		return m.written
	}
	return m.Path
}

// WrittenName is the short name to go with that.
func (m *Module) WrittenName() string {
	if h := m.Library.Habits; m.written != "" && h != nil && m.Name == h.Last(m.Path) {
		return h.Last(m.written)
	}
	return m.Name
}

// Expect tells that about as many declarations follow.
func (m *Module) Expect(more int) { m.expected = more }

// Pieces of the list of declarations grow with the module up to a bound.
const (
	smallestPiece = 8
	largestPiece  = 512
)

// Declare returns the declaration of a name in what encloses it, making it where it is
// new. Where the parent is nil and the scope is not empty, what encloses it is not known
// yet: see [Module.Attach].
func (m *Module) Declare(parent *Declaration, scope string, name Name) *Declaration {
	key := nameKey{parent, name.Text}
	if parent == nil && scope != "" {
		key.name = scope + "." + name.Text
	}
	first := m.names.get(key)
	for d := first; d != nil; d = d.next {
		if d.has(name) {
			return d
		}
	}
	d := m.room()
	*d = Declaration{Module: m, Parent: parent, Name: name.Text, Scope: scope}
	if name.Space != "" || name.Arity > 0 {
		m.labelled = true
		d.rarely().space, d.rarely().arity = name.Space, name.Arity
	}
	if key != d.key() {
		d.rarely().key, d.rarely().cut = &key, len(key.name)-len(name.Text)
	}
	m.count++
	m.file(first, d)
	return d
}

// room is a place for one more declaration.
func (m *Module) room() *Declaration {
	last := len(m.all) - 1
	if last < 0 || len(m.all[last]) == cap(m.all[last]) {
		size := min(m.expected, largestPiece)
		if size <= 0 {
			size = max(smallestPiece, min(m.count, largestPiece))
		}
		m.all = append(m.all, make([]Declaration, 0, size))
		last++
	}
	m.expected--
	m.all[last] = append(m.all[last], Declaration{})
	return &m.all[last][len(m.all[last])-1]
}

// file puts a declaration behind the first of its name, which is nil where there is none.
func (m *Module) file(first, d *Declaration) {
	if first == nil {
		m.names.put(d)
		return
	}
	for first.next != nil {
		first = first.next
	}
	first.next = d
}

// unfile takes a declaration out of those of its name.
func (m *Module) unfile(d *Declaration) {
	first := m.names.get(d.key())
	switch {
	case first == d && d.next == nil:
		m.names.remove(d.key())
	case first == d:
		m.names.put(d.next)
	default:
		for first != nil && first.next != d {
			first = first.next
		}
		if first != nil {
			first.next = d.next
		}
	}
	d.next = nil
}

// Attach puts a declaration whose scope alone was known into what encloses it. Where that
// has one of its name already, that one gets its occurrences. It gives the one that has them now.
func (m *Module) Attach(d, parent *Declaration) *Declaration {
	m.unfile(d)
	name := Name{d.Written(), d.Space(), d.Arity()}
	first := m.names.get(nameKey{parent, name.Text})
	for other := first; other != nil; other = other.next {
		if other.has(name) {
			other.Occurrences = append(other.Occurrences, d.Occurrences...)
			files := m.AllFiles()
			slices.SortStableFunc(other.Occurrences, func(a, b At) int { return slices.Index(files, a.File) - slices.Index(files, b.File) })
			d.Occurrences, d.gone = nil, true
			m.count--
			return other
		}
	}
	if d.Parent = parent; d.rare != nil {
		d.rare.key, d.rare.cut = nil, 0
	}
	if d.Name != name.Text {
		d.rarely().key = &nameKey{parent, name.Text}
	}
	m.file(first, d)
	return d
}

// Adopt makes a member of a declaration, or, where that is nil, of the module, out of one
// that stands elsewhere, with the words of that one. It is nil where there is a member of
// this name.
func (m *Module) Adopt(parent, origin *Declaration) *Declaration {
	into := &m.Top
	if parent != nil {
		into = &parent.Members
	}
	if m.Has(parent, origin.Name) {
		return nil
	}
	d := m.Declare(parent, "", Name{origin.Name, origin.Space(), origin.Arity()})
	d.rarely().origin = origin
	d.Occurrences, d.words, d.nature = origin.Occurrences, origin.words, origin.nature
	d.Visibility, d.Hidden = origin.Speaks(Words).Visibility, origin.Hidden
	if parent != nil {
		d.Scope, d.Visibility, d.Hidden = parent.Path(), max(parent.Visibility, d.Visibility), parent.Hidden || d.Hidden
	}
	*into = append(*into, d)
	m.changed = true
	return d
}

// Rename gives a declaration at the top of its module the name that users know it by. It
// is found under that, and still under the one that its files write.
func (m *Module) Rename(d *Declaration, name string) {
	m.changed = true
	d.keep()
	d.Name = name
	rescope(d, 0)
	m.names.rename(nameKey{nil, name}, d)
}

// Seat puts a declaration of the top of its module under another one, which may be of
// another module, where users know it by a name below that. It stays in the list of what
// its module has at the top.
func (m *Module) Seat(d, under *Declaration, name string) {
	m.changed, under.Module.changed = true, true
	d.keep()
	d.Parent, d.Scope, d.Name = under, under.Path(), name
	rescope(d, 0)
	under.Members = append(slices.Clip(under.Members), d)
}

// rescope says the names around anew to all that stands in a declaration.
func rescope(d *Declaration, depth int) {
	for _, member := range d.Members {
		if member.Scope = d.Path(); depth < deepest {
			rescope(member, depth+1)
		}
	}
}

// deepest bounds how deep declarations are looked into.
const deepest = 1000

// Speak gives a declaration the words of another one: an occurrence made of that one's.
func (m *Module) Speak(d, origin *Declaration, at At) {
	m.changed = true
	d.rarely().plain, d.rarely().origin = d.Occurrences, origin
	d.Occurrences, d.words, d.nature = []At{at}, 0, 0
}

// Changed reports whether linking made the module say more than its files do.
func (m *Module) Changed() bool { return m.changed }

// Settle makes the module one that changes no more: readers of a snapshot may go on while
// another one is made.
func (m *Module) Settle() {
	if !m.settled { // others may be reading it
		m.settled = true
	}
}

// Settled reports whether the module changes no more.
func (m *Module) Settled() bool { return m.settled }

// Has reports whether something of a name is declared in a declaration, or, where that is
// nil, at the top of the module.
func (m *Module) Has(parent *Declaration, name string) bool {
	return m.names.get(nameKey{parent, name}) != nil
}

// Lookup finds the declaration with this path below the module, such as "Berth.Assign", or
// nil. Names may hold dots themselves.
func (m *Module) Lookup(path string) *Declaration { return m.lookup(nil, path) }

func (m *Module) lookup(parent *Declaration, path string) *Declaration {
	if d := m.names.get(nameKey{parent, path}); d != nil {
		return d
	}
	for i := 0; i < len(path); i++ {
		if path[i] != '.' {
			continue
		}
		for d := m.names.get(nameKey{parent, path[:i]}); d != nil; d = d.next {
			if found := m.lookup(d, path[i+1:]); found != nil {
				return found
			}
		}
	}
	return nil
}

// Declares reports whether what encloses a name has it already.
func (m *Module) Declares(parent *Declaration, name Name) bool {
	for d := m.names.get(nameKey{parent, name.Text}); d != nil; d = d.next {
		if d.has(name) {
			return true
		}
	}
	return false
}

// Find is the declaration with a name at the top of the module, or nil.
func (m *Module) Find(name string) *Declaration { return m.names.get(nameKey{nil, name}) }

// Of is the declaration that an occurrence of one of the module's files is a part of, or nil.
func (m *Module) Of(f *Facts, o *Occurrence) *Declaration {
	name := o.Named(m.Library.Habits)
	for d := m.named(f, o, 0); d != nil; d = d.next {
		if d.has(name) {
			return d
		}
	}
	return nil
}

// OfAny is the declaration that an occurrence of one of the module's files is a part of, in
// whichever module that is, or nil.
func (m *Module) OfAny(f *Facts, o *Occurrence) *Declaration {
	if d := m.Of(f, o); d != nil {
		return d
	}
	for _, other := range m.Others {
		if slices.Contains(other.More, f) {
			if d := other.Of(f, o); d != nil {
				return d
			}
		}
	}
	return nil
}

// named is the first declaration of an occurrence's name in what encloses that.
func (m *Module) named(f *Facts, o *Occurrence, depth int) *Declaration {
	switch {
	case depth > deepest:
		return nil
	case o.Parent >= 0:
		if parent := m.named(f, &f.Occurrences[o.Parent], depth+1); parent != nil {
			for ; parent != nil; parent = parent.next {
				if d := m.names.get(nameKey{parent, o.Name}); d != nil {
					return d
				}
			}
		}
		return nil
	case o.Scope == "":
		return m.names.get(nameKey{nil, o.Name})
	}
	return m.Lookup(o.Scope + "." + o.Name)
}

// Declarations are all declarations of the module at any depth, in the order
// they were first met.
func (m *Module) Declarations(yield func(*Declaration) bool) {
	for _, piece := range m.all {
		for i := range piece {
			if !piece[i].gone && !yield(&piece[i]) {
				return
			}
		}
	}
}

// Count is the number of declarations at any depth.
func (m *Module) Count() int { return m.count }

// ID names the module in the project: "library/path".
func (m *Module) ID() string { return m.Library.Name + "/" + m.Path }

// Kind is what the declaration is.
func (d *Declaration) Kind() Kind {
	if d.IsObject() {
		return KindNamespace
	}
	return d.Speaks(Nature).Kind
}

// IsObject reports whether the declaration is a constant or variable that names are put
// into.
func (d *Declaration) IsObject() bool {
	if len(d.Members) == 0 {
		return false
	}
	k := d.Speaks(Nature).Kind
	return k == KindConstant || k == KindVariable
}

// InStub reports whether a file that only declares has the declaration.
func (d *Declaration) InStub() bool {
	return slices.ContainsFunc(d.Occurrences, func(o At) bool { return o.File.Stub })
}

// Path is the name with the enclosing names before it, such as "Berth.Assign".
func (d *Declaration) Path() string {
	if d.Scope == "" {
		return d.Name
	}
	return d.Scope + "." + d.Name
}

// ID names the declaration for good: "library/module#Path.Of.Name". It depends
// on the declaration alone, as its files write it, never on its neighbours.
func (d *Declaration) ID() string { return d.Module.ID() + "#" + d.written() }

// written is the declaration's path as its files have it.
func (d *Declaration) written() string {
	key := d.key()
	if key.parent == nil {
		return d.label(key.name)
	}
	return key.parent.written() + "." + d.label(key.name)
}

// label is a name of the declaration with what else tells it from others of that name.
func (d *Declaration) label(name string) string {
	if arity := d.Arity(); arity > 0 {
		name += "-" + strconv.Itoa(int(arity))
	}
	if space := d.Space(); space != "" {
		name = space + ":" + name
	}
	return name
}

// Label is the declaration's path with what tells each name from others of the same text: no
// other declaration of the module has it. Nearly always it is the path.
func (d *Declaration) Label() string {
	if !d.Module.labelled {
		return d.Path()
	}
	switch name := d.label(d.Name); {
	case d.Parent != nil:
		return d.Parent.Label() + "." + name
	case d.Scope != "":
		return d.Scope + "." + name
	default:
		return name
	}
}

// Written is the name that the declaration's files write.
func (d *Declaration) Written() string { return d.key().name[d.seldom().cut:] }

// Namesakes yields the declarations of the same name in the same place, the first of them
// first, itself among them.
func (d *Declaration) Namesakes(yield func(*Declaration) bool) {
	for at := d.Module.names.get(d.key()); at != nil; at = at.next {
		if !yield(at) {
			return
		}
	}
}

// Blank reports whether nobody can name the declaration, since its language has no use for
// its name.
func (d *Declaration) Blank() bool {
	h := d.Module.Library.Habits
	return h != nil && h.Unnamed != "" && d.Name == h.Unnamed
}

// IsSecond reports whether the declaration is a further name of another one, whose words
// it has.
func (d *Declaration) IsSecond() bool { return d.seldom().plain != nil }

// AsWritten are the declaration's own occurrences; nil where all it has are another's.
func (d *Declaration) AsWritten() []At {
	switch r := d.seldom(); {
	case r.plain != nil:
		return r.plain
	case r.origin != nil:
		return nil
	}
	return d.Occurrences
}

// Site is the declaration in whose place the words of this one stand: itself, for nearly all.
func (d *Declaration) Site() *Declaration {
	for depth := 0; d.Origin() != nil && depth < deepest; depth++ {
		d = d.Origin()
	}
	return d
}

// Called is the path that a comment calls the declaration by, or "".
func (d *Declaration) Called() string {
	for _, o := range d.Occurrences {
		if path := o.Called(); path != "" {
			return path
		}
	}
	return ""
}

// Doc is the declaration's own doc comment and the file it stands in, or nil.
func (d *Declaration) Doc() (*Doc, *Facts) {
	at := d.Speaks(Words)
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

// Aside reports whether words of its own keep the declaration out of lists of names, which
// hold what most users need.
func (d *Declaration) Aside() bool {
	return slices.ContainsFunc(d.Occurrences, func(o At) bool { return o.Extra != nil && o.Extra.Aside })
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
	return d.Module.names.get(nameKey{d, name})
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
