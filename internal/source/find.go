package source

import (
	"context"
	"errors"
	"io/fs"
	"path"
	"strings"
	"sync"

	"github.com/bmatcuk/doublestar/v4"
)

// Search says which files of a tree are wanted.
type Search struct {
	Within []string                 // folders or files to look in; empty means the whole tree
	Skip   []string                 // patterns with "**", against the path from the root
	Enter  func(folder string) bool // whether a folder is looked into; nil: each is
	Wanted func(file string) bool   // nil: each is
}

// Entry is one file that was found.
type Entry struct {
	Path string // from the root, with "/"
	Size int64  // bytes, as the folder told
}

// Problem is a file or folder in reach that cannot be read.
type Problem struct {
	Path string
	Err  error
	Link bool // a symbolic link that is a loop, leaves the root or leads nowhere
}

// ErrLeaves is the problem of a symbolic link that leads out of the root.
var ErrLeaves = errors.New("the symbolic link leads out of the folder that is read")

// ErrLink is the problem of a symbolic link that is a loop or leads nowhere.
var ErrLink = errors.New("the symbolic link leads nowhere or to itself")

// Find lists the wanted files of fsys in the order of their paths, and what
// could not be looked at. Ignore files (.gitignore) hold for the folder they
// stand in and below, but not for what git tracks. Folders behind symbolic links
// are not entered: what lies inside the root is found at its own place, and what
// lies outside is not read.
// The error is the context's, or that of a root that cannot be listed.
func Find(ctx context.Context, fsys fs.FS, want Search) ([]Entry, []Problem, error) {
	f := finder{ctx: ctx, fsys: fsys, want: want, tracked: sync.OnceValue(func() tracked { return trackedIn(fsys) })}
	if _, err := fs.ReadDir(fsys, "."); err != nil {
		return nil, nil, err
	}
	if err := f.folder(".", nil); err != nil {
		return nil, nil, err
	}
	return f.found, f.problems, nil
}

type finder struct {
	ctx      context.Context
	fsys     fs.FS
	want     Search
	found    []Entry
	problems []Problem
	tracked  func() tracked
}

func (f *finder) folder(dir string, ignore ignoring) error {
	if err := f.ctx.Err(); err != nil {
		return err
	}
	entries, err := fs.ReadDir(f.fsys, dir)
	if err != nil {
		f.problems = append(f.problems, Problem{Path: dir, Err: err})
		return nil
	}
	for _, e := range entries {
		if e.Name() == ".gitignore" {
			if data, err := fs.ReadFile(f.fsys, path.Join(dir, e.Name())); err == nil {
				ignore = ignore.with(dir, string(data))
			}
		}
	}
	for _, e := range entries {
		p := path.Join(dir, e.Name())
		if f.leftOut(p, e, ignore) {
			continue
		}
		switch {
		case e.IsDir():
			below := ignore
			if ignore.ignores(p, true) { // git tracks something in it, and that alone is read
				below = ignore.with(p, "*")
			}
			if err := f.folder(p, below); err != nil {
				return err
			}
		case e.Type()&fs.ModeSymlink != 0:
			f.link(p)
		case e.Type().IsRegular() && f.wanted(p):
			f.found = append(f.found, Entry{Path: p, Size: sizeOf(e)})
		}
	}
	return nil
}

func sizeOf(e fs.DirEntry) int64 {
	info, err := e.Info()
	if err != nil {
		return 0
	}
	return info.Size()
}

func (f *finder) leftOut(p string, e fs.DirEntry, ignore ignoring) bool {
	if strings.HasPrefix(e.Name(), ".") || !f.within(p, e.IsDir()) {
		return true
	}
	for _, pattern := range f.want.Skip {
		if ok, _ := doublestar.Match(pattern, p); ok {
			return true
		}
	}
	if ignore.ignores(p, e.IsDir()) && !f.tracked().files[p] && !f.tracked().folders[p] {
		return true
	}
	return e.IsDir() && f.want.Enter != nil && !f.want.Enter(p)
}

// within reports whether p is one of the asked places, below one, or on the way to one.
func (f *finder) within(p string, dir bool) bool {
	if len(f.want.Within) == 0 {
		return true
	}
	for _, w := range f.want.Within {
		if w == "." || w == p || strings.HasPrefix(p, w+"/") || dir && strings.HasPrefix(w, p+"/") {
			return true
		}
	}
	return false
}

func (f *finder) wanted(p string) bool { return f.want.Wanted == nil || f.want.Wanted(p) }

// link follows a symbolic link to a file. The root refuses to step outside
// (see [os.Root]); any refusal that is not plain absence is told apart by name,
// because the standard library has no error value for it.
func (f *finder) link(p string) {
	info, err := fs.Stat(f.fsys, p)
	switch {
	case err == nil && info.Mode().IsRegular() && f.wanted(p):
		f.found = append(f.found, Entry{Path: p, Size: info.Size()})
	case err == nil:
	case strings.Contains(err.Error(), "escapes"):
		f.problems = append(f.problems, Problem{Path: p, Err: ErrLeaves, Link: true})
	default:
		f.problems = append(f.problems, Problem{Path: p, Err: ErrLink, Link: true})
	}
}
