package sink

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"

	"github.com/bmatcuk/doublestar/v4"
)

// ManifestName is the file in a written folder that says which files are Codrel's own.
const ManifestName = "codrel-site.json"

// manifest is the content of that file.
type manifest struct {
	Writer string   `json:"writer"`
	Format int      `json:"format"`
	Files  []string `json:"files"`
}

// Folder is a folder on disk that is being written anew.
type Folder struct {
	target  string
	staging string
	keep    []string
	old     map[string]bool // files of the last build
	mu      sync.Mutex
	files   []string
	made    map[string]bool // folders in staging
	same    atomic.Int64
	refused []Refused
}

// Refused is a file that the file system takes under no such name.
type Refused struct {
	Path string
	Err  error
}

// ForeignError is a target folder that holds files which are not Codrel's.
type ForeignError struct {
	Folder string
	Files  []string // some of them, at most three
	More   int
}

// Error names the files and the ways out.
func (e *ForeignError) Error() string {
	list := strings.Join(e.Files, ", ")
	if e.More > 0 {
		list += fmt.Sprintf(" and %d more", e.More)
	}
	return fmt.Sprintf("%s holds files that Codrel did not write (%s); "+
		"choose another folder with --out, or name the files that may stay under \"write: keep:\"", e.Folder, list)
}

// Open prepares to write a folder. keep are patterns of foreign files in it that
// stay. Leftovers of a build that was killed are cleared away, and a folder that
// it had moved aside is put back. Nothing of the target is changed before Commit.
func Open(target string, keep []string) (*Folder, error) {
	target, err := filepath.Abs(target)
	if err != nil {
		return nil, err
	}
	f := &Folder{target: target, keep: keep, old: map[string]bool{}, made: map[string]bool{}}
	if err := os.MkdirAll(filepath.Dir(target), 0o755); err != nil {
		return nil, f.cannotWrite(err)
	}
	if err := f.recover(); err != nil {
		return nil, err
	}
	if err := f.inspect(); err != nil {
		return nil, err
	}
	f.staging = f.beside("new", strconv.Itoa(os.Getpid()))
	if err := os.Mkdir(f.staging, 0o755); err != nil {
		return nil, f.cannotWrite(err)
	}
	return f, nil
}

// cannotWrite says an error of the file system without the helper folders that
// nobody asked for.
func (f *Folder) cannotWrite(err error) error {
	var p *fs.PathError
	if errors.As(err, &p) {
		err = p.Err
	}
	return fmt.Errorf("cannot write to %s: %w", f.target, err)
}

// beside is the path of a helper folder next to the target.
func (f *Folder) beside(what, id string) string {
	return filepath.Join(filepath.Dir(f.target), "."+filepath.Base(f.target)+".codrel-"+what+"-"+id)
}

// recover clears what a killed build left. Folders of builds that still run are left alone.
func (f *Folder) recover() error {
	dir, prefix := filepath.Dir(f.target), "."+filepath.Base(f.target)+".codrel-"
	entries, err := os.ReadDir(dir)
	if err != nil {
		return err
	}
	for _, e := range entries {
		rest, ok := strings.CutPrefix(e.Name(), prefix)
		if !ok {
			continue
		}
		what, id, _ := strings.Cut(rest, "-")
		pid, err := strconv.Atoi(id)
		if err != nil || what != "new" && what != "old" || pid != os.Getpid() && alive(pid) {
			continue
		}
		left := filepath.Join(dir, e.Name())
		if _, err := os.Lstat(f.target); what == "old" && errors.Is(err, fs.ErrNotExist) {
			if err := os.Rename(left, f.target); err != nil {
				return err
			}
			continue
		}
		if err := os.RemoveAll(left); err != nil {
			return err
		}
	}
	return nil
}

// inspect reads which files of the target are Codrel's and refuses a folder
// that holds others.
func (f *Folder) inspect() error {
	info, err := os.Stat(f.target)
	if errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	if err != nil {
		return err
	}
	if !info.IsDir() {
		return fmt.Errorf("%s is a file, not a folder; choose another place with --out", f.target)
	}
	if m := manifestOf(f.target); m != nil {
		f.old[ManifestName] = true
		for _, p := range m.Files {
			f.old[p] = true
		}
	}
	return f.foreign()
}

// manifestOf is the manifest of a site, or nil where there is none.
func manifestOf(target string) *manifest {
	data, err := os.ReadFile(filepath.Join(target, ManifestName))
	var m manifest
	if err != nil || json.Unmarshal(data, &m) != nil || m.Writer != "codrel" {
		return nil
	}
	return &m
}

// IsSite reports whether a folder is a site that was written before.
func IsSite(target string) bool { return manifestOf(target) != nil }

func (f *Folder) foreign() error {
	refused := &ForeignError{Folder: f.target}
	err := filepath.WalkDir(f.target, func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		rel, _ := filepath.Rel(f.target, p)
		rel = filepath.ToSlash(rel)
		switch {
		case f.old[rel]:
		case f.kept(rel):
		case len(refused.Files) == 3:
			refused.More++
		default:
			refused.Files = append(refused.Files, rel)
		}
		return nil
	})
	if err != nil {
		return err
	}
	if len(refused.Files) > 0 {
		return refused
	}
	return nil
}

func (f *Folder) kept(rel string) bool {
	for _, pattern := range f.keep {
		if ok, _ := doublestar.Match(pattern, rel); ok {
			return true
		}
	}
	return false
}

// Put stages one file. Where the target has the same bytes already, the file
// is linked instead of written, so that its time stamp stays. A file whose name the file
// system refuses is left out and kept for [Folder.Refused].
func (f *Folder) Put(p string, data []byte) error {
	err := f.put(p, data)
	if err == nil || !ofName(err) {
		return err
	}
	f.mu.Lock()
	f.refused = append(f.refused, Refused{p, err})
	f.mu.Unlock()
	return nil
}

// ofName reports whether an error is of the name of a file, and the next file may be written.
func ofName(err error) bool {
	for _, of := range []syscall.Errno{syscall.ENAMETOOLONG, syscall.EINVAL, syscall.EILSEQ, syscall.ELOOP, syscall.ENOTDIR, syscall.EISDIR} {
		if errors.Is(err, of) {
			return true
		}
	}
	var code syscall.Errno
	const invalidName, tooLong = 123, 206 // of Windows
	return runtime.GOOS == "windows" && errors.As(err, &code) && (code == invalidName || code == tooLong)
}

// Refused are the files that were left out, sorted.
func (f *Folder) Refused() []Refused {
	f.mu.Lock()
	defer f.mu.Unlock()
	slices.SortFunc(f.refused, func(a, b Refused) int { return strings.Compare(a.Path, b.Path) })
	return f.refused
}

func (f *Folder) put(p string, data []byte) error {
	if !filepath.IsLocal(filepath.FromSlash(p)) {
		return fmt.Errorf("the page address %q leaves the site", p)
	}
	if err := f.folder(path.Dir(p)); err != nil {
		return err
	}
	staged := filepath.Join(f.staging, filepath.FromSlash(p))
	if f.old[p] && f.link(p, staged, data) {
		f.same.Add(1)
	} else if err := os.WriteFile(staged, data, 0o644); err != nil {
		return err
	}
	f.mu.Lock()
	f.files = append(f.files, p)
	f.mu.Unlock()
	return nil
}

func (f *Folder) link(p, staged string, data []byte) bool {
	before := filepath.Join(f.target, filepath.FromSlash(p))
	info, err := os.Lstat(before)
	if err != nil || !info.Mode().IsRegular() || info.Size() != int64(len(data)) {
		return false
	}
	was, err := os.ReadFile(before)
	return err == nil && bytes.Equal(was, data) && os.Link(before, staged) == nil
}

func (f *Folder) folder(dir string) error {
	f.mu.Lock()
	defer f.mu.Unlock()
	if f.made[dir] {
		return nil
	}
	if err := os.MkdirAll(filepath.Join(f.staging, filepath.FromSlash(dir)), 0o755); err != nil {
		return err
	}
	f.made[dir] = true
	return nil
}

// Files is the number of files that were put.
func (f *Folder) Files() int {
	f.mu.Lock()
	defer f.mu.Unlock()
	return len(f.files)
}

// Unchanged is the number of files that were the same before.
func (f *Folder) Unchanged() int { return int(f.same.Load()) }

// Discard takes the staged files away. It does nothing after Commit.
func (f *Folder) Discard() error {
	if f.staging == "" {
		return nil
	}
	err := os.RemoveAll(f.staging)
	f.staging = ""
	return err
}

// Commit puts the staged folder in the target's place.
func (f *Folder) Commit() error {
	slices.Sort(f.files)
	data, err := json.MarshalIndent(manifest{Writer: "codrel", Format: 1, Files: f.files}, "", " ")
	if err != nil {
		return err
	}
	// The manifest names itself nowhere, so the list of files stays the same.
	if err := os.WriteFile(filepath.Join(f.staging, ManifestName), append(data, '\n'), 0o644); err != nil {
		return err
	}
	if err := f.carry(); err != nil {
		return err
	}
	if err := f.exchange(); err != nil {
		return err
	}
	return f.Discard()
}

// carry takes the foreign files that stay into the staged folder.
func (f *Folder) carry() error {
	if len(f.keep) == 0 {
		return nil
	}
	if _, err := os.Stat(f.target); errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	return filepath.WalkDir(f.target, func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		rel, _ := filepath.Rel(f.target, p)
		if !f.kept(filepath.ToSlash(rel)) {
			return nil
		}
		to := filepath.Join(f.staging, rel)
		if _, err := os.Lstat(to); err == nil {
			return nil // a page of this name exists now; it wins
		}
		if err := os.MkdirAll(filepath.Dir(to), 0o755); err != nil {
			return err
		}
		return linkOrCopy(p, to)
	})
}

func linkOrCopy(from, to string) error {
	if os.Link(from, to) == nil {
		return nil
	}
	data, err := os.ReadFile(from)
	if err != nil {
		return err
	}
	return os.WriteFile(to, data, 0o644)
}

// exchange swaps the staged folder and the target: by one atomic rename where
// the system has one, else by two, which [Open] can put right if it is killed
// between them; and file by file where the target cannot be renamed at all.
func (f *Folder) exchange() error {
	if _, err := os.Lstat(f.target); errors.Is(err, fs.ErrNotExist) {
		return f.moveIn()
	}
	if f.swap() == nil {
		return nil // staging now holds the old site, and Discard removes it
	}
	return f.twoRenames()
}

func (f *Folder) twoRenames() error {
	aside := f.beside("old", strconv.Itoa(os.Getpid()))
	if err := os.Rename(f.target, aside); err != nil {
		return f.fileByFile()
	}
	if err := f.moveIn(); err != nil {
		return errors.Join(err, os.Rename(aside, f.target))
	}
	return os.RemoveAll(aside)
}

func (f *Folder) moveIn() error {
	if err := os.Rename(f.staging, f.target); err != nil {
		return err
	}
	f.staging = ""
	return nil
}

// fileByFile writes into a target that is a mount point: new and changed files
// first, each by a rename inside the target, deletions last.
func (f *Folder) fileByFile() error {
	fresh := map[string]bool{}
	err := filepath.WalkDir(f.staging, func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		rel, _ := filepath.Rel(f.staging, p)
		fresh[filepath.ToSlash(rel)] = true
		return replaceFile(p, filepath.Join(f.target, rel))
	})
	if err != nil {
		return err
	}
	for p := range f.old {
		if !fresh[p] {
			if err := os.Remove(filepath.Join(f.target, filepath.FromSlash(p))); err != nil && !errors.Is(err, fs.ErrNotExist) {
				return err
			}
		}
	}
	return nil
}

func replaceFile(from, to string) error {
	data, err := os.ReadFile(from)
	if err != nil {
		return err
	}
	if was, err := os.ReadFile(to); err == nil && bytes.Equal(was, data) {
		return nil
	}
	if err := os.MkdirAll(filepath.Dir(to), 0o755); err != nil {
		return err
	}
	part := to + ".codrel-part"
	if err := os.WriteFile(part, data, 0o644); err != nil {
		return errors.Join(err, os.Remove(part))
	}
	return os.Rename(part, to)
}
