package build_test

import (
	"errors"
	"fmt"
	"io/fs"
	"path"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/lang"
	"codrel/internal/lang/madeup"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/settings"
)

// shape lists libraries, modules and declarations as text.
func shape(s *build.Snapshot) (out []string) {
	for _, lib := range s.Project.Libraries {
		for _, m := range append(slices.Clone(lib.Modules), lib.Tests...) {
			line := lib.Name + " " + m.Path
			if m.Role == model.RoleTest {
				line += " tests"
			}
			if m.Internal {
				line += " internal"
			}
			for d := range m.Declarations {
				line += fmt.Sprintf(" %s*%d", d.Path(), len(d.Occurrences))
			}
			out = append(out, line)
		}
	}
	return out
}

func TestLibrariesAndModules(t *testing.T) {
	files := buildtest.Files(map[string]string{
		"go.mod":               "module harbour.example/harbour/v2",
		"a/x.go":               "package x",
		"b/x.go":               "package x",
		"a/y.go":               "package y\nvar Y int",
		"a/gen.go":             "//go:build ignore\n\npackage main\nfunc main() {}",
		"a/x_test.go":          "package x\nfunc Helper() {}",
		"_tools/t.go":          "package tools",
		"internal/i.go":        "package internal",
		"nested/deep/go.mod":   "module harbour.example/harbour/v2/nested",
		"nested/deep/d.go":     "package deep",
		"nested/e.go":          "package nested",
		"sys_linux.go":         "package harbour\nconst Path = 1",
		"sys_windows.go":       "package harbour\n// Path is documented here.\nconst Path = 2",
		"vendor/v.go":          "package v",
		"a/testdata/t.go":      "package t",
		"codrel-site/index.go": "package old",
	})
	s := buildtest.Run(t, files, build.Options{Tests: true, Folder: "checkout"})
	const prefix = "harbour harbour.example/harbour/v2"
	assert.Equal(t, []string{
		prefix + " Path*2",
		prefix + "/a",
		prefix + "/a/gen.go main*1",
		prefix + "/a:y Y*1",
		prefix + "/b",
		prefix + "/internal internal",
		prefix + "/nested",
		prefix + "/a tests Helper*1",
		"nested-deep harbour.example/harbour/v2/nested",
	}, shape(s))
	assert.Equal(t, "harbour", s.Project.Name)
	d := s.Project.Libraries[0].Modules[0].Lookup("Path")
	assert.Equal(t, "sys_windows.go", d.Speaks(model.Words).File.Path, "the occurrence with the comment speaks for all")
	assert.Equal(t, "harbour/harbour.example/harbour/v2#Path", d.ID())

	without := buildtest.Run(t, files, build.Options{})
	assert.NotContains(t, strings.Join(shape(without), "\n"), "tests", "test files are not read where nobody asks")
}

// Folders that would be called alike give libraries of different names, since the
// pages of each stand under its name.
func TestLibrariesOfOneName(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"v4/mini/package.json": `{"name": "a"}`,
		"v4/mini/a.ts":         "export const a = 1",
		"v4-mini/package.json": `{"name": "b"}`,
		"v4-mini/b.ts":         "export const b = 1",
		"v4/mini/a.js":         "export const c = 1",
		"v4-mini/b.js":         "export const d = 1",
	}), build.Options{})
	seen := map[string]bool{}
	for _, lib := range s.Project.Libraries {
		assert.False(t, seen[lib.Name], lib.Name)
		seen[lib.Name] = true
	}
	assert.Len(t, seen, 2, "both languages of a folder make one library")
}

// A package.json without a name says how files of the package around it are read; only
// where there is none around it does it make a library.
func TestPartsOfPackages(t *testing.T) {
	libraries := func(files map[string]string) (out []string) {
		for _, lib := range buildtest.Run(t, buildtest.Files(files), build.Options{Folder: "checkout"}).Project.Libraries {
			for _, m := range lib.Modules {
				out = append(out, lib.Name+" "+lib.Root+" "+m.Path)
			}
		}
		return out
	}
	files := map[string]string{
		"package.json":            `{"name": "tidebook"}`,
		"a.js":                    "export const a = 1",
		"mini/package.json":       `{"type": "module"}`,
		"mini/b.js":               "export const b = 1",
		"mini/own/package.json":   `{"name": "own"}`,
		"mini/own/x/package.json": `{}`,
		"mini/own/x/c.js":         "export const c = 1",
	}
	assert.Equal(t, []string{"tidebook . a", "tidebook . mini/b", "mini-own mini/own x/c"}, libraries(files))
	delete(files, "package.json")
	assert.Equal(t, []string{"checkout . a", "mini mini b", "mini-own mini/own x/c"}, libraries(files))
}

func TestReadSettings(t *testing.T) {
	files := buildtest.Files(map[string]string{
		"engine/go.mod": "module e", "engine/a.go": "package e", "engine/old/b.go": "package old", "engine/internal/c.go": "package c",
		"tools/t.go": "package tools", "other/o.go": "package other",
	})
	set := settings.Default()
	set.Name = "Tidebook"
	set.Read = []settings.Read{{Path: "engine", Language: "go", Skip: []string{"old/**"}, Open: []string{"internal"}}, {Path: "tools"}}
	s := buildtest.Run(t, files, build.Options{Settings: set})
	assert.Equal(t, []string{"engine e", "engine e/internal", "tools tools"}, shape(s))
	assert.Equal(t, "Tidebook", s.Project.Name)

	set.Read = []settings.Read{{Path: "nowhere"}}
	_, err := build.Run(t.Context(), files, build.Options{Settings: set, FrontEnds: languages.All})
	var p *build.PathError
	require.ErrorAs(t, err, &p)
	assert.Equal(t, "nowhere: it does not exist", err.Error())
}

func TestHome(t *testing.T) {
	for name, files := range map[string]map[string]string{
		"readme.md":    {"readme.md": "# A", "README.txt": "b"},
		"docs/home.md": {"README.md": "# A", "docs/home.md": "# H"},
		"":             {"a.go": "package a"},
	} {
		set := settings.Default()
		if strings.HasPrefix(name, "docs") {
			set.Home = name
		}
		s := buildtest.Run(t, buildtest.Files(files), build.Options{Settings: set})
		if name == "" {
			assert.Empty(t, s.Project.Guides)
			continue
		}
		require.Len(t, s.Project.Guides, 1)
		assert.Equal(t, name, s.Project.Guides[0].Path)
		assert.True(t, s.Project.Guides[0].Landing)
	}
}

// failing is a file system in which some files and folders cannot be read.
type failing struct {
	fstest.MapFS
	bad map[string]error
}

func (f failing) Open(name string) (fs.File, error) {
	if err := f.bad[name]; err != nil {
		return nil, &fs.PathError{Op: "open", Path: name, Err: err}
	}
	return f.MapFS.Open(name)
}

func (f failing) ReadFile(name string) ([]byte, error) {
	if err := f.bad[name]; err != nil {
		return nil, &fs.PathError{Op: "open", Path: name, Err: err}
	}
	return f.MapFS.ReadFile(name)
}

func (f failing) ReadDir(name string) ([]fs.DirEntry, error) {
	if err := f.bad[name]; err != nil {
		return nil, &fs.PathError{Op: "open", Path: name, Err: err}
	}
	return f.MapFS.ReadDir(name)
}

func TestWhatCannotBeRead(t *testing.T) {
	files := failing{buildtest.Files(map[string]string{
		"a.go": "// Package a is one.\npackage a", "secret.go": "package a", "dir/b.go": "package b", "broken.go": "package a", "README.md": "# A",
	}), map[string]error{"secret.go": fs.ErrPermission, "dir": fs.ErrPermission, "broken.go": errors.New("input/output error"), "README.md": fs.ErrPermission}}
	s := buildtest.Run(t, files, build.Options{})
	var got []string
	for i := range s.Findings {
		f := &s.Findings[i]
		got = append(got, path.Base(f.Place.File)+": "+f.Severity.String()+" "+check.Text(f))
	}
	assert.Equal(t, []string{
		"README.md: error the file cannot be read: it may not be read (permission denied)",
		"broken.go: error the file cannot be read: input/output error",
		"dir: error the file cannot be read: it may not be read (permission denied)",
		"secret.go: error the file cannot be read: it may not be read (permission denied)",
	}, got)
}

// One worker and many find the same, in the same order.
func TestSameFindings(t *testing.T) {
	files := map[string]string{"go.mod": "module a"}
	for i := range 60 {
		files[fmt.Sprintf("p%d/f.go", i)] = fmt.Sprintf("package p%d\n\n// F sees [Gone.X] and [p%d.F].\nfunc F() {}\nfunc G() {}\ntype T struct{ *T }\n", i, (i+1)%60)
	}
	text := func(jobs int) (out []string) {
		for _, f := range buildtest.Run(t, buildtest.Files(files), build.Options{Jobs: jobs}).Findings {
			out = append(out, f.Place.File+" "+fmt.Sprint(f.Place.At)+check.Text(&f))
		}
		return out
	}
	one := text(1)
	require.Len(t, one, 60*3+1, "one broken name is one finding")
	for range 3 {
		assert.Equal(t, one, text(8))
	}
}

func TestProgress(t *testing.T) {
	var reading atomic.Int64
	stages := map[string]bool{}
	s := buildtest.Run(t, buildtest.Files(map[string]string{"a.go": "package a", "b.go": "package a"}), build.Options{Jobs: 1, Progress: func(stage string, done, total int) {
		stages[stage] = true
		if stage == "reading" {
			reading.Store(int64(done * 10 / total))
		}
	}})
	assert.EqualValues(t, 10, reading.Load())
	for _, st := range s.Stats.Stages {
		assert.True(t, stages[st.Name], st.Name)
	}
	assert.Equal(t, 2, s.Stats.Files)
	assert.EqualValues(t, 18, s.Stats.Bytes)
	assert.Equal(t, finding.Warning, s.Findings[0].Severity)
}

// faulty is a front end that panics at a file.
type faulty struct{ lang.FrontEnd }

func (f faulty) Read(file lang.File) *model.Facts {
	if strings.Contains(file.Text.String, "hostile") {
		var none []int
		none[len(file.Path)]++
	}
	return f.FrontEnd.Read(file)
}

func TestPanicOfAFrontEndLosesOneFile(t *testing.T) {
	files := buildtest.Files(map[string]string{
		"port/a.mad": "hostile",
		"port/b.mad": "/ The port.\nspace Port\n",
	})
	s, err := build.Run(t.Context(), files, build.Options{Settings: &settings.Settings{}, FrontEnds: []lang.FrontEnd{faulty{madeup.FrontEnd{}}}, Folder: "port"})
	require.NoError(t, err)
	assert.Equal(t, 2, s.Stats.Files)
	require.Len(t, s.Findings, 1)
	assert.Equal(t, "port/a.mad", s.Findings[0].Place.File)
	assert.Regexp(t, `^Codrel itself failed at this file, so nothing in it is shown \(runtime error: index out of range \[10\] with length 0, in build/build_test.go:\d+\)`, check.Text(&s.Findings[0]))
}
