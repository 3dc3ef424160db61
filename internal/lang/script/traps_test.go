package script_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/langtest"
	"codrel/internal/model"
)

type trap struct{ name, text, want string }

func try(t *testing.T, file string, traps []trap) {
	for _, c := range traps {
		t.Run(c.name, func(t *testing.T) {
			assert.Equal(t, c.want, langtest.Brief(t, either{typescript}, file, c.text))
			again := strings.Split(langtest.Brief(t, either{typescript}, file, c.text+"\n;\nfunction last() {}\n"), "\n")
			assert.Contains(t, again, string(lineOf(c.text+"\n;\n"))+" function last()", "what follows is read as well")
		})
	}
}

// lineOf is the number of the line behind a text.
func lineOf(text string) string {
	n, digits := strings.Count(text, "\n")+1, ""
	for ; n > 0; n /= 10 {
		digits = string(rune('0'+n%10)) + digits
	}
	return digits
}

// Each case is a form of real code that a reader line by line would get wrong.
func TestTraps(t *testing.T) {
	try(t, "tide.js", []trap{
		{"code in a template", "const a = `\nfunction b() {}\n${c({ d: `}` })}\n`\nfunction e() {}", "1 constant a\n5 function e()"},
		{"a division and a pattern", "const a = b / c / d\nconst e = /f\"/g\nconst g = (1) / 2 / /\\/}/.x\nlet h = i++ / j", "1 constant a\n2 constant e\n3 constant g\n4 variable h"},
		{"a pattern with a class", "const a = /[/\"'`{]/\nconst b = x.replace(/[^/]*$/, '') / 2\nfunction c() { return /}/ }", "1 constant a\n2 constant b\n3 function c()"},
		{"a pattern behind a block", "if (a) /b\"/.test(c)\n{ }\n/d'/.e()\nconst f = 1", "4 constant f"},
		{"no semicolons", "let a = 1\nlet b = a\n+ 2\nlet c\nlet d = function () {}\nlet e = () => {}\nclass F {}\nlet g", "1 variable a\n2 variable b\n4 variable c\n5 function d()\n6 function e()\n7 class F\n8 variable g"},
		{"several declarators", "/** Said. */\nvar a = 1, b = { c: 1, d() {} }, e = [f, g]\n, h", "2 variable a doc\n2 variable b\n2 variable e\n3 variable h"},
		{"destructuring", "const { a, b: c, d: { e = {} }, ...f } = x, [g, , h = [1, 2]] = y", "1 constant a\n1 constant c\n1 constant e\n1 constant f\n1 constant g\n1 constant h"},
		{"parameters of every kind", "function a(b, { c }, [d], e = (1, { f: 2 }), ...g) {}", "1 function a(b, {}, [], e, ...g)"},
		{"functions as values", "const a = function b(c) {}, d = async e => e, f = async function* (g) {}, h = (i, j = () => ({ k: 1 })) => {}", "1 function a(c)\n1 function d(e)\n1 function f(g)\n1 function h(i, j)"},
		{"functions that are called", "const a = function () {}(), b = (() => 1)(), c = (x => x)(2)", "1 constant a\n1 constant b\n1 constant c"},
		{"members of classes", "class A {\n  b = 1; static c = 2\n  #d = 3\n  'e f' = 4;\n  [g] = 5\n  7 = 6\n  get h() {} set h(i) {}\n  async *j() {}\n  static async k() {}\n  static { function l() {} }\n  constructor(m) {}\n}",
			"1 class A\n2 field A.b\n2 field A.c\n3 field A.#d\n4 field A.e f\n5 field A.[g]\n6 field A.7\n7 property A.h()\n7 property A.h(i)\n8 method A.j()\n9 method A.k()\n11 constructor A.constructor(m)"},
		{"members named by keywords", "class A {\n  static() {}\n  get() {}\n  set(a) {}\n  async() {}\n  static static() {}\n  static get\n  b() {}\n  delete = 1\n  if() {}\n}", "1 class A\n2 method A.static()\n3 method A.get()\n4 method A.set(a)\n5 method A.async()\n6 method A.static()\n7 field A.get\n8 method A.b()\n9 field A.delete\n10 method A.if()"},
		{"braces in extends", "class A extends b({ c: 1 }) { d() {} }\nclass E extends (class { f() {} }) { g() {} }\nclass H extends i`}`[{}] {}", "1 class A\n1 method A.d()\n2 class E\n2 method E.g()\n3 class H"},
		{"objects of a constructor", "class A {\n  constructor() {\n    /** Said. */\n    this.b = { c() {} }\n    this.d = 1\n    /** Said. */ this.#e\n  }\n  #e\n}", "1 class A\n2 constructor A.constructor()\n4 field A.b doc\n6 field A.#e doc\n8 field A.#e"},
		{"prototypes", "function A() {}\nA.prototype.b = function (c) {}\nA.prototype = { d() {}, e: f => f, get g() {} }\nA.h = 1\nother.prototype.i = 2", "1 class A()\n2 method A.b(c)\n3 method A.d()\n3 method A.e(f)\n3 property A.g()\n4 field A.h"},
		{"exports by assignment", "exports.a = function (b) {}\nmodule.exports.c = 1\nexports['d-e'] = 2\nexports.f = exports.g = h => h", "1 function a(b)\n2 constant c\n3 constant d-e\n4 constant f\n4 function g(h)"},
		{"an object of exports", "function a() {}\nmodule.exports = { a, b: a, c(d) {}, e: 1, 'f': g => g, ...h }", "1 function a()\n2 constant b\n2 function c(d)\n2 constant e\n2 function f(g)"},
		{"a default by assignment", "module.exports = function (a) {}", "1 function default(a)"},
		{"defaults", "export default class {\n  a() {}\n}", "1 class default\n2 method default.a()"},
		{"a named default", "export default async function a(b) {}", "1 function a(b)"},
		{"a default that is a value", "export default { a() {}, b: 1 }", "1 constant default"},
		{"wrapped in a function called at once", "(function (a) {\n  function b() {}\n  a.c = b\n})(this);\n!function () { var d }()\n;(() => { class E {} })()", ""},
		{"what is inside", "function a() { function b() {} class C {} const d = () => { function e() {} } }\nif (x) { function f() {} var g }\nfor (const h of i) {}", "1 function a()"},
		{"elements", "const a = <b c={function d() {}} e='}'>it's {f} <g/> function h() {}</b>\nfunction i() { return (<><j k=\"`\"/></>) }\nconst l = x < y, m = z > (1)", "1 constant a\n2 function i()\n3 constant l\n3 constant m"},
		{"comments everywhere", "function /* a */ b /* ( */ (c /* , d */, // )\n e) /* { */ { /* } */ }\n// function f() {}\n/* function g() {}\n*/ const h /* = */ = /* , */ 1", "1 function b(c, e)\n5 constant h"},
		{"comments that belong to nothing", "/** Cut off. */;\nconst a = 1\n/** One. */\n/** Two. */\nconst b = 2\n/* Not said. */\nconst c = 3\n/** Said. */ const d = 4 /** Not of e. */\nconst e = 5\n/***/\nconst f = 6", "2 constant a\n5 constant b doc\n7 constant c\n8 constant d doc\n9 constant e\n11 constant f"},
		{"labels and blocks", "a: for (;;) { break a }\n{ function b() {} }\nswitch (c) { case d: var e; default: }\ndo { } while (f)\nconst g = 1", "5 constant g"},
		{"escapes in names", "const \\u0061b = 1, \\u{63}d = 2\nclass höhe { #ὅρμος() {} }", "1 constant \\u0061b\n1 constant \\u{63}d\n2 class höhe\n2 method höhe.#ὅρμος()"},
		{"words that are names too", "let of = 1, async = 2, get = 3\nvar let_, type, namespace, as\nasync(get)\ntype = 3\nfunction from(declare, abstract) {}", "1 variable of\n1 variable async\n1 variable get\n2 variable let_\n2 variable type\n2 variable namespace\n2 variable as\n5 function from(declare, abstract)"},
		{"a mark of the shell and of bytes", "\ufeff#!/usr/bin/env node\n'use strict'\nvar a", "3 variable a"},
		{"other line ends", "/** Said. */\r\nfunction a() {\r\n}\r\nlet b\r\nlet c", "2 function a() doc\n4 variable b\n5 variable c"},
	})
}

func TestTrapsOfTypes(t *testing.T) {
	try(t, "tide.ts", []trap{
		{"braces in types before a body", "function a(b: { c: string }): { d: number } | [e: { f: 1 }] { return x }\nconst g = (h: { i(): void }): { j: 1 } => { return x }", "1 function a(b)\n2 function g(h)"},
		{"an arrow in the type of a constant", "const a: (b: string) => void = c\nlet d: { (e: f): g; h: () => i } = j, k: new () => l", "1 constant a\n2 variable d\n2 variable k"},
		{"comparisons and type arguments", "const a = b < c, d = e > (f)\nconst g = h<i>(j), k = l<m, n>\nconst o = p < q && r > s", "1 constant a\n1 constant d\n2 constant g\n2 constant k\n3 constant o"},
		{"overloads", "/** Said. */\nfunction a(b: string): void\nfunction a(b: number): void\nfunction a(b: any) {}\nclass C { d(): void; d(e?: f): void {} }", "2 function a(b) doc\n3 function a(b)\n4 function a(b)\n5 class C\n5 method C.d()\n5 method C.d(e)"},
		{"interfaces", "interface A<B = {}> extends C<{ d: 1 }>, E {\n  f: string; g?(h: i): j\n  readonly [k: string]: l\n  (m: n): o\n  new (p: q): r\n  get s(): t\n  'u-v': w,\n  get: 1\n  [Symbol.x](): y\n}",
			"1 interface A\n2 field A.f\n2 method A.g(h)\n3 indexer A.[](k)\n4 method A.()(m)\n5 constructor A.new(p)\n6 property A.s()\n7 field A.u-v\n8 field A.get\n9 method A.[Symbol.x]()"},
		{"aliases of every form", "type A = { b: c } | (d extends infer E ? [f, ...g[]] : `h${i}`)\ntype J<K> = { readonly [L in keyof K as `m${L}`]-?: K[L] }\ntype N = typeof import('o') & new (p: q) => asserts r is s\ntype = 1", "1 type A\n2 type J\n3 type N"},
		{"enumerations", "const enum A { B, C = 'd,}', 'e f' = 1 << 2, G = A.B | H }\ndeclare enum I {}", "1 enum A\n1 enum-member A.B\n1 enum-member A.C\n1 enum-member A.e f\n1 enum-member A.G\n2 enum I"},
		{"namespaces", "namespace A.B { export const c = 1; function d() {} }\ndeclare module 'e' { export default f; interface G {} }\ndeclare global { interface H { i: j } }\nmodule K { }", "1 namespace A\n1 namespace A.B\n1 constant A.B.c\n1 function A.B.d()\n2 module e\n2 interface e.G\n3 namespace global\n3 interface global.H\n3 field global.H.i\n4 namespace K"},
		{"properties made by parameters", "class A { constructor(/** Said. */ private readonly b: c = { d: 1 }, e?: f, @G() public h = (1, 2)) {} }", "1 class A\n1 constructor A.constructor(b, e, h)\n1 field A.b doc\n1 field A.h"},
		{"members of classes", "abstract class A<B> implements C, D<{ e: 1 }> {\n  declare f: g\n  abstract h(): i\n  private static override readonly j?: k = 1\n  l!: m\n  [n: string]: o\n  accessor p = 1\n  protected abstract get q(): r;\n}",
			"1 class A\n2 field A.f\n3 method A.h()\n4 field A.j\n5 field A.l\n6 indexer A.[](n)\n7 field A.p\n8 property A.q()"},
		{"decorators", "@A({ b() {} })\n@C.d<e>()\nexport class F {\n  @G() h: i\n  @J(k => { l }) m() {}\n  n(@O() p, @Q r: s) {}\n}", "3 class F\n4 field F.h\n5 method F.m()\n6 method F.n(p, r)"},
		{"ambient", "declare const a: b, c: { d: e }\ndeclare function f(g): h\ndeclare let i\ndeclare class J { k(); l }", "1 constant a\n1 constant c\n2 function f(g)\n3 variable i\n4 class J\n4 method J.k()\n4 field J.l"},
		{"imports and exports with a sign", "import a = require('b')\nimport c = d.e\nexport = f\nexport as namespace g\nexport import h = i.j\nconst k = 1", "6 constant k"},
		{"satisfies, as, !", "const a = { b: 1 } satisfies C<D> as const, e = f! as { g: h }\nconst i = <j>k\nlet l = m!\n[n] = o", "1 constant a\n1 constant e\n2 constant i\n3 variable l"},
		{"type parameters that look like elements", "const a = <b,>(c: b) => c\nconst d = <e extends f>(g: e): h<e> => g", "1 function a(c)\n2 function d(g)"},
		{"predicates", "function a(this: b, c: unknown): c is d\nfunction e(f): asserts f\nclass G { h(): this is i {} }", "1 function a(this, c)\n2 function e(f)\n3 class G\n3 method G.h()"},
		{"a type that ends with its line", "let a: b\nlet c: d |\n  e\ntype F = g\ntype H =\n  | i\n  | j\nfunction k(): l\nlet m", "1 variable a\n2 variable c\n4 type F\n5 type H\n8 function k()\n9 variable m"},
	})
}

// TestHoldsFunctionOfHalfADeclaration asks of a constant whose type is not written yet.
func TestHoldsFunctionOfHalfADeclaration(t *testing.T) {
	facts := langtest.Read(typescript, "a.ts", []byte("export declare const tide: ;\nexport const ebb: () => void = f;\n"))
	m := model.NewModule(&model.Library{Habits: typescript.Habits()}, "a")
	holds := map[string]bool{}
	for i := range facts.Occurrences {
		o := &facts.Occurrences[i]
		d := m.Declare(nil, "", o.Named(m.Library.Habits))
		d.Occurrences = append(d.Occurrences, model.At{Occurrence: o, File: facts})
		d.Settle()
		holds[o.Name] = typescript.HoldsFunction(d)
	}
	assert.Equal(t, map[string]bool{"tide": false, "ebb": true}, holds)
}

// Compilers write one chain of assignments for all that a module exports.
func TestLongChainOfExports(t *testing.T) {
	var b strings.Builder
	for i := range 3000 {
		fmt.Fprintf(&b, "exports.tide%d = ", i)
	}
	b.WriteString("void 0;\nexports.tide7 = function (at) {};\n")
	facts := langtest.Read(either{typescript}, "a.js", []byte(b.String()))
	names := map[string]bool{}
	for i := range facts.Occurrences {
		names[facts.Occurrences[i].Name] = true
	}
	assert.Len(t, names, 3000)
	assert.Empty(t, facts.Problems)
}

// What stands before damage is kept, however much of it there is.
func TestMuchDamage(t *testing.T) {
	for _, damage := range []string{"( ", "<{", "/[{", "]{/", "\"\n", "a?.[", "\\u{", "`${", "class A { ", "(a: ("} {
		facts := langtest.Read(either{typescript}, "a.ts", []byte("export const tide = 1;\nexport class Quay { moor() {} }\n"+strings.Repeat(damage, 20_000)))
		langtest.Valid(t, facts)
		var names []string
		for i := range min(3, len(facts.Occurrences)) {
			names = append(names, facts.Occurrences[i].Name)
		}
		assert.Equal(t, []string{"tide", "Quay", "moor"}, names, damage)
		assert.NotEmpty(t, facts.Problems, damage)
	}
}

// What a function fails with is told by its own statements; words in comments and texts, and
// functions that come later, hide none of them.
func TestOwnStatements(t *testing.T) {
	for body, want := range map[string]string{
		"throw new Ebb();": "Ebb",
		"// this function => that\n  throw new Ebb();":                "Ebb",
		"/* a function */\n  throw new Ebb();":                        "Ebb",
		"log('no function here', \"=> there\");\n  throw new Ebb();":  "Ebb",
		"functional(a);\n  a.function;\n  throw new Ebb();":           "Ebb",
		"if (a) throw new Ebb();\n  b(() => { throw new Flood(); });": "Ebb",
		"b(function () {\n    throw new Flood();\n  });":              "",
		"// throw new Flood();\n  a = 'throw new Flood()';":           "",
		"see('https://tides.example/'); throw new Ebb();":             "Ebb",
	} {
		facts := langtest.Read(either{typescript}, "a.ts", []byte("export function f(a) {\n  "+body+"\n}\n"))
		var got []string
		for _, failure := range facts.Occurrences[0].Callable.Fails() {
			got = append(got, failure.Name)
		}
		assert.Equal(t, want, strings.Join(got, " "), body)
	}
}
