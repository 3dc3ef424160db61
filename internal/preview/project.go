package preview

import (
	"bytes"
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"net/http"
	"os"
	"path"
	"runtime"
	"strings"
	"sync"
	"time"

	"codrel/internal/render/plan"
	"codrel/internal/search"
	"codrel/internal/workspace"
)

// project is one that is shown.
type project struct {
	name    string
	dir     string
	options *Options
	once    sync.Once
	ready   chan struct{} // closed when it was read for the first time, or cannot be

	mu      sync.Mutex
	live    *workspace.Live
	space   *workspace.Workspace
	built   string           // folder of the site that the last build wrote; "" where there is none
	state   *workspace.State // nil until it is read
	trouble error            // why the last change of the settings has no effect
	pages   map[string]*rendered
	clients map[*client]bool
	skimmed *skimmed // what is known of it before it is opened
}

// skimmed is what the front page says of a project and finds in it.
type skimmed struct {
	title, version, summary string
	entries                 []search.Entry
	trouble                 error
}

// skim reads a project once, and keeps what the front page needs.
func (p *project) skim(ctx context.Context) {
	p.mu.Lock()
	known := p.state != nil || p.skimmed != nil
	p.mu.Unlock()
	if known {
		return
	}
	begun := time.Now()
	out := &skimmed{}
	err := func() error {
		w, err := workspace.Open(p.dir, p.options.Workspace)
		if err != nil {
			return err
		}
		defer w.Close()
		live, err := w.Live(ctx)
		if err == nil {
			out = skimmedOf(live.State())
		}
		return err
	}()
	if ctx.Err() != nil {
		return
	}
	out.trouble = err
	p.mu.Lock()
	p.skimmed = out
	p.mu.Unlock()
	p.options.Said(Event{Project: p.name, Took: time.Since(begun), Trouble: err, Ready: err == nil})
}

func skimmedOf(state *workspace.State) *skimmed {
	out := &skimmed{title: state.Snapshot.Project.Name, version: state.Snapshot.Project.Version, entries: state.Entries()}
	if g := state.Snapshot.Links.Landing(); g != nil {
		out.summary = state.Plan.GuideSummary(g)
	}
	return out
}

// known is what the front page says of the project; nil where it was not read yet.
func (p *project) known() *skimmed {
	p.mu.Lock()
	state, trouble, known := p.state, p.trouble, p.skimmed
	p.mu.Unlock()
	switch {
	case state != nil:
		return skimmedOf(state)
	case trouble != nil:
		return &skimmed{trouble: trouble}
	}
	return known
}

// rendered is a page with what the preview adds to it.
type rendered struct {
	data   []byte
	sum    string // of what it says, by which browsers tell that it changed
	status int
}

// client is a page that is open in a browser.
type client struct {
	address string
	seen    string // the sum of what it shows
	changed chan struct{}
}

func newProject(f Folder, options *Options) *project {
	p := &project{
		name: f.Name, dir: f.Dir, options: options, ready: make(chan struct{}),
		pages: map[string]*rendered{}, clients: map[*client]bool{},
	}
	if site, ok := workspace.SiteOf(f.Dir, options.Workspace); ok {
		p.built = site
	}
	return p
}

// prefix is what its addresses begin with.
func (p *project) prefix() string {
	if p.name == "" {
		return "/"
	}
	return "/" + p.name + "/"
}

// run reads the project, and again whenever something in its folder changes.
func (p *project) run(ctx context.Context) {
	w, err := newWatch(ctx, p.dir, p.options)
	if err != nil {
		p.options.Said(Event{Project: p.name, Trouble: err})
	}
	if w != nil {
		defer w.close()
	}
	p.read(ctx, nil)
	close(p.ready)
	if w == nil {
		<-ctx.Done()
		p.close()
		return
	}
	idle := time.AfterFunc(pauseFor, runtime.GC)
	defer idle.Stop()
	for {
		changed := w.next(ctx, p.isOutput)
		if changed == nil {
			p.close()
			return
		}
		p.read(ctx, changed)
		idle.Reset(pauseFor)
	}
}

// pauseFor is how long after a save the memory of the state before is collected: while nobody
// waits for a page.
const pauseFor = 300 * time.Millisecond

func (p *project) close() {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.space != nil {
		_ = p.space.Close()
		p.space, p.live = nil, nil
	}
}

// isOutput reports whether a path from the project's root is that of its site, which others
// may write meanwhile.
func (p *project) isOutput(rel string) bool {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.state == nil {
		return false
	}
	site := p.state.Settings.Write.Site
	return rel == site || strings.HasPrefix(rel, site+"/")
}

// read takes in what has changed, all of it for the first time.
func (p *project) read(ctx context.Context, changed []string) {
	begun := time.Now()
	first := p.live == nil
	err := p.update(ctx, changed)
	if ctx.Err() != nil {
		return
	}
	event := Event{Project: p.name, Files: changed, Took: time.Since(begun), Ready: first && err == nil}
	p.mu.Lock()
	was := p.trouble
	p.trouble = err
	if err == nil || first && p.live != nil {
		p.state = p.live.State()
	}
	shown := p.pages
	p.pages = map[string]*rendered{}
	if len(changed) > 0 && p.state != nil {
		for _, file := range changed {
			if p.state.Shows(file) {
				shown = nil // its address stays the same, and so do the pages
			}
		}
	}
	var open []*client
	for c := range p.clients {
		open = append(open, c)
	}
	p.mu.Unlock()
	for _, c := range open {
		if shown == nil || p.page(ctx, c.address).sum != c.seen {
			select {
			case c.changed <- struct{}{}:
			default: // it knows already
			}
		}
	}
	if err != nil && (was == nil || was.Error() != err.Error()) {
		event.Trouble = err
	}
	p.options.Said(event)
}

// update opens the project where it is not open, and brings it up to date else. An error is one
// of the settings, or of a folder that is gone.
func (p *project) update(ctx context.Context, changed []string) error {
	if p.live != nil {
		return p.live.Update(ctx, changed...)
	}
	w, err := workspace.Open(p.dir, p.options.Workspace)
	if err != nil {
		return err
	}
	live, err := w.Live(ctx)
	if err != nil {
		return errors.Join(err, w.Close())
	}
	p.mu.Lock()
	p.space, p.live = w, live
	p.mu.Unlock()
	return nil
}

// serve answers a request for a page or a file.
func (p *project) serve(w http.ResponseWriter, r *http.Request) {
	address := strings.TrimPrefix(r.URL.Path, p.prefix())
	if address == "" || strings.HasSuffix(address, "/") {
		address += "index.html"
	}
	w.Header().Set("Cache-Control", "no-cache")
	if p.built == "" { // there is nothing to show before it is read, which most are in no time
		select {
		case <-p.ready:
		case <-r.Context().Done():
		case <-time.After(patience):
		}
	}
	if ext := path.Ext(address); ext == ".html" || ext == "" {
		page := p.page(r.Context(), address)
		w.Header().Set("Content-Type", "text/html; charset=utf-8")
		w.WriteHeader(page.status)
		_, _ = w.Write(page.data)
		return
	}
	data, ok, err := p.file(address)
	switch {
	case err != nil:
		http.Error(w, err.Error(), http.StatusInternalServerError)
	case !ok:
		http.NotFound(w, r)
	default:
		w.Header().Set("ETag", `"`+sumOf(data)+`"`)
		w.Header().Set("Content-Type", kindOf(address))
		http.ServeContent(w, r, "", time.Time{}, bytes.NewReader(data))
	}
}

// patience is how long a first request waits for the project to be read.
const patience = 400 * time.Millisecond

// kinds are the media types of the files that sites have.
var kinds = map[string]string{
	".css": "text/css; charset=utf-8", ".js": "text/javascript; charset=utf-8", ".json": "application/json", ".xml": "application/xml", ".svg": "image/svg+xml",
	".png": "image/png", ".jpg": "image/jpeg", ".jpeg": "image/jpeg", ".gif": "image/gif", ".webp": "image/webp", ".avif": "image/avif",
	".mp4": "video/mp4", ".m4v": "video/mp4", ".mov": "video/quicktime", ".webm": "video/webm", ".ogv": "video/ogg",
}

func kindOf(address string) string {
	return cmp.Or(kinds[strings.ToLower(path.Ext(address))], "application/octet-stream")
}

func sumOf(data []byte) string {
	sum := sha256.Sum256(data)
	return hex.EncodeToString(sum[:12])
}

// file is a file of the site: of what it is now, else of the last build.
func (p *project) file(address string) (data []byte, ok bool, err error) {
	p.mu.Lock()
	state := p.state
	p.mu.Unlock()
	if state == nil {
		data, ok = p.last(address)
		return data, ok, nil
	}
	return state.File(address)
}

// last is a file of the site that the last build wrote.
func (p *project) last(address string) ([]byte, bool) {
	if p.built == "" {
		return nil, false
	}
	root, err := os.OpenRoot(p.built)
	if err != nil {
		return nil, false
	}
	defer root.Close()
	data, err := root.ReadFile(address)
	return data, err == nil
}

// page is a page with what the preview adds to it; it is made once for each state.
func (p *project) page(ctx context.Context, address string) *rendered {
	p.mu.Lock()
	state, trouble, known := p.state, p.trouble, p.pages[address]
	p.mu.Unlock()
	if known != nil {
		return known
	}
	made := p.render(ctx, state, trouble, address)
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.state == state && p.trouble == trouble && ctx.Err() == nil {
		p.pages[address] = made
	}
	return made
}

func (p *project) render(ctx context.Context, state *workspace.State, trouble error, address string) *rendered {
	out := &rendered{status: http.StatusOK}
	var panel panel
	switch {
	case state != nil:
		told := make(chan []told, 1)
		go func() { told <- p.told(state, address) }()
		data, ok, err := state.Page(ctx, address)
		if err == nil && !ok {
			out.status = http.StatusNotFound
			data, _, err = state.Page(ctx, plan.LostAddress)
			data = p.rooted(data)
		}
		panel.Findings = <-told
		if err != nil {
			trouble = errors.Join(trouble, err)
		}
		out.data = data
	default:
		if data, ok := p.last(address); ok {
			out.data, panel.Reading = data, trouble == nil
		} else {
			out.data, panel.Reading = waiting(trouble), trouble == nil
		}
	}
	if trouble != nil {
		panel.Trouble = strings.Split(trouble.Error(), "\n")
	}
	panel.Kept = state != nil
	out.sum = sumOf(fmt.Appendf(bytes.Clone(out.data), "%+v", panel))
	out.data = panel.into(out.data, p.prefix(), address, out.sum)
	return out
}

// rooted makes the addresses of the page for lost readers, which begin at the root of a server,
// those of the project.
func (p *project) rooted(page []byte) []byte {
	if p.name == "" {
		return page
	}
	for _, attribute := range []string{"href", "src", "data-root"} {
		page = bytes.ReplaceAll(page, []byte(attribute+`="/`), []byte(attribute+`="`+p.prefix()))
	}
	return page
}

// waiting is the page of a project that was not read yet and has no site.
func waiting(trouble error) []byte {
	text, again := "Reading the project…", `<meta http-equiv="refresh" content="1">`
	if trouble != nil {
		text, again = "The project cannot be read yet.", ""
	}
	return []byte(`<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Codrel</title>` + again + `<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'self'; script-src 'self'; img-src 'self'"><link rel="stylesheet" href="/_codrel/codrel.css"></head><body><main><h1>` + text + `</h1></main></body></html>`)
}
