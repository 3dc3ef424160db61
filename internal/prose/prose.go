// Package prose owns the rich-text tree that all doc text becomes, whatever
// dialect it was written in.
//
// The tree is plain data with a byte span on every node, so that a finding or a
// fix points exactly. References are kept as written: resolving them is the
// linker's work, drawing them a renderer's. Only package markdown below this
// one imports a Markdown library.
package prose

import (
	"slices"
	"strconv"
	"strings"

	"codrel/internal/source"
)

// Kind tells what a node is.
type Kind uint8

// Blocks come first, then what stands in a line.
const (
	Paragraph Kind = iota
	Heading        // Level 1 to 6
	CodeBlock      // Text is the code, Info the fence's words
	List           // Level 0: bullets; else the first number
	Item           // of a List
	Quote
	Table // of Rows
	Row   // of Cells; Level 1 in the head
	Cell  // Level tells over how many columns and rows it goes, see [CellLevel]; Info where its text stands, see [Aligned]
	Ruler
	Display // a formula on a line of its own; as Formula
	Text
	Emphasis
	Strong
	Struck
	Code      // Text is the code
	Link      // Target is an address
	Reference // Target names a declaration; children are the shown text
	Insert    // Target is the name of a fragment, which stands in its place
	Inherited // text of another declaration stands in its place: the one that Target names, or the one that the subject overrides or fulfils
	Image     // Target is an address, children the alternative text
	Break     // a forced line break
	Superscript
	Subscript
	Formula // Text is its source; children draw it, where plain text can
	Anchor  // a place that links lead to by a name of its own, which is the Target
	Film    // as Image
	Refused // text whose Target is an address that nothing may lead to; only pages have it
)

// What lists may be besides bullets and numbers.
const (
	Terms     = "terms"     // items begin with what they define
	Footnotes = "footnotes" // items are numbered as the text refers to them
)

// Value is the Info of a Reference that shows the value of the constant it names, or of the
// text's subject where it names nothing.
const Value = "value"

// Label is the word that a note begins with, of a kind such as "note" or "versionadded": in
// English, and with what a renderer needs to say it in another language. A version may be
// part of it.
func Label(kind, text, version string, span source.Span) Node {
	return Node{Kind: Strong, Info: kind, Target: version, Span: span, Children: []Node{{Kind: Text, Text: text, Span: span}}}
}

// Inline reports whether nodes of this kind stand in a line of text.
func (k Kind) Inline() bool { return k >= Text }

// Node is one node of the tree.
type Node struct {
	Kind          Kind
	Level         uint16
	Strict        bool        // of a Reference: one that does not resolve is a finding
	MayBeExternal bool        // of a strict Reference: a name of another project, or of the language, is no mistake
	Typed         bool        // of Code: it is a part of a type that the text writes
	Loose         bool        // of a List: items are separated by blank lines
	Span          source.Span // of a CodeBlock with an Info from where that stands
	Text          string      // of Text, Code, CodeBlock, Formula and Display
	Info          string      // of a CodeBlock: the fence's words; of what is in one, see [MarkInfo]; of a List: Terms or Footnotes, or ""; of a Strong: what it is the label of, see [Label]
	Named         *Name       // what a Reference or Code names, where the dialect takes it apart itself
	Target        string      // of Link, Image, Reference, Insert and Taken; of a label its version; of a CodeBlock what is run of it, where that has lines which are not shown
	Children      []Node
}

// Walk calls visit for every node of the list, parents first. Where visit
// returns false, the node's children are passed over.
func Walk(nodes []Node, visit func(*Node) bool) {
	for i := range nodes {
		if visit(&nodes[i]) {
			Walk(nodes[i].Children, visit)
		}
	}
}

// Same reports whether two texts read the same wherever they stand: what stands for the text
// or the value of another declaration depends on the place.
func Same(a, b []Node) bool {
	return slices.EqualFunc(a, b, func(x, y Node) bool {
		return x.Kind == y.Kind && x.Kind != Inherited && x.Info != Value &&
			x.Level == y.Level && (x.Text == y.Text || x.Kind == Text && sameWords(x.Text, y.Text)) && x.Info == y.Info && x.Target == y.Target && Same(x.Children, y.Children)
	})
}

// sameWords reports whether two texts differ in nothing but where their lines end.
func sameWords(a, b string) bool {
	const blanks = " \n"
	for {
		a, b = strings.TrimLeft(a, blanks), strings.TrimLeft(b, blanks)
		n := strings.IndexAny(a, blanks)
		if n < 0 {
			return a == strings.TrimRight(b, blanks)
		}
		if len(b) < n || a[:n] != b[:n] || len(b) > n && !strings.ContainsRune(blanks, rune(b[n])) {
			return false
		}
		a, b = a[n:], b[n:]
	}
}

// Plain is the text of the nodes without any markup, blocks separated by a space.
func Plain(nodes []Node) string {
	var b strings.Builder
	plain(&b, nodes, false)
	return strings.TrimSpace(b.String())
}

// Line is the text of the nodes in one line, to be read where there is no markup: what stands
// above the line or below it is [Raised].
func Line(nodes []Node) string {
	var b strings.Builder
	plain(&b, nodes, true)
	return strings.Join(strings.Fields(b.String()), " ")
}

func plain(b *strings.Builder, nodes []Node, raised bool) {
	for i := range nodes {
		n := &nodes[i]
		if !n.Kind.Inline() && b.Len() > 0 {
			b.WriteByte(' ')
		}
		if n.Kind == Break {
			b.WriteByte(' ')
		}
		if raised && (n.Kind == Superscript || n.Kind == Subscript) {
			b.WriteString(Raised(n.Kind, n.Text+Plain(n.Children)))
			continue
		}
		if n.Kind != Reference { // its text is how it was written, brackets and all
			b.WriteString(n.Text)
		}
		if n.Kind != Formula && n.Kind != Display {
			plain(b, n.Children, raised)
		}
	}
}

// Summary is the first sentence of the first paragraph, as a list of inline
// nodes, for overviews and search.
func Summary(nodes []Node) []Node {
	for i := range nodes {
		if nodes[i].Kind == Paragraph && !onlyPictures(nodes[i].Children) {
			out, _ := sentence(nodes[i].Children)
			return out
		}
	}
	return nil
}

// onlyPictures reports whether a paragraph is a row of pictures, such as badges.
func onlyPictures(nodes []Node) bool {
	pictures := false
	for i := range nodes {
		switch n := &nodes[i]; {
		case n.Kind == Image:
			pictures = true
		case n.Kind == Link && onlyPictures(n.Children):
			pictures = true
		case n.Kind == Break, n.Kind == Text && strings.TrimSpace(n.Text) == "":
		default:
			return false
		}
	}
	return pictures
}

// sentence is the nodes up to the end of the first sentence, and whether it came. Only what
// it cuts is copied.
func sentence(nodes []Node) ([]Node, bool) {
	for i := range nodes {
		n := nodes[i]
		switch {
		case n.Kind == Text:
			if end := sentenceEnd(n.Text, i == len(nodes)-1); end >= 0 {
				if end == len(n.Text) {
					return slices.Clip(nodes[:i+1]), true
				}
				n.Text = n.Text[:end]
				return append(slices.Clip(nodes[:i]), n), true
			}
		case n.Kind == Emphasis || n.Kind == Strong:
			inner, done := sentence(n.Children)
			if done {
				n.Children = inner
				return append(slices.Clip(nodes[:i]), n), true
			}
		}
	}
	return nodes, false
}

// sentenceEnd is the offset behind the first full stop that ends a sentence, or
// -1. A stop counts where white space and then no small letter follows, and
// where the word before it is not a usual abbreviation or a single capital.
func sentenceEnd(s string, last bool) int {
	for i := 0; i < len(s); i++ {
		c := s[i]
		if strings.HasPrefix(s[i:], "。") {
			return i + len("。")
		}
		if c != '.' && c != '!' && c != '?' {
			continue
		}
		rest := s[i+1:]
		if rest == "" {
			if last {
				return i + 1
			}
			return -1
		}
		if rest[0] != ' ' && rest[0] != '\n' {
			continue
		}
		next := strings.TrimLeft(rest, " \n")
		if next != "" && next[0] >= 'a' && next[0] <= 'z' {
			continue
		}
		if c == '.' && abbreviated(s[:i]) {
			continue
		}
		return i + 1
	}
	return -1
}

func abbreviated(before string) bool {
	word := before[strings.LastIndexAny(before, " \n(")+1:]
	switch word {
	case "e.g", "i.e", "etc", "cf", "vs", "Dr", "Mr", "Mrs", "No", "Sec", "sec", "fig", "Fig", "resp", "approx":
		return true
	}
	return len(word) == 1 && word[0] >= 'A' && word[0] <= 'Z' && len(before) > 1
}

// CellLevel is the Level of a Cell that goes over so many columns and rows, as they are written;
// what is no number, or more than a table has, is one.
func CellLevel(columns, rows string) uint16 {
	number := func(written string) uint16 {
		n, err := strconv.ParseUint(strings.TrimSpace(written), 10, 8)
		if err != nil || n == 1 {
			return 0
		}
		return uint16(n)
	}
	return number(columns) | number(rows)<<8
}

// Aligned is the Info of a Cell whose text stands at the right or in the middle, as it is
// written; "" of any other.
func Aligned(written string) string {
	if where := strings.ToLower(strings.TrimSpace(written)); where == "right" || where == "center" {
		return where
	}
	return ""
}

// CellSpans are over how many columns and rows a Cell goes.
func (n *Node) CellSpans() (columns, rows int) {
	return max(1, int(n.Level&0xFF)), max(1, int(n.Level>>8))
}

// MarkInfo is the Info of a node in a CodeBlock, which marks a part of its code: from where to
// where, in bytes of its Text.
func MarkInfo(from, to int) string { return strconv.Itoa(from) + ":" + strconv.Itoa(to) }

// MarkSpan is the part of the code that such a node marks, in a text of a length.
func (n *Node) MarkSpan(length int) (from, to int) {
	before, behind, _ := strings.Cut(n.Info, ":")
	from, _ = strconv.Atoi(before)
	to, _ = strconv.Atoi(behind)
	return min(max(from, 0), length), min(max(to, from, 0), length)
}
