package site_test

import (
	"fmt"
	"regexp"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/render/sink"
	"codrel/internal/settings"
)

func sourceOf(t *testing.T, files map[string]string, how string) *sink.Memory {
	t.Helper()
	fsys := fstest.MapFS{"go.mod": {Data: []byte("module a.example/m\n")}}
	for name, text := range files {
		fsys[name] = &fstest.MapFile{Data: []byte(text)}
	}
	set := settings.Default()
	set.Write.Source = how
	m := rendered(t, fsys, set, 2)
	requireSound(t, asFS(m))
	return m
}

var codeList = regexp.MustCompile(`(?s)<ol class="code"[^>]*>\s*(.*?)\s*</ol>`)

// code is what a page shows of the source, without the places of links.
func code(t *testing.T, m *sink.Memory, address string) []string {
	t.Helper()
	found := codeList.FindStringSubmatch(string(m.Get(address)))
	require.NotNil(t, found, "%s shows no source: %v", address, m.Paths())
	return strings.Split(found[1], "\n")
}

func TestSourcePage(t *testing.T) {
	m := sourceOf(t, map[string]string{"a.go": "package a\r\n\r\n/* F\n is <b> & */\nfunc F() B { return hidden(`\n`, '<') }\n\ntype B int\n\nfunc hidden(...any) B { return 0 }\n"}, "full")
	assert.Equal(t, []string{
		`<li id=L1><b>package</b> a`,
		`<li id=L2>`,
		`<li id=L3><i>/* F</i>`,
		`<li id=L4><i> is &lt;b&gt; &amp; */</i>`,
		"<li id=L5><b>func</b> <a class=d href=../reference/m/a.example/m/index.html#F>F</a>() <a href=#L8>B</a> { <b>return</b> <a href=#L10>hidden</a>(<u>`</u>",
		"<li id=L6><u>`</u>, <u>'&lt;'</u>) }",
		`<li id=L7>`,
		`<li id=L8><b>type</b> <a class=d href=../reference/m/a.example/m/B.html>B</a> int`,
		`<li id=L9>`,
		`<li id=L10><b>func</b> hidden(...any) <a href=#L8>B</a> { <b>return</b> 0 }`,
	}, code(t, m, "source/a.go.html"))
	assert.Contains(t, string(m.Get("reference/m/a.example/m/index.html")), `<a href="../../../../source/a.go.html#L5"><code translate="no">a.go</code></a>, line 5.`)
	assert.Contains(t, string(m.Get("reference/m/a.example/m/B.html")), `lines <a href="../../../../source/a.go.html#L5">5</a> and <a href="../../../../source/a.go.html#L10">10</a>`, "who uses it")
}

// Names in quotes that mean something are links, and the quotes are drawn around them.
func TestNamesInQuotes(t *testing.T) {
	m := sourceOf(t, map[string]string{
		"lib/Tide.pm":     "package Tide;\nuse Tide::Base 'Tide::Low';\nuse Tide::Low qw(read none\n  take);\nuse parent -norequire, 'Tide::Low', \"Other\";\nhas 'depth';\n1;\n",
		"lib/Tide/Low.pm": "package Tide::Low;\nour @EXPORT_OK = qw(read take);\nsub read { }\nsub take { }\n1;\n",
	}, "full")
	low := "<a href=../../reference/project/Tide~3a~~3a~Low/index.html"
	assert.Equal(t, []string{
		`<li id=L1><b>package</b> Tide;`,
		`<li id=L2><b>use</b> Tide::Base <u>'Tide::Low'</u>;`,
		`<li id=L3><b>use</b> ` + low + `>Tide::Low</a> <u>qw(</u>` + low + `#read>read</a><u> none</u>`,
		`<li id=L4><u>  </u>` + low + `#take>take</a><u>)</u>;`,
		`<li id=L5><b>use</b> parent -norequire, <u>'</u>` + low + `>Tide::Low</a><u>'</u>, <u>"Other"</u>;`,
		`<li id=L6>has <u>'</u><a class=d href=../../reference/project/Tide/index.html#attribute:depth>depth</a><u>'</u>;`,
		`<li id=L7>1;`,
	}, code(t, m, "source/lib/Tide.pm.html"))
}

// Names of another module lead to their plates, or to their lines where they have none.
func TestSourceOfTwoModules(t *testing.T) {
	m := sourceOf(t, map[string]string{
		"a/a.go":          "package a\n\nimport (\n\t\"a.example/m/b\"\n\t\"a.example/m/internal/c\"\n)\n\nvar X = b.Y + c.Z\n",
		"b/b.go":          "package b\n\nconst Y = 1\n",
		"internal/c/c.go": "package c\n\nconst Z = 1\n",
	}, "full")
	lines := code(t, m, "source/a/a.go.html")
	assert.Contains(t, lines[7], `<a href=../../reference/m/a.example/m/b/index.html#Y>b.Y</a> + <a href=../internal/c/c.go.html#L3>c.Z</a>`)
}

func TestSourceOfOddText(t *testing.T) {
	for text, want := range map[string]string{
		"package a // \u202eevil\u202c \u2713\u200f":                 "<li id=L1><b>package</b> a <i>// <mark>U+202E</mark>evil<mark>U+202C</mark> \u2713<mark>U+200F</mark></i>",
		"package a // \x00\x07\x7f\f":                                "<li id=L1><b>package</b> a <i>// \u2400\u2407\u2421\u240c</i>",
		"package a // " + strings.Repeat("x", 5000):                  "<li id=L1><b>package</b> a <i>// " + strings.Repeat("x", 3987) + "<mark>… 1013 more bytes</mark></i>",
		"package a\n\nvar A = `" + strings.Repeat("é", 3000) + "`\n": "<li id=L3><b>var</b> <a class=d href=../reference/m/a.example/m/index.html#A>A</a> = <u>`" + strings.Repeat("é", 1995) + "<mark>… 2011 more bytes</mark></u>",
		"":                "<li id=L1>",
		"package a\n\n\n": "<li id=L3>",
	} {
		lines := code(t, sourceOf(t, map[string]string{"a.go": text}, "full"), "source/a.go.html")
		assert.Equal(t, want, lines[len(lines)-1], "%.40q", text)
	}
}

func TestSignaturesOnly(t *testing.T) {
	m := sourceOf(t, map[string]string{"a.go": "package a\n\nfunc F() {\n\tG()\n}\n\nfunc G() {} // end\n"}, "signatures")
	lines := code(t, m, "source/a.go.html")
	assert.Equal(t, `<li id=L3><b>func</b> <a class=d href=../reference/m/a.example/m/index.html#F>F</a>() { … }`, lines[2])
	assert.Equal(t, `<li value=6 id=L6>`, lines[3], "numbers go on behind what is left out")
	assert.Contains(t, lines[4], `{ … } <i>// end</i>`)
	page := string(m.Get("source/a.go.html"))
	assert.Contains(t, page, "The bodies of functions are left out.")
	assert.NotContains(t, string(m.Get("reference/m/a.example/m/index.html")), "Used in")
}

func TestNoSource(t *testing.T) {
	m := sourceOf(t, map[string]string{"a.go": "package a\n\nfunc F() {}\n"}, "none")
	for _, p := range m.Paths() {
		assert.False(t, strings.HasPrefix(p, "source/"), p)
	}
	assert.Contains(t, string(m.Get("reference/m/a.example/m/index.html")), `Defined in <code translate="no">a.go</code>, line 3.`)
}

// A long file is cut into pages of 5000 lines, and its lines are found on them.
func TestLongSource(t *testing.T) {
	var text strings.Builder
	text.WriteString("package a\n\nfunc F() { last() }\n\n/*")
	text.WriteString(strings.Repeat("\n", 9994))
	text.WriteString("*/\nfunc last() { F() }\n")
	m := sourceOf(t, map[string]string{"a.go": text.String()}, "full")
	assert.Equal(t, 5000, len(code(t, m, "source/a.go.html")))
	second := code(t, m, "source/a.go~2.html")
	assert.Equal(t, "<li id=L5001><i></i>", second[0], "a comment goes on")
	assert.Contains(t, strings.Join(code(t, m, "source/a.go.html"), ""), `href=a.go~2.html#L10000>last</a>`)
	assert.Contains(t, second[len(second)-1], `href=a.go.html#L3>F</a>`)
	page := string(m.Get("source/a.go~2.html"))
	assert.Contains(t, page, "lines 5001 to 10000 of 10000")
	assert.Contains(t, page, `start="5001"`)
	assert.Nil(t, m.Get("source/a.go~3.html"))
}

func TestUsersPage(t *testing.T) {
	files := map[string]string{"h/h.go": "package h\n\n// Key opens.\nconst Key = 1\n"}
	for i := range 60 {
		files[fmt.Sprintf("p%02d/p.go", i)] = "package p\n\nimport \"a.example/m/h\"\n\n" + strings.Repeat("var _ = h.Key\n", 14)
	}
	m := sourceOf(t, files, "full")
	assert.Contains(t, string(m.Get("reference/m/a.example/m/h/index.html")), `Used on <a href="~users.html#Key">840 lines of 60 files</a>.`)
	users := strings.Join(strings.Fields(string(m.Get("reference/m/a.example/m/h/~users.html"))), " ")
	assert.Contains(t, users, `<dt id="Key">`)
	assert.Contains(t, users, `<code translate="no">p00/p.go</code>, lines <a href="../../../../../source/p00/p.go.html#L5">5</a>, `)
	assert.Contains(t, users, `16</a> and 2 more`)
	assert.Contains(t, users, `and in 10 more files`)
}
