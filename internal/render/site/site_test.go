package site_test

import (
	"context"
	"encoding/xml"
	"io/fs"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/tools/txtar"

	"codrel/demo"
	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
	"codrel/internal/render/site/sitetest"
	"codrel/internal/settings"
)

// rendered builds the site of some files in memory.
func rendered(t *testing.T, files fs.FS, set *settings.Settings, workers int) *sink.Memory {
	t.Helper()
	how, _ := plan.ParseSource(set.Write.Source)
	s, err := build.Run(t.Context(), files, build.Options{
		Settings: set, FrontEnds: languages.All, Folder: "project", Jobs: workers, Inside: how != plan.NoSource, TestNames: true,
	})
	require.NoError(t, err)
	var out sink.Memory
	options := site.Options{FrontEnds: s.FrontEnds, Look: s.Look, Hidden: set.Write.Hide, Source: set.Source, Files: files, Workers: workers}
	require.NoError(t, site.New(plan.New(s.Links, plan.Options{Source: how, Findings: -1}), options).Write(t.Context(), &out))
	return &out
}

func asFS(m *sink.Memory) fstest.MapFS {
	out := fstest.MapFS{}
	for _, p := range m.Paths() {
		out[p] = &fstest.MapFile{Data: m.Get(p)}
	}
	return out
}

func demoFiles(t *testing.T) (fstest.MapFS, *settings.Settings) {
	t.Helper()
	files := fstest.MapFS{}
	for _, f := range demo.Files() {
		files[f.Path] = &fstest.MapFile{Data: f.Data}
	}
	set, err := settings.Parse("codrel.yaml", files["codrel.yaml"].Data, settings.Known{Version: "0.1.0", Rules: check.Names(), Languages: languages.Names()})
	require.NoError(t, err)
	return files, set
}

// archived are the files of an archive.
func archived(text string) fstest.MapFS {
	files := fstest.MapFS{}
	for _, f := range txtar.Parse([]byte(text)).Files {
		files[f.Name] = &fstest.MapFile{Data: f.Data}
	}
	return files
}

// foundIn are the findings on files, each as its file and its rule.
func foundIn(t *testing.T, files fs.FS, set *settings.Settings) (found []string) {
	t.Helper()
	s, err := build.Run(t.Context(), files, build.Options{Settings: set, FrontEnds: languages.All, Folder: "project", Jobs: 2, Inside: true, TestNames: true})
	require.NoError(t, err)
	for _, f := range s.Findings {
		found = append(found, f.Place.File+" "+f.Rule)
	}
	return found
}

func requireSound(t *testing.T, files fs.FS) sitetest.Report {
	t.Helper()
	r, err := sitetest.Crawl(files)
	require.NoError(t, err)
	require.Empty(t, r.Problems)
	return r
}

func TestDemo(t *testing.T) {
	for _, reach := range []model.Reach{model.ReachPublic, model.ReachPrivate} {
		files, set := demoFiles(t)
		set.Reach = reach
		r := requireSound(t, asFS(rendered(t, files, set, 2)))
		assert.Greater(t, r.Pages, 30)
		assert.Greater(t, r.Links, 1000)
	}
}

// The same input gives the same bytes, however many work on it.
func TestSameBytes(t *testing.T) {
	files, set := demoFiles(t)
	one := rendered(t, files, set, 1)
	for range 3 {
		many := rendered(t, files, set, 8)
		require.Equal(t, one.Paths(), many.Paths())
		for _, p := range one.Paths() {
			require.Equal(t, string(one.Get(p)), string(many.Get(p)), p)
		}
	}
}

func page(t *testing.T, m *sink.Memory, path string) string {
	t.Helper()
	data := m.Get("reference/engine/tidebook.example/engine/" + path)
	require.NotNil(t, data, "no page %s among %v", path, m.Paths())
	return strings.Join(strings.Fields(string(data)), " ")
}

func TestWhatPagesSay(t *testing.T) {
	files, set := demoFiles(t)
	m := rendered(t, files, set, 2)

	quay := page(t, m, "berth/Quay.html")
	assert.Contains(t, quay, `Implements`)
	assert.Contains(t, quay, `<a href="Berth.html">`)
	assert.Contains(t, quay, `href="../../../../../source/engine/berth/berth.go.html#L76"`)
	assert.Contains(t, string(m.Get("source/engine/berth/berth.go.html")), `href="https://forge.example/tidebook/blob/main/engine/berth/berth.go#L1"`)
	assert.Contains(t, quay, `import &#34;tidebook.example/engine/berth&#34;`)

	plan := page(t, m, "berth/Plan.html")
	assert.Contains(t, plan, `<a href="index.html#NewPlan">`, "ways to make it")
	assert.Contains(t, plan, `https://handbook.example/io#EOF`, "names outside the project lead through patterns")
	assert.Contains(t, plan, `Parameter of`)
	assert.Contains(t, plan, `<ol><li>pontoons`)

	module := page(t, m, "berth/index.html")
	assert.Contains(t, module, `Looking around`, "the maintainer's own group")
	assert.Less(t, strings.Index(module, "Looking around"), strings.Index(module, "<h3>Types"))
	assert.Contains(t, module, `store_windows.go`)
	assert.Contains(t, module, `for <code translate="no">linux</code>`, "the forms of a declaration of several builds")
	assert.NotContains(t, module, "codrel:", "words to Codrel are not shown")
	assert.Contains(t, module, `<span class="p">plan</span> *<a href="Plan.html">Plan</a>, <span class="p">vessel</span>`, "a long signature breaks at its parameters")

	tide := page(t, m, "tide/index.html")
	assert.Contains(t, tide, `deprecated name`)
	assert.Contains(t, tide, `<s`, "the seasons are there")
	assert.Contains(t, tide, `href="https://handbook.example/harmonic"`)
	assert.Contains(t, page(t, m, "portcall/Purpose.html"), "Generated code.")

	home := string(m.Get("index.html"))
	assert.Contains(t, home, `<a href="reference/engine/tidebook.example/engine/tide/Predictor.html"><code`, "a code span that names one declaration")
	assert.NotContains(t, home, "Ledger")
}

// Text from comments is data: whatever stands in it, nothing of it runs.
func TestHostileComments(t *testing.T) {
	readme := "# <script>alert(1)</script> Title\n\n<script>alert(2)</script>\n\n<p onclick=\"x()\" style=\"color:red\">text <a href=\"javascript:x()\">one</a> <b>bold</b></p>\n\n" +
		"[two](javascript:x()) [three](data:text/html,x) ![four](http://evil.example/x.png) <javascript:x()> <iframe src=x></iframe>\n\n" +
		"<style>*{display:none}</style>\n\n![local](pic.png) ![gone](gone.png) [file](docs/x.md) [anchor](#title) [lost](#lost)\n\n" +
		strings.Repeat("> ", 300) + "deep\n\n" + "`</code><script>`\n\n| a |\n|---|\n| <script>x</script> |\n\n\u202etxet\u202c\n"
	source := `// Package a has <script>alert(1)</script> and <img src=x onerror=y> & "quotes".
//
// [x]: javascript:alert(1)
//
// See [x]. https://ok.example/"onclick="x
//
//	</code></pre><script>alert(3)</script>
package a

// F is <b>not bold</b>.
func F(a struct{ X int ` + "`json:\"</span><script>\"`" + `}) string { return "" }

// Deprecated: </p><script>x</script>
const C = "</code><script>"
`
	files := fstest.MapFS{
		"README.md": {Data: []byte(readme)}, "a.go": {Data: []byte(source)}, "pic.png": {Data: []byte("png")},
		"go.mod": {Data: []byte("module a.example/a\"><script>")},
	}
	m := rendered(t, files, settings.Default(), 2)
	requireSound(t, asFS(m))
	for _, p := range m.Paths() {
		if strings.HasSuffix(p, ".html") {
			text := string(m.Get(p))
			own := 1
			if p == "index.html" {
				own = 2 // one more for the text of a guide
			}
			assert.Equal(t, own, strings.Count(text, "<script"), "%s: only the page's own", p)
			assert.NotContains(t, text, `"javascript:`, p)
			if !strings.HasPrefix(p, "source/") { // which show text as it is; no page has such an attribute, see sitetest
				assert.NotContains(t, text, "onclick=\"", p)
			}
			assert.NotContains(t, text, "\u202e", p)
			assert.Contains(t, text, "Content-Security-Policy")
		}
	}
	assert.Equal(t, "png", string(m.Get("files/pic.png")), "local images are copied")
	home := string(m.Get("index.html"))
	assert.Contains(t, home, `<img src="files/pic.png" alt="local">`)
	assert.Contains(t, home, `<strong>bold</strong>`)
	assert.Contains(t, home, `<a href="http://evil.example/x.png">four</a>`, "a remote image is a link")
}

// File names with blanks and signs are escaped in addresses.
func TestOddFileNames(t *testing.T) {
	files := fstest.MapFS{
		"README.md":     {Data: []byte("# A\n\n![one](<my pic.png>) ![two](my%20pic%20%231.png) [file](<a b.go>) ![bad](%zz.png)\n")},
		"my pic #1.png": {Data: []byte("png")}, "my pic.png": {Data: []byte("png")}, "a b.go": {Data: []byte("package a\n\nvar X int\n")},
	}
	set := settings.Default()
	set.Source = "https://forge.example/{path}#L{line}"
	m := rendered(t, files, set, 1)
	requireSound(t, asFS(m))
	home := string(m.Get("index.html"))
	assert.Contains(t, home, `<img src="files/my%20pic.png" alt="one">`)
	assert.Contains(t, home, `<img src="files/my%20pic%20%231.png" alt="two">`)
	assert.Contains(t, home, `<a href="source/a~20~b.go.html#L1">file</a>`)
	assert.Contains(t, home, "bad")
}

func TestEmptyStates(t *testing.T) {
	m := rendered(t, fstest.MapFS{"a.go": {Data: []byte("package a\n\nfunc private() {}\n")}}, settings.Default(), 1)
	requireSound(t, asFS(m))
	assert.Contains(t, string(m.Get("reference/project/project/index.html")), "Nothing that is declared here is visible with the current setting of reach.")
	m = rendered(t, fstest.MapFS{"a.txt": {}}, settings.Default(), 1)
	requireSound(t, asFS(m))
	assert.Contains(t, string(m.Get("index.html")), "No source files were found")
	assert.Contains(t, string(m.Get("a-z/index.html")), "There are no names yet.")
}

func TestWhereTheSiteIsServed(t *testing.T) {
	files, set := demoFiles(t)
	s, err := build.Run(t.Context(), files, build.Options{Settings: set, FrontEnds: languages.All})
	require.NoError(t, err)
	var m sink.Memory
	options := site.Options{FrontEnds: s.FrontEnds, Base: "https://tidebook.example/docs/", Workers: 1}
	require.NoError(t, site.New(plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1}), options).Write(t.Context(), &m))
	quay := page(t, &m, "berth/Quay.html")
	assert.Contains(t, quay, `<link rel="canonical" href="https://tidebook.example/docs/reference/engine/tidebook.example/engine/berth/Quay.html">`)
	assert.Contains(t, quay, `<meta name="description" content="Quay is a berth along a wall.">`)
	assert.Contains(t, string(m.Get("index.html")), `<link rel="canonical" href="https://tidebook.example/docs/">`)
	assert.Contains(t, string(m.Get("index.html")), `content="Tide prediction and berth planning for small harbours."`)
	lost := string(m.Get("404.html"))
	assert.Contains(t, lost, `href="/docs/a-z/index.html"`, "a server shows it at any address")
	assert.Contains(t, lost, `data-root="/docs/"`)
	assert.NotContains(t, lost, "canonical")

	var list struct {
		Pages []string `xml:"url>loc"`
	}
	require.NoError(t, xml.Unmarshal(m.Get("sitemap.xml"), &list))
	assert.Contains(t, list.Pages, "https://tidebook.example/docs/")
	for _, address := range list.Pages {
		file := strings.TrimPrefix(address, "https://tidebook.example/docs/")
		if file == "" || strings.HasSuffix(file, "/") {
			file += "index.html"
		}
		assert.NotNil(t, m.Get(file), address)
	}
	without := rendered(t, files, set, 1)
	assert.Nil(t, without.Get("sitemap.xml"))
	assert.NotContains(t, page(t, without, "berth/Quay.html"), "canonical")
}

func TestDeprecatedPage(t *testing.T) {
	files, set := demoFiles(t)
	m := rendered(t, files, set, 1)
	plain := strings.Join(strings.Fields(text(string(m.Get("deprecated.html")))), " ")
	assert.Contains(t, plain, "Level function in tide")
	assert.Contains(t, plain, "use Curve.Height, which says what went wrong.")
	assert.Contains(t, string(m.Get("modules.html")), `href="deprecated.html"`)
	m = rendered(t, fstest.MapFS{"a.go": {Data: []byte("package a\n")}}, settings.Default(), 1)
	assert.Nil(t, m.Get("deprecated.html"), "no page where nothing is deprecated")
	assert.NotContains(t, string(m.Get("modules.html")), "deprecated.html")
}

func TestCancelled(t *testing.T) {
	files, set := demoFiles(t)
	s, err := build.Run(t.Context(), files, build.Options{Settings: set, FrontEnds: languages.All})
	require.NoError(t, err)
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	err = site.New(plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1}), site.Options{FrontEnds: s.FrontEnds, Workers: 2}).Write(ctx, &sink.Memory{})
	assert.ErrorIs(t, err, context.Canceled)
	_, err = build.Run(ctx, files, build.Options{Settings: set, FrontEnds: languages.All})
	assert.ErrorIs(t, err, context.Canceled)
}

func BenchmarkWrite(b *testing.B) {
	files := fstest.MapFS{}
	for _, f := range demo.Files() {
		files[f.Path] = &fstest.MapFile{Data: f.Data}
	}
	s, err := build.Run(b.Context(), files, build.Options{FrontEnds: languages.All})
	require.NoError(b, err)
	b.SetBytes(s.Stats.Bytes)
	for b.Loop() {
		require.NoError(b, site.New(plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1}), site.Options{FrontEnds: s.FrontEnds, Workers: 1}).Write(b.Context(), &sink.Memory{}))
	}
}
