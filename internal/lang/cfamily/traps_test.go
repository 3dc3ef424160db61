package cfamily_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang"
	"codrel/internal/lang/langtest"
	"codrel/internal/model"
	"codrel/internal/source"
)

func TestDeclaratorsOfC(t *testing.T) {
	langtest.Cases(t, c, "a.h", `
int a, *b, c[3], (*d)(int), e(void);
=> 1 variable a
=> 1 variable b
=> 1 variable c
=> 1 variable d()
=> 1 function e()

void (*signal(int sig, void (*handler)(int)))(int);
=> 1 function signal(sig, handler)

int (*(*table[4])(void))(int n);
=> 1 variable table()

char *(*next)(const char *, size_t n), **list;
=> 1 variable next(, n)
=> 1 variable list

int (plain)(int a);
=> 1 function plain(a)

typedef int (*compare)(const void *a, const void *b), row[4], *ptr, fn(void);
=> 1 type compare(a, b)
=> 1 type row
=> 1 type ptr
=> 1 type fn()

typedef struct node { struct node *next; } node, *nodes;
=> 1 struct node
=> 1 field node.next
=> 1 type node
=> 1 type nodes

typedef enum { A, B } letter;
=> 1 enum letter
=> 1 enum-member letter.A
=> 1 enum-member letter.B

typedef unsigned long long int u64;
=> 1 type u64

unsigned flags : 3;
=> 1 variable flags

struct { int x; } here;
=> 1 variable here

struct s *make(void), *last;
=> 1 function make()
=> 1 variable last

enum e { ONE = 1, TWO = ONE << 1, THREE = (ONE, TWO) };
=> 1 enum e
=> 1 enum-member e.ONE
=> 1 enum-member e.TWO
=> 1 enum-member e.THREE

extern const char *const names[], version[];
=> 1 variable names
=> 1 variable version

int f(int a[static 2], int n, int m[n][*], char s[restrict]);
=> 1 function f(a, n, m, s)

int g(int (*cb)(int, void *), void (h)(int), int (*)[3]);
=> 1 function g(cb, h, )

_Noreturn void stop(void); _Thread_local int each; _Atomic(int) shared; _Alignas(8) char room[8];
=> 1 function stop()
=> 1 variable each
=> 1 variable shared
=> 1 variable room

typeof(int *) p; auto q = 1; constexpr int k = 3; _BitInt(7) bits;
=> 1 variable p
=> 1 variable q
=> 1 constant k
=> 1 variable bits

int h(void) { struct inner { int a; }; int local; return 0; } int after;
=> 1 function h()
=> 1 variable after
`)
}

func TestMacrosByShape(t *testing.T) {
	langtest.Cases(t, c, "a.h", `
EXPORT int f(int a);
=> 1 function f(a)

int WINAPI f(int a);
=> 1 function f(a)

EXPORT foo_t *API f(void) ATTR;
=> 1 function f()

API_FUNC(struct x *) f(int a) ATTR(1, 2);
=> 1 function f(a)

int f PROTO((int a, char *b));
=> 1 function f(a, b)

DEPRECATED("use g") int f(void);
=> 1 function f()

extern int depth GUARDED_BY(lock);
=> 1 variable depth

static EXPORT foo_t ALIGNED(8) depth = 3;
=> 1 variable depth

struct PACKED s { int a PACKED; char b[2] ALIGNED(4); };
=> 1 struct s
=> 1 field s.a
=> 1 field s.b

struct EXPORT(x) s { int a; } PACKED;
=> 1 struct s
=> 1 field s.a

MODULE_LICENSE("x")
int after;
=> 2 variable after

BEGIN_DECLS
/** One. */
int f(void);
END_DECLS
=> 3 function f() doc

struct s { OBJECT_HEAD int a; FIELDS(b) };
=> 1 struct s
=> 1 field s.a

TEST(group, name) { int no; } int yes;
=> 1 variable yes

enum e { A ATTR, B = 1 ATTR, MAKE(C, 2), LAST };
=> 1 enum e
=> 1 enum-member e.A
=> 1 enum-member e.B
=> 1 enum-member e.C
=> 1 enum-member e.LAST

int f(int a
#ifdef X
, int b
#endif
);
=> 1 function f(a, b)

BOOL f(DWORD a, LPCSTR);
=> 1 function f(a, )

UINT8 Flags, Mask;
=> 1 variable Flags
=> 1 variable Mask
`)
}

func TestCommentsOfC(t *testing.T) {
	langtest.Cases(t, c, "a.h", `
/** a */ int a; /// b
/// more
int b; /**< behind */
/*! c */
int c;
//! d
int d;
=> 1 variable a doc
=> 3 variable b doc
=> 5 variable c doc
=> 7 variable d doc

/* plain */ int a;
/**/ int b;
/*** stars ***/ int c;
//// slashes
int d;
=> 1 variable a
=> 2 variable b
=> 3 variable c
=> 5 variable d

/** of the macro */
#define A 1
int a;
=> 2 macro A doc
=> 3 variable a

/** of both */
#ifdef X
int a(void);
#else
int a(int);
#endif
=> 3 function a() doc
=> 5 function a()

struct s {
  int a; /**< a
  goes on */
  int b, /**< b */ c; ///< c
  ///< goes on
  /** before */ int d;
};
=> 1 struct s
=> 2 field s.a doc
=> 4 field s.b doc
=> 4 field s.c doc
=> 6 field s.d doc

enum e {
  A, ///< a
  /** b */
  B,
  C /**< c */
};
=> 1 enum e
=> 2 enum-member e.A doc
=> 4 enum-member e.B doc
=> 5 enum-member e.C doc

/** @file x.h of the file */
int a;
/** @defgroup g a group */
/** of b */
int b;
/**@{*/
int c;
/**@}*/
=> 2 variable a
=> 5 variable b doc
=> 7 variable c
`)
}

func TestDeclarationsOfPlus(t *testing.T) {
	langtest.Cases(t, plus, "a.hpp", `
class A { int a; public: A(); ~A(); int b() const; protected: static int c; };
=> 1 class A
=> 1 field A.a
=> 1 constructor A.A()
=> 1 destructor A.~A()
=> 1 method A.b()
=> 1 field A.c

template <class T> struct A<T *> : B<T>, virtual private C { using type = T; };
=> 1 struct A<T*>
=> 1 type A<T*>.type

template <typename T, typename = std::enable_if_t<(sizeof(T) > 1) && !B<T>::value>> void f(T &&t, std::vector<std::map<int, T>> v = {});
=> 1 function f(t, v)

int ~
S; int a;
=> 2 variable a

A::A(int a) : b(a), c{a, 1}, D<int>(2) { } int A::count = 0; A::~A() { }
=> 1 constructor A.A(a)
=> 1 field A.count
=> 1 destructor A.~A()

bool A::operator==(const A &o) const { return true; } A::operator bool() const { return true; }
=> 1 operator A.operator==(o)
=> 1 operator A.operator bool()

template <class T> auto B<T>::get() -> decltype(this->x) { return x; }
=> 1 method B.get()

enum class Color : unsigned char { red, green = 2 }; enum struct Other; enum { loose };
=> 1 enum Color
=> 1 enum-member Color.red
=> 1 enum-member Color.green
=> 1 enum Other
=> 1 constant loose

template <class T> constexpr bool fits = same<T, int> && like<T, long>, other = a<b, c>::value || d;
=> 1 constant fits
=> 1 constant other

int low = a < b, high = c > d;
=> 1 variable low
=> 1 variable high

namespace a::b { int x; namespace c = d; using namespace e; using f::g; }
=> 1 variable x

union U { int a; float b; struct { int c; }; };
=> 1 union U
=> 1 field U.a
=> 1 field U.b
=> 1 field U.c

struct S { int a = f(1, 2), b{3}; void (*cb)(int) = nullptr; bool operator()(int) { return a < 2; } };
=> 1 struct S
=> 1 field S.a
=> 1 field S.b
=> 1 field S.cb()
=> 1 operator S.operator()()

std::string name("abc"), other{1}; Foo bar(1, x.y), baz(&x);
=> 1 variable name
=> 1 variable other
=> 1 variable bar
=> 1 variable baz

class EXPORT A final : public B { Q_OBJECT public slots: void s(); signals: void t(); };
=> 1 class A
=> 1 method A.s()
=> 1 method A.t()

template <class T> concept C = requires(T t) { { t.x() } -> D; }; template <C T> void f(T);
=> 1 trait C
=> 1 function f()

void f() { auto g = [](int a) { return a; }; class No { }; } int yes;
=> 1 function f()
=> 1 variable yes

export module m; import std; export int f(); export { int g(); }
=> 1 function f()
=> 1 function g()

template <int N> requires (N > 1) && requires { typename A<N>; } int h();
=> 1 function h()

constexpr operator_like x = 1; int operators; Foo operator_name();
=> 1 constant x
=> 1 variable operators
=> 1 function operator_name()

class A { friend class B; friend void f(A); friend bool operator<(A, A) { return true; } };
=> 1 class A
=> 1 operator A.operator<(, )

A(int) -> A<int>; template <class T> A(T) -> A<T>; static_assert(sizeof(int) > 2, "x;");
int after;
=> 2 variable after
`)
}

// What is private in its type stays so where it is defined, and who may see a name is said by
// where it stands.
// The name of a namespace is told from the macros beside it.
func TestNamesOfNamespaces(t *testing.T) {
	for text, want := range map[string]string{
		"namespace tide { int x; }":                                          "tide",
		"namespace tide TIDE_VISIBLE(default)\n{ int x; }":                   "tide",
		"namespace TIDE_EXPORT tide { int x; }":                              "tide",
		"namespace tide TIDE_EXPORT { int x; }":                              "tide",
		"namespace TIDE_VISIBLE(default) tide { int x; }":                    "tide",
		"namespace [[deprecated]] tide::low { int x; }":                      "tide::low",
		"namespace tide __attribute__((visibility(\"default\"))) { int x; }": "tide",
		"namespace TIDE { int x; }":                                          "TIDE",
		"namespace tide { inline namespace v1 { int x; } }":                  "tide",
		"namespace tide::inline v1 { int x; }":                               "tide",
		"#define SPACE tide\nnamespace SPACE { int x; }":                     "tide",
	} {
		facts := langtest.Read(plus, "a.hpp", []byte(text))
		found := ""
		for i := range facts.Occurrences {
			if o := &facts.Occurrences[i]; o.Name == "x" {
				found = o.In()
			}
		}
		assert.Equal(t, want, found, text)
	}
}

func TestVisibilityOfPlus(t *testing.T) {
	facts := langtest.Read(plus, "a.cpp", []byte("class A { void hidden(); public: void shown(); struct I {}; };\nvoid A::hidden() {}\nvoid A::shown() {}\nstatic int own;\nnamespace { int unseen; }\nstruct S { int x; private: int y; };\nclass B { enum { k }; };"))
	got := map[string]model.Visibility{}
	for _, o := range facts.Occurrences {
		got[o.Scope+"."+o.Name+map[bool]string{true: "!"}[o.Implementation]] = o.Visibility
	}
	assert.Equal(t, map[string]model.Visibility{
		".A": model.Public, "A.hidden": model.Private, "A.shown": model.Public, "A.I": model.Public, "A.hidden!": model.Private, "A.shown!": model.Public, ".own": model.Private, ".unseen": model.Private,
		".S": model.Public, "S.x": model.Public, "S.y": model.Private, ".B": model.Public, "B.k": model.Private,
	}, got)
}

func TestConditionsOfC(t *testing.T) {
	facts := langtest.Read(c, "a.h", []byte("#ifndef A_H\n#define A_H 1\n#ifdef __cplusplus\nextern \"C\" {\n#endif\nint a;\n#if defined(X) && Y > 2\nint b;\n#ifdef Z\nint c;\n#endif\n#elif W\nint d;\n#else\nint e;\n#endif\n#ifndef NO\n#define M 1\n#endif\n#ifdef __cplusplus\n}\n#endif\n#endif\n"))
	got := map[string]string{}
	for _, o := range facts.Occurrences {
		got[o.Name] = strings.Join(o.Conditions(), " | ")
	}
	assert.Equal(t, map[string]string{"a": "", "b": "defined(X) && Y > 2", "c": "defined(X) && Y > 2 | Z", "d": "W", "e": "!(defined(X) && Y > 2) && !W", "M": "!NO"}, got)
}

func TestDeprecatedC(t *testing.T) {
	facts := langtest.Read(c, "a.h", []byte("[[deprecated(\"use b\")]] int a(void);\n__attribute__((deprecated)) int b(void);\nint c(void) DEPRECATED;\nint d(void);\nOLD_DEPRECATED(\"gone\")\nint e(void);\n__declspec(deprecated) int f(void);\n"))
	var got []string
	for _, o := range facts.Occurrences {
		if o.Deprecated {
			got = append(got, o.Name)
		}
	}
	assert.Equal(t, []string{"a", "b", "c", "e", "f"}, got)
	assert.Equal(t, "use b", facts.Occurrences[0].Advice().Text)
}

// The macro that keeps a header from being read twice may stand in braces for C's linkage.
func TestGuardInLinkage(t *testing.T) {
	langtest.Cases(t, c, "a.h", `
#if defined (__cplusplus)
extern "C" {
#endif
#ifndef TIDE_H_2983
#define TIDE_H_2983
int a;
#if defined (__cplusplus)
}
#endif
#endif
=> 6 variable a`)
}

// Macros that declare functions stand in a row without anything between them.
func TestMacroDeclarationsInARow(t *testing.T) {
	langtest.Cases(t, c, "a.h", `
FP_EXPORT(227, void, set_alpha, (ptr p, int mode))
FIXED_EXPORT(228, void, set_alpha_fixed, (ptr p, int mode))
EXPORT(1, int, other, (void));
=> 1 function set_alpha(p, mode)
=> 2 function set_alpha_fixed(p, mode)
=> 3 function other()`)
}

// Macros before what has no type: destructors, constructors, and what is defined out of a class.
func TestMacrosBeforeNamesOfPlus(t *testing.T) {
	langtest.Cases(t, plus, "a.hpp", `
class A { public: M_X ~A() = default; M_X A(int *p = nullptr) noexcept : a(p) {} };
=> 1 class A
=> 1 destructor A.~A()
=> 1 constructor A.A(p)

M_API M_INLINE A::~A() noexcept = default;
=> 1 destructor A.~A()

class tide { tide_inline tide(tide &&other) noexcept; tide_inline explicit tide(int n); tide_inline int rise(); };
=> 1 class tide
=> 1 constructor tide.tide(other)
=> 1 constructor tide.tide(n)
=> 1 method tide.rise()

/** Prints. */
M_EXPORT template <typename... T>
void print(T &&...args) {}
=> 3 function print(args) doc

template <typename Key>
inline const Node Node::operator[](const Key &key) const {}
=> 2 operator Node.operator[](key)

template <class T>
typename F<T>::result_type
F<T>::operator()() const { return f(); }
=> 3 operator F.operator()()

struct B {
  template <class T, EnableIf<sizeof(T) < sizeof(long long)> = sfinae> inline void load(T &value) {}
  template <int N, bool B = (N < 3)> void sized();
};
=> 1 struct B
=> 2 method B.load(value)
=> 3 method B.sized()`)
}

// What comments say is for the library itself is not for users, in C as in C++.
func TestKeptByComments(t *testing.T) {
	for _, end := range []lang.FrontEnd{c, plus} {
		facts := langtest.Read(end, "a.h", []byte("/** @private Use b. */\nint a;\n/** Is private. */\nint b;\n/** \\internal\n * For tests. */\nint d;\n/** Text.\n * @internal for authors */\nint e;\n/** Text.\n * \\private */\nint f;\n"))
		got := map[string]model.Visibility{}
		for _, o := range facts.Occurrences {
			got[o.Name] = o.Visibility
		}
		assert.Equal(t, map[string]model.Visibility{"a": model.Private, "b": model.Public, "d": model.Internal, "e": model.Public, "f": model.Private}, got)
	}
}

// A function for one kind of arguments belongs to its template, unless it has a comment of its own.
func TestSpecialFunctions(t *testing.T) {
	facts := langtest.Read(plus, "a.hpp", []byte("/** Puts. */\ntemplate <class T> void put(T t);\n/** Puts a number. */\ntemplate <> void put(int t);\ntemplate <> void put(char t);\n"))
	var got []bool
	for _, o := range facts.Occurrences {
		got = append(got, o.Implementation)
	}
	assert.Equal(t, []bool{false, false, true}, got)
}

// A branch that is never read is so with a comment behind its condition, too.
func TestOffWithComment(t *testing.T) {
	for _, when := range []string{"0", "0 // never", "0   /* keep the editor's indent */", "/* off */ 0"} {
		facts := langtest.Read(c, "a.h", []byte("#if "+when+"\n{ int a;\n#endif\nint b;\n"))
		assert.Len(t, facts.Occurrences, 1, when)
		assert.Empty(t, facts.Problems, when)
	}
}

// Bodies are passed over where nobody asks what names in them mean, and what stands in them changes
// nothing of what is declared.
func TestBodiesPassedOver(t *testing.T) {
	for _, body := range []string{
		"return \"}\" + '}' + '\\'' + 1'000;", "// }\n/* } */", "#define X }\n", "#if A\nif (x) {\n#else\nwhile (y) {\n#endif\n}", "#ifdef A\nint x;\n#endif\n", "#if 0\n}}}\n#endif\n",
		"R\"x(})x\";", "char c = u8'}'; L\"}\";", "f([] { return 1; });", "int a[] = { 1, 2 };", "(}", ") {", "\"never", "'", "#endif\n", "#else\n}\n#if B\n",
	} {
		for _, head := range []string{"int f(void)", "struct s *f(int a)", "template <class T> T *f(T t)", "void T::f() const noexcept", "struct s ALIGN(8)", "NS_BEGIN(x)", "int f(a) int a;"} {
			text := []byte(head + " {\n" + body + "\n}\n/** After. */\nint after;\nvoid last(void) { }\n")
			for _, end := range []lang.FrontEnd{c, plus} {
				deep := end.Read(lang.File{Path: "a.h", Text: source.Decode(text), Deep: true})
				brief := end.Read(lang.File{Path: "a.h", Text: source.Decode(text)})
				assert.Equal(t, langtest.Dump(deep), langtest.Dump(brief), string(text))
			}
		}
	}
}
