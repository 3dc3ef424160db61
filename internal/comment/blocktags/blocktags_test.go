package blocktags_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/comment/blocktags"
	"codrel/internal/comment/commenttest"
	"codrel/internal/model"
	"codrel/internal/prose"
)

const fixture = "testdata/comments.txt"

func parse(doc *model.Doc) *prose.Sections { return blocktags.Parse(doc, nil) }

func TestFixture(t *testing.T) { commenttest.Fixture(t, fixture, parse) }

func FuzzParse(f *testing.F) { commenttest.Fuzz(f, fixture, parse) }

func BenchmarkParse(b *testing.B) { commenttest.Benchmark(b, fixture, parse) }

func TestSpans(t *testing.T) {
	text := "Text {@link Plan.free} and *more*.\n@param {Quay} at - Where *exactly*."
	sections := blocktags.Parse(commenttest.DocOf(text), nil)
	assert.Equal(t, map[string]string{"more": "more", "Quay": "Quay", "exactly": "exactly"},
		commenttest.Shown(text, sections, func(n *prose.Node) bool {
			return n.Kind == prose.Emphasis || n.Kind == prose.Code && n.Text == "Quay"
		}))
	assert.Equal(t, "at", sections.Parts[0].Entries[0].Span.In(text))
}

// Whatever a text nests or leaves open, the time stays in proportion to its
// length: where it did not, this test would not end.
func TestHostile(t *testing.T) {
	const many = 20_000
	for _, piece := range []string{
		"{@link ", "{@link a}", "[a]{@link b}", "@param {", "@param [a=", "@param a - b\n", "@throws {A} b\n", "```\n", "@example\n", "@parm\n", "`", "*", "- a\n", "{", "}", "@", "{@link\n", "```` \n", "```a b\n", "~~~\n```\n", "$a", "\\(a", "[a]: http://b\n",
	} {
		text := strings.Repeat(piece, many)
		commenttest.Valid(t, text, blocktags.Parse(commenttest.DocOf(text), nil))
	}
}
