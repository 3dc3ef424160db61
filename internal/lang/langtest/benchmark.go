package langtest

import (
	"io/fs"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"codrel/internal/lang"
	"codrel/internal/source"
)

// Benchmark reads all files of a front end in the folder that a variable of the environment
// names, once a time.
func Benchmark(b *testing.B, end lang.FrontEnd, variable string) {
	tree := os.Getenv(variable)
	if tree == "" {
		b.Skip(variable + " names no folder of sources")
	}
	files, size := map[string][]byte{}, int64(0)
	require.NoError(b, filepath.WalkDir(tree, func(path string, e fs.DirEntry, err error) error {
		if err != nil || !e.Type().IsRegular() || !lang.Reads(end, path) {
			return err
		}
		data, err := os.ReadFile(path)
		files[path], size = data, size+int64(len(data))
		return err
	}))
	b.SetBytes(size)
	for b.Loop() {
		for path, data := range files {
			end.Read(lang.File{Path: path, Text: source.Decode(data)})
		}
	}
}
