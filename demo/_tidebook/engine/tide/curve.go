package tide

import (
	"math"
	"time"
)

// Constituent is one wave of a tide.
type Constituent struct {
	Name  string
	Speed float64 // degrees an hour
	Range Height  // from trough to crest
	Phase float64 // degrees at the epoch
}

// Curve predicts heights from constituents. Its zero value has none and
// predicts nothing.
type Curve struct {
	Mean         Height // level that the waves swing around
	constituents []Constituent
	epoch        time.Time
}

// NewCurve makes a curve that swings around mean.
func NewCurve(mean Height, epoch time.Time, waves ...Constituent) *Curve {
	return &Curve{Mean: mean, constituents: waves, epoch: epoch}
}

// Height is the height at a moment, or [ErrTooFar] beyond the [Horizon].
func (c *Curve) Height(at time.Time) (Height, error) {
	if len(c.constituents) == 0 {
		return 0, ErrNoData
	}
	hours := at.Sub(c.epoch).Hours()
	if hours > Horizon.Hours() {
		return 0, ErrTooFar
	}
	sum := float64(c.Mean)
	for _, w := range c.constituents {
		sum += float64(w.Range) / 2 * math.Cos((w.Speed*hours-w.Phase)*math.Pi/180)
	}
	return Height(sum), nil
}

// Waves are the constituents, strongest first.
func (c *Curve) Waves() []Constituent { return c.constituents }

// Season is a part of the fortnightly swing.
type Season int

// The seasons of a fortnight.
const (
	Neaps   Season = iota // small ranges
	Rising                // from neaps to springs
	Springs               // great ranges
	Falling               // from springs to neaps
)

// String is the season's name.
func (s Season) String() string { return [...]string{"neaps", "rising", "springs", "falling"}[s] }

// Predict asks a predictor for the heights at regular steps.
//
// It stops at the first error and gives what it has until then.
func Predict(from Predictor, start time.Time, step time.Duration, count int) ([]Height, error) {
	heights := make([]Height, 0, count)
	for i := range count {
		h, err := from.Height(start.Add(time.Duration(i) * step))
		if err != nil {
			return heights, err
		}
		heights = append(heights, h)
	}
	return heights, nil
}

// Level gives the height at one moment, and zero where there is none.
//
// Deprecated: use [Curve.Height], which says what went wrong.
func Level(c *Curve, at time.Time) Height {
	h, _ := c.Height(at)
	return h
}

// Slack was the time between the tides.
//
// Deprecated: gone.
func Slack(t Tide) time.Duration { return 0 }
