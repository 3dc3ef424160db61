package workspace

import (
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"sync"

	"codrel/internal/build"
	"codrel/internal/recall"
	"codrel/internal/symbols"
)

// outsideFiles reads what lies outside the project and is named by its settings,
// and keeps a sum of each file.
type outsideFiles struct {
	dir    string // of the project
	target string // folder of the site; "" where none is written
	mu     sync.Mutex
	sums   map[string]recall.Sum
}

func (o *outsideFiles) outside() build.Outside { return build.Outside{Read: o.read, Way: o.way} }

// absolute is a path of the settings from the machine's root.
func (o *outsideFiles) absolute(name string) string {
	name = filepath.FromSlash(name)
	if filepath.IsAbs(name) {
		return filepath.Clean(name)
	}
	return filepath.Join(o.dir, name)
}

func (o *outsideFiles) read(name string) ([]byte, error) {
	file := o.absolute(name)
	data, err := readBounded(file)
	o.mu.Lock()
	defer o.mu.Unlock()
	if o.sums == nil {
		o.sums = map[string]recall.Sum{}
	}
	o.sums[file] = recall.SumOf(data, err)
	return data, err
}

// readBounded reads a plain file that is not larger than a file of names may be.
func readBounded(file string) ([]byte, error) {
	info, err := os.Stat(file)
	switch {
	case err != nil:
		return nil, err
	case info.IsDir():
		return nil, fs.ErrInvalid
	case !info.Mode().IsRegular():
		return nil, fmt.Errorf("it is not a regular file")
	case info.Size() > symbols.Largest:
		return nil, fmt.Errorf("it has %d MB; at most %d MB are read", info.Size()/1e6, int64(symbols.Largest)/1e6)
	}
	return os.ReadFile(file)
}

// way is how the root of the site reaches a folder: a folder that moves alone
// loses its neighbours, so it is relative.
func (o *outsideFiles) way(folder string) string {
	from := o.target
	if from == "" {
		from = o.dir
	}
	rel, err := filepath.Rel(from, o.absolute(folder))
	if err != nil {
		return "file://" + filepath.ToSlash(o.absolute(folder)) + "/"
	}
	return filepath.ToSlash(rel) + "/"
}

// same reports whether files that were read before are as they were.
func same(sums map[string]recall.Sum) bool {
	for file, sum := range sums {
		data, err := readBounded(file)
		if recall.SumOf(data, err) != sum {
			return false
		}
	}
	return true
}
