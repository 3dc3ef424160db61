package page_test

import "testing"

// What comments in JavaScript and TypeScript say is what pages say, with what each name leads to.
func TestScriptWords(t *testing.T) {
	shows(t, spoken, []arrival{
		{"tags of types and values", `
-- package.json --
{"name": "port", "main": "index.js"}
-- index.js --
/**
 * @file Ports and what lies in them.
 * @module port
 */
/**
 * Finds a berth, see {@link Berth#fits}, {@link Berth.made made}, [text]{@link Berth} and {@link https://x.example/ the book}.
 *
 * Second paragraph with ` + "`" + `code` + "`" + `, <b>bold</b> and {@code raw <T>}.
 *
 * @param {(string|number)[]} names - Their names.
 * @param {Object} [options={}] - How.
 * @param {boolean} options.wide - Whether wide.
 * @param {?Berth=} or What else,
 *   over two lines.
 * @param {...*} rest
 * @returns {Promise<Map<string, Berth>>} By name.
 * @throws {RangeError} Where there is none.
 * @throws Always.
 * @async
 * @since 1.2.0
 * @see Berth
 * @see {@link moor} for more.
 * @todo Be quick.
 * @example <caption>By name</caption>
 * find(['a']);
 * // and on
 * @example
 * find([], {wide: true})
 */
export async function find(names, options = {}, or, ...rest) {}
/**
 * A berth.
 * @extends {Place<string>}
 * @template {string} [T=string] - What names it.
 * @fires Berth#moored
 */
export class Berth {
  /** @type {Map<string, number>} Depths by name. */
  depths = new Map();
  /**
   * Whether it fits.
   * @deprecated since 2.0, use {@link find}.
   *
   * More text.
   */
  fits() {}
  /** @return {this} */
  static made() {}
  /**
   * A vessel is there.
   * @event Berth#moored
   * @type {object}
   * @property {string} name - Whose.
   */
}
/** @param {Berth} b The berth. @returns {boolean} on one line */
export function moor(b) {}
`, `
== index
Ports and what lies in them.
= find
Finds a berth, see [` + "`" + `Berth#fits` + "`" + `](Berth.fits), [made](Berth.made), [text](Berth) and [the book](https://x.example/).
Second paragraph with ` + "`" + `code` + "`" + `, *bold* and ` + "`" + `raw <T>` + "`" + `.
part 1 
  names ((` + "`" + `string` + "`" + `|` + "`" + `number` + "`" + `)[]): Their names.
  options (` + "`" + `Object` + "`" + `): How.
  options.wide (` + "`" + `boolean` + "`" + `): Whether wide.
  or (?` + "`" + `Berth` + "`" + `(Berth)): What else,
over two lines.
  rest (...*): 
part 2 
   (` + "`" + `Promise` + "`" + `<` + "`" + `Map` + "`" + `<` + "`" + `string` + "`" + `, ` + "`" + `Berth` + "`" + `(Berth)>>): By name.
part 4 
  RangeError(): Where there is none.
  Always.
part 9 
  By name
` + "`" + `` + "`" + `` + "`" + ` typescript: "find(['a']);\n// and on"
` + "`" + `` + "`" + `` + "`" + ` typescript: "find([], {wide: true})"
part 10 
  [` + "`" + `Berth` + "`" + `](Berth)
[` + "`" + `moor` + "`" + `](moor) for more.
part 11 
  1.2.0: 
part 12 To do
  Be quick.
= Berth
A berth.
part 0 
  T (` + "`" + `string` + "`" + `): What names it.
part 12 Fires
  list from 0 false
  - ` + "`" + `Berth#moored` + "`" + `(Berth.moored)
= Berth.depths
type: ` + "`" + `Map` + "`" + `<` + "`" + `string` + "`" + `, ` + "`" + `number` + "`" + `>
Depths by name.
= Berth.fits
deprecated: since 2.0, use [` + "`" + `find` + "`" + `](find). / More text.
Whether it fits.
= Berth.made
part 2 
   (` + "`" + `this` + "`" + `): 
= moor
part 1 
  b (` + "`" + `Berth` + "`" + `(Berth)): The berth.
part 2 
   (` + "`" + `boolean` + "`" + `): on one line
= Berth.moored
A vessel is there.
part 6 
  name (` + "`" + `string` + "`" + `): Whose.
`},
		{"TypeScript's own", `
-- package.json --
{"name": "port", "types": "index.ts"}
-- index.ts --
/**
 * Finds.
 *
 * @remarks
 * Longer words, with a list:
 *
 * 1. one
 * 2. two
 *
 * @typeParam T - What.
 * @param names - Their
 * names.
 * @param options - How.
 * @returns By name.
 *
 * ` + "`" + `` + "`" + `` + "`" + `ts
 * find()
 * ` + "`" + `` + "`" + `` + "`" + `
 *
 * @defaultValue ` + "`" + `3` + "`" + `
 * @privateRemarks
 * Nobody reads it.
 * @beta
 * @see {@link Berth | a berth}, {@link Berth.depth}
 * @throws {@link Lost}
 * Where it is lost.
 */
export function find<T>(names: string[], options?: T): void {}
/** {@inheritDoc find} */
export function seek(): void {}
/**
 * A berth, in a table:
 *
 * | a | b |
 * | - | - |
 * | 1 | ` + "`" + `x|y` + "`" + ` |
 *
 * > quoted {@linkcode find}
 *
 * # Heading
 *
 * - [ ] open
 * - [x] done
 */
export interface Berth {
  /** How deep. @default 3 */
  depth: number;
  /**
   * @eventProperty
   * When it moves.
   */
  onMove?: () => void;
}
/** Nowhere. */
export class Lost extends Error {}
/** By name. */
export function read(name: string): string;
/**
 * By number.
 * @param at - Where.
 */
export function read(at: number): string;
export function read(x: any) { return "" }
/** Old. @deprecated Use ` + "`" + `read` + "`" + `. */
export const old = 1;
`, `
= find
Finds.
Longer words, with a list:
list from 1 false
  - one
  - two
part 0 
  T: What.
part 1 
  names: Their
names.
  options: How.
part 2 
  By name.
` + "`" + `` + "`" + `` + "`" + ` ts: "find()"
part 4 
  Lost(Lost): Where it is lost.
part 10 
  [a berth](Berth), [` + "`" + `Berth.depth` + "`" + `](Berth.depth)
part 12 Default
  ` + "`" + `3` + "`" + `
= seek
Finds.
Longer words, with a list:
list from 1 false
  - one
  - two
part 0 
  T: What.
part 1 
  names: Their
names.
  options: How.
part 2 
  By name.
` + "`" + `` + "`" + `` + "`" + ` ts: "find()"
part 4 
  Lost(Lost): Where it is lost.
part 10 
  [a berth](Berth), [` + "`" + `Berth.depth` + "`" + `](Berth.depth)
part 12 Default
  ` + "`" + `3` + "`" + `
= Berth
A berth, in a table:
|| a | b |
| 1 | ` + "`" + `x |
- 
  quoted [` + "`" + `find` + "`" + `](find)
# Heading (Heading of Berth)
list from 0 false
  - ☐ open
  - ☑ done
= Berth.depth
How deep.
part 12 Default
  3
= Berth.onMove
When it moves.
= Lost
Nowhere.
= read
By name.
part 1 
  of form 2 at: Where.
form 2
By number.
= old
deprecated: Use ` + "`" + `read` + "`" + `(read).
Old.
`},
	})
}
