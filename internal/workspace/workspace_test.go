package workspace_test

import (
	"errors"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/settings"
	"codrel/internal/workspace"
)

// project writes files into a new folder, and keeps what builds remember beside it.
func project(t *testing.T, files map[string]string) string {
	t.Helper()
	t.Setenv("XDG_CACHE_HOME", filepath.Join(t.TempDir(), "cache"))
	dir := filepath.Join(t.TempDir(), "tidebook")
	for name, text := range files {
		file := filepath.Join(dir, filepath.FromSlash(name))
		require.NoError(t, os.MkdirAll(filepath.Dir(file), 0o755))
		require.NoError(t, os.WriteFile(file, []byte(text), 0o644))
	}
	return dir
}

func open(t *testing.T, dir string, options workspace.Options) *workspace.Workspace {
	t.Helper()
	options.Version = "0.1.0"
	w, err := workspace.Open(dir, options)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, w.Close()) })
	return w
}

var tidebook = map[string]string{
	"go.mod":       "module tidebook.example/engine",
	"tide.go":      "// Package engine predicts tides.\npackage engine\n\n// Height is a height.\ntype Height float64\n",
	"codrel.yaml":  "name: Tidebook\nwrite: {site: out}\n",
	"sub/notes.md": "# Notes\n",
}

func TestBuildTwice(t *testing.T) {
	dir := project(t, tidebook)
	build := func(ask workspace.Request) *workspace.Built {
		b, err := open(t, dir, workspace.Options{}).Build(t.Context(), ask)
		require.NoError(t, err)
		b.Keep()
		return b
	}
	first := build(workspace.Request{})
	assert.Equal(t, filepath.Join(dir, "out"), first.Target)
	assert.FileExists(t, filepath.Join(dir, "out", "index.html"))
	assert.Zero(t, first.Same)

	second := build(workspace.Request{})
	require.Nil(t, second.Snapshot.Project, "nothing was read")
	assert.Equal(t, first.Files, second.Same)
	assert.Equal(t, first.Snapshot.Findings, second.Snapshot.Findings)
	assert.Equal(t, first.Snapshot.Coverage, second.Snapshot.Coverage)
	assert.Equal(t, first.Pages, second.Pages)

	again := build(workspace.Request{Anew: true})
	assert.NotNil(t, again.Snapshot.Project)
	assert.Equal(t, again.Files, again.Same, "the same bytes come out")

	elsewhere := build(workspace.Request{Out: filepath.Join(t.TempDir(), "site")})
	assert.NotNil(t, elsewhere.Snapshot.Project, "another target has another memory")

	for _, change := range []struct{ name, file, text string }{
		{"a source file", "tide.go", "package engine\n"},
		{"a new file", "new.go", "package engine\n"},
		{"the settings", "codrel.yaml", "name: Other\nwrite: {site: out}\n"},
		{"a page of the site", "out/index.html", "mine"},
	} {
		require.NoError(t, os.WriteFile(filepath.Join(dir, change.file), []byte(change.text), 0o644))
		assert.NotNil(t, build(workspace.Request{}).Snapshot.Project, change.name)
		assert.Nil(t, build(workspace.Request{}).Snapshot.Project, "after "+change.name)
	}
}

func TestErrorsSayWhoCanMendThem(t *testing.T) {
	dir := project(t, tidebook)
	check := func(err error, wrongUse bool, text string) {
		t.Helper()
		var e *workspace.Error
		require.ErrorAs(t, err, &e)
		assert.Equal(t, wrongUse, e.WrongUse)
		assert.Contains(t, err.Error(), text)
	}
	_, err := workspace.Open(filepath.Join(dir, "nowhere"), workspace.Options{})
	check(err, false, "there is no folder")
	_, err = workspace.Open(filepath.Join(dir, "tide.go"), workspace.Options{})
	check(err, true, "is a file; name the folder")
	_, err = workspace.Open(dir, workspace.Options{SettingsFile: filepath.Join(dir, "other.yaml")})
	check(err, true, "there is no settings file")
	_, err = workspace.FindRoot(filepath.Join(dir, "nowhere"))
	check(err, false, "there is no file or folder")

	require.NoError(t, os.WriteFile(filepath.Join(dir, "wrong.yaml"), []byte("names: x\n"), 0o644))
	_, err = workspace.Open(dir, workspace.Options{SettingsFile: filepath.Join(dir, "wrong.yaml"), Shown: filepath.Base})
	check(err, true, "wrong.yaml:1:")
	var at settings.Problem
	require.ErrorAs(t, err, &at)
	assert.Equal(t, 1, at.Line)

	_, err = open(t, dir, workspace.Options{}).Build(t.Context(), workspace.Request{Out: dir})
	check(err, true, "would replace the project itself")
	_, err = open(t, dir, workspace.Options{}).Build(t.Context(), workspace.Request{Out: filepath.Join(dir, "sub")})
	check(err, false, "sub")
	assert.FileExists(t, filepath.Join(dir, "sub", "notes.md"), "a folder that Codrel did not write stays")

	empty := errors.New("nothing to read")
	_, err = open(t, dir, workspace.Options{}).Build(t.Context(), workspace.Request{Empty: func(*build.Snapshot) error { return empty }})
	require.ErrorIs(t, err, empty)

	require.NoError(t, os.WriteFile(filepath.Join(dir, "codrel.yaml"), []byte("write:\n  whole: [nothing/**]\n"), 0o644))
	_, err = open(t, dir, workspace.Options{Shown: filepath.Base}).Build(t.Context(), workspace.Request{})
	check(err, true, "codrel.yaml:2:")
	assert.Contains(t, err.Error(), "matches no module; patterns are compared with module paths such as tidebook.example/engine")
}

func TestFindRoot(t *testing.T) {
	dir := project(t, map[string]string{
		"codrel.yaml": "", "engine/go.mod": "module x", "engine/a/b.go": "package b", "clients/.git/HEAD": "", "clients/setup.cfg": "", "clients/x/y.py": "",
	})
	root := func(path string) string {
		t.Helper()
		found, err := workspace.FindRoot(filepath.Join(dir, path))
		require.NoError(t, err)
		rel, err := filepath.Rel(dir, found)
		require.NoError(t, err)
		return filepath.ToSlash(rel)
	}
	assert.Equal(t, ".", root("engine/a/b.go"), "settings come before a marker that is nearer")
	require.NoError(t, os.Remove(filepath.Join(dir, "codrel.yaml")))
	assert.Equal(t, "engine", root("engine/a/b.go"))
	assert.Equal(t, "engine", root("engine"))
	assert.Equal(t, "clients", root("clients/x"))
}

func TestOutsideFiles(t *testing.T) {
	files := map[string]string{}
	for name, text := range tidebook {
		files[name] = text
	}
	files["codrel.yaml"] = "links:\n  elsewhere: [{symbols: ../neighbour/symbols.json}]\n"
	dir := project(t, files)
	findings := func() (texts []string) {
		b, err := open(t, dir, workspace.Options{}).Build(t.Context(), workspace.Request{})
		require.NoError(t, err)
		b.Keep()
		for _, f := range b.Snapshot.Findings {
			texts = append(texts, f.Rule+" "+f.Arguments[len(f.Arguments)-1].Value)
		}
		return texts
	}
	assert.Equal(t, []string{"unreadable-source it does not exist"}, findings())
	neighbour := filepath.Join(filepath.Dir(dir), "neighbour", "symbols.json")
	require.NoError(t, os.MkdirAll(neighbour, 0o755))
	assert.Equal(t, []string{"unreadable-source it does not exist"}, findings(), "a folder is looked into")
	require.NoError(t, os.Remove(neighbour))
	require.NoError(t, os.WriteFile(neighbour, []byte("{"), 0o644))
	got := findings()
	require.Len(t, got, 1)
	assert.Contains(t, got[0], "it is no file of names", "what lies outside is asked for again")
}
