package site

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// fileList is what a library consists of in a language whose modules are files.
type fileList struct {
	spaces           []*model.Module // namespaces
	headers, sources []folderOfFiles
}

// folderOfFiles are the files of one folder; its path is "" where all lie in one.
type folderOfFiles struct {
	path  string
	files []*model.Module
}

// filesOf are the namespaces and headers of a library that users see, and its other files.
func (v view) filesOf(lib *model.Library) (out fileList) {
	var headers, sources []*model.Module
	for _, contents := range v.project().Libraries {
		if contents.Library != lib {
			continue
		}
		for _, m := range contents.Modules {
			switch {
			case len(m.Files) == 0 && v.plan.Links.ModuleInReach(m):
				out.spaces = append(out.spaces, m)
			case len(m.Files) == 0:
			case v.isHeader(m) && v.plan.Links.ModuleInReach(m):
				headers = append(headers, m)
			default:
				sources = append(sources, m)
			}
		}
	}
	out.headers, out.sources = byFolder(headers), byFolder(sources)
	return out
}

// byFolder puts files to their folders, in the order of paths.
func byFolder(list []*model.Module) (out []folderOfFiles) {
	for _, m := range list {
		folder := strings.TrimPrefix(path.Dir(m.Path), ".")
		i := slices.IndexFunc(out, func(f folderOfFiles) bool { return f.path == folder })
		if i < 0 {
			out = append(out, folderOfFiles{path: folder})
			i = len(out) - 1
		}
		out[i].files = append(out[i].files, m)
	}
	return out
}

// isHeader reports whether a module is a file that others include.
func (v view) isHeader(m *model.Module) bool {
	headers, ok := v.options.FrontEnds[m.Library.Language].(lang.Headers)
	return ok && headers.IsHeader(m.Path)
}

// isNotIncluded reports whether a header is one that no file of the project includes.
func (v view) isNotIncluded(m *model.Module) bool {
	return v.isHeader(m) && len(v.plan.Links.ImportedBy(m)) == 0
}

// fileAddress is the page about a file: that of its declarations, or that of its source.
func (v view) fileAddress(m *model.Module) string {
	if v.plan.Links.ModuleInReach(m) {
		return v.plan.Module(m)
	}
	return v.plan.SourceFile(m.Files[0].Path, 1)
}
