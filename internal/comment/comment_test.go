package comment_test

import (
	"fmt"
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

// A table keeps a bounded part of what it read, and reads the rest again to the same words.
func TestTableLetsGo(t *testing.T) {
	table := comment.NewTable(nil)
	table.KeepAtMost(20_000) // a comment below takes about half a thousand
	var files []*model.Facts
	var docs []*model.Doc
	for i := range 200 {
		files, docs = append(files, &model.Facts{Path: fmt.Sprint(i, ".go")}), append(docs, doc(fmt.Sprintf("Berth %d, see [Harbour].", i)))
	}
	read := func(i int) *comment.Sections { return table.Of(&goes, files[i], docs[i]) }
	first := read(0)
	assert.Same(t, first, read(0), "what was just read is kept")
	var wait sync.WaitGroup
	for worker := range 4 {
		wait.Go(func() {
			for i := range files {
				assert.Equal(t, fmt.Sprintf("Berth %d, see Harbour.", i), prose.Plain(read(i).Body), "worker %d", worker)
			}
		})
	}
	wait.Wait()
	again := read(0)
	assert.NotSame(t, first, again, "what was read long ago is let go")
	assert.Equal(t, first, again)

	one := &model.Facts{Path: "one.go"}
	for _, d := range docs { // a single file may hold more than is kept
		table.Of(&goes, one, d)
	}
	last := table.Of(&goes, one, docs[len(docs)-1])
	assert.Same(t, last, table.With(slices.Values([]*model.Facts{one})).Of(&goes, one, docs[len(docs)-1]))
	assert.NotSame(t, again, table.Of(&goes, files[0], docs[0]))
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
