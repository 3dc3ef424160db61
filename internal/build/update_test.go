package build_test

import (
	"encoding/json"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/model"
)

func harbour() fstest.MapFS {
	return fstest.MapFS{
		"go.mod":            {Data: []byte("module tidebook.example/engine\n")},
		"tide/tide.go":      {Data: []byte("// Package tide predicts.\npackage tide\n\n// Predictor predicts.\ntype Predictor interface{ At(int) float64 }\n")},
		"tide/curve.go":     {Data: []byte("package tide\n\n// Curve is one.\ntype Curve struct{}\n\n// At tells.\nfunc (Curve) At(hour int) float64 { return 0 }\n")},
		"tide/x_test.go":    {Data: []byte("package tide\n\nfunc TestX() { var c Curve; c.At(1) }\n")},
		"berth/berth.go":    {Data: []byte("// Package berth plans with [tide.Curve].\npackage berth\n\nimport \"tidebook.example/engine/tide\"\n\n// Plan takes a [tide.Curve].\nfunc Plan(c tide.Curve, p tide.Predictor) {}\n")},
		"py/pyproject.toml": {Data: []byte("[project]\nname = \"py\"\n")},
		"py/a.py":           {Data: []byte("class A:\n    def f(self): pass\n")},
		"port/package.json": {Data: []byte(`{"name": "port", "main": "port.js"}`)},
		"port/port.js":      {Data: []byte("/**\n * @namespace Port\n */\nvar Port = { Tides: require('./tides') };\nmodule.exports = Port;\n")},
		"port/tides.js":     {Data: []byte("/**\n * @namespace Port.Tides\n */\nmodule.exports = { Reader: require('./reader') };\n")},
		"port/reader.js":    {Data: []byte("/**\n * @class Reader\n * @memberof Port.Tides\n */\nvar Reader = make({});\nmodule.exports = Reader;\n")},
		"py/b.py":           {Data: []byte("from a import A\nclass B(A):\n    def f(self): pass\n")},
	}
}

// told is all that the linker says of a project, for comparing.
func told(t *testing.T, s *build.Snapshot) string {
	t.Helper()
	type said struct {
		ID, Path  string
		Home      string
		Relations map[string][]string
		Tests     int
	}
	var out []said
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for d := range m.Declarations {
				r := s.Links.Relations(d)
				one := said{d.ID(), d.Path(), s.Links.Home(d).Path, map[string][]string{}, len(s.Links.NamedInTests(d))}
				for key, list := range map[string][]*model.Declaration{
					"implements": r.Implements, "implementedBy": r.ImplementedBy, "taken": r.TakenBy, "extends": r.Extends, "extendedBy": r.ExtendedBy, "overrides": r.Overrides,
				} {
					for _, other := range list {
						one.Relations[key] = append(one.Relations[key], other.ID())
					}
				}
				out = append(out, one)
			}
		}
	}
	table, err := json.Marshal([]any{out, s.Links.Symbols()})
	require.NoError(t, err)
	return string(table)
}

// However a file changes, a snapshot that is linked anew says what one that is read
// anew says.
func TestUpdated(t *testing.T) {
	for _, c := range []struct{ what, path, text string }{
		{"nothing", "tide/curve.go", string(harbour()["tide/curve.go"].Data)},
		{"a method goes", "tide/curve.go", "package tide\n\ntype Curve struct{}\n"},
		{"a method takes another type", "tide/curve.go", "package tide\n\ntype Curve struct{}\n\nfunc (Curve) At(hour string) float64 { return 0 }\n"},
		{"a name is another", "tide/curve.go", "package tide\n\ntype Wave struct{}\n\nfunc (Wave) At(hour int) float64 { return 0 }\n"},
		{"the interface asks for more", "tide/tide.go", "package tide\n\ntype Predictor interface{ At(int) float64; Now() float64 }\n"},
		{"another package", "tide/curve.go", "package waves\n\ntype Curve struct{}\n"},
		{"broken", "tide/curve.go", "package tide\n\ntype Curve struct{"},
		{"empty", "tide/curve.go", ""},
		{"a test", "tide/x_test.go", "package tide\n\nfunc TestX() { var p Predictor; p.At(1) }\n"},
		{"an import goes", "berth/berth.go", "package berth\n\nfunc Plan(c int) {}\n"},
		{"what a comment puts things into", "port/tides.js", "/**\n * @namespace Port.Waves\n */\nmodule.exports = {};\n"},
		{"what a comment puts into another file's", "port/reader.js", "/**\n * @class Watcher\n * @memberof Port.Tides\n */\nvar Watcher = make({});\nmodule.exports = Watcher;\n"},
		{"the outermost of what comments name", "port/port.js", "module.exports = { Tides: require('./tides') };\n"},
		{"a base", "py/a.py", "class A:\n    def g(self): pass\nclass C(A): pass\n"},
		{"an import of Python's", "py/b.py", "class B:\n    def f(self): pass\n"},
		{"a new file", "py/c.py", "class C: pass\n"},
	} {
		t.Run(c.what, func(t *testing.T) {
			options := build.Options{FrontEnds: languages.All, Folder: "harbour", Tests: true, Inside: true}
			s, err := build.Link(t.Context(), harbour(), options)
			require.NoError(t, err)
			files := harbour()
			files[c.path] = &fstest.MapFile{Data: []byte(c.text)}
			before := told(t, s)
			updated, err := build.Update(t.Context(), files, s, c.path)
			require.NoError(t, err)
			assert.Equal(t, before, told(t, s), "the earlier snapshot stays as it is")
			anew, err := build.Link(t.Context(), files, options)
			require.NoError(t, err)
			assert.Equal(t, told(t, anew), told(t, updated))
		})
	}
}
