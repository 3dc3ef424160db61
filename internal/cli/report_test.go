package cli_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/cli"
	"codrel/internal/finding"
	"codrel/internal/source"
)

func TestWrap(t *testing.T) {
	for _, c := range []struct {
		text  string
		width int
		want  string
	}{
		{"one two three", 20, "one two three"},
		{"one two three", 7, "one two|three"},
		{"one two three", 1, "one|two|three"},
		{"überlanges wort", 10, "überlanges|wort"},
		{"", 10, ""},
		{"one", -5, "one"},
	} {
		assert.Equal(t, c.want, strings.Join(cli.Wrap(c.text, c.width), "|"))
	}
}

func TestOneLine(t *testing.T) {
	assert.Equal(t, "a b c d", finding.OneLine("a\nb\tc\rd"))
	assert.Equal(t, "[31mred", finding.OneLine("\x1b[31mred"), "no comment speaks to the terminal")
	assert.Equal(t, "txet", finding.OneLine("\u202etxet\u202c"))
	assert.Equal(t, "水位 ok", finding.OneLine("水位\u0085 ok\x7f"))
}

func TestSize(t *testing.T) {
	for bytes, want := range map[int64]string{0: "0 bytes", 1: "1 byte", 9_999: "9999 bytes", 10_000: "10 kB", 9_000_000: "9000 kB", 49_173_848: "49 MB"} {
		assert.Equal(t, want, cli.Size(bytes))
	}
}

func TestList(t *testing.T) {
	assert.Equal(t, "", cli.List(nil))
	assert.Equal(t, "a", cli.List([]string{"a"}))
	assert.Equal(t, "a, b and c", cli.List([]string{"a", "b", "c"}))
}

func findings() []finding.Finding {
	wd, _ := os.Getwd()
	place := func(file string, line int) finding.Place {
		return finding.Place{File: filepath.Join(wd, file), At: source.Position{Line: line, Column: 6}}
	}
	return []finding.Finding{
		{Rule: finding.Undocumented, Severity: finding.Warning, Place: place("a.go", 4), Arguments: []finding.Argument{{Name: "kind", Value: "function"}, {Name: "name", Value: "F"}}},
		{Rule: finding.BrokenReference, Severity: finding.Error, Place: place("engine/berth/berth.go", 123), Form: "near",
			Arguments: []finding.Argument{{Name: "text", Value: "Tide.Hight"}, {Name: "near", Value: "Tide.Height"}}},
	}
}

func TestColumnsOnAWideTerminal(t *testing.T) {
	lines := strings.Split(strings.TrimSuffix(cli.Columns(findings(), 160, false), "\n"), "\n")
	require.Len(t, lines, 2)
	assert.Equal(t, "a.go:4:6                     warning  undocumented      function F has no doc comment", lines[0])
	assert.Equal(t, `engine/berth/berth.go:123:6  error    broken-reference  "Tide.Hight" is not declared; did you mean Tide.Height?`, lines[1])
}

func TestColumnsWrapAndStack(t *testing.T) {
	lines := strings.Split(cli.Columns(findings(), 100, false), "\n")
	assert.Equal(t, `engine/berth/berth.go:123:6  error    broken-reference  "Tide.Hight" is not declared; did you mean`, lines[1])
	assert.Equal(t, strings.Repeat(" ", 56)+"Tide.Height?", lines[2])

	lines = strings.Split(cli.Columns(findings(), 80, false), "\n")
	assert.Equal(t, "a.go:4:6  warning  undocumented", lines[0])
	assert.Equal(t, "    function F has no doc comment", lines[1])
	for _, width := range []int{40, 60, 80, 100, 160} {
		for _, line := range strings.Split(cli.Columns(findings(), width, false), "\n") {
			assert.LessOrEqual(t, utf8.RuneCountInString(line), max(width, 56), "%d columns", width)
		}
	}
}

func TestColours(t *testing.T) {
	out := cli.Columns(findings(), 160, true)
	assert.Contains(t, out, "\x1b[33mwarning\x1b[0m")
	assert.Contains(t, out, "\x1b[31merror  \x1b[0m")
	assert.NotContains(t, cli.Columns(findings(), 160, false), "\x1b")
}

// What is printed into a pipe has no colours, whatever the severity.
func TestNoColoursInAPipe(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "a.go"), []byte("package a\n\nfunc F() {}\n"), 0o644))
	for _, command := range [][]string{{"check", dir}, {"build", dir}, {"explain"}} {
		_, out, errs := run(t, command...)
		assert.NotContains(t, out+errs, "\x1b", command)
	}
}

func TestVerboseSaysWhereTheTimeGoes(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "a.go"), []byte("package a\n"), 0o644))
	code, out, errs := run(t, "build", "--verbose", dir)
	assert.Zero(t, code)
	for _, stage := range []string{"finding files", "reading", "joining", "linking", "checking", "writing"} {
		assert.Contains(t, errs, stage)
	}
	assert.Contains(t, out, "Open ")
	_, out, errs = run(t, "build", "--quiet", dir)
	assert.Empty(t, errs)
	assert.Equal(t, 1, strings.Count(out, "\n"), "only the finding")
}
