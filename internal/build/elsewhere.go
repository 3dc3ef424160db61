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
	"codrel/internal/xmldoc"
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
		if e.XML.Text != "" {
			if o, ok := r.documented(e.XML); ok {
				out = append(out, o)
			}
			continue
		}
		if e.Symbols.Text == "" {
			continue
		}
		file, table, err := r.readSymbols(e.Symbols.Text)
		if err != nil {
			r.noNames(file, e.Symbols, err)
			continue
		}
		out = append(out, link.Outside{
			Table: table, Site: r.siteOf(e, file, table),
			Texts: sync.OnceValue(func() map[string]map[string]string { return r.readTexts(file) }),
		})
	}
	return out
}

// noNames says that the names of another project cannot be had from a file.
func (r *run) noNames(file string, said settings.Word, err error) {
	r.lasts(finding.Finding{
		Rule: finding.UnreadableSource, Form: "symbols",
		Place:     finding.Place{File: cmp.Or(r.options.Settings.File, settings.FileName), At: said.At},
		Arguments: []finding.Argument{{Name: "file", Value: file}, {Name: "problem", Value: PlainReason(err)}},
	})
}

// documented reads the documentation file of a library of another project, which has names
// and texts but no pages; ok is false where it cannot be read, which is a finding.
func (r *run) documented(file settings.Word) (o link.Outside, ok bool) {
	read := func() (*xmldoc.File, error) {
		if r.options.Outside.Read == nil {
			return nil, errNotRead
		}
		data, err := r.options.Outside.Read(file.Text)
		if errors.Is(err, fs.ErrInvalid) {
			return nil, errors.New("it is a folder; name the .xml file that the compiler wrote")
		}
		if err != nil {
			return nil, err
		}
		return xmldoc.Parse(source.Decode(data).String)
	}
	f, err := read()
	if err != nil {
		r.noNames(file.Text, file, err)
		return o, false
	}
	if f.Assembly == "" {
		f.Assembly = strings.TrimSuffix(path.Base(file.Text), path.Ext(file.Text))
	}
	table, texts := f.Names()
	return link.Outside{Table: table, Texts: func() map[string]map[string]string { return texts }}, true
}

var errNotRead = errors.New("files outside the project are not read here")

// readSymbols reads the file that a path names, or the one in the folder it names.
func (r *run) readSymbols(name string) (file string, t *symbols.Table, err error) {
	if r.options.Outside.Read == nil {
		return name, nil, errNotRead
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
