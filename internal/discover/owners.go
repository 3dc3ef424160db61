package discover

import (
	"bytes"
	"io"
	"io/fs"
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/source"
)

// owners finds the one front end that reads a file: by the ending of its name; where
// several languages use that ending, by what is in the file and what lies beside it; where
// it has none, by the program that its first line names.
type owners struct {
	fsys         fs.FS
	byEnding     map[string]lang.FrontEnd
	shared       map[string][]lang.FrontEnd // by ending
	named        map[string]lang.FrontEnd   // by whole name
	interpreters map[string]lang.FrontEnd
	beside       map[string][]string // the names of the files in a folder; nil where nobody asks
	asked        map[string]bool     // the files that were looked into
	entries      []source.Entry
	including    *includers // nil until somebody asks
}

func newOwners(fsys fs.FS, ends []lang.FrontEnd, asked map[string]bool) *owners {
	o := &owners{fsys: fsys, byEnding: map[string]lang.FrontEnd{}, shared: map[string][]lang.FrontEnd{}, named: map[string]lang.FrontEnd{}, interpreters: map[string]lang.FrontEnd{}, asked: asked}
	for _, end := range ends {
		for _, ending := range end.Extensions() {
			if o.byEnding[ending] == nil {
				o.byEnding[ending] = end
			}
		}
		if r, ok := end.(lang.Recognizer); ok {
			for _, ending := range r.SharedExtensions() {
				o.shared[ending] = append(o.shared[ending], end)
			}
		}
		if n, ok := end.(lang.NamedFiles); ok {
			for _, name := range n.FileNames() {
				o.named[name] = end
			}
		}
		if i, ok := end.(lang.Interpreted); ok {
			for _, program := range i.Interpreters() {
				if o.interpreters[program] == nil {
					o.interpreters[program] = end
				}
			}
		}
	}
	return o
}

// know tells which files there are.
func (o *owners) know(entries []source.Entry) {
	if len(o.shared) == 0 && len(o.named) == 0 {
		return
	}
	o.beside, o.entries, o.including = map[string][]string{}, entries, nil
	for _, e := range entries {
		dir, name := path.Split(e.Path)
		o.beside[dir] = append(o.beside[dir], name)
	}
}

// byName is the front end that reads all files with the ending of a path, or nil.
func (o *owners) byName(file string) lang.FrontEnd {
	if name := path.Base(file); len(path.Ext(name)) < len(name) {
		return o.byEnding[path.Ext(name)]
	}
	return nil
}

// of is the front end that reads a file, or nil.
func (o *owners) of(e source.Entry) lang.FrontEnd {
	if end := o.byName(e.Path); end != nil {
		return end
	}
	ending := path.Ext(e.Path)
	switch dir, name := path.Split(e.Path); {
	case o.named[name] != nil && slices.ContainsFunc(o.beside[dir], func(other string) bool { return lang.Reads(o.named[name], other) }):
		return o.named[name] // which says something of the sources beside it
	case len(o.shared[ending]) > 0:
		return o.recognized(e, o.shared[ending])
	case ending == "" && len(o.interpreters) > 0 && e.Size > 2:
		return o.interpreters[interpreter(o.head(e.Path))]
	}
	return nil
}

// recognized is the front end whose language a file most looks like; of those that it
// looks like as much, the first.
func (o *owners) recognized(e source.Entry, ends []lang.FrontEnd) (best lang.FrontEnd) {
	name := path.Base(e.Path)
	others := o.telling(e, ends)
	head, most := o.head(e.Path), 0
	for _, end := range ends {
		if n := end.(lang.Recognizer).Recognize(name, head, others); n > most {
			best, most = end, n
		}
	}
	return best
}

// headSize is how much of a file is looked at to find out what it is, in bytes.
const headSize = 64 << 10

// head is how a file begins; nothing where it cannot be read, which whoever reads it says.
func (o *owners) head(file string) []byte {
	o.asked[file] = true
	f, err := o.fsys.Open(file)
	if err != nil {
		return nil
	}
	defer f.Close()
	head := make([]byte, headSize)
	n, _ := io.ReadFull(f, head)
	return head[:n]
}

// interpreter is the name, without a version, of the program that the first line of a
// file says to run it with, or "".
func interpreter(head []byte) string {
	rest, ok := bytes.CutPrefix(bytes.TrimPrefix(head, []byte("\xef\xbb\xbf")), []byte("#!"))
	if !ok {
		return ""
	}
	line, _, _ := bytes.Cut(rest, []byte("\n"))
	words := strings.Fields(string(line))
	for i, word := range words {
		name := path.Base(word)
		switch {
		case name == "env" && i == 0, strings.HasPrefix(word, "-"), strings.Contains(word, "="):
			continue // what env is told before the program
		}
		if bare := strings.TrimRight(name, "0123456789."); bare != "" {
			return bare
		}
		return name
	}
	return ""
}
