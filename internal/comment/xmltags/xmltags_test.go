package xmltags_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/comment/commenttest"
	"codrel/internal/comment/xmltags"
	"codrel/internal/growth"
	"codrel/internal/model"
	"codrel/internal/prose"
)

const fixture = "testdata/comments.txt"

func parse(doc *model.Doc) *prose.Sections { return xmltags.Parse(doc, nil) }

func TestFixture(t *testing.T) { commenttest.Fixture(t, fixture, parse) }

func FuzzParse(f *testing.F) { commenttest.Fuzz(f, fixture, parse) }

func BenchmarkParse(b *testing.B) { commenttest.Benchmark(b, fixture, parse) }

func TestGrowth(t *testing.T) {
	growth.Comments(t, fixture, func(text string) { parse(commenttest.DocOf(text)) })
}

func TestSpans(t *testing.T) {
	text := "<summary>Text <see cref=\"Plan.Free\"/> and <b>more</b>.</summary>\n<param name=\"quay\">Where <i>exactly</i>.</param>"
	sections := xmltags.Parse(commenttest.DocOf(text), nil)
	assert.Equal(t, map[string]string{"Plan.FreePlan.Free": "Plan.Free", "more": "<b>more</b>", "exactly": "<i>exactly</i>"},
		commenttest.Shown(text, sections, func(n *prose.Node) bool {
			return n.Kind == prose.Emphasis || n.Kind == prose.Strong || n.Kind == prose.Reference
		}))
	assert.Equal(t, "quay", sections.Parts[0].Entries[0].Span.In(text))
}

func TestOwnWords(t *testing.T) {
	own := prose.Vocabulary{"glossary": "notes", "jira": "ignored", "stage": "label", "gone": "deprecated", "more": "text"}
	s := xmltags.Parse(commenttest.DocOf("<summary>A.</summary>\n<glossary>B.</glossary>\n<jira>C</jira>\n<stage>D</stage>\n<gone>E</gone>\n<more>F</more>"), own)
	assert.Equal(t, "A. stage: D F", prose.Plain(s.Body))
	assert.Equal(t, "E", prose.Plain(s.Deprecated))
	assert.Equal(t, "B.", prose.Plain(s.Of(prose.Notes)[0].Body))
	assert.Empty(t, s.Flaws)
}

// What "cref" names, as a reader sees it and as it is looked up.
func TestNames(t *testing.T) {
	for cref, want := range map[string]string{
		"Berth":                                       "Berth = Berth",
		"Harbour.Berth":                               "Harbour.Berth = Harbour Berth",
		"global::Tide.Berth":                          "Tide.Berth = Tide Berth",
		"Plan{T}":                                     "Plan<T> = Plan /1",
		"Plan{TKey,TValue}.Add(TKey, TValue)":         "Plan<TKey,TValue>.Add(TKey, TValue) = Plan Add (TKey TValue)",
		"Moor(System.Int32, List{String}[])":          "Moor(System.Int32, List<String>[]) = Moor (int List<String>[])",
		"Moor()":                                      "Moor() = Moor ()",
		"this[int]":                                   "this[int] = this[] (int)",
		"Plan.this[string, int]":                      "Plan.this[string, int] = Plan this[] (string int)",
		"operator +(Tide, Tide)":                      "operator +(Tide, Tide) = operator +",
		"Tide.operator ==":                            "Tide.operator == = Tide operator ==",
		"Tide.implicit operator int(Tide)":            "Tide.implicit operator int(Tide) = Tide implicit operator",
		"T:Tide.Client.Plan`1":                        "Plan = Tide Client Plan /1",
		"N:Tide.Client":                               "Tide.Client = Tide Client",
		"M:Tide.Plan`1.Add(`0,System.Int32@)":         "Plan.Add(`0, int) = Tide Plan Add (`0 int)",
		"M:Tide.Plan.#ctor(System.String)":            "Plan(string) = Tide Plan Plan (string)",
		"M:Tide.Plan.#ctor":                           "Plan = Tide Plan Plan",
		"P:Tide.Plan.Item(System.Int32)":              "Plan.Item(int) = Tide Plan this[] (int)",
		"F:Tide.Plan.free":                            "Plan.free = Tide Plan free",
		"M:Tide.Tide.op_Addition(Tide.Tide,Tide.T)":   "Tide.op_Addition(Tide, T) = Tide Tide operator + (Tide T)",
		"M:Tide.P.Get(System.Collections.List{Tide})": "P.Get(List<Tide>) = Tide P Get (List<Tide>)",
		"M:Tide.P.Get``1(``0)":                        "P.Get(``0) = Tide P Get (``0)",
	} {
		s := xmltags.Parse(commenttest.DocOf(`<see cref="`+cref+`"/>`), nil)
		n := s.Body[0].Children[0]
		got := n.Target + " = " + strings.Join(n.Named.Path, " ")
		if n.Named.Arity > 0 {
			got += " /" + string(rune('0'+n.Named.Arity))
		}
		if n.Named.Callable {
			got += " (" + strings.Join(n.Named.Params, " ") + ")"
		}
		assert.Equal(t, want, got, cref)
	}
}

// What is wrong with a comment, and what is shown of it all the same.
func TestFlaws(t *testing.T) {
	for text, want := range map[string]string{
		"<summary>Tides & berths.</summary>":                           "Tides & berths. | & &amp;",
		"<summary>If a < b.</summary>":                                 "If a < b. | < &lt;",
		"<summary>A List<Berth> of berths.</summary>":                  "A List<Berth> of berths. | <Berth>",
		"<summary>Never closed.":                                       "Never closed. | <summary>",
		"<summary>A <b>bold word.</summary>":                           "A bold word. | <b>",
		"<summary>A word.</b></summary>":                               "A word. | </b>",
		"<summary>A</Berth> b.</summary>":                              "A</Berth> b. | < &lt;",
		"<summary>One<p>Two<br>three</summary>":                        "One Two three",
		"<sumary>One.</sumary>":                                        "One. | <sumary> <summary>",
		"<summary>&nbsp;&lt;a&gt; &#65;&nosuch; x &amp</summary>":      "<a> A&nosuch; x &amp | & &amp; | & &amp;",
		"<summary><!-- not shown -->A<![CDATA[ <b> & ]]>b</summary>":   "A <b> & b",
		"<summary>A custom <tide>element</tide> is shown.</summary>":   "A custom element is shown.",
		"<summary>One.</summary><returns>Two.</returns> And a remark.": "One. And a remark.",
	} {
		s := xmltags.Parse(commenttest.DocOf(text), nil)
		got := prose.Plain(s.Body)
		for _, f := range s.Flaws {
			got += strings.TrimRight(" | "+f.Text+" "+f.Near, " ")
		}
		assert.Equal(t, want, strings.ReplaceAll(got, "\u00a0", ""), text)
	}
}

// Whatever a text nests or leaves open, the time stays in proportion to its length: where it
// did not, this test would not end.
func TestHostile(t *testing.T) {
	const many = 20_000
	for _, piece := range []string{
		"<", "<a", "<b>", "</b>", "<b></b>", "<x>", "</x>", "<summary>", "<param name=\"a\">", "<see cref=\"A\"/>", "<see cref=\"", "<list>", "<item>", "<list><item><term>a</term>", "<code>", "</code>", "<p>",
		"<![CDATA[", "<![CDATA[a]]>", "<!--", "<!-- a -->", "<?", "&", "&amp;", "&#", "<br>", "<br/>", "<table><tr><td>", "<inheritdoc/>", "\n\n", "<include file='a' path='b'/>", "<c>", "<para>", "<li>", "<h1>",
	} {
		text := strings.Repeat(piece, many)
		commenttest.Valid(t, text, xmltags.Parse(commenttest.DocOf(text), nil))
	}
}
