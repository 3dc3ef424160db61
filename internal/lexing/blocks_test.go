package lexing_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lexing"
	"codrel/internal/source"
)

func TestBlockDoc(t *testing.T) {
	for comment, want := range map[string]string{
		"/** One. */":                                  "One.",
		"/**One.*/":                                    "One.",
		"/*** Stars. ***/":                             "Stars.",
		"/**\n * Two\n * lines.\n */":                  "Two\nlines.",
		"/**\r\n * Other\r\n * ends.\r\n */":           "Other\nends.",
		"/**\n   No stars,\n     deeper.\n*/":          "   No stars,\n     deeper.",
		"/**\n ** Two stars\n **\n *  a list\n*/":      "Two stars\n\n a list",
		"/**\n *\n *\n * After empty lines.\n *\n */":  "After empty lines.",
		"/** Never closed":                             "Never closed",
		"/// One line.":                                "One line.",
		"/// Several\n  /// of them,\n///   indented.": "Several\nof them,\n  indented.",
		"//! Inner.":                                   "Inner.",
		"///":                                          "",
		"/** */":                                       "",
		"/**\n *\n */":                                 "",
		"/****/":                                       "",
	} {
		text := "before " + comment + " "
		span := source.NewSpan(len("before "), len("before ")+len(comment))
		doc := lexing.BlockDoc(text, span)
		if want == "" {
			assert.Nil(t, doc, comment)
			continue
		}
		require.NotNil(t, doc, comment)
		assert.Equal(t, want, doc.Text, comment)
		assert.Equal(t, span, doc.Span)
		require.Len(t, doc.Lines, strings.Count(doc.Text, "\n")+1)
		for i, line := range strings.Split(doc.Text, "\n") {
			assert.Equal(t, line, doc.Lines[i].In(text), "each line is where it says")
		}
	}
}

// A stream that is given back and borrowed again has nothing of what it held.
func TestBorrow(t *testing.T) {
	shape := lexing.Shape{Names: lexing.NameBytes(""), Comments: []lexing.CommentShape{{Open: "//"}}}
	for range 3 {
		s, back := lexing.Borrow()
		assert.Empty(t, s.Tokens)
		assert.Empty(t, s.Pieces)
		assert.True(t, s.Sound())
		shape.Lex("a (b { c // d\n", s)
		assert.Len(t, s.Tokens, 5)
		assert.False(t, s.Sound())
		back()
	}
}
