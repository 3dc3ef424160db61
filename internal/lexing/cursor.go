package lexing

import (
	"slices"
	"sort"
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// Cursor looks at the tokens of a text by their index. An index may lie outside of them:
// there is nothing there.
type Cursor struct {
	Text     string
	Tokens   []Token
	Comments []source.Span // in the order of the text
	asked    int           // index of the comment that was asked for last
}

// Look makes a cursor of what a lexer found in a text.
func (s *Stream) Look(text string) Cursor {
	c := Cursor{Text: text, Tokens: s.Tokens}
	for _, p := range s.Pieces {
		if p.Class == Comment {
			c.Comments = append(c.Comments, p.Span)
		}
	}
	return c
}

// Word is the word at an index, or "".
func (c *Cursor) Word(i int) string {
	if uint(i) < uint(len(c.Tokens)) && c.Tokens[i].Kind == Word {
		return c.Text[c.Tokens[i].From:c.Tokens[i].To]
	}
	return ""
}

// Is reports whether the token at an index is a mark of one byte.
func (c *Cursor) Is(i int, mark byte) bool {
	return uint(i) < uint(len(c.Tokens)) && c.Tokens[i].Sign == mark
}

// IsMark reports whether the token at an index is a mark of several bytes.
func (c *Cursor) IsMark(i int, mark string) bool {
	return i >= 0 && i < len(c.Tokens) && c.Tokens[i].Kind == Mark && c.Text[c.Tokens[i].From:c.Tokens[i].To] == mark
}

// Over is the index behind a token, or behind what it opens. Signs of types are no brackets
// here.
func (c *Cursor) Over(i int) int {
	if i < len(c.Tokens) && int(c.Tokens[i].Partner) > i && !c.Is(i, '<') {
		return int(c.Tokens[i].Partner) + 1
	}
	return i + 1
}

// OverType is the index behind a token, or behind what it opens, type arguments among them.
func (c *Cursor) OverType(i int) int {
	if i < len(c.Tokens) && int(c.Tokens[i].Partner) > i {
		return int(c.Tokens[i].Partner) + 1
	}
	return i + 1
}

// Close is the index of the bracket that closes the one at an index, or of the end.
func (c *Cursor) Close(i, end int) int {
	if p := int(c.Tokens[i].Partner); p > i {
		return min(p, end)
	}
	return end
}

// UpTo is the index behind the next mark of a kind, with what stands in brackets passed over.
func (c *Cursor) UpTo(i, end int, mark byte) int {
	for i < end && !c.Is(i, mark) {
		i = c.Over(i)
	}
	return min(i+1, end)
}

// PastUnknown is the index behind what is no declaration: behind the next semicolon, or the
// next block.
func (c *Cursor) PastUnknown(i, end int) int {
	for i < end {
		switch {
		case c.Is(i, ';') || c.Is(i, '}'):
			return i + 1
		case c.Is(i, '{'):
			return c.Over(i)
		}
		i = c.Over(i)
	}
	return end
}

// Span is from a token to the one before another.
func (c *Cursor) Span(from, to int) source.Span {
	if to = min(to, len(c.Tokens)); from >= len(c.Tokens) {
		return source.NewSpan(len(c.Text), len(c.Text))
	}
	if to <= from {
		return source.Span{Start: c.Tokens[from].From, End: c.Tokens[from].From}
	}
	return source.Span{Start: c.Tokens[from].From, End: c.Tokens[to-1].To}
}

// Dotted is the name that tokens make with dots.
func (c *Cursor) Dotted(from, to int) string {
	if to <= from || to > len(c.Tokens) {
		return ""
	}
	whole := c.Span(from, to).In(c.Text)
	if !strings.ContainsAny(whole, " \t\r\n/@") {
		return whole
	}
	var b strings.Builder
	for i := from; i < to; i++ {
		b.WriteString(c.Text[c.Tokens[i].From:c.Tokens[i].To])
	}
	return b.String()
}

// Odd is the offset of the first bracket without a partner.
func (c *Cursor) Odd() int {
	for i := range c.Tokens {
		t := &c.Tokens[i]
		if t.Partner < 0 && isBracket(t.Sign) {
			return int(t.From)
		}
	}
	return 0
}

// steps is how far a comment is looked for from the last one: questions go through the text.
const steps = 4

// CommentAt is the index of the first comment at or behind an offset.
func (c *Cursor) CommentAt(offset int32) int {
	n := c.asked
	for range steps {
		switch {
		case n > 0 && c.Comments[n-1].Start >= offset:
			n--
		case n < len(c.Comments) && c.Comments[n].Start < offset:
			n++
		default:
			c.asked = n
			return n
		}
	}
	c.asked = sort.Search(len(c.Comments), func(n int) bool { return c.Comments[n].Start >= offset })
	return c.asked
}

// Before yields the comments between the token at an index and the one before it, the last
// one first.
func (c *Cursor) Before(i int, yield func(n int, comment source.Span) bool) {
	low, high := int32(0), c.Tokens[i].From
	if i > 0 {
		low = c.Tokens[i-1].To
	}
	n := c.CommentAt(high) - 1
	for ; n >= 0 && c.Comments[n].Start >= low; n-- {
		if !yield(n, c.Comments[n]) {
			return
		}
	}
}

// Directives are the words to Codrel in the comments before the token at an index.
func (c *Cursor) Directives(i int) (out []model.Directive) {
	c.Before(i, func(_ int, comment source.Span) bool {
		text := comment.In(c.Text)
		if rest, ok := strings.CutPrefix(text, "//"); ok {
			if d, ok := ParseDirective(strings.TrimSpace(rest), comment); ok {
				out = append(out, d)
			}
		}
		return true
	})
	slices.Reverse(out)
	return out
}

// PairAngles makes partners of "<" and ">" where only what lists of types are made of stands
// between them: words, the marks of one byte in a list, and what over goes over. That is
// once for the file: each would otherwise look for its own. over gives the index behind what
// belongs to a type at an index and is none of these, or the index.
func (c *Cursor) PairAngles(marks string, over func(i int, open bool) int) {
	var open, inside []int32 // signs that wait for their partners, and the brackets that they stand in
	bracket := int32(-1)     // around the token at hand
	var around []int32       // the brackets around that
	var listed [256]bool     // the marks that may stand in a list
	for i := range len(marks) {
		listed[marks[i]] = true
	}
	for i := 0; i < len(c.Tokens); i++ {
		t := &c.Tokens[i]
		if t.Kind == Word {
			continue
		}
		if len(open) == 0 {
			if t.Sign != '<' {
				continue // nothing waits that it could stand in
			}
			bracket, around = -1, around[:0] // those outside tell nothing
		}
		if next := over(i, len(open) > 0); next > i {
			i = next - 1
			continue
		}
		switch {
		case c.Is(i, '<'):
			open, inside = append(open, int32(i)), append(inside, bracket)
		case c.Is(i, '>') && len(open) > 0:
			last := len(open) - 1
			if inside[last] != bracket { // a comparison, and so is what was taken for a list around it
				open, inside = open[:0], inside[:0]
				continue
			}
			t.Partner, c.Tokens[open[last]].Partner = open[last], int32(i)
			open, inside = open[:last], inside[:last]
		case t.Sign == 0 || !listed[t.Sign]:
			open, inside = open[:0], inside[:0]
		case int(t.Partner) > i:
			around = append(around, bracket)
			bracket = int32(i)
		case t.Partner >= 0: // what was opened in brackets does not reach beyond
			for len(open) > 0 && open[len(open)-1] > t.Partner {
				open, inside = open[:len(open)-1], inside[:len(inside)-1]
			}
			if n := len(around); n > 0 && bracket == t.Partner {
				bracket, around = around[n-1], around[:n-1]
			}
		}
	}
}
