package workspace_test

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/workspace"
)

var stale = map[string]string{
	"go.mod": "module port.example\n", "a.go": "// Package port is one.\npackage port\n\n// Moor ties up.\nfunc Moor() {}\n",
	"README.md": "# Port\n\n```go excerpt=Moor\n```\n", "docs/guides/a.md": "# A\n\n```go excerpt=Moor\nold\n```\n", "docs/guides/b.md": "# B\n\n```go excerpt=Moor\nfunc Moor() {}\n```\n",
}

// A guide that changes between its reading and its writing stays as it was changed; so does one
// that is gone.
func TestRefreshOfWhatChanges(t *testing.T) {
	dir := project(t, stale)
	readme, guide := filepath.Join(dir, "README.md"), filepath.Join(dir, "docs", "guides", "a.md")
	w := open(t, dir, workspace.Options{Progress: func(stage string, _, _ int) {
		if stage == "checking" {
			require.NoError(t, os.WriteFile(guide, []byte("# Mine\n"), 0o644))
			require.NoError(t, os.RemoveAll(readme))
		}
	}})
	r, err := w.Refresh(t.Context(), false)
	require.NoError(t, err)
	require.Len(t, r.Files, 2)
	assert.Equal(t, "it is gone", r.Files[0].Left)
	assert.Equal(t, "it changed meanwhile; run it again", r.Files[1].Left)
	data, err := os.ReadFile(guide)
	require.NoError(t, err)
	assert.Equal(t, "# Mine\n", string(data))
	assert.NoFileExists(t, readme)
	left, err := filepath.Glob(filepath.Join(dir, "docs", "guides", ".codrel*"))
	require.NoError(t, err)
	assert.Empty(t, left)
}

// The mode of a file stays, and a mark at its beginning; a dry run writes nothing.
func TestRefreshKeepsTheFile(t *testing.T) {
	dir := project(t, stale)
	guide := filepath.Join(dir, "docs", "guides", "a.md")
	require.NoError(t, os.WriteFile(guide, []byte("\xef\xbb\xbf# A\r\n\r\n```go excerpt=Moor\r\n```\r\n"), 0o600))
	require.NoError(t, os.Chmod(guide, 0o640))
	dry, err := open(t, dir, workspace.Options{}).Refresh(t.Context(), true)
	require.NoError(t, err)
	assert.Len(t, dry.Files, 2)
	assert.Equal(t, 3, dry.Excerpts)
	wet, err := open(t, dir, workspace.Options{}).Refresh(t.Context(), false)
	require.NoError(t, err)
	assert.Equal(t, dry.Files, wet.Files)
	data, err := os.ReadFile(guide)
	require.NoError(t, err)
	assert.Equal(t, "\xef\xbb\xbf# A\r\n\r\n```go excerpt=Moor\r\nfunc Moor() {}\r\n```\r\n", string(data))
	info, err := os.Stat(guide)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o640), info.Mode().Perm())
	again, err := open(t, dir, workspace.Options{}).Refresh(t.Context(), false)
	require.NoError(t, err)
	assert.Empty(t, again.Files)
}

// Projects are told from folders that hold some.
func TestProjects(t *testing.T) {
	dir := project(t, map[string]string{
		"a/go.mod": "module a\n", "b b/codrel.yaml": "name: b\n", "@scope/c/package.json": "{}", "@scope/d/package.json": "{}", "plain/x.txt": "x", ".hidden/go.mod": "module h\n",
		"one/a/x.txt": "x", "source/a.py": "\"\"\"A.\"\"\"\n", "source/b/go.mod": "module b\n", "source/c/go.mod": "module c\n",
	})
	names := func(dirs ...string) (out []string) {
		t.Helper()
		found, err := workspace.Projects(dirs)
		require.NoError(t, err)
		for _, f := range found {
			out = append(out, f.Name)
		}
		return out
	}
	assert.Equal(t, []string{"scope-c", "scope-d", "a", "b-b"}, names(dir))
	assert.Equal(t, []string{""}, names(filepath.Join(dir, "a")), "one alone needs no name")
	assert.Equal(t, []string{""}, names(filepath.Join(dir, "plain")))
	assert.Equal(t, []string{""}, names(filepath.Join(dir, "source")), "a folder with source is one")
	assert.Equal(t, []string{"a", "a-2"}, names(filepath.Join(dir, "a"), filepath.Join(dir, "one", "a")))
	_, err := workspace.Projects([]string{filepath.Join(dir, "none")})
	assert.ErrorContains(t, err, "there is no folder")
	_, err = workspace.Projects([]string{filepath.Join(dir, "plain", "x.txt")})
	assert.ErrorContains(t, err, "is a file")
}
