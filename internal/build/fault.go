package build

import (
	"fmt"
	"path"
	"runtime"
	"strings"

	"codrel/internal/discover"
	"codrel/internal/finding"
	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/source"
)

// readText reads the text of a file. Where a front end panics, which is a fault of its own,
// there are no facts but a finding that says so, and the other files are read.
func (r *run) readText(file discover.File, data []byte) (facts *model.Facts, fault []finding.Finding) {
	defer func() {
		if problem := recover(); problem != nil {
			facts = nil
			fault = []finding.Finding{{
				Rule: finding.UnreadableSource, Form: "fault", Place: finding.Place{File: file.Path, At: source.Position{Line: 1, Column: 1}},
				Arguments: []finding.Argument{{Name: "problem", Value: fmt.Sprintf("%v, in %s", problem, panicked())}},
			}}
		}
	}()
	return file.End.Read(lang.File{Path: file.Path, Text: source.Decode(data), Deep: r.options.Inside || discover.IsTest(file), Other: r.other, Macros: file.Macros, Plain: file.Plain}), nil
}

// panicked is the place in Codrel's own source at which a panic came up that is being
// recovered from: "python/assignments.go:60".
func panicked() string {
	var calls [64]uintptr
	frames := runtime.CallersFrames(calls[:runtime.Callers(1, calls[:])])
	below := false
	for {
		frame, more := frames.Next()
		if below && !strings.HasPrefix(frame.Function, "runtime.") {
			dir, file := path.Split(frame.File)
			return fmt.Sprintf("%s/%s:%d", path.Base(dir), file, frame.Line)
		}
		below = below || frame.Function == "runtime.gopanic"
		if !more {
			return "an unknown place"
		}
	}
}
