package build_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/languages"
)

// BenchmarkRun reads, links and checks a tree of real code: Go's own, or the
// one that CODREL_BENCH_TREE names.
func BenchmarkRun(b *testing.B) {
	tree := os.Getenv("CODREL_BENCH_TREE")
	if tree == "" {
		out, err := exec.Command("go", "env", "GOROOT").Output()
		require.NoError(b, err)
		tree = filepath.Join(strings.TrimSpace(string(out)), "src", "net")
	}
	root, err := os.OpenRoot(tree)
	require.NoError(b, err)
	defer root.Close()
	for b.Loop() {
		s, err := build.Run(b.Context(), root.FS(), build.Options{FrontEnds: languages.All, Folder: "tree"})
		require.NoError(b, err)
		b.SetBytes(s.Stats.Bytes)
	}
}
