package snippet

import (
	"strings"

	"codrel/internal/prose"
	"codrel/internal/prose/markup"
	"codrel/internal/source"
)

// Nodes tell of the marks of a code that stands at a place of its file.
func Nodes(marks []Mark, span source.Span) (out []prose.Node) {
	for _, m := range marks {
		n := prose.Node{Kind: prose.Strong, Span: span}
		switch {
		case m.Target != "":
			n = prose.Node{Kind: prose.Reference, Strict: true, MayBeExternal: true, Target: Target(m.Target), Span: span}
		case m.Type == "italic":
			n.Kind = prose.Emphasis
		}
		out = append(out, n)
	}
	return out
}

// Placed takes the signs of marks out of code and tells each of the nodes, which stand in the
// order of the marks' opening, what it marks.
func Placed(code string, marks []prose.Node) (text string, placed []prose.Node) {
	text, spans := markup.Unmarked(code)
	placed = marks[:min(len(marks), len(spans))]
	for i := range placed {
		placed[i].Info = prose.MarkInfo(spans[i][0], spans[i][1])
	}
	return text, placed
}

// Target is the name that a reference means: "#moor(int)" is a member of what is around,
// "tide.berths/tide.Berth" has its module before it.
func Target(written string) string {
	if i := strings.IndexByte(written, '/'); i >= 0 {
		written = written[i+1:]
	}
	written = strings.TrimLeft(written, "#")
	if i := strings.Index(written, "##"); i >= 0 { // an address on the page of what is named
		written = written[:i]
	}
	return strings.Join(strings.Fields(written), " ")
}
