// Package build owns the pipeline as one function: source, reading, joining,
// comments, links, checks. It returns a [Snapshot] and findings.
//
// It reads through an fs.FS, prints nothing, writes nothing and never exits;
// which languages and rules there are is handed in.
package build

import (
	"context"
	"fmt"
	"io/fs"
	"log/slog"
	"path"
	"slices"
	"time"

	"codrel/internal/check"
	"codrel/internal/discover"
	"codrel/internal/finding"
	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/look"
	"codrel/internal/model"
	"codrel/internal/parts"
	"codrel/internal/prose"
	"codrel/internal/settings"
)

// Options is what a run is told.
type Options struct {
	Settings  *settings.Settings
	FrontEnds []lang.FrontEnd
	Folder    string // name of the project's folder, which an fs.FS does not know
	Tests     bool   // read test files too
	TestNames bool   // read test files for the names in them, where there are not too many
	Inside    bool   // read what bodies use, for source pages
	// Everything reads files too that say the same as others, for the symbol stream.
	Everything bool
	Jobs       int // workers; 0 for one a processor
	Only       []string
	Outside    Outside
	// Parts, where set, has what the files say: none of the project's source is read.
	Parts  *parts.Set
	Logger *slog.Logger
	Found  func(bytes int64) // where set, told how much there is to read before it is
	// Progress, where set, is told the stage, and how many of how many steps are
	// done. It is called from several goroutines.
	Progress func(stage string, done, total int)

	sums bool // sums of the files' bytes are wanted
}

// Snapshot is one state of a project, read, joined and linked. It does not change.
type Snapshot struct {
	Project   *model.Project
	Links     *link.Index // nil after [Read]
	Findings  []finding.Finding
	FrontEnds map[string]lang.FrontEnd // by language
	Coverage  check.Coverage
	Modules   map[*model.Module]check.Coverage
	Look      *look.Look
	Stats     Stats

	made *run // by which it was made
}

// Stats says how much was read, and where the time went.
type Stats struct {
	Files    int
	Bytes    int64
	Declared int                   // declarations in all modules that are no tests
	InReach  int                   // those of them that have a place among the pages
	Passed   []model.SkippedFolder // folders, from the project's root, of files that were not read since they are built from others
	Stages   []StageTime
}

// StageTime is how long one stage took.
type StageTime struct {
	Name string
	Took time.Duration
}

// PathError is a path of the settings or the command line that cannot be used.
type PathError struct {
	Path  string
	Err   error
	Place settings.Problem // where the settings name it; its line is 0 where they do not
}

// Error names the path and what is wrong with it.
func (e *PathError) Error() string {
	if e.Place.Line > 0 {
		e.Place.Message = fmt.Sprintf("%q cannot be used: %s", e.Path, PlainReason(e.Err))
		return e.Place.Error()
	}
	return fmt.Sprintf("%s: %s", e.Path, PlainReason(e.Err))
}

// Unwrap is the error of the file system.
func (e *PathError) Unwrap() error { return e.Err }

// pathError is the error of a path that a key of the settings names.
func (r *run) pathError(key, path string, err error) error {
	return &PathError{Path: path, Err: err, Place: r.options.Settings.At(key, path, "")}
}

// Read runs the pipeline up to the joined model, which is all the symbol stream needs.
func Read(ctx context.Context, fsys fs.FS, options Options) (*Snapshot, error) {
	r := newRun(ctx, fsys, options)
	err := r.read()
	r.stage("", 0)
	return r.snapshot, err
}

// Link runs the pipeline up to the linked project, without checks.
func Link(ctx context.Context, fsys fs.FS, options Options) (*Snapshot, error) {
	r := newRun(ctx, fsys, options)
	err := r.link()
	r.stage("", 0)
	return r.snapshot, err
}

// Run runs the whole pipeline.
func Run(ctx context.Context, fsys fs.FS, options Options) (*Snapshot, error) {
	r := newRun(ctx, fsys, options)
	if err := r.link(); err != nil {
		return r.snapshot, err
	}
	r.check()
	r.stage("", 0)
	return r.snapshot, ctx.Err()
}

// Check is a linked snapshot with all that the rules find in it.
func Check(ctx context.Context, linked *Snapshot) (*Snapshot, error) {
	s := *linked
	r := *linked.made
	r.ctx, r.snapshot = ctx, &s
	s.Findings = slices.Clone(s.Findings)
	r.check()
	r.stage("", 0)
	return &s, ctx.Err()
}

// CheckModule is what the rules find in one module of a linked snapshot, sorted.
func CheckModule(linked *Snapshot, m *model.Module) []finding.Finding {
	return check.Module(m, linked.Links, linked.made.rules())
}

// CheckPages are what the rules find in the guides and fragments of a linked snapshot, and what
// was found when files were read that are no source, sorted.
func CheckPages(linked *Snapshot) []finding.Finding {
	read := slices.Clone(linked.Findings)
	if len(read) > 0 {
		source := map[string]bool{}
		for f := range linked.Project.Files {
			source[f.Path] = true
		}
		read = slices.DeleteFunc(read, func(f finding.Finding) bool { return source[f.Place.File] })
	}
	rules := linked.made.rules()
	return check.Add(check.Pages(linked.Links, rules), read, rules)
}

// With is a checked snapshot with findings of what was done with it afterwards.
func With(s *Snapshot, found []finding.Finding) *Snapshot {
	with := *s
	with.Findings = check.Add(s.Findings, found, s.made.rules())
	return &with
}

// check runs the rules.
func (r *run) check() {
	s := r.snapshot
	r.stage("checking", 0)
	result := check.Run(r.ctx, s.Project, s.Links, s.Findings, r.rules())
	s.Findings, s.Coverage, s.Modules = result.Findings, result.Coverage, result.Modules
	s.Stats.Declared, s.Stats.InReach, s.Stats.Passed = declared(s), inReach(s), passed(s.Project)
}

// rules is what the rules are told.
func (r *run) rules() check.Options {
	set := r.options.Settings
	return check.Options{
		Reach: set.Reach, Rules: set.Checks.Rules, Folders: folders(set), Only: r.options.Only, Workers: r.workers(),
		AskInherited: set.Checks.AskInherited,
		FileFields:   set.Checks.FileFields,
	}
}

func declared(s *Snapshot) (n int) {
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			n += m.Count()
		}
	}
	return n
}

func inReach(s *Snapshot) (n int) {
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for d := range m.Declarations {
				if s.Links.InReach(d) {
					n++
				}
			}
		}
	}
	return n
}

// passed are the folders of all libraries that were passed over; of files without blanks
// and comments there is one entry for all.
func passed(p *model.Project) []model.SkippedFolder {
	var out []model.SkippedFolder
	minified := 0
	for _, lib := range p.Libraries {
		for _, folder := range lib.Skipped {
			if folder.Minified {
				minified += folder.Files
				continue
			}
			folder.Folder = path.Join(lib.Root, folder.Folder)
			out = append(out, folder)
		}
	}
	if minified > 0 {
		out = append(out, model.SkippedFolder{Files: minified, Minified: true})
	}
	return out
}

// link reads everything and links it.
func (r *run) link() error {
	for _, read := range []func() error{r.read, r.guides, r.fragments} {
		if err := read(); err != nil {
			return err
		}
	}
	r.name()
	s, set := r.snapshot, r.options.Settings
	r.stage("linking", 0)
	s.Links = link.New(s.Project, link.Options{
		Reach: set.Reach, Elsewhere: patterns(set), Outside: r.outside(), Workers: r.workers(), FrontEnds: s.FrontEnds,
		Vocabulary: vocabulary(set), Files: r.fsys,
	})
	r.look()
	return r.ctx.Err()
}

// look reads what the maintainer changes of the site's look.
func (r *run) look() {
	looks, problems := look.Read(r.fsys, r.options.Settings.Look, r.options.Settings.File)
	r.snapshot.Look, r.snapshot.Findings = looks, append(r.snapshot.Findings, problems...)
}

// name finds the project's name where the settings give none: that of the
// library at the root, else the folder's.
func (r *run) name() {
	p := r.snapshot.Project
	if p.Name != "" {
		return
	}
	p.Name = r.options.Folder
	for _, lib := range p.Libraries {
		if lib.Root == "." {
			p.Name = lib.Name
			return
		}
	}
}

// vocabulary is what the settings say of words in comments.
func vocabulary(s *settings.Settings) map[string]prose.Vocabulary {
	out := map[string]prose.Vocabulary{}
	for language, words := range s.Vocabulary {
		out[language] = words
	}
	return out
}

func folders(s *settings.Settings) []check.Folder {
	var out []check.Folder
	for _, f := range s.Checks.Folders {
		out = append(out, check.Folder{Pattern: f.Path, Rules: f.Rules})
	}
	return out
}

// run is one call of the pipeline.
type run struct {
	ctx       context.Context
	fsys      fs.FS
	options   Options
	snapshot  *Snapshot
	libraries []*discover.Library
	asked     map[string]bool              // files that decided which files are read, and how
	problems  map[string][]finding.Finding // of reading, by file
	lasting   []finding.Finding            // that no file of the source has: of links that lead nowhere, and of other projects' names
	given     map[string]*parts.File       // what parts say of files; nil where they are read
	earlier   *earlier                     // what an earlier run knew; nil for none
	current   string
	total     int
	since     time.Time
}

func newRun(ctx context.Context, fsys fs.FS, options Options) *run {
	if options.Settings == nil {
		options.Settings = settings.Default()
	}
	if options.Logger == nil {
		options.Logger = slog.New(slog.DiscardHandler)
	}
	r := &run{
		ctx: ctx, fsys: fsys, options: options, problems: map[string][]finding.Finding{},
		snapshot: &Snapshot{
			Project:   &model.Project{Name: options.Settings.Name, Version: options.Settings.Version},
			FrontEnds: map[string]lang.FrontEnd{},
		},
	}
	r.snapshot.made = r
	for _, end := range options.FrontEnds {
		r.snapshot.FrontEnds[end.Habits().Language] = end
	}
	return r
}

// stage ends the stage before and begins the named one.
func (r *run) stage(name string, total int) {
	now := time.Now()
	if r.current != "" {
		took := now.Sub(r.since)
		r.snapshot.Stats.Stages = append(r.snapshot.Stats.Stages, StageTime{r.current, took})
		r.options.Logger.Debug("stage done", "stage", r.current, "took", took)
	}
	r.current, r.since, r.total = name, now, total
	r.progress(0)
}

func (r *run) progress(done int) {
	if r.options.Progress != nil && r.current != "" {
		r.options.Progress(r.current, done, r.total)
	}
}
