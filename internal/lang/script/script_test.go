package script_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang"
	"codrel/internal/lang/langtest"
	"codrel/internal/lang/script"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

var (
	javascript = script.FrontEnd{}
	typescript = script.FrontEnd{Typed: true}
)

// either reads each file as the language that its name says.
type either struct{ script.FrontEnd }

func (either) Read(file lang.File) *model.Facts {
	if lang.Reads(typescript, file.Path) {
		return typescript.Read(file)
	}
	return javascript.Read(file)
}

func TestFixtures(t *testing.T) { langtest.Run(t, either{typescript}, "testdata/read") }

// Whatever a text nests or leaves open, reading takes time in proportion to its
// length: where it did not, this test would not end.
func TestDepth(t *testing.T) {
	const deep = 20_000
	for name, text := range map[string]string{
		"brackets": "x = " + strings.Repeat("(", deep), "templates": "x = " + strings.Repeat("`${", deep), "elements": "x = " + strings.Repeat("<a>", deep),
		"type arguments": "let x: " + strings.Repeat("A<", deep), "unions": "type T = " + strings.Repeat("|A", deep), "functions": "let x: " + strings.Repeat("(a: ", deep),
		"arrows": "let x = " + strings.Repeat("(a) => ", deep), "conditionals": "type T = " + strings.Repeat("A extends B ? C : ", deep),
		"classes": strings.Repeat("class A { x() {} static {", deep), "namespaces": strings.Repeat("namespace A {\n", deep), "dotted": "namespace " + strings.Repeat("A.", deep),
		"comments": strings.Repeat("/** a */", deep), "open comments": strings.Repeat("/** a ", deep), "patterns": strings.Repeat("x = /a\n", deep),
		"exports": strings.Repeat("exports.a = ", deep), "braces": strings.Repeat("}", deep), "modifiers": "class A { " + strings.Repeat("static ", deep),
		"decorators": strings.Repeat("@a(", deep), "declarators": "let " + strings.Repeat("a = 1, ", deep), "patterns of names": "let " + strings.Repeat("{a: ", deep),
		"less": "x = " + strings.Repeat("a<b, ", deep), "keyof": "type T = " + strings.Repeat("keyof ", deep), "parameters": "function f(" + strings.Repeat("a = (", deep),
		"extends": "class A extends " + strings.Repeat("class {", deep), "chains": strings.Repeat("a.b = ", deep), "members": strings.Repeat("A.b = 1\n", deep),
	} {
		t.Run(name, func(t *testing.T) {
			for _, file := range []string{"deep.ts", "deep.tsx", "deep.js"} {
				facts := langtest.Read(either{typescript}, file, []byte(text))
				langtest.Pieces(t, typescript, facts.Text)
				for i := range facts.Occurrences {
					require.Less(t, int(facts.Occurrences[i].Parent), i)
				}
			}
		})
	}
}

func TestScan(t *testing.T) {
	text := "#!node\nconst a = `x${ `y` + 1 }z` / 2 // b\nif (/re'/.test(\"s\")) { x.class = 0x1e }"
	var got []string
	words := map[lexing.Class]string{lexing.Keyword: "k ", lexing.Number: "n ", lexing.Text: "t ", lexing.Comment: "c "}
	for _, p := range typescript.Scan(text, nil) {
		got = append(got, words[p.Class]+p.Span.In(text))
	}
	assert.Equal(t, []string{
		"c #!node", "k const", "t `x${", "t `y`", "n 1", "t }z`", "n 2", "c // b", "k if", "t /re'/", `t "s"`, "n 0x1e",
	}, got)
}

func TestRoots(t *testing.T) {
	root, ok := typescript.Root("clients/web/package.json", []byte(`{"name": "@tidebook/web", "version": "2.3.0",
		"exports": {".": {"types": "./dist/index.d.ts", "default": ["./dist/index.js"]}, "./wire": "./dist/wire.js", "./*": "./dist/*.js"}}`))
	require.True(t, ok)
	assert.Equal(t, "clients/web", root.Folder)
	assert.Equal(t, "web", root.Name)
	assert.Equal(t, "2.3.0", root.Version)
	_, ok = javascript.Root("package.json", []byte(`{"name": `))
	assert.False(t, ok)
}

func TestModules(t *testing.T) {
	var files []*model.Facts
	for _, f := range []string{"web/src/index.ts", "web/src/plan.d.ts", "web/dock.test.ts"} {
		files = append(files, langtest.Read(typescript, f, nil))
	}
	assert.Equal(t, []string{"src/index", "src/plan", "dock.test"}, typescript.ModulePaths(&model.Library{Root: "web"}, files))
	for path, test := range map[string]bool{"a/b.ts": false, "a/b.test.ts": true, "test/b.js": true, "a/__tests__/b.js": true, "latest/b.js": false, "b.spec.mts": true} {
		assert.Equal(t, test, typescript.IsTest(path), path)
	}
	m := &model.Module{Path: "src/plan", Library: &model.Library{}}
	for written, want := range map[string][]string{
		"./berth.js": {"src/berth", "src/berth/index"}, "../tide": {"tide", "tide/index"}, "react": {"react"},
	} {
		assert.Equal(t, want, typescript.ImportPaths(m, nil, written), written)
	}
}

func FuzzRead(f *testing.F) {
	paths, err := filepath.Glob("testdata/read/*.txt")
	require.NoError(f, err)
	for _, p := range paths {
		data, err := os.ReadFile(p)
		require.NoError(f, err)
		for _, part := range strings.Split(string(data), "-- ")[1:] {
			f.Add([]byte(part[strings.IndexByte(part, '\n')+1:]))
		}
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		for _, file := range []string{"fuzz.ts", "fuzz.tsx", "fuzz.js"} {
			facts := langtest.Read(either{typescript}, file, data)
			langtest.Valid(t, facts)
			langtest.Pieces(t, typescript, facts.Text)
			assert.LessOrEqual(t, len(facts.Problems), 2)
		}
	})
}

// BenchmarkRead reads the fixtures.
func BenchmarkRead(b *testing.B) {
	data, err := os.ReadFile("testdata/read/typescript.txt")
	require.NoError(b, err)
	b.SetBytes(int64(len(data)))
	b.ReportAllocs()
	for b.Loop() {
		typescript.Read(lang.File{Path: "all.ts", Text: source.Decode(append([]byte(nil), data...))})
	}
}
