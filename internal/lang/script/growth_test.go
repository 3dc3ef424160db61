package script_test

import (
	"testing"

	"codrel/internal/lang/langtest"
)

func TestGrowth(t *testing.T) { langtest.Growth(t, typescript, "testdata/read") }
