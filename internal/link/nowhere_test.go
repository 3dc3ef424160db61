package link_test

import (
	"codrel/internal/build"
	"codrel/internal/finding"
)

// leadNowhere are the references of a project that lead nowhere, as they are written, in the order of the findings.
func leadNowhere(s *build.Snapshot) (out []string) {
	for _, f := range s.Findings {
		if f.Rule == finding.BrokenReference {
			out = append(out, f.Arg("text"))
		}
	}
	return out
}
