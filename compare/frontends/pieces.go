package main

import (
	"bufio"
	"encoding/json"
	"fmt"
	"os"
	"strings"
	"unicode/utf8"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/source"
)

// pieced is what the language's own tokeniser says of one file: where strings and numbers begin, and comments
// where it has them: line, character in the line from 0, and the first letter of "text", "number" or
// "comment".
type pieced struct {
	File   string
	Pieces [][3]any
}

// comparePieces tells how many of the strings, numbers and comments of the tokeniser begin where ours do, and
// how many of ours begin where it has none.
func comparePieces(end lang.FrontEnd, dirs []string, with string, show int) error {
	scanner, ok := end.(lang.Scanner)
	if !ok {
		return fmt.Errorf("the front end of %s does not scan", end.Habits().Name)
	}
	fmt.Printf("%-44s %7s %9s %9s %9s\n", "tree", "files", "pieces", "alike", "others")
	all, bad := 0, 0
	for _, dir := range dirs {
		list, err := files(end, dir)
		if err != nil {
			return err
		}
		cmd, clean, err := oracle(end.Habits().Language, with, "pieces")
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
		compared, total, found, others := 0, 0, 0, 0
		lines := bufio.NewScanner(out)
		lines.Buffer(nil, 1<<28)
		for lines.Scan() {
			var of pieced
			if err := json.Unmarshal(lines.Bytes(), &of); err != nil {
				return err
			}
			data, err := os.ReadFile(of.File)
			if err != nil {
				return err
			}
			right, wrong := judgePieces(scanner, source.Decode(data).String, of, show)
			compared, total, found, others = compared+1, total+len(of.Pieces), found+right, others+wrong
		}
		if err := lines.Err(); err != nil {
			return err
		}
		if err := cmd.Wait(); err != nil {
			return fmt.Errorf("the oracle: %w", err)
		}
		fmt.Printf("%-44s %7d %9d %8.3f%% %9d\n", shortPath(dir), compared, total, share(found, total), others)
		all, bad = all+total, bad+total-found+others
	}
	if share(bad, all) >= 0.1 {
		return fmt.Errorf("%d pieces are not alike", bad)
	}
	return nil
}

// judgePieces counts the pieces of one file that both sides have, and ours that the other has not.
func judgePieces(scanner lang.Scanner, text string, of pieced, show int) (right, wrong int) {
	begins := []int{0}
	for i := range len(text) {
		if text[i] == '\n' {
			begins = append(begins, i+1)
		}
	}
	ours := map[int]string{}
	kinds := map[string]bool{}
	for _, p := range of.Pieces {
		kinds[p[2].(string)] = true
	}
	for _, p := range scanner.Scan(text, nil) {
		if kind := map[lexing.Class]string{lexing.Text: "t", lexing.Number: "n", lexing.Comment: "c"}[p.Class]; kinds[kind] {
			ours[int(p.Span.Start)] = kind
		}
	}
	for _, p := range of.Pieces {
		line, column, kind := int(p[0].(float64)), int(p[1].(float64)), p[2].(string)
		if line > len(begins) {
			continue
		}
		at := begins[line-1]
		for ; column > 0 && at < len(text); column-- {
			_, size := utf8.DecodeRuneInString(text[at:])
			at += size
		}
		if kind != "t" { // PPI counts the blanks before a comment to it, and the sign to a number
			at += len(text[at:]) - len(strings.TrimLeft(text[at:], " \t-"))
		}
		if ours[at] == kind {
			right++
			delete(ours, at)
		} else if show > 0 {
			show--
			fmt.Printf("  theirs %s %s:%d %.40q\n", kind, of.File, line, text[at:min(len(text), at+40)])
		}
	}
	for at, kind := range ours {
		if wrong++; show > 0 {
			show--
			fmt.Printf("  ours %s %s:%d %.40q\n", kind, of.File, 1+strings.Count(text[:at], "\n"), text[at:min(len(text), at+40)])
		}
	}
	return right, wrong
}
