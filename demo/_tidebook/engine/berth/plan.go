package berth

import (
	"time"

	"tidebook.example/engine/tide"
)

// Plan assigns vessels to berths.
//
// A plan is made once for each harbour:
//
//	plan := berth.NewPlan(curve, berth.Pontoon{Name: "North", Depth: 2.4})
//	place, err := plan.Assign(vessel, time.Now())
//
// It is not safe for use from several goroutines. Its order of search is:
//
//  1. pontoons, since nobody has to mind the lines there,
//  2. quays, deepest first,
//  3. whatever else fulfils [Berth].
type Plan struct {
	// Water foretells the height of the tide.
	Water  tide.Predictor
	berths []Berth
	taken  map[string]Vessel
}

// NewPlan makes a plan for berths under one water.
func NewPlan(water tide.Predictor, berths ...Berth) *Plan {
	return &Plan{Water: water, berths: berths, taken: map[string]Vessel{}}
}

// Assign finds a vessel a berth from a moment on.
//
// It fails with [ErrFull] when every place is taken and with [ErrFallsDry] when
// the free ones do not hold water enough; see [tide.Predictor] for the errors
// of the water itself, and [io.EOF] for nothing at all.
func (p *Plan) Assign(v Vessel, from time.Time) (Berth, error) {
	dry := false
	for _, b := range p.berths {
		if _, taken := p.taken[b.Title()]; taken || !b.Fits(v) {
			continue
		}
		height, err := p.Water.Height(from)
		if err != nil {
			return nil, err
		}
		if b.DepthAt(height) < v.Needs() {
			dry = true
			continue
		}
		p.taken[b.Title()] = v
		return b, nil
	}
	if dry {
		return nil, ErrFallsDry
	}
	return nil, ErrFull
}

// Leave frees the berth of a vessel and reports whether it had one.
func (p *Plan) Leave(v Vessel) bool {
	for title, other := range p.taken {
		if other.Name == v.Name {
			delete(p.taken, title)
			return true
		}
	}
	return false
}

// Free lists the berths that nobody lies in.
//
//codrel:part Looking around
func Free(p *Plan) []Berth { return p.berths }

// Longest is the length of the longest berth, in metres.
//
//codrel:part Looking around
func Longest(p *Plan) float64 { return 0 }

// Rank orders two vessels by who gets a place first. The rules are those of
// [the harbour order].
//
// [the harbour order]: ref:Phase
func Rank(a, b Vessel) int { return 0 }

// Reserve keeps a berth free for somebody who is yet to come, with all that the
// harbour needs to know of the call.
func Reserve(plan *Plan, vessel Vessel, from, until time.Time, because func(Berth) string, notes ...string) (title string, err error) {
	return "", nil
}

// Swap lets two vessels change places.
//
//codrel:let undocumented pass
func Swap(a, b Vessel) error { return nil }

/* */
func Ballast(v Vessel) float64 { return 0 }
