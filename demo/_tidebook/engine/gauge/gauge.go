// Package gauge reads tide gauges over a wire.
package gauge

// Reading is one value that a gauge sent.
type Reading struct {
	Gauge  int
	Metres float64
}

// Last is the newest reading of a gauge.
func Last(gauge int) Reading { return Reading{Gauge: gauge} }

// Poll asks a gauge for its readings, newest first.
func Poll(gauge int, most int ([]Reading, error) {
	return nil, nil
}
