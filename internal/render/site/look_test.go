package site_test

import (
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
	"codrel/internal/settings"
)

// changed renders a small project with a look of its own and every page there is.
func changed(t *testing.T, look string) *sink.Memory {
	t.Helper()
	files := fstest.MapFS{
		"go.mod": {Data: []byte("module a.example/m\n")}, "a.go": {Data: []byte("// Package m is here.\npackage m\n\n// Berth holds.\ntype Berth struct {\n\t// Name is shown.\n\tName string\n}\n\n// Open opens a [Berth].\nfunc Open() Berth { return Berth{} }\n\nfunc Bare() {}\n")},
		"logo.svg": {Data: []byte("<svg/>")}, "sea.css": {Data: []byte(".prose { color: navy }")}, "head.html": {Data: []byte(`<meta name="author" content="Tide">`)},
		"top.html": {Data: []byte("<p>Above</p>")}, "foot.html": {Data: []byte("<p>Below</p>")},
	}
	set, err := settings.Parse("codrel.yaml", []byte(look), settings.Known{})
	require.NoError(t, err)
	s, err := build.Run(t.Context(), files, build.Options{Settings: set, FrontEnds: languages.All, Folder: "m", Inside: true})
	require.NoError(t, err)
	r := &site.Report{Documented: 3, Total: 4, Findings: []site.Finding{{Severity: "warning", Rule: "undocumented", Text: "function Bare has no <doc> comment", File: "a.go", Line: 13, Column: 6}}}
	for _, m := range s.Project.Libraries[0].Modules {
		r.ToDos = []site.ToDo{{Who: "lee", Text: "open <it> twice", File: "a.go", Line: 11, In: m.Lookup("Open")}, {Bug: true, Text: "it is bare", File: "gone.go", Line: 2}}
		r.Modules = append(r.Modules, site.Share{Module: m, Documented: 3, Total: 4})
	}
	var m sink.Memory
	p := plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: 1, Coverage: true, HasToDos: true, ToDos: 2, Whole: func(string) bool { return true }})
	require.NoError(t, site.New(p, site.Options{FrontEnds: s.FrontEnds, Look: s.Look, Report: r, Files: files, Workers: 2}).Write(t.Context(), &m))
	requireSound(t, asFS(&m))
	return &m
}

const ownFolder = "reference/m/a.example/m/"

func TestLook(t *testing.T) {
	m := changed(t, `look: {accent: "#1d4ed8", logo: logo.svg, style: sea.css, head: head.html, header: top.html, footer: foot.html}`)
	page := string(m.Get(ownFolder + "index.html"))
	assert.Contains(t, page, `<link rel="stylesheet" href="../../../../assets/look.css">`)
	assert.Contains(t, page, `<img src="../../../../assets/logo.svg" alt="" class="logo">`)
	assert.Contains(t, page, `<meta name="author" content="Tide"></head>`)
	assert.Contains(t, page, `<p>Above</p>`)
	assert.Contains(t, page, `<footer class="foot"><p>Below</p>`)
	assert.NotContains(t, page, "texts.js", "the words are the usual ones")
	style := string(m.Get("assets/look.css"))
	assert.Contains(t, style, `:root:not([data-scheme="dark"]) { --accent: #1d4ed8; }`)
	assert.Contains(t, style, ".prose { color: navy }")
	assert.Equal(t, "<svg/>", string(m.Get("assets/logo.svg")))
	plain := changed(t, "")
	assert.Nil(t, plain.Get("assets/look.css"))
	assert.NotContains(t, string(plain.Get("index.html")), "look.css")
}

func TestLocale(t *testing.T) {
	m := changed(t, `look: {locale: de, texts: {overview: "Kurz & gut"}}`)
	page := string(m.Get(ownFolder + "index.html"))
	assert.Contains(t, page, `<html lang="de">`)
	assert.Contains(t, page, `<h2 id="s--overview">Kurz &amp; gut</h2>`)
	assert.Contains(t, page, `Definiert in <a href="../../../../source/a.go.html#L11"><code translate="no">a.go</code></a>, Zeile 11.`)
	assert.Contains(t, page, `<script src="../../../../assets/texts.js"></script>`)
	assert.Contains(t, string(m.Get("assets/texts.js")), `"find":"Namen suchen"`)
	assert.Contains(t, string(m.Get("404.html")), "Seite nicht gefunden")
	assert.Contains(t, string(m.Get(ownFolder+"Berth.html")), "Konstruktoren")
	for _, english := range []string{"Overview", "Defined in", "Contents", "All modules", "Functions", "Previous:", "made with"} {
		for _, p := range m.Paths() {
			if p != "assets/codrel.js" && p != "source/a.go.html" {
				assert.NotContains(t, string(m.Get(p)), english, p)
			}
		}
	}
}

func TestReports(t *testing.T) {
	m := changed(t, "")
	findings := string(m.Get("findings.html"))
	assert.Contains(t, findings, `<a href="source/a.go.html#L13"><code translate="no">a.go:13:6</code></a>`)
	assert.Contains(t, findings, `function Bare has no &lt;doc&gt; comment`)
	coverage := string(m.Get("coverage.html"))
	assert.Contains(t, coverage, `3 of 4 declarations have a doc comment (75.0 %).`)
	assert.Contains(t, coverage, `<progress max="100" value="75">`)
	assert.Contains(t, string(m.Get("index.html")), `<a href="findings.html">Findings</a>`)
	toDos := string(m.Get("to-dos.html"))
	assert.Contains(t, toDos, `2 to-dos and bugs in the comments of the code.`)
	assert.Contains(t, toDos, `<span class="severity note">to do</span><a href="source/a.go.html#L11">line 11</a> in <a href="reference/m/a.example/m/index.html#Open"><code translate="no">Open</code></a> <span class="kind">for lee</span> <span class="message">open &lt;it&gt; twice</span>`)
	assert.Contains(t, toDos, `<span class="severity warning">bug</span>line 2<span class="message">it is bare</span>`)
	assert.Contains(t, string(m.Get("index.html")), `<a href="to-dos.html">To-dos</a>`)
}

func TestWholeModule(t *testing.T) {
	m := changed(t, "")
	assert.Contains(t, string(m.Get(ownFolder+"index.html")), `<a href="~whole.html">Everything on one page</a>`)
	whole := string(m.Get(ownFolder + "~whole.html"))
	assert.Contains(t, whole, `id="Berth"`)
	assert.Contains(t, whole, `id="Berth.Name"`)
	assert.Contains(t, whole, `Open opens a <a href="#Berth">`)
	assert.Contains(t, whole, `id="Open"`)
}
