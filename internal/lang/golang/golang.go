// Package golang is the Go front end. It lets the standard library's parser
// make the syntax tree and takes from it, in one walk over the top level, every
// declaration with its signature, comment and conditions.
//
// All strings of the facts are cut from the file's text, so that nothing is
// copied and the tree can be let go as soon as the file is read. The package
// knows nothing of other files; package paths are made in modules.go from the
// facts of a whole library.
package golang

import (
	"go/ast"
	"go/parser"
	"go/scanner"
	"go/token"
	"strings"
	"unicode"
	"unsafe"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// FrontEnd reads Go. The zero value is ready to use.
type FrontEnd struct{}

// Extensions are the endings of Go files.
func (FrontEnd) Extensions() []string { return []string{".go"} }

// SkipFolders are folders that hold nothing of the maintainer's own.
func (FrontEnd) SkipFolders() []string { return []string{"testdata", "vendor", "node_modules"} }

// Ignored is what the go command leaves out of builds: names that begin with "_".
func (FrontEnd) Ignored() []string { return []string{"_*"} }

// ModuleWord is what the language specification calls it: a package, and "program"
// for a package main.
func (FrontEnd) ModuleWord(m *model.Module) string {
	if m.Name == habits.Program {
		return "program"
	}
	return "package"
}

// KindWord is "": the usual words are the specification's.
func (FrontEnd) KindWord(*model.Declaration) string { return "" }

// GroupKey is "": the usual headings fit.
func (FrontEnd) GroupKey(string) string { return "" }

// BlockStyle is true of structs and interfaces.
func (FrontEnd) BlockStyle(d *model.Declaration) (lang.BlockStyle, bool) {
	form := lang.BlockStyle{Open: " {", Close: "}", Remark: "// "}
	switch d.Kind() {
	case model.KindInterface:
		form.Methods = true
		return form, true
	case model.KindStruct:
		return form, true
	}
	return form, false
}

// Read extracts the declarations of one Go file.
func (FrontEnd) Read(file lang.File) *model.Facts {
	text := file.Text.String
	facts := file.Facts("go")
	if (FrontEnd{}).IsTest(file.Path) {
		facts.Role = model.RoleTest
	}
	files := token.NewFileSet()
	// The parser copies a string before it reads; it never writes to bytes.
	src := unsafe.Slice(unsafe.StringData(text), len(text))
	tree, err := parser.ParseFile(files, "", src, parser.ParseComments|parser.SkipObjectResolution)
	if file.Text.Encoding == source.Latin1 {
		facts.Unreadable(file.Text.Foreign, "encoding", "", "Go")
	}
	if list, ok := err.(scanner.ErrorList); ok && len(list) > 0 {
		syntaxError(facts, list)
	}
	if tree == nil {
		return facts
	}
	r := reader{facts: facts, text: text, base: files.File(tree.FileStart).Base()}
	r.conditions(tree)
	r.packageClause(tree)
	r.imports(tree)
	r.sig.arena = lexing.NewArena(text)
	r.occurrences(tree)
	r.sig.arena.Close()
	r.strays(tree)
	if file.Deep {
		facts.Inside = r.inside(tree)
	}
	return facts
}

// syntaxError adds the first of the errors that a parser found.
func syntaxError(facts *model.Facts, list scanner.ErrorList) {
	list.Sort()
	first := list[0]
	at := int32(min(first.Pos.Offset, len(facts.Text)))
	form := ""
	if len(list) > 1 {
		form = "more"
	}
	facts.Unreadable(source.Span{Start: at, End: at}, form, first.Msg, "Go")
}

// reader extracts the facts of one file.
type reader struct {
	facts    *model.Facts
	text     string
	base     int // the parser's position of offset 0
	sig      signature
	nested   int  // types without names around the one being read
	cutShort bool // some of them nest too deep to be read
}

func (r *reader) offset(p token.Pos) int32 {
	if !p.IsValid() {
		return 0
	}
	return int32(max(0, min(int(p)-r.base, len(r.text))))
}

func (r *reader) span(n ast.Node) source.Span {
	s := source.Span{Start: r.offset(n.Pos()), End: r.offset(n.End())}
	return source.Span{Start: min(s.Start, s.End), End: s.End}
}

// cut is the text of a node as written.
func (r *reader) cut(n ast.Node) string { return r.span(n).In(r.text) }

// ident is the text of an identifier, cut from the file's text so that the
// tree's own strings are let go with it.
func (r *reader) ident(id *ast.Ident) string {
	from := r.offset(id.Pos())
	if to := int(from) + len(id.Name); to <= len(r.text) && r.text[from:to] == id.Name {
		return r.text[from:to]
	}
	return id.Name // the parser makes names such as "_" where one is missing
}

func (r *reader) packageClause(tree *ast.File) {
	if tree.Name == nil {
		return
	}
	r.facts.Package = r.ident(tree.Name)
	r.facts.ModuleSpan = r.span(tree.Name)
	r.facts.Generated = ast.IsGenerated(tree)
	r.facts.ModuleDoc, r.facts.Directives = r.doc(tree.Doc)
}

func (r *reader) imports(tree *ast.File) {
	for _, spec := range tree.Imports {
		imported := model.Import{Path: strings.Trim(r.cut(spec.Path), "\"`"), Span: r.span(spec)}
		imported.Assumed = assumedName(imported.Path)
		if spec.Name != nil {
			imported.Name = r.ident(spec.Name)
		}
		r.facts.Imports = append(r.facts.Imports, imported)
	}
}

// assumedName is the package name that an import path most likely has: its last
// element that says something, without what no identifier can hold.
func assumedName(importPath string) string {
	name := strings.TrimPrefix(libraryName(importPath), "go-")
	if i := strings.IndexFunc(name, func(r rune) bool { return r != '_' && !unicode.IsLetter(r) && !unicode.IsDigit(r) }); i > 0 {
		name = name[:i]
	}
	return name
}
