package link_test

import (
	"io/fs"
	"iter"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/settings"
	"codrel/internal/symbols"
)

// marks of the fixtures in testdata/links, which are taken out before anything is
// read: "/*def x*/" stands before the name of a declaration and calls it x,
// "/*use x*/" before a name in a comment, a signature or a body that must mean it.
// A use may also mean "nothing", "outside", or "x or y" where it is ambiguous; a
// module is called by its path behind "module", a heading of its text by its anchor.
var marks = regexp.MustCompile(`/\*(def|use) ([^*]+)\*/`)

type markedPlace struct {
	file string
	at   int32
	says string
}

// unmarked takes the marks out of an archive.
func unmarked(t *testing.T, path string) (files fstest.MapFS, defs, uses []markedPlace) {
	t.Helper()
	archive, err := txtar.ParseFile(path)
	require.NoError(t, err)
	files = fstest.MapFS{}
	for _, f := range archive.Files {
		var text strings.Builder
		rest := string(f.Data)
		for {
			at := marks.FindStringSubmatchIndex(rest)
			if at == nil {
				break
			}
			text.WriteString(rest[:at[0]])
			m := markedPlace{f.Name, int32(text.Len()), rest[at[4]:at[5]]}
			if rest[at[2]:at[3]] == "def" {
				defs = append(defs, m)
			} else {
				uses = append(uses, m)
			}
			rest = rest[at[1]:]
		}
		text.WriteString(rest)
		files[f.Name] = &fstest.MapFile{Data: []byte(text.String())}
	}
	return files, defs, uses
}

// linked is what a place in a file leads to, in the words of the marks.
type linked struct {
	names map[*model.Declaration]string
	at    map[markedPlace]string // the place alone -> what it means

	elsewhere map[string]string // names of another project's declarations, by ID
}

func (l *linked) word(t link.Target) string {
	switch {
	case t.Declaration != nil:
		if name := l.names[t.Declaration]; name != "" {
			for _, form := range t.Declaration.Overloads() {
				if form.Occurrence == t.Form {
					name += "(" + strings.Join(form.ParamTypes(), ",") + ")"
				}
			}
			return name
		}
		if t.Declaration.Module.Library.Elsewhere != nil {
			return l.elsewhere[t.Declaration.ID()]
		}
		return t.Declaration.ID()
	case t.Heading != "":
		return "heading " + t.Heading + " of " + t.Module.Path
	case t.Module != nil:
		return "module " + t.Module.Path
	case t.Address != "":
		return "outside"
	}
	return "nothing"
}

func (l *linked) result(r link.Result) string {
	switch r.Outcome {
	case link.Found:
		return l.word(r.Target)
	case link.External:
		return "outside"
	case link.Ambiguous:
		var names []string
		for _, c := range r.Candidates {
			names = append(names, l.word(c))
		}
		slices.Sort(names)
		return strings.Join(names, " or ")
	}
	return "nothing"
}

// uses notes what the code of a file uses.
func (l *linked) uses(s *build.Snapshot, m *model.Module, f *model.Facts) {
	uses := s.Links.Uses(m, f)
	for span, i := range uses.All() {
		l.at[markedPlace{file: f.Path, at: span.Start}] = l.word(uses.Targets[i])
	}
}

// read notes the references of a file in the comments on what a module has of it.
func (l *linked) read(s *build.Snapshot, m *model.Module, f *model.Facts) {
	comment := func(doc *model.Doc, from link.Scope) {
		if doc == nil {
			return
		}
		for nodes := range s.Links.Comments.Of(m.Library.Habits, f, doc).All {
			l.references(s, f.Path, f.Text, nodes, from)
		}
	}
	for _, d := range m.Doc {
		if d.File == f {
			comment(d.Doc, link.Scope{Module: m, File: f})
		}
	}
	for d := range m.Declarations {
		for _, o := range d.Occurrences {
			if o.File == f {
				comment(o.Doc, link.Scope{Module: m, File: f, Declaration: d})
			}
		}
	}
}

// references notes what the references of a text mean.
func (l *linked) references(s *build.Snapshot, file, text string, nodes []prose.Node, from link.Scope) {
	prose.Walk(nodes, func(n *prose.Node) bool {
		if n.Kind != prose.Code && n.Kind != prose.Reference {
			return true
		}
		at := n.Span.Start
		if n.Kind == prose.Code {
			at += int32(max(0, strings.Index(n.Span.In(text), n.Text))) // behind the mark that begins it
		} else if len(n.Children) > 0 && !n.Children[0].Span.Empty() {
			at = n.Children[0].Span.Start
		}
		l.at[markedPlace{file: file, at: at}] = l.result(s.Links.ResolveNode(from, n))
		return false
	})
}

// elsewhereFiles takes the files of the other project out of a fixture: those in
// the folder "elsewhere".
func elsewhereFiles(files fstest.MapFS) fstest.MapFS {
	other := fstest.MapFS{}
	for name, f := range files {
		if rest, ok := strings.CutPrefix(name, "elsewhere/"); ok {
			other[rest] = f
			delete(files, name)
		}
	}
	return other
}

// namedElsewhere builds the other project of a fixture and gives the way to its names.
func namedElsewhere(t *testing.T, l *linked, files fstest.MapFS, defs []markedPlace) build.Outside {
	t.Helper()
	if len(files) == 0 {
		return build.Outside{}
	}
	s, err := build.Run(t.Context(), files, build.Options{FrontEnds: languages.All, Folder: "other"})
	require.NoError(t, err)
	for d := range declarations(s) {
		for _, o := range d.Occurrences {
			for _, def := range defs {
				if def.file == "elsewhere/"+o.File.Path && def.at == o.NameSpan.Start {
					l.elsewhere[s.Links.Home(d).ID()+"#"+d.Path()] = def.says // where its page is, as others know it
				}
			}
		}
	}
	table, err := symbols.Write(s.Links.Symbols())
	require.NoError(t, err)
	texts, err := symbols.WriteTexts(s.Links.MemberTexts())
	require.NoError(t, err)
	written := map[string][]byte{"other/symbols.json": table, "other/symbols-texts.json": texts}
	return build.Outside{Read: func(path string) ([]byte, error) {
		if data, ok := written[path]; ok {
			return data, nil
		}
		return nil, fs.ErrInvalid
	}}
}

func declarations(s *build.Snapshot) iter.Seq[*model.Declaration] {
	return func(yield func(*model.Declaration) bool) {
		for _, lib := range s.Project.Libraries {
			for _, m := range lib.Modules {
				for d := range m.Declarations {
					if !yield(d) {
						return
					}
				}
			}
		}
	}
}

// Every marked use leads to what it is marked with.
func TestLinks(t *testing.T) {
	paths, err := filepath.Glob("testdata/links/*.txt")
	require.NoError(t, err)
	total := 0
	for _, path := range paths {
		t.Run(strings.TrimSuffix(filepath.Base(path), ".txt"), func(t *testing.T) {
			files, defs, uses := unmarked(t, path)
			total += len(uses)
			l := &linked{names: map[*model.Declaration]string{}, at: map[markedPlace]string{}, elsewhere: map[string]string{}}
			set := settings.Default()
			outside := namedElsewhere(t, l, elsewhereFiles(files), defs)
			if outside.Read != nil {
				set.Elsewhere = []settings.Elsewhere{{Symbols: settings.Word{Text: "other"}}}
			}
			s, err := build.Run(t.Context(), files, build.Options{Settings: set, FrontEnds: languages.All, Folder: "m", Inside: true, Outside: outside})
			require.NoError(t, err)
			for d := range declarations(s) {
				for _, o := range d.Occurrences {
					for _, def := range defs {
						if def.file == o.File.Path && def.at == o.NameSpan.Start {
							l.names[d] = def.says
						}
					}
				}
			}
			for _, def := range defs {
				found := false
				for _, name := range l.names {
					found = found || name == def.says
				}
				for _, name := range l.elsewhere {
					found = found || name == def.says
				}
				assert.True(t, found, "%s: nothing is declared at the mark %q", def.file, def.says)
			}
			for _, lib := range s.Project.Libraries {
				for _, m := range lib.Modules {
					for _, f := range m.Files {
						l.uses(s, m, f)
					}
					for _, f := range m.AllFiles() {
						l.read(s, m, f)
					}
				}
			}
			for _, g := range s.Links.Guides() {
				l.references(s, g.Page.Path, g.Page.Text, g.Nodes, link.Scope{})
			}
			for _, use := range uses {
				got, ok := l.at[markedPlace{file: use.file, at: use.at}]
				if !ok {
					got = "nothing"
				}
				data := string(files[use.file].Data)
				line := 1 + strings.Count(data[:use.at], "\n")
				end := min(len(data), int(use.at)+40)
				assert.Equal(t, use.says, got, "%s:%d: %q", use.file, line, data[use.at:end])
			}
		})
	}
	t.Logf("%d marked uses", total)
}
