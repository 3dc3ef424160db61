package blocktags_test

import (
	"flag"
	"os"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/comment/blocktags"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

var update = flag.Bool("update", false, "write what was read into the fixture; read it before you commit")

const fixture = "testdata/comments.txt"

func docOf(text string) *model.Doc {
	doc := &model.Doc{Text: text, Span: source.NewSpan(0, len(text))}
	at := 0
	for line := range strings.SplitSeq(text, "\n") {
		doc.Lines = append(doc.Lines, source.NewSpan(at, at+len(line)))
		at += len(line) + 1
	}
	return doc
}

// Each section of the fixture is a comment; what it becomes stands right behind it.
func TestFixture(t *testing.T) {
	archive, err := txtar.ParseFile(fixture)
	require.NoError(t, err)
	want := map[string]string{}
	var out txtar.Archive
	for _, f := range archive.Files {
		if name, ok := strings.CutSuffix(f.Name, " becomes"); ok {
			want[name] = string(f.Data)
			continue
		}
		got := prose.DumpSections(blocktags.Parse(docOf(strings.TrimSuffix(string(f.Data), "\n"))))
		out.Files = append(out.Files, f, txtar.File{Name: f.Name + " becomes", Data: []byte(got)})
	}
	if *update {
		require.NoError(t, os.WriteFile(fixture, txtar.Format(&out), 0o644))
		return
	}
	require.NotEmpty(t, want)
	for i := 1; i < len(out.Files); i += 2 {
		name := out.Files[i-1].Name
		assert.Equal(t, want[name], string(out.Files[i].Data), name)
	}
}

func TestSpans(t *testing.T) {
	text := "Text {@link Plan.free} and *more*.\n@param {Quay} at - Where *exactly*."
	sections := blocktags.Parse(docOf(text))
	shown := map[string]string{}
	for nodes := range sections.All {
		prose.Walk(nodes, func(n *prose.Node) bool {
			if n.Kind == prose.Emphasis || n.Kind == prose.Code && n.Text == "Quay" {
				shown[prose.Plain(n.Children)+n.Text] = n.Span.In(text)
			}
			return true
		})
	}
	assert.Equal(t, map[string]string{"more": "more", "Quay": "Quay", "exactly": "exactly"}, shown)
	assert.Equal(t, "at", sections.Parts[0].Entries[0].Span.In(text))
}

func FuzzParse(f *testing.F) {
	archive, err := txtar.ParseFile(fixture)
	require.NoError(f, err)
	for _, file := range archive.Files {
		f.Add(string(file.Data))
	}
	f.Fuzz(func(t *testing.T, text string) {
		sections := blocktags.Parse(docOf(text))
		for nodes := range sections.All {
			prose.Walk(nodes, func(n *prose.Node) bool {
				require.True(t, 0 <= n.Span.Start && n.Span.Start <= n.Span.End && int(n.Span.End) <= len(text), "%v %v", n.Kind, n.Span)
				if n.Kind == prose.Link {
					require.True(t, prose.AllowedAddress(n.Target), n.Target)
				}
				return true
			})
		}
		for _, flaw := range sections.Flaws {
			require.True(t, 0 <= flaw.Span.Start && flaw.Span.Start <= flaw.Span.End && int(flaw.Span.End) <= len(text))
		}
	})
}

func BenchmarkParse(b *testing.B) {
	archive, err := txtar.ParseFile(fixture)
	require.NoError(b, err)
	var docs []*model.Doc
	size := 0
	for _, f := range archive.Files {
		if !strings.HasSuffix(f.Name, " becomes") {
			docs = append(docs, docOf(string(f.Data)))
			size += len(f.Data)
		}
	}
	b.SetBytes(int64(size))
	b.ReportAllocs()
	for b.Loop() {
		for _, doc := range docs {
			blocktags.Parse(doc)
		}
	}
}
