// Package cli owns the command line: commands, flags, terminal text, progress
// and exit codes. It is the only place that prints.
//
// The whole of it is one function of arguments and streams to an exit code, so
// that tests drive it like a user does.
package cli

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"os"
	"os/signal"
	"strings"
	"syscall"

	"github.com/spf13/cobra"

	"codrel/internal/build"
	"codrel/internal/settings"
	"codrel/internal/workspace"
)

// Version is the version of this program. A release sets it at link time.
var Version = "0.1.0"

// Exit codes.
const (
	exitClean    = 0
	exitFindings = 1   // findings at or above fail-on
	exitUsage    = 2   // wrong use or settings
	exitIO       = 3   // could not read or write
	exitStopped  = 130 // stopped by Ctrl-C, as shells count it
)

// exit carries an exit code up to Main. Its error, where it has one, is printed.
type exit struct {
	code int
	err  error
}

// Error is the text of the error inside.
func (e *exit) Error() string {
	if e.err == nil {
		return ""
	}
	return e.err.Error()
}

// Unwrap is the error inside.
func (e *exit) Unwrap() error { return e.err }

func usage(format string, args ...any) error {
	return &exit{code: exitUsage, err: fmt.Errorf(format, args...)}
}

// Main runs the program and returns its exit code. Ctrl-C stops it in an
// orderly way; a second one at once.
func Main(args []string, stdin io.Reader, stdout, stderr io.Writer) int {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	context.AfterFunc(ctx, stop)
	return Run(ctx, args, stdin, stdout, stderr)
}

// Run is the command line as a function.
func Run(ctx context.Context, args []string, stdin io.Reader, stdout, stderr io.Writer) int {
	limitMemory()
	a := &app{stdout: stdout, stderr: stderr, paint: paints(stdout)}
	root := a.root()
	root.SetArgs(args)
	root.SetIn(stdin)
	root.SetOut(stdout)
	root.SetErr(stderr)
	err := root.ExecuteContext(ctx)
	return a.finish(ctx, err)
}

// finish prints an error and finds its exit code. What is no error of ours comes
// from the flag parser: wrong use.
func (a *app) finish(ctx context.Context, err error) int {
	if err == nil {
		return exitClean
	}
	if ctx.Err() != nil && errors.Is(err, ctx.Err()) {
		fmt.Fprintln(a.stderr, "codrel: stopped; nothing was changed")
		return exitStopped
	}
	code := exitUsage
	var e *exit
	var p *build.PathError
	var w *workspace.Error
	switch {
	case errors.As(err, &e):
		code = e.code
	case errors.As(err, &p), errors.As(err, &w) && !w.WrongUse:
		code = exitIO
	}
	if text := err.Error(); text != "" {
		for line := range strings.SplitSeq(text, "\n") {
			if isSettingsLine(err) {
				fmt.Fprintln(a.stderr, line)
				continue
			}
			fmt.Fprintln(a.stderr, "codrel: "+line)
		}
	}
	return code
}

// isSettingsLine reports whether the text begins with a place in a file, which
// editors and CI read best when it stands first.
func isSettingsLine(err error) bool {
	var p settings.Problem
	var path *build.PathError
	return errors.As(err, &p) && p.Line > 0 || errors.As(err, &path) && path.Place.Line > 0
}

// app is one run of the program.
type app struct {
	stdout, stderr io.Writer
	paint          painter

	settingsFile string
	jobs         int
	quiet        bool
	verbose      bool
	format       string // of findings
}

func (a *app) root() *cobra.Command {
	root := &cobra.Command{
		Use:   "codrel",
		Short: "Reference pages from source code, linked and checked",
		Long: `Codrel reads declarations, signatures and doc comments from source code, links
every name, checks that the text still agrees with the code, and writes a static
site. It runs none of your code and uses no network.`,
		Example: `  codrel init              propose settings for the current folder
  codrel build             read the current folder and write codrel-site/
  codrel serve             show the pages while you work on them
  codrel check engine      report what is undocumented or broken below engine/
  codrel demo              try it on a sample project`,
		SilenceUsage: true, SilenceErrors: true,
		Args: func(_ *cobra.Command, args []string) error {
			if len(args) > 0 {
				return fmt.Errorf("there is no command %q; \"codrel --help\" lists them", args[0])
			}
			return nil
		},
		RunE: func(c *cobra.Command, _ []string) error { return c.Help() },
	}
	root.Version = Version
	root.SetVersionTemplate("codrel {{.Version}}\n")
	flags := root.PersistentFlags()
	flags.StringVar(&a.settingsFile, "settings", "", "read the settings from `FILE` instead of codrel.yaml")
	root.Flags().Bool("version", false, "print the version")
	flags.IntVar(&a.jobs, "jobs", 0, "use `N` workers (default: one per processor)")
	flags.BoolVarP(&a.quiet, "quiet", "q", false, "print findings and errors only")
	flags.BoolVarP(&a.verbose, "verbose", "v", false, "print what each stage does and how long it takes")
	root.PersistentPreRunE = func(*cobra.Command, []string) error {
		if a.jobs < 0 {
			return usage("--jobs must be 1 or more, or 0 for one worker per processor, not %d", a.jobs)
		}
		if a.quiet && a.verbose {
			return usage("--quiet and --verbose cannot be used together")
		}
		return nil
	}
	root.AddCommand(a.buildCommand(), a.checkCommand(), a.refreshCommand(), a.serveCommand(), a.extractCommand(), a.explainCommand(), a.findCommand(), a.showCommand(), a.graphCommand(),
		a.demoCommand(), a.initCommand(), a.schemaCommand(), a.versionCommand())
	root.SetFlagErrorFunc(func(c *cobra.Command, err error) error {
		text, kind, wrong := strings.Cut(err.Error(), ": strconv.")
		switch {
		case wrong && strings.HasPrefix(kind, "ParseBool"):
			text += ": expected true, false or no value"
		case wrong:
			text += ": expected a whole number"
		}
		return usage("%s; \"%s --help\" lists the flags", text, c.CommandPath())
	})
	return root
}

func (a *app) logger() *slog.Logger {
	if !a.verbose {
		return slog.New(slog.DiscardHandler)
	}
	return slog.New(slog.NewTextHandler(a.stderr, &slog.HandlerOptions{Level: slog.LevelDebug, ReplaceAttr: func(_ []string, at slog.Attr) slog.Attr {
		if at.Key == slog.TimeKey || at.Key == slog.LevelKey {
			return slog.Attr{}
		}
		return at
	}}))
}

func (a *app) versionCommand() *cobra.Command {
	return &cobra.Command{
		Use: "version", Short: "Print the version", Args: upTo(0, ""),
		Example: "  codrel version",
		RunE: func(*cobra.Command, []string) error {
			_, err := fmt.Fprintln(a.stdout, "codrel", Version)
			return err
		},
	}
}
