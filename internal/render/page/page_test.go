package page_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/link"
	"codrel/internal/look"
	"codrel/internal/model"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// text writes blocks as plain text with targets in brackets: another form than the site's,
// from the same blocks.
func text(blocks []page.Block) string {
	var b strings.Builder
	for i := range blocks {
		block(&b, &blocks[i], "")
	}
	return b.String()
}

func block(b *strings.Builder, of *page.Block, indent string) {
	line := line(of.Inlines)
	switch of.Kind {
	case page.Paragraph:
		fmt.Fprintf(b, "%s%s\n", indent, line)
	case page.Bare:
		fmt.Fprintf(b, "%s~ %s\n", indent, line)
	case page.Heading:
		about := ""
		if of.Of != nil {
			about = " of " + of.Of.Path()
		}
		fmt.Fprintf(b, "%s%s %s (%s%s)\n", indent, strings.Repeat("#", of.Level), line, of.Text, about)
	case page.Code:
		fmt.Fprintf(b, "%s``` %s: %q\n", indent, of.Info, of.Text)
	case page.List:
		fmt.Fprintf(b, "%slist from %d %s%v\n", indent, of.Level, of.Info, of.Loose)
		for i := range of.Blocks {
			block(b, &of.Blocks[i], indent+"  ")
		}
	case page.Item, page.Quote:
		fmt.Fprintf(b, "%s- %s\n", indent, line)
		for i := range of.Blocks {
			block(b, &of.Blocks[i], indent+"  ")
		}
	case page.Ruler:
		fmt.Fprintf(b, "%s----\n", indent)
	case page.Table:
		for _, row := range of.Rows {
			mark := "|"
			if row.Head {
				mark = "||"
			}
			for _, cell := range row.Cells {
				mark += " " + line2(cell.Inlines) + " |"
			}
			fmt.Fprintf(b, "%s%s\n", indent, mark)
		}
	case page.Display:
		fmt.Fprintf(b, "%s$$ %s\n", indent, line)
	}
}

func line2(list []page.Inline) string { return line(list) }

func line(list []page.Inline) string {
	var b strings.Builder
	for i := range list {
		p := &list[i]
		inner := line(p.Children)
		switch p.Kind {
		case page.Text:
			b.WriteString(p.Text)
		case page.Emphasis:
			b.WriteString("_" + inner + "_")
		case page.Strong:
			b.WriteString("*" + inner + "*")
		case page.Struck:
			b.WriteString("~" + inner + "~")
		case page.Superscript, page.Subscript:
			b.WriteString("^" + inner)
		case page.Label:
			fmt.Fprintf(&b, "<%s %s %v>", p.Text, p.Short, p.Colon)
		case page.Formula:
			b.WriteString("$" + p.Text + inner + "$")
		case page.CodeSpan:
			b.WriteString("`" + p.Text + "`" + to(p.To) + to(p.Or))
		case page.Break:
			b.WriteString(" / ")
		case page.Link:
			b.WriteString("[" + inner + "]" + to(p.To))
		case page.Picture:
			b.WriteString("!" + p.Text + "(" + p.Short + ")")
		case page.Group:
			b.WriteString(inner)
		}
	}
	return b.String()
}

// to says what a target is.
func to(t *page.Target) string {
	switch {
	case t == nil:
		return ""
	case t.Guide != nil && t.Heading != "":
		return "(" + t.Guide.Page.Path + "#" + t.Heading + ")"
	case t.Guide != nil:
		return "(" + t.Guide.Page.Path + ")"
	case t.Page != "":
		return "(page " + t.Page + ")"
	case t.Source != nil:
		return fmt.Sprintf("(%s:%d)", t.Source.Path, t.Line)
	case t.File != "":
		return fmt.Sprintf("(file %s:%d)", t.File, t.Line)
	case t.Form != nil:
		return "(form " + t.Declaration.Path() + ")"
	case t.Declaration != nil:
		return "(" + t.Declaration.Path() + ")"
	case t.Module != nil:
		return "(module " + t.Module.Path + ")"
	}
	return "(" + t.Address + ")"
}

var port = map[string]string{
	"package.json": `{"name": "port", "version": "1.0.0"}`,
	"README.md": "# Port\n\n## Use it\n\nSee [above](#use-it), [no heading](#nowhere), [the code](port.ts#L7), [outside](../x.md) and `Berth`.\n\n" +
		"![a chart](chart.png) and ![far](https://x.example/a.png)\n\n<insert:tides>\n\n| a | b |\n|---|---|\n| `Berth` | **c** |\n",
	"fragments/tides.md": "Tides are *low* or [high](ref:Berth.fits).\n",
	"port.ts": "/**\n * A port.\n * @module\n */\n\n" +
		"/**\n * Where a vessel lies.\n *\n * ## How\n *\n * - one `fits`\n * - two {@link Berth.fits | it}\n *\n * > quoted\n *\n * ~~old~~ text [in brackets]\n *\n * ```ts\n * new Berth(1)\n * ```\n */\n" +
		"export class Berth {\n  /** How deep. */\n  depth = 1;\n\n" +
		"  /**\n   * Whether a vessel fits.\n   *\n   * @param draught - What it needs, as {@link Vessel.draught}.\n   * @returns Whether it does.\n   * @throws {RangeError} Where it is negative.\n   * @since 1.0\n   */\n  fits(draught: number): boolean { if (draught < 0) throw new RangeError(); return true }\n}\n\n" +
		"/** A vessel. */\nexport interface Vessel { draught: number }\n\n" +
		"/** A quay. */\nexport class Quay extends Berth {\n  /** {@inheritDoc} */\n  fits(draught: number): boolean { return false }\n}\n\n" +
		"/** Moors by name. */\nexport function moor(name: string): Berth;\n/**\n * Moors by number.\n * @param n - Which.\n */\nexport function moor(n: number): Berth;\nexport function moor(x: any): Berth { return new Berth() }\n\n" +
		"/**\n * Docks.\n *\n * @deprecated Use {@link moor}.\n */\nexport function dock(): void {}\n",
}

// made builds the project and gives what makes its pages.
func made(t *testing.T, files map[string]string) (*build.Snapshot, *page.Maker) {
	t.Helper()
	s := buildtest.Run(t, buildtest.Files(files), build.Options{Folder: "port", Inside: true, TestNames: true})
	return s, &page.Maker{Links: s.Links, FrontEnds: s.FrontEnds, Texts: look.Plain().Texts}
}

func declared(t *testing.T, s *build.Snapshot, path string) *model.Declaration {
	t.Helper()
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if d := m.Lookup(path); d != nil {
				return d
			}
		}
	}
	require.Fail(t, "nothing is called "+path)
	return nil
}

func TestGuideWords(t *testing.T) {
	s, m := made(t, port)
	assert.Equal(t, `## Use it (Use it)
See [above](README.md#use-it), no heading, [the code](file port.ts:7), outside and `+"`Berth`"+`(Berth).
!a chart(chart.png) and [far](https://x.example/a.png)
Tides are _low_ or [high](Berth.fits).
|| a | b |
| `+"`Berth`"+`(Berth) | *c* |
`, text(m.GuideWords(s.Links.Landing()).Body))
}

func TestCommentWords(t *testing.T) {
	s, m := made(t, port)
	words := m.Words(declared(t, s, "Berth"))
	require.NotNil(t, words)
	assert.Equal(t, "typescript", words.Language)
	assert.Equal(t, "Where a vessel lies.\n## How (How of Berth)\nlist from 0 false\n  - one `fits`\n  - two [it](Berth.fits)\n- \n  quoted\n~old~ text [in brackets]\n``` ts: \"new Berth(1)\"\n", text(words.Body))
	assert.Empty(t, words.Parts)
	assert.Nil(t, words.Gone)
	assert.Nil(t, m.Words(declared(t, s, "Vessel.draught")), "nobody says anything of it")
}

func TestParts(t *testing.T) {
	s, m := made(t, port)
	var got []string
	for _, p := range m.Words(declared(t, s, "Berth.fits")).Parts {
		for _, item := range p.Items {
			said := fmt.Sprint(p.Kind, ": ")
			if item.Entry != nil {
				said += item.Entry.Name + to(item.Entry.To) + " = " + line(item.Entry.Line) + text(item.Entry.Text)
			} else {
				said += text(item.Blocks)
			}
			got = append(got, said)
		}
	}
	require.Len(t, got, 4)
	assert.Contains(t, got[0], "draught = What it needs, as [`Vessel.draught`](Vessel.draught).")
	assert.Contains(t, got[1], "Whether it does.")
	assert.Contains(t, got[2], "RangeError() = Where it is negative.", "what the language brings along has no page here")
	assert.Contains(t, got[3], "1.0")
}

// The text of another declaration is made in the place where it was written.
func TestInheritedWords(t *testing.T) {
	s, m := made(t, port)
	words := m.Words(declared(t, s, "Quay.fits"))
	assert.Equal(t, "Whether a vessel fits.\n", text(words.Body))
	require.NotEmpty(t, words.Parts, "and what it says of parameters")
	assert.Equal(t, "What it needs, as [`Vessel.draught`](Vessel.draught).", line(words.Parts[0].Items[0].Entry.Line))
}

func TestForms(t *testing.T) {
	s, m := made(t, port)
	words := m.Words(declared(t, s, "moor"))
	assert.Equal(t, "Moors by name.\n", text(words.Body))
	require.Len(t, words.Forms, 1)
	assert.Equal(t, 2, words.Forms[0].N)
	assert.Equal(t, "Moors by number.\n", text(words.Forms[0].Body))
	require.Len(t, words.Parts, 1)
	assert.Equal(t, 2, words.Parts[0].Items[0].Form, "the parameter of one form alone")
}

// The advice of an overload that speaks for all stands under its number.
func TestGoneForm(t *testing.T) {
	s, m := made(t, map[string]string{"port/Port.java": `package port;
/** A port. */
public class Port {
  /**
   * Moors.
   * @deprecated say {@code how long}
   */
  @Deprecated
  public void moor() { }
  /** Moors for hours. */
  public void moor(int hours) { }
}
`})
	words := m.Words(declared(t, s, "Port.moor"))
	assert.Equal(t, "Moors.\n", text(words.Body))
	require.Len(t, words.Forms, 2)
	assert.Equal(t, 1, words.Forms[0].N)
	require.NotNil(t, words.Forms[0].Gone)
	assert.Equal(t, "say `how long`", line(words.Forms[0].Gone.Lines[0]))
	assert.Equal(t, 2, words.Forms[1].N)
	assert.Nil(t, words.Forms[1].Gone)
}

// An overload has its text where the one that speaks for all takes its own from outside.
func TestFormBesideTextFromOutside(t *testing.T) {
	s, m := made(t, map[string]string{"port/Port.java": `package port;
/** A port. */
public class Port {
  /** {@inheritDoc} */
  @Override
  public boolean equals(Object other) { return true; }
  /**
   * Compares the names.
   * @param other with which
   */
  public boolean equals(Port other, boolean names) { return true; }
}
`})
	words := m.Words(declared(t, s, "Port.equals"))
	require.NotNil(t, words)
	assert.Equal(t, "", text(words.Body))
	require.Len(t, words.Forms, 1)
	assert.Equal(t, "Compares the names.\n", text(words.Forms[0].Body))
	require.Len(t, words.Parts, 1)
	assert.Equal(t, 2, words.Parts[0].Items[0].Form)
}

// What parts of a type under one condition say in the same words stands on the page once.
func TestPartsInTheSameWords(t *testing.T) {
	s, m := made(t, map[string]string{"Port.csproj": "<Project/>", "Port.cs": `/// <summary>A port.</summary>
public partial class Port { }
#if DEEP
/// <summary>A deep port.</summary>
public partial class Port { public int Depth; }
/// <summary>A  deep
/// port.</summary>
public partial class Port { public int Draught; }
#endif
#if WIDE
/// <summary>A deep port.</summary><remarks/>
public partial class Port { public int Width; }
#endif
`})
	words := m.Words(declared(t, s, "Port"))
	said := []string{strings.TrimSpace(text(words.Body))}
	for _, f := range words.Forms {
		assert.Zero(t, f.N)
		assert.Empty(t, f.Same)
		said = append(said, f.Title+": "+strings.TrimSpace(text(f.Body)))
	}
	assert.Equal(t, []string{"A port.", "For DEEP: A deep port.", "For WIDE: A deep port."}, said)
}

// What comments on several forms say in the same words stands on the page once.
func TestFormsInTheSameWords(t *testing.T) {
	s, m := made(t, map[string]string{"port/Port.java": `package port;
/** A port. */
public class Port {
  /**
   * Moors {@code a} vessel.
   * @param name which
   * @return whether it lies
   * @see #leave
   * @see "The harbour book"
   */
  public boolean moor(String name) { return true; }
  /**
   * Moors {@code a} vessel.
   * @param number its number
   * @return whether it lies
   * @see #leave
   * @see "The second book"
   */
  public boolean moor(int number) { return true; }
  /**
   * Moors any vessel.
   * @return whether any lies
   * @see "The second book"
   */
  public boolean moor() { return true; }
  /** Moors <b>any vessel</b>. */
  public boolean moor(long number) { return true; }
  /**
   * Moors any vessel.
   * @return whether any lies
   */
  public boolean moor(double length) { return true; }
  /** Leaves. */
  public void leave() { }
}
`})
	words := m.Words(declared(t, s, "Port.moor"))
	assert.Equal(t, "Moors `a` vessel.\n", text(words.Body))
	require.Len(t, words.Forms, 2, "the second form's text is the first one's")
	assert.Equal(t, 3, words.Forms[0].N)
	assert.Equal(t, []int{5}, words.Forms[0].Same)
	assert.Equal(t, 4, words.Forms[1].N)
	assert.Equal(t, "Moors any vessel.\n", text(words.Forms[0].Body))
	var items []string
	for _, p := range words.Parts {
		for _, i := range p.Items {
			said := text(i.Blocks)
			if i.Entry != nil {
				said += strings.TrimSpace(i.Entry.Name + " " + line(i.Entry.Line) + text(i.Entry.Text))
			}
			items = append(items, strings.TrimSpace(fmt.Sprintf("%d %s", i.Form, strings.TrimSpace(said))+" "+strings.Trim(fmt.Sprint(i.Also), "[]")))
		}
	}
	assert.Equal(t, []string{
		"0 name which", "2 number its number", "0 whether it lies", "3 whether any lies 5",
		"0 [`leave`](Port.leave)\n\"The harbour book\"", "0 \"The second book\"",
	}, items)
}

func TestDeprecation(t *testing.T) {
	s, m := made(t, port)
	dock := declared(t, s, "dock")
	gone := m.Deprecation(dock)
	require.NotNil(t, gone)
	require.Len(t, gone.Lines, 1)
	assert.Equal(t, "Use [`moor`](moor).", line(gone.Lines[0]))
	assert.Empty(t, gone.Rest)
	assert.Equal(t, "Use [`moor`](moor).", line(m.Advice(dock)))
	assert.Nil(t, m.Deprecation(declared(t, s, "moor")))
	assert.Equal(t, "Docks.", line(m.Summary(dock.Module, dock)))
	assert.Equal(t, "A port.", line(m.ModuleSummary(dock.Module)))
	assert.Equal(t, "A port.\n", text(m.ModuleWords(dock.Module)[0].Body))
}

// written is a plate as text, with what its pieces lead to.
func written(list []page.Token) string {
	var b strings.Builder
	for i := range list {
		t := &list[i]
		b.WriteString(t.Text)
		if t.To != nil && !t.To.None() {
			b.WriteString(to(t.To))
		}
	}
	return b.String()
}

func TestPlates(t *testing.T) {
	s, m := made(t, port)
	plate := func(path string) string {
		d := declared(t, s, path)
		return written(m.Plate(d, d.Speaks(model.Signature)))
	}
	assert.Equal(t, "class Berth", plate("Berth"), "what a class holds has plates of its own")
	assert.Equal(t, "interface Vessel {\n\tdraught(Vessel.draught): number;\n}", plate("Vessel"))
	assert.Equal(t, "function moor(name: string): Berth(Berth)", plate("moor"))
	assert.Contains(t, plate("Quay"), "class Quay extends Berth(Berth)")
	d := declared(t, s, "moor")
	assert.Equal(t, "(name: string): Berth", m.Short(d))
	depth := declared(t, s, "Berth.depth")
	assert.Equal(t, " = 1", written(m.BehindName(depth)))
}

func TestLongSignatures(t *testing.T) {
	s, m := made(t, map[string]string{"go.mod": "module port", "a.go": `// Package port is one.
package port

// Vessel is one.
type Vessel int

// Moor takes much.
func Moor(first, second string, vessel Vessel, callback func(a, b int) error, rest ...map[string][]Vessel) (berth Vessel, err error) {
	return 0, nil
}

// Tide holds types.
type Tide interface {
	Vesselled
	// Height tells.
	Height() int
}

// Vesselled has one.
type Vesselled interface{ Vessel() Vessel }
`})
	d := declared(t, s, "Moor")
	assert.Equal(t, "func Moor(\n\tfirst, second string,\n\tvessel Vessel(Vessel),\n\tcallback func(a, b int) error,\n\trest ...map[string][]Vessel(Vessel),\n) (berth Vessel(Vessel), err error)", written(m.Signature(d, d.Speaks(model.Words))))
	tide := declared(t, s, "Tide")
	assert.Equal(t, "type Tide interface {\n\tVesselled(Vesselled)\n\tHeight(Tide.Height)() int\n}", written(m.Plate(tide, tide.Speaks(model.Words))), "what a signature says itself of what it holds stands a line each")
	short := m.Short(d)
	assert.LessOrEqual(t, len([]rune(short)), page.LongSignature)
	assert.True(t, strings.HasSuffix(short, "…"))
}

// sentence is a note as text.
func sentence(s page.Sentence) string {
	var b strings.Builder
	for _, p := range s {
		b.WriteString(p.Text + to(p.To))
	}
	return b.String()
}

func TestNotes(t *testing.T) {
	s, m := made(t, port)
	p := plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1})
	berth := declared(t, s, "Berth")
	n := &page.Notes{Maker: m, Plan: p, Here: berth.Module}
	all := func(list []page.Sentence) (out []string) {
		for _, one := range list {
			out = append(out, sentence(one))
		}
		return out
	}
	notes := all(n.Declaration(berth))
	assert.Equal(t, "Defined in port.ts(port.ts:22), line 22.", notes[0])
	assert.Contains(t, notes, "Mentioned in README.md(README.md).")
	assert.Equal(t, []string{"Extended by Quay(Quay)."}, all(n.Relations(berth)), "what makes it stands on its page before")
	assert.Contains(t, all(n.Declaration(declared(t, s, "Quay.fits"))), "Overrides Berth.fits(Berth.fits).")
	assert.Contains(t, all(n.Declaration(declared(t, s, "Berth.fits"))), "Overridden by Quay.fits(Quay.fits).")
	module := all(n.Module(berth.Module))
	assert.Equal(t, "1 file: port.ts(port.ts:1).", module[0])
	assert.Equal(t, "class", n.KindWords(berth))
	assert.Equal(t, "function, deprecated", n.KindWords(declared(t, s, "dock")))
	assert.Equal(t, "Berth", n.NameFromHere(berth))
	n.Here = nil
	assert.Equal(t, "port.Berth", n.NameFromHere(berth), "elsewhere its module's name stands before it")
	assert.Equal(t, "Berth(Berth)", strings.TrimPrefix(sentence(page.Sentence{n.BaseName(berth)}), "port."))
}

// A link holds no other, whatever stands in it.
func TestLinksDoNotNest(t *testing.T) {
	files := map[string]string{"go.mod": "module port", "a.go": "// Package port is one.\npackage port\n\n// Berth is one.\ntype Berth int\n",
		"README.md": "# P\n\n[a `Berth` and *b `Berth`* ![p](https://x.example/p.png) ~~`Berth`~~](https://x.example/)\n\n[![badge](https://x.example/b.png)](ref:Berth)\n"}
	s, m := made(t, files)
	var walk func(list []page.Inline, inside bool)
	links := 0
	walk = func(list []page.Inline, inside bool) {
		for i := range list {
			p := &list[i]
			leads := p.Kind == page.Link || p.Kind == page.CodeSpan && p.To != nil
			if leads {
				links++
			}
			assert.False(t, leads && inside, "%v", p)
			walk(p.Children, inside || p.Kind == page.Link)
		}
	}
	for _, b := range m.GuideWords(s.Links.Landing()).Body {
		walk(b.Inlines, false)
	}
	assert.Equal(t, 2, links)
}

// Fragments that insert one another without end come to one.
func TestEndlessText(t *testing.T) {
	files := map[string]string{"go.mod": "module port", "a.go": "// Package port is one.\npackage port\n", "README.md": "# P\n\n<insert:a>\n",
		"fragments/a.md": "A.\n\n<insert:b>\n", "fragments/b.md": "B.\n\n<insert:a>\n"}
	s, m := made(t, files)
	got := text(m.GuideWords(s.Links.Landing()).Body)
	assert.True(t, strings.HasPrefix(got, "A.\nB.\nA.\n"))
	assert.Less(t, len(got), 100)
}

func TestBuilderOfNothing(t *testing.T) {
	s, _ := made(t, port)
	b := page.NewBuilder(s.Links, link.Scope{})
	assert.Nil(t, b.Blocks(nil))
	assert.Nil(t, b.Inlines(nil))
}
