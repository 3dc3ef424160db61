package check_test

import (
	"fmt"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/languages"
	"codrel/internal/settings"
)

func run(t *testing.T, files map[string]string, change func(*settings.Settings)) *build.Snapshot {
	t.Helper()
	fsys := fstest.MapFS{}
	for name, text := range files {
		fsys[name] = &fstest.MapFile{Data: []byte(text)}
	}
	set := settings.Default()
	if text, ok := files["codrel.yaml"]; ok {
		var err error
		set, err = settings.Parse("codrel.yaml", []byte(text), settings.Known{Rules: check.Names(), Languages: languages.Names()})
		require.NoError(t, err)
		set.File = "codrel.yaml"
	}
	if change != nil {
		change(set)
	}
	s, err := build.Run(t.Context(), fsys, build.Options{Settings: set, FrontEnds: languages.All, Folder: "project"})
	require.NoError(t, err)
	return s
}

// TestExamples runs the examples that "explain" prints: the wrong one gives a
// finding of its rule, and the right one none at all.
func TestExamples(t *testing.T) {
	for _, r := range check.Rules {
		t.Run(r.Name, func(t *testing.T) {
			require.NotEmpty(t, r.Summary)
			require.NotEmpty(t, r.Explanation)
			on := r.Default
			var change func(*settings.Settings)
			if r.Default == finding.Off {
				on = finding.Note
				change = func(s *settings.Settings) { s.Checks.Rules = map[string]finding.Severity{r.Name: on} }
				assert.NotContains(t, strings.Join(texts(run(t, example(r.Language, r.Wrong), nil).Findings), "\n"), r.Name, "it is off")
			}
			wrong := run(t, example(r.Language, r.Wrong), change)
			var of []string
			for i := range wrong.Findings {
				if f := &wrong.Findings[i]; f.Rule == r.Name {
					of = append(of, check.Text(f))
					assert.Equal(t, on, f.Severity)
				}
			}
			require.Len(t, of, 1)
			assert.NotContains(t, of[0], "{", "every argument is filled in")
			assert.Empty(t, texts(run(t, example(r.Language, r.Right), change).Findings))
		})
	}
}

// example makes files of an example: what stands before the first "-- name --" is
// a file in the rule's language.
func example(language, text string) map[string]string {
	files := map[string]string{"go.mod": "module tidebook.example/engine"}
	archive := txtar.Parse([]byte(text))
	files[map[string]string{"go": "tide/tide.go", "python": "tide.py", "c": "tide.c", "rust": "lib.rs"}[language]] = string(archive.Comment)
	for _, f := range archive.Files {
		files[f.Name] = string(f.Data)
	}
	return files
}

func texts(list []finding.Finding) (out []string) {
	for i := range list {
		f := &list[i]
		out = append(out, fmt.Sprintf("%s:%d:%d %s %s [%s]", f.Place.File, f.Place.At.Line, f.Place.At.Column, f.Severity, check.Text(f), f.Rule))
	}
	return out
}

var want = regexp.MustCompile(`/\*want ([a-z-]+)( -\d)?\*/`)

// TestFixtures requires a finding at each mark, to the column, and none elsewhere.
func TestFixtures(t *testing.T) {
	fixtures, err := filepath.Glob("testdata/*.txt")
	require.NoError(t, err)
	require.NotEmpty(t, fixtures)
	for _, name := range fixtures {
		t.Run(filepath.Base(name), func(t *testing.T) { fixture(t, name) })
	}
}

func fixture(t *testing.T, name string) {
	archive, err := txtar.ParseFile(name)
	require.NoError(t, err)
	files := map[string]string{}
	var marks []string
	for _, f := range archive.Files {
		var clean strings.Builder
		for n, line := range strings.SplitAfter(string(f.Data), "\n") {
			for {
				at := want.FindStringSubmatchIndex(line)
				if at == nil {
					break
				}
				rule := line[at[2]:at[3]]
				place := fmt.Sprintf("%s:%d:%d %s", f.Name, n+1, at[0]+1, rule)
				if rule == finding.BrokenReference && at[4] < 0 && strings.HasPrefix(line[at[1]:], "[") {
					place = fmt.Sprintf("%s:%d:%d %s", f.Name, n+1, at[0]+2, rule) // behind the bracket
				}
				if at[4] >= 0 {
					place = rule // on a line that the mark cannot stand on
				}
				marks = append(marks, place)
				line = line[:at[0]] + line[at[1]:]
			}
			clean.WriteString(line)
		}
		files[f.Name] = clean.String()
	}
	var got []string
	for _, f := range run(t, files, nil).Findings {
		place := fmt.Sprintf("%s:%d:%d %s", f.Place.File, f.Place.At.Line, f.Place.At.Column, f.Rule)
		if slices.Contains(marks, f.Rule) && f.Arg("text") == "Gone" {
			place = f.Rule
		}
		got = append(got, place)
	}
	slices.Sort(marks)
	slices.Sort(got)
	assert.Equal(t, marks, got)
}

func TestSeverities(t *testing.T) {
	files := map[string]string{
		"go.mod":     "module tidebook.example/engine",
		"a/a.go":     "// Package a is one.\npackage a\n\nfunc F() {}\n",
		"cmd/b/b.go": "// Command b is one.\npackage main\n\nfunc F() {}\n",
	}
	s := run(t, files, func(s *settings.Settings) {
		s.Checks.Rules = map[string]finding.Severity{finding.Undocumented: finding.Error}
		s.Checks.Folders = []settings.FolderRules{{Path: "cmd/**", Rules: map[string]finding.Severity{finding.Undocumented: finding.Off}}}
	})
	assert.Equal(t, []string{"a/a.go:4:6 error function F has no doc comment [undocumented]"}, texts(s.Findings))
	assert.Equal(t, check.Coverage{Documented: 0, Total: 2}, s.Coverage)
	s = run(t, files, func(s *settings.Settings) { s.Generated = []string{"a/**"} })
	assert.Equal(t, []string{"cmd/b/b.go:4:6 warning function F has no doc comment [undocumented]"}, texts(s.Findings))
}

// TestGlobalTypes has a signature with a type of a file that is no module: it needs no
// import. In a module it would.
func TestGlobalTypes(t *testing.T) {
	const rope = "/** Ties. */\ndeclare class Rope { /** Ties. */ tie(knot: Ropes.Knot): void }\ndeclare namespace Ropes { /** One. */ interface Knot { /** How many. */ count: number } }\n" +
		"/** Is given. */\ndeclare module 'tides/rope' {\n  /** Is given. */\n  class _Rope extends Rope { }\n  export { _Rope as Rope }\n}\n"
	leaked := func(text string) (list []string) {
		s := run(t, map[string]string{"package.json": `{"name": "tides", "types": "rope.d.ts"}`, "rope.d.ts": text}, nil)
		for _, f := range s.Findings {
			if f.Rule == finding.LeakedType {
				list = append(list, f.Arg("type"))
			}
		}
		return list
	}
	assert.Empty(t, leaked(rope))
	assert.Equal(t, []string{"Ropes.Knot"}, leaked(rope+"export {};\n"))
}

// TestHome checks the references of a README.
func TestHome(t *testing.T) {
	s := run(t, map[string]string{
		"README.md": "# Tidebook\n\nSee [a](ref:tide.Height), <ref:tide.Hight>, `tide.Hight` and [b](<ref:Height()>).\n",
		"go.mod":    "module tidebook.example/engine",
		"tide/t.go": "// Package tide is one.\npackage tide\n\n// Height is one.\ntype Height int\n",
	}, nil)
	assert.Equal(t, []string{`README.md:3:28 error "tide.Hight" is not declared; did you mean tide.Height? [broken-reference]`}, texts(s.Findings))
	assert.InDelta(t, 100, s.Coverage.Percent(), 0)
}

// What a compiler calls parameters is not held against a comment, where a declaration file
// says what the value is.
func TestCompiledMembers(t *testing.T) {
	const code = "/** Paths. */\nexport const path = {\n  /**\n   * Normal form.\n   * @param path - Where it leads.\n   */\n  normal(path2) {\n    const parts = path2.split('/');\n    return parts.join('/');\n  }\n};\n"
	phantoms := func(files map[string]string) (out []string) {
		files["package.json"] = `{"name": "port", "main": "path.js"}`
		for _, f := range run(t, files, nil).Findings {
			if f.Rule == finding.PhantomParameter || f.Rule == finding.UndescribedParameter {
				out = append(out, f.Arg("parameter"))
			}
		}
		return out
	}
	assert.Equal(t, []string{"path", "path2"}, phantoms(map[string]string{"path.js": code}))
	assert.Empty(t, phantoms(map[string]string{"path.js": code, "path.d.ts": "/** Paths. */\nexport interface Path { normal(path: string): string }\nexport declare const path: Path;\n"}))
}
