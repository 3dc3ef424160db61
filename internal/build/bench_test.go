package build_test

import (
	"cmp"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/lang"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/source"
)

// benchTree is the tree that CODREL_BENCH_TREE names, else a folder of Go's own.
func benchTree(b *testing.B, folder string) string {
	b.Helper()
	if tree := os.Getenv("CODREL_BENCH_TREE"); tree != "" {
		return tree
	}
	out, err := exec.Command("go", "env", "GOROOT").Output()
	require.NoError(b, err)
	return filepath.Join(strings.TrimSpace(string(out)), "src", folder)
}

// BenchmarkRun reads, links and checks a tree of real code: Go's own, or the
// one that CODREL_BENCH_TREE names.
func BenchmarkRun(b *testing.B) {
	root, err := os.OpenRoot(benchTree(b, "net"))
	require.NoError(b, err)
	defer root.Close()
	for b.Loop() {
		s, err := build.Run(b.Context(), root.FS(), build.Options{FrontEnds: languages.All, Folder: "tree"})
		require.NoError(b, err)
		b.SetBytes(s.Stats.Bytes)
	}
}

// BenchmarkRelink reads one changed file of Go's own tree and links the snapshot anew:
// what stands between a save and the page, but for the drawing.
func BenchmarkRelink(b *testing.B) {
	root, err := os.OpenRoot(benchTree(b, ""))
	require.NoError(b, err)
	defer root.Close()
	s, err := build.Link(b.Context(), root.FS(), build.Options{FrontEnds: languages.All, Folder: "tree"})
	require.NoError(b, err)
	changed := mostUsed(s)
	data, err := fs.ReadFile(root.FS(), changed.Path)
	require.NoError(b, err)
	end := s.FrontEnds[changed.Language]
	for b.Loop() {
		facts := end.Read(lang.File{Path: changed.Path, Text: source.Decode(data)})
		s, err = build.Relink(b.Context(), s, facts)
		require.NoError(b, err)
	}
	b.ReportMetric(float64(len(data)), "bytes-changed")
}

// mostUsed is the largest file of the module that most others import: what is said
// anew of it concerns them all.
func mostUsed(s *build.Snapshot) *model.Facts {
	var module *model.Module
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if module == nil || len(s.Links.ImportedBy(m)) > len(s.Links.ImportedBy(module)) {
				module = m
			}
		}
	}
	return slices.MaxFunc(module.Files, func(a, b *model.Facts) int { return cmp.Compare(len(a.Text), len(b.Text)) })
}
