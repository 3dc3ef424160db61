package site_test

import (
	"io/fs"
	"regexp"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/languages"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
	"codrel/internal/settings"
)

// besideTable renders a project that links to another one, whose file of names is given.
func besideTable(t *testing.T, files fstest.MapFS, table string) (*build.Snapshot, *sink.Memory) {
	t.Helper()
	set := settings.Default()
	set.Elsewhere = []settings.Elsewhere{{Symbols: settings.Word{Text: "there/symbols.json"}}}
	s, err := build.Run(t.Context(), files, build.Options{
		Settings: set, FrontEnds: languages.All, Folder: "here", Inside: true,
		Outside: build.Outside{
			Read: func(path string) ([]byte, error) {
				if path == "there/symbols.json" {
					return []byte(table), nil
				}
				return nil, fs.ErrNotExist
			},
			Way: func(string) string { return "../there/" },
		},
	})
	require.NoError(t, err)
	var m sink.Memory
	require.NoError(t, site.New(plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1}), site.Options{FrontEnds: s.FrontEnds, Workers: 2}).Write(t.Context(), &m))
	return s, &m
}

// A file of names is somebody else's: whatever stands in it, no page leads out of
// the folder it is said to be in, and nothing in it is run.
func TestHostileNames(t *testing.T) {
	const table = `{"codrel":"symbols","version":1,"name":"<script>alert(1)</script>","site":"javascript:alert(1)/","libraries":[
		{"name":"../../..","language":"go","modules":[{"path":"evil.example/../../../../etc","name":"etc","names":{"function":["F\" onclick=\"x","<img src=x>"],"gadget":["Odd"]},
			"gives":{"Loop":"#Loop","Nowhere":"x:y#z"},
			"holders":[{"name":"Self","kind":"struct","bases":["#Self","#Other","none#None"]},{"name":"Other","kind":"struct","bases":["#Self"],"names":{"method":["Do"]}},
				{"name":"Ask","kind":"interface","asks":{"Do":"()()"},"names":{"method":["Do","Do"]}},{"name":"","kind":"struct"},{"name":"Ask","kind":"class"}]}]},
		{"name":"nobody","language":"klingon","modules":[{"path":""},{"path":"x"}]}]}`
	s, m := besideTable(t, fstest.MapFS{
		"go.mod": {Data: []byte("module here.example/here")},
		"a.go": {Data: []byte(`// Package here uses [etc.Self], [etc.Self.Do], [etc.F] and [etc.Ask].
package here

import "evil.example/../../../../etc"

// T is one.
type T struct{ etc.Self }

func (T) Do() {}
`)},
		"README.md": {Data: []byte("# Here\n\n[a](ref:etc.Self), [b](ref:Loop), [c](ref:Nowhere), [d](ref:nobody:x), [e](ref:../../..:etc.Other)\n")},
	}, table)
	for _, path := range m.Paths() {
		page := string(m.Get(path))
		if !strings.HasSuffix(path, ".html") {
			continue
		}
		for _, bad := range []string{"<script>alert", "<img src=x", "javascript:", `" onclick="`, "there/../", "there/reference/.."} {
			assert.NotContains(t, page, bad, path)
		}
	}
	page := string(m.Get("reference/here/here.example/here/T.html"))
	assert.Contains(t, page, "&lt;script&gt;alert(1)")
	assert.Contains(t, page, `../there/reference/`)
	broken := 0
	for _, f := range s.Findings {
		if f.Rule == "broken-reference" {
			broken++
		}
	}
	assert.Positive(t, broken)
}

// However deep and however long, reading takes time in proportion.
func TestHugeNames(t *testing.T) {
	deep := strings.Repeat(`{"name":"x","kind":"struct","holders":[`, 3000) + strings.Repeat("]}", 3000)
	gone := strings.Repeat(`"N",`, 200_000) + `"N"`
	begun := time.Now()
	_, m := besideTable(t, fstest.MapFS{
		"go.mod":    {Data: []byte("module here.example/here")},
		"a.go":      {Data: []byte("// Package here is deep.\npackage here\n\nimport \"far.example/deep\"\n\nvar X deep.x\n")},
		"README.md": {Data: []byte("# Here\n\n[far](ref:deep.x.x.x)\n")},
	}, `{"codrel":"symbols","version":1,"name":"Deep","libraries":[{"name":"deep","language":"go","modules":[{"path":"far.example/deep","names":{"function":[`+gone+`]},"gone":[`+gone+`],"holders":[`+deep+`]}]}]}`)
	assert.Contains(t, string(m.Get("index.html")), `href="../there/reference/deep/far.example/deep/x.html#x.x"`)
	assert.Less(t, time.Since(begun), time.Minute, "hangs, whatever the machine does")
}

// A reference with parameters leads to the form of another project's callable, as that
// project's own page has it.
func TestFormsElsewhere(t *testing.T) {
	there := fstest.MapFS{
		"package.json": {Data: []byte(`{"name": "there"}`)},
		"index.ts": {Data: []byte("/** Connects. */\nexport function connect(address: string): void\nexport function connect(address: string, days: number): void\n" +
			"export function connect(...all: any[]) {}\n\nexport class Plan {\n  assign(berth: Berth): void\n  assign(berth: string, at?: Date): void\n  assign(...all: any[]) {}\n  clear(): void {}\n}\n")},
	}
	set := settings.Default()
	built, err := build.Run(t.Context(), there, build.Options{Settings: set, FrontEnds: languages.All, Folder: "there"})
	require.NoError(t, err)
	var theirs sink.Memory
	require.NoError(t, site.New(plan.New(built.Links, plan.Options{Source: plan.NoSource, Findings: -1}), site.Options{FrontEnds: built.FrontEnds, Workers: 1}).Write(t.Context(), &theirs))
	table := string(theirs.Get("symbols.json"))
	assert.Contains(t, table, `"forms":{"connect":[["address:string"],["address:string","days:number"]]}`)

	s, m := besideTable(t, fstest.MapFS{
		"package.json": {Data: []byte(`{"name": "here"}`)},
		"a.ts": {Data: []byte("import { connect, Plan } from 'there'\n/**\n * {@link connect} {@link connect(string) one} {@link connect(address, days) two}\n" +
			" * {@link Plan.assign(string,Date) three} {@link Plan.clear(string) four} [five](ref:connect(Date))\n */\nexport const A = 1\n")},
	}, table)
	page := string(m.Get("reference/here/a/index.html"))
	const at = `href="../../../../there/reference/there/index/`
	for shown, address := range map[string]string{
		"connect": "index.html#connect", "one": "index.html#connect(string)", "two": "index.html#connect(string,number)", "three": "Plan.html#assign(string,Date)", "four": "Plan.html#clear",
	} {
		assert.Regexp(t, regexp.QuoteMeta(at+address+`"`)+`[^>]*>(<code[^>]*>)?`+shown+"<", page)
		file, anchor, _ := strings.Cut(address, "#")
		assert.Contains(t, string(theirs.Get("reference/there/index/"+file)), `id="`+anchor+`"`)
	}
	require.Len(t, s.Findings, 1, "nobody has said that clear takes nothing")
	assert.Equal(t, `no overload has the parameters of "connect(Date)"; there is connect(string) or connect(string, number)`, check.Text(&s.Findings[0]))
}
