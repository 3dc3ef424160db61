package build

import (
	"errors"
	"io/fs"
	"path"
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/settings"
	"codrel/internal/source"
)

// fragments reads the pieces of text that comments and the landing page insert: the
// Markdown files in the folder that the settings name, else in a usual one.
func (r *run) fragments() error {
	folders := settings.FragmentFolders
	if named := r.options.Settings.Fragments; named != "" {
		info, err := fs.Stat(r.fsys, named)
		if err == nil && !info.IsDir() {
			err = errors.New("it is not a folder")
		}
		if err != nil {
			return r.pathError("fragments", named, err)
		}
		folders = []string{named}
	}
	for _, folder := range folders {
		if info, err := fs.Stat(r.fsys, folder); err != nil || !info.IsDir() {
			continue
		}
		err := fs.WalkDir(r.fsys, folder, func(file string, e fs.DirEntry, err error) error {
			if err == nil && e.Type().IsRegular() && strings.EqualFold(path.Ext(file), ".md") {
				r.fragment(folder, file)
			}
			return r.ctx.Err()
		})
		if err != nil && !errors.Is(err, fs.ErrNotExist) {
			return err
		}
		break
	}
	slices.SortFunc(r.snapshot.Project.Fragments, func(a, b model.Fragment) int { return strings.Compare(a.Name, b.Name) })
	return nil
}

func (r *run) fragment(folder, file string) {
	data, err := fs.ReadFile(r.fsys, file)
	if err != nil {
		r.snapshot.Findings = append(r.snapshot.Findings, CannotRead(file, err))
		return
	}
	text := source.Decode(data)
	name := strings.TrimPrefix(file[:len(file)-len(path.Ext(file))], folder+"/")
	r.snapshot.Project.Fragments = append(r.snapshot.Project.Fragments, model.Fragment{
		Name: name, Page: &model.Page{Path: file, Text: text.String, Lines: text.Lines},
	})
}
