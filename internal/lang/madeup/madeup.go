// Package madeup reads a language that nobody has, for tests: it has what the languages
// that are read have, and what others have besides. Several modules stand in one file,
// names overload one another, types come in parts, a type, a value and a macro share a
// name, names hold dots and type parameters, what is implemented stands apart from its
// type, and comments stand elsewhere than what they describe.
//
// It proves that a language is a folder and a record of habits: no other package has a
// case for it. A line declares one thing, and blanks before it say what it stands in:
//
//	space Port.Tides
//	/ A berth.
//	type Berth<A, B>: Place when deep
//	  section slots
//	  field depth: int
//	  fn moor(vessel: Vessel, at: int = 3): Tide
//	part type Quay
//	value Berth: int
//	macro BERTH(x)
//	for Berth as Show
//	  fn text()
package madeup

import (
	"strings"

	"codrel/internal/finding"
	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// FrontEnd reads the language.
type FrontEnd struct{}

var habits = model.Habits{
	Language: "madeup", Name: "Madeup", Dialect: "blocktags", Fences: []string{"madeup"},
	PathMark: ".", ByPath: true, NameMarks: []string{"::"}, Directive: "/ codrel: ", Fails: "fails", Overloads: true, EachForm: true,
	Spaces: map[model.Kind]string{model.KindMacro: "macro", model.KindConstant: "value"},
}

// Habits are those of the language.
func (FrontEnd) Habits() *model.Habits { return &habits }

// Extensions are the endings of its files.
func (FrontEnd) Extensions() []string { return []string{".mad"} }

// SkipFolders is empty.
func (FrontEnd) SkipFolders() []string { return nil }

// shape has what the shapes of other languages have, one of each.
var shape = lexing.Shape{
	Names:    lexing.NameBytes(""),
	Keyword:  func(word string) bool { _, known := kinds[word]; return known || word == "space" },
	Comments: []lexing.CommentShape{{Open: "/ "}, {Open: "(*", Close: "*)", Nested: true}},
	Strings: []lexing.StringShape{
		{Prefixes: []string{"raw"}, Open: `"`, Fence: '#', Lines: true}, {Prefixes: []string{"as"}, Open: `"`, Lines: true, Delimited: true},
		{Prefixes: []string{"$"}, Open: `"`, Escape: '\\', Hole: "{"}, {Open: `"`, Escape: '\\'}, {Open: "'", Escape: '\\', Character: true},
	},
	Marks: []string{"::", "->"}, Directive: '#', Joined: true, Heredocs: true, DigitMark: '\'',
}

// Scan finds keywords, numbers, strings and comments.
func (FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	s := lexing.Stream{Pieces: into}
	shape.Lex(text, &s)
	return s.Pieces
}

// ModulePaths gives each file the first module that it names.
func (FrontEnd) ModulePaths(_ *model.Library, files []*model.Facts) []string {
	paths := make([]string, len(files))
	for i, f := range files {
		paths[i] = f.Package
	}
	return paths
}

// InternalModule is never true.
func (FrontEnd) InternalModule(string) bool { return false }

// Place puts what stands below a second "space" into that module.
func (FrontEnd) Place(_ *model.Library, files []*model.Facts, paths []string) []lang.Placement {
	out := make([]lang.Placement, len(files))
	for i, f := range files {
		out[i] = lang.Placement{Others: map[int32]string{}, Docs: map[string]*model.Doc{}}
		for n := range f.Occurrences {
			if o := &f.Occurrences[n]; o.Parent < 0 && o.In() != "" && o.In() != paths[i] {
				out[i].Others[int32(n)] = o.In()
			}
		}
		for _, m := range f.Modules {
			if m.Name != paths[i] && m.Doc != nil {
				out[i].Docs[m.Name] = m.Doc
			}
		}
	}
	return out
}

// reader reads one file.
type reader struct {
	facts  *model.Facts
	space  string
	in     []int32 // what the lines are in, by indentation
	scope  []string
	trait  string
	part   string // of the type that the lines are in
	doc    []source.Span
	docAll source.Span
}

// Read extracts what a file declares.
func (FrontEnd) Read(file lang.File) *model.Facts {
	text := file.Text.String
	r := reader{facts: &model.Facts{Path: file.Path, Language: "madeup", Text: text, Lines: file.Text.Lines}}
	at := 0
	for line := range strings.Lines(text) {
		r.line(at, strings.TrimRight(line, "\r\n"))
		at += len(line)
	}
	if r.facts.Package == "" {
		r.facts.Package = strings.TrimSuffix(file.Path[strings.LastIndexByte(file.Path, '/')+1:], ".mad")
	}
	return r.facts
}

func (r *reader) line(at int, line string) {
	depth := (len(line) - len(strings.TrimLeft(line, " "))) / 2
	at, line = at+2*depth, strings.TrimLeft(line, " ")
	if len(r.in) > depth {
		r.in, r.scope = r.in[:depth], r.scope[:depth]
	}
	if depth == 0 {
		r.trait, r.part = "", ""
	}
	word, rest, _ := strings.Cut(line, " ")
	behind := at + len(line) - len(rest)
	switch word {
	case "":
		r.doc = nil
	case "/":
		if len(r.doc) == 0 {
			r.docAll = source.NewSpan(at, at)
		}
		r.doc = append(r.doc, source.NewSpan(behind, behind+len(rest)))
		r.docAll.End = int32(at + len(line))
	case "space":
		r.space = rest
		r.facts.Modules = append(r.facts.Modules, model.ModuleIn{Name: rest, Doc: r.comment()})
		if r.facts.Package == "" {
			r.facts.Package, r.facts.ModuleDoc = rest, r.facts.Modules[0].Doc
		}
	case "section":
		r.part = rest
	case "for":
		name, trait, _ := strings.Cut(rest, " as ")
		r.in, r.scope, r.trait = append(r.in, -1), append(r.scope, name), trait
	case "about":
		r.facts.About = append(r.facts.About, model.About{Path: rest, Span: source.NewSpan(behind, behind+len(rest)), Doc: r.comment()})
	default:
		r.declare(at, line)
	}
}

// comment takes the lines of a comment that stand before a line.
func (r *reader) comment() *model.Doc {
	doc := lexing.MakeDoc(r.facts.Text, r.doc, r.docAll)
	r.doc = nil
	return doc
}

var kinds = map[string]model.Kind{"type": model.KindClass, "value": model.KindConstant, "fn": model.KindFunction, "macro": model.KindMacro, "field": model.KindField}

// declare reads one declaration, which may begin with "hidden" and "part".
func (r *reader) declare(at int, line string) {
	o := model.Occurrence{Parent: -1, Doc: r.comment(), Span: source.NewSpan(at, at+len(line)), Extra: &model.Extra{In: r.space}}
	rest := line
	next := func() string {
		word, after, _ := strings.Cut(rest, " ")
		rest = after
		return word
	}
	word := next()
	if word == "hidden" {
		o.Visibility, word = model.Private, next()
	}
	if word == "old" {
		o.Deprecated, word = true, next()
	}
	if word == "part" {
		word = next()
	}
	kind, known := kinds[word]
	if !known {
		r.facts.Problems = append(r.facts.Problems, finding.Finding{Rule: finding.UnreadableSource, Place: r.facts.Place(source.NewSpan(at, at+len(line)))})
		return
	}
	if head, key, ok := strings.Cut(rest, " text "); ok {
		rest, o.Extra.TextOf, line = head, key, line[:len(line)-len(" text ")-len(key)]
	}
	if head, condition, ok := strings.Cut(rest, " when "); ok {
		rest, o.Extra.Conditions = head, []string{condition}
	}
	o.Kind = kind
	nameAt := at + len(line) - len(rest)
	if _, condition, ok := strings.Cut(line, " when "); ok {
		nameAt -= len(" when ") + len(condition)
	}
	if len(r.in) > 0 {
		o.Parent, o.Scope = r.in[len(r.in)-1], strings.Join(r.scope, ".")
		if kind == model.KindFunction {
			o.Kind = model.KindMethod
		}
		o.Extra.Space, o.Extra.Section = r.trait, r.part
	}
	r.named(&o, nameAt, rest)
	r.facts.Occurrences = append(r.facts.Occurrences, o)
	r.in = append(r.in, int32(len(r.facts.Occurrences)-1))
	r.scope = append(r.scope, o.Name)
}

// named reads "name<A, B>(a: T = 1): R" or "name: Base, Base".
func (r *reader) named(o *model.Occurrence, at int, text string) {
	o.Line = int32(r.facts.Position(int32(at)).Line)
	name := text
	if strings.HasPrefix(text, `"`) { // names may hold anything
		name = text[:strings.IndexByte(text[1:], '"')+2]
	} else if end := strings.IndexAny(text, "<(:"); end >= 0 {
		name = text[:end]
	}
	o.NameSpan = source.NewSpan(at, at+len(name))
	o.Name = strings.Trim(name, `"`)
	signature := model.AppendToken(nil, r.facts.Text, model.TokenName, r.facts.Text[at:at+len(name)])
	rest := text[len(name):]
	if inside, after, ok := between(rest, '<', '>'); ok {
		o.Extra.Arity = int32(len(strings.Split(inside, ",")))
		signature = model.AppendToken(signature, r.facts.Text, model.TokenPunctuation, "<"+inside+">")
		rest = after
	}
	if inside, after, ok := between(rest, '(', ')'); ok {
		o.Callable = &model.Callable{}
		signature = r.parameters(o.Callable, signature, inside)
		rest = after
	}
	if result, ok := strings.CutPrefix(rest, ": "); ok {
		signature = model.AppendToken(signature, r.facts.Text, model.TokenPunctuation, ": ")
		for i, typ := range strings.Split(result, ", ") {
			if i > 0 {
				signature = model.AppendToken(signature, r.facts.Text, model.TokenPunctuation, ", ")
			}
			signature = model.AppendToken(signature, r.facts.Text, model.TokenType, typ)
			tokens := model.Tokens(model.AppendToken(nil, r.facts.Text, model.TokenType, typ))
			if o.Callable != nil {
				o.Callable.Results = append(o.Callable.Results, model.Param{Type: tokens})
			} else if o.Kind == model.KindClass {
				o.Extra.Bases = append(o.Extra.Bases, model.Base{Type: tokens, Span: o.Span})
			}
		}
	}
	o.Signature = model.Tokens(signature)
}

func (r *reader) parameters(c *model.Callable, signature []byte, list string) []byte {
	signature = model.AppendToken(signature, r.facts.Text, model.TokenPunctuation, "(")
	for i, one := range strings.Split(list, ", ") {
		if one == "" {
			continue
		}
		if i > 0 {
			signature = model.AppendToken(signature, r.facts.Text, model.TokenPunctuation, ", ")
		}
		one, value, optional := strings.Cut(one, " = ")
		name, typ, _ := strings.Cut(one, ": ")
		p := model.Param{Name: name, Optional: optional}
		if optional {
			p.Default = r.spanOf(value)
		}
		p.Type = model.Tokens(model.AppendToken(nil, r.facts.Text, model.TokenType, typ))
		c.Params = append(c.Params, p)
		signature = model.AppendToken(signature, r.facts.Text, model.TokenParameter, name)
		signature = model.AppendToken(signature, r.facts.Text, model.TokenPunctuation, ": ")
		signature = model.AppendToken(signature, r.facts.Text, model.TokenType, typ)
	}
	return model.AppendToken(signature, r.facts.Text, model.TokenPunctuation, ")")
}

// spanOf is where a piece of the file's text stands in it.
func (r *reader) spanOf(piece string) source.Span {
	at := strings.Index(r.facts.Text, piece)
	return source.NewSpan(at, at+len(piece))
}

// between takes what stands in brackets off the beginning of a text.
func between(text string, open, end byte) (inside, after string, ok bool) {
	if text == "" || text[0] != open {
		return "", text, false
	}
	i := strings.IndexByte(text, end)
	if i < 0 {
		return "", text, false
	}
	return text[1:i], text[i+1:], true
}
