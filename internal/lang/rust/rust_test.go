package rust_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang"
	"codrel/internal/lang/langtest"
	"codrel/internal/lang/rust"
	"codrel/internal/model"
	"codrel/internal/source"
)

var end = rust.FrontEnd{}

func TestFixtures(t *testing.T) { langtest.Run(t, end, "testdata/read") }

func TestGrowth(t *testing.T) { langtest.Growth(t, end, "testdata/read") }

func FuzzRead(f *testing.F) { langtest.Fuzz(f, end, "testdata/read") }

// BenchmarkRead reads the tree that RUST_TREE names, once a time.
func BenchmarkRead(b *testing.B) { langtest.Benchmark(b, end, "RUST_TREE") }

// Whatever a text nests or leaves open, reading ends soon, and what encloses a declaration stands
// before it.
func TestDepth(t *testing.T) {
	const deep = 20_000
	langtest.Depth(t, end, map[string]string{
		"modules": strings.Repeat("mod a {", deep), "brackets": "const A: B = " + strings.Repeat("(", deep), "arguments": "fn a(b: " + strings.Repeat("B<", deep),
		"closed arguments": "fn a(b: " + strings.Repeat("B<", deep) + strings.Repeat(">", deep) + ") {}", "less": "const A: bool = " + strings.Repeat("b < c, ", deep),
		"attributes": strings.Repeat("#[a]", deep), "nested attributes": strings.Repeat("#[cfg_attr(a, ", deep), "trees": "use " + strings.Repeat("a::{", deep), "paths": "use " + strings.Repeat("a::", deep),
		"comments": strings.Repeat("/** a */", deep), "nested comments": strings.Repeat("/* ", deep), "lines": strings.Repeat("/// a\n", deep), "functions": strings.Repeat("fn a(", deep),
		"parameters": "fn f(" + strings.Repeat("a: b, ", deep), "variants": "enum A { " + strings.Repeat("B, ", deep), "variants with fields": "enum A { " + strings.Repeat("B { ", deep),
		"closing": strings.Repeat("}", deep), "bounds": "fn f() where " + strings.Repeat("A: B, ", deep), "traits": "trait A: " + strings.Repeat("B + ", deep), "calls": strings.Repeat("a! {", deep),
		"implementations": strings.Repeat("impl A { fn b() {", deep), "references": "fn f(a: " + strings.Repeat("&", deep) + "b) {}", "lifetimes": "fn f<" + strings.Repeat("'a, ", deep) + ">() {}",
		"rules": "macro_rules! a {" + strings.Repeat("() => {};", deep) + "}", "texts": strings.Repeat("#[doc = \"a\"]\n", deep) + "fn f() {}", "raw": strings.Repeat("r#", deep), "visibility": strings.Repeat("pub(in a) ", deep),
	})
}

func TestTooDeepIsSaid(t *testing.T) {
	facts := langtest.Read(end, "src/lib.rs", []byte(strings.Repeat("mod a {\n", 250)+"fn b() {}"+strings.Repeat("}", 250)))
	require.Len(t, facts.Problems, 1)
	assert.Equal(t, "deep", facts.Problems[0].Form)
}

func TestItems(t *testing.T) {
	langtest.Cases(t, end, "src/lib.rs", `
pub struct Tide { pub height: f64, at: Time } struct Unit; pub struct Pair(pub u8, (u8, u8));
=> 1 struct Tide
=> 1 field Tide.height
=> 1 field Tide.at
=> 1 struct Unit
=> 1 struct Pair

enum Kind { High, Low = 2, With(u8), Named { depth: u8 } }
=> 1 enum Kind
=> 1 enum-member Kind.High
=> 1 enum-member Kind.Low
=> 1 enum-member Kind.With
=> 1 enum-member Kind.Named
=> 1 field Kind.Named.depth

union Bits { a: u32, b: f32 } fn union() {}
=> 1 union Bits
=> 1 field Bits.a
=> 1 field Bits.b
=> 1 function union()

pub trait Gauge: Sized + 'static { const N: usize; type Out<'a>: Copy where Self: 'a; fn read(&mut self, _: u8) -> u8; fn more(self: Box<Self>) {} }
=> 1 trait Gauge
=> 1 constant Gauge.N
=> 1 type Gauge.Out
=> 1 method Gauge.read(self, _)
=> 1 method Gauge.more(self)

impl<T: Read> Gauge for Vec<T> where T: Copy { fn read(&self) {} } impl !Send for Tide {} impl Tide { pub const fn new() -> Self { } async fn go() {} }
=> 1 method Vec.read(self)
=> 1 method Tide.new()
=> 1 method Tide.go()

impl<T> From<T> for T { fn from(t: T) -> T { t } } impl Read for &mut [u8] { fn read(&self) {} } impl fmt::Display for a::b::C<'_> { fn fmt(&self, f: &mut F<'_>) {} }
=> 1 method _.from(t)
=> 1 method _.read(self)
=> 1 method C.fmt(self, f)

mod inner { pub fn a() {} } mod other; pub mod deep { pub mod deeper { struct D; } }
=> 1 function a()
=> 1 struct D

pub const MAX: [u8; 1 << 3] = [0; 8]; static mut COUNT: u32 = 0; const _: () = (); const F: fn(u8) -> u8 = |x| x + 1;
=> 1 constant MAX
=> 1 variable COUNT
=> 1 constant F

extern "C" { fn open(path: *const c_char, ...) -> c_int; static ENV: u8; type Opaque; } pub unsafe extern "C" fn shut() {}
=> 1 function open(path, ...)
=> 1 variable ENV
=> 1 type Opaque
=> 1 function shut()

type Alias<T> = Vec<Option<T>>; fn after() {}
=> 1 type Alias
=> 1 function after()

cfg_deep! { use std::sync::{A, B}; pub use crate::C; static NEXT: u8 = 1; fn next() {} } cfg_not! { use a }
=> 1 variable NEXT
=> 1 function next()

macro_rules! tide { ($a:expr) => { fn b() {} }; () => {} } macro_rules! low ( () => {} );
=> 1 macro tide
=> 1 macro low

cfg_if! { struct Read; impl Read { fn go(&self) {} } } thread_local! { static KEY: u8 = 0; } quote!(fn a() {}); vec![struct];
=> 1 struct Read
=> 1 method Read.go(self)
=> 1 variable KEY
=> 1 function a()

other! { fn f(x in 1..3) {} } again! { pub trait T { @section self } a => b } third! { $a:item }
=> 

foreign! { type C = ffi::X; fn drop = ffi::free; /// A.
pub struct A; /// B.
pub struct B(Interface<ffi::B>); match fn { type_ => || ffi::get(), } }
=> 2 struct A doc
=> 3 struct B doc

lazy_static! { /// C.
pub static ref C: Regex = Regex::new(r"a;{").unwrap(); static ref D: u8 = { 1 }; } safe! { pub {const} fn d() {} /// E.
pub fn e(x: ::c_int) -> u8 { 1 } }
=> 2 variable C doc
=> 3 function e(x) doc

enums! { /// F.
#[repr(i32)] pub enum F { /// G.
G, H } impl TryFrom<i32> }
=> 2 enum F doc
=> 3 enum-member F.G doc
=> 3 enum-member F.H

list! { "+" pub struct Add/1 "-" pub struct Sub/2 } mock! { pub File { pub fn open(); } } rows! { pub fn f(x => y); pub enum I { A => 1 } }
=> 
`)
}

func TestTraps(t *testing.T) {
	langtest.Cases(t, end, "src/lib.rs", `
/// One.
#[inline]
/// Two.
#[must_use = "why"]
pub fn f() {}
=> 5 function f() doc

#[derive(Debug, Clone)] /// Behind.
struct A<'a, const N: usize, T: ?Sized + Fn(u8) -> u8 = Vec<Vec<u8>>> where T: 'a { a: &'a [T; N] }
=> 2 struct A doc
=> 2 field A.a

fn r#type(r#in: u8, mut a: u8, (b, c): (u8, u8), Point { x, .. }: Point, &d: &u8) -> impl Fn() -> Vec<Vec<u8>> + '_ { }
=> 1 function r#type(r#in, a, _, _, _)

struct V<T, #[unstable(feature = "a", issue = "1")] A: B = C> { a: T, b: A } fn g<#[may] T, I: ~const D<str>>(#[cfg(x)] a: T, b: I) -> Option<&I::O> { }
=> 1 struct V
=> 1 field V.a
=> 1 field V.b
=> 1 function g(a, b)

cfg_if! { if #[cfg(unix)] { fn one() {} } else if #[cfg(a)] { struct Two { x: u8 } } else { mod three { fn four() {} } } } other! { five => 6 } fn seven() {}
=> 1 function one()
=> 1 struct Two
=> 1 field Two.x
=> 1 function four()
=> 1 function seven()

gate! { #![unix] pub fn kept() {} fn cut(
=> 1 function kept()
=> 1 function cut()

fn lifetimes<'a>(x: &'a str, c: char) -> char { let y = 'a'; let z = '\''; 'l: loop { break 'l; } c }
fn after() {}
=> 1 function lifetimes(x, c)
=> 2 function after()

const A: u8 = 1 << 3; const B: bool = 1 < 2; const S: &str = r##"fn no() { "# }"##; const C: &[u8] = b"\"{"; const D: &CStr = c"{";
fn after() {}
=> 1 constant A
=> 1 constant B
=> 1 constant S
=> 1 constant C
=> 1 constant D
=> 2 function after()

#!/usr/bin/env run-cargo-script 'x
fn main() {}
=> 2 function main()

#![allow(dead_code)]
/* a /* nested */ comment */
//// no comment for users
/*** nor this */
/**/
fn f() {}
=> 6 function f()

impl<T> A for fn(T) -> T { fn a() {} } impl<'a> B for dyn Any + 'a { fn b() {} } impl C for (u8, u8) { fn c() {} } impl <A as B>::C { fn d() {} }
=> 1 method _.a()
=> 1 method Any.b()
=> 1 method _.c()
=> 1 method C.d()

fn f() where for<'a> F: Fn(&'a u8) -> bool, { struct Inner; fn g() {} }
struct Next;
=> 1 function f()
=> 2 struct Next

pub(crate) struct A; pub(in crate::a) enum B { } pub (u8) fn c() {} crate fn d() {}
=> 1 struct A
=> 1 enum B
=> 1 function d()
`)
}

func TestVisibility(t *testing.T) {
	facts := langtest.Read(end, "src/lib.rs", []byte("pub fn a() {} fn b() {} pub(crate) fn c() {} pub(super) fn d() {} pub(self) fn e() {} pub struct S { pub f: u8, g: u8 }\nimpl T for S { fn h() {} } impl S { fn i() {} pub fn j() {} }\n#[cfg(test)] mod tests { pub fn k() {} } #[doc(hidden)] pub fn l() {} #[test] fn m() {} #[macro_export] macro_rules! n { () => {} } macro_rules! o { () => {} } trait T { fn p(); } enum E { V { q: u8 } } extern \"C\" { pub fn r(); fn s(); }"))
	got := map[string]string{}
	for i := range facts.Occurrences {
		got[facts.Occurrences[i].Name] = facts.Occurrences[i].Visibility.String()
	}
	assert.Equal(t, map[string]string{
		"a": "public", "b": "private", "c": "internal", "d": "internal", "e": "private", "S": "public", "f": "public", "g": "private", "h": "public", "i": "private", "j": "public", "k": "private",
		"l": "private", "m": "private", "n": "public", "o": "private", "T": "private", "p": "public", "E": "private", "V": "public", "q": "public", "r": "public", "s": "private",
	}, got)
}

func TestSignatures(t *testing.T) {
	for text, want := range map[string]string{
		"pub  fn  f<'a,T:Read+?Sized>( mut a:&'a mut T , b : [ u8;3 ] )->Result<(),Box<dyn Error+'a>>where T:Copy,{}": "pub fn f<'a, T: Read + ?Sized>(a: &'a mut T, b: [u8; 3]) -> Result<(), Box<dyn Error + 'a>> where T: Copy",
		"pub const unsafe extern \"C\" fn g(&self,_:*const u8);":                                                      "pub const unsafe fn g(&self, _: *const u8)",
		"pub struct A<T>(pub T,Vec<u8>) where T:Copy;":                                                                "pub struct A<T>(pub T, Vec<u8>) where T: Copy",
		"pub struct B { a: u8 }":                            "pub struct B",
		"enum C { }":                                        "enum C",
		"pub unsafe trait D:Clone+'static{}":                "pub unsafe trait D: Clone + 'static",
		"pub const E:&[&str]=&[\"a\"];":                     "pub const E: &[&str] = &[\"a\"]",
		"pub static mut F:u8=1;":                            "pub static mut F: u8 = 1",
		"type G<T>=fn(T)->Option<T>;":                       "type G<T> = fn(T) -> Option<T>",
		"fn h(f:impl Fn(u8)->u8)->impl Iterator<Item=u8>{}": "fn h(f: impl Fn(u8) -> u8) -> impl Iterator<Item = u8>",
		"fn i()->!{}":                                       "fn i() -> !",
		"pub(crate) fn j(a: <T as U>::V){}":                 "pub(crate) fn j(a: <T as U>::V)",
		"macro_rules! k { ($a:expr) => {}; () => {} }":      "macro_rules! k {\n    ($a:expr) => { … };\n    () => { … };\n}",
	} {
		facts := langtest.Read(end, "src/lib.rs", []byte(text))
		if assert.NotEmpty(t, facts.Occurrences, text) {
			o := &facts.Occurrences[0]
			assert.Equal(t, want, o.Signature.Text(facts.Text), text)
		}
	}
}

func TestComments(t *testing.T) {
	for text, want := range map[string]string{
		"/// One.\n///\n///     code\nfn f() {}":                              "One.\n\n    code",
		"///One.\n/// Two.\nfn f() {}":                                        "One.\n Two.",
		"/**\n * One.\n *\n *  Two.\n */\nfn f() {}":                          "One.\n\n Two.",
		"/**\n    One.\n\n      Two.\n*/\nfn f() {}":                          "One.\n\n  Two.",
		"/** One. */\nfn f() {}":                                              "One.",
		"#[doc = \"One.\"]\n/// Two.\n#[doc = r#\" \"Three\".\"#]\nfn f() {}": "One.\nTwo.\n\"Three\".",
		"#[cfg_attr(a, doc = \"Under a condition.\")]\nfn f() {}":             "Under a condition.",
		"#[cfg_attr(a = \"b\", doc = \"One.\")]\n#[cfg_attr(not(a = \"b\"), doc = \"Other.\")]\n/// More.\n#[cfg_attr(not(a=\"b\"), doc = \"Again.\")] fn f() {}": "One.\nMore.",
		"#[cfg_attr(not(a), doc = \"One.\")]\n#[cfg_attr(a, doc = \"Other.\")] fn f() {}":                                                                         "One.",
		"#[doc = include_str!(\"../README.md\")]\nfn f() {}":                                                                                                      "# Read me",
		"// not for users\nfn f() {}":           "",
		"/// Of another.\nfn e() {}\nfn f() {}": "",
		"///\nfn f() {}":                        "",
	} {
		file := lang.File{Path: "src/lib.rs", Text: decoded(text), Other: func(path string) []byte {
			if path == "README.md" {
				return []byte("# Read me\n")
			}
			return nil
		}}
		facts := end.Read(file)
		o := &facts.Occurrences[len(facts.Occurrences)-1]
		got := ""
		if o.Doc != nil {
			got = o.Doc.Text
		}
		assert.Equal(t, want, got, text)
	}
	facts := langtest.Read(end, "src/lib.rs", []byte("//! The crate.\n\n/*! And more. */\n#![doc = \"Last.\"]\nmod a { //! Inner.\n fn b() {} }\n/// Outer.\nmod c {\n//! And inner.\n}\n"))
	require.NotNil(t, facts.ModuleDoc)
	assert.Equal(t, "The crate.\nAnd more.\nLast.", facts.ModuleDoc.Text, "what all lines are indented by is left out")
	require.Len(t, facts.Modules, 2)
	assert.Equal(t, "Inner.", facts.Modules[0].Doc.Text)
	assert.Equal(t, "Outer.\n\nAnd inner.", facts.Modules[1].Doc.Text)
}

// What its author lets go without a comment is no finding.
func TestAllowedToBePlain(t *testing.T) {
	for text, want := range map[string]string{
		"fn f() {}": "", "#[allow(missing_docs)] fn f() {} fn g() {}": "f", "#[expect(a, missing_docs)]\nstruct S { a: u8, /// B.\n b: u8 } fn g() {}": "S a",
		"#![allow(missing_docs)]\nfn f() {} mod m { fn g() {} }": "f g", "mod m { #![allow(missing_docs)] fn g() {} } fn f() {}": "g", "enum E { #[allow(missing_docs)] A, B }": "A",
	} {
		var got []string
		for _, o := range langtest.Read(end, "src/a.rs", []byte(text)).Occurrences {
			for _, d := range o.Directives() {
				if d.Verb == "let" && d.Object == "undocumented" && d.Reason != "" {
					got = append(got, o.Name)
				}
			}
		}
		assert.Equal(t, want, strings.Join(got, " "), text)
	}
}

func TestAttributes(t *testing.T) {
	facts := langtest.Read(end, "src/lib.rs", []byte("#![cfg(unix)]\n#[deprecated(since = \"2\", note = \"use g\")]\n#[cfg(feature = \"tides\")]\n#[must_use]\npub fn f() {}\n#[deprecated = \"gone\"] fn g() {}\n#[derive(Debug, serde::Serialize)] #[non_exhaustive] pub struct S;\nimpl Display for S {}\n#[cfg_attr(shown, doc(hidden))] pub fn h() {}\n// codrel: let undocumented pass, it is plain\nfn i() {}\n#[proc_macro_derive(Tide, attributes(high))] pub fn j() {}\n#[proc_macro] pub fn k() {}\n"))
	by := map[string]*model.Occurrence{}
	for i := range facts.Occurrences {
		by[facts.Occurrences[i].Name] = &facts.Occurrences[i]
	}
	f := by["f"]
	assert.True(t, f.Deprecated)
	assert.Equal(t, "use g", f.Advice().Text)
	assert.Equal(t, []string{`feature = "tides"`}, f.Conditions())
	assert.Equal(t, []string{"unix"}, facts.Conditions, "the file's hold for all in it")
	assert.Equal(t, []string{"must_use"}, f.Modifiers())
	assert.Equal(t, "gone", by["g"].Advice().Text)
	var bases []string
	for _, b := range by["S"].Bases() {
		bases = append(bases, b.Type.Text(facts.Text))
	}
	assert.Equal(t, []string{"Debug", "serde::Serialize", "Display"}, bases)
	assert.Equal(t, model.Private, by["h"].Visibility)
	assert.Len(t, by["i"].Directives(), 1)
	assert.Equal(t, model.KindMacro, by["Tide"].Kind)
	assert.Equal(t, model.KindMacro, by["k"].Kind)
}

func TestUse(t *testing.T) {
	facts := langtest.Read(end, "src/lib.rs", []byte("use a; use a::b; pub use a::{b as c, d::{self, e}, f::*, g as _}; use crate::h::I; pub(crate) use self::j::K; extern crate alloc as al; use {l, m::n};\npub mod in_file { pub use super::o::P; use self::q; pub use crate::r; }"))
	var got []string
	for _, i := range facts.Imports {
		text := i.Path + "|" + i.Member + "|" + i.Name
		if i.Reexport {
			text += "|on"
		}
		if i.In != "" {
			text += "|in " + i.In
		}
		got = append(got, text)
	}
	assert.Equal(t, []string{
		"a||a", "a|b|b", "a|b|c|on", "a|d|d|on", "a::d|e|e|on", "a::f|*|.|on", "crate::h|I|I", "self::j|K|K", "alloc||al", "l||l", "m|n|n",
		"self::o|P|P|on|in in_file", "self::in_file|q|q|in in_file", "crate|r|r|on|in in_file",
	}, got)
}

func decoded(text string) source.Text { return source.Decode([]byte(text)) }

// Texts that are made of several, words by which an item is found, and what stands in attributes.
func TestTextsInAttributes(t *testing.T) {
	other := func(path string) []byte { return []byte("From " + path + ".\n") }
	for text, want := range map[string]string{
		`#[doc = concat!("A ", "tide\nof ", 3, ".")] pub struct A;`:                                    "A tide\nof 3.",
		"/// First.\n#[doc = include_str!(\"tide.md\")]\n/// Last.\n/// More.\npub struct A;":          "First.\n\nFrom src/tide.md.\n\nLast.\nMore.",
		`#[doc = concat!(include_str!("tide.md"), r"a\n", "\"b\"", env!("VERSION"))] pub struct A;`:    "From src/tide.md.\na\\n\"b\"",
		"/// Text.\n#[doc(alias = \"flood\")]\n#[doc(alias(\"ebb\", \"slack water\"))]\npub struct A;": "Text. words flood, ebb, slack water",
		"#[doc(hidden, alias = \"flood\")]\n/// Text.\npub struct A;":                                  "Text. words flood",
		"#[cfg_attr(docs, doc = \"Only here.\")] pub struct A;":                                        "Only here.",
		"#[doc = \"One.\"]\n#[doc = \"Two.\"]\npub struct A;":                                          "One.\nTwo.",
		"#[doc = concat!(\"open": "",
	} {
		facts := end.Read(lang.File{Path: "src/lib.rs", Text: source.Decode([]byte(text)), Other: other})
		got := ""
		for _, o := range facts.Occurrences {
			if o.Doc != nil {
				got = o.Doc.Text
			}
			var words []string
			for _, d := range o.Directives() {
				assert.Equal(t, "words", d.Verb)
				words = append(words, d.Object)
			}
			if len(words) > 0 {
				got += " words " + strings.Join(words, ", ")
			}
		}
		assert.Equal(t, want, got, text)
	}
}
