package build

import (
	"errors"
	"io/fs"
	"path"
	"slices"
	"strings"

	"codrel/internal/guide"
	"codrel/internal/model"
	"codrel/internal/settings"
	"codrel/internal/source"
)

// guides reads the pages by the maintainer: the landing page, which is what the settings
// name, else the README, and the Markdown files in the folder of guides.
func (r *run) guides() error {
	if err := r.landing(); err != nil {
		return err
	}
	folder, err := r.guideFolder()
	if folder == "" || err != nil {
		return err
	}
	files, problems, err := source.Find(r.ctx, r.fsys, source.Search{Within: []string{folder}, Skip: r.noGuides(folder), Wanted: isMarkdown})
	if err != nil {
		return err
	}
	for _, p := range problems {
		r.snapshot.Findings = append(r.snapshot.Findings, CannotRead(p.Path, p.Err))
	}
	var drafts []guide.Draft
	for _, file := range files {
		if slices.ContainsFunc(r.snapshot.Project.Guides, func(g *model.Page) bool { return g.Path == file.Path }) {
			continue
		}
		data, err := fs.ReadFile(r.fsys, file.Path)
		if err != nil {
			r.snapshot.Findings = append(r.snapshot.Findings, CannotRead(file.Path, err))
			continue
		}
		drafts = append(drafts, guide.New(folder, file.Path, source.Decode(data)))
	}
	pages, found := guide.Arrange(drafts, r.options.Settings.Guides.Order, r.options.Settings.File)
	r.snapshot.Project.Guides = append(r.snapshot.Project.Guides, pages...)
	r.snapshot.Findings = append(r.snapshot.Findings, found...)
	return nil
}

// landing reads the text of the site's first page.
func (r *run) landing() error {
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
	d := guide.New(path.Dir(name), name, source.Decode(data))
	d.Page.Landing, d.Page.Name = true, ""
	r.snapshot.Findings = append(r.snapshot.Findings, d.Findings()...)
	r.snapshot.Project.Guides = append(r.snapshot.Project.Guides, d.Page)
	return nil
}

// guideFolder is the folder of the guides: what the settings name, else a usual one; "" where
// there is none.
func (r *run) guideFolder() (string, error) {
	named := r.options.Settings.Guides.Folder
	if named == "" {
		for _, folder := range settings.GuideFolders {
			if info, err := fs.Stat(r.fsys, folder); err == nil && info.IsDir() {
				return folder, nil
			}
		}
		return "", nil
	}
	info, err := fs.Stat(r.fsys, named)
	if err == nil && !info.IsDir() {
		err = errors.New("it is not a folder")
	}
	if err != nil {
		return "", r.pathError("guides", named, err)
	}
	return named, nil
}

// noGuides are patterns of the Markdown files in the folder of guides that are none: fragments,
// what describes modules, and the site itself.
func (r *run) noGuides(folder string) (patterns []string) {
	set := r.options.Settings
	folders := append([]string{set.Write.Site}, settings.FragmentFolders...)
	if set.Fragments != "" {
		folders = []string{set.Write.Site, set.Fragments}
	}
	for _, f := range folders {
		if f != folder {
			patterns = append(patterns, source.EscapeGlob(path.Clean(f))+"/**")
		}
	}
	for _, file := range set.Describe {
		patterns = append(patterns, source.EscapeGlob(file))
	}
	return append(patterns, "**/_*/**", "**/node_modules/**")
}

// isMarkdown reports whether a file is one of Markdown, by its ending.
func isMarkdown(file string) bool {
	ext := strings.ToLower(path.Ext(file))
	return ext == ".md" || ext == ".markdown"
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
