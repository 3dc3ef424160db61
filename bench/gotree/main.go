// Command gotree measures codrel against Go's own parser on a large Go tree,
// Go's own by default, and prints ratios: absolute times mean nothing on shared
// machines.
//
// Bare parsing and codrel run in turns, each as a process of its own; the
// medians of the runs are compared. Bare parsing reads and parses the same
// files on as many workers, with comments and without object resolution, and
// keeps nothing.
//
//	go run ./bench/gotree [-tree DIR] [-runs 7] [-build] [-twice] [-within DIR]
package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"go/parser"
	"go/token"
	"os"
	"os/exec"
	"path"
	"path/filepath"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"

	"codrel/internal/lang"
	"codrel/internal/lang/golang"
	"codrel/internal/source"
)

func main() {
	tree := flag.String("tree", goTree(), "the tree to read")
	runs := flag.Int("runs", 7, "runs of each")
	site := flag.Bool("build", false, "measure whole builds too")
	within := flag.String("within", "", "a folder to write the sites into; the system's temporary folder where none is named")
	twice := flag.Bool("twice", false, "measure a build of two copies of the tree too")
	bare := flag.Bool("bare", false, "parse the tree once and exit (used by the program itself)")
	flag.Parse()
	if *bare {
		parseAll(*tree)
		return
	}
	if err := measure(*tree, *within, *runs, *site, *twice); err != nil {
		fmt.Fprintln(os.Stderr, "gotree:", err)
		os.Exit(1)
	}
}

// files are those that codrel reads as code.
func files(tree string) []source.Entry {
	end := golang.FrontEnd{}
	all, _, err := source.Find(context.Background(), os.DirFS(tree), source.Search{
		Enter:  func(folder string) bool { return !slices.Contains(end.SkipFolders(), path.Base(folder)) },
		Wanted: func(file string) bool { return lang.Reads(end, file) },
	})
	if err != nil {
		fmt.Fprintln(os.Stderr, "gotree:", err)
		os.Exit(1)
	}
	return slices.DeleteFunc(all, func(e source.Entry) bool { return end.IsTest(e.Path) })
}

func parseAll(tree string) {
	next := make(chan string)
	var wait sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		wait.Go(func() {
			for name := range next {
				data, err := os.ReadFile(name)
				if err != nil {
					continue
				}
				// A tree with syntax errors is parsed as far as it goes, like codrel does.
				_, _ = parser.ParseFile(token.NewFileSet(), name, data, parser.ParseComments|parser.SkipObjectResolution)
			}
		})
	}
	for _, e := range files(tree) {
		next <- filepath.Join(tree, filepath.FromSlash(e.Path))
	}
	close(next)
	wait.Wait()
}

func measure(tree, within string, runs int, site, twice bool) error {
	dir, err := os.MkdirTemp(within, "codrel-bench")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	codrel := filepath.Join(dir, "codrel")
	compile := exec.Command("go", "build", "-o", codrel, "./cmd/codrel")
	compile.Env = append(os.Environ(), "CGO_ENABLED=0")
	if out, err := compile.CombinedOutput(); err != nil {
		return fmt.Errorf("%w\n%s", err, out)
	}
	self, err := os.Executable()
	if err != nil {
		return err
	}
	// Each first build gets a folder of its own, and nothing is deleted before the
	// end: file systems are slow to create files where others were just deleted.
	out := ""
	builds := 0
	programs := []program{
		{name: "bare parse", args: []string{self, "-bare", "-tree", tree}},
		{name: "check", args: []string{codrel, "check", "--quiet", tree}},
	}
	if site {
		programs = append(programs,
			program{name: "first build", args: []string{codrel, "build", "--quiet", tree, "--out"}, out: &out, before: func() {
				builds++
				out = filepath.Join(dir, "site-"+strconv.Itoa(builds))
			}},
			program{name: "second build", args: []string{codrel, "build", "--quiet", tree, "--out"}, out: &out})
	}
	if twice {
		double := filepath.Join(dir, "double")
		if err := copyTwice(tree, double); err != nil {
			return err
		}
		programs = append(programs, program{name: "twice as much", args: []string{codrel, "build", "--quiet", double, "--out"}, out: &out, before: func() {
			builds++
			out = filepath.Join(dir, "site-"+strconv.Itoa(builds))
		}})
	}
	for range runs {
		for i := range programs {
			if err := programs[i].run(); err != nil {
				return err
			}
		}
	}
	report(tree, programs)
	return nil
}

// copyTwice puts two copies of what is read of a tree into a folder.
func copyTwice(tree, to string) error {
	marks, _, err := source.Find(context.Background(), os.DirFS(tree), source.Search{
		Wanted: func(file string) bool { return slices.Contains(golang.FrontEnd{}.MarkerNames(), path.Base(file)) },
	})
	if err != nil {
		return err
	}
	for _, copy := range []string{"one", "two"} {
		for _, e := range append(files(tree), marks...) {
			data, err := os.ReadFile(filepath.Join(tree, filepath.FromSlash(e.Path)))
			if err != nil {
				return err
			}
			target := filepath.Join(to, copy, filepath.FromSlash(e.Path))
			if err := errors.Join(os.MkdirAll(filepath.Dir(target), 0o755), os.WriteFile(target, data, 0o644)); err != nil {
				return err
			}
		}
	}
	return nil
}

// program is one thing that is measured.
type program struct {
	name   string
	args   []string
	out    *string // a last argument, where it has one
	before func()
	took   []time.Duration
	memory []int64 // largest resident set, bytes
}

func (p *program) run() error {
	if p.before != nil {
		p.before()
	}
	args := p.args[1:]
	if p.out != nil {
		args = append(slices.Clone(args), *p.out)
	}
	c := exec.Command(p.args[0], args...)
	begun := time.Now()
	err := c.Run()
	p.took = append(p.took, time.Since(begun))
	if c.ProcessState == nil || c.ProcessState.ExitCode() > 1 { // 1: there are findings
		return fmt.Errorf("%s: %w", strings.Join(p.args, " "), err)
	}
	if usage, ok := c.ProcessState.SysUsage().(*syscall.Rusage); ok {
		p.memory = append(p.memory, usage.Maxrss*1024)
	}
	return nil
}

func median[T int64 | time.Duration](list []T) T {
	sorted := slices.Sorted(slices.Values(list))
	return sorted[len(sorted)/2]
}

func report(tree string, programs []program) {
	var bytes int64
	all := files(tree)
	for _, e := range all {
		bytes += e.Size
	}
	fmt.Printf("%s: %d files, %.1f MB; %d processors, medians of %d runs\n", tree, len(all), float64(bytes)/1e6, runtime.NumCPU(), len(programs[0].took))
	base := median(programs[0].took)
	for _, p := range programs {
		t := median(p.took)
		fmt.Printf("%-14s %6.2f s  %5.2f × bare parse  %5d MB at most\n", p.name, t.Seconds(), float64(t)/float64(base), slices.Max(p.memory)>>20)
	}
}

// goTree is the source of Go itself on this machine.
func goTree() string {
	out, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		return ""
	}
	return filepath.Join(strings.TrimSpace(string(out)), "src")
}
