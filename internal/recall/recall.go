// Package recall owns what is remembered of a build: every file and folder that
// it asked for, with a sum of what was there, and what the caller wants to keep
// beside that. A build whose questions would all get the same answers again need
// not be done again.
//
// Sums are of contents, never of times alone: an answer counts as the same only
// where its bytes are. The package knows neither the pipeline nor the site.
package recall

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"io/fs"
	"path"
	"slices"
	"strings"
	"sync"

	"codrel/internal/parallel"

	"github.com/cespare/xxhash/v2"
)

// Question is one thing that was asked of a file system.
type Question struct {
	Kind Kind
	Path string
}

// Kind tells what was asked.
type Kind uint8

// The kinds of questions.
const (
	File   Kind = iota // the bytes of a file
	Folder             // the names in a folder, and what each is
	State              // what is at a path, and how large it is
)

// Sum stands for an answer: it tells changes apart, and is no proof against
// somebody who means to be mistaken for somebody else.
type Sum uint64

// Answered is a question with the sum of its answer.
type Answered struct {
	Question
	Sum Sum
}

// Recorder is a file system that notes what it is asked. It is safe for use by
// several goroutines.
type Recorder struct {
	inner fs.FS
	made  string
	mu    sync.Mutex
	noted map[Question]Sum
}

// Record makes a recorder of a file system. What is made at a path is no part of what was
// there: the folder around it is the same with and without it. made may be "".
func Record(inner fs.FS, made string) *Recorder {
	return &Recorder{inner: inner, made: made, noted: map[Question]Sum{}}
}

// Answers are all questions so far with their answers, sorted.
func (r *Recorder) Answers() []Answered {
	r.mu.Lock()
	defer r.mu.Unlock()
	out := make([]Answered, 0, len(r.noted))
	for q, sum := range r.noted {
		out = append(out, Answered{q, sum})
	}
	slices.SortFunc(out, func(a, b Answered) int { return cmp.Or(strings.Compare(a.Path, b.Path), cmp.Compare(a.Kind, b.Kind)) })
	return out
}

func (r *Recorder) note(kind Kind, name string, sum Sum) {
	r.mu.Lock()
	r.noted[Question{kind, name}] = sum
	r.mu.Unlock()
}

// Open opens a file. What is read from it is not noted piece by piece: the whole
// file is, now.
func (r *Recorder) Open(name string) (fs.File, error) {
	r.note(File, name, ask(r.inner, Question{File, name}, r.made))
	return r.inner.Open(name)
}

// ReadFile reads a file whole.
func (r *Recorder) ReadFile(name string) ([]byte, error) {
	data, err := fs.ReadFile(r.inner, name)
	r.note(File, name, sumOfFile(data, err))
	return data, err
}

// ReadDir lists a folder.
func (r *Recorder) ReadDir(name string) ([]fs.DirEntry, error) {
	entries, err := fs.ReadDir(r.inner, name)
	r.note(Folder, name, sumOfFolder(name, entries, err, r.made))
	return entries, err
}

// Stat says what is at a path, behind links.
func (r *Recorder) Stat(name string) (fs.FileInfo, error) {
	info, err := fs.Stat(r.inner, name)
	r.note(State, name, sumOfState(info, err))
	return info, err
}

// ask answers a question anew.
func ask(fsys fs.FS, q Question, made string) Sum {
	switch q.Kind {
	case Folder:
		entries, err := fs.ReadDir(fsys, q.Path)
		return sumOfFolder(q.Path, entries, err, made)
	case State:
		info, err := fs.Stat(fsys, q.Path)
		return sumOfState(info, err)
	}
	data, err := fs.ReadFile(fsys, q.Path)
	return sumOfFile(data, err)
}

// SumOf is the sum of a file's bytes, or of why they could not be read.
func SumOf(data []byte, err error) Sum { return sumOfFile(data, err) }

func sumOfFile(data []byte, err error) Sum {
	if err != nil {
		return sumOfError(err)
	}
	return Sum(xxhash.Sum64(data))
}

func sumOfFolder(folder string, entries []fs.DirEntry, err error, made string) Sum {
	if err != nil {
		return sumOfError(err)
	}
	var b strings.Builder
	for _, e := range entries {
		if e.IsDir() && path.Join(folder, e.Name()) == made {
			continue
		}
		fmt.Fprintf(&b, "%q %s\n", e.Name(), e.Type())
	}
	return Sum(xxhash.Sum64String("folder\n" + b.String()))
}

func sumOfState(info fs.FileInfo, err error) Sum {
	if err != nil {
		return sumOfError(err)
	}
	size := info.Size()
	if info.IsDir() {
		size = 0 // it says nothing of what is in the folder
	}
	return Sum(xxhash.Sum64(fmt.Appendf(nil, "state %s %d", info.Mode().Type(), size)))
}

// sumOfError keeps the reason and leaves out the path, which an error may or may
// not name whole.
func sumOfError(err error) Sum {
	var wrong *fs.PathError
	if errors.As(err, &wrong) {
		err = wrong.Err
	}
	return Sum(xxhash.Sum64String("error " + err.Error()))
}

// Same reports whether a file system gives all answers again that a recorder noted which
// was told the same of what is made. It stops at the first that differs.
func Same(ctx context.Context, fsys fs.FS, made string, answers []Answered, workers int) bool {
	same, stop := context.WithCancel(ctx)
	defer stop()
	return parallel.Each(same, workers, len(answers), func(i int) {
		if ask(fsys, answers[i].Question, made) != answers[i].Sum {
			stop()
		}
	}) == nil
}
