package page_test

import "testing"

// What users can name in Go arrives on its pages, with its words.
func TestGoArrives(t *testing.T) {
	shows(t, outline, []arrival{
		{"constants and variables in groups", `
-- go.mod --
module port.example
-- a.go --
// Package port is one.
package port

// Level is how high the water is.
type Level int

// Levels that are known.
const (
	// Low water.
	Low Level = iota
	High // high water
	_
	Spring, Neap = iota, -iota
	lower
)

var (
	// ErrFull tells that no berth is free.
	ErrFull = errors.New("full")

	Default = Berth{Name: "x"} // the berth that is there

	A, B, C int
)

// Moor is a function in a variable.
var Moor func(name string) (ok bool)

const Big = 1 << 100

// Untyped has neither type nor value.
var _ = 1
`, `
port -- Package port is one.
  type Level: type Level int -- Level is how high the water is.
  constant Low: const Low Level(Level) = 0 -- Low water.
  constant High: const High Level(Level) = 1 -- high water
  constant Spring: const Spring = 3
  constant Neap: const Neap = -iota
  constant Big: const Big = 1 << 100
  variable ErrFull: var ErrFull = errors.New("full") -- ErrFull tells that no berth is free.
  variable Default: var Default = Berth{…} -- the berth that is there
  variable A: var A int
  variable B: var B int
  variable C: var C int
  variable Moor: var Moor func(name string) (ok bool) -- Moor is a function in a variable.
`},
		{"types of all kinds", `
-- go.mod --
module port.example
-- a.go --
// Package port is one.
package port

import (
	"io"
	t "time"
)

// Berth is a place.
type Berth[K comparable, V ~int | ~string] struct {
	// Name is what it is called.
	Name, Other string ` + "`" + `json:"name"` + "`" + `
	At   struct {
		// Lat is how far north.
		Lat float64
	} // where it is
	io.Reader
	*inner
	Hook func(*Berth[K, V]) error
	_    struct{}
	kept int
}

type inner struct {
	// Depth is how deep.
	Depth int
}

// Fits tells.
func (b *Berth[K, _]) Fits(d float64) bool { return true }

// Sounds is promoted.
func (inner) Sounds() {}

// Alias is another name.
type Alias = Berth[string, int]

// Pair is generic and an alias.
type Pair[T any] = map[string]T

// Numeric is a set.
type Numeric interface {
	~int | ~float64
	comparable
	// String writes.
	String() string
	interface{ Deep(at t.Time) (n int, err error) }
}

// Func is called.
type Func func(at t.Time, more ...string) <-chan int

// Call calls it.
func (f Func) Call() {}

// Depths are several.
type Depths []struct{ X, Y int }

// New makes one.
func New[K comparable](name string) (*Berth[K, int], error) { return nil, nil }

// MustNew makes one or stops.
func MustNew() Alias { panic("no") }
`, `
port -- Package port is one.
  struct Berth: type Berth[K comparable, V ~int | ~string] struct -- Berth is a place.
    field Name: Name string ` + "`" + `json:"name"` + "`" + ` -- Name is what it is called.
    field Other: Other string ` + "`" + `json:"name"` + "`" + ` -- Name is what it is called.
    field At: At struct{ Lat float64 } -- where it is
    field Lat: Lat float64 -- Lat is how far north.
    field Reader: io.Reader
    field Hook: Hook func(*Berth(Berth)[K, V]) error
    field Depth: Depth int -- Depth is how deep.
    method Fits: func (b *Berth(Berth)[K, _]) Fits(d float64) bool -- Fits tells.
    method Sounds: func (inner(inner)) Sounds() -- Sounds is promoted.
  type Alias: type Alias = Berth(Berth)[string, int] -- Alias is another name.
  type Pair: type Pair[T any] = map[string]T -- Pair is generic and an alias.
  interface Numeric: type Numeric interface { ~int | ~float64; comparable; interface{ Deep(at t.Time) (n int, err error) } } -- Numeric is a set.
    method String: String() string -- String writes.
  type Func: type Func func(at t.Time, more ...string) <-chan int -- Func is called.
    method Call: func (f Func(Func)) Call() -- Call calls it.
  type Depths: type Depths []struct{ X, Y int } -- Depths are several.
    field X: X int
    field Y: Y int
  function New: func New[K comparable](name string) (*Berth(Berth)[K, int], error) -- New makes one.
  function MustNew: func MustNew() Alias(Alias) -- MustNew makes one or stops.
`},
		{"builds and files", `
-- go.mod --
module port.example
-- a.go --
package port

// Open opens anything.
func Open() {}
-- a_linux.go --
package port

// Lock locks on Linux.
func Lock() error { return nil }
-- a_windows.go --
package port

// Lock locks on Windows.
func Lock() error { return nil }

// Handle is Windows'.
type Handle uintptr
-- doc.go --
/*
Package port is told in a file of its own.

	an example

# Heading

More.
*/
package port
-- gen.go --
//go:build ignore

// Command gen makes tables.
package main

// Exported is seen by nobody.
func Exported() {}
func main() {}
-- c.go --
//go:build cgo && !windows

package port

// Cgo is there with C alone.
const Cgo = true
-- internal/deep/deep.go --
// Package deep is kept.
package deep

// Thing is kept.
type Thing struct{}
-- cmd/moor/main.go --
// Command moor moors a vessel.
//
// Usage: moor name
package main

func main() {}
-- port_test.go --
package port_test

func ExampleOpen() {
	port.Open()
	// Output: open
}
`, `
port -- Package port is told in a file of its own.
  type Handle: type Handle uintptr -- Handle is Windows'.
  function Open: func Open() -- Open opens anything.
  function Lock: func Lock() error -- Lock locks on Linux.
  constant Cgo: const Cgo = true -- Cgo is there with C alone.
moor -- Command moor moors a vessel.
gen.go -- Command gen makes tables.
  function Exported: func Exported() -- Exported is seen by nobody.
`},
		{"what hidden types give", `
-- go.mod --
module port.example
-- a.go --
// Package port is one.
package port

// base is kept.
type base struct {
	// Name is the base's.
	Name string
}

// Moor moors, by the base.
func (b *base) Moor() {}

// Berth has it from base.
type Berth struct {
	base
}

// keeper is not exported.
type keeper interface {
	// Keep keeps.
	Keep()
}

// Guard keeps more.
type Guard interface {
	keeper
	Watch()
}

// Open gives what cannot be named.
func Open() *base { return nil }

// Deprecated: use Open.
func Old() {}

// Old2 was there.
//
// Deprecated: use [Open]
// instead.
type Old2 int
`, `
port -- Package port is one.
  struct Berth: type Berth struct -- Berth has it from base.
    field Name: Name string -- Name is the base's.
    method Moor: func (b *base(base)) Moor() -- Moor moors, by the base.
  interface Guard: type Guard interface { keeper(keeper) } -- Guard keeps more.
    method Watch: Watch()
    method Keep: Keep() -- Keep keeps.
  type, deprecated Old2: type Old2 int -- Old2 was there.
  function Open: func Open() *base(base) -- Open gives what cannot be named.
  function, deprecated Old: func Old()
`},
	})
}
