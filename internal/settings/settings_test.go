package settings_test

import (
	"bytes"
	"encoding/json"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"go.yaml.in/yaml/v3"

	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/settings"
)

var known = settings.Known{
	Version: "0.1.0", Rules: []string{"undocumented", "broken-reference"}, Languages: []string{"go"}, Sections: []string{"author", "version"},
}

const full = `
needs: ">=0.1"
name: Tidebook
version: 2.3.0
home: docs/README.md
reach: internal
read:
  - {path: engine, language: go, skip: ["**/old/**"], open: [internal]}
  - {path: ./tools/}
generated: ["**/*.pb.go"]
links:
  source: "https://forge.example/{path}#L{line}"
  elsewhere: [{modules: "time", page: "https://handbook.example/{module}#{name}"}]
checks:
  fail-on: warning
  rules: {undocumented: off}
  folders: [{path: "cmd/**", rules: {broken-reference: note}}]
write: {site: out/site, keep: [CNAME], source: signatures}
site: https://tidebook.example/docs
`

func TestParse(t *testing.T) {
	s, err := settings.Parse("codrel.yaml", []byte(full), known)
	require.NoError(t, err)
	assert.EqualExportedValues(t, settings.Settings{
		Name: "Tidebook", Version: "2.3.0", Home: "docs/README.md", Reach: model.ReachInternal,
		Read:      []settings.Read{{Path: "engine", Language: "go", Skip: []string{"**/old/**"}, Open: []string{"internal"}}, {Path: "tools"}},
		Generated: []string{"**/*.pb.go"},
		Source:    "https://forge.example/{path}#L{line}",
		Elsewhere: []settings.Elsewhere{{Modules: "time", Page: "https://handbook.example/{module}#{name}"}},
		Checks: settings.Checks{
			FailOn: finding.Warning, Rules: map[string]finding.Severity{"undocumented": finding.Off},
			Folders: []settings.FolderRules{{Path: "cmd/**", Rules: map[string]finding.Severity{"broken-reference": finding.Note}}},
		},
		Write: settings.Write{Site: "out/site", Keep: []string{"CNAME"}, Source: "signatures"},
		Site:  "https://tidebook.example/docs/",
	}, *s)
	for _, empty := range []string{"", "# nothing\n", "---\n", "null"} {
		s, err := settings.Parse("codrel.yaml", []byte(empty), known)
		require.NoError(t, err, empty)
		assert.Equal(t, settings.Default(), s)
	}
}

func TestProblems(t *testing.T) {
	for _, c := range []struct{ in, want string }{
		{"nmae: x", `codrel.yaml:1:1: the settings file has no key "nmae"; did you mean "name"?`},
		{"name: x\nxyzzy: 1", `codrel.yaml:2:1: the settings file has no key "xyzzy"; available: checks, describe, fragments, generated, guides, home`},
		{"elsewhere: []", `codrel.yaml:1:1: the settings file has no key "elsewhere"; it stands below "links"`},
		{"name: [a]", "codrel.yaml:1:7: expected text, not a list"},
		{"name:", `codrel.yaml:1:1: the key "name" has no value; remove the line to get the default`},
		{"name: a\nname: b", `codrel.yaml:2:1: the key "name" is given twice`},
		{"reach: pubic", `codrel.yaml:1:8: reach must be public, protected, internal or private, not "pubic"`},
		{"read: engine", `codrel.yaml:1:7: "read" must be a list, not "engine"`},
		{"read: [{language: go}]", `codrel.yaml:1:8: an entry of "read" needs the path of a folder`},
		{"read: [{path: a, lang: go}]", `codrel.yaml:1:18: "read" has no key "lang"; did you mean "language"?`},
		{"read: [{path: ../a}]", `codrel.yaml:1:15: "../a" is outside the project`},
		{"read: [{path: a, language: gp}]", `codrel.yaml:1:28: there is no language "gp"; did you mean "go"?`},
		{"checks: {rules: {undocumentd: off}}", `codrel.yaml:1:18: there is no rule "undocumentd"; did you mean "undocumented"?`},
		{"checks: {rules: {undocumented: loud}}", `codrel.yaml:1:32: a severity must be error, warning, note or off, not "loud"`},
		{"checks: {fail-on: never}", `codrel.yaml:1:19: a severity must be`},
		{"checks: {folders: [{rules: {}}]}", `needs a path`},
		{"links: {source: forge}", `codrel.yaml:1:17: "forge" is not a web address`},
		{"links: {source: 'https://a.example/'}", `needs {path} in it`},
		{"links: {elsewhere: [{modules: 'a['}]}", `"a[" is not a valid pattern`},
		{"needs: '>=9.1'\nunknown: 1", "codrel.yaml:1:8: this file needs Codrel 9.1 or newer; this is 0.1.0"},
		{"site: tidebook.example", `codrel.yaml:1:7: "tidebook.example" is not the address of a site`},
		{"site: https://tidebook.example/?x", `is not the address of a site`},
		{"needs: new", `must be the oldest version`},
		{"a: b: c", "codrel.yaml:1:1: not valid YAML: mapping values are not allowed"},
		{"- a", "codrel.yaml:1:1: the settings file must have keys with values, not a list"},
		{"\tname: x", "codrel.yaml:1:1: not valid YAML"},
	} {
		s, err := settings.Parse("codrel.yaml", []byte(c.in), known)
		require.Error(t, err, c.in)
		assert.Nil(t, s, c.in)
		assert.Contains(t, err.Error(), c.want, c.in)
	}
	_, err := settings.Parse("codrel.yaml", []byte("nmae: x\nreach: y\n"), known)
	assert.Len(t, strings.Split(err.Error(), "\n"), 2, "every problem is said")
}

func schema(t *testing.T, data []byte) *jsonschema.Schema {
	t.Helper()
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("schema.json", doc))
	s, err := c.Compile("schema.json")
	require.NoError(t, err)
	return s
}

func TestSchema(t *testing.T) {
	s := schema(t, settings.Schema)
	value := func(text string) any {
		var v any
		require.NoError(t, yaml.Unmarshal([]byte(text), &v))
		data, err := json.Marshal(v)
		require.NoError(t, err)
		out, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
		require.NoError(t, err)
		return out
	}
	require.NoError(t, s.Validate(value(full)))
	for _, wrong := range []string{"nmae: x", "reach: y", "read: x", "checks: {rules: {undocumented: loud}}", "links: {source: x}", "vocabulary: {go: {glossary: nonsense}}", "vocabulary: [a]"} {
		assert.Error(t, s.Validate(value(wrong)), wrong)
	}
	demo, err := os.ReadFile("../../demo/_tidebook/codrel.yaml")
	require.NoError(t, err)
	assert.NoError(t, s.Validate(value(string(demo))))
	// Every key that is read stands in the schema: an unknown key lists them all.
	_, err = settings.Parse("codrel.yaml", []byte("zzzzzzzzzzz: 1"), known)
	_, list, _ := strings.Cut(err.Error(), "available: ")
	var top struct{ Properties map[string]any }
	require.NoError(t, json.Unmarshal(settings.Schema, &top))
	for _, key := range strings.Split(list, ", ") {
		assert.Contains(t, top.Properties, key)
	}
}

func FuzzParse(f *testing.F) {
	f.Add([]byte(full))
	f.Add([]byte("a: &x [*x]\nread: *x"))
	f.Add([]byte("checks: {rules: {undocumented: off, undocumented: on}}"))
	f.Fuzz(func(t *testing.T, data []byte) {
		s, err := settings.Parse("codrel.yaml", data, known)
		require.Equal(t, err == nil, s != nil)
		if err != nil {
			require.NotEmpty(t, err.Error())
		}
	})
}

// Problems that show only when the files are read are said at the line of the settings.
func TestPlaces(t *testing.T) {
	s, err := settings.Parse("codrel.yaml", []byte("name: x\nread:\n  - {path: engine/}\nhome: docs/start.md\nwrite: {whole: ['a/**']}\n"), known)
	require.NoError(t, err)
	assert.EqualError(t, s.At("read", "engine", "is gone"), "codrel.yaml:3:12: is gone")
	assert.EqualError(t, s.At("home", "docs/start.md", "is gone"), "codrel.yaml:4:7: is gone")
	assert.EqualError(t, s.At("whole", "a/**", "matches nothing"), "codrel.yaml:5:17: matches nothing")
	assert.Zero(t, s.At("home", "README.md", "").Line, "the settings do not say so")
}

func TestVocabulary(t *testing.T) {
	own := known
	own.Meanings = []string{"notes", "label", "ignored"}
	s, err := settings.Parse("codrel.yaml", []byte("vocabulary: {go: {Glossary: notes, '@internalOnly': ignored}}"), own)
	require.NoError(t, err)
	assert.Equal(t, map[string]map[string]string{"go": {"glossary": "notes", "internalonly": "ignored"}}, s.Vocabulary)
	for text, want := range map[string]string{
		"vocabulary: {goo: {a: notes}}":                       `codrel.yaml:1:14: there is no language "goo"; did you mean "go"?`,
		"vocabulary: {go: {a: nots}}":                         `codrel.yaml:1:22: there is no meaning "nots"; did you mean "notes"?`,
		"vocabulary: [go]":                                    `codrel.yaml:1:13: "vocabulary" must have languages with words`,
		"vocabulary: {go: notes}":                             `codrel.yaml:1:18: "go" must have words with what each means`,
		"vocabulary: {go: {a: notes, a: label}}":              `codrel.yaml:1:29: the key "a" is given twice`,
		"links: {source: 'https://a.example/{path}#L{lien}'}": `codrel.yaml:1:17: the address has no placeholder "lien"; did you mean "line"?`,
		"links: {source: 'https://a.example/{path}{'}":        `has a { that is not closed`,
	} {
		_, err := settings.Parse("codrel.yaml", []byte(text), own)
		assert.ErrorContains(t, err, want, text)
	}
}

// The settings that the README shows are right; it shows the file as an excerpt.
func TestSettingsOfTheReadme(t *testing.T) {
	text, err := os.ReadFile("testdata/readme.yaml")
	require.NoError(t, err)
	knows := known
	knows.Meanings, knows.Sections = prose.Meanings(), prose.SectionNames()
	knows.Rules, knows.Languages = append(slices.Clone(known.Rules), "leaked-type"), []string{"go", "typescript"}
	s, err := settings.Parse("codrel.yaml", text, knows)
	require.NoError(t, err)
	assert.Equal(t, "docs/guides", s.Guides.Folder)
	assert.NoError(t, schema(t, settings.Schema).Validate(document(t, string(text))))
}
