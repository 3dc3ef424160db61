package script

import (
	"bytes"
	"cmp"
	"path"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file tells whether a built file gives users what the source gives that it seems to
// be built from: names alone can mislead.

// gives are the names that a file exports.
type gives struct {
	names map[string]bool
	all   bool // it re-exports everything of modules that are not here
}

// agrees reports whether all that a built file exports is given by a file of source.
// Where that cannot be told, it does.
func (c *chooser) agrees(built, from string) bool {
	if declares(built) || !c.files[built] || from == "" {
		return true
	}
	text := string(c.read(built))
	if len(text) > longestBundle || !strings.Contains(text, "export ") && !strings.Contains(text, "export{") {
		return true
	}
	want, have := c.givesOf(built, 0), c.givesOf(from, 0)
	if want.all || have.all {
		return true
	}
	for name := range want.names {
		if !have.names[name] && name != "default" {
			return false
		}
	}
	return true
}

// mute reports whether the comments of a package stand in its declaration files alone:
// sources may have them in a form of their own, which a build turns into doc comments.
func (c *chooser) mute(from, built string) bool {
	built = cmp.Or(c.file(built, true), built)
	if !declares(built) || !c.files[built] || !bytes.Contains(c.read(built), []byte("/**")) {
		return false
	}
	folder := path.Dir(from) + "/"
	if folder == "./" {
		return false
	}
	for f := range c.files {
		if strings.HasPrefix(f, folder) && isTyped(f) && bytes.Contains(c.read(f), []byte("/**")) {
			return false
		}
	}
	return true
}

// longestBundle is the size of built files that are worth a look, in bytes.
const longestBundle = 8_000_000

// deepestStar bounds how many modules everything is followed through.
const deepestStar = 50

// givesOf are the names that a file exports, with those of the modules that it re-exports.
func (c *chooser) givesOf(file string, depth int) gives {
	if known, ok := c.given[file]; ok {
		return known
	}
	g := gives{names: map[string]bool{}}
	if c.given == nil {
		c.given = map[string]gives{}
	}
	c.given[file] = g // of a circle, what is known so far
	facts := FrontEnd{Typed: isTyped(file) || declares(file)}.Read(lang.File{Path: file, Text: source.Decode(c.read(file))})
	for i := range facts.Occurrences {
		if o := &facts.Occurrences[i]; o.Parent < 0 && !o.FromComment && (o.Export == model.Exported || facts.AssignsExports && !facts.DefaultIsModule) {
			g.names[o.Name] = true
		}
	}
	for _, in := range facts.Imports {
		switch {
		case !in.Reexport:
		case in.Member != "*":
			g.names[in.Name] = true
		default:
			of := c.beside(file, in.Path)
			if of == "" || depth > deepestStar {
				g.all = true
				continue
			}
			more := c.givesOf(of, depth+1)
			g.all = g.all || more.all
			for name := range more.names {
				if name != "default" {
					g.names[name] = true
				}
			}
		}
	}
	c.given[file] = g
	return g
}

// beside is the file that a relative path of an import means, or "".
func (c *chooser) beside(file, written string) string {
	if !strings.HasPrefix(written, ".") {
		return ""
	}
	at := path.Join(path.Dir(file), written)
	for _, module := range []string{at, modulePath(at)} {
		for _, ext := range []string{"", ".ts", ".tsx", ".mts", ".js", ".mjs", ".cjs", ".d.ts", "/index.ts", "/index.js"} {
			if c.files[module+ext] {
				return module + ext
			}
		}
	}
	return ""
}
