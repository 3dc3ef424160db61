package vcs_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/vcs"
)

func git(t *testing.T, dir string, args ...string) {
	t.Helper()
	c := exec.Command("git", append([]string{"-C", dir, "-c", "user.name=Tide", "-c", "user.email=tide@harbour.example"}, args...)...)
	out, err := c.CombinedOutput()
	require.NoError(t, err, string(out))
}

func repository(t *testing.T) string {
	t.Helper()
	if _, err := exec.LookPath("git"); err != nil {
		if os.Getenv("CI") != "" {
			t.Fatal("there is no git, and what it says must be read")
		}
		t.Skip("NOT TESTED: there is no git on this machine")
	}
	dir := t.TempDir()
	git(t, dir, "init", "-q")
	return dir
}

func TestRead(t *testing.T) {
	dir := repository(t)
	_, err := vcs.Read(t.Context(), dir)
	assert.ErrorIs(t, err, vcs.ErrNoRepository, "there is no commit yet")

	file := filepath.Join(dir, "sub", "a.go")
	require.NoError(t, os.MkdirAll(filepath.Dir(file), 0o755))
	require.NoError(t, os.WriteFile(file, []byte("package a\n"), 0o644))
	git(t, dir, "add", ".")
	git(t, dir, "commit", "-q", "-m", "first")
	r, err := vcs.Read(t.Context(), filepath.Dir(file))
	require.NoError(t, err)
	assert.Regexp(t, `^[0-9a-f]{40,64}$`, r.Hash)
	assert.False(t, r.Dirty)

	require.NoError(t, os.WriteFile(filepath.Join(dir, "new.go"), nil, 0o644))
	r, err = vcs.Read(t.Context(), dir)
	require.NoError(t, err)
	assert.False(t, r.Dirty, "a file that git does not keep changes no line of those it does")

	require.NoError(t, os.WriteFile(file, []byte("package b\n"), 0o644))
	r, err = vcs.Read(t.Context(), dir)
	require.NoError(t, err)
	assert.True(t, r.Dirty)
}

// What a repository's own settings name is not run.
func TestNothingRuns(t *testing.T) {
	dir := repository(t)
	git(t, dir, "commit", "-q", "--allow-empty", "-m", "first")
	mark := filepath.Join(dir, "ran")
	git(t, dir, "config", "core.fsmonitor", "touch "+mark)
	_, err := vcs.Read(t.Context(), dir)
	require.NoError(t, err)
	assert.NoFileExists(t, mark)
}

func TestNoRepository(t *testing.T) {
	repository(t)
	_, err := vcs.Read(t.Context(), os.TempDir())
	if err == nil {
		t.Skip("the temporary folder stands in a repository")
	}
	assert.ErrorIs(t, err, vcs.ErrNoRepository)
}

func TestClone(t *testing.T) {
	_, err := vcs.Clone(t.Context(), t.TempDir())
	assert.ErrorIs(t, err, vcs.ErrNoRepository)

	dir := repository(t)
	sub := filepath.Join(dir, "a", "b")
	require.NoError(t, os.MkdirAll(sub, 0o755))
	origin, err := vcs.Clone(t.Context(), sub)
	require.NoError(t, err)
	assert.Equal(t, vcs.Origin{Below: "a/b/"}, origin, "it was cloned from nowhere")

	git(t, dir, "remote", "add", "harbour", "https://harbour.example/tide.git")
	origin, err = vcs.Clone(t.Context(), dir)
	require.NoError(t, err)
	assert.Equal(t, vcs.Origin{Address: "https://harbour.example/tide.git"}, origin, "the only one there is")

	git(t, dir, "remote", "add", "origin", "git@harbour.example:board/tide.git")
	origin, err = vcs.Clone(t.Context(), dir)
	require.NoError(t, err)
	assert.Equal(t, "git@harbour.example:board/tide.git", origin.Address, "origin goes before what was there first")
}
