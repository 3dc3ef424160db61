//go:build !linux

package growth

import "time"

var begun = time.Now()

// threadTime is the time since the program began: it counts what other programs do
// meanwhile, but repeated measures take the least.
func threadTime() time.Duration { return time.Since(begun) }

func processTime() time.Duration { return time.Since(begun) }
