// Command frontends compares what our front ends read with what each
// language's own compiler says of the same files, and prints a table.
//
// The compiler's side is a small program in the language itself (oracle.py uses
// Python's ast, oracle.mjs the TypeScript compiler) that lists declarations in
// the plainest way and shares no code with ours. A declaration is found where
// file, line, scope and name agree; it is right where its parameters and
// whether a comment is attached agree too; it is invented where the compiler
// has none at that line. Files that the compiler refuses are left out of the
// comparison, and read all the same.
//
//	go run ./compare/frontends -language python [-show 20] [-speed] DIR...
//	go run ./compare/frontends -language typescript -with FOLDER_OF_NODE_MODULES DIR...
//
// With -names it compares instead, of each name in the code, whether it means
// something of the module or something that a function or class declares: the
// second kind must never link.
//
// With -damage N each file is cut short and changed at random places N times; what
// stands before a cut must be read as it was, and nothing may take long.
//
// With -speed the compiler's own parse and our reading take turns on one
// processor each, and the ratio of the medians is printed.
package main

import (
	"flag"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/languages"
)

func main() {
	language := flag.String("language", "python", "the front end to compare")
	show := flag.Int("show", 0, "differences to list for each tree")
	speed := flag.Bool("speed", false, "compare the time of reading too")
	damaged := flag.Int("damage", 0, "times that each file is cut and changed at random places, instead of the comparison")
	runs := flag.Int("runs", 5, "runs of each side, with -speed")
	with := flag.String("with", "", "folder with the compiler's package, where it is no part of the language's own")
	names := flag.Bool("names", false, "compare which names the code takes from its module, instead of the declarations")
	pieces := flag.Bool("pieces", false, "compare where strings, numbers and comments begin, instead of the declarations")
	only := flag.Bool("read", false, "read the trees once, print the seconds it took, and exit (used by the program itself)")
	flag.Parse()
	end := languages.ByName(*language)
	if end == nil || flag.NArg() == 0 {
		flag.Usage()
		os.Exit(2)
	}
	if *only {
		readAll(end, flag.Args())
		return
	}
	if *names {
		if err := compareNames(end, flag.Args(), *with, *show); err != nil {
			fmt.Fprintln(os.Stderr, "frontends:", err)
			os.Exit(1)
		}
		return
	}
	if *pieces {
		if err := comparePieces(end, flag.Args(), *with, *show); err != nil {
			fmt.Fprintln(os.Stderr, "frontends:", err)
			os.Exit(1)
		}
		return
	}
	if *damaged > 0 {
		if err := damage(end, flag.Args(), *damaged); err != nil {
			fmt.Fprintln(os.Stderr, "frontends:", err)
			os.Exit(1)
		}
		return
	}
	bad := false
	fmt.Printf("%-44s %7s %7s %9s %9s %9s %9s %9s %14s\n", "tree", "files", "refused", "declared", "found", "right", "public", "invented", "made up")
	var total score
	for _, dir := range flag.Args() {
		s, err := compare(end, dir, *with, *show)
		if err != nil {
			fmt.Fprintln(os.Stderr, "frontends:", err)
			os.Exit(1)
		}
		fmt.Println(s.row(dir))
		right, invented := bounds(*language)
		bad = bad || s.publicShare() < right || s.inventedShare() >= invented
		total.add(s)
	}
	if flag.NArg() > 1 {
		fmt.Println(total.row("all"))
	}
	if *speed {
		if err := race(*language, *with, flag.Args(), *runs); err != nil {
			fmt.Fprintln(os.Stderr, "frontends:", err)
			os.Exit(1)
		}
	}
	if bad {
		os.Exit(1)
	}
}

// bounds are how many of the public declarations must be right, and how many of ours may be
// invented, both in percent. Macros make up names in C and C++ that stand nowhere.
func bounds(language string) (right, invented float64) {
	switch language {
	case "cpp":
		return 99.5, 0.3
	case "c":
		return 99.9, 0.2
	}
	return 99.9, 0.1
}

// files are those below a folder that the front end reads, or the one file that is named.
func files(end lang.FrontEnd, dir string) ([]string, error) {
	var out []string
	err := filepath.WalkDir(dir, func(p string, e fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if e.IsDir() && p != dir && (e.Name() == "__pycache__" || e.Name() == ".git") {
			return filepath.SkipDir
		}
		if e.Type().IsRegular() && (lang.Reads(end, p) || recognized(end, p)) {
			out = append(out, p)
		}
		return nil
	})
	slices.Sort(out)
	return out, err
}

// recognized reports whether a file with an ending that several languages have is in this one.
func recognized(end lang.FrontEnd, p string) bool {
	r, ok := end.(lang.Recognizer)
	if !ok || !slices.Contains(r.SharedExtensions(), filepath.Ext(p)) {
		return false
	}
	head, err := os.ReadFile(p)
	return err == nil && r.Recognize(filepath.Base(p), head, nil) > 0
}

// score counts the outcome of one tree.
type score struct {
	files, refused       int
	declared, found      int
	right                int
	public, publicRight  int
	read, inventedByOurs int
	made, madeFound      int // names that macros make up, and those of them that we have too
}

func (s *score) add(o score) {
	s.files += o.files
	s.refused += o.refused
	s.made += o.made
	s.madeFound += o.madeFound
	s.declared += o.declared
	s.found += o.found
	s.right += o.right
	s.public += o.public
	s.publicRight += o.publicRight
	s.read += o.read
	s.inventedByOurs += o.inventedByOurs
}

func share(part, whole int) float64 {
	if whole == 0 {
		return 100
	}
	return 100 * float64(part) / float64(whole)
}

func (s *score) publicShare() float64 { return share(s.publicRight, s.public) }

func (s *score) inventedShare() float64 {
	if s.read == 0 {
		return 0
	}
	return share(s.inventedByOurs, s.read)
}

func (s *score) row(name string) string {
	madeUp := "-"
	if s.made > 0 {
		madeUp = fmt.Sprintf("%d of %d", s.madeFound, s.made)
	}
	return fmt.Sprintf("%-44s %7d %7d %9d %8.3f%% %8.3f%% %8.3f%% %8.4f%% %14s", shortPath(name), s.files, s.refused, s.declared,
		share(s.found, s.declared), share(s.right, s.declared), s.publicShare(), s.inventedShare(), madeUp)
}

// shortPath is the end of a path that has room in a table.
func shortPath(name string) string {
	if len(name) > 44 {
		return "…" + name[len(name)-43:]
	}
	return name
}

// symbol is what both sides are reduced to.
type symbol struct {
	File       string    `json:"file"`
	Line       int       `json:"line"`
	Name       string    `json:"name"`
	Scope      string    `json:"scope"`
	Params     *[]string `json:"params"`
	Documented bool      `json:"documented"`
	Public     bool      `json:"public"`
	Made       bool      `json:"made"`    // a macro makes up its name, which stands nowhere in the file
	Refused    bool      `json:"refused"` // the compiler cannot read the file
	Off        [2]int    `json:"off"`     // lines that it does not see, under a condition that does not hold
}

func (s symbol) key() string { return fmt.Sprintf("%s:%d %s %s", s.File, s.Line, s.Scope, s.Name) }

func (s symbol) rest() string {
	params := "-"
	if s.Params != nil {
		params = "(" + strings.Join(*s.Params, ",") + ")"
	}
	return fmt.Sprintf("%s documented=%t", params, s.Documented)
}
