package link_test

import (
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/comment"
	"codrel/internal/languages"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/settings"
)

// read runs the pipeline on the files of an archive.
func read(t testing.TB, archive *txtar.Archive, reach model.Reach) *build.Snapshot {
	t.Helper()
	set := settings.Default()
	set.Reach = reach
	return buildtest.Run(t, buildtest.Archive(archive), build.Options{Settings: set, Folder: "project"})
}

var (
	declares = regexp.MustCompile(`/\*=@([a-z]+)\*/`)
	uses     = regexp.MustCompile(`\(@([^)]*)\)`)
)

// TestMarks checks every marked use of the fixtures.
func TestMarks(t *testing.T) {
	files, err := filepath.Glob("testdata/*.txt")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	for _, name := range files {
		t.Run(filepath.Base(name), func(t *testing.T) {
			archive, err := txtar.ParseFile(name)
			require.NoError(t, err)
			marked(t, read(t, archive, model.ReachPrivate))
		})
	}
}

func marked(t *testing.T, s *build.Snapshot) {
	declared := map[string]*model.Declaration{}
	each(s, func(d *model.Declaration) {
		at := d.Speaks(model.Words)
		before := at.File.Text[:at.NameSpan.Start]
		if all := declares.FindAllStringSubmatchIndex(before, -1); len(all) > 0 {
			if last := all[len(all)-1]; last[1] == len(before) {
				declared[before[last[2]:last[3]]] = d
			}
		}
	})
	count := 0
	check := func(scope link.Scope, language string, doc *model.Doc, where string) {
		if doc == nil {
			return
		}
		sections := comment.Read(languages.ByName(language).Habits(), doc, nil)
		var marks []string
		for _, m := range uses.FindAllStringSubmatch(doc.Text, -1) {
			marks = append(marks, m[1])
		}
		found := references(sections)
		require.Len(t, found, len(marks), "%s: every mark stands behind one reference", where)
		for i, n := range found {
			count++
			assert.Equal(t, marks[i], leads(s.Links, scope, n, declared), "%s: %s", where, n.Target)
		}
	}
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for _, doc := range m.Doc {
				check(link.Scope{Module: m, File: doc.File}, lib.Language, doc.Doc, m.Path)
			}
		}
	}
	each(s, func(d *model.Declaration) {
		check(link.ScopeOf(d), d.Module.Library.Language, d.Speaks(model.Words).Doc, d.ID())
	})
	assert.Greater(t, count, 40, "the fixture has marked uses")
}

func each(s *build.Snapshot, visit func(*model.Declaration)) {
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for d := range m.Declarations {
				visit(d)
			}
		}
	}
}

// references are the references of a comment in the order of the text.
func references(s *comment.Sections) []*prose.Node {
	var out []*prose.Node
	for nodes := range s.All {
		prose.Walk(nodes, func(n *prose.Node) bool {
			if n.Kind == prose.Reference {
				out = append(out, n)
			}
			return true
		})
	}
	return out
}

func leads(x *link.Index, scope link.Scope, n *prose.Node, declared map[string]*model.Declaration) string {
	how := link.Bracketed
	if n.Strict {
		how = link.Explicit
	}
	r := x.Resolve(scope, n.Target, how)
	switch {
	case r.Outcome == link.External:
		return "beyond"
	case r.Outcome == link.Ambiguous:
		return "ambiguous"
	case r.Outcome == link.Missing:
		return "-"
	case r.Target.Module != nil:
		return r.Target.Module.Name + " module"
	}
	for name, d := range declared {
		if d == r.Target.Declaration {
			return name
		}
	}
	return r.Target.Declaration.ID()
}

const relationSource = `
-- go.mod --
module tidebook.example/engine
-- berth/berth.go --
package berth

import (
	"io"
	"context"
	"tidebook.example/engine/tide"
)

type Berth interface {
	Title() string
	Deep(ctx context.Context, h tide.Height) (float64, error)
}
type Named interface{ Title() string }
type Both interface { Berth; Named }
type Foreign interface { io.Closer; Title() string }
type Fails interface { error }
type Hidden interface { Title() string; secret() }
type Constraint interface { ~int; Title() string }

type Quay struct{ title }
func (q *Quay) Deep(c context.Context, height tide.Level) (metres float64, err error) { return 0, nil }
type title struct{}
func (title) Title() string { return "" }

type Wrong struct{ title }
func (Wrong) Deep(c context.Context, h float64) (float64, error) { return 0, nil }

type Fault struct{}
func (Fault) Error() string { return "" }

type Lock struct{ io.Closer }
func (Lock) Title() string { return "" }

type Box[T any] struct{}
func (Box[T]) Put(v T) {}
type Putter[V any] interface{ Put(v V) }

type Loop struct{ *Loop; *Pool }
type Pool struct{ *Loop }

func NewQuay() (*Quay, error) { return nil, nil }
func Moor(q Quay, all ...Berth) map[string][]tide.Height { return nil }
func (q *Quay) Same(other *Quay) {}
-- tide/tide.go --
package tide

type Height float64
type Level = Height
`

func TestRelations(t *testing.T) {
	s := read(t, txtar.Parse([]byte(relationSource)), model.ReachPublic)
	paths := func(list []*model.Declaration) (out []string) {
		for _, d := range list {
			out = append(out, d.Path())
		}
		return out
	}
	find := func(path string) *link.Relations {
		module, name, _ := strings.Cut(path, ".")
		for _, m := range s.Project.Libraries[0].Modules {
			if m.Name == module {
				d := m.Lookup(name)
				require.NotNil(t, d, path)
				return s.Links.Relations(d)
			}
		}
		t.Fatal("no module", module)
		return nil
	}
	assert.Equal(t, []string{"Berth", "Both", "Named"}, paths(find("berth.Quay").Implements))
	assert.Equal(t, []string{"Named"}, paths(find("berth.Wrong").Implements), "the parameter's type differs")
	assert.Equal(t, []string{"Fails"}, paths(find("berth.Fault").Implements))
	assert.Equal(t, []string{"Named"}, paths(find("berth.Lock").Implements), "what is embedded from outside makes no claim")
	assert.Equal(t, []string{"Putter"}, paths(find("berth.Box").Implements))
	assert.Empty(t, find("berth.Hidden").ImplementedBy)
	assert.Empty(t, find("berth.Constraint").ImplementedBy)
	assert.Equal(t, []string{"Lock", "Quay", "Wrong"}, paths(find("berth.Named").ImplementedBy))
	assert.Equal(t, []string{"Both"}, paths(find("berth.Berth").EmbeddedIn))
	assert.Equal(t, []string{"Moor"}, paths(find("berth.Berth").TakenBy))
	assert.Equal(t, []string{"Moor"}, paths(find("berth.Quay").TakenBy), "not by its own methods")
	assert.Equal(t, []string{"NewQuay"}, paths(find("berth.Quay").ReturnedBy))
	assert.Equal(t, []string{"Berth.Deep", "Moor"}, paths(slices.Concat(find("tide.Height").TakenBy, find("tide.Height").ReturnedBy)))
	assert.Equal(t, []string{"Pool"}, paths(find("berth.Loop").Embeds), "a circle of types ends")
}

func TestNear(t *testing.T) {
	s := read(t, txtar.Parse([]byte(relationSource)), model.ReachPublic)
	var berth *model.Module
	for _, m := range s.Project.Libraries[0].Modules {
		if m.Name == "berth" {
			berth = m
		}
	}
	from := link.ScopeOf(berth.Lookup("Quay"))
	for written, want := range map[string]string{
		"Quai": "Quay", "Quay.Deap": "Quay.Deep", "tide.Hight": "tide.Height", "berth.Quai": "berth.Quay",
		"tidebook.example/engine/tide.Hight": "tidebook.example/engine/tide.Height",
		"titel":                              "Title", "Hidden.secrt": "", "Zebra": "", "Qay.Deep": "Quay.Deep",
	} {
		assert.Equal(t, want, s.Links.Near(from, written), written)
	}
	assert.Equal(t, "Quay.Deep", s.Links.Near(link.Scope{}, "Quay.Deap"))
	assert.Equal(t, "berth.Moor", s.Links.Near(link.Scope{}, "berth.Mor"))
}

// A type that may be one of several has the members of none of them; references find them.
func TestUnions(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"package.json": `{"name": "port", "main": "index.ts"}`,
		"index.ts": "export interface Berth { depth: number }\nexport interface Quay { length: number }\n" +
			"export type Either = Berth | Quay;\nexport type Both = Berth & Quay;\nexport type Maybe = Berth | null;\n",
	}), build.Options{Folder: "port"})
	m := s.Project.Libraries[0].Modules[0]
	bases := func(name string) (out []string) {
		for _, from := range s.Links.Inherited(m.Lookup(name)) {
			out = append(out, from.Base.Name)
		}
		return out
	}
	assert.Equal(t, []string{"Berth", "Quay"}, bases("Both"))
	assert.Empty(t, bases("Either"))
	assert.Empty(t, bases("Maybe"))
	for _, name := range []string{"Either.depth", "Either.length", "Both.length"} {
		assert.Equal(t, link.Found, s.Links.Resolve(link.Scope{Module: m}, name, link.Explicit).Outcome, name)
	}
	assert.Equal(t, link.Missing, s.Links.Resolve(link.Scope{Module: m}, "Either.width", link.Explicit).Outcome)
}

// An interface that lists terms has the methods of none of them, and nobody fulfils it.
func TestTermsOfInterfaces(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"go.mod": "module port.example",
		"a.go": `package port

type Set[T comparable] map[T]struct{}

func (Set[T]) All() {}

type Terms interface{ Set[int] | ~[]int }

type Whole interface{ Moorer }

type Moorer interface{ Moor() }

type Berth struct{}

func (Berth) Moor() {}
`,
	}), build.Options{Folder: "port"})
	m := buildtest.Module(t, s, "port.example")
	inherits := func(name string) (out []string) {
		for _, from := range s.Links.Inherited(m.Lookup(name)) {
			for _, member := range from.Members {
				out = append(out, member.Path())
			}
		}
		return out
	}
	assert.Empty(t, inherits("Terms"))
	assert.Equal(t, []string{"Moorer.Moor"}, inherits("Whole"))
	var fulfilled []string
	for _, of := range s.Links.Relations(m.Lookup("Berth")).Implements {
		fulfilled = append(fulfilled, of.Name)
	}
	assert.ElementsMatch(t, []string{"Moorer", "Whole"}, fulfilled)
}
