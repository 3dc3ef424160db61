package lexing

import (
	"slices"
	"sync"

	"codrel/internal/model"
)

// gathered holds room that was used before, since nobody knows how many
// occurrences a file has before it is read.
var gathered = sync.Pool{New: func() any { return new([]model.Occurrence) }}

// Gather lets read collect the occurrences of a file in facts.Occurrences, with
// room for many, and leaves facts with as much of it as they need.
func Gather(facts *model.Facts, read func()) {
	room := gathered.Get().(*[]model.Occurrence)
	facts.Occurrences = (*room)[:0]
	read()
	full := facts.Occurrences
	facts.Occurrences = slices.Clip(slices.Clone(full))
	clear(full) // what they point to is not kept
	*room = full[:0]
	gathered.Put(room)
}
