package blocktags_test

import (
	"testing"

	"codrel/internal/comment/blocktags"
	"codrel/internal/comment/commenttest"
	"codrel/internal/growth"
)

func TestGrowth(t *testing.T) {
	growth.Comments(t, fixture, func(text string) { parse(commenttest.DocOf(text)) })
}

func TestGrowthOfNames(t *testing.T) {
	growth.Comments(t, fixture, func(text string) { blocktags.ParseNamed(commenttest.DocOf(text), nil) })
}

func TestGrowthOfMarked(t *testing.T) {
	growth.Comments(t, marked, func(text string) { parseMarked(commenttest.DocOf(text)) })
}
