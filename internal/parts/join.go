package parts

import (
	"cmp"
	"fmt"
	"reflect"
	"slices"
	"strings"

	"codrel/internal/finding"
)

// Set is the streams of one project together.
type Set struct {
	Libraries []Library
	Files     map[string][]*File // by library, in the order of their paths
	Problems  []finding.Finding
}

// Join puts streams together. Their order means nothing. It is an error where two hold the
// same file, or do not agree on a library.
func Join(list []*Part) (*Set, error) {
	list = slices.Clone(list)
	slices.SortStableFunc(list, func(a, b *Part) int {
		return cmp.Or(cmp.Compare(len(b.Libraries), len(a.Libraries)), strings.Compare(a.Name, b.Name))
	})
	s := &Set{Files: map[string][]*File{}}
	saidBy, heldBy := map[string]*Part{}, map[string]*Part{}
	for _, p := range list {
		for _, lib := range p.Libraries {
			if err := s.library(lib, p, saidBy); err != nil {
				return nil, err
			}
		}
		for _, f := range p.Files {
			if other := heldBy[f.Path]; other != nil {
				return nil, &Error{p.Name, 0, fmt.Sprintf("%s is in %s too; a file may be in one part only", f.Path, other.Name)}
			}
			heldBy[f.Path] = p
			if saidBy[f.Library] == nil {
				return nil, &Error{p.Name, 0, fmt.Sprintf("%s belongs to a library %q that no part knows", f.Path, f.Library)}
			}
			s.Files[f.Library] = append(s.Files[f.Library], f)
		}
		s.Problems = append(s.Problems, p.Problems...)
	}
	for _, files := range s.Files {
		slices.SortFunc(files, func(a, b *File) int { return strings.Compare(a.Path, b.Path) })
	}
	finding.Sort(s.Problems)
	s.Problems = finding.Unique(s.Problems)
	return s, nil
}

// library adds a library that a part knows, or compares it with what others say of it.
func (s *Set) library(lib Library, p *Part, saidBy map[string]*Part) error {
	i := slices.IndexFunc(s.Libraries, func(known Library) bool { return known.Name == lib.Name })
	if i < 0 {
		s.Libraries = append(s.Libraries, lib)
		saidBy[lib.Name] = p
		return nil
	}
	if !reflect.DeepEqual(s.Libraries[i], lib) {
		return &Error{p.Name, 0, fmt.Sprintf("it does not agree with %s on the library %q: they were made of different states of the project, or with different settings", saidBy[lib.Name].Name, lib.Name)}
	}
	return nil
}
