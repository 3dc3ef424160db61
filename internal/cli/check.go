package cli

import (
	"context"
	"path/filepath"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/workspace"
)

func (a *app) checkCommand() *cobra.Command {
	var only []string
	var failOn, format string
	c := &cobra.Command{
		Use:   "check [PATH...]",
		Short: "Report what is undocumented or broken; write nothing",
		Long: `Reads the project that the paths belong to and prints the findings in those paths.
The project is the nearest folder above with a codrel.yaml, else the repository. All
of it is read, so that references between its parts resolve.`,
		Example: `  codrel check
  codrel check engine/berth --only undocumented --only broken-reference

  engine/berth/berth.go:41:6: warning: method Berth.Assign has no doc comment [undocumented]
  1 warning · 212 of 231 public declarations documented (91.8 %)`,
		RunE: func(c *cobra.Command, args []string) error {
			for _, rule := range only {
				if check.ByName(rule) == nil {
					return unknownRule(rule)
				}
			}
			if err := a.setFormat(format); err != nil {
				return err
			}
			return a.check(c.Context(), args, only, failOn)
		},
	}
	c.Flags().StringArrayVar(&only, "only", nil, "apply only this `RULE`; may be repeated")
	_ = c.RegisterFlagCompletionFunc("only", cobra.FixedCompletions(check.Names(), cobra.ShellCompDirectiveNoFileComp))
	addFailOn(c, &failOn)
	addFormat(c, &format)
	return c
}

func unknownRule(rule string) error {
	if near := check.Nearest(rule); near != "" {
		return usage("there is no rule %q; did you mean %q?", rule, near)
	}
	return usage("there is no rule %q; \"codrel explain\" lists them", rule)
}

func (a *app) check(ctx context.Context, paths, only []string, failOn string) error {
	if len(paths) == 0 {
		paths = []string{"."}
	}
	dir, err := workspace.FindRoot(paths[0])
	if err != nil {
		return err
	}
	p, err := a.open(dir)
	if err != nil {
		return err
	}
	defer p.Close()
	if err := overrideFailOn(p, failOn); err != nil {
		return err
	}
	within, err := inProject(p, paths)
	if err != nil {
		return err
	}
	s, err := p.Run(ctx, func(o *build.Options) { o.Only = only })
	p.bar.end()
	if err != nil {
		return err
	}
	if err := a.nothingRead(p, s); err != nil {
		return err
	}
	shown := narrowed(s.Findings, within)
	if err := a.findings(p, shown); err != nil {
		return &exit{exitIO, err}
	}
	a.closing(p, s, shown)
	a.stages(s.Stats.Stages)
	return failed(shown, p.Settings.Checks.FailOn)
}

// narrowed are the findings that have a place in some paths, with these places alone.
func narrowed(list []finding.Finding, within []string) []finding.Finding {
	var out []finding.Finding
	for _, f := range list {
		places := slices.DeleteFunc(append([]finding.Place{f.Place}, f.Others...), func(at finding.Place) bool { return !contains(within, at.File) })
		if len(places) > 0 {
			f.Place, f.Others = places[0], places[1:]
			out = append(out, f)
		}
	}
	finding.Sort(out)
	return out
}

// inProject turns the paths of the command line into paths of the project.
func inProject(p *project, paths []string) ([]string, error) {
	var out []string
	for _, path := range paths {
		if _, err := workspace.FindRoot(path); err != nil {
			return nil, err
		}
		abs, err := filepath.Abs(path)
		if err != nil {
			return nil, &exit{exitIO, err}
		}
		rel, err := filepath.Rel(p.Dir, abs)
		if err != nil || !filepath.IsLocal(rel) {
			return nil, usage("%s is not in the project %s; check one project at a time", path, p.Dir)
		}
		out = append(out, filepath.ToSlash(rel))
	}
	return out, nil
}

func contains(within []string, file string) bool {
	for _, w := range within {
		if w == "." || w == file || strings.HasPrefix(file, w+"/") {
			return true
		}
	}
	return false
}
