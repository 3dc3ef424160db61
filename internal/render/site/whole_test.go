package site_test

import (
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"

	"codrel/internal/settings"
)

// written renders files and gives the text of one page.
func written(t *testing.T, files map[string]string, page string) string {
	t.Helper()
	fsys := fstest.MapFS{}
	for name, text := range files {
		fsys[name] = &fstest.MapFile{Data: []byte(text)}
	}
	m := rendered(t, fsys, settings.Default(), 1)
	data := m.Get(page)
	if data == nil {
		t.Fatalf("there is no page %s among %s", page, strings.Join(m.Paths(), " "))
	}
	return string(data)
}

const wholeGo = `// Package tide predicts.
package tide

import "io"

// Tide is one high or low water.
type Tide struct {
	// Height is in metres.
	Height float64 ` + "`json:\"height\"`" + `
	// At is the moment. What is said of it is long enough that it has no room beside the field on the plate.
	At int
	io.Reader
	secret int
	other  int
}

// Empty has nothing.
type Empty struct{}

// Source gives tides.
type Source interface {
	io.Closer
	// Next is the next tide.
	Next(after int) (Tide, error)
	hidden()
}

// Kind tells tides apart.
type Kind int

// The kinds.
const (
	Low  Kind = iota // low water
	High
	Other = 5
)

// Read reads a kind.
func Read(text string) Kind { return Low }
`

func TestWholeDeclarations(t *testing.T) {
	files := map[string]string{"go.mod": "module tide", "tide.go": wholeGo}
	plate := func(page string) string {
		_, rest, _ := strings.Cut(page, `<pre class="signature">`)
		plate, _, _ := strings.Cut(rest, "</pre>")
		return text(plate)
	}
	tide := written(t, files, "reference/tide/tide/Tide.html")
	assert.Equal(t, "type Tide struct {\n\tHeight float64 `json:\"height\"` // Height is in metres.\n\tAt int // At is the moment.\n\tio.Reader\n\t// 2 members that are not public\n}", plate(tide))
	assert.Contains(t, tide, `<dt id="Height"><a href="#Height"><code translate="no">Height</code></a>`, "a field has its address in the list")
	assert.NotContains(t, tide, `class="leaf member" id="Height"`, "and no plate")
	assert.Equal(t, "type Empty struct {}", plate(written(t, files, "reference/tide/tide/Empty.html")))
	assert.Equal(t, "type Source interface {\n\tio.Closer\n\tNext(after int) (Tide, error)\n\t// 1 member that is not public\n}", plate(written(t, files, "reference/tide/tide/Source.html")))

	kind := written(t, files, "reference/tide/tide/Kind.html")
	assert.Contains(t, text(kind), "ConstantsLow Kind = 0 low waterHigh Kind = 1")
	assert.NotContains(t, text(kind), "Other = 5", "a constant without the type")
	assert.Contains(t, kind, `<h2 id="s--makers">Constructors</h2>`)
}

func TestWholeInOtherLanguages(t *testing.T) {
	files := map[string]string{
		"package.json": `{"name": "tides", "type": "module", "main": "a.ts"}`,
		"a.ts": `/** O is. */
export interface Options {
  /** In metres. */
  depth: number
  wait?(ms: number,): void
}
/** Rows. */
export interface Rows {
  /** By harbour. */
  [harbour: string]: readonly Options[]
}
/** Kinds. */
export enum Kind { Low = 1, High = "h" }
/** Shapes. */
export type Shape = {
  /** The client. */
  client: Options
  meta?: Kind
}
/** Takes. */
export function take(options: {
  /** The client. */
  client: Options
  meta?: Kind
}): void {}
`,
		"py/pyproject.toml": "[project]\nname = \"tides\"\n",
		"py/tides.py": `"""Tides."""
from dataclasses import dataclass
from enum import Enum


@dataclass
class Tide:
    """One tide."""

    height: float  #: in metres
    _at: int = 0


class Kind(Enum):
    """Kinds."""

    LOW = 1


class Plain:
    """No record."""

    depth: int = 3
`,
	}
	plate := func(page string) string {
		_, rest, _ := strings.Cut(written(t, files, page), `<pre class="signature">`)
		plate, _, _ := strings.Cut(rest, "</pre>")
		return text(plate)
	}
	assert.Equal(t, "interface Options {\n\tdepth: number; // In metres.\n\twait?(ms: number): void;\n}", plate("reference/tides/a/Options.html"))
	assert.Contains(t, text(written(t, files, "reference/tides/a/Rows.html")), "Index signatures[harbour: string]: readonly Options[]By harbour.")
	assert.Equal(t, "enum Kind {\n\tLow = 1,\n\tHigh = \"h\",\n}", plate("reference/tides/a/Kind.html"))
	assert.Equal(t, "type Shape = {\n\t/** The client. */\n\tclient: Options;\n\tmeta?: Kind\n}", plate("reference/tides/a/Shape.html"))
	assert.Contains(t, text(written(t, files, "reference/tides/a/index.html")), "function take(\n\toptions: {\n\t\t/** The client. */\n\t\tclient: Options;\n\t\tmeta?: Kind\n\t},\n): void")
	assert.Equal(t, "@dataclass\nclass Tide:\n\theight: float # in metres\n\t# 1 member that is not public", plate("reference/py/tides/Tide.html"))
	assert.Equal(t, "class Kind(Enum):\n\tLOW = 1", plate("reference/py/tides/Kind.html"))
	assert.Equal(t, "class Plain", plate("reference/py/tides/Plain.html"))
}

func TestExamplesOfTests(t *testing.T) {
	files := map[string]string{"go.mod": "module tide", "tide.go": wholeGo, "example_test.go": `package tide_test

import "fmt"

// It is short.
func ExampleTide() {
	fmt.Println(1)
	// Output: 1
}

func ExampleRead_twice() {
	if true {
		fmt.Println("a")
	}
	// Unordered output:
	// a
	//  b
}

func Example() { fmt.Println() }

func ExampleGone() { fmt.Println("gone") }

func Examples() { fmt.Println("no example") }
`}
	tide := text(written(t, files, "reference/tide/tide/Tide.html"))
	assert.Contains(t, tide, "Example\nIt is short.fmt.Println(1)\nOutput\n1\n")
	module := text(written(t, files, "reference/tide/tide/index.html"))
	assert.Contains(t, module, "Example\nfmt.Println()\n", "of the package")
	assert.Contains(t, module, "Example: twice\nif true {\n\tfmt.Println(\"a\")\n}\nOutput\na\n b\n")
	assert.NotContains(t, module, "gone")
	assert.NotContains(t, module, "no example")
}

// Types whose names differ by case share a page that stands at both addresses.
func TestPageOfTwins(t *testing.T) {
	const source = "// Package tide predicts.\npackage tide\n\n// Tide is one.\ntype Tide struct{ Height int }\n\n// TIDE is another.\ntype TIDE struct{ Height, Depth int }\n\n// F takes [TIDE.Height] and [TIDE.Depth] and [Tide.Height].\nfunc F() {}\n"
	files := map[string]string{"go.mod": "module tide", "tide.go": source}
	one, other := written(t, files, "reference/tide/tide/Tide.html"), written(t, files, "reference/tide/tide/TIDE.html")
	assert.Equal(t, one, other)
	for _, anchor := range []string{`id="Tide.Height"`, `id="TIDE.Height"`, `id="TIDE.Depth"`, `id="Height"`, `id="Depth"`} {
		assert.Equal(t, 1, strings.Count(one, anchor), anchor)
	}
	module := written(t, files, "reference/tide/tide/index.html")
	assert.Contains(t, module, `href="TIDE.html#TIDE.Height"`)
	assert.Contains(t, module, `href="Tide.html#Tide.Height"`)
}

// What holds a function is one to users; groups and access are as the tags of comments say,
// and names that only comments give have pages and are linked by.
func TestWordsOfTags(t *testing.T) {
	files := map[string]string{
		"package.json": `{"name": "tides", "main": "a.js"}`,
		"a.js": `/**
 * @namespace Harbour
 */
/**
 * A place. See {@link Harbour.Berth#depth}.
 * @class Harbour.Berth
 * @param {string} name - Its name.
 */
/**
 * How deep it is.
 * @name Harbour.Berth#depth
 * @type {number}
 * @readonly
 */
/**
 * Adds.
 * @category Sums
 */
export const add = curry((a, b) => a + b);
/**
 * Counts.
 * @type {number}
 */
export const n = 1;
/**
 * Kept.
 * @access private
 */
export function kept() {}
/**
 * Takes one.
 * @param {Harbour.Berth} berth - Which.
 * @param {number} more - Not in the list.
 */
export function take(berth) {}
`,
	}
	module := written(t, files, "reference/tides/a/index.html")
	assert.Contains(t, module, `<h3>Sums</h3>`)
	assert.Contains(t, text(module), "add function")
	assert.NotContains(t, text(module), "Kept.")
	assert.Contains(t, text(module), "Type: numberCounts.")
	assert.Contains(t, text(module), "function take(berth, more)")
	assert.Contains(t, text(module), "Parameters as the comment names them.")
	assert.Contains(t, module, `<a href="Harbour.Berth.html">`, "a type in braces")
	berth := written(t, files, "reference/tides/a/Harbour.Berth.html")
	assert.Contains(t, berth, `<a href="#depth">`)
	assert.Contains(t, text(berth), "Read-only.")
	assert.Contains(t, text(berth), "depth: number")
}

// TestTextsOfOverloads has a description on the body of overloads, two of which have a
// tag alone: the description speaks for all, and each tag for its own.
func TestTextsOfOverloads(t *testing.T) {
	files := map[string]string{
		"package.json": `{"name": "tides", "type": "module", "main": "a.ts"}`,
		"a.ts": `export function every(at: number): boolean
/** @deprecated Use a closure. */
export function every(at: number, self: object): boolean
/** @deprecated Use a closure. */
export function every(at: string, self: object): boolean
/**
 * Tells whether every tide is high.
 * @param at - The moment.
 */
export function every(at: any, self?: any): boolean { return true }

/**
 * Asks with a name.
 * @param what - Who.
 */
export function ask(what: string): number
/**
 * Asks with a number.
 * @param what - Which one.
 */
export function ask(id: number): number
/**
 * Asks the harbour master, who knows more than one way to be asked.
 */
export function ask(what: any): number { return 0 }

/**
 * Is gone.
 * @deprecated Use another:
 *
 * ~~~ts
 * every(1);
 * ~~~
 */
export function gone(): void {}

/** Says all that there is to say of it. */
export function tell(name: string): void
/** Brief. */
export function tell(what: any): void {}
`,
	}
	page := text(written(t, files, "reference/tides/a/index.html"))
	_, every, _ := strings.Cut(page, "Overload 1")
	every, rest, _ := strings.Cut(every, "ask function")
	assert.Contains(t, every, "Tells whether every tide is high.Overload 2, Overload 3\nDeprecated. Use a closure.")
	assert.Contains(t, every, "The moment.")
	assert.NotContains(t, page, "every function, deprecated", "one of its overloads is not")
	assert.Contains(t, rest, "Asks the harbour master, who knows more than one way to be asked.Overload 1\nAsks with a name.Overload 2\nAsks with a number.")
	assert.Contains(t, rest, "Who.")
	assert.Contains(t, rest, "Which one.", "the parameter in the other overload")
	assert.Contains(t, rest, "Deprecated. Use another:\n")
	assert.Contains(t, rest, "every(1);", "the code of an advice")
	assert.Contains(t, rest, "Says all that there is to say of it.")
	assert.NotContains(t, rest, "Brief.", "what is said of the body alone")
}

// TestTypesOfComments has data types that comments put into a class, and a module that
// is deprecated as a whole.
func TestTypesOfComments(t *testing.T) {
	files := map[string]string{
		"package.json": `{"name": "tides", "type": "module", "main": "a.js"}`,
		"a.js": `/** A berth. */
export class Berth {
	/**
	 * Makes one.
	 * @param {Berth~Options} options - How it is.
	 */
	constructor(options) {}
}

/**
 * How a berth is made.
 * @typedef {Object} Berth~Options
 * @property {number} depth - In metres.
 */

/**
 * @public
 *
 * What stands below a mark is text.
 */
export function moor() {}
`,
		"py/pyproject.toml": "[project]\nname = \"tides\"\n",
		"py/tides.py":       "\"\"\"Tides of old.\n\n.. deprecated:: 2.0\n   Ask the harbour master.\n\"\"\"\n",
	}
	berth := written(t, files, "reference/tides/a/Berth.html")
	assert.Contains(t, text(berth), "How a berth is made.")
	assert.Contains(t, text(written(t, files, "reference/tides/a/Berth.Options.html")), "In metres.")
	assert.Contains(t, berth, `<a href="Berth.Options.html">`, "the type of a parameter leads there")
	assert.Less(t, strings.Index(berth, "<h2 class=\"group\" id=\"s-members\">Constructors"), strings.Index(berth, ">Types</h2>"), "the class before what it holds")
	assert.Contains(t, text(written(t, files, "reference/tides/a/index.html")), "What stands below a mark is text.")
	assert.Contains(t, text(written(t, files, "reference/py/tides/index.html")), "Deprecated. Ask the harbour master.")
}

// TestTextsOfOneName has a function, a namespace and an interface of one name, and
// functions under conditions, each with a text.
func TestTextsOfOneName(t *testing.T) {
	files := map[string]string{
		"package.json":      `{"name": "tides", "type": "module", "main": "a.ts"}`,
		"a.ts":              "/** Lists are ordered. */\nexport namespace List {\n/** Is it one? */\nexport function isList(x: any): boolean { return true }\n}\n/** Makes a list. */\nexport function List(): List { return null as any }\n/** What a list can do. */\nexport interface List { size: number }\n",
		"py/pyproject.toml": "[project]\nname = \"tides\"\n",
		"py/tides.py":       "\"\"\"Tides.\"\"\"\nimport os\n\nif hasattr(os, \"fork\"):\n    def split():\n        \"\"\"Splits in two.\"\"\"\nelse:\n    def split():\n        \"\"\"Cannot split here.\"\"\"\n",
	}
	list := text(written(t, files, "reference/tides/a/List.html"))
	assert.Contains(t, list, "Makes a list.")
	assert.Contains(t, list, "Namespace\nLists are ordered.")
	assert.Contains(t, list, "Interface\nWhat a list can do.")
	split := text(written(t, files, "reference/py/tides/index.html"))
	assert.Contains(t, split, "Splits in two.")
	assert.Contains(t, split, "Cannot split here.")
}
