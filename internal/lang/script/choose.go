package script

import (
	"cmp"
	"encoding/json"
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file decides which of a package's files are read, and which modules users import.

// Choose finds the modules that the entries of a package mean: the source that they are
// built from where that can be told, else their declarations, else the built files
// themselves. Built files that no entry needs are passed over where there is source.
func (FrontEnd) Choose(root lang.Root, files []string, read func(file string) []byte) lang.Choice {
	m, _ := readManifest(read("package.json"))
	c := chooser{layout: newLayout(files, root.Package, read), manifest: m, name: root.Package, chosen: map[string]bool{}, passed: map[string]*model.SkippedFolder{}}
	c.entries(files)
	c.imports()
	c.pass(files)
	return c.choice()
}

type chooser struct {
	*layout
	manifest manifest
	name     string // what users import the package by
	found    []model.Entry
	inside   []model.Entry   // names by which only the package's own files import
	chosen   map[string]bool // files that entries mean
	left     []string
	twins    []string
	given    map[string]gives // of files that were looked at
	passed   map[string]*model.SkippedFolder
}

// entries finds what users import.
func (c *chooser) entries(files []string) {
	offers := c.manifest.offers(c.name)
	if c.manifest.Exports == nil {
		offers = append(offers, c.folders(files)...)
	}
	taken := map[string]bool{}
	for _, o := range offers {
		if !strings.Contains(o.as, "*") && !o.closed && !taken[o.as] {
			taken[o.as] = c.offer(o)
		}
	}
	for _, o := range byLength(offers) {
		if strings.Contains(o.as, "*") && !o.closed {
			c.pattern(o, offers, taken, files)
		}
	}
	if c.manifest.Exports == nil {
		for _, o := range c.byPath(files) {
			if !taken[o.as] {
				taken[o.as] = c.offer(o)
			}
		}
	}
}

// byLength puts the patterns that say more first.
func byLength(offers []offer) []offer {
	out := slices.Clone(offers)
	slices.SortStableFunc(out, func(a, b offer) int { return len(b.as) - len(a.as) })
	return out
}

// folders are the entries that folders' own files of the package declare.
func (c *chooser) folders(files []string) (out []offer) {
	for _, f := range files {
		folder, name := path.Split(f)
		folder = strings.TrimSuffix(folder, "/")
		if name != "package.json" || folder == "" {
			continue
		}
		part, ok := readManifest(c.read(f))
		if !ok || part.Name != "" && part.Name != c.name+"/"+folder && part.Name != c.manifest.Name+"/"+folder {
			continue
		}
		o := offer{as: c.name + "/" + folder}
		types, code := texts(part.Types, part.Typings), texts(part.Source, part.Module, part.Main)
		if len(types)+len(code) == 0 {
			continue // it says something else, as which kind of scripts the folder holds
		}
		for _, t := range types {
			o.types = append(o.types, path.Join(folder, t))
		}
		for _, t := range code {
			o.files = append(o.files, path.Join(folder, t))
		}
		out = append(out, o)
	}
	return out
}

// offer finds the module that one entry means.
func (c *chooser) offer(o offer) bool {
	file, beside := c.meant(o)
	if file == "" {
		return false
	}
	file, beside = c.wrapped(file), c.wrapped(beside)
	c.chosen[file] = true
	e := model.Entry{Path: modulePath(file), As: o.as}
	if beside != "" {
		c.chosen[beside] = true
		if m := modulePath(beside); m != e.Path {
			e.Beside = m
		}
	}
	c.found = append(c.found, e)
	return true
}

// meant is the file that an entry means, and where that only declares, the one with code.
func (c *chooser) meant(o offer) (file, beside string) {
	var types, code string
	for _, f := range append(slices.Clone(o.types), o.files...) {
		if source := c.source(f); isTyped(source) && c.agrees(c.file(f, false), source) && !c.mute(source, f) {
			return source, ""
		}
	}
	for _, f := range o.types {
		if types = c.file(f, true); types != "" {
			break
		}
	}
	for _, f := range o.files {
		source, itself := c.source(f), c.file(f, false)
		if !c.agrees(itself, source) || isTyped(source) && c.mute(source, f) {
			source = ""
		}
		if types == "" && itself != "" {
			types = c.file(modulePath(itself)+".d.ts", true)
		}
		if code = cmp.Or(source, itself); code != "" {
			break
		}
	}
	if isTyped(code) || types == "" {
		return code, ""
	}
	return types, code
}

// wrapped is the file that a file of the same name re-exports for another kind of modules,
// else the file itself.
func (c *chooser) wrapped(file string) string {
	for from, to := range map[string]string{".mjs": ".js", ".cjs": ".js", ".d.mts": ".d.ts", ".d.cts": ".d.ts"} {
		bare, ok := strings.CutSuffix(file, from)
		if !ok || strings.HasSuffix(bare, ".d") || !c.files[bare+to] {
			continue
		}
		text := string(c.read(file))
		if name := "./" + path.Base(bare) + ".js"; strings.Contains(text, "'"+name+"'") || strings.Contains(text, `"`+name+`"`) {
			return bare + to
		}
	}
	return file
}

// source is the source that a file is built from, or "". The file itself need not be here.
func (c *chooser) source(file string) string {
	file = path.Clean(file)
	if isTyped(file) && c.files[file] {
		return file
	}
	at := cmp.Or(c.file(file, declares(file)), file)
	if s := c.sourceOf(at); s != "" {
		return s
	}
	if !c.files[at] {
		return ""
	}
	if likeBuilt[firstOf(at)] {
		return c.mapped(at)
	}
	for _, f := range c.modules[modulePath(at)] { // built in its place
		if isTyped(f) {
			return f
		}
	}
	return ""
}

// file is the file that a path of a package.json means, as Node.js and the TypeScript
// compiler have it, or "".
func (c *chooser) file(file string, types bool) string {
	file = path.Clean(file)
	tries := []string{file, file + ".js", file + ".mjs", file + ".cjs", file + "/index.js", file + "/index.mjs", file + "/index.cjs", file + ".jsx"}
	if types {
		module := modulePath(file)
		tries = []string{file, file + ".d.ts", module + ".d.ts", module + ".d.mts", module + ".d.cts", file + "/index.d.ts", module + "/index.d.ts"}
	}
	for _, t := range tries {
		if c.files[t] && path.Base(t) != "package.json" && (!types || declares(t) || isTyped(t)) {
			return t
		}
	}
	return ""
}

// pattern finds the modules that an entry with a "*" means.
func (c *chooser) pattern(o offer, all []offer, taken map[string]bool, files []string) {
	closed := func(as string) bool {
		return slices.ContainsFunc(all, func(o offer) bool {
			if o.closed && o.as == as {
				return true
			}
			_, fits := starred(o.as, as)
			return o.closed && fits
		})
	}
	before, after, _ := strings.Cut(o.as, "*")
	patterns := append(slices.Clone(o.types), o.files...)
	for _, pattern := range patterns {
		any := false
		for _, want := range c.sourcePatterns(path.Clean(pattern)) {
			for _, f := range files {
				part, ok := starred(want, f)
				if !ok || path.Base(f) == "package.json" || isTest(f) || strings.HasSuffix(f, ".min.js") {
					continue
				}
				if after == "" && strings.HasSuffix(want, "*") { // the name is written with its ending
					if declares(f) || isTyped(f) {
						continue
					}
				}
				any = true
				as := before + part + after
				if taken[as] || closed(as) || strings.Contains(as, "/internal/") {
					continue
				}
				one := offer{as: as}
				for _, t := range o.types {
					one.types = append(one.types, strings.Replace(t, "*", part, 1))
				}
				for _, t := range o.files {
					one.files = append(one.files, strings.Replace(t, "*", part, 1))
				}
				taken[as] = c.offer(one)
			}
			if any {
				break
			}
		}
		if any {
			return
		}
	}
}

// sourcePatterns are a pattern and those of the source that its files may be built from:
// the source is here and what is built of it is not.
func (c *chooser) sourcePatterns(pattern string) []string {
	out := []string{pattern}
	dir, name := path.Split(pattern)
	ext := ".js"
	if i := strings.IndexByte(name, '.'); i >= 0 {
		ext = name[i:]
	} else if strings.HasSuffix(name, "*") {
		ext = ""
	}
	bare := strings.TrimSuffix(pattern, ext)
	if !strings.Contains(bare, "*") {
		return out
	}
	segments := strings.Split(strings.TrimSuffix(dir, "/"), "/")
	for i := 1; i <= len(segments) && likeBuilt[segments[i-1]]; i++ {
		rest := strings.Join(strings.Split(bare, "/")[i:], "/")
		for _, folder := range sourceFolders {
			for _, e := range []string{".ts", ".tsx", ".js", ".mjs"} {
				out = append(out, folder+"/"+rest+e)
			}
		}
	}
	return out
}

// starred is what the "*" of a pattern stands for in a text.
func starred(pattern, text string) (part string, ok bool) {
	before, after, ok := strings.Cut(pattern, "*")
	if !ok || len(text) <= len(before)+len(after) || !strings.HasPrefix(text, before) || !strings.HasSuffix(text, after) {
		return "", false
	}
	return text[len(before) : len(text)-len(after)], true
}

// imports reads the names by which a package's own files import one another (Node.js,
// "Subpath imports"; "paths" of tsconfig.json).
func (c *chooser) imports() {
	var fields map[string]json.RawMessage
	_ = json.Unmarshal(c.manifest.Imports, &fields) // none is as good as none that can be read
	for as, raw := range fields {
		c.insider(offered(raw, as))
	}
	var config struct {
		Options struct {
			Base  string              `json:"baseUrl"`
			Paths map[string][]string `json:"paths"`
		} `json:"compilerOptions"`
	}
	if json.Unmarshal(withoutComments(c.read("tsconfig.json")), &config) == nil {
		for as, files := range config.Options.Paths {
			o := offer{as: as}
			for _, f := range files {
				o.files = append(o.files, path.Join(config.Options.Base, f))
			}
			c.insider(o)
		}
	}
	slices.SortFunc(c.inside, func(a, b model.Entry) int { return cmp.Or(len(b.As)-len(a.As), strings.Compare(a.As, b.As)) })
}

func (c *chooser) insider(o offer) {
	files := append(slices.Clone(o.types), o.files...)
	if len(files) == 0 || strings.Count(o.as, "*") > 1 {
		return
	}
	if strings.Contains(o.as, "*") {
		c.inside = append(c.inside, model.Entry{As: o.as, Path: strings.TrimSuffix(modulePath(path.Clean(files[0])), "/index")})
		return
	}
	if file, _ := c.meant(o); file != "" {
		c.inside = append(c.inside, model.Entry{As: o.as, Path: modulePath(file)})
	}
}

// pass says which files are not read.
func (c *chooser) pass(files []string) {
	source, needed := false, map[string]bool{}
	for _, f := range files {
		source = source || path.Base(f) != "package.json" && !builtFolders[path.Base(c.builtFolder(f))] && !isConfig(f) && !isTest(f) && !minified(f) && c.sourceOf(f) == ""
		if c.chosen[f] {
			needed[c.builtFolder(f)] = true
		}
	}
	for _, f := range files {
		folder := c.builtFolder(f)
		switch {
		case path.Base(f) == "package.json" || c.chosen[f]:
		case minified(f):
			c.leave(f, "", &c.twins)
		case folder != "" && builtFolders[path.Base(folder)] && source && !needed[folder]:
			c.leave(f, folder, &c.left)
		case c.twin(f):
			c.twins = append(c.twins, f)
		case folder != "" && !builtFolders[path.Base(folder)] && !needed[folder] && c.sourceOf(f) != "":
			c.leave(f, folder, &c.twins)
		}
	}
}

// builtFolder is the folder around a file that may hold what was built, or "".
func (c *chooser) builtFolder(file string) string {
	dir := path.Dir(file)
	for at, rest := "", dir; rest != "." && rest != ""; {
		var first string
		first, rest, _ = strings.Cut(rest, "/")
		at = path.Join(at, first)
		if builtFolders[first] || likeBuilt[first] && !strings.Contains(at, "/") {
			return at
		}
	}
	return ""
}

// twin reports whether another file of the same module is read instead of a file.
func (c *chooser) twin(file string) bool {
	list := c.modules[modulePath(file)]
	if len(list) < 2 {
		return false
	}
	rank := func(f string) int {
		r := fileRank(f)
		if c.chosen[f] {
			r -= 100
		}
		return r
	}
	for _, other := range list {
		switch {
		case other == file:
		case isTyped(other) && !isTyped(file), declares(other) == declares(file) && isTyped(other) == isTyped(file) && rank(other) < rank(file):
			return true
		}
	}
	return false
}

func minified(file string) bool {
	name := stem(file)
	return strings.HasSuffix(name, ".min") || strings.HasSuffix(name, "-min")
}

// isConfig reports whether a file only says how the package is built.
func isConfig(file string) bool {
	if strings.Contains(file, "/") {
		return false
	}
	name := stem(file)
	return strings.Contains(name, ".config") || name == "gulpfile" || name == "gruntfile" || name == "Gruntfile" || strings.HasPrefix(path.Base(file), ".") || name == "webpack" || name == "rollup" || name == "karma.conf"
}

// leave puts a file on a list of those that are passed over, and says so of its folder;
// of files without blanks and comments there is no folder.
func (c *chooser) leave(file, folder string, list *[]string) {
	*list = append(*list, file)
	p := c.passed[folder]
	if p == nil {
		p = &model.SkippedFolder{Folder: folder, Minified: folder == ""}
		c.passed[folder] = p
	}
	p.Files++
}

func (c *chooser) choice() lang.Choice {
	slices.SortStableFunc(c.found, func(a, b model.Entry) int { return len(a.As) - len(b.As) }) // of several names the shortest is the one to use
	out := lang.Choice{Entries: c.found, Inside: c.inside, Left: c.left, Twins: c.twins}
	for _, p := range c.passed {
		out.Passed = append(out.Passed, *p)
	}
	slices.SortFunc(out.Passed, func(a, b model.SkippedFolder) int { return strings.Compare(a.Folder, b.Folder) })
	return out
}
