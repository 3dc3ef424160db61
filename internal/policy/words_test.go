package policy

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/languages"
)

// shared are the packages that every language goes through: they ask a language's habits,
// and compare with no word of any.
var shared = []string{"model", "lang", "lexing", "join", "comment", "prose", "link", "check", "build", "symbols", "search", "render/plan", "render/modules", "render/stream", "render/site"}

// brought are types that languages bring along.
var brought = []string{"error", "any", "object", "interface", "byte", "rune", "byte[]"}

// languageWords are the words that belong to languages: their names, and what their records say.
func languageWords() map[string]bool {
	words := map[string]bool{}
	for _, end := range languages.All {
		h := end.Habits()
		for _, word := range slices.Concat([]string{h.Language, h.Program, h.Default, h.Unnamed}, h.Started, h.Nothing, h.Self, brought) {
			words[word] = word != "" && word != "this" // an English word as well
		}
	}
	return words
}

// soleWords are words of languages that mean nothing to anyone else: shared packages have no
// use for them at all.
func soleWords() map[string]bool {
	words := map[string]bool{}
	for _, end := range languages.All {
		h := end.Habits()
		for _, word := range slices.Concat(h.MayMake, h.Makes, []string{h.AnyMember}) {
			words[word] = word != ""
		}
	}
	return words
}

// comparing are the functions of the package strings that compare.
var comparing = []string{"HasPrefix", "HasSuffix", "CutPrefix", "CutSuffix", "TrimPrefix", "TrimSuffix", "EqualFold", "Compare"}

// compared yields the texts that a file compares something with: "==", "!=", cases, and
// beginnings and ends.
func compared(file *ast.File, yield func(at token.Pos, text string)) {
	literal := func(e ast.Expr) {
		if l, ok := e.(*ast.BasicLit); ok && l.Kind == token.STRING {
			if text, err := strconv.Unquote(l.Value); err == nil {
				yield(l.Pos(), text)
			}
		}
	}
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.BinaryExpr:
			if n.Op == token.EQL || n.Op == token.NEQ {
				literal(n.X)
				literal(n.Y)
			}
		case *ast.CallExpr:
			if of, ok := n.Fun.(*ast.SelectorExpr); ok && len(n.Args) > 1 && slices.Contains(comparing, of.Sel.Name) {
				if pkg, ok := of.X.(*ast.Ident); ok && pkg.Name == "strings" {
					literal(n.Args[1])
				}
			}
		case *ast.CaseClause:
			for _, e := range n.List {
				literal(e)
			}
		}
		return true
	})
}

func TestSharedPackagesKnowNoLanguage(t *testing.T) {
	words, sole := languageWords(), soleWords()
	require.Greater(t, len(words), 8)
	files := 0
	for _, pkg := range shared {
		dir := filepath.Join("..", filepath.FromSlash(pkg))
		require.NoError(t, fs.WalkDir(os.DirFS(dir), ".", func(p string, e fs.DirEntry, err error) error {
			if err != nil {
				return err
			}
			if e.IsDir() && p != "." && pkg != "prose" {
				return fs.SkipDir // a package of its own
			}
			if !strings.HasSuffix(p, ".go") || strings.HasSuffix(p, "_test.go") || strings.HasSuffix(p, "_templ.go") {
				return nil
			}
			files++
			set := token.NewFileSet()
			file, err := parser.ParseFile(set, filepath.Join(dir, p), nil, 0)
			if err != nil {
				return err
			}
			ast.Inspect(file, func(n ast.Node) bool {
				if l, ok := n.(*ast.BasicLit); ok && l.Kind == token.STRING {
					text, _ := strconv.Unquote(l.Value)
					assert.False(t, sole[text], "%s has %q, which belongs to a language: put it into that language's habits", set.Position(l.Pos()), text)
				}
				return true
			})
			compared(file, func(at token.Pos, text string) {
				assert.False(t, words[text], "%s compares with %q, which belongs to a language: put it into that language's habits", set.Position(at), text)
			})
			return nil
		}))
	}
	assert.Greater(t, files, 100)
}
