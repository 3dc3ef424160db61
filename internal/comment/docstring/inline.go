package docstring

import (
	"sort"
	"strings"

	"codrel/internal/prose"
	"codrel/internal/prose/formula"
	"codrel/internal/source"
)

// This file reads what stands in a line ("Inline Markup" in the specification).

type inline struct {
	p      *parser
	text   string
	starts []int // of the lines in the text
	lines  []line
	out    []prose.Node
	from   int // start of the text that is not put out yet
	sought map[string]sought
}

// sought is what a search found: nothing stands between the two offsets.
type sought struct{ from, at int }

// next is the offset of the next mark at or behind an offset, or the text's end. Searches
// of a text together take no longer than to go through it once a mark.
func (in *inline) next(mark string, from int) int {
	return in.seek(mark, from, func(from int) int {
		if i := strings.Index(in.text[from:], mark); i >= 0 {
			return from + i
		}
		return len(in.text)
	})
}

// seek is what find finds at or behind an offset, which must hang on the offset alone.
func (in *inline) seek(what string, from int, find func(from int) int) int {
	if known, ok := in.sought[what]; ok && known.from <= from && from <= known.at {
		return known.at
	}
	if in.sought == nil {
		in.sought = map[string]sought{}
	}
	at := find(from)
	in.sought[what] = sought{from, at}
	return at
}

func joined(lines []line) *inline {
	in := &inline{lines: lines, starts: make([]int, len(lines))}
	var b strings.Builder
	for i, l := range lines {
		if i > 0 {
			b.WriteByte('\n')
		}
		in.starts[i] = b.Len()
		b.WriteString(l.text)
	}
	in.text = b.String()
	return in
}

// offset is the place in the file of an offset in the joined text.
func (in *inline) offset(at int) int32 {
	i := max(0, sort.SearchInts(in.starts, at+1)-1)
	return in.lines[i].offset(min(at-in.starts[i], len(in.lines[i].text)))
}

// inline reads the text of several lines as one.
func (p *parser) inline(lines []line) []prose.Node {
	trimmed := make([]line, len(lines))
	for i, l := range lines {
		trimmed[i] = l.from(l.indent())
	}
	in := joined(trimmed)
	in.p = p
	return in.parse()
}

func (in *inline) parse() []prose.Node {
	s := in.text
	for i := 0; i < len(s); {
		n := 0
		switch c := s[i]; {
		case c == '$' || c == '\\' && i+1 < len(s) && (s[i+1] == '(' || s[i+1] == '['):
			n = in.formula(i)
		case c == '[' && in.wordStart(i):
			n = in.footnoteReference(i)
		case c >= 'A' && c <= 'Z' && i+1 < len(s) && s[i+1] == '{' && in.wordStart(i):
			n = in.lettered(i)
		}
		if n > 0 {
			i += n
			continue
		}
		switch c := s[i]; {
		case c == '\\' && i+1 < len(s):
			in.flush(i)
			in.from = i + 1
			if s[i+1] == ' ' || s[i+1] == '\n' { // it parts markup from letters and is not shown
				in.from++
			}
			i += 2
			continue
		case strings.HasPrefix(s[i:], "``"):
			n = in.literal(i)
		case c == '`':
			n = in.interpreted(i, i, "")
		case c == ':' && in.wordStart(i):
			n = in.role(i)
		case strings.HasPrefix(s[i:], "**"):
			n = in.emphasis(i, "**", prose.Strong)
		case c == '*':
			n = in.emphasis(i, "*", prose.Emphasis)
		case c == 'h' && (strings.HasPrefix(s[i:], "http://") || strings.HasPrefix(s[i:], "https://")) && in.wordStart(i):
			n = in.address(i)
		case c == '|' && in.wordStart(i):
			n = in.substitution(i)
		case c == '_' && len(in.p.targets) > 0:
			n = in.named(i)
		}
		i += max(n, 1)
	}
	in.flush(len(s))
	return in.out
}

// flush puts out the plain text up to an offset.
func (in *inline) flush(to int) {
	if to > in.from {
		in.put(prose.Node{Kind: prose.Text, Text: in.text[in.from:to]}, in.from, to)
	}
	in.from = max(in.from, to)
}

func (in *inline) put(n prose.Node, from, to int) {
	n.Span = source.Span{Start: in.offset(from), End: in.offset(to)}
	n.Span.End = max(n.Span.End, n.Span.Start)
	in.out = append(in.out, n)
}

// node puts out a node for a part of the text and what was plain before it.
func (in *inline) node(n prose.Node, from, to int) int {
	in.flush(from)
	in.put(n, from, to)
	in.from = to
	return to - from
}

func (in *inline) shown(kind prose.Kind, from, to int) prose.Node {
	return prose.Node{Kind: kind, Text: strings.ReplaceAll(in.text[from:to], "\n", " "), Span: source.Span{Start: in.offset(from), End: in.offset(to)}}
}

// wordStart reports whether markup may begin at an offset.
func (in *inline) wordStart(i int) bool {
	if i == 0 {
		return true
	}
	c := in.text[i-1]
	return c < 0x80 && c != '_' && (c < '0' || c > '9') && (c|0x20 < 'a' || c|0x20 > 'z')
}

func (in *inline) wordEnd(i int) bool {
	if i >= len(in.text) {
		return true
	}
	c := in.text[i]
	return c < 0x80 && (c < '0' || c > '9') && (c|0x20 < 'a' || c|0x20 > 'z')
}

func (in *inline) literal(i int) int {
	end := in.next("``", i+2) - i - 2
	if i+2+end == len(in.text) {
		if in.wordStart(i) && i+2 < len(in.text) && in.text[i+2] > ' ' && in.text[i+2] != '`' {
			in.p.unclosed(in, i, "``")
		}
		return 2
	}
	if end == 0 {
		return 2
	}
	stop := i + 2 + end
	for stop+2 < len(in.text) && in.text[stop+2] == '`' {
		stop++
	}
	return in.node(in.shown(prose.Code, i+2, stop), i, stop+2)
}

// unclosed keeps a flaw for markup without an end.
func (p *parser) unclosed(in *inline, at int, mark string) {
	p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.Unclosed, Span: source.Span{Start: in.offset(at), End: in.offset(at + len(mark))}, Text: mark})
}

func (in *inline) emphasis(i int, mark string, kind prose.Kind) int {
	s := in.text
	start := i + len(mark)
	if !in.wordStart(i) || start >= len(s) || s[start] <= ' ' || strings.IndexByte("*)'\",.", s[start]) >= 0 {
		return len(mark)
	}
	end := in.seek("end of "+mark, start+1, func(at int) int {
		for at < len(s) {
			end := in.next(mark, at)
			if end == len(s) || in.closes(mark, end) {
				return end
			}
			at = end + len(mark)
		}
		return len(s)
	})
	if end == len(s) || in.next("\n\n", start) < end {
		return len(mark)
	}
	child := in.shown(prose.Text, start, end)
	return in.node(prose.Node{Kind: kind, Children: []prose.Node{child}}, i, end+len(mark))
}

// closes reports whether emphasis may end with the mark at an offset.
func (in *inline) closes(mark string, at int) bool {
	after := at + len(mark)
	return at > 0 && in.text[at-1] > ' ' && in.wordEnd(after) && !strings.HasPrefix(in.text[after:], "*")
}

// longestRole is how long the name of a role is at most.
const longestRole = 40

// role reads ":name:`text`".
func (in *inline) role(i int) int {
	end := strings.Index(in.text[i+1:min(len(in.text), i+1+longestRole+2)], ":`")
	if end <= 0 {
		return 0
	}
	for _, c := range in.text[i+1 : i+1+end] {
		if (c|0x20 < 'a' || c|0x20 > 'z') && (c < '0' || c > '9') && c != ':' && c != '-' && c != '_' && c != '+' && c != '.' {
			return 0
		}
	}
	return in.interpreted(i, i+1+end+1, in.text[i+1:i+1+end])
}

// interpreted reads "`text`" whose backquote stands at tick, with its role before or behind it.
func (in *inline) interpreted(from, tick int, role string) int {
	s := in.text
	end := in.next("`", tick+1) - tick - 1
	if none := tick+1+end == len(s); none || end == 0 {
		if none && (role != "" || in.wordStart(tick) && tick+1 < len(s) && s[tick+1] > ' ' && in.next("'", tick+1) == len(s)) { // `so' was how text was quoted once
			in.p.unclosed(in, tick, "`")
		}
		return tick + 1 - from
	}
	stop := tick + 1 + end
	inner := s[tick+1 : stop]
	after := stop + 1
	if strings.HasPrefix(s[after:], "__") {
		return in.linked(from, tick+1, stop, after+2, in.p.nextAnonymous)
	}
	if strings.HasPrefix(s[after:], "_") {
		return in.linked(from, tick+1, stop, after+1, func() string { return in.p.targets[targetName(inner)] })
	}
	if role == "" {
		n := prose.Node{Kind: prose.Code, Text: strings.ReplaceAll(inner, "\n", " ")}
		if name, ok := strings.CutPrefix(inner, "~"); ok && isName(strings.TrimSuffix(strings.TrimLeft(name, "."), "()")) {
			n = in.shortened(name)
		}
		return in.node(n, from, after)
	}
	return in.node(in.meaning(strings.ToLower(role), tick+1, stop), from, after)
}

// shortened is a name of which the last part alone is shown.
func (in *inline) shortened(name string) prose.Node {
	name = strings.TrimLeft(name, ".")
	short := prose.Node{Kind: prose.Code, Text: name[strings.LastIndexByte(name, '.')+1:]}
	return prose.Node{Kind: prose.Reference, MayBeExternal: true, Target: strings.TrimSuffix(name, "()"), Children: []prose.Node{short}}
}

// formula reads mathematics, whose mark stands at an offset.
func (in *inline) formula(i int) int {
	found, ok := formula.At(in.text, i)
	if !ok {
		return 0
	}
	span := source.Span{Start: in.offset(i), End: in.offset(found.End)}
	return in.node(formula.Node(found.Text, found.Display, span), i, found.End)
}

// linked reads "`text <address>`_" and "`text`_", whose address is given elsewhere.
func (in *inline) linked(from, start, stop, after int, elsewhere func() string) int {
	inner := in.text[start:stop]
	if open := strings.LastIndexByte(inner, '<'); open >= 0 && strings.HasSuffix(inner, ">") {
		address := strings.Join(strings.Fields(inner[open+1:len(inner)-1]), " ")
		text := start + len(strings.TrimRight(inner[:open], " \n"))
		child := in.shown(prose.Text, start, text)
		if text == start {
			child.Text = address
		}
		return in.node(leading(address, child), from, after)
	}
	return in.node(leading(elsewhere(), in.shown(prose.Text, start, stop)), from, after)
}

// longestName is how long a name without quotes is that may lead somewhere.
const longestName = 100

// named reads "name_", whose "_" stands at an offset, where the docstring gives the name an address.
func (in *inline) named(at int) int {
	start := at
	for start > max(in.from, at-longestName) && (!in.wordStart(start) || strings.IndexByte("-.:+", in.text[start-1]) >= 0) {
		start--
	}
	start += len(in.text[start:at]) - len(strings.TrimLeft(in.text[start:at], "-.:+"))
	address := in.p.targets[targetName(in.text[start:at])]
	if address == "" || !in.wordEnd(at+1) {
		return 0
	}
	in.node(leading(address, in.shown(prose.Text, start, at)), start, at+1)
	return 1
}

// leading is a text that leads to an address, or the text alone where it must not.
func leading(address string, child prose.Node) prose.Node {
	n, ok := prose.Leading(address)
	if n.Kind == prose.Link {
		n, ok = prose.Leading(strings.ReplaceAll(address, " ", "")) // an address may be cut at the ends of lines
	}
	if n.Children = []prose.Node{child}; ok {
		return n
	}
	return child
}

// references are the roles that name declarations.
var references = map[string]bool{
	"class": true, "func": true, "meth": true, "method": true, "attr": true, "attribute": true, "exc": true, "exception": true,
	"data": true, "mod": true, "module": true, "obj": true, "const": true, "any": true, "type": true, "property": true, "function": true, "decorator": true, "deco": true,
}

// loose are the roles whose names without a dot often come from elsewhere: a
// module of the language, or a value that a guide describes.
var loose = map[string]bool{"mod": true, "module": true, "data": true, "obj": true, "any": true, "const": true}

// modules are the roles that name modules alone.
var modules = map[string]bool{"mod": true, "module": true}

// meaning is the node of a role's text.
func (in *inline) meaning(role string, from, to int) prose.Node {
	text := in.text[from:to]
	role = strings.TrimPrefix(role, "py:")
	target, shown := text, ""
	shownFrom, shownTo := from, to
	if open := strings.LastIndexByte(text, '<'); open > 0 && strings.HasSuffix(text, ">") {
		target = text[open+1 : len(text)-1]
		shownTo = from + len(strings.TrimRight(text[:open], " \n"))
		shown = text[:shownTo-from]
	}
	switch {
	case role == "math":
		return formula.Node(text, false, source.Span{Start: in.offset(from), End: in.offset(to)})
	case role == "sub" || role == "subscript":
		return prose.Node{Kind: prose.Subscript, Children: []prose.Node{in.shown(prose.Text, from, to)}}
	case role == "sup" || role == "superscript":
		return prose.Node{Kind: prose.Superscript, Children: []prose.Node{in.shown(prose.Text, from, to)}}
	case role == "emphasis" || role == "dfn":
		return prose.Node{Kind: prose.Emphasis, Children: []prose.Node{in.shown(prose.Text, from, to)}}
	case role == "strong" || role == "guilabel" || role == "command":
		return prose.Node{Kind: prose.Strong, Children: []prose.Node{in.shown(prose.Text, from, to)}}
	case references[role]:
		return in.reference(role, target, shown, shownFrom, shownTo)
	case role == "pep" || role == "rfc":
		return in.standard(role, target)
	case role == "ref" || role == "doc" || role == "term" || role == "abbr" || role == "numref" || role == "eq" || role == "title" || role == "cite" || role == "footcite":
		return in.shown(prose.Text, shownFrom, shownTo)
	}
	return in.shown(prose.Code, shownFrom, shownTo)
}

// reference makes the node of a name: "~" before it shows the last part alone,
// "!" asks for no link.
func (in *inline) reference(role, target, shown string, from, to int) prose.Node {
	if strings.HasPrefix(target, "!") {
		n := in.shown(prose.Code, from, to)
		n.Text = strings.TrimPrefix(n.Text, "!")
		return n
	}
	short := strings.HasPrefix(target, "~")
	target = strings.TrimLeft(target, "~.")
	target = strings.Join(strings.Fields(target), "")
	name := strings.TrimSuffix(target, "()")
	strict := !loose[role] || strings.Contains(name, ".")
	if !isName(name) || !strict && !modules[role] {
		n := in.shown(prose.Code, from, to)
		if shown == "" {
			n.Text = target
		}
		return n
	}
	var child prose.Node
	if shown != "" {
		child = in.shown(prose.Text, from, to)
	} else {
		child = in.shown(prose.Code, from, to)
		child.Text = target
		if short {
			child.Text = target[strings.LastIndexByte(name, '.')+1:]
		}
	}
	return prose.Node{Kind: prose.Reference, Strict: strict, MayBeExternal: true, Target: name, Children: []prose.Node{child}}
}

// standard links a proposal or a request for comments by its number.
func (in *inline) standard(role, number string) prose.Node {
	number, _, _ = strings.Cut(strings.TrimSpace(number), "#")
	digits := number
	if number == "" || strings.Trim(number, "0123456789") != "" || len(number) > 6 {
		return prose.Node{Kind: prose.Text, Text: strings.ToUpper(role) + " " + number}
	}
	address := "https://www.rfc-editor.org/rfc/rfc" + digits
	if role == "pep" {
		address = "https://peps.python.org/pep-" + strings.Repeat("0", max(0, 4-len(digits))) + digits + "/"
	}
	return prose.Node{Kind: prose.Link, Target: address, Children: []prose.Node{{Kind: prose.Text, Text: strings.ToUpper(role) + " " + digits}}}
}

func (in *inline) address(i int) int {
	end := i
	for end < len(in.text) && in.text[end] > ' ' && strings.IndexByte("<>\"`", in.text[end]) < 0 {
		end++
	}
	opens := strings.Contains(in.text[i:end], "(")
	for end > i && strings.IndexByte(".,;:!?)'*]", in.text[end-1]) >= 0 && !(opens && in.text[end-1] == ')') {
		end--
	}
	address := in.text[i:end]
	if !prose.AllowedAddress(address) {
		return 0
	}
	return in.node(prose.Node{Kind: prose.Link, Target: address, Children: []prose.Node{in.shown(prose.Text, i, end)}}, i, end)
}

// substitution shows what a "|substitution|" stands for, or its name where that is not written here.
func (in *inline) substitution(i int) int {
	end := strings.IndexAny(in.text[i+1:], "|\n")
	if end <= 0 || in.text[i+1+end] != '|' || !in.wordEnd(i+end+2) {
		return 0
	}
	name := in.text[i+1 : i+1+end]
	shown := in.shown(prose.Text, i+1, i+1+end)
	if text, ok := in.p.substitutions[targetName(name)]; ok {
		shown.Text = text
	} else if strings.Contains(name, " ") {
		return 0
	}
	return in.node(shown, i, i+2+end)
}

// typeNodes makes inline nodes of what is said of a type: names are code, which
// links where it means one thing.
func (p *parser) typeNodes(lines ...line) []prose.Node {
	in := joined(lines)
	in.p = p
	s := in.text
	switch {
	case strings.Contains(s, "`"):
		return p.inline(lines)
	case hasLettered(s):
		out := p.inline(lines)
		for i := range out {
			out[i].Typed = out[i].Typed || out[i].Kind == prose.Code
		}
		return out
	}
	for i := 0; i < len(s); {
		end := i
		for end < len(s) && (s[end] == '_' || s[end] == '.' || s[end] >= '0' && s[end] <= '9' || s[end]|0x20 >= 'a' && s[end]|0x20 <= 'z') {
			end++
		}
		word := strings.TrimRight(s[i:end], ".")
		if word == "" || word == "or" || word == "of" || word == "and" || word == "a" || word == "an" || word == "to" || word == "the" {
			i = max(end, i+1)
			continue
		}
		end = i + len(word)
		n := in.shown(prose.Code, i, end)
		n.Typed = true
		i += in.node(n, i, end)
	}
	in.flush(len(s))
	return in.out
}
