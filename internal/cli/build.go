package cli

import (
	"context"
	"fmt"
	"path/filepath"
	"strings"
	"sync"
	"time"

	"github.com/spf13/cobra"

	"codrel/internal/build"
	"codrel/internal/finding"
	"codrel/internal/render/plan"
	"codrel/internal/workspace"
)

func (a *app) buildCommand() *cobra.Command {
	var out, failOn, format string
	var anew bool
	var from []string
	c := &cobra.Command{
		Use:   "build [DIR]",
		Short: "Read a project and write its site",
		Long: `Reads the project in DIR (default: the current folder), links and checks it, and
writes the site. Findings are printed and do not stop the site from being written.
With --from, the source is not read here: what it says comes from parts that several
machines have written. Settings, README and images are still those in DIR.
Exit code: 0 clean, 1 findings at or above --fail-on, 2 wrong use or settings, 3
something could not be read or written.`,
		Example: `  codrel build
  codrel build ../tidebook --out /srv/www/tidebook
  codrel build --from 'parts/*.jsonl'

  engine/berth/berth.go:58:14: error: "Tide.Hight" is not declared; did you mean Tide.Height? [broken-reference]
  1 error · 212 of 231 public declarations documented (91.8 %)
  Read 24 files (61 kB), wrote 61 pages (source in full) in 0.14 s.
  Open codrel-site/index.html`,
		Args: upTo(1, "folder"),
		RunE: func(c *cobra.Command, args []string) error {
			if err := a.setFormat(format); err != nil {
				return err
			}
			if c.Flags().Changed("out") && strings.TrimSpace(out) == "" {
				return usage("--out needs the name of a folder, for example: --out public")
			}
			dir := "."
			if len(args) > 0 {
				dir = args[0]
			}
			p, err := a.open(dir)
			if err != nil {
				return err
			}
			defer p.Close()
			if err := overrideFailOn(p, failOn); err != nil {
				return err
			}
			return a.build(c.Context(), p, workspace.Request{Out: out, Anew: anew, From: from})
		},
	}
	c.Flags().StringVarP(&out, "out", "o", "", "write the site to `DIR` instead of codrel-site")
	c.Flags().BoolVar(&anew, "anew", false, "rebuild everything, even if nothing has changed since the last build")
	c.Flags().StringArrayVar(&from, "from", nil, "take what the source says from the parts that match `PATTERN`, as \"codrel extract --whole\" writes them; may be repeated")
	addFailOn(c, &failOn)
	addFormat(c, &format)
	return c
}

func addFailOn(c *cobra.Command, to *string) {
	c.Flags().StringVar(to, "fail-on", "", "exit with 1 for findings of this `SEVERITY` or above: error, warning, note; off for never")
	_ = c.RegisterFlagCompletionFunc("fail-on", cobra.FixedCompletions([]string{"error", "warning", "note", "off"}, cobra.ShellCompDirectiveNoFileComp))
}

func overrideFailOn(p *project, word string) error {
	if word == "" {
		return nil
	}
	s, ok := finding.ParseSeverity(word)
	if !ok {
		return usage("--fail-on must be error, warning, note or off, not %q", word)
	}
	p.Settings.Checks.FailOn = s
	return nil
}

func (a *app) build(ctx context.Context, p *project, ask workspace.Request) error {
	begun := time.Now()
	ask.Empty = func(s *build.Snapshot) error { return a.nothingRead(p, s) }
	b, err := p.Build(ctx, ask)
	p.bar.end()
	if err != nil {
		return err
	}
	var kept sync.WaitGroup
	kept.Go(b.Keep)
	defer kept.Wait()
	return a.built(p, b, begun)
}

// built says what came of a build.
func (a *app) built(p *project, b *workspace.Built, begun time.Time) error {
	s := b.Snapshot
	if err := a.findings(p, s.Findings); err != nil {
		return &exit{exitIO, err}
	}
	a.closing(p, s, s.Findings)
	if !a.quiet {
		fmt.Fprintf(a.stdout, "Read %s (%s), wrote %s (%s) in %s%s.\n", counted(s.Stats.Files, "file"), size(s.Stats.Bytes),
			counted(b.Pages, "page"), sourceWords[p.Settings.Write.Source], seconds(time.Since(begun)), unchanged(b))
		if b.NoForge != "" {
			fmt.Fprintf(a.stdout, "No links to the source repository: %s.\n", b.NoForge)
		}
		fmt.Fprintf(a.stdout, "Open %s\n", a.shownPath(filepath.Join(b.Target, plan.HomeAddress)))
	}
	a.stages(b.Stages)
	return failed(s.Findings, p.Settings.Checks.FailOn)
}

// sourceWords say what of the source a site shows.
var sourceWords = map[string]string{"full": "source in full", "signatures": "source without bodies", "none": "no source"}

// unchanged says how much of a site is as it was.
func unchanged(b *workspace.Built) string {
	switch b.Same {
	case 0:
		return ""
	case b.Files:
		return ", nothing changed"
	}
	return fmt.Sprintf(", %s changed", counted(b.Files-b.Same, "file"))
}

// list writes words as "a, b and c".
func list(words []string) string {
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " and " + words[len(words)-1]
}
