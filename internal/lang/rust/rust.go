// Package rust is the front end of Rust, to the 2024 edition of its reference.
//
// It reads from the tokens of one pass over the text (lexing.Shape): items of every kind, what
// types, traits and implementations hold, and the modules that a file has in it. Bodies and values
// are passed over by their brackets. Nothing is expanded: of what macros declare, those are read
// whose call holds items.
//
// The package knows nothing of other files but how they make a crate.
package rust

import (
	"path"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// FrontEnd reads the language.
type FrontEnd struct{}

var habits = model.Habits{
	Language: "rust", Name: "Rust", Dialect: "crossmarks", Fences: []string{"rust", "rs"},
	PathMark: "::", Nested: true, PlainAliases: true, ByPath: true, NameMarks: []string{"::"}, Self: []string{"Self"}, Roots: []string{"crate", "self", "super"}, Nothing: []string{""}, Unnamed: "_", Unused: "_",
	Started: []string{"main"}, Directive: "// codrel: ", Fails: "fails", Contracts: true, Circles: true, MayMake: []string{"! {", "!{"},
	Peril: "unsafe", PerilHeading: "Safety",
	Unbound: []string{"const", "unsafe", "async"},
	Spaces:  map[model.Kind]string{model.KindMacro: "macro", model.KindField: "field"},
}

// Habits are those of Rust.
func (FrontEnd) Habits() *model.Habits { return &habits }

// Extensions are the endings of its files.
func (FrontEnd) Extensions() []string { return []string{".rs"} }

// SkipFolders are those that the build writes, and copies of other crates.
func (FrontEnd) SkipFolders() []string { return []string{"target", "vendor", "node_modules"} }

// IsTest reports whether a path is that of a test, a benchmark or an example, by the folders that
// Cargo gives them.
func (FrontEnd) IsTest(file string) bool {
	for part := range strings.SplitSeq(path.Dir(file), "/") {
		switch part {
		case "tests", "benches", "examples", "fuzz":
			return true
		}
	}
	base := path.Base(file)
	return base == "tests.rs" || base == "build.rs"
}

// Scan finds keywords, numbers, strings and comments.
func (FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	s := lexing.Stream{Pieces: into}
	shape.Lex(text, &s)
	return s.Pieces
}

// shape is how Rust writes comments, strings and marks (chapter 2 of its reference). Marks leave out
// those that begin with ">" or "<<": lists of arguments may end and begin there.
var shape = lexing.Shape{
	Names:    lexing.NameBytes(""),
	Keyword:  lexing.OneOf(keywords),
	Comments: []lexing.CommentShape{{Open: "//"}, {Open: "/*", Close: "*/", Nested: true}},
	Strings: []lexing.StringShape{
		{Prefixes: []string{"br", "cr", "r"}, Open: `"`, Fence: '#', Lines: true},
		{Prefixes: []string{"b", "c"}, Open: `"`, Escape: '\\', Lines: true},
		{Prefixes: []string{"b"}, Open: "'", Escape: '\\'},
		{Open: `"`, Escape: '\\', Lines: true},
		{Open: "'", Escape: '\\', Character: true},
	},
	LeadingDigit: true,
	Body:         beginsBody,
	Marks:        []string{"..=", "...", "..", "->", "=>", "::", "&&", "||", "==", "!=", "<=", "+=", "-=", "*=", "/=", "%=", "^=", "&=", "|="},
}

// keywords are the words of the language that are reserved everywhere (2.2 of its reference).
var keywords = lexing.WordSet(`as async await break const continue crate dyn else enum extern false fn for if impl in let loop match mod move mut
	pub ref return self Self static struct super trait true type unsafe use where while abstract become box do final macro override priv typeof unsized virtual yield try gen`)

// primitives are the types that need no import.
var primitives = lexing.WordSet("bool char str u8 u16 u32 u64 u128 usize i8 i16 i32 i64 i128 isize f16 f32 f64 f128")

var (
	isKeyword   = lexing.OneOf(keywords)
	isPrimitive = lexing.OneOf(primitives)
	isReserved  = lexing.OneOf(keywords, primitives)
	roots       = map[string]bool{"crate": true, "super": true, "self": true}
	binders     = map[string]bool{"let": true, "mut": true, "ref": true, "for": true}
	makers      = map[string]bool{"new": true, "default": true} // by convention what they give is of their type
)

// Read extracts what the file declares.
func (FrontEnd) Read(file lang.File) *model.Facts {
	sheet, back := lang.Open(FrontEnd{}, file, &shape)
	defer back()
	facts := sheet.Facts
	r := reader{Sheet: sheet, other: file.Other}
	r.Fill(r.unit)
	facts.Package = strings.TrimSuffix(path.Base(file.Path), ".rs")
	facts.Generated = r.Generated("@generated")
	if file.Deep {
		r.Inside(r.code())
	}
	return facts
}

// reader extracts the facts of one file.
type reader struct {
	lexing.Sheet
	other      func(path string) []byte // see [lang.File]
	scoped     []string                 // type parameters in scope: they never link
	space      string                   // the module in the file, "" for its own
	tested     bool                     // what is read exists for tests alone
	when       []string                 // conditions around what is read
	within     []string                 // macros around it
	plain      bool                     // what is read may go without comments
	opened     bool                     // what is read is a part of what a macro is given, among words of its own
	inMacro    bool                     // what is read stands in the body of one
	implements []implemented
	pieces     []piece       // room for those of comments
	spans      []source.Span // and for their lines
}

// code is how the names in bodies are found.
func (r *reader) code() lexing.CodeUses {
	return lexing.CodeUses{
		Type: r.typeAt, Arrow: "=>", Path: "::", Globals: true, Self: "self", SelfType: "Self", Roots: roots, Keyword: isReserved, Patterns: true, Qualified: true, Binders: binders, Makers: makers,
		Soft: map[string]bool{"union": true, "auto": true, "macro_rules": true, "default": true, "raw": true, "safe": true},
	}
}

// typeAt is the index behind the type at an index, as code in bodies writes it; ok is false where
// there is none.
func (r *reader) typeAt(i int) (end int, ok bool) {
	if r.Word(i) == "" || isKeyword(r.Word(i)) && r.Word(i) != "Self" && r.Word(i) != "crate" && r.Word(i) != "super" && r.Word(i) != "self" {
		return i, false
	}
	for i++; r.IsMark(i, "::") && r.Word(i+1) != ""; i += 2 {
	}
	if r.Is(i, '<') {
		i = r.OverType(i)
	}
	return i, true
}
