package cli

import (
	"fmt"
	"io/fs"
	"path"
	"slices"
	"strings"

	"codrel/internal/build"
	"codrel/internal/languages"
)

// This file says why there is nothing to read in a folder.

// unread are the endings of files in languages that are not read.
var unread = map[string]string{
	".kt": "Kotlin", ".scala": "Scala",
	".fs": "F#", ".vb": "Visual Basic", ".rb": "Ruby", ".php": "PHP", ".swift": "Swift", ".m": "Objective-C",
	".dart": "Dart", ".lua": "Lua", ".ex": "Elixir", ".exs": "Elixir", ".erl": "Erlang", ".hs": "Haskell", ".ml": "OCaml", ".jl": "Julia", ".r": "R", ".zig": "Zig",
	".nim": "Nim", ".clj": "Clojure", ".groovy": "Groovy", ".ada": "Ada", ".adb": "Ada", ".f90": "Fortran", ".pas": "Pascal", ".d": "D", ".tcl": "Tcl", ".sh": "Shell",
}

// nothingRead is the error of a folder that holds no source that is read. It says
// which other languages are there.
func (a *app) nothingRead(p *project, s *build.Snapshot) error {
	if s.Stats.Files > 0 || len(s.Findings) > 0 {
		return nil
	}
	return nothingIn(p.Files, a.shownPath(p.Dir))
}

// nothingIn is the error of a folder that has nothing to read.
func nothingIn(files fs.FS, dir string) error {
	var names []string
	for _, end := range languages.All {
		names = append(names, end.Habits().Name)
	}
	if others := otherLanguages(files); len(others) > 0 {
		return usage("nothing to read in %s: found %s, not supported yet; Codrel reads %s", dir, list(others), list(names))
	}
	return usage("nothing to read in %s: no %s files there", dir, strings.Join(names[:len(names)-1], ", ")+" or "+names[len(names)-1])
}

// mostSeen bounds how many files are looked at to name their languages.
const mostSeen = 20_000

// otherLanguages counts the files of languages that are not read, the most first.
func otherLanguages(files fs.FS) []string {
	counts := map[string]int{}
	seen := 0
	_ = fs.WalkDir(files, ".", func(name string, e fs.DirEntry, err error) error {
		if seen++; err != nil || seen > mostSeen {
			return fs.SkipAll
		}
		if e.IsDir() && name != "." && strings.HasPrefix(e.Name(), ".") {
			return fs.SkipDir
		}
		if language := unread[strings.ToLower(path.Ext(name))]; language != "" && !e.IsDir() {
			counts[language]++
		}
		return nil
	})
	var names []string
	for name := range counts {
		names = append(names, name)
	}
	slices.SortFunc(names, func(x, y string) int {
		if counts[x] != counts[y] {
			return counts[y] - counts[x]
		}
		return strings.Compare(x, y)
	})
	const most = 4
	if len(names) > most {
		names = names[:most]
	}
	for i, name := range names {
		names[i] = fmt.Sprintf("%d %s %s", counts[name], name, strings.TrimPrefix(counted(counts[name], "file"), fmt.Sprint(counts[name], " ")))
	}
	return names
}
