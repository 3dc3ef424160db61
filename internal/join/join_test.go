package join_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/join"
	"codrel/internal/lang/golang"
	"codrel/internal/lang/langtest"
	"codrel/internal/model"
)

// joined reads the files, given as path and text in turn, and joins them.
func joined(t *testing.T, files ...string) *model.Contents {
	t.Helper()
	lib := &model.Contents{Library: &model.Library{Name: "engine", Language: "go", Root: ".", Prefix: "engine"}}
	for i := 0; i < len(files); i += 2 {
		facts := langtest.Read(golang.FrontEnd{}, files[i], []byte(files[i+1]))
		lib.Files = append(lib.Files, facts)
	}
	join.Library(lib, golang.FrontEnd{})
	return lib
}

func find(t *testing.T, lib *model.Contents, path string) *model.Declaration {
	t.Helper()
	d := lib.Modules[0].Lookup(path)
	require.NotNil(t, d, path)
	return d
}

func TestBuildVariantsAreOneDeclaration(t *testing.T) {
	lib := joined(t,
		"a_linux.go", "package a\nfunc Open(name string) int { return 0 }",
		"a_plan9.go", "package a\n\n// Open is documented for one system.\nfunc Open(fd int) error { return nil }",
		"a_windows.go", "package a\n\n// Open is documented again.\nfunc Open() {}")
	d := find(t, lib, "Open")
	require.Len(t, d.Occurrences, 3)
	assert.Equal(t, "a_plan9.go", d.Speaks(model.Words).File.Path, "the first with a comment speaks for all")
	assert.Equal(t, []string{"plan9"}, d.Speaks(model.Words).File.Conditions)
	assert.Len(t, lib.Modules[0].Top, 1)
}

func TestSayingsOfFilesAreTheLibrarys(t *testing.T) {
	lib := joined(t, "a.go", "package a", "b.go", "package a", "c_test.go", "package a")
	said := func(names ...string) []model.Saying { return []model.Saying{{Key: model.LetsIn, Names: names}} }
	lib.Library.Sayings = said("tests")
	lib.Files[0].Sayings, lib.Files[1].Sayings, lib.Files[2].Sayings = said("bench"), said("tests", "probe"), said("no")
	join.Library(lib, golang.FrontEnd{})
	assert.Equal(t, said("tests", "bench", "probe"), lib.SaidOf(""), "each once, and none of a test's")
	lib.Files[0].Sayings, lib.Files[1].Sayings = nil, nil
	join.Library(lib, golang.FrontEnd{})
	assert.Equal(t, said("tests"), lib.Said(), "files that say it no more take it back")
}

func TestMethodsFindTheirTypeInAnotherFile(t *testing.T) {
	lib := joined(t, "m.go", "package a\nfunc (b *Berth) Assign() {}\nfunc (g gone) Lost() {}", "t.go", "package a\ntype Berth struct{ Name string }")
	berth := find(t, lib, "Berth")
	var members []string
	for _, m := range berth.Members {
		members = append(members, m.Name)
		assert.Same(t, berth, m.Parent)
	}
	assert.Equal(t, []string{"Assign", "Name"}, members, "in the order of files and lines")
	lost := find(t, lib, "gone.Lost")
	assert.Nil(t, lost.Parent, "its type is not declared here")
	assert.Contains(t, lib.Modules[0].Top, lost)
}

func TestVisibilityIsTheLeastAround(t *testing.T) {
	files := []string{"a.go", "package a\ntype Open struct{ Seen int; unseen int }\ntype closed struct{ Field int }\nfunc (closed) Method() {}\nfunc (Open) Method() {}"}
	lib := joined(t, files...)
	for path, want := range map[string]model.Visibility{
		"Open": model.Public, "Open.Seen": model.Public, "Open.unseen": model.PackageWide, "Open.Method": model.Public,
		"closed": model.PackageWide, "closed.Field": model.PackageWide, "closed.Method": model.PackageWide,
	} {
		assert.Equal(t, want, find(t, lib, path).Visibility, path)
	}
	files[0] = "internal/a.go"
	inside := joined(t, files...)
	assert.Equal(t, model.Internal, find(t, inside, "Open.Seen").Visibility)
	assert.Equal(t, model.PackageWide, find(t, inside, "Open.unseen").Visibility)
}

func TestHiddenHoldsForMembers(t *testing.T) {
	lib := joined(t, "a.go", "package a\n\n//codrel:hide\ntype T struct{ F int }\n\ntype U struct{\n\tA int //codrel:hide\n\tB int\n}")
	for path, want := range map[string]bool{"T": true, "T.F": true, "U": false, "U.A": true, "U.B": false} {
		assert.Equal(t, want, find(t, lib, path).Hidden, path)
	}
}

func TestModulesAreInOrder(t *testing.T) {
	var files []string
	for _, dir := range []string{"z", "a", "m/n", "m"} {
		files = append(files, dir+"/x.go", "package x", dir+"/x_test.go", "package x_test\nfunc T() {}")
	}
	lib := joined(t, files...)
	var got []string
	for _, m := range append(lib.Modules, lib.Tests...) {
		got = append(got, fmt.Sprint(m.Path, " ", m.Role, " ", m.Name))
	}
	assert.Equal(t, []string{
		"engine/a code x", "engine/m code x", "engine/m/n code x", "engine/z code x",
		"engine/a_test test x_test", "engine/m/n_test test x_test", "engine/m_test test x_test", "engine/z_test test x_test",
	}, got)
}

// Ten thousand forms of one name join in one pass.
func TestManyForms(t *testing.T) {
	text := "package a\n"
	for i := range 10_000 {
		text += fmt.Sprintf("func F(a%d int) {}\n", i)
	}
	assert.Len(t, find(t, joined(t, "a.go", text), "F").Occurrences, 10_000)
}
