package gocomment_test

import (
	"flag"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/comment/gocomment"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

var update = flag.Bool("update", false, "write what was read into the fixtures; read them before you commit")

// docOf makes a comment of plain text, as if it stood at the start of a file.
func docOf(text string) *model.Doc {
	d := &model.Doc{Text: text, Span: source.NewSpan(0, len(text))}
	at := 0
	for line := range strings.SplitSeq(text, "\n") {
		d.Lines = append(d.Lines, source.NewSpan(at, at+len(line)))
		at += len(line) + 1
	}
	return d
}

// TestFixtures compares each pair of sections: a comment, and the tree it makes.
func TestFixtures(t *testing.T) {
	archive, err := txtar.ParseFile("testdata/comments.txt")
	require.NoError(t, err)
	for i := 0; i+1 < len(archive.Files); i += 2 {
		comment, tree := archive.Files[i], &archive.Files[i+1]
		t.Run(comment.Name, func(t *testing.T) {
			require.Equal(t, comment.Name+" tree", tree.Name)
			body, deprecated := gocomment.Parse(docOf(strings.TrimSuffix(string(comment.Data), "\n")))
			got := prose.Dump(body)
			if deprecated != nil {
				got += "deprecated:\n" + prose.Dump(deprecated)
			}
			if *update {
				tree.Data = []byte(got)
				return
			}
			assert.Equal(t, string(tree.Data), got)
		})
	}
	if *update {
		require.NoError(t, os.WriteFile("testdata/comments.txt", txtar.Format(archive), 0o644))
	}
}

func TestSpans(t *testing.T) {
	text := "Assign uses [Berth.Fits] and\n[the harbour order] of http://a.example/x.\n\n[the harbour order]: ref:Rank"
	doc := docOf(text)
	body, _ := gocomment.Parse(doc)
	shown := map[string]string{}
	prose.Walk(body, func(n *prose.Node) bool {
		if n.Kind == prose.Reference || n.Kind == prose.Link {
			shown[n.Target] = n.Span.In(text)
		}
		return true
	})
	assert.Equal(t, map[string]string{
		"Berth.Fits": "[Berth.Fits]", "Rank": "[the harbour order]", "http://a.example/x": "http://a.example/x",
	}, shown)
}

func FuzzParse(f *testing.F) {
	files, err := filepath.Glob("testdata/*.txt")
	require.NoError(f, err)
	for _, name := range files {
		archive, err := txtar.ParseFile(name)
		require.NoError(f, err)
		for _, file := range archive.Files {
			f.Add(string(file.Data))
		}
	}
	f.Fuzz(func(t *testing.T, text string) {
		body, deprecated := gocomment.Parse(docOf(text))
		for _, nodes := range [][]prose.Node{body, deprecated} {
			prose.Walk(nodes, func(n *prose.Node) bool {
				require.True(t, 0 <= n.Span.Start && n.Span.Start <= n.Span.End && int(n.Span.End) <= len(text), "%v %v", n.Kind, n.Span)
				if n.Kind == prose.Link {
					require.True(t, prose.AllowedAddress(n.Target), n.Target)
				}
				return true
			})
		}
	})
}

func BenchmarkParse(b *testing.B) {
	archive, err := txtar.ParseFile("testdata/comments.txt")
	require.NoError(b, err)
	doc := docOf(strings.Repeat(string(archive.Files[0].Data)+"\n", 50))
	b.SetBytes(int64(len(doc.Text)))
	for b.Loop() {
		gocomment.Parse(doc)
	}
}
