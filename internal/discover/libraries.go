package discover

import (
	"cmp"
	"fmt"
	"io/fs"
	"maps"
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// assign gives every file of a family in a tree to the library of the nearest root above it.
func (s *search) assign(t *tree, f *sorted) {
	markers := map[string]lang.Root{}
	for _, root := range f.roots {
		was := markers[root.Folder]
		sayings := model.JoinSayings(was.Sayings, root.Sayings)
		if was.Name == "" { // several may mark one folder
			root.Version = cmp.Or(was.Version, root.Version)
			was = root
		}
		was.Sayings = sayings
		markers[root.Folder] = was
	}
	if nester, ok := f.finder.(lang.Nester); ok {
		nest(nester, t.top, markers)
	}
	for _, folder := range slices.Sorted(maps.Keys(markers)) { // what parts install is installed by the whole
		part := markers[folder]
		if !part.Part || len(part.Sayings) == 0 {
			continue
		}
		at, _ := rootOf(path.Dir(folder), t.top, markers)
		if outer, marked := markers[at]; marked && at != folder {
			outer.Sayings = model.JoinSayings(outer.Sayings, slices.DeleteFunc(slices.Clone(part.Sayings), func(s model.Saying) bool { return s.Key != model.Installs && s.Key != model.InstallsPartly }))
			markers[at] = outer
		}
	}
	byFolder := map[string]*Library{}
	for _, file := range f.files {
		folder, marker := rootOf(path.Dir(file.Path), t.top, markers)
		lib := byFolder[folder]
		if lib == nil {
			lib = s.library(file.End, folder, marker)
			byFolder[folder] = lib
		}
		lib.Files = append(lib.Files, file)
	}
	for _, lib := range byFolder {
		for _, pattern := range t.read.Open {
			lib.Model.Visible = append(lib.Model.Visible, path.Join(t.top, pattern))
		}
	}
}

// nest makes roots that belong to the one around them parts of it.
func nest(nester lang.Nester, top string, markers map[string]lang.Root) {
	for _, folder := range slices.Sorted(maps.Keys(markers)) { // outer ones first
		inner := markers[folder]
		if inner.Part || folder == top || folder == "." {
			continue
		}
		at, outer := rootOf(path.Dir(folder), top, markers)
		if _, marked := markers[at]; marked && nester.PartOf(outer, inner) {
			inner.Part = true
			markers[folder] = inner
		}
	}
}

// rootOf climbs from dir to the first folder with a marker, or to the top of what is
// read. The marker of a part gives way to one further up.
func rootOf(dir, top string, markers map[string]lang.Root) (string, lang.Root) {
	var part *lang.Root
	for {
		m, ok := markers[dir]
		switch {
		case ok && !m.Part:
			return dir, m
		case ok && part == nil:
			part = &m
		}
		switch {
		case dir != top && dir != ".":
			dir = path.Dir(dir)
		case part != nil:
			return part.Folder, *part
		default:
			return top, lang.Root{Folder: top}
		}
	}
}

// library finds or makes the library with this language and folder. Its name is
// the folder's, so that it does not hang on what else the project holds; only
// the root folder's library is called as its own files say.
func (s *search) library(end lang.FrontEnd, folder string, marker lang.Root) *Library {
	habits := end.Habits()
	for _, lib := range s.libraries {
		if lib.Model.Root == folder && lib.Model.Habits.SameFamily(habits) {
			return lib
		}
	}
	name := strings.ReplaceAll(folder, "/", "-")
	if folder == "." {
		name = cmp.Or(marker.Name, s.options.Folder, "project")
	}
	lib := &Library{End: end, root: marker, Model: &model.Contents{Library: &model.Library{
		Name: s.free(name, habits.Language), Language: habits.Language, Habits: habits, Root: folder,
		Prefix: marker.Prefix, Version: marker.Version, Package: marker.Package, Imports: marker.Imports, Begins: marker.Begins, Sayings: marker.Sayings,
	}}}
	s.libraries = append(s.libraries, lib)
	return lib
}

// free is the name if no library has it yet, else with the language or a number
// behind it: "v4/mini" and "v4-mini" are two folders that would be called alike,
// and pages of two libraries must not stand at one address.
func (s *search) free(name, language string) string {
	taken := func(name string) bool {
		return slices.ContainsFunc(s.libraries, func(lib *Library) bool { return lib.Model.Name == name })
	}
	if !taken(name) {
		return name
	}
	name += "-" + language
	for n, stem := 2, name; taken(name); n++ {
		name = fmt.Sprint(stem, "-", n)
	}
	return name
}

// choose leaves out the files that are built from others, and finds what the library
// exports to users, where its language knows such things.
func (s *search) choose(lib *Library) {
	slices.SortFunc(lib.Files, func(a, b File) int { return strings.Compare(a.Path, b.Path) })
	chooser, ok := lib.End.(lang.Chooser)
	if !ok {
		s.settle(lib)
		return
	}
	choice := chooser.Choose(lib.root, s.below(lib), func(file string) []byte {
		file = path.Join(lib.Model.Root, file)
		s.asked[file] = true
		data, err := fs.ReadFile(s.fsys, file)
		if err != nil {
			return nil
		}
		return data
	})
	lib.Model.Entries, lib.Model.OwnImports, lib.Model.Skipped = choice.Entries, choice.Inside, choice.Passed
	lib.Model.Sayings = append(lib.Model.Sayings, choice.Sayings...)
	left := map[string]bool{}
	for _, f := range choice.Left {
		left[path.Join(lib.Model.Root, f)] = true
	}
	for _, f := range choice.Twins {
		left[path.Join(lib.Model.Root, f)] = !s.options.Everything
	}
	lib.Files = slices.DeleteFunc(lib.Files, func(f File) bool { return left[f.Path] })
	s.settle(lib)
}

// below are the paths of a library's files from its root, marker files among them.
func (s *search) below(lib *Library) (files []string) {
	add := func(file string) {
		if lib.Model.Root == "." {
			files = append(files, file)
		} else if rest, ok := strings.CutPrefix(file, lib.Model.Root+"/"); ok {
			files = append(files, rest)
		}
	}
	for _, f := range lib.Files {
		add(f.Path)
	}
	for _, m := range s.markers {
		add(m)
	}
	slices.Sort(files)
	return slices.Compact(files)
}

// settle says which language a library is in whose files are in several.
func (s *search) settle(lib *Library) {
	if end := mostCode(lib, s.options.FrontEnds); end != nil {
		lib.Model.Language, lib.Model.Habits, lib.End = end.Habits().Language, end.Habits(), end
	}
}

// mostCode is the front end that reads most of the code of a library, where that is more
// than what the library's own does; else nil.
func mostCode(lib *Library, ends []lang.FrontEnd) (most lang.FrontEnd) {
	bytes := map[string]int64{}
	for _, f := range lib.Files {
		if !IsTest(f) {
			bytes[f.End.Habits().Language] += f.Size + 1
		}
	}
	known := bytes[lib.Model.Language]
	for _, end := range ends {
		if p, ok := end.(lang.Prevailing); ok && p.Prevails() && bytes[end.Habits().Language] > 0 {
			return end
		}
		if size := bytes[end.Habits().Language]; size > known {
			most, known = end, size
		}
	}
	return most
}

// Resize notes a file's new size. It reports whether what was found stays the same for
// it: the language of a library of several hangs on the sizes of its files.
func (lib *Library) Resize(file string, size int64, ends []lang.FrontEnd) bool {
	i := slices.IndexFunc(lib.Files, func(f File) bool { return f.Path == file })
	if i < 0 {
		return false
	}
	lib.Files = slices.Clone(lib.Files)
	lib.Files[i].Size = size
	if _, chooses := lib.End.(lang.Chooser); !chooses {
		return true
	}
	return mostCode(lib, ends) == nil
}

// IsTest reports whether a file holds tests, as far as its path tells.
func IsTest(f File) bool {
	t, ok := f.End.(lang.TestNamer)
	return ok && t.IsTest(f.Path)
}
