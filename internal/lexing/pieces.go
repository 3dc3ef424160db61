package lexing

import "codrel/internal/model"

// Class is what a piece of source text is to somebody who reads it.
type Class = model.PieceClass

// The classes of pieces.
const (
	Keyword = model.PieceKeyword
	Number  = model.PieceNumber
	Text    = model.PieceText
	Comment = model.PieceComment
)

// Piece is a run of source text of one class.
type Piece = model.Piece
