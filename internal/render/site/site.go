// Package site renders the plan as a static site of HTML pages. It alone
// imports templ.
//
// Pages are made from the linked snapshot one at a time and independently of
// one another; where the finished files go is the sink's matter. The package
// decides how things look and read, and nothing about what is true.
package site

import (
	"bytes"
	"context"
	"embed"
	"io/fs"
	"path"
	"sync"
	"sync/atomic"

	"github.com/tdewolff/minify/v2"
	"github.com/tdewolff/minify/v2/css"
	"github.com/tdewolff/minify/v2/js"
	"golang.org/x/sync/errgroup"

	"codrel/internal/lang"
	"codrel/internal/look"
	"codrel/internal/model"
	"codrel/internal/parallel"
	"codrel/internal/prose"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
)

//go:embed assets
var assets embed.FS

// Options is what the site is told.
type Options struct {
	FrontEnds map[string]lang.FrontEnd // by language
	Look      *look.Look               // nil for the plain one
	Hidden    []string                 // names of sections of comments that are not shown
	Report    *Report                  // for the pages that show it; nil where there are none
	Source    string                   // address of a source line, with {path} and {line}; "" for none
	Base      string                   // address that the site is served from, with "/" at the end; "" where nobody knows
	Files     fs.FS                    // of the project, for local images of the guides
	Workers   int
	Progress  func(done, total int) // may be nil; called from several goroutines
	// Lost is told of a picture that pages show and that cannot be read when it is copied;
	// may be nil.
	Lost func(file string, err error)
}

// Site is a site that can be rendered, page by page.
type Site struct {
	plan    *plan.Plan
	maker   *page.Maker
	options Options
	pieces  sync.Map          // of files that are being shown on several pages: *sharedPieces
	images  map[string]string // local images of the guides: path in the project to address
}

func hidden(names []string) map[string]bool {
	set := map[string]bool{}
	for _, name := range names {
		set[name] = true
	}
	return set
}

// New prepares the rendering of a plan.
func New(p *plan.Plan, options Options) *Site {
	if options.Look == nil {
		options.Look = look.Plain()
	}
	s := &Site{plan: p, maker: &page.Maker{Links: p.Links, FrontEnds: options.FrontEnds, Texts: options.Look.Texts, Hidden: hidden(options.Hidden)}, options: options, images: map[string]string{}}
	s.readImages()
	return s
}

// readImages notes the local images of all guides.
func (s *Site) readImages() {
	for _, g := range s.plan.Links.Guides() {
		prose.Walk(g.Body, func(n *prose.Node) bool {
			if n.Kind == prose.Image {
				s.localImage(g.Page, n.Target)
			}
			return true
		})
	}
}

// largestImage is the size above which a local image is not copied into the site.
const largestImage = 8 << 20

// localImage notes an image of the project that the site gets a copy of.
func (s *Site) localImage(of *model.Page, target string) {
	file, ok := page.LocalPath(path.Dir(of.Path), target)
	if !ok || s.options.Files == nil || !imageFile(file) {
		return
	}
	info, err := fs.Stat(s.options.Files, file)
	if err != nil || !info.Mode().IsRegular() || info.Size() > largestImage {
		return
	}
	s.images[file] = "files/" + file
}

// Write renders all pages into the sink. The error is the first of the sink or
// of the context; pages after it are not rendered.
func (s *Site) Write(ctx context.Context, to sink.Sink) error {
	if err := s.copyFiles(to); err != nil {
		return err
	}
	if err := s.writeSitemap(to); err != nil {
		return err
	}
	if err := s.writeSymbols(to); err != nil {
		return err
	}
	pages := s.plan.Pages()
	var done atomic.Int64
	all, ctx := errgroup.WithContext(ctx)
	all.Go(func() error { return s.writeSearch(to) })
	all.Go(func() error {
		return parallel.Try(ctx, max(1, s.options.Workers), len(pages), func(i int) error {
			err := s.put(ctx, pages[i], to)
			if s.options.Progress != nil {
				s.options.Progress(int(done.Add(1)), len(pages))
			}
			return err
		})
	})
	return all.Wait()
}

// buffers holds room for pages that was used before.
var buffers = sync.Pool{New: func() any { return new(bytes.Buffer) }}

func (s *Site) put(ctx context.Context, page *plan.Page, to sink.Sink) error {
	buffer := buffers.Get().(*bytes.Buffer)
	defer buffers.Put(buffer)
	buffer.Reset()
	if err := s.Page(page).Render(ctx, buffer); err != nil {
		return err
	}
	return to.Put(page.Address, buffer.Bytes())
}

// minified are the kinds of files that are written without what only their authors need.
var minified = func() *minify.M {
	m := minify.New()
	m.AddFunc(".js", js.Minify)
	m.AddFunc(".css", css.Minify)
	return m
}()

func (s *Site) copyFiles(to sink.Sink) error {
	err := fs.WalkDir(assets, "assets", func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		data, err := assets.ReadFile(p)
		if err != nil {
			return err
		}
		if kind := path.Ext(p); kind == ".js" || kind == ".css" {
			if data, err = minified.Bytes(kind, data); err != nil {
				return err
			}
		}
		return to.Put(p, data)
	})
	if err != nil {
		return err
	}
	if err := s.writeLook(to); err != nil {
		return err
	}
	for file, address := range s.images {
		data, err := fs.ReadFile(s.options.Files, file)
		if err != nil {
			if s.options.Lost != nil {
				s.options.Lost(file, err)
			}
			continue
		}
		if err := to.Put(address, data); err != nil {
			return err
		}
	}
	return nil
}
