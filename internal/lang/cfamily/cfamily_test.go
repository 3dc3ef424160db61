package cfamily_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang"
	"codrel/internal/lang/cfamily"
	"codrel/internal/lang/langtest"
	"codrel/internal/model"
	"codrel/internal/source"
)

var (
	c    = cfamily.FrontEnd{}
	plus = cfamily.FrontEnd{Plus: true}
)

func TestFixtures(t *testing.T) { langtest.Run(t, c, "testdata/read") }

func TestPlusFixtures(t *testing.T) { langtest.Run(t, plus, "testdata/plus") }

func TestGrowth(t *testing.T) { langtest.Growth(t, c, "testdata/read") }

func TestPlusGrowth(t *testing.T) { langtest.Growth(t, plus, "testdata/plus") }

func FuzzRead(f *testing.F) { langtest.Fuzz(f, c, "testdata/read") }

func FuzzReadPlus(f *testing.F) { langtest.Fuzz(f, plus, "testdata/plus") }

func BenchmarkRead(b *testing.B) { langtest.Benchmark(b, c, "C_TREE") }

func BenchmarkReadPlus(b *testing.B) { langtest.Benchmark(b, plus, "CPP_TREE") }

// Whatever a text nests or leaves open, reading ends soon.
func TestDepth(t *testing.T) {
	const deep = 20_000
	texts := map[string]string{}
	for name, piece := range map[string]string{
		"brackets": "int a = (", "structs": "struct a {", "namespaces": "namespace a {", "arguments": "a<", "calls": "A(", "calls of calls": "A(b) ", "declarators": "int (*", "pointers": "int *", "parameters": "int f(int a, ",
		"comments": "/** a */", "lines": "/// a\n", "open comments": "/** a ", "trailing": "int a; ///< b\n", "words": "a ", "macros": "AA ", "macro calls": "AA(b)\n", "conditions": "#if A\n", "branches": "#if A\nstruct a {\n#else\nstruct b {\n#endif\n",
		"templates": "template <class T> ", "requires": "template <class T> requires A<T> && ", "operators": "operator ", "enums": "enum { A, ", "bases": "class a : b, ", "initialisers": "a::a() : b(1), ", "attributes": "[[a]] ", "attribute words": "__attribute__((a)) ",
		"extern": "extern \"C\" { ", "colons": "a::", "closing": "} ", "lists": "int a = 1, ", "defines": "#define A(a, b) c\n", "old": "f(a, b) int a; ", "includes": "#include \"a.h\"\n", "begins": "A_BEGIN\n", "raw": "R\"(", "undefs": "#define A\n#undef A\n", "off": "#if 0\n", "joined": "#define A \\\n",
	} {
		texts[name] = strings.Repeat(piece, deep)
	}
	texts["closed arguments"] = strings.Repeat("a<", deep) + strings.Repeat(">", deep) + " b;"
	langtest.Depth(t, plus, texts)
	langtest.Depth(t, c, texts)
}

func TestTooDeepIsSaid(t *testing.T) {
	facts := langtest.Read(plus, "a.hpp", []byte(strings.Repeat("struct a {\n", 250)+strings.Repeat("};", 250)))
	require.Len(t, facts.Problems, 1)
	assert.Equal(t, "deep", facts.Problems[0].Form)
}

func TestWhichLanguage(t *testing.T) {
	for text, isPlus := range map[string]bool{
		"int a;\n": false, "class A {\n": true, "#ifdef __cplusplus\nclass A;\n#endif\nint a;\n": false, "#ifdef __cplusplus\nextern \"C\" {\n#endif\n": false,
		"#include <vector>\n": true, "#include <vector.h>\n": false, "/* class A {\nnamespace x { */\nint a;\n": false, "// std::string\nint a;\n": false, "  std::string a;\n": true, "#ifndef __cplusplus\n#error no\n#endif\nnamespace a {": true,
	} {
		assert.Equal(t, isPlus, plus.Recognize("a.h", []byte(text), nil) > c.Recognize("a.h", []byte(text), nil), text)
	}
	assert.Positive(t, plus.Recognize("a.h", []byte("int a;"), []string{"a.cpp"}))
	assert.Positive(t, c.Recognize("a.h", []byte("int a;"), []string{"a.c", "b.cpp"}))
}

func TestPlaces(t *testing.T) {
	for path, want := range map[string]bool{"tests/a.c": true, "src/test_a.c": true, "src/a_test.cc": true, "include/test_a.h": false, "src/contest.c": false} {
		assert.Equal(t, want, c.IsTest(path), path)
	}
	header := langtest.Read(c, "include/tide/gauge.h", []byte("struct g;\nint open(struct g *g);\nextern int count;\n"))
	code := langtest.Read(c, "src/gauge.c", []byte("struct g { int a; };\nint open(struct g *g) { return 0; }\nint count;\nint alone(void) { return 1; }\nstatic int own(void) { return 1; }\n"))
	private := langtest.Read(c, "src/private.h", []byte("int secret(void);\n"))
	files := []*model.Facts{header, code, private}
	lib := &model.Library{Root: "."}
	paths := c.ModulePaths(lib, files)
	assert.Equal(t, []string{"tide/gauge.h", "src/gauge.c", "src/private.h"}, paths)
	placed := c.Place(lib, files, paths)
	assert.Equal(t, map[int32]string{2: "tide/gauge.h", 3: "tide/gauge.h"}, placed[1].Others, "a definition goes to its prototype")
	assert.Empty(t, placed[0].Others)
	assert.Equal(t, []bool{false, true, true}, []bool{placed[0].Inside, placed[1].Inside, placed[2].Inside})
	assert.True(t, c.InternalModule("tide::detail"))
	assert.False(t, c.InternalModule("tide::sim"))
}

func TestMacrosOfOthers(t *testing.T) {
	read := func(macros map[string]string) *model.Facts {
		return plus.Read(lang.File{
			Path: "src/a.hpp", Text: source.Decode([]byte("#include \"base.hpp\"\nTIDE_NAMESPACE_BEGIN\nstruct A {};\nTIDE_NAMESPACE_END\nstruct B {};\n")), Macros: macros,
			Other: func(path string) []byte {
				if path != "src/base.hpp" {
					return nil
				}
				return []byte("/* #define TIDE_NAMESPACE_BEGIN namespace no { */\n#define TIDE_NAME tide\n#define TIDE_NAMESPACE_BEGIN namespace TIDE_NAME { \\\n inline namespace v1 {\n#define TIDE_NAMESPACE_END } }\n")
			},
		})
	}
	facts := read(nil)
	assert.Equal(t, "tide", facts.Occurrences[0].In())
	assert.Empty(t, facts.Occurrences[1].In())
	assert.Equal(t, []string{"src/base.hpp"}, facts.Takes)
	assert.Equal(t, "other", read(map[string]string{"TIDE_NAMESPACE_BEGIN": "namespace other {", "TIDE_NAMESPACE_END": "}"}).Occurrences[0].In(), "the settings come first")
}

func TestAnyComments(t *testing.T) {
	text := "// License.\n\n// Opens it,\n// at last.\nint open(void);\n/* Closes. */\nint shut(void);\n\n// Apart.\n\nint apart(void);\nint depth; // in metres\n/* ------ */\nint row;\n"
	facts := c.Read(lang.File{Path: "a.h", Text: source.Decode([]byte(text)), Plain: true})
	var got []string
	for _, o := range facts.Occurrences {
		said := "-"
		if o.Doc != nil {
			said = o.Doc.Text
		}
		got = append(got, o.Name+": "+said)
	}
	assert.Equal(t, []string{"open: Opens it,\nat last.", "shut: Closes.", "apart: -", "depth: in metres", "row: -"}, got)
	assert.Nil(t, langtest.Read(c, "a.h", []byte(text)).Occurrences[0].Doc)
}

func TestBuildFiles(t *testing.T) {
	for name, want := range map[string][2]string{
		"CMakeLists.txt\ncmake_minimum_required(VERSION 3.10)\nproject(tide\n  VERSION 1.2.3 LANGUAGES C)\n": {"tide", "1.2.3"},
		"meson.build\nproject('tide', 'c', version: '0.4')\n":                                                {"tide", "0.4"},
		"configure.ac\nAC_INIT([tide], [2.0])\n":                                                             {"tide", "2.0"},
		"CMakeLists.txt\nproject(${NAME} VERSION ${V})\n":                                                    {"", ""},
	} {
		file, text, _ := strings.Cut(name, "\n")
		root, ok := c.Root(file, []byte(text))
		require.True(t, ok, name)
		assert.Equal(t, want, [2]string{root.Name, root.Version}, name)
	}
	_, ok := c.Root("sub/CMakeLists.txt", []byte("add_library(a a.c)\n"))
	assert.False(t, ok)
}

func TestIncludes(t *testing.T) {
	facts := langtest.Read(c, "src/gauge.c", []byte("#include \"private.h\"\n#include <tide/gauge.h>\n# include \"../include/other.h\" // why\n#include MACRO\n#include \"\n"))
	var got []string
	for _, i := range facts.Imports {
		got = append(got, i.Path)
	}
	assert.Equal(t, []string{"private.h", "tide/gauge.h", "../include/other.h"}, got)
	assert.Contains(t, c.ImportPaths(nil, facts, "private.h"), "src/private.h")
	assert.Contains(t, c.ImportPaths(nil, facts, "tide/gauge.h"), "tide/gauge.h")
	assert.Contains(t, c.ImportPaths(nil, facts, "../include/other.h"), "other.h")
	assert.Empty(t, c.Below("a.h", "b"))
}

func TestWordsOfPlus(t *testing.T) {
	header, space := model.NewModule(&model.Library{Root: ".", Habits: plus.Habits()}, "tide/gauge.h"), model.NewModule(&model.Library{Root: "."}, "tide::sim")
	header.Files = []*model.Facts{{Path: "include/tide/gauge.h"}}
	assert.Equal(t, []string{"header", "namespace"}, []string{plus.ModuleWord(header), plus.ModuleWord(space)})
	assert.Equal(t, "#include <tide/gauge.h>", plus.BringIn(header, false))
	assert.Empty(t, plus.BringIn(space, false))
	source := model.NewModule(&model.Library{Root: "."}, "src/a.c")
	source.Files = []*model.Facts{{Path: "src/a.c"}}
	assert.Equal(t, "source-file", c.ModuleWord(source))
	assert.Empty(t, c.BringIn(source, false))
	assert.True(t, c.IsNative("size_t"))
	assert.True(t, plus.IsNative("std::string"))
	assert.False(t, c.IsNative("std::string"))
	assert.True(t, c.IsNativeModule("stdio.h"))
	assert.Equal(t, "Concepts", plus.GroupKey("Traits"))
	assert.False(t, plus.AsksModuleComment(header))
}

// Who has to say something: what says all by its form needs no comment.
func TestAsksComment(t *testing.T) {
	facts := langtest.Read(plus, "a.hpp", []byte("#define FLAG\n#define API __attribute__((x))\n#define SIZE 3\nclass A { public: A(); A(int a); ~A(); A(const A &) = delete; void f() override; void g(); };\nclass Later;\nint h();\n"))
	m := model.NewModule(&model.Library{Root: ".", Habits: plus.Habits()}, "a.hpp")
	m.Files = []*model.Facts{facts}
	got := map[string]bool{}
	for i := range facts.Occurrences {
		o := &facts.Occurrences[i]
		d := m.Declare(nil, o.Scope, model.Name{Text: o.Name + strings.Repeat("'", i)})
		d.Name = o.Name
		d.Occurrences = append(d.Occurrences, model.At{Occurrence: o, File: facts})
		d.Settle()
		got[o.Signature.Text(facts.Text)] = plus.AsksComment(d)
	}
	assert.Equal(t, map[string]bool{
		"#define FLAG": false, "#define API __attribute__((x))": false, "#define SIZE 3": true, "class A": true, "A()": false, "A(int a)": true, "~A()": false,
		"A(const A&) = delete": false, "void f() override": false, "void g()": true, "class Later": false, "int h()": true,
	}, got)
}
