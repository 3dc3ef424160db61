package site_test

import (
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/settings"
)

// What stands in a namespace, and in a namespace in it, is on the namespace's page; a
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
	for _, anchor := range []string{"Note", "Note.mark", "Berth.Line", "Berth.Line.text"} {
		assert.Contains(t, notes, `id="`+anchor+`"`)
	}
	assert.Contains(t, page("/Quay.html"), `id="depth"`)
	assert.Contains(t, page("/Quay.html"), "Makes quays.", "the comment of the constant speaks for the type too")
	assert.Contains(t, page("tides/Frame.html"), `id="read"`, "a kept module's class is on the public one's pages")
	assert.NotContains(t, strings.Join(m.Paths(), " "), "_wire/")
}
