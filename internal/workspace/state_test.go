package workspace_test

import (
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/search"
	"codrel/internal/workspace"
)

var guided = map[string]string{
	"go.mod": "module port.example\n", "codrel.yaml": "write: {site: out, whole: [\"**\"]}\nlook: {style: sea.css, accent: \"#0b6e6e\"}\n", "sea.css": ".prose { color: red }\n",
	"a.go":                    "// Package port is one.\npackage port\n\nfunc Bare() {}\n\n// Quay is one, see [Quay.Gone].\ntype Quay struct{}\n\nfunc (Quay) Bare() {}\n",
	"b.go":                    "package port\n\nfunc Other() {}\n",
	"README.md":               "# Port\n\n![A](a.svg) [x](none.md)\n\n<insert:units>\n",
	"a.svg":                   `<svg width="2" height="3"/>`,
	"docs/fragments/units.md": "[y](gone.md) <insert:more>\n\n<insert:more>\n",
	"docs/fragments/more.md":  "[z](lost.md)\n",
	"docs/fragments/alone.md": "Alone.\n",
	"docs/guides/a.md":        "---\nafter: nothing\n---\n# A\n\n```go excerpt=Nothing\n```\n\n<insert:more>\n",
	"docs/guides/b.md":        "# B\n\n![film](b.webm)\n",
	"docs/guides/b.webm":      "x",
}

// What the preview shows is what a build writes, file by file.
func TestFilesAreThoseOfABuild(t *testing.T) {
	dir := project(t, guided)
	built, err := open(t, dir, workspace.Options{}).Build(t.Context(), workspace.Request{})
	require.NoError(t, err)
	live, err := open(t, dir, workspace.Options{}).Live(t.Context())
	require.NoError(t, err)
	files := 0
	require.NoError(t, filepath.WalkDir(built.Target, func(file string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		rel, _ := filepath.Rel(built.Target, file)
		address := filepath.ToSlash(rel)
		want, err := os.ReadFile(file)
		if address == sink.ManifestName || err != nil {
			return err
		}
		if strings.HasSuffix(address, ".html") {
			got, ok, err := live.State().Page(t.Context(), address)
			assert.True(t, ok && err == nil, address)
			assert.Equal(t, string(want), string(got), address)
		} else if got, ok, err := live.State().File(address); assert.True(t, ok && err == nil, address) {
			assert.Equal(t, string(want), string(got), address)
		}
		files++
		return nil
	}))
	assert.Greater(t, files, 20)
	for _, wrong := range []string{"", "files/none.svg", "files/a.go", "files/../a.go", "assets/none.css", "search/none.js", "index.html"} {
		_, ok, err := live.State().File(wrong)
		assert.False(t, ok, wrong)
		assert.NoError(t, err, wrong)
	}
	assert.True(t, live.State().Shows("a.svg"))
	assert.True(t, live.State().Shows("docs/guides/b.webm"))
	assert.False(t, live.State().Shows("a.go"))
	require.NoError(t, os.Remove(filepath.Join(dir, "a.svg")))
	_, ok, err := live.State().File("files/a.svg")
	assert.False(t, ok, "it is gone meanwhile")
	assert.NoError(t, err)
	site, ok := workspace.SiteOf(dir, workspace.Options{Version: "0.1.0"})
	assert.True(t, ok)
	assert.Equal(t, built.Target, site)
	_, ok = workspace.SiteOf(t.TempDir(), workspace.Options{Version: "0.1.0"})
	assert.False(t, ok)
	_, ok = workspace.SiteOf(filepath.Join(dir, "none"), workspace.Options{Version: "0.1.0"})
	assert.False(t, ok)
}

// Each page has the findings on what it shows, and all pages together those of a check.
func TestFindingsOfPages(t *testing.T) {
	dir := project(t, guided)
	live, err := open(t, dir, workspace.Options{}).Live(t.Context())
	require.NoError(t, err)
	state := live.State()
	on := func(address string) (out []string) {
		for _, f := range state.Findings(address) {
			assert.NotEmpty(t, f.Severity.String())
			out = append(out, f.Place.File+" "+f.Rule)
		}
		return out
	}
	const module = "reference/port.example/port.example/"
	assert.Equal(t, []string{"a.go undocumented", "b.go undocumented"}, on(module+"index.html"))
	assert.Equal(t, []string{"a.go broken-reference", "a.go undocumented"}, on(module+"Quay.html"))
	assert.Len(t, on(module+"~whole.html"), 4)
	assert.Equal(t, []string{"a.go undocumented", "a.go broken-reference", "a.go undocumented"}, on("source/a.go.html"))
	assert.Equal(t, []string{"b.go undocumented"}, on("source/b.go.html"))
	assert.Equal(t, []string{"docs/fragments/more.md broken-guide-link", "docs/guides/a.md broken-guide", "docs/guides/a.md broken-excerpt"}, on("guides/a.html"))
	assert.Empty(t, on("guides/b.html"))
	assert.Equal(t, []string{"README.md broken-guide-link", "docs/fragments/more.md broken-guide-link", "docs/fragments/units.md broken-guide-link", "docs/fragments/units.md broken-fragment"}, on(plan.HomeAddress))
	for _, address := range []string{plan.TreeAddress, plan.IndexAddress, plan.GuidesAddress, "none.html", ""} {
		assert.Empty(t, on(address), address)
	}
	assert.Equal(t, "Quay", search.Find(state.Entries(), "quay", "", 1)[0].Name)
}
