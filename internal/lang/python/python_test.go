package python_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang/langtest"
	"codrel/internal/lang/python"
	"codrel/internal/model"
)

func TestFixtures(t *testing.T) { langtest.Run(t, python.FrontEnd{}, "testdata/read") }

// Whatever a text nests or leaves open, reading takes time in proportion to its
// length: where it did not, this test would not end.
func TestDepth(t *testing.T) {
	const deep = 20_000
	for name, text := range map[string]string{
		"brackets":          "x = " + strings.Repeat("(", deep),
		"bracket lines":     "x = " + strings.Repeat("(\n", deep),
		"open strings":      strings.Repeat("x = f'{'\n", deep),
		"nested fields":     "x = " + strings.Repeat("f'{", deep),
		"open fields":       strings.Repeat("f'''{", deep),
		"classes":           nestedClasses(1000),
		"definitions":       strings.Repeat("def f(\n", deep),
		"decorators":        strings.Repeat("@a\n", deep),
		"backslashes":       "x = '" + strings.Repeat("\\", deep),
		"joined lines":      strings.Repeat("\\\n", deep),
		"lambdas":           "x = " + strings.Repeat("lambda: ", deep),
		"comments":          strings.Repeat("#:\n", deep),
		"parameters":        "def f(" + strings.Repeat("a: (", deep),
		"targets":           strings.Repeat("a = ", deep) + "1",
		"semicolons":        strings.Repeat("a = 1; ", deep),
		"conditions":        strings.Repeat("if a:\n b = 1\n", deep),
		"names":             strings.Repeat("__all__ += ['a']\n", deep),
		"strings in a row":  strings.Repeat("'a' ", deep),
		"triple quotes":     strings.Repeat(`\"""`, deep) + `"""`,
		"constructor lines": "class A:\n def __init__(self):\n" + strings.Repeat("  self.a = 1\n", deep),
	} {
		t.Run(name, func(t *testing.T) {
			facts := langtest.Read(python.FrontEnd{}, "deep.py", []byte(text))
			langtest.Pieces(t, python.FrontEnd{}, facts.Text)
			for i := range facts.Occurrences {
				require.Less(t, int(facts.Occurrences[i].Parent), i)
			}
		})
	}
}

func nestedClasses(deep int) string {
	var b strings.Builder
	for i := range deep {
		b.WriteString(strings.Repeat(" ", i) + "class C:\n")
	}
	return b.String()
}

func TestRoots(t *testing.T) {
	for _, c := range []struct{ file, text, name, version string }{
		{"client/pyproject.toml", "[build-system]\nrequires = []\n[project]\nname = \"tidebook\"\nversion = '2.3.0'\n", "tidebook", "2.3.0"},
		{"client/pyproject.toml", "[tool.poetry]\nname = \"tidebook\"\n", "tidebook", ""},
		{"client/setup.cfg", "[metadata]\nname = tidebook\nversion = attr: tidebook.version\n", "tidebook", ""},
		{"client/setup.py", "from setuptools import setup\nsetup(packagename=1, name='tidebook', version = \"1.0\")\n", "tidebook", "1.0"},
	} {
		root, ok := python.FrontEnd{}.Root(c.file, []byte(c.text))
		require.True(t, ok, c.file)
		assert.Equal(t, "client", root.Folder)
		assert.Equal(t, c.name, root.Name, c.file)
		assert.Equal(t, c.version, root.Version, c.file)
	}
	_, ok := python.FrontEnd{}.Root("pyproject.toml", []byte("[tool.lint]\nname = \"x\"\n"))
	assert.False(t, ok, "settings for tools make no library")
	_, ok = python.FrontEnd{}.Root("setup.cfg", []byte("[flags]\n"))
	assert.False(t, ok)
}

func TestModulePaths(t *testing.T) {
	end := python.FrontEnd{}
	paths := func(root string, files ...string) []string {
		var list []*model.Facts
		for _, f := range files {
			list = append(list, langtest.Read(end, f, nil))
		}
		return end.ModulePaths(&model.Library{Name: "client", Root: root}, list)
	}
	assert.Equal(t, []string{"tidebook", "tidebook.plan", "tidebook.plan", "tidebook._wire", "setup", "tools.gauge"},
		paths("client", "client/src/tidebook/__init__.py", "client/src/tidebook/plan.py", "client/src/tidebook/plan.pyi",
			"client/src/tidebook/_wire.py", "client/setup.py", "client/tools/gauge.py"))
	assert.Equal(t, []string{"client", "client.plan"}, paths("client", "client/__init__.py", "client/plan.py"), "the root itself is a package")
	assert.Equal(t, []string{"client", "client.plan"}, paths(".", "__init__.py", "plan.py"))
	assert.Equal(t, []string{"src", "src.plan"}, paths(".", "src/__init__.py", "src/plan.py"), "a package that is called like a layout")
	assert.Equal(t, []string{"tidebook.tides.plan"}, paths(".", "tidebook/tides/plan.py"), "packages without a file of their own")
	assert.Equal(t, []string{"tidebook.plan"}, paths(".", "tidebook-stubs/plan.pyi"))
}

func TestInternalModulesAndTests(t *testing.T) {
	end := python.FrontEnd{}
	for path, internal := range map[string]bool{"tidebook": false, "tidebook._wire": true, "_tides.plan": true, "tidebook.__main__": false} {
		assert.Equal(t, internal, end.InternalModule(path), path)
	}
	for path, test := range map[string]bool{
		"tidebook/plan.py": false, "tests/plan.py": true, "a/test/b/c.py": true, "test_plan.py": true, "plan_test.py": true,
		"conftest.py": true, "tidebook/testing.py": false, "tidebook/latest.py": false,
	} {
		assert.Equal(t, test, end.IsTest(path), path)
	}
}

func TestBringIn(t *testing.T) {
	for path, want := range map[string]string{
		"tidebook": "import tidebook", "tidebook.plan": "from tidebook import plan", "a.b.c": "from a.b import c",
		"tidebook.__main__": "", "run-me": "",
	} {
		assert.Equal(t, want, python.FrontEnd{}.BringIn(&model.Module{Path: path}, false), path)
	}
}

func seeds(t testing.TB) (list [][]byte) {
	paths, err := filepath.Glob("testdata/read/*.txt")
	require.NoError(t, err)
	for _, p := range paths {
		data, err := os.ReadFile(p)
		require.NoError(t, err)
		for _, part := range strings.Split(string(data), "-- ")[1:] {
			list = append(list, []byte(part[strings.IndexByte(part, '\n')+1:]))
		}
	}
	return list
}

func FuzzRead(f *testing.F) {
	for _, seed := range seeds(f) {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		facts := langtest.Read(python.FrontEnd{}, "fuzz.py", data)
		langtest.Valid(t, facts)
		langtest.Pieces(t, python.FrontEnd{}, facts.Text)
		assert.LessOrEqual(t, len(facts.Problems), 2)
		assert.Equal(t, langtest.Dump(facts), langtest.Dump(langtest.Read(python.FrontEnd{}, "fuzz.py", data)))
	})
}

// BenchmarkRead reads the fixtures, over and over.
func BenchmarkRead(b *testing.B) {
	var all []byte
	for _, seed := range seeds(b) {
		all = append(append(all, seed...), '\n')
	}
	b.SetBytes(int64(len(all)))
	b.ReportAllocs()
	for b.Loop() {
		langtest.Read(python.FrontEnd{}, "all.py", append([]byte(nil), all...))
	}
}
