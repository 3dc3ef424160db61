package blocktags_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/comment/blocktags"
	"codrel/internal/comment/commenttest"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// What words in running text, and signs that mean something elsewhere, become.
func TestMarkedText(t *testing.T) {
	for text, want := range map[string]string{
		"a \\c code b":                 "a `code` b",
		"a @p param, b":                "a `param`, b",
		"a \\a word and \\e other.":    "a *word* and *other*.",
		"\\b bold":                     "**bold**",
		"#name and a#b and #1":         "[`name`] and a#b and #1",
		"#a::b::c() ends":              "[`a::b::c()`] ends",
		"%Word stays, 5%off":           "Word stays, 5%off",
		"a\\@b \\\\ \\# \\% \\<":       "a@b \\ # % <",
		"__init__ and a_b_c _x_":       "__init__ and a_b_c _x_",
		"<stdio.h> <T> a < b":          "<stdio.h> <T> a < b",
		"<b>bold</b> <em>e</em>":       "**bold** *e*",
		"x \\unknown word":             "x \\unknown word",
		"C:\\path\\to":                 "C:\\path\\to",
		"`\\c raw` and \\c x":          "`\\c raw` and `x`",
		"see \\ref f(int, char) x":     "see [`f(int, char)`] x",
		"\\ref a::b \"the b\".":        "[the b].",
		":func:`open` :c:type:`gauge`": "`open` `gauge`",
		"a:func:`open`, :tide:`high`":  "a:func:`open`, :tide:`high`",
		"<b>\\c x</b>, <b>#y</b>":      "**`x`**, **[`y`]**",
		"\\link a::b the b\\endlink":   "[the b]",
		"x \\f$a + b\\f$ y":            "x $a + b$ y",
	} {
		body := blocktags.ParseMarked(commenttest.DocOf(text), nil).Body
		assert.Equal(t, want, plainMarks(body), text)
	}
}

// plainMarks writes prose with signs for what it is.
func plainMarks(nodes []prose.Node) string {
	var b strings.Builder
	around := map[prose.Kind][2]string{prose.Emphasis: {"*", "*"}, prose.Strong: {"**", "**"}, prose.Reference: {"[", "]"}}
	var write func(nodes []prose.Node)
	write = func(nodes []prose.Node) {
		for i := range nodes {
			n := &nodes[i]
			switch n.Kind {
			case prose.Text:
				b.WriteString(n.Text)
			case prose.Code:
				b.WriteString("`" + n.Text + "`")
			case prose.Formula:
				b.WriteString("$" + n.Text + "$")
			default:
				b.WriteString(around[n.Kind][0])
				write(n.Children)
				b.WriteString(around[n.Kind][1])
			}
		}
	}
	write(nodes)
	return b.String()
}

// The maintainer's own words come first, and an unknown word loses nothing.
func TestMarkedWords(t *testing.T) {
	own := prose.Vocabulary{"glossary": "notes"}
	sections := blocktags.ParseMarked(commenttest.DocOf("Text.\n@glossary Wet.\n@retrun depth"), own)
	assert.Equal(t, prose.Notes, sections.Parts[0].Kind)
	assert.Equal(t, []prose.Flaw{{Kind: prose.UnknownWord, Span: sections.Flaws[0].Span, Text: "@retrun", Near: "@return"}}, sections.Flaws)
	assert.Contains(t, prose.Plain(sections.Body), "depth")
}

func TestMarkedTakes(t *testing.T) {
	for text, want := range map[string]bool{"\\copydoc a": true, "@copybrief a": true, "{@inheritDoc}": true, "Opens.": false} {
		assert.Equal(t, want, blocktags.MayTakeMarked(&model.Doc{Text: text}), text)
	}
}

func TestMarkedParameters(t *testing.T) {
	sections := blocktags.ParseMarked(commenttest.DocOf("@param[in] a  first\n@param [out] b - second\n@param c: third\n@param d,e both\n@param\n@tparam T\n@retval -1: bad"), nil)
	var got []string
	for _, part := range sections.Parts {
		for _, e := range part.Entries {
			got = append(got, e.Name+"|"+prose.Plain(e.Type)+"|"+prose.Plain(e.Text))
		}
	}
	assert.Equal(t, []string{"a||first", "b|out|second", "c||third", "d||both", "e||both", "T||", "-1||bad"}, got)
}
