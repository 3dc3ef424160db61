package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/link"
	"codrel/internal/prose"
)

// Of several things with a name, those that are made of one another are one; a name that
// stands for a missing module of others means that module; what a compiled module gives
// may be meant as well.
func TestOneThing(t *testing.T) {
	s := deep(t, map[string]string{
		"pyproject.toml":         "[project]\nname = \"tides\"\n",
		"tides/__init__.py":      "\"\"\"Tides.\"\"\"\n",
		"tides/a/__init__.py":    "\"\"\"A.\"\"\"\n",
		"tides/a/core.py":        "\"\"\"Core.\"\"\"\ndef read_all():\n    \"\"\"Reads.\"\"\"\ndef write_all():\n    \"\"\"Writes.\"\"\"\ndef rise():\n    \"\"\"Rises.\"\"\"\n",
		"tides/a/shadow.py":      "\"\"\"Second names.\"\"\"\nfrom . import core\nread_all = _first = core.read_all\nwrite_all = core.write_all.plain\n",
		"tides/b/__init__.py":    "\"\"\"B.\"\"\"\n",
		"tides/b/two.py":         "\"\"\"Two.\"\"\"\ndef rise():\n    \"\"\"Rises too.\"\"\"\ndef fall():\n    \"\"\"Falls.\"\"\"\n",
		"tides/b/three.py":       "\"\"\"Three.\"\"\"\ndef fall():\n    \"\"\"Falls too.\"\"\"\n",
		"tides/c/__init__.py":    "\"\"\"C.\"\"\"\n",
		"tides/c/user.py":        "\"\"\"Uses.\"\"\"\nclass Here:\n    \"\"\"Here.\"\"\"\n",
		"tides/c/socket.py":      "\"\"\"A socket of its own.\"\"\"\n",
		"tides/c/gauge.py":       "\"\"\"A gauge.\"\"\"\n",
		"tides/c/spare.py":       "\"\"\"Spare.\"\"\"\ntry:\n    import pwd\nexcept ImportError:\n    pwd = None\n",
		"tides/b/compiled.py":    "\"\"\"Compiled.\"\"\"\nfrom ._compiled import *\n__all__ = [\"rise\"]\n",
		"tides/b/other_spare.py": "\"\"\"Spare.\"\"\"\ntry:\n    import pwd\nexcept ImportError:\n    pwd = None\n",
	})
	here := link.ScopeOf(declared(t, s, "python", "Here"))
	resolve := func(name string) link.Result { return s.Links.Resolve(here, name, link.MayBeExternal) }
	for _, name := range []string{"read_all", "write_all"} {
		found := resolve(name)
		require.Equal(t, link.Found, found.Outcome, name)
		assert.Equal(t, "tides.a.core", found.Target.Declaration.Module.Path, "what others are made of")
	}
	assert.Equal(t, link.Ambiguous, resolve("fall").Outcome)
	assert.False(t, s.Links.MayBeOutside(here, "fall"))
	assert.Equal(t, link.Ambiguous, resolve("rise").Outcome)
	assert.True(t, s.Links.MayBeOutside(here, "rise"), "a module gives it on out of one that is not source")
	assert.Equal(t, link.External, resolve("socket").Outcome, "the module of the language")
	assert.Equal(t, link.Found, resolve("c.socket").Outcome)
	assert.Equal(t, link.Found, resolve("gauge").Outcome)
	assert.NotEqual(t, link.Found, resolve("pwd").Outcome)
	assert.NotEqual(t, link.Ambiguous, resolve("pwd").Outcome, "who says so means the module of the language")
}

// What only types need is not loaded, so it closes no circle.
func TestCyclesOfTypes(t *testing.T) {
	cycles := func(a, b string) (n int) {
		s := deep(t, map[string]string{"web/package.json": `{"name": "web"}`, "web/a.ts": a, "web/b.ts": b})
		return len(s.Links.Cycles())
	}
	const b = "import { A } from './a'\nexport class B { a = new A() }\n"
	assert.Equal(t, 1, cycles("import { B } from './b'\nexport class A { make() { return new B() } }\n", b))
	assert.Equal(t, 1, cycles("import { B } from './b'\nexport class A { is(x) { return x instanceof B } }\n", b))
	assert.Equal(t, 1, cycles("import { B } from './b'\nexport const list = [B]\nexport class A {}\n", b))
	assert.Equal(t, 1, cycles("export { B } from './b'\nexport class A {}\n", b))
	assert.Equal(t, 0, cycles("import { B } from './b'\n/** Of `B.make(B)`. */\nexport class A { b: B; say() { return 'new B()' } }\n", b), "a type, a comment and a text")
	assert.Equal(t, 0, cycles("import { type B } from './b'\nexport class A { b: B }\n", b))
	assert.Equal(t, 0, cycles("import { B } from './b'\nexport class A { make(of: typeof B): B { return of() } }\n", b))
	assert.Equal(t, 0, cycles("import { B } from './b'\nexport class A { f() { B } }\n", "import { A } from './a'\nexport interface B { a: A }\n"))
	assert.Equal(t, 0, cycles("import { B } from './b'\nexport class A { make() { return new B() } }\n", "import { A } from './a'\nexport class B {}\ndeclare global { interface Window { a: A } }\n"))
}

// Comments of several files put names into one another, in any order; what nothing
// declares holds nothing, and a circle of them ends.
func TestSeats(t *testing.T) {
	s := deep(t, map[string]string{
		"port/package.json": `{"name": "port"}`,
		"port/a.js":         "/**\n * @class Port.Tides.Reader\n */\nexport var Reader = make({});\n/**\n * Of the class. See {@link Calm}.\n * @method Port.Tides.Reader#next\n */\n",
		"port/b.js":         "/**\n * @namespace Port.Tides\n */\n/**\n * @function Port.Tides.Calm\n */\n",
		"port/c.js":         "/**\n * @namespace Port\n */\n",
		"port/d.js":         "/**\n * @class Round.A.B\n */\n/**\n * @class Round.A.B.C\n */\n/**\n * @class Lost\n * @memberof Port.Nowhere\n */\n",
	})
	path := func(written string) string { return declared(t, s, "javascript", written).Path() }
	assert.Equal(t, "Port.Tides.Reader", path("Reader"))
	assert.Equal(t, "Port.Tides.Reader.next", path("Reader.next"))
	assert.Equal(t, "Port.Tides", path("Port.Tides"))
	reader := declared(t, s, "javascript", "Reader")
	assert.Equal(t, "a", reader.Module.Path, "the files stay what they are")
	assert.Equal(t, "c", s.Links.Home(reader).Path)
	assert.Contains(t, reader.ID(), "/a#Reader")
	next := declared(t, s, "javascript", "Reader.next")
	found := s.Links.Resolve(link.ScopeOf(next), "Calm", link.Explicit)
	require.Equal(t, link.Found, found.Outcome, "what stands beside it, in another file")
	assert.Equal(t, "Port.Tides.Calm", found.Target.Declaration.Path())
	lost := declared(t, s, "javascript", "Port.Nowhere.Lost")
	assert.Nil(t, lost.Parent)
	assert.Equal(t, "d", s.Links.Home(lost).Path)
}

// A dialect that has a syntax of its own for names takes them apart itself: signs that mean
// something to others are parts of a name to it.
func TestNamesTakenApart(t *testing.T) {
	s := deep(t, map[string]string{
		"web/package.json": `{"name": "web"}`,
		"web/a.ts":         "/** Holds. */\nexport class Berth {\n  /** Calls. */\n  'operator()'(): void {}\n  /** By an arrow. */\n  'operator->'(): void {}\n}\n/** Of others. */\nexport class Other {}\n",
	})
	from := link.ScopeOf(declared(t, s, "typescript", "Other"))
	for _, name := range []string{"operator()", "operator->"} {
		found := s.Links.ResolveNode(from, &prose.Node{Kind: prose.Reference, Strict: true, Named: &prose.Name{Path: []string{"Berth", name}}})
		require.Equal(t, link.Found, found.Outcome, name)
		assert.Equal(t, name, found.Target.Declaration.Name)
	}
	assert.Equal(t, link.Found, s.Links.Resolve(from, "class:Berth", link.Explicit).Outcome)
	assert.Equal(t, link.Missing, s.Links.Resolve(from, "function:Berth", link.Explicit).Outcome, "there is none of this kind")
}
