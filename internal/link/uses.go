package link

import (
	"iter"
	"slices"
	"strings"
	"sync"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file resolves the names that code uses: the same question as that for
// types in signatures, asked a million times over. Names of one file that are
// written alike mean the same, so each is looked up once.

// FileUses is what the code of one file names.
type FileUses struct {
	Targets []Target // what is named, each once
	file    *model.Facts
	refs    []int32 // for each use: see [usesReader.to]; or -1
}

// All yields the places that name something, in order, with the index of what
// they name in Targets.
func (u *FileUses) All() iter.Seq2[source.Span, int] {
	return func(yield func(source.Span, int) bool) {
		if len(u.refs) == 0 {
			return
		}
		i := 0
		for use := range u.file.Inside.Uses.All() {
			ref := u.refs[i]
			i++
			if ref < 0 {
				continue
			}
			if names := int(ref & mostNames); names != 0 {
				use.Span.End = use.Span.Start + int32(len(firstNames(use.Span.In(u.file.Text), names)))
			}
			if !yield(use.Span, int(ref>>namesBits)) {
				return
			}
		}
	}
}

// Uses tells what the code of a file names in the project, or in another project
// whose addresses are known. There is nothing where the file's facts do not
// reach inside.
func (x *Index) Uses(m *model.Module, f *model.Facts) *FileUses {
	if known := x.used.Load(); known != nil {
		return (*known)[f]
	}
	return x.resolveUses(m, f)
}

// usesReader resolves the uses of one file.
type usesReader struct {
	x         *Index
	module    *model.Module
	file      *model.Facts
	out       *FileUses
	index     map[Target]int32 // of targets in out
	bare      map[string]int32 // references by name
	qualified map[string]int32
	members   map[memberOf]int32
	parts     []part // of a file that declares things of several modules
}

// part is where a file declares something of another module than its own.
type part struct {
	span   source.Span
	module *model.Module
}

// partsOf finds the parts of a file that are of other modules than its own.
func partsOf(own *model.Module, f *model.Facts) []part {
	var out []part
	for _, m := range own.Others {
		if !slices.Contains(m.More, f) {
			continue
		}
		for i := range f.Occurrences {
			if o := &f.Occurrences[i]; o.Parent < 0 && m.Of(f, o) != nil && own.Of(f, o) == nil {
				out = append(out, part{o.Span, m})
			}
		}
	}
	return out
}

// enter turns to the module that a place of the file is of.
func (r *usesReader) enter(own *model.Module, at int32) {
	m := own
	for _, p := range r.parts {
		if p.span.Contains(at) {
			m = p.module
		}
	}
	if m != r.module { // what names mean changes with the module
		r.module = m
		clear(r.bare)
		clear(r.qualified)
		clear(r.members)
	}
}

type memberOf struct{ owner, name string }

var usesReaders = sync.Pool{New: func() any {
	return &usesReader{index: map[Target]int32{}, bare: map[string]int32{}, qualified: map[string]int32{}, members: map[memberOf]int32{}}
}}

func (x *Index) resolveUses(m *model.Module, f *model.Facts) *FileUses {
	out := &FileUses{file: f}
	if f.Inside == nil || f.Inside.Uses.Len() == 0 {
		return out
	}
	r := usesReaders.Get().(*usesReader)
	defer usesReaders.Put(r)
	r.x, r.module, r.file, r.out = x, m, f, out
	clear(r.index)
	clear(r.bare)
	clear(r.qualified)
	clear(r.members)
	out.refs = make([]int32, 0, f.Inside.Uses.Len())
	r.parts = partsOf(m, f)
	for use := range f.Inside.Uses.All() {
		if len(r.parts) > 0 {
			r.enter(m, use.Span.Start)
		}
		out.refs = append(out.refs, r.reference(use))
	}
	return out
}

const noReference = int32(-1)

func (r *usesReader) reference(use model.Use) int32 {
	text := use.Span.In(r.file.Text)
	switch use.Form {
	case model.UseBare:
		return r.name(text)
	case model.UseQualified:
		return r.chain(text)
	case model.UseMember:
		return r.member(use.Type.In(r.file.Text), text)
	case model.UseKey:
		return r.key(use.Type.In(r.file.Text), text)
	}
	return noReference
}

// A reference of a use holds, beside the target's index, how many of the names
// that are written mean it: 0 for all of them.
const (
	namesBits = 3
	mostNames = 1<<namesBits - 1
)

// firstNames is the beginning of a chain of names.
func firstNames(chain string, names int) string {
	for i := range len(chain) {
		if chain[i] == '.' {
			if names--; names == 0 {
				return chain[:i]
			}
		}
	}
	return chain
}

// to is the reference to a target by all names that are written.
func (r *usesReader) to(t Target) int32 {
	if t.None() {
		return noReference
	}
	i, ok := r.index[t]
	if !ok {
		i = int32(len(r.out.Targets))
		r.out.Targets = append(r.out.Targets, t)
		r.index[t] = i
	}
	return i << namesBits
}

// declaration is what a reference names, or nil.
func (r *usesReader) declaration(ref int32) *model.Declaration {
	if ref < 0 || ref&mostNames != 0 {
		return nil
	}
	return r.out.Targets[ref>>namesBits].Declaration
}

func (r *usesReader) name(text string) int32 {
	ref, ok := r.bare[text]
	if !ok {
		ref = r.to(r.x.bareTarget(r.module, r.file, text))
		r.bare[text] = ref
	}
	return ref
}

// chain resolves "a.B.c": a name of an imported module, a member of a type, or
// else as many of the first names as mean something, as of a variable whose type
// is not written here.
func (r *usesReader) chain(text string) int32 {
	ref, ok := r.qualified[text]
	if ok {
		return ref
	}
	dot := strings.LastIndexByte(text, '.')
	before := text[:dot]
	outer := noReference
	if strings.IndexByte(before, '.') < 0 {
		outer = r.name(before)
	} else {
		outer = r.chain(before)
	}
	ref = noReference
	switch d := r.declaration(outer); {
	case outer >= 0 && outer&mostNames != 0: // what is before means nothing whole
	case d == nil:
		ref = r.to(r.x.Type(r.module, r.file, text))
	case d.Kind().IsType():
		ref = r.to(Target{Declaration: r.x.member(d, text[dot+1:])})
	}
	if names := 1 + int32(strings.Count(before, ".")); ref < 0 && outer >= 0 {
		ref = outer
		if outer&mostNames == 0 && names <= mostNames {
			ref |= names
		} else if outer&mostNames == 0 {
			ref = noReference
		}
	}
	r.qualified[text] = ref
	return ref
}

func (r *usesReader) member(owner, name string) int32 {
	key := memberOf{owner, name}
	ref, ok := r.members[key]
	if !ok {
		ref = noReference
		if d := r.owner(owner); d != nil {
			ref = r.to(Target{Declaration: r.x.member(d, name)})
		}
		r.members[key] = ref
	}
	return ref
}

func (r *usesReader) owner(text string) *model.Declaration {
	if strings.Contains(text, ".") {
		return r.declaration(r.chain(text))
	}
	return r.declaration(r.name(text))
}

// key resolves a key of a literal: a member of its type, else a bare name where
// the type has no members that a key could name.
func (r *usesReader) key(owner, name string) int32 {
	if ref := r.member(owner, name); ref >= 0 {
		return ref
	}
	if d := r.owner(owner); d == nil || d.Kind() == model.KindStruct {
		return noReference
	}
	return r.name(name)
}

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

// Users tells where a declaration in reach is used; nil for nowhere. The first
// call reads all code.
func (x *Index) Users(d *model.Declaration) *UsersOf { return x.users()[d] }

// FindUsers does the work of the first call of [Index.Users] ahead of it.
func (x *Index) FindUsers() { x.users() }

// moduleFile is a file whose names are resolved, with the module that it belongs to.
type moduleFile struct {
	module *model.Module
	file   *model.Facts
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
		uses[i] = x.resolveUses(jobs[i].module, jobs[i].file)
		found[i] = x.usedIn(jobs[i].file, uses[i])
	})
	used := make(map[*model.Facts]*FileUses, len(jobs))
	for i, u := range uses {
		used[jobs[i].file] = u
	}
	x.used.Store(&used)
	users := map[*model.Declaration]*UsersOf{}
	for own := range 2 { // a declaration's own module first
		for i, list := range found {
			for _, use := range list {
				if (use.of.Module == jobs[i].module) == (own == 0) {
					addUser(users, use, jobs[i].module, jobs[i].file)
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
