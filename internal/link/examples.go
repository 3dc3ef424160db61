package link

import (
	"sort"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file finds the examples among tests, by the names that the language gives them.

// Example is a test function that shows how something is used.
type Example struct {
	Name    string // of the function
	Variant string // what tells it from others of the same declaration, or ""
	At      model.At
	Code    string
	Output  string // what it is said to print, or ""
}

// Examples are those of a declaration, or of a module as a whole where d is nil, in the
// order of files and lines.
func (x *Index) Examples(m *model.Module, d *model.Declaration) []Example {
	if d == nil {
		return x.examples()[m]
	}
	return x.examples()[d]
}

// findExamples finds them by what they exemplify: a declaration, or a module.
func (x *Index) findExamples() map[any][]Example {
	out := map[any][]Example{}
	for _, lib := range x.Project.Libraries {
		exampler, ok := x.FrontEnd(lib.Language).(lang.Exampler)
		if !ok {
			continue
		}
		code := map[string]*model.Module{}
		for _, m := range lib.Modules {
			code[m.Path] = m
		}
		for _, tests := range lib.Tests {
			m := code[exampler.TestedModule(tests.Path)]
			if m == nil {
				continue
			}
			for d := range tests.Declarations {
				if e, of := example(exampler, m, d); of != nil {
					out[of] = append(out[of], e)
				}
			}
		}
	}
	return out
}

// example makes an example of a test's declaration, and finds what it exemplifies: nil
// where it is none, or of something that is not there.
func example(exampler lang.Exampler, m *model.Module, d *model.Declaration) (e Example, of any) {
	if d.Kind() != model.KindFunction || d.Parent != nil || d.Speaks(model.Words).Callable == nil || len(d.Speaks(model.Words).Callable.Params) > 0 {
		return e, nil
	}
	path, variant, ok := exampler.ExampleOf(d.Name)
	if !ok {
		return e, nil
	}
	at := d.Speaks(model.Words)
	e = Example{Name: d.Name, Variant: variant, At: at}
	e.Code, e.Output = exampler.Example(withBody(at))
	switch subject := m.Lookup(path); {
	case e.Code == "":
		return e, nil
	case path == "":
		return e, m
	case subject != nil:
		return e, subject
	}
	return e, nil
}

// withBody is the text of a function with its body, where the file tells where that is.
func withBody(at model.At) string {
	span := at.Span
	if at.File.Inside != nil {
		bodies := at.File.Inside.Bodies
		i := sort.Search(len(bodies), func(i int) bool { return bodies[i].Start >= at.Span.End })
		if i < len(bodies) && strings.TrimSpace(at.File.Text[at.Span.End:bodies[i].Start]) == "" {
			span.End = bodies[i].End
		}
	}
	return span.In(at.File.Text)
}
