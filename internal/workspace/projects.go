package workspace

import (
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/languages"
	"codrel/internal/settings"
)

// Found is a project that is to be shown with others.
type Found struct {
	Dir  string // absolute
	Name string // unique among them; "" where there is one alone
}

// Projects are those that folders hold: each folder is one; a folder that is none itself, and in
// which there are others, stands for these. Without folders the current one is meant.
func Projects(dirs []string) ([]Found, error) {
	if len(dirs) == 0 {
		dirs = []string{"."}
	}
	var out []Found
	for _, dir := range dirs {
		abs, err := folder(dir)
		if err != nil {
			return nil, err
		}
		if below := projectsIn(abs); len(below) > 1 {
			out = append(out, below...)
		} else {
			out = append(out, Found{Dir: abs, Name: filepath.Base(abs)})
		}
	}
	if len(out) == 1 {
		out[0].Name = ""
		return out, nil
	}
	used := map[string]bool{}
	for i := range out {
		name := addressName(out[i].Name)
		for n := 2; used[name]; n++ {
			name = addressName(out[i].Name) + "-" + strconv.Itoa(n)
		}
		used[name] = true
		out[i].Name = name
	}
	return out, nil
}

// addressName is a name as an address can have it.
func addressName(name string) string {
	name = strings.Map(func(r rune) rune {
		if r > ' ' && r < 0x7f && !strings.ContainsRune("/\\?#%{}\"<>", r) {
			return r
		}
		return '-'
	}, name)
	return strings.TrimLeft(name, "._") + map[bool]string{true: "project"}[strings.TrimLeft(name, "._") == ""]
}

// projectsIn are the projects right below a folder that is none itself, and below folders of
// theirs that only hold others.
func projectsIn(dir string) (out []Found) {
	if isProject(dir, true) {
		return nil
	}
	entries, err := os.ReadDir(dir)
	if err != nil {
		return nil
	}
	for _, e := range entries {
		below := filepath.Join(dir, e.Name())
		if info, err := os.Stat(below); err != nil || !info.IsDir() || strings.HasPrefix(e.Name(), ".") {
			continue
		}
		if strings.HasPrefix(e.Name(), "@") { // the scope of packages
			scoped, _ := os.ReadDir(below)
			for _, s := range scoped {
				if in := filepath.Join(below, s.Name()); isProject(in, false) {
					out = append(out, Found{Dir: in, Name: strings.TrimPrefix(e.Name(), "@") + "-" + s.Name()})
				}
			}
			continue
		}
		if isProject(below, false) {
			out = append(out, Found{Dir: below, Name: e.Name()})
		}
	}
	return out
}

// isProject reports whether a folder has settings, a repository, or a file that marks a library;
// of the folder that was named, source files count as well.
func isProject(dir string, named bool) bool {
	names := []string{settings.FileName, ".git"}
	for _, end := range languages.All {
		if marks, ok := end.(lang.RootFinder); ok {
			names = append(names, marks.MarkerNames()...)
		}
	}
	entries, err := os.ReadDir(dir)
	if err != nil {
		return false
	}
	for _, e := range entries {
		for _, name := range names {
			if ok, _ := filepath.Match(name, e.Name()); ok {
				return true
			}
		}
		if named && !e.IsDir() && slices.ContainsFunc(languages.All, func(end lang.FrontEnd) bool { return lang.Reads(end, e.Name()) }) {
			return true
		}
	}
	return false
}
