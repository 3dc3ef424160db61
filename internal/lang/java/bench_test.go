package java_test

import (
	"io/fs"
	"os"
	"path/filepath"
	"testing"

	"codrel/internal/lang"
	"codrel/internal/lang/java"
	"codrel/internal/source"
)

// BenchmarkRead reads the tree that JAVA_TREE names, once a time.
func BenchmarkRead(b *testing.B) {
	tree := os.Getenv("JAVA_TREE")
	if tree == "" {
		b.Skip("JAVA_TREE names no folder of Java sources")
	}
	var files [][]byte
	size := int64(0)
	err := filepath.WalkDir(tree, func(path string, e fs.DirEntry, err error) error {
		if err != nil || filepath.Ext(path) != ".java" {
			return err
		}
		data, err := os.ReadFile(path)
		files, size = append(files, data), size+int64(len(data))
		return err
	})
	if err != nil {
		b.Fatal(err)
	}
	b.SetBytes(size)
	for b.Loop() {
		for _, data := range files {
			java.FrontEnd{}.Read(lang.File{Path: "a.java", Text: source.Decode(data)})
		}
	}
}
