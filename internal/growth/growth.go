// Package growth tests that work takes time in proportion to its input: it makes an input
// at a size and at twice that, and compares the time that a processor spends on each. It
// is for tests, and must not know what the work is.
package growth

import (
	"fmt"
	"runtime"
	"runtime/debug"
	"time"
)

// Most is how many times as long twice the input may take.
const Most = 2.6

// Sizes in bytes between which an input is tried, and the time from which a measure says
// something.
const (
	smallest = 1 << 10
	largest  = 4 << 20
	telling  = time.Millisecond
)

// Form is one form of input.
type Form struct {
	Name string
	// Make makes the input of so many parts.
	Make func(n int) string
}

// Repeat is the form of a text, again and again.
func Repeat(name, text string) Form {
	return Form{Name: name, Make: func(n int) string { return repeat(text, n) }}
}

// Around is the form of texts, again and again, around another one.
func Around(name, open, middle, closing string) Form {
	return Form{Name: name, Make: func(n int) string { return repeat(open, n) + middle + repeat(closing, n) }}
}

func repeat(text string, n int) string {
	out := make([]byte, 0, len(text)*n)
	for range n {
		out = append(out, text...)
	}
	return string(out)
}

// Project is one form of the files of a project, texts by their paths.
type Project struct {
	Name string
	// Make makes the files of so many parts.
	Make func(n int) map[string]string
}

// Trouble says what takes too long. It is empty where the time that work takes grows no
// faster than the form. Work may use one goroutine only, the calling one.
//
// A first measure clears most forms. One that fails it is measured again over four doublings:
// only what grows too fast in each of them is trouble.
func Trouble(form Form, work func(input string)) string {
	defer debug.SetGCPercent(debug.SetGCPercent(1000)) // the collector's time is not the form's
	defer debug.SetMemoryLimit(debug.SetMemoryLimit(4 << 30))
	runtime.LockOSThread()
	defer runtime.UnlockOSThread()
	m := measurer[string]{name: form.Name, make: form.Make, work: work, clock: threadTime, telling: telling}
	m.size = func(n int) int { return len(form.Make(n)) }
	return m.trouble(max(1, smallest/max(1, m.size(1))))
}

// ProjectTrouble is the same for work on a whole project, on as many goroutines as it likes.
func ProjectTrouble(form Project, work func(files map[string]string)) string {
	m := measurer[map[string]string]{name: form.Name, make: form.Make, work: work, clock: processTime, telling: tellingOfProjects}
	m.size = func(n int) int {
		size := 0
		for _, text := range form.Make(n) {
			size += len(text)
		}
		return size
	}
	return m.trouble(fewestParts)
}

// tellingOfProjects is the time from which a measure of a whole project says something.
var tellingOfProjects = 24 * telling

// fewestParts is how many parts a project has at least.
const fewestParts = 100

// measurer measures work on one form.
type measurer[T any] struct {
	name    string
	make    func(n int) T
	size    func(n int) int
	work    func(T)
	clock   func() time.Duration
	telling time.Duration
}

// trouble is what is wrong with growth from n parts on, if it is so each of three times: a
// machine that does something else meanwhile is no trouble of the work.
func (m *measurer[T]) trouble(n int) (said string) {
	for range 3 {
		if said = m.once(n); said == "" {
			break
		}
	}
	return said
}

func (m *measurer[T]) once(n int) string {
	once := m.measure(n, 1)
	for once < m.telling && m.size(2*n) < largest {
		for step := 0; step == 0 || step < 5 && once < m.telling>>step && m.size(2*n) < largest; step++ {
			n *= 2
		}
		once = m.measure(n, 1)
	}
	if once > 400*m.telling { // so long for so little that it need not be doubled
		return fmt.Sprintf("%s: %d bytes take %v", m.name, m.size(n), once)
	}
	if once < m.telling/4 {
		return "" // the largest input takes no time
	}
	twice := m.measure(2*n, 1)
	if ratio(once, twice) <= Most {
		return ""
	}
	// What is quadratic is so at every size; memory that is first touched, a collector that
	// begins to run or a cache that is full makes one doubling dear, or two.
	said := ""
	before := m.measure(n, 4)
	for doubling := range doublings {
		n *= 2
		runs := 2
		if doubling > 1 {
			runs = 1
		}
		now := m.measure(n, runs)
		if ratio(before, now) <= Most {
			return ""
		}
		if said == "" {
			said = fmt.Sprintf("%s: %d bytes take %v, twice as many %v", m.name, m.size(n/2), before, now)
		}
		if now > 300*m.telling {
			break
		}
		before = now
	}
	return said
}

// doublings is how many doublings in a row must take too long.
const doublings = 4

func ratio(once, twice time.Duration) float64 { return float64(twice) / float64(max(once, 1)) }

// measure is the least time that work takes on an input of so many parts, of so many runs.
func (m *measurer[T]) measure(n, runs int) time.Duration {
	input := m.make(n)
	least := time.Duration(0)
	for i := range runs {
		if i > 0 {
			runtime.GC()
		}
		begun := m.clock()
		m.work(input)
		if took := m.clock() - begun; i == 0 || took < least {
			least = took
		}
	}
	return least
}
