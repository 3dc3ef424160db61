package model

import (
	"codrel/internal/finding"
	"codrel/internal/source"
)

// Facts are what one file says, read by a front end without a look at any other file.
type Facts struct {
	Path     string // from the project's root, with "/"
	Language string
	Text     string // decoded; all strings of the facts are parts of it
	Lines    source.Lines
	Encoding source.Encoding // of the file's bytes; what is not UTF-8 is never written

	Package    string // the name the file itself gives its module, as a Go package clause does
	Role       Role
	Generated  bool     // carries the usual header line of generated code
	Stub       bool     // gives signatures alone, for a file of code that may stand beside it
	Standalone bool     // a program of its own beside its folder's module, as Go's "//go:build ignore"
	Conditions []string // under which the file is compiled at all

	ModuleDoc   *Doc        // the comment on the module, where this file has it
	ModuleSpan  source.Span // of the module's name in this file
	Modules     []ModuleIn  // those that it declares things of, where it may be several
	About       []About     // comments that stand elsewhere than what they describe
	Global      bool        // what it declares needs no import
	Common      bool        // the file gives things away by assigning them, not by declarations
	Whole       bool        // what it gives as "default" is the module itself to its users
	Listed      bool        // the file lists what it gives away
	Names       []Listed    // the names on that list, where it may name what the file takes from others
	Directives  []Directive // beside the module's name
	Occurrences []Occurrence
	Imports     []Import
	Stray       []Stray
	Empty       []Blank           // attached comments without a word
	Problems    []finding.Finding // what could not be read
	Inside      *Inside           // nil unless it was asked for
}

// ModuleIn is a module that a file declares things of.
type ModuleIn struct {
	Name string // as written
	Doc  *Doc   // the comment on it, or nil
}

// About is a comment that stands elsewhere than what it describes: it names that, or is
// named by it (see [Extra.TextOf]), as a text that several declarations have in common.
type About struct {
	Path string // of a declaration, with its module, as written, or a name that declarations have their text by
	Span source.Span
	Doc  *Doc
}

// Position is the place of an offset as people count it.
func (f *Facts) Position(offset int32) source.Position { return f.Lines.Position(offset) }

// Place makes a finding's place of a span of this file.
func (f *Facts) Place(span source.Span) finding.Place {
	return finding.Place{File: f.Path, Span: span, At: f.Lines.Position(span.Start)}
}

// Occurrence is one place where something is declared, with what that place says of it.
type Occurrence struct {
	Kind       Kind
	Visibility Visibility // its own, as written; see [Declaration.Visibility] for the effective one
	Variadic   bool       // the last parameter takes any number of arguments
	Embedded   bool       // a field that embeds a type
	Behind     bool       // gives the body of forms declared before it, which callers see instead
	Deprecated bool
	Worded     bool   // a comment alone declares it: the language knows nothing of it
	Local      bool   // local to its language, as in a function called at once, and yet given to users
	Export     Export // whether the file's own list of what it gives away names it
	Line       int32  // of the name, from 1
	Parent     int32  // index in Facts.Occurrences of the enclosing declaration, or -1
	Name       string
	Scope      string // enclosing names joined by "."
	NameSpan   source.Span
	Span       source.Span // the declaration whole, without its comment
	Signature  Tokens
	Callable   *Callable // nil where it takes no parameters
	Doc        *Doc      // its own doc comment, or nil
	GroupDoc   *Doc      // the comment on the group it is declared in, where that is not its own
	Extra      *Extra    // nil where it has nothing of the kind
}

// Extra is what few occurrences have.
type Extra struct {
	TypeParams []Param
	Bases      []Base
	Directives []Directive
	Failures   []Failure // that its signature declares; those that a body shows are the callable's
	Modifiers  []string  // words of its language that change what it is, as written: "static", "abstract"
	Section    string    // the section of its type that it stands in, where it says more than the visibility does: "slots"
	Conditions []string  // under which it exists, as written
	Advice     *Doc      // what the mark that makes it deprecated says in words
	Same       string    // the path of what it is another name of, as written
	In         string    // the module that it belongs to, as written, where its file may declare things of several
	Space      string    // the name space that its name is in, where its kind does not say it
	Arity      int32     // how many type parameters are a part of its name
	Called     string    // the path that its comment calls it by, where code makes it known under that
	TextOf     string    // the path of what has its text, as written
	Assigned   bool      // an assignment gives it its text, and nothing is attached to it
	Property   bool      // it is made a property of what it is another name of
}

// NewExtra is nil where all lists are empty.
func NewExtra(typeParams []Param, bases []Base, directives []Directive) *Extra {
	if len(typeParams) == 0 && len(bases) == 0 && len(directives) == 0 {
		return nil
	}
	return &Extra{TypeParams: typeParams, Bases: bases, Directives: directives}
}

// TypeParams are the occurrence's type parameters.
func (o *Occurrence) TypeParams() []Param {
	if o.Extra == nil {
		return nil
	}
	return o.Extra.TypeParams
}

// Bases are the types that the occurrence embeds, extends or implements by its own words.
func (o *Occurrence) Bases() []Base {
	if o.Extra == nil {
		return nil
	}
	return o.Extra.Bases
}

// Directives are the comment lines to Codrel beside the occurrence.
func (o *Occurrence) Directives() []Directive {
	if o.Extra == nil {
		return nil
	}
	return o.Extra.Directives
}

// Advice is what the mark that makes the occurrence deprecated says in words, or nil.
func (o *Occurrence) Advice() *Doc {
	if o.Extra == nil {
		return nil
	}
	return o.Extra.Advice
}

// Same is the path of what the occurrence is another name of, as written, or "".
func (o *Occurrence) Same() string {
	if o.Extra == nil {
		return ""
	}
	return o.Extra.Same
}

// Named is what the occurrence is known by in what encloses it, in a language with these habits.
func (o *Occurrence) Named(h *Habits) Name {
	n := Name{Text: o.Name, Space: h.Space(o.Kind)}
	if o.Extra != nil {
		n.Arity = o.Extra.Arity
		if o.Extra.Space != "" {
			n.Space = o.Extra.Space
		}
	}
	return n
}

// Section is the section of its type that the occurrence stands in, see [Extra].
func (o *Occurrence) Section() string {
	if o.Extra == nil {
		return ""
	}
	return o.Extra.Section
}

// Modifiers are the words of its language that change what the occurrence is.
func (o *Occurrence) Modifiers() []string {
	if o.Extra == nil {
		return nil
	}
	return o.Extra.Modifiers
}

// Modify adds such words.
func (o *Occurrence) Modify(words ...string) {
	if len(words) == 0 {
		return
	}
	if o.Extra == nil {
		o.Extra = &Extra{}
	}
	o.Extra.Modifiers = append(o.Extra.Modifiers, words...)
}

// In is the module that the occurrence belongs to, as its file writes it, or "".
func (o *Occurrence) In() string {
	if o.Extra == nil {
		return ""
	}
	return o.Extra.In
}

// Called is the path that the occurrence's comment calls it by, or "".
func (o *Occurrence) Called() string {
	if o.Extra == nil {
		return ""
	}
	return o.Extra.Called
}

// Attached reports whether a doc comment is attached to the occurrence itself.
func (o *Occurrence) Attached() bool {
	return o.Doc != nil && (o.Extra == nil || !o.Extra.Assigned)
}

// Conditions are what must hold for the occurrence to exist, as the file says it.
func (o *Occurrence) Conditions() []string {
	if o.Extra == nil {
		return nil
	}
	return o.Extra.Conditions
}

// Listed is a name on a file's own list of what it gives away.
type Listed struct {
	Name string
	Span source.Span
}

// Export tells whether a file that lists what it gives away names a declaration.
type Export uint8

// The states of an export. Languages that export by other means leave it unsaid.
const (
	ExportUnsaid Export = iota
	Exported
	NotExported
	Renamed // given away, but only under another name
)

// Callable is the part of an occurrence that only callables have.
type Callable struct {
	Params   []Param
	Results  []Param
	Receiver Tokens    // of a method: the type it is declared on
	Failures []Failure // that its body shows
	Gives    Gives
	Relays   []string // the callables, as written, whose results are all that the body returns: see GivesRelayed
	Open     bool     // it reads what it is given beyond its list
	Judges   bool     // its result says what a parameter is, and gives nothing of that type
	Bare     bool     // its body is there for others to fill: it is empty, only fails, or returns one fixed value
}

// Failure is a way in which a body says that it fails.
type Failure struct {
	Name string // of the exception's type as written
	Span source.Span
}

// Gives tells what a body that can be seen hands to its callers.
type Gives uint8

// What bodies give.
const (
	GivesUnknown Gives = iota // there is no body, or its language needs no look at it
	GivesNothing
	GivesResult
	GivesSeries  // one value after the other, as generators do
	GivesRelayed // what other callables give, if they give anything
)

// Param is a parameter, a result or a type parameter.
type Param struct {
	Name     string // as written; the language's word for "unnamed" where it has none
	Type     Tokens
	Default  source.Span // what it is where it is left out; empty where nothing says so
	Variadic bool
	Mode     Passing
	Optional bool     // may be left out, with or without a default
	Implied  bool     // given by the language, not by the caller, as Python's self
	Fields   []string // the names that a pattern takes out of the argument
}

// Passing is how an argument is handed over, where its type does not say it.
type Passing uint8

// The ways in which arguments are handed over.
const (
	ByValue     Passing = iota
	ByReference         // the callee may change it for the caller
	OutOnly             // the callee sets it
	InOnly              // the callee reads it where it is
	Moved               // the caller has it no longer
)

// Base is a type that a declaration embeds, extends or implements by its own words.
type Base struct {
	Type Tokens
	Span source.Span
	How  Inheritance
}

// Inheritance is how a declaration means one of its bases.
type Inheritance uint8

// The ways in which a type has another one for its base.
const (
	Extends Inheritance = iota
	Implements
	MixesIn
	Embeds
	ImplementsFor // what implements the base stands apart from the type
)

// String is the word that the symbol stream uses.
func (h Inheritance) String() string {
	return [...]string{"extends", "implements", "mixes-in", "embeds", "implements-for"}[h]
}

// Doc is one doc comment, without its markers. Line i of Text, counted from 0,
// stands at Lines[i] of the file, so that every offset of Text has its place.
type Doc struct {
	Text    string // lines joined by "\n"
	Lines   []source.Span
	Span    source.Span // of the comment with its markers
	Escaped bool        // backslashes stand for other characters, as in most string literals
	Dialect string      // how it is written, where that is not the language's usual way
}

// Import is one import of a file, or a name under which the file gives on what it has
// under another.
type Import struct {
	Name    string // the local name as written, or ""
	Assumed string // the local name where none is written and the module is unknown
	Path    string // "" for the file itself: a further name of what the member is
	Member  string // what is taken out of the module; "" for the module itself, "*" for all names
	Whole   bool   // the module itself is what it gives as a whole, where it gives something so
	Public  bool   // the file gives what it takes on to its own users
	Open    bool   // so it is where what is taken belongs to the same library
	Doc     *Doc   // the comment on the name where it is given on
	// Apart is set where nothing is loaded with the file: types alone are taken, or
	// the import stands where only a program goes.
	Apart bool
	Span  source.Span
}

// Stray is a comment that reads like a doc comment and is attached to nothing.
type Stray struct {
	Span    source.Span
	Name    string // what it seems to describe
	Because string // why it is not attached, as a message form's name
}

// Blank is a comment without a word.
type Blank struct {
	Span   source.Span
	Inside bool // it stands in what it would describe, not before it
}

// Directive is a comment line "codrel: ..." beside a declaration.
type Directive struct {
	Verb   string // "let", "hide", "part", "words", or what stood there
	Object string // the rule of "let", the rest of the line otherwise
	Reason string
	Span   source.Span
}
