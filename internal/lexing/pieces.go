package lexing

import "codrel/internal/source"

// Class is what a piece of source text is to somebody who reads it.
type Class uint8

// The classes of pieces. Names, marks and blanks are not told apart: they are
// what lies between the pieces.
const (
	Keyword Class = iota
	Number
	Text // strings and characters, with their quotes
	Comment
)

// Piece is a run of source text of one class.
type Piece struct {
	Class Class
	Span  source.Span
}
