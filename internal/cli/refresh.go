package cli

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/pmezard/go-difflib/difflib"
	"github.com/spf13/cobra"

	"codrel/internal/workspace"
)

func (a *app) refreshCommand() *cobra.Command {
	var dry bool
	c := &cobra.Command{
		Use:   "refresh [DIR]",
		Short: "Write the excerpts in guides anew from the source",
		Long: `Reads the project in DIR (default: the current folder) and writes the copies of source in
its guides, its README and its fragments anew, where they differ from the source: the lines
of fences whose words have "excerpt=". Nothing else in these files changes. Files that are
not UTF-8, or that change meanwhile, are left as they are.

An excerpt whose source is gone stays as it is, and is an error.`,
		Example: `  codrel refresh
  codrel refresh --dry-run

  docs/guides/first-berth.md: 2 excerpts written anew
  2 of 9 excerpts were out of date`,
		Args: upTo(1, "folder"),
		RunE: func(c *cobra.Command, args []string) error {
			dir := "."
			if len(args) > 0 {
				dir = args[0]
			}
			return a.refresh(c.Context(), dir, dry)
		},
	}
	c.Flags().BoolVar(&dry, "dry-run", false, "print what would change, as a diff, and write nothing")
	return c
}

func (a *app) refresh(ctx context.Context, dir string, dry bool) error {
	p, err := a.open(dir)
	if err != nil {
		return err
	}
	defer p.Close()
	r, err := p.Refresh(ctx, dry)
	p.bar.end()
	if err != nil {
		return err
	}
	if err := a.nothingRead(p, r.Snapshot); err != nil {
		return err
	}
	stale, left := 0, false
	for _, f := range r.Files {
		stale += f.Excerpts
		shown := a.shownFile(p, f.Path)
		switch {
		case f.Left != "":
			left = true
			fmt.Fprintf(a.stderr, "codrel: %s was left as it is: %s\n", shown, f.Left)
		case dry:
			if err := a.diff(f.Was, f.Now, shown, shown); err != nil {
				return err
			}
		case !a.quiet:
			fmt.Fprintf(a.stdout, "%s: %s written anew\n", shown, counted(f.Excerpts, "excerpt"))
		}
	}
	if err := a.findings(p, r.Broken); err != nil {
		return &exit{exitIO, err}
	}
	if !a.quiet && !dry {
		fmt.Fprintln(a.stdout, refreshSummary(r, stale))
	}
	switch {
	case left:
		return &exit{code: exitIO}
	case len(r.Broken) > 0:
		return &exit{code: exitFindings}
	}
	return nil
}

func refreshSummary(r *workspace.Refreshed, stale int) string {
	broken := ""
	if n := len(r.Broken); n > 0 {
		broken = fmt.Sprintf("; %s shows nothing", counted(n, "excerpt"))
		if n > 1 {
			broken = fmt.Sprintf("; %s show nothing", counted(n, "excerpt"))
		}
	}
	switch {
	case r.Excerpts == 0:
		return `no guide has an excerpt; "codrel explain broken-excerpt" tells how one is written`
	case stale == 0:
		return "no excerpt was out of date, of " + counted(r.Excerpts, "excerpt") + broken
	case stale == 1:
		return fmt.Sprintf("1 of %s was out of date%s", counted(r.Excerpts, "excerpt"), broken)
	}
	return fmt.Sprintf("%d of %s were out of date%s", stale, counted(r.Excerpts, "excerpt"), broken)
}

// diff prints how two texts differ, in the unified format.
func (a *app) diff(was, now, from, to string) error {
	diff, err := difflib.GetUnifiedDiffString(difflib.UnifiedDiff{
		A: slices.Collect(strings.Lines(was)), B: slices.Collect(strings.Lines(now)), FromFile: from, ToFile: to, Context: 2,
	})
	if err != nil {
		return &exit{exitIO, err}
	}
	for line := range strings.Lines(diff) {
		switch {
		case strings.HasPrefix(line, "+"):
			line = a.paint.code("32", strings.TrimSuffix(line, "\n")) + "\n"
		case strings.HasPrefix(line, "-"):
			line = a.paint.code("31", strings.TrimSuffix(line, "\n")) + "\n"
		}
		fmt.Fprint(a.stdout, line)
	}
	return nil
}
