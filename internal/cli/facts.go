package cli

import (
	"context"
	"path/filepath"

	"github.com/spf13/cobra"

	"codrel/internal/build"
	"codrel/internal/workspace"
)

// facts is what "extract" is told of streams of facts.
type facts struct {
	written bool
	below   []string
	from    []string
}

func (f *facts) flags(c *cobra.Command) {
	c.Flags().BoolVar(&f.written, "whole", false, "print all that Codrel knows of each file, for \"codrel build --from\"")
	c.Flags().StringArrayVar(&f.below, "below", nil, "with --whole, only the files in `PATH`; may be repeated")
	c.Flags().StringArrayVar(&f.from, "from", nil, "print the symbol stream of the parts that match `PATTERN`; may be repeated")
}

// check is the error of flags that do not go together.
func (f *facts) check(c *cobra.Command) error {
	if len(f.below) > 0 && !f.written {
		return usage("--below goes with --whole")
	}
	if !f.written {
		return nil
	}
	for _, other := range []string{"language", "reach", "relations", "from"} {
		if c.Flags().Changed(other) {
			return usage("--whole and --%s cannot be used together: a part holds everything", other)
		}
	}
	return nil
}

// extractFacts prints a stream of facts.
func (a *app) extractFacts(ctx context.Context, dir string, below []string) error {
	p, err := a.open(dir)
	if err != nil {
		return err
	}
	defer p.Close()
	for _, path := range below {
		if filepath.IsAbs(path) || !filepath.IsLocal(path) {
			return usage("--below takes a path from the project's folder, not %q", path)
		}
		if _, err := workspace.FindRoot(p.Path(filepath.ToSlash(path))); err != nil {
			return err
		}
	}
	s, err := build.WriteParts(ctx, p.Files, p.Read(), Version, slashed(below), a.stdout)
	p.bar.end()
	if err != nil {
		return &exit{exitIO, err}
	}
	a.unreadable(p, s.Findings)
	a.stages(s.Stats.Stages)
	if len(s.Findings) > 0 {
		return &exit{code: exitFindings}
	}
	return nil
}

func slashed(paths []string) []string {
	var out []string
	for _, path := range paths {
		out = append(out, filepath.ToSlash(filepath.Clean(path)))
	}
	return out
}
