package model

import (
	"encoding/binary"
	"encoding/json"
	"errors"
	"iter"

	"codrel/internal/source"
)

// Inside is what a front end finds beyond the declarations, for source pages
// alone: most commands have no use for it.
type Inside struct {
	Uses   Uses          `json:"uses,omitzero"`
	Pieces Pieces        `json:"pieces,omitzero"`  // what is told apart for readers; empty where the front end scans for them alone
	Bodies []source.Span `json:"bodies,omitempty"` // of functions, with their brackets, in order, none inside another
}

// UseForm tells how a name in the code says what it means.
type UseForm uint8

// The forms of uses. Names that mean something local to a function are no uses.
const (
	UseBare      UseForm = iota // a name of the module, of an import, or of the language itself
	UseQualified                // two names with a "." between them
	UseMember                   // a name behind a value whose type is written at Use.Type
	UseKey                      // a key in a literal of the type at Use.Type: its member, else a bare name
)

// Use is one place where code names a thing that it does not declare there.
type Use struct {
	Form UseForm
	Span source.Span // of the name, or of both where it is qualified
	Type source.Span // of the owner's type as it is written in the file
}

// Uses is a list of uses in the order of the file. It is packed, since there are
// about as many uses as names in the code: each use is the distance from the one
// before, its length and, for members, the place of the type. The zero value is
// an empty list.
type Uses struct {
	packed []byte
	end    int32
	count  int
}

// formBits is how much room a form takes beside the distance.
const formBits = 2

// Add puts a use behind the others. A use that stands before the end of the last
// one is left out: broken source can give such.
func (u *Uses) Add(use Use) {
	if use.Span.Start < u.end || use.Span.Empty() {
		return
	}
	u.packed = binary.AppendUvarint(u.packed, uint64(use.Span.Start-u.end)<<formBits|uint64(use.Form))
	u.packed = binary.AppendUvarint(u.packed, uint64(use.Span.Len()))
	if use.Form >= UseMember {
		u.packed = binary.AppendVarint(u.packed, int64(use.Span.Start)-int64(use.Type.Start))
		u.packed = binary.AppendUvarint(u.packed, uint64(use.Type.Len()))
	}
	u.end = use.Span.End
	u.count++
}

// Len is the number of uses.
func (u *Uses) Len() int { return u.count }

// All yields the uses in the order of the file.
func (u *Uses) All() iter.Seq[Use] {
	return func(yield func(Use) bool) {
		rest := u.packed
		next := func() uint64 {
			v, n := binary.Uvarint(rest)
			rest = rest[n:]
			return v
		}
		for at := int32(0); len(rest) > 0; {
			head := next()
			use := Use{Form: UseForm(head & (1<<formBits - 1))}
			use.Span.Start = at + int32(head>>formBits)
			use.Span.End = use.Span.Start + int32(next())
			if use.Form >= UseMember {
				back, n := binary.Varint(rest)
				rest = rest[n:]
				use.Type.Start = use.Span.Start - int32(back)
				use.Type.End = use.Type.Start + int32(next())
			}
			at = use.Span.End
			if !yield(use) {
				return
			}
		}
	}
}

// MarshalJSON packs the list as it is in memory.
func (u Uses) MarshalJSON() ([]byte, error) {
	return json.Marshal(packedUses{u.packed, u.end, u.count})
}

// UnmarshalJSON takes a packed list, and refuses one that is damaged.
func (u *Uses) UnmarshalJSON(data []byte) error {
	var p packedUses
	if err := json.Unmarshal(data, &p); err != nil {
		return err
	}
	if !p.sound() {
		return errors.New("a list of uses is damaged")
	}
	u.packed, u.end, u.count = p.Packed, p.End, p.Count
	return nil
}

// packedUses is a list of uses as it is written.
type packedUses struct {
	Packed []byte `json:"packed,omitempty"`
	End    int32  `json:"end,omitempty"`
	Count  int    `json:"count,omitempty"`
}

// sound reports whether a packed list can be read: whether it ends where it says.
func (p packedUses) sound() bool {
	at, count := uint64(0), 0
	rest := p.Packed
	next := func(n int) bool {
		rest = rest[max(n, 0):]
		return n > 0
	}
	for len(rest) > 0 {
		head, n := binary.Uvarint(rest)
		if !next(n) {
			return false
		}
		length, n := binary.Uvarint(rest)
		if !next(n) {
			return false
		}
		if UseForm(head&(1<<formBits-1)) >= UseMember {
			if _, n := binary.Varint(rest); !next(n) {
				return false
			}
			if _, n := binary.Uvarint(rest); !next(n) {
				return false
			}
		}
		at += head>>formBits + length
		if count++; at > uint64(p.End) {
			return false
		}
	}
	return at == uint64(p.End) && count == p.Count
}
