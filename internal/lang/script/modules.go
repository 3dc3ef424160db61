package script

import (
	"encoding/json"
	"maps"
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file knows what lies beyond one file: packages, paths of imports, tests.

var (
	_ lang.RootFinder = FrontEnd{}
	_ lang.Moduler    = FrontEnd{}
	_ lang.Using      = FrontEnd{}
	_ lang.NameUsing  = FrontEnd{}
	_ lang.TestNamer  = FrontEnd{}
	_ lang.Importer   = FrontEnd{}
	_ lang.Native     = FrontEnd{}
	_ lang.Asker      = FrontEnd{}
	_ lang.Worder     = FrontEnd{}
	_ lang.Scanner    = FrontEnd{}
)

// stem is a file's name without the endings that say what it is.
func stem(file string) string {
	base := path.Base(file)
	base = strings.TrimSuffix(base, path.Ext(base))
	return strings.TrimSuffix(base, ".d")
}

// MarkerNames are the files that make a folder a library.
func (FrontEnd) MarkerNames() []string { return []string{"package.json"} }

// Root reads name, version and entries of a package.json. The entries are those
// of "exports", else of "types" and "main"; where they lie in a folder of built
// files, the source that they are built from counts as well.
func (FrontEnd) Root(file string, data []byte) (lang.Root, bool) {
	var fields struct {
		Name    string          `json:"name"`
		Version string          `json:"version"`
		Main    string          `json:"main"`
		Module  string          `json:"module"`
		Types   string          `json:"types"`
		Typings string          `json:"typings"`
		Exports json.RawMessage `json:"exports"`
	}
	if err := json.Unmarshal(data, &fields); err != nil {
		return lang.Root{}, false
	}
	root := lang.Root{Folder: path.Dir(file), Part: fields.Name == "", Name: fields.Name, Version: fields.Version, Package: fields.Name}
	if i := strings.LastIndexByte(root.Name, '/'); i >= 0 {
		root.Name = root.Name[i+1:]
	}
	named := exported(fields.Exports, fields.Name)
	if len(named) == 0 {
		for _, file := range []string{fields.Types, fields.Typings, fields.Module, fields.Main} {
			named = append(named, model.Entry{Path: file, As: fields.Name})
		}
	}
	seen := map[string]bool{}
	for _, entry := range named {
		if entry.Closed {
			root.Entries = append(root.Entries, entry)
			continue
		}
		for _, candidate := range sources(entry.Path) {
			if !seen[candidate] {
				seen[candidate] = true
				root.Entries = append(root.Entries, model.Entry{Path: candidate, As: entry.As})
			}
		}
	}
	return root, true
}

// exported are the files that "exports" of a package.json names, and what users import
// them by (Node.js, "Packages": "Subpath exports", "Subpath patterns"). Folders that are
// called internal stay closed though a pattern opens them: it only keeps old paths alive.
func exported(raw json.RawMessage, name string) []model.Entry {
	var out []model.Entry
	add := func(raw json.RawMessage, as string) {
		if string(raw) == "null" || strings.HasSuffix(as, "/internal/*") {
			out = append(out, model.Entry{As: as, Closed: true})
			return
		}
		for _, file := range targets(raw, nil, 0) {
			if strings.Count(as, "*") == strings.Count(file, "*") && strings.Count(file, "*") <= 1 {
				out = append(out, model.Entry{Path: file, As: as})
			}
		}
	}
	var fields map[string]json.RawMessage
	if json.Unmarshal(raw, &fields) != nil {
		add(raw, name)
		return out
	}
	for _, key := range slices.Sorted(maps.Keys(fields)) {
		if key == "." || strings.HasPrefix(key, "./") {
			add(fields[key], strings.TrimSuffix(name+strings.TrimPrefix(key, "."), "/"))
		} else {
			add(fields[key], name)
		}
	}
	return out
}

// targets are all files that an entry of "exports" names, whatever the conditions.
func targets(raw json.RawMessage, out []string, depth int) []string {
	var text string
	if len(raw) == 0 || depth > 20 {
		return out
	}
	if json.Unmarshal(raw, &text) == nil {
		if text != "" {
			out = append(out, text)
		}
		return out
	}
	var list []json.RawMessage
	if json.Unmarshal(raw, &list) == nil {
		for _, r := range list {
			out = targets(r, out, depth+1)
		}
		return out
	}
	var fields map[string]json.RawMessage
	if json.Unmarshal(raw, &fields) == nil {
		for _, key := range slices.Sorted(maps.Keys(fields)) {
			out = targets(fields[key], out, depth+1)
		}
	}
	return out
}

// sources are the paths of modules that an entry may be, built or not.
func sources(entry string) []string {
	if entry == "" || strings.HasSuffix(entry, ".json") || strings.HasSuffix(entry, ".css") {
		return nil
	}
	entry = path.Clean(entry)
	module := path.Join(path.Dir(entry), stem(entry))
	out := []string{module}
	star := strings.Contains(entry, "*")
	if !star {
		out = append(out, path.Join(module, "index"))
	}
	if first, rest, ok := strings.Cut(module, "/"); ok {
		switch first {
		case "dist", "lib", "build", "out", "es", "esm", "cjs", "types":
			out = append(out, "src/"+rest)
			if !star { // as a pattern it would be any file at all
				out = append(out, rest)
			}
			if _, deeper, ok := strings.Cut(rest, "/"); ok {
				out = append(out, "src/"+deeper)
			}
		}
	}
	return out
}

// IsTest knows test files by the names that test runners look for.
func (FrontEnd) IsTest(file string) bool {
	name := stem(file)
	if strings.HasSuffix(name, ".test") || strings.HasSuffix(name, ".spec") {
		return true
	}
	for {
		folder, rest, ok := strings.Cut(file, "/")
		if !ok {
			return false
		}
		switch folder {
		case "test", "tests", "__tests__", "__mocks__", "spec":
			return true
		}
		file = rest
	}
}

// ModulePaths gives each file its path below the library's root, without suffix.
func (FrontEnd) ModulePaths(lib *model.Library, files []*model.Facts) []string {
	paths := make([]string, len(files))
	for i, f := range files {
		rel := f.Path
		if lib.Root != "." {
			rel = strings.TrimPrefix(strings.TrimPrefix(rel, lib.Root), "/")
		}
		paths[i] = path.Join(path.Dir(rel), stem(rel))
	}
	return paths
}

// InternalModule is never true: what a file exports decides.
func (FrontEnd) InternalModule(string) bool { return false }

// BringIn is the import statement.
func (FrontEnd) BringIn(m *model.Module) string {
	from := importedFrom(m)
	if from == "" {
		return ""
	}
	name := identifier(m.Name)
	if name == "index" && !strings.HasPrefix(from, "./") {
		name = identifier(from[strings.LastIndexByte(from, '/')+1:])
	}
	if isCommon(m) {
		return "const " + name + " = require(\"" + from + "\")"
	}
	return "import * as " + name + " from \"" + from + "\""
}

// BringNameIn is the import statement for one name, or what takes a type that
// comments declare into the comments of another file. There is none for what the
// module keeps.
func (FrontEnd) BringNameIn(module *model.Module, d *model.Declaration) string {
	from := importedFrom(module)
	switch {
	case d.Main().Export == model.NotExported || from == "":
		return ""
	case d.Main().Worded:
		return "/** @import { " + d.Name + " } from \"" + from + "\" */"
	case isCommon(module):
		return "const { " + d.Name + " } = require(\"" + from + "\")"
	case d.Name == "default":
		return "import " + identifier(d.Module.Name) + " from \"" + from + "\""
	}
	return "import { " + d.Name + " } from \"" + from + "\""
}

// importedFrom is what users import a module by: what its package says, else its
// path; "" where it is kept from users.
func importedFrom(m *model.Module) string {
	if as, ok := m.Library.Entry(m.Path); ok && as != "" {
		return as
	}
	if m.Internal {
		return ""
	}
	return "./" + m.Path
}

// ImportedAs is the package, or the package with the module's path behind it.
func (FrontEnd) ImportedAs(m *model.Module) string {
	from := importedFrom(m)
	switch {
	case m.Library.Package == "" || from == "":
		return ""
	case !strings.HasPrefix(from, "./"):
		return from
	case m.Path == "index":
		return m.Library.Package
	}
	return m.Library.Package + "/" + strings.TrimSuffix(m.Path, "/index")
}

// isCommon reports whether a module's files give things away through module.exports.
func isCommon(m *model.Module) bool {
	for _, f := range m.Files {
		if f.Common {
			return true
		}
	}
	return false
}

// identifier makes a name of a file's name.
func identifier(name string) string {
	var b strings.Builder
	upper := false
	for _, c := range name {
		switch {
		case c < 0x80 && !inNames[byte(c)]:
			upper = b.Len() > 0
		case upper:
			b.WriteString(strings.ToUpper(string(c)))
			upper = false
		default:
			b.WriteRune(c)
		}
	}
	return b.String()
}

// ImportPaths makes a relative path one from the library's root: of a file, or of
// the one that stands for a folder.
func (FrontEnd) ImportPaths(m *model.Module, _ *model.Facts, written string) []string {
	if !strings.HasPrefix(written, ".") {
		return []string{written}
	}
	joined := path.Join(path.Dir(m.Path), written)
	for _, ext := range []string{".js", ".mjs", ".cjs", ".ts", ".mts", ".cts", ".tsx", ".jsx"} {
		joined = strings.TrimSuffix(joined, ext)
	}
	return []string{joined, joined + "/index"}
}

// Below is the path of the module that stands for a folder.
func (FrontEnd) Below(module, name string) string { return module + "/" + name }

// IsNative knows the global objects and types of the language and its hosts.
func (FrontEnd) IsNative(name string) bool { return natives[name] }

var natives = func() map[string]bool {
	set := map[string]bool{}
	for _, name := range strings.Fields(nativeNames) {
		set[name] = true
	}
	return set
}()

const nativeNames = `
AbortController AbortSignal AggregateError Array ArrayBuffer ArrayLike AsyncGenerator AsyncIterable AsyncIterator Atomics Awaited BigInt
BigInt64Array BigUint64Array Blob Boolean Buffer Capitalize ConcatArray ConstructorParameters CustomEvent DOMException DataView Date Document
Element Error EvalError Event EventEmitter EventTarget Exclude Extract File FinalizationRegistry Float32Array Float64Array FormData Function
Generator HTMLElement Headers Infinity InstanceType Int16Array Int32Array Int8Array Intl Iterable IterableIterator Iterator JSON Lowercase Map
Math MediaQueryList NaN Node NodeJS NonNullable Number Object Omit Parameters Partial Pick Promise PromiseLike PropertyKey Proxy RangeError
ReadableStream Readonly ReadonlyArray ReadonlyMap ReadonlySet Record ReferenceError Reflect RegExp RegExpExecArray Request Required Response
ReturnType Set SharedArrayBuffer String Symbol SyntaxError TemplateStringsArray TextDecoder TextEncoder ThisType TypeError URIError URL
URLSearchParams Uint16Array Uint32Array Uint8Array Uint8ClampedArray Uncapitalize Uppercase WeakMap WeakRef WeakSet WebSocket Window Worker
any array bigint boolean class console decodeURI document encodeURI eval false fetch function global globalThis int integer isFinite isNaN
never null number object parseFloat parseInt process queueMicrotask require setImmediate setInterval setTimeout string structuredClone symbol
this true undefined unknown void window clearInterval clearTimeout float double`

// AsksComment is true of what is given away and can be named by others.
func (FrontEnd) AsksComment(d *model.Declaration) bool {
	switch d.Kind() {
	case model.KindClass, model.KindInterface, model.KindEnum, model.KindFunction, model.KindMethod, model.KindType, model.KindProperty:
		return !strings.HasPrefix(d.Name, "[") && d.Name != "()" && d.Name != "new" && d.Name != "toString"
	case model.KindConstant, model.KindVariable:
		return d.Parent == nil && d.Main().Export == model.Exported
	}
	return false
}

// AsksModuleComment is never true: files are seldom described as a whole.
func (FrontEnd) AsksModuleComment(*model.Module) bool { return false }

// ModuleWord is "module".
func (FrontEnd) ModuleWord(*model.Module) string { return "module" }

// KindWord uses the words of the languages' references.
func (FrontEnd) KindWord(d *model.Declaration) string {
	switch d.Kind() {
	case model.KindClass:
		if d.Main().Callable != nil {
			return "function"
		}
	case model.KindField:
		return "property"
	case model.KindProperty:
		return "accessor"
	case model.KindType:
		switch o := d.Main(); {
		case !o.Worded:
			return "type alias"
		case strings.HasPrefix(o.Signature.Text(o.File.Text), "callback"):
			return "callback"
		}
		return "data type"
	case model.KindEnumMember:
		return "enum member"
	case model.KindIndexer:
		return "index signature"
	}
	return ""
}

// GroupKey calls what objects hold properties.
func (FrontEnd) GroupKey(title string) string {
	if title == "Fields" {
		return "Properties"
	}
	return ""
}
