package preview

import (
	"context"
	"errors"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strings"
	"syscall"
	"time"

	"github.com/fsnotify/fsnotify"

	"codrel/internal/source"
)

// This file tells which files of a folder have changed: by what the system tells of each folder
// in it, or, where it cannot, by looking through them again and again.

// How long to wait for more: editors save in several steps, and tools change many files at once.
const (
	quiet   = 6 * time.Millisecond   // nothing more has come for so long
	settled = 40 * time.Millisecond  // what is gone or empty may be about to be written
	longest = 250 * time.Millisecond // what goes on and on is shown all the same
)

// stamp tells one state of a file from another.
type stamp struct {
	size  int64
	time  time.Time
	isDir bool
}

// watch knows what is in a folder.
type watch struct {
	dir      string
	files    fs.FS             // of that
	settings string            // the file of the settings where it is another than the usual one; absolute
	notify   *fsnotify.Watcher // nil where folders are looked through
	poll     time.Duration
	known    map[string]stamp // by paths from the folder, with "/"
	said     func(error)
}

// errAsking says that the system has no watches left.
func errAsking(err error) error {
	reason := err.Error()
	if errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EMFILE) {
		reason = "it has no watches left"
	}
	return errors.New("the system cannot watch all folders (" + reason + "); they are looked through once a second instead")
}

// newWatch begins to watch a folder.
func newWatch(ctx context.Context, dir string, options *Options) (*watch, error) {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	w := &watch{dir: dir, files: os.DirFS(dir), poll: options.Poll, known: map[string]stamp{}, said: func(err error) { options.Said(Event{Trouble: err}) }}
	if file := options.Workspace.SettingsFile; file != "" {
		if w.settings, err = filepath.Abs(file); err != nil {
			return nil, err
		}
	}
	if !options.NoWatch {
		if w.notify, err = fsnotify.NewWatcher(); err != nil {
			w.notify = nil
			w.said(errAsking(err))
		}
	}
	w.look(ctx, ".", w.known)
	if w.notify != nil && w.settings != "" {
		_ = w.notify.Add(filepath.Dir(w.settings)) // where it is gone, the settings cannot be read anyway
	}
	return w, nil
}

func (w *watch) close() {
	if w.notify != nil {
		_ = w.notify.Close()
	}
}

// passed reports whether nobody watches what is called so: what tools keep for themselves.
func passed(name string) bool {
	switch name {
	case "node_modules", "__pycache__", "codrel-site":
		return true
	}
	return strings.HasPrefix(name, ".") && name != "." && name != ".gitignore" || strings.HasSuffix(name, "~")
}

// look notes all that is in a folder, but for what git ignores, and begins to watch what is in
// it.
func (w *watch) look(ctx context.Context, rel string, into map[string]stamp) {
	if rel == "." {
		w.add(".", into)
	}
	search := source.Search{
		Within: []string{rel},
		Enter: func(folder string) bool {
			if passed(path.Base(folder)) {
				return false
			}
			if rel == "." || folder == rel || strings.HasPrefix(folder, rel+"/") {
				w.add(folder, into)
			}
			return true
		},
		Wanted: func(file string) bool { return !passed(path.Base(file)) },
	}
	files, _, err := source.Find(ctx, w.files, search)
	if err != nil {
		return // the folder is gone, which is told as well
	}
	if rel == "." {
		files = append(files, w.also()...)
	}
	for _, f := range files {
		if info, err := os.Lstat(w.path(f.Path)); err == nil {
			into[f.Path] = stampOf(info)
		}
	}
}

// add notes a folder and begins to watch it.
func (w *watch) add(folder string, into map[string]stamp) {
	into[folder] = stamp{isDir: true}
	if w.notify == nil {
		return
	}
	if err := w.notify.Add(w.path(folder)); err != nil && !errors.Is(err, fs.ErrNotExist) {
		w.said(errAsking(err))
		w.close()
		w.notify = nil
	}
}

// also is what the ignore files of a folder say of it, which are hidden, and settings that lie
// elsewhere.
func (w *watch) also() (out []source.Entry) {
	out = append(out, source.Entry{Path: ".gitignore"})
	if w.settings != "" {
		out = append(out, source.Entry{Path: w.rel(w.settings)})
	}
	return out
}

func (w *watch) path(rel string) string { return filepath.Join(w.dir, filepath.FromSlash(rel)) }

func (w *watch) rel(file string) string {
	rel, err := filepath.Rel(w.dir, file)
	if err != nil {
		return "."
	}
	return filepath.ToSlash(rel)
}

func stampOf(info fs.FileInfo) stamp {
	if info.IsDir() {
		return stamp{isDir: true}
	}
	return stamp{size: info.Size(), time: info.ModTime()}
}

// next waits for changes: paths from the folder that are new, changed or gone, sorted; nil when
// the context ends. Of what ignore names nothing is said.
func (w *watch) next(ctx context.Context, ignore func(rel string) bool) []string {
	for ctx.Err() == nil {
		var changed []string
		if w.notify == nil {
			changed = w.asked(ctx)
		} else {
			changed = w.told(ctx)
		}
		changed = slices.DeleteFunc(changed, func(rel string) bool { return rel == "." || ignore(rel) })
		if len(changed) > 0 {
			return changed
		}
	}
	return nil
}

// asked looks through the folder until something has changed.
func (w *watch) asked(ctx context.Context) []string {
	select {
	case <-ctx.Done():
		return nil
	case <-time.After(w.poll):
	}
	return w.compare(ctx)
}

// compare is what differs from what is known of the folder, which is known from now on.
func (w *watch) compare(ctx context.Context) (changed []string) {
	now := map[string]stamp{}
	w.look(ctx, ".", now)
	for rel, s := range now {
		if was, ok := w.known[rel]; !ok && !s.isDir || ok && was != s {
			changed = append(changed, rel)
		}
	}
	for rel := range w.known {
		if _, ok := now[rel]; !ok {
			changed = append(changed, rel)
		}
	}
	w.known = now
	slices.Sort(changed)
	return changed
}

// told waits for what the system tells.
func (w *watch) told(ctx context.Context) []string {
	touched := map[string]bool{}
	var wait, end <-chan time.Time
	lost, waited := false, false
	for {
		select {
		case <-ctx.Done():
			return nil
		case event, ok := <-w.notify.Events:
			if !ok {
				return nil
			}
			rel := w.rel(event.Name)
			if event.Op == fsnotify.Chmod || passed(path.Base(rel)) || strings.HasPrefix(rel, "../") && event.Name != w.settings {
				continue
			}
			touched[rel] = true
			wait = time.After(quiet)
		case _, ok := <-w.notify.Errors: // more has happened than it could tell
			if !ok {
				return nil
			}
			lost = true
			wait = time.After(settled)
		case <-wait:
			if lost {
				return w.compare(ctx)
			}
			if !waited && w.unsettled(touched) {
				waited = true
				wait = time.After(settled)
				continue
			}
			return w.differ(ctx, touched)
		case <-end:
			return w.differ(ctx, touched)
		}
		if end == nil {
			end = time.After(longest)
		}
	}
}

// unsettled reports whether a file is gone or empty that was not: the second half of a save is
// likely to follow.
func (w *watch) unsettled(touched map[string]bool) bool {
	for rel := range touched {
		was, known := w.known[rel]
		info, err := os.Lstat(w.path(rel))
		if known && !was.isDir && (err != nil || was.size > 0 && info.Size() == 0) {
			return true
		}
	}
	return false
}

// differ is which of the touched paths are not as they are known: with a folder all that is or
// was in it.
func (w *watch) differ(ctx context.Context, touched map[string]bool) (changed []string) {
	for rel := range touched {
		was, known := w.known[rel]
		info, err := os.Lstat(w.path(rel))
		switch {
		case err != nil && !known:
		case err != nil:
			changed = append(changed, rel)
			delete(w.known, rel)
			for below := range w.known {
				if strings.HasPrefix(below, rel+"/") {
					changed = append(changed, below)
					delete(w.known, below)
				}
			}
		case info.IsDir() && !(known && was.isDir):
			now := map[string]stamp{}
			w.look(ctx, rel, now)
			for below, s := range now {
				w.known[below] = s
				if !s.isDir {
					changed = append(changed, below)
				}
			}
		case info.IsDir():
		default:
			w.known[rel] = stampOf(info)
			changed = append(changed, rel)
			if path.Base(rel) == ".gitignore" { // other folders may be looked into now
				w.look(ctx, ".", w.known)
			}
		}
	}
	slices.Sort(changed)
	return slices.Compact(changed)
}
