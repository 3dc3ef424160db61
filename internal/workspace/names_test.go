package workspace_test

import (
	"io/fs"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/finding"
	"codrel/internal/workspace"
)

// TestLongNames builds a site of names that no file system takes: every page is written,
// under an address that hangs on the name alone, and says the name in full.
func TestLongNames(t *testing.T) {
	long := strings.Repeat("Harbour", 300)
	kanji := "T" + strings.Repeat("潮", 200)
	files := map[string]string{
		"go/go.mod":        "module tidebook.example/" + strings.Repeat("deep/", 900) + "engine",
		"go/tide.go":       "// Package engine predicts tides.\npackage engine\n\n// " + long + " is one.\ntype " + long + " struct{}\n\n// " + kanji + " is one.\ntype " + kanji + " struct{}\n",
		"web/package.json": `{"name": "web"}`,
		"web/deep.ts":      strings.Repeat("export namespace "+long[:70]+" {\n", 150) + "/** A tide. */\nexport interface Tide { height: number }\n" + strings.Repeat("}\n", 150),
		"codrel.yaml":      "name: Tidebook\nwrite: {site: out}\n",
	}
	dir := project(t, files)
	b, err := open(t, dir, workspace.Options{}).Build(t.Context(), workspace.Request{})
	require.NoError(t, err)
	assert.Empty(t, ofRule(b, finding.UnreadableSource))
	pages := pagesWith(t, b.Target, ">"+long+"<")
	require.NotEmpty(t, pages)
	assert.NotEmpty(t, pagesWith(t, b.Target, ">"+kanji+"<"))
	assert.NotEmpty(t, pagesWith(t, b.Target, "A tide."))

	files["go/tide.go"] += "\n// " + long + "s is another one, that begins alike.\ntype " + long + "s struct{}\n"
	require.NoError(t, os.WriteFile(filepath.Join(dir, "go/tide.go"), []byte(files["go/tide.go"]), 0o644))
	b, err = open(t, dir, workspace.Options{}).Build(t.Context(), workspace.Request{})
	require.NoError(t, err)
	for _, page := range pages {
		assert.FileExists(t, filepath.Join(b.Target, page), "its address stays when another one comes")
	}
	assert.NotEmpty(t, pagesWith(t, b.Target, "that begins alike"))
}

// TestRefusedName writes a site so deep in folders that the system takes no further name:
// what fits is written, the rest is found.
func TestRefusedName(t *testing.T) {
	if runtime.GOOS != "linux" {
		t.Skip("the longest path is another one")
	}
	dir := project(t, map[string]string{
		"go.mod":  "module tidebook.example/engine",
		"tide.go": "// Package engine predicts tides.\npackage engine\n\n// " + strings.Repeat("Harbour", 20) + " is one.\ntype " + strings.Repeat("Harbour", 20) + " struct{}\n",
	})
	out := t.TempDir()
	for len(out) < 3900 {
		out = filepath.Join(out, strings.Repeat("d", 100))
	}
	b, err := open(t, dir, workspace.Options{}).Build(t.Context(), workspace.Request{Out: out})
	require.NoError(t, err)
	found := ofRule(b, finding.UnreadableSource)
	require.NotEmpty(t, found)
	for _, f := range found {
		assert.Equal(t, "page", f.Form)
		assert.Equal(t, finding.Error, f.Severity)
		assert.Contains(t, f.Arguments[0].Value, "too long")
	}
	_, err = os.Stat(filepath.Join(out, "index.html"))
	assert.NoError(t, err)
}

func ofRule(b *workspace.Built, rule string) (out []finding.Finding) {
	for _, f := range b.Snapshot.Findings {
		if f.Rule == rule {
			out = append(out, f)
		}
	}
	return out
}

// pagesWith are the pages of a site that hold a text.
func pagesWith(t *testing.T, site, text string) (out []string) {
	t.Helper()
	require.NoError(t, filepath.WalkDir(site, func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() || !strings.HasSuffix(p, ".html") {
			return err
		}
		data, err := os.ReadFile(p)
		rel, _ := filepath.Rel(site, p)
		if strings.Contains(strings.ReplaceAll(string(data), "<wbr>", ""), text) {
			out = append(out, rel)
		}
		return err
	}))
	return out
}
