package page_test

import "testing"

// What users can name in JavaScript and TypeScript arrives on its pages, with its words.
func TestScriptArrives(t *testing.T) {
	shows(t, outline, []arrival{
		{"default exports without a name", `
-- package.json --
{"name": "port", "version": "1.0.0", "exports": {".": "./a.ts", "./b": "./b.ts", "./c": "./c.ts", "./d": "./d.ts"}}
-- a.ts --
/** Moors a vessel. */
export default function (name: string): void {}
-- b.ts --
/** A berth without a name. */
export default class { /** How deep. */ depth = 1 }
-- c.ts --
/** Fits by draught. */
export default (draught: number): boolean => draught < 3;
-- d.ts --
/** The default harbour. */
const harbour = { name: "Hythe", berths: 4 };
export default harbour;
`, `
a
  function default: function default(name: string): void -- Moors a vessel.
b
  class default: class default -- A berth without a name.
    property depth: depth = 1
c
  function default: default(draught: number): boolean -- Fits by draught.
d
  constant harbour: const harbour = { name: "Hythe", berths: 4 } -- The default harbour.
`},
		{"names under which something is exported", `
-- package.json --
{"name": "port", "main": "index.ts"}
-- index.ts --
export { moor as tie, Berth } from "./inside";
export * as tides from "./tides";
export * from "./more";
import local, { helper } from "./local";
export { local, helper as default };
export type { Level } from "./tides";
-- inside.ts --
/** Moors. */
export function moor(): void {}
/** A berth. */
export class Berth {}
/** Not for users. */
export function unused(): void {}
-- tides.ts --
/** A level. */
export type Level = number;
/** How high it is. */
export const height = (at: Date): Level => 0;
-- more.ts --
/** One more. */
export const more = 1;
export default function lost() {}
-- local.ts --
/** The local one. */
export default function local() {}
/** Helps. */
export function helper() {}
`, `
index
  re-exports tides (module tides)
  class Berth: class Berth -- A berth.
  type alias Level: type Level = number -- A level.
  function tie: function tie(): void -- Moors.
  function local: function local() -- The local one.
  function helper: function helper() -- Helps.
  constant more: const more = 1 -- One more.
tides
  function height: const height = (at: Date): Level(Level) => … -- How high it is.
`},
		{"overloads and generics", `
-- package.json --
{"name": "port"}
-- index.ts --
/** Reads by name. */
export function read(name: string): string;
/** Reads by number, with a default. */
export function read<T extends object = {}>(at: number, or?: T): T | undefined;
export function read(x: any, y?: any): any {}
/** A store of things. */
export class Store<K extends string | number, V = unknown> implements Iterable<[K, V]> {
  /** Makes one. */
  constructor(private readonly items: Map<K, V>, /** How many. */ public limit = 10) {}
  /** Gets one. */
  get(key: K): V | undefined;
  /** Gets one or another. */
  get<O>(key: K, or: O): V | O;
  get(key: any, or?: any) { return this.items.get(key) ?? or }
  *[Symbol.iterator](): Iterator<[K, V]> {}
  /** How many there are. */
  get size(): number { return 1 }
  set size(to: number) {}
  #secret = 1;
  private hidden = 2;
  protected kept = 3;
  static readonly none = new Store<string>(new Map());
  static { Store.none.size = 1 }
  declare later: string;
  async *walk(): AsyncGenerator<V> {}
  [name: string]: unknown;
}
`, `
index
  class Store: class Store<K extends string | number, V = unknown> implements Iterable<[K, V]> -- A store of things.
    constructor constructor: constructor(private readonly items: Map<K, V>, public limit = 10) -- Makes one.
    property limit: limit = 10 -- How many.
    accessor size: get size(): number -- How many there are.
      or set size(to: number)
    property kept: kept = 3
    property none: static readonly none = new Store<string>(new Map())
    property later: later: string
    index signature []: [name: string]: unknown
    method get: get(key: K): V | undefined -- Gets one.
      or get<O>(key: K, or: O): V | O
    method [Symbol.iterator]: *[Symbol.iterator](): Iterator<[K, V]>
    method walk: async *walk(): AsyncGenerator<V>
  function read: function read(name: string): string -- Reads by name.
    or function read<T extends object = {}>(at: number, or?: T): T | undefined
`},
		{"types of all kinds", `
-- package.json --
{"name": "port"}
-- index.d.ts --
/** Keys that a thing has. */
export type Keys<T> = { readonly [K in keyof T as ` + "`" + `get${Capitalize<K & string>}` + "`" + `]?: T[K] };
/** What it waits for. */
export type Awaited2<T> = T extends Promise<infer U extends string> ? U : never;
/** A pair. */
export type Pair = [first: string, second?: number, ...rest: boolean[]];
/** A maker. */
export interface Maker {
  /** Makes one by call. */
  (name: string): Maker;
  /** Makes one by new. */
  new (name: string): Maker;
  readonly [index: number]: string;
  /** A method. */
  method?(this: Maker, ...args: Pair): asserts args is Pair;
  get level(): number;
  set level(to: number | string);
}
/** A tagged name. */
export declare const tag: unique symbol;
/** Whether it is one. */
export declare function isMaker(x: unknown): x is Maker;
/** Levels. */
export declare const enum Level { /** Low. */ Low = 1, High = Low << 2, "very high" = 8 }
/** Two in one. */
export declare const low: number, high: string;
/** A class by a value. */
export declare const Berth: { new (name: string): Berth; /** The deepest. */ readonly deepest: Berth };
export interface Berth { /** Its name. */ name: string }
`, `
index
  type alias Keys: type Keys<T> = { readonly [K in keyof T as ` + "`" + `get${Capitalize<K & string>}` + "`" + `]?: T[K] } -- Keys that a thing has.
  type alias Awaited2: type Awaited2<T> = T extends Promise<infer U extends string> ? U : never -- What it waits for.
  type alias Pair: type Pair = [first: string, second?: number, ...rest: boolean[]] -- A pair.
  interface Maker: interface Maker -- A maker.
    constructor new: new(name: string): Maker(Maker) -- Makes one by new.
    accessor level: get level(): number
      or set level(to: number | string)
    index signature []: [index: number]: string
    method (): (name: string): Maker(Maker) -- Makes one by call.
    method method: method?(this: Maker(Maker), ...args: Pair(Pair)): asserts args is Pair(Pair) -- A method.
  enum Level: const enum Level -- Levels.
    enum member Low: Low = 1
    enum member High: High = Low << 2
    enum member very high: very high = 8
  interface Berth: const Berth: { new (name: string): Berth(Berth); /** The deepest. */ readonly deepest: Berth(Berth) } -- A class by a value.
    constructor new: new(name: string): Berth(Berth)
    property deepest: readonly deepest: Berth(Berth)
    property name: name: string
  function isMaker: function isMaker(x: unknown): x is Maker(Maker) -- Whether it is one.
  constant tag: const tag: unique symbol -- A tagged name.
  constant low: const low: number -- Two in one.
  constant high: const high: string
`},
		{"namespaces and what is merged with them", `
-- package.json --
{"name": "port", "types": "index.d.ts"}
-- index.d.ts --
/** Moors, and has options. */
declare function moor(options?: moor.Options): moor.Result;
declare namespace moor {
  /** What it can be told. */
  interface Options { /** How long. */ hours?: number }
  /** What it says. */
  type Result = Options | null;
  /** The newest version. */
  const version: string;
  namespace deep {
    /** Deep inside. */
    function inside(): void;
  }
}
export = moor;
`, `
index
  re-exports Options of index -- What it can be told.
  re-exports Result of index -- What it says.
  re-exports version of index -- The newest version.
  re-exports deep of index
  function, namespace moor: function moor(options?: moor.Options(moor.Options)): moor.Result(moor.Result) -- Moors, and has options.
    interface Options: interface Options -- What it can be told.
      property hours: hours?: number
    type alias Result: type Result = Options(moor.Options) | null -- What it says.
    namespace deep: namespace deep
      function inside: function inside(): void -- Deep inside.
    constant version: const version: string -- The newest version.
`},
		{"CommonJS in its ways", `
-- package.json --
{"name": "port", "main": "index.js"}
-- index.js --
'use strict';
/**
 * Moors a vessel.
 * @param {string} name - Its name.
 * @param {Object} [options] - More.
 * @param {number} [options.hours=2] - How long.
 * @returns {Berth} Where it lies.
 */
exports.moor = function moor(name, options) {};
/** A berth. @constructor */
function Berth(name) { /** Its name. */ this.name = name; }
/** Whether it fits. */
Berth.prototype.fits = function (draught) { return true };
/** The deepest one. */
Berth.deepest = new Berth('a');
Object.defineProperty(Berth.prototype, 'depth', { get: function () { return 1 } });
exports.Berth = Berth;
module.exports.tides = require('./tides');
const { low, high: top } = require('./tides');
exports.low = low;
exports.top = top;
-- tides.js --
/** Low water. */
const low = () => 1;
/** High water. */
function high() {}
module.exports = { low, high, /** Both of them. */ both() {}, 'odd-name': 1, get level() { return 1 } };
`, `
index
  re-exports tides (module tides)
  function Berth: function Berth(name) -- A berth.
    property name: name -- Its name.
    property deepest: deepest -- The deepest one.
    accessor depth: depth
    method fits: fits(draught) -- Whether it fits.
  function moor: moor(name, options) -- Moors a vessel.
  function low: const low = () => … -- Low water.
  function top: function top() -- High water.
tides
  function both: both()
  constant odd-name: odd-name = 1
  accessor level: level()
`},
		{"types in comments", `
-- package.json --
{"name": "port", "main": "index.js"}
-- index.js --
/**
 * A place for a vessel.
 * @typedef {Object} Place
 * @property {string} name - What it is called.
 * @property {{lat: number, lon: number}} at - Where it is.
 * @property {number} [depth=3] - How deep.
 */
/**
 * Asked for each place.
 * @callback Ask
 * @param {Place} place - The place.
 * @param {...number} heights - Heights.
 * @returns {Promise<boolean>}
 */
/** @typedef {'low' | 'high'} Level How high the water is. */
/**
 * Finds one.
 * @template {Place} T
 * @param {T[]} list
 * @param {Ask} ask
 * @return {T=}
 */
export function find(list, ask) {}
/** @enum {number} Depths that are known. */
export const Depth = { LOW: 1, HIGH: 2 };
`, `
index
  data type Place: typedef Place -- A place for a vessel.
  callback Ask: callback Ask(place, heights) -- Asked for each place.
  data type Level: typedef Level = 'low' | 'high' -- How high the water is.
  function find: function find(list, ask) -- Finds one.
  constant Depth: const Depth = { LOW: 1, HIGH: 2 }
`},
		{"members that only code makes", `
-- package.json --
{"name": "port", "main": "index.js"}
-- index.js --
/** A port. */
export class Port extends Place {
  static #count = 0;
  /** Its name. */
  name = 'x';
  constructor() {
    super();
    /** Its berths. @type {Berth[]} */
    this.berths = [];
    this.open = false;
    /** @private */
    this.cache = null;
  }
  /** Opens it. */
  openAt = (hour = 3, { until, ...rest } = {}, [first] = []) => {};
  static async *all() {}
  'quoted name'() {}
  123() {}
  [` + "`" + `computed` + "`" + `]() {}
  get() {}
  set() {}
  static() {}
  async() {}
}
/** A place. */
class Place { /** Finds it. */ find() {} }
`, `
index
  class Port: class Port extends Place(Place) -- A port.
    constructor constructor: constructor()
    property name: name = 'x' -- Its name.
    property berths: berths -- Its berths.
    property openAt: openAt = (hour = 3, { until, ...rest } = {}, [first] = []) => {} -- Opens it.
    method all: static async *all()
    method quoted name: quoted name()
    method 123: 123()
    method [` + "`" + `computed` + "`" + `]: [` + "`" + `computed` + "`" + `]()
    method get: get()
    method set: set()
    method static: static()
    method async: async()
    method find: find()
`},
		{"global declarations and modules by name", `
-- package.json --
{"name": "port", "types": "index.d.ts"}
-- index.d.ts --
export {};
declare global {
  /** A window on the quay. */
  interface Window { /** The port. */ port: string }
  /** Moors, anywhere. */
  function moor(): void;
}
declare module "quay" {
  /** Lands. */
  export function land(): void;
}
declare module "*.tide" {
  const text: string;
  export default text;
}
`, `
index
  module quay: declare module "quay"
    function land: function land(): void -- Lands.
  module *.tide: declare module "*.tide"
    constant text: const text: string
`},
		{"decorators, satisfies and odd layouts", `
-- package.json --
{"name": "port"}
-- index.ts --
/** Options. */
export const options = { /** Hours. */ hours: 1, nested: { deep: true } } satisfies Record<string, unknown>;
/** Words. */
export const words = ['a', 'b'] as const;
/** A berth. */
@register({ name: "berth" })
export class Berth {
  /** How deep. */
  @observe() accessor depth = 1;
  @bound
  /** Moors. */
  async moor
    <T,>(
      a: T, // which
      /** how long */ b = (1, 2),
    ): Promise<void> {}
}
/** Divides. */ export const divide = (a: number, b: number) => a / b, /** A pattern. */ pattern = /[/"]\/{/g;
export abstract class Shape { /** Draws. */ abstract draw(): void; abstract readonly area: number }
export let mutable = 1; // trailing
export var { one, two: [three], ...others } = options as any;
`, `
index
  class Berth: class Berth -- A berth.
    property depth: accessor depth = 1 -- How deep.
    method moor: async moor<T>(a: T, b = (1, 2)): Promise<void>
  class Shape: abstract class Shape
    property area: abstract readonly area: number
    method draw: abstract draw(): void
  function divide: const divide = (a: number, b: number) => … -- Divides.
  constant options: const options -- Options.
  constant words: const words = ['a', 'b'] as const -- Words.
  constant pattern: const pattern = /[/"]\/{/g -- A pattern.
  variable mutable: let mutable = 1
  variable one: var one
  variable three: var three
  variable others: var others
`},
		{"function constructors", `
-- package.json --
{"name": "port", "main": "a.js"}
-- a.js --
/**
 * A berth.
 * @constructor
 */
function Berth(name) {
  /** Its name. */
  this.name = name;
}
/** The deepest one. */
Berth.deepest = new Berth('a');
Object.defineProperty(Berth.prototype, 'depth', {
  /** How deep. */
  get: function () { return 1 },
});
/** How long. */
Object.defineProperty(Berth.prototype, 'length', { get() { return 1 } });
Object.defineProperties(Berth.prototype, {
  /** How wide. */
  width: { get() { return 1 } },
});
Object.assign(Berth.prototype, {
  /** Moors. */
  moor(name) {},
});
Berth.prototype = {
  /** Lets go. */
  letGo: function (hour) {},
};
exports.Berth = Berth;
/** Quay. */
function Quay() {
  /** Long. */
  this.long = 1;
}
Quay.prototype.fits = function () {};
exports.Quay = Quay;
/** Frozen. */
exports.States = Object.freeze({
  /** Open. */
  OPEN: 'open',
  /** Closed. */
  CLOSED: 'closed',
});
/** Opts. */
exports.opts = {
  /** Hours. */
  hours: 2,
};
`, `
a
  function Berth: function Berth(name) -- A berth.
    property name: name -- Its name.
    property deepest: deepest -- The deepest one.
    accessor depth: depth -- How deep.
    accessor length: length -- How long.
    accessor width: width -- How wide.
    method moor: moor(name) -- Moors.
    method letGo: letGo(hour) -- Lets go.
  function Quay: function Quay() -- Quay.
    property long: long -- Long.
    method fits: fits()
  object States: States -- Frozen.
    property OPEN: OPEN = 'open' -- Open.
    property CLOSED: CLOSED = 'closed' -- Closed.
  object opts: opts -- Opts.
    property hours: hours = 2 -- Hours.
`},
	})
}
