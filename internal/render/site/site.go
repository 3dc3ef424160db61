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
	"io/fs"
	"sync"
	"sync/atomic"

	"golang.org/x/sync/errgroup"

	"codrel/internal/lang"
	"codrel/internal/look"
	"codrel/internal/parallel"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
)

// Options is what the site is told.
type Options struct {
	FrontEnds map[string]lang.FrontEnd // by language
	Look      *look.Look               // nil for the plain one
	Hidden    []string                 // names of sections of comments that are not shown
	Report    *Report                  // for the pages that show it; nil where there are none
	Edit      string                   // address at which a file can be changed, with {path}; "" for none
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
	pieces  sync.Map // of files that are being shown on several pages: *sharedPieces
	// pictures are those, and films, that guides and fragments show and that lie in the
	// project: by their paths, where each is on the site.
	pictures map[string]string
	sizes    sync.Map // of these: [2]int, as they are asked for
	searched func() (*sink.Memory, error)
	others   func() (*sink.Memory, error) // what else there is besides pages, pictures and the program's own files
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
	s := &Site{plan: p, maker: &page.Maker{Links: p.Links, FrontEnds: options.FrontEnds, Texts: options.Look.Texts, Hidden: hidden(options.Hidden)}, options: options, pictures: map[string]string{}}
	s.findPictures()
	s.searched = sync.OnceValues(func() (*sink.Memory, error) { var m sink.Memory; return &m, s.writeSearch(&m) })
	s.others = sync.OnceValues(func() (*sink.Memory, error) { var m sink.Memory; return &m, s.writeOthers(&m) })
	return s
}

// Write renders all pages into the sink. The error is the first of the sink or
// of the context; pages after it are not rendered.
func (s *Site) Write(ctx context.Context, to sink.Sink) error {
	if err := s.writeAssets(to); err != nil {
		return err
	}
	if err := s.copyPictures(to); err != nil {
		return err
	}
	if err := s.writeOthers(to); err != nil {
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
