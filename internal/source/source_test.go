package source_test

import (
	"os"
	"path"
	"path/filepath"
	"testing"
	"testing/fstest"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/source"
)

func TestPositions(t *testing.T) {
	text := "ab\ncä𝄞d\r\n\nend"
	l := source.NewLines(text)
	assert.Equal(t, 4, l.Count())
	for _, c := range []struct {
		offset       int32
		line, column int
		utf16        int
	}{
		{0, 1, 1, 0},
		{2, 1, 3, 2},
		{3, 2, 1, 0},
		{4, 2, 2, 1},   // ä
		{6, 2, 3, 2},   // the clef, four bytes and two units
		{10, 2, 4, 4},  // d
		{13, 3, 1, 0},  // the empty line
		{14, 4, 1, 0},  // end
		{17, 4, 4, 3},  // behind the text
		{999, 4, 4, 3}, // clipped
		{-1, 1, 1, 0},
	} {
		p := l.Position(c.offset)
		assert.Equal(t, source.Position{Line: c.line, Column: c.column}, p, "offset %d", c.offset)
		line, units := l.UTF16(c.offset)
		assert.Equal(t, []int{c.line - 1, c.utf16}, []int{line, units}, "offset %d", c.offset)
	}
	assert.EqualValues(t, 3, l.Start(2))
	assert.EqualValues(t, len(text), l.Start(99))
	var empty source.Lines
	assert.Equal(t, source.Position{Line: 1, Column: 1}, empty.Position(0))
}

func TestDecode(t *testing.T) {
	for name, c := range map[string]struct {
		in   string
		want string
		enc  source.Encoding
	}{
		"plain":         {"a\x00b", "a\x00b", source.UTF8},
		"mark":          {"\xef\xbb\xbfä", "ä", source.UTF8Mark},
		"little end":    {"\xff\xfea\x00\xe4\x00", "aä", source.UTF16LE},
		"big end":       {"\xfe\xff\x00a\xd8\x34\xdd\x1e", "a𝄞", source.UTF16BE},
		"odd byte":      {"\xff\xfea\x00\xe4", "a", source.UTF16LE},
		"half pair":     {"\xfe\xff\xd8\x34", "\ufffd", source.UTF16BE},
		"latin":         {"caf\xe9 ä", "café ä", source.Latin1},
		"only the mark": {"\xef\xbb\xbf", "", source.UTF8Mark},
		"nothing":       {"", "", source.UTF8},
	} {
		got := source.Decode([]byte(c.in))
		assert.Equal(t, c.want, got.String, name)
		assert.Equal(t, c.enc, got.Encoding, name)
		assert.True(t, utf8.ValidString(got.String), name)
	}
	assert.Equal(t, "é", source.Decode([]byte("caf\xe9")).Foreign.In("café"))
}

func paths(entries []source.Entry) (out []string) {
	for _, e := range entries {
		out = append(out, e.Path)
	}
	return out
}

func TestFind(t *testing.T) {
	file := &fstest.MapFile{Data: []byte("x")}
	fsys := fstest.MapFS{
		"a.go": file, "b.txt": file, "go.mod": file, ".hidden/x.go": file,
		"vendor/x.go": file, "sub/vendor/y.go": file, "sub/c.go": file, "sub/d_gen.go": file,
		".gitignore":       {Data: []byte("# comment\n/out\n*.tmp.go\nlogs/\n!keep.tmp.go\n\\#odd.go\n")},
		"out/x.go":         file,
		"sub/out/x.go":     file,
		"x.tmp.go":         file,
		"keep.tmp.go":      file,
		"logs/x.go":        file,
		"sub/.gitignore":   {Data: []byte("only/here.go\r\n")},
		"sub/only/here.go": file, "only/here.go": file,
	}
	want := source.Search{
		Enter:  func(folder string) bool { return path.Base(folder) != "vendor" },
		Wanted: func(file string) bool { return path.Ext(file) == ".go" || path.Base(file) == "go.mod" },
		Skip:   []string{"**/*_gen.go"},
	}
	found, problems, err := source.Find(t.Context(), fsys, want)
	require.NoError(t, err)
	assert.Empty(t, problems)
	assert.Equal(t, []string{"a.go", "go.mod", "keep.tmp.go", "only/here.go", "sub/c.go", "sub/out/x.go"}, paths(found))

	want.Within = []string{"sub/out", "a.go"}
	found, _, err = source.Find(t.Context(), fsys, want)
	require.NoError(t, err)
	assert.Equal(t, []string{"a.go", "sub/out/x.go"}, paths(found))
}

// goFiles finds all files of one language.
var goFiles = source.Search{Wanted: func(file string) bool { return path.Ext(file) == ".go" }}

func TestFindLinks(t *testing.T) {
	dir := t.TempDir()
	outside := filepath.Join(t.TempDir(), "secret.go")
	require.NoError(t, os.WriteFile(outside, []byte("package x"), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "real.go"), []byte("package x"), 0o644))
	for name, target := range map[string]string{"loop": ".", "out.go": outside, "self.go": "self.go", "same.go": "real.go", "up": ".."} {
		require.NoError(t, os.Symlink(target, filepath.Join(dir, name)))
	}
	root, err := os.OpenRoot(dir)
	require.NoError(t, err)
	defer root.Close()
	found, problems, err := source.Find(t.Context(), root.FS(), goFiles)
	require.NoError(t, err)
	assert.Equal(t, []string{"real.go", "same.go"}, paths(found))
	reasons := map[string]error{}
	for _, p := range problems {
		assert.True(t, p.Link)
		reasons[p.Path] = p.Err
	}
	assert.Equal(t, map[string]error{"out.go": source.ErrLeaves, "self.go": source.ErrLink, "up": source.ErrLeaves}, reasons)
}

func FuzzDecode(f *testing.F) {
	f.Add([]byte("\xff\xfea\x00"))
	f.Add([]byte("a\xe4\r\nb"))
	f.Fuzz(func(t *testing.T, data []byte) {
		text := source.Decode(append([]byte(nil), data...))
		require.True(t, utf8.ValidString(text.String))
		for i := range text.String {
			p := text.Lines.Position(int32(i))
			require.GreaterOrEqual(t, p.Column, 1)
			start := text.Lines.Start(p.Line)
			require.Equal(t, utf8.RuneCountInString(text.String[start:i])+1, p.Column)
		}
	})
}
