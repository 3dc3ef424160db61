package link_test

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/languages"
	"codrel/internal/model"
)

// deep runs the pipeline on files, bodies included.
func deep(t testing.TB, files map[string]string) *build.Snapshot {
	t.Helper()
	fsys := buildtest.Files(files)
	fsys["go.mod"] = &fstest.MapFile{Data: []byte("module a.example/m\n")}
	return buildtest.Run(t, fsys, build.Options{Folder: "m", Inside: true})
}

const harbour = `package harbour

// Harbour holds quays.
type Harbour struct {
	Name string
	Inner
}

// Inner is embedded.
type Inner struct{ Depth int }

// Sound measures.
func (Inner) Sound() int { return 0 }

type hidden struct{}

// Default is a harbour.
var Default = Harbour{Name: "x"}

// List is no struct.
type List map[string]int

const Key = "k"
`

func TestUses(t *testing.T) {
	s := deep(t, map[string]string{"harbour/harbour.go": harbour, "use/use.go": `package use

import (
	"fmt"

	here "a.example/m/harbour"
)

func F(h *here.Harbour) {
	h.Name = "y"; h.Sound(); h.Depth++; h.Gone()
	here.Default.Sound()
	_ = here.Harbour{Name: "z", Gone: 1}
	_ = here.Inner.Sound
	fmt.Println(here.Gone, F)
}
`, "harbour/more.go": `package harbour

var l = List{Key: 1}

func g(h hidden) { g(h); Default.Sound() }
`})
	got := map[string]string{}
	for _, m := range s.Project.Libraries[0].Modules {
		for _, f := range m.Files {
			uses := s.Links.Uses(m, f)
			for span, i := range uses.All() {
				got[f.Path] += fmt.Sprintf("%d:%s>%s ", f.Lines.Line(span.Start), span.In(f.Text), uses.Targets[i].Declaration.Path())
			}
		}
	}
	assert.Equal(t, []string{"9:here.Harbour>Harbour", "10:Name>Harbour.Name", "10:Sound>Inner.Sound", "10:Depth>Inner.Depth",
		"11:here.Default>Default", "12:here.Harbour>Harbour", "12:Name>Harbour.Name", "13:here.Inner>Inner", "14:F>F"}, strings.Fields(got["use/use.go"]))
	assert.Equal(t, []string{"3:List>List", "3:Key>Key", "5:hidden>hidden", "5:g>g", "5:Default>Default"}, strings.Fields(got["harbour/more.go"]))
}

func TestUsers(t *testing.T) {
	files := map[string]string{"harbour/harbour.go": harbour}
	for i := range 60 {
		files[fmt.Sprintf("p%02d/p.go", i)] = "package p\n\nimport \"a.example/m/harbour\"\n\nvar _, X = harbour.Key, harbour.Key\n" + strings.Repeat("var _ = harbour.Key\n", 20)
	}
	files["harbour/own.go"] = "package harbour\n\nvar own = Key\n"
	s := deep(t, files)
	var m *model.Module
	for _, other := range s.Project.Libraries[0].Modules {
		if other.Name == "harbour" {
			m = other
		}
	}
	u := s.Links.Users(m.Lookup("Key"))
	require.NotNil(t, u)
	assert.Equal(t, 61, u.Count)
	assert.Equal(t, 60*21+1, u.Lines)
	require.Len(t, u.Files, 50, "more are counted only")
	assert.Equal(t, "harbour/own.go", u.Files[0].File.Path, "its own module comes first")
	assert.Equal(t, "p00/p.go", u.Files[1].File.Path)
	assert.Equal(t, []int32{5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16}, u.Files[1].Lines)
	assert.Equal(t, 21, u.Files[1].Count, "a line counts once")
	assert.Nil(t, s.Links.Users(m.Lookup("hidden")), "what is out of reach is not asked for")
	assert.Nil(t, s.Links.Users(m.Lookup("Default")))
}

// Users that are found for one module are those that are found for all. It reads a part of
// Go's own tree, and the trees that CODREL_TREES lists.
func TestUsersOfOneModule(t *testing.T) {
	goroot, err := exec.Command("go", "env", "GOROOT").Output()
	require.NoError(t, err)
	trees := []string{filepath.Join(strings.TrimSpace(string(goroot)), "src", "go")}
	for _, tree := range append(trees, filepath.SplitList(os.Getenv("CODREL_TREES"))...) {
		t.Run(filepath.Base(tree), func(t *testing.T) {
			root, err := os.OpenRoot(tree)
			require.NoError(t, err)
			defer root.Close()
			s, err := build.Link(t.Context(), root.FS(), build.Options{FrontEnds: languages.All, Folder: "tree", Inside: true})
			require.NoError(t, err)
			anew, err := build.Link(t.Context(), root.FS(), build.Options{FrontEnds: languages.All, Folder: "tree", Inside: true})
			require.NoError(t, err)
			anew.Links.FindUsers()
			want, n := usersByID(anew), 0
			for id, got := range usersByID(s) {
				require.Equal(t, want[id], got, id)
				if got != "" {
					n++
				}
			}
			require.Positive(t, n)
			t.Logf("%d declarations with users", n)
		})
	}
}

// usersByID says of each declaration where it is used.
func usersByID(s *build.Snapshot) map[string]string {
	out := map[string]string{}
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for d := range s.Links.OnPagesOf(m) {
				said := ""
				if u := s.Links.Users(d); u != nil {
					said = fmt.Sprint(u.Count, u.Lines)
					for _, f := range u.Files {
						said += fmt.Sprint(" ", f.File.Path, f.Count, f.Lines)
					}
				}
				out[d.ID()] += said
			}
		}
	}
	return out
}
