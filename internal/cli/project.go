package cli

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/lang"
	"codrel/internal/languages"
	"codrel/internal/prose"
	"codrel/internal/settings"
)

// project is the folder a command works on, with its settings.
type project struct {
	dir          string // absolute
	root         *os.Root
	files        fs.FS // of the root
	settings     *settings.Settings
	settingsText string // what the settings were read from; "" for the defaults
	outside      *outsideFiles
}

func (a *app) open(dir string) (*project, error) {
	abs, err := filepath.Abs(dir)
	if err != nil {
		return nil, &exit{exitIO, err}
	}
	info, err := os.Stat(abs)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return nil, &exit{exitIO, fmt.Errorf("there is no folder %s", dir)}
	case err != nil:
		return nil, &exit{exitIO, err}
	case !info.IsDir():
		return nil, usage("%s is a file; name the folder of the project (\"codrel check\" takes files)", dir)
	}
	root, err := os.OpenRoot(abs)
	if err != nil {
		return nil, &exit{exitIO, err}
	}
	p := &project{dir: abs, root: root, files: root.FS(), outside: &outsideFiles{dir: abs}}
	if p.settings, err = a.readSettings(p); err != nil {
		return nil, errors.Join(err, root.Close())
	}
	return p, nil
}

// readSettings reads the named settings file, else codrel.yaml where there is one.
func (a *app) readSettings(p *project) (*settings.Settings, error) {
	known := settings.Known{Version: Version, Rules: check.Names(), Languages: languages.Names(), Meanings: prose.Meanings()}
	file := a.settingsFile
	if file == "" {
		file = filepath.Join(p.dir, settings.FileName)
	}
	data, err := os.ReadFile(file)
	if errors.Is(err, fs.ErrNotExist) {
		if a.settingsFile == "" {
			return settings.Default(), nil
		}
		return nil, usage("there is no settings file %s", a.settingsFile)
	}
	if err != nil {
		return nil, &exit{exitIO, err}
	}
	p.settingsText = string(data)
	s, err := settings.Parse(a.shownPath(file), data, known)
	if err != nil {
		return nil, &exit{exitUsage, err}
	}
	if abs, err := filepath.Abs(file); err == nil {
		file = abs
	}
	if rel, err := filepath.Rel(p.dir, file); err == nil {
		s.File = filepath.ToSlash(rel)
	}
	return s, nil
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
	return a.shownPath(filepath.Join(p.dir, filepath.FromSlash(file)))
}

func (a *app) options(p *project, bar *progress) build.Options {
	return build.Options{
		Settings: p.settings, FrontEnds: languages.All, Folder: filepath.Base(p.dir), Jobs: a.jobs,
		Logger: a.logger(), Progress: bar.stage, Found: allowMemory, Outside: p.outside.outside(),
	}
}

// linked is the project in a folder, read and linked, for commands that print what
// is in it: a folder with nothing to read is an error.
func (a *app) linked(ctx context.Context, dir string) (*build.Snapshot, error) {
	p, err := a.open(dir)
	if err != nil {
		return nil, err
	}
	defer p.root.Close()
	s, err := a.run(ctx, p, nil)
	if err != nil {
		return nil, err
	}
	return s, a.nothingRead(p, s)
}

// run reads, links and checks the project.
func (a *app) run(ctx context.Context, p *project, change func(*build.Options)) (*build.Snapshot, error) {
	bar := a.progress()
	options := a.options(p, bar)
	if change != nil {
		change(&options)
	}
	s, err := build.Run(ctx, p.files, options)
	bar.end()
	return s, err
}

// findRoot finds the project that a path to be checked belongs to: the nearest
// folder above it with a settings file, then with a repository, then with a
// file that marks a library; else the folder itself.
func findRoot(path string) (string, error) {
	abs, err := filepath.Abs(path)
	if err != nil {
		return "", &exit{exitIO, err}
	}
	info, err := os.Stat(abs)
	if errors.Is(err, fs.ErrNotExist) {
		return "", &exit{exitIO, fmt.Errorf("there is no file or folder %s", path)}
	}
	if err != nil {
		return "", &exit{exitIO, err}
	}
	start := abs
	if !info.IsDir() {
		start = filepath.Dir(abs)
	}
	signs := [][]string{{settings.FileName}, {".git"}, nil}
	for _, end := range languages.All {
		if marks, ok := end.(lang.RootFinder); ok {
			signs[2] = append(signs[2], marks.MarkerNames()...)
		}
	}
	for _, names := range signs {
		if dir := above(start, names); dir != "" {
			return dir, nil
		}
	}
	return start, nil
}

func above(dir string, names []string) string {
	for {
		for _, name := range names {
			if _, err := os.Lstat(filepath.Join(dir, name)); err == nil {
				return dir
			}
		}
		parent := filepath.Dir(dir)
		if parent == dir {
			return ""
		}
		dir = parent
	}
}
