package tide

import "testing"

func TestInterpolate(t *testing.T) {
	before, after := Tide{Height: 1}, Tide{Height: 3}
	if h := Interpolate(before, after, before.At); h != 1 {
		t.Errorf("height %v at the first tide", h)
	}
}
