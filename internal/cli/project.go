package cli

import (
	"context"
	"os"
	"path/filepath"
	"strings"

	"codrel/internal/build"
	"codrel/internal/workspace"
)

// project is the workspace that a command works on, with the bar that shows how far it is.
type project struct {
	*workspace.Workspace
	bar *progress
}

func (a *app) open(dir string) (*project, error) {
	bar := a.progress()
	w, err := workspace.Open(dir, workspace.Options{
		Version: Version, SettingsFile: a.settingsFile, Jobs: a.jobs, Logger: a.logger(), Progress: bar.stage, Found: allowMemory, Shown: a.shownPath,
	})
	if err != nil {
		return nil, err
	}
	return &project{w, bar}, nil
}

// shownPath is how a path is printed: from the folder the user is in where that
// is the shorter way, else whole.
func (a *app) shownPath(abs string) string {
	abs, err := filepath.Abs(abs)
	if err != nil {
		return abs
	}
	wd, err := os.Getwd()
	if err != nil {
		return abs
	}
	rel, err := filepath.Rel(wd, abs)
	if err != nil || strings.HasPrefix(rel, filepath.Join("..", "..")) {
		return abs
	}
	return filepath.ToSlash(rel)
}

// shownFile is how the path of a file of the project is printed.
func (a *app) shownFile(p *project, file string) string {
	return a.shownPath(p.Path(file))
}

// linked is the project in a folder, read and linked, for commands that print what
// is in it: a folder with nothing to read is an error.
func (a *app) linked(ctx context.Context, dir string) (*build.Snapshot, error) {
	p, err := a.open(dir)
	if err != nil {
		return nil, err
	}
	defer p.Close()
	s, err := p.Link(ctx)
	p.bar.end()
	if err != nil {
		return nil, err
	}
	return s, a.nothingRead(p, s)
}
