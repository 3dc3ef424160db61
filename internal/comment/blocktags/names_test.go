package blocktags

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/comment/commenttest"
	"codrel/internal/prose"
)

// Names in brackets are links in Java's comments in Markdown, and in no others.
func TestNamesInBrackets(t *testing.T) {
	for text, want := range map[string]string{
		"See [Berth] here.":                                  "Berth=Berth",
		"[Berth#moor(int, String)] moors":                    "Berth#moor(int, String)=Berth.moor(int, String)",
		"[#moor] and [the words][Berth#moor]":                "moor=moor Berth#moor=the words",
		`[#moor(int\[\])]`:                                   "moor(int[])=moor(int[])",
		"[java.base/java.util.List]":                         "java.util.List=java.base/java.util.List",
		"[x](https://a.example/) [not a name] [1] `[Berth]`": "",
		"[Berth]: https://a.example/\n\n[Berth]":             "",
		"```\n[Berth]\n```":                                  "",
	} {
		var got []string
		s := ParseNamed(commenttest.DocOf(text), nil)
		prose.Walk(s.Body, func(n *prose.Node) bool {
			if n.Kind == prose.Reference {
				got = append(got, n.Target+"="+prose.Plain(n.Children))
				assert.False(t, n.Strict, "it may be meant as it is")
			}
			return true
		})
		assert.Equal(t, want, strings.Join(got, " "), text)
	}
	prose.Walk(Parse(commenttest.DocOf("See [Berth] here."), nil).Body, func(n *prose.Node) bool {
		assert.NotEqual(t, prose.Reference, n.Kind)
		return true
	})
}

func TestSnippetsInMarkdown(t *testing.T) {
	s := ParseNamed(commenttest.DocOf("Use:\n\n{@snippet lang=java :\n  berth.moor(); // @highlight substring=\"moor\"\n  if (a) { b(); } // @replace regex='b' replacement='...'\n}\n\nAfter {@snippet file=x}.\n{@snippet : never closed"), nil)
	var code []string
	prose.Walk(s.Body, func(n *prose.Node) bool {
		if n.Kind == prose.CodeBlock {
			code = append(code, n.Text)
		}
		return true
	})
	assert.Equal(t, []string{"berth.moor();\nif (a) { ...(); }"}, code)

	s = ParseNamed(commenttest.DocOf("{@snippet :\n  a(); // @highlight type=italic\n}\n\n~~~\nown \uFDD0sign\uFDD1\n~~~\n\n{@snippet :\n  if (b) {\n    moor(c); // @link substring=moor target=\"tide.berths/Berth#moor\"\n  }\n}\n\n@return\n{@snippet :\n  d(e); // @highlight regex=[de]\n}"), nil)
	var marks []string
	for nodes := range s.All {
		prose.Walk(nodes, func(n *prose.Node) bool {
			if n.Kind == prose.CodeBlock {
				marks = append(marks, n.Info+"|"+n.Text)
				for i := range n.Children {
					from, to := n.Children[i].MarkSpan(len(n.Text))
					marks = append(marks, fmt.Sprint(n.Children[i].Kind, n.Children[i].Target, " ", n.Text[from:to]))
				}
			}
			return true
		})
	}
	assert.Equal(t, []string{
		"java|a();", fmt.Sprint(prose.Emphasis, " a();"),
		"|own sign",
		"java|if (b) {\n  moor(c);\n}", fmt.Sprint(prose.Reference, "Berth#moor", " moor"),
		"java|d(e);", fmt.Sprint(prose.Strong, " d"), fmt.Sprint(prose.Strong, " e"),
	}, marks)
	for _, attributes := range []string{"region=", "region= ", "region=''", "region=\n", "=", "region==x", "region='"} {
		assert.NotPanics(t, func() { ParseNamed(commenttest.DocOf("{@snippet "+attributes+":\na();\n}"), nil) }, attributes)
	}
}

// Tags in raw HTML are as good as elsewhere, which Markdown has no place for.
func TestTagsInHTML(t *testing.T) {
	s := ParseNamed(commenttest.DocOf("<table><tr><th colspan=2>Berth</th></tr>\n<tr><td>{@code a<b}</td><td>{@link java.base/List#add(int)}, {@link #moor() moors}</td></tr></table>\n\n<pre><code class=\"language-java\">{@link #moor()};\n\n<b>x</b> = `y`</code></pre>\n\n<dl><dt>Tide<dd>in <p>and out</dl>"), nil)
	assert.Equal(t, `table
  row 1
    cell 2
      text "Berth"
  row
    cell
      code "a<b"
    cell
      reference strict -> List#add(int)
        code "List.add(int)"
      text ", "
      reference strict -> moor()
        text "moors"
code block "moor();\n\nx = `+"`y`"+`"
  reference strict -> moor()
  strong
list
  item
    paragraph
      strong
        text "Tide"
    paragraph
      text "in "
    paragraph
      text "and out"
`, prose.Dump(s.Body))
}

func FuzzParseNamed(f *testing.F) {
	f.Add("{@snippet region= :\na();\n}")
	f.Add("See [Berth#moor(int)].\n{@snippet :\na(); // @highlight\n}\n@param a [A]")
	f.Fuzz(func(t *testing.T, text string) {
		if strings.ContainsRune(text, '\r') || strings.TrimSpace(text) == "" {
			return
		}
		assert.NotPanics(t, func() { ParseNamed(commenttest.DocOf(text), nil) })
	})
}
