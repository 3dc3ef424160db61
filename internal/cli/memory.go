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
	softLimit    = 378 << 20 // bytes
	perByte      = 7         // of input
)

// limitMemory sets the collector up, unless the user did.
func limitMemory() {
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(collectEvery)
	}
	allowMemory(0)
}

// allowMemory raises the limit for an input of this size: a limit that does not
// grow with what must be kept would have the collector work without end.
func allowMemory(input int64) {
	if os.Getenv("GOMEMLIMIT") == "" {
		debug.SetMemoryLimit(max(softLimit, input*perByte))
	}
}
