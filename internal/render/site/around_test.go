package site_test

import (
	"bytes"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/look"
	"codrel/internal/settings"
)

// TestMarkupInBrowser puts each form of HTML around a page, as far as it is taken, and looks
// whether the page is still whole and asks nobody for anything.
func TestMarkupInBrowser(t *testing.T) {
	const above, below = "<p>Above</p>", "<p>Below</p>"
	m := changed(t, "look: {header: top.html, footer: foot.html}")
	page := m.Get("index.html")
	require.True(t, bytes.Contains(page, []byte(above)) && bytes.Contains(page, []byte(below)))
	around := func(header, footer string) []byte {
		return bytes.Replace(bytes.Replace(page, []byte(above), []byte(header), 1), []byte(below), []byte(footer), 1)
	}
	ctx, root := browser(t), onDisk(t, m)
	troubles := watch(t, ctx, root)
	folder := strings.TrimPrefix(root, "file://")
	whole := func(name string, page []byte) bool {
		require.NoError(t, os.WriteFile(filepath.Join(folder, name), page, 0o644))
		open(t, ctx, 1000, root+name)
		return value[bool](t, ctx, `document.querySelectorAll("main").length == 1 && document.querySelector("main h1").checkVisibility() && document.querySelector("footer.foot").checkVisibility() && document.contentType == "text/html"`)
	}
	assert.False(t, whole("control.html", around("<!-- a", "")), "what swallows a page is seen")

	var forms []string
	for _, file := range []string{"doubtful", "fine"} {
		data, err := os.ReadFile("../../look/testdata/" + file + ".txt")
		require.NoError(t, err)
		for line := range strings.Lines(string(data)) {
			if text, err := strconv.Unquote(strings.TrimSpace(line)); err == nil {
				forms = append(forms, text)
			}
		}
	}
	require.Greater(t, len(forms), 120)
	seen := len(troubles())
	for i, text := range forms {
		files := fstest.MapFS{"x.html": {Data: []byte(text)}}
		l, _ := look.Read(files, settings.Look{Header: settings.Word{Text: "x.html"}, Footer: settings.Word{Text: "x.html"}}, "codrel.yaml")
		assert.True(t, whole(fmt.Sprintf("p%d.html", i), around(l.Header, l.Footer)), text)
		for _, trouble := range troubles()[seen:] {
			if !strings.Contains(trouble, "ERR_FILE_NOT_FOUND") { // of a picture that is not there
				assert.Fail(t, trouble, text)
			}
		}
		seen = len(troubles())
	}
}
