package cli_test

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// gauges is a small library of C in a folder of its own, with settings.
func gauges(t *testing.T, settings string) (dir string) {
	t.Helper()
	dir = t.TempDir()
	for name, text := range map[string]string{
		"codrel.yaml":       settings,
		"include/gauge.h":   "/** @file\n * Reads gauges.\n * @license free\n */\n/** Opens one. @todo say which */\nint gauge_open(void);\n",
		"include/private.h": "/** Shuts one. */\nint gauge_shut(void);\n",
		"src/gauge.c":       "#include \"gauge.h\"\n// FIXME: it leaks\nint gauge_open(void) { return gauge_own(); }\nint gauge_own(void) { return 0; }\n",
	} {
		require.NoError(t, os.MkdirAll(filepath.Dir(filepath.Join(dir, name)), 0o755))
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte(text), 0o644))
	}
	return dir
}

// The page of to-dos is written where the settings ask for it, and goes away with that.
func TestPageOfToDos(t *testing.T) {
	dir := gauges(t, "write: {pages: [to-dos]}\n")
	page := filepath.Join(dir, "codrel-site", "to-dos.html")
	code, _, errs := run(t, "build", "--quiet", dir)
	require.Zero(t, code, errs)
	text, err := os.ReadFile(page)
	require.NoError(t, err)
	for _, said := range []string{"2 to-dos and bugs in the comments of the code.", "say which", "it leaks"} {
		assert.Contains(t, string(text), said)
	}
	require.NoError(t, os.WriteFile(filepath.Join(dir, "codrel.yaml"), nil, 0o644))
	code, _, errs = run(t, "build", "--quiet", dir)
	require.Zero(t, code, errs)
	assert.NoFileExists(t, page)
	require.NoError(t, os.WriteFile(filepath.Join(dir, "codrel.yaml"), []byte("write: {pages: [todo]}\n"), 0o644))
	code, _, errs = run(t, "build", "--quiet", dir)
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, `codrel.yaml:1:17`)
	assert.Contains(t, errs, "to-dos", "what it may be is said")
}

// The rules on files are off, until the settings switch them on.
func TestRulesOnFiles(t *testing.T) {
	_, out, _ := run(t, "check", gauges(t, ""))
	assert.NotContains(t, out, "missing-file-comment")
	assert.NotContains(t, out, "headerless-function")
	code, out, errs := run(t, "check", gauges(t, "checks: {fail-on: warning, file-fields: [license, author], rules: {missing-file-comment: note, headerless-function: warning}}\n"))
	assert.Equal(t, 1, code, errs)
	assert.Contains(t, out, "the comment at the head of gauge.h does not say author [missing-file-comment]")
	assert.Contains(t, out, "private.h has no comment at its head [missing-file-comment]")
	assert.Contains(t, out, "no header declares gauge_own, which other files can link to: declare it, or make it static [headerless-function]")
	assert.NotContains(t, out, "declares gauge_open")
}
