package page_test

import "testing"

// What declarations in Go are to one another stands beside them.
func TestGoRelated(t *testing.T) {
	shows(t, related, []arrival{
		{"interfaces, embedding and makers", `
-- go.mod --
module port.example
-- a.go --
// Package port is one.
package port

import "port.example/tide"

// Moorer moors.
type Moorer interface{ Moor(name string) error }

// Watcher watches and moors.
type Watcher interface {
	Moorer
	Watch(tide.Level)
}

// Berth moors.
type Berth struct{}

// Moor moors.
func (*Berth) Moor(name string) error { return nil }

// Quay is a berth and more.
type Quay struct{ Berth }

// Watch watches.
func (Quay) Watch(tide.Level) {}

// Wrong moors otherwise.
type Wrong int

// Moor takes a number.
func (Wrong) Moor(n int) error { return nil }

// New makes one.
func New() *Berth { return &Berth{} }

// Find finds one.
func Find(name string) (*Berth, error) { return New(), nil }

// All are all.
func All() []Berth { return nil }

// Use takes one.
func Use(b *Berth, m Moorer, l ...tide.Level) {}

// Kind is a kind.
type Kind uint8

// Kinds.
const (
	Small Kind = iota
	Large
)

// Default is the usual one.
var Default Kind = Large

// Alias is another name of it.
type Alias = Berth
-- tide/tide.go --
// Package tide is one.
package tide

// Level is how high.
type Level float64

// High reports whether it is.
func (l Level) High() bool { return l > 3 }
-- use/use.go --
// Package use uses.
package use

import (
	"port.example"
	"port.example/tide"
)

// Run runs.
func Run() {
	b := port.New()
	b.Moor("x")
	var l tide.Level
	_ = l.High()
	port.Use(b, b, l)
}
`, `
== port
  1 file: a.go(a.go:1).
  Imports tide(page reference/port.example/port.example/tide/index.html).
  Imported by use(page reference/port.example/port.example/use/index.html).
  All uses, by name(page reference/port.example/port.example/~users.html).
Moorer
  Used in a.go, lines 11(a.go:11) and 43(a.go:43).
  Implemented by Berth(Berth) and Quay(Quay).
  Embedded in Watcher(Watcher).
  Parameter of Use(Use).
Moorer.Moor
Watcher
  Implemented by Quay(Quay).
  Embeds Moorer(Moorer).
Watcher.Watch
Berth
  Used on 7 lines of 1 file(page reference/port.example/port.example/~users.html#Berth).
  Implements Moorer(Moorer).
  Embedded in Quay(Quay).
  Parameter of Use(Use).
  made by All
  made by Find
  made by New
Berth.Moor
Quay
  Used in a.go, line 25(a.go:25).
  Implements Moorer(Moorer) and Watcher(Watcher).
  Embeds Berth(Berth).
Quay.Berth
Quay.Watch
Wrong
  Used in a.go, line 31(a.go:31).
Wrong.Moor
New
  Used in a.go, line 37(a.go:37) and use.go, line 11(use/use.go:11).
Find
All
Use
  Used in use.go, line 15(use/use.go:15).
Kind
  Used in a.go, lines 50(a.go:50) and 55(a.go:55).
  constant Small
  constant Large
Small
Large
  Used in a.go, line 55(a.go:55).
Default
Alias
== tide
  1 file: tide.go(tide/tide.go:1).
  Imported by port.example(page reference/port.example/port.example/index.html) and use(page reference/port.example/port.example/use/index.html).
  All uses, by name(page reference/port.example/port.example/tide/~users.html).
Level
  Used on 5 lines of 3 files(page reference/port.example/port.example/tide/~users.html#Level).
  Parameter of port.Use(Use), port.Quay.Watch(Quay.Watch) and port.Watcher.Watch(Watcher.Watch).
Level.High
  Used in use.go, line 14(use/use.go:14).
== use
  1 file: use.go(use/use.go:1).
  Imports port.example(page reference/port.example/port.example/index.html) and tide(page reference/port.example/port.example/tide/index.html).
Run
`},
	})
}
