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

// Each entry stands in the search data under every word that it is found by: its name, parts
// of it, its initials, the types it takes and gives, words given to it and words of its sentence.
func TestEachWordFinds(t *testing.T) {
	files := asFS(rendered(t, fstest.MapFS{
		"go.mod": {Data: []byte("module tide.example/port")},
		"port.go": {Data: []byte(`// Package port assigns.
package port

// AssignBerth gives a vessel somewhere to lie.
//codrel:words mooring, Quayside
func AssignBerth(v Vessel) Outcome { return 0 }

// Vessel comes.
type Vessel struct{}

// Outcome is what became of it.
type Outcome int
`)},
		"again/again.go": {Data: []byte("// Package again gives on.\npackage again\n")},
	}, settings.Default(), 2))

	rows := map[string][]string{} // names by the node they stand in
	var manifest struct {
		Nodes string `json:"nodes"`
		Names int    `json:"names"`
	}
	for path, f := range files {
		text := string(f.Data)
		switch {
		case path == "search/index.js":
			require.NoError(t, json.Unmarshal([]byte(text[strings.IndexByte(text, '(')+1:strings.LastIndexByte(text, ')')]), &manifest))
		case strings.HasPrefix(path, "search/"):
			var node string
			inside := text[strings.IndexByte(text, '(')+1 : strings.LastIndexByte(text, ')')]
			name, list, _ := strings.Cut(inside, ",\n")
			name = strings.TrimSuffix(name, ",[")
			if i := strings.Index(inside, ",["); i >= 0 {
				name, list = inside[:i], inside[i+1:]
			}
			require.NoError(t, json.Unmarshal([]byte(name), &node), path)
			var parsed [][]any
			require.NoError(t, json.Unmarshal([]byte(list), &parsed), path)
			for _, row := range parsed {
				rows[node] = append(rows[node], row[0].(string))
			}
			assert.NotEmpty(t, parsed, path)
		}
	}
	assert.Equal(t, 5, manifest.Names, "two packages and three names")
	nodes := strings.Split(manifest.Nodes, " ")
	for _, word := range []string{"assignberth", "berth", "ab", "vessel", "outcome", "mooring", "quayside", "somewhere"} {
		best := ""
		for _, node := range nodes { // the node that a query for the word leads to
			if strings.HasPrefix(word, node) && len(node) >= len(best) {
				best = node
			}
		}
		assert.Contains(t, rows[best], "AssignBerth", fmt.Sprintf("%q leads to %q", word, best))
	}
}
