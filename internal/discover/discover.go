// Package discover owns which files of a project are read, by which front end, and to
// which library each belongs.
//
// It walks the tree once for all languages and all entries of "read", and gives each file
// one owner. It looks into files only where their names leave the owner open, and reads
// the manifests that mark libraries; what files declare it does not know.
package discover

import (
	"context"
	"io/fs"
	"path"
	"slices"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/settings"
	"codrel/internal/source"
)

// Options is what a search is told.
type Options struct {
	FrontEnds []lang.FrontEnd
	Read      []settings.Read // the trees to read; none means everything
	Site      string          // the folder of the site, which is never read; "" where it lies elsewhere
	Folder    string          // name of the project's folder, which an fs.FS does not know
	// Everything includes files that the languages' own tools leave out, and those that
	// say the same as others.
	Everything bool
}

// Found is what a search found.
type Found struct {
	Libraries []*Library // in the order of the entries of "read"; those without files too
	Problems  []Problem  // what could not be looked at
	// Asked are the files whose contents decided which files are read, and how.
	Asked map[string]bool
}

// Library is a library with the files that are read for it.
type Library struct {
	Model *model.Contents
	End   lang.FrontEnd // of the language that most of its code is in
	Files []File        // by their paths
	root  lang.Root
}

// File is one file to read.
type File struct {
	source.Entry
	End    lang.FrontEnd
	Macros map[string]string // what words of it stand for, by the settings
	Plain  bool              // any comments before declarations speak of them
}

// Problem is a path that could not be looked at.
type Problem struct {
	source.Problem
	Named bool // it has the name of a file that would be read
}

// PathError is the error of an entry of "read" whose path cannot be looked at.
type PathError struct {
	Path string
	Err  error
}

// Error names the path and the reason.
func (e *PathError) Error() string { return e.Path + ": " + e.Err.Error() }

// Unwrap is the error of the file system.
func (e *PathError) Unwrap() error { return e.Err }

// search is one call of [Find].
type search struct {
	fsys      fs.FS
	options   Options
	families  []*family
	owners    *owners
	trees     []*tree
	markers   []string // the files that mark libraries
	libraries []*Library
	asked     map[string]bool
	unsound   []Problem // marker files that cannot be read
}

// Find searches a project. The error is the context's, or a [PathError].
func Find(ctx context.Context, fsys fs.FS, options Options) (*Found, error) {
	s := &search{fsys: fsys, options: options, families: families(options.FrontEnds), asked: map[string]bool{}}
	s.owners = newOwners(fsys, options.FrontEnds, s.asked)
	if err := s.plant(); err != nil {
		return nil, err
	}
	want := source.Search{Enter: s.enters}
	for _, t := range s.trees {
		want.Within = append(want.Within, t.read.Path)
	}
	if options.Site != "" {
		want.Skip = []string{options.Site}
	}
	entries, problems, err := source.Find(ctx, fsys, want)
	if err != nil {
		return nil, &PathError{".", err}
	}
	found := &Found{}
	s.sort(entries)
	for _, t := range s.trees {
		for _, f := range t.families {
			s.assign(t, f)
		}
	}
	for _, lib := range s.libraries {
		s.choose(lib)
	}
	for _, p := range problems {
		end := s.owners.byName(p.Path)
		found.Problems = append(found.Problems, Problem{p, end != nil && s.treeOf(p.Path, end) != nil && (!p.Link || s.reads(end))})
	}
	found.Problems = append(found.Problems, s.unsound...)
	found.Libraries, found.Asked = s.libraries, s.asked
	return found, ctx.Err()
}

// sort puts each file into the tree and the family that it is read for, and the marker
// files into all trees around them.
func (s *search) sort(entries []source.Entry) {
	s.owners.know(entries)
	for _, e := range entries {
		s.mark(e.Path)
		if end := s.forced(e.Path); end != nil {
			s.put(File{Entry: e, End: end})
		} else if end := s.owners.of(e); end != nil {
			s.put(File{Entry: e, End: end})
		}
	}
}

// forced is the front end that the settings name for a file, or nil: for the file itself, or for
// the folder where the ending is that of several languages.
func (s *search) forced(file string) lang.FrontEnd {
	var inner *tree
	for _, t := range s.trees {
		if t.read.Path == file && t.read.Language != "" {
			return t.families[0].ends[0]
		}
		if t.holds(file) && (inner == nil || len(t.read.Path) > len(inner.read.Path) || inner.read.Path == ".") {
			inner = t
		}
	}
	if inner == nil || inner.read.Language == "" || len(inner.families) == 0 {
		return nil
	}
	end := inner.families[0].ends[0]
	if slices.Contains(s.owners.shared[path.Ext(file)], end) {
		return end
	}
	return nil
}

// put gives a file to the innermost tree around it that reads its language. What that
// tree skips no other one reads.
func (s *search) put(f File) {
	inner := s.treeOf(f.Path, f.End)
	if inner == nil {
		return
	}
	family := inner.familyOf(f.End)
	if !inner.skips(f.Path) && !family.ignores(inner, f.Path) {
		f.Macros, f.Plain = inner.read.Macros, inner.read.Plain
		family.files = append(family.files, f)
	}
}

// reads reports whether any library has files of a language.
func (s *search) reads(end lang.FrontEnd) bool {
	return slices.ContainsFunc(s.libraries, func(lib *Library) bool {
		return slices.ContainsFunc(lib.Files, func(f File) bool { return f.End == end })
	})
}

// treeOf is the innermost tree that reads a file of a language, or nil.
func (s *search) treeOf(file string, end lang.FrontEnd) (inner *tree) {
	for _, t := range s.trees {
		if t.reads(end) && t.holds(file) && (inner == nil || len(t.read.Path) > len(inner.read.Path) || inner.read.Path == ".") {
			inner = t
		}
	}
	return inner
}

// mark notes a file that marks a library.
func (s *search) mark(file string) {
	marks := false
	for _, t := range s.trees {
		for _, f := range t.families {
			if f.finder == nil || !lang.IsMarker(f.markerNames, path.Base(file)) || s.owners.byName(file) != nil ||
				!t.holds(file) || t.skips(file) || f.ignores(t, file) {
				continue
			}
			marks, s.asked[file] = true, true
			if root, ok := lang.ReadMarker(s.fsys, f.finder, file); ok {
				f.roots = append(f.roots, root)
			} else if judge, knows := f.finder.(lang.MarkerJudge); knows && !slices.ContainsFunc(s.unsound, func(p Problem) bool { return p.Path == file }) {
				if data, err := fs.ReadFile(s.fsys, file); err == nil {
					if err := judge.MarkerProblem(data); err != nil {
						s.unsound = append(s.unsound, Problem{source.Problem{Path: file, Err: err}, true})
					}
				}
			}
		}
	}
	if marks {
		s.markers = append(s.markers, file)
	}
}
