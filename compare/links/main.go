// Command links follows every link and anchor of a built site and prints those
// that lead nowhere, with what else is wrong with its pages.
//
//	go run ./compare/links DIR
package main

import (
	"fmt"
	"os"

	"codrel/internal/render/site/sitetest"
)

func main() {
	if len(os.Args) != 2 {
		fmt.Fprintln(os.Stderr, "usage: links DIR")
		os.Exit(2)
	}
	r, err := sitetest.Crawl(os.DirFS(os.Args[1]))
	if err != nil {
		fmt.Fprintln(os.Stderr, "links:", err)
		os.Exit(2)
	}
	for _, p := range r.Problems {
		fmt.Println(p)
	}
	fmt.Printf("%d pages, %d links inside the site, %d problems\n", r.Pages, r.Links, len(r.Problems))
	if len(r.Problems) > 0 {
		os.Exit(1)
	}
}
