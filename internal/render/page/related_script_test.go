package page_test

import "testing"

// What declarations in TypeScript are to one another stands beside them.
func TestScriptRelated(t *testing.T) {
	shows(t, related, []arrival{
		{"classes, interfaces and users", `
-- package.json --
{"name": "port", "exports": {".": "./index.ts", "./tide": "./tide.ts"}}
-- index.ts --
import { Level, type Named } from "./tide";
export { Level } from "./tide";
/** Moors. */
export interface Moorer extends Named { /** Moors it. */
  /** Moors one. */
  moor(name: string): void }
/** A place. */
export abstract class Place {
  /** Whether it fits. */
  abstract fits(level: Level): boolean;
  /** How large. */
  area(): number { return 1 }
}
/** A berth. */
export class Berth extends Place implements Moorer {
  name = "x";
  moor(name: string): void {}
  fits(level: Level): boolean { return this.area() > 1 }
  /** Makes one. */
  static made(): Berth { return new Berth() }
}
/** A quay. */
export class Quay extends Berth { override area() { return 2 } }
/** Finds one. */
export function find(name: string): Berth | undefined { return Berth.made() }
/** Waits for one. */
export async function wait(): Promise<Berth> { return find("x")! }
/** Takes one. */
export function use(berth: Berth, ...more: Moorer[]): void { berth.moor("x"); find("y") }
/** One or the other. */
export type Either = Berth | Quay;
/** The usual one. */
export const usual: Berth = new Berth();
/** Loses one. @throws {Lost} where it is lost */
export function lose(): never { throw new Lost() }
/** It is lost. */
export class Lost extends Error {}
/** @deprecated Use {@link find}. */
export function seek(): void {}
-- tide.ts --
/** How high. */
export type Level = number;
/** Has a name. */
export interface Named { /** The name. */
  name: string }
/** Levels. */
export enum Levels { Low, High }
/** The low one. */
export const low: Levels = Levels.Low;
`, `
== index
  1 file: index.ts(index.ts:1).
  Imports tide(page reference/port/tide/index.html).
  All uses, by name(page reference/port/index/~users.html).
Moorer
  Used in index.ts, lines 15(index.ts:15) and 29(index.ts:29).
  Implemented by Berth(Berth) and Quay(Quay).
  Extends tide.Named(Named).
  Parameter of use(use).
Moorer.moor
  Implemented by Berth.moor(Berth.moor).
Place
  Used in index.ts, line 15(index.ts:15).
  Extended by Berth(Berth).
Place.fits
  Overridden by Berth.fits(Berth.fits).
Place.area
  Overridden by Quay.area(Quay.area).
  Used in index.ts, line 18(index.ts:18).
Berth
  Used on 7 lines of 1 file(page reference/port/index/~users.html#Berth).
  Implements Moorer(Moorer) and tide.Named(Named).
  Extends Place(Place).
  Extended by Quay(Quay).
  Parameter of use(use).
  made by find
  made by wait
  constant usual
Berth.name
  Implements tide.Named.name(Named.name).
Berth.moor
  Implements Moorer.moor(Moorer.moor).
  Text inherited from Moorer.moor(Moorer.moor).
  Used in index.ts, line 29(index.ts:29).
Berth.fits
  Overrides Place.fits(Place.fits).
  Text inherited from Place.fits(Place.fits).
Berth.made
  Used in index.ts, line 25(index.ts:25).
Quay
  Used in index.ts, line 31(index.ts:31).
  Implements Moorer(Moorer) and tide.Named(Named).
  Extends Berth(Berth).
Quay.area
  Overrides Place.area(Place.area).
  Text inherited from Place.area(Place.area).
find
  Used in index.ts, lines 27(index.ts:27) and 29(index.ts:29).
wait
use
Either
usual
lose
Lost
  Used in index.ts, line 35(index.ts:35).
  Thrown by lose(lose).
seek
== tide
  1 file: tide.ts(tide.ts:1).
  Imported by index(page reference/port/index/index.html).
Level
  Used in index.ts, lines 1(index.ts:1), 10(index.ts:10) and 18(index.ts:18).
  Parameter of index.Berth.fits(Berth.fits) and index.Place.fits(Place.fits).
Named
  Used in index.ts, lines 1(index.ts:1) and 4(index.ts:4).
  Implemented by index.Berth(Berth) and index.Quay(Quay).
  Extended by index.Moorer(Moorer).
Named.name
  Implemented by index.Berth.name(Berth.name).
Levels
  Used in tide.ts, line 9(tide.ts:9).
  constant low
Levels.Low
  Used in tide.ts, line 9(tide.ts:9).
Levels.High
low
`},
	})
}
