package cli

import (
	"fmt"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"codrel/demo"
	"codrel/internal/finding"
)

func (a *app) demoCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "demo [DIR]",
		Short: "Unpack the made-up project Tidebook and build it",
		Long: `Unpacks Tidebook, a made-up project with planted flaws, into DIR (the folder
tidebook by default), builds it, prints the findings and says where to look.
Files that you changed there stay as they are. The planted flaws are no failure:
the exit code is 0.`,
		Example: `  codrel demo
  codrel demo /tmp/tidebook`,
		Args: cobra.MaximumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			dir := "tidebook"
			if len(args) > 0 {
				dir = args[0]
			}
			if err := a.unpack(dir); err != nil {
				return err
			}
			p, err := a.open(dir)
			if err != nil {
				return err
			}
			defer p.root.Close()
			p.settings.Checks.FailOn = finding.Off
			return a.build(c.Context(), p, "", true)
		},
	}
}

// unpack writes the demo's files. A folder with other files in it is left alone.
func (a *app) unpack(dir string) error {
	if entries, err := os.ReadDir(dir); err == nil && len(entries) > 0 {
		if _, err := os.Stat(filepath.Join(dir, "codrel.yaml")); err != nil {
			return usage("%s is not empty and holds no demo; name another folder", dir)
		}
	}
	kept := 0
	for _, file := range demo.Files() {
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
		fmt.Fprintf(a.stdout, "Tidebook is in %s", dir)
		if kept > 0 {
			fmt.Fprintf(a.stdout, "; %s that you changed stayed as they are", counted(kept, "file"))
		}
		fmt.Fprint(a.stdout, ".\n\n")
	}
	return nil
}
