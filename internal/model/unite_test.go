package model_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/model"
)

// port is a module with a type of some members, all in one file.
func port(lib *model.Library, path string, members ...string) (*model.Module, *model.Declaration) {
	m, f := model.NewModule(lib, path), &model.Facts{Path: path + ".rs"}
	declare := func(parent *model.Declaration, name string) *model.Declaration {
		d := m.Declare(parent, "", model.Name{Text: name})
		d.Occurrences = []model.At{{Occurrence: &model.Occurrence{Name: name, Kind: model.KindStruct, Parent: -1}, File: f}}
		if parent != nil {
			d.Scope = parent.Path()
			parent.Members = append(parent.Members, d)
		}
		d.Settle()
		return d
	}
	d := declare(nil, "Port")
	m.Top, m.Files = append(m.Top, d), []*model.Facts{f}
	for _, name := range members {
		declare(d, name)
	}
	return m, d
}

func TestUnite(t *testing.T) {
	lib := &model.Library{Name: "quay"}
	unix, d := port(lib, "unix", "close", "fd")
	windows, other := port(lib, "windows", "close", "share")
	file := other.Occurrences[0].File
	share := other.Member("share")
	require.True(t, d.CanUnite(other))
	d.Unite(other)
	windows.Prune()

	assert.Len(t, d.Occurrences, 2)
	var names []string
	for _, m := range d.Members {
		names = append(names, m.Path())
	}
	assert.Equal(t, []string{"Port.close", "Port.fd", "Port.share"}, names)
	assert.Len(t, d.Member("close").Occurrences, 2)
	assert.Equal(t, share.Occurrences, d.Member("share").Occurrences)
	assert.Empty(t, windows.Top)
	assert.Zero(t, windows.Count())
	assert.Equal(t, 4, unix.Count())
	assert.True(t, unix.Changed() && windows.Changed())
	assert.Same(t, d, windows.Find("Port"), "its module knows it by what it is a part of")
	assert.Same(t, d, windows.Of(file, other.Occurrences[0].Occurrence))
	for range windows.Declarations {
		assert.Fail(t, "nothing is its own")
	}
}

func TestWhatCannotBeUnited(t *testing.T) {
	lib := &model.Library{Name: "quay"}
	m, d := port(lib, "unix")
	_, other := port(lib, "windows")
	assert.False(t, d.CanUnite(d))
	twin := m.Declare(nil, "", model.Name{Text: "Port", Space: "macro"})
	assert.False(t, d.CanUnite(other), "another declaration of its module has the name")
	assert.False(t, twin.CanUnite(other))
}

func TestCalledModules(t *testing.T) {
	m := model.NewModule(&model.Library{Name: "quay", Habits: &model.Habits{PathMark: "::", Nested: true}}, "quay::deep::shore")
	m.Name = "shore"
	assert.Equal(t, "quay::deep::shore", m.Written())
	m.Call("quay::beach")
	assert.Equal(t, []string{"quay::beach", "beach", "quay::deep::shore", "shore"}, []string{m.Path, m.Name, m.Written(), m.WrittenName()})
	m.Call("quay::coast")
	assert.Equal(t, []string{"quay::coast", "quay::deep::shore", "shore"}, []string{m.Path, m.Written(), m.WrittenName()})
	assert.True(t, m.Changed())
}
