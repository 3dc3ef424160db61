package markdown_test

import (
	"testing"

	"codrel/internal/growth"
	"codrel/internal/prose/markdown"
)

func TestGrowth(t *testing.T) {
	growth.Comments(t, "testdata/texts.txt", func(text string) { markdown.Parse(text) })
}
