package source

import (
	"context"
	"errors"
	"io/fs"
	"path"
	"slices"
	"strings"

	"github.com/bmatcuk/doublestar/v4"
)

// Search says which files of a tree are wanted.
type Search struct {
	Extensions  []string // endings that are wanted, such as ".go"
	Names       []string // whole file names that are wanted as well, such as "go.mod"
	SkipFolders []string // names left out at any depth, unless asked for: of folders, such as "vendor", or what folders and files begin with, such as "_*"
	Skip        []string // patterns with "**", against the path from the root
	Within      []string // folders or files to look in; empty means the whole tree
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
// stand in and below. Folders behind symbolic links are not entered: what lies
// inside the root is found at its own place, and what lies outside is not read.
// The error is the context's, or that of a root that cannot be listed.
func Find(ctx context.Context, fsys fs.FS, want Search) ([]Entry, []Problem, error) {
	f := finder{ctx: ctx, fsys: fsys, want: want}
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
			if err := f.folder(p, ignore); err != nil {
				return err
			}
		case e.Type()&fs.ModeSymlink != 0:
			f.link(p)
		case e.Type().IsRegular() && f.wanted(e.Name()):
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
	name := e.Name()
	if strings.HasPrefix(name, ".") {
		return true
	}
	if !f.asked(p) {
		for _, s := range f.want.SkipFolders {
			prefix, all := strings.CutSuffix(s, "*")
			if all && strings.HasPrefix(name, prefix) || e.IsDir() && s == name {
				return true
			}
		}
	}
	for _, pattern := range f.want.Skip {
		if ok, _ := doublestar.Match(pattern, p); ok {
			return true
		}
	}
	return !f.within(p, e.IsDir()) || ignore.ignores(p, e.IsDir())
}

// asked reports whether p is one of the asked places or on the way to one.
func (f *finder) asked(p string) bool {
	return slices.ContainsFunc(f.want.Within, func(place string) bool { return place == p || strings.HasPrefix(place, p+"/") })
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

func (f *finder) wanted(name string) bool {
	for _, n := range f.want.Names {
		if n == name {
			return true
		}
	}
	ext := path.Ext(name)
	if ext == "" {
		return false
	}
	for _, w := range f.want.Extensions {
		if w == ext {
			return true
		}
	}
	return false
}

// link follows a symbolic link to a file. The root refuses to step outside
// (see [os.Root]); any refusal that is not plain absence is told apart by name,
// because the standard library has no error value for it.
func (f *finder) link(p string) {
	info, err := fs.Stat(f.fsys, p)
	switch {
	case err == nil && info.Mode().IsRegular() && f.wanted(path.Base(p)):
		f.found = append(f.found, Entry{Path: p, Size: info.Size()})
	case err == nil:
	case strings.Contains(err.Error(), "escapes"):
		f.problems = append(f.problems, Problem{Path: p, Err: ErrLeaves, Link: true})
	default:
		f.problems = append(f.problems, Problem{Path: p, Err: ErrLink, Link: true})
	}
}
