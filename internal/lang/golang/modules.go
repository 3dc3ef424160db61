package golang

import (
	"path"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file knows what lies beyond one file: modules (go.mod) and packages.

var (
	_ lang.RootFinder   = FrontEnd{}
	_ lang.Moduler      = FrontEnd{}
	_ lang.ImportWriter = FrontEnd{}
	_ lang.TestNamer    = FrontEnd{}
)

// MarkerNames are the files that make a folder a library.
func (FrontEnd) MarkerNames() []string { return []string{"go.mod"} }

// Root reads the module line of a go.mod file (go.dev/ref/mod#go-mod-file).
func (FrontEnd) Root(file string, data []byte) (lang.Root, bool) {
	for line := range strings.Lines(string(data)) {
		line, _, _ = strings.Cut(line, "//")
		fields := strings.Fields(line)
		if len(fields) == 2 && fields[0] == "module" {
			module := strings.Trim(fields[1], "\"`")
			root := lang.Root{Folder: path.Dir(file), Name: libraryName(module), Prefix: module}
			// The standard library's own packages have paths without a prefix.
			if module == "std" {
				root.Prefix = ""
			}
			return root, module != ""
		}
	}
	return lang.Root{}, false
}

// libraryName is the last element of a module path that says something: major
// version suffixes do not.
func libraryName(module string) string {
	base := path.Base(module)
	if isMajorVersion(base) && path.Dir(module) != "." {
		base = path.Base(path.Dir(module))
	}
	if i := strings.LastIndex(base, ".v"); i > 0 && isMajorVersion(base[i+1:]) {
		base = base[:i]
	}
	return base
}

func isMajorVersion(s string) bool {
	return len(s) > 1 && s[0] == 'v' && strings.Trim(s[1:], "0123456789") == ""
}

// IsTest reports whether the go command builds the file for tests only.
func (FrontEnd) IsTest(file string) bool { return strings.HasSuffix(file, "_test.go") }

// ModulePaths gives each file the import path of its package. In a folder of
// several packages the one with most files has the folder's path; each other
// package, and each program that is never built with its folder, has a path of
// its own that no folder can have: the folder's, then the package or file name.
func (FrontEnd) ModulePaths(lib *model.Library, files []*model.Facts) []string {
	main := mainPackages(files)
	paths := make([]string, len(files))
	for i, f := range files {
		dir := path.Dir(f.Path)
		p := importPath(lib, dir)
		name := f.Package
		external := f.Role == model.RoleTest && strings.HasSuffix(name, "_test")
		if external {
			name = strings.TrimSuffix(name, "_test")
		}
		switch {
		case f.Standalone:
			p = join(p, path.Base(f.Path))
		case name != "" && main[dir] != "" && name != main[dir]:
			p += ":" + name
		}
		if external {
			p += "_test"
		}
		paths[i] = p
	}
	return paths
}

func join(a, b string) string {
	if a == "" {
		return b
	}
	return a + "/" + b
}

func importPath(lib *model.Library, dir string) string {
	rel := dir
	if lib.Root != "." {
		rel = strings.TrimPrefix(strings.TrimPrefix(dir, lib.Root), "/")
	}
	if rel == "." {
		rel = ""
	}
	if p := strings.Trim(lib.Prefix+"/"+rel, "/"); p != "" {
		return p
	}
	return lib.Name
}

// mainPackages finds the package name that a folder stands for: that of most
// files, code before tests, and of equals the one that sorts first.
func mainPackages(files []*model.Facts) map[string]string {
	type vote struct{ dir, name string }
	counts := map[vote]int{}
	for _, f := range files {
		name, weight := f.Package, 1000
		if f.Role == model.RoleTest {
			name, weight = strings.TrimSuffix(name, "_test"), 1
		}
		if name != "" && !f.Standalone {
			counts[vote{path.Dir(f.Path), name}] += weight
		}
	}
	best := map[string]string{}
	for v, n := range counts {
		was, ok := best[v.dir]
		m := counts[vote{v.dir, was}]
		if !ok || n > m || n == m && v.name < was {
			best[v.dir] = v.name
		}
	}
	return best
}

// InternalModule reports whether the go command keeps others from importing the
// package: an element of its path is "internal".
func (FrontEnd) InternalModule(p string) bool {
	return p == "internal" || strings.HasPrefix(p, "internal/") || strings.HasSuffix(p, "/internal") || strings.Contains(p, "/internal/")
}

// BringIn is the import line; programs have none.
func (FrontEnd) BringIn(m *model.Module, _ bool) string {
	if m.Name == "main" || strings.HasSuffix(m.Path, ".go") || strings.Contains(m.Path, ":") {
		return ""
	}
	if base := path.Base(m.Path); base != m.Name && m.Name != "" {
		return "import " + m.Name + ` "` + m.Path + `"`
	}
	return `import "` + m.Path + `"`
}
