package csharp

import (
	_ "embed"
	"maps"
	"strings"
	"sync"

	"codrel/internal/lexing"
)

// standardTypes are the types of the namespaces that most files use, of the platform's first
// release to its tenth: a namespace with a colon, and its types in the lines below.
//
//go:embed standard.txt
var standardTypes string

var standard = sync.OnceValue(func() map[string]map[string]bool {
	all := map[string]map[string]bool{}
	var types map[string]bool
	for line := range strings.Lines(standardTypes) {
		if space, heads := strings.CutSuffix(line, ":\n"); heads {
			types = map[string]bool{}
			all[space] = types
			continue
		}
		maps.Copy(types, lexing.WordSet(line))
	}
	return all
})

// StandardNames are the types of a namespace of the standard library.
func (FrontEnd) StandardNames(space string) map[string]bool { return standard()[space] }
