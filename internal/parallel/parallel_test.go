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

func TestEachStops(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	var done atomic.Int64
	err := parallel.Each(ctx, 2, 1000, func(int) {
		if done.Add(1) == 10 {
			stop()
		}
	})
	require.ErrorIs(t, err, context.Canceled)
	assert.Less(t, done.Load(), int64(20), "each worker ends the piece that it is at, and takes no other")
}

func TestTryStopsAtTheFirstError(t *testing.T) {
	wrong := errors.New("the third fails")
	var done atomic.Int64
	err := parallel.Try(t.Context(), 2, 100_000, func(i int) error {
		done.Add(1)
		if i == 2 {
			return wrong
		}
		return nil
	})
	require.ErrorIs(t, err, wrong)
	assert.Less(t, done.Load(), int64(100_000))
	require.NoError(t, parallel.Try(t.Context(), 3, 0, func(int) error { return wrong }))
}
