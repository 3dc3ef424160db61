package excerpt_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/excerpt"
	"codrel/internal/link"
)

// harbour is a project in several languages, with what is awkward to cut out.
const harbour = `
-- go.mod --
module port.example/port
-- port.go --
// Package port is one.
package port

// Sizes of berths.
const (
	// Small is one.
	Small = 3 // metres
	Large = 9
)

// Quay is one.
type Quay struct {
	// Length is in metres.
	Length int
	hidden bool
}

// Moor ties up.
//
// It may fail.
func (q *Quay) Moor(name string) (err error) {
	if name == "" {
		return errNone
	}

	// codrel: leave out
	log("one")
	log("two")
	// codrel: go on
	return nil
}

func log(string) {}

var errNone error

func Empty() {
}

func Sync() int { return 1 }
-- sync_linux.go --
package port

// Flush is one.
func Flush() int { return 2 }
-- sync_other.go --
//go:build !linux

package port

// Flush is another.
func Flush() int {
	return 3
}
-- py/setup.cfg --
[metadata]
name = py
-- py/tide.py --
"""Tides."""

from functools import cache


class Tide:
    """A tide."""

    #: Metres.
    height = 2.0

    @cache
    def level(self, hour):
        """Says the level.

        Over two lines.
        """
        def inner():
            return hour

        return inner() + self.height

    def only(self):
        """Has a docstring alone."""
-- web/package.json --
{"name": "web"}
-- web/plan.ts --
/** A plan. @module */

/** Gives a berth. */
export function berth(name: string): number;
export function berth(n: number): number;
export function berth(x: any): number {
  return 1;
}

/** A kind. */
export type Kind = "a" | "b";

export class Plan {
  /** How many. */
  private count = 0;

  /** Adds one. */
  add = (n: number): void => {
    this.count += n;
  };
}
-- java/pom.xml --
<project><groupId>x</groupId><artifactId>java</artifactId></project>
-- java/src/main/java/port/Agent.java --
package port;

/** An agent. */
public class Agent {
  /** Books. */
  @Deprecated
  public int book(String name) {
    return 1;
  }

  /** Books often. */
  public int book(String name, int times) { return times; }
}
-- plan.txt --
one
  two: {
    three
  }
  two: x

four
-- docs/guides/a.md --
# A
`

func project(t *testing.T, inside bool) *link.Index {
	t.Helper()
	return buildtest.Run(t, buildtest.Files(buildtest.Texts(harbour)), build.Options{Folder: "port", Inside: inside}).Links
}

func TestPieces(t *testing.T) {
	for _, links := range []*link.Index{project(t, true), project(t, false)} {
		for info, want := range map[string]string{
			"go excerpt=Quay.Moor":                                    "func (q *Quay) Moor(name string) (err error) {\n\tif name == \"\" {\n\t\treturn errNone\n\t}\n\n\t…\n\treturn nil\n}",
			"go excerpt=Quay.Moor part=head":                          "func (q *Quay) Moor(name string) (err error)",
			"go excerpt=Quay.Moor part=body":                          "if name == \"\" {\n\treturn errNone\n}\n\n…\nreturn nil",
			"go excerpt=Quay.Moor part=commented lines=1-4":           "// Moor ties up.\n//\n// It may fail.\nfunc (q *Quay) Moor(name string) (err error) {",
			"go excerpt=Quay.Moor lines=1,3,5-6":                      "func (q *Quay) Moor(name string) (err error) {\n\t\treturn errNone\n\n\t…",
			"go excerpt=Quay.Moor without=2-10":                       "func (q *Quay) Moor(name string) (err error) {\n\t…\n}",
			`go excerpt=Quay.Moor from="if name" to="}"`:              "if name == \"\" {\n\treturn errNone\n}",
			"go excerpt=Quay":                                         "type Quay struct {\n\t// Length is in metres.\n\tLength int\n\thidden bool\n}",
			"go excerpt=Quay part=body":                               "// Length is in metres.\nLength int\nhidden bool",
			"go excerpt=Quay.Length":                                  "Length int",
			"go excerpt=Small":                                        "Small = 3 // metres",
			"go excerpt=errNone":                                      "var errNone error",
			"go excerpt=log":                                          "func log(string) {}",
			"go excerpt=port.Sync part=body":                          "return 1",
			"go excerpt=Flush":                                        "func Flush() int { return 2 }",
			"python excerpt=Tide.level":                               "@cache\ndef level(self, hour):\n    def inner():\n        return hour\n\n    return inner() + self.height",
			"python excerpt=Tide.level part=body":                     "def inner():\n    return hour\n\nreturn inner() + self.height",
			"python excerpt=Tide.level part=commented lines=2-3":      "def level(self, hour):\n    \"\"\"Says the level.",
			"python excerpt=Tide.only":                                "def only(self):\n    \"\"\"Has a docstring alone.\"\"\"",
			"python excerpt=Tide.height":                              "height = 2.0",
			"python excerpt=Tide lines=1":                             "class Tide:",
			"typescript excerpt=berth":                                "export function berth(name: string): number;\nexport function berth(n: number): number;\nexport function berth(x: any): number {\n  return 1;\n}",
			"typescript excerpt=berth(number)":                        "export function berth(n: number): number;",
			"ts excerpt=Kind":                                         "export type Kind = \"a\" | \"b\";",
			"ts excerpt=Plan.count":                                   "private count = 0;",
			"ts excerpt=Plan.add part=body":                           "this.count += n;",
			"java excerpt=Agent.book(String)":                         "@Deprecated\npublic int book(String name) {\n  return 1;\n}",
			"java excerpt=Agent.book(String,int) part=body":           "return times;",
			"excerpt=file:plan.txt":                                   "one\n  two: {\n    three\n  }\n  two: x\n\nfour",
			`excerpt=file:/plan.txt from="two: {" to="}"`:             "two: {\n  three\n}",
			`excerpt=file:plan.txt from=four`:                         "four",
			`excerpt=file:plan.txt to=three without=1`:                "…\n  two: {\n    three",
			`go excerpt=file:port.go from="func log" to="func log"`:   "func log(string) {}",
			`go excerpt=file:port.go from=") {"`:                      "",
			"go excerpt=Empty part=body":                              "",
			"typescript excerpt=file:web/plan.ts lines=4-6 without=2": "export function berth(name: string): number;\n…\nexport function berth(x: any): number {",
		} {
			ask, ok, err := excerpt.Read(info)
			require.True(t, ok, info)
			require.NoError(t, err, info)
			piece, bad := excerpt.Find(links, ask, "")
			if want == "" {
				assert.NotNil(t, bad, info)
				continue
			}
			if assert.Nil(t, bad, info) {
				assert.Equal(t, want, piece.Text, info)
				assert.True(t, piece.Same(want+" \n"), info)
			}
		}
	}
}

// Each run of a piece stands in the file as it does in the piece.
func TestRuns(t *testing.T) {
	links := project(t, true)
	for _, info := range []string{"excerpt=Quay.Moor part=body", "excerpt=Tide.level", "excerpt=Agent", "excerpt=Quay.Moor without=2"} {
		ask, _, err := excerpt.Read(info)
		require.NoError(t, err)
		piece, bad := excerpt.Find(links, ask, "")
		require.Nil(t, bad, info)
		require.NotNil(t, piece.Source)
		assert.Equal(t, piece.Source.Lines.Line(piece.Runs[0].Source.Start), piece.Line, info)
		for _, run := range piece.Runs {
			text := run.Source.In(piece.Source.Text)
			assert.Equal(t, text, piece.Text[run.At:run.At+len(text)], info)
		}
	}
}

func TestWrongWords(t *testing.T) {
	for info, want := range map[string]string{
		"go excerpt=":                    "excerpt= needs the name of a declaration",
		"go excerpt=file:":               "excerpt= needs the name of a declaration",
		"go excerpt=A parts=body":        `"parts" is unknown; did you mean part?`,
		"go excerpt=A part=foot":         "part=foot is unknown; there are head, body and commented",
		"go excerpt=file:a.go part=body": "part=body asks for a part of a declaration, and this is a file",
		"go excerpt=A lines=3-1":         "lines=3-1 is no list of lines such as 3-9,12",
		"go excerpt=A lines=0":           "lines=0 is no list",
		"go excerpt=A without=x":         "without=x is no list",
		`go excerpt=A from="x`:           "the quotes of from are not closed",
	} {
		_, ok, err := excerpt.Read(info)
		assert.True(t, ok, info)
		assert.ErrorContains(t, err, want, info)
	}
	for _, info := range []string{"", "go", "go excerpts", "go title=excerpt", "my-excerpt=A"} {
		_, ok, err := excerpt.Read(info)
		assert.False(t, ok, info)
		assert.NoError(t, err, info)
	}
	_, ok, err := excerpt.Read("go excerpt=A numbered {.wide}")
	assert.True(t, ok)
	assert.NoError(t, err, "words of others are passed over")
}

// What a declaration is called now is told by its text: the copy in the guide is the old one.
func TestRenamed(t *testing.T) {
	links := project(t, false)
	for _, c := range []struct{ info, copy, want string }{
		{"excerpt=Quay.Tie", "func (q *Quay) Tie(name string) (err error) {\n\tif name == \"\" {\n\t\treturn errNone\n\t}\n\treturn nil\n}", "Quay.Moor"},
		{"excerpt=Tide.height_at", "@cache\ndef height_at(self, hour):\n    def inner():\n        return hour\n\n    return inner() + self.height", "Tide.level"},
		{"excerpt=Tide.height_at part=body", "def inner():\n    return hour\n\nreturn inner() + self.height", "Tide.level"},
		{"excerpt=Agent.reserve part=head", "@Deprecated\npublic int reserve(String name)", "Agent.book"},
		{"excerpt=port.Wide", "Wide = 9", "port.Large"},
		{"excerpt=Plan.more", "more = (n: number): void => {\n  this.count += n;\n};", "Plan.add"},
		{"excerpt=Nothing", "something else entirely\nover lines", ""},
		{"excerpt=Nothing", "", ""},
		{"excerpt=Nothing", "}", ""},
	} {
		ask, _, err := excerpt.Read(c.info)
		require.NoError(t, err)
		assert.Equal(t, c.want, excerpt.Renamed(links, ask, c.copy), c.info)
	}
}

func TestDifference(t *testing.T) {
	piece := &excerpt.Piece{Text: "a\nb\nc"}
	for copy, want := range map[string]string{
		"a\nx\nc": "2 x b 1", "a\nc": "2  b 1", "a\nb\nx\nc\n": "3 x  1", "": "1  a 3", "x\ny": "1 x a 3", "a \nb\t\nc\r\n": "0   0",
	} {
		at, was, now, lines := piece.Difference(copy)
		assert.Equal(t, strings.Fields(want), strings.Fields(strings.Join([]string{string(rune('0' + at)), was, now, string(rune('0' + lines))}, " ")), "%q", copy)
	}
}

// Whatever stands behind the marks of a fence, finding it ends in a piece or in words on why not.
func FuzzAsk(f *testing.F) {
	for _, seed := range []string{"excerpt=Quay.Moor part=body from=\"if\" to=}", "excerpt=file:plan.txt lines=2-3,1", "excerpt=file:../x without=1-999999999", "excerpt=:: part=head", "excerpt=Agent.book(String,int)", "excerpt=\xff from=\"\\\""} {
		f.Add(seed, "a\nb")
	}
	s, err := build.Link(f.Context(), buildtest.Files(buildtest.Texts(harbour)), build.Options{FrontEnds: buildtest.FrontEnds(), Folder: "port"})
	require.NoError(f, err)
	f.Fuzz(func(t *testing.T, info, copy string) {
		ask, ok, err := excerpt.Read(info)
		if !ok || err != nil {
			return
		}
		piece, bad := excerpt.Find(s.Links, ask, copy)
		assert.NotEqual(t, piece == nil, bad == nil)
		if piece != nil {
			assert.NotEmpty(t, piece.Text)
			piece.Difference(copy)
		}
	})
}
