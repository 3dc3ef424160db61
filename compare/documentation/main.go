// Command documentation compares the documentation file that Codrel writes of a library of C#
// with the one that a compiler wrote of the same source.
//
//	go run ./compare/documentation [-program FILE] [-library NAME] [-least PERCENT] -reference FILE.xml DIR
//
// It prints how many members of the compiler's file Codrel has under the same identifier, how
// many of those have the same text, and how many it has that the compiler has not, with some of
// each that differ. Compilers write private members too, so DIR's settings should have
// "reach: private"; what conditions leave out of the compiler's build counts as more. Fails where
// fewer are found than -least says, or fewer of those have the same text by two in a hundred.
package main

import (
	"bytes"
	"flag"
	"fmt"
	"os"
	"os/exec"
	"strings"

	"codrel/internal/source"
	"codrel/internal/xmldoc"
)

func main() {
	program := flag.String("program", "codrel", "the program to try")
	library := flag.String("library", "", "the library, where there are several")
	reference := flag.String("reference", "", "the compiler's file")
	least := flag.Float64("least", 0, "percent of members that must be found")
	flag.Parse()
	if flag.NArg() != 1 || *reference == "" {
		flag.Usage()
		os.Exit(2)
	}
	if err := run(*program, *library, *reference, flag.Arg(0), *least); err != nil {
		fmt.Fprintln(os.Stderr, "documentation:", err)
		os.Exit(1)
	}
}

func run(program, library, reference, dir string, least float64) error {
	data, err := os.ReadFile(reference)
	if err != nil {
		return err
	}
	theirs, err := texts(data)
	if err != nil {
		return err
	}
	args := []string{"extract", "--xml"}
	if library != "" {
		args = append(args, "--library", library)
	}
	var out bytes.Buffer
	cmd := exec.Command(program, append(args, dir)...)
	cmd.Stdout, cmd.Stderr = &out, os.Stderr
	if err := cmd.Run(); err != nil {
		return err
	}
	ours, err := texts(out.Bytes())
	if err != nil {
		return err
	}
	var missing, differing, more []string
	same, asked := 0, 0
	for id, text := range theirs {
		if strings.Contains(id, "#") && !strings.Contains(id, "#ctor") || strings.Contains(id, "#cctor") {
			continue // of an interface alone, or run by nobody's call: no editor shows it
		}
		asked++
		switch mine, has := ours[id]; {
		case !has:
			missing = append(missing, id)
		case mine != text:
			differing = append(differing, id+"\n    ours   "+mine+"\n    theirs "+text)
		default:
			same++
		}
	}
	for id := range ours {
		if _, has := theirs[id]; !has {
			more = append(more, id)
		}
	}
	found := asked - len(missing)
	fmt.Printf("%d of %d members under the compiler's identifier (%.2f %%), %d of them with its text (%.2f %%), %d more\n",
		found, asked, share(found, asked), same, share(same, found), len(more))
	some("missing", missing)
	some("another text", differing)
	some("more", more)
	if share(found, asked) < least || share(same, found) < least-2 {
		return fmt.Errorf("fewer than %.2f %% of members, or %.2f %% of texts", least, least-2)
	}
	return nil
}

func share(part, all int) float64 { return 100 * float64(part) / float64(max(all, 1)) }

func some(what string, list []string) {
	for _, s := range list[:min(len(list), 20)] {
		fmt.Printf("  %s: %s\n", what, s)
	}
}

// texts are the members of a file with their texts, blanks made equal.
func texts(data []byte) (map[string]string, error) {
	f, err := xmldoc.Parse(source.Decode(data).String)
	if err != nil {
		return nil, err
	}
	out := map[string]string{}
	for _, m := range f.Members {
		out[m.ID] = strings.ReplaceAll(strings.Join(strings.Fields(m.Text), " "), " />", "/>")
	}
	return out, nil
}
