package workspace

import (
	"context"
	"errors"
	"fmt"
	"path"
	"path/filepath"
	"sync"
	"time"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
	"codrel/internal/source"
	"codrel/internal/todo"
)

// write renders the site into the target folder.
func (w *Workspace) write(ctx context.Context, s *build.Snapshot, target, forge string) (*Built, error) {
	folder, err := sink.Open(target, w.Settings.Write.Keep)
	if err != nil {
		return nil, diskError(err)
	}
	times := stopwatch{last: time.Now()}
	w.progress("planning", 0, 0)
	pages := w.Plan(s)
	times.stage("planning")
	var lost []finding.Finding
	err = w.site(s, pages, forge, func(file string, err error) { lost = append(lost, build.CannotRead(file, err)) }).Write(ctx, folder)
	times.stage("writing")
	if err == nil {
		err = folder.Commit()
	}
	times.stage("exchanging")
	if err != nil {
		err = errors.Join(err, folder.Discard())
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		return nil, diskError(fmt.Errorf("the site was not written; the previous one is unchanged: %w", err))
	}
	for _, r := range folder.Refused() {
		lost = append(lost, finding.Finding{
			Rule: finding.UnreadableSource, Form: "page", Place: finding.Place{File: path.Join(filepath.ToSlash(w.Settings.Write.Site), r.Path), At: source.Position{Line: 1, Column: 1}},
			Arguments: []finding.Argument{{Name: "problem", Value: build.PlainReason(r.Err)}},
		})
	}
	if len(lost) > 0 {
		s = build.With(s, lost)
	}
	return &Built{
		Snapshot: s, Target: target, Pages: len(pages.Pages()), Files: folder.Files(), Same: folder.Unchanged(),
		Stages: append(s.Stats.Stages, times.done...),
	}, nil
}

// Site prepares the pages of a plan. Forge is the address of a source line on the
// project's forge, with {path} and {line}, or "".
func (w *Workspace) Site(s *build.Snapshot, pages *plan.Plan, forge string) *site.Site {
	return w.site(s, pages, forge, nil)
}

func (w *Workspace) site(s *build.Snapshot, pages *plan.Plan, forge string, lost func(string, error)) *site.Site {
	return site.New(pages, site.Options{
		Lost:      lost,
		FrontEnds: s.FrontEnds, Look: s.Look, Report: w.report(s, pages), Source: forge, Edit: w.Settings.Edit, Base: w.Settings.Site, Hidden: w.Settings.Write.Hide, Files: w.Files, Workers: w.workers(),
		Progress: func(done, total int) { w.progress("writing pages", done, total) },
	})
}

func (w *Workspace) progress(stage string, done, total int) {
	if w.options.Progress != nil {
		w.options.Progress(stage, done, total)
	}
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

// mostPlaces is how many places of a finding the page of findings names; the rest is counted.
const mostPlaces = 3

// toDos are those of a snapshot, where there is a page for them.
func (w *Workspace) toDos(s *build.Snapshot) []todo.Entry {
	if !w.asks("to-dos") {
		return nil
	}
	w.remarks.Lock()
	defer w.remarks.Unlock()
	if w.remarks.of != s {
		w.remarks.of, w.remarks.list = s, todo.Find(context.Background(), s.Project, s.FrontEnds, w.workers())
	}
	return w.remarks.list
}

// shownToDos are the to-dos of a snapshot where its plan has a page for them, as that of the
// preview has not.
func (w *Workspace) shownToDos(s *build.Snapshot, pages *plan.Plan) []todo.Entry {
	if !pages.HasToDos {
		return nil
	}
	return w.toDos(s)
}

// remarks are the to-dos of the last snapshot that was asked for them: its plan counts them, and
// its pages show them.
type remarks struct {
	sync.Mutex
	of   *build.Snapshot
	list []todo.Entry
}

// report puts findings, coverage and to-dos into words for their pages, where those are planned.
func (w *Workspace) report(s *build.Snapshot, pages *plan.Plan) *site.Report {
	if len(w.Settings.Write.Pages) == 0 {
		return nil
	}
	r := &site.Report{Documented: s.Coverage.Documented, Total: s.Coverage.Total, Inherited: s.Coverage.Inherited + s.Coverage.InheritedOnly}
	for i := range s.Findings {
		f := &s.Findings[i]
		r.Findings = append(r.Findings, site.Finding{
			Severity: f.Severity.String(), Rule: f.Rule, Text: finding.OneLine(check.Text(f)) + check.AlsoAt(f, mostPlaces, func(file string) string { return file }),
			File: f.Place.File, Line: f.Place.At.Line, Column: f.Place.At.Column,
		})
	}
	for _, t := range w.shownToDos(s, pages) {
		r.ToDos = append(r.ToDos, site.ToDo{Bug: t.Bug, Who: t.Who, Text: t.Text, File: t.File.Path, Line: t.File.Position(t.Span.Start).Line, In: t.In})
	}
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			c := s.Modules[m]
			r.Modules = append(r.Modules, site.Share{Module: m, Documented: c.Documented, Total: c.Total})
		}
	}
	return r
}
