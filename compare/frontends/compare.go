package main

import (
	"bufio"
	"cmp"
	_ "embed"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"runtime/debug"
	"slices"
	"strings"
	"time"

	"codrel/compare/cargo"
	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/source"
)

//go:embed oracle.py
var pythonOracle string

//go:embed oracle.mjs
var scriptOracle string

//go:embed csharp.mjs
var csharpOracle string

//go:embed Oracle.java
var javaOracle string

//go:embed clang/oracle.c
var clangOracle string

//go:embed oracle.pl
var perlOracle string

//go:embed rust/main.rs
var rustOracle string

// oracle is the command that runs a language's oracle in a mode, which reads
// paths from its input, one a line.
func oracle(language, with, mode string) (*exec.Cmd, func(), error) {
	name, program, text := "oracle.py", []string{"python3"}, pythonOracle
	switch language {
	case "python":
	case "c", "cpp":
		return clang(language, with, mode)
	case "rust":
		return rust(with, mode)
	case "perl":
		name, program, text = "oracle.pl", []string{"perl"}, perlOracle
	case "java": // compiled on the spot; with is the folder of the development kit, "" for the usual one
		java := "java"
		if with != "" {
			java = filepath.Join(with, "bin", "java")
		}
		name, program, text = "Oracle.java", []string{java, "--add-exports", "jdk.compiler/com.sun.tools.javac.tree=ALL-UNNAMED"}, javaOracle
	default:
		name, program, text = "oracle.mjs", []string{"node"}, scriptOracle
		if language == "csharp" {
			text = csharpOracle
		}
		var err error
		if with, err = filepath.Abs(with); err != nil {
			return nil, nil, err
		}
	}
	dir, err := os.MkdirTemp("", "codrel-oracle")
	if err != nil {
		return nil, nil, err
	}
	clean := func() { os.RemoveAll(dir) }
	file := filepath.Join(dir, name)
	if err := os.WriteFile(file, []byte(text), 0o644); err != nil {
		clean()
		return nil, nil, err
	}
	cmd := exec.Command(program[0], append(program[1:], file, mode, with)...)
	cmd.Stderr = os.Stderr
	return cmd, clean, nil
}

// clang builds the oracle of C and C++ with the newest of clang's libraries that is installed.
// With are the folders of headers, with ":" between them.
func clang(language, with, mode string) (*exec.Cmd, func(), error) {
	found, err := filepath.Glob("/usr/lib/llvm-*/include/clang-c/Index.h")
	if err != nil || len(found) == 0 {
		return nil, nil, fmt.Errorf("clang's library is missing (on Debian: libclang-dev)")
	}
	root := filepath.Dir(filepath.Dir(filepath.Dir(found[len(found)-1])))
	dir, err := os.MkdirTemp("", "codrel-oracle")
	if err != nil {
		return nil, nil, err
	}
	clean := func() { os.RemoveAll(dir) }
	source, program := filepath.Join(dir, "oracle.c"), filepath.Join(dir, "oracle")
	if err := os.WriteFile(source, []byte(clangOracle), 0o644); err != nil {
		clean()
		return nil, nil, err
	}
	build := exec.Command("cc", "-O1", "-o", program, source, "-I"+filepath.Join(root, "include"), "-L"+filepath.Join(root, "lib"), "-lclang", "-Wl,-rpath,"+filepath.Join(root, "lib"))
	build.Stderr = os.Stderr
	if err := build.Run(); err != nil {
		clean()
		return nil, nil, fmt.Errorf("the oracle cannot be built: %w", err)
	}
	name := "c"
	if language == "cpp" {
		name = "c++"
	}
	cmd := exec.Command(program, mode, name)
	for folder := range strings.SplitSeq(with, ":") {
		if folder != "" {
			cmd.Args = append(cmd.Args, "-isystem", folder)
		}
	}
	cmd.Stderr = os.Stderr
	return cmd, clean, nil
}

// rust builds the oracle of Rust with the crates of a folder, "" for the one where Debian has them.
func rust(with, mode string) (*exec.Cmd, func(), error) {
	program, err := cargo.Build("rust", rustOracle, with)
	if err != nil {
		return nil, nil, err
	}
	cmd := exec.Command(program, mode)
	cmd.Stderr = os.Stderr
	return cmd, func() {}, nil
}

// ask runs an oracle in a mode on files, and hands over what it says, line by line.
func ask[T any](end lang.FrontEnd, list []string, with, mode string, of func(T) error) error {
	cmd, clean, err := oracle(end.Habits().Language, with, mode)
	if err != nil {
		return err
	}
	defer clean()
	cmd.Stdin = strings.NewReader(strings.Join(list, "\n"))
	out, err := cmd.StdoutPipe()
	if err != nil {
		return err
	}
	if err := cmd.Start(); err != nil {
		return err
	}
	lines := bufio.NewScanner(out)
	lines.Buffer(nil, 1<<28)
	for lines.Scan() {
		var said T
		if err := json.Unmarshal(lines.Bytes(), &said); err != nil {
			return err
		}
		if err := of(said); err != nil {
			return err
		}
	}
	if err := lines.Err(); err != nil {
		return err
	}
	if err := cmd.Wait(); err != nil {
		return fmt.Errorf("the oracle: %w", err)
	}
	return nil
}

// compare reads one tree on both sides.
func compare(end lang.FrontEnd, dir, with string, show int) (score, error) {
	list, err := files(end, dir)
	if err != nil {
		return score{}, err
	}
	refused, off := map[string]bool{}, map[string][][2]int{}
	macros := map[string]bool{}
	var want []symbol
	err = ask(end, list, with, "declarations", func(s symbol) error {
		if s.Refused {
			refused[s.File] = true
			return nil
		}
		if s.Off[1] > 0 {
			off[s.File] = append(off[s.File], s.Off)
			return nil
		}
		if rest, ok := strings.CutPrefix(s.Name, "operator"); ok && rest != "" && end.Habits().Family == "c" {
			s.Name = operatorName(rest)
		}
		if strings.HasPrefix(s.Name, "#") && end.Habits().Family == "c" && macros[s.key()] {
			return nil // of a file that is included several times
		}
		macros[s.key()] = true
		want = append(want, s)
		return nil
	})
	if err != nil {
		return score{}, err
	}
	told := map[string]bool{}
	for _, s := range want {
		told[s.key()] = true
	}
	var got []symbol
	for _, f := range list {
		facts, err := read(end, f)
		if err != nil {
			return score{}, err
		}
		if refused[f] {
			continue
		}
		if len(facts.Problems) > 0 && show > 0 {
			p := facts.Problems[0]
			fmt.Printf("  complains %s:%d %s\n", f, p.Place.At.Line, p.Arg("problem"))
		}
		for i := range facts.Occurrences {
			o := &facts.Occurrences[i]
			unseen := slices.ContainsFunc(off[f], func(lines [2]int) bool { return lines[0] <= int(o.Line) && int(o.Line) <= lines[1] })
			unseen = unseen || facts.Language == "perl" && (o.Kind == model.KindProperty || o.Kind == model.KindField || strings.HasPrefix(o.Span.In(facts.Text), "use vars") || strings.HasPrefix(o.Span.In(facts.Text), "*") || strings.HasPrefix(o.Span.In(facts.Text), "eval")) // what words of modules declare
			unseen = unseen || o.Kind == model.KindMacro && inMacro(facts, o)                                                                                                                                                                                                       // which declares it when it is called
			unseen = unseen || facts.Language == "cpp" && untold(o, facts.Text) && !told[ours(f, facts, o).key()]
			if !o.FromComment && !o.Local && !unseen && !slices.Contains(o.Modifiers(), "friend") { // no parser of code knows what comments declare
				got = append(got, ours(f, facts, o))
			}
		}
	}
	s := judge(want, got, show)
	s.files, s.refused = len(list), len(refused)
	return s, nil
}

// inMacro reports whether a macro stands in the body of another one.
func inMacro(facts *model.Facts, o *model.Occurrence) bool {
	return slices.ContainsFunc(facts.Occurrences, func(other model.Occurrence) bool {
		return other.Kind == model.KindMacro && other.Span.Start < o.Span.Start && o.Span.End < other.Span.End
	})
}

// untold reports whether a declaration is of a kind that clang's index of version 14, which Debian has,
// does not tell of: concepts, templates of variables, and special forms of classes that are only named.
func untold(o *model.Occurrence, text string) bool {
	switch o.Kind {
	case model.KindTrait:
		return true
	case model.KindVariable, model.KindConstant, model.KindField:
		return len(o.TypeParams()) > 0 || strings.Contains(o.Name, "<")
	}
	return o.Kind.IsType() && strings.Contains(o.Name, "<") && !strings.Contains(o.Span.In(text), "{")
}

func read(end lang.FrontEnd, path string) (*model.Facts, error) {
	data, err := os.ReadFile(path)
	if err != nil {
		return nil, err
	}
	return end.Read(lang.File{Path: path, Text: source.Decode(data), Other: func(file string) []byte {
		other, err := os.ReadFile(file)
		if err != nil {
			return nil
		}
		return other
	}}), nil
}

// readAll prints the seconds that the front end takes for all files. Getting the
// bytes from the disk is not counted, as it is not on the compiler's side;
// decoding them is.
func readAll(end lang.FrontEnd, dirs []string) {
	debug.SetGCPercent(400) // as the program does
	var spent time.Duration
	for _, dir := range dirs {
		list, _ := files(end, dir)
		for _, f := range list {
			data, err := os.ReadFile(f)
			if err != nil {
				continue
			}
			begin := time.Now()
			end.Read(lang.File{Path: f, Text: source.Decode(data)})
			spent += time.Since(begin)
		}
	}
	fmt.Printf("%.6f\n", spent.Seconds())
}

// plain writes names as the oracle of C and C++ does: namespaces are a part of the scope, and
// arguments of specialisations are left out. Of macros it knows no comments.
func plain(s *symbol, facts *model.Facts, o *model.Occurrence) {
	outer := o
	for outer.Parent >= 0 {
		outer = &facts.Occurrences[outer.Parent]
	}
	s.Scope = strings.Trim(strings.ReplaceAll(outer.In(), "::", ".")+"."+o.Scope, ".")
	if o.Kind == model.KindMacro {
		s.Name, s.Documented = "#"+s.Name, false
	}
	if rest, operator := strings.CutPrefix(s.Name, "operator"); operator {
		s.Name = operatorName(strings.ReplaceAll(rest, " ", ""))
	} else {
		s.Name, _, _ = strings.Cut(s.Name, "<")
	}
	for open := strings.IndexByte(s.Scope, '<'); open >= 0; open = strings.IndexByte(s.Scope, '<') {
		end, depth := open, 0
		for ; end < len(s.Scope); end++ {
			if s.Scope[end] == '<' {
				depth++
			} else if s.Scope[end] == '>' {
				if depth--; depth == 0 {
					break
				}
			}
		}
		s.Scope = s.Scope[:open] + s.Scope[min(end+1, len(s.Scope)):]
	}
}

// operatorName is the name of an operator by its rest. What a conversion makes is written in many
// ways, and so is its name.
func operatorName(rest string) string {
	if c := rest[0] | 0x20; ('a' <= c && c <= 'z' || rest[0] == '_' || strings.HasPrefix(rest, "::")) && !strings.HasPrefix(rest, "new") && !strings.HasPrefix(rest, "delete") {
		return "operator T"
	}
	return "operator" + rest
}

func ours(file string, facts *model.Facts, o *model.Occurrence) symbol {
	s := symbol{File: file, Line: int(o.Line), Name: o.Name, Scope: o.Scope, Documented: o.Attached()}
	if facts.Language == "perl" { // PPI knows neither what a sub takes nor which text speaks of it
		if s.Scope = o.In(); s.Scope == "" {
			s.Scope = cmp.Or(packageAt(facts), "main")
		}
		s.Documented = false
		return s
	}
	family := facts.Language == "c" || facts.Language == "cpp"
	if family {
		plain(&s, facts, o)
	}
	if o.Callable != nil && (!family || o.Kind.IsCallable()) { // there, types and pointers tell parameters too
		names := make([]string, 0, len(o.Callable.Params))
		for _, p := range o.Callable.Params {
			names = append(names, p.Name)
		}
		s.Params = &names
	}
	return s
}

// packageAt is the package of the file that something belongs to, where that is the file's own; "" for
// the one that code without a package has.
func packageAt(facts *model.Facts) string {
	if module := strings.HasSuffix(facts.Path, ".pm") || strings.HasSuffix(facts.Path, ".pod"); facts.ModuleSpan.Empty() || !module && facts.ModuleSpan.In(facts.Text) != facts.Package {
		return ""
	}
	return facts.Package
}

// split takes those of a list out that fit.
func split(list []symbol, fits func(symbol) bool) (out, rest []symbol) {
	for _, s := range list {
		if fits(s) {
			out = append(out, s)
		} else {
			rest = append(rest, s)
		}
	}
	return out, rest
}

// judge compares two lists, and apart from that the names that macros make up. Several declarations of one name on one line are
// matched in any order.
func judge(want, got []symbol, show int) (s score) {
	var made []symbol
	made, want = split(want, func(w symbol) bool { return w.Made })
	s.made, s.read = len(made), len(got)
	found := map[string]int{}
	for _, m := range made {
		found[m.key()]++
	}
	known, got := split(got, func(g symbol) bool {
		if found[g.key()] == 0 {
			return false
		}
		found[g.key()]--
		return true
	})
	s.madeFound = len(known)
	s.declared = len(want)
	have := map[string][]string{}
	for _, g := range got {
		have[g.key()] = append(have[g.key()], g.rest())
	}
	asked := map[string]int{}
	shown := 0
	say := func(format string, args ...any) {
		if shown++; shown <= show {
			fmt.Printf("  "+format+"\n", args...)
		}
	}
	for _, w := range want {
		key, rest := w.key(), w.rest()
		asked[key]++
		if w.Public {
			s.public++
		}
		list := have[key]
		if len(list) == 0 {
			say("missing   %s %s", key, rest)
			continue
		}
		s.found++
		at := 0
		for i, r := range list {
			if r == rest {
				at = i
			}
		}
		if list[at] == rest {
			s.right++
			if w.Public {
				s.publicRight++
			}
		} else {
			say("differs   %s %s, ours %s", key, rest, list[at])
		}
		have[key] = append(list[:at:at], list[at+1:]...)
	}
	for _, g := range got {
		if asked[g.key()] > 0 {
			asked[g.key()]--
			continue
		}
		s.inventedByOurs++
		say("invented  %s %s", g.key(), g.rest())
	}
	return s
}
