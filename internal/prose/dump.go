package prose

import (
	"fmt"
	"strings"
)

var kindNames = [...]string{
	"paragraph", "heading", "code block", "list", "item", "quote", "table", "row", "cell", "ruler", "display",
	"text", "emphasis", "strong", "struck", "code", "link", "reference", "insert", "taken", "image", "break",
	"superscript", "subscript", "formula",
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

// DumpSections writes a comment that was taken apart as indented text, for tests.
func DumpSections(s *Sections) string {
	var b strings.Builder
	dump(&b, s.Body, 0)
	if s.Obsolete || len(s.Deprecated) > 0 {
		b.WriteString("deprecated:\n")
		dump(&b, s.Deprecated, 1)
	}
	if len(s.Type) > 0 {
		fmt.Fprintf(&b, "type %q\n", Plain(s.Type))
	}
	if len(s.Marks) > 0 {
		fmt.Fprintf(&b, "marks %v\n", s.Marks)
	}
	for _, p := range s.Parts {
		fmt.Fprintf(&b, "%s %q:\n", PartNames[p.Kind], p.Title)
		for _, e := range p.Entries {
			fmt.Fprintf(&b, "  * %q type=%q", e.Name, Plain(e.Type))
			if e.Optional {
				b.WriteString(" optional")
			}
			if e.Default != "" {
				fmt.Fprintf(&b, " default=%q", e.Default)
			}
			b.WriteByte('\n')
			dump(&b, e.Text, 2)
		}
		dump(&b, p.Body, 1)
	}
	for _, f := range s.Flaws {
		fmt.Fprintf(&b, "flaw %d %q near %q\n", f.Kind, f.Text, f.Near)
	}
	return b.String()
}
