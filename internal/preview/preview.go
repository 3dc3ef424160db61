// Package preview owns the HTTP server that shows projects while people work on them: pages
// that are made when they are asked for, anew after every save, with what the rules find on
// them.
//
// It writes nothing on disk and asks nothing of the network. Of the pages themselves it knows
// nothing: a live workspace makes them.
package preview

import (
	"context"
	"errors"
	"net"
	"net/http"
	"sync"
	"time"

	"codrel/internal/workspace"
)

// Options is what a preview is told.
type Options struct {
	Projects  []Folder
	Workspace workspace.Options
	// Said is told of what happens, a line each; it is called from several goroutines.
	Said func(Event)
	// Poll is how often folders are looked through where the system cannot watch them; 0 for
	// once a second.
	Poll time.Duration
	// NoWatch looks through folders from the beginning, as where the system cannot watch them.
	NoWatch bool
}

// Folder is a project to show.
type Folder struct {
	Dir  string
	Name string // in addresses; "" where there is one project alone
}

// Event is something that happened: a project was read, files changed, or something is wrong.
type Event struct {
	Project string        // its folder's name in addresses
	Files   []string      // that changed, from the project's root
	Took    time.Duration // until the project was read again
	Trouble error         // the settings cannot be read, or a folder not be watched
	Ready   bool          // it was read for the first time
}

// Server serves projects.
type Server struct {
	options  Options
	projects []*project
	hosts    hosts
	started  sync.WaitGroup
	ctx      context.Context
}

// New makes a server of projects; an address is what it will listen on.
func New(options Options, address net.Addr) *Server {
	if options.Said == nil {
		options.Said = func(Event) {}
	}
	if options.Poll == 0 {
		options.Poll = time.Second
	}
	s := &Server{options: options, hosts: hostsOf(address)}
	for _, f := range options.Projects {
		s.projects = append(s.projects, newProject(f, &s.options))
	}
	return s
}

// Serve answers requests until the context ends.
func (s *Server) Serve(ctx context.Context, on net.Listener) error {
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	s.ctx = ctx
	server := &http.Server{
		Handler: s.Handler(), ReadHeaderTimeout: 10 * time.Second,
		BaseContext: func(net.Listener) context.Context { return ctx },
	}
	if len(s.projects) == 1 {
		s.start(s.projects[0])
	} else {
		s.started.Go(s.readAll)
	}
	ended := make(chan error, 1)
	go func() { ended <- server.Serve(on) }()
	var err error
	select {
	case err = <-ended:
	case <-ctx.Done():
		err = server.Close() // what is open is a stream of events, which has no end of its own
		<-ended
	}
	cancel()
	s.started.Wait()
	if errors.Is(err, http.ErrServerClosed) {
		err = nil
	}
	return err
}

// start begins to read a project and to watch it; a second call does nothing.
func (s *Server) start(p *project) {
	p.once.Do(func() {
		s.started.Go(func() { p.run(s.ctx) })
	})
}

// readAll reads the projects one after the other, so that they can be searched. Of those that
// nobody has opened no more is kept than that takes: there may be hundreds.
func (s *Server) readAll() {
	for _, p := range s.projects {
		if s.ctx.Err() != nil {
			return
		}
		p.skim(s.ctx)
	}
}

// Handler answers requests for all projects.
func (s *Server) Handler() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /_codrel/{file}", s.ownFile)
	if len(s.projects) == 1 && s.projects[0].name == "" {
		s.handle(mux, s.projects[0])
	} else {
		mux.HandleFunc("GET /{$}", s.front)
		for _, p := range s.projects {
			s.handle(mux, p)
		}
	}
	return s.guarded(mux)
}

func (s *Server) handle(mux *http.ServeMux, p *project) {
	mux.HandleFunc("GET "+p.prefix()+"_codrel/events", func(w http.ResponseWriter, r *http.Request) { p.events(w, r) })
	mux.HandleFunc("GET "+p.prefix(), func(w http.ResponseWriter, r *http.Request) {
		s.start(p)
		p.serve(w, r)
	})
}
