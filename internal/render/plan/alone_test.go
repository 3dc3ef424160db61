package plan_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/model"
	"codrel/internal/render/plan"
)

// kinds are the words for kinds of pages.
var kinds = map[plan.Kind]string{
	plan.HomePage: "home", plan.LibraryPage: "library", plan.ModulePage: "module", plan.TypePage: "type", plan.TreePage: "tree",
	plan.IndexPage: "index", plan.LostPage: "lost", plan.GonePage: "deprecated", plan.SourcePage: "source", plan.UsersPage: "users",
	plan.NamesPage: "names", plan.WholePage: "whole", plan.RelatedPage: "related", plan.DetailsPage: "details",
	plan.FindingsPage: "findings", plan.CoveragePage: "coverage",
}

// everyKind is a project whose site has pages of every kind.
func everyKind() map[string]string {
	var heavy, many, users strings.Builder
	heavy.WriteString("// Package heavy has more than a page holds.\npackage heavy\n\n")
	for i := range 3000 {
		fmt.Fprintf(&heavy, "// F%d does something for somebody who asks.\n//\n// It says more, %s.\nfunc F%d(a, b string) (int, error) { return 0, nil }\n\n", i, strings.Repeat("and more ", 20), i)
	}
	many.WriteString("// Package many has a type that many take.\npackage many\n\n// Tide is taken.\ntype Tide int\n\n// Gone is old.\n//\n// Deprecated: use Tide.\ntype Gone int\n\n")
	for i := range 60 {
		fmt.Fprintf(&many, "// Take%d takes.\nfunc Take%d(t Tide) {}\n\n", i, i)
	}
	users.WriteString("// Package users uses.\npackage users\n\nimport \"port.example/many\"\n\n")
	for i := range 12 {
		fmt.Fprintf(&users, "// U%d uses.\nvar U%d = many.Tide(%d)\n\n", i, i, i)
	}
	return map[string]string{
		"go.mod": "module port.example\n", "README.md": "# Port\n\nAll of it.\n",
		"heavy/heavy.go": heavy.String(), "many/many.go": many.String(), "users/users.go": users.String(),
		"twins/twins.go":    "// Package twins has two of a name.\npackage twins\n\n// Matrix is one.\ntype Matrix int\n\n// Rows is how many.\nfunc (Matrix) Rows() int { return 0 }\n\n// MATRIX is another.\ntype MATRIX int\n",
		"clients/setup.cfg": "[metadata]\nname = clients\n", "clients/berth.py": "\"\"\"Berths.\"\"\"\n\n\nclass Berth:\n    \"\"\"A berth.\"\"\"\n\n    def moor(self):\n        \"\"\"Moors.\"\"\"\n",
	}
}

func everything(t *testing.T) (*build.Snapshot, *plan.Plan) {
	t.Helper()
	s := buildtest.Run(t, buildtest.Files(everyKind()), build.Options{Folder: "port", Inside: true})
	return s, planOf(s)
}

func planOf(s *build.Snapshot) *plan.Plan {
	return plan.New(s.Links, plan.Options{
		Source: plan.FullSource, Findings: plan.FindingsOnPage + 1, Coverage: true, Workers: 2,
		Whole: func(module string) bool { return strings.HasSuffix(module, "twins") },
	})
}

// A page that is asked for alone is the one that the plan of all has, and so are its
// neighbours; asking for one makes no difference to the others.
func TestPageAlone(t *testing.T) {
	s, all := everything(t)
	seen := map[plan.Kind]int{}
	for _, page := range all.Pages() {
		seen[page.Kind]++
		if seen[page.Kind] > 40 {
			continue // of this kind there are enough
		}
		alone := planOf(s)
		got := alone.PageAt(page.Address)
		require.NotNil(t, got, page.Address)
		assert.Equal(t, told(all, page), told(alone, got), page.Address)
	}
	for kind, word := range kinds {
		assert.Positive(t, seen[kind], "the project has a page of the kind %s", word)
	}
	for _, address := range []string{"", ".", "nothing.html", "reference/none/index.html", "reference/port.example/nothing/index.html", "reference", "source/none.go.html", "a-z/none.html", "findings-9.html"} {
		assert.Nil(t, planOf(s).PageAt(address), address)
	}
}

// told is all that a page says of itself and its neighbours.
func told(p *plan.Plan, page *plan.Page) string {
	var b strings.Builder
	fmt.Fprintln(&b, kinds[page.Kind], page.Address, page.Title, page.Part, page.Letter, len(page.Entries), page.Same != nil)
	if page.Module != nil {
		fmt.Fprintln(&b, "module", page.Module.Path)
	}
	if page.Type != nil {
		fmt.Fprintln(&b, "type", page.Type.ID())
	}
	if page.File != nil {
		fmt.Fprintln(&b, "file", page.File.Path)
	}
	for _, d := range append(slices.Clone(page.Names), page.Twins...) {
		fmt.Fprintln(&b, "of", d.ID(), p.Declaration(d), p.Line(d), p.Away(d))
	}
	before, after := p.Around(page)
	for _, neighbour := range []*plan.Page{before, after} {
		if neighbour != nil {
			fmt.Fprintln(&b, "beside", neighbour.Address, neighbour.Title)
		}
	}
	return b.String()
}

// The pages of the reference are read one after the other: each is behind the one before
// it, from the first library to the last type.
func TestReadingOrder(t *testing.T) {
	_, p := everything(t)
	var chain, want []string
	for _, page := range p.Pages() {
		switch page.Kind {
		case plan.LibraryPage, plan.ModulePage, plan.TypePage:
			if page.Same == nil {
				want = append(want, page.Address)
			}
		}
	}
	first := p.PageAt(want[0])
	before, _ := p.Around(first)
	assert.Nil(t, before, "nothing is read before the first")
	for page := first; page != nil; {
		chain = append(chain, page.Address)
		require.LessOrEqual(t, len(chain), len(want), "no circle")
		_, after := p.Around(page)
		if after != nil {
			back, _ := p.Around(after)
			require.NotNil(t, back)
			assert.Equal(t, page.Address, back.Address, "the way back from %s", after.Address)
		}
		page = after
	}
	assert.Equal(t, want, chain)
	for _, page := range p.Pages() {
		switch page.Kind {
		case plan.HomePage, plan.TreePage, plan.IndexPage, plan.SourcePage, plan.UsersPage, plan.LostPage, plan.GonePage:
			before, after := p.Around(page)
			assert.Nil(t, before, page.Address)
			assert.Nil(t, after, page.Address)
		}
	}
}

// Details are read in turn behind the page that they belong to.
func TestDetailsAreReadInTurn(t *testing.T) {
	s, p := everything(t)
	heavy := buildtest.Module(t, s, "port.example/heavy")
	address := plan.Module(heavy)
	first := p.PageAt(strings.TrimSuffix(address, "index.html") + "~details-1.html")
	require.NotNil(t, first)
	before, second := p.Around(first)
	assert.Equal(t, address, before.Address)
	require.NotNil(t, second)
	back, _ := p.Around(second)
	assert.Equal(t, first.Address, back.Address)

	shown := map[*model.Declaration]bool{}
	for page := first; page != nil; {
		for _, d := range page.Names {
			assert.False(t, shown[d], "%s is on one page", d.ID())
			shown[d] = true
			assert.Equal(t, page.Address, p.Away(d))
			assert.True(t, strings.HasPrefix(p.Declaration(d), page.Address+"#"))
		}
		_, page = p.Around(page)
	}
	assert.Len(t, shown, 3000, "none is lost")
	groups := p.GroupsOf(heavy)
	require.Len(t, groups, 1)
	assert.True(t, p.InLines(groups[0].Details()))
}

// Two types whose names differ by case alone share a page, which each address has.
func TestTwinsAlone(t *testing.T) {
	s, p := everything(t)
	m := buildtest.Module(t, s, "port.example/twins")
	a, b := m.Lookup("Matrix"), m.Lookup("MATRIX")
	first, second := p.PageAt(p.PageOf(a)), p.PageAt(p.PageOf(b))
	require.NotNil(t, first)
	require.NotNil(t, second)
	assert.NotEqual(t, first.Address, second.Address)
	assert.Equal(t, first.Twins, second.Twins)
	assert.Len(t, first.Twins, 2)
	assert.True(t, (first.Same == nil) != (second.Same == nil), "one of them has the text")
	assert.True(t, strings.HasSuffix(p.Declaration(m.Lookup("Matrix.Rows")), "#Matrix.Rows"), "anchors there tell the types apart")
}

func TestUsersAlone(t *testing.T) {
	s, p := everything(t)
	many := buildtest.Module(t, s, "port.example/many")
	tide := many.Lookup("Tide")
	users, list := p.Users(tide)
	require.NotNil(t, users)
	assert.Equal(t, 72, users.Lines)
	assert.Equal(t, 2, users.Count)
	assert.Equal(t, p.UsersOfModule(many)+"#Tide", list)
	page := p.PageAt(p.UsersOfModule(many))
	require.NotNil(t, page)
	assert.Contains(t, page.Names, tide)
	none, list := p.Users(many.Lookup("Take3"))
	assert.Nil(t, none, "nobody uses it")
	assert.Empty(t, list)
	assert.Empty(t, p.UsersOfModule(buildtest.Module(t, s, "port.example/heavy")))

	bare := plan.New(s.Links, plan.Options{Source: plan.Signatures, Findings: -1})
	none, list = bare.Users(tide)
	assert.Nil(t, none, "without the bodies there is nothing to lead to")
	assert.Empty(t, list)
}

func TestRelatedAlone(t *testing.T) {
	s, p := everything(t)
	tide := buildtest.Module(t, s, "port.example/many").Lookup("Tide")
	page := p.PageAt(p.Related(tide))
	require.NotNil(t, page)
	assert.Equal(t, tide, page.Type)
	relations := p.Relations(tide)
	require.Len(t, relations, 1)
	assert.Equal(t, "taken", relations[0].Key)
	assert.Len(t, relations[0].Names, 60)
	gone := buildtest.Module(t, s, "port.example/many").Lookup("Gone")
	assert.Empty(t, p.Relations(gone))
	assert.Nil(t, p.PageAt(p.Related(gone)), "what has room on its page has no other")
}

func TestSourceAlone(t *testing.T) {
	s, p := everything(t)
	heavy := buildtest.Module(t, s, "port.example/heavy")
	f := heavy.Files[0]
	parts := p.SourceParts(f)
	require.Greater(t, len(parts), 1)
	for i, first := range parts {
		address := p.SourcePart(f, i)
		page := p.PageAt(address)
		require.NotNil(t, page, address)
		assert.Equal(t, i, page.Part)
		assert.Equal(t, fmt.Sprintf("%s#L%d", address, first), p.SourceLine(f, int(first)))
	}
	assert.Equal(t, p.SourceLine(f, 1), p.SourceFile("heavy/heavy.go", 1))
	assert.Equal(t, p.SourceFile("heavy/heavy.go", 1), p.SourceFile("heavy/heavy.go", -5))
	assert.Empty(t, p.SourceFile("none.go", 1))
	assert.Empty(t, plan.New(s.Links, plan.Options{Findings: -1}).SourceFile("heavy/heavy.go", 1), "no source is shown")
}

// What is deprecated has a page only where there is something.
func TestDeprecatedAlone(t *testing.T) {
	_, p := everything(t)
	require.NotNil(t, p.PageAt(plan.GoneAddress))
	require.Len(t, p.Deprecated(), 1)
	assert.Equal(t, "Gone", p.Deprecated()[0].Name)
	files := everyKind()
	delete(files, "many/many.go")
	without := planOf(buildtest.Run(t, buildtest.Files(files), build.Options{Folder: "port"}))
	assert.Nil(t, without.PageAt(plan.GoneAddress))
}

func TestSiblings(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"go.mod": "module port.example\n", "a.go": "package port\n", "tide/t.go": "package tide\n", "tide/moon/m.go": "package moon\n",
		"tide/sun/s.go": "package sun\n", "berth/b.go": "package berth\n", "berth/quay/deep/d.go": "package deep\n",
	}), build.Options{Folder: "port"})
	p := plan.New(s.Links, plan.Options{Findings: -1})
	paths := func(list []*model.Module) (out []string) {
		for _, m := range list {
			out = append(out, strings.TrimPrefix(m.Path, "port.example"))
		}
		return out
	}
	for path, want := range map[string][2][]string{
		"port.example":                 {{""}, {"/berth", "/tide"}},
		"port.example/tide":            {{"/berth", "/tide"}, {"/tide/moon", "/tide/sun"}},
		"port.example/tide/moon":       {{"/tide/moon", "/tide/sun"}, nil},
		"port.example/berth/quay/deep": {{"/berth/quay/deep"}, nil},
		"port.example/berth":           {{"/berth", "/tide"}, nil},
	} {
		beside, below := p.Siblings(buildtest.Module(t, s, path))
		assert.Equal(t, want, [2][]string{paths(beside), paths(below)}, path)
	}
}

func TestNoPagesOutOfReach(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"go.mod": "module port.example\n", "internal/i.go": "// Package internal is kept.\npackage internal\n\n// T is.\ntype T int\n",
		"a.go": "// Package port is one.\npackage port\n\ntype kept int\n\n// Berth is one.\ntype Berth struct{}\n",
	}), build.Options{Folder: "port"})
	p := plan.New(s.Links, plan.Options{Findings: -1})
	inner, own := buildtest.Module(t, s, "port.example/internal"), buildtest.Module(t, s, "port.example")
	assert.Nil(t, p.PageAt(plan.Module(inner)))
	assert.Nil(t, p.PageAt(plan.PageOf(inner.Lookup("T"))))
	assert.Nil(t, p.PageAt(plan.PageOf(own.Lookup("kept"))))
	require.NotNil(t, p.PageAt(plan.PageOf(own.Lookup("Berth"))))
	assert.Len(t, p.Top(own), 1)
	assert.Empty(t, p.UsersOfModule(inner), "what has no page is asked nothing")
	assert.Empty(t, p.Whole(inner))
}
