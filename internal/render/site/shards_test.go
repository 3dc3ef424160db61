package site_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/settings"
)

// shardRows are the names in all shards of a site, and how often each stands in one.
func shardRows(t *testing.T, files fstest.MapFS) (names map[string]int, largest int) {
	t.Helper()
	names = map[string]int{}
	for path, f := range files {
		if !strings.HasPrefix(path, "search/k-") {
			continue
		}
		largest = max(largest, len(f.Data))
		text := string(f.Data)
		var rows [][]any
		require.NoError(t, json.Unmarshal([]byte(text[strings.Index(text, ",")+1:strings.LastIndex(text, ")")]), &rows), path)
		seen := map[string]bool{}
		for _, r := range rows {
			name := strings.TrimPrefix(r[1].(string)+"."+r[0].(string), ".")
			if !seen[name] {
				seen[name] = true
				names[name]++
			}
		}
	}
	return names, largest
}

// Every name is in a shard, also where thousands are called alike, by one or two letters
// among them: a node that is full seemed to lose those called as the node is.
func TestNoNameIsLost(t *testing.T) {
	var b strings.Builder
	b.WriteString("package many\n\n// X is short.\ntype X int\n\n// Id is too.\nfunc Id() {}\n")
	for i := range 1500 {
		fmt.Fprintf(&b, "\n// Point%04d is a place on the chart of the harbour, by its two coordinates.\ntype Point%04d struct { X, Y, Id int }\n", i, i)
	}
	files := asFS(rendered(t, fstest.MapFS{"go.mod": {Data: []byte("module many")}, "many.go": {Data: []byte(b.String())}}, settings.Default(), 2))
	names, largest := shardRows(t, files)
	for i := range 1500 {
		for _, field := range []string{"", ".X", ".Y", ".Id"} {
			assert.Positive(t, names[fmt.Sprintf("Point%04d%s", i, field)], "%d%s", i, field)
		}
	}
	assert.Positive(t, names["X"])
	assert.Positive(t, names["Id"])
	assert.Less(t, largest, 100_000)
}

// A name of one letter that many share is found in the page by the place it stands in.
func TestShortNamesInThePage(t *testing.T) {
	ctx := browser(t)
	var b strings.Builder
	b.WriteString("package many\n")
	for i := range 1500 {
		fmt.Fprintf(&b, "\n// Point%04d is a place on the chart of the harbour, by its two coordinates.\ntype Point%04d struct { X, Y int }\n", i, i)
	}
	b.WriteString("\n// X is the first letter that matters.\nfunc X() {}\n")
	root := onDisk(t, rendered(t, fstest.MapFS{"go.mod": {Data: []byte("module many")}, "many.go": {Data: []byte(b.String())}}, settings.Default(), 2))
	open(t, ctx, 1280, root+"index.html")
	assert.Equal(t, "X", inPage(t, ctx, "x")[0])
	assert.Equal(t, []string{"Point1234.Y"}, inPage(t, ctx, "Point1234.Y"))
	assert.Equal(t, []string{"Point0003.X"}, inPage(t, ctx, "Point0003.x")[:1])
}
