package gocomment_test

import (
	"testing"

	"codrel/internal/comment/gocomment"
	"codrel/internal/growth"
)

func TestGrowth(t *testing.T) {
	growth.Comments(t, "testdata/comments.txt", func(text string) { gocomment.Parse(docOf(text)) })
}
