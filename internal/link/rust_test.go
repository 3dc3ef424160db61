package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// crate is a small one: its types are in modules that are not for users, and handed on.
var crate = map[string]string{
	"Cargo.toml": "[package]\nname = \"tide-solver\"\nversion = \"0.3.0\"\n",
	"src/lib.rs": `//! Tides, see [Tide] and [low::Low].
pub use crate::inner::{Tide, Kind as Sort};
pub use low::*;
mod inner;
pub mod low;
pub mod prelude {
    //! What most need.
    pub use crate::{Tide, low::Low};
}
/// Gives the most, as [self::Tide::height] has it; not [crate::Gone].
#[macro_export]
macro_rules! most { () => {} }
mod private { pub struct Sealed; }
`,
	"src/inner.rs": `use crate::low::{self, Low};
/// A tide, [Self::height] high. See [super::low], [low::Low::depth], [std::fmt::Display] and [most!].
pub struct Tide { pub height: f64 }
impl Tide {
    /// Is it [Kind::High]?
    pub fn is_high(&self) -> bool { self.height > 1.0 && helper(self) }
    pub fn to_low(&self) -> Low { Low::new(self.height) }
}
/// A kind.
pub enum Kind { /** Up. */ High, /** Down. */ Deep }
fn helper(tide: &Tide) -> bool { tide.is_high() }
/// Not handed on.
pub struct Kept;
`,
	"src/low.rs": `/// Low water.
#[derive(Debug)]
pub struct Low { /// How deep.
 pub depth: f64 }
impl Low { /// Makes one.
 pub fn new(depth: f64) -> Self { Low { depth } } }
impl crate::inner::Tide { /// From afar.
 pub fn afar(&self) {} }
`,
}

func TestCrate(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(crate), build.Options{Inside: true})
	lib := s.Project.Libraries[0]
	assert.Equal(t, "tide-solver", lib.Name)
	assert.Equal(t, "0.3.0", lib.Version)
	homes := map[string]string{}
	for _, m := range lib.Modules {
		for d := range m.Declarations {
			if s.Links.InReach(d) {
				homes[d.Path()] = s.Links.Home(d).Path
			}
		}
	}
	assert.Equal(t, map[string]string{
		"Tide": "tide_solver", "Tide.height": "tide_solver", "Tide.is_high": "tide_solver", "Tide.to_low": "tide_solver", "Tide.afar": "tide_solver",
		"Sort": "tide_solver", "Sort.High": "tide_solver", "Sort.Deep": "tide_solver", // users know it by no other name
		"Low": "tide_solver::low", "Low.depth": "tide_solver::low", "Low.new": "tide_solver::low", "most": "tide_solver", // users get there
	}, homes)
	given := map[string]string{}
	for _, m := range lib.Modules {
		for _, e := range s.Links.Exports(m) {
			if e.Target.Declaration != nil {
				given[m.Path+" "+e.Name] = e.Target.Declaration.Module.Path + " " + e.Target.Declaration.Path()
			}
		}
	}
	assert.Equal(t, map[string]string{
		"tide_solver Tide": "tide_solver::inner Tide", "tide_solver Sort": "tide_solver::inner Sort", "tide_solver Low": "tide_solver::low Low",
		"tide_solver::prelude Tide": "tide_solver::inner Tide", "tide_solver::prelude Low": "tide_solver::low Low",
	}, given)
}

// References in comments lead to what they name, from where they stand.
func TestReferencesOfCrates(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(crate), build.Options{Inside: true})
	led := map[string]string{}
	look := func(d *model.Declaration, m *model.Module, f *model.Facts, doc *model.Doc) {
		sections := s.Links.Comments.Of(m.Library.Habits, f, doc)
		prose.Walk(sections.Body, func(n *prose.Node) bool {
			if n.Kind == prose.Reference {
				r := s.Links.ResolveNode(link.Scope{Module: m, File: f, Declaration: d}, n)
				switch to := r.Target; {
				case to.Declaration != nil:
					led[n.Target] = to.Declaration.Path()
				case to.Module != nil:
					led[n.Target] = to.Module.Path
				case r.Outcome == link.External:
					led[n.Target] = "outside"
				default:
					led[n.Target] = ""
				}
			}
			return true
		})
	}
	for _, m := range s.Project.Libraries[0].Modules {
		for _, doc := range m.Doc {
			look(nil, m, doc.File, doc.Doc)
		}
		for d := range m.Declarations {
			for _, o := range d.Occurrences {
				if o.Doc != nil {
					look(d, m, o.File, o.Doc)
				}
			}
		}
	}
	assert.Equal(t, map[string]string{
		"Tide": "Tide", "low::Low": "Low", "self::Tide::height": "Tide.height", "crate::Gone": "", "Self::height": "Tide.height", "super::low": "tide_solver::low", "low::Low::depth": "Low.depth",
		"std::fmt::Display": "outside", "macro:most": "most", "Kind::High": "Sort.High",
	}, led)
	assert.Equal(t, []string{"crate::Gone"}, leadNowhere(s))
}

// Names in bodies mean what the language says.
func TestUsesInCrates(t *testing.T) {
	uses := usesIn(t, "src/inner.rs", crate)
	require.NotEmpty(t, uses)
	assert.Subset(t, uses, []string{"crate::low is module tide_solver::low", "Low is tide_solver::low Low", "Low::new is tide_solver::low Low.new", "helper is tide_solver::inner helper", "Tide is tide_solver::inner Tide"})
}

// What is handed on has its page where it is declared, if users get there, unless its author says otherwise.
func TestInlinedInCrates(t *testing.T) {
	for lib, want := range map[string]string{
		"pub mod low; pub use low::Low;":                      "tide::low",
		"pub mod low; #[doc(inline)] pub use low::Low;":       "tide",
		"pub mod low; #[doc(inline)] pub use low::*;":         "tide",
		"pub mod low; pub use low::*;":                        "tide::low",
		"mod low; pub use low::Low;":                          "tide",
		"mod low; #[doc(no_inline)] pub use low::Low;":        "tide",
		"pub mod low; pub mod all { pub use crate::low::*; }": "tide::low",
		"#[doc(hidden)] pub mod low; pub use low::Low;":       "tide",
	} {
		s := buildtest.Run(t, buildtest.Files(map[string]string{"Cargo.toml": "[package]\nname = \"tide\"\n", "src/lib.rs": lib, "src/low.rs": "/// Low.\npub struct Low;\n"}), build.Options{})
		for _, m := range s.Project.Libraries[0].Modules {
			for d := range m.Declarations {
				assert.Equal(t, want, s.Links.Home(d).Path, lib)
			}
		}
	}
}

// Traits are implemented anywhere, and for all types that meet a bound.
func TestTraitsOfCrates(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"Cargo.toml": "[package]\nname = \"tide\"\n",
		"src/lib.rs": "pub mod low; mod far;\npub trait Read { fn read(&self); }\npub trait Shown {}\nimpl<T: std::fmt::Display + ?Sized> Shown for T {}\npub trait Both {}\nimpl<T> Both for T where T: Read + std::fmt::Display {}\npub trait All {}\nimpl<T> All for T {}\n",
		"src/low.rs": "pub struct Low;\npub struct Bare;\npub mod deep { pub struct Deep; }\n",
		"src/far.rs": "use crate::{Read, low::{self, Low}};\nuse std::fmt;\nimpl Read for Low { fn read(&self) {} }\nimpl fmt::Display for low::Low {}\nimpl Read for crate::low::deep::Deep { fn read(&self) {} }\nimpl Read for String { fn read(&self) {} }\n",
	}), build.Options{})
	got := map[string][]string{}
	for _, m := range s.Project.Libraries[0].Modules {
		for d := range m.Declarations {
			for _, to := range s.Links.Relations(d).Implements {
				got[d.Path()] = append(got[d.Path()], to.Path())
			}
			has, _ := s.Links.Generals(d)
			for _, g := range has {
				got[d.Path()] = append(got[d.Path()], g.Trait.Path()+" by "+g.Every+" with "+g.Bounds)
			}
		}
	}
	assert.Equal(t, map[string][]string{
		"Low":  {"Read", "Shown by T with std::fmt::Display + ?Sized", "Both by T with Read + std::fmt::Display"},
		"Deep": {"Read"},
	}, got)
}

// What a module hands on from several others, each of which is there for other systems, is one thing to its users.
func TestAlternatives(t *testing.T) {
	files := map[string]string{
		"Cargo.toml": "[package]\nname = \"quay\"\n",
		"src/lib.rs": `
#[cfg(unix)] mod unix;
#[cfg(unix)] pub use unix::*;
#[cfg(windows)] mod windows;
#[cfg(windows)] pub use windows::{Port, open, Mode};
mod always;
pub use always::*;
`,
		"src/unix.rs":    "/// A port.\npub struct Port { pub fd: i32 }\nimpl Port { pub fn close(self) {} pub fn depth(&self) -> u32 { 1 } }\npub fn open(path: &str) -> Port { todo!() }\npub fn only() {}\npub fn twice() {}\n",
		"src/windows.rs": "/// A port of Windows.\npub struct Port { pub handle: u64 }\nimpl Port { pub fn close(self) {} pub fn share(&self, m: Mode) -> [Port; 2] { todo!() } }\nimpl Clone for Port { fn clone(&self) -> Port { todo!() } }\n/// Opens a [`Port`] in a [Mode].\npub fn open(path: &str, m: Mode) -> Port { todo!() }\npub enum Mode { Read }\n",
		"src/always.rs":  "pub fn twice(n: u32) {}\npub struct Open;\n",
	}
	s := buildtest.Run(t, buildtest.Files(files), build.Options{})
	find := func(s *build.Snapshot, name string) *model.Declaration {
		t.Helper()
		for _, d := range s.Links.Tops(s.Project.Libraries[0].Modules[0]) {
			if d.Name == name {
				return d
			}
		}
		require.Fail(t, "no page has "+name)
		return nil
	}
	crate, windows := s.Project.Libraries[0].Modules[0], s.Project.Libraries[0].Modules[3]
	require.Equal(t, "quay::windows", windows.Path)
	port := find(s, "Port")
	members := func(d *model.Declaration) (out []string) {
		for _, m := range d.Members {
			out = append(out, m.Path())
		}
		return out
	}
	assert.Equal(t, []string{"Port.handle", "Port.close", "Port.share", "Port.clone", "Port.fd", "Port.depth"}, members(port), "what is named comes before what comes with everything")
	assert.Len(t, port.Occurrences, 2)
	assert.Len(t, port.Member("close").Occurrences, 2)
	assert.Same(t, port, windows.Find("Port"), "its own module knows it as that")
	assert.Equal(t, crate, s.Links.Home(port))
	open := find(s, "open")
	assert.Len(t, open.Forms(), 2)
	for _, at := range port.Member("share").Occurrences {
		for token := range at.Tokens(at.Signature) {
			if token.Text == "Port" || token.Text == "Mode" {
				assert.NotNil(t, s.Links.TypeOf(port.Member("share"), at.File, token).Declaration, token.Text)
			}
		}
	}
	for _, f := range s.Findings {
		assert.NotContains(t, []string{"broken-reference", "leaked-type"}, f.Rule, f)
	}
	assert.Len(t, find(s, "twice").Occurrences, 2, "one of both is always there")

	files["src/lib.rs"] = "mod unix;\npub use unix::*;\nmod windows;\npub use windows::*;\nmod always;\n"
	s = buildtest.Run(t, buildtest.Files(files), build.Options{})
	assert.Len(t, find(s, "Port").Occurrences, 1, "without conditions a name that two modules give means neither")
}

// A module that is handed on is known by the path that its users write; paths in code lead through the other one.
func TestModulesThatAreHandedOn(t *testing.T) {
	files := map[string]string{
		"Cargo.toml":  "[package]\nname = \"quay\"\n",
		"src/lib.rs":  "mod deep;\nmod auto;\nmod kept;\npub use auto::*;\npub use auto::kept::*;\npub use kept::*;\npub use deep::shore as beach;\n/// See [`beach::Sand`], [deep::shore::more::Far] and [beach].\npub fn sands(a: beach::Sand, b: crate::deep::shore::more::Far) {}\n",
		"src/auto.rs": "pub mod kept {\n/// A.\npub fn auto() {}\n}\n",
		"src/kept.rs": "/// K.\npub fn own() {}\n",
		"src/deep.rs": "pub mod shore {\n/// See [more::Far], [super::shore::more].\npub struct Sand;\npub mod more {\n/// See [super::Sand] and [crate::beach::Sand].\npub struct Far;\n}\n}\npub mod kept {}\n",
	}
	s := buildtest.Run(t, buildtest.Files(files), build.Options{})
	var paths []string
	for _, m := range s.Project.Libraries[0].Modules {
		paths = append(paths, m.Path)
		assert.Equal(t, m.Path == "quay::beach" || m.Path == "quay::beach::more", s.Links.HandsOver(m), m.Path)
	}
	assert.ElementsMatch(t, []string{"quay", "quay::deep", "quay::beach", "quay::beach::more", "quay::deep::kept", "quay::kept", "quay::auto", "quay::auto::kept"}, paths, "quay::kept is its own, and kept")
	for _, f := range s.Findings {
		assert.NotContains(t, []string{"broken-reference", "leaked-type"}, f.Rule, f)
	}
}

// Two modules that are handed on under one path have a page each: the first has that path.
func TestModulesOfOnePath(t *testing.T) {
	files := map[string]string{
		"Cargo.toml":   "[package]\nname = \"quay\"\n",
		"src/lib.rs":   "mod deep;\n#[cfg(unix)] pub use deep::a as sys;\n#[cfg(windows)] pub use deep::b as sys;\nmod inner;\npub use inner::*;\n",
		"src/deep.rs":  "pub mod a { pub fn open() {} }\npub mod b { pub fn shut() {} }\n",
		"src/inner.rs": "pub use crate::deep::b as sys;\n",
	}
	var first []string
	for range 5 {
		s := buildtest.Run(t, buildtest.Files(files), build.Options{})
		var paths []string
		seen := map[string]bool{}
		for _, m := range s.Project.Libraries[0].Modules {
			assert.False(t, seen[m.Path], m.Path)
			seen[m.Path] = true
			paths = append(paths, m.Path)
		}
		if first == nil {
			first = paths
		}
		assert.Equal(t, first, paths, "the same each time")
	}
	assert.Contains(t, first, "quay::sys")
}

// What a path leads to that users write, and what a name in it is where several are called so.
func TestPathsThatUsersWrite(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"Cargo.toml": "[package]\nname = \"quay\"\n",
		"src/lib.rs": "//! See [`crate::Port::depth`], [_told::_more] and [`crate::winapi::low::FLAG`].\npub mod _told;\nmod doc;\n#[doc(hidden)] pub mod hidden { pub fn Port() {} }\npub use self::doc::winapi;\n/// See [sync::Lock], which stands beside it.\npub mod stream {}\npub mod sync { pub struct Lock; }\n" +
			"pub struct Port { depth: u32 }\nimpl Port {\n/// Sets it.\npub fn depth(self) -> Self { self } }\n" +
			"mod lib { mod core { pub use std::*; } pub use self::core::{cmp, iter}; }\n" +
			"macro_rules! make { () => {\n/// A token, see [Port].\n#[macro_export]\nmacro_rules! Token { (a) => {}; }\nmacro_rules! own { () => {} } } }\n",
		"src/_told.rs":       "pub mod _more;\n",
		"src/_told/_more.rs": "//! More.\n",
		"src/doc.rs":         "pub mod winapi { pub mod low { pub const FLAG: u32 = 1; } }\n",
	}), build.Options{})
	for _, f := range s.Findings {
		assert.NotContains(t, []string{"broken-reference", "broken-export"}, f.Rule, f)
	}
	crate := s.Project.Libraries[0].Modules[0]
	token := crate.Find("Token")
	require.NotNil(t, token, "a macro for all that another one declares")
	assert.True(t, s.Links.InReach(token))
	assert.NotNil(t, token.Speaks(model.Words).Doc)
	assert.Nil(t, crate.Find("own"))
}
