package parallel_test

import (
	"context"
	"errors"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/parallel"
)

func TestEach(t *testing.T) {
	for _, workers := range []int{-1, 0, 1, 3, 200} {
		for _, n := range []int{0, 1, 100} {
			times := make([]int, n)
			require.NoError(t, parallel.Each(t.Context(), workers, n, func(i int) { times[i]++ }))
			for i, once := range times {
				assert.Equal(t, 1, once, "index %d of %d on %d workers", i, n, workers)
			}
		}
	}
}

// Pieces that begin after the tenth wait until the context has ended, or a second worker
// could take any number of them while the first is being scheduled.
func TestEachStops(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	stopped := make(chan struct{})
	var begun atomic.Int64
	err := parallel.Each(ctx, 2, 1000, func(int) {
		switch n := begun.Add(1); {
		case n == 10:
			stop()
			close(stopped)
		case n > 10:
			<-stopped
		}
	})
	require.ErrorIs(t, err, context.Canceled)
	assert.LessOrEqual(t, begun.Load(), int64(11), "each of two workers ends the piece that it is at, and takes no other")
}

func TestTryStopsAtTheFirstError(t *testing.T) {
	wrong := errors.New("the third fails")
	for _, workers := range []int{1, 2, 8} {
		var begun atomic.Int64
		err := parallel.Try(t.Context(), workers, 1000, func(i int) error {
			begun.Add(1)
			if i == 2 {
				return wrong
			}
			return nil
		})
		require.ErrorIs(t, err, wrong)
		if workers == 1 {
			assert.Equal(t, int64(3), begun.Load(), "nothing is begun after the failure")
		}
	}
	require.NoError(t, parallel.Try(t.Context(), 3, 0, func(int) error { return wrong }))
}
