// Package cfamily is the front end of C (to C23) and C++ (to C++26): one reader for both, since
// headers are shared between them.
//
// It needs no preprocessor, no include path and no compiler. From the tokens of one pass over
// the text (lexing.Shape), of which conditional lines leave one text that can be read
// (lexing.Branches), it finds declarations by their shape alone: which of several words is the
// name, and which are macros that stand around it. Types and enumerations are looked into,
// bodies and values are passed over by their brackets.
//
// The package knows nothing of other files but what the front end decides when all are known:
// which header a definition belongs to.
package cfamily

import (
	"path"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
)

// FrontEnd reads one of the two languages.
type FrontEnd struct {
	Plus bool // C++, else C
}

var habitsOfC = model.Habits{
	Language: "c", Name: "C", Family: "c", Dialect: "marktags", Fences: []string{"c", "h"},
	PathMark: "/", ByFile: true, Bare: true, TypeFirst: true, Unbound: []string{"static"}, BareEnd: true, NameMarks: []string{"::", "->"},
	Directive: "// codrel: ", Fails: "fails", SeesOuter: true, Nothing: []string{"", "void"}, Started: []string{"main"}, Prefixes: true, OuterConstants: true,
	Spaces: map[model.Kind]string{model.KindMacro: "macro"},
}

var habitsOfPlus = model.Habits{
	Language: "cpp", Name: "C++", Family: "c", Dialect: "marktags", Fences: []string{"cpp", "c++", "cxx", "cc", "hpp"},
	PathMark: "::", ByFile: true, ByPath: true, Bare: true, Apart: true, SeesInner: true, SeesOuter: true, TypeFirst: true, Unbound: []string{"static", "constexpr"}, BareEnd: true,
	NameMarks: []string{"::", "->"}, Directive: "// codrel: ", Fails: "throws", Overloads: true, EachForm: true,
	Telling: []string{"static", "virtual", "constexpr", "consteval", "explicit", "inline", "mutable"},
	Self:    []string{"this"}, Nothing: []string{"", "void"}, Started: []string{"main"}, Prefixes: true, OuterConstants: true,
	Spaces: map[model.Kind]string{model.KindMacro: "macro"},
}

// Habits are those of the language.
func (e FrontEnd) Habits() *model.Habits {
	if e.Plus {
		return &habitsOfPlus
	}
	return &habitsOfC
}

// Extensions are the endings of files that are in the language for certain.
func (e FrontEnd) Extensions() []string {
	if e.Plus {
		return []string{".cc", ".cpp", ".cxx", ".c++", ".C", ".hh", ".hpp", ".hxx", ".h++", ".H", ".ipp", ".tpp", ".txx", ".tcc", ".cppm", ".ixx", ".mpp", ".cu", ".cuh"}
	}
	return []string{".c"}
}

// SharedExtensions are those of headers and of pieces of them, which say nothing of the language.
func (FrontEnd) SharedExtensions() []string { return []string{".h", ".inl"} }

// SkipFolders are those that tools write.
func (FrontEnd) SkipFolders() []string {
	return []string{"CMakeFiles", "autom4te.cache", ".libs", "_deps", "node_modules", ".cache"}
}

// IsTest reports whether a path is that of a test, by the names that people give folders and files.
func (FrontEnd) IsTest(file string) bool {
	for part := range strings.SplitSeq(path.Dir(file), "/") {
		switch strings.ToLower(part) {
		case "test", "tests", "testing", "unittest", "unittests", "benchmark", "benchmarks", "fuzz", "gtest", "t":
			return true
		}
	}
	stem := strings.TrimSuffix(path.Base(file), path.Ext(file))
	for _, mark := range []string{"_test", "_tests", "_unittest", "_benchmark", "-test"} {
		if strings.HasSuffix(stem, mark) {
			return true
		}
	}
	return !IsHeader(file) && (strings.HasPrefix(stem, "test_") || strings.HasPrefix(stem, "test-"))
}

// IsHeader reports whether a file is one that others include.
func IsHeader(file string) bool {
	switch ext := path.Ext(file); ext {
	case ".c", ".cc", ".cpp", ".cxx", ".c++", ".C", ".cu":
		return false
	}
	return true
}

// Scan finds keywords, numbers, strings and comments.
func (e FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	s := lexing.Stream{Pieces: into}
	e.shape().Lex(text, &s)
	return s.Pieces
}

func (e FrontEnd) shape() *lexing.Shape {
	if e.Plus {
		return &shapeOfPlus
	}
	return &shapeOfC
}

// shapeOfC is how C writes comments, strings and marks (6.4 of its standard, ISO/IEC 9899:2024).
var shapeOfC = lexing.Shape{
	Names:    lexing.NameBytes("$"),
	Keyword:  lexing.OneOf(keywords, builtin, map[string]bool{"restrict": true, "_Bool": true}),
	Comments: []lexing.CommentShape{{Open: "//"}, {Open: "/*", Close: "*/"}},
	Strings: []lexing.StringShape{
		{Prefixes: []string{"u8", "u", "U", "L"}, Open: `"`, Escape: '\\'},
		{Prefixes: []string{"u8", "u", "U", "L"}, Open: "'", Escape: '\\'},
		{Open: `"`, Escape: '\\'},
		{Open: "'", Escape: '\\'},
	},
	Marks:     marks,
	Directive: '#', Joined: true, DigitMark: '\'', Assume: assumed(false), Ends: isMacro, Body: beginsBody, Off: map[string]bool{"0": true},
}

// shapeOfPlus is how C++ does ([lex] of its standard, ISO/IEC 14882).
var shapeOfPlus = lexing.Shape{
	Names:    lexing.NameBytes("$"),
	Keyword:  lexing.OneOf(keywords, builtin, plusKeywords),
	Comments: shapeOfC.Comments,
	Strings: append([]lexing.StringShape{
		{Prefixes: []string{"u8R", "uR", "UR", "LR", "R"}, Open: `"`, Lines: true, Delimited: true},
	}, shapeOfC.Strings...),
	Marks:     marks,
	Directive: '#', Joined: true, DigitMark: '\'', Assume: assumed(true), Ends: isMacro, Body: beginsBody, Off: map[string]bool{"0": true},
}

// marks leave out ">>" and those that begin with it: two lists of arguments may end there.
var marks = []string{"<=>", "<<=", "->*", "...", "<<", "<=", "->", "::", ".*", "&&", "||", "++", "--", "==", "!=", "+=", "-=", "*=", "/=", "%=", "&=", "|=", "^=", "##"}

// assumed says which branch is read where only one can be: that of a common machine, and of the
// language at hand.
func assumed(plus bool) map[string]bool {
	out := map[string]bool{"0": false, "1": true, "__cplusplus": plus, "defined(__cplusplus)": plus, "defined __cplusplus": plus}
	for _, other := range []string{"_WIN32", "WIN32", "_MSC_VER", "__WIN32__", "_WIN64", "__APPLE__", "__BORLANDC__"} {
		out[other], out["defined("+other+")"], out["defined "+other] = false, false, false
	}
	return out
}

// keywords are the reserved words of C but for those of types.
var keywords = lexing.WordSet(`auto break case const continue default do else enum extern for goto if inline register return sizeof static
	struct switch typedef union volatile while _Alignas _Alignof _Atomic _Generic _Noreturn _Static_assert _Thread_local
	__attribute__ __extension__ __inline __inline__ __restrict __restrict__ __typeof__ __volatile__ __const __declspec
	alignas alignof constexpr static_assert thread_local typeof typeof_unqual nullptr true false`)

// builtin are the types that are words of the language, or of its common compilers.
var builtin = lexing.WordSet(`void char short int long float double signed unsigned _Bool bool _Complex _Imaginary _BitInt _Decimal32
	_Decimal64 _Decimal128 __int128 __int64 __float128 _Float16 _Float32 _Float64 _Float128 _Float32x _Float64x __signed__ __signed __complex__ __builtin_va_list
	__int8 __int16 __int32 __fp16 __bf16 __m128 __uint128`)

// plusKeywords are those of C++ alone.
var plusKeywords = lexing.WordSet(`catch class co_await co_return co_yield concept consteval constinit const_cast decltype delete dynamic_cast
	explicit export friend mutable namespace new noexcept operator private protected public reinterpret_cast requires
	static_cast template this throw try typeid typename using virtual char8_t char16_t char32_t wchar_t and and_eq bitand bitor compl not not_eq or or_eq xor xor_eq`)

// Read extracts what the file declares.
func (e FrontEnd) Read(file lang.File) *model.Facts {
	return e.read(file, table{said: file.Macros, other: file.Other})
}

// read does it with what is known of macros.
func (e FrontEnd) read(file lang.File, macros table) *model.Facts {
	sheet, back := lang.Open(e, file, e.shape())
	defer back()
	facts := sheet.Facts
	r := reader{Sheet: sheet, plus: e.Plus, header: IsHeader(file.Path), names: &namesOfC, table: macros, plain: file.Plain}
	if e.Plus {
		r.names = &namesOfPlus
	}
	r.Fill(r.unit)
	facts.Package = path.Base(file.Path)
	facts.Generated = r.Generated("@generated")
	if file.Deep {
		r.Inside(r.code())
	}
	return facts
}

// reader extracts the facts of one file.
type reader struct {
	lexing.Sheet
	plus    bool
	header  bool
	names   *wordNames
	scoped  []string // template parameters in scope
	nesting int      // of declarators in one another
	space   string   // the namespace at hand
	logic   bool     // a constraint is put
	hidden  bool     // it has no name, or stands in one without
	linkage bool     // what is read has C's linkage
	plain   bool     // any comments before declarations speak of them
	table   table    // of macros
	frames  []frame  // what macros opened
	guard   string   // the macro that keeps the file from being read twice, or ""
	doc     comments
	known   struct { // the conditions behind a line to the preprocessor, counted from 1
		line       int
		conditions []string
	}
	defined struct { // macros that may be taken back, by their names
		macros map[string][]int // indices of occurrences
		known  int              // how many occurrences were looked at
	}
	lineAt   int // index of the first preprocessor line that was not looked at yet
	lineLast int // index that was asked for last
	spelt    int // calls that were read by themselves
	count    int // of what macros made
	drops    [][2]int
	sorted   int           // how many of these are in order
	params   []int         // tokens that name parameters of the signature at hand
	runs     [][]word      // room for words before declarators
	taken    []model.Param // room for parameters
}

// wordNames answers questions about single words, which are asked often.
type wordNames struct {
	reserved func(string) bool // words that name nothing
	builtin  func(string) bool
}

var (
	namesOfC    = wordNames{lexing.OneOf(keywords, builtin), lexing.OneOf(builtin)}
	namesOfPlus = wordNames{lexing.OneOf(keywords, builtin, plusKeywords), lexing.OneOf(builtin, lexing.WordSet("char8_t char16_t char32_t wchar_t"))}
)

// code is how the names in bodies are found.
func (r *reader) code() lexing.CodeUses {
	self := ""
	if r.plus {
		self = "this"
	}
	return lexing.CodeUses{
		Type: r.typeAt, Arrow: "", Path: "::", Globals: true, Self: self, Labels: map[string]bool{"goto": true}, Tags: map[string]bool{"struct": true, "union": true, "enum": true},
		Soft: map[string]bool{"override": true, "final": true}, Keyword: r.names.reserved,
	}
}
