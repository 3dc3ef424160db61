// Command save measures what a save costs: from the changed bytes of one file to the new
// bytes of the page that shows it, in a project that was read before.
//
// Files are changed one after the other, each in a way that people change files: a comment
// gains a sentence, a file gains a declaration, a declaration goes. Bare parsing of the
// tree with Go's own parser, in the same run, is the reference.
//
//	go run ./bench/save [-tree DIR] [-saves 60] [-profile FILE]
package main

import (
	"bytes"
	"context"
	"errors"
	"flag"
	"fmt"
	"go/parser"
	"go/token"
	"io/fs"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"runtime/debug"
	"runtime/pprof"
	"slices"
	"strings"
	"sync"
	"testing/fstest"
	"time"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/render/plan"
	"codrel/internal/render/site"
)

func main() {
	tree := flag.String("tree", goTree(), "the tree to read")
	saves := flag.Int("saves", 60, "how many saves are measured")
	profile := flag.String("profile", "", "write a CPU profile of the saves to `FILE`")
	flag.Parse()
	if err := run(*tree, *saves, *profile); err != nil {
		fmt.Fprintln(os.Stderr, "save:", err)
		os.Exit(1)
	}
}

// overlay is a tree of which some files have other bytes.
type overlay struct {
	fs.FS
	changed fstest.MapFS
}

func (o overlay) Open(name string) (fs.File, error) {
	if o.changed[name] != nil {
		return o.changed.Open(name)
	}
	return o.FS.Open(name)
}

func (o overlay) ReadFile(name string) ([]byte, error) {
	if f := o.changed[name]; f != nil {
		return slices.Clone(f.Data), nil
	}
	return fs.ReadFile(o.FS, name)
}

func (o overlay) Stat(name string) (fs.FileInfo, error) {
	if o.changed[name] != nil {
		return o.changed.Stat(name)
	}
	return fs.Stat(o.FS, name)
}

func (o overlay) ReadDir(name string) ([]fs.DirEntry, error) { return fs.ReadDir(o.FS, name) }

func run(tree string, saves int, profile string) error {
	debug.SetGCPercent(400) // as the program does
	root, err := os.OpenRoot(tree)
	if err != nil {
		return err
	}
	defer root.Close()
	files := overlay{root.FS(), fstest.MapFS{}}
	ctx := context.Background()
	s, err := build.Link(ctx, files, build.Options{FrontEnds: languages.All, Folder: filepath.Base(tree), Inside: true, TestNames: true})
	if err != nil {
		return err
	}
	if _, _, err := page(ctx, s, shownFiles(s)[0]); err != nil { // as whoever has a page open
		return err
	}
	if profile != "" {
		f, err := os.Create(profile)
		if err != nil {
			return err
		}
		defer f.Close()
		if err := pprof.StartCPUProfile(f); err != nil {
			return err
		}
		defer pprof.StopCPUProfile()
	}
	var took, linked, parsed []time.Duration
	random := rand.New(rand.NewPCG(1, 2))
	for i := range saves {
		all := shownFiles(s)
		file := all[random.IntN(len(all))]
		data := changed(file.Text, i)
		files.changed[file.Path] = &fstest.MapFile{Data: data}
		begun := time.Now()
		if s, err = build.Update(ctx, files, s, file.Path); err != nil {
			return err
		}
		linked = append(linked, time.Since(begun))
		if _, _, err := page(ctx, s, factsAt(s, file.Path)); err != nil {
			return fmt.Errorf("%s: %w", file.Path, err)
		}
		took = append(took, time.Since(begun))
		if i%10 == 0 {
			parsed = append(parsed, bareParse(tree, s))
		}
	}
	runtime.GC()
	var memory runtime.MemStats
	runtime.ReadMemStats(&memory)
	fmt.Printf("%s: %d files; %d processors, %d saves\n", tree, len(slices.Collect(s.Project.Files)), runtime.NumCPU(), saves)
	slices.Sort(took)
	slices.Sort(linked)
	slices.Sort(parsed)
	middle := func(list []time.Duration) float64 { return float64(list[len(list)/2].Microseconds()) / 1000 }
	fmt.Printf("from changed bytes to the page: median %.1f ms, nine of ten below %.1f ms; to the linked project %.1f ms; bare parse of all %.1f ms; %d MB kept\n",
		middle(took), float64(took[len(took)*9/10].Microseconds())/1000, middle(linked), middle(parsed), memory.HeapAlloc>>20)
	return nil
}

// page renders the page of the module that a file belongs to.
func page(ctx context.Context, s *build.Snapshot, f *model.Facts) (address string, data []byte, err error) {
	m := moduleOf(s, f)
	if m == nil {
		return "", nil, errors.New("the file belongs to no module with a page")
	}
	p := plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1})
	address = plan.Module(m)
	shown := p.PageAt(address)
	if shown == nil {
		return address, nil, errors.New("there is no such page")
	}
	var out bytes.Buffer
	err = site.New(p, site.Options{FrontEnds: s.FrontEnds, Look: s.Look}).Page(shown).Render(ctx, &out)
	return address, out.Bytes(), err
}

func moduleOf(s *build.Snapshot, f *model.Facts) *model.Module {
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if slices.Contains(m.Files, f) && s.Links.ModuleInReach(m) {
				return m
			}
		}
	}
	return nil
}

// shownFiles are the files of modules that have pages.
func shownFiles(s *build.Snapshot) (out []*model.Facts) {
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if s.Links.ModuleInReach(m) {
				out = append(out, m.Files...)
			}
		}
	}
	return out
}

func factsAt(s *build.Snapshot, file string) *model.Facts {
	for f := range s.Project.Files {
		if f.Path == file {
			return f
		}
	}
	return nil
}

// changed is a text that was changed as people change files; Go's alone, others gain lines.
func changed(text string, i int) []byte {
	lines := strings.SplitAfter(text, "\n")
	var at []int
	for n, line := range lines {
		if strings.HasPrefix(line, "// ") && n > 20 {
			at = append(at, n)
		}
	}
	switch {
	case i%3 == 0 && len(at) > 0:
		lines[at[len(at)/2]] += "// It is said again, with one sentence more.\n"
	case i%3 == 1:
		lines = append(lines, fmt.Sprintf("\n// Saved%d is new.\nfunc Saved%d() {}\n", i, i))
	default:
		lines = append(lines, "\n")
	}
	return []byte(strings.Join(lines, ""))
}

// bareParse parses all Go files that are read, with comments and without object resolution,
// on all processors.
func bareParse(tree string, s *build.Snapshot) time.Duration {
	begun := time.Now()
	next := make(chan string)
	var wait sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		wait.Go(func() {
			for name := range next {
				if data, err := os.ReadFile(name); err == nil {
					_, _ = parser.ParseFile(token.NewFileSet(), name, data, parser.ParseComments|parser.SkipObjectResolution)
				}
			}
		})
	}
	for f := range s.Project.Files {
		if f.Language == "go" {
			next <- filepath.Join(tree, filepath.FromSlash(f.Path))
		}
	}
	close(next)
	wait.Wait()
	return time.Since(begun)
}

// goTree is the source of Go itself on this machine.
func goTree() string {
	out, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		return ""
	}
	return filepath.Join(strings.TrimSpace(string(out)), "src")
}
