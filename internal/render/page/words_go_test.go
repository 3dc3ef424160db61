package page_test

import "testing"

// What comments in Go say is what pages say, with what each name leads to.
func TestGoWords(t *testing.T) {
	shows(t, spoken, []arrival{
		{"comments of Go", `
-- go.mod --
module port.example
-- a.go --
// Package port is one. See [Berth.Fits] and [net/http.Client], or https://x.example/a_b.
//
// # Two kinds
//
// First:
//   - one [Berth]
//   - two
//     goes on
//
// Then:
//  1. first
//  2. second
//
// Code:
//
//	b := port.New()
//
//	b.Fits(1)
//
// See [the handbook], and [no link].
//
// [the handbook]: https://x.example/handbook
package port

import "io"

// Berth is a place, "quoted" and ` + "`" + `` + "`" + `quoted''. Not *bold*, nor ` + "`" + `code` + "`" + `.
//
// Old line.
//
// Deprecated: use [Quay], which
// is wider.
//
// More after it.
type Berth struct{ io.Reader }

// Fits reads from [io.Reader], is [*Berth]'s and not [Berth.Nothing]; see [Quay.Name].
// BUG(anna): it never does.
func (Berth) Fits() {}

// Quay has [Quay.Name] and [a][0].
//
// A line that ends in two blanks  
// goes on. <b>no html</b> & more.
//
//codrel:nothing
type Quay struct {
	// Name is [Quay]'s,
	//
	// of two paragraphs.
	Name string
	// Long and Wide are sizes.
	Long, Wide int // in metres
}
-- a_test.go --
package port_test

// It is easily made.
func ExampleQuay() {
	q := port.Quay{}
	fmt.Println(q.Name)
	// Output:
	// two
	//
	// lines
}

func ExampleBerth_Fits_second() { port.Berth{}.Fits() }
`, `
== port
Package port is one. See [` + "`" + `Berth.Fits` + "`" + `](Berth.Fits) and [` + "`" + `net/http.Client` + "`" + `](), or [https://x.example/a_b](https://x.example/a_b).
# Two kinds (Two kinds)
First:
list from 0 false
  - one [` + "`" + `Berth` + "`" + `](Berth)
  - two
goes on
Then:
list from 1 false
  - first
  - second
Code:
` + "`" + `` + "`" + `` + "`" + ` : "b := port.New()\n\nb.Fits(1)"
See [the handbook](https://x.example/handbook), and [no link].
= Berth
deprecated: use [` + "`" + `Quay` + "`" + `](Quay), which
is wider.
Berth is a place, "quoted" and “quoted”. Not *bold*, nor ` + "`" + `code` + "`" + `.
Old line.
More after it.
= Berth.Fits
Fits reads from [` + "`" + `io.Reader` + "`" + `](), is [` + "`" + `*Berth` + "`" + `](Berth)'s and not [Berth.Nothing]; see [` + "`" + `Quay.Name` + "`" + `](Quay.Name).
BUG(anna): it never does.
example second"port.Berth{}.Fits()"
= Quay
Quay has [` + "`" + `Quay.Name` + "`" + `](Quay.Name) and [a][0].
A line that ends in two blanks
goes on. <b>no html</b> & more.
example "q := port.Quay{}\nfmt.Println(q.Name)"
= Quay.Name
Name is [` + "`" + `Quay` + "`" + `](Quay)'s,
of two paragraphs.
= Quay.Long
Long and Wide are sizes.
= Quay.Wide
Long and Wide are sizes.
`},
	})
}
