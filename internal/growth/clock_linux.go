package growth

import (
	"time"

	"golang.org/x/sys/unix"
)

// threadTime is the time that the processor spent on the calling thread: what other
// programs do meanwhile does not count.
func threadTime() time.Duration {
	var now unix.Timespec
	if unix.ClockGettime(unix.CLOCK_THREAD_CPUTIME_ID, &now) != nil {
		return time.Duration(time.Now().UnixNano())
	}
	return time.Duration(now.Nano())
}
