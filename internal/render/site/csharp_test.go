package site_test

import (
	"fmt"
	"html"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/tools/txtar"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/languages"
	"codrel/internal/settings"
)

// boardHelper shows a harbour's board on a desk: what natives write, in namespaces that lie
// in one another.
const boardHelper = `
-- board/Tide.Board.csproj --
<Project Sdk="Microsoft.NET.Sdk">
  <PropertyGroup><PackageId>Tide.Board</PackageId><Version>2.1</Version></PropertyGroup>
</Project>
-- board/Board.cs --
using System;
using System.Collections.Generic;
using Tide.Board.Wire;

namespace Tide.Board;

/// <summary>
/// A board of berths, see <see cref="Show(Vessel, int)"/> and <see cref="Entry{T}"/>.
/// </summary>
/// <typeparam name="T">What lies at the berths.</typeparam>
/// <remarks>It is lit by <see href="https://tide.example/">the harbour</see>; null is <see langword="null"/>.</remarks>
/// <example>
/// <code>
/// var board = new Board&lt;Vessel>();
/// </code>
/// </example>
public abstract partial class Board<T> : IBoard, IEnumerable<T> where T : Vessel, new()
{
    /// <summary>The most hours.</summary>
    public const int Hours = 12;

    /// <summary>Makes a board.</summary>
    /// <param name="name">What it is called.</param>
    protected Board(string name) : this() { Name = name; }

    private Board() { }

    /// <summary>What it is called.</summary>
    /// <value>Never empty.</value>
    public string Name { get; private set; } = "";

    /// <summary>Shows a vessel.</summary>
    /// <param name="vessel">Who comes.</param>
    /// <exception cref="ArgumentNullException">There is none.</exception>
    public void Show(Vessel vessel) => Show(vessel, Hours);

    /// <summary>Shows a vessel for some hours.</summary>
    /// <param name="vessel">Who comes.</param>
    /// <param name="hours">How long, at most <see cref="Hours"/>.</param>
    public virtual void Show(Vessel vessel, int hours = 3) { }

    /// <inheritdoc/>
    public int Count => 0;

    /// <summary>The vessel on a row.</summary>
    /// <param name="row">From 0.</param>
    public T this[int row] => default;

    IEnumerator<T> IEnumerable<T>.GetEnumerator() => null;

    /// <summary>Raised where a row changes.</summary>
    public event EventHandler<Changed> RowChanged;

    /// <summary>Compares two.</summary>
    /// <param name="a">One.</param>
    /// <param name="b">The other.</param>
    /// <returns>Whether they show the same.</returns>
    public static bool operator ==(Board<T> a, Board<T> b) => true;

    /// <summary>What changed.</summary>
    public sealed class Changed : EventArgs { }

    internal void Hidden() { }
}
-- board/Board.Rows.cs --
namespace Tide.Board
{
    partial class Board<T>
    {
        /// <summary>All rows.</summary>
        /// <returns>One for each berth.</returns>
        public List<Entry<T>> Rows() => null;
    }

    /// <summary>What shows something.</summary>
    public interface IBoard
    {
        /// <summary>How many rows there are.</summary>
        int Count { get; }
    }

    /// <summary>An entry of no kind.</summary>
    public class Entry { }

    /// <summary>An entry.</summary>
    public class Entry<T> { }

    /// <summary>What comes.</summary>
    /// <param name="Name">What it is called.</param>
    public record Vessel(string Name);

    /// <summary>Told of rows.</summary>
    /// <param name="row">Which one.</param>
    public delegate void RowHandler(int row);
}
namespace Tide.Board.Wire
{
    /// <summary>What comes over the wire, for a <see cref="Vessel"/>.</summary>
    [System.Obsolete("Use Entry.")]
    public struct Reply
    {
        /// <summary>Of whom.</summary>
        public Vessel Of;
#if LINUX
        /// <summary>Where it is on Linux.</summary>
        public int Port;
#endif
    }

    /// <summary>What vessels can do besides.</summary>
    public static class VesselExtensions
    {
        /// <summary>Sends a vessel away.</summary>
        /// <param name="vessel">Which one.</param>
        public static void Send(this Vessel vessel) { }
    }
}
-- board.Tests/BoardTests.cs --
class BoardTests { void Undocumented() {} }
`

func TestCSharpPages(t *testing.T) {
	page := surfaceOf(t, boardHelper)
	says := func(path, want string) {
		t.Helper()
		dense := func(text string) string { return strings.ReplaceAll(html.UnescapeString(text), " ", "") }
		assert.True(t, strings.Contains(dense(page(path)), dense(want)), "%s does not say %q", path, want)
	}
	const space = "reference/board/Tide.Board/"
	says(space+"index.html", "Tide.Board namespace")
	for _, want := range []string{
		"public abstract class Board<T> : IBoard, IEnumerable<T> where T : Vessel, new()",
		"using Tide.Board;",
		"A board of berths, see Show(Vessel, int) and Entry<T>.",
		"It is lit by the harbour; null is null.",
		"var board = new Board<Vessel>();",
		"protected Board(string name)",
		"Type parameters T What lies at the berths.",
		"Overload 1 public void Show(Vessel vessel) Overload 2 public virtual void Show(Vessel vessel, int hours = 3)",
		"How many rows there are.",
		"public T this[int row] { get; }",
		"public static bool operator ==(Board<T> a, Board<T> b)",
		"public List<Entry<T>> Rows()",
		"Name string { get; private set; }",
		"RowChanged",
	} {
		says(space+"Board-1.html", want)
	}
	assert.NotContains(t, page(space+"Board-1.html"), "Hidden", "it is for the assembly alone")
	assert.NotContains(t, page(space+"Board-1.html"), "GetEnumerator", "it is for who has the interface")
	says(space+"Board-1.Changed.html", "public sealed class Changed : EventArgs")
	says(space+"Vessel.html", "public record Vessel(string Name)")
	says(space+"RowHandler.html", "public delegate void RowHandler(int row)")
	const wire = "reference/board/Tide.Board.Wire/"
	says(wire+"Reply.html", "Use Entry.")
	says(wire+"Reply.html", "LINUX")
	says(wire+"VesselExtensions.html", "public static void Send(this Vessel vessel)")
}

// Text that a comment includes from an XML file counts as its own.
func TestCSharpIncludes(t *testing.T) {
	page := surfaceOf(t, boardHelper+`
-- board/Row.cs --
namespace Tide.Board;

/// <include file='docs/rows.xml' path='rows/row[@name="Row"]/*'/>
public class Row
{
    /// <include file="docs\rows.xml" path="rows/row[@name='Show']/summary" />
    /// <include file='rows.xml' path='//param'/>
    /// <returns>How many.</returns>
    public int Show(int at) => 0;
}
-- board/docs/rows.xml --
<?xml version="1.0"?>
<rows>
  <row name="Row"><summary>A row of a <see cref="Board{T}"/>.</summary><remarks>Lit at night.</remarks></row>
  <row name="Show"><summary>Shows &lt;one&gt;.</summary></row>
</rows>
-- rows.xml --
<rows><param name="at">Where.</param></rows>
`)
	const row = "reference/board/Tide.Board/Row.html"
	assert.Contains(t, page(row), "A row of a Board&lt;T&gt; . Lit at night.")
	assert.Contains(t, page(row), "Shows &lt;one&gt;.")
	assert.Contains(t, page(row), "at Where.")
}

// What one file, or the project's, uses for all files is seen by all of them.
func TestCSharpUsingsForAll(t *testing.T) {
	archive := func(project, usings string) []byte {
		return []byte(`
-- Quay.csproj --
<Project` + project + `
</Project>
-- Usings.cs --
` + usings + `
-- Gauges.cs --
namespace Quay.Gauges { /** <summary>Reads.</summary> */ public class Reading { } }
namespace Quay.Other { /** <summary>Reads.</summary> */ public class Reading { } }
-- Log.cs --
namespace Quay.Logs;
/// <summary>Keeps <see cref="Reading"/>s in a <see cref="List{T}"/>.</summary>
public class Log
{
    /// <summary>The last one.</summary>
    public Reading? Last { get; }
}
`)
	}
	unclear := []string{
		`Log.cs:2:31 "Reading" could mean Quay.Gauges.Reading or Quay.Other.Reading; write more of the name`,
		`Log.cs:2:59 "List<T>" is not declared; did you mean Last?`,
	}
	for name, c := range map[string]struct {
		project, usings, links string
		findings               []string
	}{
		"none":              {">", "", "", unclear},
		"a file's":          {">", "global using Quay.Gauges;\nglobal using System.Collections.Generic;", "Gauges", nil},
		"of one file alone": {">", "using Quay.Gauges;", "", unclear},
		"another name":      {` Sdk="A">`, "global using Reading = Quay.Other.Reading;", "Other", nil},
		"the project's":     {` Sdk="A"><ItemGroup><Using Include="Quay.Other"/></ItemGroup>`, "", "Other", nil},
	} {
		t.Run(name, func(t *testing.T) {
			files := fstest.MapFS{}
			for _, f := range txtar.Parse(archive(c.project, c.usings)).Files {
				files[f.Name] = &fstest.MapFile{Data: f.Data}
			}
			s, err := build.Run(t.Context(), files, build.Options{Settings: settings.Default(), FrontEnds: languages.All, Folder: "quay"})
			require.NoError(t, err)
			var got []string
			for i := range s.Findings {
				f := &s.Findings[i]
				got = append(got, fmt.Sprintf("%s:%d:%d ", f.Place.File, f.Place.At.Line, f.Place.At.Column)+finding.OneLine(check.Text(f)))
			}
			assert.Equal(t, c.findings, got)
			site := asFS(rendered(t, files, settings.Default(), 2))
			requireSound(t, site)
			page := string(site["reference/Quay/Quay.Logs/Log.html"].Data)
			for _, space := range []string{"Gauges", "Other"} {
				assert.Equal(t, space == c.links, strings.Contains(page, "/Quay."+space+"/Reading.html"), space)
			}
		})
	}
}

// A name that may come from outside is told from a slip by what is known to stand there.
func TestCSharpSlips(t *testing.T) {
	for text, want := range map[string]string{
		"using System;|Berht":                        `"Berht" is not declared; did you mean Berth?`,
		"using System;\nusing System.Text;|Gauge":    "",
		"using System;|Strings":                      "",
		"using System;|Versiom":                      `"Versiom" is not declared; did you mean Version?`,
		"using System;|Versions":                     `"Versions" is not declared; did you mean Version?`,
		"using System.Text.RegularExpressions;|Math": `"Math" is not declared; did you mean Maths?`,
		"using System;\nusing Tide.Quays;|Pillar":    `"Pillar" is not declared; did you mean Pillars?`,
		"using System;|Pillar":                       "",
		"using System;|Math":                         "",
		"using Tide.Net;|Berht":                      "",
		"using static System.Console;|Berht":         "",
		"using Berht = Tide.Net.Berth;|Berht":        "",
	} {
		usings, name, _ := strings.Cut(text, "|")
		files := fstest.MapFS{
			"Berth.cs": {Data: []byte("namespace Quay;\n/** <summary>A berth.</summary> */\npublic class Berth { }\n/** <summary>One.</summary> */\npublic class Version { }\n/** <summary>Sums.</summary> */\npublic class Maths { }\n")},
			"Bed.cs":   {Data: []byte("namespace Tide.Quays;\n/** <summary>They bear.</summary> */\npublic class Pillars { }\n")},
			"Log.cs":   {Data: []byte(usings + "\nnamespace Quay;\n/** <summary>See <see cref=\"" + name + "\"/>.</summary> */\npublic class Log { }\n")},
		}
		s, err := build.Run(t.Context(), files, build.Options{Settings: settings.Default(), FrontEnds: languages.All, Folder: "quay"})
		require.NoError(t, err)
		got := ""
		for i := range s.Findings {
			got += finding.OneLine(check.Text(&s.Findings[i]))
		}
		assert.Equal(t, want, got, text)
	}
}

// The findings are those that a sensible maintainer would mend, at their places.
func TestCSharpFindings(t *testing.T) {
	files := archived(boardHelper + `
-- board/Flawed.cs --
namespace Tide.Board;

/// <summary>Flawed, see <see cref="Boards"/>, <see cref="System.Math"/> & a List<Vessel>.</summary>
public class Flawed
{
    /// <summary>Shows.</summary>
    /// <param name="vesel">Who comes.</param>
    /// <typeparam name="T">What lies there.</typeparam>
    /// <retuns>Nothing.</retuns>
    public int Show<T>(Vessel vessel, int hours) => 0;
    public void Bare() {}
    public Flawed() {}
    /// <seealso cref="Board{T}"/>
    public int Since;
    /// <inheritdoc/>
    public void Unlike() {}
    /// <summary>Never closed.
    [System.Obsolete] public void Old() {}
    /// <summary>See <see cref="Show(string)"/>.</summary>
    public override string ToString() => "";
    public override int GetHashCode() => 0;
    /// <include file='none.xml' path='a/b'/>
    public void Taken() {}
    /// <include file='none.xml' path='a/b'/>
    public void Taken(int hours) {}
    /// <include file='some.xml' path='a/c[@name="x"]'/><summary>Its own.</summary>
    public void Partly() {}
    /// <include file='some.xml' path='a/['/><summary>Its own.</summary>
    public void Wrongly() {}
}
-- board/some.xml --
<a><b>B</b></a>
`)
	s, err := build.Run(t.Context(), files, build.Options{Settings: settings.Default(), FrontEnds: languages.All, Folder: "board"})
	require.NoError(t, err)
	var got []string
	for i := range s.Findings {
		f := &s.Findings[i]
		got = append(got, strings.TrimPrefix(f.Place.File, "board/")+fmt.Sprintf(":%d:%d ", f.Place.At.Line, f.Place.At.Column)+f.Rule+" "+finding.OneLine(check.Text(f)))
	}
	assert.Equal(t, []string{
		`Flawed.cs:3:37 broken-reference "Boards" is not declared; did you mean Board?`,
		`Flawed.cs:3:74 malformed-comment "&" begins markup here; write &amp; for the sign itself`,
		"Flawed.cs:3:82 malformed-comment <Vessel> is opened here and never closed",
		"Flawed.cs:7:22 phantom-parameter Flawed.Show has no parameter vesel; did you mean vessel?",
		`Flawed.cs:9:9 unknown-tag "<retuns>" is not a known word here; did you mean <returns>?`,
		"Flawed.cs:10:16 undescribed-parameter parameter hours of Flawed.Show is not described",
		"Flawed.cs:10:16 undescribed-parameter parameter vessel of Flawed.Show is not described",
		"Flawed.cs:10:16 undescribed-result the comment on Flawed.Show does not say what it returns",
		"Flawed.cs:11:17 undocumented method Flawed.Bare has no doc comment",
		"Flawed.cs:14:16 undocumented the comment on field Flawed.Since consists of tags alone",
		`Flawed.cs:15:9 broken-reference "<inheritdoc/>" inherits nothing: nothing that method Flawed.Unlike overrides or implements has a comment`,
		"Flawed.cs:17:9 malformed-comment <summary> is opened here and never closed",
		"Flawed.cs:18:35 deprecated-without-advice method Flawed.Old is deprecated, but its comment does not say what to use instead",
		"Flawed.cs:22:9 broken-reference none.xml is not there, or cannot be read, to take text from",
		`Flawed.cs:26:9 broken-reference "a/c[@name="x"]" finds nothing in some.xml`,
		`Flawed.cs:28:9 broken-reference "a/[" finds nothing in some.xml`,
	}, got)
}

// What is added to a type from outside stands on its page, and what is static is said so.
func TestCSharpAddedMembers(t *testing.T) {
	page := surfaceOf(t, `
-- box/Box.csproj --
<Project></Project>
-- box/Box.cs --
namespace Tide;
/// <summary>A box.</summary>
public struct Box
{
    /// <summary>All there are.</summary>
    public static int Count { get; }
}
/// <summary>Adds.</summary>
public static class Boxes
{
    /// <summary>Opens one.</summary>
    public static void Open(this in Box box) { }
    /// <summary>Takes one.</summary>
    public static void Take(Box box) { }
    /// <summary>For all.</summary>
    public static void Any<T>(this T it) { }
    extension(Box box)
    {
        /// <summary>Half of it.</summary>
        public int Half => 1;
    }
}
`)
	box := page("reference/box/Tide/Box.html")
	assert.Contains(t, box, "Count static int { get ; }")
	assert.Contains(t, box, "Extension members Half { get; } Half of it. Open (this in Box box) Opens one. Relationships Parameter of Boxes.Take .")
	assert.NotContains(t, box, "For all")
}
