package site_test

import (
	"io/fs"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/settings"
)

// surfaceOf builds the site of a txtar archive and requires it to be sound.
func surfaceOf(t *testing.T, archive string) func(path string) string {
	t.Helper()
	files := archived(archive)
	m := rendered(t, files, settings.Default(), 2)
	requireSound(t, asFS(m))
	return func(path string) string {
		data, err := fs.ReadFile(asFS(m), path)
		require.NoError(t, err, path)
		return plainText(string(data))
	}
}

// plainText is the article of a page without its tags.
func plainText(page string) string {
	if i := strings.Index(page, "<article"); i >= 0 {
		page = page[i:]
	}
	page = strings.ReplaceAll(page, "<wbr>", "")
	var b strings.Builder
	tag := false
	for _, c := range page {
		switch {
		case c == '<':
			tag = true
		case c == '>' && tag:
			tag = false
			b.WriteByte(' ')
		case !tag:
			b.WriteRune(c)
		}
	}
	return strings.Join(strings.Fields(strings.ReplaceAll(b.String(), "&#34;", `"`)), " ")
}

const npmPackage = `
-- package.json --
{"name": "@tidebook/web", "exports": {".": {"types": "./dist/index.d.ts", "import": "./dist/index.js"}, "./wire": "./dist/wire.js", "./old": "./dist/wire.js"}}
-- dist/index.js --
export {};
-- src/index.ts --
import Quay from "./quay";
export { point as scalePoint } from "./scale";
export { Quay, /** The way a plan is sent. */ Wire };
import { Wire } from "@tidebook/web/wire";
export * as moon from "./moon";
export default class Harbour extends Base {}
abstract class Base {
  /** Opens the gates. */
  open(gate: string): void {}
  private hidden() {}
}
/** Flood is high water. */
export function flood(at: Date) {}
export const high = flood;
-- src/scale.ts --
/** Makes a scale of points. */
export function point(domain: string[]) {}
-- src/quay.ts --
import { Place } from "./place";
/** A quay. */
export default class Quay extends Place {
  /** Moors. */
  moor() {}
}
-- src/place.ts --
export class Place {
  /** Where it is. */
  at(): string { return "" }
}
-- src/wire.ts --
export class Wire { send(text: string) {} }
-- src/moon.ts --
/** Phases of the moon. */
export function phase() {}
`

func TestNamesThatUsersImport(t *testing.T) {
	page := surfaceOf(t, npmPackage)
	index := page("reference/web/src/index/index.html")
	assert.Contains(t, index, `import * as web from "@tidebook/web"`)
	assert.Contains(t, index, "scalePoint (domain: string[]) Makes a scale of points.", "a renamed function has the name that users import")
	assert.NotContains(t, index, " point ")
	assert.Contains(t, index, "Wire The way a plan is sent.", "a comment in the list is that name's")
	assert.Contains(t, index, "moon all of src/moon")
	assert.Contains(t, index, "high", "a second name of a function")
	assert.Contains(t, index, "Alias of flood . Text inherited from flood .", "has its words")
	harbour := page("reference/web/src/index/Harbour.html")
	assert.Contains(t, harbour, `import Harbour from "@tidebook/web"`)
	assert.Contains(t, harbour, "open ( gate : string ): void Defined in index.ts , line 9. Declared in the base Base . Opens the gates.")
	assert.NotContains(t, harbour, "hidden")
	quay := page("reference/web/src/index/Quay.html")
	assert.Contains(t, quay, `import { Quay } from "@tidebook/web"`, "an entry gives the default of another module under a name")
	assert.Contains(t, quay, "Declared in the base Place . Where it is.")
	wire := page("reference/web/src/wire/index.html")
	assert.Contains(t, wire, "Also imported as @tidebook/web/wire .")
	assert.Contains(t, wire, `from "@tidebook/web/old"`)
}

const commonPackage = `
-- package.json --
{"name": "dock", "main": "index.js"}
-- index.js --
module.exports = require('./lib/dock');
-- lib/dock.js --
var proto = require('./application');
const Screen = require('./screen');
/** Makes a dock. */
function createDock(options) {}
exports = module.exports = createDock;
exports.application = proto;
exports.Screen = Screen;
exports.level = require('./levels').high;
-- lib/application.js --
/** What docks do. */
module.exports = { open(gate) {} };
-- lib/screen.js --
/** A screen. */
class Screen { write(text) {} }
module.exports = Screen;
-- lib/levels.js --
/** The high water. */
exports.high = function (at) {};
-- lib/levels.d.ts --
export function high(at: Date): number;
`

func TestNamesOfCommonModules(t *testing.T) {
	page := surfaceOf(t, commonPackage)
	index := page("reference/dock/index/index.html")
	for _, line := range []string{`const dock = require("dock")`, "application all of lib/application", "Screen", "level (at: Date): number The high water.", "createDock (options) Makes a dock."} {
		assert.Contains(t, index, line)
	}
}

const pythonPackage = `
-- tidebook/__init__.py --
"""Tides."""
from tidebook.plan import Plan
from ._berth import _Berth as Berth, moor
from .tides import *
-- tidebook/plan.py --
"""Plans."""
class _Base:
    def assign(self, vessel):
        """Gives a vessel its berth."""
class Plan(_Base):
    """A plan."""
    climb = _Base.assign
    place = assign = None
class Day(Plan):
    """A day."""
-- tidebook/_berth.py --
class _Berth:
    """A place to moor."""
    def fits(self): "Whether it fits."
def moor(vessel):
    """Moors."""
-- tidebook/tides.py --
"""Tides."""
__all__ = ["high"]
def high(at):
    """The high water."""
def low(at):
    """The low water."""
flood = high
-- tidebook/abc.py --
"""Passes on."""
from ._berth import moor
`

func TestNamesOfPythonPackages(t *testing.T) {
	page := surfaceOf(t, pythonPackage)
	tidebook := page("reference/project/tidebook/index.html")
	assert.Contains(t, tidebook, "Plan (_Base) A plan.", "an absolute import of an own module is given on")
	assert.Contains(t, tidebook, "Berth A place to moor.", "under the name that users import")
	assert.Contains(t, tidebook, "high (at) The high water.")
	assert.NotContains(t, tidebook, " low ")
	assert.Contains(t, page("reference/project/tidebook/Berth.html"), "from tidebook import Berth")
	assert.Contains(t, page("reference/project/tidebook.abc/index.html"), "moor (vessel) Moors.", "a module that has nothing else passes on")
	plan := page("reference/project/tidebook/Plan.html")
	assert.Contains(t, plan, "Alias of _Base.assign .")
	day := page("reference/project/tidebook.plan/Day.html")
	assert.Contains(t, day, "Inherited from ")
	assert.Contains(t, day, "climb Gives a vessel its berth.")
}

const goModule = `
-- go.mod --
module tidebook.example/engine
-- berth/berth.go --
// Package berth plans berths.
package berth

// Quay is a quay.
type Quay struct{ place }

// Pier is a pier.
type Pier struct{ Quay }

type place struct {
	// Depth is in metres.
	Depth int
	name  string
}

// Fits reports whether a draught fits.
func (place) Fits(draught int) bool { return true }
`

func TestPromotedMembers(t *testing.T) {
	page := surfaceOf(t, goModule)
	quay := page("reference/engine/tidebook.example/engine/berth/Quay.html")
	assert.Contains(t, quay, "Fits ( draught int) bool Defined in berth.go , line 17. Declared in the base place . Fits reports whether a draught fits.")
	assert.Contains(t, quay, "Depth is in metres.")
	pier := page("reference/engine/tidebook.example/engine/berth/Pier.html")
	assert.Contains(t, pier, "Inherited from Quay Depth Depth is in metres. Fits Fits reports whether a draught fits.")
}

// A namespace that is exported as a whole may list names that stand outside of it.
func TestNamesThatNamespacesList(t *testing.T) {
	page := surfaceOf(t, `
-- package.json --
{"name": "knot", "types": "index.d.ts"}
-- index.d.ts --
/** A knot. */
interface Knot extends Knot.Base {}
/** Makes knots. */
declare function knot(rope: string): Knot;
declare namespace knot {
  export { knot, knot as default, Knot };
}
declare namespace Knot {
  interface Base {
    /** Pulls. */
    pull(): void;
  }
}
/** Not given away. */
interface Kept {}
export = knot;
`)
	index := page("reference/knot/index/index.html")
	assert.Contains(t, index, "Knot extends Knot.Base A knot.")
	assert.Contains(t, index, "Makes knots.")
	assert.NotContains(t, index, "Kept")
	assert.Contains(t, page("reference/knot/index/Knot.html"), "Pulls.")
}
