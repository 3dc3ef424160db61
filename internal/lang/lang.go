// Package lang owns what a front end is: the one interface between a language
// and the rest of the program.
//
// A front end reads one file at a time and gives facts; what it knows beyond a
// single file (how files make modules, what lies between visibility and
// folders) reaches the later stages through the optional interfaces here. The
// package knows no language and no later stage.
package lang

import (
	"io/fs"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// File is one file to read.
type File struct {
	Path string // from the project's root, with "/"; conditions may hang on its name
	Text source.Text
	Deep bool // fill in Facts.Inside too, where the front end can
	// Other gives the bytes of another file of the project, by its path from the root, for
	// comments that take text from there; nil where there is none. Where it is nil itself,
	// they take nothing.
	Other func(path string) []byte
	// Macros say what words of the file stand for, as the settings have it.
	Macros map[string]string
	Plain  bool // comments without a mark for users speak of what follows them, too
}

// Facts are those of the file before it is read, in a language of a name.
func (f File) Facts(language string) *model.Facts {
	return &model.Facts{Path: f.Path, Language: language, Text: f.Text.String, Lines: f.Text.Lines, Encoding: f.Text.Encoding}
}

// FrontEnd reads the files of one language.
type FrontEnd interface {
	// Habits are what the language does in its own way; always the same record.
	Habits() *model.Habits
	// Extensions are the file endings of the language, with their dot.
	Extensions() []string
	// SkipFolders are names of folders that are never the maintainer's own code.
	SkipFolders() []string
	// Read extracts what the file declares. It is a pure function of the file and of those
	// that it takes text from, keeps what can be read of broken input, and never panics.
	Read(File) *model.Facts
}

// Recognizer is a front end whose language has file endings that others have too.
type Recognizer interface {
	// SharedExtensions are those endings, with their dot. They are not among Extensions.
	SharedExtensions() []string
	// Recognize says how much a file looks like one of the language: by its name, how it
	// begins, and the names of the sources that include it, or else of the files beside it. Of several front ends the one with the
	// most reads the file, and none where all say 0.
	Recognize(name string, head []byte, beside []string) int
}

// Including is a front end whose files name others, whose language they decide where it is one of
// several.
type Including interface {
	// Includes are the paths, as written, that a file includes which begins with a text.
	Includes(head string) []string
}

// Interpreted is a front end whose language has programs in files without an ending,
// which say in their first line what runs them.
type Interpreted interface {
	// Interpreters are the names of what runs them, without versions: "python".
	Interpreters() []string
}

// NamedFiles is a front end whose language has files that say something by their name alone,
// beside those with its endings.
type NamedFiles interface {
	// FileNames are the names of such files.
	FileNames() []string
}

// HabitsOf are those of a front end, or nil where there is none.
func HabitsOf(end FrontEnd) *model.Habits {
	if end == nil {
		return nil
	}
	return end.Habits()
}

// Root is a folder that a language's own files declare to be a library.
type Root struct {
	Folder  string // from the project's root, "." for the root
	Part    bool   // the folder belongs to the library that it lies in, where there is one
	Name    string // what the library calls itself, or ""
	Prefix  string // module path of the folder
	Version string
	Package string        // what users import the library by as a whole
	Imports []string      // paths of modules all names of which each file of the library has
	Begins  []model.Begin // see [model.Library]
	Sayings []model.Saying
	Entries []model.Entry // what users may import, by files from the root folder without suffix; empty where all are
}

// RootFinder is a front end whose language marks libraries with files of its own.
type RootFinder interface {
	// MarkerNames are the names of the files that mark a library, such as "go.mod", or how
	// they end, such as "*.csproj".
	MarkerNames() []string
	// Root reads one marker file; ok is false where it marks nothing.
	Root(path string, data []byte) (root Root, ok bool)
}

// Ignorer is a front end whose language's own tools leave out some files.
type Ignorer interface {
	// Ignored are the names of such files and folders, "*" at the end standing for any
	// rest. They are declarations all the same, and in the symbol stream.
	Ignored() []string
}

// MarkerJudge is a root finder that knows what is wrong with a marker file which it cannot read.
type MarkerJudge interface {
	// MarkerProblem is nil where the file is sound, whether it marks a library or not.
	MarkerProblem(data []byte) error
}

// Nester is a root finder whose libraries may lie in one another.
type Nester interface {
	// PartOf reports whether what an inner root marks belongs to the library of the
	// root around it.
	PartOf(outer, inner Root) bool
}

// Chooser is a front end whose libraries hold files that are made of others.
type Chooser interface {
	// Choose decides which files of a library are read, and what the library gives to
	// users. The files, marker files among them, are told by their paths from the root's
	// folder; read gives the bytes of one of them, or of another file there, or nil.
	Choose(root Root, files []string, read func(file string) []byte) Choice
}

// Headers is a front end of a language in which some files only declare what others define.
type Headers interface {
	// IsHeader reports whether a file is one that others include.
	IsHeader(file string) bool
}

// Prevailing is a front end whose language a library is in that has any files of it, whatever
// others it has: what it knows holds for these as well.
type Prevailing interface {
	Prevails() bool
}

// Choice is what a Chooser decides.
type Choice struct {
	Entries []model.Entry // what users import; empty where that is everything
	Sayings []model.Saying
	Inside  []model.Entry         // names by which only the library's own files import
	Left    []string              // files that are not read: there is source beside what was built
	Twins   []string              // files that are read for the symbol stream alone: others say the same
	Passed  []model.SkippedFolder // the folders of both
}

// Moduler is a front end whose language makes modules of several files.
type Moduler interface {
	// ModulePaths gives the module path of each file of a library, in the same order.
	ModulePaths(lib *model.Library, files []*model.Facts) []string
	// InternalModule reports whether the language keeps the module from outside users.
	InternalModule(path string) bool
}

// Placer is a front end whose files may declare things of several modules.
type Placer interface {
	Moduler
	// Place decides, when all files of a library are known, what belongs to other modules
	// than that of its file: for each file, in the same order, with the file's own module
	// in paths.
	Place(lib *model.Library, files []*model.Facts, paths []string) []Placement
}

// Placement is what a file declares of modules that are not its own.
type Placement struct {
	Others map[int32]string      // paths of modules, by index of an occurrence that nothing encloses; what stands in one goes with it
	Docs   map[string]*model.Doc // comments on such modules, by path; that of its own path takes the place of the file's own, nil leaves none
	About  []model.About         // comments on what other files declare
	Groups []model.Group         // those that these comments put it in
	// Under are the conditions under which the file is read at all, said in others.
	Under []string
	// UnderOf are those of occurrences, by their index, that macros in other places put them under.
	UnderOf map[int32][]string
	// Conditions are those of the modules that it declares things of, its own among them, by path.
	Conditions map[string][]string
	// Unworded are those of these modules whose authors let all go without comments, by path.
	Unworded map[string]bool
	More     []string        // paths of further such modules, which the file declares nothing of
	Kept     map[string]bool // such modules that are not for users, by path
	Inside   bool            // the file is for the library itself: nothing that it alone declares is for users
}

// Importer is a front end whose language writes paths of imports that hang on
// where they stand.
type Importer interface {
	// ImportPaths are the module paths that an import of a file of the module may
	// mean, the likeliest first; there is always one.
	ImportPaths(m *model.Module, f *model.Facts, written string) []string
	// Below is the module path of a module that lies in another.
	Below(module, name string) string
}

// Implementer is a front end whose types implement interfaces without saying so, by the
// methods that they have.
type Implementer interface {
	// CanImplement reports whether a type has methods of its own to implement interfaces
	// with: another name for a type has not.
	CanImplement(d *model.Declaration) bool
	// MethodKey is the name by which the methods of two types are compared.
	MethodKey(d *model.Declaration) string
	// MethodType is the type of a method in normal form, the same text for the same type.
	// The owner is the type whose method it is.
	MethodType(owner *model.Declaration, at model.At, names Names) string
	// BroughtMethods are those of an interface that the language brings along, in normal
	// form by key; ok is false for other names.
	BroughtMethods(name string) (methods map[string]string, ok bool)
}

// Names tells what the names in a file mean.
type Names interface {
	// Type is the type that a name means in a file of a module, or nil.
	Type(m *model.Module, f *model.Facts, name string) *model.Declaration
	// TypeIn is the type that a name means in a declaration in a file, or nil.
	TypeIn(d *model.Declaration, f *model.Facts, name string) *model.Declaration
	// Imported is the path of what a file imports under a name, or "".
	Imported(f *model.Facts, name string) string
}

// Combiner is a front end whose language makes types of others by names of its own.
type Combiner interface {
	// Combines reports whether a type that the language brings along has the members of
	// its first argument.
	Combines(name string) bool
	// Combined are the types that a name for a type made of others is made of, in order.
	Combined(d *model.Declaration, names Names) []Part
	// MapsFirst reports whether a type of the project has the members of its first
	// argument, or some of them.
	MapsFirst(d *model.Declaration, names Names) bool
}

// Part is a type that another one is made of.
type Part struct {
	Name  string
	Means *model.Declaration // nil where that is not read
	OneOf bool               // the type may be this part or another one
}

// Packages is a front end in whose language a module may stand for those below it, and
// re-exports what it takes from them.
type Packages interface {
	IsPackage(*model.Module) bool
}

// PackageImports is a front end whose modules have paths that mean something in their
// library alone: others import them by the library's package.
type PackageImports interface {
	// ImportedAs is what users of the library import a module by, or "" where they cannot.
	ImportedAs(*model.Module) string
}

// Native is a front end that knows the names which its language brings along.
type Native interface {
	// IsNative reports whether a name needs no import, as a built-in type does not.
	IsNative(name string) bool
}

// Library is a front end whose language brings modules along.
type Library interface {
	// IsNativeModule reports whether a name is that of such a module.
	IsNativeModule(name string) bool
}

// Standard is a front end that knows what stands in some modules which come with its language.
type Standard interface {
	// StandardNames are the names at the top of such a module, or nil where nobody has listed
	// them.
	StandardNames(module string) map[string]bool
	// IsStandardValue reports whether one of these names is that of a type whose values are
	// never nothing, such as a structure.
	IsStandardValue(module, name string) bool
}

// CommentPolicy is a front end whose language has habits of its own on what needs a comment.
type CommentPolicy interface {
	// AsksComment reports whether a declaration should have one.
	AsksComment(*model.Declaration) bool
	// AsksModuleComment reports whether a module should have one.
	AsksModuleComment(*model.Module) bool
}

// FormPolicy is a front end of a language in which some overloads need no comment of their own
// where others have one.
type FormPolicy interface {
	AsksFormComment(model.At) bool
}

// TestNamer is a front end whose language tells test files by their path.
type TestNamer interface {
	IsTest(path string) bool
}

// Exampler is a front end whose language has examples among its tests, told by their names.
type Exampler interface {
	// MayHaveExamples reports whether a test file of this path holds examples, by the habit
	// of the language.
	MayHaveExamples(path string) bool
	// TestedModule is the path of the module that a module of tests is about.
	TestedModule(path string) string
	// ExampleOf is the path of the declaration that a test function of this name
	// exemplifies, "" for the module as a whole, and what tells the example from others;
	// ok is false for other tests.
	ExampleOf(name string) (path, variant string, ok bool)
	// Example takes the code of an example, and the output that it is said to have, out of
	// the text of the function.
	Example(text string) (code, output string)
}

// Scanner is a front end that takes source text apart for those who read it.
type Scanner interface {
	// Scan appends the pieces of a text to a list, in order and without overlap.
	// Whatever the text holds, it takes time in proportion to its length.
	Scan(text string, into []lexing.Piece) []lexing.Piece
}

// ImportTyper is a front end whose language has types that name their module.
type ImportTyper interface {
	// ImportedType takes such a type apart: what it is imported from, the path in that, and
	// what is enough of it where the rest is clear. ok is false for other types.
	ImportedType(text string) (from, name, short string, ok bool)
}

// TypeErasure is a front end whose language loads nothing for names that only types need.
type TypeErasure interface {
	// ValueNames are the names that a file needs when the program runs; nil where it
	// needs all.
	ValueNames(*model.Facts) map[string]bool
}

// Terminology is a front end whose language has words of its own for modules and kinds.
type Terminology interface {
	// ModuleWord is what the language calls a module such as this one.
	ModuleWord(*model.Module) string
	// KindWord is what the language calls the declaration, or "" where the usual word fits.
	KindWord(*model.Declaration) string
	// GroupKey is the key of the heading that the language has for a group of
	// declarations which others call by the title, or "".
	GroupKey(title string) string
}

// Follower is a front end whose language gives types traits that follow from what they hold.
type Follower interface {
	// Follows is the key of a text that says which of them a type has, or "" where that is not known.
	// typeOf finds the type that a token names, or nil where it is not of the project.
	Follows(d *model.Declaration, typeOf func(model.At, model.Token) *model.Declaration) string
	// Dereferences is the token that names the type whose methods another one has besides its own.
	Dereferences(d *model.Declaration) (at model.At, to model.Token, ok bool)
}

// ConditionReader is a front end whose language writes conditions so that they can be said in words.
type ConditionReader interface {
	// Condition takes a condition apart.
	Condition(text string) Condition
	// Settles tells of two conditions that ask for one thing each, whatever is negated in them, whether the
	// second holds where the first does, if that is known.
	Settles(holds, other Condition) (value, known bool)
}

// Condition is what must hold for something to exist.
type Condition struct {
	// Kind says what is asked for: "feature", "system", "machine", "pointers", "set" and so on, for
	// which pages have words; "" for a condition made of others.
	Kind, Name string
	Not        bool        // it must not hold
	Any        bool        // one of the others is enough, else all must hold
	Of         []Condition // none for what always holds
}

// MemberBlocks is a front end whose language writes what a type holds behind its name.
type MemberBlocks interface {
	// BlockStyle says how it does so; ok is false for declarations that are not written so.
	BlockStyle(d *model.Declaration) (form BlockStyle, ok bool)
}

// BlockStyle is how a language writes what a type holds.
type BlockStyle struct {
	Open, Close string // around the members
	End         string // behind each of them
	Remark      string // before a remark on the rest of a line
	Methods     bool   // methods stand there too
}

// FunctionValues is a front end in whose language constants and variables often hold functions.
type FunctionValues interface {
	// HoldsFunction reports whether the words of a declaration say that its value is one.
	HoldsFunction(*model.Declaration) bool
}

// ImportWriter is a front end that knows how a user brings a module in.
type ImportWriter interface {
	// BringIn is the line a reader copies to use the module, or "" where it cannot be
	// imported. shadowed says that the module above has something else under its name.
	BringIn(m *model.Module, shadowed bool) string
}

// NameImportWriter is a front end in whose language a name is brought in on its own.
type NameImportWriter interface {
	// BringNameIn is the line a reader copies to use a declaration at the top of a
	// module. It is taken from a module that declares it or re-exports it under a name:
	// "default" where that is none.
	BringNameIn(from *model.Module, d *model.Declaration, name string) string
}

// Offerer is a front end in whose language users get some names of a module with it, and others
// when they ask for them.
type Offerer interface {
	// Offered says how users of its module get the name of a declaration.
	Offered(d *model.Declaration) Offer
}

// Offer is how users of a module get a name of it.
type Offer struct {
	Always bool     // with the module
	Asked  bool     // when they ask for it
	Sets   []string // names of several of the module's that they may ask for, which it is one of
}

// Reads reports whether the front end reads files with this path's ending.
func Reads(end FrontEnd, path string) bool {
	for _, ext := range end.Extensions() {
		if len(path) > len(ext) && path[len(path)-len(ext):] == ext {
			return true
		}
	}
	return false
}

// ReadMarker reads a marker file of a root finder.
func ReadMarker(fsys fs.FS, finder RootFinder, path string) (Root, bool) {
	data, err := fs.ReadFile(fsys, path)
	if err != nil {
		return Root{}, false
	}
	return finder.Root(path, data)
}

// IsMarker reports whether a file's name is one of those that mark libraries: as it is, or by
// its ending, as "*.csproj" says.
func IsMarker(names []string, name string) bool {
	for _, n := range names {
		ending, any := strings.CutPrefix(n, "*")
		if n == name || any && len(name) > len(ending) && strings.HasSuffix(name, ending) {
			return true
		}
	}
	return false
}
