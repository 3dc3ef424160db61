package settings_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"go.yaml.in/yaml/v3"

	"codrel/internal/prose"
	"codrel/internal/settings"
)

// sample is a key with a value that is right for it, and some that are wrong.
type sample struct {
	right string
	wrong []string
}

// samples are all keys of the settings, by their paths; "[]" is an entry of a list.
var samples = map[string]sample{
	"needs":                     {`">=0.1"`, []string{"new", "[a]", "{a: b}"}},
	"name":                      {"Tidebook", []string{"[a]", "{a: b}"}},
	"version":                   {"2.3.0", []string{"[a]", "{a: b}"}},
	"fragments":                 {"docs/pieces", []string{"[a]", "{a: b}"}},
	"guides":                    {"{folder: docs}", []string{"x", "[a]"}},
	"guides.folder":             {"docs", []string{"[a]"}},
	"guides.order":              {"[first-berth.md, drivers]", []string{"x", "{a: b}", "[{}]", "[{part: Drivers}]", "[[a]]"}},
	"home":                      {"docs/start.md", []string{"[a]", "{a: b}"}},
	"reach":                     {"internal", []string{"pubic", "[a]"}},
	"read":                      {"[{path: engine}]", []string{"engine", "{a: b}", "[{}]"}},
	"read[].path":               {"engine", []string{"[a]"}},
	"read[].language":           {"go", []string{"[a]"}},
	"read[].skip":               {`["**/old/**"]`, []string{"x", "{a: b}"}},
	"read[].open":               {"[internal]", []string{"x", "{a: b}"}},
	"read[].macros":             {`{TIDE_BEGIN: "namespace tide {"}`, []string{"x", "[a]", "{A: [b]}"}},
	"read[].comments":           {"any", []string{"all", "[a]"}},
	"generated":                 {`["**/*.pb.go"]`, []string{"x", "{a: b}"}},
	"vocabulary":                {"{go: {glossary: notes}}", []string{"[a]", "x", "{go: [a]}", "{go: {glossary: nonsense}}"}},
	"links":                     {"{}", []string{"x", "[a]"}},
	"links.source":              {`"https://forge.example/{path}#L{line}"`, []string{"forge", "https://forge.example/", "[a]"}},
	"links.edit":                {`"https://forge.example/edit/{path}"`, []string{"forge", "https://forge.example/", "[a]"}},
	"links.editor":              {`"editor://open?file={path}&line={line}"`, []string{"editor", "editor://open", `"javascript:x{path}"`, "[a]"}},
	"links.elsewhere":           {`[{modules: time, page: "https://x.example/{module}"}]`, []string{"x", "{a: b}", "[{}]", "[{modules: time}]"}},
	"links.elsewhere[].modules": {"time", []string{"[a]"}},
	"links.elsewhere[].page":    {`"https://x.example/{module}#{name}"`, []string{"x", "https://x.example/", "[a]"}},
	"links.elsewhere[].symbols": {"../other/symbols.json", []string{"[a]"}},
	"links.elsewhere[].xml":     {"lib/Tide.xml", []string{"[a]"}},
	"links.elsewhere[].site":    {"https://other.example/", []string{"[a]"}},
	"checks":                    {"{}", []string{"x", "[a]"}},
	"checks.file-fields":        {"[author, license]", []string{"x", "[{a: b}]", `[""]`}},
	"checks.inherited-text":     {"asked", []string{"taken", "[a]"}},
	"checks.fail-on":            {"warning", []string{"never", "[a]"}},
	"checks.rules":              {"{undocumented: off}", []string{"x", "[a]", "{undocumented: loud}"}},
	"checks.folders":            {`[{path: "cmd/**", rules: {undocumented: note}}]`, []string{"x", "{a: b}", "[{}]"}},
	"checks.folders[].path":     {`"cmd/**"`, []string{"[a]"}},
	"checks.folders[].rules":    {"{broken-reference: note}", []string{"x", "[a]", "{undocumented: loud}"}},
	"look":                      {"{}", []string{"x", "[a]"}},
	"look.accent":               {`"#0b6e6e"`, []string{"[a]"}},
	"look.logo":                 {"docs/logo.svg", []string{"[a]"}},
	"look.style":                {"docs/sea.css", []string{"[a]"}},
	"look.head":                 {"docs/head.html", []string{"[a]"}},
	"look.header":               {"docs/top.html", []string{"[a]"}},
	"look.footer":               {"docs/foot.html", []string{"[a]"}},
	"look.locale":               {"de", []string{"[a]"}},
	"look.texts":                {"{next: Onwards}", []string{"x", "[a]", "{next: [a]}"}},
	"write":                     {"{}", []string{"x", "[a]"}},
	"write.site":                {"out/site", []string{"[a]"}},
	"write.pages":               {"[findings, coverage]", []string{"x", "[everything]", "{a: b}"}},
	"write.whole":               {`["**"]`, []string{"x", "{a: b}"}},
	"write.source":              {"signatures", []string{"some", "[a]"}},
	"describe":                  {"{Tide.Board: docs/board.md}", []string{"x", "[a]", "{a: [b]}"}},
	"write.hide":                {"[author, version]", []string{"x", "[everything]", "{a: b}"}},
	"write.keep":                {"[CNAME]", []string{"x", "{a: b}"}},
	"site":                      {"https://tidebook.example/docs/", []string{"tidebook.example", "https://tidebook.example/?x", "[a]"}},
}

// around is what else an entry of a list must have so that a key in it is right.
var around = map[string]string{
	"read[].language": "path: engine", "read[].skip": "path: engine", "read[].open": "path: engine", "read[].macros": "path: engine", "read[].comments": "path: engine",
	"links.elsewhere[].modules": `page: "https://x.example/{module}"`, "links.elsewhere[].page": "modules: time",
	"links.elsewhere[].site": "symbols: ../other", "checks.folders[].rules": `path: "cmd/**"`,
}

// written is a settings file in which one key has a value.
func written(key, value string) string {
	text := value
	parts := strings.Split(key, ".")
	for i := len(parts) - 1; i >= 0; i-- {
		name, entry := strings.CutSuffix(parts[i], "[]")
		if entry {
			if more := around[key]; more != "" {
				text = strings.TrimSuffix(text, "}") + ", " + more + "}"
			}
			text = "[" + text + "]"
		}
		if i == 0 {
			return name + ": " + text + "\n"
		}
		text = "{" + name + ": " + text + "}"
	}
	return text
}

// keysOf are the paths of all keys in a schema.
func keysOf(node map[string]any, at string) (keys []string) {
	if items, ok := node["items"].(map[string]any); ok {
		keys = append(keys, keysOf(items, at+"[]")...)
	}
	properties, _ := node["properties"].(map[string]any)
	for name, inner := range properties {
		path := name
		if at != "" {
			path = at + "." + name
		}
		keys = append(append(keys, path), keysOf(inner.(map[string]any), path)...)
	}
	return keys
}

// The schema and the reader of the file agree on every key: each knows it, takes what is
// right, and refuses what is wrong.
func TestSchemaAgreesKeyByKey(t *testing.T) {
	var top map[string]any
	require.NoError(t, json.Unmarshal(settings.Schema, &top))
	keys := keysOf(top, "")
	slices.Sort(keys)
	require.Equal(t, slices.Sorted(maps.Keys(samples)), keys, "each key has its samples")
	compiled := schema(t, settings.Schema)
	knows := known
	knows.Meanings = prose.Meanings()
	takes := func(text string) (bySchema, byReader error) {
		return compiled.Validate(document(t, text)), func() error { _, err := settings.Parse("codrel.yaml", []byte(text), knows); return err }()
	}
	for _, key := range keys {
		s := samples[key]
		text := written(key, s.right)
		bySchema, byReader := takes(text)
		assert.NoError(t, bySchema, text)
		assert.NoError(t, byReader, text)
		for _, wrong := range s.wrong {
			text := written(key, wrong)
			bySchema, byReader = takes(text)
			assert.Error(t, bySchema, "the schema takes %s", text)
			assert.Error(t, byReader, "the reader takes %s", text)
		}
		if byReader == nil && !strings.HasSuffix(key, "rules") && !strings.HasSuffix(key, "texts") && key != "vocabulary" {
			misspelt := written(key+"x", s.right)
			bySchema, byReader = takes(misspelt)
			assert.Error(t, bySchema, misspelt)
			assert.Error(t, byReader, misspelt)
		}
	}
}

// document is a text of YAML as the schema's validator wants it.
func document(t *testing.T, text string) any {
	t.Helper()
	var v any
	require.NoError(t, yaml.Unmarshal([]byte(text), &v), text)
	data, err := json.Marshal(v)
	require.NoError(t, err)
	out, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
	require.NoError(t, err)
	return out
}

// An error says the line of the key, wherever it stands.
func TestErrorsSayTheLine(t *testing.T) {
	for _, key := range slices.Sorted(maps.Keys(samples)) {
		for _, wrong := range samples[key].wrong {
			for _, lines := range []int{0, 1, 7} {
				text := strings.Repeat("# a remark\n", lines) + written(key, wrong)
				_, err := settings.Parse("codrel.yaml", []byte(text), known)
				require.Error(t, err, text)
				assert.Contains(t, err.Error(), fmt.Sprintf("codrel.yaml:%d:", lines+1), text)
			}
		}
	}
}
