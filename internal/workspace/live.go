package workspace

import (
	"context"
	"path/filepath"
	"slices"
	"sync"

	"codrel/internal/build"
	"codrel/internal/render/plan"
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
	pages := l.workspace.planWith(s, plan.Options{Findings: -1})
	state := newState(s, pages, l.workspace.Settings, l.workspace.Site(s, pages, l.forge))
	l.mu.Lock()
	defer l.mu.Unlock()
	l.now = state
}

// isSettings reports whether a path from the project's folder is that of the settings.
func (w *Workspace) isSettings(path string) bool { return filepath.Join(w.Dir, path) == w.settingsPath }
