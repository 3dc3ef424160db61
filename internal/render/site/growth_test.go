package site_test

import (
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/growth"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
	"codrel/internal/settings"
)

var (
	module  = map[string]string{"go.mod": "module tidebook.example/a\n"}
	scripts = map[string]string{"package.json": `{"name": "a"}`}
	python  = map[string]string{"pyproject.toml": "[project]\nname = \"a\"\n"}
)

// projects are forms of whole projects that have, or had, something of which each part
// asks all others.
var projects = []growth.Project{
	growth.Lines("types in a Go package", "a.go", "package a\n", "\n// T%[1]d is one.\ntype T%[1]d struct{}\n", "", module),
	growth.Lines("functions in a Go package", "a.go", "package a\n\n// T is one.\ntype T struct{}\n", "\n// F%[1]d is one, see [T].\nfunc F%[1]d(t T) T { return F%[2]d(t) }\n", "", module),
	growth.Lines("methods of a Go type", "a.go", "package a\n\n// T is one.\ntype T struct{}\n", "\n// M%[1]d is one.\nfunc (t T) M%[1]d() { t.M%[2]d() }\n", "", module),
	growth.Lines("constants of a Go type", "a.go", "package a\n\n// T is one.\ntype T int\n\nconst (\n", "\t// C%[1]d is one.\n\tC%[1]d T = %[2]d\n", ")\n", module),
	growth.Lines("interfaces in a script", "a.ts", "", "/** T%[1]d is one. */\nexport interface T%[1]d { a: T%[2]d }\n", "", scripts),
	growth.Lines("members of an interface", "a.ts", "export interface T {\n", "\t/** M%[1]d is one. */\n\tm%[1]d: number;\n", "}\n", scripts),
	growth.Lines("members on one line", "a.ts", "export interface T {", " m%[1]d: number;", "}\n", scripts),
	growth.Lines("overloads", "a.ts", "export interface A { m: number }\n", "/** O. @param a one */\nexport function f(a: A, b%[1]d: number): A;\n", "", scripts),
	growth.Lines("parts of an interface", "a.ts", "", "/** Part %[1]d. */\nexport interface T { a%[1]d: number }\n", "", scripts),
	growth.Lines("entries of an object", "a.js", "module.exports = {\n", "/** M%[1]d. */\nm%[1]d: function (a) { return a },\n", "}\n", scripts),
	growth.Lines("imports of a file", "a.ts", "", "import { C%[1]d } from \"./b%[2]d\";\nexport const c%[1]d: C%[1]d = new C%[1]d();\n", "", scripts),
	growth.Lines("names under other names", "index.ts", "", "export { T as D%[1]d } from \"./b\";\n", "", map[string]string{"package.json": `{"name": "a"}`, "b.ts": "/** T. */\nexport class T {}\n"}),
	growth.Lines("broken references", "a.ts", "", "/** See {@link Harbour%[1]dGon}. */\nexport class Harbour%[1]dGone {}\n", "", scripts),
	growth.Lines("classes of one base", "a.py", "class C:\n    def f(self):\n        \"\"\"Do.\"\"\"\n", "class C%[1]d(C):\n    \"\"\"One.\"\"\"\n    def f(self): pass\n", "", python),
	growth.Lines("a chain of classes", "a.py", "class C0:\n    def f(self):\n        \"\"\"Do.\"\"\"\n", "class D%[1]d(D%[2]d):\n    \"\"\"One.\"\"\"\n    def f(self): pass\n", "", python),
	growth.Lines("methods that name others", "a.py", "class C:\n", "    def f%[1]d(self):\n        \"\"\"See :meth:`f%[2]d` and `gone%[1]d`.\"\"\"\n", "", python),
	growth.Lines("headings of a README", "README.md", "# A\n", "\n## Part %[1]d\n\nText [a](#part-%[2]d) `F%[1]d` and <ref:G%[1]d>.\n", "", map[string]string{"go.mod": "module a\n", "a.go": "package a\n"}),
	growth.Files("Go packages that import one another", "p%d/a.go", "// Package p%[1]d is one.\npackage p%[1]d\n\nimport \"tidebook.example/a/p%[2]d\"\n\n// T is one.\ntype T struct{ A p%[2]d.T }\n", module),
	growth.Files("scripts that import one another", "src/m%d.ts", "import { C%[2]d } from \"./m%[2]d\";\n/** C. */\nexport class C%[1]d { f(a: C%[2]d): number { return 1 } }\n", scripts),
	growth.Files("Python modules of a package", "a/m%d.py", "\"\"\"Module %[1]d.\"\"\"\nfrom .m%[2]d import C%[2]d\n\nclass C%[1]d:\n    \"\"\"One.\"\"\"\n", map[string]string{"pyproject.toml": "[project]\nname = \"a\"\n", "a/__init__.py": ""}),
	growth.Files("references that lead nowhere", "a/m%d.py", "\"\"\"Module %[1]d, see :class:`nothing.Gone%[1]d` and `x.y.Z%[1]d`.\"\"\"\n", map[string]string{"pyproject.toml": "[project]\nname = \"a\"\n", "a/__init__.py": ""}),
}

// TestGrowth builds projects of many parts, and of twice as many: those that once took too
// long, and the fixtures of each language in many folders.
func TestGrowth(t *testing.T) {
	if testing.Short() {
		t.Skip("measures for a minute")
	}
	for _, form := range append(slices.Clone(projects), fixtures(t)...) {
		if trouble := growth.ProjectTrouble(form, func(files map[string]string) { build1(t, files) }); trouble != "" {
			t.Error(trouble)
		}
	}
}

// build1 builds a project on one worker.
func build1(t *testing.T, files map[string]string) {
	folder := buildtest.Files(files)
	s := buildtest.Run(t, folder, build.Options{Settings: &settings.Settings{}, Folder: "a", Inside: true, Jobs: 1})
	var m sink.Memory
	p := plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1})
	require.NoError(t, site.New(p, site.Options{FrontEnds: s.FrontEnds, Files: folder, Workers: 1}).Write(t.Context(), &m))
}

// fixtures are the largest fixture of each language, in many folders.
func fixtures(t *testing.T) (out []growth.Project) {
	folders, err := filepath.Glob("../../lang/*/testdata/read")
	require.NoError(t, err)
	require.NotEmpty(t, folders)
	for _, folder := range folders {
		paths, err := filepath.Glob(filepath.Join(folder, "*.txt"))
		require.NoError(t, err)
		largest := slices.MaxFunc(paths, func(a, b string) int { return int(size(t, a) - size(t, b)) })
		archive, err := txtar.ParseFile(largest)
		require.NoError(t, err)
		files := map[string]string{}
		for _, f := range archive.Files {
			if f.Name != "facts" {
				files[f.Name] = string(f.Data)
			}
		}
		out = append(out, growth.Copies(strings.TrimPrefix(largest, "../../lang/"), files))
	}
	return out
}

func size(t *testing.T, path string) int64 {
	info, err := os.Stat(path)
	require.NoError(t, err)
	return info.Size()
}
