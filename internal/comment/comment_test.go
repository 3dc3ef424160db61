package comment_test

import (
	"slices"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/comment"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

func doc(text string) *model.Doc {
	span := source.NewSpan(0, len(text))
	return &model.Doc{Text: text, Lines: []source.Span{span}, Span: span}
}

var goes = model.Habits{Language: "go", Dialect: "go"}

func TestTableReadsEachCommentOnce(t *testing.T) {
	table := comment.NewTable(nil)
	d := doc("See [Berth].")
	file := &model.Facts{Path: "tide.go"}
	results := make([]*comment.Sections, 16)
	var wait sync.WaitGroup
	for i := range results {
		wait.Go(func() { results[i] = table.Of(&goes, file, d) })
	}
	wait.Wait()
	for _, r := range results {
		assert.Same(t, results[0], r)
	}
	assert.Empty(t, table.Of(&goes, file, nil).Body, "no comment has no text")
	assert.NotSame(t, results[0], table.Of(&goes, file, doc("See [Berth].")), "another comment of the same text")

	later := table.With(slices.Values([]*model.Facts{file}))
	assert.Same(t, results[0], later.Of(&goes, file, d), "what is known of a file stays while the file does")
	gone := table.With(slices.Values([]*model.Facts{{Path: "tide.go"}}))
	assert.NotSame(t, results[0], gone.Of(&goes, file, d), "and goes with it")
}

func TestSectionsOfEachLanguage(t *testing.T) {
	s := comment.Read(&goes, doc("Deprecated: use [Berth]."), nil)
	assert.Empty(t, s.Body)
	assert.Equal(t, "use Berth.", prose.Plain(s.Deprecated))
	n := 0
	for range s.All {
		n++
	}
	assert.Equal(t, 3, n)
	for range s.All { // a walk may stop early
		break
	}
	plain := comment.Read(&model.Habits{}, doc("See [Berth]."), nil)
	assert.Equal(t, "See [Berth].", prose.Plain(plain.Body), "a language without a dialect")
	other := doc("Deprecated: use [Berth].")
	other.Dialect = "docstring"
	assert.NotEmpty(t, comment.Read(&goes, other, nil).Body, "a comment may be written in another dialect than the usual one")
	assert.False(t, comment.MayTake(&goes, other))
}
