package cli_test

import (
	"bytes"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/cli"
)

// The rows of the page of coverage add up to what the closing line says, though modules
// are kept from users and what they declare is shown by others.
func TestCoverageAddsUp(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "tidebook")
	var out, log bytes.Buffer
	require.Zero(t, cli.Run(t.Context(), []string{"demo", folder}, strings.NewReader(""), &out, &log), log.String())
	said := regexp.MustCompile(`(\d+) of (\d+) public declarations documented`).FindStringSubmatch(out.String())
	require.Len(t, said, 3)
	page, err := os.ReadFile(filepath.Join(folder, "codrel-site", "coverage.html"))
	require.NoError(t, err)
	documented, total := 0, 0
	page = regexp.MustCompile(`(?s)<details class="fold">.*?</details>`).ReplaceAll(page, nil) // the same again, the least documented first
	rows := regexp.MustCompile(`(?s)<tr><td>.*?<td>(\d+)</td><td>(\d+)</td>`).FindAllSubmatch(page, -1)
	for _, row := range rows {
		n, _ := strconv.Atoi(string(row[1]))
		of, _ := strconv.Atoi(string(row[2]))
		assert.Positive(t, of, "a module of which nothing is asked has no share")
		documented, total = documented+n, total+of
	}
	assert.Equal(t, said[1:], []string{strconv.Itoa(documented), strconv.Itoa(total)})
	assert.Contains(t, string(page), `<td><code translate="no">src/client</code></td>`, "it has no page")
	assert.NotContains(t, string(page), `<code>src/index</code>`)
}
