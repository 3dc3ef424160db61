// Package colour owns which parts of code in fences are keywords, remarks and texts, in languages
// that no front end reads. It alone imports the library that knows them.
//
// That library is slower than the front ends by far, and its definitions take a while to load:
// those of a language are read when a fence first names it. The definitions in the folder lexers
// are the library's own (see COPYING there); its package of all of them would read each at every
// start of the program.
package colour

import (
	"embed"
	"io/fs"
	"strings"
	"sync"

	"github.com/alecthomas/chroma/v2"
)

// Class is what a piece of code is.
type Class uint8

// The classes of pieces.
const (
	Keyword Class = iota
	Remark
	Text
)

// Piece is a part of a code that has a class.
type Piece struct {
	From, To int // bytes
	Class    Class
}

// How much of a code is looked at: some definitions take a time that grows with the square of a
// line, and longer ones are not written for readers.
const (
	longest     = 16 << 10 // bytes
	longestLine = 400
)

//go:embed lexers
var files embed.FS

// names are the definitions, by the words of fences that do not call them by the name of the file.
var names = map[string]string{
	"yml": "yaml", "jsonc": "json", "jsonl": "json", "json5": "json", "sh": "bash", "shell": "bash", "zsh": "bash", "console": "bash", "shell-session": "bash",
	"cfg": "ini", "dosini": "ini", "editorconfig": "ini", "svg": "xml", "xsd": "xml", "pom": "xml", "csproj": "xml", "htm": "html", "xhtml": "html",
	"make": "makefile", "mk": "makefile", "dockerfile": "docker", "containerfile": "docker", "patch": "diff", "udiff": "diff", "rb": "ruby", "kt": "kotlin", "kts": "kotlin",
	"rs": "rust", "pl": "perl", "pm": "perl", "ps1": "powershell", "pwsh": "powershell",
	"proto": "protocol_buffer", "protobuf": "protocol_buffer", "gql": "graphql", "sc": "scala", "hs": "haskell", "hcl": "terraform", "tf": "terraform",
	"rscript": "r", "ex": "elixir", "exs": "elixir", "nginx": "nginx_configuration_file", "gradle": "groovy", "postgresql": "sql", "mysql": "sql", "sqlite": "sql",
}

// lexers holds those that were asked for.
var lexers = struct {
	sync.Mutex
	by       map[string]chroma.Lexer
	registry *chroma.LexerRegistry
}{by: map[string]chroma.Lexer{}, registry: chroma.NewLexerRegistry()}

// lexer is that of a language as fences call it, or nil.
func lexer(word string) chroma.Lexer {
	word = strings.ToLower(word)
	if name, ok := names[word]; ok {
		word = name
	}
	file := "lexers/" + word + ".xml"
	if _, err := fs.Stat(files, file); err != nil {
		return nil
	}
	lexers.Lock()
	defer lexers.Unlock()
	if known, ok := lexers.by[word]; ok {
		return known
	}
	made, err := chroma.NewXMLLexer(files, file)
	if err != nil {
		lexers.by[word] = nil
		return nil
	}
	lexers.by[word] = lexers.registry.Register(made)
	return lexers.by[word]
}

// Knows reports whether the code of a language, as fences call it, is taken apart here.
func Knows(word string) bool { return lexer(word) != nil }

// Pieces are those of a code in a language that fences call by a word, in order. Of a long code
// the beginning is looked at.
func Pieces(word, code string) (out []Piece) {
	l := lexer(word)
	if l == nil {
		return nil
	}
	code = code[:looked(code)]
	defer func() {
		if recover() != nil { // a definition that asks for another one
			out = nil
		}
	}()
	tokens, err := l.Tokenise(&chroma.TokeniseOptions{State: "root"}, code)
	if err != nil {
		return nil
	}
	at := 0
	for t := tokens(); t != chroma.EOF && at < len(code); t = tokens() {
		from := at
		if at += len(t.Value); !strings.HasPrefix(code[from:], t.Value) {
			return out // what it gives is no longer what stands there
		}
		class, ok := classOf(t.Type)
		if !ok || strings.TrimSpace(t.Value) == "" {
			continue
		}
		if n := len(out) - 1; n >= 0 && out[n].To == from && out[n].Class == class {
			out[n].To = at
		} else {
			out = append(out, Piece{from, at, class})
		}
	}
	return out
}

// looked is how many bytes of a code are looked at: whole lines.
func looked(code string) int {
	at := 0
	for line := range strings.Lines(code) {
		if len(line) > longestLine || at+len(line) > longest {
			break
		}
		at += len(line)
	}
	return at
}

// classOf is the class of a kind of token. Keys of data and names of elements are what one looks
// for there, as keywords are in code.
func classOf(t chroma.TokenType) (Class, bool) {
	switch {
	case t.InCategory(chroma.Comment) && t != chroma.CommentPreproc && t != chroma.CommentPreprocFile:
		return Remark, true
	case t.InCategory(chroma.Keyword), t == chroma.NameTag, t == chroma.GenericHeading, t == chroma.GenericInserted:
		return Keyword, true
	case t.InSubCategory(chroma.LiteralString):
		return Text, true
	case t == chroma.GenericDeleted:
		return Remark, true
	}
	return 0, false
}
