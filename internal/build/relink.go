package build

import (
	"context"
	"slices"

	"codrel/internal/join"
	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/model"
)

// Relink is a snapshot in which some files of an earlier one have new facts: only
// their modules are joined anew, and everything is linked. Files are known by their
// paths; a file that the earlier snapshot does not have is left out. Findings and
// coverage are those of [Link]: there are none.
//
// The earlier snapshot is used up: its modules go into the new one.
func Relink(ctx context.Context, earlier *Snapshot, changed ...*model.Facts) (*Snapshot, error) {
	for _, f := range changed {
		for _, lib := range earlier.Project.Libraries {
			if i := slices.IndexFunc(lib.Files, func(was *model.Facts) bool { return was.Path == f.Path && was.Language == f.Language }); i >= 0 {
				replace(lib, i, f, earlier.FrontEnds[lib.Language])
			}
		}
	}
	s := *earlier
	s.Findings, s.Modules = nil, nil
	s.Links = link.New(s.Project, earlier.Links.Options())
	s.Links.Comments = earlier.Links.Comments
	return &s, ctx.Err()
}

// replace puts new facts in the place of a file's. Where the file goes on to be part
// of the same module, and no file speaks of what others declare, that one alone is made anew.
func replace(lib *model.Contents, i int, f *model.Facts, end lang.FrontEnd) {
	was := lib.Files[i]
	lib.Files = slices.Clone(lib.Files)
	lib.Files[i] = f
	if _, placer := end.(lang.Placer); placer || lib.Told || len(f.About) > 0 || was.Package != f.Package || was.Role != f.Role || was.Standalone != f.Standalone {
		join.Library(lib, end)
		return
	}
	for _, list := range []*[]*model.Module{&lib.Modules, &lib.Tests} {
		for n, m := range *list {
			at := slices.Index(m.Files, was)
			if at < 0 {
				continue
			}
			*list = slices.Clone(*list)
			(*list)[n] = join.Replaced(m, at, f)
			return
		}
	}
	join.Library(lib, end)
}
