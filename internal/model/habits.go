package model

import "strings"

// Habits are what a language does in its own way, as data. Packages that know no language
// ask them, and compare with no language's words. A language has one record of them.
type Habits struct {
	Language string   // as settings, stream and pages write it, such as "go"
	Name     string   // as people write it, such as "Go"
	Family   string   // languages of one family import one another's modules; "" for none but its own
	Dialect  string   // of its doc comments, where a comment names no other
	Fences   []string // what fences in Markdown call it

	PathMark       string   // what stands between the parts of a module's path
	PlainAliases   bool     // another name for a type is the type: who cannot name it names what it stands for
	Nested         bool     // modules lie in one another: people call one by the last part of its path
	ByPath         bool     // code names what a module has by its path, from the outside or from what is around, without an import
	Bare           bool     // people write the names of other modules without these
	NameMarks      []string // what stands between the parts of a name in code beside a dot, such as "::"
	Program        string   // the name of the module of a program, or ""
	Default        string   // the name of what a module gives without a name, or ""
	Started        []string // functions that the language itself calls, which need no words
	Self           []string // what stands for the object in the text of its members
	Nothing        []string // result types that say that nothing comes back
	Unnamed        string   // the name of what nobody can name, or "" where each can be
	Unused         string   // what names begin with that say by it that they are not used, or ""
	Directive      string   // what a comment line to Codrel begins with, its name among it
	Fails          string   // how a body fails: "throws", "raises"
	Overloads      bool     // callables of one name may differ by their parameters alone
	Prefixes       bool     // names of one library begin with the same letters, before an underscore
	OuterConstants bool     // constants of an enumeration are names of what it stands in
	EachForm       bool     // each overload is described on its own, not all by one comment
	Apart          bool     // a type that stands in another stands in a namespace of its name
	SeesInner      bool     // members of a type write the types in it without its name
	TypeFirst      bool     // the type of what holds a value stands before its name
	Unbound        []string // modifiers of members that take the place of no other's, nor have it taken
	Contracts      bool     // a type that implements an interface has none of its members but those it declares
	ByFile         bool     // a module is a file that others include: what these define of it brings none of their imports along
	BareEnd        bool     // no comma stands behind the last entry of a list over several lines
	Accessors      bool     // properties are something else than fields to their users, each kind under its own heading
	Always         []string // modules whose names every file sees without an import
	Roots          []string // what paths begin with that say where they begin, as "crate" does
	Circles        bool     // modules of a library may import one another, which is no flaw
	SeesOuter      bool     // a module sees what the modules around it have, and what it has in other libraries
	ByArity        bool     // types of one name are told apart by how many type parameters they have
	Partial        bool     // a type may come in parts, of which one says who sees it for all
	Lists          bool     // files say themselves what they export
	Dynamic        bool     // programs commonly make names while they run
	MayMake        []string // what stands in the source of modules that may make names while they run
	Makes          []string // what stands there where they surely do
	TakesParts     bool     // what a comment does not say of parameters, results and failures it has from what it overrides
	OfAll          []string // members that every type has from what the language brings along
	Extensions     bool     // callables may be added to types from outside: their signatures say "this" or "extension" before the type
	Whole          bool     // modules are named whole wherever they are used: what begins as one of the library's own is of the library
	Peril          string   // the modifier of what users must make sure of something for, or ""
	PerilHeading   string   // under which comments say of what
	Telling        []string // words before a type that are shown in lists of members too, since they tell how a member is used
	OfEnums        []string // those that every enumeration has besides
	AnyMember      string   // the name of the member that answers for members of any name, or ""

	// Spaces are the name spaces of kinds that may share a name with others, as "macro"
	// for a macro beside a function; kinds that are not here share one.
	Spaces map[Kind]string
}

// TypesApart reports whether the library's language has no types in types.
func (l *Library) TypesApart() bool { return l.Habits != nil && l.Habits.Apart }

// Last is the last part of a module's path.
func (h *Habits) Last(path string) string {
	if h == nil || h.PathMark == "" {
		return path
	}
	if i := strings.LastIndex(path, h.PathMark); i >= 0 {
		return path[i+len(h.PathMark):]
	}
	return path
}

// IsUnused reports whether a parameter says by its name that it is not used.
func (h *Habits) IsUnused(name string) bool {
	return h != nil && h.Unused != "" && strings.HasPrefix(name, h.Unused)
}

// Dotted is a name in code with dots between its parts, as scopes and paths have them.
func (h *Habits) Dotted(name string) string {
	if h == nil {
		return name
	}
	for _, mark := range h.NameMarks {
		name = strings.ReplaceAll(name, mark, ".")
	}
	return name
}

// Around is the beginning of the paths of what lies where the module does, with what
// stands before its own part; "" where modules do not lie in one another.
func (m *Module) Around() string { return m.Path[:len(m.Path)-len(m.Last())] }

// Below is the beginning of the paths of what lies in the module; ok is false where modules
// do not lie in one another.
func (m *Module) Below() (beginning string, ok bool) {
	h := m.Library.Habits
	if h == nil || !h.Nested {
		return "", false
	}
	return m.Path + h.PathMark, true
}

// Last is what people call the module by: the last part of its path where modules lie in
// one another, else the path.
func (m *Module) Last() string {
	if h := m.Library.Habits; h != nil && h.Nested {
		return h.Last(m.Path)
	}
	return m.Path
}

// IsProgram reports whether the module is a program, not something to import.
func (m *Module) IsProgram() bool {
	h := m.Library.Habits
	return h != nil && h.Program != "" && m.Name == h.Program
}

// Space is the name space of a kind, "" for the one that most share.
func (h *Habits) Space(k Kind) string {
	if h == nil {
		return ""
	}
	return h.Spaces[k]
}

// SameFamily reports whether code of one language can import a module of the other.
func (h *Habits) SameFamily(other *Habits) bool {
	if h == nil || other == nil {
		return h == other
	}
	return h.Language == other.Language || h.Family != "" && h.Family == other.Family
}
