package site_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
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
