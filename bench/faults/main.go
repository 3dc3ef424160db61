// Command faults builds the demo while something goes wrong with the machine, and looks
// after each build whether the site is whole: killed and interrupted at random moments, a
// full disk, folders that may not be written, files of others, several builds at once,
// sources that change under the reading, few files, little memory, closed output, no home
// and no folder for temporary files. It prints counts, and fails where a site is torn, a
// build ends in another way than it should, or something is left behind.
//
//	go run ./bench/faults [-program FILE] [-trials 20]
package main

import (
	"errors"
	"flag"
	"fmt"
	"io/fs"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"syscall"
	"time"

	"codrel/internal/render/site/sitetest"
)

func main() {
	program := flag.String("program", "", "the program to try; built anew where none is named")
	trials := flag.Int("trials", 20, "how often each fault is tried")
	flag.Parse()
	if err := run(*program, *trials); err != nil {
		fmt.Fprintln(os.Stderr, "faults:", err)
		os.Exit(1)
	}
}

func run(program string, trials int) error {
	scratch, err := os.MkdirTemp("", "codrel-faults")
	if err != nil {
		return err
	}
	defer os.RemoveAll(scratch)
	if program == "" {
		program = filepath.Join(scratch, "codrel")
		if out, err := exec.Command("go", "build", "-o", program, "./cmd/codrel").CombinedOutput(); err != nil {
			return fmt.Errorf("%w\n%s", err, out)
		}
	}
	if program, err = filepath.Abs(program); err != nil {
		return err
	}
	for _, folder := range []string{scratch, filepath.Dir(program)} {
		if err := os.Chmod(folder, 0o755); err != nil { // other users run it too
			return err
		}
	}
	b := &bench{program: program, scratch: scratch, trials: trials, random: rand.New(rand.NewPCG(1, 2))}
	for _, f := range faults {
		if err := b.try(f); err != nil {
			return fmt.Errorf("%s: %w", f.name, err)
		}
	}
	return nil
}

// fault is one thing that goes wrong.
type fault struct {
	name  string
	codes []int // with which a build may end
	// under runs a build, or several, while it goes wrong, and gives the exit codes.
	under func(b *bench, p *project) ([]int, error)
}

// errNotTried is of a fault that cannot be brought about on this machine.
var errNotTried = errors.New("not tried")

type bench struct {
	program, scratch string
	trials           int
	random           *rand.Rand
	usual            time.Duration // that a build takes
}

// project is a copy of the demo that has a site.
type project struct {
	dir, site string
	changes   int
}

// try breaks builds of a project of its own, and looks at the site after each.
func (b *bench) try(f fault) error {
	p := &project{dir: filepath.Join(b.scratch, strings.ReplaceAll(f.name, " ", "-"), "tidebook")}
	p.site = filepath.Join(p.dir, "codrel-site")
	if out, err := exec.Command(b.program, "demo", "--quiet", p.dir).CombinedOutput(); err != nil {
		return fmt.Errorf("%w\n%s", err, out)
	}
	begun := time.Now()
	if code, _ := b.build(p, nil); code != 0 {
		return fmt.Errorf("a plain build ends with %d", code)
	}
	b.usual = time.Since(begun)
	ended := map[int]int{}
	for range b.trials {
		if err := p.change(); err != nil {
			return err
		}
		codes, err := f.under(b, p)
		if errors.Is(err, errNotTried) {
			fmt.Printf("%-34s %v\n", f.name, err)
			return nil
		}
		if err != nil {
			return err
		}
		for _, code := range codes {
			if ended[code]++; !slices.Contains(f.codes, code) {
				return fmt.Errorf("a build ends with %d", code)
			}
		}
		if err := p.whole(); err != nil {
			return err
		}
	}
	if code, out := b.build(p, nil); code != 0 {
		return fmt.Errorf("the next build ends with %d: %s", code, out)
	}
	left, err := filepath.Glob(filepath.Join(filepath.Dir(p.site), ".*codrel-*"))
	if err != nil || len(left) > 0 {
		return fmt.Errorf("the next build leaves %v %w", left, err)
	}
	fmt.Printf("%-34s %3d builds, whole after each; ended with %v\n", f.name, sum(ended), ended)
	return p.whole()
}

func sum(counts map[int]int) (n int) {
	for _, count := range counts {
		n += count
	}
	return n
}

// change changes a file, so that there is something to write.
func (p *project) change() error {
	p.changes++
	text := fmt.Sprintf("package moon\n\n// Extra%d is new.\nvar Extra%d int\n", p.changes, p.changes)
	return os.WriteFile(filepath.Join(p.dir, "engine", "moon", "extra.go"), []byte(text), 0o644)
}

// whole reports what is wrong with the site.
func (p *project) whole() error {
	r, err := sitetest.Crawl(os.DirFS(p.site))
	switch {
	case err != nil:
		return err
	case len(r.Problems) > 0:
		return fmt.Errorf("the site is torn: %s", r.Problems[0])
	case r.Pages < 30:
		return fmt.Errorf("the site has %d pages", r.Pages)
	}
	return nil
}

// command is a build of a project that is about to run.
func (b *bench) command(p *project) *exec.Cmd {
	return exec.Command(b.program, "build", "--quiet", "--anew", "--fail-on", "off", p.dir)
}

// build runs one. change makes it go wrong; may be nil.
func (b *bench) build(p *project, change func(*exec.Cmd)) (code int, out string) {
	cmd := b.command(p)
	if change != nil {
		change(cmd)
	}
	var text strings.Builder
	if cmd.Stderr == nil {
		cmd.Stderr = &text
	}
	err := cmd.Run()
	var ended *exec.ExitError
	if err != nil && !errors.As(err, &ended) {
		return -1, err.Error()
	}
	return cmd.ProcessState.ExitCode(), text.String()
}

// one is a fault of one build.
func one(change func(*exec.Cmd)) func(*bench, *project) ([]int, error) {
	return func(b *bench, p *project) ([]int, error) {
		code, _ := b.build(p, change)
		return []int{code}, nil
	}
}

// within runs the build in a shell that does something first, such as to set a limit.
func within(first string) func(*exec.Cmd) {
	return func(cmd *exec.Cmd) {
		shell := exec.Command("sh", append([]string{"-c", first + `; exec "$0" "$@"`}, cmd.Args...)...)
		cmd.Path, cmd.Args = shell.Path, shell.Args
	}
}

// without runs the build with other variables of the environment, or none.
func without(set ...string) func(*exec.Cmd) {
	return func(cmd *exec.Cmd) { cmd.Env = append([]string{"PATH=" + os.Getenv("PATH")}, set...) }
}

// signalled sends a signal at a random moment of a build.
func signalled(signal syscall.Signal) func(*bench, *project) ([]int, error) {
	return func(b *bench, p *project) ([]int, error) {
		cmd := b.command(p)
		if err := cmd.Start(); err != nil {
			return nil, err
		}
		time.Sleep(time.Duration(b.random.Int64N(int64(b.usual))))
		_ = cmd.Process.Signal(signal) // it may have ended
		_ = cmd.Wait()
		return []int{cmd.ProcessState.ExitCode()}, nil
	}
}

const killed = -1 // the code of a program that a signal ended

var faults = []fault{
	{"killed", []int{0, killed}, signalled(syscall.SIGKILL)},
	{"interrupted", []int{0, 130, killed}, signalled(syscall.SIGINT)},
	{"ended", []int{0, 130, 143, killed}, signalled(syscall.SIGTERM)},
	{"hung up", []int{0, 129, 130, killed}, signalled(syscall.SIGHUP)},
	{"a full disk", []int{3}, fullDisk},
	{"files of a bounded size", []int{3, killed}, one(within("ulimit -f 8"))},
	{"a folder that may not be written", []int{3}, readOnly},
	{"files of others in the site", []int{3}, foreign},
	{"four builds at once", []int{0, 3}, atOnce},
	{"sources that change", []int{0, 2}, changing},
	{"few files", []int{0, 3}, one(within("ulimit -n 16"))},
	{"little memory", []int{0}, one(without("HOME="+os.Getenv("HOME"), "GOMEMLIMIT=12MiB"))},
	{"closed output", []int{0, 3}, one(within("exec >&- 2>&-"))},
	{"output that nobody reads", []int{0, 3, killed}, unread},
	{"no home", []int{0}, one(without())},
	{"no folder for temporary files", []int{0}, one(without("HOME="+os.Getenv("HOME"), "TMPDIR=/nowhere"))},
}

// fullDisk writes onto a disk that is too small for the site.
func fullDisk(b *bench, p *project) ([]int, error) {
	disk := filepath.Join(b.scratch, "disk")
	if err := os.MkdirAll(disk, 0o755); err != nil {
		return nil, err
	}
	if err := syscall.Mount("tmpfs", disk, "tmpfs", 0, "size=300k"); err != nil {
		return nil, fmt.Errorf("%w: a small disk cannot be mounted here (%w)", errNotTried, err)
	}
	defer syscall.Unmount(disk, 0)
	code, _ := b.build(p, func(cmd *exec.Cmd) { cmd.Args = append(cmd.Args, "--out", filepath.Join(disk, "site")) })
	left, err := os.ReadDir(disk)
	if err == nil && len(left) > 0 {
		err = fmt.Errorf("%s is left on the full disk", left[0].Name())
	}
	return []int{code}, err
}

// readOnly builds as a user who may read the project alone.
func readOnly(b *bench, p *project) ([]int, error) {
	if os.Geteuid() != 0 {
		return nil, fmt.Errorf("%w: only root can run a build as another user", errNotTried)
	}
	code, _ := b.build(p, func(cmd *exec.Cmd) {
		cmd.SysProcAttr = &syscall.SysProcAttr{Credential: &syscall.Credential{Uid: 65534, Gid: 65534}}
		cmd.Env = []string{"PATH=" + os.Getenv("PATH"), "HOME=/nowhere"}
	})
	return []int{code}, nil
}

// foreign puts a file into the site that Codrel did not write, and looks that it stays.
func foreign(b *bench, p *project) ([]int, error) {
	file := filepath.Join(p.site, "notes.txt")
	if err := os.WriteFile(file, []byte("mine"), 0o644); err != nil {
		return nil, err
	}
	code, _ := b.build(p, nil)
	if data, err := os.ReadFile(file); err != nil || string(data) != "mine" {
		return nil, fmt.Errorf("the file of others is gone: %w", err)
	}
	return []int{code}, os.Remove(file)
}

// atOnce runs four builds of the same site.
func atOnce(b *bench, p *project) ([]int, error) {
	codes := make([]int, 4)
	var all sync.WaitGroup
	for i := range codes {
		all.Go(func() { codes[i], _ = b.build(p, nil) })
	}
	all.Wait()
	return codes, nil
}

// changing rewrites, cuts and removes sources while they are read.
func changing(b *bench, p *project) ([]int, error) {
	named, err := os.ReadFile(filepath.Join(p.dir, "codrel.yaml"))
	if err != nil {
		return nil, err
	}
	sources := map[string][]byte{}
	err = filepath.WalkDir(p.dir, func(path string, e fs.DirEntry, err error) error {
		if err == nil && e.IsDir() && e.Name() == "codrel-site" {
			return fs.SkipDir
		}
		if err != nil || e.IsDir() || filepath.Base(path) == "codrel.yaml" {
			return err
		}
		if rel, err := filepath.Rel(p.dir, path); err != nil || strings.Contains(string(named), filepath.ToSlash(rel)) {
			return err // a file that the settings name must be there: a build without it ends with 3, as it should
		}
		sources[path], err = os.ReadFile(path)
		return err
	})
	if err != nil {
		return nil, err
	}
	stop := make(chan struct{})
	var all sync.WaitGroup
	all.Go(func() {
		for {
			for path, data := range sources {
				select {
				case <-stop:
					return
				default:
				}
				_ = os.WriteFile(path, data[:len(data)/2], 0o644)
				_ = os.Remove(path)
				_ = os.WriteFile(path, data, 0o644)
			}
		}
	})
	code, _ := b.build(p, nil)
	close(stop)
	all.Wait()
	for path, data := range sources {
		if err := os.WriteFile(path, data, 0o644); err != nil {
			return nil, err
		}
	}
	return []int{code}, nil
}

// unread builds into a pipe whose other end is closed.
func unread(b *bench, p *project) ([]int, error) {
	reader, writer, err := os.Pipe()
	if err != nil {
		return nil, err
	}
	defer writer.Close()
	if err := reader.Close(); err != nil {
		return nil, err
	}
	code, _ := b.build(p, func(cmd *exec.Cmd) {
		cmd.Args = slices.DeleteFunc(cmd.Args, func(arg string) bool { return arg == "--quiet" })
		cmd.Stdout, cmd.Stderr = writer, writer
	})
	return []int{code}, nil
}
