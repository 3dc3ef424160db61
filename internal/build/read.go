package build

import (
	"cmp"
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"path"
	"runtime"
	"slices"
	"strings"
	"sync/atomic"

	"codrel/internal/finding"
	"codrel/internal/join"
	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/parallel"
	"codrel/internal/settings"
	"codrel/internal/source"

	"github.com/bmatcuk/doublestar/v4"
)

// largestFile is the size above which a file is not read: its byte offsets and
// its tree would not fit the bounds that the rest is made for.
const largestFile = 256 << 20

// read finds and reads all files and joins what they declare.
func (r *run) read() error {
	r.stage("finding files", 0)
	if err := r.libraries(); err != nil {
		return err
	}
	jobs := r.jobs()
	if r.options.Found != nil {
		var bytes int64
		for _, j := range jobs {
			bytes += j.entry.Size
		}
		r.options.Found(bytes)
	}
	r.stage("reading", len(jobs))
	if err := r.readFiles(jobs); err != nil {
		return err
	}
	r.stage("joining", 0)
	for _, lib := range r.snapshot.Project.Libraries {
		kept := lib.Files[:0]
		for _, f := range lib.Files {
			if f != nil {
				kept = append(kept, f)
			}
		}
		lib.Files = kept
		slices.SortStableFunc(lib.Files, func(a, b *model.Facts) int {
			return cmp.Or(cmp.Compare(a.Role, b.Role), strings.Compare(a.Path, b.Path))
		})
		join.Library(lib, r.ends[lib])
	}
	r.snapshot.Project.Libraries = slices.DeleteFunc(r.snapshot.Project.Libraries, func(l *model.Library) bool {
		return len(l.Files) == 0
	})
	return r.ctx.Err()
}

// libraries makes the libraries of the project and says which files each has.
func (r *run) libraries() error {
	reads := r.options.Settings.Read
	if len(reads) == 0 {
		reads = []settings.Read{{Path: "."}}
	}
	for _, read := range reads {
		if err := r.tree(read); err != nil {
			return err
		}
	}
	r.choose()
	return nil
}

// tree makes the libraries of one entry of "read".
func (r *run) tree(read settings.Read) error {
	if _, err := fs.Stat(r.fsys, read.Path); err != nil {
		return r.pathError("read", read.Path, err)
	}
	for _, group := range r.groups(read.Language) {
		found, roots, err := r.search(read, group)
		if err != nil {
			return err
		}
		r.assign(read, group, found, roots)
	}
	return nil
}

// group is the front ends of languages whose files make libraries together.
type group []lang.FrontEnd

// of is the front end that reads a file, or nil.
func (g group) of(path string) lang.FrontEnd {
	for _, end := range g {
		if lang.Reads(end, path) {
			return end
		}
	}
	return nil
}

// groups puts the front ends together whose languages share libraries; only is the one
// language that is asked for, or "".
func (r *run) groups(only string) (out []group) {
	for _, end := range r.options.FrontEnds {
		if only != "" && end.Habits().Language != only {
			continue
		}
		i := slices.IndexFunc(out, func(g group) bool { return g[0].Habits().SameFamily(end.Habits()) })
		if i < 0 {
			i, out = len(out), append(out, nil)
		}
		out[i] = append(out[i], end)
	}
	return out
}

func (r *run) search(read settings.Read, ends group) ([]source.Entry, []lang.Root, error) {
	want := source.Search{SkipFolders: slices.Clone(ends[0].SkipFolders()), Within: []string{read.Path}}
	if ignorer, ok := ends[0].(lang.Ignorer); ok && !r.options.Everything {
		want.SkipFolders = append(want.SkipFolders, ignorer.Ignored()...)
	}
	for _, end := range ends {
		want.Extensions = append(want.Extensions, end.Extensions()...)
	}
	for _, pattern := range read.Skip {
		want.Skip = append(want.Skip, path.Join(read.Path, pattern))
	}
	if site := r.options.Settings.Write.Site; site != "" {
		want.Skip = append(want.Skip, site)
	}
	marks, _ := ends[0].(lang.RootFinder)
	if marks != nil {
		want.Names = marks.MarkerNames()
	}
	entries, problems, err := source.Find(r.ctx, r.fsys, want)
	if err != nil {
		return nil, nil, r.pathError("read", read.Path, err)
	}
	r.linkProblems(ends, problems)
	var found []source.Entry
	var roots []lang.Root
	for _, e := range entries {
		if ends.of(e.Path) != nil {
			found = append(found, e)
			continue
		}
		r.markers = append(r.markers, e.Path)
		if root, ok := lang.ReadMarker(r.fsys, marks, e.Path); ok {
			roots = append(roots, root)
		}
	}
	return found, roots, nil
}

// linkProblems turns what could not be looked at into findings, once a path. A
// link that is not named like a source file is only worth a note.
func (r *run) linkProblems(ends group, problems []source.Problem) {
	for _, p := range problems {
		if r.problemPaths[p.Path] {
			continue
		}
		r.problemPaths[p.Path] = true
		f := cannotRead(p.Path, p.Err)
		if p.Link && ends.of(p.Path) == nil {
			f.Severity = finding.Note
		}
		r.snapshot.Findings = append(r.snapshot.Findings, f)
	}
}

func cannotRead(path string, err error) finding.Finding {
	return finding.Finding{
		Rule: finding.UnreadableSource, Form: "file", Place: finding.Place{File: path, At: source.Position{Line: 1, Column: 1}},
		Arguments: []finding.Argument{{Name: "problem", Value: plainReason(err)}},
	}
}

// plainReason says a file error without the operation and path that the place already names.
func plainReason(err error) string {
	switch {
	case errors.Is(err, fs.ErrPermission):
		return "it may not be read (permission denied)"
	case errors.Is(err, fs.ErrNotExist):
		return "it does not exist"
	}
	var p *fs.PathError
	if errors.As(err, &p) {
		return p.Err.Error()
	}
	return err.Error()
}

// assign gives every file to the library of the nearest root above it.
func (r *run) assign(read settings.Read, ends group, found []source.Entry, roots []lang.Root) {
	byFolder := map[string]*model.Library{}
	markers := map[string]lang.Root{}
	for _, root := range roots {
		if was := markers[root.Folder]; was.Name == "" { // several may mark one folder
			root.Version = cmp.Or(was.Version, root.Version)
			markers[root.Folder] = root
		}
	}
	if nester, ok := ends[0].(lang.Nester); ok {
		nest(nester, read.Path, markers)
	}
	for _, e := range found {
		folder, marker := rootOf(path.Dir(e.Path), read.Path, markers)
		lib := byFolder[folder]
		if lib == nil {
			lib = r.library(ends.of(e.Path), folder, marker)
			byFolder[folder] = lib
			r.roots[lib] = marker
		}
		r.files[lib] = append(r.files[lib], e)
	}
	for _, lib := range byFolder {
		for _, pattern := range read.Open {
			lib.Open = append(lib.Open, path.Join(read.Path, pattern))
		}
	}
}

// nest makes roots that belong to the one around them parts of it.
func nest(nester lang.Nester, top string, markers map[string]lang.Root) {
	for _, folder := range slices.Sorted(maps.Keys(markers)) { // outer ones first
		inner := markers[folder]
		if inner.Part || folder == top || folder == "." {
			continue
		}
		at, outer := rootOf(path.Dir(folder), top, markers)
		if _, marked := markers[at]; marked && nester.PartOf(outer, inner) {
			inner.Part = true
			markers[folder] = inner
		}
	}
}

// choose leaves out the files that are built from others, and finds what libraries give
// to users, where their languages know such things.
func (r *run) choose() {
	for _, lib := range r.snapshot.Project.Libraries {
		entries := r.files[lib]
		slices.SortFunc(entries, func(a, b source.Entry) int { return strings.Compare(a.Path, b.Path) })
		r.files[lib] = slices.CompactFunc(entries, func(a, b source.Entry) bool { return a.Path == b.Path })
		chooser, ok := r.ends[lib].(lang.Chooser)
		if !ok {
			continue
		}
		below := func(p string) (string, bool) {
			if lib.Root == "." {
				return p, true
			}
			return strings.CutPrefix(p, lib.Root+"/")
		}
		var files []string
		for _, e := range r.files[lib] {
			file, _ := below(e.Path)
			files = append(files, file)
		}
		for _, m := range r.markers {
			if file, ok := below(m); ok {
				files = append(files, file)
			}
		}
		slices.Sort(files)
		choice := chooser.Choose(r.roots[lib], slices.Compact(files), func(file string) []byte {
			data, err := fs.ReadFile(r.fsys, path.Join(lib.Root, file))
			if err != nil {
				return nil
			}
			return data
		})
		lib.Entries, lib.Inside, lib.Passed = choice.Entries, choice.Inside, choice.Passed
		left := map[string]bool{}
		for _, f := range choice.Left {
			left[path.Join(lib.Root, f)] = true
		}
		for _, f := range choice.Twins {
			left[path.Join(lib.Root, f)] = !r.options.Everything
		}
		r.files[lib] = slices.DeleteFunc(r.files[lib], func(e source.Entry) bool { return left[e.Path] })
		r.speak(lib)
	}
}

// speak says which language a library is in whose files are in several: the one of most
// of its code.
func (r *run) speak(lib *model.Library) {
	bytes := map[string]int64{}
	for _, e := range r.files[lib] {
		if end := r.endOf(lib, e.Path); !isTest(end, e.Path) {
			bytes[end.Habits().Language] += e.Size + 1
		}
	}
	for _, end := range r.options.FrontEnds {
		if bytes[end.Habits().Language] > bytes[lib.Language] {
			lib.Language, lib.Habits = end.Habits().Language, end.Habits()
			r.ends[lib] = end
		}
	}
}

// endOf is the front end that reads a file of a library.
func (r *run) endOf(lib *model.Library, file string) lang.FrontEnd {
	if own := r.ends[lib]; lang.Reads(own, file) {
		return own
	}
	for _, end := range r.options.FrontEnds {
		if end.Habits().SameFamily(lib.Habits) && lang.Reads(end, file) {
			return end
		}
	}
	return r.ends[lib]
}

// rootOf climbs from dir to the first folder with a marker, or to the top of what is
// read. The marker of a part gives way to one further up.
func rootOf(dir, top string, markers map[string]lang.Root) (string, lang.Root) {
	var part *lang.Root
	for {
		m, ok := markers[dir]
		switch {
		case ok && !m.Part:
			return dir, m
		case ok && part == nil:
			part = &m
		}
		switch {
		case dir != top && dir != ".":
			dir = path.Dir(dir)
		case part != nil:
			return part.Folder, *part
		default:
			return top, lang.Root{Folder: top}
		}
	}
}

// library finds or makes the library with this language and folder. Its name is
// the folder's, so that it does not hang on what else the project holds; only
// the root folder's library is called as its own files say.
func (r *run) library(end lang.FrontEnd, folder string, marker lang.Root) *model.Library {
	for _, lib := range r.snapshot.Project.Libraries {
		if lib.Root == folder && lib.Habits.SameFamily(end.Habits()) {
			return lib
		}
	}
	name := strings.ReplaceAll(folder, "/", "-")
	if folder == "." {
		name = cmp.Or(marker.Name, r.options.Folder, "project")
	}
	lib := &model.Library{Name: r.free(name, end.Habits().Language), Language: end.Habits().Language, Habits: end.Habits(), Root: folder, Prefix: marker.Prefix, Version: marker.Version, Package: marker.Package}
	r.snapshot.Project.Libraries = append(r.snapshot.Project.Libraries, lib)
	r.ends[lib] = end
	return lib
}

// free is the name if no library has it yet, else with the language or a number
// behind it: "v4/mini" and "v4-mini" are two folders that would be called alike,
// and pages of two libraries must not stand at one address.
func (r *run) free(name, language string) string {
	taken := func(name string) bool {
		return slices.ContainsFunc(r.snapshot.Project.Libraries, func(lib *model.Library) bool { return lib.Name == name })
	}
	if !taken(name) {
		return name
	}
	name += "-" + language
	for n, stem := 2, name; taken(name); n++ {
		name = fmt.Sprint(stem, "-", n)
	}
	return name
}

// job is one file to read, and where its facts go.
type job struct {
	lib   *model.Library
	entry source.Entry
	to    int
}

// jobs lists the files to read, the largest first so that no worker is left
// alone with one at the end.
func (r *run) jobs() []job {
	var jobs []job
	tests := r.options.TestNames && r.testBytes() <= mostTestBytes
	for _, lib := range r.snapshot.Project.Libraries {
		entries := r.files[lib]
		if !r.options.Tests && !tests {
			entries = slices.DeleteFunc(entries, func(e source.Entry) bool {
				end := r.endOf(lib, e.Path)
				return isTest(end, e.Path) && !(r.options.TestNames && mayHaveExamples(end, e.Path))
			})
		}
		lib.Files = make([]*model.Facts, len(entries))
		for i, e := range entries {
			jobs = append(jobs, job{lib: lib, entry: e, to: i})
		}
	}
	slices.SortStableFunc(jobs, func(a, b job) int { return cmp.Compare(b.entry.Size, a.entry.Size) })
	return jobs
}

// mostTestBytes is the size of all test files above which a build leaves them alone:
// what they say of the code is not worth the time they take.
const mostTestBytes = 8_000_000

func (r *run) testBytes() (bytes int64) {
	for lib, entries := range r.files {
		for _, e := range entries {
			if isTest(r.endOf(lib, e.Path), e.Path) {
				bytes += e.Size
			}
		}
	}
	return bytes
}

// mayHaveExamples reports whether a test file holds examples for the pages: those are
// read although there are too many tests.
func mayHaveExamples(end lang.FrontEnd, path string) bool {
	exampler, ok := end.(lang.Exampler)
	return ok && exampler.MayHaveExamples(path)
}

func isTest(end lang.FrontEnd, path string) bool {
	t, ok := end.(lang.TestNamer)
	return ok && t.IsTest(path)
}

// readFiles reads all jobs. Results go to their own places, so that the order
// in which workers finish shows nowhere.
func (r *run) readFiles(jobs []job) error {
	problems := make([][]finding.Finding, len(jobs))
	var done atomic.Int64
	err := parallel.Each(r.ctx, r.workers(), len(jobs), func(i int) {
		problems[i] = r.readFile(jobs[i])
		r.progress(int(done.Add(1)))
	})
	for i, list := range problems {
		r.snapshot.Findings = append(r.snapshot.Findings, list...)
		r.snapshot.Stats.Bytes += jobs[i].entry.Size
	}
	r.snapshot.Stats.Files = len(jobs)
	return err
}

func (r *run) readFile(j job) []finding.Finding {
	if j.entry.Size > largestFile {
		return []finding.Finding{cannotRead(j.entry.Path, fmt.Errorf("it is larger than %d MB; leave it out with \"skip\"", largestFile>>20))}
	}
	data, err := fs.ReadFile(r.fsys, j.entry.Path)
	if err != nil {
		return []finding.Finding{cannotRead(j.entry.Path, err)}
	}
	end := r.endOf(j.lib, j.entry.Path)
	facts := end.Read(lang.File{Path: j.entry.Path, Text: source.Decode(data), Deep: r.options.Inside || isTest(end, j.entry.Path)})
	if !facts.Generated && matchesAny(r.options.Settings.Generated, j.entry.Path) {
		facts.Generated = true
	}
	j.lib.Files[j.to] = facts
	if facts.Role == model.RoleTest && !r.options.Tests {
		return nil // tests may well hold what cannot be read
	}
	return facts.Problems
}

func matchesAny(patterns []string, path string) bool {
	for _, p := range patterns {
		if ok, _ := doublestar.Match(p, path); ok {
			return true
		}
	}
	return false
}

func (r *run) workers() int {
	if r.options.Jobs > 0 {
		return r.options.Jobs
	}
	return runtime.GOMAXPROCS(0)
}

// home finds the text of the landing page: what the settings name, else the README.
func (r *run) home() error {
	name := r.options.Settings.Home
	if name == "" {
		name = findReadme(r.fsys)
	}
	if name == "" {
		return nil
	}
	data, err := fs.ReadFile(r.fsys, name)
	if err != nil {
		if r.options.Settings.Home == "" {
			r.snapshot.Findings = append(r.snapshot.Findings, cannotRead(name, err))
			return nil
		}
		return r.pathError("home", name, err)
	}
	text := source.Decode(data)
	r.snapshot.Project.Home = &model.Page{Path: name, Text: text.String, Lines: text.Lines}
	return nil
}

func findReadme(fsys fs.FS) string {
	entries, err := fs.ReadDir(fsys, ".")
	if err != nil {
		return ""
	}
	for _, want := range []string{"readme.md", "readme.markdown", "readme.txt", "readme"} {
		for _, e := range entries {
			if strings.ToLower(e.Name()) == want && !e.IsDir() {
				return e.Name()
			}
		}
	}
	return ""
}
