package main

import (
	"io/fs"
	"net/url"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"strings"

	"golang.org/x/net/html"
)

// site is what a finished site shows: the pages as they were written to the disk, and
// nothing of what the program that wrote them knows.
type site struct {
	root  string
	pages map[string]*page
	// modules are the pages of modules by what users import them by, as each page says it
	// in the line to copy.
	modules map[string][]*page
}

// page is one page taken apart.
type page struct {
	address  string
	brings   string              // the line to copy
	title    string              // the name in its heading
	listed   map[string][]string // names in overviews, and where they lead
	texts    map[string]bool     // of anchors; "" for the page itself: whether there is a text
	codes    map[string]string   // signatures, by anchor
	anchors  map[string]bool
	told     map[string]bool // names with a text beside them in an overview
	overview map[string]string
	below    map[string]map[string]string // names in overviews within a section, by its anchor
	also     []string                     // what else the module is imported by
}

// readSite reads all pages of the reference below a folder.
func readSite(root string) (*site, error) {
	s := &site{root: root, pages: map[string]*page{}, modules: map[string][]*page{}}
	err := filepath.WalkDir(filepath.Join(root, "reference"), func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() || !strings.HasSuffix(p, ".html") {
			return err
		}
		rel, _ := filepath.Rel(root, p)
		read, err := readPage(p, filepath.ToSlash(rel))
		if err != nil {
			return err
		}
		s.pages[read.address] = read
		if strings.HasSuffix(read.address, "/index.html") {
			if as := imported(read.brings); as != "" {
				s.modules[as] = append(s.modules[as], read)
			}
			for _, as := range read.also {
				s.modules[as] = append(s.modules[as], read)
			}
		}
		return nil
	})
	return s, err
}

var (
	scriptPath = regexp.MustCompile(`(?:from |require\()["']([^"']+)["']`)
	pythonFrom = regexp.MustCompile(`^from (\S+) import (\S+)$`)
	pythonName = regexp.MustCompile(`^import (\S+)$`)
	modules    = regexp.MustCompile(`^use ([\w:]+?)(?:::\*)?;$`)           // of Rust and Perl
	packages   = regexp.MustCompile(`^(?:import (\S+)\.\*|using (\S+));$`) // of Java, namespaces of C#
)

// imported is what a line to copy imports.
func imported(line string) string {
	if m := scriptPath.FindStringSubmatch(line); m != nil {
		return m[1]
	}
	if m := pythonFrom.FindStringSubmatch(line); m != nil {
		return m[1] + "." + m[2]
	}
	if m := packages.FindStringSubmatch(line); m != nil {
		return m[1] + m[2]
	}
	if m := modules.FindStringSubmatch(line); m != nil {
		return m[1]
	}
	if m := pythonName.FindStringSubmatch(line); m != nil {
		return m[1]
	}
	return ""
}

func readPage(file, address string) (*page, error) {
	f, err := os.Open(file)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	tree, err := html.Parse(f)
	if err != nil {
		return nil, err
	}
	p := &page{address: address, listed: map[string][]string{}, texts: map[string]bool{}, codes: map[string]string{}, anchors: map[string]bool{}, told: map[string]bool{}, overview: map[string]string{}, below: map[string]map[string]string{}}
	if main := find(tree, "main", ""); main != nil {
		p.read(main, "")
	}
	return p, nil
}

// read goes through a node that stands in the section with an anchor.
func (p *page) read(n *html.Node, anchor string) {
	for c := n.FirstChild; c != nil; c = c.NextSibling {
		if c.Type != html.ElementNode {
			continue
		}
		at := anchor
		id := attribute(c, "id")
		if id != "" {
			p.anchors[id] = true
		}
		switch {
		case c.Data == "section" && hasClass(c, "member"), c.Data == "li" && id != "", c.Data == "dt" && id != "":
			at = id
		}
		switch {
		case c.Data == "h1" && p.title == "":
			if code := find(c, "code", ""); code != nil {
				p.title = text(code)
			}
		case c.Data == "p" && strings.HasPrefix(text(c), "Also imported as "):
			for name := c.FirstChild; name != nil; name = name.NextSibling {
				if name.Type == html.ElementNode {
					p.also = append(p.also, text(name))
				}
			}
		case c.Data == "pre" && hasClass(c, "bring"):
			if p.brings == "" {
				p.brings = text(c)
			}
		case c.Data == "pre" && hasClass(c, "signature"):
			p.codes[at] += text(c) + "\n"
		case c.Data == "div" && hasClass(c, "prose"):
			p.texts[at] = p.texts[at] || strings.TrimSpace(text(c)) != ""
			continue
		case c.Data == "p" && hasClass(c, "deprecated"):
			p.texts[at] = true
		case c.Data == "dl" && hasClass(c, "overview"):
			p.list(c, at)
		case c.Data == "dl" && hasClass(c, "fields"):
			p.fields(c)
			continue
		case c.Data == "li" && id != "":
			p.texts[id] = p.texts[id] || find(c, "span", "") != nil
			p.codes[id] += text(c)
		}
		p.read(c, at)
	}
}

// fields reads a list of members without plates: the line of each, and the text below.
func (p *page) fields(dl *html.Node) {
	at := ""
	for c := dl.FirstChild; c != nil; c = c.NextSibling {
		switch {
		case c.Type != html.ElementNode:
		case c.Data == "dt":
			at = attribute(c, "id")
			p.anchors[at] = true
			p.codes[at] += text(c) + "\n"
		case c.Data == "dd":
			p.texts[at] = p.texts[at] || strings.TrimSpace(text(c)) != ""
		}
	}
}

// list reads an overview: names, where they lead, and whether a text stands beside them.
func (p *page) list(dl *html.Node, anchor string) {
	name := ""
	for c := dl.FirstChild; c != nil; c = c.NextSibling {
		switch {
		case c.Type != html.ElementNode:
		case c.Data == "dt":
			name = ""
			if a := find(c, "a", ""); a != nil {
				name = text(a)
				p.listed[name] = append(p.listed[name], resolved(p.address, attribute(a, "href")))
				p.overview[name] += text(c)
				if p.below[anchor] == nil {
					p.below[anchor] = map[string]string{}
				}
				p.below[anchor][name] = resolved(p.address, attribute(a, "href"))
			}
		case c.Data == "dd":
			p.told[name] = p.told[name] || strings.TrimSpace(text(c)) != ""
		}
	}
}

func resolved(from, href string) string {
	file, anchor, has := strings.Cut(href, "#")
	if plain, err := url.PathUnescape(anchor); err == nil {
		anchor = plain
	}
	if file == "" {
		file = from
	} else {
		file = path.Join(path.Dir(from), file)
	}
	if has {
		return file + "#" + anchor
	}
	return file
}

func find(n *html.Node, tag, class string) *html.Node {
	for c := n.FirstChild; c != nil; c = c.NextSibling {
		if c.Type == html.ElementNode && c.Data == tag && (class == "" || hasClass(c, class)) {
			return c
		}
		if f := find(c, tag, class); f != nil {
			return f
		}
	}
	return nil
}

func attribute(n *html.Node, key string) string {
	for _, a := range n.Attr {
		if a.Key == key {
			return a.Val
		}
	}
	return ""
}

func hasClass(n *html.Node, class string) bool {
	for c := range strings.FieldsSeq(attribute(n, "class")) {
		if c == class {
			return true
		}
	}
	return false
}

func text(n *html.Node) string {
	var b strings.Builder
	var walk func(*html.Node)
	walk = func(n *html.Node) {
		if n.Type == html.TextNode {
			b.WriteString(n.Data)
		}
		for c := n.FirstChild; c != nil; c = c.NextSibling {
			walk(c)
		}
	}
	walk(n)
	return strings.TrimSpace(b.String())
}
