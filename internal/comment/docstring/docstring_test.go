package docstring_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/comment/commenttest"
	"codrel/internal/comment/docstring"
	"codrel/internal/model"
	"codrel/internal/prose"
)

const fixture = "testdata/sections.txt"

func parse(doc *model.Doc) *prose.Sections { return docstring.Parse(doc, nil) }

func TestFixture(t *testing.T) { commenttest.Fixture(t, fixture, parse) }

func FuzzParse(f *testing.F) { commenttest.Fuzz(f, fixture, parse) }

func BenchmarkParse(b *testing.B) { commenttest.Benchmark(b, fixture, parse) }

// What a node shows stands where the node says, escapes and tabs notwithstanding.
func TestSpans(t *testing.T) {
	text := "See \\\\ and :func:`moor` here.\n\tAnd `Plan`.\n\nArgs:\n    vessel (Quay): of *Harbour* kind"
	sections := docstring.Parse(commenttest.DocOf(text), nil)
	assert.Equal(t, map[string]string{
		"moor" + "moor": ":func:`moor`", "moor": "moor", "Plan": "`Plan`", "Harbour": "*Harbour*", "Quay": "Quay",
	}, commenttest.Shown(text, sections, func(n *prose.Node) bool {
		return n.Kind == prose.Reference || n.Kind == prose.Emphasis || n.Kind == prose.Code
	}))
	require.Len(t, sections.Parts, 1)
	assert.Equal(t, "vessel", sections.Parts[0].Entries[0].Span.In(text))
}

// Whatever a text nests or leaves open, the time stays in proportion to its
// length: where it did not, this test would not end.
func TestHostile(t *testing.T) {
	const many = 50_000
	for _, piece := range []string{
		"`", "``", ":a:`", "*", "**a", "- ", "  - x\n", "Args:\n", "a\n--\n", "a::\n b\n", ".. a::\n", ">>> x\n", "|a", ":param x:\n",
		"== ==\n", "a :\n b\n", "(", "[a](", "_`", "http://a(", "\\n", "1. ", "+-+\n|a|\n", "+-+\n", "+=+\n", "$a", "\\(a", "[1]_", ".. [#] a\n", ".. [1] a\n", ".. |a| replace:: b\n", "|a| ", "-a  b\n", ":a: b\n\n", "===\na\n===\n",
		".. _a: b\n", ".. _a: b\n\na_", ".. __: b\n\n`a`__ ", "a_", "`a`_",
	} {
		docstring.Parse(commenttest.DocOf(strings.Repeat(piece, many)), nil)
		var deep strings.Builder
		for i := range 1000 {
			deep.WriteString(strings.Repeat(" ", i) + piece + "x\n")
		}
		docstring.Parse(commenttest.DocOf(deep.String()), nil)
	}
}
