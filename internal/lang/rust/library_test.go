package rust_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang"
	"codrel/internal/lang/langtest"
	"codrel/internal/model"
)

func TestManifests(t *testing.T) {
	for text, want := range map[string]lang.Root{
		"[package]\nname = \"tide-solver\"\nversion = \"1.2.0\"\n":                           {Folder: "solver", Name: "tide-solver", Version: "1.2.0", Package: "tide_solver"},
		"[package]\nname = \"tide\"\nversion.workspace = true\n[lib]\nname = \"low_tide\"\n": {Folder: "solver", Name: "tide", Package: "low_tide"},
	} {
		root, ok := end.Root("solver/Cargo.toml", []byte(text))
		assert.True(t, ok, text)
		assert.Equal(t, want, root)
	}
	for _, text := range []string{"[workspace]\nmembers = [\"a\"]\n", "", "[package]\nname = \"\"\n", "[package", "name = 3"} {
		_, ok := end.Root("Cargo.toml", []byte(text))
		assert.False(t, ok, text)
	}
}

// read reads files of a library at the root, in the order of their paths.
func read(texts ...string) (files []*model.Facts) {
	for i := 0; i < len(texts); i += 2 {
		files = append(files, langtest.Read(end, texts[i], []byte(texts[i+1])))
	}
	return files
}

func TestUnsoundManifests(t *testing.T) {
	for text, want := range map[string]string{
		"[package]\nname = \"tide\"\n": "", "[workspace]\nmembers = []\n": "", "": "",
		"[package]\nname = ": "line 2: ",
		"[package\n":         "line 1: ",
		"[package]\nname = \"a\"\n[features]\nall = \"net\"\n": "line 4: ",
	} {
		err := end.MarkerProblem([]byte(text))
		if want == "" {
			assert.NoError(t, err, text)
		} else if assert.Error(t, err, text) {
			assert.Contains(t, err.Error(), want, text)
		}
	}
}

// What a manifest says of targets, features and the edition.
func TestTargets(t *testing.T) {
	root, ok := end.Root("Cargo.toml", []byte("[package]\nname = \"tide\"\nedition = \"2021\"\n[lib]\npath = \"rust/all.rs\"\n[[bin]]\nname = \"print\"\npath = \"tools/print.rs\"\n[[bin]]\nname = \"plain\"\npath = \"src/bin/plain.rs\"\n[features]\ndefault = [\"net\"]\nnet = []\ndeep = [\"net\"]\n_own = []\n"))
	assert.True(t, ok)
	assert.Equal(t, []model.Begin{{File: "rust/all.rs", Module: "tide"}, {File: "tools/print.rs", Module: "print"}}, root.Begins)
	assert.Equal(t, []model.Saying{
		{Key: model.Edition, Module: "tide", Names: []string{"2021"}}, {Key: model.Features, Module: "tide", Names: []string{"deep", "net"}}, {Key: model.ByDefault, Module: "tide", Names: []string{"net"}},
	}, root.Sayings)
	lib := &model.Library{Name: "tide", Package: "tide", Root: ".", Begins: root.Begins}
	files := read("rust/all.rs", "pub mod low;", "rust/low.rs", "", "src/bin/plain.rs", "fn main() {}", "src/lib.rs", "", "src/main.rs", "fn main() {}", "tools/print.rs", "mod help; fn main() {}", "tools/help.rs", "")
	assert.Equal(t, []string{"tide", "tide::low", "plain", "tide::lib", "tide::main", "print", "print::help"}, end.ModulePaths(lib, files))
	root, _ = end.Root("Cargo.toml", []byte("[package]\nname = \"tide\"\nedition.workspace = true\n[lib]\npath = \"src/lib.rs\"\n"))
	assert.Empty(t, root.Begins)
	assert.Empty(t, root.Sayings)
}

var tide = &model.Library{Name: "tide-solver", Package: "tide_solver", Root: "."}

func TestModules(t *testing.T) {
	files := read(
		"build.rs", "fn main() {}",
		"src/bin/print.rs", "fn main() {}",
		"src/inner/deep.rs", "",
		"src/inner/mod.rs", "pub mod deep;",
		"src/lib.rs", "pub mod tide; mod inner; #[path = \"odd/place.rs\"] pub mod named; pub mod in_file { pub mod below; } #[cfg(test)] mod tests; pub mod gone;",
		"src/in_file/below.rs", "",
		"src/lost.rs", "",
		"src/odd/place.rs", "",
		"src/tests.rs", "",
		"src/tide.rs", "pub mod low; mod kept;",
		"src/tide/kept.rs", "",
		"src/tide/low.rs", "",
		"tests/all.rs", "",
	)
	paths := end.ModulePaths(tide, files)
	got := map[string]string{}
	placed := end.Place(tide, files, paths)
	for i, f := range files {
		got[f.Path] = paths[i]
		if placed[i].Kept[paths[i]] {
			got[f.Path] += " kept"
		}
	}
	assert.Equal(t, map[string]string{
		"build.rs": "tide_solver::build kept", "src/bin/print.rs": "print", "src/inner/deep.rs": "tide_solver::inner::deep kept", "src/inner/mod.rs": "tide_solver::inner kept",
		"src/lib.rs": "tide_solver", "src/in_file/below.rs": "tide_solver::in_file::below", "src/lost.rs": "tide_solver::lost kept", "src/odd/place.rs": "tide_solver::named",
		"src/tests.rs": "tide_solver::tests kept", "src/tide.rs": "tide_solver::tide", "src/tide/kept.rs": "tide_solver::tide::kept kept", "src/tide/low.rs": "tide_solver::tide::low", "tests/all.rs": "all",
	}, got)
}

// What is implemented for a type that a file has for itself where it cannot take it from elsewhere is that of the type
// which users see.
func TestPlacesOfStandIns(t *testing.T) {
	files := read(
		"src/lib.rs", "mod chain; #[cfg(std)] pub struct Chain;",
		"src/chain.rs", "#[cfg(std)] pub(crate) use crate::Chain; #[cfg(not(std))] pub(crate) struct Chain; impl Chain { pub fn new() {} }",
	)
	placed := end.Place(tide, files, end.ModulePaths(tide, files))
	require.Equal(t, "new", files[1].Occurrences[1].Name)
	assert.Equal(t, map[int32]string{1: "tide_solver"}, placed[1].Others)
}

// What is implemented for a type goes to the module of the type, macros for all to the crate, and
// what stands in a module of a file there.
func TestPlaces(t *testing.T) {
	files := read(
		"src/lib.rs", "pub mod a; mod b; pub mod c { pub struct S; /// Said.\n mod d {} }",
		"src/a.rs", "pub struct Tide; pub struct S;",
		"src/b.rs", "use crate::a::Tide; impl Tide { pub fn go() {} } impl S { fn s() {} } impl Unknown { fn u() {} }\n#[macro_export] macro_rules! high { () => {} }\nmacro_rules! low { () => {} }",
	)
	paths := end.ModulePaths(tide, files)
	placed := end.Place(tide, files, paths)
	where := map[string]string{}
	for i, f := range files {
		for n := range f.Occurrences {
			at := paths[i]
			if other, moved := placed[i].Others[int32(n)]; moved {
				at = other
			}
			where[f.Occurrences[n].Name+" "+f.Path] = at
		}
	}
	assert.Equal(t, map[string]string{
		"S src/lib.rs": "tide_solver::c", "Tide src/a.rs": "tide_solver::a", "S src/a.rs": "tide_solver::a", "go src/b.rs": "tide_solver::a", "s src/b.rs": "tide_solver::c",
		"u src/b.rs": "tide_solver::b", "high src/b.rs": "tide_solver", "low src/b.rs": "tide_solver::b",
	}, where)
	assert.True(t, placed[0].Kept["tide_solver::c::d"])
	assert.Equal(t, "Said.", placed[0].Docs["tide_solver::c::d"].Text)
}

func TestImportPaths(t *testing.T) {
	m := model.NewModule(tide, "tide_solver::a::b")
	for written, want := range map[string][]string{
		"crate": {"tide_solver"}, "crate::c::d": {"tide_solver::c::d"}, "self": {"tide_solver::a::b"}, "self::c": {"tide_solver::a::b::c"}, "super": {"tide_solver::a"},
		"super::c": {"tide_solver::a::c"}, "super::super::c::d": {"tide_solver::c::d"}, "c": {"tide_solver::a::b::c", "c", "tide_solver::c"}, "std::fmt": {"tide_solver::a::b::std::fmt", "std::fmt", "tide_solver::std::fmt"},
	} {
		assert.Equal(t, want, end.ImportPaths(m, nil, written), written)
	}
	assert.Equal(t, "a::b", end.Below("a", "b"))
}

func TestWords(t *testing.T) {
	assert.Equal(t, "crate", end.ModuleWord(model.NewModule(tide, "tide_solver")))
	assert.Equal(t, "module-word", end.ModuleWord(model.NewModule(tide, "tide_solver::a")))
	assert.Equal(t, "use tide_solver::*;", end.BringIn(model.NewModule(tide, "tide_solver"), false))
	assert.Equal(t, "use tide_solver::a;", end.BringIn(model.NewModule(tide, "tide_solver::a"), false))
	assert.True(t, end.IsNative("u8") && end.IsNative("Option") && !end.IsNative("Tide"))
	assert.True(t, end.IsNativeModule("std::fmt") && end.IsNativeModule("core") && !end.IsNativeModule("stdlib"))
	for file, want := range map[string]bool{"tests/a.rs": true, "crates/b/benches/c.rs": true, "examples/d.rs": true, "src/tests.rs": true, "build.rs": true, "src/contests.rs": false, "src/lib.rs": false} {
		assert.Equal(t, want, end.IsTest(file), file)
	}
}
