package discover

import (
	"io/fs"
	"path"
	"slices"
	"strings"

	"github.com/bmatcuk/doublestar/v4"

	"codrel/internal/lang"
	"codrel/internal/settings"
)

// tree is one entry of "read".
type tree struct {
	read     settings.Read
	top      string // the folder in which libraries are looked for
	skip     []string
	skipped  map[string]bool // by folder, as far as it was asked
	families []*sorted
}

// family is the front ends of languages whose files make libraries together.
type family struct {
	ends        []lang.FrontEnd
	skipNames   []string // of folders that are not looked into
	skipStarts  []string // beginnings of names of files and folders that are not looked at
	finder      lang.RootFinder
	markerNames []string
}

// sorted is what a tree has for a family.
type sorted struct {
	*family
	files []File
	roots []lang.Root
}

// families puts the front ends together whose languages share libraries.
func families(ends []lang.FrontEnd) (out []*family) {
	for _, end := range ends {
		i := slices.IndexFunc(out, func(f *family) bool { return f.ends[0].Habits().SameFamily(end.Habits()) })
		if i < 0 {
			f := &family{skipNames: end.SkipFolders()}
			if f.finder, _ = end.(lang.RootFinder); f.finder != nil {
				f.markerNames = f.finder.MarkerNames()
			}
			i, out = len(out), append(out, f)
		}
		out[i].ends = append(out[i].ends, end)
	}
	return out
}

// plant makes the trees that the settings ask for.
func (s *search) plant() error {
	reads := s.options.Read
	if len(reads) == 0 {
		reads = []settings.Read{{Path: "."}}
	}
	for _, read := range reads {
		info, err := fs.Stat(s.fsys, read.Path)
		if err != nil {
			return &PathError{read.Path, err}
		}
		t := &tree{read: read, top: read.Path, skipped: map[string]bool{}}
		if !info.IsDir() {
			t.top = path.Dir(read.Path)
		}
		for _, pattern := range read.Skip {
			t.skip = append(t.skip, path.Join(t.top, pattern))
		}
		for _, f := range s.families {
			if ends := asked(f.ends, read.Language); len(ends) > 0 {
				of := &family{ends, f.skipNames, nil, f.finder, f.markerNames}
				if ignorer, ok := ends[0].(lang.Ignorer); ok && !s.options.Everything {
					of.ignore(ignorer.Ignored())
				}
				t.families = append(t.families, &sorted{family: of})
			}
		}
		s.trees = append(s.trees, t)
	}
	return nil
}

// asked are the front ends of a language, or all where none is named.
func asked(ends []lang.FrontEnd, language string) (out []lang.FrontEnd) {
	for _, end := range ends {
		if language == "" || end.Habits().Language == language {
			out = append(out, end)
		}
	}
	return out
}

// ignore leaves out what has one of the names; "*" at the end stands for any rest.
func (f *family) ignore(names []string) {
	for _, name := range names {
		if start, open := strings.CutSuffix(name, "*"); open {
			f.skipStarts = append(f.skipStarts, start)
		} else {
			f.skipNames = append(slices.Clip(f.skipNames), name)
		}
	}
}

// ignores reports whether a family looks at no such file or folder: one of the folders
// between the tree's path and the file's has a name that is left out, or, where names are
// left out by their beginnings, the file itself.
func (f *family) ignores(t *tree, file string) bool {
	for file != t.read.Path && file != "." {
		if f.ignoresName(path.Base(file)) {
			return true
		}
		if file = path.Dir(file); file != t.read.Path && slices.Contains(f.skipNames, path.Base(file)) {
			return true
		}
	}
	return false
}

func (f *family) ignoresName(name string) bool {
	return slices.ContainsFunc(f.skipStarts, func(start string) bool { return strings.HasPrefix(name, start) })
}

// reads reports whether a tree reads the files of a front end.
func (t *tree) reads(end lang.FrontEnd) bool { return t.familyOf(end) != nil }

func (t *tree) familyOf(end lang.FrontEnd) *sorted {
	for _, f := range t.families {
		if slices.Contains(f.ends, end) {
			return f
		}
	}
	return nil
}

// holds reports whether a file lies in the tree.
func (t *tree) holds(file string) bool {
	return t.read.Path == "." || t.read.Path == file || strings.HasPrefix(file, t.read.Path+"/")
}

// skips reports whether a pattern of the tree leaves a file out, or a folder around it.
func (t *tree) skips(file string) bool {
	if len(t.skip) == 0 {
		return false
	}
	return t.matches(file) || t.skipsFolder(path.Dir(file))
}

func (t *tree) skipsFolder(folder string) bool {
	if folder == "." || len(t.skip) == 0 {
		return false
	}
	skips, known := t.skipped[folder]
	if !known {
		skips = t.matches(folder) || t.skipsFolder(path.Dir(folder))
		t.skipped[folder] = skips
	}
	return skips
}

func (t *tree) matches(file string) bool {
	return slices.ContainsFunc(t.skip, func(pattern string) bool {
		ok, _ := doublestar.Match(pattern, file)
		return ok
	})
}

// enters reports whether somebody wants to look into a folder.
func (s *search) enters(folder string) bool {
	return slices.ContainsFunc(s.trees, func(t *tree) bool {
		if !t.holds(folder) {
			return strings.HasPrefix(t.read.Path, folder+"/")
		}
		return folder == t.read.Path || !t.skipsFolder(folder) && slices.ContainsFunc(t.families, func(f *sorted) bool {
			return !slices.Contains(f.skipNames, path.Base(folder)) && !f.ignores(t, folder)
		})
	})
}
