// Package parts owns the streams that carry the facts of a project's files from one
// machine to another: one line of JSON for each file, between a line that says what the
// stream is and one that says that it is whole.
//
// Nothing of a file is left out: text, imports, signatures, raw comments, spans, problems,
// and a sum of its bytes. The symbol stream is a view of the same facts. The package writes
// and reads; how facts are found, and what becomes of them, it does not know.
package parts

import (
	"fmt"

	"codrel/internal/finding"
	"codrel/internal/model"
)

// Version is the version of the form. A reader takes no other: facts of another version
// may mean something else.
const Version = 1

// Header is the first line of a stream.
type Header struct {
	Facts     int               `json:"facts"`   // [Version]
	Program   string            `json:"program"` // the version of Codrel that wrote it
	Libraries []Library         `json:"libraries"`
	Problems  []finding.Finding `json:"problems,omitempty"` // of what could not be looked at
}

// Library is a library of the project, as its files make it known.
type Library struct {
	Name     string                `json:"name"`
	Language string                `json:"language"`
	Root     string                `json:"root"`
	Prefix   string                `json:"prefix,omitempty"`
	Version  string                `json:"version,omitempty"`
	Package  string                `json:"package,omitempty"`
	Entries  []model.Entry         `json:"entries,omitempty"`
	Inside   []model.Entry         `json:"inside,omitempty"`
	Imports  []string              `json:"imports,omitempty"`
	Begins   []model.Begin         `json:"begins,omitempty"`
	Sayings  []model.Saying        `json:"sayings,omitempty"`
	Passed   []model.SkippedFolder `json:"passed,omitempty"`
	Open     []string              `json:"open,omitempty"`
}

// File is one file of the project.
type File struct {
	Path       string            `json:"path"`
	Library    string            `json:"library"` // its name
	Size       int64             `json:"size"`
	Sum        string            `json:"sum"`                  // of its bytes: SHA-256, in hexadecimal digits
	StreamOnly bool              `json:"streamOnly,omitempty"` // it says the same as others, or the language's tools leave it out
	Problems   []finding.Finding `json:"problems,omitempty"`   // why it could not be read
	Facts      *model.Facts      `json:"-"`                    // nil where it could not be read
}

// trailer is the last line of a stream.
type trailer struct {
	Files int    `json:"files"`
	Sum   string `json:"sumOfAll"` // of all bytes before the line
}

// Error is what is wrong with a stream.
type Error struct {
	Stream string // its name
	Line   int    // 0 for the stream as a whole
	Reason string
}

// Error names the stream and the line.
func (e *Error) Error() string {
	if e.Line > 0 {
		return fmt.Sprintf("%s:%d: %s", e.Stream, e.Line, e.Reason)
	}
	return fmt.Sprintf("%s: %s", e.Stream, e.Reason)
}
