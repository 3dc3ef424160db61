package lexing

import (
	"sort"
	"sync"

	"codrel/internal/source"
)

// Stream is what a lexer makes of a text in one pass: the tokens, from which front ends
// find out what the code names and where brackets close, and the pieces that are told
// apart for those who read the text.
type Stream struct {
	Tokens  []Token
	Pieces  []Piece
	Lines   []Line // to the preprocessor, in the order of the text
	open    []openBracket
	last    [256]int32 // behind the place of the innermost open bracket, by its byte
	floor   int        // how many of them stand around the code at hand
	newline bool       // a line ended behind the last token
	odd     bool       // some bracket has no partner
	bare    bool       // no pieces are wanted but comments
}

// streams holds room that was used before: a file has a token for every five bytes or so.
var streams = sync.Pool{New: func() any { return new(Stream) }}

// Borrow gives a stream without tokens, and the function that gives it back: nothing may
// hold on to its lists.
func Borrow() (s *Stream, back func()) {
	s = streams.Get().(*Stream)
	*s = Stream{Tokens: s.Tokens[:0], Pieces: s.Pieces[:0], Lines: s.Lines[:0], open: s.open[:0]}
	return s, func() { streams.Put(s) }
}

// openBracket is a bracket that waits for its partner.
type openBracket struct {
	token  int32
	outer  int32 // behind the place of the next one of its byte around it, so that a partner is found at once
	opener byte
}

// Token is a word, a mark, or anything else that stands for a value.
type Token struct {
	From, To int32
	Partner  int32 // of a bracket: index of the one that closes or opens it; else -1
	Kind     TokenKind
	Newline  bool // a line ended before it
	Sign     byte // of a mark of one byte, that byte; else 0
}

// Line is a line to a preprocessor, with all lines that it continues on. Its brackets have no part
// in those around it.
type Line struct {
	From, To int32
	Next     int32 // index of the first token behind it
}

// TokenKind tells what a token is.
type TokenKind uint8

// The kinds of tokens.
const (
	Value TokenKind = iota // a string, a number, or what else is written for itself
	Word
	Mark
)

// Add puts a token behind the others.
func (s *Stream) Add(kind TokenKind, from, to int) {
	s.Tokens = append(s.Tokens, Token{From: int32(from), To: int32(to), Kind: kind, Partner: -1, Newline: s.newline})
	s.newline = false
}

// Mark puts a mark that a text has between two offsets.
func (s *Stream) Mark(text string, from, to int) {
	t := Token{From: int32(from), To: int32(to), Kind: Mark, Partner: -1, Newline: s.newline}
	if to == from+1 {
		t.Sign = text[from]
	}
	s.Tokens = append(s.Tokens, t)
	s.newline = false
}

// EndLine says that a line ended.
func (s *Stream) EndLine() { s.newline = true }

// Piece puts a piece of a class behind the others, and gives the offset behind it.
func (s *Stream) Piece(class Class, from, to int) int {
	if to > from && !(s.bare && class != Comment) {
		s.Pieces = append(s.Pieces, Piece{Class: class, Span: source.NewSpan(from, to)})
	}
	return to
}

// partners are the brackets that others close.
var partners = [256]byte{')': '(', ']': '[', '}': '{'}

// Bracket puts the bracket at an offset of the text. For one that closes another it gives
// the index of that; brackets that were left open within stay without a partner.
func (s *Stream) Bracket(text string, at int) (opened int32, closes bool) {
	index := int32(len(s.Tokens))
	s.Mark(text, at, at+1)
	want := partners[text[at]]
	if want == 0 {
		s.open = append(s.open, openBracket{token: index, outer: s.last[text[at]], opener: text[at]})
		s.last[text[at]] = int32(len(s.open))
		return 0, false
	}
	n := int(s.last[want])
	if n <= s.floor {
		s.odd = true
		return 0, false
	}
	s.odd = s.odd || n < len(s.open)
	opened = s.open[n-1].token
	s.Tokens[opened].Partner, s.Tokens[index].Partner = index, opened
	s.drop(n - 1)
	return opened, true
}

// drop takes all open brackets but so many from the top.
func (s *Stream) drop(left int) {
	for i := len(s.open) - 1; i >= left; i-- {
		s.last[s.open[i].opener] = s.open[i].outer
	}
	s.open = s.open[:left]
}

// Enter begins code that stands in other code, as in a template: brackets outside it are
// closed by nothing in it. It returns what [Stream.Leave] wants.
func (s *Stream) Enter() (around [2]int) {
	around = [2]int{s.floor, len(s.open)}
	s.floor = len(s.open)
	return around
}

// Leave ends such code.
func (s *Stream) Leave(around [2]int) {
	s.floor = around[0]
	if len(s.open) > around[1] {
		s.odd = true
		s.drop(around[1])
	}
}

// Open is how many brackets are open in the code at hand.
func (s *Stream) Open() int { return len(s.open) - s.floor }

// Widen lets the code at hand close one bracket of the code around it.
func (s *Stream) Widen() { s.floor-- }

// Sound reports whether each bracket has its partner.
func (s *Stream) Sound() bool { return !s.odd && len(s.open) == 0 }

// At is the index of the first token at or behind an offset.
func (s *Stream) At(offset int) int {
	return sort.Search(len(s.Tokens), func(i int) bool { return int(s.Tokens[i].From) >= offset })
}

// Closing is the offset behind the bracket that closes the one at an offset; ok is false
// where none is known.
func (s *Stream) Closing(at int) (end int, ok bool) {
	i := s.At(at)
	if i == len(s.Tokens) || int(s.Tokens[i].From) != at {
		return 0, false
	}
	partner := s.Tokens[i].Partner
	if int(partner) <= i {
		return 0, false
	}
	return int(s.Tokens[partner].To), true
}
