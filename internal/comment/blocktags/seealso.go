package blocktags

import (
	"regexp"
	"strings"

	"codrel/internal/prose"
	"codrel/internal/source"
)

// This file reads what stands behind "@see": names with commas between them, and text.

// seenName is a name at the beginning of a text, written as users or namepaths write it.
var seenName = regexp.MustCompile(`^(?:module:)?[\pL_$][\pL\d_$]*(?:(?:\.|#|~|::)[\pL_$][\pL\d_$]*)*(?:\(\))?`)

// bareAddress is an address without marks around it, without the point of its sentence.
var bareAddress = regexp.MustCompile(`^https?://[^\s<>"]*[^\s<>".,;:!?)]`)

// seeAlso makes references of the names, and links of the addresses, that a text begins with.
func seeAlso(nodes []prose.Node) []prose.Node {
	if len(nodes) == 0 || nodes[0].Kind != prose.Paragraph {
		return nodes
	}
	var out []prose.Node
	children := nodes[0].Children
	for i := range children {
		n := &children[i]
		last := i == len(children)-1
		switch {
		case n.Kind == prose.Code && seenName.FindString(n.Text) == n.Text:
			out = append(out, seenAs(n.Text, *n))
		case n.Kind == prose.Text && (i == 0 || isListed(children[i-1].Kind)):
			list, more := seenIn(n, i > 0, last)
			out = append(out, list...)
			if !more {
				nodes[0].Children = append(out, children[i+1:]...)
				return nodes
			}
		case n.Kind == prose.Reference || n.Kind == prose.Link:
			out = append(out, *n)
		default:
			nodes[0].Children = append(out, children[i:]...)
			return nodes
		}
	}
	nodes[0].Children = out
	return nodes
}

func isListed(kind prose.Kind) bool {
	return kind == prose.Code || kind == prose.Reference || kind == prose.Link
}

// seenIn cuts a text at the names that it begins with, behind a comma where something
// stands before it. more says that the list may go on behind the text.
func seenIn(n *prose.Node, behind, last bool) (out []prose.Node, more bool) {
	at := 0
	text := func(from, to int) {
		if to > from {
			out = append(out, part(n, from, to))
		}
	}
	for from := 0; ; {
		for at < len(n.Text) && strings.IndexByte(", \n", n.Text[at]) >= 0 {
			behind = behind && n.Text[at] != ','
			at++
		}
		if at == len(n.Text) {
			text(from, at)
			return out, !behind
		}
		if address := bareAddress.FindString(n.Text[at:]); !behind && prose.AllowedAddress(address) {
			text(from, at)
			out = append(out, prose.Node{Kind: prose.Link, Target: address, Span: part(n, at, at+len(address)).Span, Children: []prose.Node{part(n, at, at+len(address))}})
			from, at, behind = at+len(address), at+len(address), true
			continue
		}
		name := seenName.FindString(n.Text[at:])
		end := at + len(name)
		if behind || name == "" || !endsName(name, n.Text[end:], last) {
			text(from, len(n.Text))
			return out, false
		}
		text(from, at)
		shown := part(n, at, end)
		shown.Kind = prose.Code
		out = append(out, seenAs(name, shown))
		from, at, behind = end, end, true
	}
}

// endsName reports whether a name ends where a text goes on: a word of English goes on
// as a sentence does.
func endsName(name, rest string, last bool) bool {
	switch {
	case rest == "" || rest == ".":
		return last
	case rest[0] == ',' || rest[0] == '\n' || strings.HasPrefix(rest, " -") || strings.HasPrefix(rest, " \u2013") || strings.HasPrefix(rest, ": "):
		return true
	}
	return rest[0] == ' ' && strings.Trim(name, "abcdefghijklmnopqrstuvwxyz") != ""
}

func seenAs(name string, shown prose.Node) prose.Node {
	shown.Typed = false
	return prose.Node{Kind: prose.Reference, MayBeExternal: true, Target: strings.TrimSuffix(nameOf(name), "()"), Span: shown.Span, Children: []prose.Node{shown}}
}

// part is a piece of a text's node.
func part(n *prose.Node, from, to int) prose.Node {
	return prose.Node{Kind: prose.Text, Text: n.Text[from:to], Span: source.Span{Start: n.Span.Start + int32(from), End: n.Span.Start + int32(to)}}
}

// named makes code of the name that a text begins with: it links where it means one
// thing, and an event that nothing declares is no mistake.
func named(nodes []prose.Node) []prose.Node {
	if len(nodes) == 0 || nodes[0].Kind != prose.Paragraph || len(nodes[0].Children) == 0 {
		return nodes
	}
	first := nodes[0].Children[0]
	name, _, _ := strings.Cut(first.Text, " ")
	if name = strings.TrimRight(name, "\n.,"); first.Kind != prose.Text || name == "" {
		return nodes
	}
	code := first
	code.Kind, code.Text = prose.Code, name
	code.Span.End = min(code.Span.End, code.Span.Start+int32(len(name)))
	rest := part(&first, len(name), len(first.Text))
	nodes[0].Children = append([]prose.Node{code}, nodes[0].Children[1:]...)
	if rest.Text != "" {
		nodes[0].Children = append([]prose.Node{code, rest}, nodes[0].Children[1:]...)
	}
	return nodes
}
