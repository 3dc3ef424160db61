package golang_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang/golang"
	"codrel/internal/lang/langtest"
	"codrel/internal/model"
)

func TestFixtures(t *testing.T) { langtest.Run(t, golang.FrontEnd{}, "testdata/read") }

func TestDepth(t *testing.T) {
	deep := 200_000
	for name, text := range map[string]string{
		"parentheses": "package p\nvar x = " + strings.Repeat("(", deep),
		"pointers":    "package p\ntype T " + strings.Repeat("*", deep) + "int",
		"structs":     "package p\ntype T " + strings.Repeat("struct{A ", deep/10) + "int" + strings.Repeat("}", deep/10),
		"functions":   "package p\nvar f " + strings.Repeat("func() ", deep),
		"blocks":      "package p\nfunc f() " + strings.Repeat("{", deep),
	} {
		t.Run(name, func(t *testing.T) {
			facts := langtest.Read(golang.FrontEnd{}, "deep.go", []byte(text))
			langtest.Valid(t, facts)
		})
	}
}

func TestRootNames(t *testing.T) {
	for module, want := range map[string]string{
		"tidebook.example/engine":    "engine",
		"tidebook.example/engine/v2": "engine",
		"forge.example/tide.v3":      "tide",
		"engine":                     "engine",
		"v2":                         "v2",
	} {
		root, ok := golang.FrontEnd{}.Root("engine/go.mod", []byte("// a comment\nmodule "+module+" // more\n\ngo 1.26\n"))
		require.True(t, ok)
		assert.Equal(t, want, root.Name)
		assert.Equal(t, "engine", root.Folder)
	}
	_, ok := golang.FrontEnd{}.Root("go.mod", []byte("go 1.26\n"))
	assert.False(t, ok)
}

func TestModulePaths(t *testing.T) {
	end := golang.FrontEnd{}
	lib := &model.Library{Name: "engine", Root: "engine", Prefix: "tidebook.example/engine"}
	read := func(path, text string) *model.Facts { return langtest.Read(end, path, []byte(text)) }
	files := []*model.Facts{
		read("engine/main.go", "package engine"),
		read("engine/tide/a.go", "package tide"),
		read("engine/tide/b.go", "package tide"),
		read("engine/tide/other.go", "package other"),
		read("engine/tide/gen.go", "//go:build ignore\n\npackage main"),
		read("engine/tide/a_test.go", "package tide"),
		read("engine/tide/x_test.go", "package tide_test"),
	}
	want := []string{
		"tidebook.example/engine", "tidebook.example/engine/tide", "tidebook.example/engine/tide",
		"tidebook.example/engine/tide:other", "tidebook.example/engine/tide/gen.go",
		"tidebook.example/engine/tide", "tidebook.example/engine/tide_test",
	}
	assert.Equal(t, want, end.ModulePaths(lib, files))
	assert.True(t, end.InternalModule("a/internal/b"))
	assert.True(t, end.InternalModule("internal/b"))
	assert.False(t, end.InternalModule("a/internals/b"))
}

func TestBringIn(t *testing.T) {
	end := golang.FrontEnd{}
	for _, c := range []struct{ path, name, want string }{
		{"tidebook.example/tide", "tide", `import "tidebook.example/tide"`},
		{"tidebook.example/go-tide", "tide", `import tide "tidebook.example/go-tide"`},
		{"tidebook.example/cmd/tidebook", "main", ""},
		{"tidebook.example/tide/gen.go", "gen", ""},
	} {
		assert.Equal(t, c.want, end.BringIn(&model.Module{Path: c.path, Name: c.name}, false), c.path)
	}
}

func FuzzRead(f *testing.F) {
	paths, err := filepath.Glob("testdata/read/*.txt")
	require.NoError(f, err)
	for _, p := range paths {
		data, err := os.ReadFile(p)
		require.NoError(f, err)
		for _, part := range strings.Split(string(data), "-- ")[1:] {
			f.Add([]byte(part[strings.IndexByte(part, '\n')+1:]))
		}
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		facts := langtest.Read(golang.FrontEnd{}, "fuzz.go", data)
		langtest.Valid(t, facts)
		assert.Equal(t, langtest.Dump(facts), langtest.Dump(langtest.Read(golang.FrontEnd{}, "fuzz.go", data)))
	})
}

// BenchmarkRead reads one large file of real code.
func BenchmarkRead(b *testing.B) {
	out, err := exec.Command("go", "env", "GOROOT").Output()
	require.NoError(b, err)
	data, err := os.ReadFile(filepath.Join(strings.TrimSpace(string(out)), "src", "net", "http", "server.go"))
	require.NoError(b, err)
	b.SetBytes(int64(len(data)))
	b.ReportAllocs()
	for b.Loop() {
		langtest.Read(golang.FrontEnd{}, "server.go", data)
	}
}
