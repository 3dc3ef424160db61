package sink_test

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/render/sink"
)

// write builds a folder of files in one go.
func write(t *testing.T, target string, keep []string, files map[string]string) *sink.Folder {
	t.Helper()
	f, err := sink.Open(target, keep)
	require.NoError(t, err)
	for name, text := range files {
		require.NoError(t, f.Put(name, []byte(text)))
	}
	require.NoError(t, f.Commit())
	return f
}

// tree reads all files of a folder but the manifest, and what stands beside it.
func tree(t *testing.T, target string) map[string]string {
	t.Helper()
	out := map[string]string{}
	require.NoError(t, filepath.WalkDir(target, func(p string, e os.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		data, err := os.ReadFile(p)
		rel, _ := filepath.Rel(target, p)
		if rel != sink.ManifestName {
			out[filepath.ToSlash(rel)] = string(data)
		}
		return err
	}))
	beside, err := filepath.Glob(filepath.Join(filepath.Dir(target), ".*codrel-*"))
	require.NoError(t, err)
	assert.Empty(t, beside, "nothing is left beside the folder")
	return out
}

func TestReplace(t *testing.T) {
	target := filepath.Join(t.TempDir(), "deep", "site")
	write(t, target, nil, map[string]string{"index.html": "one", "a/b.html": "same", "gone.html": "x"})
	before, err := os.Stat(filepath.Join(target, "a/b.html"))
	require.NoError(t, err)
	f := write(t, target, nil, map[string]string{"index.html": "two", "a/b.html": "same", "new/c.html": "y"})
	assert.Equal(t, map[string]string{"index.html": "two", "a/b.html": "same", "new/c.html": "y"}, tree(t, target))
	assert.Equal(t, 1, f.Unchanged())
	after, err := os.Stat(filepath.Join(target, "a/b.html"))
	require.NoError(t, err)
	assert.True(t, os.SameFile(before, after), "an unchanged file is not written again")
}

func TestForeignFiles(t *testing.T) {
	target := filepath.Join(t.TempDir(), "site")
	require.NoError(t, os.MkdirAll(filepath.Join(target, "mine"), 0o755))
	for i := range 5 {
		require.NoError(t, os.WriteFile(filepath.Join(target, "mine", fmt.Sprint(i, ".txt")), nil, 0o644))
	}
	_, err := sink.Open(target, nil)
	var foreign *sink.ForeignError
	require.ErrorAs(t, err, &foreign)
	assert.Equal(t, []string{"mine/0.txt", "mine/1.txt", "mine/2.txt"}, foreign.Files)
	assert.Equal(t, 2, foreign.More)
	assert.Contains(t, err.Error(), "write: keep:")
	write(t, target, []string{"mine/**"}, map[string]string{"index.html": "x"})
	assert.Len(t, tree(t, target), 6, "files that may stay do")

	file := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(file, nil, 0o644))
	_, err = sink.Open(file, nil)
	assert.ErrorContains(t, err, "is a file")
}

// A manifest that somebody else wrote makes nothing Codrel's own.
func TestForeignManifest(t *testing.T) {
	for _, text := range []string{"", "{", `{"writer":"somebody","files":["x"]}`, `{"writer":"codrel","files":["../x"]}`} {
		target := filepath.Join(t.TempDir(), "site")
		require.NoError(t, os.MkdirAll(target, 0o755))
		require.NoError(t, os.WriteFile(filepath.Join(target, sink.ManifestName), []byte(text), 0o644))
		require.NoError(t, os.WriteFile(filepath.Join(target, "x"), nil, 0o644))
		_, err := sink.Open(target, nil)
		assert.Error(t, err, text)
	}
}

func TestDiscard(t *testing.T) {
	target := filepath.Join(t.TempDir(), "site")
	write(t, target, nil, map[string]string{"index.html": "old"})
	f, err := sink.Open(target, nil)
	require.NoError(t, err)
	require.NoError(t, f.Put("index.html", []byte("new")))
	require.Error(t, f.Put("../index.html", nil), "no page leaves the folder")
	require.NoError(t, f.Discard())
	assert.Equal(t, map[string]string{"index.html": "old"}, tree(t, target))
}

// A build that was killed leaves a staged folder, or one moved aside.
func TestRecovery(t *testing.T) {
	const dead = "999999999"
	target := filepath.Join(t.TempDir(), "site")
	write(t, target, nil, map[string]string{"index.html": "old"})
	require.NoError(t, os.Rename(target, filepath.Join(filepath.Dir(target), ".site.codrel-old-"+dead)))
	require.NoError(t, os.Mkdir(filepath.Join(filepath.Dir(target), ".site.codrel-new-"+dead), 0o755))
	f, err := sink.Open(target, nil)
	require.NoError(t, err)
	data, err := os.ReadFile(filepath.Join(target, "index.html"))
	require.NoError(t, err)
	assert.Equal(t, "old", string(data), "the site that was moved aside is back")
	require.NoError(t, f.Discard())
	assert.Len(t, tree(t, target), 1)
}

func TestUnwritable(t *testing.T) {
	if os.Getuid() == 0 {
		t.Log("running as root: permissions do not hold, so a file in the way stands for them")
	}
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "file"), nil, 0o644))
	_, err := sink.Open(filepath.Join(dir, "file", "site"), nil)
	assert.EqualError(t, err, "cannot write to "+filepath.Join(dir, "file", "site")+": not a directory")
}

func TestMemory(t *testing.T) {
	var m sink.Memory
	require.NoError(t, m.Put("b", []byte("2")))
	require.NoError(t, m.Put("a", []byte("1")))
	assert.Equal(t, "a b", strings.Join(m.Paths(), " "))
	assert.Equal(t, "2", string(m.Get("b")))
	assert.Nil(t, m.Get("c"))
}

// The ways to commit where the system cannot exchange two folders.
func TestFallbacks(t *testing.T) {
	for name, commit := range map[string]func(*sink.Folder) error{
		"two renames": (*sink.Folder).TwoRenames, "file by file": (*sink.Folder).FileByFile,
	} {
		t.Run(name, func(t *testing.T) {
			target := filepath.Join(t.TempDir(), "site")
			write(t, target, nil, map[string]string{"index.html": "old", "gone.html": "x", "same.html": "s"})
			f, err := sink.Open(target, nil)
			require.NoError(t, err)
			for file, text := range map[string]string{"index.html": "new", "same.html": "s", "a/b.html": "b"} {
				require.NoError(t, f.Put(file, []byte(text)))
			}
			require.NoError(t, commit(f))
			require.NoError(t, f.Discard())
			assert.Equal(t, map[string]string{"index.html": "new", "same.html": "s", "a/b.html": "b"}, tree(t, target))
		})
	}
}

// A file whose name the file system does not take is left out, and the others are written.
func TestRefused(t *testing.T) {
	target := filepath.Join(t.TempDir(), "site")
	long := strings.Repeat("tide", 100) + ".html"
	f := write(t, target, nil, map[string]string{"index.html": "one", long: "two", "a/" + long: "three", "b.html": "four"})
	var refused []string
	for _, r := range f.Refused() {
		refused = append(refused, r.Path)
		assert.ErrorContains(t, r.Err, "too long")
	}
	assert.Equal(t, []string{"a/" + long, long}, refused)
	assert.Equal(t, 2, f.Files())
	assert.Equal(t, map[string]string{"index.html": "one", "b.html": "four"}, tree(t, target))
	f, err := sink.Open(target, nil)
	require.NoError(t, err)
	assert.ErrorContains(t, f.Put("../out.html", nil), "leaves the site", "an address that leaves the site is an error of the program")
	require.NoError(t, f.Discard())
}
