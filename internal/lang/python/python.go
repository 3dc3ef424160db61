// Package python is the Python front end: a parser of our own that reads
// declarations exactly and passes over everything else.
//
// It goes from logical line to logical line. At the level of a module or class
// every statement is looked at; of a function's body only the first string, what
// a constructor sets on its first parameter, and which exceptions are raised.
// Indentation alone decides where a body ends, so that damage in one body costs
// nothing behind it. The grammar is that of the Python language reference, 3.14,
// and older code is read as far as its declarations look the same.
//
// The package knows nothing of other files; what lies beyond one file (package
// names, stubs) is in modules.go.
package python

import (
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// FrontEnd reads Python. The zero value is ready to use.
type FrontEnd struct{}

// Extensions are the endings of modules, stubs and windowed programs.
func (FrontEnd) Extensions() []string { return []string{".py", ".pyi", ".pyw"} }

// Interpreters run files without an ending.
func (FrontEnd) Interpreters() []string { return []string{"python", "pythonw", "pypy", "uv"} }

// SkipFolders hold installed or built things.
func (FrontEnd) SkipFolders() []string {
	return []string{"__pycache__", "site-packages", "node_modules", ".venv", "venv", ".tox", ".nox", ".eggs", "build", "dist"}
}

// Read extracts the declarations of one file.
func (FrontEnd) Read(file lang.File) *model.Facts {
	text := file.Text.String
	facts := file.Facts("python")
	facts.Package = moduleName(file.Path)
	facts.Stub = strings.HasSuffix(file.Path, ".pyi")
	if (FrontEnd{}).IsTest(file.Path) {
		facts.Role = model.RoleTest
	}
	r := reader{lexer: lexer{text: text}, facts: facts, arena: lexing.NewArena(text)}
	if file.Text.Encoding == source.Latin1 && !declaresEncoding(text) {
		facts.Unreadable(file.Text.Foreign, "encoding", "", "Python")
	}
	if file.Deep {
		facts.Inside = &model.Inside{}
		facts.Inside.Uses, facts.Inside.Pieces = inside(text)
	}
	facts.Generated = generated(text)
	lexing.Gather(facts, func() {
		r.module()
		r.exports()
	})
	r.arena.Close()
	return facts
}

// declaresEncoding reports whether one of the first two lines names the file's
// encoding (PEP 263): then it need not be UTF-8.
func declaresEncoding(text string) bool {
	for n := 0; n < 2; n++ {
		line, rest, _ := strings.Cut(text, "\n")
		if trimmed := strings.TrimLeft(line, " \t\f"); strings.HasPrefix(trimmed, "#") {
			if i := strings.Index(trimmed, "coding"); i > 0 && strings.IndexAny(trimmed[i+len("coding"):], ":=") == 0 {
				return true
			}
		}
		text = rest
	}
	return false
}

// generated reports whether a comment near the top says that a program wrote the file.
func generated(text string) bool {
	for n := 0; n < 12; n++ {
		line, rest, more := strings.Cut(text, "\n")
		if strings.HasPrefix(line, "#") {
			line = strings.ToLower(line)
			if strings.Contains(line, "generated") && (strings.Contains(line, "do not edit") || strings.Contains(line, "don't edit")) || strings.Contains(line, "@generated") {
				return true
			}
		}
		if !more {
			break
		}
		text = rest
	}
	return false
}

// reader extracts the facts of one file.
type reader struct {
	lexer
	facts  *model.Facts
	arena  *lexing.Arena
	at     int     // offset of the next byte to read
	last   int     // offset behind the last statement that was read
	blocks []block // around the statement being read, the module first

	above      []source.Span      // comments on the lines right above the statement
	decorators []source.Span      // of the definition that comes next, without "@"
	decorated  int                // where the first of them begins
	assigned   []int              // occurrences of the statement before this one, if it was an assignment
	forms      string             // the name of the definition before, if that was one form of several
	listed     map[string]bool    // names in __all__
	unlisted   bool               // __all__ holds more than can be read
	lists      []listOf           // lists of other modules in __all__
	places     map[string][]int32 // occurrences by path, for the first ones, see placed
	placed     int
	gone       map[string]bool // names that the module takes back
	troubled   bool
}

// block is a suite of statements that declares things.
type block struct {
	indent    int    // column of the statement that opens it; its own lines stand further right
	scope     string // of what it declares
	parent    int32
	kind      model.Kind // module, class or enum
	condition string     // of an "if", under which all of it exists
	apart     bool       // it is not run when the file is imported
	branch    string     // the condition of the last "if" or "elif" in it
	branched  int        // the column at which that stood
	opens     bool       // it is the body of the class at parent
}

// problem says that source cannot be read, once a file: the first place matters.
func (r *reader) problem(at int, message string) {
	if r.troubled {
		if p := r.facts.Problems; len(p) > 0 && p[len(p)-1].Form == "" {
			p[len(p)-1].Form = "more"
		}
		return
	}
	r.troubled = true
	at = min(at, len(r.text))
	r.facts.Unreadable(source.NewSpan(at, at), "", message, "Python")
}

func (r *reader) line(at int) int32 { return int32(r.facts.Lines.Line(int32(at))) }
