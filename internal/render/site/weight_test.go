package site_test

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// constants is a module of many constants.
func constants(n int) map[string]string {
	var b strings.Builder
	b.WriteString("package a\n\nconst (\n")
	for i := range n {
		fmt.Fprintf(&b, "\tName%d = %d // is number %d\n", i, i, i)
	}
	b.WriteString(")\n")
	return map[string]string{"a.go": b.String()}
}

const folderA = "reference/m/a.example/m/"

// A module of very many names keeps their addresses, and moves what is shown of
// them to pages of their own. The crawl weighs every page.
func TestManyNames(t *testing.T) {
	m := sourceOf(t, constants(400), "none")
	assert.Contains(t, string(m.Get(folderA+"index.html")), `<li id="Name7"><code translate="no"><span class="k">const </span>`, "some hundred stand a line each")
	assert.Nil(t, m.Get(folderA+"~names-1.html"))

	m = sourceOf(t, constants(4600), "none")
	page := string(m.Get(folderA + "index.html"))
	assert.Contains(t, page, `<li><a id=Name7 href=~names-1.html#Name7>Name7</a>`)
	assert.Contains(t, page, `<a id=Name4599 href=~names-2.html#Name4599>`)
	assert.Contains(t, string(m.Get(folderA+"~names-2.html")), `<li id="Name4599">`)
	assert.Contains(t, string(m.Get("a-z/n-names.html"))+string(m.Get("a-z/n-names-2.html")), `href="../reference/m/a.example/m/index.html#Name7"`, "addresses stay")

	m = sourceOf(t, constants(12000), "none")
	page = string(m.Get(folderA + "index.html"))
	assert.Contains(t, page, `<li id=Name7>Name7`)
	assert.Contains(t, page, `<a href=~names-2.html#Name2500>with signatures, from Name2500 on</a>`)
	part := strings.Join(strings.Fields(string(m.Get("a-z/n-names-3.html"))), " ")
	assert.Contains(t, part, `<h1>A to Z: N 3</h1>`, "a letter of the A to Z list is cut too")
	assert.Contains(t, part, `<a href="n-names-2.html">N 2</a>`)
}

func TestManyRelations(t *testing.T) {
	var b strings.Builder
	b.WriteString("package a\n\ntype T struct{}\n")
	for i := range 60 {
		fmt.Fprintf(&b, "\nfunc F%d(t T) {}\n", i)
	}
	m := sourceOf(t, map[string]string{"a.go": b.String()}, "none")
	page := string(m.Get(folderA + "T.html"))
	assert.Contains(t, page, `<a href="T~all.html"> and 11 more</a>.`)
	assert.Equal(t, 49, strings.Count(page, `href="index.html#F`), "49 names, and the rest elsewhere")
	all := string(m.Get(folderA + "T~all.html"))
	assert.Equal(t, 60, strings.Count(all, `href="index.html#F`))
}

// Texts that have no room on the page of their module or type move to pages of details;
// the addresses stay where they were, with a line each.
func TestLongTexts(t *testing.T) {
	text := strings.Repeat("// All of it is said here, at length and with care.\n", 60)
	var b strings.Builder
	b.WriteString("package a\n\n// T is a type.\ntype T struct{}\n\n// Short is short.\nconst Short = 1\n")
	for i := range 300 {
		fmt.Fprintf(&b, "\n// F%d is a function.\n%sfunc F%d() {}\n\n// M%d is a method.\n%sfunc (T) M%d() {}\n", i, text, i, i, text, i)
	}
	m := sourceOf(t, map[string]string{"a.go": b.String()}, "none")
	page, first := string(m.Get(folderA+"index.html")), string(m.Get(folderA+"~details-1.html"))
	assert.Less(t, len(page), 200_000)
	assert.Contains(t, page, `<dt id="F7"><a href="~details-1.html#F7"><code translate="no">F7</code></a>`)
	assert.Contains(t, page, "F7 is a function.")
	assert.NotContains(t, page, "at length")
	assert.Contains(t, page, `id="Short"`)
	assert.Contains(t, page, `<div class="plate">`, "what has room stays")
	assert.Contains(t, first, `<h1><code translate="no">a.example/m</code> <span class="kind">Details, part 1</span></h1>`)
	assert.Contains(t, first, `<h3><a href="index.html#F7"><code translate="no">F7</code></a> <span class="kind">function</span></h3>`, "the permalink is the address that stays")
	assert.Contains(t, first, "at length")
	assert.Contains(t, string(m.Get(folderA+"~details-3.html")), `id="F299"`)
	assert.Contains(t, string(m.Get("a-z/index.html")), `href="../reference/m/a.example/m/~details-1.html#F7"`)

	page, first = string(m.Get(folderA+"T.html")), string(m.Get(folderA+"T~details-1.html"))
	assert.Contains(t, page, `<dt id="M7"><a href="T~details-1.html#M7"><code translate="no">M7</code></a>`)
	assert.Contains(t, first, `<h3><a href="T.html#M7"><code translate="no">M7</code></a> <span class="kind">method</span></h3>`)
	assert.Contains(t, first, `<a href="T.html">`, "the way back")
}

// A table of constants stands a line each, and what a line leaves out is a step away.
func TestLongTextsInTables(t *testing.T) {
	files := constants(400)
	files["b.go"] = "package a\n\n// Long is long.\n//\n// There is more to it.\nconst Long = 1\n\n// Deprecated: use Name1.\nconst Gone = 1\n\n// Late is late.\n//\n// Deprecated: use Name2.\nconst Late = 1\n"
	m := sourceOf(t, files, "none")
	page, details := string(m.Get(folderA+"index.html")), string(m.Get(folderA+"~details-1.html"))
	assert.Equal(t, 2, strings.Count(page, ">Continue reading<"))
	assert.Contains(t, page, `<a class="aside" href="~details-1.html#Long" aria-label="Continue reading about Long">Continue reading</a>`)
	assert.Contains(t, details, "There is more to it.")
	assert.Contains(t, details, "Late is late.")
	assert.NotContains(t, details, `id="Gone"`, "its line says everything")
	assert.NotContains(t, details, `id="Name7"`)
}

// The contents hold what is near, however many libraries and modules there are.
func TestManyLibraries(t *testing.T) {
	files := map[string]string{}
	for i := range 45 {
		files[fmt.Sprintf("lib%02d/go.mod", i)] = fmt.Sprintf("module lib%02d.example", i)
		files[fmt.Sprintf("lib%02d/a.go", i)] = "package a\n\nconst A = 1\n"
	}
	long := strings.Repeat("a-folder-with-a-very-long-name/", 5)
	for i := range 50 {
		files[fmt.Sprintf("lib44/%s%02d/a.go", long, i)] = "package a\n\nconst A = 1\n"
	}
	m := sourceOf(t, files, "none")
	contents := func(page string) string {
		text := string(m.Get(page))
		text = text[strings.Index(text, `<nav aria-label="Contents">`):]
		return text[:strings.Index(text, "</nav>")]
	}
	home := contents("index.html")
	assert.Contains(t, home, `>lib00</a>`)
	assert.NotContains(t, home, `>lib44</a>`)
	assert.Contains(t, home, `<a href="modules.html">All 45 libraries</a>`)
	last := contents("reference/lib44/index.html")
	assert.NotContains(t, last, `>lib00</a>`)
	assert.Contains(t, last, `aria-current="page" translate="no">lib44</a>`)
	assert.Contains(t, last, `>All 51 modules</a>`, "long paths leave no room for all of them")
	assert.Less(t, len(last), 8192)
}

// Scripts and styles are written without what only their authors read; a browser runs them
// in other tests.
func TestScriptsAreLight(t *testing.T) {
	m := sourceOf(t, constants(1), "none")
	for name, most := range map[string]int{"codrel.js": 14_000, "codrel.css": 14_000} {
		source, err := os.ReadFile("assets/" + name)
		require.NoError(t, err)
		written := m.Get("assets/" + name)
		assert.Less(t, len(written), most, name)
		assert.Less(t, len(written), len(source)*9/10, name)
		assert.NotContains(t, string(written), "/*")
	}
}

// Thousands of functions with texts have neither plates nor lines on their module's page.
func TestThousandsOfFunctions(t *testing.T) {
	var b strings.Builder
	b.WriteString("package a\n")
	for i := range 3000 {
		fmt.Fprintf(&b, "\n// Function%d does something for somebody, and says so in a first sentence of some length.\n//\n// There is more of it.\nfunc Function%d(first, second string, third ...map[string][]int) (fourth *int, err error) { return nil, nil }\n", i, i)
	}
	m := sourceOf(t, map[string]string{"a.go": b.String()}, "none")
	page := string(m.Get(folderA + "index.html"))
	assert.Contains(t, page, `<li><a id=Function2999 href=~names-5.html#Function2999>Function2999</a>`)
	assert.Contains(t, string(m.Get(folderA+"~names-5.html")), `<a class="aside" href="~details-`)
	assert.NotContains(t, page, "There is more of it.")
}

// So it is with the members of one type.
func TestThousandsOfMembers(t *testing.T) {
	var b strings.Builder
	b.WriteString("package a\n\ntype T struct {\n")
	for i := range 6000 {
		fmt.Fprintf(&b, "\tField%d int // holds what it is called by, number %d\n", i, i)
	}
	b.WriteString("}\n\ntype I interface {\n")
	for i := range 1500 {
		fmt.Fprintf(&b, "\t// Method%d does something for somebody, and says so.\n\t//\n\t// There is more of it.\n\tMethod%d(first, second string, third ...map[string][]int) (fourth *int, err error)\n", i, i)
	}
	b.WriteString("}\n")
	m := sourceOf(t, map[string]string{"a.go": b.String()}, "none")
	page, names := string(m.Get(folderA+"T.html")), string(m.Get(folderA+"T~names-3.html"))
	assert.Contains(t, page, `<li><a id=Field5999 href=T~names-3.html#Field5999>Field5999</a>`)
	assert.Contains(t, names, `<li id="Field5999">`)
	assert.Contains(t, names, `<a href="T.html"><code translate="no">T</code></a>`, "the way back")
	assert.Contains(t, string(m.Get(folderA+"I.html")), `href=I~names-3.html#Method1499>Method1499</a>`)
	assert.Contains(t, string(m.Get(folderA+"I~names-3.html")), `href="I~details-`)
}
