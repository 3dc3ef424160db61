package cfamily_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/langtest"
)

func TestUsesOfC(t *testing.T) {
	for name, c_ := range map[string]struct{ text, want string }{
		"types and calls":   {"foo_t *f(bar_t b, int n) { return g(b, n); }", "foo_t bar_t g"},
		"a typed value":     {"void f(void) { foo_t *x = make(1); x->next = y; use(x); int n = N; n++; }", "foo_t make foo_t>next y use N"},
		"a global":          {"int count; void f(void) { int count = 1; count++; } void g(void) { count++; }", "count"},
		"fields":            {"struct s { int a; }; void f(struct s *p) { p->a = A; const struct s q; q.a = 1; }", "s s>a A s s>a"},
		"labels and loops":  {"void f(void) { for (int i = 0; i < MAX; i++) call(i); if (x) goto out; out: return; }", "MAX call x"},
		"macros":            {"#define A 1\nint f(void) { return A + B; }", "A B"},
		"casts and sizes":   {"void f(cb_t cb) { cb(arg); (void)other; sizeof(type_t); }", "cb_t arg other type_t"},
		"named fields":      {"static const struct ops ops = { .open = open_it, .close = close_it };", "ops open_it close_it"},
		"branches":          {"int f(void) {\n#ifdef X\n return a;\n#else\n return b;\n#endif\n}", "a b"},
		"comments, strings": {"int f(void) { return g(\"h(i)\" /* j */); // k\n}", "g"},
		"old parameters":    {"int f(a, b) int a; char *b; { return a + c(b); }", "c"},
		"a tag":             {"int f(struct tide *tide) { struct tide t; return g(tide, &t); }", "tide tide g"},
		"a shadow":          {"int f(int g) { return g + h; } int k(void) { return g(); }", "h g"},
		"broken":            {"struct { int f(void) { (", ""},
	} {
		t.Run(name, func(t *testing.T) { assert.Equal(t, c_.want, langtest.Uses(t, c, "a.c", c_.text)) })
	}
}

func TestUsesOfPlus(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"members":      {"class A : B { C c; void f(D d) { d.go(); c.run(); this->c; h(); } };", "A>B A>C A>D D>go A>c C>run A>c A>h"},
		"qualified":    {"void f() { E::make(); n::F g; g.x(); a::b::c = 1; }", "E::make n::F n::F>x a::b::c"},
		"templates":    {"template <typename T> T f(T t, U u) { return t + g<V>(u); }", "U g V"},
		"out of class": {"void A::f(B b) { b.c(); d(); }", "B B>c d"},
		"scoped names": {"enum class C { x, y }; int f() { return static_cast<int>(C::x); }", "C::x"},
		"catch":        {"void f() { try { g(); } catch (const E &e) { h(e); } }", "g E h"},
		"initialisers": {"struct A { A(int n) : n_(n), b_{n} {} int n_; B b_; };", "A>n_ A>b_ A>B"},
		"broken":       {"class A { void f() { b.", "A>b"},
	} {
		t.Run(name, func(t *testing.T) { assert.Equal(t, c.want, langtest.Uses(t, plus, "a.cpp", c.text)) })
	}
}
