package golang

import (
	"strings"
	"unicode"
	"unicode/utf8"
)

// This file knows the examples that the testing package runs (its own words on
// "Examples" say how they are named).

// MayHaveExamples is true of the files that are called so.
func (FrontEnd) MayHaveExamples(path string) bool {
	file := path[strings.LastIndexByte(path, '/')+1:]
	return strings.HasPrefix(file, "example") && strings.HasSuffix(file, "_test.go")
}

// TestedModule takes the ending off that packages of tests have.
func (FrontEnd) TestedModule(path string) string { return strings.TrimSuffix(path, "_test") }

// ExampleOf reads "Example", "ExampleF", "ExampleT_M" and "ExampleT_M_variant"; a
// variant begins with a small letter.
func (FrontEnd) ExampleOf(name string) (path, variant string, ok bool) {
	rest, ok := strings.CutPrefix(name, "Example")
	if !ok {
		return "", "", false
	}
	if rest != "" && rest[0] != '_' {
		if r, _ := utf8.DecodeRuneInString(rest); unicode.IsLower(r) {
			return "", "", false // a word such as "Examples" begins so
		}
	}
	parts := strings.Split(rest, "_")
	for i, part := range parts {
		r, _ := utf8.DecodeRuneInString(part)
		if i > 0 && (unicode.IsLower(r) || i > 2) {
			return strings.Join(parts[:i], "."), strings.Join(parts[i:], " "), true
		}
	}
	return strings.Join(parts, "."), "", true
}

// Example takes the body of the function, without its last comment where that is the output.
func (FrontEnd) Example(text string) (code, output string) {
	open, end := strings.IndexByte(text, '{'), strings.LastIndexByte(text, '}')
	if open < 0 || end < open {
		return "", ""
	}
	var lines []string
	for line := range strings.Lines(strings.TrimRight(text[open+1:end], " \t\r\n")) {
		lines = append(lines, strings.TrimRight(strings.TrimPrefix(line, "\t"), "\r\n"))
	}
	for len(lines) > 0 && strings.TrimSpace(lines[0]) == "" {
		lines = lines[1:]
	}
	if len(lines) == 1 {
		lines[0] = strings.TrimSpace(lines[0])
	}
	first := len(lines)
	for first > 0 && strings.HasPrefix(lines[first-1], "//") {
		first--
	}
	for i := first; i < len(lines); i++ {
		word := strings.TrimSpace(strings.TrimPrefix(lines[i], "//"))
		for _, mark := range []string{"Output:", "Unordered output:", "output:", "unordered output:"} {
			said, ok := strings.CutPrefix(word, mark)
			if !ok {
				continue
			}
			said = strings.TrimSpace(said)
			out := []string{said}
			if said == "" {
				out = nil
			}
			for _, l := range lines[i+1:] {
				out = append(out, strings.TrimPrefix(strings.TrimPrefix(l, "//"), " "))
			}
			return strings.TrimRight(strings.Join(lines[:i], "\n"), "\n"), strings.Trim(strings.Join(out, "\n"), "\n")
		}
	}
	return strings.Join(lines, "\n"), ""
}
