package workspace_test

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/workspace"
)

func TestLive(t *testing.T) {
	dir := project(t, tidebook)
	l, err := open(t, dir, workspace.Options{}).Live(t.Context())
	require.NoError(t, err)
	page := func(state *workspace.State, address string) string {
		t.Helper()
		data, ok, err := state.Page(t.Context(), address)
		require.NoError(t, err)
		require.True(t, ok, address)
		return string(data)
	}
	save := func(name, text string) {
		t.Helper()
		require.NoError(t, os.WriteFile(filepath.Join(dir, filepath.FromSlash(name)), []byte(text), 0o644))
		require.NoError(t, l.Update(t.Context(), name))
	}
	address := l.State().Plan.PageOf(l.State().Snapshot.Project.Libraries[0].Modules[0].Lookup("Height"))
	before := l.State()
	assert.Contains(t, page(before, address), "Height is a height.")

	save("tide.go", "// Package engine predicts tides.\npackage engine\n\n// Height is metres.\ntype Height float64\n")
	assert.Contains(t, page(l.State(), address), "Height is metres.")
	assert.Contains(t, page(before, address), "Height is a height.", "the state before is as it was")

	save("README.md", "# High water\n\nOf [heights](ref:Height).\n")
	assert.Contains(t, page(l.State(), "index.html"), "<h1>High water</h1>")
	assert.Contains(t, page(l.State(), address), "README.md", "a guide names it")

	save("codrel.yaml", "name: Other\nreach: private\n")
	assert.Contains(t, page(l.State(), address), "Other</title>")

	require.NoError(t, os.WriteFile(filepath.Join(dir, "codrel.yaml"), []byte("nmae: Other\n"), 0o644))
	err = l.Update(t.Context(), "codrel.yaml")
	require.ErrorContains(t, err, "nmae")
	assert.Contains(t, page(l.State(), address), "Other</title>", "with an error all stays as it was")

	require.NoError(t, os.Remove(filepath.Join(dir, "codrel.yaml")))
	require.NoError(t, os.Remove(filepath.Join(dir, "tide.go")))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "wave.go"), []byte("package engine\n\n// Wave is one.\ntype Wave int\n"), 0o644))
	require.NoError(t, l.Update(t.Context(), "codrel.yaml", "tide.go", "wave.go"))
	_, ok, err := l.State().Page(t.Context(), address)
	require.NoError(t, err)
	assert.False(t, ok, "its declaration is gone")
	for _, wrong := range []string{"", "nothing.html", "reference/nothing/index.html", "source/nothing.html", "a-z/none.html", "../index.html"} {
		_, ok, err := l.State().Page(t.Context(), wrong)
		require.NoError(t, err)
		assert.False(t, ok, wrong)
	}
}
