package search_test

import (
	"cmp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/search"
)

func TestParse(t *testing.T) {
	for text, want := range map[string]search.Query{
		"Plan":                   {Name: "Plan"},
		"plan::Assign()":         {Name: "Assign", Qualifier: []string{"plan"}},
		"a/b.C#d":                {Name: "d", Qualifier: []string{"a", "b", "c"}},
		"plan assign":            {Name: "assign", Qualifier: []string{"plan"}},
		"plan.":                  {Qualifier: []string{"plan"}},
		"kind:method":            {Kind: "method"},
		"kind:Method in:a.b x":   {Name: "x", Kind: "method", In: "a.b"},
		"takes:Vessel gives:err": {Takes: "vessel", Gives: "err"},
		"in::x":                  {Name: "x", Qualifier: []string{"in"}},
		"std::vec":               {Name: "vec", Qualifier: []string{"std"}},
		"size:3":                 {Name: "size:3"},
		"":                       {},
		"  ":                     {},
	} {
		assert.Equal(t, want, search.Parse(text), text)
	}
	assert.True(t, search.Parse(" ").Empty())
	assert.False(t, search.Parse("in:x").Empty())
}

func TestPartsOfNames(t *testing.T) {
	for name, want := range map[string]string{
		"berthAssign": "ba|assign", "HTTPServer": "hs|server", "parseURL": "pu|url", "MAX_LEN": "ml|len", "_hidden": "_h|hidden",
		"utf8": "u8|8", "UTF8String": "u8s|8string string", "X": "x|", "": "|", "überLang": "ül|lang", "a__b": "ab|b",
	} {
		assert.Equal(t, want, search.Initials(name)+"|"+strings.Join(search.InnerWords(name), " "), name)
	}
	assert.Equal(t, []string{"assigns", "vessel", "place", "über"}, search.SummaryWords("Assigns a vessel's place, über it."))
}

func names(hits []search.Hit) string {
	var out []string
	for _, h := range hits {
		out = append(out, h.Name)
	}
	return strings.Join(out, " ")
}

func TestOrder(t *testing.T) {
	entries := []search.Entry{
		{Name: "readAll", Kind: "function", Library: "b"}, {Name: "ReadAll", Kind: "function", Library: "b", Deprecated: true},
		{Name: "ReadAll", Kind: "function", Library: "a"}, {Name: "ReadAllLines", Kind: "method", Library: "a"},
		{Name: "ReadAllOld", Kind: "type", Library: "a", Deprecated: true}, {Name: "CanReadAll", Kind: "type", Library: "a"},
		{Name: "RaedAll", Kind: "type", Library: "a"}, {Name: "Other", Kind: "type", Words: []string{"readall"}}, {Name: "Last", Summary: "It can readall."},
	}
	assert.Equal(t, "ReadAll ReadAll readAll ReadAllLines CanReadAll Other Last ReadAllOld", names(search.Find(entries, "ReadAll", "", 20)),
		"deprecated last but where asked for by its whole name; slips only where little is found")
	assert.Equal(t, "b", search.Find(entries[:3], "readall", "b", 1)[0].Library, "the reader's library first")
	assert.Equal(t, "RaedAll", names(search.Find(entries[5:7], "radeall", "", 20)))
	assert.Len(t, search.Find(entries, "ReadAll", "", 3), 3)
	assert.Empty(t, search.Find(entries, "", "", 3))
	assert.Empty(t, search.Find(nil, "x", "", 3))
}

func TestSlips(t *testing.T) {
	entry := []search.Entry{{Name: "Interpolate"}}
	for term, found := range map[string]bool{"interpolate": true, "interpolte": true, "intrepolate": true, "intrpolte": true, "intrplte": false, "inter": true, "interq": false} {
		assert.Equal(t, found, len(search.Find(entry, term, "", 1)) == 1, term)
	}
	assert.Empty(t, search.Find([]search.Entry{{Name: "Map"}}, "Mop", "", 1), "short words must be right")
}

func TestNearest(t *testing.T) {
	entries := []search.Entry{{Name: "Pontoon"}, {Name: "Pontoon", Scope: "X"}, {Name: "Piston"}, {Name: "Quay"}, {Name: "Pantone"}, {Name: "Potion"}}
	assert.Equal(t, []string{"Pontoon", "Pantone"}, search.Nearest(entries, "puntoom"))
	assert.Empty(t, search.Nearest(entries, "xyz"))
	assert.Empty(t, search.Nearest(entries, "kind:type"))
	assert.Empty(t, search.Nearest(nil, "x"))
}

// A long name of many parts must not make the search along humps explode.
func TestHumpsAreBounded(t *testing.T) {
	entry := []search.Entry{{Name: strings.Repeat("aA", 60)}}
	assert.Empty(t, search.Find(entry, strings.Repeat("a", 31)+"b", "", 1))
}

func BenchmarkFind(b *testing.B) {
	var entries []search.Entry
	size := 0
	for i := range 20_000 {
		name := "Assign" + strings.Repeat("Berth", i%4) + string(rune('A'+i%26))
		entries = append(entries, search.Entry{Name: name, Kind: "function", Summary: "Assign finds a vessel a berth."})
		size += len(name)
	}
	b.SetBytes(int64(size))
	for b.Loop() {
		search.Find(entries, "assignBer", "", 30)
	}
}

// Comparing letter by letter gives what comparing in small letters does.
func TestCompareIsByLetter(t *testing.T) {
	names := []string{"a", "A", "ab", "aB", "Ab", "b", "_", "é", "É", "aé", "Aé", "az", "aZ", "a1", "A_"}
	for _, x := range names {
		for _, y := range names {
			a, b := search.Entry{Name: x}, search.Entry{Name: y}
			want := cmp.Or(cmp.Compare(len([]rune(x)), len([]rune(y))), strings.Compare(strings.ToLower(x), strings.ToLower(y)), strings.Compare(x, y))
			assert.Equal(t, want, search.Compare(&a, &b), "%s %s", x, y)
		}
	}
}

// What is known in several modules is found in each of them, once, and by its own place
// where the query says none.
func TestOtherPlaces(t *testing.T) {
	entries := []search.Entry{
		{Name: "Client", Kind: "class", Module: "tidebook", Library: "python", Also: []string{"tidebook.client", "deep.own"}},
		{Name: "close", Scope: "Client", Kind: "method", Module: "tidebook", Library: "python", Also: []string{"tidebook.client", "deep.own"}},
		{Name: "closed", Kind: "variable", Module: "tidebook.client", Library: "python"},
	}
	for query, want := range map[string]string{
		"Client": "Client tidebook", "tidebook.Client": "Client tidebook", "client.Client": "Client tidebook.client", "own.Client": "Client deep.own", "gauge.Client": "",
		"Client.close": "close tidebook, closed tidebook.client", "client.Client.close": "close tidebook.client", "in:own clo": "close deep.own", "in:deep": "Client deep.own, close deep.own",
		"in:client clo": "close tidebook.client, closed tidebook.client", "in:tidebook clo": "close tidebook, closed tidebook.client", "own.Client.colse": "close deep.own",
	} {
		var got []string
		for _, h := range search.Find(entries, query, "", 9) {
			got = append(got, h.Name+" "+h.Place)
		}
		assert.Equal(t, want, strings.Join(got, ", "), query)
	}
}
