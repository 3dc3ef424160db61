// Package crossmarks reads Rust's doc comments: Markdown in which names in brackets lead to what they
// name ("Linking to items by name" in the language's own book on documentation).
//
// A name may stand alone, as [Tide] or [`Tide`], behind the text that is shown for it, as
// [the tide](Tide) or [the tide][Tide], or below the text, as "[the tide]: Tide". It may have its
// kind before it, as [struct@Tide], or behind it, as [height()] and [tide!]. Lines of examples that
// begin with "#" are there for the compiler alone.
package crossmarks

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
)

// parser takes one comment apart.
type parser struct {
	doc     *model.Doc
	out     *prose.Sections
	defined map[string]string // labels that the comment says the meaning of
}

// Parse takes a comment apart.
func Parse(doc *model.Doc, _ prose.Vocabulary) *prose.Sections {
	p := parser{doc: doc, out: &prose.Sections{}}
	lines := strings.Split(doc.Text, "\n")
	p.defined = definitions(lines)
	var m markdown.Made
	var open markdown.Fence // of the code that lines stand in
	low, high := doc.Span.Start, doc.Span.End
	for i, text := range lines {
		at := low
		if i < len(doc.Lines) {
			at = doc.Lines[i].Start
		}
		if i > 0 {
			m.Put("\n", at, true)
		}
		f := markdown.FenceAt(text)
		switch indented := strings.HasPrefix(text, "    ") || strings.HasPrefix(text, "\t"); {
		case open.Size > 0:
			if f.Size > 0 && f.Closes(open) {
				open = markdown.Fence{}
			}
			m.Put(text, at, false)
			continue
		case f.Size > 0 && !indented:
			open = f
			m.Put(text, at, false)
			continue
		case indented:
			m.Put(text, at, false)
			continue
		}
		p.line(&m, text, at)
	}
	nodes, plain := m.Read(low, high)
	for _, span := range plain {
		p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.AsWritten, Span: span})
	}
	prose.Walk(nodes, func(n *prose.Node) bool {
		if n.Kind == prose.CodeBlock {
			example(n)
		}
		return true
	})
	p.out.Body = nodes
	return p.out
}

// definitions are the labels that lines give a meaning, as "[Tide]: crate::Tide".
func definitions(lines []string) map[string]string {
	var out map[string]string
	for i, line := range lines {
		if i+1 < len(lines) && strings.HasSuffix(strings.TrimRight(line, " "), "]:") { // its meaning stands on the next line
			line += " " + lines[i+1]
		}
		label, to, ok := definition(line)
		if !ok {
			continue
		}
		if out == nil {
			out = map[string]string{}
		}
		out[strings.ToLower(label)] = to
	}
	return out
}

func definition(line string) (label, to string, ok bool) {
	trimmed := strings.TrimLeft(line, " ")
	if !strings.HasPrefix(trimmed, "[") || len(line)-len(trimmed) > 3 {
		return "", "", false
	}
	end := strings.Index(trimmed, "]:")
	if end < 2 || strings.Contains(trimmed[1:end], "[") || trimmed[1] == '^' { // a footnote
		return "", "", false
	}
	fields := strings.Fields(trimmed[end+2:])
	if len(fields) == 0 {
		return "", "", false
	}
	return trimmed[1:end], strings.Trim(fields[0], "<>"), true
}

// line puts a line with its names in brackets made links.
func (p *parser) line(m *markdown.Made, text string, at int32) {
	if label, to, ok := definition(text); ok {
		if name, is := nameIn(to); is {
			m.Put("["+label+"]: <"+schemeOf(name)+name+">", at, true)
			return
		}
	}
	from := 0
	for i := 0; i < len(text); i++ {
		switch text[i] {
		case '\\':
			i++
		case '`': // a code span is left alone
			n := 1
			for i+n < len(text) && text[i+n] == '`' {
				n++
			}
			if end := strings.Index(text[min(len(text), i+n):min(len(text), i+n+longestSpan)], text[i:i+n]); end >= 0 {
				i += n + end + n - 1
			} else {
				i += n - 1
			}
		case '[':
			if isTask(text, i) {
				continue
			}
			size, made := p.bracket(text[i:min(len(text), i+longestSpan)])
			if size == 0 {
				continue
			}
			m.Put(text[from:i], at+int32(from), false)
			m.Put(made, at+int32(i), true)
			from, i = i+size, i+size-1
		}
	}
	m.Put(text[from:], at+int32(from), false)
}

// isTask reports whether brackets at an offset are those of an entry that is done, as "- [x] moored".
func isTask(text string, i int) bool {
	mark := strings.TrimSpace(text[:i])
	return i+2 < len(text) && (text[i+1] == 'x' || text[i+1] == 'X') && text[i+2] == ']' && (mark == "-" || mark == "*" || mark == "+" || len(mark) > 1 && strings.Trim(mark, "0123456789") == ".")
}

// bracket makes a link of a name in brackets that a text begins with; size is 0 where there is none.
func (p *parser) bracket(text string) (size int, made string) {
	shut := closing(text)
	if shut < 2 {
		return 0, ""
	}
	shown := text[1:shut]
	rest := text[shut+1:]
	switch {
	case strings.HasPrefix(rest, "("):
		end := strings.IndexByte(rest, ')')
		if end < 0 {
			return 0, ""
		}
		to := rest[1:end]
		if strings.HasSuffix(to, "(") && strings.HasPrefix(rest[end+1:], ")") { // [text](height())
			to, end = to+")", end+1
		}
		to, _, _ = strings.Cut(strings.TrimSpace(to), " ")
		if name, ok := nameIn(strings.Trim(to, "<>")); ok {
			return shut + 1 + end + 1, linked(shown, name)
		}
		return 0, ""
	case strings.HasPrefix(rest, "["):
		end := strings.IndexByte(rest, ']')
		if end < 0 {
			return 0, ""
		}
		label := rest[1:end]
		if label == "" {
			label = shown
		}
		if p.defined[strings.ToLower(label)] != "" {
			return 0, ""
		}
		if name, ok := nameIn(label); ok {
			return shut + 1 + end + 1, linked(shown, name)
		}
		return 0, ""
	case strings.HasPrefix(rest, ":") && p.defined[strings.ToLower(shown)] != "":
		return 0, ""
	}
	if p.defined[strings.ToLower(shown)] != "" {
		return 0, ""
	}
	if name, ok := nameIn(shown); ok {
		return shut + 1, linked(displayed(shown), name)
	}
	return 0, ""
}

// closing is the offset of the bracket that closes the first one, outside of code.
func closing(text string) int {
	depth := 0
	for i := 0; i < len(text); i++ {
		switch text[i] {
		case '\\':
			i++
		case '`':
			if end := strings.IndexByte(text[i+1:], '`'); end >= 0 {
				i += end + 1
			}
		case '[':
			depth++
		case ']':
			if depth--; depth == 0 {
				return i
			}
		}
	}
	return -1
}

func linked(shown, name string) string {
	return "[" + shown + "](<" + schemeOf(name) + name + ">)"
}

// schemeOf is how a name leads somewhere: one in small letters alone may be that of a crate that is
// not here.
func schemeOf(name string) string {
	if i := strings.IndexByte(name, ':'); i > 0 && i+1 < len(name) && name[i+1] != ':' { // a kind
		name = name[i+1:]
	}
	if name == strings.ToLower(name) && !strings.Contains(name, "::") {
		return markdown.NamedScheme
	}
	return markdown.OutwardScheme
}

// displayed is a name as it is shown: without the kind before it.
func displayed(shown string) string {
	bare := strings.Trim(shown, "`")
	if _, rest, ok := strings.Cut(bare, "@"); ok {
		return strings.Replace(shown, bare, rest, 1)
	}
	return shown
}

// kinds may stand before "@", each with what is meant by it.
var kinds = map[string]bool{
	"struct": true, "enum": true, "trait": true, "union": true, "mod": true, "module": true, "crate": true, "const": true, "constant": true, "fn": true, "function": true, "field": true, "variant": true,
	"method": true, "derive": true, "type": true, "value": true, "macro": true, "prim": true, "primitive": true, "static": true, "attr": true, "tyalias": true, "typealias": true,
}

// nameIn is the path in a text that names something: without code marks, brackets of calls and type
// arguments, and of kinds with those alone that may share a name with something else; ok is false where it is an address, or words.
func nameIn(text string) (name string, ok bool) {
	name = strings.Trim(strings.TrimSpace(text), "`")
	asked := "" // a kind that shares its names with others
	if strings.Contains(name, ".html") {
		return ofPage(name)
	}
	if kind, rest, has := strings.Cut(name, "@"); has {
		if !kinds[kind] {
			return "", false
		}
		name = rest
		switch kind {
		case "mod", "module":
			asked = "module:"
		case "macro":
			asked = "macro:"
		}
	}
	name, _, _ = strings.Cut(name, "#") // a heading on its page
	if i := strings.IndexByte(name, '<'); i > 0 && strings.HasSuffix(name, ">") {
		name = name[:i]
	}
	if name = strings.TrimSuffix(name, "()"); strings.HasSuffix(name, "!") {
		name, asked = strings.TrimSuffix(name, "!"), "macro:"
	}
	for _, shut := range []string{"{}", "[]"} { // of a macro's call
		if rest, ok := strings.CutSuffix(name, "!"+shut); ok {
			name, asked = rest, "macro:"
		}
	}
	name = strings.TrimPrefix(name, "::")
	if name == "" || len(name) > longestName || name[0] >= '0' && name[0] <= '9' {
		return "", false
	}
	for part := range strings.SplitSeq(name, "::") {
		if part == "" || strings.ContainsFunc(part, func(c rune) bool {
			return !(c == '_' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' || c >= 0x80)
		}) {
			return "", false
		}
	}
	return asked + name, true
}

// ofPage is what an address names, as crates wrote of an item before names alone led to it:
// "../low/struct.Tide.html#method.height".
func ofPage(address string) (name string, ok bool) {
	page, place, _ := strings.Cut(address, "#")
	page, ok = strings.CutSuffix(page[strings.LastIndexByte(page, '/')+1:], ".html")
	kind, name, of := strings.Cut(page, ".")
	if !ok || !of || !kinds[kind] || strings.Contains(address, "://") || strings.Contains(name, ".") || name == "" {
		return "", false
	}
	if _, member, is := strings.Cut(place, "."); is && member != "" {
		name += "::" + member
	}
	return name, true
}

// longestSpan is how many bytes are looked through for the end of code or of what is in brackets: each
// sign that begins such would look to the end of the line else.
const longestSpan = 400

// longestName is how many bytes a name in brackets has at most.
const longestName = 200

// words of fences that say how an example is run, and leave it Rust.
var words = map[string]bool{
	"ignore": true, "no_run": true, "should_panic": true, "compile_fail": true, "test_harness": true, "standalone": true, "standalone_crate": true, "allow_fail": true, "rust": true,
}

// fates are what such words say of an example, in the words of fences of our own.
var fates = map[string]string{"ignore": "shown", "no_run": "builds", "should_panic": "stops", "compile_fail": "refused"}

// example makes an example what its readers see: Rust, where no other language is named, without the
// lines that are there for the compiler.
func example(n *prose.Node) {
	info := strings.FieldsFunc(n.Info, func(c rune) bool { return c == ',' || c == ' ' || c == '{' || c == '}' })
	for _, w := range info {
		if !words[w] && !strings.HasPrefix(w, "edition") && !strings.HasPrefix(w, "ignore-") && !(len(w) == 5 && w[0] == 'E') {
			return
		}
	}
	kept, said := []string{"rust"}, false
	for _, w := range info {
		switch fate := fates[w]; {
		case fate != "" && said:
		case fate != "":
			kept, said = append(kept, "example="+fate), true
		case strings.HasPrefix(w, "ignore-"):
			kept = append(kept, "except="+strings.TrimPrefix(w, "ignore-"))
		case strings.HasPrefix(w, "edition"):
			kept = append(kept, "edition="+strings.TrimPrefix(w, "edition"))
		}
	}
	n.Info = strings.Join(kept, " ")
	var shown, run []string
	for line := range strings.SplitSeq(n.Text, "\n") {
		trimmed := strings.TrimLeft(line, " \t")
		switch {
		case trimmed == "#" || strings.HasPrefix(trimmed, "# "):
			run = append(run, strings.TrimPrefix(trimmed[1:], " "))
			continue
		case strings.HasPrefix(trimmed, "##"):
			line = line[:len(line)-len(trimmed)] + trimmed[1:]
		}
		shown, run = append(shown, line), append(run, line)
	}
	n.Text = strings.Join(shown, "\n")
	if len(run) > len(shown) {
		n.Target = strings.Join(run, "\n")
	}
}
