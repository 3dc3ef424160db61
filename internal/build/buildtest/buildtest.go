// Package buildtest runs the pipeline for tests of the stages in it and behind it, on
// files that stand in the test.
//
// It asserts nothing but that the run itself ends well.
package buildtest

import (
	"io/fs"
	"testing"
	"testing/fstest"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/lang"
	"codrel/internal/languages"
	"codrel/internal/model"
)

// Files is a folder that holds texts by their paths.
func Files(texts map[string]string) fstest.MapFS {
	out := fstest.MapFS{}
	for path, text := range texts {
		out[path] = &fstest.MapFile{Data: []byte(text)}
	}
	return out
}

// Archive is a folder that holds the files of an archive.
func Archive(archive *txtar.Archive) fstest.MapFS {
	out := fstest.MapFS{}
	for _, f := range archive.Files {
		out[f.Name] = &fstest.MapFile{Data: f.Data}
	}
	return out
}

// Run is the snapshot of a folder, with all languages.
func Run(t testing.TB, files fs.FS, options build.Options) *build.Snapshot {
	t.Helper()
	options.FrontEnds = languages.All
	s, err := build.Run(t.Context(), files, options)
	require.NoError(t, err)
	return s
}

// Texts are the files of an archive that is written as text, by their paths.
func Texts(archive string) map[string]string {
	out := map[string]string{}
	for _, f := range txtar.Parse([]byte(archive)).Files {
		out[f.Name] = string(f.Data)
	}
	return out
}

// Module is the module of a snapshot that has a path.
func Module(t testing.TB, s *build.Snapshot, path string) *model.Module {
	t.Helper()
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if m.Path == path {
				return m
			}
		}
	}
	require.FailNow(t, "there is no module "+path)
	return nil
}

// FrontEnds are those of all languages.
func FrontEnds() []lang.FrontEnd { return languages.All }
