package look_test

import (
	"os"
	"strconv"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/settings"
)

// forms are the texts of a file, one a line, quoted.
func forms(t *testing.T, file string) (out []string) {
	t.Helper()
	data, err := os.ReadFile(file)
	require.NoError(t, err)
	for line := range strings.Lines(string(data)) {
		if strings.HasPrefix(line, "#") {
			continue
		}
		text, err := strconv.Unquote(strings.TrimSpace(line))
		require.NoError(t, err, line)
		out = append(out, text)
	}
	return out
}

// fine are forms that may stand around a page, and how they are written.
var fine = map[string]string{
	`<p>a</p>`: `<p>a</p>`, `a &amp; b < c`: `a &amp; b &lt; c`, `<!-- a --><p>b</p><!---->`: `<p>b</p>`, `<p>a<br>b<hr></p>`: `<p>a<br>b<hr></p>`,
	`<P CLASS=a ID='b'>c</P>`: `<p class="a" id="b">c</p>`, `<a href="https://harbour.example/?a=b&amp;c" rel=me>us</a>`: `<a href="https://harbour.example/?a=b&amp;c" rel="me">us</a>`,
	`<a href="mailto:pilot@harbour.example">a</a>`: `<a href="mailto:pilot@harbour.example">a</a>`, `<a href="#a">b</a>`: `<a href="#a">b</a>`, `<a href="a:b/c"></a>`: ``,
	`<img src="files/a.png" alt="a" width=3>`: `<img src="files/a.png" alt="a" width="3">`, `<details open><summary>a</summary>b</details>`: `<details open=""><summary>a</summary>b</details>`,
	`<table><tr><td colspan=2>a</td></tr></table>`: `<table><tr><td colspan="2">a</td></tr></table>`, `<nav aria-label="a" data-b="c"><ul><li>d</li></ul></nav>`: `<nav aria-label="a" data-b="c"><ul><li>d</li></ul></nav>`,
	`<svg viewBox="0 0 4 4" width=4><path d="M0 0"/><use href="#a"/><rect fill="url(#g)"/></svg>`: `<svg viewbox="0 0 4 4" width="4"><path d="M0 0"/><use href="#a"/><rect fill="url(#g)"/></svg>`,
	"": "", `</`: `&lt;/`,
}

func TestMarkupAroundPages(t *testing.T) {
	doubtful := forms(t, "testdata/doubtful.txt")
	assert.Greater(t, len(doubtful), 115)
	for _, text := range doubtful {
		for _, set := range []settings.Look{{Header: word("x.html")}, {Footer: word("x.html")}} {
			l, found := problems(t, fstest.MapFS{"x.html": {Data: []byte(text)}}, set)
			assert.Len(t, found, 1, text)
			assert.Empty(t, l.Header+l.Footer, text)
		}
	}
	for text, want := range fine {
		l, found := problems(t, fstest.MapFS{"x.html": {Data: []byte(text)}}, settings.Look{Header: word("x.html")})
		assert.Equal(t, want, l.Header, text)
		assert.Equal(t, want == "" && text != "", len(found) > 0, "%s: %v", text, found)
	}
}

func TestMarkupInTheHead(t *testing.T) {
	for _, text := range []string{
		`<title>a</title>`, `<p>a</p>`, `a`, `<!-- a`, `<meta charset="utf-7">`, `<meta http-equiv="refresh" content="0">`, `<meta http-equiv="Content-Security-Policy" content="">`, `<meta name="viewport" content="a">`, `<meta name=" Referrer" content="unsafe-url">`,
		`<meta name="a" content="b`, `<link href="a">`, `<link rel="stylesheet" href="a.css">`, `<link rel="me stylesheet" href="a">`, `<link rel="ICON" href="a">`, `<link rel="apple-touch-icon" href="a">`, `<link rel="mask-icon" href="https://x.example/a.svg">`, `<link rel="preload" href="a" as="image">`, `<link rel="preload" imagesrcset="a">`, `<link rel="dns-prefetch" href="//x.example">`, `<link rel="prerender" href="https://x.example">`,
		`<link rel="import" href="a">`, `<link rel="me" href="javascript:x">`, `<link rel="me" href="a" onload="x">`, `<base href="a">`, `<script>a</script>`, `<style>a</style>`, `<noscript><p>a</p></noscript>`,
	} {
		l, found := problems(t, fstest.MapFS{"x.html": {Data: []byte(text)}}, settings.Look{Head: word("x.html")})
		assert.Len(t, found, 1, text)
		assert.Empty(t, l.Head, text)
	}
	for _, text := range []string{`<meta name="author" content="Tide">`, `<meta property="og:image" content="https://x.example/a.png">`, `<link rel="me" href="https://x.example">`, `<link rel="license" href="LICENSE">`} {
		l, found := problems(t, fstest.MapFS{"x.html": {Data: []byte(text + "\n<!-- a -->\n")}}, settings.Look{Head: word("x.html")})
		assert.Empty(t, found, text)
		assert.Equal(t, text, l.Head)
	}
}
