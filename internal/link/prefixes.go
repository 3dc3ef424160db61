package link

import (
	"strings"
	"sync"

	"codrel/internal/model"
)

// This file tells names of a library by what they begin with, in languages without modules: there
// the names of one library begin with the same letters, before an underscore.

// fewestOfPrefix is how many names of a library must begin alike for that to be its own, and
// shareOfPrefix one of how many of all.
const (
	fewestOfPrefix = 5
	shareOfPrefix  = 4
)

// hasOwnPrefix reports whether a name begins as the names of a module's library do, so that it is
// nobody else's.
func (x *Index) hasOwnPrefix(m *model.Module, name string) bool {
	if m == nil || m.Library.Habits == nil || !m.Library.Habits.Prefixes {
		return false
	}
	prefix := prefixOf(name)
	if prefix == "" {
		return false
	}
	find, known := x.prefixes.Load(m.Library)
	if known {
		return find.(func() map[string]bool)()[prefix]
	}
	find, _ = x.prefixes.LoadOrStore(m.Library, sync.OnceValue(func() map[string]bool { return x.ownPrefixes(m.Library) }))
	return find.(func() map[string]bool)()[prefix]
}

func (x *Index) ownPrefixes(lib *model.Library) map[string]bool {
	count, all := map[string]int{}, 0
	for _, contents := range x.Project.Libraries {
		if contents.Library != lib {
			continue
		}
		for _, m := range contents.Modules {
			for _, d := range m.Top {
				count[prefixOf(d.Name)]++
				all++
			}
		}
	}
	own := map[string]bool{}
	for prefix, n := range count {
		own[prefix] = prefix != "" && n >= fewestOfPrefix && n*shareOfPrefix >= all
	}
	return own
}

// prefixOf is what a name begins with before its first underscore, in small letters, or "".
func prefixOf(name string) string {
	prefix, _, found := strings.Cut(name, "_")
	if !found {
		return ""
	}
	return strings.ToLower(prefix)
}
