package cfamily_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang"
	"codrel/internal/lang/langtest"
)

// signatures reads a declaration and gives how all that it declares is shown.
func signatures(t *testing.T, end lang.FrontEnd, path, text string) (out []string) {
	t.Helper()
	facts := langtest.Read(end, path, []byte(text))
	for i := range facts.Occurrences {
		out = append(out, facts.Occurrences[i].Signature.Text(facts.Text))
	}
	return out
}

// Signatures stand as people of the language write them, whatever blanks the source has.
func TestSignaturesOfC(t *testing.T) {
	for text, want := range map[string][]string{
		`unsigned   long  int a ;`:                                                    {`unsigned long int a`},
		`const char * const names [ 3 ] = { "a" } ;`:                                  {`const char *const names[3]`},
		`char **argv, *p, c ;`:                                                        {`char **argv`, `char *p`, `char c`},
		`int (*handler)(int sig, void *) ;`:                                           {`int (*handler)(int sig, void *)`},
		`void (*table[4])(void) ;`:                                                    {`void (*table[4])(void)`},
		`int (*get(void))[3] ;`:                                                       {`int (*get(void))[3]`},
		`void * ( * alloc )( size_t n , void * * out ) ;`:                             {`void *(*alloc)(size_t n, void **out)`},
		`static inline int twice ( int n ) { return n * 2 ; }`:                        {`static int twice(int n)`},
		`extern int f ( void ) ;`:                                                     {`int f(void)`},
		`EXPORT foo_t * API make ( const struct opt *o, enum kind k, ... ) ATTR(1) ;`: {`foo_t *make(const struct opt *o, enum kind k, ...)`},
		`struct s { int a : 3, b [ 2 ] ; } ;`:                                         {`struct s`, `int a:3`, `int b[2]`},
		`typedef struct s { int a ; } s_t, * s_p ;`:                                   {`struct s`, `int a`, `typedef struct s s_t`, `typedef struct s *s_p`},
		`typedef struct { int a ; } t ;`:                                              {`typedef struct t`, `int a`},
		`typedef union u u_t ;`:                                                       {`typedef union u u_t`},
		`typedef int (*cmp)( const void *, const void * ) ;`:                          {`typedef int (*cmp)(const void *, const void *)`},
		`typedef unsigned char byte [ 16 ] ;`:                                         {`typedef unsigned char byte[16]`},
		`enum e { A = 1 , B = A | ( 1 << 2 ) } ;`:                                     {`enum e`, `A = 1`, `B = A | ( 1 << 2 )`},
		`int list ( int n, int m [ static n ] [ * ], char s [ restrict 4 ] ) ;`:       {`int list(int n, int m[static n][*], char s[restrict 4])`},
		`_Noreturn void stop ( void ) ;`:                                              {`void stop(void)`},
		`_Atomic ( int ) shared ;`:                                                    {`_Atomic(int) shared`},
		`int x __attribute__ ( ( aligned ( 8 ) ) ) = 3 ;`:                             {`int x`},
		`__declspec ( dllexport ) int g ( void ) __attribute__ ( ( pure ) ) ;`:        {`int g(void)`},
		`int h ( int UNUSED ( a ), char * b NONNULL ) ;`:                              {`int h(int a, char *b)`},
		`PyAPI_FUNC ( PyObject * ) str ( PyObject * o ) ;`:                            {`PyObject *str(PyObject *o)`},
		`void k ( a, b ) int a ; char * b ; { }`:                                      {`void k(a, b)`},
		`volatile sig_atomic_t stopped ;`:                                             {`volatile sig_atomic_t stopped`},
		`int ( paren ) ( int a ) ;`:                                                   {`int (paren)(int a)`},
		"#define MAX( a , b ) ( ( a ) > ( b ) ? a : b ) /* x */\n":                    {`#define MAX(a, b) ( ( a ) > ( b ) ? a : b )`},
		`constexpr int k = 1 << 3 ;`:                                                  {`constexpr int k = 1 << 3`},
	} {
		assert.Equal(t, want, signatures(t, c, "a.h", text), text)
	}
}

func TestSignaturesOfPlus(t *testing.T) {
	for text, want := range map[string]string{
		`struct A { std :: vector < int > const & items ( ) const noexcept ; };`:                       `std::vector<int> const& items() const noexcept`,
		`template < typename T , int N = 3 > class A : public B < T > , private virtual C { } ;`:       `template<typename T, int N = 3> class A : public B<T>, private virtual C`,
		`template < class ... Ts > void f ( Ts && ... ts ) ;`:                                          `template<class... Ts> void f(Ts&&... ts)`,
		`template < > struct hash < A > { } ;`:                                                         `template<> struct hash<A>`,
		`struct A { explicit operator bool ( ) const ; };`:                                             `explicit operator bool() const`,
		`bool operator == ( const A & a , const A & b ) ;`:                                             `bool operator==(const A& a, const A& b)`,
		`struct A { A & operator ++ ( ) ; };`:                                                          `A& operator++()`,
		`auto f ( int a ) -> std :: map < int , std :: string > ;`:                                     `auto f(int a) -> std::map<int, std::string>`,
		`struct A { virtual void g ( int a = 3 , std :: string s = "x" ) = 0 ; };`:                     `virtual void g(int a = 3, std::string s = "x") = 0`,
		`static constexpr int k = 1 << 3 ;`:                                                            `static constexpr int k = 1 << 3`,
		`using list = std :: vector < std :: pair < int , T * > > ;`:                                   `using list = std::vector<std::pair<int, T*>>`,
		`template < typename T > using ptr = std :: unique_ptr < T > ;`:                                `template<typename T> using ptr = std::unique_ptr<T>`,
		`enum class color : unsigned char { } ;`:                                                       `enum class color : unsigned char`,
		`int ( & array ) [ 3 ] ;`:                                                                      `int (&array)[3]`,
		`T && move ( T & t ) ;`:                                                                        `T&& move(T& t)`,
		`const T * const * deep ( const T * const & p ) ;`:                                             `const T* const* deep(const T* const& p)`,
		`template < typename T > requires std :: integral < T > && ( sizeof ( T ) > 1 ) T h ( T t ) ;`: `template<typename T> requires std::integral<T> && (sizeof(T) > 1) T h(T t)`,
		`std :: function < void ( int , char * ) > cb ;`:                                               `std::function<void(int, char*)> cb`,
		`int i { 3 } , * j = nullptr ;`:                                                                `int i|int* j`,
		`double operator "" _m ( long double v ) ;`:                                                    `double operator""_m(long double v)`,
		`void * operator new [ ] ( std :: size_t n ) ;`:                                                `void* operator new[](std::size_t n)`,
		`struct A { A ( A && ) = default ; };`:                                                         `A(A&&) = default`,
		`struct A { ~ A ( ) noexcept ; };`:                                                             `~A() noexcept`,
		`inline const std :: string name ( "abc" ) ;`:                                                  `const std::string name("abc")`,
		`decltype ( auto ) any ( ) ;`:                                                                  `decltype(auto) any()`,
		`struct A { [[nodiscard]] int n ( ) & ; };`:                                                    `int n() &`,
		`struct A { void r ( int a , ... ) && ; };`:                                                    `void r(int a, ...) &&`,
	} {
		got := signatures(t, plus, "a.hpp", text)
		if strings.HasPrefix(text, "struct A {") {
			got = got[1:]
		}
		assert.Equal(t, want, strings.Join(got, "|"), text)
	}
}
