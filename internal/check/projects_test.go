package check_test

import "testing"

// All findings of whole projects, and none but these.
func TestProjects(t *testing.T) {
	judge(t, []judged{
		{"a package of Go", `
-- go.mod --
module port.example
-- a.go --
// Package port is one. See [Berht] and [tide.Hihg].
package port

import "port.example/tide"

type Berth struct {
	Depth int
}

// fits tells.
func (Berth) Fits() bool { return true }

// Moor moors, see [Berth.Fit] and [Berth.Fits].
//
// Deprecated
func Moor(b Berth) tide.Level { return 0 }

// Fits is
func Fits() {}

type kept struct{}

// Open gives what cannot be named.
func Open() (*kept, error) { return nil, nil }

// Old is old.
//
// Deprecated: use [Gone].
func Old() {}

//codrel:ignore undocumented
func Silent() {}

var A, B int
-- tide/tide.go --
package tide

// Level is how high, in [metres].
type Level int

func (l Level) String() string { return "" }

const (
	Low Level = iota
	High
)
`, `
a.go:1:30 error "Berht" is not declared; did you mean Berth? [broken-reference]
a.go:1:42 error "tide.Hihg" is not declared; did you mean tide.High? [broken-reference]
a.go:6:6 warning struct Berth has no doc comment [undocumented]
a.go:13:21 error "Berth.Fit" is not declared; did you mean Berth.Fits? [broken-reference]
a.go:24:6 note the signature of function Open has the type kept, which users cannot name [leaked-type]
a.go:31:3 warning "codrel: ignore" is not a known instruction; use let, hide, part or words [malformed-comment]
a.go:32:6 warning function Silent has no doc comment [undocumented]
a.go:34:5 warning variable A has no doc comment [undocumented]
a.go:34:8 warning variable B has no doc comment [undocumented]
tide/tide.go:1:9 warning package port.example/tide has no doc comment [missing-module-comment]
tide/tide.go:6:16 warning method Level.String has no doc comment [undocumented]
tide/tide.go:9:2 warning constant Low has no doc comment [undocumented]
tide/tide.go:10:2 warning constant High has no doc comment [undocumented]
`},
		{"a package of Python", `
-- pyproject.toml --
[project]
name = "port"
-- port/__init__.py --
from .berth import Berth, nothing
from .berth import moor as tie
__all__ = ["Berth", "Missing"]
-- port/berth.py --
"""Berths, see :class:` + "`" + `Berht` + "`" + ` and :func:` + "`" + `.moor` + "`" + `, ` + "`" + `Berth.fit` + "`" + ` and ` + "`" + `` + "`" + `Berth.fit` + "`" + `` + "`" + `."""

class Berth:
    """A place.

    Attributes:
        depth: How deep.
        width: How wide.
    """
    depth = 1

    def fits(self, draught, wide=False, *rest):
        """Whether it fits.

        Args:
            draught (float): What it needs.
            draft: The same.
            wide:
        Returns:
            bool: Whether.
        Raises:
            ValueError: Never.
        """
        raise KeyError(draught)

    def close(self): pass

def moor(name):
    """Moor.

    Parameters
    ---------
    name : str
        Which.
    hours : int
        How long.

    Retuns
    ------
    int
    """
    return 1

def walk():
    """Walks.

    :parm x: what
    :raises Lost: where
    """
`, `
port/__init__.py:1:1 warning package port has no doc comment [missing-module-comment]
port/__init__.py:3:22 warning Missing is listed as exported, but the module declares no such name [broken-export]
port/berth.py:1:24 error "Berht" is not declared; did you mean Berth? [broken-reference]
port/berth.py:24:15 note the comment on Berth.fits does not mention that it raises KeyError [undescribed-failure]
port/berth.py:26:9 warning method Berth.close has no doc comment [undocumented]
port/berth.py:28:5 note the comment on moor does not say what it returns [undescribed-result]
port/berth.py:35:5 error moor has no parameter hours [phantom-parameter]
port/berth.py:38:5 warning "Retuns" is not a known word here; did you mean Returns? [unknown-tag]
port/berth.py:47:6 warning "parm" is not a known word here; did you mean param? [unknown-tag]
`},
		{"a package of TypeScript", `
-- package.json --
{"name": "port", "exports": {".": "./index.ts"}}
-- index.ts --
import { Hidden } from "./inside";
export { gone } from "./inside";
export * from "./nowhere";
/**
 * A berth, see {@link Berht} and {@link Berth.fit}, {@link https://x.example/}.
 *
 * @param depth - How deep.
 */
export class Berth {
  constructor(depht: number) {}
  fits(level: Hidden): boolean { return true }
  /**
   * Moors.
   * @param name Who.
   * @param hour When.
   * @returns
   * @retuns Again.
   * @throws {Lost}
   */
  moor(name: string, options: { hours: number }): void {}
  private kept() {}
  /** @internal */
  inside() {}
}
/** Reads. */
export function read(a: string): string;
export function read(a: number): string;
export function read(a: any) { return "" }
export interface Options { hours?: number; /** Given. */
  wide: boolean }
/** {@inheritDoc Nowhere} */
export const seek = () => 1;
-- inside.ts --
/** Hidden. */
export interface Hidden {}
`, `
index.ts:2:10 warning gone is exported, but inside declares no such name [broken-export]
index.ts:3:8 warning all of ./nowhere is exported, but there is no such file [broken-export]
index.ts:5:42 error "Berth.fit" is not declared; did you mean Berth.fits? [broken-reference]
index.ts:7:11 error Berth has no parameter depth; did you mean depht? [phantom-parameter]
index.ts:11:3 note the signature of method Berth.fits has the type Hidden, which users cannot name [leaked-type]
index.ts:11:3 warning method Berth.fits has no doc comment [undocumented]
index.ts:15:13 error Berth.moor has no parameter hour [phantom-parameter]
index.ts:17:7 warning "@retuns" is not a known word here; did you mean @returns? [unknown-tag]
index.ts:20:3 warning parameter options of Berth.moor is not described [undescribed-parameter]
index.ts:29:18 warning interface Options has no doc comment [undocumented]
index.ts:31:5 error "Nowhere" is not declared [broken-reference]
`},
		{"a guide and its fragments", `
-- go.mod --
module port.example
-- codrel.yaml --
name: Port
-- README.md --
# Port

See [a](ref:Berth.Depth), [b](ref:Nothing), [c](docs/none.md), [d](#use), [e](#nowhere), ` + "`" + `Berth.Nope` + "`" + `, <ref:port.Berth>.

<insert:tides> and <insert:none>

## Use

` + "`" + `` + "`" + `` + "`" + `go
port.Moor()
` + "`" + `` + "`" + `` + "`" + `
-- fragments/tides.md --
Tides of [x](ref:Moor) and <insert:tides>.
-- fragments/unused.md --
Nobody asks.
-- a.go --
// Package port is one.
package port

// Berth is one, as <insert:tides> says.
type Berth struct{ Depth int }
`, `
README.md:3:28 error "Nothing" is not declared [broken-reference]
README.md:3:46 error the link leads to docs/none.md, which does not exist [broken-guide-link]
README.md:3:76 error README.md has no heading that "#nowhere" could mean [broken-guide-link]
README.md:5:2 error the fragment "tides" is inserted only where the link is alone in its paragraph [broken-fragment]
README.md:5:21 error the fragment "none" is inserted only where the link is alone in its paragraph [broken-fragment]
fragments/tides.md:1:1 note nothing inserts the fragment "tides" [broken-fragment]
fragments/tides.md:1:11 error "Moor" is not declared [broken-reference]
fragments/tides.md:1:29 error the fragment "tides" is inserted only where the link is alone in its paragraph [broken-fragment]
fragments/unused.md:1:1 note nothing inserts the fragment "unused" [broken-fragment]
`},
		{"JavaScript with comments that name things", `
-- package.json --
{"name": "port", "main": "index.js"}
-- index.js --
/**
 * @typedef {Object} Place
 * @property {string} name Its name.
 * @property {Plaec} next
 */
/**
 * Finds.
 * @param {Place} place
 * @param {Object} options How.
 * @param {boolean} options.wide Whether.
 * @param {boolean} option.long Whether.
 * @param {string} place Again.
 * @return {Berht} One.
 * @since
 */
exports.find = function (place, { wide }) { return null };
/** @class */
function Berth() {}
/** Fits. */
Berth.prototype.fits = function (draught) { throw new RangeError('x') };
Berth.prototype.moor = function () {};
exports.Berth = Berth;
/** Old.
 * @deprecated
 */
exports.old = 1;
/**
 */
exports.empty = 1;
/** TODO */
exports.todo = 1;
`, `
index.js:12:20 warning place is described twice [repeated-section]
index.js:18:10 warning the comment on function Berth consists of tags alone [undocumented]
index.js:21:17 warning method Berth.moor has no doc comment [undocumented]
index.js:26:9 note constant old is deprecated, but its comment does not say what to use instead [deprecated-without-advice]
index.js:27:1 warning the comment on empty is empty [empty-comment]
index.js:29:9 warning constant empty has no doc comment [undocumented]
`},
		{"findings that are left out", `
-- go.mod --
module port.example
-- codrel.yaml --
checks:
  rules:
    undocumented: off
    broken-reference: warning
-- a.go --
package port

type Berth struct{}

// Moor moors, see [Berth.Fit].
func Moor() {}
`, `
a.go:1:9 warning package port.example has no doc comment [missing-module-comment]
a.go:5:21 warning "Berth.Fit" is not declared [broken-reference]
`},
		{"nothing wrong", `
-- pyproject.toml --
[project]
name = "port"
-- port.py --
"""Ports."""
__all__ = ["moor"]

def moor(name):
    """Moors.

    Args:
        name: Which.
    """

def _kept(): pass
def unlisted(): pass
`, `

`},
	})
}
