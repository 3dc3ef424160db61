package cli

import (
	"io"
	"os"
	"sync"
	"time"

	"github.com/schollz/progressbar/v3"
	"golang.org/x/term"
)

// progress draws a bar on a terminal once a run takes longer than a moment. On
// anything else it stays silent.
type progress struct {
	mu    sync.Mutex
	out   io.Writer // nil: silent
	begun time.Time
	name  string
	bar   *progressbar.ProgressBar
}

// moment is how long a run may take before it says what it is doing.
const moment = 400 * time.Millisecond

func (a *app) progress() *progress {
	p := &progress{begun: time.Now()}
	if !a.quiet && isTerminal(a.stderr) {
		p.out = a.stderr
	}
	return p
}

func isTerminal(w any) bool {
	f, ok := w.(*os.File)
	return ok && term.IsTerminal(int(f.Fd()))
}

// terminalWidth is how many characters fit on a line; 80 where nobody knows.
func terminalWidth(w any) int {
	if f, ok := w.(*os.File); ok {
		if width, _, err := term.GetSize(int(f.Fd())); err == nil && width > 0 {
			return width
		}
	}
	return 80
}

// stage takes the progress of a stage; total is 0 where it cannot be counted.
func (p *progress) stage(name string, done, total int) {
	if p.out == nil || time.Since(p.begun) < moment {
		return
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	if name != p.name || p.bar == nil {
		p.clear()
		p.name = name
		if total == 0 {
			total = -1 // a spinner
		}
		p.bar = progressbar.NewOptions(total, progressbar.OptionSetWriter(p.out), progressbar.OptionSetDescription(name),
			progressbar.OptionThrottle(80*time.Millisecond), progressbar.OptionClearOnFinish(), progressbar.OptionSetWidth(24),
			progressbar.OptionShowCount(), progressbar.OptionSetPredictTime(false))
	}
	_ = p.bar.Set(done) // a bar that cannot be drawn is no reason to stop
}

func (p *progress) clear() {
	if p.bar != nil {
		_ = p.bar.Clear()
		p.bar = nil
	}
}

// end takes the bar away.
func (p *progress) end() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.clear()
	p.out = nil
}
