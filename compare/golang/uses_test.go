package golang_test

import (
	"go/ast"
	"go/build"
	"go/importer"
	"go/parser"
	"go/token"
	"go/types"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	codrel "codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/link"
	"codrel/internal/model"
)

// TestUsesAgreeWithTypeChecker compares what names in code link to with what the
// type checker says they mean, on the packages of Go's own tree as they are built
// on this machine. Links may be missing, since nothing is type-checked to make
// them; none may lead elsewhere.
func TestUsesAgreeWithTypeChecker(t *testing.T) {
	if testing.Short() {
		t.Skip("type-checks Go's own tree")
	}
	root := filepath.Join(build.Default.GOROOT, "src")
	s, err := codrel.Run(t.Context(), os.DirFS(root), codrel.Options{FrontEnds: languages.All, Folder: "src", Inside: true})
	require.NoError(t, err)
	files := token.NewFileSet()
	imports := importer.ForCompiler(files, "source", nil).(types.ImporterFrom)
	var sum tally
	for _, lib := range s.Project.Libraries {
		if lib.Root != "." {
			continue
		}
		for _, m := range lib.Modules {
			dir := filepath.Join(root, filepath.FromSlash(strings.TrimPrefix(m.Path, lib.Prefix+"/")))
			if !strings.HasPrefix(m.Path, "cmd/") {
				compareUses(t, &sum, s.Links, m, dir, root, files, imports)
			}
		}
	}
	t.Logf("%d names of declarations in %d files; %d linked, %.1f %% of them; %d lead elsewhere", sum.names, sum.files, sum.right+sum.wrong, 100*float64(sum.right)/float64(sum.names), sum.wrong)
	require.Greater(t, sum.files, 1000)
	assert.Zero(t, sum.wrong)
	assert.Greater(t, float64(sum.right)/float64(sum.names), 0.5)
}

type tally struct{ files, names, right, wrong int }

func compareUses(t *testing.T, sum *tally, links *link.Index, m *model.Module, dir, root string, files *token.FileSet, imports types.ImporterFrom) {
	built, err := build.ImportDir(dir, 0)
	if err != nil {
		return
	}
	var trees []*ast.File
	for _, name := range built.GoFiles {
		tree, err := parser.ParseFile(files, filepath.Join(dir, name), nil, parser.SkipObjectResolution)
		require.NoError(t, err)
		trees = append(trees, tree)
	}
	info := types.Info{Uses: map[*ast.Ident]types.Object{}, Defs: map[*ast.Ident]types.Object{}}
	config := types.Config{Importer: imports, FakeImportC: true, Error: func(error) {}}
	_, _ = config.Check(m.Path, files, trees, &info) // what it cannot check it says nothing of
	byFile := map[string]*model.Facts{}
	for _, f := range m.Files {
		byFile[filepath.Join(root, filepath.FromSlash(f.Path))] = f
	}
	meant := map[string]map[int]types.Object{} // by file, by the offset behind the name
	for id, object := range info.Uses {
		at := files.Position(id.Pos())
		if meant[at.Filename] == nil {
			meant[at.Filename] = map[int]types.Object{}
			sum.files++
		}
		meant[at.Filename][at.Offset+len(id.Name)] = object
		if declared(object) {
			sum.names++
		}
	}
	for id, object := range info.Defs {
		// A name that is declared where it stands is no use, but for an embedded field.
		at := files.Position(id.Pos())
		if end := at.Offset + len(id.Name); object != nil && meant[at.Filename][end] == nil && meant[at.Filename] != nil {
			meant[at.Filename][end] = object
		}
	}
	for name, objects := range meant {
		f := byFile[name]
		if f == nil {
			continue
		}
		uses := links.Uses(m, f)
		for span, i := range uses.All() {
			d := uses.Targets[i].Declaration
			object := objects[int(span.End)]
			if d == nil || object == nil || object.Pkg() == types.Unsafe { // the type checker makes package unsafe itself
				continue
			}
			if at := files.Position(origin(object).Pos()); declares(d, root, at) && (at.Filename != name || at.Offset != int(span.Start)) {
				sum.right++
			} else {
				sum.wrong++
				t.Errorf("%s:%d: %s leads to %s, and means %v (%v)", f.Path, f.Lines.Line(span.Start), span.In(f.Text), d.ID(), object, at)
			}
		}
	}
}

// declared reports whether an object has a place of its own among declarations:
// it is no local, no package and nothing of the language itself.
func declared(object types.Object) bool {
	if object.Pkg() == nil {
		return false
	}
	switch o := object.(type) {
	case *types.Var:
		return o.IsField() || o.Parent() == o.Pkg().Scope()
	case *types.Func:
		return true
	case *types.PkgName, *types.Label:
		return false
	}
	return object.Parent() == object.Pkg().Scope()
}

// origin is the declaration that an instance of a generic thing was made of.
func origin(object types.Object) types.Object {
	switch o := object.(type) {
	case *types.Var:
		return o.Origin()
	case *types.Func:
		return o.Origin()
	}
	return object
}

func declares(d *model.Declaration, root string, at token.Position) bool {
	for _, o := range d.Occurrences {
		if filepath.Join(root, filepath.FromSlash(o.File.Path)) == at.Filename && int(o.NameSpan.Start) == at.Offset {
			return true
		}
	}
	return false
}
