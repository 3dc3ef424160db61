// Package csharp is the front end of C#, to the newest released language (C# 14).
//
// It reads from the tokens of one pass over the text (lexing.Shape), of which conditional
// lines leave one text that can be read (lexing.Branches): namespaces, types of every kind
// and their members are looked into, bodies and values are passed over by their brackets.
// Functions in functions are no declarations.
//
// The package knows nothing of other files.
package csharp

import (
	"path"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/xmlpath"
)

// FrontEnd reads the language.
type FrontEnd struct{}

var habits = model.Habits{
	Language: "csharp", Name: "C#", Dialect: "xmltags", Fences: []string{"csharp", "cs", "c#"},
	PathMark: ".", ByPath: true, Bare: true, Apart: true, SeesInner: true, Partial: true, ByArity: true, SeesOuter: true, TypeFirst: true, Unbound: []string{"static", "const"}, BareEnd: true, Contracts: true, Accessors: true, NameMarks: []string{"::"}, Directive: "// codrel: ", Fails: "throws", Overloads: true, EachForm: true, Extensions: true,
	Telling: []string{"static", "abstract", "virtual", "override", "sealed", "required", "readonly", "volatile"},
	OfAll:   []string{"Equals", "GetHashCode", "ToString", "GetType", "Finalize", "MemberwiseClone", "ReferenceEquals"},
	OfEnums: []string{"CompareTo", "GetName", "GetNames", "GetTypeCode", "GetValues", "HasFlag", "IsDefined", "Parse", "TryParse"},
	Self:    []string{"this"}, Nothing: []string{"", "void", "Task", "ValueTask", "System.Threading.Tasks.Task"}, Started: []string{"Main"},
}

// Habits are those of C#.
func (FrontEnd) Habits() *model.Habits { return &habits }

// Extensions are the endings of its files.
func (FrontEnd) Extensions() []string { return []string{".cs"} }

// SkipFolders are those that tools write.
func (FrontEnd) SkipFolders() []string { return []string{"bin", "obj", "packages", "node_modules"} }

// global is the module of what stands in no namespace.
const global = "global"

// ModulePaths gives each file the first namespace that it declares anything in.
func (FrontEnd) ModulePaths(_ *model.Library, files []*model.Facts) []string {
	paths := make([]string, len(files))
	outer := "" // the first namespace of code: files that declare nothing go with it
	for i, f := range files {
		if len(f.Occurrences) > 0 {
			paths[i] = placeOf(f.Occurrences[0].In())
		} else if len(f.Modules) > 0 {
			paths[i] = f.Modules[0].Name
		}
		if p := paths[i]; p != "" && f.Role == model.RoleCode && (outer == "" || outer == global || p < outer && p != global) {
			outer = p
		}
	}
	for i := range paths {
		if paths[i] == "" {
			paths[i] = placeOf(outer)
		}
	}
	return paths
}

// placeOf is the module of what stands in a namespace.
func placeOf(space string) string {
	if space == "" {
		return global
	}
	return space
}

// Place puts what a file declares in further namespaces there.
func (FrontEnd) Place(_ *model.Library, files []*model.Facts, paths []string) []lang.Placement {
	out := make([]lang.Placement, len(files))
	for i, f := range files {
		for n := range f.Occurrences {
			if o := &f.Occurrences[n]; o.Parent < 0 && placeOf(o.In()) != paths[i] {
				if out[i].Others == nil {
					out[i].Others = map[int32]string{}
				}
				out[i].Others[int32(n)] = placeOf(o.In())
			}
		}
	}
	return out
}

// InternalModule is never true: a namespace is open to all.
func (FrontEnd) InternalModule(string) bool { return false }

// IsTest reports whether a path is that of a test by the names that people give folders and
// projects: "tests", "Tide.Tests", "BerthTests.cs".
func (FrontEnd) IsTest(file string) bool {
	for part := range strings.SplitSeq(path.Dir(file), "/") {
		switch lower := strings.ToLower(part); {
		case lower == "test", lower == "tests", lower == "unittests", lower == "benchmarks":
			return true
		case strings.HasSuffix(part, ".Test"), strings.HasSuffix(part, ".Tests"), strings.HasSuffix(part, "UnitTests"), strings.HasSuffix(part, ".Benchmarks"):
			return true
		}
	}
	return strings.HasSuffix(file, "Tests.cs")
}

// Scan finds keywords, numbers, strings and comments.
func (FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	s := lexing.Stream{Pieces: into}
	shape.Lex(text, &s)
	return s.Pieces
}

// shape is how C# writes comments, strings and marks (clause 6 of its standard, ECMA-334,
// and what came to the language since).
var shape = lexing.Shape{
	Names:    lexing.NameBytes("@"),
	Blanks:   []string{"\u00a0", "\ufeff", "\u3000", "\u2002", "\u2003", "\u2009", "\u202f"},
	Keyword:  lexing.OneOf(keywords, predefined),
	Comments: []lexing.CommentShape{{Open: "//"}, {Open: "/*", Close: "*/"}},
	Strings: []lexing.StringShape{
		{Prefixes: []string{"$$$"}, Fence: '"', Fences: 3, Lines: true, Hole: "{{{"},
		{Prefixes: []string{"$$"}, Fence: '"', Fences: 3, Lines: true, Hole: "{{"},
		{Prefixes: []string{"$"}, Fence: '"', Fences: 3, Lines: true, Hole: "{"},
		{Fence: '"', Fences: 3, Lines: true},
		{Prefixes: []string{"$@", "@$"}, Open: `"`, Doubled: true, Lines: true, Hole: "{"},
		{Prefixes: []string{"@"}, Open: `"`, Doubled: true, Lines: true},
		{Prefixes: []string{"$"}, Open: `"`, Escape: '\\', Hole: "{", HoleLines: true},
		{Open: `"`, Escape: '\\'},
		{Open: "'", Escape: '\\'},
	},
	Marks: []string{"=>", "->", "::", "..", "<=", "==", "!=", "&&", "||", "??", "++", "--", "+=", "-="}, Directive: '#', Rather: "public",
	Aside: lexing.WordSet(`region endregion pragma nullable line error warning define undef`),
}

// keywords are the reserved words but for those of types (6.4.4 of the standard); the words
// that are reserved in some places only are names everywhere else.
var keywords = lexing.WordSet(`abstract as base break case catch checked class const continue default delegate do else enum
	event explicit extern false finally fixed for foreach goto if implicit in interface internal is lock namespace
	new null operator out override params private protected public readonly ref return sealed sizeof stackalloc
	static struct switch this throw true try typeof unchecked unsafe using virtual volatile while`)

// predefined are the types that are words of the language.
var predefined = lexing.WordSet("bool byte char decimal double float int long object sbyte short string uint ulong ushort void")

// modifiers are the words that may stand before a declaration; those of "contextual" are
// names elsewhere.
var (
	modifiers = lexing.WordSet(`abstract async const extern file fixed internal new override partial private protected public readonly
		ref required sealed static unsafe virtual volatile`)
	contextual = lexing.WordSet("async file partial required")
)

// Read extracts what the file declares.
func (FrontEnd) Read(file lang.File) *model.Facts {
	sheet, back := lang.Open(FrontEnd{}, file, &shape)
	defer back()
	facts := sheet.Facts
	r := reader{Sheet: sheet, other: file.Other}
	r.Fill(r.unit)
	facts.Generated = namedGenerated(file.Path) || r.Generated("<auto-generated", "<autogenerated")
	if file.Deep {
		r.Inside(r.code())
	}
	return facts
}

// reader extracts the facts of one file.
type reader struct {
	lexing.Sheet
	scoped   []string                     // type parameters in scope: they never link
	space    string                       // the namespace at hand
	extended int                          // what opens the list of what is extended, in a block of extensions
	other    func(path string) []byte     // see [lang.File]
	taken    map[string]*xmlpath.Document // files that comments take text from, by their paths; nil where there is none
}

// namedGenerated reports whether the name of a file says that a program wrote it.
func namedGenerated(name string) bool {
	return strings.HasSuffix(name, ".g.cs") || strings.HasSuffix(name, ".Designer.cs") || strings.HasSuffix(name, ".generated.cs")
}

// soft are words that are the language's before another word or a body only.
var soft = lexing.WordSet(`yield where get set init add remove from select orderby group join into by on equals let when and or not ascending descending record partial async required file scoped managed unmanaged alias extension global`)

// Questions about single words are asked often.
var (
	isKeyword    = lexing.OneOf(keywords)
	isPredefined = lexing.OneOf(predefined)
	isModifier   = lexing.OneOf(modifiers)
)

var isReserved = lexing.OneOf(keywords, predefined, map[string]bool{"var": true, "await": true})

// code is how the names in bodies are found.
func (r *reader) code() lexing.CodeUses {
	return lexing.CodeUses{
		Type: r.typ, Arrow: "=>", Self: "this", Labels: map[string]bool{"case": true}, Soft: soft,
		Keyword: isReserved,
	}
}
