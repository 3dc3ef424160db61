package site_test

import (
	"context"
	"fmt"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/log"
	"github.com/chromedp/cdproto/network"
	cdpruntime "github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/render/sink"
)

const (
	waitFor = 10 * time.Second
	pause   = 50 * time.Millisecond
)

// browser starts Chromium. Without one the test says so; where CI is set, that
// is a failure, since a check that never runs proves nothing.
func browser(t *testing.T) context.Context {
	t.Helper()
	program, err := exec.LookPath("chromium")
	if err != nil {
		if os.Getenv("CI") != "" {
			t.Fatal("there is no chromium, and the pages must be seen in a real browser")
		}
		t.Skip("NOT TESTED IN A BROWSER: there is no chromium on this machine; install it to run this test")
	}
	options := append(chromedp.DefaultExecAllocatorOptions[:], chromedp.ExecPath(program), chromedp.NoSandbox,
		chromedp.Flag("disable-quic", true), chromedp.Flag("no-first-run", true), chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-sync", true), chromedp.UserDataDir(t.TempDir()))
	ctx, stop := chromedp.NewExecAllocator(t.Context(), options...)
	t.Cleanup(stop)
	ctx, stop = chromedp.NewContext(ctx)
	t.Cleanup(stop)
	require.NoError(t, chromedp.Do(ctx)) // starts it; a limit of time would end it
	ctx, stop = context.WithTimeout(ctx, 2*time.Minute)
	t.Cleanup(stop)
	return ctx
}

// watch collects console errors, exceptions and requests that leave the folder.
func watch(t *testing.T, ctx context.Context, root string) (troubles func() []string) {
	t.Helper()
	var mu sync.Mutex
	var found []string
	add := func(format string, args ...any) {
		mu.Lock()
		defer mu.Unlock()
		found = append(found, fmt.Sprintf(format, args...))
	}
	require.NoError(t, chromedp.Listen(ctx, func(event any) {
		switch e := event.(type) {
		case *network.EventRequestWillBeSent:
			if !strings.HasPrefix(e.Request.URL, root) {
				add("request for %s", e.Request.URL)
			}
		case *network.EventLoadingFailed:
			add("loading failed: %s", e.ErrorText)
		case *log.EventEntryAdded:
			add("console: %s", e.Entry.Text)
		case *cdpruntime.EventExceptionThrown:
			add("exception: %s", e.ExceptionDetails.Text)
		}
	}))
	_, err := chromedp.Call(ctx, network.Enable, network.EnableParams{})
	require.NoError(t, err)
	_, err = chromedp.Call(ctx, log.Enable, cdp.Empty{})
	require.NoError(t, err)
	_, err = chromedp.Call(ctx, cdpruntime.Enable, cdp.Empty{})
	require.NoError(t, err)
	return func() []string {
		mu.Lock()
		defer mu.Unlock()
		return append([]string(nil), found...)
	}
}

// value evaluates an expression on the page.
func value[T any](t *testing.T, ctx context.Context, expression string) T {
	t.Helper()
	v, err := chromedp.Run(ctx, chromedp.Evaluate[T](expression))
	require.NoError(t, err, expression)
	return v
}

func open(t *testing.T, ctx context.Context, width int64, page string) {
	t.Helper()
	require.NoError(t, chromedp.Do(ctx, chromedp.EmulateViewport(width, 800), chromedp.Navigate(page)), page)
}

func onDisk(t *testing.T, m *sink.Memory) (root string) {
	t.Helper()
	dir := t.TempDir()
	for _, p := range m.Paths() {
		to := filepath.Join(dir, filepath.FromSlash(p))
		require.NoError(t, os.MkdirAll(filepath.Dir(to), 0o755))
		require.NoError(t, os.WriteFile(to, m.Get(p), 0o644))
	}
	return (&url.URL{Scheme: "file", Path: dir}).String() + "/"
}

func TestInBrowser(t *testing.T) {
	ctx := browser(t)
	files, set := demoFiles(t)
	m := rendered(t, files, set, 2)
	require.NoError(t, m.Put("bad.html", []byte(`<img src="https://outside.example/x.png"><script>throw new Error("x")</script>`)))
	root := onDisk(t, m)
	troubles := watch(t, ctx, root)
	const berth = "reference/engine/tidebook.example/engine/berth/"
	for _, page := range []string{"index.html", "modules.html", "a-z/index.html", "reference/engine/index.html", berth + "index.html", berth + "Plan.html"} {
		open(t, ctx, 360, root+page)
		assert.Equal(t, "rgb(245, 247, 246)", value[string](t, ctx, `getComputedStyle(document.body).backgroundColor`), "%s: the style sheet is in force", page)
		assert.NotEmpty(t, value[string](t, ctx, `document.querySelector("h1").textContent.trim()`))
		assert.LessOrEqual(t, value[int](t, ctx, `document.documentElement.scrollWidth`), 360, "%s scrolls sideways at 360 px", page)
	}
	const visible = `document.querySelector(".contents nav").checkVisibility()`
	assert.False(t, value[bool](t, ctx, visible), "the drawer of a narrow screen is closed at first")
	require.NoError(t, chromedp.Do(ctx, chromedp.Click(".contents > summary")))
	assert.True(t, value[bool](t, ctx, visible), "it opens without a script")
	open(t, ctx, 1280, root+berth+"Plan.html")
	assert.True(t, value[bool](t, ctx, visible), "the contents stand open on a wide screen")

	_, err := chromedp.Call(ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{
		Features: []*emulation.MediaFeature{{Name: "prefers-color-scheme", Value: "dark"}},
	})
	require.NoError(t, err)
	assert.Equal(t, "rgb(19, 24, 26)", value[string](t, ctx, `getComputedStyle(document.body).backgroundColor`))
	assert.Empty(t, troubles())

	// The watch itself must be able to fail.
	open(t, ctx, 1280, root+"bad.html")
	require.Eventually(t, func() bool { return len(troubles()) >= 2 }, 10*time.Second, 50*time.Millisecond)
}
