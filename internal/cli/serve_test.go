package cli_test

import (
	"bufio"
	"bytes"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const (
	waitFor = 10 * time.Second
	pause   = 10 * time.Millisecond
)

// serving starts the program and gives its address and its first lines.
func serving(t *testing.T, args ...string) (address string, lines *bufio.Scanner, end func(), errs *bytes.Buffer) {
	t.Helper()
	c := exec.Command(testProgram(t), args...)
	out, err := c.StdoutPipe()
	require.NoError(t, err)
	errs = &bytes.Buffer{}
	c.Stderr = errs
	c.Env = append(os.Environ(), "BROWSER="+filepath.Join(t.TempDir(), "none"))
	require.NoError(t, c.Start())
	t.Cleanup(func() { _ = c.Process.Kill() })
	lines = bufio.NewScanner(out)
	for address == "" && lines.Scan() {
		address = regexp.MustCompile(`http://\S+`).FindString(lines.Text())
	}
	require.NotEmpty(t, address, errs.String())
	return address, lines, func() {
		t.Helper()
		require.NoError(t, c.Process.Signal(syscall.SIGINT))
		_, _ = io.Copy(io.Discard, out)
		assert.NoError(t, c.Wait(), "Ctrl-C is how it ends")
	}, errs
}

func read(t *testing.T, address string) string {
	t.Helper()
	answer, err := http.Get(address)
	require.NoError(t, err)
	defer answer.Body.Close()
	data, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	return string(data)
}

// The demo is served; a save is said on a line; Ctrl-C ends it, and no site was written.
func TestServe(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "tidebook")
	address, lines, end, errs := serving(t, "demo", "--serve", dir)
	assert.Regexp(t, `^http://localhost:46\d\d/$`, address, "a port of its own")
	require.True(t, lines.Scan())
	assert.Regexp(t, `^read in \d+ ms$`, lines.Text())
	assert.Contains(t, read(t, address), "<h1>Tidebook</h1>")
	require.NoError(t, os.WriteFile(filepath.Join(dir, "docs/guides/new.md"), []byte("# A new guide\n"), 0o644))
	require.True(t, lines.Scan())
	assert.Regexp(t, `^\d\d:\d\d:\d\d  docs/guides/new.md  \d+ ms$`, lines.Text())
	assert.Contains(t, read(t, address+"guides/new.html"), "A new guide")
	require.NoError(t, os.WriteFile(filepath.Join(dir, "codrel.yaml"), []byte("nmae: x\n"), 0o644))
	assert.Eventually(t, func() bool { return strings.Contains(read(t, address), "nmae") }, waitFor, pause)
	end()
	assert.NoDirExists(t, filepath.Join(dir, "codrel-site"))
	assert.Contains(t, errs.String(), "codrel: no browser could be opened")
	assert.Contains(t, errs.String(), `codrel.yaml:1:1: the settings file has no key "nmae"; did you mean "name"?`)
}

func TestServeSeveral(t *testing.T) {
	dir := t.TempDir()
	for _, name := range []string{"a", "b", "@port/tide"} {
		require.NoError(t, os.MkdirAll(filepath.Join(dir, name), 0o755))
		require.NoError(t, os.WriteFile(filepath.Join(dir, name, "package.json"), []byte(`{"name": "`+name+`", "version": "1.0.0"}`), 0o644))
		require.NoError(t, os.WriteFile(filepath.Join(dir, name, "index.ts"), []byte("/** Moors. */\nexport function moor() {}\n"), 0o644))
	}
	address, lines, end, _ := serving(t, "serve", "--address", "localhost:0", dir)
	for _, name := range []string{"port-tide", "a", "b"} {
		require.True(t, lines.Scan())
		assert.Regexp(t, `^`+name+`: read in \d+ ms$`, lines.Text())
	}
	assert.Contains(t, read(t, address+"?q=moor"), "3 found")
	end()
}

func TestServePorts(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "a.py"), []byte("\"\"\"A module.\"\"\"\n"), 0o644))
	busy, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer busy.Close()
	_, port, err := net.SplitHostPort(busy.Addr().String())
	require.NoError(t, err)
	code, _, errs := run(t, "serve", "--address", "127.0.0.1:"+port, dir)
	assert.Equal(t, 3, code)
	assert.Contains(t, errs, "port "+port+" is in use; name another with --address")
	first, _, end, _ := serving(t, "serve", dir)
	second, _, endSecond, _ := serving(t, "serve", dir)
	assert.NotEqual(t, first, second, "the next free port")
	end()
	endSecond()
	_, _, end, said := serving(t, "serve", "--address", "0.0.0.0:0", dir)
	end()
	assert.Contains(t, said.String(), "warning: everybody who reaches this machine can read these pages")
}
