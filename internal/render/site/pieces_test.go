package site_test

import (
	"regexp"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/settings"
)

// pageOf renders one file of Go with its README, and returns the named page.
func pageOf(t *testing.T, source, readme, page string) string {
	t.Helper()
	files := fstest.MapFS{"go.mod": {Data: []byte("module engine")}, "a.go": {Data: []byte(source)}}
	if readme != "" {
		files["README.md"] = &fstest.MapFile{Data: []byte(readme)}
	}
	set := settings.Default()
	set.Source = "https://forge.example/{path}#L{line}"
	m := rendered(t, files, set, 1)
	requireSound(t, asFS(m))
	data := m.Get(page)
	require.NotNil(t, data, "no %s among %v", page, m.Paths())
	return string(data)
}

const modulePage = "reference/engine/engine/index.html"

var signature = regexp.MustCompile(`(?s)<pre class="signature"><code translate="no">(.*?)</code></pre>`)

// text takes the tags out of HTML.
func text(html string) string {
	html = regexp.MustCompile(`<[^>]*>`).ReplaceAllString(html, "")
	return strings.NewReplacer("&#34;", `"`, "&#39;", "'", "&lt;", "<", "&gt;", ">", "&amp;", "&").Replace(html)
}

func TestSignaturesOnPlates(t *testing.T) {
	for source, want := range map[string]string{
		"func F(a int, b string) error": "func F(a int, b string) error",
		"func Longer(first, second Vessel, third map[string][]int, because func(a, b int) string, rest ...string) error":    "func Longer(\n\tfirst, second Vessel,\n\tthird map[string][]int,\n\tbecause func(a, b int) string,\n\trest ...string,\n) error",
		"func Generic[Key comparable, Value any](first map[Key]Value, second func(Key, Value) bool) (found Value, ok bool)": "func Generic[Key comparable, Value any](\n\tfirst map[Key]Value,\n\tsecond func(Key, Value) bool,\n) (found Value, ok bool)",
		"func NoParametersAtAllButAVeryLongNameThatGoesOn() (aResultOfAKind int, anotherResultOfAKind string, err error)":   "func NoParametersAtAllButAVeryLongNameThatGoesOn() (aResultOfAKind int, anotherResultOfAKind string, err error)",
		"const C = \"<b>&\"":       `const C = "<b>&"`,
		"var V = map[string]int{}": "var V = map[string]int{…}",
	} {
		page := pageOf(t, "package engine\n\ntype Vessel struct{}\n\n"+source+"\n", "", modulePage)
		plates := signature.FindAllStringSubmatch(page, -1)
		require.NotEmpty(t, plates, source)
		assert.Equal(t, want, text(plates[len(plates)-1][1]), source)
	}
}

func TestTypesLink(t *testing.T) {
	page := pageOf(t, "package engine\n\ntype Vessel struct{}\n\ntype hidden int\n\nfunc F[T any](v *Vessel, h hidden, t T, e error) []Vessel { return nil }\n", "", modulePage)
	plate := signature.FindStringSubmatch(page)[1]
	assert.Equal(t, 2, strings.Count(plate, `<a href="Vessel.html">Vessel</a>`))
	assert.Equal(t, 2, strings.Count(plate, "<a "), "what has no page, and type parameters, have no link")
	assert.Contains(t, plate, `<span class="n">F</span>`)
	assert.Contains(t, plate, `<span class="p">v</span>`)
}

func TestFormsOfBuilds(t *testing.T) {
	files := fstest.MapFS{"go.mod": {Data: []byte("module engine")}}
	for _, system := range []string{"linux", "windows", "darwin", "freebsd", "netbsd", "openbsd", "plan9", "solaris"} {
		files["a_"+system+".go"] = &fstest.MapFile{Data: []byte("package engine\n\nfunc F(" + system + " int) {}\nfunc Same() {}\n")}
	}
	page := string(rendered(t, files, settings.Default(), 1).Get(modulePage))
	assert.Equal(t, 7, len(signature.FindAllString(page, -1)), "six forms of one, one form of the other")
	assert.Contains(t, strings.Join(strings.Fields(page), " "), "and 2 more declarations for other platforms")
	assert.Contains(t, text(page), "And in 4 more files.")
	assert.Contains(t, text(page), "Defined in a_darwin.go, line 4, for darwin.")
}

// main cuts the text column out of a page and puts it on one line.
func mainText(page string) string {
	_, rest, _ := strings.Cut(page, `<div class="prose">`)
	prose, _, _ := strings.Cut(rest, "</div>")
	return strings.Join(strings.Fields(prose), " ")
}

func TestProse(t *testing.T) {
	source := "// Package engine is one.\npackage engine\n\n// Berth is one.\ntype Berth struct{ Depth int }\n"
	for readme, want := range map[string]string{
		"plain & <simple>":                "<p>plain &amp; </p>",
		"a `Berth` b":                     `<p>a <a href="reference/engine/engine/Berth.html"><code translate="no">Berth</code></a> b</p>`,
		"`Berth.Depth` `Berth{}` `x`":     `<p><a href="reference/engine/engine/Berth.html#Depth"><code translate="no">Berth.Depth</code></a> <code translate="no">Berth{}</code> <code translate="no">x</code></p>`,
		"[the `Berth`](ref:Berth)":        `<p><a href="reference/engine/engine/Berth.html">the <code translate="no">Berth</code></a></p>`,
		"[gone](ref:Gone) <ref:Berth>":    `<p>gone <a href="reference/engine/engine/Berth.html"><code translate="no">Berth</code></a></p>`,
		"1. one\n2. two":                  `<ol><li>one</li> <li>two</li> </ol>`,
		"5. five\n\n6. six":               `<ol start="5"><li><p>five</p></li> <li><p>six</p></li> </ol>`,
		"* a\n  * b":                      `<ul><li>a<ul><li>b</li> </ul> </li> </ul>`,
		"> quoted":                        `<blockquote><p>quoted</p></blockquote>`,
		"a\\\nb":                          `<p>a<br>b</p>`,
		"*e* **s** ~~x~~":                 `<p><em>e</em> <strong>s</strong> <s>x</s></p>`,
		"```\n<a>\n```":                   `<pre><code translate="no">&lt;a&gt;</code></pre>`,
		"[a](https://a.example/?x=1&y)":   `<p><a href="https://a.example/?x=1&amp;y">a</a></p>`,
		"[file](docs/x.md#part)":          `<p><a href="https://forge.example/docs/x.md#L1">file</a></p>`,
		"[up](../x.md) [root](/a.go)":     `<p>up <a href="source/a.go.html#L1">root</a></p>`,
		"![alt](https://a.example/p.png)": `<p><a href="https://a.example/p.png">alt</a></p>`,
		"## Head\n\n[there](#head)":       `<h2 id="s-head"><a href="#s-head">Head</a></h2> <p><a href="#s-head">there</a></p>`,
		"## Same\n\n## Same":              `<h2 id="s-same"><a href="#s-same">Same</a></h2> <h2 id="s-same-2"><a href="#s-same-2">Same</a></h2>`,
		"---":                             `<hr>`,
		"| a |\n|---|\n| b |":             `<div class="wide" tabindex="0"><table><thead><tr><th scope="col">a</th></tr> </thead><tbody><tr><td>b</td></tr> </tbody></table>`,
	} {
		assert.Equal(t, want, mainText(pageOf(t, source, "# Title\n\n"+readme+"\n", "index.html")), readme)
	}
}

func TestCommentProse(t *testing.T) {
	for comment, want := range map[string]string{
		"// F sees [Berth] and [Gone] and [Berth.Depth].": `<p>F sees <a href="Berth.html"><code translate="no">Berth</code></a> and [Gone] and <a href="Berth.html#Depth"><code translate="no">Berth.<wbr>Depth</code></a>.</p>`,
		"// F.\n//\n// # Part\n//\n// More.":              `<p>F.</p><h4 id="s-part-f">Part</h4> <p>More.</p>`,
		"// F:\n//   - one\n//   - two":                   `<p>F:</p><ul><li>one</li> <li>two</li> </ul>`,
		"// F:\n//\n//\tx < y":                            `<p>F:</p><pre><code translate="no">x &lt; y</code></pre>`,
	} {
		page := pageOf(t, "// Package engine is one.\npackage engine\n\ntype Berth struct{ Depth int }\n\n"+comment+"\nfunc F() {}\n", "", modulePage)
		_, member, ok := strings.Cut(page, `id="F"`)
		require.True(t, ok)
		want = strings.ReplaceAll(want, "<wbr>", "")
		assert.Equal(t, want, mainText(member), comment)
	}
}

func TestDeprecatedIsSaidInWords(t *testing.T) {
	page := pageOf(t, "package engine\n\n// Old is old.\n//\n// Deprecated: use [New] instead.\nfunc Old() {}\n\n// New is new.\nfunc New() {}\n", "", modulePage)
	plain := strings.Join(strings.Fields(text(page)), " ")
	assert.Contains(t, plain, "Old function, deprecated")
	assert.Contains(t, plain, "Deprecated. use New instead.")
	assert.Contains(t, plain, "1 deprecated name")
	assert.Contains(t, page, `<a href="#New"><code translate="no">New</code></a> instead`)
}

func TestCrowdedGroups(t *testing.T) {
	var b strings.Builder
	b.WriteString("package engine\n\nconst (\n")
	for i := range 400 {
		b.WriteString("\tC" + strings.Repeat("x", i%7) + string(rune('A'+i%26)) + strings.Repeat("y", i/26) + " = 1 // is one\n")
	}
	b.WriteString(")\n")
	page := pageOf(t, b.String(), "", modulePage)
	assert.Contains(t, page, `<ul class="crowd">`)
	assert.NotContains(t, page, `<div class="plate">`)
	assert.Less(t, len(page), 200_000)
}
