// Package java is the front end of Java, to the newest released language (JLS 25).
//
// It reads from the tokens of one pass over the text (lexing.Shape): packages, imports,
// types of every kind and their members are looked into, bodies and values are passed over
// by their brackets. Types in functions are no declarations.
//
// The package knows nothing of other files.
package java

import (
	"path"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
)

// FrontEnd reads the language.
type FrontEnd struct{}

var habits = model.Habits{
	Language: "java", Name: "Java", Dialect: "htmltags", Fences: []string{"java"},
	PathMark: ".", ByPath: true, Bare: true, Apart: true, SeesInner: true, TypeFirst: true, Always: []string{"java.lang"}, Unbound: []string{"static"}, BareEnd: true, Directive: "// codrel: ", Fails: "throws", Overloads: true, EachForm: true, TakesParts: true,
	Telling: []string{"static", "volatile"},
	OfAll:   []string{"equals", "hashCode", "toString", "clone", "finalize", "getClass", "notify", "notifyAll", "wait"},
	OfEnums: []string{"compareTo", "describeConstable", "getDeclaringClass", "name", "ordinal", "valueOf", "values"},
	Self:    []string{"this"}, Nothing: []string{"", "void", "Void"}, Started: []string{"main"},
}

// Habits are those of Java.
func (FrontEnd) Habits() *model.Habits { return &habits }

// Extensions are the endings of its files.
func (FrontEnd) Extensions() []string { return []string{".java"} }

// SkipFolders are those of tools. What builds write, in "target" and "build", is left out by
// what the repository ignores: packages are called so as well. "snippet-files" are parts of
// comments.
func (FrontEnd) SkipFolders() []string {
	return []string{".gradle", ".mvn", "node_modules", "snippet-files"}
}

// unnamed is the module of files that name no package.
const unnamed = "unnamed"

// ModulePaths gives each file the package that it names.
func (FrontEnd) ModulePaths(_ *model.Library, files []*model.Facts) []string {
	paths, folders := make([]string, len(files)), map[string]string{}
	for i, f := range files {
		if paths[i] = unnamed; len(f.Modules) > 0 && f.Modules[0].Name != "" {
			paths[i] = f.Modules[0].Name
		}
		if path.Base(f.Path) != packageFile {
			folders[path.Dir(f.Path)] = paths[i]
		}
	}
	outermost := ""
	for i, p := range paths {
		if p != unnamed && files[i].Role == model.RoleCode && (outermost == "" || p < outermost) {
			outermost = p
		}
	}
	for i, f := range files {
		switch of := folders[path.Dir(f.Path)]; {
		case path.Base(f.Path) == packageFile && of != "":
			paths[i] = of
		case path.Base(f.Path) == moduleFile && outermost != "": // which is of no package
			paths[i] = outermost
		}
	}
	return paths
}

// InternalModule is never true: what a library keeps to itself is said by its module-info.
func (FrontEnd) InternalModule(string) bool { return false }

// IsTest reports whether a path is that of a test by the folders that build tools give them.
func (FrontEnd) IsTest(file string) bool {
	for part := range strings.SplitSeq(path.Dir(file), "/") {
		switch part {
		case "test", "tests", "androidTest", "integrationTest", "testFixtures", "jmh":
			return true
		}
	}
	return false
}

// Scan finds keywords, numbers, strings and comments.
func (FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	s := lexing.Stream{Pieces: into}
	shape.Lex(text, &s)
	return s.Pieces
}

// shape is how Java writes comments, strings and marks (JLS 3).
var shape = lexing.Shape{
	Names:    lexing.NameBytes(`$\`),
	Keyword:  lexing.OneOf(keywords),
	Comments: []lexing.CommentShape{{Open: "//"}, {Open: "/*", Close: "*/"}},
	Strings:  []lexing.StringShape{{Open: `"""`, Escape: '\\', Lines: true}, {Open: `"`, Escape: '\\'}, {Open: "'", Escape: '\\'}},
	Marks:    []string{"...", "->", "::"},
}

// keywords are the reserved words (JLS 3.9); those that are words only in some places are
// names everywhere else.
var keywords = lexing.WordSet(`abstract assert boolean break byte case catch char class const continue default do double
	else enum extends false final finally float for goto if implements import instanceof int interface long native
	new null package private protected public return short static strictfp super switch synchronized this throw
	throws transient true try void volatile while`)

// primitives are the types that are words of the language.
var primitives = lexing.WordSet("boolean byte char double float int long short void")

// modifiers are the words that may stand before a declaration.
var modifiers = lexing.WordSet(`abstract default final native private protected public sealed static strictfp synchronized
	transient volatile`)

// Read extracts what the file declares.
func (FrontEnd) Read(file lang.File) *model.Facts {
	if path.Base(file.Path) == packageFile {
		return readPackage(file)
	}
	sheet, back := lang.Open(FrontEnd{}, file, &shape)
	defer back()
	facts := sheet.Facts
	r := reader{Sheet: sheet, other: file.Other}
	r.Fill(r.unit)
	facts.Generated = r.Generated("@generated")
	if file.Deep {
		r.Inside(r.code())
	}
	return facts
}

// reader extracts the facts of one file.
type reader struct {
	lexing.Sheet
	scoped []string                 // type parameters in scope: they never link
	depth  int                      // of types in types
	module string                   // the package, whole
	other  func(path string) []byte // see [lang.File]
}

// soft are words that are the language's before another word or a body only.
var soft = lexing.WordSet(`record sealed permits yield non open module exports opens requires to uses provides with transitive when`)

// Questions about single words are asked often.
var (
	isKeyword  = lexing.OneOf(keywords)
	isModifier = lexing.OneOf(modifiers)
)

var isReserved = lexing.OneOf(keywords, primitives, map[string]bool{"var": true})

// code is how the names in bodies are found.
func (r *reader) code() lexing.CodeUses {
	return lexing.CodeUses{
		Type: r.typ, Arrow: "->", Self: "this", Labels: map[string]bool{"case": true}, Soft: soft,
		Keyword: isReserved,
	}
}
