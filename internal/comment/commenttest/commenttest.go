// Package commenttest is the kit that dialects of doc comments are tested with:
// fixtures that show what comments become, and what must hold for any text.
//
// It knows no dialect: each passes its own reading function in.
package commenttest

import (
	"flag"
	"os"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

var update = flag.Bool("update", false, "write what was read into the fixture; read it before you commit")

// becomes ends the name of a fixture's section that shows the comment before it.
const becomes = " becomes"

// Parse reads a comment of a dialect.
type Parse func(*model.Doc) *prose.Sections

// DocOf makes a comment of plain text, as if it stood at the start of a file.
func DocOf(text string) *model.Doc {
	doc := &model.Doc{Text: text, Span: source.NewSpan(0, len(text)), Escaped: strings.Contains(text, `\`)}
	at := 0
	for line := range strings.SplitSeq(text, "\n") {
		doc.Lines = append(doc.Lines, source.NewSpan(at, at+len(line)))
		at += len(line) + 1
	}
	return doc
}

// Fixture compares each comment of an archive with what stands right behind it.
func Fixture(t *testing.T, path string, parse Parse) {
	archive, err := txtar.ParseFile(path)
	require.NoError(t, err)
	want := map[string]string{}
	var out txtar.Archive
	for _, f := range archive.Files {
		if name, ok := strings.CutSuffix(f.Name, becomes); ok {
			want[name] = string(f.Data)
			continue
		}
		got := prose.DumpSections(parse(DocOf(strings.TrimSuffix(string(f.Data), "\n"))))
		out.Files = append(out.Files, f, txtar.File{Name: f.Name + becomes, Data: []byte(got)})
	}
	if *update {
		require.NoError(t, os.WriteFile(path, txtar.Format(&out), 0o644))
		return
	}
	require.NotEmpty(t, want)
	for i := 1; i < len(out.Files); i += 2 {
		name := out.Files[i-1].Name
		assert.Equal(t, want[name], string(out.Files[i].Data), name)
	}
}

// Valid requires what must hold of any comment: spans lie in the text, and
// addresses are allowed ones.
func Valid(t testing.TB, text string, s *prose.Sections) {
	t.Helper()
	within := func(span source.Span, of any) {
		require.True(t, 0 <= span.Start && span.Start <= span.End && int(span.End) <= len(text), "%v %v", of, span)
	}
	for nodes := range s.All {
		prose.Walk(nodes, func(n *prose.Node) bool {
			within(n.Span, n.Kind)
			if n.Kind == prose.Link {
				require.True(t, prose.AllowedAddress(n.Target), n.Target)
			}
			return true
		})
	}
	for _, part := range s.Parts {
		within(part.Span, part.Title)
		for _, e := range part.Entries {
			within(e.Span, e.Name)
		}
	}
	for _, flaw := range s.Flaws {
		within(flaw.Span, flaw.Text)
	}
}

// Fuzz feeds texts, those of a fixture first.
func Fuzz(f *testing.F, path string, parse Parse) {
	archive, err := txtar.ParseFile(path)
	require.NoError(f, err)
	for _, file := range archive.Files {
		f.Add(string(file.Data))
	}
	f.Fuzz(func(t *testing.T, text string) { Valid(t, text, parse(DocOf(text))) })
}

// Benchmark reads the comments of a fixture.
func Benchmark(b *testing.B, path string, parse Parse) {
	archive, err := txtar.ParseFile(path)
	require.NoError(b, err)
	var docs []*model.Doc
	size := 0
	for _, f := range archive.Files {
		if !strings.HasSuffix(f.Name, becomes) {
			docs = append(docs, DocOf(string(f.Data)))
			size += len(f.Data)
		}
	}
	b.SetBytes(int64(size))
	b.ReportAllocs()
	for b.Loop() {
		for _, doc := range docs {
			parse(doc)
		}
	}
}

// Shown maps what some kinds of nodes stand for to the text at their place.
func Shown(text string, s *prose.Sections, want func(*prose.Node) bool) map[string]string {
	shown := map[string]string{}
	for nodes := range s.All {
		prose.Walk(nodes, func(n *prose.Node) bool {
			if want(n) {
				shown[n.Target+prose.Plain(n.Children)+n.Text] = n.Span.In(text)
			}
			return true
		})
	}
	return shown
}
