package site_test

import (
	"fmt"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"

	"codrel/internal/settings"
)

// A page lists a bounded number of the names that its module re-exports, and says how many
// more there are; so does the page of what fulfils an interface.
func TestLongListsEnd(t *testing.T) {
	var berths, gauges strings.Builder
	for i := range 1203 {
		fmt.Fprintf(&berths, "/** Berth %d. */\nexport const berth%d = %d;\n", i, i, i)
		fmt.Fprintf(&gauges, "\n// G%d is one.\ntype G%d struct{}\n\n// Read reads.\nfunc (G%d) Read() {}\n", i, i, i)
	}
	files := asFS(rendered(t, fstest.MapFS{
		"port/package.json": {Data: []byte(`{"name": "port"}`)},
		"port/berths.ts":    {Data: []byte(berths.String())},
		"port/quay.ts":      {Data: []byte("export * from './berths';\n")},
		"gauge/go.mod":      {Data: []byte("module tide.example/gauge\n")},
		"gauge/gauge.go":    {Data: []byte("// Package gauge reads.\npackage gauge\n\n// Reader reads.\ntype Reader interface {\n\t// Read reads.\n\tRead()\n}\n" + gauges.String())},
	}, settings.Default(), 2))

	page := string(files["reference/port/quay/index.html"].Data)
	assert.Equal(t, 1000, strings.Count(page, `<dt id="berth`))
	assert.True(t, strings.Contains(plainText(page), "Not listed here: 203 names from the modules that this one re-exports."))

	related := string(files["reference/gauge/tide.example/gauge/Reader~all.html"].Data)
	assert.True(t, strings.Contains(plainText(related), "and 204 more"), "999 are named")
}
