package source_test

import (
	"context"
	"errors"
	"io/fs"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/source"
)

// The rules are those of gitignore(5).
func TestIgnoreFiles(t *testing.T) {
	for name, c := range map[string]struct {
		ignore string
		want   []string // of all, what is left
	}{
		"nothing":            {"", []string{"a.go", "build/b.go", "doc/build/c.go", "doc/d.go"}},
		"a name anywhere":    {"build", []string{"a.go", "doc/d.go"}},
		"a folder anywhere":  {"build/", []string{"a.go", "doc/d.go"}},
		"at the root":        {"/build", []string{"a.go", "doc/build/c.go", "doc/d.go"}},
		"a path":             {"doc/build", []string{"a.go", "build/b.go", "doc/d.go"}},
		"a star":             {"*.go", nil},
		"a star in a folder": {"doc/*.go", []string{"a.go", "build/b.go", "doc/build/c.go"}},
		"two stars":          {"doc/**/c.go", []string{"a.go", "build/b.go", "doc/d.go"}},
		"taken in again":     {"*.go\n!a.go", []string{"a.go"}},
		"the last one wins":  {"!a.go\n*.go", nil},
		"a folder is closed": {"doc/\n!doc/d.go", []string{"a.go", "build/b.go"}},
		"a comment":          {"#a.go\n\n  \n", []string{"a.go", "build/b.go", "doc/build/c.go", "doc/d.go"}},
		"trailing blanks":    {"a.go   \nbuild/\t", []string{"doc/d.go"}},
		"a class":            {"[ab].go", []string{"doc/build/c.go", "doc/d.go"}},
		"a broken class":     {"[a.go", []string{"a.go", "build/b.go", "doc/build/c.go", "doc/d.go"}},
		"a question mark":    {"?.go", nil},
		"only a slash":       {"/", []string{"a.go", "build/b.go", "doc/build/c.go", "doc/d.go"}},
	} {
		file := &fstest.MapFile{Data: []byte("x")}
		fsys := fstest.MapFS{"a.go": file, "build/b.go": file, "doc/build/c.go": file, "doc/d.go": file, ".gitignore": {Data: []byte(c.ignore)}}
		found, _, err := source.Find(t.Context(), fsys, goFiles)
		require.NoError(t, err)
		assert.Equal(t, c.want, paths(found), name)
	}
}

func TestIgnoreFilesOfFolders(t *testing.T) {
	file := &fstest.MapFile{Data: []byte("x")}
	fsys := fstest.MapFS{
		"a/.gitignore": {Data: []byte("/x.go\n*_gen.go\n")}, "a/x.go": file, "a/b/x.go": file, "a/b/y_gen.go": file, "x.go": file, "y_gen.go": file,
		"a[1]/.gitignore": {Data: []byte("/x.go")}, "a[1]/x.go": file, "a1/x.go": file,
	}
	found, _, err := source.Find(t.Context(), fsys, goFiles)
	require.NoError(t, err)
	assert.Equal(t, []string{"a/b/x.go", "a1/x.go", "x.go", "y_gen.go"}, paths(found), "a file holds for its folder and below")
}

// closed is a file system in which one folder cannot be listed.
type closed struct {
	fstest.MapFS
	dir string
}

func (c closed) ReadDir(name string) ([]fs.DirEntry, error) {
	if name == c.dir {
		return nil, &fs.PathError{Op: "open", Path: name, Err: fs.ErrPermission}
	}
	return c.MapFS.ReadDir(name)
}

func TestClosedFolders(t *testing.T) {
	files := fstest.MapFS{"a.go": {}, "secret/b.go": {}}
	found, problems, err := source.Find(t.Context(), closed{files, "secret"}, goFiles)
	require.NoError(t, err)
	assert.Equal(t, []string{"a.go"}, paths(found))
	require.Len(t, problems, 1)
	assert.Equal(t, "secret", problems[0].Path)
	assert.False(t, problems[0].Link)
	_, _, err = source.Find(t.Context(), closed{files, "."}, goFiles)
	assert.ErrorIs(t, err, fs.ErrPermission, "a root that cannot be listed is an error")
}

func TestFindStops(t *testing.T) {
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, _, err := source.Find(ctx, fstest.MapFS{"a.go": {}}, goFiles)
	assert.True(t, errors.Is(err, context.Canceled))
}

func TestSpan(t *testing.T) {
	s := source.NewSpan(2, 5)
	assert.Equal(t, 3, s.Len())
	assert.False(t, s.Empty())
	assert.True(t, s.Contains(2))
	assert.False(t, s.Contains(5), "the end itself does not belong to it")
	assert.Equal(t, "cde", s.In("abcdef"))
	assert.Empty(t, s.In("abc"), "a span that does not fit the text")
	assert.Empty(t, source.Span{Start: -1, End: 2}.In("abc"))
	assert.Empty(t, source.Span{Start: 3, End: 2}.In("abc"))
	assert.True(t, source.Span{}.Empty())
}

func BenchmarkDecode(b *testing.B) {
	data := make([]byte, 1<<20)
	for i := range data {
		data[i] = "package x // ä\n"[i%16]
	}
	b.SetBytes(int64(len(data)))
	for b.Loop() {
		source.Decode(data)
	}
}
