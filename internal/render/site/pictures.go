package site

import (
	"fmt"
	"io/fs"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/picture"
	"codrel/internal/prose"
	"codrel/internal/render/page"
	"codrel/internal/render/sink"
)

// This file copies the pictures and films that guides show, and draws them.

// picturesFolder is where they are on the site.
const picturesFolder = "files/"

// findPictures notes those of all guides and fragments.
func (s *Site) findPictures() {
	for _, g := range s.plan.Links.Guides() {
		s.picturesOf(g.Page, g.Nodes)
	}
	for _, f := range s.plan.Links.Fragments() {
		s.picturesOf(f.Page, f.Nodes)
	}
}

func (s *Site) picturesOf(of *model.Page, nodes []prose.Node) {
	prose.Walk(nodes, func(n *prose.Node) bool {
		if n.Kind == prose.Image || n.Kind == prose.Film {
			if file := link.WayFrom(of, n.Target).File; s.copied(file) {
				s.pictures[file] = picturesFolder + file
			}
		}
		return true
	})
}

// copied reports whether a file of the project is a picture or a film that the site gets a
// copy of.
func (s *Site) copied(file string) bool {
	kind := picture.Of(file)
	if file == "" || kind == picture.None || s.options.Files == nil {
		return false
	}
	info, err := fs.Stat(s.options.Files, file)
	return err == nil && info.Mode().IsRegular() && info.Size() <= kind.Most()
}

// copyPictures comes before the pages are drawn: one that went away since it was found is not
// shown by them.
func (s *Site) copyPictures(to sink.Sink) error {
	for file, address := range s.pictures {
		data, err := fs.ReadFile(s.options.Files, file)
		if err != nil {
			if s.options.Lost != nil {
				s.options.Lost(file, err)
			}
			delete(s.pictures, file)
			continue
		}
		if err := to.Put(address, data); err != nil {
			return err
		}
	}
	return nil
}

// sizeOf is the width and height of a picture or film, or nothing where nobody knows.
func (s *Site) sizeOf(file string) [2]int {
	if known, ok := s.sizes.Load(file); ok {
		return known.([2]int)
	}
	var size [2]int
	if data, err := fs.ReadFile(s.options.Files, file); err == nil {
		if width, height, ok := picture.Size(file, data); ok {
			size = [2]int{width, height}
		}
	}
	s.sizes.Store(file, size)
	return size
}

// picture draws a picture or film of the project, or says what it shows.
func (w *proseWriter) picture(p *page.Inline) {
	address, ok := w.v.pictures[p.Short]
	if !ok {
		w.escaped(p.Text)
		return
	}
	size := ""
	if known := w.v.sizeOf(p.Short); known[0] > 0 {
		size = fmt.Sprintf(` width="%d" height="%d"`, known[0], known[1])
	}
	href := escape(w.v.to(escapedPath(address)))
	if p.Kind == page.Film {
		fmt.Fprintf(&w.b, `<video controls preload="metadata" src="%s"%s`, href, size)
		if p.Text != "" {
			fmt.Fprintf(&w.b, ` aria-label="%s"`, escape(p.Text))
		}
		fmt.Fprintf(&w.b, `><a href="%s">%s</a></video>`, href, escape(p.Text))
		return
	}
	fmt.Fprintf(&w.b, `<img src="%s" alt="%s"%s>`, href, escape(p.Text), size)
}
