package build_test

import (
	"encoding/json"
	"path"
	"slices"
	"sync"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/finding"
	"codrel/internal/languages"
	"codrel/internal/model"
)

func harbour() fstest.MapFS {
	return fstest.MapFS{
		"go.mod":              {Data: []byte("module tidebook.example/engine\n")},
		"tide/tide.go":        {Data: []byte("// Package tide predicts.\npackage tide\n\n// Predictor predicts.\ntype Predictor interface{ At(int) float64 }\n")},
		"tide/curve.go":       {Data: []byte("package tide\n\n// Curve is one.\ntype Curve struct{}\n\n// At tells.\nfunc (Curve) At(hour int) float64 { return 0 }\n")},
		"tide/x_test.go":      {Data: []byte("package tide\n\nfunc TestX() { var c Curve; c.At(1) }\n")},
		"berth/berth.go":      {Data: []byte("// Package berth plans with [tide.Curve].\npackage berth\n\nimport \"tidebook.example/engine/tide\"\n\n// Plan takes a [tide.Curve].\nfunc Plan(c tide.Curve, p tide.Predictor) {}\n")},
		"py/pyproject.toml":   {Data: []byte("[project]\nname = \"py\"\n")},
		"py/a.py":             {Data: []byte("class A:\n    def f(self): pass\n")},
		"port/package.json":   {Data: []byte(`{"name": "port", "main": "port.js"}`)},
		"port/port.js":        {Data: []byte("/**\n * @namespace Port\n */\nvar Port = { Tides: require('./tides') };\nmodule.exports = Port;\n")},
		"port/tides.js":       {Data: []byte("/**\n * @namespace Port.Tides\n */\nmodule.exports = { Reader: require('./reader') };\n")},
		"port/reader.js":      {Data: []byte("/**\n * @class Reader\n * @memberof Port.Tides\n */\nvar Reader = make({});\nmodule.exports = Reader;\n")},
		"quay/Cargo.toml":     {Data: []byte("[package]\nname = \"quay\"\n")},
		"quay/src/lib.rs":     {Data: []byte("#[cfg(unix)] mod unix;\n#[cfg(unix)] pub use unix::*;\n#[cfg(windows)] mod windows;\n#[cfg(windows)] pub use windows::*;\nmod deep;\npub use deep::shore as beach;\n/// See [beach::Sand] and [Port::close].\npub fn land(p: Port) {}\n")},
		"quay/src/unix.rs":    {Data: []byte("pub struct Port { pub fd: i32 }\nimpl Port { pub fn close(self) {} }\n")},
		"quay/src/windows.rs": {Data: []byte("/// A port.\npub struct Port { pub handle: u64 }\nimpl Port { pub fn share(&self) -> Port { todo!() } }\nimpl Clone for Port { fn clone(&self) -> Port { todo!() } }\n")},
		"quay/src/deep.rs":    {Data: []byte("pub mod shore { pub struct Sand; pub mod more { pub fn far(s: super::Sand) {} } }\n")},
		"py/b.py":             {Data: []byte("from a import A\nclass B(A):\n    def f(self): pass\n")},
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
		{"a member of one alternative", "quay/src/windows.rs", "pub struct Port { pub handle: u64, pub other: u8 }\n"},
		{"one alternative goes", "quay/src/windows.rs", "pub fn open() {}\n"},
		{"the first alternative goes", "quay/src/unix.rs", "pub fn open() {}\n"},
		{"no conditions any more", "quay/src/lib.rs", "mod unix;\npub use unix::*;\nmod windows;\npub use windows::*;\nmod deep;\npub use deep::shore;\n"},
		{"what stands in a module that is handed on", "quay/src/deep.rs", "pub mod shore { pub struct Mud; }\n"},
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

// A change in one module may give members to a type in another one, which an earlier
// snapshot has: that module is made anew, and the earlier snapshot stays as it is.
func TestUpdateChangesSharedModules(t *testing.T) {
	files := fstest.MapFS{
		"go.mod":              {Data: []byte("module port.example\n")},
		"internal/hull/h.go":  {Data: []byte("package hull\n\n// Hull is kept from users.\ntype Hull struct{}\n")},
		"ship/ship.go":        {Data: []byte("// Package ship has ships.\npackage ship\n\nimport \"port.example/internal/hull\"\n\n// Ship is one.\ntype Ship struct{ hull.Hull }\n")},
		"fleet/fleet.go":      {Data: []byte("// Package fleet has fleets.\npackage fleet\n\nimport \"port.example/ship\"\n\n// Fleet is many.\ntype Fleet []ship.Ship\n")},
		"quay/unconcerned.go": {Data: []byte("// Package quay is elsewhere.\npackage quay\n")},
	}
	options := build.Options{FrontEnds: languages.All, Folder: "port", Inside: true}
	first, err := build.Link(t.Context(), files, options)
	require.NoError(t, err)
	ship := func(s *build.Snapshot) *model.Declaration {
		return buildtest.Module(t, s, "port.example/ship").Lookup("Ship")
	}
	require.Nil(t, ship(first).Member("Sail"))
	before := told(t, first)

	files["internal/hull/h.go"] = &fstest.MapFile{Data: []byte("package hull\n\n// Hull is kept from users.\ntype Hull struct{}\n\n// Sail sails.\nfunc (Hull) Sail() {}\n")}
	second, err := build.Update(t.Context(), files, first, "internal/hull/h.go")
	require.NoError(t, err)
	require.NotNil(t, ship(second).Member("Sail"), "users have the method through the ship")
	assert.Nil(t, ship(first).Member("Sail"))
	assert.Equal(t, before, told(t, first))
	assert.NotSame(t, ship(first), ship(second))
	for _, shared := range []string{"port.example/fleet", "port.example/quay"} {
		assert.Same(t, buildtest.Module(t, first, shared), buildtest.Module(t, second, shared), "%s has nothing to do with it", shared)
	}
	assert.Empty(t, second.Links.Unsettled())

	files["internal/hull/h.go"] = &fstest.MapFile{Data: []byte("package hull\n\n// Hull is kept from users.\ntype Hull struct{}\n")}
	third, err := build.Update(t.Context(), files, second, "internal/hull/h.go")
	require.NoError(t, err)
	assert.Nil(t, ship(third).Member("Sail"))
	assert.NotNil(t, ship(second).Member("Sail"))
	anew, err := build.Link(t.Context(), files, options)
	require.NoError(t, err)
	assert.Equal(t, told(t, anew), told(t, third))
}

// What is read again is what has to be: other files are not even opened.
func TestUpdateReadsWhatChanged(t *testing.T) {
	counted := &counting{MapFS: harbour(), opened: map[string]int{}}
	s, err := build.Link(t.Context(), counted, build.Options{FrontEnds: languages.All, Folder: "harbour"})
	require.NoError(t, err)
	update := func(changed ...string) []string {
		t.Helper()
		clear(counted.opened)
		s, err = build.Update(t.Context(), counted, s, changed...)
		require.NoError(t, err)
		var source []string
		for name := range counted.opened {
			if ext := path.Ext(name); ext == ".go" || ext == ".py" || ext == ".js" {
				source = append(source, name)
			}
		}
		slices.Sort(source)
		return source
	}
	assert.Empty(t, update())
	assert.Empty(t, update("README.md"), "no source has changed")
	assert.Equal(t, []string{"tide/tide.go"}, update("tide/tide.go"))
	assert.Equal(t, []string{"py/a.py", "tide/tide.go"}, update("tide/tide.go", "py/a.py", "tide/tide.go"))
	counted.MapFS["tide/more.go"] = &fstest.MapFile{Data: []byte("package tide\n\n// More is new.\ntype More int\n")}
	assert.Equal(t, []string{"tide/more.go"}, update("tide/more.go"), "a new file, and no other")
	require.NotNil(t, buildtest.Module(t, s, "tidebook.example/engine/tide").Lookup("More"))
	delete(counted.MapFS, "tide/more.go")
	assert.Empty(t, update("tide/more.go"))
	assert.Nil(t, buildtest.Module(t, s, "tidebook.example/engine/tide").Lookup("More"))
	assert.Empty(t, update("tide/x_test.go"), "tests are not read here")
	assert.Equal(t, []string{"tide/curve.go", "tide/tide.go"}, update("tide"), "a folder stands for what is in it")
	assert.Len(t, update("go.mod"), 0, "where libraries are is found out anew, and what files say is known")
}

// counting counts how often files are read.
type counting struct {
	fstest.MapFS
	opened map[string]int
	mu     sync.Mutex
}

func (c *counting) ReadFile(name string) ([]byte, error) {
	c.mu.Lock()
	c.opened[name]++
	c.mu.Unlock()
	return c.MapFS.ReadFile(name)
}

// The findings of a project after a change are those of the changed project, whatever
// stage they are of.
func TestUpdateFindings(t *testing.T) {
	files := harbour()
	files["broken.go"] = &fstest.MapFile{Data: []byte("package engine\n\nfunc Broken( {}\n")}
	files["fragments/tides.md"] = &fstest.MapFile{Data: []byte("Tides.\n")}
	files["board/Row.cs"] = &fstest.MapFile{Data: []byte("namespace Board;\n/// <include file='rows.xml' path='rows/summary'/>\npublic class Row { }\n")}
	options := build.Options{FrontEnds: languages.All, Folder: "harbour"}
	s, err := build.Link(t.Context(), files, options)
	require.NoError(t, err)
	for step, change := range []struct {
		file, text string // no text: it goes
	}{
		{"broken.go", "package engine\n\nfunc Mended() {}\n"},
		{"README.md", "# Port\n\nSee [x](ref:Nowhere).\n"},
		{"README.md", "# Port\n\n<insert:tides> and <insert:none>\n\n<insert:none>\n"},
		{"fragments/tides.md", ""},
		{"README.md", ""},
		{"tide/tide.go", "package tide\n\n// Predictor see [Nothing.Here].\ntype Predictor interface{ At(int) float64 }\n"},
		{"broken.go", "package engine\n\nfunc {}\n"},
		{"broken.go", ""},
		{"board/rows.xml", "<rows><summary>A row.</summary></rows>"},
		{"board/rows.xml", "<rows><summary>A <see cref='Nothing'/>.</summary></rows>"},
		{"board/rows.xml", "<rows/>"},
		{"board/rows.xml", ""},
	} {
		if files[change.file] = (&fstest.MapFile{Data: []byte(change.text)}); change.text == "" {
			delete(files, change.file)
		}
		s, err = build.Update(t.Context(), files, s, change.file)
		require.NoError(t, err)
		checked, err := build.Check(t.Context(), s)
		require.NoError(t, err)
		anew, err := build.Run(t.Context(), files, options)
		require.NoError(t, err)
		require.Equal(t, anew.Findings, checked.Findings, "step %d: %s", step, change.file)
		assert.Equal(t, anew.Stats.Declared, checked.Stats.Declared)
		assert.Equal(t, anew.Stats.InReach, checked.Stats.InReach)
		for _, lib := range checked.Project.Libraries { // a module alone says what it says among all
			for _, m := range lib.Modules {
				alone := build.CheckModule(s, m)
				for _, f := range alone {
					assert.True(t, slices.ContainsFunc(anew.Findings, func(other finding.Finding) bool {
						return other.Rule == f.Rule && (other.Place == f.Place || slices.Contains(other.Others, f.Place))
					}), "step %d: %s alone: %v", step, m.Path, f)
				}
			}
		}
	}
}
