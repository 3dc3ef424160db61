package java

import (
	"strconv"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file goes from declaration to declaration: those of a file and those of a type.

// deepest is how deep types in types are read. People stay far below.
const deepest = 200

// owner is the type that members are read of.
type owner struct {
	at    int32 // its occurrence, or -1 for the file
	scope string
	name  string
	kind  model.Kind
	parts []model.Param // of a record
}

// unit reads the file.
func (r *reader) unit() {
	r.PairAngles(",.?&", r.overInType)
	file := owner{at: -1}
	for i, n := 0, len(r.Tokens); i < n; {
		from := i
		mods, at := r.modifiers(i, n)
		switch word := r.Word(at); {
		case word == "package":
			end := r.UpTo(at, n, ';')
			r.module = r.Dotted(at+1, end-1)
			r.Facts.Package = habits.Last(r.module)
			r.Facts.Modules = []model.ModuleIn{{Name: r.module}}
			r.Facts.Directives = r.Directives(from)
			if strings.HasSuffix(r.Facts.Path, "package-info.java") {
				r.Facts.ModuleDoc, r.Facts.ModuleSpan = r.doc(from), r.Span(at+1, max(at+2, end-1))
			}
			i = end
		case word == "import":
			end := r.UpTo(at, n, ';')
			r.imports(at+1, end-1)
			i = end
		case word == "module" && r.Word(at+1) != "", word == "open" && r.Word(at+1) == "module":
			r.Facts.OfLibrary, r.Facts.LibraryDoc = true, r.doc(from)
			i = r.UpTo(at, n, '{')
			if i > 0 && i <= n {
				i = r.Close(i-1, n) + 1
			}
		default:
			i = r.member(from, at, n, mods, file)
		}
		i = max(i, from+1)
	}
}

// imports reads what stands between "import" and its semicolon. A package ends where names
// begin with a capital: what is taken out of it is the type, and what stands in that.
func (r *reader) imports(from, to int) {
	if r.Word(from) == "module" && r.Word(from+1) != "" {
		return
	}
	static := r.Word(from) == "static"
	if static {
		from++
	}
	name := r.Dotted(from, to)
	if name == "" {
		return
	}
	imported := model.Import{Span: r.Span(from, to)}
	parts := strings.Split(name, ".")
	n := len(parts) - 1
	for i, part := range parts[:n] {
		if part != "" && part[0] >= 'A' && part[0] <= 'Z' {
			n = i
			break
		}
	}
	imported.Path, imported.Member = strings.Join(parts[:n], "."), strings.Join(parts[n:], ".")
	if imported.Member != "*" {
		imported.Name = parts[len(parts)-1]
	}
	if imported.Path == "" {
		return
	}
	if of, all := strings.CutSuffix(imported.Member, ".*"); all { // the names in a type
		imported.Name, imported.Member = ".", of
	}
	r.Facts.Imports = append(r.Facts.Imports, imported)
}

// mods are what stands before a declaration.
type mods struct {
	words      []int // tokens of modifiers
	access     model.Visibility
	said       bool // the access is written
	static     bool
	final      bool
	deprecated bool
}

// modifiers reads annotations and modifiers, and gives the index behind them.
func (r *reader) modifiers(i, end int) (m mods, next int) {
	m.access = model.PackageWide
	for i < end {
		switch word := r.Word(i); {
		case r.Is(i, '@') && r.Word(i+1) != "interface" && r.Word(i+1) != "":
			after := r.annotation(i, end)
			if name := r.Word(after - 1); name == "Deprecated" || r.Word(i+1) == "Deprecated" {
				m.deprecated = true
			}
			i = after
			continue
		case word == "non" && r.Is(i+1, '-') && r.Word(i+2) == "sealed":
			m.words = append(m.words, i, i+1, i+2)
			i += 3
			continue
		case !isModifier(word) || (word == "sealed" || word == "default") && !r.declares(i+1):
			return m, i
		case word == "public":
			m.access, m.said = model.Public, true
		case word == "protected":
			m.access, m.said = model.Protected, true
		case word == "private":
			m.access, m.said = model.Private, true
		case word == "static":
			m.static = true
		case word == "final":
			m.final = true
		}
		m.words = append(m.words, i)
		i++
	}
	return m, i
}

// declares reports whether what stands at an index goes on with a declaration: a word that
// is a modifier in some places only stands before one.
func (r *reader) declares(i int) bool {
	return r.Word(i) != "" || r.Is(i, '@') || r.Is(i, '<')
}

// annotation is the index behind the annotation at an index.
func (r *reader) annotation(i, end int) int {
	i += 2
	for i+1 < end && r.Is(i, '.') && r.Word(i+1) != "" {
		i += 2
	}
	if i < end && r.Is(i, '(') {
		return min(r.Over(i), end)
	}
	return i
}

// annotations is the index behind the annotations at an index.
func (r *reader) annotations(i int) int {
	for r.Is(i, '@') && r.Word(i+1) != "" && r.Word(i+1) != "interface" {
		i = r.annotation(i, len(r.Tokens))
	}
	return i
}

// body reads the members of a type, between the braces at open and close.
func (r *reader) body(open, close int, own owner) {
	if r.depth++; r.depth > deepest {
		r.depth--
		r.TooDeep(open, deepest)
		return
	}
	defer func() { r.depth-- }()
	i := open + 1
	if own.kind == model.KindEnum {
		i = r.constants(i, close, own)
	}
	for i < close {
		m, at := r.modifiers(i, close)
		i = max(i+1, r.member(i, at, close, m, own))
	}
}

// member reads the declaration whose modifiers begin at from and end at at, and gives the
// index behind it.
func (r *reader) member(from, at, end int, m mods, own owner) int {
	if at >= end {
		return end
	}
	switch word := r.Word(at); {
	case r.Is(at, ';') || r.Is(at, '}') || r.Is(at, ')') || r.Is(at, ']'):
		return at + 1
	case r.Is(at, '{'): // an initialiser
		return r.Over(at)
	case word == "class" || word == "interface" || word == "enum" || r.Is(at, '@') && r.Word(at+1) == "interface",
		word == "record" && r.Word(at+1) != "" && (r.Is(at+2, '(') || r.Is(at+2, '<')):
		return r.typeDeclaration(from, at, end, m, own)
	}
	return r.typed(from, at, end, m, own)
}

// words are those before the token at an index.
func (r *reader) words(i int) lexing.Said {
	return lexing.Said{Doc: r.doc(i), Directives: r.Directives(i)}
}

// doc is the doc comment that stands before the token at an index: the last one of those
// behind the token before it (JLS says nothing of them; the documentation comment
// specification does).
func (r *reader) doc(i int) *model.Doc {
	var found *model.Doc
	r.Before(i, func(n int, c source.Span) bool {
		switch text := c.In(r.Text); {
		case strings.HasPrefix(text, "/**") && len(text) > len("/**/"):
			found = r.made(c, "")
			return false
		case isLine(text):
			for n > 0 && r.follows(r.Comments[n-1], c) {
				n--
				c.Start = r.Comments[n].Start
			}
			found = r.made(c, "nametags")
			return false
		}
		return true
	})
	return found
}

// isLine reports whether a comment is a line of a doc comment (JEP 467). A row of slashes is
// an ornament.
func isLine(text string) bool {
	return strings.HasPrefix(text, "///") && !strings.HasPrefix(text, "////")
}

// follows reports whether a comment line stands right above another one and both are doc
// comments.
func (r *reader) follows(above, below source.Span) bool {
	between := r.Text[above.End:below.Start]
	return isLine(above.In(r.Text)) && strings.TrimSpace(between) == "" && strings.Count(between, "\n") == 1
}

// made makes a doc comment of a dialect; "" is the language's own.
func (r *reader) made(span source.Span, dialect string) *model.Doc {
	doc := r.DocOf(span)
	if doc == nil {
		return nil
	}
	if dialect != "" {
		doc.Dialect = dialect
	}
	return r.withSnippets(doc)
}

// add puts a declaration behind the others and gives its index.
func (r *reader) add(o model.Occurrence, own owner, name int, said lexing.Said, m mods) int32 {
	t := r.Tokens[name]
	o.Name, o.NameSpan = r.Text[t.From:t.To], source.Span{Start: t.From, End: t.To}
	o.Line = int32(r.Facts.Lines.Line(t.From))
	o.Parent, o.Scope, o.Doc = own.at, own.scope, said.Doc
	o.Deprecated = m.deprecated || said.Doc != nil && hasTag(said.Doc.Text, "@deprecated")
	if o.Visibility = m.access; !m.said && (own.kind == model.KindInterface || own.kind == model.KindAnnotation) {
		o.Visibility = model.Public
	}
	for _, w := range m.words {
		switch word := r.Word(w); {
		case word == "" || accessWords[word] || word == "sealed" && r.Is(w-1, '-'):
		case word == "non":
			o.Modify("non-sealed")
		default:
			o.Modify(word)
		}
	}
	if said.Doc != nil && hasTag(said.Doc.Text, "@hidden") {
		said.Directives = append(said.Directives, model.Directive{Verb: "hide", Span: o.NameSpan})
	}
	if o.Kind == model.KindField || o.Kind == model.KindConstant && o.Visibility > model.Protected {
		if o.Extra == nil {
			o.Extra = &model.Extra{}
		}
		o.Extra.Space = fieldSpace
	}
	if len(said.Directives) > 0 {
		if o.Extra == nil {
			o.Extra = &model.Extra{}
		}
		o.Extra.Directives = said.Directives
	}
	if strings.IndexByte(o.Name, '\\') >= 0 {
		o.Name = unescaped(o.Name)
	}
	r.Facts.Occurrences = append(r.Facts.Occurrences, o)
	return int32(len(r.Facts.Occurrences) - 1)
}

var accessWords = lexing.WordSet("public protected private")

// fieldSpace is the name space of fields: a method may have the name of a field (JLS 6.5), and
// is mostly what gives the field's value. Constants that users see are in the one of methods,
// whose names none has.
const fieldSpace = "field"

// unescaped is a name with the characters that it writes as their numbers (JLS 3.3).
func unescaped(name string) string {
	var b strings.Builder
	for {
		before, rest, found := strings.Cut(name, `\u`)
		b.WriteString(before)
		if !found {
			return b.String()
		}
		rest = strings.TrimLeft(rest, "u")
		n, err := strconv.ParseUint(rest[:min(4, len(rest))], 16, 16)
		if err != nil {
			return b.String() + `\u` + rest
		}
		b.WriteRune(rune(n))
		name = rest[4:]
	}
}

// hasTag reports whether a comment has a block tag.
func hasTag(text, tag string) bool {
	for {
		i := strings.Index(text, tag)
		if i < 0 {
			return false
		}
		if i == 0 || strings.TrimLeft(text[strings.LastIndexByte(text[:i], '\n')+1:i], " \t") == "" {
			return true
		}
		text = text[i+1:]
	}
}
