package build

import (
	"cmp"
	"crypto/sha256"
	"errors"
	"fmt"
	"io/fs"
	"runtime"
	"slices"
	"strings"
	"sync/atomic"

	"codrel/internal/discover"
	"codrel/internal/finding"
	"codrel/internal/join"
	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/parallel"
	"codrel/internal/source"

	"github.com/bmatcuk/doublestar/v4"
)

// largestFile is the size above which a file is not read: its byte offsets and
// its tree would not fit the bounds that the rest is made for.
const largestFile = 256 << 20

// read finds and reads all files and joins what they declare.
func (r *run) read() error {
	r.stage("finding files", 0)
	if err := r.find(); err != nil {
		return err
	}
	jobs := r.jobs()
	if r.options.Found != nil {
		var bytes int64
		for _, j := range jobs {
			bytes += j.file.Size
		}
		r.options.Found(bytes)
	}
	r.stage("reading", len(jobs))
	if err := r.readFiles(jobs); err != nil {
		return err
	}
	r.stage("joining", 0)
	for _, lib := range r.libraries {
		lib.Model.Files = slices.DeleteFunc(lib.Model.Files, func(f *model.Facts) bool { return f == nil }) // could not be read
		slices.SortStableFunc(lib.Model.Files, func(a, b *model.Facts) int {
			return cmp.Or(cmp.Compare(a.Role, b.Role), strings.Compare(a.Path, b.Path))
		})
		join.Library(lib.Model, lib.End)
		if len(lib.Model.Files) > 0 {
			r.snapshot.Project.Libraries = append(r.snapshot.Project.Libraries, lib.Model)
		}
	}
	if err := r.describe(); err != nil {
		return err
	}
	return r.ctx.Err()
}

// find finds the files to read and the libraries that they make.
func (r *run) find() error {
	if r.options.Parts != nil {
		if err := r.findParts(r.options.Parts); err != nil {
			return err
		}
		return r.changedParts()
	}
	set := r.options.Settings
	found, err := discover.Find(r.ctx, r.fsys, discover.Options{
		FrontEnds: r.options.FrontEnds, Read: set.Read, Site: set.Write.Site, Folder: r.options.Folder, Everything: r.options.Everything,
	})
	var wrong *discover.PathError
	if errors.As(err, &wrong) {
		return r.pathError("read", wrong.Path, wrong.Err)
	}
	if err != nil {
		return err
	}
	for _, p := range found.Problems {
		f := CannotRead(p.Path, p.Err)
		if p.Link && !p.Named {
			f.Severity = finding.Note // nobody can tell that it would be source
		}
		r.lasts(f)
	}
	r.libraries, r.asked = found.Libraries, found.Asked
	return nil
}

// lasts notes a finding that goes on to hold while files of the source change.
func (r *run) lasts(f finding.Finding) {
	r.lasting = append(r.lasting, f)
	r.snapshot.Findings = append(r.snapshot.Findings, f)
}

// CannotRead is the finding of a file that cannot be read.
func CannotRead(path string, err error) finding.Finding {
	return finding.Finding{
		Rule: finding.UnreadableSource, Form: "file", Place: finding.Place{File: path, At: source.Position{Line: 1, Column: 1}},
		Arguments: []finding.Argument{{Name: "problem", Value: PlainReason(err)}},
	}
}

// PlainReason says a file error without the operation and path that the place already names.
func PlainReason(err error) string {
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

// job is one file to read, and where its facts go.
type job struct {
	lib  *model.Contents
	file discover.File
	to   int
}

// jobs lists the files to read, the largest first so that no worker is left
// alone with one at the end.
func (r *run) jobs() []job {
	var jobs []job
	tests := r.readsTests()
	for _, lib := range r.libraries {
		files := lib.Files
		if !tests {
			files = slices.DeleteFunc(slices.Clone(files), func(f discover.File) bool { return !r.readsWithoutTests(f) })
		}
		lib.Model.Files = make([]*model.Facts, len(files))
		for i, f := range files {
			jobs = append(jobs, job{lib: lib.Model, file: f, to: i})
		}
	}
	slices.SortStableFunc(jobs, func(a, b job) int { return cmp.Compare(b.file.Size, a.file.Size) })
	return jobs
}

// mostTestBytes is the size of all test files above which a build leaves them alone:
// what they say of the code is not worth the time they take.
const mostTestBytes = 8_000_000

// readsTests reports whether all test files are read.
func (r *run) readsTests() bool {
	return r.options.Tests || r.options.TestNames && r.testBytes() <= mostTestBytes
}

// readsWithoutTests reports whether a file is read even where not all tests are.
func (r *run) readsWithoutTests(f discover.File) bool {
	return !discover.IsTest(f) || r.options.TestNames && mayHaveExamples(f)
}

func (r *run) testBytes() (bytes int64) {
	for _, lib := range r.libraries {
		for _, f := range lib.Files {
			if discover.IsTest(f) {
				bytes += f.Size
			}
		}
	}
	return bytes
}

// mayHaveExamples reports whether a test file holds examples for the pages: those are
// read although there are too many tests.
func mayHaveExamples(f discover.File) bool {
	exampler, ok := f.End.(lang.Exampler)
	return ok && exampler.MayHaveExamples(f.Path)
}

// readFiles reads all jobs. Results go to their own places, so that the order
// in which workers finish shows nowhere.
func (r *run) readFiles(jobs []job) error {
	problems := make([][]finding.Finding, len(jobs))
	var done atomic.Int64
	err := parallel.Each(r.ctx, r.workers(), len(jobs), func(i int) {
		j := jobs[i]
		j.lib.Files[j.to], problems[i] = r.readFile(j.file)
		r.progress(int(done.Add(1)))
	})
	for i, list := range problems {
		if len(list) > 0 {
			r.problems[jobs[i].file.Path] = list
		}
		r.snapshot.Findings = append(r.snapshot.Findings, list...)
		r.snapshot.Stats.Bytes += jobs[i].file.Size
	}
	r.snapshot.Stats.Files = len(jobs)
	return err
}

// readFile reads one file, or takes what an earlier run read of it. There are no facts
// where it cannot be read.
func (r *run) readFile(file discover.File) (*model.Facts, []finding.Finding) {
	if facts, problems, known := r.known(file); known {
		return facts, problems
	}
	facts, problems, _ := r.readSummed(file)
	return facts, problems
}

// readSummed reads one file, and gives the SHA-256 sum of its bytes where sums are asked for.
func (r *run) readSummed(file discover.File) (facts *model.Facts, problems []finding.Finding, sum [sha256.Size]byte) {
	if file.Size > largestFile {
		return nil, []finding.Finding{CannotRead(file.Path, fmt.Errorf("it is larger than %d MB; leave it out with \"skip\"", largestFile>>20))}, sum
	}
	data, err := fs.ReadFile(r.fsys, file.Path)
	if err != nil {
		return nil, []finding.Finding{CannotRead(file.Path, err)}, sum
	}
	if r.options.sums {
		sum = sha256.Sum256(data)
	}
	if facts, problems = r.readText(file, data); facts == nil {
		return nil, problems, sum
	}
	if !facts.Generated && matchesAny(r.options.Settings.Generated, file.Path) {
		facts.Generated = true
	}
	if facts.Role == model.RoleTest && !r.options.Tests {
		return facts, nil, sum // tests may well hold what cannot be read
	}
	return facts, facts.Problems, sum
}

// other gives the bytes of a file that a comment takes text from, or nil.
func (r *run) other(file string) []byte {
	if !fs.ValidPath(file) {
		return nil
	}
	if info, err := fs.Stat(r.fsys, file); err != nil || !info.Mode().IsRegular() || info.Size() > largestTaken {
		return nil
	}
	data, err := fs.ReadFile(r.fsys, file)
	if err != nil {
		return nil
	}
	return data
}

// largestTaken is the size of a file that a comment may take text from, in bytes.
const largestTaken = 8 << 20

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
