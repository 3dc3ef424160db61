package preview_test

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/fsnotify/fsnotify"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/preview"
	"codrel/internal/workspace"
)

const (
	waitFor = 10 * time.Second
	pause   = 10 * time.Millisecond
)

// served is a preview that runs.
type served struct {
	t    *testing.T
	root string // its address
	dir  string
	stop func()

	mu   sync.Mutex
	said []preview.Event
}

// serve shows projects in folders below a temporary one.
func serve(t *testing.T, files map[string]string, change func(*preview.Options)) *served {
	t.Helper()
	s := &served{t: t, dir: t.TempDir()}
	for name, text := range files {
		s.write(name, text)
	}
	options := preview.Options{
		Projects: []preview.Folder{{Dir: s.dir}}, Poll: 50 * time.Millisecond, Workspace: workspace.Options{Version: "0.1.0"},
		Said: func(e preview.Event) { s.mu.Lock(); defer s.mu.Unlock(); s.said = append(s.said, e) },
	}
	if change != nil {
		change(&options)
	}
	on, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	ctx, stop := context.WithCancel(t.Context())
	ended := make(chan error)
	go func() { ended <- preview.New(options, on.Addr()).Serve(ctx, on) }()
	s.root = "http://" + on.Addr().String()
	s.stop = sync.OnceFunc(func() { stop(); assert.NoError(t, <-ended) })
	t.Cleanup(s.stop)
	return s
}

func (s *served) path(name string) string { return filepath.Join(s.dir, filepath.FromSlash(name)) }

func (s *served) write(name, text string) {
	s.t.Helper()
	require.NoError(s.t, os.MkdirAll(filepath.Dir(s.path(name)), 0o755))
	require.NoError(s.t, os.WriteFile(s.path(name), []byte(text), 0o644))
}

// ask makes a request; pairs are headers.
func (s *served) ask(method, address string, pairs ...string) (status int, body string, head http.Header) {
	s.t.Helper()
	r, err := http.NewRequestWithContext(s.t.Context(), method, s.root+address, nil)
	require.NoError(s.t, err)
	for i := 0; i+1 < len(pairs); i += 2 {
		r.Header.Set(pairs[i], pairs[i+1])
		if pairs[i] == "Host" {
			r.Host = pairs[i+1]
		}
	}
	answer, err := http.DefaultClient.Do(r)
	require.NoError(s.t, err)
	defer answer.Body.Close()
	data, err := io.ReadAll(answer.Body)
	require.NoError(s.t, err)
	return answer.StatusCode, string(data), answer.Header
}

func (s *served) get(address string) string {
	s.t.Helper()
	_, body, _ := s.ask("GET", address)
	return body
}

// shows waits until a page has a text.
func (s *served) shows(address, text string) {
	s.t.Helper()
	assert.Eventually(s.t, func() bool { return strings.Contains(s.get(address), text) }, waitFor, pause, "%s has no %q", address, text)
}

// listens opens the events of a page as it is now, and waits for its change in the background.
func (s *served) listens(address string) (changed chan bool) {
	s.t.Helper()
	_, rest, ok := strings.Cut(s.get(address), `data-events="`)
	require.True(s.t, ok)
	events, _, _ := strings.Cut(rest, `"`)
	r, err := http.NewRequestWithContext(s.t.Context(), "GET", s.root+strings.ReplaceAll(events, "&amp;", "&"), nil)
	require.NoError(s.t, err)
	answer, err := http.DefaultClient.Do(r)
	require.NoError(s.t, err)
	require.Equal(s.t, "text/event-stream", answer.Header.Get("Content-Type"))
	changed = make(chan bool, 100)
	s.t.Cleanup(func() { _ = answer.Body.Close() })
	go func() {
		lines := bufio.NewScanner(answer.Body)
		for lines.Scan() {
			if lines.Text() == "event: changed" {
				changed <- true
			}
		}
		close(changed)
	}()
	return changed
}

func (s *served) comes(changed chan bool, why string) {
	s.t.Helper()
	select {
	case <-changed:
	case <-time.After(waitFor):
		assert.Fail(s.t, "no event came", why)
	}
}

const portGo = "// Package port is one.\npackage port\n\n// Moor ties up.\nfunc Moor() {}\n"

var port = map[string]string{
	"go.mod": "module port.example\n", "port.go": portGo, "README.md": "# Port\n\nA `Moor`.\n",
	"docs/guides/first.md": "# First\n\n![A](a.svg)\n\n[x](none.md)\n", "docs/guides/a.svg": `<svg xmlns="http://www.w3.org/2000/svg" width="3" height="2"/>`,
	"secret.txt": "nobody asks", ".gitignore": "ignored\n",
}

const portPage = "/reference/port.example/port.example/index.html"

func TestServesTheSiteAlone(t *testing.T) {
	s := serve(t, port, nil)
	s.shows(portPage, "Moor ties up.")
	assert.Contains(t, s.get("/"), "<h1>Port</h1>")
	assert.Contains(t, s.get("/guides/"), "First")
	assert.Contains(t, s.get("/source/port.go.html"), "Moor")
	for address, kind := range map[string]string{
		"/assets/codrel.css": "text/css; charset=utf-8", "/assets/codrel.js": "text/javascript; charset=utf-8", "/search/index.js": "text/javascript; charset=utf-8",
		"/files/docs/guides/a.svg": "image/svg+xml", "/symbols.json": "application/json", "/_codrel/live.js": "text/javascript; charset=utf-8", "/_codrel/panel.css": "text/css; charset=utf-8",
	} {
		status, body, head := s.ask("GET", address)
		assert.Equal(t, 200, status, address)
		assert.Equal(t, kind, head.Get("Content-Type"), address)
		assert.NotEmpty(t, body, address)
		assert.Equal(t, "nosniff", head.Get("X-Content-Type-Options"))
		status, _, _ = s.ask("GET", address, "If-None-Match", head.Get("ETag"))
		assert.Equal(t, 304, status, address)
	}
	for _, address := range []string{
		"/secret.txt", "/port.go", "/../port.go", "/%2e%2e/port.go", "/files/secret.txt", "/files/../secret.txt", "/files/docs/guides/first.md", "/.git/config",
		"/_codrel/nothing.js", "/_codrel/..%2fpanel.go", "/assets/", "/search/k-none.js", "/nothing.html", "/nothing",
	} {
		status, body, _ := s.ask("GET", address)
		assert.Equal(t, 404, status, address)
		assert.NotContains(t, body, "nobody asks")
	}
	status, body, _ := s.ask("GET", "/reference/none.html")
	assert.Equal(t, 404, status)
	assert.Contains(t, body, "Page not found")
	assert.Contains(t, body, `href="/assets/codrel.css"`)
	status, body, _ = s.ask("HEAD", "/")
	assert.Equal(t, 200, status)
	assert.Empty(t, body)
	status, _, head := s.ask("POST", "/")
	assert.Equal(t, 405, status)
	assert.Equal(t, "GET, HEAD", head.Get("Allow"))
}

func TestRefusesOthers(t *testing.T) {
	s := serve(t, port, nil)
	s.shows("/", "Port")
	own := strings.TrimPrefix(s.root, "http://")
	_, number, _ := net.SplitHostPort(own)
	for _, c := range []struct {
		headers string
		status  int
	}{
		{"Host localhost:" + number, 200}, {"Host [::1]:" + number, 200}, {"Host evil.example", 403}, {"Host localhost:1", 403}, {"Host " + own + ".evil.example", 403}, {"Host 192.0.2.1:" + number, 403},
		{"Origin http://localhost:" + number, 200}, {"Origin http://evil.example", 403}, {"Origin null", 403}, {"Origin http://localhost:1", 403},
		{"Sec-Fetch-Site same-origin", 200}, {"Sec-Fetch-Site none", 200}, {"Sec-Fetch-Site cross-site", 403}, {"Sec-Fetch-Site same-site", 403},
		{"Sec-Fetch-Site cross-site Sec-Fetch-Mode navigate Sec-Fetch-Dest document", 200}, {"Sec-Fetch-Site cross-site Sec-Fetch-Mode navigate Sec-Fetch-Dest iframe", 403},
	} {
		status, _, head := s.ask("GET", "/", strings.Fields(c.headers)...)
		assert.Equal(t, c.status, status, c.headers)
		assert.Equal(t, "same-origin", head.Get("Cross-Origin-Resource-Policy"))
	}
}

// What the rules find on a page stands on it, and leads to the place.
func TestPanel(t *testing.T) {
	files := map[string]string{
		"go.mod": "module port.example\n", "codrel.yaml": "links: {editor: \"editor://open?file={path}&line={line}&column={column}\"}\nlook: {style: none.css}\n",
		"a.go": "// Package port is one.\npackage port\n\nfunc Bare() {}\n\n// Quay is a [Quay.Nothing].\ntype Quay struct{}\n", "README.md": "# Port\n\n<insert:units>\n\n[x](none.md)\n",
		"docs/fragments/units.md": "A [y](gone.md).\n", "docs/guides/a.md": "# A\n\n[z](lost.md)\n",
	}
	s := serve(t, files, nil)
	s.shows(portPage, "1 finding on this page")
	page := s.get(portPage)
	assert.Contains(t, page, "function Bare has no doc comment")
	assert.Contains(t, page, `<a href="editor://open?file=`+s.path("a.go")+`&amp;line=4&amp;column=6" title="Open in the editor">a.go:4:6</a>`)
	assert.Contains(t, page, `data-copy="`+s.path("a.go")+`:4"`)
	assert.NotContains(t, page, "is not declared", "that stands on the page of the type")
	assert.Contains(t, s.get(strings.Replace(portPage, "index", "Quay", 1)), "&#34;Quay.Nothing&#34; is not declared")
	assert.Contains(t, s.get("/source/a.go.html"), "2 findings on this page")
	home := s.get("/")
	for _, text := range []string{"none.md, which", "gone.md, which", "none.css", "3 findings on this page"} {
		assert.Contains(t, home, text)
	}
	assert.Contains(t, s.get("/guides/a.html"), "lost.md, which does not exist")
	assert.Contains(t, s.get("/modules.html"), "No findings on this page.")
	assert.Contains(t, page, "default-src 'none'; connect-src 'self'; ")
}

// However an editor saves, the page that is open is told once the file is whole, and other pages
// are not.
func TestSaves(t *testing.T) {
	for _, polled := range []bool{false, true} {
		t.Run(map[bool]string{false: "told", true: "asked"}[polled], func(t *testing.T) {
			s := serve(t, port, func(o *preview.Options) { o.NoWatch = polled })
			s.shows(portPage, "Moor ties up.")
			save := func(name string, how func(text string)) {
				t.Helper()
				t.Run(name, func(t *testing.T) {
					s.t = t
					changed, quiet := s.listens(portPage), s.listens("/guides/first.html")
					text := strings.Replace(portGo, "ties up", "is saved by "+name, 1)
					how(text)
					s.comes(changed, name)
					s.shows(portPage, "is saved by "+name)
					assert.Empty(t, quiet, "the other page is as it was")
				})
			}
			save("writing", func(text string) { s.write("port.go", text) })
			save("renaming", func(text string) {
				s.write("port.go.new~", text)
				require.NoError(t, os.Rename(s.path("port.go.new~"), s.path("port.go")))
			})
			save("moving away first", func(text string) {
				require.NoError(t, os.Rename(s.path("port.go"), s.path("port.go~")))
				time.Sleep(5 * time.Millisecond)
				s.write("port.go", text)
			})
			save("emptying first", func(text string) {
				s.write("port.go", "")
				time.Sleep(15 * time.Millisecond)
				s.write("port.go", text)
			})
			save("deleting a folder and back", func(text string) {
				s.write("sub/sub.go", "// Package sub is one.\npackage sub\n")
				s.shows("/modules.html", "port.example/sub/index.html")
				require.NoError(t, os.RemoveAll(s.path("sub")))
				assert.Eventually(t, func() bool { return !strings.Contains(s.get("/modules.html"), "sub/index.html") }, waitFor, pause)
				s.write("sub/sub.go", "// Package sub is one.\npackage sub\n")
				s.shows("/modules.html", "port.example/sub/index.html")
				require.NoError(t, os.Rename(s.path("sub"), s.dir+"-away"))
				assert.Eventually(t, func() bool { return !strings.Contains(s.get("/modules.html"), "sub/index.html") }, waitFor, pause)
				require.NoError(t, os.Rename(s.dir+"-away", s.path("sub")))
				s.shows("/modules.html", "port.example/sub/index.html")
				s.write("port.go", text)
			})
			save("switching a branch", func(text string) {
				for i := range 40 {
					s.write(fmt.Sprintf("branch/file%d.go", i), fmt.Sprintf("// Package branch is one.\npackage branch\n\n// F%d is one.\nfunc F%d() {}\n", i, i))
				}
				require.NoError(t, os.RemoveAll(s.path("sub")))
				s.write("port.go", text)
				s.shows("/reference/port.example/port.example/branch/index.html", "F39 is one")
			})
		})
	}
}

// Guides, pictures, fragments, look and settings are watched as the source is; wrong settings are
// said while the last right ones hold.
func TestOtherSaves(t *testing.T) {
	s := serve(t, port, nil)
	s.shows("/guides/first.html", "First")
	changed := s.listens("/guides/first.html")
	s.write("docs/guides/a.svg", `<svg xmlns="http://www.w3.org/2000/svg" width="30" height="2"/>`)
	s.comes(changed, "a picture changed")
	s.shows("/guides/first.html", `width="30"`)
	s.write("docs/guides/second.md", "# Second\n")
	s.shows("/guides/first.html", "Next: ")
	s.write("docs/sea.css", ".prose { color: red }\n")
	s.write("codrel.yaml", "name: Harbour\nlook: {style: docs/sea.css}\n")
	s.shows("/", "Harbour")
	s.shows("/assets/look.css", "color: red")
	s.write("docs/sea.css", ".prose { color: blue }\n")
	s.shows("/assets/look.css", "color: blue")
	changed = s.listens("/")
	s.write("codrel.yaml", "nmae: Harbour\n")
	s.comes(changed, "the settings are wrong")
	s.shows("/", `codrel.yaml:1:1: the settings file has no key &#34;nmae&#34;`)
	assert.Contains(t, s.get("/"), "The pages are still those of before.")
	assert.Contains(t, s.get("/"), "Harbour")
	s.write("codrel.yaml", "name: Quays\n")
	s.shows("/", "Quays")
	assert.NotContains(t, s.get("/"), "nmae")
	require.NoError(t, os.Remove(s.path("codrel.yaml")))
	s.shows("/", "port.example")
}

// What others write into the folder of the site, what git ignores and what editors keep beside
// files changes nothing.
func TestWhatIsNoChange(t *testing.T) {
	files := map[string]string{"codrel.yaml": "write: {site: out/pages}\n", "ignored/a.go": "package ignored\n"}
	for name, text := range port {
		files[name] = text
	}
	s := serve(t, files, nil)
	s.shows(portPage, "Moor ties up.")
	changed := s.listens(portPage)
	s.write("out/pages/index.html", "<p>x</p>")
	s.write("out/pages/a/b.go", "package b\n")
	s.write("codrel-site/index.html", "<p>x</p>")
	s.write("port.go~", "package x\n")
	s.write(".port.go.swp", "x")
	s.write("node_modules/x/index.js", "x")
	require.NoError(t, os.WriteFile(s.path("4913"), nil, 0o644))
	require.NoError(t, os.Remove(s.path("4913")))
	s.write("ignored/a.go", "package ignored // changed\n")
	require.NoError(t, os.Chmod(s.path("port.go"), 0o600))
	time.Sleep(200 * time.Millisecond)
	s.mu.Lock()
	for _, e := range s.said {
		for _, file := range e.Files {
			assert.Contains(t, []string{"out", "out/pages"}, file, "%v", e)
		}
	}
	s.mu.Unlock()
	assert.Empty(t, changed)
	s.write("port.go", strings.Replace(portGo, "ties up", "is saved", 1))
	s.comes(changed, "a real change comes through")
	s.write(".gitignore", "")
	s.shows("/modules.html", "port.example/ignored/index.html")
	s.write("ignored/a.go", "// Package ignored is seen now.\npackage ignored\n")
	s.shows("/reference/port.example/port.example/ignored/index.html", "is seen now")
}

// Settings that lie elsewhere are watched too.
func TestSettingsElsewhere(t *testing.T) {
	file := filepath.Join(t.TempDir(), "mine.yaml")
	require.NoError(t, os.WriteFile(file, []byte("name: One\n"), 0o644))
	for _, polled := range []bool{false, true} {
		s := serve(t, port, func(o *preview.Options) { o.Workspace.SettingsFile, o.NoWatch = file, polled })
		s.shows("/", "One")
		require.NoError(t, os.WriteFile(file, []byte("name: Other\n"), 0o644))
		require.NoError(t, os.WriteFile(filepath.Join(filepath.Dir(file), "else.go"), []byte("package x\n"), 0o644))
		s.shows("/", "Other")
		require.NoError(t, os.WriteFile(file, []byte("name: One\n"), 0o644))
		s.stop()
	}
}

// Before the project is read, its last build is shown; without one, that it is being read.
func TestFromTheLastState(t *testing.T) {
	files := map[string]string{
		"codrel.yaml": "nmae: x\n", "port.go": portGo, "go.mod": "module port.example\n",
	}
	s := serve(t, files, nil)
	s.shows("/", "The project cannot be read yet.")
	changed := s.listens("/")
	s.write("codrel.yaml", "name: Port\n")
	s.comes(changed, "it can be read now")
	s.shows("/", "Port")
	s.stop()

	w, err := workspace.Open(s.dir, workspace.Options{Version: "0.1.0"})
	require.NoError(t, err)
	_, err = w.Build(t.Context(), workspace.Request{})
	require.NoError(t, err)
	require.NoError(t, w.Close())
	held := make(chan struct{})
	var once sync.Once
	again := serve(t, nil, func(o *preview.Options) {
		o.Projects[0].Dir = s.dir
		o.Workspace.Progress = func(string, int, int) { once.Do(func() { <-held }) }
	})
	page := again.get(portPage)
	assert.Contains(t, page, "Moor ties up.")
	assert.Contains(t, page, "Reading the project; this is its last build.")
	assert.Contains(t, again.get("/assets/codrel.js"), "codrelSearch")
	changed = again.listens(portPage)
	close(held)
	again.comes(changed, "it is read")
	assert.NotContains(t, again.get(portPage), "last build")
}

// Several projects are on one page, and found by one search.
func TestSeveralProjects(t *testing.T) {
	files := map[string]string{
		"a/go.mod": "module a.example\n", "a/a.go": "// Package a is one.\npackage a\n\n// Moor ties up.\nfunc Moor() {}\n", "a/README.md": "# Alpha\n\nThe first.\n",
		"b/go.mod": "module b.example\n", "b/b.go": "// Package b is one.\npackage b\n\n// Moorings are many.\ntype Moorings int\n",
		"c/codrel.yaml": "nmae: x\n",
	}
	s := serve(t, files, nil)
	s.stop()
	projects, err := workspace.Projects([]string{s.dir})
	require.NoError(t, err)
	require.Len(t, projects, 3)
	s = serve(t, nil, func(o *preview.Options) {
		o.Projects = nil
		for _, p := range projects {
			o.Projects = append(o.Projects, preview.Folder{Dir: p.Dir, Name: p.Name})
		}
	})
	s.shows("/", "The first.")
	s.shows("/?q=moor", "2 found")
	assert.Contains(t, s.get("/?q=moor"), `<a href="/a/reference/a.example/a.example/index.html#Moor"><code translate="no">Moor</code></a>`)
	assert.Contains(t, s.get("/?q=moor"), `<a href="/b/reference/b.example/b.example/Moorings.html">`)
	assert.Contains(t, s.get("/?q=%3Cscript%3E"), "Nothing found for “&lt;script&gt;”")
	s.shows("/", "cannot be read: ")
	assert.Contains(t, s.get("/a/reference/a.example/a.example/index.html"), "Moor ties up.")
	assert.Contains(t, s.get("/a/none.html"), `href="/a/assets/codrel.css"`)
	status, _, _ := s.ask("GET", "/d/index.html")
	assert.Equal(t, 404, status)
	changed := s.listens("/b/index.html")
	require.NoError(t, os.WriteFile(filepath.Join(projects[1].Dir, "README.md"), []byte("# Beta\n"), 0o644))
	s.comes(changed, "one of the projects changed")
	s.shows("/b/index.html", "Beta")
}

// Three browsers are told of the same save; when the preview ends, nothing of it is left.
func TestThreeBrowsersAndTheEnd(t *testing.T) {
	before := runtime.NumGoroutine()
	s := serve(t, port, nil)
	s.shows(portPage, "Moor ties up.")
	var all []chan bool
	for range 3 {
		all = append(all, s.listens(portPage))
	}
	s.write("port.go", strings.Replace(portGo, "ties up", "is told to all", 1))
	for _, changed := range all {
		s.comes(changed, "each is told")
	}
	s.stop()
	for _, changed := range all {
		for range changed { // it ends
		}
	}
	entries, err := os.ReadDir(s.dir)
	require.NoError(t, err)
	assert.Len(t, entries, 6, "nothing was written: %v", entries)
	http.DefaultClient.CloseIdleConnections()
	assert.Eventually(t, func() bool { return runtime.NumGoroutine() <= before+2 }, waitFor, pause)
}

// Where the system has no watches left, folders are looked through, and that is said.
func TestWithoutWatches(t *testing.T) {
	var all []*fsnotify.Watcher
	defer func() {
		for _, w := range all {
			_ = w.Close()
		}
	}()
	for range 2000 {
		w, err := fsnotify.NewWatcher()
		if err != nil {
			break
		}
		all = append(all, w)
	}
	if len(all) == 2000 {
		t.Skip("NOT TESTED: this system has more watches than a test may take")
	}
	s := serve(t, port, nil)
	s.shows(portPage, "Moor ties up.")
	changed := s.listens(portPage)
	s.write("port.go", strings.Replace(portGo, "ties up", "is seen all the same", 1))
	s.comes(changed, "the folder is looked through")
	s.shows(portPage, "is seen all the same")
	s.mu.Lock()
	defer s.mu.Unlock()
	require.NotEmpty(t, s.said)
	assert.ErrorContains(t, s.said[0].Trouble, "the system cannot watch all folders (it has no watches left); they are looked through once a second instead")
}

// Who listens for others answers to their names of this machine, and to no other name.
func TestHostsOfOthers(t *testing.T) {
	server := preview.New(preview.Options{Projects: []preview.Folder{{Dir: t.TempDir()}}}, &net.TCPAddr{IP: net.IPv4zero, Port: 4630})
	own, err := os.Hostname()
	require.NoError(t, err)
	for host, status := range map[string]int{
		"localhost:4630": 405, "192.0.2.7:4630": 405, "[2001:db8::1]:4630": 405, own + ":4630": 405,
		"evil.example:4630": 403, "192.0.2.7": 403, "192.0.2.7:80": 403, "": 403, "[": 403, "localhost:4630.evil.example": 403,
	} {
		r := httptest.NewRequest("POST", "/", nil)
		r.Host = host
		w := httptest.NewRecorder()
		server.Handler().ServeHTTP(w, r)
		assert.Equal(t, status, w.Code, host)
	}
	alone := preview.New(preview.Options{Projects: []preview.Folder{{Dir: t.TempDir()}}}, &net.UnixAddr{})
	for host, status := range map[string]int{"localhost": 405, "127.0.0.1:9": 405, "192.0.2.7": 403} {
		r := httptest.NewRequest("POST", "/", nil)
		r.Host = host
		w := httptest.NewRecorder()
		alone.Handler().ServeHTTP(w, r)
		assert.Equal(t, status, w.Code, host)
	}
}

// A project whose folder goes away and comes back is shown again.
func TestFolderAwayAndBack(t *testing.T) {
	for _, polled := range []bool{false, true} {
		s := serve(t, map[string]string{"p/go.mod": "module port.example\n", "p/sub/port.go": portGo, "p/sub/deep/x.go": "// Package x is one.\npackage x\n"}, func(o *preview.Options) {
			o.Projects[0].Dir += "/p"
			o.NoWatch = polled
		})
		s.shows("/modules.html", "port.example/sub/deep/index.html")
		changed := s.listens("/modules.html")
		require.NoError(t, os.Rename(s.path("p/sub"), s.path("away")))
		s.comes(changed, "the folder is away")
		assert.Eventually(t, func() bool { return !strings.Contains(s.get("/modules.html"), "sub/index.html") }, waitFor, pause)
		require.NoError(t, os.Rename(s.path("away"), s.path("p/sub")))
		s.shows("/modules.html", "port.example/sub/deep/index.html")
		s.write("p/sub/deep/x.go", "// Package x is watched again.\npackage x\n")
		s.shows("/reference/port.example/port.example/sub/deep/index.html", "is watched again")
		s.stop()
	}
}
