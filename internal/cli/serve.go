package cli

import (
	"context"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"codrel/internal/preview"
	"codrel/internal/workspace"
)

// The ports that a preview takes the first free one of, where none is asked for.
const (
	firstPort = 4630
	mostPorts = 50
)

// serving is one run of serve.
type serving struct {
	*app
	address string
	open    bool
	poll    bool
	mu      sync.Mutex // of what is printed
}

func (a *app) serveCommand() *cobra.Command {
	s := &serving{app: a}
	c := &cobra.Command{
		Use:   "serve [DIR...]",
		Short: "Show the pages in a browser while you work on them",
		Long: `Shows the pages of the project in DIR (default: the current folder) at an address of this
machine. A save is on the open page at once: sources, guides, settings, fragments and look
are watched. What the rules find on a page stands in a panel on it. Nothing is written.

In a folder with several projects in it, or with several folders, all are shown, with one
page and one search for them.

Only this machine is answered. --address with another interface lets others read along.`,
		Example: `  codrel serve
  codrel serve --open
  codrel serve --address localhost:8000 engine`,
		RunE: func(c *cobra.Command, args []string) error { return s.run(c.Context(), args) },
	}
	c.Flags().StringVar(&s.address, "address", "", "listen on `HOST:PORT` (default: the first free port of this machine from "+strconv.Itoa(firstPort)+" on)")
	c.Flags().BoolVar(&s.open, "open", false, "open the browser")
	c.Flags().BoolVar(&s.poll, "poll", false, "look through the folders once a second, where the system cannot watch them, as on some network drives")
	return c
}

func (s *serving) run(ctx context.Context, dirs []string) error {
	projects, err := workspace.Projects(dirs)
	if err != nil {
		return err
	}
	if len(projects) > 1 && s.settingsFile != "" {
		return usage("--settings is for one project, and these are %d", len(projects))
	}
	on, err := s.listen()
	if err != nil {
		return err
	}
	options := preview.Options{
		Workspace: workspace.Options{Version: Version, SettingsFile: s.settingsFile, Jobs: s.jobs, Logger: s.logger(), Found: allowMemory, Shown: s.shownPath},
		Said:      func(e preview.Event) { s.said(e, len(projects) > 1) }, NoWatch: s.poll,
	}
	for _, p := range projects {
		options.Projects = append(options.Projects, preview.Folder{Dir: p.Dir, Name: p.Name})
	}
	address := "http://" + shownHost(on.Addr()) + "/"
	if len(projects) > 1 {
		s.print("Serving %d projects at %s (Ctrl-C ends it)\n", len(projects), address)
	} else {
		s.print("Serving %s at %s (Ctrl-C ends it)\n", filepath.Base(projects[0].Dir), address)
	}
	if tcp, ok := on.Addr().(*net.TCPAddr); ok && !tcp.IP.IsLoopback() {
		fmt.Fprintln(s.stderr, "codrel: warning: everybody who reaches this machine can read these pages, with the source in them")
	}
	if s.open {
		if err := openBrowser(ctx, address); err != nil {
			fmt.Fprintf(s.stderr, "codrel: no browser could be opened (%v); open %s\n", err, address)
		}
	}
	if err := preview.New(options, on.Addr()).Serve(ctx, on); err != nil {
		return &exit{exitIO, err}
	}
	return nil
}

// listen takes the address that is asked for, else the first port that is free.
func (s *serving) listen() (net.Listener, error) {
	if s.address != "" {
		host, port, err := net.SplitHostPort(s.address)
		if n, wrong := strconv.Atoi(port); err != nil || wrong != nil || n < 0 || n > 65535 {
			return nil, usage("--address must be a host and a port, such as localhost:8000, not %q", s.address)
		}
		if host == "" {
			return nil, usage("--address %s names no host; write localhost:%s for this machine alone, or 0.0.0.0:%s for all that reach it", s.address, port, port)
		}
		on, err := net.Listen("tcp", s.address)
		switch {
		case errors.Is(err, syscall.EADDRINUSE):
			return nil, &exit{exitIO, fmt.Errorf("port %s is in use; name another with --address, or leave it out for one that is free", port)}
		case err != nil:
			return nil, &exit{exitIO, fmt.Errorf("cannot listen on %s: %w", s.address, err)}
		}
		return on, nil
	}
	var last error
	for port := firstPort; port < firstPort+mostPorts; port++ {
		on, err := net.Listen("tcp", "127.0.0.1:"+strconv.Itoa(port))
		if err == nil {
			return on, nil
		}
		last = err
	}
	return nil, &exit{exitIO, fmt.Errorf("none of the ports %d to %d is free: %w", firstPort, firstPort+mostPorts-1, last)}
}

// shownHost is how people write an address of this machine.
func shownHost(address net.Addr) string {
	tcp, ok := address.(*net.TCPAddr)
	if ok && (tcp.IP.IsLoopback() || tcp.IP.IsUnspecified()) {
		return "localhost:" + strconv.Itoa(tcp.Port)
	}
	return address.String()
}

// openBrowser opens an address as the system does.
func openBrowser(ctx context.Context, address string) error {
	name, args := "xdg-open", []string{address}
	switch runtime.GOOS {
	case "darwin":
		name = "open"
	case "windows":
		name, args = "rundll32", []string{"url.dll,FileProtocolHandler", address}
	}
	if named := os.Getenv("BROWSER"); named != "" && runtime.GOOS != "windows" {
		name = named
	}
	c := exec.CommandContext(context.WithoutCancel(ctx), name, args...)
	if err := c.Start(); err != nil {
		return err
	}
	go func() { _ = c.Wait() }()
	return nil
}

func (s *serving) print(format string, args ...any) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if !s.quiet {
		fmt.Fprintf(s.stdout, format, args...)
	}
}

// mostFiles is how many changed files a line names.
const mostFiles = 3

// said prints what happened, on one line.
func (s *serving) said(e preview.Event, several bool) {
	of := ""
	if several && e.Project != "" {
		of = e.Project + ": "
	}
	switch {
	case e.Trouble != nil:
		s.mu.Lock()
		defer s.mu.Unlock()
		for line := range strings.Lines(e.Trouble.Error()) {
			fmt.Fprintf(s.stderr, "codrel: %s%s\n", of, strings.TrimSpace(line))
		}
	case e.Ready:
		s.print("%sread in %s\n", of, took(e.Took))
	case len(e.Files) > 0:
		files := e.Files
		more := ""
		if len(files) > mostFiles {
			files, more = files[:mostFiles], fmt.Sprintf(" and %d more", len(files)-mostFiles)
		}
		s.print("%s  %s%s%s  %s\n", time.Now().Format(time.TimeOnly), of, strings.Join(files, ", "), more, took(e.Took))
	}
}

func took(d time.Duration) string {
	if d < time.Second {
		return strconv.FormatInt(d.Milliseconds(), 10) + " ms"
	}
	return strconv.FormatFloat(d.Seconds(), 'f', 1, 64) + " s"
}
