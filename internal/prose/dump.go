package prose

import (
	"fmt"
	"strings"
)

var kindNames = [...]string{
	"paragraph", "heading", "code block", "list", "item", "quote", "table", "row", "cell", "ruler",
	"text", "emphasis", "strong", "struck", "code", "link", "reference", "image", "break",
}

// String is the kind's name in dumps.
func (k Kind) String() string { return kindNames[k] }

// Dump writes a tree as indented text, for tests: one node a line.
func Dump(nodes []Node) string {
	var b strings.Builder
	dump(&b, nodes, 0)
	return b.String()
}

func dump(b *strings.Builder, nodes []Node, depth int) {
	for i := range nodes {
		n := &nodes[i]
		b.WriteString(strings.Repeat("  ", depth) + n.Kind.String())
		if n.Level > 0 {
			fmt.Fprintf(b, " %d", n.Level)
		}
		if n.Loose {
			b.WriteString(" loose")
		}
		if n.Strict {
			b.WriteString(" strict")
		}
		if n.Target != "" {
			b.WriteString(" -> " + n.Target)
		}
		if n.Text != "" {
			fmt.Fprintf(b, " %q", n.Text)
		}
		b.WriteByte('\n')
		dump(b, n.Children, depth+1)
	}
}
