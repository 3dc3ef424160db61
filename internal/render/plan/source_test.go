package plan_test

import (
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/render/plan"
)

// plannedWith plans a project with source pages.
func plannedWith(t *testing.T, files map[string]string, options plan.Options) *plan.Plan {
	t.Helper()
	fsys := buildtest.Files(files)
	fsys["go.mod"] = &fstest.MapFile{Data: []byte("module a.example/m\n")}
	s := buildtest.Run(t, fsys, build.Options{Folder: "m", Inside: true})
	return plan.New(s.Links, options)
}

func TestSourceAddresses(t *testing.T) {
	p := plannedWith(t, map[string]string{"Sub/con.go": "package a\n", "b c/é.go": "package b\n", "x.html.go": "package c\n"}, plan.Options{Source: plan.FullSource, Findings: -1})
	for file, want := range map[string]string{
		"Sub/con.go": "source/Sub/~con.go.html#L1", "b c/é.go": "source/b~20~c/~e9~.go.html#L1", "x.html.go": "source/x.html.go.html#L1", "gone.go": "",
	} {
		assert.Equal(t, want, p.SourceFile(file, 1), file)
	}
	assert.Empty(t, plannedWith(t, map[string]string{"a.go": "package a\n"}, plan.Options{Findings: -1}).SourceFile("a.go", 1))
}

func TestSourceParts(t *testing.T) {
	lines := func(n int, line string) string { return "package a\n/*\n" + strings.Repeat(line+"\n", n-3) + "*/\n" }
	for name, test := range map[string]struct {
		text  string
		parts []int32
	}{
		"short":                  {lines(100, "x"), []int32{1}},
		"just one page":          {lines(5000, "x"), []int32{1}},
		"one line more":          {lines(5001, "x"), []int32{1, 5001}},
		"three pages":            {lines(10001, "x"), []int32{1, 5001, 10001}},
		"few lines, many bytes":  {lines(1000, strings.Repeat("x", 999)), []int32{1, 402, 802}},
		"one line for each page": {lines(6, strings.Repeat("x", 500_000)), []int32{1, 3, 4, 5, 6}},
		"many names":             {"package a\nvar x int\nvar _ = []int{\n" + strings.Repeat("x, x, x, x, x, x, x, x, x, x,\n", 3000) + "}\n", []int32{1, 1303, 2603}},
		"empty":                  {"", []int32{1}},
	} {
		p := plannedWith(t, map[string]string{"a.go": test.text}, plan.Options{Source: plan.FullSource, Findings: -1})
		f := p.Links.Project.Libraries[0].Files[0]
		assert.Equal(t, test.parts, p.SourceParts(f), name)
		for i, first := range test.parts {
			assert.Equal(t, p.SourcePart(f, i)+"#L", strings.TrimRight(p.SourceLine(f, int(first)), "0123456789"), "%s: line %d", name, first)
		}
	}
}

func TestReportPages(t *testing.T) {
	for findings, want := range map[int]int{-1: 0, 0: 1, 1: 1, 2000: 1, 2001: 2, 9000: 5} {
		p := plannedWith(t, map[string]string{"a.go": "package a\n"}, plan.Options{Findings: findings, Coverage: findings > 0, HasToDos: findings >= 0, ToDos: findings})
		pages, toDos := 0, 0
		for _, page := range p.Pages() {
			if page.Kind == plan.FindingsPage {
				assert.Equal(t, plan.FindingsPart(pages), page.Address)
				pages++
			}
			if page.Kind == plan.ToDosPage {
				assert.Equal(t, plan.ToDosPart(toDos), page.Address)
				toDos++
			}
		}
		assert.Equal(t, want, pages, findings)
		assert.Equal(t, want, toDos, findings)
		assert.Equal(t, findings > 0, p.HasCoverage)
	}
	_, ok := plan.ParseSource("some")
	assert.False(t, ok)
}
