package model

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func harbour() *Module { return NewModule(&Library{Name: "tide", Habits: &Habits{}}, "harbour") }

// Names are found however many there are, in what encloses them and nowhere else.
func TestNamesOfMany(t *testing.T) {
	m := harbour()
	const types, members = 700, 9
	for i := range types {
		m.Expect(i % 3) // a wrong guess costs nothing but room
		parent := m.Declare(nil, "", Name{Text: fmt.Sprint("Berth", i)})
		for k := range members {
			m.Declare(parent, parent.Path(), Name{Text: fmt.Sprint("depth", k)})
		}
	}
	assert.Equal(t, types*(members+1), m.Count())
	for i := range types {
		parent := m.Find(fmt.Sprint("Berth", i))
		require.NotNil(t, parent)
		for k := range members {
			d := parent.Member(fmt.Sprint("depth", k))
			require.NotNil(t, d)
			assert.Same(t, parent, d.Parent)
			assert.Same(t, d, m.Lookup(fmt.Sprintf("Berth%d.depth%d", i, k)))
			assert.Same(t, d, m.Declare(parent, parent.Path(), Name{Text: fmt.Sprint("depth", k)}), "it is there")
		}
		assert.Nil(t, parent.Member("Berth1"))
		assert.Nil(t, m.Find("depth1"))
	}
	n := 0
	for range m.Declarations {
		n++
	}
	assert.Equal(t, m.Count(), n)
}

// Declarations that share their text are one after the other, and each is itself.
func TestNamesakes(t *testing.T) {
	m := harbour()
	names := []Name{{Text: "Tide"}, {Text: "Tide", Space: "macro"}, {Text: "Tide", Arity: 2}, {Text: "Tide", Space: "macro", Arity: 1}}
	var made []*Declaration
	for _, name := range names {
		made = append(made, m.Declare(nil, "", name))
	}
	for i, d := range made {
		assert.Same(t, d, m.Declare(nil, "", names[i]))
		assert.Equal(t, names[i].Space, d.Space())
		assert.Equal(t, names[i].Arity, d.Arity())
		assert.True(t, m.Declares(nil, names[i]))
		var all []*Declaration
		for other := range d.Namesakes {
			all = append(all, other)
		}
		assert.Equal(t, made, all)
	}
	assert.False(t, m.Declares(nil, Name{Text: "Tide", Arity: 3}))
	assert.Equal(t, []string{"tide/harbour#Tide", "tide/harbour#macro:Tide", "tide/harbour#Tide-2", "tide/harbour#macro:Tide-1"}, idsOf(made))
}

func idsOf(list []*Declaration) (out []string) {
	for _, d := range list {
		out = append(out, d.ID())
	}
	return out
}

// What is called something else by its users is found under both names, and keeps its ID.
func TestRenamed(t *testing.T) {
	m := harbour()
	d, taken := m.Declare(nil, "", Name{Text: "berth"}), m.Declare(nil, "", Name{Text: "Quay"})
	inner := m.Declare(d, "berth", Name{Text: "depth"})
	d.Members = append(d.Members, inner)
	m.Rename(d, "Berth")
	assert.Same(t, d, m.Find("Berth"))
	assert.Same(t, d, m.Find("berth"))
	assert.Equal(t, "tide/harbour#berth", d.ID())
	assert.Equal(t, "berth", d.Written())
	assert.Equal(t, "Berth.depth", inner.Path())
	assert.Same(t, inner, m.Lookup("Berth.depth"))
	m.Rename(d, "Quay")
	assert.Same(t, taken, m.Find("Quay"), "what has the name keeps it")
	assert.True(t, m.Changed())

	under := m.Declare(nil, "", Name{Text: "Port"})
	m.Seat(d, under, "Mooring")
	assert.Equal(t, "Port.Mooring", d.Path())
	assert.Equal(t, "tide/harbour#berth", d.ID(), "where its files declare it")
	assert.Same(t, d, m.Find("berth"))
}

// What stands in something that another file declares is found by its path until it is put
// there, and among the members of that from then on.
func TestAttached(t *testing.T) {
	m := harbour()
	first := m.Declare(nil, "Tide", Name{Text: "high"})
	again := m.Declare(nil, "Tide", Name{Text: "high", Arity: 1})
	assert.Same(t, first, m.Lookup("Tide.high"))
	assert.Equal(t, "high", first.Written())
	tide := m.Declare(nil, "", Name{Text: "Tide"})
	m.Attach(first, tide)
	assert.Same(t, first, tide.Member("high"))
	assert.Equal(t, "tide/harbour#Tide.high", first.ID())
	assert.Equal(t, "tide/harbour#Tide.high-1", again.ID(), "it waits under the whole path")
	m.Attach(again, tide)
	assert.Nil(t, m.Find("Tide.high"), "nothing waits any more")
	assert.Same(t, first, m.Lookup("Tide.high"))

	late := m.Declare(nil, "Tide", Name{Text: "high"})
	late.Occurrences = []At{{Occurrence: &Occurrence{Name: "high"}, File: &Facts{}}}
	m.Attach(late, tide)
	assert.Len(t, first.Occurrences, 1, "one of its name was there: it has one more place")
	assert.Equal(t, 3, m.Count())
	assert.Nil(t, m.Adopt(tide, first), "there is one of this name")
	other := m.Declare(nil, "", Name{Text: "Ebb"})
	first.Settle()
	adopted := m.Adopt(other, first)
	require.NotNil(t, adopted)
	assert.Same(t, first, adopted.Origin())
	assert.Same(t, first, adopted.Site())
	assert.Nil(t, adopted.AsWritten())
	assert.Nil(t, first.Origin())
}

func TestNameTableAfterMany(t *testing.T) {
	m := harbour()
	for i := range 500 { // names come and go: the table keeps finding what is there
		d := m.Declare(nil, "Out.There", Name{Text: fmt.Sprint("a", i)})
		parent := m.Declare(nil, "", Name{Text: fmt.Sprint("P", i%7)})
		m.Attach(d, parent)
		assert.Nil(t, m.Find(fmt.Sprint("Out.There.a", i)))
		assert.Same(t, d, parent.Member(fmt.Sprint("a", i)))
	}
	assert.Equal(t, 507, m.Count())
}
