package blocktags

import (
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
	for _, attributes := range []string{"region=", "region= ", "region=''", "region=\n", "=", "region==x", "region='"} {
		assert.NotPanics(t, func() { ParseNamed(commenttest.DocOf("{@snippet "+attributes+":\na();\n}"), nil) }, attributes)
	}
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
