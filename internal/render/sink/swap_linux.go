package sink

import (
	"errors"
	"os"
	"syscall"

	"golang.org/x/sys/unix"
)

// swap exchanges the staged folder and the target in one step (renameat2(2)).
func (f *Folder) swap() error {
	return unix.Renameat2(unix.AT_FDCWD, f.staging, unix.AT_FDCWD, f.target, unix.RENAME_EXCHANGE)
}

// alive reports whether a process with this number exists.
func alive(pid int) bool {
	p, err := os.FindProcess(pid)
	if err != nil {
		return false
	}
	err = p.Signal(syscall.Signal(0))
	return err == nil || errors.Is(err, os.ErrPermission)
}
