package model_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/model"
	"codrel/internal/source"
)

// comment is one of three lines, as it stands in "/// One two\n  /// three\n/// four".
func comment() (string, *model.Doc) {
	file := "/// One two\n  /// three\n/// four"
	return file, &model.Doc{Text: "One two\nthree\nfour", Span: source.NewSpan(0, len(file)), Lines: []source.Span{{Start: 4, End: 11}, {Start: 18, End: 23}, {Start: 28, End: 32}}}
}

func TestPlaces(t *testing.T) {
	file, doc := comment()
	places := doc.Places()
	assert.Equal(t, []int{0, 8, 14}, places.Starts())
	for _, word := range []struct{ from, to int }{{0, 3}, {4, 7}, {8, 13}, {14, 18}} {
		assert.Equal(t, doc.Text[word.from:word.to], places.Span(word.from, word.to).In(file))
	}
	assert.Equal(t, "two\n  /// three", places.Span(4, 13).In(file), "over lines, with what stands between them")
	assert.Equal(t, source.Span{Start: 18, End: 18}, places.Span(8, 8), "nothing")
	assert.Equal(t, int32(32), places.At(18), "the end")
	bare := model.Doc{Text: "no lines", Span: source.NewSpan(5, 9)}
	places = bare.Places()
	assert.Equal(t, int32(5), places.At(3), "of what has no lines the beginning is known")
	empty := model.Doc{}
	places = empty.Places()
	assert.Equal(t, []int{0}, places.Starts())
}

// What stands in place of a piece of a comment has the piece's place; what is around it
// keeps its own.
func TestReplaced(t *testing.T) {
	file, doc := comment()
	for _, c := range []struct {
		from, to int
		text     string
		want     string
		at       map[string]string // a word of the new text, and what stands there in the file
	}{
		{4, 7, "deux", "One deux\nthree\nfour", map[string]string{"One": "One", "three": "three", "four": "four"}},
		{4, 7, "a\nb\nc", "One a\nb\nc\nthree\nfour", map[string]string{"One": "One", "three": "three", "four": "four"}},
		{4, 13, "", "One \nfour", map[string]string{"One": "One", "four": "four"}},
		{0, 18, "all", "all", nil},
		{14, 14, "x ", "One two\nthree\nx four", map[string]string{"One": "One", "three": "three"}},
		{8, 13, "a much longer text than what stood there", "One two\na much longer text than what stood there\nfour", map[string]string{"One": "One", "four": "four"}},
	} {
		got := doc.Replaced(c.from, c.to, c.text)
		assert.Equal(t, c.want, got.Text)
		places := got.Places()
		assert.Len(t, got.Lines, len(places.Starts()), "%q has a place for each line", got.Text)
		for word, stood := range c.at {
			i := indexOf(got.Text, word)
			assert.Equal(t, stood, places.Span(i, i+len(word)).In(file), "%s in %q", word, got.Text)
		}
		for i := range len(got.Text) {
			at := places.At(i)
			assert.True(t, at >= 0 && int(at) <= len(file), "%d of %q lies in the file", i, got.Text)
		}
	}
	assert.Equal(t, "One two\nthree\nfour", doc.Text, "the comment itself stays")
	bare := (&model.Doc{Text: "a b"}).Replaced(2, 3, "c\nd")
	assert.Equal(t, "a c\nd", bare.Text)
	assert.Empty(t, bare.Lines)
}

func indexOf(text, word string) int {
	for i := range len(text) - len(word) + 1 {
		if text[i:i+len(word)] == word {
			return i
		}
	}
	return -1
}

// Types of one name in a signature are told apart by how many arguments follow them.
func TestTokensOfArity(t *testing.T) {
	file := "Plan<int, Tide>"
	packed := model.AppendToken(nil, file, model.TokenType.OfArity(2), file[:4])
	packed = model.AppendToken(packed, file, model.TokenPunctuation, "<")
	packed = model.AppendToken(packed, file, model.TokenType.OfArity(0), file[10:14])
	packed = model.AppendToken(packed, file, model.TokenType.OfArity(40), "Made")
	tokens := model.Tokens(packed)
	assert.Equal(t, []model.Token{
		{Kind: model.TokenType, Text: "Plan", Arity: 2}, {Kind: model.TokenPunctuation, Text: "<"}, {Kind: model.TokenType, Text: "Tide"}, {Kind: model.TokenType, Text: "Made", Arity: 7},
	}, tokens.List(file), "of many it is known that they are many")
	assert.True(t, tokens.Sound(len(file)))
	assert.Equal(t, "Plan<TideMade", tokens.Text(file))
}
