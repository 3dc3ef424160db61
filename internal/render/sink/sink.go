// Package sink owns where finished pages go: a folder on disk that is replaced
// as a whole, or memory.
//
// A folder is staged beside its target and exchanged with it in one step, so
// that a reader, and a build that is killed at any moment, see a whole site. The
// package knows files and nothing of what is in them.
package sink

import (
	"bytes"
	"slices"
	"sync"
)

// Sink takes finished files. Put may be called from several goroutines, and
// must not hold on to data.
type Sink interface {
	Put(path string, data []byte) error
}

// Memory keeps files in memory. The zero value is ready to use.
type Memory struct {
	mu    sync.Mutex
	files map[string][]byte
}

// Put keeps a copy of a file.
func (m *Memory) Put(path string, data []byte) error {
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.files == nil {
		m.files = map[string][]byte{}
	}
	m.files[path] = bytes.Clone(data)
	return nil
}

// Get returns a file, or nil.
func (m *Memory) Get(path string) []byte {
	m.mu.Lock()
	defer m.mu.Unlock()
	return m.files[path]
}

// Paths are the paths of all files, sorted.
func (m *Memory) Paths() []string {
	m.mu.Lock()
	defer m.mu.Unlock()
	paths := make([]string, 0, len(m.files))
	for p := range m.files {
		paths = append(paths, p)
	}
	slices.Sort(paths)
	return paths
}
