package crossmarks_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/comment/commenttest"
	"codrel/internal/comment/crossmarks"
	"codrel/internal/growth"
	"codrel/internal/model"
	"codrel/internal/prose"
)

const fixture = "testdata/texts.txt"

func parse(doc *model.Doc) *prose.Sections { return crossmarks.Parse(doc, nil) }

func TestFixture(t *testing.T) { commenttest.Fixture(t, fixture, parse) }

func FuzzParse(f *testing.F) { commenttest.Fuzz(f, fixture, parse) }

func BenchmarkParse(b *testing.B) { commenttest.Benchmark(b, fixture, parse) }

func TestGrowth(t *testing.T) {
	growth.Comments(t, fixture, func(text string) { parse(commenttest.DocOf(text)) })
}

// References stand where their brackets do, whatever became of these on the way.
func TestSpans(t *testing.T) {
	text := "See [`Tide`] and [the gauge](Gauge),\nor [struct@Low]."
	got := commenttest.Shown(text, parse(commenttest.DocOf(text)), func(n *prose.Node) bool { return n.Kind == prose.Reference })
	assert.Len(t, got, 3)
	for shown, stands := range got {
		assert.NotEmpty(t, stands, shown)
	}
}
