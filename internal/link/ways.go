package link

import (
	"errors"
	"io/fs"
	"net/url"
	"path"
	"strconv"
	"strings"

	"codrel/internal/model"
)

// Way is where a link of a page of the maintainer's leads within the project.
type Way struct {
	File   string // from the project's root: "." for the root itself, "" where the link leaves the project or has a scheme
	Anchor string // what stands behind "#"
}

// WayFrom reads a link that stands on a page. One without a path leads to a place of the page.
func WayFrom(page *model.Page, target string) Way {
	if strings.Contains(target, ":") || target == "" {
		return Way{}
	}
	target, anchor, _ := strings.Cut(target, "#")
	if plain, err := url.PathUnescape(anchor); err == nil {
		anchor = plain
	}
	target, _, _ = strings.Cut(target, "?")
	if target == "" {
		return Way{page.Path, anchor}
	}
	target, err := url.PathUnescape(target)
	if err != nil || strings.Contains(target, ":") {
		return Way{}
	}
	file := path.Join(path.Dir(page.Path), target)
	if strings.HasPrefix(target, "/") {
		file = path.Clean("." + target)
	}
	if file == ".." || strings.HasPrefix(file, "../") {
		return Way{}
	}
	return Way{file, anchor}
}

// Line is the line that an anchor such as "L41" asks for, else the first.
func (w Way) Line() int {
	number, _ := strings.CutPrefix(w.Anchor, "L")
	if line, err := strconv.Atoi(number); err == nil && line > 0 && number != w.Anchor {
		return line
	}
	return 1
}

// Exists reports whether there is a file or folder at a path from the project's root. Where
// nobody can tell, there is.
func (x *Index) Exists(file string) bool {
	if x.options.Files == nil || !fs.ValidPath(file) {
		return true
	}
	_, err := fs.Stat(x.options.Files, file)
	return !errors.Is(err, fs.ErrNotExist)
}

// FileSize is how many bytes a file of the project has; 0 where nobody can tell.
func (x *Index) FileSize(file string) int64 {
	if x.options.Files == nil || !fs.ValidPath(file) {
		return 0
	}
	info, err := fs.Stat(x.options.Files, file)
	if err != nil {
		return 0
	}
	return info.Size()
}

// Beside are the names of the files and folders that stand where a file should be.
func (x *Index) Beside(file string) (names []string) {
	if x.options.Files == nil || !fs.ValidPath(path.Dir(file)) {
		return nil
	}
	entries, err := fs.ReadDir(x.options.Files, path.Dir(file))
	if err != nil {
		return nil
	}
	for _, e := range entries {
		names = append(names, e.Name())
	}
	return names
}
