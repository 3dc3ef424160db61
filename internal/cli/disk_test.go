//go:build linux

package cli_test

import (
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/render/site/sitetest"
)

// TestFullDisk builds onto a disk that is too small for the second build: the
// first site stays whole.
func TestFullDisk(t *testing.T) {
	disk := t.TempDir()
	if err := syscall.Mount("tmpfs", disk, "tmpfs", 0, "size=3m"); err != nil {
		t.Skipf("NOT TESTED ON A FULL DISK: a small disk cannot be mounted here (%v); run this test as root on Linux", err)
	}
	t.Cleanup(func() { assert.NoError(t, syscall.Unmount(disk, 0)) })
	project, site := filepath.Join(t.TempDir(), "tidebook"), filepath.Join(disk, "site")
	code, _, errs := run(t, "demo", "--quiet", project)
	require.Zero(t, code, errs)
	code, _, errs = run(t, "build", "--quiet", "--fail-on", "off", "--out", site, project)
	require.Zero(t, code, errs)
	long := "package moon\n\n// Long is long:\n" + strings.Repeat("// tide and time\n", 160_000) + "var Long int\n"
	require.NoError(t, os.WriteFile(filepath.Join(project, "engine", "moon", "long.go"), []byte(long), 0o644))

	code, _, errs = run(t, "build", "--quiet", "--fail-on", "off", "--out", site, project)
	assert.Equal(t, 3, code)
	assert.Contains(t, errs, "the site was not written; the previous one is unchanged")
	assert.Contains(t, errs, "no space left on device")
	r, err := sitetest.Crawl(os.DirFS(site))
	require.NoError(t, err)
	assert.Empty(t, r.Problems)
	assert.Greater(t, r.Pages, 30)
	entries, err := os.ReadDir(disk)
	require.NoError(t, err)
	assert.Len(t, entries, 1, "nothing is left beside the site")
}

// TestMountPoint builds into a folder that cannot be renamed, because a disk is mounted on it.
func TestMountPoint(t *testing.T) {
	disk := t.TempDir()
	if err := syscall.Mount("tmpfs", disk, "tmpfs", 0, "size=8m"); err != nil {
		t.Skipf("NOT TESTED ON A MOUNT POINT: a disk cannot be mounted here (%v); run this test as root on Linux", err)
	}
	t.Cleanup(func() { assert.NoError(t, syscall.Unmount(disk, 0)) })
	project := filepath.Join(t.TempDir(), "tidebook")
	code, _, errs := run(t, "demo", "--quiet", project)
	require.Zero(t, code, errs)
	for range 2 {
		code, _, errs = run(t, "build", "--quiet", "--fail-on", "off", "--out", disk, project)
		require.Zero(t, code, errs)
		r, err := sitetest.Crawl(os.DirFS(disk))
		require.NoError(t, err)
		assert.Empty(t, r.Problems)
	}
	require.NoError(t, os.RemoveAll(filepath.Join(project, "engine", "moon")))
	code, _, errs = run(t, "build", "--quiet", "--fail-on", "off", "--out", disk, project)
	require.Zero(t, code, errs)
	assert.NoFileExists(t, filepath.Join(disk, "reference/engine/tidebook.example/engine/moon/index.html"))
}
