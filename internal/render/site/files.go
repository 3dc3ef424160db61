package site

import (
	"embed"
	"errors"
	"io/fs"
	"path"
	"strings"
	"sync"

	"github.com/tdewolff/minify/v2"
	"github.com/tdewolff/minify/v2/css"
	"github.com/tdewolff/minify/v2/js"

	"codrel/internal/render/sink"
)

// This file has the files of a site that are no pages.

//go:embed assets
var assets embed.FS

// ownAssets are the files that all sites have, by their addresses: scripts and styles without
// what only their authors need.
var ownAssets = sync.OnceValues(func() (map[string][]byte, error) {
	m := minify.New()
	m.AddFunc(".js", js.Minify)
	m.AddFunc(".css", css.Minify)
	out := map[string][]byte{}
	err := fs.WalkDir(assets, "assets", func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		data, err := assets.ReadFile(p)
		if kind := path.Ext(p); err == nil && (kind == ".js" || kind == ".css") {
			data, err = m.Bytes(kind, data)
		}
		out[p] = data
		return err
	})
	return out, err
})

func (s *Site) writeAssets(to sink.Sink) error {
	own, err := ownAssets()
	if err != nil {
		return err
	}
	for p, data := range own {
		if err := to.Put(p, data); err != nil {
			return err
		}
	}
	return nil
}

// writeOthers writes what is no page and not the same on all sites, but for the search data.
func (s *Site) writeOthers(to sink.Sink) error {
	return errors.Join(s.writeLook(to), s.writeSitemap(to), s.writeSymbols(to))
}

// File is a file of the site that is no page; ok is false where there is none at the address.
// What takes long to make is made when it is first asked for.
func (s *Site) File(address string) (data []byte, ok bool, err error) {
	own, err := ownAssets()
	if err != nil {
		return nil, false, err
	}
	if data, ok := own[address]; ok {
		return data, true, nil
	}
	if file, is := strings.CutPrefix(address, picturesFolder); is {
		if s.pictures[file] == "" {
			return nil, false, nil
		}
		data, err := fs.ReadFile(s.options.Files, file)
		return data, err == nil, nil // it may be gone meanwhile
	}
	from := s.others
	if strings.HasPrefix(address, "search/") {
		from = s.searched
	}
	made, err := from()
	if err != nil {
		return nil, false, err
	}
	data = made.Get(address)
	return data, data != nil, nil
}

// Asset is one of the files that all sites have, such as "assets/codrel.css"; nil where there is
// none.
func Asset(address string) []byte {
	own, err := ownAssets()
	if err != nil {
		return nil
	}
	return own[address]
}

// Shows reports whether pages show a file of the project as a picture or film.
func (s *Site) Shows(file string) bool { return s.pictures[file] != "" }
