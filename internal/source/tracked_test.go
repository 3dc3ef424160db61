package source_test

import (
	"bytes"
	"encoding/binary"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/source"
)

// gitIndex writes an index as gitformat-index(5) has it: with sums of so many bytes, each name
// whole in versions 2 and 3, and less what it shares with the one before in version 4.
func gitIndex(version uint32, sum int, names ...string) []byte {
	var out bytes.Buffer
	out.WriteString("DIRC")
	_ = binary.Write(&out, binary.BigEndian, []uint32{version, uint32(len(names))})
	last := ""
	for _, name := range names {
		entry := make([]byte, 40+sum, 128)
		flags := uint16(len(name))
		if version == 3 {
			flags |= 0x4000
		}
		entry = binary.BigEndian.AppendUint16(entry, flags)
		if version == 3 {
			entry = append(entry, 0x20, 0) // to be added later
		}
		if version == 4 {
			shared := 0
			for shared < min(len(last), len(name)) && last[shared] == name[shared] {
				shared++
			}
			if strip := len(last) - shared; strip > 127 {
				entry = append(entry, 0x80|byte((strip>>7)-1), byte(strip&0x7f))
			} else {
				entry = append(entry, byte(strip))
			}
			entry = append(append(entry, name[shared:]...), 0)
		} else {
			entry = append(entry, name...)
			entry = append(entry, make([]byte, 8-len(entry)%8)...)
		}
		out.Write(entry)
		last = name
	}
	out.Write(make([]byte, sum))
	return out.Bytes()
}

func TestTrackedFilesAreRead(t *testing.T) {
	long := string(bytes.Repeat([]byte("d"), 200)) + ".go" // what is cut from it needs two bytes
	files := []string{"a.go", "build/b.go", "build/" + long, "build/sub/c.go", "doc/d.go"}
	fsys := func(index []byte) fstest.MapFS {
		fsys := fstest.MapFS{".gitignore": {Data: []byte("build\n/a.go\n")}, "build/new.go": {}, "build/sub/new.go": {}, "build/other/new.go": {}, "doc/new.go": {}}
		for _, f := range files {
			fsys[f] = &fstest.MapFile{}
		}
		if index != nil {
			fsys[".git/index"] = &fstest.MapFile{Data: index}
		}
		return fsys
	}
	all := []string{"a.go", "build/b.go", "build/" + long, "build/sub/c.go", "doc/d.go", "doc/new.go"}
	for name, index := range map[string][]byte{
		"version 2": gitIndex(2, 20, files...), "version 3": gitIndex(3, 20, files...), "version 4": gitIndex(4, 20, files...),
		"SHA-256": gitIndex(2, 32, files...), "SHA-256, version 4": gitIndex(4, 32, files...),
	} {
		found, problems, err := source.Find(t.Context(), fsys(index), goFiles)
		require.NoError(t, err, name)
		assert.Empty(t, problems, name)
		assert.Equal(t, all, paths(found), "%s: what git tracks, and nothing else that the ignore file names", name)
	}

	whole := gitIndex(4, 20, files...)
	untracked := []string{"doc/d.go", "doc/new.go"}
	for n := range len(whole) - 20 {
		found, _, err := source.Find(t.Context(), fsys(whole[:n]), goFiles)
		require.NoError(t, err)
		require.Equal(t, untracked, paths(found), "an index cut at byte %d says nothing", n)
	}
	for name, index := range map[string][]byte{
		"none": nil, "not one": []byte("something else entirely"), "of a later version": gitIndex(5, 20, files...),
		"out of the tree": gitIndex(2, 20, "../a.go", "a.go"), "unsorted": gitIndex(2, 20, "build/b.go", "a.go"),
	} {
		found, _, err := source.Find(t.Context(), fsys(index), goFiles)
		require.NoError(t, err)
		assert.Equal(t, untracked, paths(found), name)
	}
}
