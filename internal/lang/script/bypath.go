package script

import (
	"cmp"
	"path"
	"slices"
	"strings"
)

// This file finds the modules that users import by their paths in a package ("ol/layer/Tile").
// Where package.json has no "exports", nothing keeps users from it; that they are meant to
// is what the package's README shows.

// readmes are the names under which the README is looked for.
var readmes = []string{"README.md", "readme.md", "Readme.md", "README.markdown", "README"}

// besides are folders whose files serve the work on a package.
var besides = map[string]bool{
	"example": true, "examples": true, "demo": true, "demos": true, "doc": true, "docs": true, "script": true, "scripts": true, "tool": true, "tools": true, "bench": true,
	"benchmark": true, "benchmarks": true, "fixture": true, "fixtures": true, "website": true, "site": true, "bin": true, "config": true, "vendor": true, "internal": true, "internals": true,
}

// byPath offers all modules that lie where those lie that the README imports by path. A
// main file that takes nothing from other files of the package has it all itself: then the
// others are parts of it for those who want less, and give nothing more.
func (c *chooser) byPath(files []string) (out []offer) {
	shown, ending := c.shownByPath()
	if len(shown) == 0 || c.hasAll() {
		return nil
	}
	zones := map[string]bool{}
	for _, f := range shown {
		zones[c.builtFolder(f)] = true
	}
	offered := map[string]bool{}
	for _, f := range files {
		m := modulePath(f)
		if offered[m] || c.chosen[f] || !zones[c.builtFolder(f)] || path.Base(f) == "package.json" || !isPublicPath(f) || isTest(f) || isConfig(f) || minified(f) {
			continue
		}
		offered[m] = true
		as := c.name + "/" + m
		if ending {
			as += ".js"
		}
		out = append(out, offer{as: strings.TrimSuffix(as, "/index"), types: []string{m + ".d.ts"}, files: []string{f}})
	}
	return out
}

// shownByPath are the files that the README imports by their paths, and whether it writes
// their endings. What the package offers by a name of its own does not count.
func (c *chooser) shownByPath() (files []string, ending bool) {
	var text string
	for _, name := range readmes {
		if text = string(c.read(name)); text != "" {
			break
		}
	}
	own := map[string]bool{}
	for _, e := range c.found {
		own[e.As] = true
	}
	for _, quote := range []string{"'", `"`} {
		for rest := text; ; {
			_, after, ok := strings.Cut(rest, quote+c.name+"/")
			if !ok {
				break
			}
			rest = after
			end := strings.IndexAny(rest, "'\" \n*{}()<>`")
			if end <= 0 || rest[end:end+1] != quote || own[c.name+"/"+rest[:end]] {
				continue
			}
			if f := cmp.Or(c.file(rest[:end], false), c.file(rest[:end], true)); f != "" && !slices.Contains(files, f) {
				files = append(files, f)
				ending = ending || strings.HasSuffix(rest[:end], ".js")
			}
		}
	}
	return files, ending
}

// hasAll reports whether the package's main file takes nothing from its other files.
func (c *chooser) hasAll() bool {
	for _, e := range c.found {
		if e.As != c.name {
			continue
		}
		for _, m := range []string{e.Path, e.Beside} {
			for _, f := range c.modules[m] {
				text := string(c.read(f))
				if minified(f) {
					return false
				}
				for _, take := range []string{"'./", `"./`, "'../", `"../`} {
					if strings.Contains(text, take) {
						return false
					}
				}
			}
		}
		return true
	}
	return false
}

// isPublicPath reports whether no part of a path says that users are to leave it alone.
func isPublicPath(file string) bool {
	for part := range strings.SplitSeq(file, "/") {
		if part[0] == '_' || part[0] == '.' || besides[part] {
			return false
		}
	}
	return true
}
