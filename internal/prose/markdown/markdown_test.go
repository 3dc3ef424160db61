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
