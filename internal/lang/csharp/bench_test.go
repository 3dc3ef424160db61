package csharp_test

import (
	"testing"

	"codrel/internal/lang/csharp"
	"codrel/internal/lang/langtest"
)

// BenchmarkRead reads the tree that CSHARP_TREE names, once a time.
func BenchmarkRead(b *testing.B) { langtest.Benchmark(b, csharp.FrontEnd{}, "CSHARP_TREE") }
