package link_test

import (
	"slices"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/settings"
)

const givenOn = `
-- py/pyproject.toml --
[project]
name = "tidebook"
-- py/src/tidebook/__init__.py --
from ._plan import Plan as Day, helper
from .tides import *
from . import errors
import tidebook.deep.er
-- py/src/tidebook/_plan.py --
from .errors import Full
class Plan:
    def assign(self, full: Full) -> "Plan": ...
def helper(): ...
def kept(): ...
-- py/src/tidebook/errors.py --
class Full(Exception): ...
-- py/src/tidebook/tides.py --
__all__ = ["high", "_low"]
def high(): ...
def _low(): ...
def middle(): ...
-- py/src/tidebook/deep/er.py --
from .. import Day
from ..circle import there
class Deep(Day): ...
-- py/src/tidebook/circle.py --
from .around import *
-- py/src/tidebook/around.py --
from .circle import *
-- web/package.json --
{"name": "@tidebook/web", "exports": "./dist/index.js"}
-- web/src/index.ts --
export { Plan as Day } from "./plan.js";
export * from "./all";
export * as errors from './errors';
import { Curve } from "./curve";
export { Curve };
-- web/src/plan.ts --
import type { Full } from "./errors";
export class Plan { assign(full: Full): Plan { return this } }
export class Kept {}
import { two } from "./more";
-- web/src/all.ts --
export * from "./more/index.js";
export const one = 1;
-- web/src/more/index.ts --
export const two = 2;
const three = 3;
-- web/src/errors.ts --
export class Full {}
class Hidden {}
-- web/src/curve.ts --
export default class {}
export class Curve {}
-- dock/dock.js --
const { Screen } = require("./screen");
function Dock() {}
Dock.prototype.show = function () {};
module.exports = { Dock, Screen };
-- dock/screen.js --
exports.Screen = class Screen { write() {} };
`

// Names lead through imports of every form to where they are declared.
func TestImports(t *testing.T) {
	s := read(t, txtar.Parse([]byte(givenOn)), model.ReachPublic)
	for _, c := range []struct{ module, written, want string }{
		{"tidebook", "Day.assign", "tidebook._plan Day.assign"},
		{"tidebook", "high", "tidebook.tides high"},
		{"tidebook", "_low", "tidebook.tides _low"},
		{"tidebook", "errors.Full", "tidebook.errors Full"},
		{"tidebook", "tidebook.deep.er.Deep", "tidebook.deep.er Deep"},
		{"tidebook._plan", "Full", "tidebook.errors Full"},
		{"tidebook.deep.er", "Day", "tidebook._plan Day"},
		{"tidebook.deep.er", "tidebook.Day", "tidebook._plan Day"},
		{"tidebook.deep.er", "Deep.assign", "tidebook._plan Day.assign"},
		{"src/index", "Day.assign", "src/plan Day.assign"},
		{"src/index", "one", "src/all one"},
		{"src/index", "two", "src/more/index two"},
		{"src/index", "errors.Full", "src/errors Full"},
		{"src/index", "Curve", "src/curve Curve"},
		{"src/plan", "Full", "src/errors Full"},
		{"src/plan", "two", "src/more/index two"},
		{"dock/dock", "Screen.write", "dock/screen Screen.write"},
		{"dock/dock", "Dock#show", "dock/dock Dock.show"},
	} {
		m := buildtest.Module(t, s, c.module)
		r := s.Links.Resolve(link.Scope{Module: m, File: m.Files[0]}, c.written, link.MayBeExternal)
		if assert.Equal(t, link.Found, r.Outcome, "%s in %s", c.written, c.module) && assert.NotNil(t, r.Target.Declaration, c.written) {
			assert.Equal(t, c.want, r.Target.Declaration.Module.Path+" "+r.Target.Declaration.Path(), "%s in %s", c.written, c.module)
		}
	}
	for _, c := range []struct {
		module, written string
		want            link.Outcome
	}{
		{"tidebook.deep.er", "there", link.Missing},         // a circle of star imports ends
		{"tidebook.deep.er", "requests.get", link.External}, // another project's
		{"tidebook.deep.er", "ValueError", link.External},   // the language's own
		{"tidebook", "Day.asign", link.Missing},
		{"src/plan", "Promise", link.External},
	} {
		m := buildtest.Module(t, s, c.module)
		assert.Equal(t, c.want, s.Links.Resolve(link.Scope{Module: m, File: m.Files[0]}, c.written, link.MayBeExternal).Outcome, c.written)
	}
}

// What a module in reach re-exports is in reach, and listed; nothing else of a kept
// module is.
func TestGivenOn(t *testing.T) {
	s := read(t, txtar.Parse([]byte(givenOn)), model.ReachPublic)
	given := func(path string) (names []string) {
		for _, g := range s.Links.Exports(buildtest.Module(t, s, path)) {
			names = append(names, g.Name)
		}
		return names
	}
	assert.Equal(t, []string{"Day", "helper", "errors", "high", "_low"}, given("tidebook"))
	assert.Equal(t, []string{"Day", "errors", "Curve", "one", "two"}, given("src/index"))
	reach := func(path, name string) bool { return s.Links.InReach(buildtest.Module(t, s, path).Lookup(name)) }
	for _, c := range []struct {
		module, name string
		want         bool
	}{
		{"tidebook._plan", "Plan", true}, {"tidebook._plan", "Plan.assign", true}, {"tidebook._plan", "kept", false},
		{"tidebook.tides", "high", true}, {"tidebook.tides", "_low", true}, {"tidebook.tides", "middle", false},
		{"src/plan", "Plan.assign", true}, {"src/plan", "Kept", false}, {"src/more/index", "two", true}, {"src/more/index", "three", false},
		{"src/errors", "Full", true}, {"src/errors", "Hidden", false}, {"src/curve", "Curve", true}, {"src/curve", "default", false},
	} {
		assert.Equal(t, c.want, reach(c.module, c.name), "%s of %s", c.name, c.module)
	}
}

// A file that takes a name out of what it has under that name itself goes in a circle.
func TestImportInACircle(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"package.json": `{"name": "tidebook"}`,
		"tide.js":      "exports.ebb = require('./tide').flood.ebb;\nexports.flood = require('./tide').ebb.flood;\nexports.slack = require('./tide').slack.slack.slack;\n",
		"quay.js":      "const {ebb} = require('./tide').ebb;\nexports.ebb = ebb;\n",
	}), build.Options{Settings: &settings.Settings{}, Folder: "tidebook"})
	for path, want := range map[string][]string{"tide": {"ebb", "flood", "slack"}, "quay": {"ebb"}} {
		m := buildtest.Module(t, s, path)
		var names []string
		for _, d := range m.Top {
			names = append(names, d.Name)
		}
		for _, given := range s.Links.Exports(m) {
			names = append(names, given.Name)
		}
		slices.Sort(names)
		assert.Equal(t, want, slices.Compact(names), path)
	}
}
