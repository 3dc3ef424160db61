package cli

import (
	"bytes"
	"context"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// asking is a run of init in a folder with something to read, and what it prints.
func asking(t *testing.T, stdin io.Reader, flags map[string]string) (*start, *bytes.Buffer) {
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "tide.py"), []byte("\"\"\"Tides.\"\"\"\n"), 0o644))
	var out bytes.Buffer
	s := &start{app: &app{stdout: &out, stderr: io.Discard}, dir: dir, stdin: stdin, kept: true}
	s.asked = func(flag string) bool { return flags[flag] != "" }
	s.name, s.reach = flags["name"], flags["reach"]
	require.NoError(t, s.propose(t.Context()))
	s.kept = true
	return s, &out
}

func TestInitAsks(t *testing.T) {
	s, out := asking(t, strings.NewReader("Tidebook\npublik\nprivate\nnowhere\n\nout\nmaybe\nno\n"), nil)
	require.NoError(t, s.ask(t.Context()))
	assert.Equal(t, "Tidebook", s.proposal.Name.Text)
	assert.Equal(t, "private", s.proposal.Reach.Text)
	assert.Empty(t, s.proposal.Source.Text)
	assert.Equal(t, "out", s.proposal.Site.Text)
	assert.False(t, s.ignore)
	for _, want := range []string{
		`  it must be public, protected, internal or private, not "publik"`, "Address of a source line, or none [none]: ",
		"  it must be an address with {path} in it", "Folder of the site [codrel-site]: ", "  yes or no\n",
	} {
		assert.Contains(t, out.String(), want)
	}

	s, out = asking(t, strings.NewReader("\n\n\n\n\n"), nil)
	name := s.proposal.Name.Text
	require.NoError(t, s.ask(t.Context()))
	assert.Equal(t, name, s.proposal.Name.Text)
	assert.True(t, s.ignore, "proposals are taken by a bare return")
	assert.Equal(t, 5, strings.Count(out.String(), "]: "))
}

// An answer that a flag has given is not asked for.
func TestInitAsksTheRest(t *testing.T) {
	s, out := asking(t, strings.NewReader("\n\n\n"), map[string]string{"name": "Tidebook", "reach": "public"})
	require.NoError(t, s.ask(t.Context()))
	assert.Equal(t, 3, strings.Count(out.String(), "]: "))
	assert.Equal(t, "Tidebook", s.proposal.Name.Text)
}

// Whoever leaves in the middle has changed nothing.
func TestInitStopped(t *testing.T) {
	s, _ := asking(t, strings.NewReader("Tide"), nil)
	assert.ErrorContains(t, s.ask(t.Context()), "the answers ended")

	waiting, end := io.Pipe()
	defer end.Close()
	s, _ = asking(t, waiting, nil)
	ctx, stop := context.WithCancel(t.Context())
	time.AfterFunc(20*time.Millisecond, stop)
	assert.ErrorIs(t, s.ask(ctx), context.Canceled)
	entries, err := os.ReadDir(s.dir)
	require.NoError(t, err)
	assert.Len(t, entries, 1)
}
