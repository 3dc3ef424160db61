package site_test

import (
	"fmt"
	"io/fs"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build/buildtest"
	"codrel/internal/settings"
)

// between is the part of a page from one text to another.
func between(t *testing.T, page, from, to string) string {
	t.Helper()
	_, rest, ok := strings.Cut(page, from)
	require.True(t, ok, "no %q", from)
	inside, _, ok := strings.Cut(rest, to)
	require.True(t, ok, "no %q behind %q", to, from)
	return inside
}

func TestGuides(t *testing.T) {
	files := buildtest.Files(map[string]string{
		"go.mod":   "module port.example\n",
		"port.go":  "// Package port is one.\npackage port\n\n// Moor ties up, see the guides.\nfunc Moor(q Quay) bool { return q.hidden() }\n\n// Quay is one.\ntype Quay int\n\nfunc (q Quay) hidden() bool { return true }\n",
		"plan.yml": "name: x # y\n",
		"docs/guides/first.md": "# First\n\n## A `Moor`\n\n### Deep\n\n#### Deeper\n\n## B\n\n" +
			"```go excerpt=Moor\nold\n```\n\n```go excerpt=Quay.hidden\n```\n\n```excerpt=file:plan.yml\n```\n\n```go excerpt=Gone\nkept as it was\n```\n\n" +
			"- in a list:\n\n  ```go excerpt=Quay\n  ```\n\n```yaml\nkey: 'value' # remark\n```\n\n```klingon\nkey\n```\n",
		"docs/guides/x/a.md": "---\npart: Same\n---\n# XA\n", "docs/guides/x/b.md": "---\npart: Other\n---\n# XB\n\nAsks `Quay` at *last*. Then more.\n", "docs/guides/x/c.md": "---\npart: Same\n---\n# XC\n",
		"docs/fragments/f.md":   "Again[^b].\n\n[^b]: Twice.\n",
		"docs/guides/notes.md":  "# Notes\n\nOne[^a].\n\n<insert:f>\n\n[^a]: Once.\n",
		"docs/guides/second.md": "# Second\n\n[a](first.md#b) [b](first.md#B) [c](#none) [d](../../plan.yml) [e](<first.md>) [f](first#b) <a id=\"f\" href=\"first.md\">`g` <a name=\"in\"></a></a>\n",
	})
	set := settings.Default()
	set.Source = "https://forge.example/{path}#{line}"
	m := rendered(t, files, set, 2)
	requireSound(t, asFS(m))
	page := string(m.Get("guides/first.html"))
	assert.Equal(t, `<ul class="tree"><li><a href="#s-a-moor">A Moor</a><ul><li><a href="#s-deep">Deep</a></li></ul></li><li><a href="#s-b">B</a></li></ul>`,
		between(t, page, `aria-label="On this page">`, "</nav>"))
	assert.Contains(t, page, `<p>Written in <a href="https://forge.example/docs/guides/first.md#1">`)

	shown := strings.Split(page, `<div class="plate excerpt">`)[1:]
	require.Len(t, shown, 5)
	assert.Contains(t, shown[0], `<a href="../source/port.go.html#L5">port.go, line 5</a>`)
	assert.Contains(t, shown[0], `<a href="../reference/port.example/port.example/Quay.html">Quay</a>) bool`)
	assert.NotContains(t, page, "old", "the source is shown, and not its copy")
	assert.Contains(t, shown[1], `<p class="edge"><code translate="no">Quay.hidden</code> · `, "what is private has no page")
	assert.Contains(t, shown[2], `<p class="edge"><a href="https://forge.example/plan.yml#1">plan.yml, line 1</a></p>`)
	assert.Contains(t, shown[3], `<p class="edge"><code translate="no">Gone</code></p><pre><code translate="no">kept as it was</code></pre>`)
	assert.Contains(t, shown[4], `</div>`)
	assert.Contains(t, page, "<b>key</b>: <u>&#39;value&#39;</u> <i># remark</i>")
	assert.Contains(t, page, `<pre><code translate="no">key</code></pre>`)

	notes := string(m.Get("guides/notes.html"))
	assert.Contains(t, notes, `One<sup><a href="#s-footnote-1">[1]</a></sup>.`)
	assert.Equal(t, 1, strings.Count(notes, `<span id="s-footnote-1"></span>`), "an address stands once on a page")
	second := string(m.Get("guides/second.html"))
	assert.Equal(t, 3, strings.Count(second, `href="first.html#s-b"`))
	assert.Contains(t, second, ` c <a href="https://forge.example/plan.yml#1">d</a> <a href="first.html">e</a>`, "what leads nowhere is text")
	assert.Contains(t, string(m.Get("reference/port.example/port.example/index.html")), `Mentioned in <a href="../../../guides/first.html">First</a>.`)
	assert.Contains(t, string(m.Get("search/k-.js")), `"Deep","",`)
	assert.Regexp(t, `>XB</a></dt><dd>Asks <a href="[^"]+/Quay.html"[^>]*><code[^>]*>Quay</code></a> at <em>last</em>.</dd>`, string(m.Get("guides/index.html")))
}

// goneMeanwhile has a picture while it is looked for, and no more when it is copied.
type goneMeanwhile struct{ fs.FS }

func (g goneMeanwhile) ReadFile(name string) ([]byte, error) {
	if name == "guides/gone.svg" {
		return nil, fs.ErrNotExist
	}
	return fs.ReadFile(g.FS, name)
}

func TestPictureGoesAwayMeanwhile(t *testing.T) {
	files := buildtest.Files(map[string]string{
		"a.go": "package a\n", "guides/gone.svg": "<svg/>", "guides/here.svg": "<svg/>",
		"guides/g.md": "# G\n\n![what goes](gone.svg) ![what stays](here.svg)\n",
	})
	m := rendered(t, goneMeanwhile{files}, settings.Default(), 2)
	requireSound(t, asFS(m))
	page := string(m.Get("guides/g.html"))
	assert.Contains(t, page, `<p>what goes <img src="../files/guides/here.svg" alt="what stays"></p>`)
	assert.Nil(t, m.Get("files/guides/gone.svg"))
}

// Many guides, and many headings, leave the contents light; the page's own guide is always among
// them.
func TestManyGuides(t *testing.T) {
	files := fstest.MapFS{"a.go": {Data: []byte("package a\n")}}
	for part := range 12 {
		for i := range 60 {
			text := fmt.Sprintf("# Guide %d of part %d has a name of some length\n", i, part)
			files[fmt.Sprintf("guides/part%02d/g%02d.md", part, i)] = &fstest.MapFile{Data: []byte(text)}
		}
	}
	var heads strings.Builder
	heads.WriteString("# Heads\n")
	for i := range 90 {
		fmt.Fprintf(&heads, "\n## Head %d\n\n### Below it\n", i)
	}
	files["guides/heads.md"] = &fstest.MapFile{Data: []byte(heads.String())}
	m := rendered(t, files, settings.Default(), 2)
	requireSound(t, asFS(m))
	for _, address := range []string{"index.html", "guides/index.html", "guides/part00/g00.html", "guides/part11/g59.html", "guides/part07/g30.html"} {
		page := string(m.Get(address))
		contents := between(t, page, `<nav aria-label="Contents">`, "</nav>")
		assert.Less(t, len(contents), 8192, address)
		assert.LessOrEqual(t, strings.Count(contents, `aria-current="page"`), 1, address)
		if strings.Contains(address, "part") {
			assert.Contains(t, contents, `aria-current="page"`, address)
		}
	}
	assert.Contains(t, string(m.Get("guides/part07/g30.html")), ">All 60</a>")
	assert.Equal(t, 40, strings.Count(between(t, string(m.Get("guides/heads.html")), `aria-label="On this page">`, "</nav>"), "<li>"), "those of the lower level are left out, and the rest is cut")
}
