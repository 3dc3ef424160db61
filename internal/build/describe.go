package build

import (
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"slices"

	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/source"
)

// describe gives modules the texts of the Markdown files that the settings name for them,
// behind the comments that they have in the source.
func (r *run) describe() error {
	set := r.options.Settings
	for _, module := range slices.Sorted(maps.Keys(set.Describe)) {
		file := set.Describe[module]
		modules := r.named(module)
		if len(modules) == 0 {
			return r.noModule(module)
		}
		r.asked[file] = true
		data, err := fs.ReadFile(r.fsys, file)
		if err != nil {
			return r.pathError("describe", file, err)
		}
		text := source.Decode(data)
		for _, m := range modules {
			facts := &model.Facts{Path: file, Language: m.Library.Language, Text: text.String, Lines: text.Lines, Encoding: text.Encoding}
			whole := source.NewSpan(0, len(text.String))
			m.Doc = append(m.Doc, model.DocOf{File: facts, Doc: &model.Doc{Text: text.String, Lines: linesOf(text.String), Span: whole, Dialect: "markdown"}})
		}
	}
	return nil
}

// named are the modules of all libraries with a path.
func (r *run) named(path string) (out []*model.Module) {
	for _, lib := range r.snapshot.Project.Libraries {
		for _, m := range lib.Modules {
			if m.Path == path {
				out = append(out, m)
			}
		}
	}
	return out
}

// noModule is the error of a path that is no module's.
func (r *run) noModule(path string) error {
	var paths []string
	for _, lib := range r.snapshot.Project.Libraries {
		for _, m := range lib.Modules {
			paths = append(paths, m.Path)
		}
	}
	message := "there is no such module"
	if near := nearest.Word(path, paths); near != "" {
		message = fmt.Sprintf("there is no such module; did you mean %s?", near)
	}
	return r.pathError("describe", path, errors.New(message))
}

// linesOf are the lines of a text.
func linesOf(text string) (lines []source.Span) {
	from := 0
	for i := range len(text) {
		if text[i] == '\n' {
			lines = append(lines, source.NewSpan(from, i))
			from = i + 1
		}
	}
	return append(lines, source.NewSpan(from, len(text)))
}
