package site_test

import (
	"net/url"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"codrel/internal/settings"
)

// TestKeyStroke measures the time that the script takes for each key stroke of
// some queries once the shards are there, and prints it: times hang on the
// machine, so none is required. CODREL_SITE names a built site to measure instead
// of one of four thousand names.
func TestKeyStroke(t *testing.T) {
	ctx := browser(t)
	root := ""
	if dir := os.Getenv("CODREL_SITE"); dir != "" {
		abs, err := filepath.Abs(dir)
		require.NoError(t, err)
		root = (&url.URL{Scheme: "file", Path: abs}).String() + "/"
	} else {
		root = onDisk(t, rendered(t, manyNames(), settings.Default(), 2))
	}
	open(t, ctx, 1280, root+"index.html")
	// Twice: the first round loads the shards, the second is measured.
	const measure = `(function () {
		var strokes = [], times = [];
		["assign", "berthDock", "readall", "NewReader", "jBu", "kind:function in", "xyzzy", "takes:int"].forEach(function (q) {
			for (var i = 1; i <= q.length; i++) { strokes.push(q.slice(0, i)); }
		});
		function round(i, keep, then) {
			if (i === strokes.length) { then(); return; }
			var field = document.querySelector("#codrel-field"), begun = performance.now();
			field.value = strokes[i];
			field.dispatchEvent(new Event("input"));
			var took = performance.now() - begun;
			if (keep) { times.push(took); }
			codrelSearch(strokes[i], 30, function () { setTimeout(function () { round(i + 1, keep, then); }, 0); });
		}
		round(0, false, function () { round(0, true, function () {
			times.sort(function (a, b) { return a - b; });
			window.figures = [times.length, times[times.length >> 1], times[times.length - 1]];
		}); });
		return true;
	})()`
	require.True(t, value[bool](t, ctx, measure))
	var figures []float64
	require.Eventually(t, func() bool {
		figures = value[[]float64](t, ctx, `window.figures || []`)
		return len(figures) > 0
	}, time.Minute, pause)
	require.Len(t, figures, 3)
	require.Positive(t, figures[0])
	t.Logf("%.0f key strokes: %.1f ms in the middle, %.1f ms at most", figures[0], figures[1], figures[2])
}
