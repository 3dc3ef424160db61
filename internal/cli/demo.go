package cli

import (
	"context"
	"fmt"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"codrel/demo"
	"codrel/internal/finding"
	"codrel/internal/workspace"
)

func (a *app) demoCommand() *cobra.Command {
	var serve bool
	c := &cobra.Command{
		Use:   "demo [DIR]",
		Short: "Unpack the sample project Tidebook and build it",
		Long: `Unpacks Tidebook, a sample project with planted flaws, into DIR (default: tidebook),
builds it, and prints the findings and where the pages are. Then it does the same
with Lockwatch, a small project in a subfolder whose pages link to Tidebook's. Files
that you changed are kept. The planted flaws are expected: the exit code is 0.

With --serve it builds nothing, and opens the browser on a preview of Tidebook: change one
of its files, and the page changes.`,
		Example: `  codrel demo
  codrel demo --serve
  codrel demo /tmp/tidebook`,
		Args: upTo(1, "folder"),
		RunE: func(c *cobra.Command, args []string) error {
			dir := "tidebook"
			if len(args) > 0 {
				dir = args[0]
			}
			if serve {
				if err := a.unpack("Tidebook", dir, demo.Files()); err != nil {
					return err
				}
				return (&serving{app: a, open: true}).run(c.Context(), []string{dir})
			}
			if err := a.show(c.Context(), "Tidebook", dir, demo.Files()); err != nil {
				return err
			}
			if !a.quiet {
				fmt.Fprintln(a.stdout)
			}
			return a.show(c.Context(), "Lockwatch, which uses Tidebook,", filepath.Join(dir, demo.NeighbourFolder), demo.Neighbour())
		},
	}
	c.Flags().BoolVar(&serve, "serve", false, "open a preview of Tidebook in the browser")
	return c
}

// show unpacks one project of the demo and builds it.
func (a *app) show(ctx context.Context, name, dir string, files []demo.File) error {
	if err := a.unpack(name, dir, files); err != nil {
		return err
	}
	p, err := a.open(dir)
	if err != nil {
		return err
	}
	defer p.Close()
	p.Settings.Checks.FailOn = finding.Off
	return a.build(ctx, p, workspace.Request{Anew: true})
}

// unpack writes the files of a demo. A folder with other files in it is left alone.
func (a *app) unpack(name, dir string, files []demo.File) error {
	if entries, err := os.ReadDir(dir); err == nil && len(entries) > 0 {
		if _, err := os.Stat(filepath.Join(dir, "codrel.yaml")); err != nil {
			return usage("%s is not empty and not a copy of the demo; name another folder", dir)
		}
	}
	kept := 0
	for _, file := range files {
		to := filepath.Join(dir, filepath.FromSlash(file.Path))
		if was, err := os.ReadFile(to); err == nil {
			if string(was) != string(file.Data) {
				kept++
			}
			continue
		}
		if err := os.MkdirAll(filepath.Dir(to), 0o755); err != nil {
			return &exit{exitIO, err}
		}
		if err := os.WriteFile(to, file.Data, 0o644); err != nil {
			return &exit{exitIO, err}
		}
	}
	if !a.quiet {
		fmt.Fprintf(a.stdout, "%s is in %s", name, dir)
		if kept > 0 {
			fmt.Fprintf(a.stdout, "; %s that you changed kept", counted(kept, "file"))
		}
		fmt.Fprint(a.stdout, ".\n\n")
	}
	return nil
}
