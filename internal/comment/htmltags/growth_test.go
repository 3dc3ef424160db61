package htmltags_test

import (
	"testing"

	"codrel/internal/comment/commenttest"
	"codrel/internal/growth"
)

func TestGrowth(t *testing.T) {
	growth.Comments(t, fixture, func(text string) { parse(commenttest.DocOf(text)) })
}
