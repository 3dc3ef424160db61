package recall

import (
	"bufio"
	"compress/gzip"
	"crypto/sha256"
	"encoding/gob"
	"encoding/hex"
	"os"
	"path/filepath"
	"slices"
)

// Store keeps memories in a folder, one file each.
type Store struct{ folder string }

// mostKept is how many memories a store holds; the oldest go first.
const mostKept = 32

// OpenStore opens the store of the program in the user's cache folder. ok is
// false where there is no such folder: then nothing is remembered.
func OpenStore(program string) (store Store, ok bool) {
	dir, err := os.UserCacheDir()
	if err != nil {
		return Store{}, false
	}
	return Store{folder: filepath.Join(dir, program, "builds")}, true
}

// Key makes one key of several texts.
func Key(parts ...string) string {
	h := sha256.New()
	for _, p := range parts {
		sum := sha256.Sum256([]byte(p))
		h.Write(sum[:])
	}
	return hex.EncodeToString(h.Sum(nil))
}

func (s Store) file(key string) string { return filepath.Join(s.folder, key+".gob.gz") }

// Load reads a memory into the value that to points at. It reports false where
// there is none, or none that can be read: that is no error, only more work.
func (s Store) Load(key string, to any) bool {
	f, err := os.Open(s.file(key))
	if err != nil {
		return false
	}
	defer f.Close()
	z, err := gzip.NewReader(bufio.NewReader(f))
	if err != nil {
		return false
	}
	return gob.NewDecoder(z).Decode(to) == nil
}

// Save keeps a memory. A reader never sees half of it.
func (s Store) Save(key string, value any) error {
	if err := os.MkdirAll(s.folder, 0o700); err != nil {
		return err
	}
	f, err := os.CreateTemp(s.folder, "new-*")
	if err != nil {
		return err
	}
	defer os.Remove(f.Name()) // fails where it was renamed, as it should be
	if err := write(f, value); err != nil {
		return err
	}
	if err := os.Rename(f.Name(), s.file(key)); err != nil {
		return err
	}
	s.prune()
	return nil
}

func write(f *os.File, value any) error {
	z, _ := gzip.NewWriterLevel(f, gzip.BestSpeed)
	err := gob.NewEncoder(z).Encode(value)
	if closed := z.Close(); err == nil {
		err = closed
	}
	if closed := f.Close(); err == nil {
		err = closed
	}
	return err
}

// prune drops the oldest memories beyond the most that are kept.
func (s Store) prune() {
	entries, err := os.ReadDir(s.folder)
	if err != nil || len(entries) <= mostKept {
		return
	}
	age := func(e os.DirEntry) int64 {
		info, err := e.Info()
		if err != nil {
			return 0
		}
		return info.ModTime().UnixNano()
	}
	slices.SortFunc(entries, func(a, b os.DirEntry) int { return int(min(1, max(-1, age(a)-age(b)))) })
	for _, e := range entries[:len(entries)-mostKept] {
		_ = os.Remove(filepath.Join(s.folder, e.Name())) // what stays is dropped the next time
	}
}
