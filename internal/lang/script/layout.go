package script

import (
	"encoding/json"
	"path"
	"slices"
	"strings"
)

// This file tells sources from what is built from them, by the names of files, by
// tsconfig.json and by source maps. What cannot be told counts as source.

// builtFolders hold what was built, unless nothing else is there.
var builtFolders = map[string]bool{"dist": true, "build": true, "out": true}

// likeBuilt are folders that hold what was built where its source stands elsewhere.
var likeBuilt = map[string]bool{
	"dist": true, "build": true, "out": true, "lib": true, "es": true, "esm": true, "cjs": true, "umd": true, "types": true, "typings": true, "commonjs": true, "node": true,
	"browser": true, "module": true, "modules": true, "mjs": true, "bundle": true, "bundles": true, "legacy": true, "modern": true, "production": true, "prod": true, "dev": true,
	"development": true, "compiled": true, "release": true, "dts": true, "declarations": true, "esnext": true, "es6": true, "es5": true, "es2015": true, "esm2015": true, "fesm2015": true,
	"fesm2020": true, "fesm2022": true, "esm2020": true, "esm2022": true, "dist-esm": true, "dist-cjs": true, "dist-es": true, "dist-types": true, "dist-src": true, "amd": true,
}

// sourceFolders hold what others are built from.
var sourceFolders = []string{"src", "source", "sources", "ts"}

// layout is what the files of one package tell of how it is made.
type layout struct {
	files   map[string]bool
	modules map[string][]string // files, by path without suffix
	folded  map[string]string   // paths without suffix, by the same in small letters
	names   []string            // what the package may call its main file
	outputs [][2]string         // folders that tsconfig.json builds into, and from
	read    func(file string) []byte
	known   map[string]string // answers of sourceOf
}

func newLayout(files []string, name string, read func(string) []byte) *layout {
	l := &layout{files: map[string]bool{}, modules: map[string][]string{}, folded: map[string]string{}, read: read, known: map[string]string{}}
	for _, f := range files {
		m := modulePath(f)
		l.files[f] = true
		l.modules[m] = append(l.modules[m], f)
		if lower := strings.ToLower(m); l.folded[lower] == "" {
			l.folded[lower] = m
		}
	}
	base := name[strings.LastIndexByte(name, '/')+1:]
	l.names = append(l.names, "index", "main", "mod", base, strings.TrimSuffix(base, ".js"), strings.TrimSuffix(base, "js"), strings.TrimSuffix(base, "-js"))
	l.outputs = tsOutputs(read)
	return l
}

// tsOutputs are the folders between which the TypeScript compiler is told to build.
func tsOutputs(read func(string) []byte) (out [][2]string) {
	for _, file := range []string{"tsconfig.json", "tsconfig.build.json", "tsconfig.base.json"} {
		var config struct {
			Options struct {
				OutDir  string `json:"outDir"`
				Types   string `json:"declarationDir"`
				RootDir string `json:"rootDir"`
			} `json:"compilerOptions"`
		}
		if json.Unmarshal(withoutComments(read(file)), &config) != nil {
			continue
		}
		from := path.Clean(config.Options.RootDir)
		if config.Options.RootDir == "" {
			from = "src"
		}
		for _, to := range []string{config.Options.OutDir, config.Options.Types} {
			if to != "" {
				out = append(out, [2]string{path.Clean(to), from})
			}
		}
	}
	return out
}

// withoutComments makes JSON of what a tsconfig.json may hold: comments, and commas before
// closing brackets.
func withoutComments(data []byte) []byte {
	l := lexer{text: string(data), unclosed: -1, sig: -1}
	out := make([]byte, 0, len(data))
	for at := 0; at < len(l.text); {
		switch c := l.text[at]; {
		case c == '"':
			end := l.quoted(at)
			out = append(out, l.text[at:end]...)
			at = max(end, at+1)
		case c == '/' && l.commentAt(at):
			at = max(l.commentEnd(at), at+1)
		case c == '}' || c == ']':
			for len(out) > 0 && (isBlank(out[len(out)-1]) || out[len(out)-1] == ',') {
				out = out[:len(out)-1]
			}
			out = append(out, c)
			at++
		default:
			out = append(out, c)
			at++
		}
	}
	return out
}

// modulePath is a file's path without the endings that say what it is.
func modulePath(file string) string { return path.Join(path.Dir(file), stem(file)) }

// sourceOf is the file that a built file is built from, or "" where it is source itself
// or nobody can tell.
func (l *layout) sourceOf(file string) string {
	if known, ok := l.known[file]; ok {
		return known
	}
	source := l.findSource(file)
	l.known[file] = source
	return source
}

func (l *layout) findSource(file string) string {
	segments := strings.Split(modulePath(file), "/")
	if slices.Contains(sourceFolders, segments[0]) || isTyped(file) {
		return ""
	}
	for _, o := range l.outputs {
		if rest, ok := strings.CutPrefix(modulePath(file), o[0]+"/"); ok {
			if f := l.lookup(path.Join(o[1], rest), file, false); f != "" {
				return f
			}
		}
	}
	for i := 0; i < len(segments) && i < 4; i++ {
		if i > 0 && !likeBuilt[segments[i-1]] {
			break
		}
		rest := strings.Join(segments[i:], "/")
		for _, folder := range sourceFolders {
			if f := l.lookup(path.Join(folder, rest), file, i == 0); f != "" {
				return f
			}
		}
		if i > 0 && builtFolders[segments[0]] {
			for _, folder := range []string{"lib", ""} {
				if f := l.lookup(path.Join(folder, rest), file, false); f != "" && (isTyped(f) || !l.leadsTo(f, segments[0])) {
					return f
				}
			}
		}
	}
	return l.sourceOfMain(segments, file)
}

// sourceOfMain finds the source of a file that is called as the whole package is.
func (l *layout) sourceOfMain(segments []string, file string) string {
	last := segments[len(segments)-1]
	folder := len(segments) > 1
	for _, s := range segments[:len(segments)-1] {
		folder = folder && likeBuilt[s]
	}
	if len(segments) > 1 && !folder {
		return ""
	}
	if !slices.ContainsFunc(variants(last), func(v string) bool { return slices.Contains(l.names, strings.ToLower(v)) || v == "bundle" }) {
		return ""
	}
	for _, name := range l.names {
		for _, from := range sourceFolders {
			if f := l.lookup(from+"/"+name, file, !folder); f != "" {
				return f
			}
		}
	}
	return ""
}

// leadsTo reports whether a file takes what it gives from a folder: then it is built on
// that, and not the other way round.
func (l *layout) leadsTo(file, folder string) bool {
	text := string(l.read(file))
	return strings.Contains(text, "./"+folder+"/") || strings.Contains(text, "./"+folder+"'") || strings.Contains(text, "./"+folder+`"`)
}

// lookup finds the file of source that a path without suffix means, with what builds add
// to names left out. typed asks for TypeScript.
func (l *layout) lookup(module, built string, typed bool) string {
	folder, name := path.Split(module)
	for _, v := range variants(name) {
		for _, at := range []string{folder + v, folder + v + "/index"} {
			at = path.Clean(at)
			for _, m := range []string{at, l.folded[strings.ToLower(at)]} {
				if f := l.sourceFile(m, built, typed); f != "" {
					return f
				}
			}
		}
	}
	return ""
}

// sourceFile is the file with a path without suffix that holds code and is no other
// build of the same.
func (l *layout) sourceFile(module, built string, typed bool) string {
	if module == "" || module == modulePath(built) {
		return ""
	}
	best := ""
	for _, f := range l.modules[module] {
		if declares(f) || typed && !isTyped(f) || builtFolders[firstOf(f)] {
			continue
		}
		if best == "" || fileRank(f) < fileRank(best) {
			best = f
		}
	}
	return best
}

func firstOf(file string) string {
	first, _, _ := strings.Cut(file, "/")
	return first
}

// isTyped reports whether a file is TypeScript with bodies.
func isTyped(file string) bool {
	switch path.Ext(file) {
	case ".ts", ".tsx", ".mts", ".cts":
		return !declares(file)
	}
	return false
}

// fileRanks order the files of one module: who has several of them reads the first.
var fileRanks = []string{".ts", ".tsx", ".mts", ".cts", ".d.ts", ".d.mts", ".d.cts", ".js", ".mjs", ".jsx", ".cjs"}

func fileRank(file string) int {
	rank := len(fileRanks)
	for i, ext := range fileRanks {
		if strings.HasSuffix(file, ext) {
			rank = i // of ".ts" and ".d.ts" the longer
		}
	}
	return rank
}

// infixes are what builds put behind the names of what they build.
var infixes = []string{
	".min", ".module", ".esm", ".es", ".es5", ".es6", ".mjs", ".cjs", ".common", ".commonjs", ".umd", ".global", ".iife", ".browser", ".node", ".prod", ".production", ".dev",
	".development", ".bundle", ".legacy", ".legacy-esm", ".modern", ".esm-bundler", ".esm-browser", ".system", ".amd", ".web", "-esm", "-cjs", "_esm", "-browser", ".bundled", ".all",
	".es.min", "-min", "-src", ".pkgd", ".mini", ".full", ".d", ".node-esm", ".node-cjs", ".react-native", ".worker", ".default", ".edge", ".server", ".client",
}

// variants are a name and what is left of it without what builds put behind it.
func variants(name string) []string {
	out := []string{name}
	for range 3 {
		was := name
		for _, infix := range infixes {
			if rest, ok := strings.CutSuffix(name, infix); ok && rest != "" {
				name = rest
				out = append(out, name)
				break
			}
		}
		if name == was {
			break
		}
	}
	return out
}

// mapped is the source of a built file by its source map: the only one that is here, else
// the one that stands for the package or is called alike, where there is one.
func (l *layout) mapped(file string) string {
	var sources struct {
		Sources []string `json:"sources"`
		Root    string   `json:"sourceRoot"`
	}
	if data := l.read(file + ".map"); len(data) == 0 || len(data) > longestMap || json.Unmarshal(data, &sources) != nil {
		return ""
	}
	var here []string
	for _, s := range sources.Sources {
		f := path.Join(path.Dir(file), sources.Root, s)
		if l.files[f] && f != file && !strings.Contains(f, "node_modules/") {
			here = append(here, f)
		}
	}
	if len(here) == 1 {
		return here[0]
	}
	want := append(variants(stem(file)), l.names...)
	for _, name := range want {
		var found []string
		for _, f := range here {
			if strings.EqualFold(stem(f), name) {
				found = append(found, f)
			}
		}
		slices.SortStableFunc(found, func(a, b string) int { return strings.Count(a, "/") - strings.Count(b, "/") })
		if len(found) == 1 || len(found) > 1 && strings.Count(found[0], "/") < strings.Count(found[1], "/") {
			return found[0]
		}
	}
	return ""
}

// longestMap is the size of source maps that are worth a look, in bytes.
const longestMap = 30_000_000
