package model_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/model"
	"codrel/internal/source"
)

func TestTokens(t *testing.T) {
	file := "package tide\n\nfunc Height(at time.Time) Höhe"
	cut := func(word string) string {
		at := strings.Index(file, word)
		require.GreaterOrEqual(t, at, 0)
		return file[at : at+len(word)]
	}
	want := []model.Token{
		{Kind: model.TokenKeyword, Text: "func "},
		{Kind: model.TokenName, Text: cut("Height")},
		{Kind: model.TokenPunctuation, Text: ""},
		{Kind: model.TokenPunctuation, Text: "("},
		{Kind: model.TokenType, Text: cut("time.Time")},
		{Kind: model.TokenValue, Text: strings.Repeat("long ", 100)},
		{Kind: model.TokenType, Text: cut("Höhe")},
	}
	var packed []byte
	for _, token := range want {
		packed = model.AppendToken(packed, file, token.Kind, token.Text)
	}
	tokens := model.Tokens(packed)
	assert.Equal(t, want, tokens.List(file))
	assert.Equal(t, "func Height(time.Time"+strings.Repeat("long ", 100)+"Höhe", tokens.Text(file))
	assert.Less(t, len(packed), 500+3*len(want)+len("func ("), "what stands in the file is not held twice")
	assert.Nil(t, model.Tokens("").List(file))
	for token := range tokens.In(file) {
		assert.Equal(t, "func ", token.Text)
		break // a reader may stop
	}
}

// What is equal to a part of the file and no part of it is held on its own.
func TestTokensFromElsewhere(t *testing.T) {
	file := strings.Clone("abc")
	packed := model.AppendToken(nil, file, model.TokenName, strings.Clone("abc"))
	assert.Equal(t, "abc", model.Tokens(packed).Text("another file"))
	packed = model.AppendToken(nil, file, model.TokenName, file[1:2])
	assert.Equal(t, "x", model.Tokens(packed).Text("-x-"))
	assert.Equal(t, "", model.Tokens(model.AppendToken(nil, "", model.TokenName, "")).Text(""))
}

func TestUses(t *testing.T) {
	span := source.NewSpan
	want := []model.Use{
		{Form: model.UseBare, Span: span(0, 3)},
		{Form: model.UseQualified, Span: span(3, 20)},
		{Form: model.UseMember, Span: span(1000, 1004), Type: span(990, 995)},
		{Form: model.UseKey, Span: span(200_000, 200_300), Type: span(300_000, 300_001)},
	}
	var uses model.Uses
	for i, use := range want {
		uses.Add(use)
		uses.Add(model.Use{Span: span(0, 1)})                                                  // stands before the last one
		uses.Add(model.Use{Span: source.Span{Start: use.Span.End + 1, End: use.Span.End + 1}}) // is empty
		assert.Equal(t, i+1, uses.Len())
	}
	var got []model.Use
	for use := range uses.All() {
		got = append(got, use)
	}
	assert.Equal(t, want, got)
	for use := range uses.All() {
		assert.Equal(t, want[0], use)
		break
	}
	var none model.Uses
	for range none.All() {
		t.Fatal("an empty list yields nothing")
	}
}

func TestExtra(t *testing.T) {
	assert.Nil(t, model.NewExtra(nil, nil, nil))
	o := model.Occurrence{}
	assert.Empty(t, o.TypeParams())
	assert.Empty(t, o.Bases())
	assert.Empty(t, o.Directives())
	o.Extra = model.NewExtra([]model.Param{{Name: "T"}}, []model.Base{{Span: source.NewSpan(1, 2)}}, []model.Directive{{Verb: "hide"}})
	assert.Equal(t, "T", o.TypeParams()[0].Name)
	assert.Len(t, o.Bases(), 1)
	assert.Equal(t, "hide", o.Directives()[0].Verb)
}
