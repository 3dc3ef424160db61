package workspace

import (
	"context"
	"os"
	"slices"

	"github.com/bmatcuk/doublestar/v4"

	"codrel/internal/parts"
)

// ReadParts reads the streams of facts that match patterns of paths on this machine, and
// puts them together.
func (w *Workspace) ReadParts(ctx context.Context, patterns []string) (*parts.Set, error) {
	var files []string
	for _, pattern := range patterns {
		found, err := doublestar.FilepathGlob(pattern, doublestar.WithFilesOnly())
		if err != nil {
			return nil, wrongUse("%q is no pattern of paths: %w", pattern, err)
		}
		if len(found) == 0 {
			return nil, wrongUse("no file matches %q; \"codrel extract --whole\" writes a part", pattern)
		}
		files = append(files, found...)
	}
	slices.Sort(files)
	var list []*parts.Part
	for i, file := range slices.Compact(files) {
		w.progress("reading parts", i, len(files))
		data, err := os.ReadFile(file)
		if err != nil {
			return nil, diskError(err)
		}
		part, err := parts.Read(ctx, w.options.Shown(file), data, w.workers())
		if err != nil {
			return nil, diskError(err)
		}
		list = append(list, part)
	}
	set, err := parts.Join(list)
	if err != nil {
		return nil, &Error{true, err}
	}
	return set, nil
}
