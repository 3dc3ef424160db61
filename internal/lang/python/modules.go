package python

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file knows what lies beyond one file: packages, their roots, and tests.

var (
	_ lang.RootFinder       = FrontEnd{}
	_ lang.Moduler          = FrontEnd{}
	_ lang.ImportWriter     = FrontEnd{}
	_ lang.NameImportWriter = FrontEnd{}
	_ lang.TestNamer        = FrontEnd{}
	_ lang.Importer         = FrontEnd{}
	_ lang.Native           = FrontEnd{}
	_ lang.Library          = FrontEnd{}
	_ lang.Scanner          = FrontEnd{}
	_ lang.CommentPolicy    = FrontEnd{}
	_ lang.Terminology      = FrontEnd{}
)

const packageFile = "__init__"

func stem(file string) string {
	base := path.Base(file)
	return strings.TrimSuffix(base, path.Ext(base))
}

func isPackageFile(file string) bool { return stem(file) == packageFile }

// moduleName is the last name of a file's module.
func moduleName(file string) string {
	if isPackageFile(file) {
		if path.Dir(file) == "." {
			return "" // the folder's own name is not known here
		}
		return strings.TrimSuffix(path.Base(path.Dir(file)), "-stubs")
	}
	return stem(file)
}

// MarkerNames are the files that make a folder a library.
func (FrontEnd) MarkerNames() []string { return []string{"pyproject.toml", "setup.cfg", "setup.py"} }

// Root reads the name and version of a project out of a marker file.
func (FrontEnd) Root(file string, data []byte) (lang.Root, bool) {
	root := lang.Root{Folder: path.Dir(file)}
	text := string(data)
	switch path.Base(file) {
	case "pyproject.toml":
		root.Name, root.Version = settingsIn(text, "[project]", "[tool.poetry]")
		return root, strings.Contains(text, "[project]") || strings.Contains(text, "[build-system]") || strings.Contains(text, "[tool.poetry]")
	case "setup.cfg":
		root.Name, root.Version = settingsIn(text, "[metadata]")
		return root, strings.Contains(text, "[metadata]")
	}
	root.Name, root.Version = argumentIn(text, "name"), argumentIn(text, "version")
	return root, strings.Contains(text, "setup(")
}

// settingsIn reads the lines "name = ..." and "version = ..." of a table.
func settingsIn(text string, tables ...string) (name, version string) {
	within := false
	for line := range strings.Lines(text) {
		line = strings.TrimSpace(line)
		if strings.HasPrefix(line, "[") {
			within = false
			for _, t := range tables {
				within = within || line == t
			}
			continue
		}
		key, value, ok := strings.Cut(line, "=")
		if !ok || !within {
			continue
		}
		value = strings.Trim(strings.TrimSpace(value), `"'`)
		switch strings.TrimSpace(key) {
		case "name":
			name = value
		case "version":
			if !strings.Contains(value, ":") { // "attr: module.version" is no version
				version = value
			}
		}
	}
	return name, version
}

// argumentIn reads a keyword argument that is a plain string.
func argumentIn(text, word string) string {
	l := lexer{text: text}
	for at := 0; ; {
		i := strings.Index(text[at:], word)
		if i < 0 {
			return ""
		}
		i += at
		at = i + len(word)
		sign := l.blanks(at, false)
		if i > 0 && inNames[text[i-1]] || sign >= len(text) || text[sign] != '=' {
			continue
		}
		open := l.blanks(sign+1, false)
		if open < len(text) && (text[open] == '"' || text[open] == '\'') {
			if end, closed := l.plainString(open); closed {
				return text[open+1 : end-1]
			}
		}
	}
}

// IsTest knows test files by the names that test runners look for.
func (FrontEnd) IsTest(file string) bool {
	name := stem(file)
	if strings.HasPrefix(name, "test_") || strings.HasSuffix(name, "_test") || name == "conftest" {
		return true
	}
	for dir := path.Dir(file); dir != "." && dir != "/"; dir = path.Dir(dir) {
		if base := path.Base(dir); base == "tests" || base == "test" {
			return true
		}
	}
	return false
}

// layoutFolders hold packages without being one.
var layoutFolders = map[string]bool{"src": true, "lib": true, "python": true, "stubs": true, "typings": true}

// ModulePaths gives each file its dotted name: the names of the folders below
// the one that packages are imported from, then the file's. A stub has the
// module of the file beside it.
func (FrontEnd) ModulePaths(lib *model.Library, files []*model.Facts) []string {
	packages := map[string]bool{}
	for _, f := range files {
		if isPackageFile(f.Path) {
			packages[path.Dir(f.Path)] = true
		}
	}
	paths := make([]string, len(files))
	for i, f := range files {
		paths[i] = dottedName(lib, f.Path, packages)
	}
	return paths
}

func dottedName(lib *model.Library, file string, packages map[string]bool) string {
	var names []string
	dir := path.Dir(file)
	if !isPackageFile(file) {
		names = append(names, stem(file))
	}
	for dir != lib.Root && dir != "." {
		base := path.Base(dir)
		parent := path.Dir(dir)
		if layoutFolders[base] && parent == lib.Root && !packages[dir] {
			break
		}
		names = append(names, strings.TrimSuffix(base, "-stubs"))
		dir = parent
	}
	if packages[dir] && dir == lib.Root { // the library's own folder is a package
		name := path.Base(dir)
		if dir == "." {
			name = lib.Name
		}
		names = append(names, name)
	}
	if len(names) == 0 {
		return lib.Name
	}
	for i, j := 0, len(names)-1; i < j; i, j = i+1, j-1 {
		names[i], names[j] = names[j], names[i]
	}
	return strings.Join(names, ".")
}

// InternalModule reports whether a name on the way to the module says that it is
// not for others (PEP 8, "Public and Internal Interfaces").
func (FrontEnd) InternalModule(p string) bool {
	for name := range strings.SplitSeq(p, ".") {
		if strings.HasPrefix(name, "_") && !special(name) {
			return true
		}
	}
	return false
}

// BringIn is the import statement.
func (FrontEnd) BringIn(m *model.Module, shadowed bool) string {
	for name := range strings.SplitSeq(m.Path, ".") {
		l := lexer{text: name}
		if l.nameEnd(0) != len(name) || special(name) {
			return ""
		}
	}
	if i := strings.LastIndexByte(m.Path, '.'); i > 0 && !shadowed {
		return "from " + m.Path[:i] + " import " + m.Path[i+1:]
	}
	return "import " + m.Path
}

// ImportPaths makes a relative path absolute ("Package Relative Imports"): each
// dot but the first leads one package up.
func (FrontEnd) ImportPaths(m *model.Module, f *model.Facts, written string) []string {
	rest := strings.TrimLeft(written, ".")
	up := len(written) - len(rest)
	if up == 0 {
		return []string{written}
	}
	if isPackageFile(f.Path) {
		up--
	}
	base := m.Path
	for ; up > 0; up-- {
		base = base[:max(0, strings.LastIndexByte(base, '.'))]
	}
	return []string{strings.Trim(base+"."+rest, ".")}
}

// Below is the path of a module in a package.
func (FrontEnd) Below(module, name string) string { return module + "." + name }

// IsNative knows the built-in functions, constants, types and exceptions, and the
// attributes that the language gives objects.
func (FrontEnd) IsNative(name string) bool { return natives[name] || special(name) }

// IsNativeModule knows the modules of the standard library, and of Python 2's.
func (FrontEnd) IsNativeModule(name string) bool { return nativeModules[name] }

var natives, nativeModules = lexing.WordSet(nativeNames), lexing.WordSet(moduleNames)

// nativeNames are the names of the module builtins, and some that the language
// reference itself uses for types without a name there.
const nativeNames = `
ArithmeticError AssertionError AttributeError BaseException BaseExceptionGroup BlockingIOError BrokenPipeError BufferError
BytesWarning ChildProcessError ConnectionAbortedError ConnectionError ConnectionRefusedError ConnectionResetError
DeprecationWarning EOFError Ellipsis EncodingWarning EnvironmentError Exception ExceptionGroup False FileExistsError
FileNotFoundError FloatingPointError FutureWarning GeneratorExit IOError ImportError ImportWarning IndentationError IndexError
InterruptedError IsADirectoryError KeyError KeyboardInterrupt LookupError MemoryError ModuleNotFoundError NameError None
NotADirectoryError NotImplemented NotImplementedError OSError OverflowError PendingDeprecationWarning PermissionError
ProcessLookupError PythonFinalizationError RecursionError ReferenceError ResourceWarning RuntimeError RuntimeWarning
StopAsyncIteration StopIteration SyntaxError SyntaxWarning SystemError SystemExit TabError TimeoutError True TypeError
UnboundLocalError UnicodeDecodeError UnicodeEncodeError UnicodeError UnicodeTranslateError UnicodeWarning UserWarning ValueError
Warning WindowsError ZeroDivisionError __build_class__ __debug__ __doc__ __import__ __loader__ __name__ __package__ __spec__
abs aiter all anext any ascii bin bool breakpoint bytearray bytes callable chr classmethod compile complex copyright credits
delattr dict dir divmod enumerate eval exec exit file filter float format frozenset getattr globals hasattr hash help hex id
input int isinstance issubclass iter len license list locals long map max memoryview min next object oct open ord pow print
property quit range repr reversed round set setattr slice sorted staticmethod str sum super tuple type unicode vars xrange zip
basestring function generator method module self cls`

// AsksComment is true of what PEP 257 wants docstrings for: classes, functions
// and methods. Special methods do what the language says they do; making an
// object is described by the class.
func (FrontEnd) AsksComment(d *model.Declaration) bool {
	switch d.Kind() {
	case model.KindClass, model.KindEnum, model.KindFunction, model.KindProperty:
		return true
	case model.KindMethod:
		return !special(d.Name)
	}
	return false
}

// AsksModuleComment is true of modules that hold anything.
func (FrontEnd) AsksModuleComment(m *model.Module) bool {
	return m.Count() > 0 && !m.Internal && !special(m.Name)
}

// ModuleWord tells packages from modules.
func (e FrontEnd) ModuleWord(m *model.Module) string {
	if e.IsPackage(m) {
		return "package"
	}
	return "module-word"
}

// IsPackage reports whether a module is made of the file that stands for a folder.
func (FrontEnd) IsPackage(m *model.Module) bool {
	return slices.ContainsFunc(m.Files, func(f *model.Facts) bool { return isPackageFile(f.Path) })
}

// records are decorators and bases of classes that are made of their attributes alone.
var records = map[string]bool{
	"dataclass": true, "dataclasses.dataclass": true, "NamedTuple": true, "typing.NamedTuple": true, "TypedDict": true, "typing.TypedDict": true,
	"typing_extensions.TypedDict": true, "attrs.define": true, "attrs.frozen": true, "attr.s": true, "attr.define": true,
}

// BlockStyle is true of enumerations, and of classes that a decorator or base makes records.
func (FrontEnd) BlockStyle(d *model.Declaration) (lang.BlockStyle, bool) {
	form := lang.BlockStyle{Open: ":", Remark: "# "}
	if d.Kind() == model.KindEnum {
		return form, true
	}
	if d.Kind() != model.KindClass {
		return form, false
	}
	at := d.Speaks(model.Words)
	for t := range at.Tokens(at.Signature) {
		if (t.Kind == model.TokenValue || t.Kind == model.TokenType) && records[t.Text] {
			return form, true
		}
	}
	return form, false
}

// KindWord uses the words of the language reference: what a class or an object
// has is an attribute, and an enumeration is a class.
func (FrontEnd) KindWord(d *model.Declaration) string {
	switch d.Kind() {
	case model.KindField:
		return "attribute"
	case model.KindType:
		return "type alias"
	case model.KindEnumMember:
		return "enumeration member"
	case model.KindEnum:
		return "enumeration"
	case model.KindMethod:
		at := d.Speaks(model.Signature)
		for t := range at.Tokens(at.Signature) {
			switch {
			case t.Kind == model.TokenValue && (t.Text == "classmethod" || t.Text == "staticmethod"):
				return map[string]string{"classmethod": "class method", "staticmethod": "static method"}[t.Text]
			case t.Kind == model.TokenName:
				return ""
			}
		}
	}
	return ""
}

// BringNameIn is the import statement for one name.
func (e FrontEnd) BringNameIn(from *model.Module, _ *model.Declaration, name string) string {
	if e.BringIn(from, false) == "" {
		return ""
	}
	return "from " + from.Path + " import " + name
}

// GroupKey calls types classes, and what they hold attributes.
func (FrontEnd) GroupKey(title string) string {
	switch title {
	case "Types":
		return "Classes"
	case "Fields":
		return "Attributes"
	}
	return ""
}

// moduleNames are the modules that the language brings along ("The Python Standard
// Library"), and those that it once did.
const moduleNames = `
__future__ __main__ abc aifc annotationlib argparse array ast asynchat asyncio asyncore atexit audioop base64 bdb
binascii bisect builtins bz2 calendar cgi cgitb chunk cmath cmd code codecs codeop collections colorsys commands
compileall compression concurrent ConfigParser configparser contextlib contextvars cookielib copy copyreg cPickle
cProfile crypt cStringIO csv ctypes curses dataclasses datetime dbm decimal difflib dis distutils doctest email
encodings ensurepip enum errno faulthandler fcntl filecmp fileinput fnmatch fractions ftplib functools gc genericpath
getopt getpass gettext glob graphlib grp gzip hashlib heapq hmac html htmlentitydefs http httplib imaplib imghdr imp
importlib inspect io ipaddress itertools json keyword lib2to3 linecache locale logging lzma mailbox mailcap marshal
math mimetypes mmap modulefinder msilib msvcrt multiprocessing netrc nis nntplib ntpath nturl2path numbers opcode
operator optparse os ossaudiodev pathlib pdb pickle pickletools pipes pkgutil platform plistlib poplib posix posixpath
pprint profile pstats pty pwd py_compile pyclbr pyexpat Queue queue quopri random re readline reprlib resource
rlcompleter runpy sched secrets select selectors shelve shlex shutil signal site smtpd smtplib sndhdr socket
socketserver spwd sqlite3 sre_compile sre_constants sre_parse ssl stat statistics string StringIO stringprep struct
subprocess sunau symtable sys sysconfig syslog tabnanny tarfile telnetlib tempfile termios textwrap thread threading
time timeit tkinter token tokenize tomllib trace traceback tracemalloc tty turtle types typing unicodedata unittest
urllib urllib2 urlparse uu uuid venv warnings wave weakref webbrowser winreg winsound wsgiref xdrlib xml xmlrpc zipapp
zipfile zipimport zlib zoneinfo`
