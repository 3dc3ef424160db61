package build

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"io"
	"io/fs"
	"maps"
	"path"
	"slices"
	"strings"

	"codrel/internal/discover"
	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/parallel"
	"codrel/internal/parts"
	"codrel/internal/source"
)

// writtenTogether is how many files are read before they are written: enough for all
// workers, and few enough for the memory.
const writtenTogether = 512

// WriteParts reads the files of a project and writes what they say as a stream of facts.
// below are the paths whose files are written, from the project's root; none means all.
func WriteParts(ctx context.Context, fsys fs.FS, options Options, program string, below []string, to io.Writer) (*Snapshot, error) {
	options.Tests, options.Inside, options.sums = true, true, true
	r := newRun(ctx, fsys, options)
	r.stage("finding files", 0)
	if err := r.find(); err != nil {
		return r.snapshot, err
	}
	header := parts.Header{Program: program, Problems: r.lasting}
	files, err := r.partFiles(&header, below)
	if err != nil {
		return r.snapshot, err
	}
	out, err := parts.NewWriter(to, header)
	if err != nil {
		return r.snapshot, err
	}
	r.stage("reading", len(files))
	for done := 0; done < len(files) && err == nil; {
		some := files[done:min(done+writtenTogether, len(files))]
		err = parallel.Each(ctx, r.workers(), len(some), func(i int) { some[i].read(r) })
		for i := range some {
			if err == nil {
				err = out.File(&some[i].File)
			}
			r.snapshot.Findings = append(r.snapshot.Findings, some[i].shown...)
			r.snapshot.Stats.Files++
			r.snapshot.Stats.Bytes += some[i].Size
			some[i] = partFile{}
		}
		done += len(some)
		r.progress(done)
	}
	if err == nil {
		err = out.Close()
	}
	r.stage("", 0)
	return r.snapshot, err
}

// partFile is a file that is written to a stream.
type partFile struct {
	parts.File
	from  discover.File
	shown []finding.Finding
}

func (f *partFile) read(r *run) {
	var sum [sha256.Size]byte
	f.Facts, f.shown, sum = r.readSummed(f.from)
	if f.Facts == nil {
		f.Problems = f.shown
		return
	}
	f.Sum = hex.EncodeToString(sum[:])
}

// partFiles are the files that are written, in the order of their paths: those that are
// read, and those that the symbol stream alone has.
func (r *run) partFiles(header *parts.Header, below []string) ([]partFile, error) {
	all := newRun(r.ctx, r.fsys, r.options)
	all.options.Everything = true
	if err := all.find(); err != nil {
		return nil, err
	}
	listed := map[string]bool{}
	var files []partFile
	add := func(libraries []*discover.Library, streamOnly bool) {
		for _, lib := range libraries {
			for _, f := range lib.Files {
				if !listed[f.Path] && isBelow(f.Path, below) {
					listed[f.Path] = true
					files = append(files, partFile{from: f, File: parts.File{Path: f.Path, Library: lib.Model.Name, Size: f.Size, StreamOnly: streamOnly}})
				}
			}
		}
	}
	add(r.libraries, false)
	add(all.libraries, true)
	for _, lib := range all.libraries { // in the order of both, as builds find the libraries
		if i := slices.IndexFunc(r.libraries, func(own *discover.Library) bool { return own.Model.Name == lib.Model.Name }); i >= 0 {
			lib = r.libraries[i]
		}
		header.Libraries = append(header.Libraries, partLibrary(lib.Model.Library))
	}
	slices.SortFunc(files, func(a, b partFile) int { return strings.Compare(a.Path, b.Path) })
	return files, nil
}

func isBelow(file string, paths []string) bool {
	return len(paths) == 0 || slices.ContainsFunc(paths, func(p string) bool {
		p = path.Clean(p)
		return p == "." || p == file || strings.HasPrefix(file, p+"/")
	})
}

func partLibrary(lib *model.Library) parts.Library {
	return parts.Library{
		Name: lib.Name, Language: lib.Language, Root: lib.Root, Prefix: lib.Prefix, Version: lib.Version, Package: lib.Package,
		Entries: lib.Entries, Inside: lib.OwnImports, Imports: lib.Imports, Begins: lib.Begins, Sayings: lib.Said(), Passed: lib.Skipped, Open: lib.Visible,
	}
}

// findParts takes the libraries and files from streams of facts.
func (r *run) findParts(set *parts.Set) error {
	r.asked = map[string]bool{}
	for _, p := range set.Problems {
		r.lasts(p)
	}
	r.given = map[string]*parts.File{}
	for _, lib := range set.Libraries {
		end := r.snapshot.FrontEnds[lib.Language]
		if end == nil {
			return fmt.Errorf("the parts hold a library in %q, which this Codrel does not read", lib.Language)
		}
		own := &discover.Library{End: end, Model: &model.Contents{Library: &model.Library{
			Name: lib.Name, Language: lib.Language, Habits: end.Habits(), Root: lib.Root, Prefix: lib.Prefix, Version: lib.Version, Package: lib.Package,
			Entries: lib.Entries, OwnImports: lib.Inside, Imports: lib.Imports, Begins: lib.Begins, Sayings: lib.Sayings, Skipped: lib.Passed, Visible: lib.Open,
		}}}
		for _, f := range set.Files[lib.Name] {
			if f.StreamOnly && !r.options.Everything {
				continue
			}
			language := lib.Language
			if f.Facts != nil {
				language = f.Facts.Language
			}
			if end := r.snapshot.FrontEnds[language]; end != nil {
				r.given[f.Path] = f
				own.Files = append(own.Files, discover.File{End: end, Entry: source.Entry{Path: f.Path, Size: f.Size}})
			}
		}
		r.libraries = append(r.libraries, own)
	}
	return nil
}

// changedParts are the files that lie in the project's folder with other bytes than those
// that a stream was made of, a few of them.
func (r *run) changedParts() error {
	var changed []string
	for _, file := range slices.Sorted(maps.Keys(r.given)) {
		data, err := fs.ReadFile(r.fsys, file)
		if err != nil {
			continue // it need not be here
		}
		if sum := sha256.Sum256(data); hex.EncodeToString(sum[:]) != r.given[file].Sum && r.given[file].Sum != "" {
			changed = append(changed, file)
		}
	}
	if len(changed) == 0 {
		return nil
	}
	return &StaleParts{Files: changed}
}

// StaleParts is the error of parts that were made of other files than those in the project's
// folder.
type StaleParts struct{ Files []string }

// Error names some of the files.
func (e *StaleParts) Error() string {
	few := e.Files[:min(len(e.Files), 3)]
	more := ""
	if n := len(e.Files) - len(few); n > 0 {
		more = fmt.Sprintf(" and %d more", n)
	}
	return fmt.Sprintf("the parts are out of date: %s%s changed since; write them again with \"codrel extract --whole\"", strings.Join(few, ", "), more)
}
