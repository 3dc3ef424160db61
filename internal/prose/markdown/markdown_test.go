package markdown_test

import (
	"flag"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/growth"
	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
)

var update = flag.Bool("update", false, "write what was read into the fixtures; read them before you commit")

func TestFixtures(t *testing.T) {
	const name = "testdata/texts.txt"
	archive, err := txtar.ParseFile(name)
	require.NoError(t, err)
	for i := 0; i+1 < len(archive.Files); i += 2 {
		got := prose.Dump(markdown.Parse(string(archive.Files[i].Data)))
		if *update {
			archive.Files[i+1].Data = []byte(got)
			continue
		}
		assert.Equal(t, string(archive.Files[i+1].Data), got, archive.Files[i].Name)
	}
	if *update {
		require.NoError(t, os.WriteFile(name, txtar.Format(archive), 0o644))
	}
}

func TestSpans(t *testing.T) {
	text := "# Head\n\nSee [the *plan*](ref:Plan), <ref:Berth> and `code`.\n"
	found := map[string]string{}
	prose.Walk(markdown.Parse(text), func(n *prose.Node) bool {
		if n.Kind == prose.Reference || n.Kind == prose.Code {
			found[n.Target+n.Text] = n.Span.In(text)
		}
		return n.Kind != prose.Reference
	})
	assert.Equal(t, map[string]string{"Plan": "the *plan", "Berth": "ref:Berth", "code": "code"}, found)
}

func TestTitle(t *testing.T) {
	title, rest, ok := markdown.Title(markdown.Parse("# The *title*\n\ntext\n"))
	assert.True(t, ok)
	assert.Equal(t, "The title", title)
	assert.Len(t, rest, 1)
	title, rest, ok = markdown.Title(markdown.Parse("![logo](logo.svg)\n\n# [![wave](w.svg)](https://tidebook.example) Tidebook ![new](n.svg)\n\n## Later\n"))
	require.True(t, ok)
	assert.Equal(t, "Tidebook", title, "without its pictures")
	assert.Len(t, rest, 2, "it is taken from below the logo")
	title, _, ok = markdown.Title(markdown.Parse("# ![Tidebook](logo.svg)\n"))
	require.True(t, ok)
	assert.Equal(t, "Tidebook", title, "a logo alone")
	_, rest, ok = markdown.Title(markdown.Parse("before\n\n## Sponsor\n\n# Overview\n"))
	assert.False(t, ok, "a heading of an advertisement, say")
	assert.Len(t, rest, 3)
	_, _, ok = markdown.Title(nil)
	assert.False(t, ok)
}

func TestAligned(t *testing.T) {
	var at []string
	for _, text := range []string{
		"| a | b | c | d |\n|---|--:|:-:|:--|\n| 1 | 2 | 3 | 4 |\n",
		"<table><tr><td>1<td align=right>2<td align=\" Center \">3<td align=justify>4</table>\n",
	} {
		prose.Walk(markdown.Parse(text), func(n *prose.Node) bool {
			if n.Kind == prose.Cell {
				at = append(at, n.Info)
			}
			return true
		})
	}
	row := []string{"", "right", "center", ""}
	assert.Equal(t, slices.Concat(row, row, row), at)
}

func FuzzParse(f *testing.F) {
	archive, err := txtar.ParseFile("testdata/texts.txt")
	require.NoError(f, err)
	for _, file := range archive.Files {
		f.Add(string(file.Data))
	}
	f.Add(strings.Repeat("<div>", 500))
	f.Fuzz(func(t *testing.T, text string) {
		prose.Walk(markdown.Parse(text), func(n *prose.Node) bool {
			if n.Kind == prose.Link || n.Kind == prose.Image {
				require.True(t, prose.AllowedAddress(n.Target), n.Target)
			}
			require.True(t, 0 <= n.Span.Start && n.Span.Start <= n.Span.End, "%v %v", n.Kind, n.Span)
			return true
		})
	})
}

// Pages have lists of terms, which comments have not: there a ":" may begin anything.
func TestTerms(t *testing.T) {
	text := "Spring\nNeap\n: A *tide*.\n: Or another.\n\nSlack\n:   No tide.\n\n    More of it.\n\n: not one\n"
	nodes, plain := markdown.ReadPage(text)
	assert.Empty(t, plain)
	require.Equal(t, prose.List, nodes[0].Kind)
	assert.Equal(t, prose.Terms, nodes[0].Info)
	var items []string
	for i := range nodes[0].Children {
		items = append(items, prose.Plain(nodes[0].Children[i].Children))
	}
	assert.Equal(t, []string{"Spring Neap A tide. Or another.", "Slack No tide. More of it. not one"}, items)
	assert.Equal(t, prose.Paragraph, markdown.Parse(text)[0].Kind)
	for _, deep := range []string{strings.Repeat("a\n: ", 3000), strings.Repeat(": ", 3000), "a\n" + strings.Repeat(": b\n\n", 3000)} {
		nodes, _ = markdown.ReadPage(deep)
		assert.NotEmpty(t, nodes)
	}
}

func TestGrowthOfPages(t *testing.T) {
	growth.Comments(t, "testdata/pages.txt", func(text string) { markdown.ReadPage(text) })
}

// Places that a text names itself, and films, come through; what else elements hold does not.
func TestPlacesAndFilms(t *testing.T) {
	var got []string
	prose.Walk(markdown.Parse("<a name=\"here\"></a>A <span id=\"there\">text</span> ![film](a.webm?x) ![still](a.png)\n\n<h2 id=\"head\">Head</h2>\n\n<video src=\"b.mp4\" title=\"B\"></video>\n\n"+
		"<video controls><source src=\"c.webm\"></video>\n\n<a id=\"no name\"></a>\n\n<div id=\"alone\"></div>\n\n<video src=\"javascript:x\"></video>\n"), func(n *prose.Node) bool {
		switch n.Kind {
		case prose.Anchor:
			got = append(got, "#"+n.Target)
		case prose.Film:
			got = append(got, "film "+n.Target+" "+prose.Plain(n.Children))
		case prose.Image:
			got = append(got, "picture "+n.Target)
		}
		return true
	})
	assert.Equal(t, []string{"#here", "#there", "film a.webm?x film", "picture a.png", "#head", "film b.mp4 B", "film c.webm ", "#alone"}, got)
}
