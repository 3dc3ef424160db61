package csharp

import (
	"slices"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file goes from declaration to declaration: those of a file, of a namespace and of a
// type, with the attributes, modifiers and comments before them.

// deepest is how deep types and namespaces in one another are read. People stay far below.
const deepest = 200

// owner is the type that members are read of.
type owner struct {
	at    int32 // its occurrence, or -1 for the namespace
	scope string
	name  string
	kind  model.Kind
	// extends is the head of the block of extensions that the members stand in, or "".
	extends string
}

// unit reads the file.
func (r *reader) unit() {
	r.PairAngles(",.?&*[]()", r.overInType)
	r.declarations(0, len(r.Tokens))
	if len(r.Facts.Occurrences) > 0 { // the file goes with the first namespace that it declares something of
		r.Facts.Package = habits.Last(r.Facts.Occurrences[0].In())
	}
}

// overInType is the index behind what may stand in a type beside names and marks of one
// byte: what an attribute holds is no type, and a name may have its alias before it.
func (r *reader) overInType(i int, open bool) int {
	switch {
	case r.IsMark(i, "::"):
		return i + 1
	case open && r.Is(i, '[') && (r.Is(i-1, '<') || r.Is(i-1, ',')):
		return r.Over(i)
	}
	return i
}

// declarations reads what stands between two indices in a namespace.
func (r *reader) declarations(i, end int) {
	for i < end {
		from := i
		m, at := r.modifiers(i, end)
		switch word := r.Word(at); {
		case word == "namespace":
			i = r.namespace(at, end)
		case word == "using" && !r.Is(at+1, '('), word == "global" && r.Word(at+1) == "using":
			stop := r.UpTo(at, end, ';')
			r.using(at, stop-1)
			i = stop
		case word == "extern" && r.Word(at+1) == "alias":
			i = r.UpTo(at, end, ';')
		case r.declaresType(at):
			i = r.typeDeclaration(from, at, end, m, owner{at: -1})
		default: // a statement of a program, or what is lost
			i = r.PastUnknown(at, end)
		}
		i = max(i, from+1)
	}
}

// namespace reads a namespace, with braces or for the rest of the file.
func (r *reader) namespace(at, end int) int {
	i := at + 1
	for i < end && (r.Word(i) != "" || r.Is(i, '.')) {
		i++
	}
	name := strings.ReplaceAll(r.Dotted(at+1, i), "@", "")
	before := r.space
	if r.space = name; before != "" && r.Is(i, '{') { // one for the rest of the file stands in no other
		r.space = before + "." + name
	}
	if name != "" {
		if r.Facts.Package == "" {
			r.Facts.Directives = r.Directives(at)
			r.Facts.Package = habits.Last(r.space)
			r.Facts.ModuleSpan = r.Span(at+1, i)
		}
		r.Facts.Modules = append(r.Facts.Modules, model.ModuleIn{Name: r.space})
	}
	if !r.Is(i, '{') {
		return i + 1
	}
	stop := r.Close(i, end)
	if r.Deeper(i, deepest) {
		r.declarations(i+1, stop)
		r.Shallower()
	}
	r.space = before
	return stop + 1
}

// using reads what stands between "using" and its semicolon.
func (r *reader) using(from, to int) {
	whole := r.Word(from) == "global"
	if whole {
		from++
	}
	if from++; r.Word(from) == "static" {
		from++
	}
	imported := model.Import{Span: r.Span(from, to), ForAll: whole}
	if r.Is(from+1, '=') {
		imported.Name = strings.TrimPrefix(r.Word(from), "@")
		from += 2
	}
	for i := from; i < to; i++ {
		if r.Word(i) == "" && !r.Is(i, '.') && !r.IsMark(i, "::") {
			return // a name for what only types are made of
		}
	}
	name := strings.ReplaceAll(strings.TrimPrefix(r.Dotted(from, to), "global::"), "@", "")
	if name == "" {
		return
	}
	if imported.Path, imported.Member = name, "*"; imported.Name != "" || r.Word(from-1) == "static" {
		i := strings.LastIndexByte(name, '.')
		if i < 0 {
			return
		}
		imported.Path, imported.Member = name[:i], name[i+1:]
	}
	r.Facts.Imports = append(r.Facts.Imports, imported)
}

// mods are what stands before a declaration.
type mods struct {
	words      []int // tokens of modifiers
	access     model.Visibility
	said       bool // the access is written
	static     bool
	constant   bool
	deprecated bool
	kept       bool // out of sight of who completes names, by an attribute

	experimental bool // by an attribute: it may change
	advice       source.Span
}

// modifiers reads attributes and modifiers, and gives the index behind them.
func (r *reader) modifiers(i, end int) (m mods, next int) {
	for i < end {
		if r.Is(i, '[') {
			stop := r.Close(i, end)
			r.attributes(i, stop, &m)
			i = stop + 1
			continue
		}
		word := r.Word(i)
		if !isModifier(word) || contextual[word] && !r.declares(i+1) || word == "extern" && r.Word(i+1) == "alias" {
			return m, i
		}
		m.modify(word)
		m.words = append(m.words, i)
		i++
	}
	return m, i
}

// modify takes what a modifier says. Of two words for the access, "protected internal" is
// for those who inherit as well, and "private protected" is not for all of them.
func (m *mods) modify(word string) {
	access := model.Public
	switch word {
	case "protected":
		access = model.Protected
	case "internal":
		access = model.Internal
	case "private", "file":
		access = model.Private
	case "public":
	case "static":
		m.static = true
		return
	case "const":
		m.constant = true
		return
	default:
		return
	}
	switch {
	case !m.said:
		m.access = access
	case m.access == model.Private || access == model.Private:
		m.access = model.Internal
	default:
		m.access = min(m.access, access)
	}
	m.said = true
}

// has reports whether a word is among modifiers.
func (r *reader) has(m mods, word string) bool {
	return slices.ContainsFunc(m.words, func(w int) bool { return r.Word(w) == word })
}

// declares reports whether what stands at an index goes on with a declaration: a word that
// is a modifier in some places only stands before one.
func (r *reader) declares(i int) bool {
	word := r.Word(i)
	return word != "" && word != "is" && word != "as" && word != "in" || r.Is(i, '(')
}

// attributes reads the attributes of one pair of brackets for those that matter to users.
func (r *reader) attributes(open, close int, m *mods) {
	if of := r.Word(open + 1); r.Is(open+2, ':') && (of == "assembly" || of == "module") {
		r.ofAssembly(open, close)
		return
	}
	for i := open + 1; i < close; i++ {
		if r.Is(i+1, ':') {
			i += 2 // what it is of
		}
		for r.Word(i) != "" && (r.Is(i+1, '.') || r.IsMark(i+1, "::")) {
			i += 2
		}
		switch name := strings.TrimSuffix(r.Word(i), "Attribute"); {
		case name == "Obsolete":
			m.deprecated = true
			if r.Is(i+1, '(') && i+2 < close && r.Tokens[i+2].Kind == lexing.Value {
				m.advice = r.Span(i+2, i+3)
			}
		case name == "EditorBrowsable" && r.Word(r.Over(i+1)-2) == "Never":
			m.kept = true
		case name == "Experimental":
			m.experimental = true
		}
		for i < close && !r.Is(i, ',') {
			i = r.Over(i)
		}
	}
}

// ofAssembly reads attributes of the whole assembly: whom it lets in.
func (r *reader) ofAssembly(open, close int) {
	for i := open + 3; i < close; i++ {
		if strings.TrimSuffix(r.Word(i), "Attribute") != "InternalsVisibleTo" || !r.Is(i+1, '(') || i+2 >= close {
			continue
		}
		text := strings.TrimPrefix(r.Span(i+2, i+3).In(r.Text), "@")
		if r.Tokens[i+2].Kind != lexing.Value || !strings.HasPrefix(text, `"`) {
			continue
		}
		name, _, _ := strings.Cut(strings.Trim(text, `"`), ",") // a key may follow
		if name = strings.TrimSpace(name); name != "" && !strings.ContainsAny(name, "{\\") {
			r.Facts.Sayings = append(r.Facts.Sayings, model.Saying{Key: model.LetsIn, Names: []string{name}})
		}
	}
}

// words are those before the token at an index.
func (r *reader) words(i int) lexing.Said {
	return lexing.Said{Doc: r.doc(i), Directives: r.Directives(i)}
}

// doc is the doc comment that stands before the token at an index: all its parts, between
// which other comments may stand (Annex D of the standard).
func (r *reader) doc(i int) *model.Doc {
	var parts []source.Span
	r.Before(i, func(_ int, c source.Span) bool {
		if text := c.In(r.Text); isLine(text) || strings.HasPrefix(text, "/**") && len(text) > len("/***/") && text[3] != '*' {
			if n := len(parts) - 1; n >= 0 && isLine(text) && r.Text[parts[n].Start+2] == '/' && strings.TrimSpace(r.Text[c.End:parts[n].Start]) == "" {
				parts[n].Start = c.Start
			} else {
				parts = append(parts, c)
			}
		}
		return true
	})
	if len(parts) == 0 {
		return nil
	}
	if len(parts) == 1 {
		return r.included(r.DocOf(parts[0]))
	}
	whole := model.Doc{Span: source.Span{Start: parts[len(parts)-1].Start, End: parts[0].End}}
	for n := len(parts) - 1; n >= 0; n-- {
		doc := lexing.BlockDoc(r.Text, parts[n])
		if doc == nil {
			continue
		}
		if whole.Text != "" {
			whole.Text += "\n"
		}
		whole.Text += doc.Text
		whole.Lines = append(whole.Lines, doc.Lines...)
	}
	if whole.Text == "" {
		return nil
	}
	return r.included(&whole)
}

// isLine reports whether a comment is a line of a doc comment. A row of slashes is an ornament.
func isLine(text string) bool {
	return strings.HasPrefix(text, "///") && !strings.HasPrefix(text, "////")
}

// add puts a declaration behind the others and gives its index.
func (r *reader) add(o model.Occurrence, own owner, name source.Span, said lexing.Said, m mods) int32 {
	if o.NameSpan = name; o.Name == "" {
		o.Name = strings.TrimPrefix(name.In(r.Text), "@")
	}
	o.Line = int32(r.Facts.Lines.Line(name.Start))
	o.Parent, o.Scope, o.Doc, o.Deprecated = own.at, own.scope, said.Doc, m.deprecated
	switch {
	case m.said:
		o.Visibility = m.access
	case own.at < 0:
		o.Visibility = model.Internal
	case own.kind != model.KindInterface && own.kind != model.KindEnum:
		o.Visibility = model.Private
	}
	for _, w := range m.words {
		if word := r.Word(w); !accessWords[word] && word != "partial" {
			o.Modify(word)
		}
	}
	if m.experimental {
		o.Modify("experimental")
	}
	extra := model.Extra{}
	if o.Extra != nil {
		extra = *o.Extra
	}
	given := len(extra.Modifiers) + len(extra.Bases) + len(extra.TypeParams)
	extra.Conditions = r.Branches.At(name.Start)
	if own.at < 0 {
		extra.In = r.space
	}
	extra.Section = own.extends
	if m.advice.End > m.advice.Start {
		extra.Advice = r.advice(m.advice)
	}
	extra.Directives, extra.Aside = said.Directives, m.kept
	if given > 0 || extra.Aside || extra.In != "" || extra.Conditions != nil || extra.Advice != nil || len(extra.Directives) > 0 || extra.Arity > 0 || extra.Space != "" || extra.Section != "" {
		o.Extra = &extra
	}
	r.Facts.Occurrences = append(r.Facts.Occurrences, o)
	return int32(len(r.Facts.Occurrences) - 1)
}

// advice is what an attribute says to do instead, out of its string.
func (r *reader) advice(span source.Span) *model.Doc {
	text := strings.Trim(span.In(r.Text), `"`)
	if text == "" || strings.ContainsAny(text, "\\{\n") || len(text) < int(span.End-span.Start)-2 {
		return nil
	}
	inside := source.Span{Start: span.Start + 1, End: span.End - 1}
	return &model.Doc{Text: text, Lines: []source.Span{inside}, Span: span, Dialect: "blocktags"}
}

var accessWords = lexing.WordSet("public protected private internal file")
