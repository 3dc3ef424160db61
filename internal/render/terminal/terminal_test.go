package terminal

import (
	"strings"
	"testing"
	"testing/fstest"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/model"
)

// built reads files, and gives what writes of them.
func built(t *testing.T, options Options, files map[string]string) (*Writer, *build.Snapshot) {
	t.Helper()
	tree := fstest.MapFS{}
	for name, data := range files {
		tree[name] = &fstest.MapFile{Data: []byte(data)}
	}
	s, err := build.Run(t.Context(), tree, build.Options{FrontEnds: languages.All, Folder: "tide", Tests: true})
	require.NoError(t, err)
	options.FrontEnds = s.FrontEnds
	return New(s.Links, options), s
}

// called is the declaration of a path.
func called(t *testing.T, s *build.Snapshot, path string) *model.Declaration {
	t.Helper()
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for d := range m.Declarations {
				if d.Path() == path {
					return d
				}
			}
		}
	}
	require.FailNow(t, "there is no "+path)
	return nil
}

func shown(t *testing.T, options Options, name, source string) string {
	t.Helper()
	w, s := built(t, options, map[string]string{"tide/Pier.java": source})
	w.Declaration(called(t, s, name))
	return w.String()
}

const pier = `package tide;

/**
 * A pier, <b>long</b> and made of {@code wood}, that reaches out into the water further than anybody would walk.
 * <p>Kinds:
 * <ol><li>short ones, where <br>boats lie
 * <li>long ones</ol>
 * <table><tr><th>Kind<th>Length<tr><td>short<td align="right">10 m<tr><td align=center>on<td align="Right">300 m</table>
 * <pre>
 *   new Pier();
 * </pre>
 * <dl><dt>Pile<dd>carries it</dl>
 * @param <T> what lies there
 * @since 2
 * @deprecated use a quay
 */
@Deprecated
public class Pier<T> extends Thread {
  /** Moors. @since 3 */
  public void moor(T what) {}
  /** Moors for hours.
   * @param what of which
   * @param hours how long, but never for longer than the tide allows, which is six hours in most harbours
   * @return whether it lies
   * @throws IllegalStateException where all is taken
   */
  public boolean moor(T what, int hours) { return true; }
}
`

func TestDeclaration(t *testing.T) {
	assert.Equal(t, `Pier class, deprecated in tide
tide/Pier.java:18

    public class Pier<T> extends Thread

Deprecated. use a quay

A pier, long and made of wood, that reaches out into the
water further than anybody would walk.

Kinds:

1. short ones, where
   boats lie
2. long ones

Kind   Length
short    10 m
 on     300 m

    new Pier();

Pile
  carries it

Type parameters
  T
      what lies there

Since
  2

Methods
  moor(T what), 2 overloads
      Moors.
`, shown(t, Options{Width: 60}, "Pier", pier))
}

// No line is longer than the terminal, but for code and words that are.
func TestLinesFit(t *testing.T) {
	for width := 20; width < 120; width += 7 {
		for _, name := range []string{"Pier", "Pier.moor"} {
			for line := range strings.Lines(shown(t, Options{Width: width}, name, pier)) {
				if line = strings.TrimRight(line, "\n"); !strings.HasPrefix(line, "    ") || strings.HasPrefix(line, "      ") {
					assert.LessOrEqual(t, utf8.RuneCountInString(line), max(width, 30), line)
				}
			}
		}
	}
}

func TestStyles(t *testing.T) {
	styled := shown(t, Options{Styled: true}, "Pier", pier)
	assert.Contains(t, styled, "\x1b[1mPier\x1b[0m \x1b[2mclass, deprecated in tide\x1b[0m")
	plainly := shown(t, Options{}, "Pier", pier)
	assert.NotContains(t, plainly, "\x1b")
	assert.Equal(t, plainly, strings.NewReplacer("\x1b[1m", "", "\x1b[2m", "", "\x1b[0m", "").Replace(styled))
}

// What source says never orders a terminal about.
func TestClean(t *testing.T) {
	assert.Equal(t, "a[31mb c\nd", clean("a\x1b[31mb\tc\nd\x00\u009b\u202e\uFDD2"))
	evil := strings.Replace(pier, "A pier", "A \x1b]0;title\x07\u202epier", 1)
	assert.NotContains(t, shown(t, Options{Styled: true}, "Pier", evil), "\x1b]")
	assert.NotContains(t, shown(t, Options{}, "Pier", evil), "\u202e")
}

var boards = map[string]string{
	"go.mod": "module tide.example/board\n",
	"board.go": `// Package board shows berths.
package board

// Board is a board.
type Board struct {
	Lamp
	// Rows is how many it has.
	Rows int
}

// Lamp lights it.
type Lamp struct{}

// Light turns it on.
func (Lamp) Light() {}

// Show shows a vessel, see [Board.Rows].
func (b *Board) Show(vessel string) error { return nil }

// Most is the most rows.
const Most = 40
`,
	"board_test.go": `package board

import "fmt"

func ExampleBoard_Show() {
	fmt.Println(new(Board).Show("Petrel"))
	// Output: <nil>
}
`,
}

func TestModule(t *testing.T) {
	w, s := built(t, Options{Width: 70}, boards)
	w.Module(called(t, s, "Board").Module)
	assert.Equal(t, `tide.example/board  board
1 file: board.go.

Package board shows berths.

Types
  Board struct
      Board is a board.
  Lamp struct
      Lamp lights it.

Constants
  Most = 40
      Most is the most rows.
`, w.String())
}

func TestFile(t *testing.T) {
	w, s := built(t, Options{Width: 70, Place: func(path string) string { return "src/" + path }}, boards)
	board := called(t, s, "Board")
	w.File(board.Occurrences[0].File, []*model.Declaration{board, called(t, s, "Most")})
	assert.Equal(t, `src/board.go

  5 Board struct
      Board is a board.
  21 constant Most = 40
      Most is the most rows.
`, w.String())
}

func TestExampleAndInherited(t *testing.T) {
	w, s := built(t, Options{Width: 70}, boards)
	w.Declaration(called(t, s, "Board.Show"))
	assert.Equal(t, `Board.Show method in tide.example/board
board.go:18
Tests: ExampleBoard_Show.

    func (b *Board) Show(vessel string) error

Show shows a vessel, see Board.Rows.

Example

    fmt.Println(new(Board).Show("Petrel"))

Output

    <nil>
`, w.String())
	w, s = built(t, Options{Width: 70}, boards)
	w.Declaration(called(t, s, "Board"))
	assert.Equal(t, `Board struct in tide.example/board
board.go:5
Tests: ExampleBoard_Show.

    type Board struct

Board is a board.

Fields
  Lamp Lamp
  Rows int
      Rows is how many it has.

Methods
  Show(vessel string) error
      Show shows a vessel, see Board.Rows.

From Lamp: Light

Embeds Lamp.
`, w.String())
}

// Callers pick a generic overload beside one that is none, whatever conditions there are.
func TestOverloadsUnderConditions(t *testing.T) {
	w, s := built(t, Options{Width: 70}, map[string]string{"Port.csproj": "<Project/>", "Port.cs": `/// <summary>A port.</summary>
public class Port
{
    /// <summary>Moors.</summary>
    public void Moor(string name) { }
#if DEEP
    /// <summary>Moors one of a kind.</summary>
    /// <typeparam name="T">Which.</typeparam>
    public void Moor<T>(string name) { }
#endif
    internal void Moor(int number) { }
}
`})
	w.Declaration(called(t, s, "Port.Moor"))
	assert.Equal(t, `Port.Moor method in global
Port.cs:5
Port.cs:9 (for DEEP)

    1 public void Moor(string name)
    2 public void Moor<T>(string name)

Moors.

Overload 2

Moors one of a kind.

Type parameters
  T in overload 2
      Which.
`, w.String())
}
