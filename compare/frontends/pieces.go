package main

import (
	"fmt"
	"maps"
	"os"
	"slices"
	"strings"
	"unicode/utf8"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/source"
)

// pieced is what the language's own tokeniser says of one file: where strings and numbers begin, and comments
// where it has them: line, character in the line from 0, and what begins there.
type pieced struct {
	File   string
	Pieces [][3]int
}

// What begins at a place, in the words of the oracles.
const (
	ofText = 1 + iota
	ofNumber
	ofComment
)

var pieceKinds = map[lexing.Class]int{lexing.Text: ofText, lexing.Number: ofNumber, lexing.Comment: ofComment}

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
		compared, total, found, others := 0, 0, 0, 0
		err = ask(end, list, with, "pieces", func(of pieced) error {
			data, err := os.ReadFile(of.File)
			if err != nil {
				return err
			}
			right, wrong := judgePieces(scanner, source.Decode(data).String, of, show)
			compared, total, found, others = compared+1, total+len(of.Pieces), found+right, others+wrong
			return nil
		})
		if err != nil {
			return err
		}
		fmt.Printf("%-44s %7d %9d %8.3f%% %9d\n", shortPath(dir), compared, total, share(found, total), others)
		all, bad = all+total, bad+total-found+others
	}
	if all == 0 {
		return fmt.Errorf("the language's own tokeniser tells of no pieces")
	}
	if share(bad, all) >= 0.1 {
		return fmt.Errorf("%d pieces are not alike", bad)
	}
	return nil
}

// judgePieces counts the pieces of one file that both sides have, and ours that the other has not. Kinds that
// it tells nothing of are not compared.
func judgePieces(scanner lang.Scanner, text string, of pieced, show int) (right, wrong int) {
	lines := source.NewLines(text)
	tells := map[int]bool{}
	for _, p := range of.Pieces {
		tells[p[2]] = true
	}
	ours := map[int]int{}
	for _, p := range scanner.Scan(text, nil) {
		if kind := pieceKinds[p.Class]; tells[kind] {
			ours[int(p.Span.Start)] = kind
		}
	}
	complain := func(side string, kind, at int) {
		if show--; show >= 0 {
			fmt.Printf("  %-6s %s %s:%d %.40q\n", side, [...]string{"", "text", "number", "comment"}[kind], of.File, lines.Line(int32(at)), text[at:min(len(text), at+40)])
		}
	}
	for _, p := range of.Pieces {
		at := placeOf(text, int(lines.Start(p[0])), p[1])
		if p[2] != ofText { // PPI counts the blanks before a comment to it, and the sign to a number
			at += len(text[at:]) - len(strings.TrimLeft(text[at:], " \t-"))
		}
		if ours[at] != p[2] {
			complain("theirs", p[2], at)
			continue
		}
		right++
		delete(ours, at)
	}
	for _, at := range slices.Sorted(maps.Keys(ours)) {
		complain("ours", ours[at], at)
	}
	return right, len(ours)
}

// placeOf is the offset of a character of the line that begins at an offset.
func placeOf(text string, at, characters int) int {
	for ; characters > 0 && at < len(text); characters-- {
		_, size := utf8.DecodeRuneInString(text[at:])
		at += size
	}
	return at
}
