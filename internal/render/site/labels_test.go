package site_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/settings"
)

// Labels of notes are in the words of the page, whatever dialect has them.
func TestLabels(t *testing.T) {
	files := map[string]string{
		"README.md":         "# Tides\n\n> [!WARNING]\n> Mind the tide.\n",
		"py/pyproject.toml": "[project]\nname = \"tides\"\n",
		"py/tides.py":       "\"\"\"Tides.\"\"\"\n\n\ndef rise(wind, gusts):\n    \"\"\"Rises.\n\n    Parameters\n    ----------\n    wind : float\n        How strong.\n\n        .. versionadded:: 1.12.0\n    gusts : bool\n        Whether.\n\n        .. versionchanged:: 1.18.0\n           Scalars too.\n\n    .. note:: Slow.\n    .. admonition:: Own words\n\n       Kept.\n    \"\"\"\n",
	}
	page := func(language string) (module, home string) {
		config := &settings.Settings{}
		config.Look.Locale = settings.Word{Text: language}
		m := rendered(t, asMapFS(files), config, 1)
		return text(string(m.Get("reference/py/tides/index.html"))), text(string(m.Get("index.html")))
	}
	module, home := page("")
	for _, label := range []string{"Since 1.12.0", "Changed in 1.18.0: Scalars too.", "Note", "Own words"} {
		assert.Contains(t, module, label)
	}
	assert.Contains(t, home, "Warning")
	module, home = page("de")
	for _, label := range []string{"Seit 1.12.0", "Geändert in 1.18.0: Scalars too.", "Hinweis", "Own words"} {
		assert.Contains(t, module, label)
	}
	assert.False(t, strings.Contains(module, "Since"), "no English word is left")
	assert.Contains(t, home, "Warnung")
}
