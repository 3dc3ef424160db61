package cli

import (
	"os"
	"runtime/debug"
)

// The heap a run grows to before the collector works hard. Reading makes much
// that is let go at once, and keeps about a third of this for the largest trees
// we know; collecting less often halves the time spent on it. Beyond the limit
// the collector works as it must, so larger trees still fit.
const (
	collectEvery = 400       // percent of growth between collections
	softLimit    = 368 << 20 // bytes
)

// limitMemory sets the collector up, unless the user did.
func limitMemory() {
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(collectEvery)
	}
	if os.Getenv("GOMEMLIMIT") == "" {
		debug.SetMemoryLimit(softLimit)
	}
}
