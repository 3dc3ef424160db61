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

const marked = "testdata/marked.txt"

func parseMarked(doc *model.Doc) *prose.Sections { return blocktags.ParseMarked(doc, nil) }

func TestMarked(t *testing.T) { commenttest.Fixture(t, marked, parseMarked) }

func FuzzParseMarked(f *testing.F) { commenttest.Fuzz(f, marked, parseMarked) }

func BenchmarkParseMarked(b *testing.B) { commenttest.Benchmark(b, marked, parseMarked) }

func TestMarkedHostile(t *testing.T) {
	for _, piece := range []string{
		"\\ref ", "\\ref a \"", "\\link a ", "@code\n", "@endcode\n", "@f$a", "\\f[\n", "\\param[in a\n", "@param a,", "\\c ", "#a", "%a", "_a", "<a", "\\cond\n", "\\li a\n", "\\par a\n", "\\section a b\n", "\\retval a\n", "\\copydoc a", "@", "\\", "`", "\\verbatim a\n", "@parm\n\n",
	} {
		text := strings.Repeat(piece, 20_000)
		commenttest.Valid(t, text, parseMarked(commenttest.DocOf(text)))
	}
}

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
