package symbols_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/symbols"
)

func tidebook() *symbols.Table {
	return &symbols.Table{Name: "Tidebook", Release: "2.3.0", Site: "https://tidebook.example/docs/", Libraries: []symbols.Library{{
		Name: "engine", Language: "go", Modules: []symbols.Module{
			{
				Path: "tidebook.example/engine/tide", Gives: map[string]string{"Depth": "#Height"}, Open: true, As: "tide", Name: "tides",
				Scope: symbols.Scope{
					Names: map[string][]string{"function": {"New", "Old"}, "constant": {"Mean<>&"}},
					Gone:  []string{"Old"},
					Holders: []symbols.Holder{{
						Name: "Predictor", Kind: "interface", Bases: []string{"io#Reader"}, Asks: map[string]string{"At": "(int)(<-chan int)"},
						Scope: symbols.Scope{Names: map[string][]string{"method": {"At"}}}, Open: true, Gone: true,
					}},
				},
			},
		},
	}}}
}

func schema(t *testing.T) *jsonschema.Schema {
	t.Helper()
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(symbols.Schema))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("symbols.json", doc))
	s, err := c.Compile("symbols.json")
	require.NoError(t, err)
	return s
}

func TestWrittenIsReadAgain(t *testing.T) {
	data, err := symbols.Write(tidebook())
	require.NoError(t, err)
	assert.Contains(t, string(data), "(int)(<-chan int)", "plain, for a file that is no HTML")
	value, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
	require.NoError(t, err)
	assert.NoError(t, schema(t).Validate(value))

	read, err := symbols.Read(data)
	require.NoError(t, err)
	want := tidebook()
	want.Codrel, want.Version = "symbols", symbols.Version
	assert.Equal(t, want, read)
	assert.ElementsMatch(t, []string{"New", "Old", "Mean<>&", "Predictor"}, read.Libraries[0].Modules[0].Tops())

	texts := map[string]map[string]string{"tide": {"Predictor.At": "At is\nthe <height>."}}
	data, err = symbols.WriteTexts(texts)
	require.NoError(t, err)
	again, err := symbols.ReadTexts(data)
	require.NoError(t, err)
	assert.Equal(t, texts, again)
}

func TestSchemaRefuses(t *testing.T) {
	for what, change := range map[string][2]string{
		"a kind that nobody knows":    {`"kind":"interface"`, `"kind":"gadget"`},
		"a base without a mark":       {`io#Reader`, `io.Reader`},
		"a site that is a script":     {`https://tidebook.example/docs/`, `javascript:alert(1)/`},
		"a language nobody reads":     {`"language":"go"`, `"language":"gopher"`},
		"names that are no list":      {`["New","Old"]`, `"New"`},
		"a key of somebody else's":    {`"open":true,`, `"open":true,"color":"red",`},
		"another version of the form": {`"version":1`, `"version":2`},
	} {
		data, err := symbols.Write(tidebook())
		require.NoError(t, err)
		require.Contains(t, string(data), change[0], what)
		value, err := jsonschema.UnmarshalJSON(strings.NewReader(strings.Replace(string(data), change[0], change[1], 1)))
		require.NoError(t, err)
		assert.Error(t, schema(t).Validate(value), what)
	}
}

func TestBadFiles(t *testing.T) {
	good, err := symbols.Write(tidebook())
	require.NoError(t, err)
	deep := `{"codrel":"symbols","version":1,"name":"x","libraries":` + strings.Repeat("[", 100_000)
	for text, want := range map[string]string{
		"":                              "it is empty",
		string(good[:len(good)/2]):      "it is cut short or damaged at byte",
		string(good[:40]):               "it is cut short or damaged at byte 40",
		"<!doctype html><title>no":      "it is no file of names that Codrel wrote; name the symbols.json of a site",
		"\x00\x01\x02":                  "it is no file of names",
		`{"version": 3, "exports": {}}`: "it is no file of names",
		`[1, 2]`:                        "it is no file of names",
		`"codrel"`:                      "it is no file of names",
		`null`:                          "it is no file of names",
		`{"codrel":"symbols","version":2,"modules":{}}`:                            "a newer Codrel wrote it (form 2, this one reads 1)",
		`{"codrel":"symbols","version":"1"}`:                                       "its version is no number",
		`{"codrel":"symbols","version":0.5}`:                                       "its version is no number",
		`{"codrel":"symbols"}`:                                                     "its version is no number",
		`{"codrel":"texts","version":1}`:                                           "it is no file of names",
		`{"codrel":"symbols","version":1,"name":7}`:                                `its key "name" holds the wrong thing (number)`,
		`{"codrel":"symbols","version":1,"libraries":[{"modules":[{"path":[]}]}]}`: `"libraries.modules.path" holds the wrong thing (array)`,
		deep: "cut short or damaged",
	} {
		_, err := symbols.Read([]byte(text))
		assert.ErrorContains(t, err, want, "%.60s", text)
	}
	_, err = symbols.ReadTexts(good)
	assert.Error(t, err)
}

func TestSitesThatAreNone(t *testing.T) {
	for _, site := range []string{"javascript:alert(1)/", "file:///etc/", "//other.example/", "https:///x/", "https://other.example/x", "../up/", "data:text/html,/"} {
		table := tidebook()
		table.Site = site
		data, err := symbols.Write(table)
		require.NoError(t, err)
		read, err := symbols.Read(data)
		require.NoError(t, err)
		assert.Empty(t, read.Site, site)
	}
}

func TestReferences(t *testing.T) {
	own := symbols.Place{Library: "engine", Module: "a/b", Path: "X"}
	for _, to := range []symbols.Place{
		{"engine", "a/b", "Y.z", 0}, {"engine", "a/c", "Y", 0}, {"web", "a/b", "Y", 2}, {"engine", "a/c", "", 0}, {"engine", "a/b", "", 0}, {"web", "src/index", "", 0}, {"engine", "a:b/c", "Y", 1},
	} {
		assert.Equal(t, to, symbols.Referred(own, symbols.Reference(own, to)), "%v", to)
	}
	assert.Equal(t, "#Y", symbols.Reference(own, symbols.Place{Library: "engine", Module: "a/b", Path: "Y"}))
}

func FuzzRead(f *testing.F) {
	good, err := symbols.Write(tidebook())
	require.NoError(f, err)
	f.Add(good)
	f.Add([]byte(`{"codrel":"symbols","version":1,"libraries":[{"modules":[{"holders":[{"holders":[{}]}]}]}]}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		if table, err := symbols.Read(data); err == nil {
			_, err := symbols.Write(table)
			assert.NoError(t, err)
		}
	})
}
