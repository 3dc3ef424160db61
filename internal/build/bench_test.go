package build_test

import (
	"cmp"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/model"
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

// BenchmarkUpdate reads one changed file of Go's own tree and links the snapshot anew:
// what stands between a save and the page, but for the drawing.
func BenchmarkUpdate(b *testing.B) {
	root, err := os.OpenRoot(benchTree(b, ""))
	require.NoError(b, err)
	defer root.Close()
	s, err := build.Link(b.Context(), root.FS(), build.Options{FrontEnds: languages.All, Folder: "tree", Inside: true})
	require.NoError(b, err)
	changed := mostUsed(s)
	for b.Loop() {
		s, err = build.Update(b.Context(), root.FS(), s, changed.Path)
		require.NoError(b, err)
	}
	b.ReportMetric(float64(len(changed.Text)), "bytes-changed")
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
