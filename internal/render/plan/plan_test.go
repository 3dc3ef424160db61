package plan_test

import (
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/model"
	"codrel/internal/render/plan"
	"codrel/internal/settings"
)

func planned(t *testing.T, files map[string]string) *plan.Plan {
	t.Helper()
	set := settings.Default()
	set.Reach = model.ReachPrivate
	s := buildtest.Run(t, buildtest.Files(files), build.Options{Settings: set, Folder: "project"})
	return plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1})
}

// addresses maps identifiers to addresses.
func addresses(p *plan.Plan) map[string]string {
	out := map[string]string{}
	for _, lib := range p.Links.Project.Libraries {
		for _, m := range p.Modules(lib.Library) {
			out[m.ID()] = plan.Module(m)
			for d := range m.Declarations {
				out[d.ID()] = plan.Declaration(d)
			}
		}
	}
	return out
}

const twinless = `package tide
type Berth struct{ Depth int }
func (Berth) Assign() {}
type PortCall int
type HTTPServer int
type URL int
type index int
type Con int
type Ärger int
type _hidden int
type Max_LEN int
func Make() {}
`

func TestAddresses(t *testing.T) {
	p := planned(t, map[string]string{"go.mod": "module tidebook.example/Engine", "tide/t.go": twinless})
	const folder = "reference/Engine/tidebook.example/Engine/tide/"
	got := addresses(p)
	want := map[string]string{
		"":            "index.html",
		"Berth":       "Berth.html",
		"Berth.Depth": "Berth.html#Depth", "Berth.Assign": "Berth.html#Assign",
		"PortCall": "PortCall.html", "HTTPServer": "HTTPServer.html", "URL": "URL.html",
		"index": "~index.html", "Con": "~Con.html", "Ärger": "~c4~rger.html", "_hidden": "~_hidden.html",
		"Max_LEN": "Max_LEN.html", "Make": "index.html#Make",
	}
	for path, address := range want {
		id := "Engine/tidebook.example/Engine/tide"
		if path != "" {
			id += "#" + path
		}
		assert.Equal(t, folder+address, got[id], path)
	}
}

// No anchor has a blank, which HTML's "id" may not hold, and none is another's.
func TestAddressesOfNamesWithBlanks(t *testing.T) {
	got := addresses(planned(t, map[string]string{
		"package.json": `{"name": "port"}`, "berth.ts": "export interface Berth {\n\t\"a b\": 1\n\t\"c d\": 1\n\tc_d: 1\n}\n",
		"Tide.cs": "namespace Tide;\npublic class Row { public static bool operator ==(Row a, Row b) => true; }\n",
	}))
	for name, address := range map[string]string{"a b": "a_b", "c d": "c\u2423d", "c_d": "c_d"} {
		assert.Equal(t, "reference/port/berth/Berth.html#"+address, got["port/berth#Berth."+name])
	}
	assert.Contains(t, slices.Collect(maps.Values(got)), "reference/project/Tide/Row.html#operator_==")
}

// TestTwins adds a declaration that differs by case beside every one: no page may
// move, and those that fall together where case is folded are one page with all.
func TestTwins(t *testing.T) {
	twins := twinless + `
type berth struct{}
type BERTH struct{}
type BeRTh struct{}
type Portcall int
type portCall int
type PORTCALL int
type HttpServer int
type HTTPserver int
type url int
type Url int
type Index int
type INDEX int
type con int
type CON int
type max_LEN int
type Max_Len int
type MAX_LEN int
func make() {}
`
	before := addresses(planned(t, map[string]string{"go.mod": "module a", "tide/t.go": twinless}))
	p := planned(t, map[string]string{"go.mod": "module a", "tide/t.go": twins})
	after := addresses(p)
	for id, address := range before {
		assert.Equal(t, address, after[id], id)
	}
	seen := map[string]*plan.Page{}
	for _, page := range p.Pages() {
		folded := strings.ToLower(page.Address)
		if first := seen[folded]; first != nil {
			assert.Same(t, first, page.Same, "%s and %s share a file where case is folded", page.Address, first.Address)
			assert.Equal(t, first.Twins, page.Twins)
			continue
		}
		seen[folded] = page
		name := strings.TrimSuffix(folded[strings.LastIndexByte(folded, '/')+1:], ".html")
		assert.NotContains(t, []string{"con", "aux", "nul"}, name)
	}
}

func TestRelative(t *testing.T) {
	for _, c := range []struct{ from, to, want string }{
		{"index.html", "a/b.html", "a/b.html"},
		{"a/b.html", "index.html", "../index.html"},
		{"a/b.html", "a/c.html#x", "c.html#x"},
		{"a/b.html", "a/b.html#x", "#x"},
		{"a/b.html", "a/b.html", "b.html"},
		{"a/b/c.html", "a/d/e.html", "../d/e.html"},
	} {
		assert.Equal(t, c.want, plan.Relative(c.from, c.to), c)
	}
	assert.Equal(t, "../../", plan.Root("a/b/c.html"))
}

func TestGroups(t *testing.T) {
	p := planned(t, map[string]string{"go.mod": "module a", "t.go": `package a
var V int
//codrel:part Looking around
func B() {}
func A() {}
type T int
// Old is gone.
//
// Deprecated: use A.
func Old() {}
const _ = 1
`})
	var got []string
	for _, g := range plan.Groups(p.Top(p.Links.Project.Libraries[0].Modules[0]), p.Links.ShownKind) {
		line := g.Title + ":"
		for _, d := range g.Declarations {
			line += " " + d.Name
		}
		for _, d := range g.Deprecated {
			line += " -" + d.Name
		}
		got = append(got, line)
	}
	assert.Equal(t, []string{"Looking around: B", "Types: T", "Functions: A -Old", "Variables: V"}, got)
}

func TestLongIndexIsCut(t *testing.T) {
	var b strings.Builder
	b.WriteString("package a\n")
	for i := range 2000 {
		b.WriteString("var " + string(rune('A'+i%26)) + strings.Repeat("x", i/26) + "y int\n")
	}
	p := planned(t, map[string]string{"go.mod": "module a", "t.go": b.String()})
	require.Len(t, p.Letters(), 27)
	assert.Empty(t, p.Letters()[0].Entries)
	n := 0
	for _, page := range p.Letters() {
		n += len(page.Entries)
	}
	assert.Equal(t, 2001, n, "all names and the module")
}

// TestLongAddresses makes addresses of names that are longer than those of files may be: they
// begin as the name does, end in a sum of all of it, and differ where names do.
func TestLongAddresses(t *testing.T) {
	long := strings.Repeat("Harbour", 40)
	p := planned(t, map[string]string{
		"go.mod":    "module tidebook.example/" + strings.Repeat("deep/", 400) + "engine",
		"tide/t.go": "package tide\ntype " + long + " struct{ Depth int }\ntype " + long + "s struct{}\ntype Harbour struct{}\n",
	})
	seen := map[string]bool{}
	for _, page := range p.Pages() {
		assert.False(t, seen[page.Address], page.Address)
		seen[page.Address] = true
		assert.Less(t, len(page.Address), 1200)
		for part := range strings.SplitSeq(page.Address, "/") {
			assert.Less(t, len(part), 200)
		}
	}
	var types []string
	for id, address := range addresses(p) {
		if strings.HasSuffix(id, long) || strings.HasSuffix(id, long+"s") {
			types = append(types, address)
			assert.Regexp(t, `/(Harbour)+[A-Za-z]*~[0-9a-f]{16}\.html$`, address)
		}
	}
	require.Len(t, types, 2)
	assert.NotEqual(t, types[0], types[1])
}
