package java_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/java"
	"codrel/internal/lang/langtest"
)

func TestUses(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"heads":              {"package p.q; import a.b.C; class A extends B implements D<E> {}", "p.q a.b.C A>B A>D A>E"},
		"a parameter":        {"class A { int f(B b, int... c) { return g(b, c, d); } }", "A>B A>g A>d"},
		"a typed value":      {"class A { void f(B b) { b.c(); E e = new E(); e.h(); var i = 1; i.j(); } }", "A>B B>c A>E A>E E>h"},
		"its own members":    {"class A { B b; void f() { b.c(); this.b.d(); b = null; g(); } }", "A>B A>b B>c A>b A>b A>g"},
		"a local hides":      {"class A { B b; void f() { int b = 1; return b; } }", "A>B"},
		"until its block":    {"class A { B b; void f() { { int b = 1; } b(); } }", "A>B A>b"},
		"lambdas":            {"class A { F f = a -> b(a), g = (c, d) -> { return c + d; }; }", "A>F A>b"},
		"references":         {"class A { F f = B::c; F g = this::h; }", "A>F A>B A>F"},
		"loops and catches":  {"class A { void f() { for (B b : c) { b.d(); } try (E e = g()) { } catch (F | G h) { h.i(); } } }", "A>B A>c B>d A>E A>g A>F A>G"},
		"labels":             {"class A { void f() { switch (a) { case B: c(); case D d -> d.e(); } out: for (;;) break out; } }", "A>a A>c A>D D>e A>out"},
		"type parameters":    {"class A<T extends B> { <U> U f(T t) { return (U) t; } }", "A>B"},
		"types in types":     {"class A { class B { int c() { return d + f; } int d; } int f; }", "B>d A>f"},
		"annotations":        {"@B(c = D.E) class A { @F int g; }", "A>B D.E A>F"},
		"chains with blanks": {"class A { B b = c . d(); }", "A>B A>c"},
		"records":            {"record A(B b) { int c() { return b.d(); } }", "A>B A>b B>d"},
		"pattern":            {"class A { void f() { if (a instanceof B b && b.c()) {} } }", "A>a A>B B>c"},
		"broken":             {"class { void ( { class A { int b(", "A>b"},
	} {
		t.Run(name, func(t *testing.T) {
			assert.Equal(t, c.want, langtest.Uses(t, java.FrontEnd{}, "A.java", c.text))
		})
	}
}
