package comment

import (
	"iter"
	"sync"
	"unsafe"

	"codrel/internal/model"
	"codrel/internal/prose"
)

// mostKept bounds the prose that a [Table] keeps, in bytes: about what the largest trees
// that we know have, and a small part of what a project of a million comments would take.
const mostKept = 64 << 20

// Table holds the sections of doc comments, by the files they stand in. What is more than
// it keeps is let go, the files that were read first before others, and read again where it
// is asked for. It is safe for use by several goroutines.
type Table struct {
	mu    sync.RWMutex
	files map[*model.Facts]*fileTable
	own   map[string]prose.Vocabulary // by language
	most  int                         // bytes of prose that are kept, about
	kept  int                         // bytes of prose that there are
	order []*fileTable                // those that have some, the first read first
	has   map[*fileTable]bool         // the same
}

// fileTable holds the sections of the comments of one file.
type fileTable struct {
	mu     sync.RWMutex
	byDoc  map[*model.Doc]*Sections
	weight int // bytes of prose
}

// NewTable makes an empty table. own says, by language, what words of the
// maintainer's mean.
func NewTable(own map[string]prose.Vocabulary) *Table {
	return &Table{files: map[*model.Facts]*fileTable{}, has: map[*fileTable]bool{}, own: own, most: mostKept}
}

// With is a table that knows what this one does of some files, and nothing of others: what
// is known of a file goes with it.
func (t *Table) With(files iter.Seq[*model.Facts]) *Table {
	out := NewTable(t.own)
	out.most = t.most
	t.mu.RLock()
	defer t.mu.RUnlock()
	for f := range files {
		if known := t.files[f]; known != nil {
			out.files[f] = known
			out.order, out.has[known] = append(out.order, known), true
			known.mu.RLock()
			out.kept += known.weight
			known.mu.RUnlock()
		}
	}
	return out
}

// Of returns the sections of a comment of a file in a language, reading it the first time.
// A nil comment has no text.
func (t *Table) Of(habits *model.Habits, f *model.Facts, doc *model.Doc) *Sections {
	if doc == nil {
		return &nothing
	}
	of := t.of(f)
	if s := of.sections(doc); s != nil {
		return s
	}
	var own prose.Vocabulary
	if habits != nil {
		own = t.own[habits.Language]
	}
	s, added := of.keep(doc, Read(habits, doc, own))
	t.grow(of, added)
	return s
}

// Select returns the sections of the part of a comment that a path finds. It is not kept: few
// comments take parts of others.
func (t *Table) Select(habits *model.Habits, doc *model.Doc, path string) *Sections {
	var own prose.Vocabulary
	if habits != nil {
		own = t.own[habits.Language]
	}
	return Select(habits, doc, path, own)
}

// nothing is said by a comment that is not there.
var nothing Sections

// of is the table of a file.
func (t *Table) of(f *model.Facts) *fileTable {
	t.mu.RLock()
	known := t.files[f]
	t.mu.RUnlock()
	if known != nil {
		return known
	}
	t.mu.Lock()
	defer t.mu.Unlock()
	if t.files[f] == nil {
		t.files[f] = &fileTable{}
	}
	return t.files[f]
}

// grow notes that a file's table has more than before, and lets go what is too much.
func (t *Table) grow(of *fileTable, added int) {
	if added == 0 {
		return
	}
	t.mu.Lock()
	defer t.mu.Unlock()
	if !t.has[of] {
		t.order, t.has[of] = append(t.order, of), true
	}
	for t.kept += added; t.kept > t.most; {
		if len(t.order) == 0 {
			t.kept = 0 // another table that had some of the files let them go
			return
		}
		t.kept -= t.order[0].forget()
		delete(t.has, t.order[0])
		t.order = t.order[1:]
	}
}

func (t *fileTable) sections(doc *model.Doc) *Sections {
	t.mu.RLock()
	defer t.mu.RUnlock()
	return t.byDoc[doc]
}

// keep holds the sections of a comment, unless others were there first, and tells how many
// bytes of prose came with them.
func (t *fileTable) keep(doc *model.Doc, s *Sections) (kept *Sections, added int) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if was := t.byDoc[doc]; was != nil {
		return was, 0
	}
	if t.byDoc == nil {
		t.byDoc = map[*model.Doc]*Sections{}
	}
	t.byDoc[doc] = s
	added = weigh(s)
	t.weight += added
	return s, added
}

// forget lets go all that the table of a file has, and tells how many bytes of prose it was.
func (t *fileTable) forget() (bytes int) {
	t.mu.Lock()
	defer t.mu.Unlock()
	bytes = t.weight
	t.byDoc, t.weight = nil, 0
	return bytes
}

// weigh is about how many bytes sections take.
func weigh(s *Sections) int {
	bytes := int(unsafe.Sizeof(*s))
	for nodes := range s.All {
		bytes += weighNodes(nodes)
	}
	for i := range s.Parts {
		bytes += int(unsafe.Sizeof(s.Parts[i])) + len(s.Parts[i].Entries)*int(unsafe.Sizeof(prose.Entry{}))
	}
	return bytes
}

func weighNodes(nodes []prose.Node) int {
	bytes := len(nodes) * int(unsafe.Sizeof(prose.Node{}))
	for i := range nodes {
		bytes += weighNodes(nodes[i].Children)
	}
	return bytes
}
