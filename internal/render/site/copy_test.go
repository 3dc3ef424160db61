package site_test

import (
	"testing"
	"testing/fstest"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/settings"
)

// A copied example has no prompts and no output; where the clipboard is blocked,
// the text is marked instead. A click on a line's number gives its address.
func TestCopyAndLineNumbers(t *testing.T) {
	ctx := browser(t)
	files := fstest.MapFS{
		"README.md": {Data: []byte("# Title\n\n```sh\n$ go run ./tide\nhigh water at 12:30\n$ go test ./...\n```\n\n```go\nimport \"fmt\"\n\nfmt.Print()\n```\n")},
		"a.go":      {Data: []byte("package a\n\nfunc F() {}\n")},
	}
	root := onDisk(t, rendered(t, files, settings.Default(), 1))
	troubles := watch(t, ctx, root)
	open(t, ctx, 1280, root+"index.html")
	assert.Equal(t, 2, value[int](t, ctx, `document.querySelectorAll("button.copy").length`))
	const stub = `Object.defineProperty(navigator, "clipboard", { configurable: true, value: { writeText: function (t) { window.copied = t; return Promise.resolve(); } } }); true`
	require.True(t, value[bool](t, ctx, stub))
	for i, want := range []string{"go run ./tide\ngo test ./...\n", "import \"fmt\"\n\nfmt.Print()\n"} {
		assert.Equal(t, want, value[string](t, ctx, `(function (b) { b.click(); return window.copied; })(document.querySelectorAll("button.copy")[`+string(rune('0'+i))+`])`))
	}
	require.Eventually(t, func() bool {
		return value[string](t, ctx, `document.querySelector("button.copy").textContent`) == "Copied"
	}, waitFor, pause)
	assert.Contains(t, value[string](t, ctx, `Object.defineProperty(navigator, "clipboard", { value: undefined }); document.querySelectorAll("button.copy")[1].click(); getSelection().toString()`), `import "fmt"`)

	open(t, ctx, 1280, root+"source/a.go.html")
	require.NoError(t, chromedp.Do(ctx, chromedp.Sleep(100*time.Millisecond)))
	const click = `(function (li) { var r = li.getBoundingClientRect(); li.dispatchEvent(new MouseEvent("click", { bubbles: true, clientX: r.left + 5, clientY: r.top + 5 })); return location.hash; })(document.querySelector("#L3"))`
	assert.Equal(t, "#L3", value[string](t, ctx, click))
	assert.Equal(t, "package a\n\nfunc F() {}", value[string](t, ctx, `getSelection().selectAllChildren(document.querySelector("ol.code")), getSelection().toString().trim()`), "line numbers are not copied, and lines are not doubled")
	assert.Empty(t, troubles())
}
