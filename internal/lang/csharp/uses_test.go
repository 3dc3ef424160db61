package csharp_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/csharp"
	"codrel/internal/lang/langtest"
)

func TestUses(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"heads":            {"using P.Q; namespace R.S; class A : B, D<E> where T : F {}", "P.Q R.S A>B A>D A>E A>T A>F"},
		"a parameter":      {"class A { int f(B b, params int[] c) => g(b, c, d); }", "A>B A>g A>d"},
		"a typed value":    {"class A { void f(B b) { b.c(); E e = new E(); e.h(); var i = 1; i.j(); } }", "A>B B>c A>E A>E E>h"},
		"its own members":  {"class A { B b { get; } void f() { b.c(); this.b.d(); g(); } }", "A>B A>b B>c A>b A>g"},
		"a local hides":    {"class A { B b; void f() { int b = 1; return b; } }", "A>B"},
		"lambdas":          {"class A { F f = a => b(a), g = (c, d) => { return c + d; }; }", "A>F A>b"},
		"what is made":     {"class A { B b; void f() { return new B { b = c, d = e }; } }", "A>B A>B A>c A>e"},
		"named arguments":  {"class A { void f() { g(b: c, d: e); } }", "A>g A>c A>e"},
		"holes in strings": {"class A { string s = $\"{b} {c.d:x}\"; }", "A>b c.d"},
		"loops and out":    {"class A { void f() { foreach (B b in c) b.d(); if (g(out E e)) e.h(); using (F i = j()) i.k(); } }", "A>B A>c B>d A>g A>E E>h A>F A>j F>k"},
		"accessors":        {"class A { int b { get { int c = 1; return c + d; } } int c; }", "A>d"},
		"conditions":       {"class A {\n#if B\nC c = D;\n#endif\n}", "A>C A>D"},
		"broken":           {"class { void ( { class A { int b(", ""},
	} {
		t.Run(name, func(t *testing.T) {
			assert.Equal(t, c.want, langtest.Uses(t, csharp.FrontEnd{}, "A.cs", c.text))
		})
	}
}
