package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/link"
	"codrel/internal/model"
)

// A reference that names the right thing in the wrong place is told the right one;
// what several things are called, or is out of reach, is not suggested.
func TestMoved(t *testing.T) {
	files := map[string]string{
		"go.mod":            "module tidebook.example/engine\n",
		"tide/tide.go":      "package tide\n\nimport \"tidebook.example/engine/moon\"\n\ntype Height int\n\nfunc (Height) Metres() {}\n\nfunc Open() {}\n\ntype hidden int\n\nvar _ moon.Phase\n",
		"moon/moon.go":      "package moon\n\ntype Phase int\n\nfunc (Phase) Age() {}\n\ntype Node int\n\nfunc (Node) Age() {}\n\nfunc (Node) Rise() {}\n",
		"berth/berth.go":    "package berth\n\nfunc Open() {}\n",
		"py/pyproject.toml": "[project]\nname = \"pkg\"\n",
		"py/pkg/berths.py":  "class Berth:\n    def assign(self): pass\n",
		"py/pkg/other.py":   "def find(): pass\n",
	}
	s := buildtest.Run(t, buildtest.Files(files), build.Options{Folder: "engine"})
	tide, other := module(t, s, "engine/tide code"), module(t, s, "pkg.other code")
	for _, c := range []struct {
		from    link.Scope
		written string
		want    string
	}{
		{scopeIn(tide), "engine.tide.Height", "Height"},
		{scopeIn(tide), "old.Height.Metres", "Height.Metres"},
		{scopeIn(tide), "old.Phase", "moon.Phase"},
		{scopeIn(tide), "moon.Height", "Height"},
		{scopeIn(tide), "moon.Rise", "moon.Node.Rise"},
		{scopeIn(tide), "moon.Age", ""},
		{scopeIn(tide), "old.Open", ""},
		{scopeIn(tide), "old.hidden", ""},
		{scopeIn(tide), "tidebook.example/engine/sun.Phase", "tidebook.example/engine/moon.Phase"},
		{scopeIn(tide), "tidebook.example/engine/moon.Height", "tidebook.example/engine/tide.Height"},
		{scopeIn(tide), "old.Berth", "pkg.berths.Berth"},
		{scopeIn(tide), "Height.Berth", ""},
		{scopeIn(tide), "Height.Phase", "moon.Phase"},
		{scopeIn(other), "pkg.old.Berth", "pkg.berths.Berth"},
		{scopeIn(other), "pkg.Berth.assign", "pkg.berths.Berth.assign"},
		{scopeIn(other), "pkg.berths.Berht", "pkg.berths.Berth"},
		{scopeIn(other), "pkg.berths.Berth.asign", "pkg.berths.Berth.assign"},
		{scopeIn(other), "a.b", ""},
		{link.Scope{}, "old.Phase.Age", "moon.Phase.Age"},
		{link.Scope{}, "", ""},
	} {
		assert.Equal(t, c.want, s.Links.Moved(c.from, c.written), c.written)
	}
}

func scopeIn(m *model.Module) link.Scope { return link.Scope{Module: m, File: m.Files[0]} }
