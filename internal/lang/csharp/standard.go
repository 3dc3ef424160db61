package csharp

import (
	_ "embed"
	"strings"
	"sync"
)

// standardTypes are the types of the namespaces that most files use, of the platform's first
// release to its tenth: a namespace with a colon, and its types in the lines below, structures
// and enumerations with a star.
//
//go:embed standard.txt
var standardTypes string

// space is a namespace of the standard library.
type space struct{ types, values map[string]bool }

var standard = sync.OnceValue(func() map[string]space {
	all := map[string]space{}
	var in space
	for line := range strings.Lines(standardTypes) {
		if name, heads := strings.CutSuffix(line, ":\n"); heads {
			in = space{map[string]bool{}, map[string]bool{}}
			all[name] = in
			continue
		}
		for name := range strings.FieldsSeq(line) {
			name, value := strings.CutSuffix(name, "*")
			in.types[name] = true
			if value {
				in.values[name] = true
			}
		}
	}
	return all
})

// StandardNames are the types of a namespace of the standard library.
func (FrontEnd) StandardNames(space string) map[string]bool { return standard()[space].types }

// IsStandardValue reports whether a type of such a namespace is a structure or an enumeration.
func (FrontEnd) IsStandardValue(space, name string) bool { return standard()[space].values[name] }
