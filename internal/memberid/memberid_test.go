package memberid_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/memberid"
)

func TestParse(t *testing.T) {
	for id, want := range map[string]memberid.Member{
		"T:Tide.Plan`1.Row": {Kind: 'T', Path: []memberid.Part{{Name: "Tide"}, {Name: "Plan", Arity: 1}, {Name: "Row"}}},
		"M:Tide.Plan`1.Put``2(`0,System.Collections.Generic.Dictionary{``0,System.Int32[0:,0:]}@)": {
			Kind: 'M', Path: []memberid.Part{{Name: "Tide"}, {Name: "Plan", Arity: 1}, {Name: "Put", Arity: 2}}, Called: true,
			Params: []string{"`0", "System.Collections.Generic.Dictionary{``0,System.Int32[0:,0:]}@"},
		},
		"M:A.op_Explicit(A)~System.Int32": {Kind: 'M', Path: []memberid.Part{{Name: "A"}, {Name: "op_Explicit"}}, Called: true, Params: []string{"A"}},
		"M:A.#ctor":                       {Kind: 'M', Path: []memberid.Part{{Name: "A"}, {Name: "#ctor"}}},
	} {
		got, ok := memberid.Parse(id)
		assert.True(t, ok, id)
		assert.Equal(t, want, got, id)
	}
	for _, none := range []string{"", "T:", "Tide.Plan", "X:Tide", "global::Tide"} {
		_, ok := memberid.Parse(none)
		assert.False(t, ok, none)
	}
	m, ok := memberid.Parse("M:a(((,")
	assert.True(t, ok)
	assert.Equal(t, []string{"((,"}, m.Params)
}

func TestShortType(t *testing.T) {
	for id, want := range map[string]string{
		"System.Int32": "int", "System.String@": "string", "System.Nullable{System.Int32}": "int?", "System.Nullable{System.Int32}[]": "int?[]",
		"System.ValueTuple{System.Int32,Tide.Row}":                                                 "(int, Row)",
		"System.Collections.Generic.Dictionary{System.String,System.Collections.Generic.List{`0}}": "Dictionary<string, List<`0>>",
		"Tide.Row*": "Row*", "System.Byte[][0:,0:]": "byte[][0:,0:]", "": "", "{": "{", "a{b": "a{b",
	} {
		assert.Equal(t, want, memberid.ShortType(id), id)
	}
}

func TestOperators(t *testing.T) {
	for _, o := range []struct {
		code, id string
		params   int
	}{
		{"operator +", "op_Addition", 2}, {"operator +", "op_UnaryPlus", 1}, {"operator -", "op_UnaryNegation", 1}, {"operator -", "op_Subtraction", 2},
		{"operator checked +", "op_CheckedAddition", 2}, {"operator checked -", "op_CheckedUnaryNegation", 1}, {"explicit operator checked", "op_CheckedExplicit", 1},
		{"implicit operator", "op_Implicit", 1}, {memberid.Indexer, "Item", 1}, {"operator true", "op_True", 1},
	} {
		assert.Equal(t, o.id, memberid.Spelled(o.code, o.params), o.code)
		assert.Equal(t, o.code, memberid.Spoken(o.id), o.id)
	}
	assert.Empty(t, memberid.Spelled("Moor", 1))
	assert.Empty(t, memberid.Spoken("Moor"))
	assert.Empty(t, memberid.Spoken("op_CheckedMoor"))
}
