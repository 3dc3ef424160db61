// Package keeper opens the gates of a sea lock when the tide stands right.
//
// A [Chamber] is a [berth.Berth] like any other to who plans berths with
// [berth.Plan.Assign].
package keeper

import (
	"time"

	"tidebook.example/engine/berth"
	"tidebook.example/engine/tide"
)

// Chamber is the water between the gates.
type Chamber struct {
	Sill   float64 // depth over the sill at chart datum, in metres
	Length float64 // between the gates, in metres
}

// Title is what keepers call the chamber.
func (c Chamber) Title() string { return "lock" }

func (c Chamber) DepthAt(height tide.Height) float64 { return c.Sill + height.Metres() }

func (c Chamber) Fits(v berth.Vessel) bool { return v.Length < c.Length }

// Gate is a [tide.Predictor] that knows when both waters are level.
type Gate struct {
	outside tide.Predictor
	inside  tide.Height
}

// NewGate makes a gate between the water that outside predicts and a basin.
func NewGate(outside tide.Predictor, inside tide.Height) *Gate { return &Gate{outside, inside} }

func (g *Gate) Height(at time.Time) (tide.Height, error) { return g.outside.Height(at) }

// Level tells whether the gate may open: the heights differ by no more than a
// hand's breadth. Heights are compared with [tide.Height.Exceeds].
func (g *Gate) Level(at time.Time) (bool, error) {
	height, err := g.Height(at)
	return !height.Above(g.inside), err
}

// Admit tells the vessels that the chamber has water enough for, by the plan of
// the harbour behind it.
func Admit(plan *berth.Plan, waiting []berth.Vessel) []berth.Vessel { return nil }
