// Package guide owns what guides say of themselves before anybody reads their text: their
// front matter, their names, the parts that they belong to, and the order in which they are
// read.
//
// It knows neither the text of a guide nor what the text names.
package guide

import (
	"fmt"
	"strconv"
	"strings"

	"go.yaml.in/yaml/v3"

	"codrel/internal/finding"
	"codrel/internal/nearest"
	"codrel/internal/source"
)

// Front is what the front matter of a guide says: YAML between two lines of "---" at the top
// of the file. Keys that are others' are passed over.
type Front struct {
	Title, Part string
	After       string // the guide that it is read after, as written
	AfterSpan   source.Span
	End         int // where the text begins
	Problems    []Problem
}

// Problem is what is wrong with a front matter.
type Problem struct {
	Form   string // of the rule's message
	Span   source.Span
	Values []finding.Argument
}

// largestFront is how many bytes a front matter may have: it holds a few words.
const largestFront = 16 << 10

// ReadFront takes the front matter off a text. A text without one has an empty Front.
func ReadFront(text string) Front {
	inside, end, open := frontOf(text)
	switch {
	case open:
		return Front{Problems: []Problem{{Form: "open", Span: source.NewSpan(0, 3)}}}
	case end == 0:
		return Front{}
	}
	f := Front{End: end}
	lines := source.NewLines(text)
	f.read(text[inside[0]:inside[1]], func(n *yaml.Node) source.Span {
		start := int(lines.Start(n.Line+1)) + n.Column - 1
		return source.NewSpan(min(start, end), min(start+len(n.Value), end))
	})
	return f
}

// frontOf finds the lines between the two marks, and the end of the second; open tells that
// the first is there alone before what reads like a key.
func frontOf(text string) (inside [2]int, end int, open bool) {
	first, rest, ok := strings.Cut(text, "\n")
	if strings.TrimRight(first, " \t\r") != "---" || !ok {
		return inside, 0, false
	}
	start := len(first) + 1
	at := start
	for at < len(text) && at < largestFront {
		line, _, ended := strings.Cut(text[at:], "\n")
		next := at + len(line)
		if ended {
			next++
		}
		if mark := strings.TrimRight(line, " \t\r"); mark == "---" || mark == "..." {
			return [2]int{start, at}, next, false
		}
		at = next
	}
	key, _, colon := strings.Cut(rest, ":")
	return inside, 0, colon && key != "" && !strings.ContainsAny(key, " \n")
}

func (f *Front) read(matter string, spanOf func(*yaml.Node) source.Span) {
	fail := func(form string, span source.Span, values ...finding.Argument) {
		f.Problems = append(f.Problems, Problem{form, span, values})
	}
	var document yaml.Node
	if err := yaml.Unmarshal([]byte(matter), &document); err != nil {
		line, message := yamlError(err)
		fail("front", spanOf(&yaml.Node{Line: line, Column: 1}), value("problem", message))
		return
	}
	if len(document.Content) == 0 {
		return
	}
	root := document.Content[0]
	if root.Kind != yaml.MappingNode {
		fail("front", spanOf(root), value("problem", "it has no keys with values"))
		return
	}
	known := map[string]*string{"title": &f.Title, "part": &f.Part, "after": &f.After}
	names := []string{"title", "part", "after"}
	for i := 0; i+1 < len(root.Content); i += 2 {
		key, said := root.Content[i], root.Content[i+1]
		to := known[key.Value]
		switch near := nearest.Word(key.Value, names); {
		case to == nil && near != "":
			fail("near key", spanOf(key), value("key", key.Value), value("near", near))
		case to == nil:
		case said.Kind != yaml.ScalarNode:
			fail("front", spanOf(said), value("problem", fmt.Sprintf("%q must be text", key.Value)))
		default:
			*to = strings.TrimSpace(said.Value)
			if key.Value == "after" {
				f.AfterSpan = spanOf(said)
			}
		}
	}
}

// yamlError is the line and the message of the YAML package's error, which has both in its
// text only.
func yamlError(err error) (line int, message string) {
	message = strings.TrimPrefix(err.Error(), "yaml: ")
	rest, ok := strings.CutPrefix(message, "line ")
	number, said, cut := strings.Cut(rest, ": ")
	if n, err := strconv.Atoi(number); ok && cut && err == nil {
		return n, said
	}
	return 1, message
}
