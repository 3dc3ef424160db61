package cfamily

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file knows what lies beyond one file: which language a header is in, which header a
// definition belongs to, which headers are for users, and what the languages call things.

var (
	_ lang.Recognizer       = FrontEnd{}
	_ lang.Placer           = FrontEnd{}
	_ lang.TestNamer        = FrontEnd{}
	_ lang.Native           = FrontEnd{}
	_ lang.Library          = FrontEnd{}
	_ lang.CommentPolicy    = FrontEnd{}
	_ lang.Terminology      = FrontEnd{}
	_ lang.ImportWriter     = FrontEnd{}
	_ lang.NameImportWriter = FrontEnd{}
	_ lang.Scanner          = FrontEnd{}
	_ lang.RootFinder       = FrontEnd{}
	_ lang.Nester           = FrontEnd{}
	_ lang.MemberBlocks     = FrontEnd{}
	_ lang.Importer         = FrontEnd{}
	_ lang.Headers          = FrontEnd{}
	_ lang.Including        = FrontEnd{}
	_ lang.FormPolicy       = FrontEnd{}
	_ lang.Prevailing       = FrontEnd{}
)

// Recognize tells headers of the two languages apart: by what is in them outside of what only
// compilers of C++ see, and by the sources beside them.
func (e FrontEnd) Recognize(_ string, head []byte, beside []string) int {
	plus := signsOfPlus(string(head))
	if !plus && !strings.Contains(string(head), "__cplusplus") {
		c, cpp := false, false
		for _, name := range beside {
			switch path.Ext(name) {
			case ".c":
				c = true
			case ".cc", ".cpp", ".cxx", ".hh", ".hpp", ".hxx":
				cpp = true
			}
		}
		plus = cpp && !c
	}
	if plus == e.Plus {
		return 2
	}
	return 0
}

// Includes are the paths of the headers that a file includes.
func (e FrontEnd) Includes(head string) []string { return includesIn(head, e.Plus) }

// signsOfPlus reports whether a text has what C has not.
func signsOfPlus(text string) bool {
	off, depth, comment := -1, 0, false // the depth of conditions, and of the one that only C++ sees
	for line := range strings.Lines(text) {
		line = strings.TrimSpace(line)
		if comment {
			_, after, ends := strings.Cut(line, "*/")
			if comment = !ends; comment {
				continue
			}
			line = strings.TrimSpace(after)
		}
		if before, after, begins := strings.Cut(line, "/*"); begins {
			_, rest, ends := strings.Cut(after, "*/")
			comment = !ends
			line = strings.TrimSpace(before + rest)
		}
		line, _, _ = strings.Cut(line, "//")
		if strings.HasPrefix(line, "#") {
			word := strings.TrimLeft(line[1:], " \t")
			switch {
			case strings.HasPrefix(word, "if"):
				depth++
				if off < 0 && strings.Contains(line, "__cplusplus") && !strings.HasPrefix(word, "ifndef") && !strings.Contains(line, "!") {
					off = depth
				}
			case strings.HasPrefix(word, "endif"):
				if off == depth {
					off = -1
				}
				depth--
			case strings.HasPrefix(word, "el") && off == depth:
				off = -1
			case strings.HasPrefix(word, "include") && off < 0:
				if name, ok := strings.CutPrefix(strings.TrimSpace(word[len("include"):]), "<"); ok && !strings.Contains(name, ".") {
					return true
				}
			}
			continue
		}
		if off >= 0 || line == "" {
			continue
		}
		for _, begin := range []string{"class ", "namespace ", "template<", "template <", "using ", "public:", "private:", "protected:", "virtual ", "enum class ", "constexpr ", "inline namespace "} {
			if strings.HasPrefix(line, begin) {
				return true
			}
		}
		for _, sign := range []string{"std::", "operator=", "operator(", "static_cast<", " nullptr", ") const;", " = default;", " = delete;", "&operator", "template <class", "template<typename"} {
			if strings.Contains(line, sign) {
				return true
			}
		}
	}
	return false
}

// headerPath is the path by which users include a file: without the folder that headers lie in.
func headerPath(root, file string) string {
	rel := strings.TrimPrefix(file, root+"/")
	for _, folder := range []string{"include/", "inc/"} {
		if rest, ok := strings.CutPrefix(rel, folder); ok {
			return rest
		}
		if i := strings.LastIndex(rel, "/"+folder); i >= 0 {
			return rel[i+1+len(folder):]
		}
	}
	return rel
}

// ModulePaths gives each file a module of its own: C's unit of naming is the header. What stands
// in a namespace is put there by [FrontEnd.Place].
func (FrontEnd) ModulePaths(lib *model.Library, files []*model.Facts) []string {
	root := "."
	if lib != nil {
		root = lib.Root
	}
	paths, taken := make([]string, len(files)), map[string]int{}
	for i, f := range files {
		paths[i] = headerPath(root, f.Path)
		taken[paths[i]]++
	}
	for i, f := range files {
		if taken[paths[i]] > 1 { // two files that are included alike
			paths[i] = strings.TrimPrefix(f.Path, root+"/")
		}
	}
	return paths
}

// InternalModule reports whether a module is one for the library itself by its name: what lies in
// a folder or a namespace of a usual one. What hangs on the other files says [FrontEnd.Place].
func (FrontEnd) InternalModule(module string) bool {
	if strings.Contains(module, "::") || !strings.Contains(module, ".") {
		for part := range strings.SplitSeq(module, "::") {
			if insideNames[strings.ToLower(part)] {
				return true
			}
		}
		return false
	}
	return insideFolder(module)
}

// insideNames are the names of namespaces and folders that are for the library itself.
var insideNames = map[string]bool{
	"detail": true, "details": true, "internal": true, "impl": true, "_detail": true, "_internal": true, "private": true, "detail_": true, "internals": true, "priv": true,
}

func insideFolder(file string) bool {
	for part := range strings.SplitSeq(path.Dir(file), "/") {
		if insideNames[strings.ToLower(part)] {
			return true
		}
	}
	return false
}

// inside reports whether a header is for the library itself: where build files say which ones they
// install, or some lie in a folder for headers, the others are.
func inside(lib *model.Library, files []*model.Facts) map[*model.Facts]bool {
	root := "."
	if lib != nil {
		root = lib.Root
	}
	installed := installs(lib)
	if !slices.ContainsFunc(files, func(f *model.Facts) bool { return IsHeader(f.Path) && isInstalled(installed, f.Path) }) {
		installed = nil
	}
	public := func(f *model.Facts) bool {
		if installed != nil {
			return IsHeader(f.Path) && isInstalled(installed, f.Path)
		}
		return IsHeader(f.Path) && headerPath(root, f.Path) != strings.TrimPrefix(f.Path, root+"/")
	}
	sorted := slices.ContainsFunc(files, func(f *model.Facts) bool {
		return f.Role == model.RoleCode && public(f) && !insideFolder(strings.TrimPrefix(f.Path, root+"/")) // those of a copy of another library say nothing
	})
	headers := slices.ContainsFunc(files, func(f *model.Facts) bool { return f.Role == model.RoleCode && IsHeader(f.Path) })
	out := map[*model.Facts]bool{}
	for _, f := range files {
		out[f] = f.Role == model.RoleCode && (headers && !IsHeader(f.Path) || sorted && !public(f) || insideFolder(strings.TrimPrefix(f.Path, root+"/")))
	}
	return out
}

// Place puts what stands in a namespace into its module, and a definition to the header that
// declares it.
func (FrontEnd) Place(lib *model.Library, files []*model.Facts, paths []string) []lang.Placement {
	out := make([]lang.Placement, len(files))
	kept := inside(lib, files)
	homes := homesOf(files, paths, kept)
	for i, f := range files {
		out[i].Inside = kept[f]
		put := func(n int, module string) {
			if module == paths[i] {
				return
			}
			if out[i].Others == nil {
				out[i].Others = map[int32]string{}
			}
			out[i].Others[int32(n)] = module
		}
		for n := range f.Occurrences {
			switch o := &f.Occurrences[n]; {
			case o.Parent >= 0:
			case o.In() != "":
				put(n, o.In())
			case moves(f, o):
				if home, ok := homes[nameOf(o)]; ok {
					put(n, home.path)
				}
			}
		}
		for _, m := range f.Modules {
			if m.Doc != nil {
				if out[i].Docs == nil {
					out[i].Docs = map[string]*model.Doc{}
				}
				if out[i].Docs[m.Name] == nil {
					out[i].Docs[m.Name] = m.Doc
				}
			}
		}
	}
	return out
}

// home is the header that a name belongs to.
type home struct {
	path string
	rank int
}

// nameOf is what a declaration at the top is known by in all files: functions and variables by
// their linkage, types by their tag.
func nameOf(o *model.Occurrence) string {
	name := o.Name
	if o.Scope != "" {
		name, _, _ = strings.Cut(o.Scope, ".")
		return "t " + name
	}
	switch o.Kind {
	case model.KindStruct, model.KindUnion, model.KindEnum, model.KindClass:
		return "t " + name
	}
	return name
}

// moves reports whether what a file declares may belong to another one: a definition in a source
// file, a type that is only named, a member outside its type.
func moves(f *model.Facts, o *model.Occurrence) bool {
	switch o.Kind {
	case model.KindFunction, model.KindVariable, model.KindConstant:
		return !IsHeader(f.Path) && o.Visibility != model.Private
	case model.KindStruct, model.KindUnion, model.KindEnum, model.KindClass:
		return isForward(o)
	}
	return o.Scope != ""
}

func isForward(o *model.Occurrence) bool { return slices.Contains(o.Modifiers(), "forward") }

// homesOf finds the header of each name that others may belong to: the definition of a type, the
// prototype of a function, those for users before others.
func homesOf(files []*model.Facts, paths []string, kept map[*model.Facts]bool) map[string]home {
	homes := map[string]home{}
	for i, f := range files {
		for n := range f.Occurrences {
			o := &f.Occurrences[n]
			if o.Parent >= 0 || o.In() != "" || o.Scope != "" {
				continue
			}
			rank := 0
			switch o.Kind {
			case model.KindFunction, model.KindVariable, model.KindConstant:
				if !IsHeader(f.Path) {
					continue
				}
				rank = 4
			case model.KindStruct, model.KindUnion, model.KindEnum, model.KindClass:
				switch {
				case !isForward(o) && IsHeader(f.Path):
					rank = 8
				case !isForward(o):
					rank = 1
				case IsHeader(f.Path):
					rank = 3
				}
			default:
				continue
			}
			if !kept[f] {
				rank += 2
			}
			if o.Doc != nil {
				rank++
			}
			if name := nameOf(o); rank > homes[name].rank {
				homes[name] = home{paths[i], rank}
			}
		}
	}
	return homes
}

// IsHeader reports whether a file is one that others include.
func (FrontEnd) IsHeader(file string) bool { return IsHeader(file) }

// Prevails is true of C++: a library with any of it may overload what its headers of C declare.
func (e FrontEnd) Prevails() bool { return e.Plus }

// ImportPaths are the headers that a file may mean by what it includes: one beside it, one by the
// path that users include it by, or one below a folder that the file lies in.
func (FrontEnd) ImportPaths(m *model.Module, f *model.Facts, written string) []string {
	root := "."
	if m != nil && m.Library != nil {
		root = m.Library.Root
	}
	dir := path.Dir(f.Path)
	beside := path.Join(dir, written)
	out := []string{headerPath(root, beside), beside, path.Clean(written), headerPath(".", written)}
	for up := 0; up < mostAbove && dir != "." && dir != "/" && dir != root; up++ {
		dir = path.Dir(dir)
		out = append(out, headerPath(root, path.Join(dir, written)))
	}
	return out
}

// mostAbove is how many folders above a file the folders that headers are looked for in may lie.
const mostAbove = 6

// Below is "": no header lies in another.
func (FrontEnd) Below(string, string) string { return "" }

// MarkerNames are the files by which the usual build tools know a project.
func (FrontEnd) MarkerNames() []string {
	return []string{"CMakeLists.txt", "meson.build", "configure.ac", "configure.in", "Makefile.am"}
}

// PartOf is always true: build files lie in all folders of one library.
func (FrontEnd) PartOf(_, _ lang.Root) bool { return true }

// Root reads the name and version out of a build file, and which headers it installs.
func (FrontEnd) Root(file string, data []byte) (lang.Root, bool) {
	root := lang.Root{Folder: path.Dir(file), Sayings: sayings(file, string(data))}
	call := map[string]string{"CMakeLists.txt": "project", "meson.build": "project"}[path.Base(file)]
	if call == "" {
		call = "AC_INIT"
	}
	args, ok := callOf(string(data), call)
	if !ok {
		root.Part = true // of the library that another one names
		return root, len(root.Sayings) > 0
	}
	root.Name = args[0]
	for i := 1; i < len(args); i++ {
		switch word := args[i-1]; {
		case word == "VERSION", word == "version:", word == "version", call == "AC_INIT" && i == 1:
			root.Version = args[i]
		}
	}
	if strings.ContainsAny(root.Name, "${}()@") {
		root.Name = ""
	}
	if strings.ContainsAny(root.Version, "${}()@") || root.Version != "" && (root.Version[0] < '0' || root.Version[0] > '9') {
		root.Version = ""
	}
	return root, true
}

// callOf are the words between the brackets of the first call of a function in a build file.
func callOf(text, name string) (args []string, ok bool) {
	for line := range strings.Lines(text) {
		rest, found := strings.CutPrefix(strings.ToLower(strings.TrimSpace(line)), strings.ToLower(name))
		if !found || !strings.HasPrefix(strings.TrimSpace(rest), "(") {
			continue
		}
		begin := strings.Index(text, line)
		_, rest, _ = strings.Cut(text[begin:], "(")
		inner, _, closed := strings.Cut(rest, ")")
		if !closed {
			return nil, false
		}
		args = strings.FieldsFunc(inner, func(c rune) bool { return strings.ContainsRune(" \t\r\n,'\"[]", c) })
		return args, len(args) > 0
	}
	return nil, false
}

// IsNative reports whether a name is a type that the language or its standard library brings.
func (e FrontEnd) IsNative(name string) bool {
	return builtin[name] || standardTypes[name] || e.Plus && strings.HasPrefix(name, "std::")
}

var standardTypes = map[string]bool{
	"size_t": true, "ssize_t": true, "ptrdiff_t": true, "int8_t": true, "int16_t": true, "int32_t": true, "int64_t": true, "uint8_t": true, "uint16_t": true, "uint32_t": true,
	"uint64_t": true, "intptr_t": true, "uintptr_t": true, "intmax_t": true, "uintmax_t": true, "FILE": true, "va_list": true, "time_t": true, "off_t": true, "wchar_t": true,
}

// IsNativeModule reports whether a header or namespace comes with the language.
func (FrontEnd) IsNativeModule(name string) bool {
	return name == "std" || strings.HasPrefix(name, "std::") || standardHeaders[name]
}

var standardHeaders = func() map[string]bool {
	set := map[string]bool{}
	for name := range strings.FieldsSeq(`assert complex ctype errno fenv float inttypes iso646 limits locale math setjmp signal stdalign stdarg stdatomic stdbool
		stddef stdint stdio stdlib stdnoreturn string tgmath threads time uchar wchar wctype unistd`) {
		set[name+".h"] = true
	}
	return set
}()

// AsksComment is true of all but what says all by its form: destructors, constructors without
// parameters, what is deleted or left to the compiler, what overrides something, a type that is
// only named, and macros that only say that something is there.
func (FrontEnd) AsksComment(d *model.Declaration) bool {
	at := d.Speaks(model.Words)
	switch d.Kind() {
	case model.KindConstructor:
		if at.Callable == nil || len(at.Callable.Params) == 0 {
			return false
		}
	case model.KindDestructor:
		return false
	case model.KindMacro:
		if at.Callable == nil && saysNothing(strings.TrimPrefix(at.Signature.Text(at.File.Text), "#define "+d.Name)) {
			return false
		}
	}
	return asksByForm(at)
}

// AsksFormComment is true of all but what the form of its declaration says all about.
func (FrontEnd) AsksFormComment(at model.At) bool { return asksByForm(at) }

func asksByForm(at model.At) bool {
	for _, word := range at.Modifiers() {
		switch word {
		case "override", "delete", "default", "forward", "made":
			return false
		}
	}
	return true
}

// saysNothing reports whether a macro of a value only marks what it stands before.
func saysNothing(value string) bool {
	value = strings.TrimSpace(value)
	for _, begin := range []string{"__attribute__", "__declspec", "extern", "[["} {
		if strings.HasPrefix(value, begin) {
			return true
		}
	}
	return value == ""
}

// AsksModuleComment reports whether a module should have a comment: a header has one by another
// rule where a project wants it, and a namespace stands in many.
func (FrontEnd) AsksModuleComment(*model.Module) bool { return false }

// ModuleWord is what the language calls a module.
func (FrontEnd) ModuleWord(m *model.Module) string {
	switch {
	case len(m.Files) == 0:
		return "namespace"
	case IsHeader(m.Path):
		return "header"
	}
	return "source-file"
}

// KindWord is what the language calls a declaration where the usual word does not fit.
func (FrontEnd) KindWord(d *model.Declaration) string {
	switch d.Kind() {
	case model.KindTrait:
		return "concept"
	case model.KindType:
		if strings.HasPrefix(d.Speaks(model.Signature).Signature.Text(d.Speaks(model.Signature).File.Text), "typedef") {
			return "typedef"
		}
		return "alias"
	}
	return ""
}

// BlockStyle is true of types with fields, and of enumerations.
func (FrontEnd) BlockStyle(d *model.Declaration) (lang.BlockStyle, bool) {
	form := lang.BlockStyle{Open: " {", Close: "}", End: ";", Remark: "// "}
	switch d.Kind() {
	case model.KindStruct, model.KindUnion:
		return form, true
	case model.KindEnum:
		form.End = ","
		return form, true
	}
	return form, false
}

// GroupKey calls groups by the languages' own words.
func (FrontEnd) GroupKey(title string) string {
	if title == "Traits" {
		return "Concepts"
	}
	return ""
}

// BringIn is the line by which a file includes a header.
func (FrontEnd) BringIn(m *model.Module, _ bool) string {
	if len(m.Files) == 0 || !IsHeader(m.Path) {
		return ""
	}
	return "#include <" + m.Path + ">"
}

// BringNameIn is the line that includes the header which declares something.
func (f FrontEnd) BringNameIn(from *model.Module, d *model.Declaration, _ string) string {
	if len(from.Files) > 0 {
		return f.BringIn(from, false)
	}
	for _, at := range d.Occurrences {
		if IsHeader(at.File.Path) && (!isForward(at.Occurrence) || len(d.Occurrences) == 1) {
			return "#include <" + headerPath(from.Library.Root, at.File.Path) + ">"
		}
	}
	return ""
}
