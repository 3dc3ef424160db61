package cli_test

import (
	"bytes"
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/cli"
)

// sarif runs a check of a project and gives what it says as SARIF.
func sarif(t *testing.T, files map[string]string) (out string, results []any) {
	t.Helper()
	dir := t.TempDir()
	for name, text := range files {
		file := filepath.Join(dir, filepath.FromSlash(name))
		require.NoError(t, os.MkdirAll(filepath.Dir(file), 0o755))
		require.NoError(t, os.WriteFile(file, []byte(text), 0o644))
	}
	var stdout, stderr bytes.Buffer
	cli.Run(t.Context(), []string{"check", "--format", "sarif", dir}, strings.NewReader(""), &stdout, &stderr)
	require.Empty(t, stderr.String())
	var log struct {
		Version string
		Runs    []struct{ Results []any }
	}
	require.NoError(t, json.Unmarshal(stdout.Bytes(), &log))
	require.Equal(t, "2.1.0", log.Version)
	require.Len(t, log.Runs, 1)
	return stdout.String(), log.Runs[0].Results
}

const tideFile = "// Package engine predicts the height of the tide.\npackage engine\n\n// Height is a height, see [Predictr].\ntype Height float64\n\n// Predictor predicts.\ntype Predictor int\n\nfunc G() {}\n"

func TestSARIF(t *testing.T) {
	out, results := sarif(t, map[string]string{"go.mod": "module engine", "low water/tide.go": tideFile})
	require.Len(t, results, 2)
	broken := results[0].(map[string]any)
	assert.Equal(t, "broken-reference", broken["ruleId"])
	at := map[string]any{"startLine": 4.0, "startColumn": 29.0, "endLine": 4.0, "endColumn": 37.0}
	file := map[string]any{"uri": "low%20water/tide.go", "uriBaseId": "%SRCROOT%"}
	assert.Equal(t, []any{map[string]any{"physicalLocation": map[string]any{"artifactLocation": file, "region": at}}}, broken["locations"])
	assert.Equal(t, []any{map[string]any{
		"description": map[string]any{"text": `Write "Predictor" instead.`},
		"artifactChanges": []any{map[string]any{
			"artifactLocation": file,
			"replacements":     []any{map[string]any{"deletedRegion": at, "insertedContent": map[string]any{"text": "Predictor"}}},
		}},
	}}, broken["fixes"])
	assert.NotContains(t, out, os.TempDir(), "it says the same on every machine")

	undocumented := results[1].(map[string]any)
	assert.NotContains(t, undocumented, "fixes")
	assert.NotEqual(t, broken["partialFingerprints"], undocumented["partialFingerprints"])
}

// A finding is known again when lines move, and two that say the same are two.
func TestFingerprints(t *testing.T) {
	prints := func(text string) (out []any) {
		_, results := sarif(t, map[string]string{"go.mod": "module engine", "tide.go": text})
		for _, r := range results {
			out = append(out, r.(map[string]any)["partialFingerprints"].(map[string]any)["codrel/v1"])
		}
		return out
	}
	was := prints(tideFile)
	assert.Equal(t, was, prints(strings.Replace(tideFile, "package engine\n", "package engine\n\nimport _ \"os\"\n\n// Other text.\n\n", 1)))
	assert.NotEqual(t, was, prints(strings.ReplaceAll(tideFile, "func G", "func H")))
	twice := prints("// Package engine is one.\npackage engine\n\n// F sees [Gone.A].\nfunc F() {}\n\n// H sees [Gone.A].\nfunc H() {}\n")
	assert.Len(t, twice, 1, "one cause is one finding")
}

func TestSARIFWithoutFindings(t *testing.T) {
	out, results := sarif(t, map[string]string{"go.mod": "module engine", "tide.go": "// Package engine is one.\npackage engine\n"})
	assert.Empty(t, results)
	assert.Contains(t, out, `"results": []`, "an empty list, not nothing (3.14.23)")
}
