// Command references counts the references in a tree's comments that lead somewhere, and
// prints those that are reported as broken, to be read by eye. With -sample it prints that
// many links of texts and signatures instead, drawn at random, with the line they stand in
// and what they lead to.
//
//	go run ./compare/references [-sample N] DIR...
package main

import (
	"context"
	"flag"
	"fmt"
	"os"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/languages"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

func main() {
	size := flag.Int("sample", 0, "print this many links of each tree, drawn at random, to be read by eye")
	flag.Parse()
	for _, folder := range flag.Args() {
		s, err := build.Run(context.Background(), os.DirFS(folder), build.Options{FrontEnds: languages.All, Tests: true})
		if err != nil {
			fmt.Fprintln(os.Stderr, "references:", err)
			os.Exit(1)
		}
		if *size > 0 {
			sample(os.Stdout, s, *size)
			continue
		}
		broken := 0
		for _, f := range s.Findings {
			if f.Rule == finding.BrokenReference {
				broken++
				fmt.Printf("%s:%d: %s\n", f.Place.File, f.Place.At.Line, check.Text(&f))
			}
		}
		fmt.Printf("%s: %d references lead to a name of the tree, %d are reported as broken\n", folder, found(s), broken)
	}
}

// found counts references in the comments of what has a page that name something of the tree.
func found(s *build.Snapshot) int {
	count := 0
	eachNode(s, func(n *prose.Node, from link.Scope) {
		if n.Kind == prose.Reference && s.Links.Resolve(from, n.Target, link.StrictnessOf(n)).Outcome == link.Found {
			count++
		}
	})
	return count
}

// eachNode visits what stands in the comments of what has a page.
func eachNode(s *build.Snapshot, visit func(n *prose.Node, from link.Scope)) {
	in := func(m *model.Module, f *model.Facts, doc *model.Doc, from link.Scope) {
		if doc == nil {
			return
		}
		for nodes := range s.Links.Comments.Of(m.Library.Habits, f, doc).All {
			prose.Walk(nodes, func(n *prose.Node) bool {
				visit(n, from)
				return n.Kind != prose.Reference
			})
		}
	}
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if s.Links.ModuleInReach(m) {
				for _, doc := range m.Doc {
					in(m, doc.File, doc.Doc, link.Scope{Module: m, File: doc.File})
				}
			}
			for d := range m.Declarations {
				if !s.Links.InReach(d) {
					continue
				}
				for _, o := range d.Occurrences {
					from := link.Scope{Module: m, File: o.File, Declaration: d}
					in(m, o.File, o.Doc, from)
					in(m, o.File, o.GroupDoc, from)
				}
			}
		}
	}
}
