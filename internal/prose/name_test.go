package prose_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/prose"
)

func TestParseName(t *testing.T) {
	for written, want := range map[string]prose.Name{
		"Berth":                         {Path: []string{"Berth"}},
		"Berth.assign":                  {Path: []string{"Berth", "assign"}},
		"Berth::assign":                 {Path: []string{"Berth", "assign"}},
		"Berth#assign":                  {Path: []string{"Berth", "assign"}},
		"berth->depth":                  {Path: []string{"berth", "depth"}},
		"Berth~Options":                 {Path: []string{"Berth", "Options"}},
		"Berth.assign()":                {Path: []string{"Berth", "assign"}, Callable: true},
		"assign(int, map[string, int])": {Path: []string{"assign"}, Callable: true, Params: []string{"int", "map[string,int]"}},
		"assign( )":                     {Path: []string{"assign"}, Callable: true},
		"tidebook.example/tide":         {Module: "tidebook.example/tide"},
		"tidebook.example/tide.Curve":   {Module: "tidebook.example/tide", Path: []string{"Curve"}},
		"ol/Map~Map#show":               {Module: "ol/Map", Path: []string{"Map", "show"}},
		"Berth<Ship, Map<A, B>>":        {Path: []string{"Berth"}, Arity: 2},
		"Berth<Ship>.moor":              {Path: []string{"Berth", "moor"}},
		"Berth<Ship>.moor<A>(A)":        {Path: []string{"Berth", "moor"}, Arity: 1, Callable: true, Params: []string{"A"}},
		"a<b":                           {Path: []string{"a<b"}},
		"<b>":                           {Path: []string{"<b>"}},
		"a<b>c":                         {Path: []string{"a<b>c"}},
		"Berth<>":                       {Path: []string{"Berth"}},
		"Berth<Ship":                    {Path: []string{"Berth<Ship"}},
		" Berth ":                       {Path: []string{"Berth"}},
		"":                              {Path: []string{""}},
	} {
		got := prose.ParseName(written)
		assert.Equal(t, written, got.Written)
		want.Written = written
		assert.Equal(t, want, got, written)
	}
	assert.Equal(t, []string{"a", "b", "C"}, prose.ParseName("a/b.C").AfterSlashes())
}

func TestCutPrefix(t *testing.T) {
	for written, want := range map[string]string{"engine:Berth": "engine", "macro:BERTH": "macro", "Berth": "", "std::move": "", ":x": "", "a.b:c": "", "f(a:b)": "", "a/b:c": ""} {
		prefix, rest, ok := prose.CutPrefix(written)
		assert.Equal(t, want, prefix, written)
		assert.Equal(t, want != "", ok, written)
		if !ok {
			assert.Equal(t, written, rest)
		}
	}
}
