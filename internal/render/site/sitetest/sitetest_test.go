package sitetest_test

import (
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/render/site/sitetest"
)

// The crawler itself must be able to fail.
func TestCrawl(t *testing.T) {
	for text, want := range map[string]string{
		`<a href="b.html#x">ok</a>`:                         "",
		`<a href="c.html">`:                                 "index.html: <a> is not closed",
		`<a href="c.html"></a>`:                             "index.html: the link to c.html leads nowhere",
		`<a href="b.html#y"></a>`:                           "index.html: the link to b.html#y leads to no anchor",
		`<a href="../b.html"></a>`:                          "index.html: the link to ../b.html leads nowhere",
		`<p id="x"></p><p id="x"></p>`:                      `index.html: two elements have the id "x"`,
		`<p id="x y"></p>`:                                  `index.html: the id "x y" has a blank`,
		`<script>x</script>`:                                "index.html: <script> without an address",
		`<p onclick="x"></p>`:                               "index.html: <p> has the attribute onclick",
		`<img src="https://a.example/x">`:                   "index.html: <img> asks the network for https://a.example/x",
		`<a href="javascript:x"></a>`:                       "index.html: the link javascript:x has a scheme that is not allowed",
		`<a href="b.html"><a href="b.html"></a>`:            "index.html: <a> inside <a>",
		`<ol><li>a<li>b</ol>`:                               "",
		`<ol><li><b></ol>`:                                  "index.html: </ol> closes [ol li b]",
		`<p><b></p></b>`:                                    "index.html: </p> closes [p b]",
		"<main>x</main>" + strings.Repeat("x", 9000):        "index.html: 9007 bytes stand around its text, and 8192 may",
		"<main>" + strings.Repeat("x", 1600000) + "</main>": "index.html: it has 1600013 bytes, and a page has 1500000 at most",
	} {
		r, err := sitetest.Crawl(fstest.MapFS{"index.html": {Data: []byte(text)}, "b.html": {Data: []byte(`<i id="x"></i>`)}})
		require.NoError(t, err)
		if want == "" {
			assert.Empty(t, r.Problems)
			continue
		}
		assert.Contains(t, r.Problems, want)
	}
}
