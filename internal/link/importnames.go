package link

import (
	"iter"
	"slices"
	"strings"

	"codrel/internal/model"
)

// This file finds the imports of a file that a name can mean, however many it has.

// importIndex are the places of a file's imports among these.
type importIndex struct {
	named  map[string][]int32
	dotted []int32 // those whose names have dots, and those whose names come in bare
	all    []int32 // those that bring in everything
}

// fewImports is how many imports are gone through one by one.
const fewImports = 24

// importsKnownAs yields the imports that a file knows by a name, and those whose names have
// dots, in their order.
func (x *Index) importsKnownAs(f *model.Facts, name string) iter.Seq[imported] {
	imports := x.imports[f]
	if len(imports) <= fewImports {
		return slices.Values(imports)
	}
	return func(yield func(imported) bool) {
		index := x.importsIndexed(f)
		named, dotted := index.named[name], index.dotted
		for len(named)+len(dotted) > 0 {
			from := &named
			if len(named) == 0 || len(dotted) > 0 && dotted[0] < named[0] {
				from = &dotted
			}
			at := (*from)[0]
			*from = (*from)[1:]
			if !yield(imports[at]) {
				return
			}
		}
	}
}

// wholeImports yields those that bring in everything.
func (x *Index) wholeImports(f *model.Facts) iter.Seq[imported] {
	imports := x.imports[f]
	return func(yield func(imported) bool) {
		if len(imports) <= fewImports {
			for _, i := range imports {
				if i.member == "*" && !yield(i) {
					return
				}
			}
			return
		}
		for _, at := range x.importsIndexed(f).all {
			if !yield(imports[at]) {
				return
			}
		}
	}
}

func (x *Index) importsIndexed(f *model.Facts) *importIndex {
	if known, ok := x.importPlaces.Load(f); ok {
		return known.(*importIndex)
	}
	index := &importIndex{named: map[string][]int32{}}
	for at, i := range x.imports[f] {
		if strings.Contains(i.name, ".") {
			index.dotted = append(index.dotted, int32(at))
		} else {
			index.named[i.name] = append(index.named[i.name], int32(at))
		}
		if i.member == "*" {
			index.all = append(index.all, int32(at))
		}
	}
	x.importPlaces.Store(f, index)
	return index
}
