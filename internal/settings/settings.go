// Package settings owns codrel.yaml: its keys, their defaults, and the errors
// that point at a line of it.
//
// It turns text into one value and knows nothing of what the settings do. A key
// exists here only when something obeys it.
package settings

import (
	_ "embed"

	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/source"
)

// FileName is the name of the settings file at the root of a project.
const FileName = "codrel.yaml"

// DefaultSite is the folder that the site is written to, from the project's root.
const DefaultSite = "codrel-site"

// Schema is the JSON Schema (2020-12) of the settings file.
//
//go:embed settings.schema.json
var Schema []byte

// Settings is what a settings file says, with defaults for the rest.
type Settings struct {
	Name      string // of the project; "" to find it
	Version   string // of the project
	Home      string // file of the landing page; "" to find the README
	Fragments string // folder of the fragments; "" to find it
	Guides    Guides
	Reach     model.Reach // protected where nothing is said: who extends a type is a user of it
	Read      []Read      // empty: everything in the folder
	Generated []string
	Describe  map[string]string // Markdown files that describe modules, by the modules' paths
	Source    string            // address of a source line: {path}, {line}, {revision}
	Edit      string            // address at which a file can be changed: {path}
	Editor    string            // address by which the maintainer's editor opens a place: {path}, {line}, {column}
	Elsewhere []Elsewhere
	// Vocabulary says, by language, what words of comments mean; words are in small letters.
	Vocabulary map[string]map[string]string
	Checks     Checks
	Write      Write
	Look       Look
	places     map[string]Problem // by key and value, where paths and patterns stand
	File       string             // where they were read from, as findings show it; "" for the defaults
	Site       string             // address that the site is served from, with "/" at the end; "" where nobody knows
}

// At is a problem with a value of the settings, at the place where it is written:
// of a key, and of the value where the key is a list's. Its line is 0 where the
// settings do not have it.
func (s *Settings) At(key, value, message string) Problem {
	p := s.places[key+"\x00"+value]
	p.Message = message
	return p
}

// Read is one tree of source to read.
type Read struct {
	Path     string
	Language string // "" for all that are found
	Skip     []string
	Open     []string          // folders whose modules count as visible although their language keeps them internal
	Macros   map[string]string // what macros stand for, by their names
	Plain    bool              // comments without a mark for users speak of what follows them, too
}

// Guides says where the maintainer's guides are, and in which order they are read.
type Guides struct {
	Folder string // "" to find it
	Order  []Step
}

// Step is one entry of the order of guides: a guide, or all guides in a folder, by the path in
// the folder of guides.
type Step struct {
	Word
	Part string // the part of the guides that it belongs to, or ""
}

// GuideFolders are where guides are looked for if the settings name no folder.
var GuideFolders = []string{"docs/guides", "guides"}

// Elsewhere tells where names outside the project are described: by the names that
// another project's site, or its compiler's documentation file, makes known, or by a pattern.
type Elsewhere struct {
	Modules string // pattern of module paths; "*" stays within an element, "**" does not
	Page    string // address with {module} and {name}
	Symbols Word   // file, or folder of a site, with the names of another project
	XML     Word   // documentation file of a C# compiler, with names and texts but no pages
	Site    string // where that project's pages are: an address, or a folder; "" where its site says so itself, or lies around the file
}

// Checks is what the rules are told.
type Checks struct {
	FailOn  finding.Severity
	Rules   map[string]finding.Severity
	Folders []FolderRules
	// AskInherited is whether a member should have a comment of its own although it
	// inherits the text of what it overrides or implements.
	AskInherited bool
	FileFields   []string // what the comment at the head of each file must say, such as "license"
}

// FolderRules changes severities for the files that match a pattern.
type FolderRules struct {
	Path  string
	Rules map[string]finding.Severity
}

// Write is what is written, and where.
type Write struct {
	Site   string   // folder of the site, from the project's root
	Keep   []string // patterns of files in it that are not Codrel's and stay
	Pages  []string // pages that are written only when asked for: "findings", "coverage", "to-dos"
	Whole  []string // patterns of paths of modules that also get one page with everything
	Source string   // what source pages show: "full", "signatures", or "none" for no such pages
	Hide   []string // names of sections of comments that are not shown, such as "author"
}

// Word is a text of the settings with its place, for findings about it.
type Word struct {
	Text string
	At   source.Position
}

// Look is what the maintainer changes of the site's look.
type Look struct {
	Accent Word // a colour, "#rrggbb"
	Logo   Word // an image
	Style  Word // a file of CSS
	Head   Word // files of HTML
	Header Word
	Footer Word
	Locale Word   // the language of the pages' own words, such as "en"
	Texts  []Text // words that replace those of the language
}

// Text is one of the pages' own words.
type Text struct{ Key, Value Word }

// FragmentFolders are where fragments are looked for if the settings name no folder.
var FragmentFolders = []string{"docs/fragments", "fragments"}

// Default are the settings of a project without a settings file.
func Default() *Settings {
	return &Settings{
		places: map[string]Problem{}, Reach: model.ReachProtected,
		Checks: Checks{FailOn: finding.Error, Rules: map[string]finding.Severity{}},
		Write:  Write{Site: DefaultSite, Source: "full"},
	}
}
