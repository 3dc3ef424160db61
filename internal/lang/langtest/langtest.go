// Package langtest is the conformance kit that every front end passes: what it
// reads of fixtures, and what must hold for any input at all.
//
// A fixture is a txtar archive: source files, then a section "facts" that lists
// what they declare, one occurrence a line. The kit also feeds the sources in
// forms that real files come in: other line ends, a byte order mark, cut short,
// with bytes changed.
package langtest

import (
	"cmp"
	"flag"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/source"
)

var update = flag.Bool("update", false, "write what was read into the fixtures; read them before you commit")

// Run tests a front end on all fixtures of a folder.
func Run(t *testing.T, end lang.FrontEnd, folder string) {
	paths, err := filepath.Glob(filepath.Join(folder, "*.txt"))
	require.NoError(t, err)
	require.NotEmpty(t, paths, "no fixtures in %s", folder)
	for _, p := range paths {
		t.Run(strings.TrimSuffix(filepath.Base(p), ".txt"), func(t *testing.T) { fixture(t, end, p) })
	}
}

func fixture(t *testing.T, end lang.FrontEnd, path string) {
	archive, err := txtar.ParseFile(path)
	require.NoError(t, err)
	var got strings.Builder
	want := -1
	for i, f := range archive.Files {
		if f.Name == "facts" {
			want = i
			continue
		}
		facts := Read(end, f.Name, f.Data)
		Valid(t, facts)
		Pieces(t, end, facts.Text)
		got.WriteString(Dump(facts))
		assert.Equal(t, Dump(facts), Dump(brief(end, f.Name, f.Data)), "where nobody asks what names in the code mean")
		Forms(t, end, f.Name, f.Data)
	}
	if *update {
		if want < 0 {
			archive.Files = append(archive.Files, txtar.File{Name: "facts"})
			want = len(archive.Files) - 1
		}
		archive.Files[want].Data = []byte(got.String())
		require.NoError(t, os.WriteFile(path, txtar.Format(archive), 0o644))
		return
	}
	require.GreaterOrEqual(t, want, 0, "the fixture has no section \"facts\"; run the test with -update")
	assert.Equal(t, string(archive.Files[want].Data), got.String())
}

// Read decodes and reads one file.
func Read(end lang.FrontEnd, path string, data []byte) *model.Facts {
	return end.Read(lang.File{Path: path, Text: source.Decode(append([]byte(nil), data...)), Deep: true})
}

// brief reads one file as where nobody asks what names in the code mean.
func brief(end lang.FrontEnd, path string, data []byte) *model.Facts {
	return end.Read(lang.File{Path: path, Text: source.Decode(append([]byte(nil), data...))})
}

// Dump lists facts as text, one occurrence a line.
func Dump(f *model.Facts) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%s package=%s role=%s", f.Path, f.Package, f.Role)
	if f.Generated {
		b.WriteString(" generated")
	}
	if f.Standalone {
		b.WriteString(" standalone")
	}
	if len(f.Conditions) > 0 {
		fmt.Fprintf(&b, " conditions=%s", strings.Join(f.Conditions, "+"))
	}
	if f.ModuleDoc != nil {
		fmt.Fprintf(&b, " doc=%q", f.ModuleDoc.Text)
	}
	b.WriteByte('\n')
	for i := range f.Occurrences {
		b.WriteString("  " + line(&f.Occurrences[i], f.Text) + "\n")
	}
	for _, i := range f.Imports {
		if i.Member == "" && !i.Whole && !i.Reexport {
			continue
		}
		fmt.Fprintf(&b, "  import %s from %s as %q public=%t", cmp.Or(i.Member, "it"), cmp.Or(i.Path, "itself"), i.Name, i.Reexport)
		if i.Whole {
			b.WriteString(" whole")
		}
		if i.ReexportsOwn {
			b.WriteString(" open")
		}
		if i.Doc != nil {
			fmt.Fprintf(&b, " doc=%q", i.Doc.Text)
		}
		b.WriteByte('\n')
	}
	for _, c := range f.Classes {
		fmt.Fprintf(&b, "  base %s of %s\n", c.Base, cmp.Or(c.In, "it"))
	}
	for _, l := range f.ExportList {
		fmt.Fprintf(&b, "  lists %s\n", l.Name)
	}
	for _, s := range f.Stray {
		fmt.Fprintf(&b, "  stray %s\n", s.Name)
	}
	for _, p := range f.Problems {
		fmt.Fprintf(&b, "  problem %d:%d %s\n", p.Place.At.Line, p.Place.At.Column, p.Arg("problem"))
	}
	return b.String()
}

func line(o *model.Occurrence, text string) string {
	var b strings.Builder
	path := strings.TrimPrefix(o.Scope+"."+o.Name, ".")
	fmt.Fprintf(&b, "%d %s %s %s |", o.Line, o.Visibility, o.Kind, path)
	b.WriteString(o.Signature.Text(text))
	b.WriteString("|")
	if o.Callable != nil {
		b.WriteString(" params=")
		for i, p := range o.Callable.Params {
			if i > 0 {
				b.WriteString(",")
			}
			b.WriteString(p.Name)
			if p.Variadic {
				b.WriteString("...")
			}
			if len(p.Names()) > 0 {
				fmt.Fprintf(&b, "%v", p.Names())
			}
		}
		for _, f := range o.Callable.Fails() {
			b.WriteString(" fails=" + f.Name)
		}
		if o.Callable.ReadsArguments {
			b.WriteString(" open")
		}
		if o.Callable.Placeholder {
			b.WriteString(" bare")
		}
		if g := o.Callable.Returns; g > model.ReturnsNothing {
			b.WriteString([]string{" gives=result", " gives=series", " gives=" + strings.Join(o.Callable.Relays(), "+"), " gives=never", " gives=self"}[g-model.ReturnsResult])
		}
	}
	if o.Export != model.ExportUnsaid {
		fmt.Fprintf(&b, " exported=%t", o.Export == model.Exported || o.Export == model.Renamed)
	}
	for _, c := range o.Conditions() {
		fmt.Fprintf(&b, " if=%q", c)
	}
	for _, base := range o.Bases() {
		b.WriteString(" base=")
		b.WriteString(base.Type.Text(text))
	}
	if o.FromComment {
		b.WriteString(" worded")
	}
	if o.Local {
		b.WriteString(" local")
	}
	if o.Extra != nil && o.Extra.Same != "" {
		b.WriteString(" same=" + o.Extra.Same)
	}
	if o.Extra != nil && o.Extra.TextOf != "" {
		b.WriteString(" text-of=" + o.Extra.TextOf)
	}
	if o.Deprecated {
		b.WriteString(" deprecated")
	}
	if o.Doc != nil {
		fmt.Fprintf(&b, " doc=%q", o.Doc.Text)
	}
	if o.GroupDoc != nil {
		fmt.Fprintf(&b, " group=%q", o.GroupDoc.Text)
	}
	for _, d := range o.Directives() {
		fmt.Fprintf(&b, " codrel=%s:%s:%s", d.Verb, d.Object, d.Reason)
	}
	return b.String()
}

// Valid requires what must hold of the facts of any file, however broken.
func Valid(t testing.TB, f *model.Facts) {
	t.Helper()
	require.NotNil(t, f)
	require.True(t, utf8.ValidString(f.Text))
	within := func(s source.Span, what string) {
		t.Helper()
		require.True(t, 0 <= s.Start && s.Start <= s.End && int(s.End) <= len(f.Text), "%s: span %v of a text of %d bytes", what, s, len(f.Text))
	}
	comment := func(d *model.Doc, of string) {
		if d == nil {
			return
		}
		within(d.Span, "comment of "+of)
		require.NotEmpty(t, strings.TrimSpace(d.Text), "comment of %s", of)
		lines := strings.Split(d.Text, "\n")
		require.Len(t, d.Lines, len(lines), "comment of %s", of)
		for i, l := range d.Lines {
			within(l, "comment line of "+of)
			require.Equal(t, l.In(f.Text), lines[i], "comment line %d of %s", i, of)
		}
	}
	comment(f.ModuleDoc, "the module")
	for i := range f.Occurrences {
		o := &f.Occurrences[i]
		within(o.NameSpan, o.Name)
		within(o.Span, o.Name)
		require.Less(t, int(o.Parent), i, "%s stands before what encloses it", o.Name)
		require.Equal(t, f.Lines.Line(o.NameSpan.Start), int(o.Line), o.Name)
		require.NotContains(t, o.Name, "\n")
		comment(o.Doc, o.Name)
		comment(o.GroupDoc, o.Name)
	}
	for _, s := range f.Stray {
		within(s.Span, "stray comment")
	}
	if f.Inside != nil {
		last := int32(0)
		for use := range f.Inside.Uses.All() {
			within(use.Span, "use")
			within(use.Type, "type of a use")
			require.GreaterOrEqual(t, use.Span.Start, last, "uses stand in the order of the file")
			last = use.Span.End
		}
		last = 0
		for _, body := range f.Inside.Bodies {
			within(body, "body")
			require.GreaterOrEqual(t, body.Start, last, "bodies stand in the order of the file")
			last = body.End
		}
	}
	for _, p := range f.Problems {
		within(p.Place.Span, "problem")
		require.GreaterOrEqual(t, p.Place.At.Line, 1)
	}
}

// Pieces requires that the pieces of a text lie in it, in order and apart.
func Pieces(t testing.TB, end lang.FrontEnd, text string) {
	t.Helper()
	scanner, ok := end.(lang.Scanner)
	if !ok {
		return
	}
	last := int32(0)
	scanned := scanner.Scan(text, nil)
	for _, p := range scanned {
		require.GreaterOrEqual(t, p.Span.Start, last)
		require.Greater(t, p.Span.End, p.Span.Start)
		require.LessOrEqual(t, int(p.Span.End), len(text))
		last = p.Span.End
	}
}

// Forms reads a source in the forms that real files come in. Line ends and a
// byte order mark must change nothing; damage must not hurt what stands before it.
func Forms(t *testing.T, end lang.FrontEnd, path string, data []byte) {
	t.Helper()
	plain := names(Read(end, path, data))
	crlf := Read(end, path, []byte(strings.ReplaceAll(string(data), "\n", "\r\n")))
	Valid(t, crlf)
	assert.Equal(t, plain, names(crlf), "with CRLF line ends")
	mark := Read(end, path, append([]byte("\xef\xbb\xbf"), data...))
	Valid(t, mark)
	assert.Equal(t, plain, names(mark), "behind a byte order mark")
	twice := Read(end, path, data)
	assert.Equal(t, plain, names(twice), "read a second time")

	// Cut anywhere, and with blanks behind the cut that a language may skip to the very end.
	tails := []string{"\n", " \\\n", " #c", "\n//c", " /*c*/", "\n\t"}
	for cut := range len(data) + 1 {
		for _, more := range []string{"", tails[cut%len(tails)]} { // each tail comes behind every kind of token
			end.Read(lang.File{Path: path, Text: source.Decode(append(data[:cut:cut], more...)), Deep: true})
		}
	}
	random := rand.New(rand.NewPCG(1, uint64(len(data))))
	for range 60 {
		Valid(t, Read(end, path, data[:random.IntN(len(data)+1)]))
		flipped := append([]byte(nil), data...)
		for range min(len(data), 1+random.IntN(4)) {
			flipped[random.IntN(len(flipped))] = byte(random.IntN(256))
		}
		Valid(t, Read(end, path, flipped))
		Valid(t, brief(end, path, flipped))
	}
	Valid(t, Read(end, path, append(append([]byte(nil), data...), 0, 0xff, 0xfe)))
}

// names are the declarations of a file without what hangs on byte offsets.
func names(f *model.Facts) []string {
	out := make([]string, 0, len(f.Occurrences))
	for i := range f.Occurrences {
		o := &f.Occurrences[i]
		out = append(out, fmt.Sprintf("%d %s %s.%s %t", o.Line, o.Kind, o.Scope, o.Name, o.Doc != nil))
	}
	return out
}
