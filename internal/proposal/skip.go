package proposal

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/discover"
)

// This file finds folders that hold what a project's users are not meant to see.

// kinds are names of folders with the reason to pass over what lies in them.
var kinds = map[string]string{
	"third_party": "copies of what others wrote", "third-party": "copies of what others wrote", "thirdparty": "copies of what others wrote",
	"vendor": "copies of what others wrote", "vendored": "copies of what others wrote", "_vendor": "copies of what others wrote", "external": "copies of what others wrote", "extern": "copies of what others wrote", "deps": "copies of what others wrote",
	"dist": "what a build makes", "build": "what a build makes", "out": "what a build makes", "target": "what a build makes", "bin": "what a build makes", "obj": "what a build makes", "generated": "what a generator makes",
	"examples": "examples, no library", "example": "examples, no library", "samples": "examples, no library", "demos": "examples, no library",
	"benchmarks": "measurements, no library", "benchmark": "measurements, no library", "bench": "measurements, no library",
	"fixtures": "input of tests",
}

// passedOver are such folders, right below the project or a library of it, of which files would
// be read, as patterns. Deeper ones are parts of a library that are called so.
func passedOver(found *discover.Found) []Value {
	roots := map[string]bool{".": true}
	for _, lib := range found.Libraries {
		roots[lib.Model.Library.Root] = true
	}
	reasons := map[string]string{}
	for _, lib := range found.Libraries {
		for _, f := range lib.Files {
			if folder := kindOf(path.Dir(f.Path), roots); folder != "" && !isWhole(lib, folder) {
				reasons[folder] = kinds[strings.ToLower(path.Base(folder))]
			}
		}
	}
	var out []Value
	for folder, reason := range reasons {
		out = append(out, Value{folder + "/**", reason})
	}
	slices.SortFunc(out, func(a, b Value) int { return strings.Compare(a.Text, b.Text) })
	return out
}

// kindOf is the outermost folder on the way to another that has one of the names, or "".
func kindOf(folder string, roots map[string]bool) string {
	parts := strings.Split(folder, "/")
	for i, part := range parts {
		above := "."
		if i > 0 {
			above = strings.Join(parts[:i], "/")
		}
		if kinds[strings.ToLower(part)] != "" && roots[above] {
			return strings.Join(parts[:i+1], "/")
		}
	}
	return ""
}

// isWhole reports whether all of a library's code lies in a folder while the library itself
// lies around it: that is where it keeps its source, whatever the name.
func isWhole(lib *discover.Library, folder string) bool {
	root := lib.Model.Library.Root
	if root != "." && (root == folder || strings.HasPrefix(root+"/", folder+"/")) {
		return false
	}
	return !slices.ContainsFunc(lib.Files, func(f discover.File) bool { return !strings.HasPrefix(f.Path, folder+"/") })
}
