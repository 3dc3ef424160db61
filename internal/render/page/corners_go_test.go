package page_test

import "testing"

// Odd corners of Go arrive as well.
func TestGoCorners(t *testing.T) {
	shows(t, outline, []arrival{
		{"generics and method sets", `
-- go.mod --
module port.example

go 1.24
-- a.go --
// Package port is one.
package port

import "iter"

// Set is a set.
type Set[T comparable] map[T]struct{}

// All yields all.
func (s Set[T]) All() iter.Seq2[int, T] { return nil }

// List is recursive.
type List[T any] struct {
	next *List[T]
	// Value is held.
	Value T
}

// Named has two parts.
type Named[L interface{ ~[]E }, E any] struct{ Set[string] }

// Ints is made of it.
type Ints = List[int]

// Map maps.
func Map[K comparable, V any, M ~map[K]V](m M, f func(K, V) (V, bool)) M { return m }

// Chan sends.
func Chan(in <-chan int, out chan<- [2]int, both chan struct{}) (func(), *[]map[string]any) { return nil, nil }

type (
	// First is the first.
	First int
	// Second is the second.
	Second = First
	third  int
)

// Handler handles.
type Handler interface {
	// Handle handles.
	Handle(func(w interface{ Write([]byte) (int, error) }, r *struct{ A, B int }))
	private()
	Set[int] | ~[]int
}

func (First) String() string { return "" }

// Error is an error.
func (*third) Error() string { return "" }

// Get gives the hidden.
func Get() third { return 0 }
`, `
port -- Package port is one.
  type Set: type Set[T comparable] map[T]struct{} -- Set is a set.
    method All: func (s Set(Set)[T]) All() iter.Seq2[int, T] -- All yields all.
  struct List: type List[T any] struct -- List is recursive.
    field Value: Value T -- Value is held.
  struct Named: type Named[L interface{ ~[]E }, E any] struct -- Named has two parts.
    field Set: Set(Set)[string]
    from Set: All
  type Ints: type Ints = List(List)[int] -- Ints is made of it.
  type First: type First int -- First is the first.
    method String: func (First(First)) String() string
  type Second: type Second = First(First) -- Second is the second.
  interface Handler: type Handler interface { Set(Set)[int] | ~[]int } -- Handler handles.
    method Handle: Handle( func(w interface{ Write([]byte) (int, error) }, r *struct{ A, B int }), ) -- Handle handles.
  function Map: func Map[K comparable, V any, M ~map[K]V](m M, f func(K, V) (V, bool)) M -- Map maps.
  function Chan: func Chan(in <-chan int, out chan<- [2]int, both chan struct{}) (func(), *[]map[string]any) -- Chan sends.
  function Get: func Get() third(third) -- Get gives the hidden.
`},
		{"text of groups and lines", `
-- go.mod --
module port.example
-- a.go --
// Package port is one.
package port

// Modes.
const (
	A = 'a' // the letter
	B = "b\n"
	C = ` + "`" + `raw` + "`" + `
	D, E = 1.5e3, 0x1p-2

	// F is alone.
	F = A + 1
	G = len(B)
)

// Errors are all here.
var (
	// Err1 is first.
	Err1 = new(error)
	Err2 = func() error { return nil }()
	Table = map[string]int{
		"a": 1,
	}
)

/* Block is told in a block. */
type Block struct {
	A int /* after */
	// before
	B int // and after
	C, D int

	E struct{ F int } ` + "`" + `json:"e"` + "`" + `
}

// Not a comment of it.

func Bare() {}

//go:noinline
// Directed has a directive before it.
func Directed() {}

// Trailing has one after it.
//
//go:nosplit
func Trailing() {}

func Naked(int, string, ...error) {}
`, `
port -- Package port is one.
  struct Block: type Block struct -- Block is told in a block.
    field A: A int -- after
    field B: B int -- before
    field C: C int
    field D: D int
    field E: E struct{ F int } ` + "`" + `json:"e"` + "`" + `
    field F: F int
  function Bare: func Bare()
  function Directed: func Directed() -- Directed has a directive before it.
  function Trailing: func Trailing() -- Trailing has one after it.
  function Naked: func Naked(int, string, ...error)
  constant A: const A = 'a' -- the letter
  constant B: const B = "b\n"
  constant C: const C = ` + "`" + `raw` + "`" + `
  constant D: const D = 1.5e3
  constant E: const E = 0x1p-2
  constant F: const F = A + 1 -- F is alone.
  constant G: const G = len(B)
  variable Err1: var Err1 = new(error) -- Err1 is first.
  variable Err2: var Err2 = func() error { return nil }()
  variable Table: var Table = map[string]int{…}
`},
	})
}
