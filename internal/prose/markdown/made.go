package markdown

import (
	"sort"
	"strings"

	"codrel/internal/prose"
	"codrel/internal/source"
)

// Made is a text made of pieces of a file, such as a comment in which forms of a dialect became
// links: what is read of it stands where the pieces do.
type Made struct {
	b      strings.Builder
	starts []int   // of pieces in the text
	places []int32 // where they stand in the file
	fixed  []bool  // all of the piece stands for one place
}

// Put puts a piece behind the others. It stands at an offset of the file; fixed says that all of it
// stands for that one place.
func (m *Made) Put(text string, at int32, fixed bool) {
	if text == "" {
		return
	}
	m.starts = append(m.starts, m.b.Len())
	m.places = append(m.places, at)
	m.fixed = append(m.fixed, fixed)
	m.b.WriteString(text)
}

// offset is the place in the file of an offset in the text.
func (m *Made) offset(at int32) int32 {
	i := sort.SearchInts(m.starts, int(at)+1) - 1
	if i < 0 {
		return 0
	}
	if m.fixed[i] {
		return m.places[i]
	}
	return m.places[i] + at - int32(m.starts[i])
}

// Read reads the text. Spans are those of the file, between the first and the last offset of what
// was put; plain are the places of what is shown as it is written.
func (m *Made) Read(low, high int32) (nodes []prose.Node, plain []source.Span) {
	nodes, written := Read(m.b.String())
	for _, span := range written {
		at := m.offset(span.Start)
		plain = append(plain, source.Span{Start: at, End: at})
	}
	prose.Walk(nodes, func(n *prose.Node) bool {
		if n.Span.Empty() {
			n.Span = source.Span{Start: low, End: low}
		} else {
			n.Span = source.Span{Start: m.offset(n.Span.Start), End: min(m.offset(n.Span.End-1)+1, max(high, low))}
			n.Span.End = max(n.Span.End, n.Span.Start)
		}
		return true
	})
	return nodes, plain
}
