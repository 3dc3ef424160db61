package stream_test

import "testing"

// Each language has its lines, with all that they say.
func TestLanguages(t *testing.T) {
	lists(t, []streamed{
		{"port.go", `
// Package port is one.
package port

// Berth is generic.
type Berth[K comparable] struct {
	// Name is what it is called.
	Name, Other string
	io.Reader
	kept int
}

// Moor moors.
//
// Deprecated: use [Berth.Tie].
func (b *Berth[K]) Moor(name string, more ...int) (ok bool, err error) { return }

const (
	Low = iota // low water
	high
)

type Moorer interface {
	io.Closer
	Moor()
}

var A, b = 1, 2

type Alias = Berth[int]
`, `
6 struct Berth
  comment "Berth is generic."
  documented true
  effective "public"
  module "port"
  signature "type Berth[K comparable] struct"
  typeParams ["K"]
  visibility "public"
8 field Berth.Name
  comment "Name is what it is called."
  documented true
  effective "public"
  module "port"
  signature "Name string"
  visibility "public"
8 field Berth.Other
  comment "Name is what it is called."
  documented true
  effective "public"
  module "port"
  signature "Other string"
  visibility "public"
9 field Berth.Reader
  bases ["io.Reader"]
  basesAre ["embeds"]
  documented false
  effective "public"
  embedded true
  module "port"
  signature "io.Reader"
  visibility "public"
10 field Berth.kept
  documented false
  effective "package"
  module "port"
  signature "kept int"
  visibility "package"
16 method Berth.Moor
  comment "Moor moors.\n\nDeprecated: use [Berth.Tie]."
  deprecated true
  documented true
  effective "public"
  module "port"
  params ["name","more"]
  receiver "*Berth[K]"
  results ["bool","error"]
  signature "func (b *Berth[K]) Moor(name string, more ...int) (ok bool, err error)"
  variadic true
  visibility "public"
19 constant Low
  comment "low water"
  documented true
  effective "public"
  module "port"
  signature "const Low = 0"
  visibility "public"
20 constant high
  documented false
  effective "package"
  module "port"
  signature "const high = 1"
  visibility "package"
23 interface Moorer
  bases ["io.Closer"]
  basesAre ["embeds"]
  documented false
  effective "public"
  module "port"
  signature "type Moorer interface { io.Closer }"
  visibility "public"
25 method Moorer.Moor
  documented false
  effective "public"
  module "port"
  signature "Moor()"
  visibility "public"
28 variable A
  documented false
  effective "public"
  module "port"
  signature "var A = 1"
  visibility "public"
28 variable b
  documented false
  effective "package"
  module "port"
  signature "var b = 2"
  visibility "package"
30 type Alias
  documented false
  effective "public"
  module "port"
  signature "type Alias = Berth[int]"
  visibility "public"
`},
		{"port.py", `
"""Ports."""
import abc

class Berth(Place, metaclass=abc.ABCMeta):
    """A berth."""
    depth: float = 1.0
    """How deep."""

    def __init__(self, name, /, *rest, wide=False, **more):
        self.name = name

    @property
    def length(self) -> float: ...

    @classmethod
    async def _made(cls) -> "Berth": ...

    class Inner: pass

@overload
def read(a: int) -> str: ...
def read(a): "Reads."

LOW = 1
_kept = lambda x: x
`, `
5 class Berth
  bases ["Place"]
  basesAre ["extends"]
  comment "A berth."
  documented true
  effective "public"
  module "port"
  signature "class Berth(Place, metaclass=abc.ABCMeta)"
  visibility "public"
7 field Berth.depth
  comment "How deep."
  documented true
  effective "public"
  module "port"
  signature "depth: float = 1.0"
  visibility "public"
10 constructor Berth.__init__
  defaults ["","","","False",""]
  documented false
  effective "public"
  module "port"
  params ["self","name","*rest","wide","**more"]
  signature "def __init__(self, name, /, *rest, wide=False, **more)"
  variadic true
  visibility "public"
11 field Berth.name
  documented false
  effective "public"
  module "port"
  signature "name"
  visibility "public"
14 property Berth.length
  documented false
  effective "public"
  module "port"
  params ["self"]
  results ["float"]
  signature "@property\ndef length(self) -\u003e float"
  visibility "public"
17 method Berth._made
  documented false
  effective "private"
  modifiers ["async","class"]
  module "port"
  params ["cls"]
  results ["\"Berth\""]
  signature "@classmethod\nasync def _made(cls) -\u003e \"Berth\""
  visibility "private"
19 class Berth.Inner
  documented false
  effective "public"
  module "port"
  signature "class Inner"
  visibility "public"
22 function read
  documented false
  effective "public"
  module "port"
  params ["a"]
  results ["str"]
  signature "@overload\ndef read(a: int) -\u003e str"
  visibility "public"
23 function read
  comment "Reads."
  documented true
  effective "public"
  module "port"
  params ["a"]
  signature "def read(a)"
  visibility "public"
25 constant LOW
  documented false
  effective "public"
  module "port"
  signature "LOW = 1"
  visibility "public"
26 variable _kept
  documented false
  effective "private"
  module "port"
  signature "_kept = lambda x: x"
  visibility "private"
`},
		{"port.ts", `
/** A berth. */
export default abstract class Berth<T extends object = {}> extends Place<T> implements Moorer, Named {
  /** How deep. */
  readonly depth?: number = 1;
  constructor(private name: string, ...rest: T[]) { super() }
  get length(): number { return 1 }
  set length(to) {}
  protected static async *moor<K>(this: Berth, key: K, or = 3): AsyncGenerator<K> {}
  #secret() {}
}
/** Reads. @deprecated Use {@link Berth}. */
export function read(a: string): string;
export function read(a: number): string;
export function read(a: any) { return "" }
export const enum Level { Low = 1, High }
export type Pair = [Berth, Level];
interface Moorer { (name: string): void; new (): Moorer; [key: string]: unknown }
export namespace Port { export let open: boolean }
declare module "quay" { export function land(): void }
const kept = (a) => a, other = class {};
`, `
3 class Berth
  bases ["Place\u003cT\u003e","Moorer","Named"]
  basesAre ["extends","implements","implements"]
  comment "A berth."
  documented true
  effective "public"
  exported true
  modifiers ["abstract"]
  module "port"
  signature "abstract class Berth\u003cT extends object = {}\u003e extends Place\u003cT\u003e implements Moorer, Named"
  typeParams ["T"]
  visibility "public"
5 field Berth.depth
  comment "How deep."
  documented true
  effective "public"
  exported true
  module "port"
  signature "readonly depth?: number = 1"
  visibility "public"
6 constructor Berth.constructor
  documented false
  effective "public"
  exported true
  module "port"
  params ["name","...rest"]
  signature "constructor(private name: string, ...rest: T[])"
  variadic true
  visibility "public"
6 field Berth.name
  documented false
  effective "private"
  exported true
  module "port"
  signature "name: string"
  visibility "private"
7 property Berth.length
  documented false
  effective "public"
  exported true
  module "port"
  results ["number"]
  signature "get length(): number"
  visibility "public"
8 property Berth.length
  documented false
  effective "public"
  exported true
  module "port"
  params ["to"]
  signature "set length(to)"
  visibility "public"
9 method Berth.moor
  defaults ["","","3"]
  documented false
  effective "protected"
  exported true
  modifiers ["static","async"]
  module "port"
  params ["this","key","or"]
  results ["AsyncGenerator\u003cK\u003e"]
  signature "static async *moor\u003cK\u003e(this: Berth, key: K, or = 3): AsyncGenerator\u003cK\u003e"
  typeParams ["K"]
  visibility "protected"
10 method Berth.#secret
  documented false
  effective "private"
  exported true
  module "port"
  signature "#secret()"
  visibility "private"
13 function read
  comment "Reads.\n@deprecated Use {@link Berth}."
  deprecated true
  documented true
  effective "public"
  exported true
  module "port"
  params ["a"]
  results ["string"]
  signature "function read(a: string): string"
  visibility "public"
14 function read
  documented false
  effective "public"
  exported true
  module "port"
  params ["a"]
  results ["string"]
  signature "function read(a: number): string"
  visibility "public"
15 function read
  documented false
  effective "public"
  exported true
  module "port"
  params ["a"]
  signature "function read(a: any)"
  visibility "public"
16 enum Level
  documented false
  effective "public"
  exported true
  module "port"
  signature "const enum Level"
  visibility "public"
16 enum-member Level.Low
  documented false
  effective "public"
  exported true
  module "port"
  signature "Low = 1"
  visibility "public"
16 enum-member Level.High
  documented false
  effective "public"
  exported true
  module "port"
  signature "High"
  visibility "public"
17 type Pair
  documented false
  effective "public"
  exported true
  module "port"
  signature "type Pair = [Berth, Level]"
  visibility "public"
18 interface Moorer
  documented false
  effective "internal"
  exported false
  module "port"
  signature "interface Moorer"
  visibility "public"
18 method Moorer.()
  documented false
  effective "internal"
  exported false
  module "port"
  params ["name"]
  results ["void"]
  signature "(name: string): void"
  visibility "public"
18 constructor Moorer.new
  documented false
  effective "internal"
  exported false
  module "port"
  results ["Moorer"]
  signature "new(): Moorer"
  visibility "public"
18 indexer Moorer.[]
  documented false
  effective "internal"
  exported false
  module "port"
  params ["key"]
  signature "[key: string]: unknown"
  visibility "public"
19 namespace Port
  documented false
  effective "public"
  exported true
  module "port"
  signature "namespace Port"
  visibility "public"
19 variable Port.open
  documented false
  effective "public"
  exported true
  module "port"
  signature "let open: boolean"
  visibility "public"
20 module quay
  documented false
  effective "public"
  exported true
  module "port"
  signature "declare module \"quay\""
  visibility "public"
20 function quay.land
  documented false
  effective "public"
  exported true
  module "port"
  results ["void"]
  signature "function land(): void"
  visibility "public"
21 function kept
  documented false
  effective "internal"
  exported false
  module "port"
  params ["a"]
  signature "const kept = (a) =\u003e …"
  visibility "public"
21 class other
  documented false
  effective "internal"
  exported false
  module "port"
  signature "class other"
  visibility "public"
`},
		{"port.js", `
'use strict';
/** A berth. @constructor */
function Berth(name) { this.name = name }
/** Fits. */
Berth.prototype.fits = function (draught) {};
Berth.made = () => new Berth();
exports.Berth = Berth;
/** Moors. */
exports.moor = async function (a, { b, c = 1 }, ...d) {};
module.exports.low = 1;
class Quay extends Berth { static size = 3; get wide() { return 1 } }
`, `
4 class Berth
  comment "A berth.\n@constructor"
  documented true
  effective "public"
  exported true
  module "port"
  params ["name"]
  signature "function Berth(name)"
  visibility "public"
6 method Berth.fits
  comment "Fits."
  documented true
  effective "public"
  exported true
  module "port"
  params ["draught"]
  signature "fits(draught)"
  visibility "public"
7 method Berth.made
  documented false
  effective "public"
  exported true
  module "port"
  signature "made()"
  visibility "public"
10 function moor
  comment "Moors."
  documented true
  effective "public"
  exported true
  module "port"
  params ["a","{}","...d"]
  signature "moor(a, { b, c = 1 }, ...d)"
  variadic true
  visibility "public"
11 constant low
  documented false
  effective "public"
  exported true
  module "port"
  signature "low = 1"
  visibility "public"
12 class Quay
  bases ["Berth"]
  basesAre ["extends"]
  documented false
  effective "internal"
  exported false
  module "port"
  signature "class Quay extends Berth"
  visibility "public"
12 field Quay.size
  documented false
  effective "internal"
  exported false
  module "port"
  signature "static size = 3"
  visibility "public"
12 property Quay.wide
  documented false
  effective "internal"
  exported false
  module "port"
  signature "get wide()"
  visibility "public"
`},
	})
}
