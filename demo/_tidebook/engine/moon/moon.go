// Package moon knows the moon, which the tides follow.
package moon

import "time"

// Phase is a part of the month.
type Phase int

// The four phases that almanacs print.
const (
	New Phase = iota
	FirstQuarter
	Full
	LastQuarter
)

// Of is the phase at a moment.
func Of(at time.Time) Phase { return New }
