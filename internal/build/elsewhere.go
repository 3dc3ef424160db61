package build

import (
	"cmp"
	"errors"
	"io/fs"
	"path"
	"strings"
	"sync"

	"codrel/internal/finding"
	"codrel/internal/link"
	"codrel/internal/settings"
	"codrel/internal/source"
	"codrel/internal/symbols"
)

// Outside is the way to what lies outside the project and is named by its settings.
type Outside struct {
	// Read reads a file whose path is from the project's folder, or absolute. A
	// path that is a folder gives an error of [fs.ErrInvalid].
	Read func(path string) ([]byte, error)
	// Way is how pages at the root of the site that is built reach a folder; it ends in "/".
	Way func(folder string) string
}

func patterns(s *settings.Settings) []link.Pattern {
	var out []link.Pattern
	for _, e := range s.Elsewhere {
		if e.Modules != "" {
			out = append(out, link.Pattern{Modules: e.Modules, Page: e.Page})
		}
	}
	return out
}

// outside reads the names of all other projects that the settings name. What cannot
// be read is a finding, and those names are as unknown as if nobody had named them.
func (r *run) outside() []link.Outside {
	var out []link.Outside
	for _, e := range r.options.Settings.Elsewhere {
		if e.Symbols.Text == "" {
			continue
		}
		file, table, err := r.readSymbols(e.Symbols.Text)
		if err != nil {
			r.lasts(finding.Finding{
				Rule: finding.UnreadableSource, Form: "symbols",
				Place:     finding.Place{File: cmp.Or(r.options.Settings.File, settings.FileName), At: e.Symbols.At},
				Arguments: []finding.Argument{{Name: "file", Value: file}, {Name: "problem", Value: PlainReason(err)}},
			})
			continue
		}
		out = append(out, link.Outside{
			Table: table, Site: r.siteOf(e, file, table),
			Texts: sync.OnceValue(func() map[string]map[string]string { return r.readTexts(file) }),
		})
	}
	return out
}

// readSymbols reads the file that a path names, or the one in the folder it names.
func (r *run) readSymbols(name string) (file string, t *symbols.Table, err error) {
	if r.options.Outside.Read == nil {
		return name, nil, errors.New("files outside the project are not read here")
	}
	file = name
	data, err := r.options.Outside.Read(file)
	if errors.Is(err, fs.ErrInvalid) {
		file = path.Join(name, symbols.FileName)
		data, err = r.options.Outside.Read(file)
	}
	if err != nil {
		return file, nil, err
	}
	t, err = symbols.Read([]byte(source.Decode(data).String))
	return file, t, err
}

// readTexts reads the texts beside a file of names. A site without them has none.
func (r *run) readTexts(file string) map[string]map[string]string {
	data, err := r.options.Outside.Read(path.Join(path.Dir(file), symbols.TextsName))
	if err != nil {
		return nil
	}
	texts, err := symbols.ReadTexts(data)
	if err != nil {
		return nil
	}
	return texts
}

// siteOf is where the pages of another project are: where the settings say, where
// its site says that it is served from, or around the file that was read.
func (r *run) siteOf(e settings.Elsewhere, file string, t *symbols.Table) string {
	switch {
	case strings.HasPrefix(e.Site, "http:"), strings.HasPrefix(e.Site, "https:"):
		return e.Site
	case e.Site == "" && t.Site != "":
		return t.Site
	}
	folder := cmp.Or(e.Site, path.Dir(file))
	if r.options.Outside.Way == nil {
		return folder + "/"
	}
	return r.options.Outside.Way(folder)
}
