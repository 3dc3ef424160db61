package link

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file resolves the names that code uses: the same question as that for
// types in signatures, asked a million times over. Names of one file that are
// written alike mean the same, so each is looked up once.

// Used is one place in a file that names a declaration or a module.
type Used struct {
	Span   source.Span
	Target Target
}

// usesReader resolves the uses of one file.
type usesReader struct {
	x         *Index
	module    *model.Module
	file      *model.Facts
	bare      map[string]Target
	qualified map[string]qualifiedUse
	members   map[memberOf]Target
}

type memberOf struct{ owner, name string }

type qualifiedUse struct {
	target Target
	first  bool // the name before the dot alone has this meaning
}

// Uses yields the places of a file that name something of the project, or of
// another project whose addresses are known, in order. There are none where the
// file's facts do not reach inside.
func (x *Index) Uses(m *model.Module, f *model.Facts, yield func(Used)) {
	if f.Inside == nil {
		return
	}
	r := usesReader{
		x: x, module: m, file: f, bare: map[string]Target{}, qualified: map[string]qualifiedUse{}, members: map[memberOf]Target{},
	}
	for use := range f.Inside.Uses.All() {
		used := Used{Span: use.Span}
		switch use.Form {
		case model.UseBare:
			used.Target = r.name(use.Span.In(f.Text))
		case model.UseQualified:
			text := use.Span.In(f.Text)
			q := r.pair(text)
			if used.Target = q.target; q.first {
				used.Span.End = used.Span.Start + int32(strings.IndexByte(text, '.'))
			}
		case model.UseMember:
			used.Target = r.member(use.Type.In(f.Text), use.Span.In(f.Text))
		case model.UseKey:
			used.Target = r.key(use.Type.In(f.Text), use.Span.In(f.Text))
		}
		if !used.Target.None() {
			yield(used)
		}
	}
}

func (r *usesReader) name(text string) Target {
	t, ok := r.bare[text]
	if !ok {
		t = Target{Declaration: r.x.bare(r.module, r.file, text)}
		r.bare[text] = t
	}
	return t
}

// pair resolves "a.B": a name of an imported module, a member of a type, or else
// "a" alone, as of a variable whose type is not written here.
func (r *usesReader) pair(text string) qualifiedUse {
	q, ok := r.qualified[text]
	if ok {
		return q
	}
	first, second, _ := strings.Cut(text, ".")
	switch own := r.name(first); {
	case own.Declaration == nil:
		q.target = r.x.Type(r.module, r.file, text)
	case own.Declaration.Kind().IsType():
		q.target.Declaration = r.x.member(own.Declaration, second)
	}
	if q.target.None() {
		q = qualifiedUse{target: r.name(first), first: true}
	}
	r.qualified[text] = q
	return q
}

func (r *usesReader) member(owner, name string) Target {
	key := memberOf{owner, name}
	t, ok := r.members[key]
	if !ok {
		if d := r.owner(owner); d != nil {
			t.Declaration = r.x.member(d, name)
		}
		r.members[key] = t
	}
	return t
}

func (r *usesReader) owner(text string) *model.Declaration {
	if !strings.Contains(text, ".") {
		return r.name(text).Declaration
	}
	if q := r.pair(text); !q.first {
		return q.target.Declaration
	}
	return nil
}

// key resolves a key of a literal: a member of its type, else a bare name where
// the type has no members that a key could name.
func (r *usesReader) key(owner, name string) Target {
	if t := r.member(owner, name); !t.None() {
		return t
	}
	if d := r.owner(owner); d == nil || d.Kind() == model.KindStruct {
		return Target{}
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

func (x *Index) findUsers() map[*model.Declaration]*UsersOf {
	type job struct {
		module *model.Module
		file   *model.Facts
	}
	var jobs []job
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			for _, f := range m.Files {
				jobs = append(jobs, job{m, f})
			}
		}
	}
	found := make([][]fileUse, len(jobs))
	x.parallel(len(jobs), func(i int) { found[i] = x.usedIn(jobs[i].module, jobs[i].file) })
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

func (x *Index) usedIn(m *model.Module, f *model.Facts) []fileUse {
	var out []fileUse
	at := map[*model.Declaration]int{}
	line := int32(1)
	x.Uses(m, f, func(u Used) {
		d := u.Target.Declaration
		if d == nil || !x.InReach(d) || d.Name == "_" {
			return
		}
		for f.Lines.Start(int(line)+1) <= u.Span.Start && int(line) < f.Lines.Count() {
			line++
		}
		i, ok := at[d]
		if !ok {
			i = len(out)
			at[d] = i
			out = append(out, fileUse{of: d})
		}
		use := &out[i]
		if use.last == line {
			return
		}
		use.last = line
		use.count++
		if len(use.lines) < mostUsingLines {
			use.lines = append(use.lines, line)
		}
	})
	return out
}
