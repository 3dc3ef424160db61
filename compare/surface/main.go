// Command surface compares what the pages of a finished site show with what users can
// name: for packages of npm as the TypeScript compiler has it (oracle.mjs), for packages
// of Python as Python itself has it when it imports them (oracle.py), a
// place where the code of packages runs; for modules of Java's library as its compiler
// has them (Surface.java), and for folders of C# as a grammar reads them (csharp.mjs), or
// as a compiler has made assemblies of them (Assemblies.cs, which needs mcs and mono); for crates of
// Rust as the parser that its macros use reads them (surface.rs); and for folders of Perl as Perl itself has
// it when it loads them (surface.pl), the other place where code of packages runs. Codrel never runs any code.
//
//	go run ./compare/surface -language typescript -with FOLDER_OF_NODE_MODULES DIR...
//	go run ./compare/surface -language python [-python python3] NAME...
//	go run ./compare/surface -language java -with FOLDER_OF_THE_KIT DIR...
//	go run ./compare/surface -language csharp -with FOLDER_OF_NODE_MODULES DIR...
//	go run ./compare/surface -language rust [-with FOLDER_OF_CRATES] DIR...
//	go run ./compare/surface -language perl DIR...
//	go run ./compare/surface -language assemblies -with FOLDER_OF_ASSEMBLIES DIR...
//
// An assembly is called as the folder with its source is. Debian has some in the version of
// its source packages: libopentk1.1-cil, libdnlib2.1-cil and libnewtonsoft-json5.0-cil.
//
// A name counts as shown where the page of the module that users import lists it. It has
// its text where the compiler finds one and a text stands on the page that the name leads
// to; its parameters where all of them stand in the signature there. Members of classes
// and interfaces, those of their bases too, count where the page of the type lists them.
// What code makes when it runs, and no source says, is counted apart ("made").
package main

import (
	"bufio"
	"bytes"
	_ "embed"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"os/exec"
	"path"
	"path/filepath"
	"slices"
	"strings"

	"codrel/compare/cargo"
)

//go:embed oracle.mjs
var scriptOracle string

//go:embed Surface.java
var javaOracle string

//go:embed csharp.mjs
var csharpOracle string

//go:embed Assemblies.cs
var assemblyOracle string

//go:embed oracle.py
var pythonOracle string

//go:embed surface.rs
var rustOracle string

//go:embed surface.pl
var perlOracle string

// Bounds below which the program fails, in percent.
const (
	leastNames = 99.5
	leastTexts = 98
)

func main() {
	language := flag.String("language", "typescript", "whose packages: typescript (and JavaScript), python, java, csharp, rust, perl, or assemblies of C#")
	with := flag.String("with", "", "folder of node_modules with the compiler, of the development kit of Java, or of assemblies")
	python := flag.String("python", "python3", "the Python that has the packages")
	program := flag.String("codrel", "", "the built program; built anew where it is not given")
	show := flag.Int("show", 0, "how many of the missing names to list for each package")
	keep := flag.String("keep", "", "folder to keep the sites in")
	flag.Parse()
	if flag.NArg() == 0 {
		flag.Usage()
		os.Exit(2)
	}
	bad, err := run(*language, *with, *python, *program, *keep, *show, flag.Args())
	if err != nil {
		fmt.Fprintln(os.Stderr, "surface:", err)
		os.Exit(1)
	}
	if bad {
		os.Exit(1)
	}
}

func run(language, with, python, program, keep string, show int, packages []string) (bad bool, err error) {
	scratch, err := os.MkdirTemp("", "codrel-surface")
	if err != nil {
		return false, err
	}
	defer os.RemoveAll(scratch)
	if program == "" {
		program = filepath.Join(scratch, "codrel")
		if out, err := exec.Command("go", "build", "-o", program, "./cmd/codrel").CombinedOutput(); err != nil {
			return false, fmt.Errorf("building: %w\n%s", err, out)
		}
	}
	if keep == "" {
		keep = scratch
	}
	fmt.Printf("%-32s %7s %8s %8s %8s %8s %8s %8s %8s %8s\n", "package", "entries", "names", "shown", "texts", "params", "members", "shown", "texts", "made")
	var total score
	for _, name := range packages {
		all, err := asked(language, with, python, scratch, name)
		if err != nil {
			return false, err
		}
		for _, p := range all {
			if len(p.Entries) == 0 {
				continue
			}
			s, err := p.measure(program, filepath.Join(keep, filepath.Base(p.Folder)), show)
			if err != nil {
				return false, err
			}
			fmt.Println(s.row(p.Name))
			total.add(s)
		}
	}
	fmt.Println(total.row("all"))
	return total.shown.share() < leastNames || total.members.share() < leastNames || total.texts.share() < leastTexts || total.memberTexts.share() < leastTexts, nil
}

// asked runs the language's own program on one package.
func asked(language, with, python, scratch, name string) ([]*surface, error) {
	command, file, source := exec.Command("node"), "oracle.mjs", scriptOracle
	switch language {
	case "python":
		command, file, source = exec.Command(python), "oracle.py", pythonOracle
	case "java":
		command, file, source = exec.Command(filepath.Join(with, "bin", "java")), "Surface.java", javaOracle
	case "csharp":
		file, source = "csharp.mjs", csharpOracle
	case "assemblies":
		command, file, source = exec.Command("mono"), "Assemblies.cs", assemblyOracle
	case "perl":
		command, file, source = exec.Command("perl"), "surface.pl", perlOracle
	case "rust":
		program, err := rustProgram(with)
		if err != nil {
			return nil, err
		}
		command, file, source = exec.Command(program), "surface.rs", rustOracle
	}
	if dir, err := filepath.Abs(name); err == nil && language != "python" {
		name = dir
	}
	file = filepath.Join(scratch, file)
	if err := os.WriteFile(file, []byte(source), 0o644); err != nil {
		return nil, err
	}
	if language == "assemblies" {
		made := filepath.Join(scratch, "Assemblies.exe")
		if out, err := exec.Command("mcs", "-out:"+made, file).CombinedOutput(); err != nil {
			return nil, fmt.Errorf("compiling what reads assemblies: %w\n%s", err, out)
		}
		file = made
	}
	command.Args = append(command.Args, file, with)
	command.Stdin = strings.NewReader(name + "\n")
	out, err := command.Output()
	if err != nil {
		return nil, fmt.Errorf("asking about %s: %w", name, err)
	}
	var all []*surface
	lines := bufio.NewScanner(bytes.NewReader(out))
	lines.Buffer(nil, 1<<28)
	for lines.Scan() {
		var p surface
		if err := json.Unmarshal(lines.Bytes(), &p); err != nil {
			return nil, err
		}
		all = append(all, &p)
	}
	return all, lines.Err()
}

// rustProgram builds the program that reads crates, once.
var rustProgram = func() func(with string) (string, error) {
	program := ""
	return func(with string) (_ string, err error) {
		if program == "" {
			program, err = cargo.Build("surface", rustOracle, with)
		}
		return program, err
	}
}()

// surface is what users can name of a package.
type surface struct {
	Folder  string  `json:"folder"`
	Name    string  `json:"name"`
	Entries []entry `json:"entries"`
}

type entry struct {
	As    string `json:"as"`
	Names []name `json:"names"`
}

type name struct {
	Name    string   `json:"name"` // "default" or "=" for what is imported without a name
	Called  string   `json:"called"`
	Kind    string   `json:"kind"`
	Text    bool     `json:"text"`
	Params  []string `json:"params"`
	Members []member `json:"members"`
	Made    bool     `json:"made"` // by code that runs
}

type member struct {
	Name      string `json:"name"`
	Text      bool   `json:"text"`
	Inherited bool   `json:"inherited"`
	Made      bool   `json:"made"` // by code that runs
}

// counted is how many of how many.
type counted struct{ right, of int }

func (c *counted) count(right bool) {
	c.of++
	if right {
		c.right++
	}
}

func (c *counted) add(o counted) { c.right, c.of = c.right+o.right, c.of+o.of }

func (c counted) share() float64 {
	if c.of == 0 {
		return 100
	}
	return 100 * float64(c.right) / float64(c.of)
}

type score struct {
	entries                                    int
	shown, texts, params, members, memberTexts counted
	made                                       int
}

func (s *score) add(o score) {
	s.entries += o.entries
	s.made += o.made
	s.shown.add(o.shown)
	s.texts.add(o.texts)
	s.params.add(o.params)
	s.members.add(o.members)
	s.memberTexts.add(o.memberTexts)
}

func (s score) row(name string) string {
	return fmt.Sprintf("%-32s %7d %8d %7.2f%% %7.2f%% %7.2f%% %8d %7.2f%% %7.2f%% %8d", name, s.entries, s.shown.of, s.shown.share(), s.texts.share(), s.params.share(), s.members.of, s.members.share(), s.memberTexts.share(), s.made)
}

// measure builds the package's site and looks for its names.
func (p *surface) measure(program, to string, show int) (score, error) {
	os.RemoveAll(to)
	folder := p.Folder
	if info, err := os.Stat(folder); err == nil && info.Mode().IsRegular() { // a module that is one file
		data, err := os.ReadFile(folder)
		if err != nil {
			return score{}, err
		}
		dir, err := os.MkdirTemp("", "codrel-module")
		if err != nil {
			return score{}, err
		}
		defer os.RemoveAll(dir)
		if err := os.WriteFile(filepath.Join(dir, filepath.Base(folder)), data, 0o644); err != nil {
			return score{}, err
		}
		folder = dir
	}
	out, err := exec.Command(program, "build", "--quiet", "--anew", "--fail-on", "off", "--out", to, folder).CombinedOutput()
	if err != nil {
		return score{}, fmt.Errorf("building %s: %w\n%s", p.Name, err, tail(out))
	}
	built, err := readSite(to)
	if err != nil {
		return score{}, err
	}
	s := score{}
	said := map[string]int{}
	say := func(what, format string, args ...any) {
		if said[what]++; said[what] <= show {
			fmt.Printf("  %-8s "+format+"\n", append([]any{what}, args...)...)
		}
	}
	for _, e := range p.Entries {
		if len(e.Names) > 0 {
			s.entries++
		}
		pages := built.modules[e.As]
		if len(pages) == 0 && len(e.Names) > 0 {
			say("entry", "%s (%d names)", e.As, len(e.Names))
		}
		for _, n := range e.Names {
			if n.Made {
				s.made++
				continue
			}
			places := built.placesOf(pages, e.As, n)
			s.shown.count(len(places) > 0)
			if len(places) == 0 {
				if len(pages) > 0 {
					say("name", "%s: %s (%s)", e.As, n.Name, n.Kind)
				}
				if n.Text {
					s.texts.count(false)
				}
			} else {
				p.look(built, &s, e, n, places, say)
			}
			for _, m := range n.Members {
				if m.Made {
					s.made++
					continue
				}
				at := built.memberOf(places, m.Name)
				s.members.count(at != "")
				if at == "" && len(places) > 0 {
					say("member", "%s: %s.%s inherited=%t", e.As, n.Name, m.Name, m.Inherited)
				}
				if m.Text && at != "" {
					good := built.hasText(at)
					s.memberTexts.count(good)
					if !good {
						say("mtext", "%s: %s.%s %s", e.As, n.Name, m.Name, at)
					}
				}
			}
		}
	}
	return s, nil
}

func tail(out []byte) []byte { return out[max(0, len(out)-2000):] }

// look compares text and parameters of a name that is shown.
func (p *surface) look(built *site, s *score, e entry, n name, places []string, say func(what, format string, args ...any)) {
	if n.Text {
		good := slices.ContainsFunc(places, built.hasText)
		s.texts.count(good)
		if !good {
			say("text", "%s: %s (%s) %s", e.As, n.Name, n.Kind, places[0])
		}
	}
	if n.Params != nil {
		code := ""
		for _, at := range places {
			code += built.code(at)
		}
		good := !slices.ContainsFunc(n.Params, func(param string) bool { return !strings.Contains(code, param) })
		s.params.count(good)
		if !good {
			say("params", "%s: %s %v %s", e.As, n.Name, n.Params, strings.ReplaceAll(code, "\n", " "))
		}
	}
}

// placesOf is where the pages of a module lead for a name, or nil. What is imported
// without a name may stand under its own one.
func (s *site) placesOf(pages []*page, as string, n name) []string {
	names := []string{n.Name}
	if n.Name == "default" || n.Name == "=" {
		names = []string{n.Called, "default", identifier(as[strings.LastIndexByte(as, '/')+1:])}
	}
	var out []string
	for _, p := range pages {
		for _, name := range names {
			out = append(out, p.listed[name]...)
			if p.anchors[name] && len(p.listed[name]) == 0 {
				out = append(out, p.address+"#"+name)
			}
		}
		if len(out) == 0 && len(names) > 1 { // under whatever name the line to copy gives it
			for _, places := range p.listed {
				for _, at := range places {
					if t := s.pages[at]; t != nil && strings.HasPrefix(t.brings, "import "+t.title+" from") && imported(t.brings) == as {
						out = append(out, at)
					}
				}
			}
		}
	}
	return out
}

// anchorAside is where the pages of details beside a page have an anchor, or "".
func (s *site) anchorAside(file, id string) string {
	stem, _, _ := strings.Cut(strings.TrimSuffix(file, ".html"), "~details-")
	for part := 1; ; part++ {
		p := s.pages[fmt.Sprintf("%s~details-%d.html", stem, part)]
		if p == nil {
			return ""
		}
		if p.anchors[id] {
			return p.address + "#" + id
		}
	}
}

func identifier(name string) string {
	parts := strings.FieldsFunc(name, func(r rune) bool { return r == '-' || r == '.' })
	for i := range parts {
		if i > 0 {
			parts[i] = strings.ToUpper(parts[i][:1]) + parts[i][1:]
		}
	}
	return strings.Join(parts, "")
}

func (s *site) hasText(at string) bool {
	file, anchor, _ := strings.Cut(at, "#")
	p := s.pages[file]
	if p == nil {
		return false
	}
	return p.texts[anchor] || anchor != "" && p.told[anchor[strings.LastIndexByte(anchor, '.')+1:]]
}

func (s *site) code(at string) string {
	file, anchor, _ := strings.Cut(at, "#")
	p := s.pages[file]
	if p == nil {
		return ""
	}
	return p.codes[anchor] + p.overview[anchor]
}

// memberOf is where a member of what stands at one of the places is shown, or "".
func (s *site) memberOf(places []string, name string) string {
	for _, at := range places {
		file, anchor, _ := strings.Cut(at, "#")
		p := s.pages[file]
		if p == nil {
			continue
		}
		id := name
		if anchor != "" {
			id = anchor + "." + name
		}
		switch {
		case p.anchors[id]:
			return file + "#" + id
		case p.anchors["field:"+id]: // what shares its name with a method, in Java
			return file + "#field:" + id
		case s.anchorAside(file, id) != "":
			return s.anchorAside(file, id)
		case s.anchorAside(file, "field:"+id) != "":
			return s.anchorAside(file, "field:"+id)
		case p.below[anchor][name] != "":
			return p.below[anchor][name]
		case (anchor == "" || strings.EqualFold(anchor+".html", path.Base(file))) && len(p.listed[name]) > 0: // the page of the type, or of twins
			return p.listed[name][0]
		}
	}
	return ""
}
