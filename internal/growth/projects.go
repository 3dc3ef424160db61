package growth

import (
	"fmt"
	"maps"
	"strings"
)

// Copies are as many copies of files, each in a folder of its own.
func Copies(name string, files map[string]string) Project {
	return Project{name + " in many folders", func(n int) map[string]string {
		out := map[string]string{}
		for i := range n {
			for path, text := range files {
				out[fmt.Sprintf("d%d/%s", i, path)] = text
			}
		}
		return out
	}}
}

// Lines is a project of one file that has a line, or several, for each part: %d in them is
// the number of the part, and %[2]d that of the part before. Other files come with it.
func Lines(name, path, head, line, tail string, others map[string]string) Project {
	return Project{name, func(n int) map[string]string {
		var b strings.Builder
		b.WriteString(head)
		for i := range n {
			fmt.Fprintf(&b, line, i, max(0, i-1))
		}
		b.WriteString(tail)
		out := maps.Clone(others)
		if out == nil {
			out = map[string]string{}
		}
		out[path] = b.String()
		return out
	}}
}

// Files is a project of a file for each part, with the same in its path and text.
func Files(name, path, text string, others map[string]string) Project {
	return Project{name, func(n int) map[string]string {
		out := maps.Clone(others)
		if out == nil {
			out = map[string]string{}
		}
		for i := range n {
			out[fmt.Sprintf(path, i)] = fmt.Sprintf(text, i, max(0, i-1))
		}
		return out
	}}
}
