package link_test

import (
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/settings"
)

const manySource = `
-- go.mod --
module tidebook.example/engine
-- tide/tide.go --
package tide

type Height float64

func (Height) Metres() float64 { return 0 }

type Curve struct{ Height }

func New() *Curve { return nil }

type hidden struct{}
-- moon/moon.go --
package moon

type Phase int

func New() Phase { return 0 }
-- dots/dots.go --
package dots

import . "tidebook.example/engine/tide"

func Use(h Height) {}
-- dots/dots_test.go --
package dots

func Helper(h Height) {}
-- dots/x_test.go --
package dots_test

import "time"

func Other(h Height, t time.Time) {}
-- internal/deep/deep.go --
package deep

type Secret int
-- tools/go.mod --
module tidebook.example/tools
-- tools/gauge/gauge.go --
package gauge

import (
	"time"
	"other.example/clock/v2"
)

type Reading struct{ at time.Time; c clock.Clock }
`

func many(t *testing.T, elsewhere ...settings.Elsewhere) *build.Snapshot {
	t.Helper()
	set := settings.Default()
	set.Elsewhere = elsewhere
	return buildtest.Run(t, buildtest.Archive(txtar.Parse([]byte(manySource))), build.Options{Settings: set, Folder: "project", Tests: true})
}

func module(t *testing.T, s *build.Snapshot, path string) *model.Module {
	t.Helper()
	for _, lib := range s.Project.Libraries {
		for _, m := range append(append([]*model.Module(nil), lib.Modules...), lib.Tests...) {
			if strings.HasSuffix(m.Path+" "+m.Role.String(), path) {
				return m
			}
		}
	}
	t.Fatal("no module", path)
	return nil
}

// said is the outcome of a resolution in words.
func said(r link.Result) string {
	name := func(t link.Target) string {
		switch {
		case t.Module != nil:
			return "module " + t.Module.Name
		case t.Declaration != nil:
			return t.Declaration.Module.Name + "." + t.Declaration.Path()
		}
		return t.Address
	}
	switch r.Outcome {
	case link.Found:
		return name(r.Target)
	case link.External:
		return "beyond " + name(r.Target)
	case link.Ambiguous:
		var all []string
		for _, c := range r.Candidates {
			all = append(all, name(c))
		}
		return strings.Join(all, " or ")
	}
	if r.Partial {
		return "partly"
	}
	return "-"
}

// From a README there is no module to stand in: everything goes by suffix.
func TestFromNowhere(t *testing.T) {
	s := many(t)
	for written, want := range map[string]string{
		"Height":                                "tide.Height",
		"Height.Metres":                         "tide.Height.Metres",
		"Height::Metres":                        "tide.Height.Metres",
		"Height#Metres()":                       "tide.Height.Metres",
		"Curve->Metres":                         "tide.Height.Metres",
		"tide":                                  "module tide",
		"tide.Height":                           "tide.Height",
		"tide/Height":                           "tide.Height",
		"New":                                   "moon.New or tide.New",
		"New()":                                 "moon.New or tide.New",
		"moon.New":                              "moon.New",
		"tidebook.example/engine/moon":          "module moon",
		"tidebook.example/engine/moon.New":      "moon.New",
		"tidebook.example/engine/moon.Old":      "partly",
		"Height()":                              "tide.Height",
		"tide()":                                "-",
		"Hight":                                 "-",
		"tide.Hight":                            "partly",
		"hidden":                                "-",
		"Secret":                                "-",
		"gauge.Reading":                         "gauge.Reading",
		"":                                      "-",
		"..":                                    "-",
		"()":                                    "-",
		"Height.":                               "-",
		"/":                                     "-",
		"a/b/c":                                 "-",
		strings.Repeat("x.", 1000) + "y":        "-",
		"tidebook.example/engine/internal/deep": "module deep",
	} {
		assert.Equal(t, want, said(s.Links.Resolve(link.Scope{}, written, link.Explicit)), written)
	}
}

func TestFromModules(t *testing.T) {
	s := many(t)
	dots, gauge := module(t, s, "engine/dots code"), module(t, s, "tools/gauge code")
	for _, c := range []struct {
		from    *model.Module
		written string
		how     link.Strictness
		want    string
	}{
		{dots, "Height", link.Bracketed, "tide.Height"}, // through a dot import
		{dots, "dots.Use", link.Bracketed, "dots.Use"},  // a module by its own name
		{dots, "dots", link.Bracketed, "module dots"},
		{dots, "dots.Gone", link.Bracketed, "partly"},
		{dots, "Phase", link.Bracketed, "-"},         // not without its package
		{dots, "Phase", link.Explicit, "moon.Phase"}, // but where it is surely meant
		{dots, "New", link.Explicit, "tide.New"},     // the nearest step decides
		{gauge, "time.Time", link.Bracketed, "beyond "},
		{gauge, "clock.Clock", link.Bracketed, "beyond "},
		{gauge, "time", link.Bracketed, "beyond "},
		{gauge, "io.EOF", link.Bracketed, "beyond "}, // a package of the language's own
		{gauge, "io.eof", link.Bracketed, "-"},
		{gauge, "io.EOF", link.Explicit, "-"},
		{gauge, "tide.Height", link.Bracketed, "tide.Height"}, // of another library
		{gauge, "Reading.at", link.Bracketed, "gauge.Reading.at"},
		{gauge, "Reading.After", link.Bracketed, "partly"},
	} {
		from := link.Scope{Module: c.from, File: c.from.Files[0]}
		assert.Equal(t, c.want, said(s.Links.Resolve(from, c.written, c.how)), "%s from %s", c.written, c.from.Path)
	}
}

func TestTypesInSignatures(t *testing.T) {
	s := many(t, settings.Elsewhere{Modules: "time", Page: "https://handbook.example/{module}#{name}"},
		settings.Elsewhere{Modules: "other.example/**", Page: "https://other.example/{module}/{name}"})
	gauge := module(t, s, "tools/gauge code")
	address := func(name string) string { return s.Links.Type(gauge, gauge.Files[0], name).Address }
	assert.Equal(t, "https://handbook.example/time#Time", address("time.Time"))
	assert.Equal(t, "https://other.example/other.example/clock/v2/Clock", address("clock.Clock"), "the version is no name")
	assert.True(t, s.Links.Type(gauge, gauge.Files[0], "unknown.Type").None())
	assert.True(t, s.Links.Type(gauge, gauge.Files[0], "int").None())

	inside := module(t, s, "engine/dots test")
	assert.NotNil(t, s.Links.Type(inside, inside.Files[0], "Use").Declaration, "a test in the package sees its names")
	outside := module(t, s, "dots_test test")
	assert.Nil(t, s.Links.Type(outside, outside.Files[0], "Use").Declaration, "one beside it does not")
}

func TestReachOfModules(t *testing.T) {
	s := many(t)
	assert.True(t, s.Links.ModuleInReach(module(t, s, "engine/tide code")))
	assert.False(t, s.Links.ModuleInReach(module(t, s, "internal/deep code")))
	assert.False(t, s.Links.ModuleInReach(module(t, s, "engine/dots test")))
	assert.False(t, s.Links.InReach(module(t, s, "engine/tide code").Lookup("hidden")))
	assert.False(t, s.Links.InReach(nil))
	assert.False(t, s.Links.InReach(module(t, s, "engine/dots test").Lookup("Helper")), "tests are no reference")
}
