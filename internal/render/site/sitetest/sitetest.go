// Package sitetest proves a built site: every link leads to a page and an
// anchor that exist, every page is well made, and nothing in it could run or
// ask the network for anything.
package sitetest

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"io/fs"
	"net/url"
	"path"
	"runtime"
	"slices"
	"strings"

	"codrel/internal/parallel"

	"golang.org/x/net/html"
)

// Report is what a crawl found.
type Report struct {
	Pages    int
	Links    int      // inside the site
	Problems []string // sorted
}

// page is what one page offers and asks for.
type page struct {
	ids      map[string]bool
	links    []target // inside the site
	problems []string
}

// target is where a link leads: a file of the site, and maybe an anchor in it.
type target struct{ file, anchor string }

func (t target) String() string {
	if t.anchor == "" {
		return t.file
	}
	return t.file + "#" + t.anchor
}

// Crawl reads every page of a site.
func Crawl(site fs.FS) (Report, error) {
	var names []string
	files := map[string]bool{}
	err := fs.WalkDir(site, ".", func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		files[p] = true
		if strings.HasSuffix(p, ".html") {
			names = append(names, p)
		}
		return nil
	})
	if err != nil {
		return Report{}, err
	}
	pages, err := readAll(site, names)
	if err != nil {
		return Report{}, err
	}
	return judge(names, pages, files), nil
}

func readAll(site fs.FS, names []string) ([]page, error) {
	pages := make([]page, len(names))
	err := parallel.Try(context.Background(), runtime.GOMAXPROCS(0), len(names), func(i int) error {
		data, err := fs.ReadFile(site, names[i])
		if err == nil {
			pages[i] = read(names[i], data)
		}
		return err
	})
	return pages, err
}

func judge(names []string, pages []page, files map[string]bool) Report {
	r := Report{Pages: len(names)}
	byName := map[string]*page{}
	for i := range pages {
		byName[names[i]] = &pages[i]
	}
	for i := range pages {
		for _, p := range pages[i].problems {
			r.Problems = append(r.Problems, names[i]+": "+p)
		}
		for _, l := range pages[i].links {
			r.Links++
			page := byName[l.file]
			switch {
			case !files[l.file]:
				r.Problems = append(r.Problems, fmt.Sprintf("%s: the link to %s leads nowhere", names[i], l))
			case l.anchor != "" && (page == nil || !page.ids[l.anchor]):
				r.Problems = append(r.Problems, fmt.Sprintf("%s: the link to %s leads to no anchor", names[i], l))
			}
		}
	}
	slices.Sort(r.Problems)
	return r
}

// read takes one page apart with a tokenizer: a parser would mend what is to be found.
func read(name string, data []byte) page {
	p := page{ids: map[string]bool{}}
	p.weigh(data)
	var open []string
	z := html.NewTokenizer(bytes.NewReader(data))
	for {
		switch z.Next() {
		case html.ErrorToken:
			if z.Err() != io.EOF {
				p.fail("it cannot be read: %v", z.Err())
			}
			for _, tag := range open {
				p.fail("<%s> is not closed", tag)
			}
			return p
		case html.StartTagToken:
			t := z.Token()
			if t.Data == "li" {
				open = withoutItem(open)
			}
			p.start(name, t, open)
			if !void[t.Data] {
				open = append(open, t.Data)
			}
		case html.SelfClosingTagToken:
			p.start(name, z.Token(), open)
		case html.EndTagToken:
			t := z.Token()
			if t.Data == "ol" || t.Data == "ul" {
				open = withoutItem(open)
			}
			if len(open) == 0 || open[len(open)-1] != t.Data {
				p.fail("</%s> closes %v", t.Data, open)
				return p
			}
			open = open[:len(open)-1]
		}
	}
}

var void = map[string]bool{"meta": true, "link": true, "br": true, "hr": true, "img": true, "wbr": true, "input": true}

// inside tells which elements may not stand, at any depth, in which others.
var inside = map[string][]string{"a": {"a"}, "p": {"p", "pre", "h1", "h2", "h3"}, "section": {"p"}, "div": {"p", "span", "code"}, "pre": {"p", "span"}, "ul": {"p"}, "ol": {"p"}}

func (p *page) fail(format string, args ...any) {
	p.problems = append(p.problems, fmt.Sprintf(format, args...))
}

func (p *page) start(name string, t html.Token, open []string) {
	for _, outer := range inside[t.Data] {
		if slices.Contains(open, outer) {
			p.fail("<%s> inside <%s>", t.Data, outer)
		}
	}
	switch t.Data {
	case "iframe", "object", "embed", "form", "style", "base":
		p.fail("<%s> has no place on a page", t.Data)
	}
	if t.Data == "script" && !slices.ContainsFunc(t.Attr, func(a html.Attribute) bool { return a.Key == "src" }) {
		p.fail("<script> without an address")
	}
	for _, a := range t.Attr {
		switch {
		case a.Key == "id":
			if p.ids[a.Val] {
				p.fail("two elements have the id %q", a.Val)
			}
			if strings.ContainsAny(a.Val, " \t\n\f\r") {
				p.fail("the id %q has a blank", a.Val)
			}
			p.ids[a.Val] = true
		case a.Key == "style" || strings.HasPrefix(a.Key, "on"):
			p.fail("<%s> has the attribute %s", t.Data, a.Key)
		case a.Key == "href" || a.Key == "src":
			p.link(name, t.Data, a.Val)
		}
	}
}

func (p *page) link(name, tag, address string) {
	u, err := url.Parse(address)
	if err != nil {
		p.fail("%q is no address", address)
		return
	}
	if u.Scheme != "" || u.Host != "" {
		switch {
		case tag != "a":
			p.fail("<%s> asks the network for %s", tag, address)
		case u.Scheme != "https" && u.Scheme != "http" && u.Scheme != "mailto":
			p.fail("the link %s has a scheme that is not allowed", address)
		}
		return
	}
	file := name
	if u.Path != "" {
		file = path.Join(path.Dir(name), u.Path)
		if strings.HasPrefix(u.Path, "/") { // from the root that the site is served from
			file = u.Path[1:]
		}
	}
	p.links = append(p.links, target{file, u.Fragment})
}

const (
	heaviestPage      = 1_500_000 // bytes
	heaviestFurniture = 8 << 10   // what is around the text of a page
)

// weigh requires that a page is light: its furniture is what stands before and
// behind its main part.
func (p *page) weigh(data []byte) {
	if len(data) > heaviestPage {
		p.fail("it has %d bytes, and a page has %d at most", len(data), heaviestPage)
	}
	from, to := bytes.Index(data, []byte("<main")), bytes.LastIndex(data, []byte("</main>"))
	if around := len(data) - to + from; from >= 0 && to > from && around > heaviestFurniture {
		p.fail("%d bytes stand around its text, and %d may", around, heaviestFurniture)
	}
}

// withoutItem closes an open list item: its end tag may be left out before
// another item and at the end of the list (HTML, "Optional tags").
func withoutItem(open []string) []string {
	if len(open) > 0 && open[len(open)-1] == "li" {
		return open[:len(open)-1]
	}
	return open
}
