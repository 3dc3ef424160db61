package workspace_test

import (
	"bytes"
	"context"
	"fmt"
	"io/fs"
	"maps"
	"math/rand/v2"
	"path"
	"runtime"
	"slices"
	"strings"
	"sync"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/demo"
	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
	"codrel/internal/settings"
)

// demoFiles is the demo's project in memory, without its settings.
func demoFiles() fstest.MapFS {
	out := fstest.MapFS{}
	for _, f := range demo.Files() {
		if f.Path != settings.FileName {
			out[f.Path] = &fstest.MapFile{Data: f.Data}
		}
	}
	return out
}

func demoOptions() build.Options {
	return build.Options{FrontEnds: languages.All, Folder: "tidebook", Inside: true, TestNames: true, Jobs: 2}
}

func planOf(s *build.Snapshot) *plan.Plan {
	return plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1})
}

// siteOf is every file of a snapshot's site by its address.
func siteOf(t *testing.T, s *build.Snapshot, files fs.FS) map[string]string {
	t.Helper()
	var m sink.Memory
	require.NoError(t, site.New(planOf(s), site.Options{FrontEnds: s.FrontEnds, Look: s.Look, Files: files, Workers: 2}).Write(t.Context(), &m))
	out := map[string]string{}
	for _, name := range m.Paths() {
		data := m.Get(name)
		out[name] = string(data)
	}
	return out
}

// pageOf is one page alone.
func pageOf(t *testing.T, s *build.Snapshot, files fs.FS, address string) string {
	t.Helper()
	p := planOf(s)
	page := p.PageAt(address)
	require.NotNil(t, page, address)
	var out bytes.Buffer
	require.NoError(t, site.New(p, site.Options{FrontEnds: s.FrontEnds, Look: s.Look, Files: files, Workers: 2}).Page(page).Render(t.Context(), &out))
	return out.String()
}

// edit changes a project in one of the ways in which people change projects, and gives the
// paths that it touched.
func edit(random *rand.Rand, files fstest.MapFS, step int) (what string, touched []string) {
	names := slices.Sorted(maps.Keys(files))
	name := names[random.IntN(len(names))]
	lines := strings.SplitAfter(string(files[name].Data), "\n")
	at, other := random.IntN(len(lines)), random.IntN(len(lines))
	set := func(name string, lines []string) {
		files[name] = &fstest.MapFile{Data: []byte(strings.Join(lines, ""))}
	}
	switch random.IntN(9) {
	case 0:
		what = "a line goes"
		set(name, slices.Delete(lines, at, at+1))
	case 1:
		what = "a line twice"
		set(name, slices.Insert(lines, at, lines[at]))
	case 2:
		what = "two lines change places"
		lines[at], lines[other] = lines[other], lines[at]
		set(name, lines)
	case 3:
		what = "the rest goes"
		set(name, lines[:at])
	case 4:
		what = "a name changes"
		set(name, strings.SplitAfter(strings.ReplaceAll(strings.Join(lines, ""), "Berth", "Quay"), "\n"))
	case 5:
		what = "a file of the same text"
		copied := strings.TrimSuffix(name, path.Ext(name)) + fmt.Sprint("_", step) + path.Ext(name)
		set(copied, lines)
		return what + " beside " + name, []string{copied}
	case 6:
		what = "a file goes"
		delete(files, name)
	case 7:
		what = "a file moves"
		moved := path.Join(path.Dir(name), fmt.Sprint("moved", step), path.Base(name))
		delete(files, name)
		set(moved, lines)
		return what + ": " + name, []string{name, moved}
	default:
		what = "words in a comment"
		for i, line := range lines {
			if strings.HasPrefix(strings.TrimSpace(line), "//") || strings.HasPrefix(strings.TrimSpace(line), "*") {
				lines[i] = strings.TrimRight(line, "\n") + " See [Plan] and `Vessel`.\n"
				break
			}
		}
		set(name, lines)
	}
	return what + " in " + name, []string{name}
}

// However a project changes, what comes of it is byte for byte what a build of the
// changed project gives: its pages, each page alone, and its findings. The snapshots
// before stay as they are.
func TestUpdatesEqualBuilds(t *testing.T) {
	seeds := uint64(4)
	if testing.Short() { // a race shows itself in the first already
		seeds = 1
	}
	for seed := range seeds {
		t.Run(fmt.Sprint("seed ", seed), func(t *testing.T) {
			random := rand.New(rand.NewPCG(seed, 7))
			files := demoFiles()
			s, err := build.Link(t.Context(), files, demoOptions())
			require.NoError(t, err)
			first, firstSite, firstFiles := s, siteOf(t, s, files), maps.Clone(files)
			for step := range 25 {
				what, touched := edit(random, files, step)
				updated, err := build.Update(t.Context(), files, s, touched...)
				require.NoError(t, err, what)
				anew, err := build.Run(t.Context(), files, demoOptions())
				require.NoError(t, err, what)
				want := siteOf(t, anew, files)

				pages := planOf(updated).Pages()
				alone := pages[random.IntN(len(pages))].Address
				require.Equal(t, want[alone], pageOf(t, updated, files, alone), "%s: %s alone", what, alone)
				got := siteOf(t, updated, files)
				require.Equal(t, slices.Sorted(maps.Keys(want)), slices.Sorted(maps.Keys(got)), what)
				for address, text := range want {
					require.Equal(t, text, got[address], "%s: %s", what, address)
				}
				checked, err := build.Check(t.Context(), updated)
				require.NoError(t, err)
				require.Equal(t, anew.Findings, checked.Findings, what)
				require.Equal(t, anew.Coverage, checked.Coverage, what)
				s = updated
			}
			assert.Equal(t, firstSite, siteOf(t, first, firstFiles), "the first snapshot is as it was")
		})
	}
}

// Who reads a snapshot goes on while the next ones are made.
func TestReadersGoOn(t *testing.T) {
	files := demoFiles()
	reading := maps.Clone(files) // the snapshot reads pictures and excerpts from it
	s, err := build.Link(t.Context(), reading, demoOptions())
	require.NoError(t, err)
	want := siteOf(t, s, reading)
	ctx, stop := context.WithCancel(t.Context())
	var readers sync.WaitGroup
	for range 2 {
		readers.Go(func() {
			for ctx.Err() == nil {
				if got := siteOf(t, s, reading); !maps.Equal(want, got) {
					t.Error("a reader saw another site")
					return
				}
			}
		})
	}
	random := rand.New(rand.NewPCG(5, 5))
	last := s
	for step := range 12 {
		_, touched := edit(random, files, step)
		last, err = build.Update(t.Context(), files, last, touched...)
		require.NoError(t, err)
		siteOf(t, last, files)
	}
	stop()
	readers.Wait()
}

// A thousand saves leave the memory as it was.
func TestManySaves(t *testing.T) {
	if testing.Short() {
		t.Skip("takes a while")
	}
	files := demoFiles()
	s, err := build.Link(t.Context(), files, demoOptions())
	require.NoError(t, err)
	const file = "engine/berth/berth.go"
	text := string(files[file].Data)
	address := plan.Module(moduleWith(t, s, file))
	kept := func() int64 {
		runtime.GC()
		runtime.GC()
		var m runtime.MemStats
		runtime.ReadMemStats(&m)
		return int64(m.HeapAlloc)
	}
	save := func(n int) {
		files[file] = &fstest.MapFile{Data: []byte(text + fmt.Sprintf("\n// Saved%d is new.\nfunc Saved%d() { Saved%d() }\n", n, n, n))}
		s, err = build.Update(t.Context(), files, s, file)
		require.NoError(t, err)
		require.Contains(t, pageOf(t, s, files, address), fmt.Sprintf("Saved%d is new", n))
	}
	for n := range 50 {
		save(n)
	}
	before := kept()
	for n := range 1000 {
		save(50 + n)
	}
	after := kept()
	assert.Less(t, after-before, int64(2<<20), "%d bytes, then %d", before, after)
	runtime.KeepAlive(s)
}

func moduleWith(t *testing.T, s *build.Snapshot, file string) *model.Module {
	t.Helper()
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if slices.ContainsFunc(m.Files, func(f *model.Facts) bool { return f.Path == file }) {
				return m
			}
		}
	}
	require.Fail(t, "no module has "+file)
	return nil
}
