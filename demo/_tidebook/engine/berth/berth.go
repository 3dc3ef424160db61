// Package berth finds vessels a place to lie.
//
// A [Plan] knows the berths of a harbour and the water over them, and assigns a
// [Vessel] where it floats as long as it stays.
//
// [Heights]
//
// [Heights]: insert:heights
package berth

import (
	"errors"

	"tidebook.example/engine/tide"
)

// Berth is a place where a vessel can lie.
//
// A [Pontoon] rises and falls with the water, a [Quay] does not.
type Berth interface {
	// Title is what the harbour calls the place.
	Title() string
	// DepthAt is the depth of water when the tide stands at height.
	DepthAt(height tide.Height) float64
	// Fits reports whether a vessel is short enough.
	Fits(v Vessel) bool
}

// Vessel is something that floats and wants to lie still.
type Vessel struct {
	Name    string  `json:"name"`
	Length  float64 `json:"length"`  // metres
	Draught float64 `json:"draught"` // metres
	Papers  struct {
		// Flag is the country the vessel is registered in.
		Flag string
		// Number is the official number.
		Number int
	}
}

func (v Vessel) Needs() float64 { return v.Draught + UnderKeel }

// UnderKeel is the water that must be left under a keel, in metres.
const UnderKeel = 0.3

// Reasons for which a vessel gets no berth.
var (
	ErrFull     = errors.New("berth: every place is taken")
	ErrFallsDry = errors.New("berth: the place falls dry while the vessel lies there")
	ErrTooLong  = errors.New("berth: the vessel is too long for every place")
)

// base is what all berths have.
type base struct {
	length float64
}

// Fits reports whether the vessel is no longer than the berth.
func (b base) Fits(v Vessel) bool { return v.Length <= b.length }

// Pontoon is a berth that floats: the depth over it hardly changes.
type Pontoon struct {
	base
	Name  string
	Depth float64
}

// Title is the pontoon's name.
func (p Pontoon) Title() string { return p.Name }

// DepthAt is the charted depth, whatever the tide does.
func (p Pontoon) DepthAt(tide.Height) float64 { return p.Depth }

// Quay is a berth along a wall.
type Quay struct {
	base
	Number  int
	Charted float64 // depth at chart datum, metres
}

// Title is the quay's number.
func (q Quay) Title() string { return "quay" }

// DepthAt is the charted depth and what the tide adds.
func (q Quay) DepthAt(height tide.Height) float64 { return q.Charted + height.Metres() }

// Measure reads the depths of a quay from its gauge.
//
//codrel:let leaked-type pass, gauges are handed on and never looked into
func Measure(q Quay) *gauge { return nil }

// Sound lowers a lead line at the quay.
func Sound(q Quay) *gauge { return &gauge{} }

type gauge struct{ depth float64 }
