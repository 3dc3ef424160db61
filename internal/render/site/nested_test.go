package site_test

import (
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/settings"
)

// Types and namespaces in a namespace have pages of their own, which lead to one another; a
// type that shares its name with a constant has the page.
func TestNested(t *testing.T) {
	m := rendered(t, fstest.MapFS{
		"package.json": {Data: []byte(`{"name": "@tidebook/log"}`)},
		"log.d.ts": {Data: []byte(`/** Notes. See {@link Notes.Berth.Line.text}, {@link Quay.depth} and {@link Quay}. */
export declare namespace Notes {
  /** A note. */
  interface Note { mark: string }
  namespace Berth {
    namespace Line {
      /** A text. */
      const text: string
    }
  }
}
/** Makes quays. */
export declare const Quay: () => Quay
export interface Quay {
  /** How deep. */
  depth: number
}
`)},
		"tides/pyproject.toml":    {Data: []byte("[project]\nname = \"tides\"\n")},
		"tides/tides/__init__.py": {Data: []byte("\"\"\"Tides.\"\"\"\nfrom ._wire import Frame\n__all__ = [\"Frame\"]\n")},
		"tides/tides/_wire.py":    {Data: []byte("class Frame:\n    \"\"\"A frame.\"\"\"\n    def read(self):\n        \"\"\"Reads.\"\"\"\n")},
	}, &settings.Settings{}, 1)
	requireSound(t, asFS(m))
	page := func(end string) string {
		for _, p := range m.Paths() {
			if strings.HasSuffix(p, end) {
				return string(m.Get(p))
			}
		}
		require.Fail(t, "no page", "%s in %s", end, strings.Join(m.Paths(), " "))
		return ""
	}
	notes := page("/Notes.html")
	assert.Contains(t, notes, `<a href="Notes.Berth.Line.html#text">`)
	assert.Contains(t, notes, `<dt><a href="Notes.Note.html"><code translate="no">Note</code></a>`)
	assert.Contains(t, notes, "<dd>A note.</dd>")
	assert.NotContains(t, notes, `id="Note`)
	assert.Contains(t, page("/Notes.Note.html"), `id="mark"`)
	assert.Contains(t, page("/Notes.Note.html"), "<code translate=\"no\">Notes.Note</code> <span class=\"kind\">interface</span>")
	line := page("/Notes.Berth.Line.html")
	assert.Contains(t, line, `id="text"`)
	for _, step := range []string{`<li><a href="Notes.html"><code translate="no">Notes</code></a></li>`, `<li><a href="Notes.Berth.html"><code translate="no">Berth</code></a></li>`, `<span aria-current="page"><code translate="no">Line</code></span>`} {
		assert.Contains(t, line, step, "the way to here")
	}
	assert.Contains(t, line, `<a href="Notes.Berth.Line.html" aria-current="page" translate="no">Line</a>`, "the contents are open down to the page")
	assert.Contains(t, line, `import { Notes } from`)
	assert.Contains(t, page("/Quay.html"), `id="depth"`)
	assert.Contains(t, page("/Quay.html"), "Makes quays.", "the comment of the constant speaks for the type too")
	assert.Contains(t, page("tides/Frame.html"), `id="read"`, "a kept module's class is on the public one's pages")
	assert.NotContains(t, strings.Join(m.Paths(), " "), "_wire/")
}

// Namespaces whose names differ by case alone hold types of the same names: the pages come
// out the same each time.
func TestNestedTwins(t *testing.T) {
	files := fstest.MapFS{"package.json": {Data: []byte(`{"name": "tides"}`)}, "tides.d.ts": {Data: []byte("export namespace Tide { interface A { a: 1 } interface B { b: 1 } interface C { c: 1 } }\nexport namespace tide { interface A { x: 1 } interface B { y: 1 } interface C { z: 1 } }\n")}}
	first := rendered(t, files, &settings.Settings{}, 1)
	requireSound(t, asFS(first))
	for range 5 {
		again := rendered(t, files, &settings.Settings{}, 4)
		for _, p := range first.Paths() {
			require.Equal(t, string(first.Get(p)), string(again.Get(p)), p)
		}
	}
}

// A member that is called as one of the types that share its page leaves that one its address.
func TestMemberCalledAsTwin(t *testing.T) {
	m := rendered(t, fstest.MapFS{"Modes.cs": {Data: []byte("namespace Tide;\npublic enum gaugeMode { GaugeMode, Off }\npublic enum GaugeMode { On }\n")}}, settings.Default(), 1)
	requireSound(t, asFS(m))
	page := string(m.Get("reference/project/Tide/gaugeMode.html"))
	for _, anchor := range []string{`id="GaugeMode"`, `id="gaugeMode"`, `id="gaugeMode.GaugeMode"`, `id="Off"`, `id="On"`} {
		assert.Equal(t, 1, strings.Count(page, anchor), anchor)
	}
}
