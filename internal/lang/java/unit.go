package java

import (
	"sort"
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

// word is the word at an index, or "".
func (r *reader) word(i int) string {
	if i < 0 || i >= len(r.tokens) || r.tokens[i].Kind != lexing.Word {
		return ""
	}
	t := &r.tokens[i]
	return r.text[t.From:t.To]
}

// is reports whether the token at an index is a mark of one byte.
func (r *reader) is(i int, mark byte) bool {
	if i < 0 || i >= len(r.tokens) || r.tokens[i].Kind != lexing.Mark {
		return false
	}
	t := &r.tokens[i]
	return t.To == t.From+1 && r.text[t.From] == mark
}

// isMark reports whether the token at an index is a mark of several bytes.
func (r *reader) isMark(i int, mark string) bool {
	return i >= 0 && i < len(r.tokens) && r.tokens[i].Kind == lexing.Mark && r.text[r.tokens[i].From:r.tokens[i].To] == mark
}

// over is the index behind a token, or behind what it opens. Signs of types are no brackets
// here.
func (r *reader) over(i int) int {
	if i < len(r.tokens) && int(r.tokens[i].Partner) > i && !r.is(i, '<') {
		return int(r.tokens[i].Partner) + 1
	}
	return i + 1
}

// close is the index of the bracket that closes the one at an index, or of the end.
func (r *reader) close(i, end int) int {
	if p := int(r.tokens[i].Partner); p > i {
		return min(p, end)
	}
	return end
}

// upTo is the index behind the next mark of a kind, with what stands in brackets passed over.
func (r *reader) upTo(i, end int, mark byte) int {
	for i < end && !r.is(i, mark) {
		i = r.over(i)
	}
	return min(i+1, end)
}

// span is from a token to the one before another.
func (r *reader) span(from, to int) source.Span {
	if to = min(to, len(r.tokens)); from >= len(r.tokens) {
		return source.NewSpan(len(r.text), len(r.text))
	}
	if to <= from {
		return source.Span{Start: r.tokens[from].From, End: r.tokens[from].From}
	}
	return source.Span{Start: r.tokens[from].From, End: r.tokens[to-1].To}
}

// unit reads the file.
func (r *reader) unit() {
	r.pairAngles()
	file := owner{at: -1}
	for i, n := 0, len(r.tokens); i < n; {
		from := i
		mods, at := r.modifiers(i, n)
		switch word := r.word(at); {
		case word == "package":
			end := r.upTo(at, n, ';')
			r.module = r.dotted(at+1, end-1)
			r.facts.Package = habits.Last(r.module)
			r.facts.Modules = []model.ModuleIn{{Name: r.module}}
			if strings.HasSuffix(r.facts.Path, "package-info.java") {
				r.facts.ModuleDoc, r.facts.ModuleSpan = r.doc(from), r.span(at+1, max(at+2, end-1))
			}
			i = end
		case word == "import":
			end := r.upTo(at, n, ';')
			r.imports(at+1, end-1)
			i = end
		case word == "module" && r.word(at+1) != "", word == "open" && r.word(at+1) == "module":
			i = r.upTo(at, n, '{')
			if i > 0 && i <= n {
				i = r.close(i-1, n) + 1
			}
		default:
			i = r.member(from, at, n, mods, file)
		}
		i = max(i, from+1)
	}
}

// dotted is the name that tokens make with dots.
func (r *reader) dotted(from, to int) string {
	if to <= from || to > len(r.tokens) {
		return ""
	}
	whole := r.span(from, to).In(r.text)
	if !strings.ContainsAny(whole, " \t\r\n/@") {
		return whole
	}
	var b strings.Builder
	for i := from; i < to; i++ {
		b.WriteString(r.text[r.tokens[i].From:r.tokens[i].To])
	}
	return b.String()
}

// imports reads what stands between "import" and its semicolon. A package ends where names
// begin with a capital: what is taken out of it is the type, and what stands in that.
func (r *reader) imports(from, to int) {
	if r.word(from) == "module" && r.word(from+1) != "" {
		return
	}
	static := r.word(from) == "static"
	if static {
		from++
	}
	name := r.dotted(from, to)
	if name == "" {
		return
	}
	imported := model.Import{Span: r.span(from, to)}
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
	if imported.Name == "*" || imported.Path == "" {
		return // the names in a type: they mean nothing in comments
	}
	r.facts.Imports = append(r.facts.Imports, imported)
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
		switch word := r.word(i); {
		case r.is(i, '@') && r.word(i+1) != "interface" && r.word(i+1) != "":
			after := r.annotation(i, end)
			if name := r.word(after - 1); name == "Deprecated" || r.word(i+1) == "Deprecated" {
				m.deprecated = true
			}
			i = after
			continue
		case word == "non" && r.is(i+1, '-') && r.word(i+2) == "sealed":
			m.words = append(m.words, i, i+1, i+2)
			i += 3
			continue
		case !modifiers[word] || (word == "sealed" || word == "default") && !r.declares(i+1):
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
	return r.word(i) != "" || r.is(i, '@') || r.is(i, '<')
}

// annotation is the index behind the annotation at an index.
func (r *reader) annotation(i, end int) int {
	i += 2
	for i+1 < end && r.is(i, '.') && r.word(i+1) != "" {
		i += 2
	}
	if i < end && r.is(i, '(') {
		return min(r.over(i), end)
	}
	return i
}

// annotations is the index behind the annotations at an index.
func (r *reader) annotations(i int) int {
	for r.is(i, '@') && r.word(i+1) != "" && r.word(i+1) != "interface" {
		i = r.annotation(i, len(r.tokens))
	}
	return i
}

// body reads the members of a type, between the braces at open and close.
func (r *reader) body(open, close int, own owner) {
	if r.depth++; r.depth > deepest {
		r.depth--
		if !r.troubled {
			r.troubled = true
			r.unreadable(r.span(open, open+1), "deep", strconv.Itoa(deepest))
		}
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
	switch word := r.word(at); {
	case r.is(at, ';') || r.is(at, '}') || r.is(at, ')') || r.is(at, ']'):
		return at + 1
	case r.is(at, '{'): // an initialiser
		return r.over(at)
	case word == "class" || word == "interface" || word == "enum" || r.is(at, '@') && r.word(at+1) == "interface",
		word == "record" && r.word(at+1) != "" && (r.is(at+2, '(') || r.is(at+2, '<')):
		return r.typeDeclaration(from, at, end, m, own)
	}
	return r.typed(from, at, end, m, own)
}

// lost goes on behind what is no declaration.
func (r *reader) lost(i, end int) int {
	for i < end {
		switch {
		case r.is(i, ';'):
			return i + 1
		case r.is(i, '{'):
			return r.over(i)
		case r.is(i, '}'):
			return i + 1
		}
		i = r.over(i)
	}
	return end
}

// doc is the doc comment that stands before the token at an index: the last one of those
// behind the token before it (JLS says nothing of them; the documentation comment
// specification does).
func (r *reader) doc(i int) *model.Doc {
	low, high := int32(0), r.tokens[i].From
	if i > 0 {
		low = r.tokens[i-1].To
	}
	last := sort.Search(len(r.comments), func(n int) bool { return r.comments[n].Start >= high }) - 1
	for ; last >= 0 && r.comments[last].Start >= low; last-- {
		c := r.comments[last]
		switch text := c.In(r.text); {
		case strings.HasPrefix(text, "/**") && len(text) > len("/**/"):
			return r.made(c, "")
		case isLine(text):
			for last > 0 && r.comments[last-1].Start >= low && r.follows(r.comments[last-1], c) {
				last--
				c.Start = r.comments[last].Start
			}
			return r.made(c, "blocktags")
		}
	}
	return nil
}

// isLine reports whether a comment is a line of a doc comment (JEP 467). A row of slashes is
// an ornament.
func isLine(text string) bool {
	return strings.HasPrefix(text, "///") && !strings.HasPrefix(text, "////")
}

// follows reports whether a comment line stands right above another one and both are doc
// comments.
func (r *reader) follows(above, below source.Span) bool {
	between := r.text[above.End:below.Start]
	return isLine(above.In(r.text)) && strings.TrimSpace(between) == "" && strings.Count(between, "\n") == 1
}

// made makes a doc comment, or notes that it has no word.
func (r *reader) made(span source.Span, dialect string) *model.Doc {
	doc := lexing.BlockDoc(r.text, span)
	if doc == nil {
		r.facts.Empty = append(r.facts.Empty, model.Blank{Span: span})
		return nil
	}
	doc.Dialect = dialect
	return doc
}

// add puts a declaration behind the others and gives its index.
func (r *reader) add(o model.Occurrence, own owner, name int, doc *model.Doc, m mods) int32 {
	t := r.tokens[name]
	o.Name, o.NameSpan = r.text[t.From:t.To], source.Span{Start: t.From, End: t.To}
	o.Line = int32(r.facts.Lines.Line(t.From))
	o.Parent, o.Scope, o.Doc = own.at, own.scope, doc
	o.Deprecated = m.deprecated || doc != nil && deprecates(doc.Text)
	if o.Visibility = m.access; !m.said && (own.kind == model.KindInterface || own.kind == model.KindAnnotation) {
		o.Visibility = model.Public
	}
	for _, w := range m.words {
		switch word := r.word(w); {
		case word == "" || accessWords[word] || word == "sealed" && r.is(w-1, '-'):
		case word == "non":
			o.Modify("non-sealed")
		default:
			o.Modify(word)
		}
	}
	r.facts.Occurrences = append(r.facts.Occurrences, o)
	return int32(len(r.facts.Occurrences) - 1)
}

var accessWords = setOf("public protected private")

// deprecates reports whether a comment has the tag that makes its subject deprecated.
func deprecates(text string) bool {
	for {
		i := strings.Index(text, "@deprecated")
		if i < 0 {
			return false
		}
		if i == 0 || strings.TrimLeft(text[strings.LastIndexByte(text[:i], '\n')+1:i], " \t") == "" {
			return true
		}
		text = text[i+1:]
	}
}
