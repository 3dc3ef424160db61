package link_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/model"
)

// What a module declares stands on the pages of the public module that re-exports it, if it
// is kept from users or lies below that module.
func TestHomes(t *testing.T) {
	files := map[string]string{
		"pyproject.toml":         "[project]\nname = \"tides\"\n",
		"tides/__init__.py":      "from ._wire import decode, Frame, Frame as Packet\nfrom .tide import Tide\nclass Own: pass\n__all__ = ['decode', 'Frame', 'Packet', 'Tide', 'Own', 'Same']\nfrom ._wire import Same\nclass Same: pass\n",
		"tides/deep/__init__.py": "from .._wire import decode, Left\nfrom .low import Deep, Flat\n__all__ = ['decode', 'Left', 'Deep', 'Flat']\n",
		"tides/tide.py":          "from .deep import Deep\nclass Tide: pass\nclass Ebb: pass\n__all__ = ['Tide', 'Ebb', 'Deep']\n",
		"tides/deep/low.py":      "class Deep: pass\nclass Flat: pass\n",
		"tides/_wire.py":         "def decode(): pass\nclass Frame:\n    class Head:\n        size = 1\nclass Left: pass\nclass Same: pass\nclass Kept: pass\n",
	}
	s := buildtest.Run(t, buildtest.Files(files), build.Options{Folder: "tides"})
	wire, all := module(t, s, "tides._wire code"), module(t, s, "tides code")
	home := func(path string) string { return s.Links.Home(wire.Lookup(path)).Path }
	assert.Equal(t, "tides", home("decode"), "of two the shorter path")
	assert.Equal(t, "tides", home("Frame"))
	assert.Equal(t, "tides", home("Frame.Head.size"), "members go with what holds them")
	assert.Equal(t, "tides.deep", home("Left"))
	assert.Equal(t, "tides._wire", home("Same"), "the public module has its own of that name")
	assert.Equal(t, "tides._wire", home("Kept"))
	paths := func(list []*model.Declaration) (out []string) {
		for _, d := range list {
			if s.Links.InReach(d) {
				out = append(out, d.Path())
			}
		}
		return out
	}
	homeOf := func(m, name string) string { return s.Links.Home(module(t, s, m+" code").Lookup(name)).Path }
	assert.Equal(t, "tides", homeOf("tides.tide", "Tide"), "users take it from the package")
	assert.Equal(t, "tides.tide", homeOf("tides.tide", "Ebb"), "the package does not give it on")
	assert.Equal(t, "tides.deep", homeOf("tides.deep.low", "Flat"))
	assert.Equal(t, "tides.deep", homeOf("tides.deep.low", "Deep"), "a module beside it gives it on too, but it is not below that one")
	assert.Equal(t, []string{"Tide"}, paths(s.Links.Lent(module(t, s, "tides.tide code"))))

	assert.Equal(t, []string{"Own", "Same", "decode", "Frame", "Tide"}, paths(s.Links.Tops(all)))
	assert.Equal(t, []string{"Own", "Same", "decode", "Frame", "Frame.Head", "Frame.Head.size", "Tide"}, paths(slices.Collect(s.Links.OnPagesOf(all))))
	assert.NotContains(t, paths(slices.Collect(s.Links.OnPagesOf(wire))), "decode")

	names, gives := map[string][]string{}, map[string]map[string]string{}
	for _, m := range s.Links.Symbols().Libraries[0].Modules {
		names[m.Path], gives[m.Path] = m.Tops(), m.Gives
	}
	assert.ElementsMatch(t, []string{"Own", "Same", "decode", "Frame", "Tide"}, names["tides"], "other projects find them where the pages are")
	assert.NotContains(t, names, "tides._wire")
	assert.Equal(t, []string{"Ebb"}, names["tides.tide"])
	assert.Equal(t, map[string]string{"Tide": "tides#Tide", "Deep": "tides.deep#Deep"}, gives["tides.tide"], "the other names lead there")
}
