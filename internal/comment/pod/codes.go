package pod

import (
	"strconv"
	"strings"

	"codrel/internal/prose"
)

// This file reads the codes in a paragraph ("Formatting Codes" in perlpod): a capital letter with what
// it is about in angle brackets, one or more of them.

// inlines reads the text of a paragraph.
func (p *parser) inlines(r Run) []prose.Node {
	c := codes{parser: p, run: r}
	nodes, _ := c.text(0, "", 0)
	return trim(nodes)
}

// codes is a paragraph on its way.
type codes struct {
	*parser
	run Run
	raw bool // spaces are kept together
}

// text reads up to what closes the code around it, or to the end, and gives the offset behind that.
func (c *codes) text(at int, closing string, depth int) (out []prose.Node, end int) {
	text := c.run.text
	from := at
	flush := func(to int) {
		if to > from {
			shown := text[from:to]
			if c.raw {
				shown = strings.NewReplacer(" ", "\u00a0", "\n", "\u00a0").Replace(shown)
			}
			out = append(out, prose.Node{Kind: prose.Text, Text: shown, Span: c.run.spanOf(from, to)})
		}
	}
	for i := at; i < len(text); {
		switch ch := text[i]; {
		case closing != "" && ch == closing[len(closing)-1] && closes(text, i, closing):
			to := i
			if len(closing) > 1 { // blanks before it belong to it
				to = max(from, len(strings.TrimRight(text[:i], " \t\n")))
			}
			flush(to)
			return out, i + len(closing)
		case 'A' <= ch && ch <= 'Z' && i+1 < len(text) && text[i+1] == '<' && depth < deepest:
			flush(i)
			var nodes []prose.Node
			nodes, i = c.code(i, depth)
			out = append(out, nodes...)
			from = i
		default:
			i++
		}
	}
	flush(len(text))
	return out, len(text)
}

// closes reports whether what closes a code stands at an offset: several brackets have a blank before
// them.
func closes(text string, at int, closing string) bool {
	if !strings.HasPrefix(text[at:], closing) {
		return false
	}
	return len(closing) == 1 || at > 0 && strings.IndexByte(" \t\n", text[at-1]) >= 0
}

// code reads one code.
func (c *codes) code(at, depth int) (out []prose.Node, end int) {
	text, letter := c.run.text, c.run.text[at]
	inside := at + 1
	for inside < len(text) && text[inside] == '<' {
		inside++
	}
	n := inside - at - 1
	if n > 1 && (inside >= len(text) || strings.IndexByte(" \t\n", text[inside]) < 0) { // several brackets, and no blank
		inside, n = at+2, 1
	}
	if n > 1 {
		inside += len(text[inside:]) - len(strings.TrimLeft(text[inside:], " \t\n"))
	}
	closing := strings.Repeat(">", n)
	span := func(end int) prose.Node { return prose.Node{Span: c.run.spanOf(at, min(end, len(text)))} }
	switch letter {
	case 'L':
		return c.link(at, inside, closing, depth)
	case 'E':
		stop, end := endOf(text, inside, closing)
		node := span(end)
		node.Kind, node.Text = prose.Text, entity(strings.TrimSpace(text[inside:stop]))
		return []prose.Node{node}, end
	case 'X':
		stop, end := endOf(text, inside, closing)
		if word := strings.TrimSpace(text[inside:stop]); word != "" {
			c.out.Words = append(c.out.Words, word)
		}
		return nil, end
	case 'Z':
		_, end := endOf(text, inside, closing)
		return nil, end
	}
	raw := c.raw
	c.raw = raw || letter == 'S'
	nodes, end := c.text(inside, closing, depth+1)
	c.raw = raw
	node := span(end)
	switch letter {
	case 'B':
		node.Kind = prose.Strong
	case 'I', 'F':
		node.Kind = prose.Emphasis
	case 'C':
		node.Kind, node.Text = prose.Code, prose.Plain(nodes)
		if node.Text == "" {
			return nil, end
		}
		return []prose.Node{node}, end
	default: // S keeps its words together; others are shown as what they hold
		return nodes, end
	}
	if len(nodes) == 0 {
		return nil, end
	}
	node.Children = nodes
	return []prose.Node{node}, end
}

// longest is how many bytes a code has whose inside is no text, or a link.
const longest = 2000

// endOf is the offset of what closes a code that holds no others, and of what is behind it.
func endOf(text string, at int, closing string) (stop, end int) {
	last := min(len(text), at+longest)
	for i := at; i < last; i++ {
		if text[i] == '>' && closes(text, i, closing) {
			return i, i + len(closing)
		}
	}
	return last, last
}

// link reads "L<text|name/section>" in all its forms.
func (c *codes) link(at, inside int, closing string, depth int) (out []prose.Node, end int) {
	text := c.run.text
	bar, slash := -1, -1
	open := 0
	i := inside
	last := min(len(text), inside+longest)
	for ; i < last; i++ {
		switch ch := text[i]; {
		case ch == '>' && open > 0:
			open--
			continue
		case ch == '>' && closes(text, i, closing):
		case ch == '<' && i > inside && text[i-1] >= 'A' && text[i-1] <= 'Z':
			open++
			continue
		case ch == '|' && open == 0 && bar < 0:
			bar = i
			slash = -1
			continue
		case ch == '/' && open == 0 && slash < 0:
			slash = i
			continue
		default:
			continue
		}
		break
	}
	stop := min(i, last)
	if end = stop; stop < last {
		end += len(closing)
	}
	stop = max(inside, len(strings.TrimRight(text[:stop], " \t\n")))
	from := inside
	var shown []prose.Node
	if bar >= 0 && bar < stop {
		was := c.run
		c.run.text = text[:bar]
		shown, _ = c.text(inside, "", depth+1)
		c.run = was
		shown = trim(shown)
		from = bar + 1
	}
	target := strings.TrimSpace(text[from:stop])
	span := c.run.spanOf(at, min(end, len(text)))
	if address := target; strings.Contains(address, "://") || strings.HasPrefix(address, "mailto:") {
		if len(shown) == 0 {
			shown = []prose.Node{{Kind: prose.Text, Text: address, Span: span}}
		}
		return []prose.Node{{Kind: prose.Link, Target: address, Span: span, Children: shown}}, end
	}
	if name, ok := strings.CutPrefix(target, "insert:"); ok {
		return []prose.Node{{Kind: prose.Insert, Target: name, Span: span}}, end
	}
	if name, ok := strings.CutPrefix(target, "ref:"); ok {
		if len(shown) == 0 {
			shown = []prose.Node{{Kind: prose.Code, Text: name, Span: span}}
		}
		return []prose.Node{{Kind: prose.Reference, Target: name, Strict: true, Span: span, Children: shown}}, end
	}
	name, section := target, ""
	if slash >= from {
		name, section = strings.TrimSpace(text[from:slash]), strings.TrimSpace(text[slash+1:stop])
	} else if strings.HasPrefix(target, `"`) { // a section of this page, as it was written once
		name, section = "", target
	}
	return c.named(name, strings.Trim(plainCodes(section), `"`), shown, prose.Node{Span: span}), end
}

// named leads to a module, to something or to a heading in it, or to something or to a heading of this one.
func (c *codes) named(name, section string, shown []prose.Node, at prose.Node) []prose.Node {
	code := func(text string) []prose.Node { return []prose.Node{{Kind: prose.Code, Text: text, Span: at.Span}} }
	quoted := func(rest string) []prose.Node {
		return []prose.Node{{Kind: prose.Text, Text: "“" + section + "”" + rest, Span: at.Span}}
	}
	if name == "" && section == "" { // it leads nowhere
		return shown
	}
	if name != "" && !isName(name) { // a page of the manual
		if len(shown) > 0 {
			return shown
		}
		return code(name)
	}
	at.Kind, at.Target, at.Children = prose.Reference, name, shown
	at.Strict, at.MayBeExternal = name == "" || strings.Contains(name, "::"), true
	if section == "" {
		if len(shown) == 0 {
			at.Children = code(name)
		}
		return []prose.Node{at}
	}
	section = strings.Join(strings.Fields(section), " ")
	at.Named = &prose.Name{Written: section, Section: section}
	if name == "" {
		at.Target = section
	} else {
		at.Named.Path = strings.Split(name, "::")
	}
	member, _, _ := strings.Cut(section, "(")
	switch declared := isName(member) && (member != strings.ToUpper(member) || member != section); {
	case len(shown) > 0:
	case name == "" && isName(member):
		at.Children = code(section)
	case name == "":
		at.Children = quoted("")
	case declared:
		at.Children = code(name + "::" + section)
	default:
		at.Children = append(quoted(" in "), code(name)...)
	}
	return []prose.Node{at}
}

// isName reports whether a text is a name, with those of packages before it.
func isName(text string) bool {
	if text == "" || text[0] >= '0' && text[0] <= '9' {
		return false
	}
	text = strings.TrimLeft(text, "$@%&")
	for i := range len(text) {
		ch := text[i]
		if !(ch == '_' || ch == ':' || '0' <= ch && ch <= '9' || 'a' <= ch|0x20 && ch|0x20 <= 'z' || ch >= 0x80) {
			return false
		}
	}
	return text != ""
}

// plainCodes is a text without its codes.
func plainCodes(text string) string {
	if !strings.ContainsRune(text, '<') {
		return text
	}
	p := parser{out: &prose.Sections{}}
	return prose.Plain(p.inlines(runOf([]string{text}, []int32{0})))
}

// entities are the names of characters that the manual lists; others are those of HTML.
var entities = map[string]string{
	"lt": "<", "gt": ">", "verbar": "|", "sol": "/", "amp": "&", "quot": `"`, "apos": "'", "lchevron": "«", "rchevron": "»", "nbsp": "\u00a0", "mdash": "—", "ndash": "–", "hellip": "…", "copy": "©", "reg": "®",
	"eacute": "é", "egrave": "è", "agrave": "à", "auml": "ä", "ouml": "ö", "uuml": "ü", "Auml": "Ä", "Ouml": "Ö", "Uuml": "Ü", "szlig": "ß", "ccedil": "ç", "ntilde": "ñ", "aacute": "á", "iacute": "í", "oacute": "ó", "uacute": "ú",
	"ecirc": "ê", "acirc": "â", "icirc": "î", "ocirc": "ô", "ucirc": "û", "oslash": "ø", "Oslash": "Ø", "aring": "å", "Aring": "Å", "aelig": "æ", "Eacute": "É", "laquo": "«", "raquo": "»", "times": "×", "middot": "·", "deg": "°", "micro": "µ", "sect": "§", "para": "¶", "plusmn": "±", "euro": "€", "bull": "•", "rarr": "→", "larr": "←",
}

func entity(name string) string {
	if text, ok := entities[name]; ok {
		return text
	}
	base, digits := 10, name
	switch {
	case strings.HasPrefix(name, "0x"), strings.HasPrefix(name, "0X"):
		base, digits = 16, name[2:]
	case len(name) > 1 && name[0] == '0':
		base, digits = 8, name[1:]
	}
	if n, err := strconv.ParseUint(digits, base, 21); err == nil && n > 0 {
		return string(rune(n))
	}
	return "E<" + name + ">"
}

// trim takes off the blanks that a text begins and ends with.
func trim(nodes []prose.Node) []prose.Node {
	for len(nodes) > 0 && nodes[0].Kind == prose.Text {
		text := strings.TrimLeft(nodes[0].Text, " \t\n")
		nodes[0].Span.Start = min(nodes[0].Span.Start+int32(len(nodes[0].Text)-len(text)), nodes[0].Span.End)
		if nodes[0].Text = text; text != "" {
			break
		}
		nodes = nodes[1:]
	}
	for n := len(nodes); n > 0 && nodes[n-1].Kind == prose.Text; n = len(nodes) {
		if nodes[n-1].Text = strings.TrimRight(nodes[n-1].Text, " \t\n"); nodes[n-1].Text != "" {
			break
		}
		nodes = nodes[:n-1]
	}
	return nodes
}
