package cfamily_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang"
	"codrel/internal/lang/langtest"
	"codrel/internal/model"
)

// grouped says of each declaration in which group it is, with the group's text where members have
// it in common, and its own text.
func grouped(end lang.FrontEnd, path, text string) string {
	facts := langtest.Read(end, path, []byte(text))
	var b strings.Builder
	for i := range facts.Occurrences {
		o := &facts.Occurrences[i]
		fmt.Fprint(&b, o.Name)
		for _, d := range o.Directives() {
			if d.Verb == "part" {
				fmt.Fprintf(&b, " in %q", d.Object)
			}
		}
		if o.GroupDoc != nil {
			fmt.Fprintf(&b, " common %q", o.GroupDoc.Text)
		}
		if o.Doc != nil {
			fmt.Fprintf(&b, " own %q", o.Doc.Text)
		}
		b.WriteString("\n")
	}
	for _, g := range facts.Groups {
		fmt.Fprintf(&b, "group %s %q %q\n", g.Name, g.Title, textOf(g.Doc))
	}
	return b.String()
}

func textOf(doc *model.Doc) string {
	if doc == nil {
		return ""
	}
	return doc.Text
}

func TestGroups(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"a title and marks in one comment": {
			"/** @defgroup reading Reading a gauge\n * How to read.\n * @{\n */\n\n/** Reads. */\nint read(void);\n/** @} */\nint other;\n",
			"read in \"reading\" own \"Reads.\"\nother\ngroup reading \"Reading a gauge\" \"How to read.\"\n"},
		"marks in the next comment": {
			"/** \\addtogroup reading */\n/*@{*/\nint a;\n/*@}*/\nint b;\n",
			"a in \"reading\"\nb\n"},
		"members with a common text": {
			"struct gauge {\n  /** @name Limits\n   * What it takes. */\n  /** @{ */\n  int low; /**< The lowest. */\n  int high;\n  /** @} */\n  int kind;\n};\n",
			"gauge\nlow in \"Limits\" common \"What it takes.\" own \"The lowest.\"\nhigh in \"Limits\" common \"What it takes.\"\nkind\n"},
		"a text without a title": {
			"/** Both end a run. @{ */\nvoid stop(void);\nvoid quit(void);\n/** @} */\n",
			"stop common \"Both end a run.\"\nquit common \"Both end a run.\"\n"},
		"comments of lines": {
			"/// @name Limits\n/// @{\n/// The lowest.\nint low;\n///@}\n/// The kind.\nint kind;\n",
			"low in \"Limits\" own \"The lowest.\"\nkind own \"The kind.\"\n"},
		"groups in one another": {
			"/** @addtogroup a A\n * @{ */\nint x;\n/** @name B\n * @{ */\nint y;\n/** @} */\nint z;\n/** @} */\n",
			"x in \"a\"\ny in \"B\"\nz in \"a\"\ngroup a \"A\" \"\"\n"},
		"members of what stands in one": {
			"/** @defgroup a A\n * @{ */\nstruct s { int inside; };\n/** @} */\n",
			"s in \"a\"\ninside\ngroup a \"A\" \"\"\n"},
		"a word for one declaration": {
			"/** Reads.\n * @ingroup reading */\nint read(void);\n",
			"read in \"reading\" own \"Reads.\\n@ingroup reading\"\n"},
		"its author's own name": {
			"/** @name B\n * @{ */\n// codrel: part Mine\nint a;\n/** @} */\n",
			"a in \"Mine\"\n"},
		"a mark that nothing closes":  {"/** @name B\n * @{ */\nint a;\n", "a in \"B\"\n"},
		"a mark that nothing opens":   {"/** @} */\nint a;\n", "a\n"},
		"brackets of a formula":       {"/** The set \\f[ \\left\\{\n * a \\right\\} \\f] of it. */\nint a;\n", "a own \"The set \\\\f[ \\\\left\\\\{\\na \\\\right\\\\} \\\\f] of it.\"\n"},
		"a word of a group in a name": {"int group;\n/** @{ */\n/** @} */\nint groups;\n", "group\ngroups\n"},
	} {
		t.Run(name, func(t *testing.T) { assert.Equal(t, c.want, grouped(plus, "a.h", c.text)) })
	}
}

func TestDeprecatedByComment(t *testing.T) {
	facts := langtest.Read(plus, "a.h", []byte(`
/** Old. @deprecated use b */
int a;
/** \deprecated
 * Use c. */
int b;
/** Says @deprecatedly, or "@deprecated". */
int c;
int d; /**< @deprecated use c */
`))
	var gone []string
	for i := range facts.Occurrences {
		if facts.Occurrences[i].Deprecated {
			gone = append(gone, facts.Occurrences[i].Name)
		}
	}
	assert.Equal(t, []string{"a", "b", "d"}, gone)
}

// A comment that begins with the name of what it speaks of, as a heading, begins behind it.
func TestHeadlessComments(t *testing.T) {
	for comment, want := range map[string]string{
		"/**\n * gauge_open:\n * @n: which\n *\n * Opens.\n */":     "@n: which\n\nOpens.",
		"/**\n * gauge_open():\n *\n * Opens.\n */":                 "Opens.",
		"/** gauge_open: */":                                        "gauge_open:",
		"/** gauge_open: opens one. */":                             "gauge_open: opens one.",
		"/**\n * gauge_opened:\n * Opens.\n */":                     "gauge_opened:\nOpens.",
		"/**\n * Opens.\n * gauge_open:\n */":                       "Opens.\ngauge_open:",
		"/// gauge_open:\n/// Opens.":                               "Opens.",
		"/**\n *\n * gauge_open:\n *\n * @n: which\n * as well\n*/": "@n: which\nas well",
	} {
		facts := langtest.Read(c, "a.h", []byte(comment+"\nint gauge_open(int n);\n"))
		assert.Equal(t, want, textOf(facts.Occurrences[0].Doc), comment)
	}
	facts := langtest.Read(c, "a.h", []byte("/**\n * MOST:\n * The most.\n */\n#define MOST 3\n/**\n * tide:\n * @at: when\n */\nstruct tide { int at; };\n"))
	assert.Equal(t, "The most.", textOf(facts.Occurrences[0].Doc))
	assert.Equal(t, "@at: when", textOf(facts.Occurrences[1].Doc))
}
