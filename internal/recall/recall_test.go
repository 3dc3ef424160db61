package recall_test

import (
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/recall"
)

func files() fstest.MapFS {
	return fstest.MapFS{"a/one.go": {Data: []byte("one")}, "a/two.go": {Data: []byte("two")}, "README.md": {Data: []byte("read")}}
}

// asked is what a build would ask.
func asked(t *testing.T) []recall.Answered {
	t.Helper()
	r := recall.Record(files(), "")
	for _, dir := range []string{".", "a"} {
		_, err := fs.ReadDir(r, dir)
		require.NoError(t, err)
	}
	_, err := fs.ReadFile(r, "a/one.go")
	require.NoError(t, err)
	_, err = fs.ReadFile(r, "gone.md")
	require.ErrorIs(t, err, fs.ErrNotExist)
	_, err = fs.Stat(r, "README.md")
	require.NoError(t, err)
	f, err := r.Open("README.md")
	require.NoError(t, err)
	require.NoError(t, f.Close())
	return r.Answers()
}

func TestSame(t *testing.T) {
	answers := asked(t)
	assert.Len(t, answers, 6)
	assert.True(t, recall.Same(t.Context(), files(), "", answers, 2))
	for what, change := range map[string]func(fstest.MapFS){
		"a byte of a file":        func(m fstest.MapFS) { m["a/one.go"] = &fstest.MapFile{Data: []byte("onE")} },
		"a file that is gone":     func(m fstest.MapFS) { delete(m, "a/one.go") },
		"a new file":              func(m fstest.MapFS) { m["a/three.go"] = &fstest.MapFile{} },
		"a file that was missing": func(m fstest.MapFS) { m["gone.md"] = &fstest.MapFile{} },
		"a folder for a file":     func(m fstest.MapFS) { delete(m, "a/two.go"); m["a/two.go/x"] = &fstest.MapFile{} },
		"an opened file":          func(m fstest.MapFS) { m["README.md"] = &fstest.MapFile{Data: []byte("rEad")} },
	} {
		m := files()
		change(m)
		assert.False(t, recall.Same(t.Context(), m, "", answers, 2), what)
	}
	m := files()
	m["a/two.go"] = &fstest.MapFile{Data: []byte("more")}
	assert.True(t, recall.Same(t.Context(), m, "", answers, 2), "nobody asked what is in that file")
}

func TestStore(t *testing.T) {
	t.Setenv("XDG_CACHE_HOME", t.TempDir())
	store, ok := recall.OpenStore("codrel-test")
	require.True(t, ok)
	key := recall.Key("a", "b")
	assert.NotEqual(t, key, recall.Key("ab", ""), "parts do not run together")
	var got map[string]int
	assert.False(t, store.Load(key, &got))
	require.NoError(t, store.Save(key, map[string]int{"x": 1}))
	require.True(t, store.Load(key, &got))
	assert.Equal(t, map[string]int{"x": 1}, got)

	for i := range 40 {
		require.NoError(t, store.Save(recall.Key(fmt.Sprint(i)), i))
	}
	dir, err := os.UserCacheDir()
	require.NoError(t, err)
	kept, err := filepath.Glob(filepath.Join(dir, "codrel-test", "builds", "*"))
	require.NoError(t, err)
	assert.Len(t, kept, 32, "the oldest are dropped")
	for _, file := range kept {
		require.NoError(t, os.WriteFile(file, []byte("damage"), 0o644))
	}
	assert.False(t, store.Load(recall.Key("39"), new(int)), "what cannot be read is not remembered")
}
