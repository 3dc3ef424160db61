package model

import (
	"codrel/internal/finding"
	"codrel/internal/source"
)

// Facts are what one file says, read by a front end without a look at any other file.
type Facts struct {
	Path     string          `json:"path,omitempty"` // from the project's root, with "/"
	Language string          `json:"language,omitempty"`
	Text     string          `json:"-"` // decoded; all strings of the facts are parts of it
	Lines    source.Lines    `json:"-"`
	Encoding source.Encoding `json:"encoding,omitempty"` // of the file's bytes; what is not UTF-8 is never written

	Package    string   `json:"package,omitempty"` // the name the file itself gives its module, as a Go package clause does
	Role       Role     `json:"role,omitempty"`
	Generated  bool     `json:"generated,omitempty"`  // carries the usual header line of generated code
	Stub       bool     `json:"stub,omitempty"`       // gives signatures alone, for a file of code that may stand beside it
	Standalone bool     `json:"standalone,omitempty"` // a program of its own beside its folder's module, as Go's "//go:build ignore"
	Conditions []string `json:"conditions,omitempty"` // under which the file is compiled at all
	Unworded   bool     `json:"unworded,omitempty"`   // what it holds, and what it names, may go without comments

	ModuleDoc       *Doc              `json:"moduleDoc,omitempty"`  // the comment on the module, where this file has it
	OfLibrary       bool              `json:"ofLibrary,omitempty"`  // it speaks of the library as a whole, and declares nothing
	LibraryDoc      *Doc              `json:"libraryDoc,omitempty"` // the comment on the library, where this file has it
	ModuleSpan      source.Span       `json:"moduleSpan,omitzero"`  // of the module's name in this file
	Modules         []ModuleIn        `json:"modules,omitempty"`    // those that it declares things of, where it may be several
	Classes         []ClassBase       `json:"classes,omitempty"`    // bases of modules, in languages whose modules are their classes
	Made            []string          `json:"made,omitempty"`       // names that macros may declare which nobody has read
	Gates           []Gate            `json:"gates,omitempty"`
	Given           []Given           `json:"given,omitempty"`
	About           []About           `json:"about,omitempty"`           // comments that stand elsewhere than what they describe
	Groups          []Group           `json:"groups,omitempty"`          // those that the file gives a title or a text
	Global          bool              `json:"global,omitempty"`          // what it declares needs no import
	AssignsExports  bool              `json:"assignsExports,omitempty"`  // the file exports things by assigning them, not by declarations
	DefaultIsModule bool              `json:"defaultIsModule,omitempty"` // what it gives as "default" is the module itself to its users
	HasExportList   bool              `json:"hasExportList,omitempty"`   // the file lists what it exports
	ExportList      []ExportedName    `json:"exportList,omitempty"`      // the names on that list, where it may name what the file takes from others
	Directives      []Directive       `json:"directives,omitempty"`      // beside the module's name
	Sayings         []Saying          `json:"sayings,omitempty"`         // of the library as a whole
	Occurrences     []Occurrence      `json:"occurrences,omitempty"`
	Imports         []Import          `json:"imports,omitempty"`
	Stray           []Stray           `json:"stray,omitempty"`
	Empty           []Blank           `json:"empty,omitempty"`    // attached comments without a word
	Problems        []finding.Finding `json:"problems,omitempty"` // what could not be read
	Takes           []string          `json:"takes,omitempty"`    // other files that its comments take text from, whether they are there or not
	Untaken         []Untaken         `json:"untaken,omitempty"`  // what they take that is not there
	Inside          *Inside           `json:"inside,omitempty"`   // nil unless it was asked for
}

// ModuleIn is a module that a file declares things of.
type ModuleIn struct {
	Name string `json:"name,omitempty"` // as written; "" for the file's own
	Doc  *Doc   `json:"doc,omitempty"`  // the comment on it, or nil
	// Span is where its name stands, of languages in which a module in a file should have a comment.
	Span source.Span `json:"span,omitzero"`
	// Whole is all of it, of one that stands in the file within brackets.
	Whole      source.Span `json:"whole,omitzero"`
	Conditions []string    `json:"conditions,omitempty"` // under which it exists, as written
	Within     []string    `json:"within,omitempty"`     // the macros that it stands in
	// Of languages in which a file names the modules below it:
	Elsewhere bool   `json:"elsewhere,omitempty"` // it is in a file of its own
	File      string `json:"file,omitempty"`      // that one, as written, where the usual one is not meant
	Kept      bool   `json:"kept,omitempty"`      // it is not for users
	Tested    bool   `json:"tested,omitempty"`    // it is there for tests alone
	Unworded  bool   `json:"unworded,omitempty"`  // what it holds may go without comments, as an attribute says
}

// ClassBase says that a module is a class with another one for a base.
type ClassBase struct {
	In   string      `json:"in,omitempty"` // the module that has the base, as written, where it is not the file's own
	Base string      `json:"base,omitempty"`
	Span source.Span `json:"span,omitzero"` // where the base is named
}

// Gate is a macro that puts conditions on what stands in it.
type Gate struct {
	Name       string   `json:"name,omitempty"`
	Conditions []string `json:"conditions,omitempty"`
}

// About is a comment that stands elsewhere than what it describes: it names that, or is
// named by it (see [Extra.TextOf]), as a text that several declarations have in common.
type About struct {
	Path string      `json:"path,omitempty"` // of a declaration, with its module, as written, or a name that declarations have their text by
	Span source.Span `json:"span,omitzero"`
	Doc  *Doc        `json:"doc,omitempty"`
	Part string      `json:"part,omitempty"` // the group that it puts that in
	Old  bool        `json:"old,omitempty"`  // it says that what it describes is deprecated
}

// Group is a group of declarations that a comment gives a title and a text. Declarations belong
// to it by a [Directive] "part" with its name, in any file of the library.
type Group struct {
	Name  string `json:"name,omitempty"`
	Title string `json:"title,omitempty"`
	Doc   *Doc   `json:"doc,omitempty"` // nil where it has none
	// Alone is set of a text with a title that stands for itself: nothing belongs to it.
	Alone bool `json:"alone,omitempty"`
}

// Position is the place of an offset as people count it.
func (f *Facts) Position(offset int32) source.Position { return f.Lines.Position(offset) }

// Place makes a finding's place of a span of this file.
func (f *Facts) Place(span source.Span) finding.Place {
	return finding.Place{File: f.Path, Span: span, At: f.Lines.Position(span.Start), End: f.Lines.Position(span.End)}
}

// ReadAsLatin adds a note that the file is not UTF-8 from a place on, of a language whose
// compilers read other encodings as well.
func (f *Facts) ReadAsLatin(from source.Span, language string) {
	f.Unreadable(from, "encoding", "", language)
	f.Problems[len(f.Problems)-1].Severity = finding.Note
}

// Unreadable adds the finding that a place of the file cannot be read, in one of the rule's
// forms and in the words of a language.
func (f *Facts) Unreadable(span source.Span, form, problem, language string) {
	f.Problems = append(f.Problems, finding.Finding{
		Rule: finding.UnreadableSource, Form: form, Place: f.Place(span),
		Arguments: []finding.Argument{{Name: "problem", Value: problem}, {Name: "language", Value: language}},
	})
}

// Occurrence is one place where something is declared, with what that place says of it.
type Occurrence struct {
	Kind           Kind        `json:"kind,omitempty"`
	Visibility     Visibility  `json:"visibility,omitempty"`     // its own, as written; see [Declaration.Visibility] for the effective one
	Variadic       bool        `json:"variadic,omitempty"`       // the last parameter takes any number of arguments
	Embedded       bool        `json:"embedded,omitempty"`       // a field that embeds a type
	Implementation bool        `json:"implementation,omitempty"` // gives the body of forms declared before it, which callers see instead
	Deprecated     bool        `json:"deprecated,omitempty"`
	FromComment    bool        `json:"fromComment,omitempty"` // a comment alone declares it: the language knows nothing of it
	Local          bool        `json:"local,omitempty"`       // local to its language, as in a function called at once, and yet exported to users
	Export         Export      `json:"export,omitempty"`      // whether the file's own list of what it exports names it
	Line           int32       `json:"line,omitempty"`        // of the name, from 1
	Parent         int32       `json:"parent,omitempty"`      // index in Facts.Occurrences of the enclosing declaration, or -1
	Name           string      `json:"name,omitempty"`
	Scope          string      `json:"scope,omitempty"` // enclosing names joined by "."
	NameSpan       source.Span `json:"nameSpan,omitzero"`
	Span           source.Span `json:"span,omitzero"` // the declaration whole, without its comment
	Signature      Tokens      `json:"signature,omitempty"`
	Callable       *Callable   `json:"callable,omitempty"` // nil where it takes no parameters
	Doc            *Doc        `json:"-"`                  // its own doc comment, or nil
	GroupDoc       *Doc        `json:"-"`                  // the comment on the group it is declared in, where that is not its own
	Extra          *Extra      `json:"extra,omitempty"`    // nil where it has nothing of the kind
}

// Extra is what few occurrences have.
type Extra struct {
	TypeParams []Param     `json:"typeParams,omitempty"`
	Bases      []Base      `json:"bases,omitempty"`
	Directives []Directive `json:"directives,omitempty"`
	Failures   []Failure   `json:"failures,omitempty"`   // that its signature declares; those that a body shows are the callable's
	Modifiers  []string    `json:"modifiers,omitempty"`  // words of its language that change what it is, as written: "static", "abstract"
	Section    string      `json:"section,omitempty"`    // the section of its type that it stands in, where it says more than the visibility does: "slots"
	Conditions []string    `json:"conditions,omitempty"` // under which it exists, as written
	Within     []string    `json:"within,omitempty"`     // the macros that it stands in, which may put it under conditions
	Made       bool        `json:"made,omitempty"`       // a macro makes it, and may make more of it than its text says
	Advice     *Doc        `json:"advice,omitempty"`     // what the mark that makes it deprecated says in words
	Same       string      `json:"same,omitempty"`       // the path of what it is another name of, as written
	In         string      `json:"in,omitempty"`         // the module that it belongs to, as written, where its file may declare things of several
	Space      string      `json:"space,omitempty"`      // the name space that its name is in, where its kind does not say it
	Arity      int32       `json:"arity,omitempty"`      // how many type parameters are a part of its name
	Called     string      `json:"called,omitempty"`     // the path that its comment calls it by, where code makes it known under that
	TextOf     string      `json:"textOf,omitempty"`     // the path of what has its text, as written
	Aside      bool        `json:"aside,omitempty"`      // its own words keep it out of lists of names
	Assigned   bool        `json:"assigned,omitempty"`   // an assignment gives it its text, and nothing is attached to it
	Property   bool        `json:"property,omitempty"`   // it is made a property of what it is another name of
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

// Declares are the failures that the occurrence's signature declares.
func (o *Occurrence) Declares() []Failure {
	if o.Extra == nil {
		return nil
	}
	return o.Extra.Failures
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

// ExportedName is a name on a file's own list of what it exports.
type ExportedName struct {
	Name string      `json:"name,omitempty"`
	Span source.Span `json:"span,omitzero"`
}

// Export tells whether a file that lists what it exports names a declaration.
type Export uint8

// The states of an export. Languages that export by other means leave it unsaid.
const (
	ExportUnsaid Export = iota
	Exported
	NotExported
	Renamed // exported, but only under another name
)

// Callable is the part of an occurrence that only callables have.
type Callable struct {
	Params         []Param  `json:"params,omitempty"`
	Results        []Param  `json:"results,omitempty"`
	Receiver       Tokens   `json:"receiver,omitempty"` // of a method: the type it is declared on
	*Shown                  // by its body; nil where that shows nothing of the kind
	Returns        Returned `json:"returns,omitempty"`
	ReadsArguments bool     `json:"readsArguments,omitempty"` // it reads what it is given beyond its list
	TypeGuard      bool     `json:"typeGuard,omitempty"`      // its result says what a parameter is, and gives nothing of that type
	Placeholder    bool     `json:"placeholder,omitempty"`    // its body is there for others to fill: it is empty, only fails, or returns one fixed value
}

// Shown is what the bodies of few callables show.
type Shown struct {
	Failures []Failure `json:"failures,omitempty"`
	Forwards []string  `json:"forwards,omitempty"` // the callables, as written, whose results are all that the body returns: see [ReturnsForwarded]
}

// Fails are the failures that the body shows.
func (c *Callable) Fails() []Failure {
	if c.Shown == nil {
		return nil
	}
	return c.Failures
}

// Relays are the callables, as written, whose results are all that the body returns.
func (c *Callable) Relays() []string {
	if c.Shown == nil {
		return nil
	}
	return c.Forwards
}

// Body is what the body shows, to be set.
func (c *Callable) Body() *Shown {
	if c.Shown == nil {
		c.Shown = &Shown{}
	}
	return c.Shown
}

// Failure is a way in which a body says that it fails.
type Failure struct {
	Name string      `json:"name,omitempty"` // of the exception's type as written
	Span source.Span `json:"span,omitzero"`
}

// Returned tells what a body that can be seen hands to its callers.
type Returned uint8

// What bodies give.
const (
	ReturnsUnknown Returned = iota // there is no body, or its language needs no look at it
	ReturnsNothing
	ReturnsResult
	ReturnsSeries    // one value after the other, as generators do
	ReturnsForwarded // what other callables give, if they give anything
	ReturnsNever     // every call fails
	ReturnsSelf      // the object itself, so that calls can be put in a row
)

// Param is a parameter, a result or a type parameter.
type Param struct {
	Name     string      `json:"name,omitempty"` // as written; the language's word for "unnamed" where it has none
	Type     Tokens      `json:"type,omitempty"`
	Default  source.Span `json:"default,omitzero"` // what it is where it is left out; empty where nothing says so
	Variadic bool        `json:"variadic,omitempty"`
	Mode     Passing     `json:"mode,omitempty"`
	Optional bool        `json:"optional,omitempty"` // may be left out, with or without a default
	Implied  bool        `json:"implied,omitempty"`  // given by the language, not by the caller, as Python's self
	Fields   *[]string   `json:"fields,omitempty"`   // the names that a pattern takes out of the argument; nil where it is none
}

// Names are the names that a pattern takes out of the argument.
func (p *Param) Names() []string {
	if p.Fields == nil {
		return nil
	}
	return *p.Fields
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
	Type Tokens      `json:"type,omitempty"`
	Span source.Span `json:"span,omitzero"`
	How  Inheritance `json:"how,omitempty"`
}

// Given is a base that a file gives to a type from outside of it, as an implementation of a trait
// does.
type Given struct {
	In   string `json:"in,omitempty"` // the module in the file that says it
	Of   Tokens `json:"of,omitempty"` // the type; none where every type has it that meets the bounds
	Base Base   `json:"base,omitzero"`
	// Every is what such types are called, and Bounds what they have.
	Every  string `json:"every,omitempty"`
	Bounds Tokens `json:"bounds,omitempty"`
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
	Text    string        `json:"text,omitempty"` // lines joined by "\n"
	Lines   []source.Span `json:"lines,omitempty"`
	Span    source.Span   `json:"span,omitzero"`     // of the comment with its markers
	Escaped bool          `json:"escaped,omitempty"` // backslashes stand for other characters, as in most string literals
	Dialect string        `json:"dialect,omitempty"` // how it is written, where that is not the language's usual way
}

// Import is one import of a file, or a name under which the file re-exports what it has
// under another.
type Import struct {
	Name         string `json:"name,omitempty"`         // the local name as written, or ""; "." where all names in the member come in bare
	Assumed      string `json:"assumed,omitempty"`      // the local name where none is written and the module is unknown
	Path         string `json:"path,omitempty"`         // "" for the file itself: a further name of what the member is
	Member       string `json:"member,omitempty"`       // what is taken out of the module; "" for the module itself, "*" for all names
	Whole        bool   `json:"whole,omitempty"`        // the module itself is what it exports as a whole, where it gives something so
	Reexport     bool   `json:"reexport,omitempty"`     // the file gives what it takes on to its own users
	ReexportsOwn bool   `json:"reexportsOwn,omitempty"` // so it is where what is taken belongs to the same library
	Doc          *Doc   `json:"doc,omitempty"`          // the comment on the name where it is re-exported
	In           string `json:"in,omitempty"`           // the module in the file that has it, where that is not the file's own
	// NotLoaded is set where nothing is loaded with the file: types alone are taken, or
	// the import stands where only a program goes.
	NotLoaded bool        `json:"notLoaded,omitempty"`
	Apart     bool        `json:"apart,omitempty"`  // what it gives on has its page where it is declared, if users get there
	ForAll    bool        `json:"forAll,omitempty"` // all files of the library have it
	Span      source.Span `json:"span,omitzero"`
}

// Stray is a comment that reads like a doc comment and is attached to nothing.
type Stray struct {
	Span    source.Span `json:"span,omitzero"`
	Name    string      `json:"name,omitempty"`    // what it seems to describe
	Because string      `json:"because,omitempty"` // why it is not attached, as a message form's name
}

// Untaken is a place where a comment takes text from another file that has none of it.
type Untaken struct {
	Span source.Span `json:"span,omitzero"`
	File string      `json:"file,omitempty"` // as written
	Part string      `json:"part,omitempty"` // as written: what of the file is meant; "" where there is no such file
}

// Blank is a comment without a word.
type Blank struct {
	Span   source.Span `json:"span,omitzero"`
	Inside bool        `json:"inside,omitempty"` // it stands in what it would describe, not before it
}

// Directive is a comment line "codrel: ..." beside a declaration.
type Directive struct {
	Verb   string      `json:"verb,omitempty"`   // "let", "hide", "part", "words", or what stood there
	Object string      `json:"object,omitempty"` // the rule of "let", the rest of the line otherwise
	Reason string      `json:"reason,omitempty"`
	Span   source.Span `json:"span,omitzero"`
}
