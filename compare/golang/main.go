// Command golang compares the symbol stream of a Go tree with what the standard
// library's syntax tree says, line by line.
//
// The expected declarations are taken from go/ast alone, in the plainest way,
// and share no code with the front end: file, line, name, scope, parameters and
// whether a comment is attached must agree for every occurrence, in both
// directions.
//
//	go build -o codrel ./cmd/codrel
//	go run ./compare/golang [-codrel ./codrel] [-tree DIR] [-show 20]
package main

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
)

func main() {
	program := flag.String("codrel", "codrel", "the program to compare")
	tree := flag.String("tree", goTree(), "the tree to read")
	show := flag.Int("show", 20, "how many differences to print")
	flag.Parse()
	differences, err := compare(*program, *tree, *show)
	if err != nil {
		fmt.Fprintln(os.Stderr, "compare:", err)
		os.Exit(2)
	}
	if differences > 0 {
		os.Exit(1)
	}
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

func compare(program, tree string, show int) (int, error) {
	got, err := extracted(program, tree)
	if err != nil {
		return 0, err
	}
	want, files, err := expected(tree)
	if err != nil {
		return 0, err
	}
	counts := map[string]int{}
	for _, s := range want {
		counts[s]++
	}
	for _, s := range got {
		counts[s]--
	}
	var missing, invented []string
	for s, n := range counts {
		for ; n > 0; n-- {
			missing = append(missing, s)
		}
		for ; n < 0; n++ {
			invented = append(invented, s)
		}
	}
	fmt.Printf("%s: %d files, %d occurrences by go/ast, %d by codrel, %d missing or different, %d invented or different\n",
		tree, files, len(want), len(got), len(missing), len(invented))
	list("only by go/ast", missing, show)
	list("only by codrel", invented, show)
	return len(missing) + len(invented), nil
}

func list(title string, all []string, show int) {
	slices.Sort(all)
	for i, s := range all {
		if i == show {
			fmt.Printf("  ... and %d more\n", len(all)-show)
			return
		}
		fmt.Printf("  %s: %s\n", title, s)
	}
}

func extracted(program, tree string) ([]string, error) {
	c := exec.Command(program, "extract", "--language", "go", tree)
	out, err := c.StdoutPipe()
	if err != nil {
		return nil, err
	}
	if err := c.Start(); err != nil {
		return nil, err
	}
	var symbols []string
	lines := json.NewDecoder(out)
	for {
		var s symbol
		err := lines.Decode(&s)
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, err
		}
		symbols = append(symbols, s.String())
	}
	err = c.Wait()
	if c.ProcessState.ExitCode() == 1 { // some files could not be read whole
		err = nil
	}
	return symbols, err
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

// goTree is the source of Go itself on this machine.
func goTree() string {
	out, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		return ""
	}
	return filepath.Join(strings.TrimSpace(string(out)), "src")
}
