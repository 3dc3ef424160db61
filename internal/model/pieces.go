package model

import (
	"encoding/binary"
	"encoding/json"
	"errors"
	"iter"

	"codrel/internal/source"
)

// PieceClass is what a piece of source text is to somebody who reads it.
type PieceClass uint8

// The classes of pieces. Names, marks and blanks are not told apart: they are
// what lies between the pieces.
const (
	PieceKeyword PieceClass = iota
	PieceNumber
	PieceText // strings and characters, with their quotes
	PieceComment
	pieceClasses
)

// Piece is a run of source text of one class.
type Piece struct {
	Class PieceClass
	Span  source.Span
}

// Pieces are those of a text, in order and without overlap, packed: a class with the
// distance from the piece before, and a length. The zero value is an empty list.
type Pieces struct {
	packed []byte
	end    int32
}

// classBits is how much room a class takes beside the distance.
const classBits = 2

// Add puts a piece behind the others. One that begins before the end of the last is left
// out, and so is an empty one.
func (p *Pieces) Add(piece Piece) {
	if piece.Span.Start < p.end || piece.Span.Empty() {
		return
	}
	p.packed = binary.AppendUvarint(p.packed, uint64(piece.Span.Start-p.end)<<classBits|uint64(piece.Class))
	p.packed = binary.AppendUvarint(p.packed, uint64(piece.Span.Len()))
	p.end = piece.Span.End
}

// Empty reports whether there are none.
func (p *Pieces) Empty() bool { return len(p.packed) == 0 }

// All yields the pieces in order.
func (p *Pieces) All() iter.Seq[Piece] {
	return func(yield func(Piece) bool) {
		at := int32(0)
		for rest := p.packed; len(rest) > 0; {
			head, n := binary.Uvarint(rest)
			length, k := binary.Uvarint(rest[n:])
			rest = rest[n+k:]
			piece := Piece{Class: PieceClass(head & (1<<classBits - 1)), Span: source.Span{Start: at + int32(head>>classBits)}}
			piece.Span.End = piece.Span.Start + int32(length)
			if at = piece.Span.End; !yield(piece) {
				return
			}
		}
	}
}

// packedPieces is a list of pieces as it is written.
type packedPieces struct {
	Packed []byte `json:"packed,omitempty"`
	End    int32  `json:"end,omitempty"`
}

// MarshalJSON packs the list as it is in memory.
func (p Pieces) MarshalJSON() ([]byte, error) { return json.Marshal(packedPieces{p.packed, p.end}) }

// UnmarshalJSON takes a packed list, and refuses one that is damaged.
func (p *Pieces) UnmarshalJSON(data []byte) error {
	var written packedPieces
	if err := json.Unmarshal(data, &written); err != nil {
		return err
	}
	at := uint64(0)
	for rest := written.Packed; len(rest) > 0; {
		head, n := binary.Uvarint(rest)
		length, k := binary.Uvarint(rest[max(n, 0):])
		if n <= 0 || k <= 0 || PieceClass(head&(1<<classBits-1)) >= pieceClasses {
			return errDamagedPieces
		}
		if at += head>>classBits + length; at > uint64(written.End) {
			return errDamagedPieces
		}
		rest = rest[n+k:]
	}
	if at != uint64(max(written.End, 0)) {
		return errDamagedPieces
	}
	p.packed, p.end = written.Packed, written.End
	return nil
}

var errDamagedPieces = errors.New("a list of pieces is damaged")
