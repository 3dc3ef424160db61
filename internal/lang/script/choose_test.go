package script_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/tools/txtar"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// choose asks which files of a package are read, and what it gives to users. The files
// are a txtar archive; those without text need only a name.
func choose(t *testing.T, archive string) (lang.Root, lang.Choice) {
	t.Helper()
	texts := map[string]string{}
	var files []string
	for _, f := range txtar.Parse([]byte(archive)).Files {
		texts[f.Name] = string(f.Data)
		if !strings.HasSuffix(f.Name, ".map") && f.Name != "tsconfig.json" && f.Name != "README.md" {
			files = append(files, f.Name)
		}
	}
	slices.Sort(files)
	root, ok := typescript.Root("package.json", []byte(texts["package.json"]))
	require.True(t, ok)
	return root, typescript.Choose(root, files, func(file string) []byte { return []byte(texts[file]) })
}

// entries are what users import, and the modules that they get: "name = path".
func entries(c lang.Choice) []string {
	var out []string
	for _, e := range c.Entries {
		line := e.As + " = " + e.Path
		if e.Beside != "" {
			line += " beside " + e.Beside
		}
		out = append(out, line)
	}
	slices.Sort(out)
	return out
}

// What users import a module by is what its package says.
func TestEntries(t *testing.T) {
	root, choice := choose(t, `
-- package.json --
{"name": "@tidebook/web", "exports": {
".": {"types": "./dist/types/index.d.ts", "default": "./dist/index.js"}, "./wire": ["./dist/wire/index.js", null],
"./*": "./dist/*.js", "./deep/*/index": "./dist/deep/*/index.js", "./drafts/*": null, "./internal/*": "./dist/internal/*.js", "./style.css": "./style.css"}}
-- src/index.ts --
-- src/wire/index.ts --
-- src/tide.ts --
-- src/tide/curve.ts --
-- src/deep/water/index.ts --
-- src/drafts/new.ts --
-- src/internal/frame.ts --
-- test/tide.ts --
`)
	lib := &model.Library{Package: root.Package, Entries: choice.Entries}
	for path, want := range map[string]string{
		"src/index": "@tidebook/web", "src/wire/index": "@tidebook/web/wire", "src/tide": "@tidebook/web/tide", "src/tide/curve": "@tidebook/web/tide/curve",
		"src/deep/water/index": "@tidebook/web/deep/water/index", "src/drafts/new": "", "src/internal/frame": "", "test/tide": "", "src/": "",
	} {
		as, public := lib.Entry(path)
		assert.Equal(t, want, as, path)
		assert.Equal(t, want != "", public, path)
		m := &model.Module{Library: lib, Path: path, Name: "name", Internal: !public}
		assert.Equal(t, want, typescript.ImportedAs(m), path)
		line := ""
		if want != "" {
			line = `import * as name from "` + want + `"`
		}
		assert.Equal(t, line, typescript.BringIn(m, false), path)
	}
}

// An entry leads to the source that it is built from, else to declarations, else to the
// built file.
func TestEntriesOfBuilds(t *testing.T) {
	for name, c := range map[string]struct {
		archive string
		entries []string
		left    []string
	}{
		"without a name": {"-- package.json --\n{\"exports\": \"./lib/dock.js\"}\n-- lib/dock.js --\n", []string{" = lib/dock"}, nil},
		"conditions alone": {"-- package.json --\n{\"name\": \"dock\", \"exports\": {\"import\": \"./dock.mjs\", \"require\": \"./dock.cjs\"}}\n-- dock.mjs --\n-- dock.cjs --\n",
			[]string{"dock = dock"}, []string{"dock.cjs"}},
		"main without suffix": {"-- package.json --\n{\"name\": \"dock\", \"main\": \"lib\"}\n-- lib/index.js --\n-- lib/wire.js --\n", []string{"dock = lib/index"}, nil},
		"a bundle and its source": {"-- package.json --\n{\"name\": \"three-tides\", \"main\": \"build/tides.cjs\", \"module\": \"build/tides.module.js\"}\n-- build/tides.module.js --\n-- build/tides.cjs --\n-- build/tides.min.js --\n-- src/Tides.js --\n",
			[]string{"three-tides = src/Tides"}, []string{"build/tides.cjs", "build/tides.min.js", "build/tides.module.js"}},
		"a bundle called as the package": {"-- package.json --\n{\"name\": \"@tidebook/dock\", \"main\": \"dist/dock.umd.js\"}\n-- dist/dock.umd.js --\n-- lib/dock.ts --\n", []string{"@tidebook/dock = lib/dock"}, []string{"dist/dock.umd.js"}},
		"the only source map's source": {"-- package.json --\n{\"name\": \"dock\", \"main\": \"dist/x.js\"}\n-- dist/x.js --\n-- dist/x.js.map --\n{\"sources\": [\"../code/harbour.js\"]}\n-- code/harbour.js --\n",
			[]string{"dock = code/harbour"}, []string{"dist/x.js"}},
		"tsconfig": {"-- package.json --\n{\"name\": \"dock\", \"types\": \"made/quay.d.ts\"}\n-- tsconfig.json --\n{ // where it is built\n\"compilerOptions\": {\"outDir\": \"made\", \"rootDir\": \"code\",}}\n-- code/quay.ts --\n",
			[]string{"dock = code/quay"}, nil},
		"declarations beside built code": {"-- package.json --\n{\"name\": \"dock\", \"main\": \"dist/main.js\", \"types\": \"types/dock.d.ts\"}\n-- dist/main.js --\n-- dist/other.js --\n-- types/dock.d.ts --\n",
			[]string{"dock = types/dock beside dist/main"}, nil},
		"declarations beside source":  {"-- package.json --\n{\"name\": \"dock\", \"main\": \"dock.js\"}\n-- dock.js --\n-- dock.d.ts --\n", []string{"dock = dock"}, nil},
		"nothing but a build":         {"-- package.json --\n{\"name\": \"dock\", \"main\": \"dist/dock.js\"}\n-- dist/dock.js --\n-- rollup.config.js --\n", []string{"dock = dist/dock"}, nil},
		"a build of what leads to it": {"-- package.json --\n{\"name\": \"dock\", \"main\": \"dist/index.js\"}\n-- dist/index.js --\n-- index.js --\nmodule.exports = require('./dist/')\n", []string{"dock = dist/index"}, nil},
		"a wrapper for modules":       {"-- package.json --\n{\"name\": \"dock\", \"exports\": {\"import\": \"./dock.mjs\", \"require\": \"./dock.js\"}}\n-- dock.mjs --\nexport * from './dock.js'\n-- dock.js --\n", []string{"dock = dock"}, []string{"dock.mjs"}},
		"folders with files of their own": {"-- package.json --\n{\"name\": \"dock\", \"main\": \"lib/index.js\"}\n-- lib/index.js --\n-- lib/Array.js --\n-- Array/package.json --\n{\"main\": \"../lib/Array.js\"}\n-- esm/package.json --\n{\"type\": \"module\"}\n-- esm/x.js --\n",
			[]string{"dock = lib/index", "dock/Array = lib/Array"}, nil},
		"declarations apart from code": {"-- package.json --\n{\"name\": \"@types/tide__dock\", \"types\": \"index.d.ts\"}\n-- index.d.ts --\n", []string{"@tide/dock = index"}, nil},
		"several names":                {"-- package.json --\n{\"name\": \"dock\", \"exports\": {\".\": \"./src/dock.js\", \"./src/*\": \"./src/*\"}}\n-- src/dock.js --\n", []string{"dock = src/dock", "dock/src/dock.js = src/dock"}, nil},
	} {
		t.Run(name, func(t *testing.T) {
			_, choice := choose(t, c.archive)
			assert.Equal(t, c.entries, entries(choice))
			left := append(slices.Clone(choice.Left), choice.Twins...)
			slices.Sort(left)
			assert.Equal(t, c.left, left)
		})
	}
}

// Names that only the package's own files import by lead back inside.
func TestInside(t *testing.T) {
	root, choice := choose(t, `
-- package.json --
{"name": "dock", "exports": {".": "./src/index.ts", "./wire": "./src/wire.ts"}, "imports": {"#berths/*": "./src/berths/*.ts"}}
-- tsconfig.json --
{"compilerOptions": {"baseUrl": ".", "paths": {"@/*": ["src/*"]}}}
-- src/index.ts --
-- src/wire.ts --
-- src/berths/quay.ts --
`)
	lib := &model.Library{Package: root.Package, Entries: choice.Entries, OwnImports: choice.Inside}
	m := &model.Module{Library: lib, Path: "src/index"}
	for written, want := range map[string]string{
		"dock/wire": "src/wire", "dock": "src/index", "#berths/quay": "src/berths/quay", "@/berths/quay": "src/berths/quay", "react": "react", "dock/other": "dock/other",
	} {
		assert.Equal(t, want, typescript.ImportPaths(m, nil, written)[0], written)
	}
}

// A package in the folder of another is a part of it where the outer one gives it to users.
func TestPartOf(t *testing.T) {
	outer, _ := typescript.Root("package.json", []byte(`{"name": "dock", "exports": {".": "./dist/dock.js", "./hooks": "./hooks/dist/hooks.js"}}`))
	inner, _ := typescript.Root("hooks/package.json", []byte(`{"name": "dock-hooks", "main": "dist/hooks.js"}`))
	other, _ := typescript.Root("packages/web/package.json", []byte(`{"name": "@dock/web"}`))
	named, _ := typescript.Root("compat/package.json", []byte(`{"name": "dock/compat"}`))
	assert.True(t, typescript.PartOf(outer, inner))
	assert.True(t, typescript.PartOf(outer, named))
	assert.False(t, typescript.PartOf(outer, other))
}

// Where the doc comments stand in the declaration files alone, those are read, though the
// source is there; one doc comment in the source, and it is the source.
func TestMuteSource(t *testing.T) {
	archive := `
-- package.json --
{"name": "tidebook", "types": "dist/index.d.ts", "exports": {"import": "./dist/index.js"}}
-- src/index.ts --
export {Tide} from "./tide"
-- src/tide.ts --
/// What the water does.
export class Tide {}
-- dist/index.js --
class Tide {}
export { Tide };
-- dist/index.d.ts --
/** What the water does. */
export declare class Tide {}
`
	_, choice := choose(t, archive)
	assert.Equal(t, []string{"tidebook = dist/index"}, entries(choice))

	_, choice = choose(t, strings.Replace(archive, "/// What the water does.", "/** What the water does. */", 1))
	assert.Equal(t, []string{"tidebook = src/index"}, entries(choice))
}

// Where nothing keeps users from a package's modules and the README imports some by their
// paths, all that lie there are for users; a main file that has everything stays the only one.
func TestEntriesByPath(t *testing.T) {
	const files = `
-- sea/index.js --
-- layer/Tide.js --
-- layer/Tide.d.ts --
-- layer/Tide.test.js --
-- _kept/base.js --
-- layer/_base.js --
-- internal/wire.js --
-- examples/show.js --
-- dist/tides.js --
-- rollup.config.js --
-- Map.js --
`
	for _, c := range []struct{ what, manifest, main, readme, want string }{
		{"a README that imports by path", `{"name": "tides", "main": "index.js"}`, "export { default } from './Map.js'", "```js\nimport Tide from 'tides/layer/Tide';\n```", "tides = index, tides/Map = Map, tides/layer/Tide = layer/Tide, tides/sea = sea/index"},
		{"with endings", `{"name": "tides", "main": "index.js"}`, "export { default } from './Map.js'", "import Tide from \"tides/layer/Tide.js\"", "tides = index, tides/Map.js = Map, tides/layer/Tide.js = layer/Tide, tides/sea/index.js = sea/index"},
		{"no README", `{"name": "tides", "main": "index.js"}`, "export { default } from './Map.js'", "", "tides = index"},
		{"a README that speaks of another", `{"name": "tides", "main": "index.js"}`, "export { default } from './Map.js'", "import 'tides/none'; see https://a.example/tides/layer/Tide", "tides = index"},
		{"a main file with everything", `{"name": "tides", "main": "index.js"}`, "export const all = 1", "import Tide from 'tides/layer/Tide'", "tides = index"},
		{"exports", `{"name": "tides", "exports": "./index.js"}`, "export { default } from './Map.js'", "import Tide from 'tides/layer/Tide'", "tides = index"},
	} {
		_, choice := choose(t, "\n-- package.json --\n"+c.manifest+"\n-- README.md --\n"+c.readme+"\n-- index.js --\n"+c.main+files)
		assert.Equal(t, c.want, strings.Join(entries(choice), ", "), c.what)
	}
}
