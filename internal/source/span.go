package source

import (
	"encoding/json"
	"fmt"
)

// Span is a range of bytes of a file's decoded text.
//
// Invariant: 0 <= Start <= End <= len(text). Both ends are stored, since the
// end cannot be recomputed once line endings were normalised for display.
type Span struct {
	Start int32 // offset of the first byte
	End   int32 // offset behind the last byte
}

// NewSpan makes a span of two offsets as the standard library counts them.
func NewSpan(start, end int) Span { return Span{int32(start), int32(end)} }

// Len is the number of bytes in s.
func (s Span) Len() int { return int(s.End - s.Start) }

// Empty reports whether s holds no byte.
func (s Span) Empty() bool { return s.End <= s.Start }

// Contains reports whether offset lies in s; the end itself does not.
func (s Span) Contains(offset int32) bool { return s.Start <= offset && offset < s.End }

// In cuts the spanned bytes out of text, and nothing where the span does not
// fit the text: a span of a shard may be older than the file it names.
func (s Span) In(text string) string {
	if s.Start < 0 || s.End < s.Start || int(s.End) > len(text) {
		return ""
	}
	return text[s.Start:s.End]
}

// Position is a place as people and editors count it, from 1.
type Position struct {
	Line   int // line number
	Column int // code points from the start of the line
}

// MarshalJSON writes the span as its two offsets.
func (s Span) MarshalJSON() ([]byte, error) { return fmt.Appendf(nil, "[%d,%d]", s.Start, s.End), nil }

// UnmarshalJSON takes two offsets.
func (s *Span) UnmarshalJSON(data []byte) error {
	var ends [2]int32
	if err := json.Unmarshal(data, &ends); err != nil {
		return err
	}
	if ends[0] < 0 || ends[1] < ends[0] {
		return fmt.Errorf("%d to %d is no span", ends[0], ends[1])
	}
	s.Start, s.End = ends[0], ends[1]
	return nil
}
