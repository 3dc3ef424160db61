package tide

import (
	"sort"
	"time"
)

// Table holds the tides of a harbour, as the almanac prints them.
type Table struct {
	Harbour string
	tides   []Tide
}

// FromTable makes a table of tides in any order.
func FromTable(harbour string, tides ...Tide) *Table {
	sort.Slice(tides, func(i, j int) bool { return tides[i].At.Before(tides[j].At) })
	return &Table{Harbour: harbour, tides: tides}
}

// Height is found between the two tides around a moment, see [Interpolate].
func (t *Table) Height(at time.Time) (Height, error) {
	i := sort.Search(len(t.tides), func(i int) bool { return t.tides[i].At.After(at) })
	if i == 0 || i == len(t.tides) {
		return 0, ErrTooFar
	}
	return Interpolate(t.tides[i-1], t.tides[i], at), nil
}

// Next is the first tide behind a moment.
func (t *Table) Next(at time.Time) (Tide, bool) {
	for _, tide := range t.tides {
		if tide.At.After(at) {
			return tide, true
		}
	}
	return Tide{}, false
}

// Interpolate finds the height between two tides by the rule of twelfths.

func Interpolate(before, after Tide, at time.Time) Height {
	part := float64(at.Sub(before.At)) / float64(after.At.Sub(before.At))
	return before.Height + Height(part)*(after.Height-before.Height)
}

// Series is a run of values at regular moments.
type Series[T any] struct {
	Start  time.Time
	Step   time.Duration
	Values []T
}

// At is the value that holds at a moment, and false outside the series.
func (s Series[T]) At(at time.Time) (value T, ok bool) {
	i := int(at.Sub(s.Start) / s.Step)
	if i < 0 || i >= len(s.Values) {
		return value, false
	}
	return s.Values[i], true
}

// Map makes a series of what change gives for each value.
func Map[T, U any](s Series[T], change func(T) U) Series[U] {
	out := Series[U]{Start: s.Start, Step: s.Step}
	for _, v := range s.Values {
		out.Values = append(out.Values, change(v))
	}
	return out
}

// Number is what heights can be reckoned with.
type Number interface {
	~float32 | ~float64
}

// Highest is the greatest of the values, and zero where there is none.
func Highest[N Number](values ...N) (highest N) {
	for i, v := range values {
		if i == 0 || v > highest {
			highest = v
		}
	}
	return highest
}
