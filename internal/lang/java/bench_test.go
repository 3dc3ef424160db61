package java_test

import (
	"testing"

	"codrel/internal/lang/java"
	"codrel/internal/lang/langtest"
)

// BenchmarkRead reads the tree that JAVA_TREE names, once a time.
func BenchmarkRead(b *testing.B) { langtest.Benchmark(b, java.FrontEnd{}, "JAVA_TREE") }
