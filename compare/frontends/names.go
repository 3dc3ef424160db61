package main

import (
	"fmt"
	"os"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/source"
)

// named is what the compiler's side says of the names of one file: line, byte in
// the line, and 1 where the name is the module's.
type named struct {
	File  string
	Names [][3]int
}

// compareNames tells how many of the names that are the module's we found, and how
// many that are not we took for such.
func compareNames(end lang.FrontEnd, dirs []string, with string, show int) error {
	fmt.Printf("%-44s %7s %9s %9s %9s\n", "tree", "files", "names", "found", "wrong")
	names, wrongs := 0, 0
	for _, dir := range dirs {
		list, err := files(end, dir)
		if err != nil {
			return err
		}
		compared, total, found, wrong := 0, 0, 0, 0
		err = ask(end, list, with, "names", func(of named) error {
			data, err := os.ReadFile(of.File)
			if err != nil {
				return err
			}
			facts := end.Read(lang.File{Path: of.File, Text: source.Decode(data), Deep: true})
			for _, n := range of.Names {
				total += n[2]
			}
			right, bad := judgeNames(facts, of, show)
			compared, found, wrong = compared+1, found+right, wrong+bad
			return nil
		})
		if err != nil {
			return err
		}
		fmt.Printf("%-44s %7d %9d %8.2f%% %9d\n", shortPath(dir), compared, total, share(found, total), wrong)
		names, wrongs = names+total, wrongs+wrong
	}
	if share(wrongs, names) >= 0.2 {
		return fmt.Errorf("%d names that are local were taken for the module's", wrongs)
	}
	return nil
}

// judgeNames counts the uses of one file that the compiler's side knows as the
// module's, and those that it knows as something else.
func judgeNames(facts *model.Facts, of named, show int) (right, wrong int) {
	known := make(map[int32]int, len(of.Names))
	mark := int32(0)
	if strings.HasPrefix(facts.Text, "\ufeff") {
		mark = int32(len("\ufeff"))
	}
	for _, n := range of.Names {
		at := facts.Lines.Start(n[0]) + int32(n[1])
		if n[0] == 1 {
			at += mark
		}
		known[at] = n[2]
	}
	for use := range facts.Inside.Uses.All() {
		if use.Form >= model.UseMember {
			continue
		}
		switch own, ok := known[use.Span.Start]; {
		case ok && own == 1:
			right++
		case ok:
			wrong++
			if show > 0 && wrong <= show {
				fmt.Printf("  local  %s:%d %s\n", of.File, facts.Lines.Line(use.Span.Start), use.Span.In(facts.Text))
			}
		}
	}
	return right, wrong
}
