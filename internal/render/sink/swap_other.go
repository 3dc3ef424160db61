//go:build !linux

package sink

import (
	"errors"
	"os"
	"runtime"
	"syscall"
)

// swap has no portable form; the caller falls back to two renames.
func (f *Folder) swap() error { return errors.ErrUnsupported }

// alive reports whether a process with this number exists. Windows finds only
// processes that do; elsewhere the empty signal tells.
func alive(pid int) bool {
	p, err := os.FindProcess(pid)
	if err != nil {
		return false
	}
	if runtime.GOOS == "windows" {
		return true
	}
	err = p.Signal(syscall.Signal(0))
	return err == nil || errors.Is(err, os.ErrPermission)
}
