package lexing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

func TestMakeDoc(t *testing.T) {
	text := "// one\n//\n//  two\n//\n"
	line := source.NewSpan
	doc := lexing.MakeDoc(text, []source.Span{line(9, 9), line(3, 6), line(9, 9), line(12, 17), line(20, 20)}, line(0, 20))
	require.NotNil(t, doc)
	assert.Equal(t, "one\n\n  two", doc.Text, "empty lines at both ends are dropped")
	assert.Equal(t, []source.Span{line(3, 6), line(9, 9), line(12, 17)}, doc.Lines)
	assert.Equal(t, line(0, 20), doc.Span)
	assert.Nil(t, lexing.MakeDoc(text, []source.Span{line(9, 9)}, line(0, 20)))
	assert.Nil(t, lexing.MakeDoc(text, nil, line(0, 20)))
	assert.Equal(t, "one", lexing.MakeDoc(text, []source.Span{line(3, 6)}, line(0, 6)).Text)
}

func TestParseDirective(t *testing.T) {
	for text, want := range map[string]model.Directive{
		"codrel: let undocumented pass, it is an example": {Verb: "let", Object: "undocumented", Reason: "it is an example"},
		"codrel:let undocumented pass, because, well":     {Verb: "let", Object: "undocumented", Reason: "because, well"},
		"codrel: let undocumented pass":                   {Verb: "let", Object: "undocumented"},
		"codrel: let undocumented pass,  ":                {Verb: "let", Object: "undocumented"},
		"codrel: let  undocumented  pass , x":             {Verb: "let", Object: "undocumented", Reason: "x"},
		"codrel: hide":                                    {Verb: "hide"},
		"codrel:part Looking around":                      {Verb: "part", Object: "Looking around"},
		"codrel: words draft, keel":                       {Verb: "words", Object: "draft, keel"},
		"codrel:":                                         {},
		"codrel: dance":                                   {Verb: "dance"},
	} {
		got, ok := lexing.ParseDirective(text, source.Span{})
		assert.True(t, ok, text)
		assert.Equal(t, want, got, text)
	}
	for _, text := range []string{"", "Codrel: hide", "see codrel: hide", "codrels: hide", "codrel hide"} {
		_, ok := lexing.ParseDirective(text, source.Span{})
		assert.False(t, ok, text)
	}
}

// A comment goes on in another one behind an empty line, which stands where the other begins.
func TestJoinDocs(t *testing.T) {
	text := "// one\nx; // two\n"
	line := source.NewSpan
	a, b := lexing.MakeDoc(text, []source.Span{line(3, 6)}, line(0, 6)), lexing.MakeDoc(text, []source.Span{line(13, 16)}, line(10, 16))
	both := lexing.JoinDocs(a, b)
	assert.Equal(t, "one\n\ntwo", both.Text)
	assert.Equal(t, []source.Span{line(3, 6), line(10, 10), line(13, 16)}, both.Lines, "each line of the text has its place")
	assert.Equal(t, a.Span, both.Span)
	assert.Same(t, a, lexing.JoinDocs(a, nil))
	assert.Same(t, b, lexing.JoinDocs(nil, b))
	assert.Nil(t, lexing.JoinDocs(nil, nil))
	assert.Equal(t, "one", a.Text, "what is joined stays as it was")
	assert.Len(t, a.Lines, 1)
}
