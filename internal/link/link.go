// Package link owns what names mean: the symbol table, the resolution of
// references from where they stand outwards, and the relations between types.
//
// It reads the joined model and the prose of comments, changes neither, and
// keeps what it finds in tables of its own. It knows no rule, no page and no
// language: what a language does differently comes in through package lang.
package link

import (
	"io/fs"
	"maps"
	"slices"
	"strings"
	"sync"
	"sync/atomic"

	"github.com/bmatcuk/doublestar/v4"

	"codrel/internal/comment"
	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// Pattern says where the names of modules outside the project are described.
type Pattern struct {
	Modules string // of module paths, with "*" and "**"
	Page    string // address with {module} and {name}
}

// Options is what the linker is told.
type Options struct {
	Reach     model.Reach
	Elsewhere []Pattern
	Outside   []Outside
	Workers   int
	FrontEnds map[string]lang.FrontEnd // by language
	// Vocabulary says what words of the maintainer's mean in comments, by language.
	Vocabulary map[string]prose.Vocabulary
	Files      fs.FS          // of the project, for what its guides lead to; may be nil
	Comments   *comment.Table // what is known of comments; nil for nothing
	UseNames   *UseNames      // what is known of the names in the code; nil for nothing
}

// Index is the linked project. It is safe for use by several goroutines.
type Index struct {
	Project  *model.Project
	Comments *comment.Table
	options  Options
	table
	surface
	onDemand
	related   map[*model.Declaration]*Relations
	unsettled map[*model.Module]bool
}

// table is which modules there are, by all that names them, and what files import.
type table struct {
	elsewhere    *elsewhere
	modules      map[string][]*model.Module // by path, code only
	packages     map[string]*model.Module   // by what users import them by, where that is not the path
	imports      map[*model.Facts][]imported
	importPlaces sync.Map                        // of files: *importIndex, see [Index.importsKnownAs]
	called       map[string][]*model.Declaration // by the paths that comments call them by
	takers       map[*model.Module]bool          // modules that take names out of others
	stubbed      map[*model.Module]bool          // modules of code and of what only declares
}

// surface is what users can name and where it stands; [Index.findSurface] works it out. It
// hangs on the reach: what is kept from users has no page, and what re-exports it has.
type surface struct {
	exportsOf     sync.Map                    // of modules: what [Index.Exports] found
	replaced      map[*model.Declaration]bool // constants and variables that only stand for what the module gives under their names
	lifted        map[*model.Declaration]bool // declarations of kept modules that another re-exports
	liftedModules map[*model.Module]bool
	handedOn      map[*model.Module]handing                            // how users get modules that are kept where they stand
	wholes        map[*model.Module]bool                               // modules that others re-export as a whole, under a name
	added         map[*model.Declaration][]*model.Declaration          // what other files declare of a declaration
	addedTo       map[*model.Declaration]*model.Declaration            // the same the other way round
	adopters      map[*model.Declaration]*model.Declaration            // of members of bases: the first member made of each
	homes         map[*model.Declaration]*model.Module                 // of what stands on another module's pages
	hosted        map[*model.Module][]*model.Declaration               // what stands on a module's pages from elsewhere
	guests        map[*model.Module][]*model.Declaration               // what comments of other modules put on a module's pages
	seated        map[*model.Declaration]bool                          // what stands where comments put it
	seats         map[*model.Declaration]map[string]*model.Declaration // of what comments put below a declaration
	emptied       map[*model.Module]bool                               // modules of which everything stands elsewhere
}

// onDemand is what is worked out when it is first asked for.
type onDemand struct {
	names       func() map[string][]*model.Module                         // modules by the names in reach at their top
	tops        func() *nearest.Words                                     // those names
	classes     sync.Map                                                  // of modules: what [Index.BaseModules] found
	titles      func() map[*model.Library]map[string][]string             // of groups, by the paths of modules
	made        func() map[*model.Library]map[string]bool                 // names that macros may declare
	extended    func() map[*model.Module][]*model.Module                  // modules by those that are their bases
	headed      sync.Map                                                  // of modules: the places of their text, see [Index.headingsOf]
	namedIn     sync.Map                                                  // of modules and declarations: the names in them, see [Index.namesIn]
	endings     func() map[string][]*model.Module                         // modules by their names, and by the last part of their paths
	declaring   func() map[string][]*model.Module                         // modules by the names at their top, in reach or not
	dotted      func() map[string][]*model.Module                         // modules whose paths have dots, by what stands behind the last
	listed      sync.Map                                                  // of modules: what their lists of exports say of declarations, see [Index.Listed]
	besides     func() map[*model.Declaration]*model.Declaration          // the code of what entries only declare
	named       func() map[*model.Library]map[string][]*model.Declaration // what has a name, two at the most
	fragments   func() map[string]*Fragment
	guides      func() []*Guide
	tested      func() map[*model.Declaration][]NamedInTest
	examples    func() map[any][]Example // by declaration, or module
	mentioned   func() map[*model.Declaration][]*Guide
	graph       func() *moduleGraph
	fileModules func() map[*model.Facts]*model.Module
	users       func() map[*model.Declaration]*UsersOf
	otherNames  func() map[*model.Declaration][]string
	codeFiles   func() []moduleFile
	unseen      func() map[*model.Module]bool              // those that are not here whole
	outsides    sync.Map                                   // of libraries: *outsideNames
	constants   sync.Map                                   // of modules: func() map[string]*model.Declaration, constants that are names of theirs
	prefixes    sync.Map                                   // of libraries: func() map[string]bool, what their names begin with
	given       map[*model.Declaration][]given             // bases that types have from outside
	generals    []General                                  // traits that every type has which meets some bounds
	based       sync.Map                                   // of declarations: what [Index.bases] found
	plain       sync.Map                                   // of types: their bases as names alone say them, []*model.Declaration
	usersOn     sync.Map                                   // of modules: func() map[*model.Declaration]*UsersOf, of what stands on their pages
	used        atomic.Pointer[map[*model.Facts]*FileUses] // filled in by users
}

// imported is one import of a file, as names in the file use it.
type imported struct {
	name   string // local name; "." where all names come in bare
	path   string
	member string        // what is taken out of the module; "" for the module itself
	whole  bool          // the module is taken as what it exports as a whole
	self   bool          // it is a further name of what the file itself has
	public bool          // it is re-exported to the users of the file
	module *model.Module // nil where it is outside the project
	from   *model.Import
}

// New links a joined project: its modules are as join made them, or as an earlier linking
// left them unchanged.
func New(project *model.Project, options Options) *Index {
	x := &Index{
		Project: project, Comments: options.Comments, options: options,
		table:   table{modules: map[string][]*model.Module{}, packages: map[string]*model.Module{}, imports: map[*model.Facts][]imported{}},
		related: map[*model.Declaration]*Relations{}, unsettled: map[*model.Module]bool{},
	}
	if x.Comments == nil {
		x.Comments = comment.NewTable(options.Vocabulary)
	}
	if x.options.UseNames == nil {
		x.options.UseNames = NewUseNames()
	}
	x.elsewhere = newElsewhere(options.Outside, options.FrontEnds)
	for _, lib := range project.Libraries {
		packaged, _ := options.FrontEnds[lib.Language].(lang.PackageImports)
		for _, m := range lib.Modules {
			x.modules[m.Path] = append(x.modules[m.Path], m)
			if packaged == nil {
				continue
			}
			if as := packaged.ImportedAs(m); as != "" && (x.packages[as] == nil || !m.Internal) {
				x.packages[as] = m
			}
		}
	}
	x.fileModules = sync.OnceValue(x.modulesOfFiles)
	x.readImports()
	x.called = x.findCalled()
	x.takeFromOthers()
	x.findSurface()
	x.promise()
	x.relate()
	x.findGenerals()
	for _, lib := range project.Libraries {
		for _, m := range lib.Modules {
			m.Settle()
		}
	}
	return x
}

// promise sets up what is worked out when it is first asked for.
func (x *Index) promise() {
	x.besides = sync.OnceValue(x.findBesides)
	x.names = sync.OnceValue(x.topNames)
	x.endings = sync.OnceValue(x.moduleEndings)
	x.declaring = sync.OnceValue(x.declaringModules)
	x.made = sync.OnceValue(x.madeNames)
	x.titles = sync.OnceValue(x.titlesOfGroups)
	x.extended = sync.OnceValue(x.extendedModules)
	x.dotted = sync.OnceValue(x.dottedModules)
	x.tops = sync.OnceValue(func() *nearest.Words { return nearest.NewWords(slices.Sorted(maps.Keys(x.names()))) })
	x.graph = sync.OnceValue(x.makeGraph)
	x.unseen = sync.OnceValue(x.findUnseen)
	x.fragments = sync.OnceValue(x.readFragments)
	x.guides = sync.OnceValue(x.readGuides)
	x.tested = sync.OnceValue(x.findTests)
	x.examples = sync.OnceValue(x.findExamples)
	x.mentioned = sync.OnceValue(x.findMentions)
	x.named = sync.OnceValue(x.namedAnywhere)
	x.users = sync.OnceValue(x.findUsers)
	x.otherNames = sync.OnceValue(x.findOtherNames)
	x.codeFiles = sync.OnceValue(func() []moduleFile {
		return x.filesOf(func(lib *model.Contents) []*model.Module { return lib.Modules })
	})
}

// mayChange reports whether linking may make a module say more than its files do. Where an
// earlier snapshot has it, it may not, and is among those of [Index.Unsettled].
func (x *Index) mayChange(m *model.Module) bool {
	if m.Settled() {
		x.unsettled[m] = true
		return false
	}
	return true
}

// Unsettled are the modules that linking would have made say more than their files do, but
// that an earlier snapshot has: whoever wants the project linked has to make them anew
// first. It is empty where no module is another snapshot's.
func (x *Index) Unsettled() map[*model.Module]bool { return x.unsettled }

// Options are what the linker was told.
func (x *Index) Options() Options { return x.options }

// FrontEnd is that of a language, or nil.
func (x *Index) FrontEnd(language string) lang.FrontEnd { return x.options.FrontEnds[language] }

// modulesOf are the modules of a library of the project.
func (x *Index) modulesOf(lib *model.Library) []*model.Module {
	for _, contents := range x.Project.Libraries {
		if contents.Library == lib {
			return contents.Modules
		}
	}
	return nil
}

// module finds a module by its path: the library's own before another's.
func (x *Index) module(lib *model.Library, path string) *model.Module {
	list := x.modules[path]
	for _, m := range list {
		if m.Library == lib {
			return m
		}
	}
	if len(list) > 0 {
		return list[0]
	}
	return x.elsewhere.find(path)
}

// importable is the module that code of a library means by a path: one of its own,
// else one of a library that its language can import, else another project's.
func (x *Index) importable(lib *model.Library, path string) *model.Module {
	list := x.modules[path]
	for _, m := range list {
		if m.Library == lib {
			return m
		}
	}
	if _, packaged := x.options.FrontEnds[lib.Language].(lang.PackageImports); packaged {
		if m := x.packages[path]; m != nil && m.Library != lib {
			return m
		}
		list = nil
	}
	for _, m := range list {
		if m.Library.Habits.SameFamily(lib.Habits) {
			return m
		}
	}
	return x.elsewhere.importable(path, lib.Habits)
}

// moduleEndings are the modules that names of modules can mean, in order.
func (x *Index) moduleEndings() map[string][]*model.Module {
	endings := map[string][]*model.Module{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			endings[m.Name] = append(endings[m.Name], m)
			if last := m.Last(); last != m.Name {
				endings[last] = append(endings[last], m)
			}
		}
	}
	return endings
}

func (x *Index) dottedModules() map[string][]*model.Module {
	dotted := map[string][]*model.Module{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if i := strings.LastIndexByte(m.Path, '.'); i >= 0 {
				dotted[m.Path[i+1:]] = append(dotted[m.Path[i+1:]], m)
			}
		}
	}
	return dotted
}

func (x *Index) topNames() map[string][]*model.Module {
	names := map[string][]*model.Module{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			for _, d := range m.Top {
				if x.InReach(d) {
					names[d.Name] = append(names[d.Name], m)
				}
			}
		}
	}
	return names
}

// InReach reports whether the declaration has a place among the pages.
func (x *Index) InReach(d *model.Declaration) bool {
	return d != nil && !d.Hidden && !x.replaced[d] && d.Module.Role == model.RoleCode && x.options.Reach.Includes(x.Visibility(d))
}

// ModuleInReach reports whether the module has a page: its language lets others
// see it, or the reach is wide enough, and not all of it stands on the pages of a
// module that re-exports it.
func (x *Index) ModuleInReach(m *model.Module) bool { return x.seen(m) && !x.emptied[m] }

// seen reports whether names of a module may be taken from it, wherever they stand.
func (x *Index) seen(m *model.Module) bool {
	return m.Role == model.RoleCode && (!m.Internal || x.options.Reach.Includes(model.Internal) || x.liftedModules[m])
}

// Reach is the least visible kind of declaration that is included.
func (x *Index) Reach() model.Reach { return x.options.Reach }

// Sections are the sections of the declaration's own comment, or of its group's
// where it has none. The file is the one the comment stands in.
func (x *Index) Sections(d *model.Declaration) (*comment.Sections, *model.Facts) {
	at := d.Speaks(model.Words)
	doc := at.Doc
	if doc == nil {
		doc = at.GroupDoc
	}
	return x.Comments.Of(d.Module.Library.Habits, at.File, doc), at.File
}

// Advice is what a deprecated declaration's comment, or the mark that makes it so, says
// of what to use instead, as blocks.
func (x *Index) Advice(d *model.Declaration) []prose.Node {
	if sections, _ := x.Sections(d); len(sections.Deprecated) > 0 {
		return sections.Deprecated
	}
	for _, o := range d.Occurrences {
		advice := o.Advice()
		if advice != nil && !strings.Contains(advice.Text, " ") { // the name of what takes its place
			name := prose.Node{Kind: prose.Code, Text: advice.Text, Span: advice.Span}
			return []prose.Node{{Kind: prose.Paragraph, Span: advice.Span, Children: []prose.Node{name}}}
		}
		if advice != nil {
			return x.Comments.Of(d.Module.Library.Habits, o.File, advice).Body
		}
	}
	return nil
}

// Under are the conditions under which an occurrence exists, beyond those that its file says: said
// where that is named, or where a macro is defined that it stands in.
func (x *Index) Under(at model.At) (out []string) {
	if x == nil {
		return nil
	}
	for _, lib := range x.Project.Libraries {
		out = append(out, lib.Under[at.File]...)
		out = append(out, lib.UnderOf[at.Occurrence]...)
	}
	return out
}

// Target is what a name means: a declaration, a module, or an address outside
// the project. The zero value means nothing.
type Target struct {
	Declaration *model.Declaration
	Form        *model.Occurrence // the form of the declaration that is meant; nil for all of it
	Module      *model.Module
	Address     string
	Heading     string // of a module: the heading of its text that is meant, as its anchor is made
}

// None reports whether the name means nothing that could be linked.
func (t Target) None() bool { return t.Declaration == nil && t.Module == nil && t.Address == "" }

// outside is the address of a name in a module outside the project, or "".
func (x *Index) outside(module, name string) string {
	for _, p := range x.options.Elsewhere {
		if ok, _ := doublestar.Match(p.Modules, module); ok {
			address := strings.ReplaceAll(p.Page, "{module}", module)
			address = strings.ReplaceAll(address, "{name}", name)
			return strings.TrimSuffix(address, "#")
		}
	}
	return ""
}

// Pageless reports whether a target is of another project that has no pages.
func (x *Index) Pageless(t Target) bool {
	m := t.Module
	if t.Declaration != nil {
		m = t.Declaration.Module
	}
	return m != nil && m.Library.Elsewhere != nil && m.Library.Elsewhere.Site == ""
}

// OutsideAddress is where the settings say that a target of such a project is described, or "".
func (x *Index) OutsideAddress(t Target) string {
	if t.Declaration != nil {
		return x.outside(t.Declaration.Module.Path, t.Declaration.Path())
	}
	return x.outside(t.Module.Path, "")
}

// ShownKind is a declaration's kind as users see it: what holds a function is one.
func (x *Index) ShownKind(d *model.Declaration) model.Kind {
	kind := d.Kind()
	if kind != model.KindConstant && kind != model.KindVariable {
		return kind
	}
	if v, ok := x.options.FrontEnds[d.Module.Library.Language].(lang.FunctionValues); ok && v.HoldsFunction(d) {
		return model.KindFunction
	}
	return kind
}
