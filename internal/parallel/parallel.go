// Package parallel runs the same work for each index of a list on several workers. It owns
// the pools of the program, and must not know what the work is.
package parallel

import (
	"context"
	"sync/atomic"

	"golang.org/x/sync/errgroup"
)

// Each runs work for 0 to n-1, each index once, on so many workers, one at the least, and
// returns when all is done. Results go to places of their own by index, so that the order
// in which workers finish shows nowhere. A context that ends stops it between two pieces of
// work; its error is returned.
func Each(ctx context.Context, workers, n int, work func(i int)) error {
	return Try(ctx, workers, n, func(i int) error { work(i); return nil })
}

// Try is [Each] for work that may fail: the first error stops it between two pieces of
// work, and is returned.
func Try(ctx context.Context, workers, n int, work func(i int) error) error {
	group, ctx := errgroup.WithContext(ctx)
	var next atomic.Int64
	for range max(1, min(workers, n)) {
		group.Go(func() error {
			for ctx.Err() == nil {
				i := int(next.Add(1)) - 1
				if i >= n {
					return nil
				}
				if err := work(i); err != nil {
					return err
				}
			}
			return context.Cause(ctx)
		})
	}
	return group.Wait()
}
