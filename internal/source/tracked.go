package source

import (
	"bytes"
	"encoding/binary"
	"io/fs"
	"path"
	"slices"
)

// This file knows what git tracks: what is tracked is part of a repository although a pattern
// of an ignore file matches it (gitignore(5)).

// tracked are the files of a repository that git tracks, and the folders they are in.
type tracked struct{ files, folders map[string]bool }

// trackedIn reads the index of the repository whose root a file system has; it is empty where
// there is none, or one that nobody here can read.
func trackedIn(fsys fs.FS) tracked {
	t := tracked{map[string]bool{}, map[string]bool{}}
	const largest = 256 << 20
	info, err := fs.Stat(fsys, ".git/index")
	if err != nil || !info.Mode().IsRegular() || info.Size() > largest {
		return t
	}
	data, err := fs.ReadFile(fsys, ".git/index")
	if err != nil {
		return t
	}
	names, ok := indexNames(data, 20)
	if !ok {
		names, _ = indexNames(data, 32) // of a repository whose sums are SHA-256
	}
	for _, name := range names {
		t.files[name] = true
		for dir := path.Dir(name); dir != "." && !t.folders[dir]; dir = path.Dir(dir) {
			t.folders[dir] = true
		}
	}
	return t
}

// indexNames are the names in an index (gitformat-index(5)) whose sums have so many bytes; ok
// is false where it is none, or is damaged.
func indexNames(data []byte, sum int) (names []string, ok bool) {
	if len(data) < 12 || string(data[:4]) != "DIRC" {
		return nil, false
	}
	version, count := binary.BigEndian.Uint32(data[4:]), binary.BigEndian.Uint32(data[8:])
	if version < 2 || version > 4 || int64(count) > int64(len(data)) {
		return nil, false
	}
	at, last := 12, []byte(nil)
	for range count {
		begin := at
		at += 40 + sum
		if at+2 > len(data) {
			return nil, false
		}
		flags := binary.BigEndian.Uint16(data[at:])
		if at += 2; flags&0x4000 != 0 && version > 2 {
			at += 2
		}
		var name []byte
		if version == 4 { // less of the name before, and more
			strip, size := varint(data[min(at, len(data)):])
			if size == 0 || strip > uint64(len(last)) {
				return nil, false
			}
			at += size
			name = slices.Clone(last[:len(last)-int(strip)])
		}
		end := bytes.IndexByte(data[min(at, len(data)):], 0)
		if end < 0 {
			return nil, false
		}
		name = append(name, data[at:at+end]...)
		if at += end + 1; version < 4 {
			at = begin + (at-1-begin+8)/8*8
		}
		if bytes.Compare(name, last) < 0 || !fs.ValidPath(string(name)) {
			return nil, false
		}
		names, last = append(names, string(name)), name
	}
	return names, true
}

// varint reads a number as git writes offsets: seven bits a byte, the first ones first, each
// but the last counting one more.
func varint(data []byte) (n uint64, size int) {
	for size < len(data) && size < 9 {
		b := data[size]
		n = n<<7 | uint64(b&0x7f)
		if size++; b&0x80 == 0 {
			return n, size
		}
		n++
	}
	return 0, 0
}
