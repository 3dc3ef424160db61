package script

import (
	"path"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file knows what lies beyond one file: packages, paths of imports, tests.

var (
	_ lang.RootFinder       = FrontEnd{}
	_ lang.Moduler          = FrontEnd{}
	_ lang.ImportWriter     = FrontEnd{}
	_ lang.NameImportWriter = FrontEnd{}
	_ lang.TestNamer        = FrontEnd{}
	_ lang.Importer         = FrontEnd{}
	_ lang.Native           = FrontEnd{}
	_ lang.CommentPolicy    = FrontEnd{}
	_ lang.Terminology      = FrontEnd{}
	_ lang.Scanner          = FrontEnd{}
	_ lang.Chooser          = FrontEnd{}
	_ lang.Nester           = FrontEnd{}
)

// stem is a file's name without the endings that say what it is.
func stem(file string) string {
	base := path.Base(file)
	base = strings.TrimSuffix(base, path.Ext(base))
	return strings.TrimSuffix(base, ".d")
}

// IsTest knows test files by the names that test runners look for.
func (FrontEnd) IsTest(file string) bool { return isTest(file) }

func isTest(file string) bool {
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
func (FrontEnd) BringIn(m *model.Module, _ bool) string {
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
func (FrontEnd) BringNameIn(module *model.Module, d *model.Declaration, name string) string {
	from := importedFrom(module)
	local := d.Name
	if local == "default" {
		local = identifier(from[strings.LastIndexByte(from, '/')+1:])
	}
	switch {
	case d.Speaks(model.Words).Export == model.NotExported && d.Module == module || from == "":
		return ""
	case d.Called() != "" || d.Speaks(model.Words).FromComment && d.Kind() != model.KindType:
		return "" // code makes it known, under its path
	case d.Speaks(model.Words).FromComment:
		return "/** @import { " + name + " } from \"" + from + "\" */"
	case isCommon(module) && name == "default":
		return "const " + local + " = require(\"" + from + "\")"
	case isCommon(module):
		return "const { " + name + " } = require(\"" + from + "\")"
	case name == "default":
		return "import " + local + " from \"" + from + "\""
	}
	return "import { " + name + " } from \"" + from + "\""
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
		if f.AssignsExports {
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
		if own, ok := m.Library.Inner(written); ok { // by the package's own name, or one that only its files know
			return []string{own, own + "/index"}
		}
		return []string{written}
	}
	joined := path.Join(path.Dir(m.Path), written)
	if joined == "." {
		return []string{"index"}
	}
	if strings.HasSuffix(written, ".") || strings.HasSuffix(written, "/") { // a folder, whatever file is called so
		return []string{joined + "/index", joined}
	}
	for _, ext := range []string{".d.ts", ".d.mts", ".d.cts", ".js", ".mjs", ".cjs", ".ts", ".mts", ".cts", ".tsx", ".jsx"} {
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
Animation Attr Audio AudioBuffer AudioContext AudioNode CanvasGradient CanvasPattern CanvasRenderingContext2D Comment DOMMatrix DOMPoint DOMRect
DocumentFragment DragEvent FileList FileReader FontFace HTMLAnchorElement HTMLButtonElement HTMLCanvasElement HTMLCollection HTMLDivElement
HTMLFormElement HTMLImageElement HTMLInputElement HTMLVideoElement Image ImageBitmap ImageData KeyboardEvent MessageEvent MouseEvent
MutationObserver NodeList OffscreenCanvas Path2D PointerEvent Range ResizeObserver SVGElement Selection Storage Text TouchEvent
WebGL2RenderingContext WebGLProgram WebGLRenderingContext WebGLShader WebGLTexture WheelEvent XMLHttpRequest
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

// Combines knows the types that have the members of another one.
func (FrontEnd) Combines(name string) bool {
	switch name {
	case "Omit", "Pick", "Partial", "Required", "Readonly", "NonNullable", "Awaited", "InstanceType", "ThisType":
		return true
	}
	return false
}

// AsksComment is true of what is exported and can be named by others.
func (FrontEnd) AsksComment(d *model.Declaration) bool {
	switch d.Kind() {
	case model.KindClass, model.KindInterface, model.KindEnum, model.KindFunction, model.KindMethod, model.KindType, model.KindProperty:
		return !strings.HasPrefix(d.Name, "[") && d.Name != "()" && d.Name != "new" && d.Name != "toString"
	case model.KindConstant, model.KindVariable, model.KindNamespace:
		if d.Kind() == model.KindNamespace && !d.IsObject() {
			return false
		}
		return d.Parent == nil && (d.Speaks(model.Words).Export == model.Exported || d.Speaks(model.Words).Export == model.Renamed)
	}
	return false
}

// AsksModuleComment is never true: files are seldom described as a whole.
func (FrontEnd) AsksModuleComment(*model.Module) bool { return false }

// ModuleWord is the usual one.
func (FrontEnd) ModuleWord(*model.Module) string { return "module-word" }

// KindWord uses the words of the languages' references.
func (FrontEnd) KindWord(d *model.Declaration) string {
	switch d.Kind() {
	case model.KindConstant, model.KindVariable:
		if (FrontEnd{}).HoldsFunction(d) {
			return "function"
		}
	case model.KindClass:
		if d.Speaks(model.Words).Callable != nil {
			return "function"
		}
	case model.KindField:
		return "property"
	case model.KindNamespace:
		if d.IsObject() {
			return "object"
		}
	case model.KindProperty:
		return "accessor"
	case model.KindType:
		switch o := d.Speaks(model.Words); {
		case !o.FromComment:
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

// BlockStyle is true of interfaces and enumerations.
func (FrontEnd) BlockStyle(d *model.Declaration) (lang.BlockStyle, bool) {
	form := lang.BlockStyle{Open: " {", Close: "}", End: ";", Remark: "// "}
	switch d.Kind() {
	case model.KindInterface:
		form.Methods = true
		return form, true
	case model.KindEnum:
		form.End = ","
		return form, true
	}
	return form, false
}

// HoldsFunction is true of a constant with the type of a function, and of one that a
// call makes of a function, as currying does.
func (FrontEnd) HoldsFunction(d *model.Declaration) bool {
	if k := d.Kind(); k != model.KindConstant && k != model.KindVariable {
		return false
	}
	at := d.Speaks(model.Words)
	text, behind := "", false
	for t := range at.Tokens(at.Signature) {
		if behind {
			text += t.Text
		}
		if behind = behind || t.Kind == model.TokenName; len(text) > 4000 {
			break
		}
	}
	if typ, ok := strings.CutPrefix(text, ": "); ok {
		return typ != "" && (typ[0] == '(' || typ[0] == '<') && isFunctionType(typ)
	}
	value, ok := strings.CutPrefix(text, " = ")
	if !ok {
		return false
	}
	l := lexer{text: value}
	end := l.nameEnd(0)
	if end == 0 || l.byteAt(end) != '(' {
		return false
	}
	argument := l.after(end + 1)
	if l.wordAt(argument, "function") || l.wordAt(argument, "async") {
		return true
	}
	if l.byteAt(argument) == '(' {
		return strings.HasPrefix(value[min(l.after(l.bracketed(argument)), len(value)):], "=>")
	}
	name := l.nameEnd(argument)
	return name > argument && strings.HasPrefix(value[min(l.after(name), len(value)):], "=>")
}

// isFunctionType reports whether a type is that of a function: parameters, maybe behind
// type parameters, and an arrow behind them.
func isFunctionType(typ string) bool {
	l := lexer{text: typ, typed: true}
	at := 0
	if typ[0] == '<' {
		end, ok := l.typeArguments(0)
		if !ok {
			return false
		}
		at = l.after(end)
	}
	return l.byteAt(at) == '(' && strings.HasPrefix(typ[min(l.after(l.bracketedType(at)), len(typ)):], "=>")
}

// GroupKey calls what objects hold properties.
func (FrontEnd) GroupKey(title string) string {
	if title == "Fields" {
		return "Properties"
	}
	return ""
}
