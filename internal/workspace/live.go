package workspace

import (
	"bytes"
	"context"
	"path/filepath"
	"slices"
	"sync"

	"codrel/internal/build"
	"codrel/internal/render/plan"
	"codrel/internal/render/site"
)

// Live is a project that is open while its files change, and of which pages are asked for
// one at a time. It is safe for use by several goroutines: who reads a state goes on with
// it while the next one is made.
type Live struct {
	workspace *Workspace
	forge     string
	changing  sync.Mutex // one change after the other

	mu  sync.Mutex
	now *State
}

// State is what a live project is at one time.
type State struct {
	Snapshot *build.Snapshot // linked; [build.Check] adds what the rules find
	Plan     *plan.Plan
	site     *site.Site
}

// Live reads the project and keeps it open for changes.
func (w *Workspace) Live(ctx context.Context) (*Live, error) {
	l := &Live{workspace: w}
	l.forge, _ = w.forge(ctx)
	return l, l.anew(ctx)
}

// State is what the project is now.
func (l *Live) State() *State {
	l.mu.Lock()
	defer l.mu.Unlock()
	return l.now
}

// Update takes in what has changed: paths of files that are new, changed or gone, or of
// folders, from the project's folder. Where the settings are among them, all is read anew.
// With an error the state stays as it was.
func (l *Live) Update(ctx context.Context, changed ...string) error {
	l.changing.Lock()
	defer l.changing.Unlock()
	if slices.ContainsFunc(changed, l.workspace.isSettings) {
		if err := l.workspace.readSettings(); err != nil {
			return err
		}
		return l.anew(ctx)
	}
	s, err := build.Update(ctx, l.workspace.Files, l.State().Snapshot, changed...)
	if err != nil {
		return err
	}
	l.set(s)
	return nil
}

// anew reads everything.
func (l *Live) anew(ctx context.Context) error {
	options := l.workspace.Read()
	options.Inside, options.TestNames = l.workspace.source() != plan.NoSource, true
	s, err := build.Link(ctx, l.workspace.Files, options)
	if err != nil {
		return err
	}
	l.set(s)
	return nil
}

// set makes a snapshot the state. What a page says of all findings is no part of it: no
// rule has been asked yet.
func (l *Live) set(s *build.Snapshot) {
	pages := l.workspace.planWith(s, -1, false)
	state := &State{Snapshot: s, Plan: pages, site: l.workspace.Site(s, pages, l.forge)}
	l.mu.Lock()
	defer l.mu.Unlock()
	l.now = state
}

// Page renders the page with an address; ok is false where there is none. Of the plan no
// more is made than the page needs.
func (s *State) Page(ctx context.Context, address string) (data []byte, ok bool, err error) {
	page := s.Plan.PageAt(address)
	if page == nil {
		return nil, false, nil
	}
	var out bytes.Buffer
	err = s.site.Page(page).Render(ctx, &out)
	return out.Bytes(), true, err
}

// isSettings reports whether a path from the project's folder is that of the settings.
func (w *Workspace) isSettings(path string) bool { return filepath.Join(w.Dir, path) == w.settingsPath }
