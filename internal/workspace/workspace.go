// Package workspace owns a project as it lies on disk: opening it, its settings, what
// lies outside it and is named by them, and the way from its files to a written site.
//
// Every face of the program shares it. It prints nothing and asks nobody; what went wrong
// comes back as an [Error] that says whether the user or the machine has to do something
// about it.
package workspace

import (
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"os"
	"path/filepath"

	"codrel/internal/lang"
	"codrel/internal/languages"
	"codrel/internal/settings"
)

// Workspace is the folder of a project with its settings.
type Workspace struct {
	Dir      string // absolute
	Files    fs.FS  // the files in it
	Settings *settings.Settings

	options      Options
	root         *os.Root
	settingsPath string // of the file they are read from, whether it is there or not
	settingsText string // what the settings were read from; "" for the defaults
	outside      *outsideFiles
	remarks      remarks
}

// Options is how a workspace is opened and worked on.
type Options struct {
	Version      string // of the program
	SettingsFile string // "" for the usual one, where there is one
	Jobs         int    // workers; 0 for one a processor
	Logger       *slog.Logger
	// Progress is told the stage, and how many of how many steps are done; it is called
	// from several goroutines. It may be nil.
	Progress func(stage string, done, total int)
	// Found is told how many bytes there are to read before they are. It may be nil.
	Found func(bytes int64)
	// Shown is how a path on this machine is written in messages; as it is where nil.
	Shown func(path string) string
}

// Error is an error with a word on who can do something about it.
type Error struct {
	WrongUse bool // it was asked for wrongly, or the settings are wrong; else something could not be read or written
	Err      error
}

// Error is the text of the error inside.
func (e *Error) Error() string { return e.Err.Error() }

// Unwrap is the error inside.
func (e *Error) Unwrap() error { return e.Err }

func wrongUse(format string, args ...any) error { return &Error{true, fmt.Errorf(format, args...)} }

func diskError(err error) error { return &Error{false, err} }

// Open opens the project in a folder. Whoever opens it closes it.
func Open(dir string, options Options) (*Workspace, error) {
	if options.Shown == nil {
		options.Shown = func(path string) string { return path }
	}
	if options.Logger == nil {
		options.Logger = slog.New(slog.DiscardHandler)
	}
	abs, err := folder(dir)
	if err != nil {
		return nil, err
	}
	root, err := os.OpenRoot(abs)
	if err != nil {
		return nil, diskError(err)
	}
	w := &Workspace{Dir: abs, root: root, Files: root.FS(), options: options, outside: &outsideFiles{dir: abs}}
	if err := w.readSettings(); err != nil {
		return nil, errors.Join(err, root.Close())
	}
	return w, nil
}

// folder is the absolute path of a folder that is named on the command line.
func folder(dir string) (abs string, err error) {
	if abs, err = filepath.Abs(dir); err != nil {
		return "", diskError(err)
	}
	info, err := os.Stat(abs)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return "", diskError(fmt.Errorf("there is no folder %s", dir))
	case err != nil:
		return "", diskError(err)
	case !info.IsDir():
		return "", wrongUse("%s is a file; name the folder of the project (\"codrel check\" takes files)", dir)
	}
	return abs, nil
}

// Close lets go of the folder.
func (w *Workspace) Close() error { return w.root.Close() }

// Path is the path on this machine of a file of the project.
func (w *Workspace) Path(file string) string { return filepath.Join(w.Dir, filepath.FromSlash(file)) }

// FindRoot finds the project that a path belongs to: the nearest folder above it with a
// settings file, then with a repository, then with a file that marks a library; else the
// folder itself.
func FindRoot(path string) (string, error) {
	abs, err := filepath.Abs(path)
	if err != nil {
		return "", diskError(err)
	}
	info, err := os.Stat(abs)
	if errors.Is(err, fs.ErrNotExist) {
		return "", diskError(fmt.Errorf("there is no file or folder %s", path))
	}
	if err != nil {
		return "", diskError(err)
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

// above is the nearest folder, from dir upwards, that holds one of the names, or "".
func above(dir string, names []string) string {
	for {
		for _, name := range names {
			if name[0] == '*' {
				if found, err := fs.Glob(os.DirFS(dir), name); err == nil && len(found) > 0 {
					return dir
				}
			} else if _, err := os.Lstat(filepath.Join(dir, name)); err == nil {
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
