package site_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Comments of a size that only a machine writes leave the page one that can be
// read; the crawl weighs it.
func TestHugeComments(t *testing.T) {
	for what, comment := range map[string]string{
		"paragraphs": strings.Repeat("// A paragraph of some words that goes on for a while.\n//\n", 40_000),
		"one line":   "// " + strings.Repeat("word ", 500_000) + "\n",
		"one word":   "// " + strings.Repeat("é", 1_200_000) + "\n",
		"code":       "//\n//\t" + strings.Repeat("code\n//\t", 300_000) + "\n",
		"a list":     "// F:\n" + strings.Repeat("//   - item\n", 180_000),
	} {
		m := sourceOf(t, map[string]string{"a.go": "package a\n\n// F is first.\n//\n" + comment + "func F() {}\n\n// G is the next.\nfunc G() {}\n"}, "full")
		page := string(m.Get(folderA + "index.html"))
		assert.Contains(t, page, "F is first.", what)
		assert.Contains(t, page, "This text is too long to show here", what)
		assert.Contains(t, page, "G is the next.", what)
		assert.Less(t, len(page), 500_000, what)
	}
}

// A first sentence without an end is cut where lists show it.
func TestHugeSummary(t *testing.T) {
	m := sourceOf(t, map[string]string{"a.go": "package a\n\n// T " + strings.Repeat("goes on ", 100_000) + "\ntype T int\n"}, "none")
	assert.Less(t, len(m.Get(folderA+"index.html")), 10_000)
	assert.Greater(t, len(m.Get(folderA+"T.html")), 200_000)
}

func TestHugeTable(t *testing.T) {
	readme := "# Title\n\n| a | b |\n|---|---|\n" + strings.Repeat("| one | two |\n", 100_000)
	page := pageOf(t, "package engine\n", readme, "index.html")
	assert.Contains(t, page, "This text is too long to show here")
	assert.Less(t, len(page), 500_000)
}

// A name whose letters come from several scripts is shown as it is, with a note.
func TestHomographs(t *testing.T) {
	m := sourceOf(t, map[string]string{"a.go": "package a\n\n// Βerth has a Greek letter.\ntype \u0392erth struct{}\n\n// Größe and Höhe do not.\nfunc Größe() {}\n\n// Глубина is all Cyrillic.\nfunc Глубина() {}\n"}, "full")
	all := ""
	for _, p := range m.Paths() {
		if strings.HasPrefix(p, "reference/") {
			all += string(m.Get(p))
		}
	}
	assert.Equal(t, 1, strings.Count(all, "The name mixes Latin and Greek letters"))
}

func TestFences(t *testing.T) {
	readme := "# Title\n\n```go\nfunc f() { return \"<x>\" } // done\n```\n\n```sh\nif x\n```\n\n```unheard-of\nif x\n```\n"
	page := mainText(pageOf(t, "package engine\n", readme, "index.html"))
	assert.Contains(t, page, `<b>func</b> f() { <b>return</b> <u>&#34;&lt;x&gt;&#34;</u> } <i>// done</i>`)
	assert.Contains(t, page, `<pre><code translate="no"><b>if</b> x`, "of a language that no front end reads")
	assert.Contains(t, page, `<pre><code translate="no">if x`, "of one that nobody knows")
}
