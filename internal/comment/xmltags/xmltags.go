// Package xmltags reads the doc comments of C#: XML with the elements of the language's
// standard (Annex D of ECMA-334) and those of HTML that people use beside them.
//
// It turns text into the prose tree and named sections and resolves nothing.
package xmltags

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
	"codrel/internal/prose/markup"
	"codrel/internal/source"
	"codrel/internal/xmlpath"
)

// Parse reads one comment. own are words of the maintainer's.
func Parse(doc *model.Doc, own prose.Vocabulary) *prose.Sections {
	p := &parser{text: doc.Text, places: doc.Places(), own: own, out: &prose.Sections{}}
	p.top(p.read())
	return p.out
}

// MayTake reports whether a comment may say that some of its text is another's.
func MayTake(doc *model.Doc) bool { return strings.Contains(doc.Text, "<inheritdoc") }

type parser struct {
	text   string
	places model.Places
	own    prose.Vocabulary
	out    *prose.Sections
}

func (p *parser) span(from, to int) source.Span { return p.places.Span(from, to) }

// place is the span of an element whole, or of a text.
func (p *parser) place(n *node) source.Span { return p.span(n.from, n.to) }

func (p *parser) flaw(kind prose.FlawKind, from, to int, text, near string) {
	p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: kind, Span: p.span(from, to), Text: text, Near: near})
}

// top keeps what the elements of a comment say, each as the section that it is. Text beside
// them, and text that they do not give a meaning to, goes on with the comment; what
// "remarks" says comes behind the summary, wherever it stands.
func (p *parser) top(kids []*node) {
	var plain, remarks []*node
	for i, n := range kids {
		switch {
		case n.tag.Name == "summary":
			p.out.Body = append(p.out.Body, p.blocks(n.kids)...)
		case n.tag.Name == "remarks":
			remarks = append(remarks, n)
		case n.text() || !p.section(n, between(kids, i)):
			plain = append(plain, n)
		}
	}
	p.out.Body = append(p.out.Body, p.blocks(plain)...)
	for _, n := range remarks {
		p.out.Body = append(p.out.Body, p.blocks(n.kids)...)
	}
}

// between reports whether text stands right around one of several nodes.
func between(kids []*node, i int) bool {
	return i > 0 && kids[i-1].says() || i+1 < len(kids) && kids[i+1].says()
}

// titles are the headings of elements whose text is shown under one.
var titles = map[string]string{
	"value": "Value", "permission": "Permission", "response": "Responses", "completionlist": "", "include": "",
	"threadsafety": "Thread safety", "preliminary": "", "filterpriority": "", "revisionhistory": "", "event": "Events",
}

// words are the elements of a comment's top, for those that are nearly one.
var words = []string{"summary", "remarks", "param", "typeparam", "returns", "value", "exception", "example", "seealso", "permission", "inheritdoc", "include"}

// section keeps what an element at the top says, and reports whether it is one of these.
func (p *parser) section(n *node, inText bool) bool {
	span := p.span(n.from, n.inside)
	name := n.tag.Name
	if !inText && p.ownWord(name, span, n) {
		return true
	}
	switch name {
	case "param":
		p.entry(prose.Parameters, span, p.named(n, "name"))
	case "typeparam":
		p.entry(prose.TypeParameters, span, p.named(n, "name"))
	case "returns":
		p.entry(prose.Results, span, prose.Entry{Span: span, Text: p.blocks(n.kids)})
	case "exception":
		e := p.named(n, "cref")
		e.Name = shown(e.Name)
		p.entry(prose.Failures, span, e)
	case "overloads": // says of all of a name what the first one's comment holds
		p.out.Body = append(p.out.Body, p.blocks(n.kids)...)
	case "example":
		if body := p.blocks(n.kids); len(body) > 0 { // code may stand in a file that other programs know how to find
			part := p.part(prose.Examples, span)
			part.Body = append(part.Body, body...)
		}
	case "seealso":
		if inText {
			return false
		}
		if see := p.see(n); len(see) > 0 {
			part := p.part(prose.SeeAlso, span)
			part.Body = append(part.Body, prose.Node{Kind: prose.Paragraph, Span: span, Children: see})
		}
	case "value", "permission", "response", "threadsafety", "event":
		p.other(titles[name], span, p.titled(n))
	case "inheritdoc":
		p.out.Body = append(p.out.Body, prose.Node{Kind: prose.Paragraph, Span: span, Children: []prose.Node{p.inherited(n)}})
	default:
		if _, known := titles[name]; known {
			return true
		}
		if _, known := elements[name]; !known && !inText {
			if near := nearest.Word(name, words); near != "" {
				p.flaw(prose.UnknownWord, n.from, n.inside, "<"+name+">", "<"+near+">")
			}
		}
		return false
	}
	return true
}

// ownWord keeps what an element with a name of the maintainer's says, and reports whether it
// is one.
func (p *parser) ownWord(name string, span source.Span, n *node) bool {
	meaning := p.own.Of(name)
	kind, section := prose.PartNamed(meaning)
	switch {
	case meaning == "":
		return false
	case meaning == prose.MeansIgnored:
	case meaning == prose.MeansDeprecated:
		p.out.Obsolete = true
		p.out.Deprecated = append(p.out.Deprecated, p.blocks(n.kids)...)
	case meaning == prose.MeansLabel:
		label := prose.Node{Kind: prose.Paragraph, Span: span, Children: []prose.Node{
			{Kind: prose.Strong, Span: span, Children: []prose.Node{{Kind: prose.Text, Text: name, Span: span}}}, {Kind: prose.Text, Text: ": ", Span: span},
		}}
		p.out.Body = append(p.out.Body, led(label, p.blocks(n.kids))...)
	case section:
		part := p.part(kind, span)
		part.Body = append(part.Body, p.blocks(n.kids)...)
	default:
		p.out.Body = append(p.out.Body, p.blocks(n.kids)...)
	}
	return true
}

// led puts what a paragraph holds before what follows, in one paragraph where that begins
// with one.
func led(head prose.Node, text []prose.Node) []prose.Node {
	if len(text) > 0 && text[0].Kind == prose.Paragraph {
		text[0].Children = append(head.Children, text[0].Children...)
		return text
	}
	return append([]prose.Node{head}, text...)
}

// named is what an element says of what its attribute names.
func (p *parser) named(n *node, attribute string) prose.Entry {
	name := n.tag.Attribute(attribute)
	e := prose.Entry{Name: strings.TrimPrefix(name, "@"), Span: p.span(n.from, n.inside), Text: p.blocks(n.kids)}
	if i := strings.Index(p.text[n.from:n.inside], name); name != "" && i >= 0 {
		e.Span = p.span(n.from+i, n.from+i+len(name))
	}
	return e
}

// titled is the text of an element that may say what it is about: a type, or a code.
func (p *parser) titled(n *node) []prose.Node {
	text := p.blocks(n.kids)
	head := prose.Node{Kind: prose.Paragraph, Span: p.place(n)}
	switch {
	case n.tag.Attribute("cref") != "":
		head.Children = append(head.Children, p.reference(n, n.tag.Attribute("cref"), nil))
	case n.tag.Attribute("code") != "":
		head.Children = append(head.Children, prose.Node{Kind: prose.Code, Text: n.tag.Attribute("code"), Span: head.Span})
	default:
		return text
	}
	if len(text) > 0 {
		head.Children = append(head.Children, prose.Node{Kind: prose.Text, Text: ": ", Span: head.Span})
	}
	return led(head, text)
}

// part is the section of a kind, in which all elements of that kind gather.
func (p *parser) part(kind prose.PartKind, span source.Span) *prose.Part {
	return p.out.Gather(kind, "", span)
}

func (p *parser) entry(kind prose.PartKind, span source.Span, e prose.Entry) {
	p.out.Enter(kind, span, e)
}

// other keeps a text under a title, once, however often its element stands.
func (p *parser) other(title string, span source.Span, text []prose.Node) {
	if len(text) > 0 {
		part := p.out.Gather(prose.Other, title, span)
		part.Body = append(part.Body, text...)
	}
}

// inherited stands for the text of another declaration.
func (p *parser) inherited(n *node) prose.Node {
	cref := n.tag.Attribute("cref")
	out := prose.Node{Kind: prose.Inherited, Strict: true, Span: p.place(n), Children: []prose.Node{{Kind: prose.Text, Text: "<inheritdoc/>", Span: p.place(n)}}}
	if cref != "" {
		out.Target, out.Named = shown(cref), nameOf(cref)
	}
	out.Info = n.tag.Attribute("path")
	return out
}

// Select is what the path of an "inheritdoc" finds in a comment, as a comment of its own, or "".
func Select(text, path string) string {
	d := xmlpath.Read([]byte("<doc>" + text + "</doc>"))
	if d == nil {
		return ""
	}
	if !strings.HasPrefix(path, "//") { // all paths begin at the comment
		path = "/doc/" + strings.TrimPrefix(path, "/")
	}
	found, _ := d.Find(path)
	return found
}

// see makes what "see" and "seealso" show: a word of the language, a link or a reference.
func (p *parser) see(n *node) []prose.Node {
	span := p.place(n)
	label := p.inlines(n.kids)
	cref, href, word := n.tag.Attribute("cref"), n.tag.Attribute("href"), n.tag.Attribute("langword")
	switch {
	case cref != "":
		return []prose.Node{p.reference(n, cref, label)}
	case word != "":
		return []prose.Node{{Kind: prose.Code, Text: word, Span: span}}
	}
	to, ok := prose.Leading(href)
	if !ok {
		return label
	}
	if to.Span, to.Children = span, label; len(label) > 0 {
		return []prose.Node{to}
	}
	shown := prose.Node{Kind: prose.Text, Text: href, Span: span}
	if to.Kind != prose.Link {
		shown = prose.Node{Kind: prose.Code, Text: to.Target, Span: span}
	}
	to.Children = []prose.Node{shown}
	return []prose.Node{to}
}

// reference makes a reference of what "cref" says.
func (p *parser) reference(n *node, cref string, label []prose.Node) prose.Node {
	span := p.span(n.from, n.inside)
	if i := strings.Index(p.text[n.from:n.inside], cref); i >= 0 {
		span = p.span(n.from+i, n.from+i+len(cref))
	}
	if len(label) == 0 {
		label = []prose.Node{{Kind: prose.Code, Text: shown(cref), Span: span}}
	}
	to := Reference(cref)
	to.Span, to.Children = span, label
	return to
}

// says reports whether a node is a text with words.
func (n *node) says() bool { return n.text() && strings.TrimSpace(n.words) != "" }

func (n *node) text() bool { return n.tag.Name == "" }

// node is an element, or a text between two.
type node struct {
	tag      markup.Tag // without a name: a text
	words    string     // of a text
	from, to int        // with its tags
	inside   int        // behind the tag that opens it
	end      int        // before the tag that closes it
	kids     []*node
}
