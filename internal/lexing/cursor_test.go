package lexing_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lexing"
	"codrel/internal/source"
)

func look(text string) lexing.Cursor {
	var s lexing.Stream
	java.Lex(text, &s)
	return s.Look(text)
}

func TestCursor(t *testing.T) {
	c := look("a . b ( c , { d } ) ; -> e")
	assert.Equal(t, "a", c.Word(0))
	assert.Empty(t, c.Word(1), "a mark is no word")
	assert.True(t, c.Is(1, '.'))
	assert.False(t, c.Is(0, 'a'), "nor is a word a mark")
	for _, i := range []int{-1, 100} { // there is nothing there
		assert.Empty(t, c.Word(i))
		assert.False(t, c.Is(i, '.'))
		assert.False(t, c.IsMark(i, "->"))
	}
	assert.Equal(t, 10, c.Over(3), "behind what the bracket opens")
	assert.Equal(t, 5, c.Over(4), "behind what opens nothing")
	assert.Equal(t, 9, c.Close(3, 100))
	assert.Equal(t, 7, c.Close(3, 7), "not beyond an end")
	assert.Equal(t, 7, c.Close(4, 7), "what opens nothing closes with the end")
	assert.Equal(t, 11, c.UpTo(0, 20, ';'))
	assert.Equal(t, 8, c.UpTo(0, 8, ';'), "there is none before the end")
	assert.Equal(t, "a.b", c.Dotted(0, 3), "without the blanks")
	assert.Empty(t, c.Dotted(3, 2))
	assert.Equal(t, "( c", c.Span(3, 5).In(c.Text))
	assert.Equal(t, source.Span{Start: 6, End: 6}, c.Span(3, 3))
	assert.Equal(t, len(c.Text), int(c.Span(50, 60).Start))
	open := look("a ( b [ c ) d")
	assert.Equal(t, 6, open.Odd())
}

// The comments between two tokens, the last one first, and the words to us in them.
func TestCommentsBefore(t *testing.T) {
	c := look("a; /* one */ // codrel: part Berths\n// two\n// codrel: hide\nb; c")
	var all []string
	c.Before(2, func(_ int, comment source.Span) bool {
		all = append(all, comment.In(c.Text))
		return true
	})
	assert.Equal(t, []string{"// codrel: hide", "// two", "// codrel: part Berths", "/* one */"}, all)
	c.Before(2, func(n int, _ source.Span) bool {
		assert.Equal(t, 3, n)
		return false
	})
	words := c.Directives(2)
	require.Len(t, words, 2)
	assert.Equal(t, "Berths", words[0].Object, "in the order in which they are written")
	assert.Equal(t, "hide", words[1].Verb)
	assert.Empty(t, c.Directives(4), "those of another place are not its own")
}

// Signs of types have partners where only what lists of types are made of stands between them.
func TestPairAngles(t *testing.T) {
	for text, want := range map[string]string{
		"a<b>":                    "<b>",
		"a<b<c>, d<e>>":           "<b<c>, d<e>> <c> <e>",
		"a < b && c > d":          "",
		"a<b[]>":                  "<b[]>",
		"a < (b > c)":             "",
		"a<(b, c<d>)>":            "<(b, c<d>)> <d>",
		"a < 3 > b":               "",
		"f(a < b, c > d)":         "< b, c >", // which nobody can tell by its signs alone
		"a<b; c>":                 "",
		"a<b.c.d>":                "<b.c.d>",
		"a>b<c":                   "",
		"(a<b)>c":                 "",
		"a<[attribute(1 < 2)] b>": "<[attribute(1 < 2)] b>",
	} {
		c := look(text)
		c.PairAngles(",.()[]", func(i int, open bool) int {
			if open && c.Is(i, '[') && c.Is(i-1, '<') {
				return c.Over(i)
			}
			return i
		})
		got := ""
		for i, token := range c.Tokens {
			if c.Is(i, '<') && token.Partner >= 0 {
				if got != "" {
					got += " "
				}
				got += c.Span(i, int(token.Partner)+1).In(text)
			}
		}
		assert.Equal(t, want, got, text)
	}
}

// The comment at an offset is found from wherever was asked last.
func TestCommentAt(t *testing.T) {
	text := strings.Repeat("/**/ a ", 40)
	c := look(text)
	for _, step := range []int{1, 7, 40, -3, 113} { // one after the other, far away, and back
		for k := range 200 {
			offset := ((k * step % len(text)) + len(text)) % len(text)
			want := (offset + 6) / 7
			assert.Equal(t, want, c.CommentAt(int32(offset)), "%d by %d", offset, step)
		}
	}
	assert.Equal(t, 40, c.CommentAt(int32(len(text))))
	assert.Equal(t, 0, c.CommentAt(-5))
	none := look("a b")
	assert.Equal(t, 0, none.CommentAt(2))
}
