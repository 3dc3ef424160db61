package site_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
)

// siteOf renders files with all that the pages show, and follows every link.
func siteOf(t *testing.T, files map[string]string) *sink.Memory {
	t.Helper()
	s := buildtest.Run(t, buildtest.Files(files), build.Options{Folder: "project", Inside: true})
	var m sink.Memory
	pages := plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1})
	require.NoError(t, site.New(pages, site.Options{FrontEnds: s.FrontEnds, Workers: 2}).Write(t.Context(), &m))
	requireSound(t, asFS(&m))
	return &m
}

// A package shows what the modules below it declare and it re-exports: its page explains it
// and says how to import it from there, and the module's own page leads to it.
func TestPagesOfWhatIsGivenOn(t *testing.T) {
	m := siteOf(t, map[string]string{
		"pyproject.toml":    "[project]\nname = \"tides\"\n",
		"tides/__init__.py": "\"\"\"Tides.\"\"\"\nfrom .client import Client, connect\n__all__ = ['Client', 'connect']\n",
		"tides/client.py":   "\"\"\"The client, see :class:`Client`.\"\"\"\n\nclass Client:\n    \"\"\"Asks.\"\"\"\n    def close(self):\n        \"\"\"Ends it.\"\"\"\n\ndef connect():\n    \"\"\"Makes a :class:`tides.client.Client`, and calls :func:`retry`.\"\"\"\n\ndef retry():\n    \"\"\"Tries again.\"\"\"\n    return connect()\n",
	})
	page, module := string(m.Get("reference/tides/tides/Client.html")), string(m.Get("reference/tides/tides.client/index.html"))
	assert.Nil(t, m.Get("reference/tides/tides.client/Client.html"), "there is one page")
	assert.Contains(t, page, `<pre class="bring"><code translate="no">from tides import Client</code></pre>`)
	assert.Contains(t, page, `id="close"`)
	assert.Contains(t, page, `Defined in <a href="../../../source/tides/client.py.html#L3">`, "where it is declared is still said")

	plain := strings.Join(strings.Fields(text(module)), " ")
	assert.Contains(t, plain, "Documented in tidesImport these from tides, which re-exports them.Client")
	assert.Contains(t, module, `<a href="../tides/Client.html"><code translate="no">Client</code></a>`)
	assert.Contains(t, module, `<a href="../tides/index.html#connect">`)
	assert.Contains(t, module, `id="retry"`, "what is not given on stays")
	assert.NotContains(t, module, `id="connect"`)

	all := string(m.Get("reference/tides/tides/index.html"))
	assert.Contains(t, all, `id="connect"`)
	assert.NotContains(t, all, "From its other modules", "it is its own now")
	assert.Contains(t, all, `<a href="../tides.client/index.html#retry">`, "its text means what it meant where it was written")
	assert.Contains(t, string(m.Get("source/tides/client.py.html")), `href=../../reference/tides/tides/Client.html`, "the name in the source leads to its plate")
	assert.Contains(t, string(m.Get("symbols.json")), `"gives":{"Client":"tides#Client","connect":"tides#connect"}`)
}

// Users of a package are told to import things by the entry that gives them.
func TestImportsOfEntries(t *testing.T) {
	m := siteOf(t, map[string]string{
		"package.json":      `{"name": "@tides/web", "exports": {".": "./dist/index.js", "./deep": "./dist/deep/index.js"}}`,
		"src/index.ts":      "export { Tide } from './model'\n",
		"src/deep/index.ts": "export { Ebb } from '../model'\nexport function own(): void {}\n",
		"src/model.ts":      "/** High. */\nexport class Tide {}\n/** Low. */\nexport class Ebb {}\n/** Kept. */\nexport class Neap {}\n",
	})
	const bring = `<pre class="bring"><code translate="no">`
	for page, line := range map[string]string{
		"src/index/Tide.html": `import { Tide } from "@tides/web"`, "src/deep/index/Ebb.html": `import { Ebb } from "@tides/web/deep"`,
		"src/deep/index/index.html": `import * as deep from "@tides/web/deep"`,
	} {
		text := strings.ReplaceAll(string(m.Get(filepath.ToSlash(filepath.Join("reference/web", page)))), "&#34;", `"`)
		assert.Contains(t, text, bring+line, page)
	}
	for _, p := range m.Paths() {
		assert.NotContains(t, p, "Neap", "it is kept")
	}
}

// The demo's Python client is read from the package, as its own text says.
func TestDemoClient(t *testing.T) {
	if _, err := os.Stat("../../../demo/_tidebook/clients/python"); err != nil {
		t.Fatal("the demo is part of the repository:", err)
	}
	files, set := demoFiles(t)
	m := rendered(t, files, set, 2)
	for _, name := range []string{"Client", "BerthTaken", "Harbour", "Plan", "TideKind"} {
		assert.NotNil(t, m.Get("reference/clients-python/tidebook/"+name+".html"), name)
	}
	assert.NotNil(t, m.Get("reference/clients-python/tidebook.model/Position.html"), "what the package does not give on")
}
