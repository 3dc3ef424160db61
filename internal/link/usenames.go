package link

import (
	"iter"
	"slices"
	"strings"
	"sync"

	"codrel/internal/model"
)

// UseNames knows where the code of a project has which names. It goes from one snapshot of
// a project to the next, so that after a change one file's names are read, and not all. It
// is safe for use by several goroutines.
type UseNames struct {
	mu     sync.Mutex
	paths  map[string]int32 // numbers of files
	facts  []*model.Facts   // by number: of which the names are known
	byName map[string][]namedAt
}

// namedAt is a use of a name: the number of its file, and the use's place among those of
// that.
type namedAt struct{ file, use int32 }

// NewUseNames knows nothing yet.
func NewUseNames() *UseNames {
	return &UseNames{paths: map[string]int32{}, byName: map[string][]namedAt{}}
}

// anyName is filed where a file names things by what it calls them itself.
const anyName = ""

// usesOf are the uses that may be of some names: for each file of a list their places
// among those of the file, in order.
func (u *UseNames) usesOf(files []moduleFile, names map[string]bool, parallel func(n int, work func(int))) [][]int32 {
	u.mu.Lock()
	defer u.mu.Unlock()
	places := u.know(files, parallel)
	out := make([][]int32, len(files))
	add := func(list []namedAt) {
		for _, at := range list {
			if place := places[at.file]; place >= 0 {
				out[place] = append(out[place], at.use)
			}
		}
	}
	add(u.byName[anyName])
	for name := range names {
		add(u.byName[name])
	}
	for i, list := range out {
		slices.Sort(list)
		out[i] = slices.Compact(list)
	}
	return out
}

// know reads the names of files that are not known yet, and forgets those of files that
// are gone. It gives the places of files in the list by their numbers, or -1.
func (u *UseNames) know(files []moduleFile, parallel func(n int, work func(int))) []int32 {
	var fresh []int
	numbers := make([]int32, len(files))
	for i, file := range files {
		n, known := u.paths[file.file.Path]
		if !known {
			n = int32(len(u.facts))
			u.paths[file.file.Path], u.facts = n, append(u.facts, nil)
		}
		if numbers[i] = n; u.facts[n] != file.file {
			fresh = append(fresh, i)
		}
	}
	places := make([]int32, len(u.facts))
	for n := range places {
		places[n] = -1
	}
	for i, n := range numbers {
		places[n] = int32(i)
	}
	for n, place := range places {
		if was := u.facts[n]; was != nil && (place < 0 || files[place].file != was) {
			u.forget(int32(n), was)
		}
	}
	lists := make([][]nameUse, len(fresh))
	parallel(len(fresh), func(i int) { lists[i] = namesUsed(files[fresh[i]]) })
	for i, list := range lists {
		n := numbers[fresh[i]]
		u.facts[n] = files[fresh[i]].file
		for _, use := range list {
			u.byName[use.name] = append(u.byName[use.name], namedAt{n, use.at})
		}
	}
	return places
}

// forget takes out the names of a file.
func (u *UseNames) forget(n int32, was *model.Facts) {
	gone := map[string]bool{anyName: true}
	for i := range was.Imports {
		gone[was.Imports[i].Member] = true
	}
	if was.Inside != nil {
		for use := range was.Inside.Uses.All() {
			for name := range namesIn(use.Span.In(was.Text)) {
				gone[name] = true
			}
		}
	}
	for name := range gone {
		list := slices.DeleteFunc(u.byName[name], func(at namedAt) bool { return at.file == n })
		if len(list) == 0 {
			delete(u.byName, name)
		} else {
			u.byName[name] = list
		}
	}
	u.facts[n] = nil
}

// namesIn are the names in one with its members, whatever stands between them: "a.b", "a::b",
// "a->b".
func namesIn(name string) iter.Seq[string] {
	return strings.FieldsFuncSeq(name, func(c rune) bool { return strings.ContainsRune(".:->", c) })
}

// nameUse is a name and the use that has it, by its place among those of its file.
type nameUse struct {
	name string
	at   int32
}

// namesUsed are the names in the code of a file: those that are written, and those that
// imports have taken under others. The names are copies, since the file may go.
func namesUsed(file moduleFile) []nameUse {
	f := file.file
	if f.Inside == nil {
		return nil
	}
	own := ownNames(file)
	copies := map[string]string{}
	out := make([]nameUse, 0, f.Inside.Uses.Len())
	add := func(name string, at int32) {
		kept, known := copies[name]
		if !known {
			kept = strings.Clone(name)
			copies[kept] = kept
		}
		out = append(out, nameUse{kept, at})
	}
	at := int32(0)
	for use := range f.Inside.Uses.All() {
		for name := range namesIn(use.Span.In(f.Text)) {
			add(name, at)
			if of, renamed := own[name]; renamed {
				add(of, at)
			}
		}
		at++
	}
	return out
}

// ownNames are the names that a file has for what it imports under others: by its own name
// the other, or [anyName] where that one is not written.
func ownNames(file moduleFile) map[string]string {
	var out map[string]string
	for i := range file.file.Imports {
		in := &file.file.Imports[i]
		name := in.Name
		if name == "" {
			name = in.Assumed
		}
		if name == in.Member || in.Member == "" && in.Path != "" && !in.Whole || in.Member == "*" {
			continue // a module, or what is written
		}
		of := in.Member
		if in.Whole || in.Path == "" || of != "" && of == defaultOf(file.module) {
			of = anyName
		}
		if out == nil {
			out = map[string]string{}
		}
		if was, two := out[name]; two && was != of {
			of = anyName
		}
		out[name] = of
	}
	return out
}

// usersOfModule finds the users of what stands on the pages of a module.
func (x *Index) usersOfModule(m *model.Module) map[*model.Declaration]*UsersOf {
	shown, names := map[*model.Declaration]bool{}, map[string]bool{}
	others := x.otherNames()
	for d := range x.OnPagesOf(m) {
		if !x.InReach(d) || d.Blank() {
			continue
		}
		shown[d], names[d.Name], names[d.Written()] = true, true, true
		for _, name := range others[d] {
			names[name] = true
		}
	}
	var files []moduleFile
	var uses [][]int32
	all := x.codeFiles()
	for i, list := range x.options.UseNames.usesOf(all, names, x.parallel) {
		if len(list) > 0 {
			files, uses = append(files, all[i]), append(uses, list)
		}
	}
	found := make([][]fileUse, len(files))
	x.parallel(len(files), func(i int) {
		at, next := int32(-1), uses[i]
		resolved := x.resolveUses(files[i].module, files[i].file, func(model.Use) bool {
			if at++; len(next) == 0 || next[0] != at {
				return false
			}
			next = next[1:]
			return true
		})
		found[i] = slices.DeleteFunc(x.usedIn(files[i].file, resolved), func(use fileUse) bool { return !shown[use.of] })
	})
	return mergeUsers(files, found)
}

// findOtherNames finds the names of declarations beside their own: those under which
// modules export them, and those of what stands for them.
func (x *Index) findOtherNames() map[*model.Declaration][]string {
	out := map[*model.Declaration][]string{}
	add := func(d *model.Declaration, name string) {
		if d != nil && name != d.Name && !slices.Contains(out[d], name) {
			out[d] = append(out[d], name)
		}
	}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			for _, given := range x.Exports(m) {
				add(given.Target.Declaration, given.Name)
			}
			if !m.Renamed {
				continue
			}
			for _, d := range m.Top {
				add(x.standsFor(d, &trail{}).Declaration, d.Written())
			}
		}
	}
	return out
}
