package source

import (
	"strings"

	"github.com/bmatcuk/doublestar/v4"
)

// ignoring is the list of patterns of all ignore files from the root down to a
// folder, in that order; the last one that matches decides (gitignore(5)).
type ignoring []ignorePattern

type ignorePattern struct {
	pattern string // against the path from the root
	not     bool   // "!": takes the path in again
	folder  bool   // trailing "/": folders only
}

// with adds the patterns of the ignore file of dir. The list it was called on
// stays as it is, because sibling folders share it.
func (g ignoring) with(dir, text string) ignoring {
	out := append(ignoring(nil), g...)
	for line := range strings.SplitSeq(text, "\n") {
		if p, ok := parseIgnore(dir, strings.TrimRight(line, "\r")); ok {
			out = append(out, p)
		}
	}
	return out
}

func parseIgnore(dir, line string) (ignorePattern, bool) {
	if !strings.HasSuffix(line, `\ `) {
		line = strings.TrimRight(line, " \t")
	}
	if line == "" || line[0] == '#' {
		return ignorePattern{}, false
	}
	var p ignorePattern
	if line[0] == '!' {
		p.not, line = true, line[1:]
	}
	if strings.HasSuffix(line, "/") {
		p.folder, line = true, strings.TrimRight(line, "/")
	}
	if line == "" {
		return ignorePattern{}, false
	}
	// A slash before the end ties the pattern to the folder of its file.
	if anchored := strings.Contains(line, "/"); anchored {
		line = strings.TrimPrefix(line, "/")
	} else {
		line = "**/" + line
	}
	if dir != "." {
		line = EscapeGlob(dir) + "/" + line
	}
	p.pattern = line
	return p, doublestar.ValidatePattern(line)
}

// EscapeGlob is the pattern that matches a path alone.
func EscapeGlob(s string) string {
	return strings.NewReplacer(`\`, `\\`, `*`, `\*`, `?`, `\?`, `[`, `\[`, `{`, `\{`).Replace(s)
}

// ignores decides for one path; a path below an ignored folder is never asked about.
func (g ignoring) ignores(p string, dir bool) bool {
	for i := len(g) - 1; i >= 0; i-- {
		if g[i].folder && !dir {
			continue
		}
		if ok, _ := doublestar.Match(g[i].pattern, p); ok {
			return !g[i].not
		}
	}
	return false
}
