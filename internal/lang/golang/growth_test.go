package golang

import (
	"testing"

	"codrel/internal/lang/langtest"
)

func TestGrowth(t *testing.T) { langtest.Growth(t, FrontEnd{}, "testdata/read") }
