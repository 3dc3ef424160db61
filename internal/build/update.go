package build

import (
	"context"
	"io/fs"
	"path"
	"slices"
	"strings"

	"codrel/internal/discover"
	"codrel/internal/finding"
	"codrel/internal/join"
	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/model"
)

// earlier is what a run takes over from the one that made an earlier snapshot.
type earlier struct {
	facts    map[string]*model.Facts
	problems map[string][]finding.Finding
	changed  []string
}

// Update is what a linked snapshot becomes when files of the project have changed, are new
// or are gone: the same as reading and linking everything anew. Changed are their paths
// from the project's root; a folder stands for all that is or was in it. Settings are
// those of the earlier snapshot: where they change, [Link] reads everything anew.
//
// The earlier snapshot stays as it is, and whoever reads it goes on. Findings are those of
// reading and linking: [Check] adds the others.
func Update(ctx context.Context, fsys fs.FS, was *Snapshot, changed ...string) (*Snapshot, error) {
	r := newRun(ctx, fsys, was.made.options)
	defer func() { r.earlier = nil }() // a snapshot keeps none of those before it
	facts, same := r.reread(was, changed)
	if !same || len(was.made.options.Settings.Describe) > 0 { // whose modules have more than their files say
		return r.searchAgain(was, changed)
	}
	s := r.snapshot
	s.Stats = was.Stats
	s.Stats.Stages = nil
	for _, read := range []func() error{r.guides, r.fragments} {
		if err := read(); err != nil {
			return s, err
		}
	}
	r.lasting = was.made.lasting
	s.Findings = slices.Concat(r.lasting, s.Findings, r.readingFindings())
	r.relink(was, facts)
	r.look()
	r.stage("", 0)
	return s, ctx.Err()
}

// reread reads the changed files again that are known as source. It reports false where
// that is not enough: where it may be that other files are read, or in another way.
func (r *run) reread(was *Snapshot, changed []string) (map[*model.Facts]*model.Facts, bool) {
	for _, lib := range was.made.libraries {
		own := *lib
		r.libraries = append(r.libraries, &own)
	}
	r.asked = was.made.asked
	for file, list := range was.made.problems {
		r.problems[file] = list
	}
	out := map[*model.Facts]*model.Facts{}
	for _, file := range changed {
		if r.asked[file] {
			return nil, false
		}
		lib, i := r.sourceFile(file)
		if lib == nil {
			if r.mayBeSource(file) {
				return nil, false
			}
			continue // of other files, only guides and fragments say something, and those are read each time
		}
		f := lib.Files[i]
		if !was.made.readsTests() && !r.readsWithoutTests(f) {
			continue
		}
		info, err := fs.Stat(r.fsys, file)
		old := slices.IndexFunc(lib.Model.Files, func(f *model.Facts) bool { return f.Path == file })
		if err != nil || old < 0 || !lib.Resize(file, info.Size(), r.options.FrontEnds) || r.readsTests() != was.made.readsTests() {
			return nil, false
		}
		f.Size = info.Size()
		facts, problems := r.readFile(f)
		if facts == nil {
			return nil, false
		}
		delete(r.problems, file)
		if len(problems) > 0 {
			r.problems[file] = problems
		}
		out[lib.Model.Files[old]] = facts
	}
	return out, true
}

// sourceFile is the place of a file among those that are read.
func (r *run) sourceFile(file string) (lib *discover.Library, index int) {
	for _, lib := range r.libraries {
		if i := slices.IndexFunc(lib.Files, func(f discover.File) bool { return f.Path == file }); i >= 0 {
			return lib, i
		}
	}
	return nil, 0
}

// mayBeSource reports whether a file that is none of the source, as far as is known, may
// decide what is: by its name it is source, says what is, or is a folder.
func (r *run) mayBeSource(file string) bool {
	if path.Base(file) == ".gitignore" || path.Ext(file) == "" {
		return true
	}
	if info, err := fs.Stat(r.fsys, file); err == nil && info.IsDir() {
		return true
	}
	for _, end := range r.options.FrontEnds {
		if lang.Reads(end, file) {
			return true
		}
		if named, ok := end.(lang.NamedFiles); ok && slices.Contains(named.FileNames(), path.Base(file)) {
			return true
		}
		if marks, ok := end.(lang.RootFinder); ok && lang.IsMarker(marks.MarkerNames(), path.Base(file)) {
			return true
		}
		if shared, ok := end.(lang.Recognizer); ok && slices.Contains(shared.SharedExtensions(), path.Ext(file)) {
			return true
		}
	}
	for _, lib := range r.libraries {
		for _, f := range lib.Model.Files {
			if f != nil && slices.Contains(f.Takes, file) {
				return true
			}
		}
	}
	for _, lib := range r.libraries { // it was a folder
		if slices.ContainsFunc(lib.Files, func(f discover.File) bool { return strings.HasPrefix(f.Path, file+"/") }) {
			return true
		}
	}
	return false
}

// searchAgain finds all files anew, and reads those that changed or are new.
func (r *run) searchAgain(was *Snapshot, changed []string) (*Snapshot, error) {
	r.libraries, r.problems = nil, map[string][]finding.Finding{}
	r.earlier = &earlier{facts: map[string]*model.Facts{}, problems: was.made.problems, changed: changed}
	for _, lib := range was.made.libraries {
		for _, f := range lib.Model.Files {
			r.earlier.facts[f.Path] = f
		}
	}
	err := r.link()
	r.stage("", 0)
	return r.snapshot, err
}

// known is what parts say of a file, or what an earlier run read of one that is as it was.
func (r *run) known(file discover.File) (facts *model.Facts, problems []finding.Finding, ok bool) {
	if f := r.given[file.Path]; f != nil {
		switch {
		case f.Facts == nil:
			return nil, f.Problems, true
		case f.Facts.Role == model.RoleTest && !r.options.Tests:
			return f.Facts, nil, true
		}
		return f.Facts, f.Facts.Problems, true
	}
	if r.earlier == nil {
		return nil, nil, false
	}
	facts = r.earlier.facts[file.Path]
	if facts == nil || facts.Language != file.End.Habits().Language {
		return nil, nil, false
	}
	changed := func(file string) bool {
		return slices.ContainsFunc(r.earlier.changed, func(c string) bool { return c == file || strings.HasPrefix(file, c+"/") || c == "." })
	}
	if changed(file.Path) || slices.ContainsFunc(facts.Takes, changed) {
		return nil, nil, false
	}
	return facts, r.earlier.problems[file.Path], true
}

// readingFindings are the problems of all files that are read, in the order of their paths.
func (r *run) readingFindings() (out []finding.Finding) {
	for _, lib := range r.libraries {
		for _, f := range lib.Files {
			out = append(out, r.problems[f.Path]...)
		}
	}
	return out
}

// relink joins anew what changed facts are part of, and links everything. Modules that
// linking changes are no other snapshot's.
func (r *run) relink(was *Snapshot, facts map[*model.Facts]*model.Facts) {
	options := was.Links.Options()
	unsettled := map[*model.Module]bool{}
	for {
		project := *r.snapshot.Project
		project.Libraries = nil
		for _, lib := range r.libraries {
			lib.Model = contentsWith(lib.Model, lib.End, facts, unsettled)
			if len(lib.Model.Files) > 0 {
				project.Libraries = append(project.Libraries, lib.Model)
			}
		}
		facts = nil // they are in
		options.Files = r.fsys
		options.Comments = was.Links.Comments.With(project.Files)
		r.snapshot.Project = &project
		r.name()
		r.snapshot.Links = link.New(&project, options)
		if unsettled = r.snapshot.Links.Unsettled(); len(unsettled) == 0 {
			return
		}
	}
}

// contentsWith are contents with new facts in the place of others, and of which those
// modules are made anew that linking would change. Where files go on to be part of the
// same modules, and no file speaks of what others declare, only their modules are.
func contentsWith(was *model.Contents, end lang.FrontEnd, facts map[*model.Facts]*model.Facts, unsettled map[*model.Module]bool) *model.Contents {
	anew, whole := false, false
	out := &model.Contents{Library: was.Library, HasAbout: was.HasAbout, Files: slices.Clone(was.Files)}
	for i, f := range was.Files {
		if fresh := facts[f]; fresh != nil {
			out.Files[i], anew = fresh, true
			whole = whole || len(fresh.About)+len(f.Groups)+len(fresh.Groups) > 0 || fresh.Package != f.Package || fresh.Role != f.Role || fresh.Standalone != f.Standalone
		}
	}
	stale := func(m *model.Module) bool { return m.Changed() && m.Settled() || unsettled[m] }
	anew = anew || slices.ContainsFunc(was.Modules, stale)
	if !anew {
		return was
	}
	if _, placer := end.(lang.Placer); placer || was.HasAbout || whole {
		join.Library(out, end)
		return out
	}
	files := func(m *model.Module) []*model.Facts {
		again, list := stale(m), slices.Clone(m.Files)
		for i, f := range list {
			if fresh := facts[f]; fresh != nil {
				list[i], again = fresh, true
			}
		}
		if !again {
			return nil
		}
		return list
	}
	out.Modules, out.Tests = join.Again(was.Modules, files), join.Again(was.Tests, files)
	return out
}
