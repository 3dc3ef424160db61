package pod_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/comment/commenttest"
	"codrel/internal/comment/pod"
	"codrel/internal/growth"
	"codrel/internal/model"
	"codrel/internal/prose"
)

func parse(doc *model.Doc) *prose.Sections { return pod.Parse(doc, nil) }

func TestFixtures(t *testing.T) { commenttest.Fixture(t, "testdata/pod.txt", parse) }

func FuzzParse(f *testing.F) { commenttest.Fuzz(f, "testdata/pod.txt", parse) }

func TestGrowth(t *testing.T) {
	var more []growth.Form
	for _, open := range []string{"B<", "L<", "E<", "X<", "C<< ", "I<<< a ", "=over\n\n", "=item a\n\n", "=begin x\n\n", "L<a|", "=head1 a\n", " a\n\n", "Z<>", "S<a "} {
		more = append(more, growth.Repeat(open, open))
	}
	growth.Comments(t, "testdata/pod.txt", func(text string) { parse(commenttest.DocOf(text)) }, more...)
}

// What codes in a line become.
func TestCodes(t *testing.T) {
	for text, want := range map[string]string{
		"B<bold> I<slant> F<file> C<code>":                        "**bold** *slant* *file* `code`",
		"C<< $a->{b} >> and C<<< x >> y >>>":                      "`$a->{b}` and `x >> y`",
		"B<a I<b C<c>> d>":                                        "**a *b `c`* d**",
		"E<lt>E<gt>E<verbar>E<sol>E<eacute>E<0x201E>E<65>E<0101>": "<>|/é„AA",
		"a X<index> b Z<>c":                                       "a  b c",
		"S<a b>":                                                  "a\u00a0b",
		"L<Tide::Log>":                                            "[`Tide::Log`]",
		"L<the log|Tide::Log>":                                    "[the log]",
		"L<Tide::Log/read>":                                       "[`Tide::Log::read`]",
		"L<Tide::Log/\"METHODS\">":                                "[“METHODS” in `Tide::Log`]",
		"L</read>, L</read()>, L</\"The end\">":                   "[`read`], [`read()`], [“The end”]",
		"L<https://tide.example/a?b=c>":                           "[https://tide.example/a?b=c]",
		"L<> L</> L<text|> end":                                   "text end",
		"L<here|https://tide.example/>":                           "[here]",
		"L<crontab(5)>":                                           "`crontab(5)`",
		"L<B<x>|Tide::Log>":                                       "[**x**]",
		"L<<< a|Tide::Log >>>":                                    "[a]",
		"a < b > c, 1<2, Foo<Bar":                                 "a < b > c, 1<2, Foo<Bar",
		"B<never closed":                                          "**never closed**",
		"Q<unknown> text":                                         "unknown text",
		"E<unheard>":                                              "E<unheard>",
		"L<the plan|ref:Plan.Assign>":                             "[the plan]",
	} {
		nodes := parse(commenttest.DocOf(text)).Body
		require.Len(t, nodes, 1, text)
		assert.Equal(t, want, plainMarks(nodes[0].Children), text)
	}
}

// plainMarks writes prose with signs for what it is.
func plainMarks(nodes []prose.Node) string {
	var b strings.Builder
	around := map[prose.Kind][2]string{prose.Emphasis: {"*", "*"}, prose.Strong: {"**", "**"}, prose.Reference: {"[", "]"}, prose.Link: {"[", "]"}}
	for i := range nodes {
		switch n := &nodes[i]; n.Kind {
		case prose.Text:
			b.WriteString(n.Text)
		case prose.Code:
			b.WriteString("`" + n.Text + "`")
		default:
			b.WriteString(around[n.Kind][0] + plainMarks(n.Children) + around[n.Kind][1])
		}
	}
	return b.String()
}

// The line under NAME is the summary, wherever the section stands.
func TestName(t *testing.T) {
	for text, want := range map[string]string{
		"=head1 NAME\n\nTide::Log - reads old logbooks":                    "Reads old logbooks",
		"=head1 Name\n\nC<tide> -- reads old\nlogbooks\n\n=head1 SYNOPSIS": "Reads old logbooks",
		"=head1 NAME\n\nTide::Log":                                         "",
		"=head1 VERSION\n\n1\n\n=head1 NAME\n\ntide, tided - two of them":  "Two of them",
		"Reads logs.": "Reads logs.",
	} {
		assert.Equal(t, want, strings.ReplaceAll(prose.Plain(prose.Summary(parse(commenttest.DocOf(text)).Body)), "\n", " "), text)
	}
	assert.Equal(t, []string{"tides", "logs of ships"}, parse(commenttest.DocOf("X<tides>A X<logs of ships> b")).Words)
	gone := parse(commenttest.DocOf("DEPRECATED: use read.\n\nMore."))
	assert.True(t, gone.Obsolete)
	assert.Equal(t, "use read.", prose.Plain(gone.Deprecated), "the word is said by the page")
	assert.False(t, parse(commenttest.DocOf("Deprecated names are listed.")).Obsolete)
}
