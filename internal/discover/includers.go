package discover

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/source"
)

// includers tell which files include a file that several languages may read: where both have
// sources in a tree, the language of these is that of the file.
type includers struct {
	of    map[string][]including // by the last element of what is included
	mixed bool                   // sources of several of the languages are there
}

// including is a file with the path, as written, by which it includes another one.
type including struct{ file, written string }

// findIncluders reads what the files of languages that share an ending include.
func (o *owners) findIncluders(ends []lang.FrontEnd) *includers {
	found := &includers{of: map[string][]including{}}
	sources := map[string]lang.FrontEnd{}
	var seen []lang.FrontEnd
	for _, end := range ends {
		for _, ending := range end.Extensions() {
			sources[ending] = end
		}
	}
	for _, e := range o.entries {
		if end := sources[path.Ext(e.Path)]; end != nil && !slices.Contains(seen, end) {
			seen = append(seen, end)
		}
	}
	if found.mixed = len(seen) > 1; !found.mixed {
		return found
	}
	reader, ok := ends[0].(lang.Including)
	if !ok {
		return found
	}
	for _, e := range o.entries {
		if ending := path.Ext(e.Path); sources[ending] == nil && len(o.shared[ending]) == 0 {
			continue
		}
		for _, written := range reader.Includes(string(o.head(e.Path))) {
			name := path.Base(written)
			found.of[name] = append(found.of[name], including{e.Path, path.Clean(written)})
		}
	}
	return found
}

// sources are the names of the sources that include a file, also through others that may be of
// several languages.
func (i *includers) sources(o *owners, file string) (out []string) {
	seen := map[string]bool{file: true}
	for queue := []string{file}; len(queue) > 0; queue = queue[1:] {
		for _, by := range i.of[path.Base(queue[0])] {
			if seen[by.file] || !means(by, queue[0]) {
				continue
			}
			seen[by.file] = true
			if len(o.shared[path.Ext(by.file)]) > 0 {
				queue = append(queue, by.file)
			} else {
				out = append(out, path.Base(by.file))
			}
		}
	}
	return out
}

// means reports whether what a file includes may be another one: by the end of its path.
func means(by including, file string) bool {
	written := by.written
	for strings.HasPrefix(written, "../") {
		written = written[len("../"):]
	}
	return file == written || strings.HasSuffix(file, "/"+written)
}

// telling are the names of files that say which of several languages a file is in: of the sources
// that include it, or else of the files beside it.
func (o *owners) telling(e source.Entry, ends []lang.FrontEnd) []string {
	dir, name := path.Split(e.Path)
	if o.including == nil {
		o.including = o.findIncluders(ends)
	}
	if o.including.mixed {
		if list := o.including.sources(o, e.Path); len(list) > 0 {
			return list
		}
	}
	return slices.DeleteFunc(slices.Clone(o.beside[dir]), func(n string) bool { return n == name })
}
