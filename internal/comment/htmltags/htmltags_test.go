package htmltags_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/comment/commenttest"
	"codrel/internal/comment/htmltags"
	"codrel/internal/model"
	"codrel/internal/prose"
)

const fixture = "testdata/comments.txt"

func parse(doc *model.Doc) *prose.Sections { return htmltags.Parse(doc, nil) }

func TestFixture(t *testing.T) { commenttest.Fixture(t, fixture, parse) }

func FuzzParse(f *testing.F) { commenttest.Fuzz(f, fixture, parse) }

func BenchmarkParse(b *testing.B) { commenttest.Benchmark(b, fixture, parse) }

func TestSpans(t *testing.T) {
	text := "Text {@link Plan#free} and <b>more</b>.\n@param quay Where <i>exactly</i>."
	sections := htmltags.Parse(commenttest.DocOf(text), nil)
	assert.Equal(t, map[string]string{"Plan#freePlan.free": "Plan#free", "more": "<b>more", "exactly": "<i>exactly"},
		commenttest.Shown(text, sections, func(n *prose.Node) bool {
			return n.Kind == prose.Emphasis || n.Kind == prose.Strong || n.Kind == prose.Reference
		}))
	assert.Equal(t, "quay", sections.Parts[0].Entries[0].Span.In(text))
}

func TestOwnWords(t *testing.T) {
	own := prose.Vocabulary{"glossary": "notes", "jira": "ignored", "stage": "label", "gone": "deprecated", "more": "text"}
	s := htmltags.Parse(commenttest.DocOf("A.\n@glossary B.\n@jira C\n@stage D\n@gone E\n@more F"), own)
	assert.Equal(t, "A. stage: D F", prose.Plain(s.Body))
	assert.Equal(t, "E", prose.Plain(s.Deprecated))
	assert.Equal(t, "B.", prose.Plain(s.Of(prose.Notes)[0].Body))
	assert.Empty(t, s.Flaws)
}

// Whatever a text nests or leaves open, the time stays in proportion to its length: where it
// did not, this test would not end.
func TestHostile(t *testing.T) {
	const many = 20_000
	for _, piece := range []string{
		"{@link ", "{@link a}", "{@code {", "{", "}", "<", "<p", "<p>", "<b>", "</b>", "<a href=\"", "<a href=b>", "<ul>", "<li>", "<ul><li>", "<dl><dt>a<dd>b", "<dd>", "<table>", "<td>", "<tr>", "<pre>", "<code>", "</code>",
		"<!--", "<!-- a -->", "&amp;", "&", "@param a b\n", "@see a\n", "@a\n", "<h1>", "<blockquote>", "<script>", "{@snippet :", "{@snippet : a}", "{@snippet region= : a}", "{@snippet region='' : a}", "{@return ", "{@summary {@summary a}}", "<x>", "</ul>", "@throws A b\n", "<li><p>", "{@inheritDoc}",
	} {
		text := strings.Repeat(piece, many)
		commenttest.Valid(t, text, htmltags.Parse(commenttest.DocOf(text), nil))
	}
}

// What stands for what: a piece of HTML, and how it reads.
func TestPieces(t *testing.T) {
	for text, want := range map[string]string{
		"a &lt; b &amp;&amp; c &copy; &nosuch; &":              "a < b && c © &nosuch; &",
		"<P>One.</P><P>Two.":                                   "One. Two.",
		"One<br/>two<wbr>three":                                "One twothree",
		"<a name=\"x\">here</a> and <a id=y></a>there":         "here and there",
		"<a href='http://a.example/?a=1&amp;b=2'>there</a>":    "there",
		"<u>under</u> <font color=red>red</font> <Q>said</Q>":  "under red said",
		"<ul><li>a</ul></ul></li>b":                            "a b",
		"<li>no list":                                          "no list",
		"<dd>no terms":                                         "no terms",
		"<td>no table":                                         "no table",
		"<table><tr><td>a<p>b<ul><li>c</ul></td></table>d":     "a b c d",
		"<table>loose<tr>looser<td>a</table>":                  "loose looser a",
		"<pre>\n  a\n    b\n</pre>":                            "a\n  b",
		"<pre>never closed":                                    "never closed",
		"x <pre></pre> y":                                      "x y",
		"{@code  a  b }{@literal {c}}":                         "a b{c}",
		"{@link}{@link  }{@value }":                            "the value",
		"{@summary First {@code a}.} Second.":                  "First a. Second.",
		"{@index term what it is} {@index \"two words\" x}":    "term two words",
		"{@snippet file=\"A.java\" region=b} after":            "after",
		"<!-- a > b --> c <!-- never":                          "c",
		"<script>a<b</script>c<style>d":                        "c",
		"1 < 2 > 3 <4> <- <>":                                  "1 < 2 > 3 <4> <- <>",
		"Map<K, V> and List<? super T>":                        "Map<K, V> and List<? super T>",
		"<h1>A<h2>B</h1>c":                                     "A B c",
		"<b><i>a</b>b</i>c":                                    "abc",
		"<blockquote>a<blockquote>b</blockquote></blockquote>": "a b",
	} {
		got := strings.Join(strings.Fields(prose.Plain(parse(commenttest.DocOf(text)).Body)), " ")
		assert.Equal(t, strings.Join(strings.Fields(want), " "), got, text)
	}
}

// Nothing leads to where no link of a comment may lead: its text stays.
func TestAddresses(t *testing.T) {
	for text, want := range map[string]string{
		`<a href="https://a.example/b">c</a>`: "https://a.example/b", `<a href="doc-files/tide.html#x">c</a>`: "doc-files/tide.html#x", `<a HREF = 'mailto:a@b.example'>c</a>`: "mailto:a@b.example",
		`<a href="javascript:alert(1)">c</a>`: "", `<a href=" java&#x73;cript:alert(1)">c</a>`: "", "<a href=\"java\nscript:a\">c</a>": "", `<a href="ftp://a.example/b">c</a>`: "",
		`<a href="data:text/html,a">c</a>`: "", `<a href="//a.example">c</a>`: "", `<a title="href=http://no.example" name=x>c</a>`: "",
		`c<img src="javascript:a">`: "", `c<img src="data:image/png;base64,a" alt="b">`: "",
	} {
		got := ""
		body := parse(commenttest.DocOf(text)).Body
		prose.Walk(body, func(n *prose.Node) bool {
			if n.Kind == prose.Link || n.Kind == prose.Image {
				got = n.Target
			}
			return true
		})
		assert.Equal(t, want, got, text)
		assert.Contains(t, prose.Plain(body), "c", text)
		commenttest.Valid(t, text, parse(commenttest.DocOf(text)))
	}
}

// Flaws are said where they stand.
func TestFlaws(t *testing.T) {
	for text, want := range map[string]string{
		"A List<String> here.":    "<String>",
		"See {@link Berth here.":  "{@",
		"Well {@code a < b} done": "",
		"<p>Fine<li>too":          "",
		"@retrun x":               "@retrun near @return",
		"@since 1\n@custom x":     "@custom",
	} {
		got := ""
		for _, f := range parse(commenttest.DocOf(text)).Flaws {
			if got = f.Text; f.Near != "" {
				got += " near " + f.Near
			}
			assert.True(t, strings.HasPrefix(text[f.Span.Start:], strings.TrimSuffix(f.Text, "@")), text)
		}
		assert.Equal(t, want, got, text)
	}
}

// References are names as the linker takes them, whatever stands around them.
func TestReferences(t *testing.T) {
	for text, want := range map[string][2]string{
		"{@link Berth}":                         {"Berth", "Berth"},
		"{@link #moor}":                         {"moor", "moor"},
		"{@link #moor(int, String)}":            {"moor(int, String)", "moor(int, String)"},
		"{@link Berth#moor(int,\n  String) so}": {"Berth#moor(int, String)", "so"},
		"{@link tide.Berth.Kind#HIGH high}":     {"tide.Berth.Kind#HIGH", "high"},
		"{@link tide.client/tide.Berth}":        {"tide.Berth", "tide.client/tide.Berth"},
		"{@link Berth##how-it-works how}":       {"Berth", "how"},
		"{@link Map<String, List<Integer>> m}":  {"Map<String, List<Integer>>", "m"},
		"{@linkplain Berth the <i>berth</i>}":   {"Berth", "the berth"},
		"{@value Berth#HOURS}":                  {"Berth#HOURS", "Berth.HOURS"},
		"{@value %x Berth#HOURS}":               {"Berth#HOURS", "Berth.HOURS"},
	} {
		var got [2]string
		prose.Walk(parse(commenttest.DocOf("See "+text+".")).Body, func(n *prose.Node) bool {
			if n.Kind == prose.Reference {
				got = [2]string{n.Target, prose.Plain(n.Children)}
			}
			return true
		})
		assert.Equal(t, want, got, text)
	}
}
