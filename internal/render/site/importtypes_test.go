package site_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Types that name their module are shown by their own names where they link, and whole
// where they do not.
func TestTypesWithTheirModules(t *testing.T) {
	files := map[string]string{
		"package.json": `{"name": "tides", "main": "index.js"}`,
		"README.md":    "Use it:\n\n```js\nimport Berth from 'tides/berth/Berth';\n```\n",
		"index.js":     "export { default as Quay } from './Quay.js';\n",
		"Quay.js": `/**
 * A quay. See {@link module:tides/berth/Berth~Berth#moor}.
 * @param {import("./berth/Berth.js").default} berth - Where.
 * @param {import("geojson").Point} point - At what.
 */
export default function Quay(berth, point) {}
`,
		"berth/Berth.d.ts": `/** A berth. */
export default class Berth {
    /** Moors. */
    moor(quay: import("../Quay.js").Options | null): import("./Kind").Kind;
}
`,
		"berth/Berth.js": "export default class Berth { moor(quay) {} }\n",
		"berth/Kind.ts":  "/** A kind. */\nexport type Kind = 'low' | 'high'\n",
	}
	quay := written(t, files, "reference/tides/index/index.html")
	assert.Contains(t, quay, `<a href="../berth/Berth/Berth.html#moor"><code translate="no">Berth#moor</code></a>`)
	assert.Contains(t, quay, `<a href="../berth/Berth/Berth.html"><code translate="no">Berth</code></a>`, "the default of a module")
	assert.Contains(t, text(quay), `import("geojson").Point`, "what is not here")
	berth := written(t, files, "reference/tides/berth/Berth/Berth.html")
	assert.Contains(t, berth, `<a href="../Kind/Kind.html">Kind</a>`)
	assert.Contains(t, text(berth), `import("../Quay.js").Options | null`, "nothing is called so")
	assert.Contains(t, berth, `from &#34;tides/berth/Berth&#34;`)
}

// A type that shares its name with a function and a namespace has the declaration of each
// on its plate, and holds what it declares itself; what tells whether a value is of it makes none.
func TestTypeAndFunction(t *testing.T) {
	files := map[string]string{
		"package.json": `{"name": "tides", "types": "index.d.ts"}`,
		"index.d.ts": `/** Makes a list. */
export function List<T>(of?: T[]): List<T>;
export namespace List {
  /** Whether it is one. */
  function isList(value: unknown): value is List<unknown>;
  /** Of these. */
  function of<T>(...values: T[]): List<T>;
}
export interface Base { base: string }
/** Lists of tides. */
export interface List<T> extends Base {
  /** How many. */
  size: number;
}
/** Whether it is a list. */
export function isAny(value: unknown): value is List<unknown>;
/** Refuses others. */
export function must(value: unknown): asserts value is List<unknown>;
/** An empty one. */
export function empty(): List<never>;
`,
	}
	page := written(t, files, "reference/tides/index/List.html")
	said := text(page)
	assert.Contains(t, said, "function List<T>(of?: T[]): List<T>")
	assert.Contains(t, said, "interface List<T> extends Base {\n\tsize: number; // How many.\n}")
	assert.Contains(t, said, "List function, interface")
	assert.Contains(t, said, "Makes a list.")
	assert.Contains(t, said, "Lists of tides.")
	assert.Contains(t, page, `id="isList"`)
	assert.Contains(t, page, `href="index.html#empty"`)
	assert.NotContains(t, page, `href="index.html#isAny"`, "it makes none")
	assert.NotContains(t, page, `href="index.html#must"`)
}
