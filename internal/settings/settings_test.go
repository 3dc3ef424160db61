package settings_test

import (
	"bytes"
	"encoding/json"
	"os"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"go.yaml.in/yaml/v3"

	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/settings"
)

var known = settings.Known{
	Version: "0.1.0", Rules: []string{"undocumented", "broken-reference"}, Languages: []string{"go"},
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
	assert.Equal(t, &settings.Settings{
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
	}, s)
	for _, empty := range []string{"", "# nothing\n", "---\n", "null"} {
		s, err := settings.Parse("codrel.yaml", []byte(empty), known)
		require.NoError(t, err, empty)
		assert.Equal(t, settings.Default(), s)
	}
}

func TestProblems(t *testing.T) {
	for _, c := range []struct{ in, want string }{
		{"nmae: x", `codrel.yaml:1:1: the settings file has no key "nmae"; did you mean "name"?`},
		{"name: x\nxyzzy: 1", `codrel.yaml:2:1: the settings file has no key "xyzzy"; there are checks, fragments, generated, home`},
		{"name: [a]", "codrel.yaml:1:7: a text is wanted here, and this is a list"},
		{"name:", `codrel.yaml:1:1: the key "name" has no value; leave the line out for the default`},
		{"name: a\nname: b", `codrel.yaml:2:1: the key "name" stands here a second time`},
		{"reach: pubic", `codrel.yaml:1:8: reach is one of public, protected, internal and private, not "pubic"`},
		{"read: engine", `codrel.yaml:1:7: "read" takes a list, and this is "engine"`},
		{"read: [{language: go}]", `codrel.yaml:1:8: an entry of "read" needs the path of a folder`},
		{"read: [{path: a, lang: go}]", `codrel.yaml:1:18: "read" has no key "lang"; did you mean "language"?`},
		{"read: [{path: ../a}]", `codrel.yaml:1:15: "../a" is outside the project`},
		{"read: [{path: a, language: gp}]", `codrel.yaml:1:28: there is no language "gp"; did you mean "go"?`},
		{"checks: {rules: {undocumentd: off}}", `codrel.yaml:1:18: there is no rule "undocumentd"; did you mean "undocumented"?`},
		{"checks: {rules: {undocumented: loud}}", `codrel.yaml:1:32: a severity is one of error, warning, note and off, not "loud"`},
		{"checks: {fail-on: never}", `codrel.yaml:1:19: a severity is one of`},
		{"checks: {folders: [{rules: {}}]}", `needs a path`},
		{"links: {source: forge}", `codrel.yaml:1:17: "forge" is not a web address`},
		{"links: {source: 'https://a.example/'}", `has no {path} in it`},
		{"links: {elsewhere: [{modules: 'a['}]}", `"a[" is not a pattern`},
		{"needs: '>=9.1'\nunknown: 1", "codrel.yaml:1:8: this file needs Codrel 9.1 or newer, and this is 0.1.0"},
		{"site: tidebook.example", `codrel.yaml:1:7: "tidebook.example" is not the address of a site`},
		{"site: https://tidebook.example/?x", `is not the address of a site`},
		{"needs: new", `takes the oldest version`},
		{"a: b: c", "codrel.yaml:1:1: this is not YAML: mapping values are not allowed"},
		{"- a", "codrel.yaml:1:1: the settings file takes keys and values, and this is a list"},
		{"\tname: x", "codrel.yaml:1:1: this is not YAML"},
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
	for _, wrong := range []string{"nmae: x", "reach: y", "read: x", "checks: {rules: {undocumented: loud}}", "links: {source: x}"} {
		assert.Error(t, s.Validate(value(wrong)), wrong)
	}
	demo, err := os.ReadFile("../../demo/_tidebook/codrel.yaml")
	require.NoError(t, err)
	assert.NoError(t, s.Validate(value(string(demo))))
	// Every key that is read stands in the schema: an unknown key lists them all.
	_, err = settings.Parse("codrel.yaml", []byte("zzzzzzzzzzz: 1"), known)
	_, list, _ := strings.Cut(err.Error(), "there are ")
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
