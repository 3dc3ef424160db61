// Package demo holds Tidebook, a made-up project that shows what Codrel does:
// tide prediction and berth planning for small harbours, with planted flaws; and
// Lockwatch, a small project of somebody else that uses it.
package demo

import (
	"embed"
	"io/fs"
	"path"
	"strings"
)

//go:embed all:_tidebook all:_lockwatch
var files embed.FS

// File is one file of a demo.
type File struct {
	Path string // from the project's folder, with "/"
	Data []byte
}

// NeighbourFolder is the folder of Lockwatch in that of Tidebook.
const NeighbourFolder = "lockwatch"

// Files are the files of Tidebook, in the order of their paths.
func Files() []File { return list("_tidebook") }

// Neighbour are the files of Lockwatch, in the order of their paths.
func Neighbour() []File { return list("_lockwatch") }

// list lists the files of one project. Files whose names would mean something to
// the tools of this repository carry the ending ".demo" in it, which is taken off.
func list(folder string) []File {
	var out []File
	err := fs.WalkDir(files, folder, func(p string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		data, err := files.ReadFile(p)
		p = strings.TrimSuffix(strings.TrimPrefix(p, folder+"/"), ".demo")
		out = append(out, File{Path: path.Clean(p), Data: data})
		return err
	})
	if err != nil {
		panic("demo: the embedded files cannot be read: " + err.Error())
	}
	return out
}
