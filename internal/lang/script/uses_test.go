package script_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/langtest"
)

func TestUses(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"names of the module":              {"export function f(a) { return g(a, H.x.y) }", "g H.x.y"},
		"a parameter shadows":              {"function f(g, ...h) { return g(h, i) }", "i"},
		"patterns bind, their keys do not": {"function f({a, b: c, d: {e = E}, [k]: m, ...n}, [o,, p]) { return [a, b, c, d, e, m, n, o, p] }", "E k b d"},
		"a block's names are its own":      {"{ let a = 1; const b = a; var c = 2 } a; b; c", "c a b c"},
		"var belongs to the function":      {"function f() { if (x) { var a = 1 } return a }", "x"},
		"what is bound later shadows from the start": {
			"function f() { tide(); function tide() {} }", ""},
		"loops and catch": {"function f() { for (const a of b) { a } for (let i = 0; i < n; i++) i; try {} catch ({message}) { message } message }", "b n message"},
		"arrows":          {"const f = a => a + b; const g = ({c}) => c; const h = async (d, e = E) => { return d + e + a }", "b E a"},
		"keys are no names": {
			"function f() { return {a: b, c, d() { return e }, get g() { return h }, 'i': j, [k]: l, async *m(n) { n }} }", "b c e h j k l"},
		"a ternary is no key":          {"x = a ? b : c", "x a b c"},
		"labels":                       {"function f() { outer: for (;;) break outer }", "outer"},
		"templates hold code":          {"x = `a ${b} c ${`${d}`}`", "x b d"},
		"patterns hold none":           {"x = /a/.test(b) / c", "x b c"},
		"classes in functions":         {"function f() { class A extends B { x = y; z() { return this.x + w } } return A }", "B y w"},
		"members of the object":        {"class A { x = 1; static s() { this.x } f() { this.x.y; (() => this.#z)(); function g() { this.x } } }", "A>x A>#z"},
		"objects made with new":        {"function f() { const a = new B(1); a.c; const d = new m.E(); d.g; const h = new I().j; h.k }", "B B>c m.E m.E>g I"},
		"imports and exports":          {"import a, {b as c, d} from 'x'; import * as e from 'y'; export {a, c as g}; export {h} from 'z'; export * from 'w'", "a c d e a c"},
		"elements":                     {"function f(p) { return <A.B c={d} {...p}>it's {e} <g/><H/></A.B> }", "A.B d e H"},
		"the word of a property":       {"a.class.b; a?.delete(); a.function", "a.class.b a a.function"},
		"methods named by keywords":    {"class A { get(a) { return a } set(b) { b } static of(c) { c } delete(d) { d } catch(e) { e } }", ""},
		"computed and quoted methods":  {"class A { [S.x](a) { return a } 'b c'(d) { d } }", "S.x"},
		"names of functions as values": {"const f = function g() { return g(h) }", "h"},
		"broken":                       {"function (\nclass {\nconst = \n => }{)( `${ <", ""},
	} {
		t.Run(name, func(t *testing.T) {
			assert.Equal(t, c.want, langtest.Uses(t, javascript, "tide.js", c.text))
		})
	}
}

func TestUsesOfTypes(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"types of everything": {"let a: A; function f(b: B<C>): D | E['x'] { return b as F }", "A B C D E F"},
		"type parameters":     {"function f<T extends A, U = B>(a: T): U { return a } type X<V> = V | C; interface Y<W> extends Z<W> { w: W }", "A B C Z"},
		"of methods and types": {
			"interface A { f<T>(a: T): B<T>; <U>(u: U): U; new <V>(v: V): V; g: <W>(w: W) => W }", "B"},
		"of arrows":                     {"const f = <T, U>(a: T): U => g<T>(a)\nconst h = (b: T) => b", "g T"},
		"members of types":              {"type A = { b: B; c?: C; readonly d: D; e(f: F): G; [k: string]: H }", "B C D F G string H"},
		"names of parameters":           {"type A = (b: B, c?: C) => D; type E = [f: F, g?: G]", "B C D F G"},
		"mapped, conditional":           {"type A<T> = { [K in keyof T]: K } | (T extends B<infer U> ? U : C)", "B C"},
		"written types":                 {"function f(a: Tide, b: m.Tide, c?: Tide<X>, d: Tide[]) { a.x; b.x; c.x; d.x; let e: Tide = g(); e.x }", "Tide m.Tide Tide X Tide Tide>x m.Tide>x Tide>x Tide g Tide>x"},
		"properties made by parameters": {"class A { constructor(private a: B, public c = d) { this.a } }", "B d A>a"},
		"namespaces":                    {"namespace N { export const a = 1; export function f() { return a } } enum E { A, B = A }", ""},
		"overloads":                     {"function f(a: A): B\nfunction f(a: C): D { return a }", "A B C D"},
		"casts and checks":              {"x = <A>b; y = b satisfies C; function isD(a: unknown): a is D { return a instanceof D }", "x A b y b C unknown D D"},
		"fields without an end":         {"class A {\n  f: <T>(a: T) => B<T>\n\n  constructor(f: C) {\n    this.f = f\n  }\n}", "B C A>f"},
		"the end of an arrow":           {"const f = <A, B>(a: A): M<A, B> =>\n  g(a)\nfunction h<A, B>(b: B): M<A, B> {\n  return b\n}", "M g M"},
		"ambient modules":               {"declare module 'm' { import {A} from 'a'; interface B extends A { c: D } function e(b: B): void }", "A A D"},
	} {
		t.Run(name, func(t *testing.T) {
			assert.Equal(t, c.want, langtest.Uses(t, typescript, "tide.ts", c.text))
		})
	}
}
