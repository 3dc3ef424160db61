package lexing_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lexing"
)

func TestNameBytes(t *testing.T) {
	plain, more := lexing.NameBytes(""), lexing.NameBytes("$")
	for _, c := range []byte("abzAZ_09\x80\xff") {
		assert.True(t, plain[c], "%q", c)
		assert.True(t, more[c], "%q", c)
	}
	for _, c := range []byte(" .-+/()\"'\\\n\x00\x7f@#") {
		assert.False(t, plain[c], "%q", c)
		assert.False(t, more[c], "%q", c)
	}
	assert.False(t, plain['$'])
	assert.True(t, more['$'])
}

func TestQuoted(t *testing.T) {
	for text, want := range map[string]struct {
		end    string // what stands behind it
		closed bool
	}{
		`"a" b`:                 {" b", true},
		`'a"b' c`:               {" c", true},
		`"" b`:                  {" b", true},
		`"a\"b" c`:              {" c", true},
		`"a\\" b`:               {" b", true},
		"\"a\nb\"":              {"\nb\"", false},
		"\"a\\\nb\" c":          {" c", true},
		"\"a\\\r\nb\" c":        {" c", true},
		`"a`:                    {"", false},
		`"a\`:                   {"", false},
		`"`:                     {"", false},
		"\"\xff\xfe\" x":        {" x", true},
		`"` + "\u00e9" + `" x`:  {" x", true},
		"'\\''":                 {"", true},
		"\"a\\\r\n":             {"", false},
		"\"one\" \"two\" three": {" \"two\" three", true},
	} {
		end, closed := lexing.Quoted(text, 0)
		assert.Equal(t, want.closed, closed, text)
		assert.Equal(t, want.end, text[min(end, len(text)):], text)
	}
}

func TestNumbers(t *testing.T) {
	names := lexing.NameBytes("")
	for text, behind := range map[string]string{
		"1":            "",
		"12 + 3":       " + 3",
		"1.5":          "",
		".5e3)":        ")",
		"1e+5;":        ";",
		"1E-5;":        ";",
		"1e5-2":        "-2",
		"0x1e+5":       "+5",
		"0XFE-1":       "-1",
		"0b1010_0001,": ",",
		"1_000_000n ":  " ",
		"3j":           "",
		"1.2.3":        "",
		"0o17]":        "]",
		"1\u00e9":      "\u00e9",
		"7..":          "",
	} {
		assert.True(t, lexing.NumberAt(text, 0), text)
		assert.Equal(t, behind, text[lexing.NumberEnd(text, 0, names):], text)
	}
	for _, text := range []string{"a", ".", ".a", "-1", " 1", "..5", "\u0661"} {
		assert.False(t, lexing.NumberAt(text, 0), text)
	}
}

func TestEndOfLine(t *testing.T) {
	text := "one\ntwo\r\n\nlast"
	for at, want := range map[int]int{0: 3, 2: 3, 3: 3, 4: 8, 8: 8, 9: 9, 10: 14, 14: 14} {
		assert.Equal(t, want, lexing.EndOfLine(text, at), at)
	}
	assert.Zero(t, lexing.EndOfLine("", 0))
}

// streamOf makes the stream of brackets and words, which is all that it knows of code.
func streamOf(text string) *lexing.Stream {
	s := &lexing.Stream{}
	for at := 0; at < len(text); at++ {
		switch c := text[at]; {
		case c == '\n':
			s.EndLine()
		case strings.IndexByte("([{)]}", c) >= 0:
			s.Bracket(text, at)
		case c != ' ':
			s.Add(lexing.Word, at, at+1)
		}
	}
	return s
}

func TestBrackets(t *testing.T) {
	text := "f(a[1], {b: (c)}) d"
	s := streamOf(text)
	assert.True(t, s.Sound())
	for open, behind := range map[int]string{1: " d", 3: ", {b: (c)}) d", 8: ") d", 12: "}) d"} {
		end, ok := s.Closing(open)
		assert.True(t, ok, open)
		assert.Equal(t, behind, text[end:], open)
	}
	for _, at := range []int{0, 2, 5, 16, 18, 100} {
		_, ok := s.Closing(at)
		assert.False(t, ok, "no bracket opens at %d", at)
	}
}

func TestBracketsThatDoNotFit(t *testing.T) {
	for text, closing := range map[string]string{
		"(a":      "",
		"a)":      "",
		"(a]":     "",
		"([a)":    "0",  // what is open within goes with it
		"(a]) b":  "0",  // what fits nothing changes nothing
		"{(}) {}": "05", // the parenthesis is lost in the braces
	} {
		s := streamOf(text)
		assert.False(t, s.Sound(), text)
		got := ""
		for at := range text {
			if _, ok := s.Closing(at); ok {
				got += string(rune('0' + at))
			}
		}
		assert.Equal(t, closing, got, text)
	}
}

// Code within other code closes none of the brackets around it, but the one that ends it.
func TestCodeInCode(t *testing.T) {
	text := "(`${ a) }`)"
	s := &lexing.Stream{}
	s.Bracket(text, 0)
	s.Bracket(text, 3)
	around := s.Enter()
	assert.Zero(t, s.Open())
	_, closes := s.Bracket(text, 6)
	assert.False(t, closes, "the parenthesis around is not its own")
	s.Widen()
	opened, closes := s.Bracket(text, 8)
	assert.True(t, closes)
	assert.Equal(t, int32(3), s.Tokens[opened].From)
	s.Leave(around)
	_, closes = s.Bracket(text, 10)
	assert.True(t, closes)
	assert.False(t, s.Sound(), "one was closed that nothing opened")
	end, ok := s.Closing(0)
	assert.True(t, ok)
	assert.Equal(t, len(text), end)
}

func TestTokensKnowTheirLines(t *testing.T) {
	s := streamOf("a\nb c\n\n(d\n)")
	var first []bool
	for _, token := range s.Tokens {
		first = append(first, token.Newline)
	}
	assert.Equal(t, []bool{false, true, false, true, false, true}, first)
	assert.Equal(t, 2, s.At(3), "blanks belong to nothing")
	assert.Equal(t, 2, s.At(4))
	assert.Equal(t, len(s.Tokens), s.At(100))
}

func TestStreamPieces(t *testing.T) {
	s := &lexing.Stream{}
	assert.Equal(t, 5, s.Piece(lexing.Comment, 0, 5))
	assert.Equal(t, 5, s.Piece(lexing.Text, 5, 5), "nothing is no piece")
	assert.Equal(t, 9, s.Piece(lexing.Number, 7, 9))
	assert.Len(t, s.Pieces, 2)
	assert.Equal(t, lexing.Comment, s.Pieces[0].Class)
	assert.Equal(t, int32(7), s.Pieces[1].Span.Start)
}
