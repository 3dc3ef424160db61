package cli

import (
	"os"
	"runtime"
	"runtime/debug"
	"runtime/metrics"
)

// The heap a run grows to before the collector works hard. Reading makes much
// that is let go at once, and keeps about a third of this for the largest trees
// we know; collecting less often halves the time spent on it. What there is to
// read bounds it, above a floor. Beyond the limit the collector works as it must,
// so larger trees still fit.
const (
	collectEvery = 400       // percent of growth between collections
	softLimit    = 378 << 20 // bytes, where there is as much to read
	perByte      = 7         // of input, where there is more
	least        = 200 << 20 // bytes for any input
	mostPerByte  = 8         // of input, above that
)

// limitMemory sets the collector up, unless the user did.
func limitMemory() {
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(collectEvery)
	}
	allowMemory(0)
	if os.Getenv("GOMEMLIMIT") == "" {
		afterCollection()
	}
}

// allowMemory raises the limit for an input of this size: a limit that does not
// grow with what must be kept would have the collector work without end.
func allowMemory(input int64) {
	if os.Getenv("GOMEMLIMIT") == "" {
		debug.SetMemoryLimit(min(max(softLimit, input*perByte), least+input*mostPerByte))
	}
}

// afterCollection looks at what is left after each collection: where it comes close to the
// limit, as with half a million declarations on a single line, the limit makes room for
// three quarters as much again, or the collector would do nothing but run.
func afterCollection() {
	runtime.AddCleanup(new(mark), func(struct{}) {
		live := []metrics.Sample{{Name: "/gc/heap/live:bytes"}}
		if metrics.Read(live); live[0].Value.Kind() == metrics.KindUint64 {
			if left := int64(live[0].Value.Uint64()); left*3/2 > debug.SetMemoryLimit(-1) {
				debug.SetMemoryLimit(left * 7 / 4)
			}
		}
		afterCollection()
	}, struct{}{})
}

// mark is let go at once, so that the next collection finds it.
type mark struct{ _ [16]byte }
