package markdown_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
)

// What is read of a text that was made of pieces stands where the pieces do.
func TestMade(t *testing.T) {
	file := "// See {Tide} and\n// *more*."
	var m markdown.Made
	m.Put("See ", 3, false)
	m.Put("[`Tide`](<"+markdown.NamedScheme+"Tide>)", 8, true)
	m.Put("", 100, false)
	m.Put(" and", 13, false)
	m.Put("\n", 17, true)
	m.Put("*more*.", 21, false)
	nodes, plain := m.Read(3, 28)
	assert.Empty(t, plain)
	got := map[prose.Kind]string{}
	prose.Walk(nodes, func(n *prose.Node) bool {
		assert.GreaterOrEqual(t, n.Span.Start, int32(3))
		assert.LessOrEqual(t, n.Span.End, int32(28))
		got[n.Kind] += "|" + n.Span.In(file)
		return true
	})
	assert.Equal(t, "|T", got[prose.Reference], "a piece that was made stands for one place")
	assert.Equal(t, "|more", got[prose.Emphasis])
	assert.Contains(t, got[prose.Text], "|See ")
	var none markdown.Made
	nodes, plain = none.Read(0, 0)
	assert.Empty(t, nodes)
	assert.Empty(t, plain)
}

func TestFences(t *testing.T) {
	for text, want := range map[string]markdown.Fence{
		"```":        {Sign: '`', Size: 3, Bare: true},
		"  ~~~~ ":    {Sign: '~', Size: 4, Bare: true},
		"```rust":    {Sign: '`', Size: 3},
		"``` a `":    {},
		"```a```":    {},
		"~~~ a ~~~":  {Sign: '~', Size: 3},
		"``":         {},
		"":           {},
		"a ```":      {},
		"\t```\t":    {Sign: '`', Size: 3, Bare: true},
		"`~`":        {},
		"``````text": {Sign: '`', Size: 6},
	} {
		assert.Equal(t, want, markdown.FenceAt(text), text)
	}
	open := markdown.FenceAt("````c")
	for text, want := range map[string]bool{"````": true, "`````": true, "```": false, "~~~~": false, "````c": false, "x": false} {
		assert.Equal(t, want, markdown.FenceAt(text).Closes(open), text)
	}
}

// Openings of formulas in rows have an end or none, whatever stands between.
func TestEndsOfDisplays(t *testing.T) {
	for text, want := range map[string]int{
		"$$\na\n$$":                       1,
		"$$\na\n\n$$":                     0, // an empty line ends what it could be
		"\\begin{align}\na\n\\end{align}": 1,
		"\\begin{align}\n\\begin{align}\na\n\\end{align}":                     1,
		"\\begin{a}\n\\begin{b}\n\\begin{c}\nx":                               0,
		"\\begin{a}\nx\n\nwords\n\n\\begin{a}\ny\n\\end{a}":                   1,
		"\\[\nx\n\\]\n\n\\[\ny\n\\]":                                          2,
		"$$\nx\n$$\n\nwords\n\n$$\ny\n$$\n\n$$\nz":                            2,
		"\\begin{a}\nx\n\\end{b}\n\n\\begin{b}\ny\n\\end{b}\n\n\\begin{b}\nz": 1,
	} {
		count := 0
		prose.Walk(markdown.Parse(text), func(n *prose.Node) bool {
			if n.Kind == prose.Display {
				count++
			}
			return true
		})
		assert.Equal(t, want, count, text)
	}
}
