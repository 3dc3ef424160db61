package discover_test

import (
	"context"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/discover"
	"codrel/internal/lang"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/settings"
)

func files(texts map[string]string) fstest.MapFS {
	out := fstest.MapFS{}
	for path, text := range texts {
		out[path] = &fstest.MapFile{Data: []byte(text)}
	}
	return out
}

// owned lists the files of all libraries as "library language path".
func owned(t *testing.T, fsys fs.FS, options discover.Options) (out []string) {
	t.Helper()
	if options.FrontEnds == nil {
		options.FrontEnds = languages.All
	}
	found, err := discover.Find(t.Context(), fsys, options)
	require.NoError(t, err)
	for _, lib := range found.Libraries {
		for _, f := range lib.Files {
			out = append(out, lib.Model.Name+" "+f.End.Habits().Language+" "+f.Path)
		}
	}
	return out
}

// counting counts how often folders are listed.
type counting struct {
	fs.FS
	mu     sync.Mutex
	listed map[string]int
}

func (c *counting) ReadDir(name string) ([]fs.DirEntry, error) {
	c.mu.Lock()
	c.listed[name]++
	c.mu.Unlock()
	return fs.ReadDir(c.FS, name)
}

func TestFindListsAFolderOnce(t *testing.T) {
	c := &counting{FS: files(map[string]string{
		"engine/a.go": "", "engine/vendor/v.go": "", "clients/b.py": "", "clients/site-packages/s.py": "", "clients/vendor/w.py": "",
		"dock/c.js": "", "dock/node_modules/n.js": "", "docs/x/readme.md": "",
	}), listed: map[string]int{}}
	got := owned(t, c, discover.Options{Folder: "tidebook", Read: []settings.Read{{Path: "."}, {Path: "clients"}, {Path: "dock", Language: "javascript"}}})
	assert.Equal(t, []string{"tidebook go engine/a.go", "clients python clients/b.py", "clients python clients/vendor/w.py", "dock javascript dock/c.js"}, got)
	for folder, n := range c.listed {
		want := 1
		if folder == "." {
			want = 2 // once to see whether it can be listed at all
		}
		assert.Equal(t, want, n, folder)
	}
	assert.NotContains(t, c.listed, "dock/node_modules", "nobody wants what is in it")
	assert.Contains(t, c.listed, "clients/vendor", "Python has no such habit")
}

// Where trees overlap, a file is read for the innermost that reads its language, and what
// that one skips is not read for another.
func TestOverlappingTrees(t *testing.T) {
	fsys := files(map[string]string{
		"a.py": "", "clients/b.py": "", "clients/gen/c.py": "", "clients/gen/d.go": "", "clients/deep/e.py": "", "vendor/lib/f.go": "",
	})
	got := owned(t, fsys, discover.Options{Folder: "tidebook", Read: []settings.Read{
		{Path: "clients/deep"}, {Path: "."}, {Path: "clients", Language: "python", Skip: []string{"gen/**"}}, {Path: "vendor/lib"},
	}})
	assert.Equal(t, []string{
		"clients-deep python clients/deep/e.py",
		"tidebook go clients/gen/d.go",
		"tidebook-python python a.py",
		"clients python clients/b.py",
		"vendor-lib go vendor/lib/f.go",
	}, got)

	slices.Sort(got)
	twice := owned(t, fsys, discover.Options{Folder: "tidebook", Read: []settings.Read{{Path: "."}, {Path: "."}}})
	assert.Len(t, twice, len(slices.Compact(slices.Clone(twice))), "no file twice")
}

func TestPrograms(t *testing.T) {
	fsys := files(map[string]string{
		"bin/tides":    "#!/usr/bin/env python3\n",
		"bin/plain":    "#!/usr/bin/python3.12 -u\n",
		"bin/split":    "#!/usr/bin/env -S PYTHONUTF8=1 python -X dev\r\n",
		"bin/mark":     "\xef\xbb\xbf#! /opt/node/bin/node --no-warnings\n",
		"bin/typed":    "#!/usr/bin/env ts-node\n",
		"bin/shell":    "#!/bin/sh\nexec python3 tides\n",
		"bin/text":     "python3\n",
		"bin/empty":    "",
		"bin/env":      "#!/usr/bin/env\n",
		"bin/tides.sh": "#!/usr/bin/env python3\n",
		"LICENSE":      "#! in name only",
	})
	var got []string
	for _, line := range owned(t, fsys, discover.Options{}) {
		_, owner, _ := strings.Cut(line, " ")
		got = append(got, owner)
	}
	assert.ElementsMatch(t, []string{
		"javascript bin/mark", "typescript bin/typed", "python bin/plain", "python bin/split", "python bin/tides",
	}, got)
}

// A file that the settings name alone, with a language, is read in that language whatever
// it is called.
func TestNamedFile(t *testing.T) {
	fsys := files(map[string]string{"tools/importer": "print(1)", "tools/other": "print(2)", "tools/x.py": ""})
	assert.Equal(t, []string{"tools python tools/importer"}, owned(t, fsys, discover.Options{Read: []settings.Read{{Path: "tools/importer", Language: "python"}}}))
	assert.Equal(t, []string{"tools python tools/x.py"}, owned(t, fsys, discover.Options{Read: []settings.Read{{Path: "tools/x.py"}}}))
	_, err := discover.Find(t.Context(), fsys, discover.Options{FrontEnds: languages.All, Read: []settings.Read{{Path: "tools/nothing"}}})
	var wrong *discover.PathError
	require.ErrorAs(t, err, &wrong)
	assert.Equal(t, "tools/nothing", wrong.Path)
	require.ErrorIs(t, err, fs.ErrNotExist)
}

// plain and curly are two languages that have one ending in common, as C and C++ do.
type plain struct{ lang.FrontEnd }

func (plain) Habits() *model.Habits      { return &model.Habits{Language: "plain"} }
func (plain) Extensions() []string       { return []string{".plain"} }
func (plain) SkipFolders() []string      { return nil }
func (plain) SharedExtensions() []string { return []string{".head"} }
func (plain) Recognize(_ string, head []byte, _ []string) int {
	if strings.Contains(string(head), "\x00") {
		return 0
	}
	return 1
}

type curly struct{ plain }

func (curly) Habits() *model.Habits { return &model.Habits{Language: "curly"} }
func (curly) Extensions() []string  { return []string{".curly"} }
func (curly) Recognize(_ string, head []byte, beside []string) int {
	switch {
	case strings.Contains(string(head), "{"):
		return 3
	case slices.ContainsFunc(beside, func(name string) bool { return strings.HasSuffix(name, ".curly") }):
		return 2
	}
	return 0
}

func TestSharedEndings(t *testing.T) {
	fsys := files(map[string]string{
		"a/one.head": "{", "a/x.plain": "", "b/two.head": "", "b/y.curly": "", "c/three.head": "words", "c/d/z.curly": "", "c/bytes.head": "\x00",
	})
	got := owned(t, fsys, discover.Options{Folder: "t", FrontEnds: []lang.FrontEnd{plain{}, curly{}}})
	assert.ElementsMatch(t, []string{
		"t plain a/x.plain", "t plain c/three.head",
		"t-curly curly a/one.head", "t-curly curly b/two.head", "t-curly curly b/y.curly", "t-curly curly c/d/z.curly",
	}, got, "what is in a file comes before what lies beside it; a file that looks like neither is nobody's")
}

// A header is in the language of the sources that include it, if only through other headers.
func TestHeadersByIncluders(t *testing.T) {
	fsys := files(map[string]string{
		"src/a.c": "#include \"c/only.h\"\n", "src/b.cpp": "#include <plus/outer.h>\n#include \"both.h\"\n", "src/d.c": "#include \"both.h\"\n",
		"include/c/only.h": "int a;\n", "include/plus/outer.h": "#include \"../plus/inner.h\"\n", "include/plus/inner.h": "int b;\n",
		"src/both.h": "int c;\n", "include/nobody.h": "int d;\n", "include/telling.h": "class D;\n",
	})
	read := map[string]string{}
	found, err := discover.Find(t.Context(), fsys, discover.Options{Folder: "t", FrontEnds: languages.All})
	require.NoError(t, err)
	for _, lib := range found.Libraries {
		for _, f := range lib.Files {
			read[f.Path] = f.End.Habits().Language
		}
	}
	assert.Equal(t, map[string]string{
		"src/a.c": "c", "src/b.cpp": "cpp", "src/d.c": "c", "include/c/only.h": "c", "include/plus/outer.h": "cpp", "include/plus/inner.h": "cpp",
		"src/both.h": "c", "include/nobody.h": "c", "include/telling.h": "cpp",
	}, read)
}

// What the build files of folders install is said of the library as a whole.
func TestInstallsOfParts(t *testing.T) {
	found, err := discover.Find(t.Context(), files(map[string]string{
		"configure.ac": "AC_INIT([tide], [2.0])\n", "src/Makefile.am": "include_HEADERS = tide.h\n", "lib/Makefile.am": "include_HEADERS = berth.h\n",
		"src/tide.h": "int tide;\n", "src/tide.c": "int tide;\n", "lib/berth.h": "int berth;\n",
	}), discover.Options{Folder: "t", FrontEnds: languages.All})
	require.NoError(t, err)
	require.Len(t, found.Libraries, 1)
	assert.Equal(t, []model.Saying{{Key: model.Installs, Names: []string{"lib/berth.h", "src/tide.h"}}}, found.Libraries[0].Model.Sayings)
}

func TestFindStops(t *testing.T) {
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err := discover.Find(ctx, files(map[string]string{"a.go": ""}), discover.Options{FrontEnds: languages.All})
	require.ErrorIs(t, err, context.Canceled)
}

// A link that leads nowhere is a source that is missing only where other files of its language are read.
func TestLinksThatLeadNowhere(t *testing.T) {
	folder := t.TempDir()
	require.NoError(t, os.MkdirAll(filepath.Join(folder, "lib"), 0o755))
	for _, name := range []string{"gone.js", "gone.pm", "gone.css"} {
		require.NoError(t, os.Symlink("../nowhere", filepath.Join(folder, "lib", name)))
	}
	require.NoError(t, os.WriteFile(filepath.Join(folder, "lib/Tide.pm"), []byte("package Tide;\n1;\n"), 0o644))
	for _, language := range []string{"perl", ""} {
		found, err := discover.Find(t.Context(), os.DirFS(folder), discover.Options{FrontEnds: languages.All, Read: []settings.Read{{Path: "lib", Language: language}}})
		require.NoError(t, err)
		named := map[string]bool{}
		for _, p := range found.Problems {
			named[path.Base(p.Path)] = p.Named
		}
		assert.Equal(t, map[string]bool{"gone.js": false, "gone.pm": true, "gone.css": false}, named)
	}
}
