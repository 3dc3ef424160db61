// Package tide predicts how high the water stands in a harbour.
//
// A [Curve] is made from the constituents of a harbour, each a wave of its own
// with a speed, a range and a phase. [Predict] adds them up. Between the hours
// of a table, [Interpolate] is quicker and nearly as good.
//
// # Datum
//
// All heights are in metres above chart datum, the level below which the water
// seldom falls:
//
//	depth of water = charted depth + height of tide
//
// There are three ways to get a curve:
//
//   - from a table, with [FromTable],
//   - from constituents, with [NewCurve],
//   - from [Neaps] or [Springs], when nothing better is known.
//
// The method is that of the [harmonic handbook].
//
// [harmonic handbook]: https://handbook.example/harmonic
package tide

import (
	"errors"
	"time"
)

// Height is a level of water in metres above chart datum.
type Height float64

// Metres is the height as a plain number.
func (h Height) Metres() float64 { return float64(h) }

// Above reports whether h is higher than other.
func (h Height) Above(other Height) bool { return h > other }

// Tide is one high or low water.
type Tide struct {
	// At is when it happens.
	At time.Time
	// Height is how high the water stands then.
	Height Height
	// High is true at high water.
	High bool
}

// Range is the difference between this tide and the next.
//
// It is always positive, see [Tide.Hight].
func (t Tide) Range(next Tide) Height {
	if t.Height.Above(next.Height) {
		return t.Height - next.Height
	}
	return next.Height - t.Height
}

// A Predictor tells how high the water stands.
//
// [Curve] and [Table] are predictors, and so is anything else that can answer
// the one question.
type Predictor interface {
	Height(at time.Time) (Height, error)
}

// Errors that predictors give.
var (
	// ErrTooFar says that a moment lies beyond what can be foreseen.
	ErrTooFar = errors.New("tide: too far ahead")
	ErrNoData = errors.New("tide: no constituents") // there is nothing to predict from
)

// The names of the usual constituents, fastest first.
const (
	M4 = "M4"
	S2 = "S2"
	M2 = "M2"
	O1 = "O1"
)

// Horizon is how far ahead a curve may be trusted.
//
//codrel:words forecast, outlook
const Horizon = 2 * 365 * 24 * time.Hour
