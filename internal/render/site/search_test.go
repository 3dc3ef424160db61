package site_test

import (
	"context"
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/render/plan"
	"codrel/internal/search"
	"codrel/internal/settings"
)

// queries reads the table that both searches are run against.
func queries(t *testing.T) (list [][2]string) {
	t.Helper()
	data, err := os.ReadFile("../../search/testdata/queries.txt")
	require.NoError(t, err)
	for line := range strings.Lines(string(data)) {
		if query, want, ok := strings.Cut(strings.TrimSpace(line), " =>"); ok && !strings.HasPrefix(line, "#") {
			list = append(list, [2]string{query, strings.TrimSpace(want)})
		}
	}
	require.Greater(t, len(list), 30)
	return list
}

func entries(t *testing.T, files fstest.MapFS, set *settings.Settings) []search.Entry {
	t.Helper()
	s, err := build.Run(t.Context(), files, build.Options{Settings: set, FrontEnds: languages.All, Folder: "project"})
	require.NoError(t, err)
	return slices.Collect(plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1}).SearchEntries())
}

const mostHits = 30

func inGo(list []search.Entry, query string) (names []string) {
	names = []string{}
	for _, h := range search.Find(list, query, "engine", mostHits) {
		names = append(names, strings.TrimPrefix(h.Scope+"."+h.Name, "."))
	}
	return names
}

func inPage(t *testing.T, ctx context.Context, query string) []string {
	t.Helper()
	names, err := chromedp.Run(ctx, chromedp.Evaluate[[]string](fmt.Sprintf(
		`new Promise(done => codrelSearch(%q, %d, hits => done(hits.map(h => (h.entry.scope ? h.entry.scope + "." : "") + h.entry.name))))`, query, mostHits), chromedp.EvalAwaitPromise))
	require.NoError(t, err, query)
	return names
}

// first cuts a list to the length of the wanted one; where nothing is wanted, nothing may come.
func first(names []string, want string) string {
	if want != "" {
		names = names[:min(len(names), strings.Count(want, ";")+1)]
	}
	return strings.Join(names, "; ")
}

func TestSearchTable(t *testing.T) {
	files, set := demoFiles(t)
	list := entries(t, files, set)
	for _, q := range queries(t) {
		assert.Equal(t, q[1], first(inGo(list, q[0]), q[1]), "%q", q[0])
	}
}

// The page's script finds the same names in the same order: for the table, and
// for pieces of every name.
func TestSearchInThePage(t *testing.T) {
	ctx := browser(t)
	files, set := demoFiles(t)
	list := entries(t, files, set)
	root := onDisk(t, rendered(t, files, set, 2))
	open(t, ctx, 1280, root+"reference/engine/tidebook.example/engine/berth/index.html")
	for _, q := range queries(t) {
		assert.Equal(t, q[1], first(inPage(t, ctx, q[0]), q[1]), "%q", q[0])
	}
	for i, e := range list {
		half := e.Name[:(len(e.Name)+1)/2]
		for _, query := range []string{e.Name, strings.ToLower(half), search.Initials(e.Name), e.Scope + "." + half, "in:" + e.Module[strings.LastIndexByte(e.Module, '/')+1:] + " " + half} {
			if i%3 == 0 && !strings.HasPrefix(query, ".") && len(query) > 1 {
				assert.Equal(t, inGo(list, query), inPage(t, ctx, query), "%q", query)
			}
		}
	}
}

// manyNames is a module of several thousand names, whose data is cut into shards.
func manyNames() fstest.MapFS {
	var b strings.Builder
	b.WriteString("package many\n")
	for _, verb := range []string{"Assign", "Berth", "Chart", "Draw", "Ebb", "Flow", "Gauge", "Haul", "Inspect", "Join"} {
		for _, thing := range []string{"Anchor", "Buoy", "Crane", "Dock", "Engine", "Flag", "Gate", "Hull", "Island", "Jetty"} {
			for i := range 40 {
				fmt.Fprintf(&b, "\n// %[1]s%[2]s%[3]d does what its name says, for the sake of the %[2]s.\nfunc %[1]s%[2]s%[3]d() {}\n", verb, thing, i)
			}
		}
	}
	files := fstest.MapFS{"go.mod": {Data: []byte("module many")}, "many.go": {Data: []byte(b.String())}}
	for i := range 80 { // more than are shown for what leads to no shard
		files[fmt.Sprintf("quiet/cove%d/a.go", i)] = &fstest.MapFile{Data: []byte("package cove\n\nfunc Zzz() {}\n")}
	}
	return files
}

func TestShards(t *testing.T) {
	m := rendered(t, manyNames(), settings.Default(), 2)
	shards := 0
	for _, p := range m.Paths() {
		if strings.HasPrefix(p, "search/k-") {
			shards++
			assert.Less(t, len(m.Get(p)), 36<<10, p)
		}
	}
	assert.Greater(t, shards, 30)
	script := len(m.Get("assets/codrel.js")) + len(m.Get("search/index.js")) + 36<<10
	assert.Less(t, script, 60<<10, "first load with one shard")

	ctx := browser(t)
	root := onDisk(t, m)
	troubles := watch(t, ctx, root)
	open(t, ctx, 1280, root+"index.html")
	for query, want := range map[string]string{
		"HaulCrane7": "HaulCrane7", "haulcrane39": "HaulCrane39", "hC12": "HaulCrane12", "crane12": "EbbCrane12", "Many.HaulCrane7": "HaulCrane7",
		"ahulcrane7": "HaulCrane7", "h": "many", "EbbJetty": "EbbJetty0", "in:cove79": "cove79", "in:cove78 kind:module": "cove78", "in:quiet/cove7 zz": "Zzz",
	} {
		got := inPage(t, ctx, query)
		if want == "many" {
			assert.NotEmpty(t, got)
			continue
		}
		require.NotEmpty(t, got, query)
		assert.Equal(t, want, got[0], query)
	}
	assert.LessOrEqual(t, value[int](t, ctx, `performance.getEntriesByType("resource").filter(r => r.name.includes("/search/k-")).length`), 11*3, "at most three shards a query")
	assert.Empty(t, troubles())
}

func TestSearchByKeyboard(t *testing.T) {
	ctx := browser(t)
	files, set := demoFiles(t)
	root := onDisk(t, rendered(t, files, set, 2))
	press := func(keys string) {
		t.Helper()
		require.NoError(t, chromedp.Do(ctx, chromedp.KeyEvent(keys)))
	}
	text := func(selector string) string {
		t.Helper()
		return value[string](t, ctx, fmt.Sprintf(`(document.querySelector(%q) || {textContent: ""}).textContent`, selector))
	}
	open(t, ctx, 1280, root+"index.html")
	press("/")
	assert.Equal(t, "codrel-field", value[string](t, ctx, `document.activeElement.id`), "the slash leads to the field")
	press("assign")
	require.Eventually(t, func() bool { return text(".hits .status") == "7 names" }, waitFor, pause, "hits are announced")
	press(kb.ArrowDown)
	assert.Equal(t, "codrel-hit-0", value[string](t, ctx, `document.activeElement.getAttribute("aria-activedescendant")`))
	assert.Equal(t, 6, value[int](t, ctx, `document.querySelectorAll('[aria-selected="true"] mark').length`), "the matched letters are marked")
	press(kb.Enter)
	require.Eventually(t, func() bool {
		return strings.HasSuffix(value[string](t, ctx, `location.href`), "berth/Plan.html#Assign")
	}, waitFor, pause, "Enter goes there")

	open(t, ctx, 1280, root+"index.html?q=zebra")
	require.Eventually(t, func() bool { return strings.HasPrefix(text(".hits .status"), "Nothing found for “zebra” among") }, waitFor, pause)
	open(t, ctx, 1280, root+"index.html?q=puntoom")
	require.Eventually(t, func() bool { return strings.HasSuffix(text(".hits .status"), "Nearest: Pontoon.") }, waitFor, pause)
	press(kb.Escape)
	assert.True(t, value[bool](t, ctx, `document.querySelector(".hits").hidden`), "Escape closes it")

	for _, want := range []string{"light", "dark", "auto"} {
		require.NoError(t, chromedp.Do(ctx, chromedp.Click("button.scheme")))
		assert.Equal(t, "Scheme: "+want, text("button.scheme"))
		background := value[string](t, ctx, `getComputedStyle(document.body).backgroundColor`)
		assert.Equal(t, want == "dark", background == "rgb(19, 24, 26)", want)
		if want == "dark" {
			open(t, ctx, 1280, root+"a-z/index.html")
			assert.Equal(t, background, value[string](t, ctx, `getComputedStyle(document.body).backgroundColor`), "the switch is kept on the next page")
		}
	}
}
