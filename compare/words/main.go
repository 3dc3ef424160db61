// Command words measures what of the comments of a tree arrives on its pages: of each line
// of the comments of what has a page, whether the pages say its words in its order. It
// knows nothing of how comments are read: markup is cut off roughly, and a line counts as
// lost where most of its runs of three words stand on no page.
//
//	go run ./compare/words [-list N] [-least PERCENT] DIR...
package main

import (
	"context"
	"flag"
	"fmt"
	"os"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/model"
)

func main() {
	list := flag.Int("list", 0, "print this many lost lines of each tree")
	least := flag.Float64("least", 0, "fail where a tree shows less than this share, in percent")
	flag.Parse()
	failed := false
	for _, folder := range flag.Args() {
		lines, lost, err := measure(folder)
		if err != nil {
			fmt.Fprintln(os.Stderr, "words:", err)
			os.Exit(1)
		}
		share := 100.0
		if lines > 0 {
			share = 100 * float64(lines-len(lost)) / float64(lines)
		}
		fmt.Printf("%-40s %7d lines, %7.3f %% shown\n", folder, lines, share)
		for i := 0; i < min(*list, len(lost)); i++ {
			fmt.Println("  " + lost[i*len(lost)/min(*list, len(lost))])
		}
		failed = failed || share < *least || lines == 0
	}
	if failed {
		fmt.Fprintf(os.Stderr, "words: less than %.1f %% is shown, or there was nothing to show\n", *least)
		os.Exit(1)
	}
}

// measure counts the lines of comments in a folder, and lists those that no page shows.
func measure(folder string) (lines int, lost []string, err error) {
	ctx := context.Background()
	s, err := build.Run(ctx, os.DirFS(folder), build.Options{FrontEnds: languages.All, Tests: true})
	if err != nil {
		return 0, nil, err
	}
	shown, err := onPages(ctx, s)
	if err != nil {
		return 0, nil, err
	}
	comment := func(doc *model.Doc, dialect, at string) {
		for _, line := range linesOf(plain(doc.Text, dialect)) {
			if runs := runsOf(line); len(runs) > 1 {
				lines++
				if shown.miss(runs) {
					lost = append(lost, at+": "+line)
				}
			}
		}
	}
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for _, doc := range m.Doc {
				if s.Links.ModuleInReach(m) {
					comment(doc.Doc, lib.Habits.Dialect, doc.File.Path)
				}
			}
			for d := range m.Declarations {
				if !s.Links.InReach(d) || d.Hidden {
					continue
				}
				for _, o := range d.Occurrences {
					if len(d.Occurrences) > 1 && o.Callable != nil && !s.Links.Reach().Includes(o.Visibility) {
						continue // an overload that is kept from users
					}
					if o.Doc != nil && (o.Occurrence == d.Speaks(model.Words).Occurrence || !o.Implementation) {
						comment(o.Doc, lib.Habits.Dialect, fmt.Sprintf("%s:%d %s", o.File.Path, o.Line, d.Path()))
					}
				}
			}
		}
	}
	return lines, lost, nil
}
