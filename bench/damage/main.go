// Command damage cuts and changes the files of real trees, builds sites of what comes of
// them, and looks that every build ends well and writes every page: no panic, nothing that
// hangs, no page that is missing because a name in it is strange.
//
//	go run ./bench/damage [-program FILE] [-files 2000] [-seed 1] DIR...
//
// Half of the files are cut at a random place, the others have up to eight bytes changed,
// put in, taken out or doubled. It prints a line for each site, and leaves a site that
// fails where it is.
package main

import (
	"bytes"
	"errors"
	"flag"
	"fmt"
	"io/fs"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"time"

	"codrel/internal/languages"
)

func main() {
	program := flag.String("program", "codrel", "the program to try")
	files := flag.Int("files", 2000, "how many files are damaged")
	seed := flag.Uint64("seed", 1, "of the damage")
	flag.Parse()
	if err := run(*program, flag.Args(), *files, *seed); err != nil {
		fmt.Fprintln(os.Stderr, "damage:", err)
		os.Exit(1)
	}
}

const (
	perSite  = 1000      // files of one site
	largest  = 100 << 10 // bytes of a file
	patience = 2 * time.Minute
)

func run(program string, trees []string, files int, seed uint64) error {
	program, err := filepath.Abs(program)
	if err != nil {
		return err
	}
	sources, err := find(trees)
	if err != nil {
		return err
	}
	if len(sources) == 0 {
		return errors.New("there are no sources in the trees")
	}
	random := rand.New(rand.NewPCG(seed, 1))
	for done := 0; done < files; done += perSite {
		dir, err := os.MkdirTemp("", "codrel-damage")
		if err != nil {
			return err
		}
		n := min(perSite, files-done)
		if err := spoil(dir, sources, n, random); err != nil {
			return err
		}
		said, err := build(program, dir)
		if err != nil {
			return fmt.Errorf("%s: %w", dir, err)
		}
		fmt.Printf("%7d files: %s\n", done+n, said)
		if err := os.RemoveAll(dir); err != nil {
			return err
		}
	}
	return nil
}

// find lists the sources of all languages in trees, of each language in turn.
func find(trees []string) ([]string, error) {
	byEnding := map[string][]string{}
	var endings []string
	for _, end := range languages.All {
		endings = append(endings, end.Extensions()...)
	}
	for _, tree := range trees {
		err := filepath.WalkDir(tree, func(path string, e fs.DirEntry, err error) error {
			if err != nil || e.IsDir() || !slices.Contains(endings, filepath.Ext(path)) {
				return err
			}
			if info, err := e.Info(); err == nil && info.Mode().IsRegular() && info.Size() < largest {
				byEnding[filepath.Ext(path)] = append(byEnding[filepath.Ext(path)], path)
			}
			return nil
		})
		if err != nil {
			return nil, err
		}
	}
	var out []string
	for i := 0; len(byEnding) > 0; i++ {
		for ending, list := range byEnding {
			if i >= len(list) {
				delete(byEnding, ending)
			}
		}
		for _, ending := range endings {
			if list := byEnding[ending]; i < len(list) {
				out = append(out, list[i])
			}
		}
	}
	return out, nil
}

// spoil writes damaged files into a folder.
func spoil(dir string, sources []string, n int, random *rand.Rand) error {
	for i := range n {
		path := sources[random.IntN(len(sources))]
		data, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		if len(data) > 0 {
			data = damaged(data, random)
		}
		to := filepath.Join(dir, fmt.Sprintf("p%d", i%40), fmt.Sprintf("f%d%s", i, filepath.Ext(path)))
		if err := os.MkdirAll(filepath.Dir(to), 0o755); err != nil {
			return err
		}
		if err := os.WriteFile(to, data, 0o644); err != nil {
			return err
		}
	}
	return nil
}

// telling are bytes that decide where things begin and end.
const telling = "(){}[]<>\"'`/*#\\\n;:,.=@$ \t\x00\xff"

func damaged(data []byte, random *rand.Rand) []byte {
	data = bytes.Clone(data)
	if random.IntN(2) == 0 {
		return data[:random.IntN(len(data))]
	}
	for range 1 + random.IntN(8) {
		if len(data) == 0 {
			break
		}
		at := random.IntN(len(data))
		switch random.IntN(4) {
		case 0:
			data[at] = telling[random.IntN(len(telling))]
		case 1:
			data = slices.Insert(data, at, telling[random.IntN(len(telling))])
		case 2:
			data = slices.Delete(data, at, min(len(data), at+1+random.IntN(20)))
		default:
			end := min(len(data), at+1+random.IntN(200))
			data = slices.Insert(data, end, bytes.Clone(data[at:end])...)
		}
	}
	return data
}

var counts = regexp.MustCompile(`(?m)^Read \d.*`)

// build builds a site of a folder, and gives what the program says that it did.
func build(program, dir string) (string, error) {
	cmd := exec.Command(program, "build", "--anew", "--fail-on", "off", dir)
	var out bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &out
	if err := cmd.Start(); err != nil {
		return "", err
	}
	timer := time.AfterFunc(patience, func() { _ = cmd.Process.Kill() })
	err := cmd.Wait()
	switch text := out.String(); {
	case !timer.Stop():
		return "", fmt.Errorf("it takes longer than %v", patience)
	case err != nil:
		return "", fmt.Errorf("%w\n%s", err, text[max(0, len(text)-2000):])
	case strings.Contains(text, "cannot be written"):
		return "", errors.New("a page is missing")
	case strings.Contains(text, "Codrel itself failed"):
		return "", errors.New(line(text, "Codrel itself failed"))
	default:
		return counts.FindString(text), nil
	}
}

// line is the line of a text that has some words.
func line(text, words string) string {
	at := strings.Index(text, words)
	begin := strings.LastIndexByte(text[:at], '\n') + 1
	line, _, _ := strings.Cut(text[begin:], "\n")
	return line
}
