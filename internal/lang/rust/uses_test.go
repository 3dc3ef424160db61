package rust_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/langtest"
)

func TestUses(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"signatures":        {"fn f(a: A, b: &B) -> C<D> {}", "A B C D"},
		"fields":            {"struct S { a: A, b: Vec<B> }", "A Vec B"},
		"calls":             {"fn f() { g(); h::i(); J::k(); }", "g h::i J::k"},
		"locals":            {"fn f(a: A) { let b = a.c(); b.d(); e; }", "A A>c e"},
		"typed locals":      {"fn f() { let a: A = B::new(); a.c(); }", "A B::new A>c"},
		"made locals":       {"fn f() { let a = A { b: 1 }; a.c(); let mut d = e::D::new(2); d.g(); let h = H::other(); h.i(); let j = J::new().k(); j.l(); let m = M::default(); m.n(); let o = O(1); o.p; }", "A A>c e::D::new e::D>g H::other J::new M::default M>n O"},
		"the object":        {"struct S { a: u8 } impl S { fn f(&self) { self.a; self.g(); } fn g(&self) {} }", "S S>a S>g"},
		"macros":            {"fn f() { println!(\"{}\", A); vec![B]; }", "println A vec B"},
		"matches":           {"fn f(a: A) { match a { A::B => c(), A::D(e) => e.g(), _ => {} } }", "A A::B c A::D"},
		"closures":          {"fn f() { let a = |b: B| b.c(); a(1); }", "B B>c"},
		"type parameters":   {"fn f<T: A>(t: T) -> T { t }", "A"},
		"constants":         {"const A: B = C; static D: E = F::G;", "B C E F::G"},
		"implementations":   {"impl A for B { fn c() { Self::d(); } }", "A B"},
		"traits":            {"trait A: B { type C: D; fn e(&self) -> Self::C; }", "B D A>C"},
		"structs are made":  {"fn f() { A { b: 1, c: D }; }", "A D"},
		"uses":              {"use a::B; fn f() { B::c(); }", "a::B B::c"},
		"strings and chars": {"fn f() { \"a\"; 'b'; b'c'; r#\"d\"#; }", ""},
		"patterns":          {"fn f(A { a, b: c }: A) { let (d, e) = g(); if let Some(h) = d { h; } for (i, j) in e { i; } a; k; }", "A A g Some k"},
		"paths":             {"struct S; impl S { fn c() { Self::d(); crate::a::b(); super::X::new(); self::e(); } } impl Far { fn c() { Self::d(); } }", "S S>d crate::a::b super::X::new self::e Far"},
		"broken":            {"fn f( { A::b(", "A::b"},
	} {
		t.Run(name, func(t *testing.T) {
			assert.Equal(t, c.want, langtest.Uses(t, end, "src/lib.rs", c.text))
		})
	}
}
