// Package script is the front end of JavaScript and TypeScript: a parser of our
// own that reads declarations exactly and passes over everything else.
//
// It goes from statement to statement. Modules, namespaces, classes, interfaces
// and enumerations are looked into; bodies and values are passed over by their
// brackets, with strings, templates, regular expressions and elements of JSX told
// apart (ECMA-262; the TypeScript handbook where the standard ends).
//
// The package knows nothing of other files; what lies beyond one file (the entries
// that package.json names) is in modules.go.
package script

import (
	"path"
	"strconv"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// FrontEnd reads one of the two languages.
type FrontEnd struct {
	Typed bool // TypeScript, else JavaScript
}

// Extensions are the endings of the language's files.
func (e FrontEnd) Extensions() []string {
	if e.Typed {
		return []string{".ts", ".tsx", ".mts", ".cts"}
	}
	return []string{".js", ".mjs", ".cjs", ".jsx"}
}

// Interpreters run files without an ending.
func (e FrontEnd) Interpreters() []string {
	if e.Typed {
		return []string{"ts-node", "tsx"}
	}
	return []string{"node", "nodejs", "bun", "deno"}
}

// SkipFolders hold installed things. What was built is passed over by [FrontEnd.Choose],
// which knows whether there is anything else.
func (FrontEnd) SkipFolders() []string {
	return []string{"node_modules", "bower_components", "coverage", ".next", ".cache"}
}

// Read extracts the declarations of one file.
func (e FrontEnd) Read(file lang.File) *model.Facts {
	text := file.Text.String
	facts := file.Facts(e.Habits().Language)
	facts.Package = stem(file.Path)
	if e.IsTest(file.Path) {
		facts.Role = model.RoleTest
	}
	r := reader{facts: facts, arena: lexing.NewArena(text)}
	r.lexer = lexer{text: text, typed: e.Typed, unclosed: -1, sig: -1}
	r.ambient = declares(file.Path)
	facts.Stub = r.ambient
	switch ext := path.Ext(file.Path); {
	case ext == ".tsx" || ext == ".jsx":
		r.markup = true
	case !e.Typed:
		r.markup = true // elements stand in plain files as well
	}
	if file.Text.Encoding == source.Latin1 {
		r.unreadable(file.Text.Foreign, "encoding", "")
	}
	if file.Deep {
		facts.Inside = &model.Inside{}
	}
	facts.Generated = generated(text)
	if file.Deep { // one pass finds the tokens for the names, the pieces for the colours, and where brackets close
		r.stream = newTokenizer(text, e.Typed, r.markup, nil)
		if r.stream.Sound() && r.stream.unclosed < 0 {
			r.lexed = &r.stream.Stream
		}
	}
	lexing.Gather(facts, r.module)
	if file.Deep {
		facts.Inside.Uses = r.uses()
		for _, p := range r.stream.Pieces {
			facts.Inside.Pieces.Add(p)
		}
	}
	r.arena.Close()
	if r.unclosed >= 0 {
		r.unreadable(source.NewSpan(r.unclosed, r.unclosed), "", "what opens or closes here has no counterpart")
	}
	return facts
}

// generated reports whether a comment near the top says that a program wrote the file.
func generated(text string) bool {
	head := text[:min(len(text), 600)]
	if !strings.Contains(head, "enerated") && !strings.Contains(head, "ENERATED") {
		return false
	}
	for line := range strings.Lines(head) {
		line = strings.TrimSpace(line)
		if !strings.HasPrefix(line, "/") && !strings.HasPrefix(line, "*") {
			continue
		}
		line = strings.ToLower(line)
		if strings.Contains(line, "@generated") || strings.Contains(line, "generated") && (strings.Contains(line, "do not edit") || strings.Contains(line, "don't edit")) {
			return true
		}
	}
	return false
}

func (r *reader) unreadable(span source.Span, form, message string) {
	name := "JavaScript"
	if r.typed {
		name = "TypeScript"
	}
	r.facts.Unreadable(span, form, message, name)
}

// tooDeep notes where what is nested deeper than the reader follows begins, the first time.
func (r *reader) tooDeep(at int) {
	if !r.cutShort {
		r.cutShort = true
		r.unreadable(source.NewSpan(at, at), "deep", strconv.Itoa(deepest))
	}
}

// reader extracts the facts of one file.
type reader struct {
	lexer
	facts    *model.Facts
	cutShort bool // something is nested too deep to be read
	arena    *lexing.Arena
	stream   *tokenizer // of the text; nil where nobody looks inside functions
	ambient  bool       // declarations without bodies: .d.ts
	at       int        // offset of the next byte to read
	last     int        // offset behind the last token of the statement before
	above    int        // where what may speak of the file was looked for last

	lines      []source.Span // of doc comments, in room that many share
	comment    source.Span   // the last "/**" comment before the statement, or empty
	directives []model.Directive
	told       []source.Span    // comments that declare types
	types      map[string]int32 // paths of the types that the file declares, once a typedef leads into one

	scope  string
	parent int32
	outer  bool // the statement stands in a namespace or module that is declared in the file

	exported map[string]bool       // names exported apart from their declarations
	renamed  map[string]bool       // paths exported under another name
	listDocs map[string]*model.Doc // comments in lists of exports, by name
	spreads  []given               // names of which all is exported
	inner    int                   // functions around that are called at once
	list     bool                  // the file has a list of exports, or says what the default is
	esModule bool                  // the file has an import or export
	common   bool                  // the file exports things through module.exports
	pending  []pending
	tops     map[string]top // filled in for the first occurrences, see looked
	looked   int
	chain    int      // assignments around
	chainEnd int      // where the value of the last chain ends
	forms    string   // name of the function before, if that was a form without a body
	generics []string // type parameters of what is being read and of what is around it
}

func (r *reader) put(kind model.TokenKind, text string) { r.arena.Put(kind, text) }

func (r *reader) line(at int) int32 { return int32(r.facts.Lines.Line(int32(at))) }

// next goes over blanks and comments to the next token, keeping the last doc
// comment. One on the line of the token before belongs to that, as the compiler
// has it, unless inline says otherwise.
func (r *reader) next() { r.nextDoc(r.at == 0) }

func (r *reader) nextDoc(inline bool) {
	r.comment = source.Span{}
	r.directives = nil
	for r.at < len(r.text) {
		c := r.text[r.at]
		if isBlank(c) {
			inline = inline || c == '\n'
			r.at++
			continue
		}
		if c != '/' || !r.commentAt(r.at) {
			end := r.after(r.at)
			if end == r.at {
				return
			}
			r.at = end
			continue
		}
		end := r.commentEnd(r.at)
		if text := r.text[r.at:end]; strings.HasPrefix(text, "/**") && len(text) > len("/**/") && text[3] != '/' {
			if !r.typed && tellsTypes(text) {
				r.told = append(r.told, source.NewSpan(r.at, end))
			}
			if inline {
				r.comment = source.NewSpan(r.at, end)
			}
			inline = inline || strings.IndexByte(text, '\n') >= 0
		} else if strings.HasPrefix(text, "//") {
			span := source.NewSpan(r.at+2, end)
			if d, ok := lexing.ParseDirective(strings.TrimSpace(text[2:]), span); ok {
				r.directives = append(r.directives, d)
			}
		}
		r.at = end
	}
}

// add keeps an occurrence with the comment given and returns its index.
func (r *reader) add(o model.Occurrence, comment source.Span, directives []model.Directive) int32 {
	o.Scope, o.Parent = r.scope, r.parent
	if o.Name == "" {
		o.Name = o.NameSpan.In(r.text)
	}
	o.Line = r.line(int(o.NameSpan.Start))
	if o.Doc == nil {
		o.Doc = r.doc(comment)
	}
	if o.Doc != nil {
		tags(o.Doc.Text, func(word string) {
			switch word {
			case "access":
				r.access(&o)
			case "category", "group":
				directives = r.grouped(directives, o.Doc, word)
			case "constructor", "class":
				if o.Kind == model.KindFunction {
					o.Kind = model.KindClass // made with new, before there were classes
				}
			case "deprecated":
				o.Deprecated = true
			case "internal", "hidden", "ignore":
				o.Visibility = max(o.Visibility, model.Internal)
			case "private":
				o.Visibility = model.Private
			case "protected":
				o.Visibility = max(o.Visibility, model.Protected)
			}
		})
	}
	if len(directives) > 0 {
		if o.Extra == nil {
			o.Extra = &model.Extra{}
		}
		o.Extra.Directives = directives
	}
	r.facts.Occurrences = append(r.facts.Occurrences, o)
	return int32(len(r.facts.Occurrences) - 1)
}

// aside reads something that stands elsewhere, and goes on where it was. It gives the index
// of the first occurrence that was read on the way.
func (r *reader) aside(read func()) (first int) {
	was, first := *r, len(r.facts.Occurrences)
	read()
	r.at, r.last, r.comment, r.directives, r.forms = was.at, was.last, was.comment, was.directives, was.forms
	return first
}

// local marks the occurrences from an index on as local to their language.
func (r *reader) local(first int) {
	for i := first; i < len(r.facts.Occurrences); i++ {
		r.facts.Occurrences[i].Local = true
	}
}

// within reads what stands in a declaration, with its names as the scope.
func (r *reader) within(index int32, read func()) {
	scope, parent, outer := r.scope, r.parent, r.outer
	o := &r.facts.Occurrences[index]
	if r.scope = o.Name; scope != "" {
		r.scope = scope + "." + o.Name
	}
	r.parent, r.outer = index, true
	read()
	r.scope, r.parent, r.outer = scope, parent, outer
	end := int32(max(r.last, int(r.facts.Occurrences[index].NameSpan.End)))
	r.facts.Occurrences[index].Span.End = max(end, r.facts.Occurrences[index].Span.End)
}
