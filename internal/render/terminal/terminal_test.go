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
)

func shown(t *testing.T, options Options, name, source string) string {
	s, err := build.Run(t.Context(), fstest.MapFS{"tide/Pier.java": &fstest.MapFile{Data: []byte(source)}}, build.Options{FrontEnds: languages.All, Folder: "tide"})
	require.NoError(t, err)
	options.FrontEnds = s.FrontEnds
	w := New(s.Links, options)
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for d := range m.Declarations {
				if d.Path() == name {
					w.Declaration(d)
					return w.String()
				}
			}
		}
	}
	require.FailNow(t, "there is no "+name)
	return ""
}

const pier = `package tide;

/**
 * A pier, <b>long</b> and made of {@code wood}, that reaches out into the water further than anybody would walk.
 * <p>Kinds:
 * <ol><li>short ones, where <br>boats lie
 * <li>long ones</ol>
 * <table><tr><th>Kind<th>Length<tr><td>short<td>10 m<tr><td>long<td>300 m</table>
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
short  10 m
long   300 m

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
