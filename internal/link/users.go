package link

import (
	"slices"
	"sync"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file turns uses round: for each declaration, where it is used.

// UsedIn is the places of one file that use a declaration.
type UsedIn struct {
	Module *model.Module
	File   *model.Facts
	Lines  []int32 // the first few, ascending, each once
	Count  int     // of all lines
}

const (
	mostUsingFiles = 50 // files that are remembered of a declaration
	mostUsingLines = 12 // lines that are remembered of a file
)

// UsersOf is where the code of the project uses a declaration.
type UsersOf struct {
	Files []UsedIn // at most 50: those of its own module first, then in the order of the project
	Lines int      // in all files
	Count int      // of all files
}

// Users tells where a declaration in reach is used; nil for nowhere. Where [Index.FindUsers]
// was not called before, the code is read that has the names of what stands on the pages
// of the declaration's module.
func (x *Index) Users(d *model.Declaration) *UsersOf {
	if x.used.Load() != nil {
		return x.users()[d]
	}
	m := x.Home(d)
	known, ok := x.usersOn.Load(m)
	if !ok {
		known, _ = x.usersOn.LoadOrStore(m, sync.OnceValue(func() map[*model.Declaration]*UsersOf { return x.usersOfModule(m) }))
	}
	return known.(func() map[*model.Declaration]*UsersOf)()[d]
}

// FindUsers finds the users of all declarations: who asks for many of them asks for this first.
func (x *Index) FindUsers() { x.users() }

// moduleFile is a file whose names are resolved, with the module that it belongs to.
type moduleFile struct {
	module *model.Module
	file   *model.Facts
}

// ModuleOf is the module that a file is one of, or nil.
func (x *Index) ModuleOf(f *model.Facts) *model.Module { return x.fileModules()[f] }

// modulesOfFiles are the modules that files are one of: the first one of each.
func (x *Index) modulesOfFiles() map[*model.Facts]*model.Module {
	out := map[*model.Facts]*model.Module{}
	for _, lib := range x.Project.Libraries {
		for _, m := range slices.Concat(lib.Modules, lib.Tests) {
			for _, f := range m.Files {
				if out[f] == nil {
					out[f] = m
				}
			}
		}
	}
	return out
}

// filesOf lists the files of some modules of every library.
func (x *Index) filesOf(modules func(*model.Contents) []*model.Module) []moduleFile {
	var files []moduleFile
	for _, lib := range x.Project.Libraries {
		for _, m := range modules(lib) {
			for _, f := range m.Files {
				files = append(files, moduleFile{m, f})
			}
		}
	}
	return files
}

func (x *Index) findUsers() map[*model.Declaration]*UsersOf {
	jobs := x.filesOf(func(lib *model.Contents) []*model.Module { return lib.Modules })
	found, uses := make([][]fileUse, len(jobs)), make([]*FileUses, len(jobs))
	x.parallel(len(jobs), func(i int) {
		uses[i] = x.resolveUses(jobs[i].module, jobs[i].file, allUses)
		found[i] = x.usedIn(jobs[i].file, uses[i])
	})
	used := make(map[*model.Facts]*FileUses, len(jobs))
	for i, u := range uses {
		used[jobs[i].file] = u
	}
	x.used.Store(&used)
	return mergeUsers(jobs, found)
}

// mergeUsers puts together what each of several files uses.
func mergeUsers(files []moduleFile, found [][]fileUse) map[*model.Declaration]*UsersOf {
	users := map[*model.Declaration]*UsersOf{}
	for own := range 2 { // a declaration's own module first
		for i, list := range found {
			for _, use := range list {
				if (use.of.Module == files[i].module) == (own == 0) {
					addUser(users, use, files[i].module, files[i].file)
				}
			}
		}
	}
	return users
}

func addUser(users map[*model.Declaration]*UsersOf, use fileUse, m *model.Module, f *model.Facts) {
	u := users[use.of]
	if u == nil {
		u = &UsersOf{}
		users[use.of] = u
	}
	u.Count++
	u.Lines += use.count
	if len(u.Files) < mostUsingFiles {
		u.Files = append(u.Files, UsedIn{Module: m, File: f, Lines: use.lines, Count: use.count})
	}
}

// fileUse is what one file uses of one declaration.
type fileUse struct {
	of    *model.Declaration
	lines []int32
	count int
	last  int32
}

// declaredAt reports whether a span is where a file declares a declaration: to give a
// name a value is no use of it.
func declaredAt(d *model.Declaration, f *model.Facts, span source.Span) bool {
	if len(d.Occurrences) > mostDeclared {
		return false
	}
	for i := range d.Occurrences {
		if o := &d.Occurrences[i]; o.File == f && o.NameSpan == span {
			return true
		}
	}
	return false
}

// mostDeclared bounds how many occurrences are looked through for each use.
const mostDeclared = 8

func (x *Index) usedIn(f *model.Facts, uses *FileUses) []fileUse {
	found := make([]fileUse, len(uses.Targets))
	for i, t := range uses.Targets {
		if d := t.Declaration; d != nil && x.InReach(d) && !d.Blank() {
			found[i].of = d
		}
	}
	line := int32(1)
	for span, i := range uses.All() {
		use := &found[i]
		if use.of == nil {
			continue
		}
		for f.Lines.Start(int(line)+1) <= span.Start && int(line) < f.Lines.Count() {
			line++
		}
		if use.last == line || declaredAt(use.of, f, span) {
			continue
		}
		use.last = line
		use.count++
		if len(use.lines) < mostUsingLines {
			use.lines = append(use.lines, line)
		}
	}
	return slices.DeleteFunc(found, func(u fileUse) bool { return u.count == 0 })
}
