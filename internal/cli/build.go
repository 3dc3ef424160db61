package cli

import (
	"context"
	"errors"
	"fmt"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/bmatcuk/doublestar/v4"
	"github.com/spf13/cobra"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
	"codrel/internal/vcs"
)

func (a *app) buildCommand() *cobra.Command {
	var out, failOn, format string
	var anew bool
	c := &cobra.Command{
		Use:   "build [DIR]",
		Short: "Read a project and write its site",
		Long: `Reads the project in DIR (default: the current folder), links and checks it, and
writes the site. Findings are printed and do not stop the site from being written.
Exit code: 0 clean, 1 findings at or above --fail-on, 2 wrong use or settings, 3
something could not be read or written.`,
		Example: `  codrel build
  codrel build ../tidebook --out /srv/www/tidebook

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
			defer p.root.Close()
			if err := overrideFailOn(p, failOn); err != nil {
				return err
			}
			return a.build(c.Context(), p, out, anew)
		},
	}
	c.Flags().StringVarP(&out, "out", "o", "", "write the site to `DIR` instead of codrel-site")
	c.Flags().BoolVar(&anew, "anew", false, "rebuild everything, even if nothing has changed since the last build")
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
	p.settings.Checks.FailOn = s
	return nil
}

func (a *app) build(ctx context.Context, p *project, out string, anew bool) error {
	begun := time.Now()
	target := out
	if target == "" {
		target = filepath.Join(p.dir, filepath.FromSlash(p.settings.Write.Site))
	}
	if abs, err := filepath.Abs(target); err == nil {
		target = abs
	}
	if rel, err := filepath.Rel(target, p.dir); err == nil && filepath.IsLocal(rel) {
		return usage("the site would replace the project itself; name another folder with --out")
	}
	// A site below the project is not read as part of it.
	if rel, err := filepath.Rel(p.dir, target); err == nil && filepath.IsLocal(rel) && rel != "." {
		p.settings.Write.Site = filepath.ToSlash(rel)
	}
	p.outside.target = target
	pattern, noForge := forge(ctx, p)
	last := a.remember(p, target, pattern)
	if !anew {
		if m, ok := last.unchanged(ctx, p, target, a.workers()); ok {
			s := &build.Snapshot{Findings: m.Findings, Coverage: m.Coverage, Stats: m.Stats}
			s.Stats.Stages = []build.StageTime{{Name: "recalling", Took: time.Since(begun)}}
			return a.built(p, s, written{pages: m.Pages, files: m.Files, same: m.Files, noForge: m.NoForge}, target, begun)
		}
	}
	s, err := a.run(ctx, p, func(o *build.Options) { o.Inside, o.TestNames = sourceShown(p) != plan.NoSource, true })
	if err != nil {
		return err
	}
	if err := a.nothingRead(p, s); err != nil {
		return err
	}
	if err := wholeMatches(p, s); err != nil {
		return err
	}
	w, err := a.write(ctx, p, s, target, pattern)
	if err != nil {
		return err
	}
	w.noForge = noForge
	var kept sync.WaitGroup
	kept.Go(func() { last.keep(s, w, target, p.outside.sums) })
	defer kept.Wait()
	return a.built(p, s, w, target, begun)
}

// built says what came of a build.
func (a *app) built(p *project, s *build.Snapshot, w written, target string, begun time.Time) error {
	if err := a.findings(p, s.Findings); err != nil {
		return &exit{exitIO, err}
	}
	a.closing(p, s, s.Findings)
	if !a.quiet {
		fmt.Fprintf(a.stdout, "Read %s (%s), wrote %s (%s) in %s%s.\n", counted(s.Stats.Files, "file"), size(s.Stats.Bytes),
			counted(w.pages, "page"), sourceWords[p.settings.Write.Source], seconds(time.Since(begun)), unchanged(w))
		if w.noForge != "" {
			fmt.Fprintf(a.stdout, "No links to the source repository: %s.\n", w.noForge)
		}
		fmt.Fprintf(a.stdout, "Open %s\n", a.shownPath(filepath.Join(target, plan.HomeAddress)))
	}
	a.stages(append(s.Stats.Stages, w.stages...))
	return failed(s.Findings, p.settings.Checks.FailOn)
}

// sourceWords say what of the source a site shows.
var sourceWords = map[string]string{"full": "source in full", "signatures": "source without bodies", "none": "no source"}

// forge is the pattern of links to the project's forge with the revision filled
// in. Where nobody can tell the revision, or the files are not those of it, there
// are no such links, and why says so: a link to other lines would be wrong.
func forge(ctx context.Context, p *project) (pattern, why string) {
	pattern = p.settings.Source
	if !strings.Contains(pattern, "{revision}") {
		return pattern, ""
	}
	r, err := vcs.Read(ctx, p.dir)
	switch {
	case err != nil:
		return "", err.Error()
	case r.Dirty:
		return "", "the working tree differs from its commit"
	}
	return strings.ReplaceAll(pattern, "{revision}", r.Hash), ""
}

// written says what became of a site: its pages, and how many of all its files
// were the same before.
type written struct {
	pages, files, same int
	stages             []build.StageTime
	noForge            string // why there are no links to the forge, where some were asked for
}

func unchanged(w written) string {
	switch w.same {
	case 0:
		return ""
	case w.files:
		return ", nothing changed"
	}
	return fmt.Sprintf(", %s changed", counted(w.files-w.same, "file"))
}

// write renders the site into the target folder.
func (a *app) write(ctx context.Context, p *project, s *build.Snapshot, target, forge string) (written, error) {
	folder, err := sink.Open(target, p.settings.Write.Keep)
	if err != nil {
		return written{}, &exit{exitIO, err}
	}
	bar := a.progress()
	defer bar.end()
	times := stopwatch{last: time.Now()}
	bar.stage("planning", 0, 0)
	pages := plan.New(s.Links, planned(p, s))
	times.stage("planning")
	err = site.New(pages, site.Options{
		FrontEnds: s.FrontEnds, Look: s.Look, Report: stateOf(p, s), Source: forge, Base: p.settings.Site, Files: p.files, Workers: a.workers(),
		Progress: func(done, total int) { bar.stage("writing pages", done, total) },
	}).Write(ctx, folder)
	times.stage("writing")
	if err == nil {
		err = folder.Commit()
	}
	times.stage("exchanging")
	if err != nil {
		err = errors.Join(err, folder.Discard())
		if ctx.Err() != nil {
			return written{}, ctx.Err()
		}
		return written{}, &exit{exitIO, fmt.Errorf("the site was not written; the previous one is unchanged: %w", err)}
	}
	return written{len(pages.Pages), folder.Files(), folder.Unchanged(), times.done, ""}, nil
}

// stopwatch notes how long each stage took.
type stopwatch struct {
	last time.Time
	done []build.StageTime
}

// stage ends the stage with this name.
func (w *stopwatch) stage(name string) {
	now := time.Now()
	w.done = append(w.done, build.StageTime{Name: name, Took: now.Sub(w.last)})
	w.last = now
}

// planned is what the settings ask of the plan.
func planned(p *project, s *build.Snapshot) plan.Options {
	w := p.settings.Write
	options := plan.Options{Source: sourceShown(p), Findings: -1, Coverage: slices.Contains(w.Pages, "coverage")}
	if slices.Contains(w.Pages, "findings") {
		options.Findings = len(s.Findings)
	}
	options.Whole = func(module string) bool {
		return slices.ContainsFunc(w.Whole, func(pattern string) bool {
			ok, _ := doublestar.Match(pattern, module)
			return ok
		})
	}
	return options
}

// wholeMatches is the error of patterns of modules that match none.
func wholeMatches(p *project, s *build.Snapshot) error {
	var problems []error
	for _, pattern := range p.settings.Write.Whole {
		if !matchesModule(pattern, s) {
			problems = append(problems, p.settings.At("whole", pattern,
				fmt.Sprintf("%q matches no module; patterns are compared with module paths such as %s, and %q matches all", pattern, someModule(s), "**")))
		}
	}
	if len(problems) > 0 {
		return &exit{exitUsage, errors.Join(problems...)}
	}
	return nil
}

func matchesModule(pattern string, s *build.Snapshot) bool {
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if ok, _ := doublestar.Match(pattern, m.Path); ok {
				return true
			}
		}
	}
	return false
}

// someModule is the path of a module, for examples.
func someModule(s *build.Snapshot) string {
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if m.Path != "" {
				return m.Path
			}
		}
	}
	return "engine/berth"
}

// stateOf puts findings and coverage into words for their pages, where those are asked for.
func stateOf(p *project, s *build.Snapshot) *site.Report {
	if len(p.settings.Write.Pages) == 0 {
		return nil
	}
	r := &site.Report{Documented: s.Coverage.Documented, Total: s.Coverage.Total, Taken: s.Coverage.Taken + s.Coverage.More}
	for i := range s.Findings {
		f := &s.Findings[i]
		r.Findings = append(r.Findings, site.Finding{
			Severity: f.Severity.String(), Rule: f.Rule, Text: oneLine(check.Text(f)) + check.AlsoAt(f, mostPlaces, func(file string) string { return file }),
			File: f.Place.File, Line: f.Place.At.Line, Column: f.Place.At.Column,
		})
	}
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			c := s.Modules[m]
			r.Modules = append(r.Modules, site.Share{Module: m, Documented: c.Documented, Total: c.Total})
		}
	}
	return r
}

func sourceShown(p *project) plan.Source {
	how, _ := plan.ParseSource(p.settings.Write.Source)
	return how
}

func (a *app) workers() int {
	if a.jobs > 0 {
		return a.jobs
	}
	return runtime.GOMAXPROCS(0)
}

// list writes words as "a, b and c".
func list(words []string) string {
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " and " + words[len(words)-1]
}
