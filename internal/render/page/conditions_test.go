package page_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/lang"
	"codrel/internal/lang/golang"
	"codrel/internal/lang/rust"
	"codrel/internal/look"
	"codrel/internal/model"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// Conditions are said in words where the language's can be taken apart, else as they are written.
func TestConditions(t *testing.T) {
	m := &page.Maker{FrontEnds: map[string]lang.FrontEnd{"rust": rust.FrontEnd{}, "go": golang.FrontEnd{}}, Texts: look.Plain().Texts}
	at := func(language string, conditions ...string) model.At {
		return model.At{Occurrence: &model.Occurrence{Extra: &model.Extra{Conditions: conditions}}, File: &model.Facts{Language: language}}
	}
	for condition, want := range map[string]string{
		`feature = "tides"`:                 "only with the feature tides",
		`not(feature = "tides")`:            "only without the feature tides",
		`unix`:                              "only on Unix",
		`not(target_os = "macos")`:          "not on macOS",
		`any(feature = "a", feature = "b")`: "only with the feature a or b",
		`all(unix, any(feature = "a", target_arch = "arm"))`: "only on Unix and (with the feature a or on arm processors)",
		`not(any(unix, windows))`:                            "not on Unix or Windows",
		`any(doc, feature = "a")`:                            "",
		`all(docs, feature = "a")`:                           "only with the feature a",
		`debug_assertions`:                                   "only where debug_assertions is set",
		`target_pointer_width = "64"`:                        "only where pointers have 64 bits",
		`panic = "unwind"`:                                   "only where panic = unwind",
		`target_feature = "sse2"`:                            "only on processors with sse2",
		``:                                                   "",
		`any(not(unix), not(windows))`:                       "not on Unix or not on Windows",
		`all(not(unix), not(windows))`:                       "not on Unix or Windows",
		`not(all(unix, windows))`:                            "not on Unix or not on Windows",
		`not(doc)`:                                           "only where doc is not set",
		`all()`:                                              "",
		`feature = `:                                         "only where feature = is set",
	} {
		when, got := m.Conditions(at("rust", condition)), ""
		if !when.None() {
			got = when.Words(m.Texts)
		}
		assert.Equal(t, want, got, condition)
	}
	assert.Equal(t, "only on Unix and with the feature a", m.Conditions(at("rust", "unix", `feature = "a"`)).Words(m.Texts))
	assert.Equal(t, "only with the feature a and b and on Unix", m.Conditions(at("rust", `feature = "a"`, "unix", `feature = "b"`, "unix")).Words(m.Texts), "each is said once")
	assert.Equal(t, "only on Fuchsia", m.Conditions(at("rust", "not(windows)", `not(target_os = "psp")`, `target_os = "fuchsia"`)).Words(m.Texts), "which is none of the others")
	assert.Equal(t, "only on Unix and not on Fuchsia or psp", m.Conditions(at("rust", "not(windows)", `not(any(target_os = "fuchsia", target_os = "psp"))`, "all(unix)")).Words(m.Texts))
	five, two := `any(target_os = "linux", target_os = "android", target_os = "macos", target_os = "freebsd", target_os = "haiku")`, `any(target_os = "linux", target_os = "android")`
	assert.Equal(t, "only on Linux or Android", m.Conditions(at("rust", "unix", five, two)).Words(m.Texts), "which are Unix, and two of the five")
	assert.Equal(t, "only on macOS or FreeBSD or Haiku", m.Conditions(at("rust", "unix", five, "not("+two+")")).Words(m.Texts))
	assert.Equal(t, "only on Linux or Android and not on Unix", m.Conditions(at("rust", two, "not(unix)")).Words(m.Texts), "what never holds is said as it is")
	assert.Equal(t, "only on Linux", m.Conditions(at("rust", `target_os = "linux"`, five, `target_os = "linux"`)).Words(m.Texts))
	assert.Equal(t, "only on Unix or Windows", m.Conditions(at("rust", "any(unix, windows)")).Words(m.Texts))
	assert.Equal(t, "only where target_env = gnu and on Linux", m.Conditions(at("rust", `target_env = "gnu"`, `not(target_env = "musl")`, `target_os = "linux"`)).Words(m.Texts))
	assert.Equal(t, "for linux and amd64", m.Conditions(at("go", "linux", "amd64")).Words(m.Texts))
	assert.True(t, m.Conditions(at("go")).None())
}

// What names a module's file may put it under conditions, and so may a macro that items stand in.
func TestConditionsFromElsewhere(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"Cargo.toml":       "[package]\nname = \"quay\"\n",
		"src/lib.rs":       "#[macro_use] mod gates;\n#[cfg(feature = \"net\")]\npub mod net;\ncfg_deep! {\n pub mod deep;\n /// F.\n pub fn f() {}\n pub mod within { pub fn g() {} }\n}\nunknown! { pub fn h() {} }\n#[cfg(unix)] #[path = \"both.rs\"] pub mod both;\n#[cfg(unix)] #[cfg(feature = \"x\")] mod other { #[path = \"../both.rs\"] pub mod both; }\n",
		"src/gates.rs":     "macro_rules! cfg_deep {\n ($($item:item)*) => { $( #[cfg(feature = \"deep\")] #[cfg_attr(docs, doc(cfg(feature = \"deep\")))] $item )* }\n}\nmacro_rules! unknown { ($($t:tt)*) => { $($t)* } }\nmacro_rules! meta { ($m:meta, $($item:item)*) => { $( #[cfg($m)] $item )* } }\n",
		"src/net.rs":       "#![cfg(not(loom))]\npub struct Net;\nimpl Net { pub fn new() {} }\npub mod inner;\nmeta! { pub fn i() {} }\n",
		"src/net/inner.rs": "#[cfg(windows)]\npub fn k() {}\n",
		"src/deep.rs":      "pub fn l() {}\n",
		"src/both.rs":      "pub fn m() {}\n",
	}), build.Options{})
	m := &page.Maker{Links: s.Links, FrontEnds: map[string]lang.FrontEnd{"rust": rust.FrontEnd{}}, Texts: look.Plain().Texts}
	modules, names := map[string]string{}, map[string]string{}
	for _, module := range s.Project.Libraries[0].Modules {
		modules[module.Path] = m.OfModule(module).Text
		for d := range module.Declarations {
			if d.Kind() != model.KindMacro {
				names[d.Path()] = m.Conditions(d.Speaks(model.Words)).Text
			}
		}
	}
	const net = "only with the feature net and where loom is not set"
	assert.Equal(t, map[string]string{
		"quay": "", "quay::gates": "", "quay::net": net, "quay::net::inner": net, "quay::deep": "only with the feature deep", "quay::within": "only with the feature deep", "quay::both": "only on Unix", "quay::other": "only on Unix and with the feature x",
	}, modules)
	assert.Equal(t, map[string]string{
		"Net": net, "Net.new": net, "i": net, "k": "only with the feature net and on Windows and where loom is not set", "l": "only with the feature deep", "f": "only with the feature deep", "g": "only with the feature deep", "h": "", "m": "only on Unix",
	}, names)
}

// A member does not say again what its type says.
func TestConditionsOfMembers(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"Cargo.toml":   "[package]\nname = \"quay\"\n",
		"src/lib.rs":   "#[cfg(unix)] pub mod berth;\n",
		"src/berth.rs": "pub struct Berth;\nimpl Berth {\n pub fn depth() {}\n #[cfg(feature = \"deep\")] pub fn sound() {}\n}\n",
	}), build.Options{})
	end := map[string]lang.FrontEnd{"rust": rust.FrontEnd{}}
	notes := page.Notes{Maker: &page.Maker{Links: s.Links, FrontEnds: end, Texts: look.Plain().Texts}, Plan: plan.New(s.Links, plan.Options{})}
	written := map[string]string{}
	for _, m := range s.Project.Libraries[0].Modules {
		for d := range m.Declarations {
			for _, p := range notes.Declaration(d)[0] {
				written[d.Path()] += p.Text
			}
		}
	}
	assert.Equal(t, map[string]string{
		"Berth": "Defined in berth.rs, line 1, only on Unix.", "Berth.depth": "Defined in berth.rs, line 3.", "Berth.sound": "Defined in berth.rs, line 4, only on Unix and with the feature deep.",
	}, written)
}
