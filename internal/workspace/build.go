package workspace

import (
	"context"
	"errors"
	"fmt"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"time"

	"github.com/bmatcuk/doublestar/v4"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/parts"
	"codrel/internal/render/plan"
	"codrel/internal/vcs"
)

// Built is what a build did.
type Built struct {
	Snapshot *build.Snapshot // without a project where nothing had to be done
	Target   string          // folder of the site
	Pages    int
	Files    int    // of the site
	Same     int    // those of them that were there before
	NoForge  string // why there are no links to the forge, where some were asked for
	Stages   []build.StageTime
	keep     func()
}

// Keep notes what the build read and wrote, so that the next one can be told to be the
// same. It takes a while, and nothing is printed that hangs on it.
func (b *Built) Keep() {
	if b.keep != nil {
		b.keep()
	}
}

// Request is what is asked of a build.
type Request struct {
	Out  string   // the site's folder; "" for what the settings say
	Anew bool     // do everything, even if nothing has changed
	From []string // patterns of streams of facts that have what the source says; none where it is read
	// Empty says what is wrong with a project in which there is nothing to read; may be nil.
	Empty func(*build.Snapshot) error
}

// Read is what the pipeline is told; each face changes what it has in mind of its own.
func (w *Workspace) Read() build.Options {
	return build.Options{
		Settings: w.Settings, FrontEnds: languages.All, Folder: filepath.Base(w.Dir), Jobs: w.options.Jobs,
		Logger: w.options.Logger, Progress: w.options.Progress, Found: w.options.Found, Outside: w.outside.outside(),
	}
}

// Run reads, links and checks the project. A face changes the options that it has in mind
// of its own; change may be nil.
func (w *Workspace) Run(ctx context.Context, change func(*build.Options)) (*build.Snapshot, error) {
	options := w.Read()
	if change != nil {
		change(&options)
	}
	return build.Run(ctx, w.Files, options)
}

// Link reads and links the project, and checks nothing.
func (w *Workspace) Link(ctx context.Context) (*build.Snapshot, error) {
	return build.Link(ctx, w.Files, w.Read())
}

// Build reads, links and checks the project and writes its site. Where nothing has changed
// since the last build, it gives what that one found.
func (w *Workspace) Build(ctx context.Context, ask Request) (*Built, error) {
	begun := time.Now()
	target, err := w.target(ask.Out)
	if err != nil {
		return nil, err
	}
	var set *parts.Set
	if len(ask.From) > 0 {
		if set, err = w.ReadParts(ctx, ask.From); err != nil {
			return nil, err
		}
	}
	pattern, noForge := w.forge(ctx)
	var last lastBuild
	if set == nil {
		last = w.remember(target, pattern)
	}
	if !ask.Anew {
		if r, ok := last.unchanged(ctx, w, target); ok {
			s := &build.Snapshot{Findings: r.Findings, Coverage: r.Coverage, Stats: r.Stats}
			s.Stats.Stages = nil
			return &Built{
				Snapshot: s, Target: target, Pages: r.Pages, Files: r.Files, Same: r.Files, NoForge: r.NoForge,
				Stages: []build.StageTime{{Name: "recalling", Took: time.Since(begun)}},
			}, nil
		}
	}
	s, err := w.Run(ctx, func(o *build.Options) {
		o.Inside, o.TestNames, o.Parts = w.source() != plan.NoSource, true, set
	})
	if err != nil {
		return nil, err
	}
	if ask.Empty != nil {
		if err := ask.Empty(s); err != nil {
			return nil, err
		}
	}
	if err := w.wholeMatches(s); err != nil {
		return nil, err
	}
	b, err := w.write(ctx, s, target, pattern)
	if err != nil {
		return nil, err
	}
	b.NoForge = noForge
	b.keep = func() { last.keep(b, w.outside.sums) }
	return b, nil
}

// target is the folder that the site is written to. A site below the project is not read
// as part of it.
func (w *Workspace) target(out string) (string, error) {
	target := out
	if target == "" {
		target = w.Path(w.Settings.Write.Site)
	}
	if abs, err := filepath.Abs(target); err == nil {
		target = abs
	}
	if rel, err := filepath.Rel(target, w.Dir); err == nil && filepath.IsLocal(rel) {
		return "", wrongUse("the site would replace the project itself; name another folder with --out")
	}
	if rel, err := filepath.Rel(w.Dir, target); err == nil && filepath.IsLocal(rel) && rel != "." {
		w.Settings.Write.Site = filepath.ToSlash(rel)
	}
	w.outside.target = target
	return target, nil
}

// forge is the pattern of links to the project's forge with the revision filled
// in. Where nobody can tell the revision, or the files are not those of it, there
// are no such links, and why says so: a link to other lines would be wrong.
func (w *Workspace) forge(ctx context.Context) (pattern, why string) {
	pattern = w.Settings.Source
	if !strings.Contains(pattern, "{revision}") {
		return pattern, ""
	}
	r, err := vcs.Read(ctx, w.Dir)
	switch {
	case err != nil:
		return "", err.Error()
	case r.Dirty:
		return "", "the working tree differs from its commit"
	}
	return strings.ReplaceAll(pattern, "{revision}", r.Hash), ""
}

// source is how much of the source the site shows.
func (w *Workspace) source() plan.Source {
	how, _ := plan.ParseSource(w.Settings.Write.Source)
	return how
}

func (w *Workspace) workers() int {
	if w.options.Jobs > 0 {
		return w.options.Jobs
	}
	return runtime.GOMAXPROCS(0)
}

// wholeMatches is the error of patterns of modules that match none.
func (w *Workspace) wholeMatches(s *build.Snapshot) error {
	var problems []error
	for _, pattern := range w.Settings.Write.Whole {
		if !matchesModule(pattern, s) {
			problems = append(problems, w.Settings.At("whole", pattern,
				fmt.Sprintf("%q matches no module; patterns are compared with module paths such as %s, and %q matches all", pattern, someModule(s), "**")))
		}
	}
	if len(problems) > 0 {
		return &Error{true, errors.Join(problems...)}
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

// Plan plans the pages of a snapshot as the settings ask.
func (w *Workspace) Plan(s *build.Snapshot) *plan.Plan {
	findings := -1
	if slices.Contains(w.Settings.Write.Pages, "findings") {
		findings = len(s.Findings)
	}
	return w.planWith(s, plan.Options{Findings: findings, Coverage: w.asks("coverage"), HasToDos: w.asks("to-dos"), ToDos: len(w.toDos(s))})
}

// asks reports whether the settings ask for a page.
func (w *Workspace) asks(page string) bool { return slices.Contains(w.Settings.Write.Pages, page) }

// planWith plans the pages with those on the state of the documentation that options ask for.
func (w *Workspace) planWith(s *build.Snapshot, options plan.Options) *plan.Plan {
	whole := w.Settings.Write.Whole
	options.Source, options.Workers = w.source(), w.workers()
	options.Whole = func(module string) bool {
		return slices.ContainsFunc(whole, func(pattern string) bool {
			ok, _ := doublestar.Match(pattern, module)
			return ok
		})
	}
	return plan.New(s.Links, options)
}
