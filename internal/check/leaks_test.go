package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/finding"
)

// What users see is where something is declared: types that only its definition names are no leak,
// nor are those that something else asks for. Others are.
func TestLeaksOfDefinitions(t *testing.T) {
	leaked := func(files map[string]string) (list []string) {
		for _, f := range run(t, files, nil).Findings {
			if f.Rule == finding.LeakedType {
				list = append(list, f.Place.File+" "+f.Arg("type"))
			}
		}
		return list
	}
	assert.Empty(t, leaked(map[string]string{
		"include/line.h": "/** @file A line. */\n/** A line. */\ntypedef void line;\n/** Opens. @return it */\nline *line_open(void);\n",
		"src/line.c":     "#include \"line.h\"\nstruct inner { int x; };\nstruct inner *line_open(void) { return 0; }\n",
	}), "the definition has the type that the header hides")
	basin := map[string]string{"include/basin.hpp": "/// A basin.\nclass Basin { struct Kept {}; public: /// Gives it. \\return it\n Kept get(); };\n", "src/basin.cpp": "#include \"basin.hpp\"\nBasin::Kept Basin::get() { return {}; }\n"}
	assert.Equal(t, []string{"include/basin.hpp Kept"}, leaked(basin), "it is said once, where users see it")
	rust := map[string]string{
		"Cargo.toml":   "[package]\nname = \"tide\"\n",
		"src/lib.rs":   "//! Tides.\nmod inner;\n/// A tide.\npub struct Tide;\nimpl From<inner::Kept> for Tide { fn from(kept: inner::Kept) -> Tide { Tide } }\n",
		"src/inner.rs": "pub struct Kept;\n",
	}
	assert.Empty(t, leaked(rust), "a trait asks for it")
	rust["src/lib.rs"] += "/// Makes one.\npub fn make(kept: inner::Kept) -> Tide { Tide }\n"
	assert.Equal(t, []string{"src/lib.rs inner::Kept"}, leaked(rust))
}

// Modules that import one another are a flaw where the language loads them one after the other, and
// none where it reads them all at once.
func TestCircles(t *testing.T) {
	cycles := func(files map[string]string) (list []string) {
		for _, f := range run(t, files, nil).Findings {
			if f.Rule == finding.ImportCycle {
				list = append(list, f.Arg("path"))
			}
		}
		return list
	}
	assert.Empty(t, cycles(map[string]string{
		"Cargo.toml": "[package]\nname = \"tide\"\n", "src/lib.rs": "pub mod a;\npub mod b;\n", "src/a.rs": "use crate::b::B;\npub struct A(B);\n", "src/b.rs": "use crate::a::A;\npub struct B(A);\n",
	}))
	assert.Equal(t, []string{"tide.a → tide.b → tide.a"}, cycles(map[string]string{
		"tide/__init__.py": "\"\"\"Tides.\"\"\"\n", "tide/a.py": "from tide import b\n", "tide/b.py": "from tide import a\n",
	}))
}
