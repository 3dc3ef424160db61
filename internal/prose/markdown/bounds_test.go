package markdown_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
)

// What would take too long is shown as it is written, where it stands, and all around it is
// read.
func TestBounds(t *testing.T) {
	for name, part := range map[string]string{
		"a paragraph of many links that never close": strings.Repeat("[tide](<ebb ", 3000),
		"a paragraph of many lines":                  strings.Repeat("[tide][\n", 3000),
		"a table of many columns":                    strings.Repeat("|a", 300) + "|\n" + strings.Repeat("|-", 300) + "|\n",
		"a heading of many marks":                    "# " + strings.Repeat("*a ", 8000) + "\n",
	} {
		text := "Before *it*.\n\n" + part + "\n\nAfter `it`.\n"
		nodes, plain := markdown.Read(text)
		require.Len(t, plain, 1, name)
		assert.Equal(t, 14, int(plain[0].Start), name)
		shown := prose.Dump(nodes)
		assert.Contains(t, shown, "emphasis", name)
		assert.Contains(t, shown, `code "it"`, name)
		assert.Contains(t, prose.Plain(nodes), strings.TrimSpace(part)[:200], name)
	}
}

func TestDeepNesting(t *testing.T) {
	for _, mark := range []string{"> ", "- ", "1. ", "> * "} {
		nodes, plain := markdown.Read(strings.Repeat(mark, 400) + "the pier\n\nAfter *it*.\n")
		require.Len(t, plain, 1, mark)
		shown := prose.Dump(nodes)
		assert.Contains(t, shown, "the pier", "%s: nothing is lost", mark)
		assert.Contains(t, shown, "emphasis", mark)
		_, plain = markdown.Read(strings.Repeat(mark, 30) + "the pier\n")
		assert.Empty(t, plain, "%s: thirty may nest", mark)
	}
	deep := ""
	for i := range 300 {
		deep += strings.Repeat("  ", i) + "- item\n"
	}
	nodes, plain := markdown.Read(deep)
	assert.Len(t, plain, 1)
	assert.Equal(t, 300, strings.Count(prose.Plain(nodes), "item"))
}

func TestManyDefinitions(t *testing.T) {
	var b strings.Builder
	b.WriteString("See [the last][n4999], [the first][n0] and [a title][titled].\n\n")
	for i := range 5000 {
		fmt.Fprintf(&b, "[n%d]: https://tides.example/%d\n", i, i)
	}
	b.WriteString("[titled]: https://tides.example/titled\n  \"High water\"\nand words behind them.\n")
	nodes, plain := markdown.Read(b.String())
	assert.Empty(t, plain)
	shown := prose.Dump(nodes)
	for _, want := range []string{"https://tides.example/4999", "https://tides.example/0", "https://tides.example/titled", "and words behind them."} {
		assert.Contains(t, shown, want)
	}
	assert.NotContains(t, shown, "https://tides.example/17", "a definition is no text")
}

func TestLongText(t *testing.T) {
	text := strings.Repeat("A line.\n\n", 200_000)
	nodes, plain := markdown.Read(text)
	require.Len(t, plain, 1)
	require.Len(t, nodes, 1)
	assert.Equal(t, prose.CodeBlock, nodes[0].Kind)
}
