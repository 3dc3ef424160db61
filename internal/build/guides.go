package build

import (
	"io/fs"
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// guides reads the pages by the maintainer: the landing page is what the settings name,
// else the README.
func (r *run) guides() error {
	name := r.options.Settings.Home
	if name == "" {
		name = findReadme(r.fsys)
	}
	if name == "" {
		return nil
	}
	data, err := fs.ReadFile(r.fsys, name)
	if err != nil {
		if r.options.Settings.Home == "" {
			r.snapshot.Findings = append(r.snapshot.Findings, CannotRead(name, err))
			return nil
		}
		return r.pathError("home", name, err)
	}
	text := source.Decode(data)
	r.snapshot.Project.Guides = append(r.snapshot.Project.Guides, &model.Page{Path: name, Text: text.String, Lines: text.Lines, Landing: true})
	return nil
}

func findReadme(fsys fs.FS) string {
	entries, err := fs.ReadDir(fsys, ".")
	if err != nil {
		return ""
	}
	for _, want := range []string{"readme.md", "readme.markdown", "readme.txt", "readme"} {
		for _, e := range entries {
			if strings.ToLower(e.Name()) == want && !e.IsDir() {
				return e.Name()
			}
		}
	}
	return ""
}
