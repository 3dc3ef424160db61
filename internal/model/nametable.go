package model

import "hash/maphash"

// nameTable finds the declarations of a module by what encloses them and their name: the
// first of those that share a name, which the others follow. It holds nothing but where
// they are, since there are as many as in all source: they know their names themselves.
type nameTable struct {
	slots []*Declaration // a power of two of them; nil is free
	taken int            // slots that are not free
	// renamed are further names of declarations, beside those that their files write.
	renamed map[nameKey]*Declaration
}

// nameKey is a name in what encloses it. What stands in something of another module has
// its whole path for its name, until it is put there.
type nameKey struct {
	parent *Declaration
	name   string
}

var (
	nameSeed = maphash.MakeSeed()
	left     = new(Declaration) // in a slot whose declaration left it
)

const fewestSlots = 8

// get is the first declaration of a name, or nil.
func (t *nameTable) get(key nameKey) *Declaration {
	if i := t.find(key); i >= 0 && t.slots[i] != nil {
		return t.slots[i]
	}
	return t.renamed[key]
}

// find is the slot of a name, or a free one where it would be, or -1 where there are none.
func (t *nameTable) find(key nameKey) int {
	if len(t.slots) == 0 {
		return -1
	}
	mask := len(t.slots) - 1
	for i := int(maphash.Comparable(nameSeed, key)) & mask; ; i = (i + 1) & mask {
		if d := t.slots[i]; d == nil || d != left && d.key() == key {
			return i
		}
	}
}

// put makes a declaration the first of its name.
func (t *nameTable) put(d *Declaration) {
	if t.taken >= len(t.slots)/4*3 {
		t.grow()
	}
	i := t.find(d.key())
	if t.slots[i] == nil {
		t.taken++
	}
	t.slots[i] = d
}

// remove leaves none of a name.
func (t *nameTable) remove(key nameKey) {
	if i := t.find(key); i >= 0 && t.slots[i] != nil {
		t.slots[i] = left
	}
}

func (t *nameTable) grow() {
	old := t.slots
	t.slots, t.taken = make([]*Declaration, max(fewestSlots, 2*len(old))), 0
	for _, d := range old {
		if d != nil && d != left {
			t.slots[t.find(d.key())] = d
			t.taken++
		}
	}
}

// rename gives a declaration a further name, unless something has it.
func (t *nameTable) rename(key nameKey, d *Declaration) {
	if t.get(key) != nil {
		return
	}
	if t.renamed == nil {
		t.renamed = map[nameKey]*Declaration{}
	}
	t.renamed[key] = d
}
