package sink

import (
	"crypto/sha256"
	"fmt"
	"io/fs"
	"path/filepath"
)

// Sum stands for all files of a written folder: their paths, sizes and times. It
// tells whether anybody touched the folder since; the error is that of the file
// system.
func Sum(target string) ([sha256.Size]byte, error) {
	h := sha256.New()
	err := filepath.WalkDir(target, func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		info, err := e.Info()
		if err != nil {
			return err
		}
		_, err = fmt.Fprintf(h, "%q %d %d %s\n", p, info.Size(), info.ModTime().UnixNano(), info.Mode())
		return err
	})
	return [sha256.Size]byte(h.Sum(nil)), err
}
