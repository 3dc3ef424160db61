package page_test

import "testing"

// Odd corners of JavaScript and TypeScript arrive as well.
func TestScriptCorners(t *testing.T) {
	shows(t, outline, []arrival{
		{"factories and wrapped values", `
-- package.json --
{"name": "port", "main": "index.js"}
-- index.js --
/** Made at once. */
export const harbour = (function () { return { moor() {} } })();
/** Held in a promise. */
export const later = Promise.resolve({ a: 1 });
/** By a template. */
export const text = ` + "`" + `a ${harbour} b` + "`" + `;
/** By a class expression. */
export const Berth = class Inner extends Object {
  /** Fits. */
  fits() {}
};
/** Bound. */
export const bound = harbour.moor.bind(harbour);
/** Of a generator. */
export const walk = function* named(a, b = {}) { yield a };
/** Curried. */
export const add = (a) => (b) => a + b;
/** In brackets. */
export const dated = ((a, b) => a);
/** Memoised. */
export const fast = memoize(function (key) { return key });
let hidden = 1;
/** A counter. */
export { hidden as counter };
/** Several. */
export const [one, , two = 2, ...rest] = [];
/** Big. */
export const big = 123n, neg = -1, re = /a\/b/u, nothing = null, und = void 0;
export default harbour;
`, `
index
  class Berth: class Berth extends Object -- By a class expression.
    method fits: fits() -- Fits.
  function walk: const walk = function* (a, b = {}) -- Of a generator.
  function add: const add = (a) => … -- Curried.
  function fast: const fast = memoize(function (key) { return key }) -- Memoised.
  constant harbour: const harbour = (function () { return { moor() {} } })() -- Made at once.
  constant later: const later = Promise.resolve({ a: 1 }) -- Held in a promise.
  constant text: const text = ` + "`" + `a ${harbour} b` + "`" + ` -- By a template.
  constant bound: const bound = harbour.moor.bind(harbour) -- Bound.
  constant dated: const dated = ((a, b) => a) -- In brackets.
  constant one: const one -- Several.
  constant two: const two
  constant rest: const rest
  constant big: const big = 123n -- Big.
  constant neg: const neg = -1
  constant re: const re = /a\/b/u
  constant nothing: const nothing = null
  constant und: const und = void 0
  variable counter: let counter = 1
`},
		{"TypeScript classes in their odd corners", `
-- package.json --
{"name": "port", "types": "index.ts"}
-- index.ts --
/** A mixin. */
export function Named<T extends new (...args: any[]) => {}>(base: T) {
  return class extends base { /** Its name. */ name = "" };
}
/** Mixed. */
export class Berth extends Named(Object) {
  /** Fixed. */
  static #count = 0;
  static {
    Berth.#count++;
  }
  /** Keyed. */
  ["depth"]: number = 1;
  /** By a number. */
  0 = "zero";
  /** Optional. */
  fits?(draught: number): boolean;
  /** Definite. */
  later!: string;
  /** Overloaded. */
  moor(): void;
  /** With a name. */
  moor(name: string): this;
  moor(name?: string): any {}
  /** An arrow. */
  tie = async <K,>(key: K, { a, b: { c } }: { a: 1, b: { c: 2 } }): Promise<K> => key;
  /** A getter alone. */
  get wide(): number { return 1 }
  /** A setter alone. */
  set deep(to: number) {}
  private constructor(readonly at: Date) { super() }
  /** A guard. */
  isBerth(): this is Berth { return true }
  /** Asserts. */
  assert(x: unknown): asserts x {}
  /** @internal */
  kept() {}
  /** @hidden */
  unseen() {}
  protected half() {}
}
/** Abstract. */
export abstract class Place<in out T, const U = T> {
  abstract accessor held: T;
  protected abstract move(to: U): void;
}
`, `
index
  class Berth: class Berth extends Named(Named)(Object) -- Mixed.
    property ["depth"]: ["depth"]: number = 1 -- Keyed.
    property 0: 0 = "zero" -- By a number.
    property later: later: string -- Definite.
    property tie: tie -- An arrow.
    accessor wide: get wide(): number -- A getter alone.
    accessor deep: set deep(to: number) -- A setter alone.
    property at: at: Date
    method fits: fits?(draught: number): boolean -- Optional.
    method moor: moor(): void -- Overloaded.
      or moor(name: string): this
    method isBerth: isBerth(): this is Berth(Berth) -- A guard.
    method assert: assert(x: unknown): asserts x -- Asserts.
    method half: half()
  class Place: abstract class Place<in out T, const U = T> -- Abstract.
    property held: abstract accessor held: T
    method move: abstract move(to: U): void
  function Named: function Named<T extends new (...args: any[]) => {}>(base: T) -- A mixin.
`},
		{"modules that re-export in circles", `
-- package.json --
{"name": "port", "exports": {".": "./index.ts", "./deep/*": "./deep/*.ts"}}
-- index.ts --
export * from "./a";
export * as deep from "./deep/one";
export { default } from "./a";
export { default as Named, type Kind } from "./b";
-- a.ts --
export * from "./b";
/** The default of a. */
export default class A {}
/** In a. */
export const inA = 1;
/** In both. */
export const both = "a";
-- b.ts --
export * from "./a";
/** The default of b. */
export default function b() {}
/** In b. */
export const inB = 1;
/** In both. */
export const both = "b";
/** A kind. */
export type Kind = "a" | "b";
-- deep/one.ts --
/** One. */
export const one = 1;
export { inA } from "../a";
-- deep/two.ts --
import * as own from "./one";
/** Two. */
export const two = own.one;
export { own };
`, `
one
  re-exports inA of a -- In a.
  constant one: const one = 1 -- One.
two
  re-exports own (module deep/one)
  constant two: const two = own.one -- Two.
index
  re-exports deep (module deep/one)
  class A: class A -- The default of a.
  type alias Kind: type Kind = "a" | "b" -- A kind.
  function Named: function Named() -- The default of b.
  constant inA: const inA = 1 -- In a.
  constant both: const both = "a" -- In both.
  constant inB: const inB = 1 -- In b.
`},
		{"a declaration file beside its code", `
-- package.json --
{"name": "port", "main": "index.js", "types": "index.d.ts"}
-- index.js --
/** In code: moors. */
exports.moor = function (name) {};
/** Only in code. */
exports.extra = 1;
class Berth {
  /** In code: fits. */
  fits(d) {}
}
exports.Berth = Berth;
-- index.d.ts --
export function moor(name: string): Promise<void>;
export class Berth {
  fits(draught: number): boolean;
  /** In the declaration: depth. */
  depth: number;
}
/** Only declared. */
export interface Options { hours: number }
export as namespace port;
`, `
index
  class Berth: class Berth
    property depth: depth: number -- In the declaration: depth.
    method fits: fits(draught: number): boolean -- In code: fits.
  interface Options: interface Options -- Only declared.
    property hours: hours: number
  function moor: function moor(name: string): Promise<void> -- In code: moors.
  constant extra: extra = 1 -- Only in code.
`},
	})
}
