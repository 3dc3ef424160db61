package link

import (
	"slices"
	"strings"
	"sync"

	"codrel/internal/model"
)

// UseNames knows which files have which names in their code. It goes from one snapshot of
// a project to the next, so that after a change one file's names are read, and not all.
// What it says of files that have changed or are gone may be too much, and never too
// little. It is safe for use by several goroutines.
type UseNames struct {
	mu     sync.Mutex
	paths  map[string]int32 // numbers of files
	facts  []*model.Facts   // by number: of which the names are known
	byName map[string][]int32
}

// NewUseNames knows nothing yet.
func NewUseNames() *UseNames {
	return &UseNames{paths: map[string]int32{}, byName: map[string][]int32{}}
}

// anyName is filed where a file names things by what it calls them itself.
const anyName = ""

// filesWith are the places in a list of the files that may have one of some names, in order.
func (u *UseNames) filesWith(files []moduleFile, names map[string]bool, parallel func(n int, work func(int))) []int {
	u.mu.Lock()
	defer u.mu.Unlock()
	numbers := make([]int32, len(files)) // of files
	var fresh []int
	for i, file := range files {
		n, known := u.paths[file.file.Path]
		if !known {
			n = int32(len(u.facts))
			u.paths[file.file.Path], u.facts = n, append(u.facts, nil)
		}
		numbers[i] = n
		if u.facts[n] != file.file {
			u.facts[n] = file.file
			fresh = append(fresh, i)
		}
	}
	lists := make([][]string, len(fresh))
	parallel(len(fresh), func(i int) { lists[i] = namesUsed(files[fresh[i]]) })
	for i, list := range lists {
		n := numbers[fresh[i]]
		for _, name := range list {
			if had := u.byName[name]; len(had) == 0 || had[len(had)-1] != n && !slices.Contains(had, n) {
				u.byName[name] = append(had, n)
			}
		}
	}
	with := make([]bool, len(u.facts))
	for name := range names {
		for _, n := range u.byName[name] {
			with[n] = true
		}
	}
	for _, n := range u.byName[anyName] {
		with[n] = true
	}
	var out []int
	for i, n := range numbers {
		if with[n] {
			out = append(out, i)
		}
	}
	return out
}

// namesUsed are the names in the code of a file, each once: those that are written, and
// those that imports have taken under others.
func namesUsed(file moduleFile) []string {
	f := file.file
	if f.Inside == nil {
		return nil
	}
	own := ownNames(file)
	seen := map[string]bool{}
	for use := range f.Inside.Uses.All() {
		for name := range strings.SplitSeq(use.Span.In(f.Text), ".") {
			seen[name] = true
			if of, renamed := own[name]; renamed {
				seen[of] = true
			}
		}
	}
	out := make([]string, 0, len(seen))
	for name := range seen {
		out = append(out, name)
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
	all := x.codeFiles()
	places := x.options.UseNames.filesWith(all, names, x.parallel)
	files, found := make([]moduleFile, len(places)), make([][]fileUse, len(places))
	for i, at := range places {
		files[i] = all[at]
	}
	x.parallel(len(files), func(i int) {
		f := files[i].file
		own := ownNames(files[i])
		uses := x.resolveUses(files[i].module, f, func(use model.Use) bool {
			for name := range strings.SplitSeq(use.Span.In(f.Text), ".") {
				of, renamed := own[name]
				if names[name] || renamed && (of == anyName || names[of]) {
					return true
				}
			}
			return false
		})
		found[i] = slices.DeleteFunc(x.usedIn(f, uses), func(use fileUse) bool { return !shown[use.of] })
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
			for _, given := range x.Gives(m) {
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
