package check_test

import (
	"path"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"testing/fstest"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/languages"
	"codrel/internal/settings"
)

// Modules of every language are called by a word that people know.
func TestModulesWithoutComments(t *testing.T) {
	for name, want := range map[string]string{
		"a.h": "", "a.c": "",
		"a.go": "package a", "a.py": "module a", "p/__init__.py": "package p", "a.ts": "module a", "a.js": "module a",
	} {
		text := map[string]string{".h": "/** Is one. */\nint f(void);\n", ".c": "/** Is one. */\nint f(void);\n", ".go": "package a\n\n// F is one.\nfunc F() {}\n", ".py": "def f():\n    \"\"\"Is one.\"\"\"\n"}[path.Ext(name)]
		if text == "" {
			text = "/** Is one. */\nexport function f() {}\n"
		}
		s, err := build.Run(t.Context(), fstest.MapFS{name: {Data: []byte(text)}}, build.Options{FrontEnds: languages.All, Folder: "a"})
		require.NoError(t, err)
		found := strings.Join(texts(s.Findings), "\n")
		assert.NotContains(t, found, "-word")
		if want == "" || strings.HasSuffix(name, "s") { // files of C and of scripts are not asked for one
			assert.Empty(t, found, name)
			continue
		}
		assert.Contains(t, found, "warning "+want+" has no doc comment [missing-module-comment]", name)
	}
}

func TestNames(t *testing.T) {
	seen := map[string]bool{}
	for _, name := range check.Names() {
		assert.False(t, seen[name], name)
		seen[name] = true
		assert.NotNil(t, check.ByName(name))
	}
	assert.Nil(t, check.ByName("nothing"))
	assert.Equal(t, finding.BrokenReference, check.Nearest("broken-refrence"))
	assert.Empty(t, check.Nearest("xylophone"))
	assert.Equal(t, "unheard-of", check.Text(&finding.Finding{Rule: "unheard-of"}), "a finding of a newer program")
	f := finding.Finding{Rule: finding.UnreadableSource, Form: "a newer form", Arguments: []finding.Argument{{Name: "language", Value: "Go"}, {Name: "problem", Value: "x"}}}
	assert.Equal(t, "not valid Go: x", check.Text(&f))
}

func TestPercent(t *testing.T) {
	assert.InDelta(t, 100, check.Coverage{}.Percent(), 0)
	assert.InDelta(t, 50, check.Coverage{Documented: 1, Total: 2}.Percent(), 0)
}

func TestOnly(t *testing.T) {
	s, err := build.Run(t.Context(), fstest.MapFS{"a.go": {Data: []byte("package a\n\nfunc F() {}\n\n//\nfunc G( {}\n")}},
		build.Options{FrontEnds: languages.All, Folder: "a", Only: []string{finding.MissingModuleComment}})
	require.NoError(t, err)
	assert.Equal(t, []string{"a.go:1:9 warning package a has no doc comment [missing-module-comment]"}, texts(s.Findings))
}

// A finding that weighs less by itself is not made heavier by the rule.
func TestLighterFindings(t *testing.T) {
	s, err := build.Run(t.Context(), fstest.MapFS{"a.go": {Data: []byte("// Package a is one.\npackage a\n")}}, build.Options{FrontEnds: languages.All, Folder: "a"})
	require.NoError(t, err)
	earlier := []finding.Finding{{Rule: finding.UnreadableSource, Severity: finding.Note, Form: "file"}, {Rule: finding.UnreadableSource, Form: "file", Place: finding.Place{File: "b"}}}
	r := check.Run(t.Context(), s.Project, s.Links, earlier, check.Options{Workers: 1})
	require.Len(t, r.Findings, 2)
	assert.Equal(t, finding.Note, r.Findings[0].Severity)
	assert.Equal(t, finding.Error, r.Findings[1].Severity)
	r = check.Run(t.Context(), s.Project, s.Links, earlier, check.Options{Rules: map[string]finding.Severity{finding.UnreadableSource: finding.Off}})
	assert.Empty(t, r.Findings)
}

func TestExcuses(t *testing.T) {
	files := map[string]string{
		"go.mod": "module a",
		"m/m.go": "//codrel:let missing-module-comment pass, there is nothing to say\npackage m\n\n// F is one.\nfunc F() {}\n",
		"t/t.go": "// Package t is one.\npackage t\n\n//codrel:let undocumented pass, the type says it\ntype T struct{}\n\nfunc (T) Loud() {}\n\n// G sees [T.Gone] and [T.Lost].\n//\n//codrel:let broken-reference pass, they come back next week\nfunc G() {}\n",
	}
	s := run(t, files, nil)
	assert.Equal(t, []string{"t/t.go:7:10 warning method T.Loud has no doc comment [undocumented]"}, texts(s.Findings), "an excuse holds for one declaration")
}

func TestFolderPatterns(t *testing.T) {
	files := map[string]string{"go.mod": "module a"}
	for _, dir := range []string{"cmd/a", "cmd", "lib", "lib/cmd"} {
		files[dir+"/x.go"] = "// Package x is one.\npackage x\n\nfunc F() {}\n"
	}
	for pattern, left := range map[string]int{"cmd/**": 2, "cmd": 2, "cmd/": 2, "**/cmd/**": 1, "*": 4, "lib/x.go": 3} {
		s := run(t, files, func(s *settings.Settings) {
			s.Checks.Folders = []settings.FolderRules{{Path: pattern, Rules: map[string]finding.Severity{finding.Undocumented: finding.Off}}}
		})
		assert.Len(t, s.Findings, left, pattern)
	}
	s := run(t, files, func(s *settings.Settings) {
		off, note := map[string]finding.Severity{finding.Undocumented: finding.Off}, map[string]finding.Severity{finding.Undocumented: finding.Note}
		s.Checks.Folders = []settings.FolderRules{{Path: "**", Rules: off}, {Path: "cmd/a/**", Rules: note}}
	})
	assert.Equal(t, []string{"cmd/a/x.go:4:6 note function F has no doc comment [undocumented]"}, texts(s.Findings), "later ones win")
}
