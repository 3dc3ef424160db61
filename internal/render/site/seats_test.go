package site_test

import (
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/settings"
)

// portFiles are a library whose names only comments give, each in a file of its own.
var portFiles = map[string]string{
	"port/package.json": `{"name": "port", "main": "port.js"}`,
	"port/port.js":      "/**\n * All of it.\n * @namespace Port\n */\nvar Port = { Tides: require('./tides'), Gate: require('./gate') };\nmodule.exports = Port;\n",
	"port/tides.js":     "/**\n * Tides of the port.\n * @namespace Port.Tides\n */\nmodule.exports = { Reader: require('./reader'), Tides: require('./calm') };\n",
	"port/reader.js":    "/**\n * Reads tides. See {@link Port.Tides.Calm}.\n * @class Reader\n * @memberof Port.Tides\n */\nvar Reader = make({});\n/**\n * The next tide.\n * @method Port.Tides.Reader#next\n * @param {Port.Gate} gate - Where.\n */\nmodule.exports = Reader;\n",
	"port/calm.js":      "/**\n * Smooths tides.\n * @function Port.Tides.Calm\n */\nvar Calm = function (tides) {};\nmodule.exports = Calm;\n",
	"port/gate.js":      "/**\n * A gate.\n * @class Port.Gate\n */\nvar Gate = make({});\nmodule.exports = Gate;\n",
	"lost/package.json": `{"name": "lost", "main": "lost.js"}`,
	"lost/lost.js":      "/**\n * Of something that nothing declares.\n * @class Elsewhere.Deep.Gate\n */\n/**\n * Another one.\n * @class Sea.Gate\n */\n",
}

func asMapFS(files map[string]string) fstest.MapFS {
	out := fstest.MapFS{}
	for name, text := range files {
		out[name] = &fstest.MapFile{Data: []byte(text)}
	}
	return out
}

// What comments put into a namespace stands below it, whichever files declare the two; a
// module of which nothing is left has no page, and nothing is there twice.
func TestPagesOfNamesInComments(t *testing.T) {
	m := rendered(t, asMapFS(portFiles), &settings.Settings{}, 1)
	requireSound(t, asFS(m))
	const folder = "reference/port/port/"
	at := func(page string) string {
		require.Contains(t, m.Paths(), folder+page)
		return string(m.Get(folder + page))
	}
	port := text(at("Port.html"))
	for _, line := range []string{"All of it.", "Gate", "A gate.", "Tides", "Tides of the port."} {
		assert.Contains(t, port, line)
	}
	tides := at("Port.Tides.html")
	assert.Contains(t, tides, `<a href="Port.Tides.Reader.html">`)
	assert.Contains(t, tides, `id="Calm"`, "a function of the namespace")
	assert.Contains(t, tides, `<li><a href="Port.html"><code translate="no">Port</code></a></li>`, "the way to here")
	reader := at("Port.Tides.Reader.html")
	assert.Contains(t, reader, `id="next"`)
	assert.Contains(t, reader, `<a href="Port.Tides.html#Calm">`, "a link in the text")
	assert.Contains(t, reader, `<a href="Port.Gate.html">`, "a type in braces")
	for _, path := range m.Paths() {
		for _, gone := range []string{"reader", "calm", "gate"} {
			assert.NotContains(t, path, "reference/port/"+gone+"/", "a module of which nothing is left")
		}
	}
	index := string(m.Get("a-z/index.html"))
	assert.Equal(t, 1, strings.Count(index, ">Reader</a>"))
	assert.Contains(t, m.Paths(), "reference/lost/lost/Elsewhere.Deep.Gate.html", "one name in two places is two things")
	assert.Contains(t, m.Paths(), "reference/lost/lost/Sea.Gate.html")
}
