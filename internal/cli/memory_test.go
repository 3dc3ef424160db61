package cli_test

import (
	"math"
	"os"
	"runtime/debug"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/cli"
)

// The limit grows with the input: from a floor, at eight times what is read above that, to
// what the largest trees take, and beyond it by what must be kept.
func TestMemoryLimit(t *testing.T) {
	if os.Getenv("GOMEMLIMIT") != "" {
		t.Skip("the limit is the caller's")
	}
	before := debug.SetMemoryLimit(-1)
	defer debug.SetMemoryLimit(before)
	const mb = 1 << 20
	last := int64(0)
	for _, c := range []struct{ input, want int64 }{{0, 200}, {1, 208}, {10, 280}, {22, 376}, {30, 378}, {49, 378}, {100, 700}, {1000, 7000}} {
		cli.AllowMemory(c.input * mb)
		got := debug.SetMemoryLimit(-1)
		assert.Equal(t, c.want*mb, got, "%d MB of input", c.input)
		assert.LessOrEqual(t, got, 200*mb+8*c.input*mb)
		assert.GreaterOrEqual(t, got, last)
		last = got
	}
	t.Setenv("GOMEMLIMIT", "1GiB")
	debug.SetMemoryLimit(math.MaxInt64)
	cli.AllowMemory(0)
	assert.Equal(t, int64(math.MaxInt64), debug.SetMemoryLimit(-1), "who sets the limit keeps it")
}
