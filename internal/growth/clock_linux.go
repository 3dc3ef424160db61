package growth

import (
	"time"

	"golang.org/x/sys/unix"
)

// threadTime is the time that the processor spent on the calling thread: what other
// programs do meanwhile does not count.
func threadTime() time.Duration { return spent(unix.CLOCK_THREAD_CPUTIME_ID) }

// processTime is the time that all processors spent on the program.
func processTime() time.Duration { return spent(unix.CLOCK_PROCESS_CPUTIME_ID) }

func spent(clock int32) time.Duration {
	var now unix.Timespec
	if unix.ClockGettime(clock, &now) != nil {
		return time.Duration(time.Now().UnixNano())
	}
	return time.Duration(now.Nano())
}
