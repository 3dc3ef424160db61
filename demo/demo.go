// Package demo holds Tidebook, a made-up project that shows what Codrel does:
// tide prediction and berth planning for small harbours, with planted flaws.
package demo

import (
	"embed"
	"io/fs"
	"strings"
)

//go:embed all:_tidebook
var files embed.FS

// File is one file of the demo.
type File struct {
	Path string // from the demo's folder, with "/"
	Data []byte
}

// Files are the files of the demo, in the order of their paths. Files whose
// names would mean something to the tools of this repository carry the ending
// ".demo" in it, which is taken off.
func Files() []File {
	var out []File
	err := fs.WalkDir(files, "_tidebook", func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		data, err := files.ReadFile(p)
		p = strings.TrimSuffix(strings.TrimPrefix(p, "_tidebook/"), ".demo")
		out = append(out, File{Path: p, Data: data})
		return err
	})
	if err != nil {
		panic("demo: the embedded files cannot be read: " + err.Error())
	}
	return out
}
