package finding_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/finding"
	"codrel/internal/source"
)

func at(file string, start int, rule string, args ...string) finding.Finding {
	f := finding.Finding{Rule: rule, Place: finding.Place{File: file, Span: source.NewSpan(start, start+1)}}
	for i := 0; i+1 < len(args); i += 2 {
		f.Arguments = append(f.Arguments, finding.Argument{Name: args[i], Value: args[i+1]})
	}
	return f
}

func TestSortDoesNotHangOnTheOrderBefore(t *testing.T) {
	want := []finding.Finding{
		at("a.go", 1, "x"), at("a.go", 1, "x", "name", "A"), at("a.go", 1, "x", "name", "B"), at("a.go", 1, "y"),
		at("a.go", 20, "x"), at("a/b.go", 3, "x"), at("b.go", 0, "x"),
	}
	random := rand.New(rand.NewPCG(1, 2))
	for range 50 {
		got := append([]finding.Finding(nil), want...)
		random.Shuffle(len(got), func(i, j int) { got[i], got[j] = got[j], got[i] })
		finding.Sort(got)
		assert.Equal(t, want, got)
	}
}

func TestUnique(t *testing.T) {
	list := []finding.Finding{at("a.go", 1, "x"), at("a.go", 1, "x"), at("a.go", 1, "x", "name", "A"), at("a.go", 2, "x")}
	assert.Len(t, finding.Unique(list), 3)
}

func TestFill(t *testing.T) {
	f := at("a.go", 1, "x", "name", "{type}", "type", "T")
	assert.Equal(t, `{type} is a T, not {other}`, f.Fill("{name} is a {type}, not {other}"), "a value is not filled in again")
	assert.Equal(t, "T", f.Arg("type"))
	assert.Empty(t, f.Arg("missing"))
}

func TestSeverities(t *testing.T) {
	for _, s := range []finding.Severity{finding.Off, finding.Note, finding.Warning, finding.Error} {
		got, ok := finding.ParseSeverity(s.String())
		assert.True(t, ok)
		assert.Equal(t, s, got)
	}
	_, ok := finding.ParseSeverity("loud")
	assert.False(t, ok)
	assert.Less(t, finding.Note, finding.Warning)
	assert.Less(t, finding.Warning, finding.Error)
}
