// Package golang compares the symbol stream of a Go tree with what the standard
// library's syntax tree says, line by line.
//
// The expected declarations are taken from go/ast alone, in the plainest way,
// and share no code with the front end: file, line, name, scope, parameters and
// whether a comment is attached must agree for every occurrence, in both
// directions. The tree is Go's own, or the one that CODREL_COMPARE_TREE names:
//
//	go test ./compare/golang -v
package golang

import (
	"bytes"
	"encoding/json"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/render/stream"
)

func tree(t *testing.T) string {
	t.Helper()
	if named := os.Getenv("CODREL_COMPARE_TREE"); named != "" {
		return named
	}
	out, err := exec.Command("go", "env", "GOROOT").Output()
	require.NoError(t, err)
	return filepath.Join(strings.TrimSpace(string(out)), "src")
}

func TestStreamAgreesWithTheSyntaxTree(t *testing.T) {
	dir := tree(t)
	got := extracted(t, dir)
	want, files, err := expected(dir)
	require.NoError(t, err)
	require.NotEmpty(t, want)
	missing, invented := differences(want, got)
	t.Logf("%s: %d files, %d occurrences by go/ast, %d by codrel, %d missing or different, %d invented or different",
		dir, files, len(want), len(got), len(missing), len(invented))
	const shown = 20
	assert.Empty(t, missing[:min(len(missing), shown)], "only by go/ast")
	assert.Empty(t, invented[:min(len(invented), shown)], "only by codrel")
}

// The comparison itself must be able to fail.
func TestDifferences(t *testing.T) {
	missing, invented := differences([]string{"a", "b", "b"}, []string{"b", "c"})
	assert.Equal(t, []string{"a", "b"}, missing)
	assert.Equal(t, []string{"c"}, invented)
}

func differences(want, got []string) (missing, invented []string) {
	counts := map[string]int{}
	for _, s := range want {
		counts[s]++
	}
	for _, s := range got {
		counts[s]--
	}
	for s, n := range counts {
		for ; n > 0; n-- {
			missing = append(missing, s)
		}
		for ; n < 0; n++ {
			invented = append(invented, s)
		}
	}
	slices.Sort(missing)
	slices.Sort(invented)
	return missing, invented
}

func extracted(t *testing.T, dir string) (symbols []string) {
	t.Helper()
	root, err := os.OpenRoot(dir)
	require.NoError(t, err)
	defer root.Close()
	s, err := build.Read(t.Context(), root.FS(), build.Options{FrontEnds: languages.All, Folder: "tree", Everything: true, Tests: true})
	require.NoError(t, err)
	var out bytes.Buffer
	require.NoError(t, stream.Write(&out, s.Project, stream.Want{Language: "go", Reach: model.ReachPrivate}))
	for line := range bytes.Lines(out.Bytes()) {
		var s symbol
		require.NoError(t, json.Unmarshal(line, &s))
		symbols = append(symbols, s.String())
	}
	return symbols
}

// symbol is what both sides are reduced to.
type symbol struct {
	File       string   `json:"file"`
	Line       int      `json:"line"`
	Name       string   `json:"name"`
	Scope      string   `json:"scope"`
	Params     []string `json:"params"`
	Documented bool     `json:"documented"`
}

func (s symbol) String() string {
	params := "-"
	if s.Params != nil {
		params = "(" + strings.Join(s.Params, ",") + ")"
	}
	return fmt.Sprintf("%s:%d %s %s %s documented=%t", s.File, s.Line, s.Scope, s.Name, params, s.Documented)
}

func expected(tree string) (symbols []string, files int, err error) {
	err = filepath.WalkDir(tree, func(p string, e fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if e.IsDir() {
			switch name := e.Name(); {
			case p == tree:
			case name == "testdata", name == "vendor", name == "node_modules", strings.HasPrefix(name, "."):
				return filepath.SkipDir
			}
			return nil
		}
		if !strings.HasSuffix(p, ".go") || strings.HasPrefix(e.Name(), ".") || !e.Type().IsRegular() {
			return nil
		}
		rel, err := filepath.Rel(tree, p)
		if err != nil {
			return err
		}
		positions := token.NewFileSet()
		file, _ := parser.ParseFile(positions, p, nil, parser.ParseComments|parser.SkipObjectResolution)
		if file == nil {
			return nil
		}
		files++
		o := oracle{positions: positions, file: filepath.ToSlash(rel)}
		o.declarations(file)
		symbols = append(symbols, o.found...)
		return nil
	})
	return symbols, files, err
}

// oracle lists the declarations of one file.
type oracle struct {
	positions *token.FileSet
	file      string
	found     []string
}

func (o *oracle) add(id *ast.Ident, scope string, params []string, documented bool) {
	line := o.positions.PositionFor(id.Pos(), false).Line
	o.found = append(o.found, symbol{o.file, line, id.Name, scope, params, documented}.String())
}

func says(groups ...*ast.CommentGroup) bool {
	for _, g := range groups {
		if strings.TrimSpace(g.Text()) != "" {
			return true
		}
	}
	return false
}

func (o *oracle) declarations(f *ast.File) {
	for _, d := range f.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			scope := ""
			if d.Recv != nil && len(d.Recv.List) > 0 {
				ast.Inspect(d.Recv.List[0].Type, func(n ast.Node) bool {
					if id, ok := n.(*ast.Ident); ok && scope == "" {
						scope = id.Name
					}
					return scope == ""
				})
			}
			o.add(d.Name, scope, params(d.Type), says(d.Doc))
		case *ast.GenDecl:
			for _, s := range d.Specs {
				var group *ast.CommentGroup
				if len(d.Specs) == 1 {
					group = d.Doc
				}
				switch s := s.(type) {
				case *ast.ValueSpec:
					for _, name := range s.Names {
						o.add(name, "", nil, says(s.Doc, s.Comment, group))
					}
				case *ast.TypeSpec:
					o.add(s.Name, "", nil, says(s.Doc, group))
					o.inside(s.Type, s.Name.Name)
				}
			}
		}
	}
}

// inside lists the fields and methods in a type's text, at any depth of types without names.
func (o *oracle) inside(t ast.Expr, scope string) {
	switch t := t.(type) {
	case *ast.StructType:
		for _, f := range t.Fields.List {
			if len(f.Names) == 0 {
				if id := lastName(f.Type); id != nil {
					o.add(id, scope, nil, says(f.Doc, f.Comment))
				}
			}
			for _, name := range f.Names {
				o.add(name, scope, nil, says(f.Doc, f.Comment))
				o.inside(f.Type, scope+"."+name.Name)
			}
		}
	case *ast.InterfaceType:
		for _, f := range t.Methods.List {
			if ft, ok := f.Type.(*ast.FuncType); ok {
				for _, name := range f.Names {
					o.add(name, scope, params(ft), says(f.Doc, f.Comment))
				}
			}
		}
	case *ast.StarExpr:
		o.inside(t.X, scope)
	case *ast.ParenExpr:
		o.inside(t.X, scope)
	case *ast.ArrayType:
		o.inside(t.Elt, scope)
	case *ast.MapType:
		o.inside(t.Value, scope)
	case *ast.ChanType:
		o.inside(t.Value, scope)
	}
}

// lastName is the name of an embedded type: the last identifier before any type arguments.
func lastName(t ast.Expr) *ast.Ident {
	switch t := t.(type) {
	case *ast.Ident:
		return t
	case *ast.SelectorExpr:
		return t.Sel
	case *ast.StarExpr:
		return lastName(t.X)
	case *ast.ParenExpr:
		return lastName(t.X)
	case *ast.IndexExpr:
		return lastName(t.X)
	case *ast.IndexListExpr:
		return lastName(t.X)
	}
	return nil
}

func params(t *ast.FuncType) []string {
	out := []string{}
	for _, f := range t.Params.List {
		for _, name := range f.Names {
			out = append(out, name.Name)
		}
		if len(f.Names) == 0 {
			out = append(out, "_")
		}
	}
	return out
}
