package lexing

import (
	"sync"
	"unsafe"

	"codrel/internal/model"
)

// Arena packs the tokens of one file's signatures. Runs of many declarations
// share its memory, since most are short. Runs may stand in one another, as the
// type of a parameter stands in its signature.
type Arena struct {
	file string
	room []byte
}

const arenaSize = 32 << 10

// leftovers holds what files left of their arenas for the next ones: a tail that
// stays unused is kept in memory as long as the runs are.
var leftovers sync.Pool

// NewArena begins an arena for a file with this text.
func NewArena(file string) *Arena {
	a := &Arena{file: file}
	if rest, ok := leftovers.Get().(*[]byte); ok {
		a.room = *rest
	}
	return a
}

// Close gives back what is left of the arena.
func (a *Arena) Close() {
	rest := a.room[len(a.room):]
	a.room = nil
	if cap(rest) > 0 {
		leftovers.Put(&rest)
	}
}

// Begin starts a signature and returns its mark.
func (a *Arena) Begin() int {
	if cap(a.room)-len(a.room) < 256 {
		a.room = make([]byte, 0, arenaSize)
	}
	return len(a.room)
}

// Mark is where the next token will stand, for a run within a signature.
func (a *Arena) Mark() int { return len(a.room) }

// Put packs a token.
func (a *Arena) Put(kind model.TokenKind, text string) {
	a.room = model.AppendToken(a.room, a.file, kind, text)
}

// Since is the run from a mark of the same signature to here. The arena may move
// while it grows, so runs that were handed out before keep their old, equal
// copy; bytes are never written twice.
func (a *Arena) Since(mark int) model.Tokens {
	run := a.room[mark:len(a.room):len(a.room)]
	return model.Tokens(unsafe.String(unsafe.SliceData(run), len(run)))
}
