package java

import (
	"encoding/xml"
	"path"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file knows what lies beyond one file: how build files name libraries, what the
// language brings along, and what it calls things.

var (
	_ lang.RootFinder       = FrontEnd{}
	_ lang.Moduler          = FrontEnd{}
	_ lang.TestNamer        = FrontEnd{}
	_ lang.Chooser          = FrontEnd{}
	_ lang.Native           = FrontEnd{}
	_ lang.Library          = FrontEnd{}
	_ lang.CommentPolicy    = FrontEnd{}
	_ lang.Terminology      = FrontEnd{}
	_ lang.ImportWriter     = FrontEnd{}
	_ lang.NameImportWriter = FrontEnd{}
	_ lang.Scanner          = FrontEnd{}
)

// MarkerNames are the files by which the usual build tools know a library.
func (FrontEnd) MarkerNames() []string {
	return []string{"pom.xml", "*.gradle", "*.gradle.kts"}
}

// Root reads a build file. Gradle's are programs: of them nothing but that they are there
// is known.
func (FrontEnd) Root(file string, data []byte) (lang.Root, bool) {
	root := lang.Root{Folder: path.Dir(file)}
	if name := path.Base(file); name != "pom.xml" {
		name = strings.TrimSuffix(strings.TrimSuffix(name, ".kts"), ".gradle")
		if name != "build" && name != path.Base(root.Folder) { // settings and pieces of programs mark nothing
			return root, false
		}
		root.Version = gradleVersion(string(data))
		return root, true
	}
	var project struct {
		XMLName  xml.Name `xml:"project"`
		Artifact string   `xml:"artifactId"`
		Version  string   `xml:"version"`
		Parent   struct {
			Version string `xml:"version"`
		} `xml:"parent"`
	}
	if err := xml.Unmarshal(data, &project); err != nil {
		return root, false
	}
	root.Name, root.Version = project.Artifact, project.Version
	if root.Version == "" {
		root.Version = project.Parent.Version
	}
	if strings.Contains(root.Version, "${") {
		root.Version = ""
	}
	if strings.Contains(root.Name, "${") {
		root.Name = ""
	}
	return root, true
}

// gradleVersion is the version that a line of its own gives a library, or "".
func gradleVersion(text string) string {
	for line := range strings.Lines(text) {
		rest, ok := strings.CutPrefix(line, "version")
		if !ok {
			continue
		}
		rest = strings.TrimLeft(rest, " \t=")
		if rest == "" || rest[0] != '"' && rest[0] != '\'' {
			continue
		}
		if version, _, closed := strings.Cut(rest[1:], rest[:1]); closed && !strings.Contains(version, "$") {
			return version
		}
	}
	return ""
}

// Choose reads the module declarations of a library: the packages that they export to all are
// what users may import. Without such declarations every package is. To whom they export and
// open others is said.
func (f FrontEnd) Choose(_ lang.Root, files []string, read func(string) []byte) (choice lang.Choice) {
	for _, file := range files {
		if path.Base(file) != moduleFile || f.IsTest(file) {
			continue
		}
		exported, sayings := moduleDeclaration(string(read(file)))
		for _, name := range exported {
			choice.Entries = append(choice.Entries, model.Entry{Path: name})
		}
		choice.Sayings = append(choice.Sayings, sayings...)
	}
	return choice
}

// moduleFile is the file of a module's declaration (JLS 7.7).
const moduleFile = "module-info.java"

// moduleDeclaration reads a module declaration: the packages that it exports without saying to
// whom, and what it says beyond that.
func moduleDeclaration(text string) (exported []string, sayings []model.Saying) {
	stream, back := lexing.Borrow()
	defer back()
	shape.Lex(text, stream)
	c := stream.Look(text)
	for i := range c.Tokens {
		begins := c.Is(i-1, '{') || c.Is(i-1, ';') || c.Is(i-1, '}')
		switch word := c.Word(i); {
		case word == "module" && c.Word(i+1) != "" && len(sayings) == 0:
			name, _ := nameOfPackage(c, i+1)
			sayings = append(sayings, model.Saying{Key: model.Called, Names: []string{name}})
			if c.Word(i-1) == "open" {
				sayings = append(sayings, model.Saying{Key: model.Reflected})
			}
		case begins && (word == "exports" || word == "opens"):
			name, end := nameOfPackage(c, i+1)
			var to []string
			for c.Word(end) == "to" || c.Is(end, ',') {
				var module string
				module, end = nameOfPackage(c, end+1)
				to = append(to, module)
			}
			switch {
			case !c.Is(end, ';'):
			case word == "exports" && len(to) == 0:
				exported = append(exported, name)
			case word == "exports":
				sayings = append(sayings, model.Saying{Key: model.OnlyTo, Module: name, Names: to})
			case len(to) == 0:
				sayings = append(sayings, model.Saying{Key: model.Reflected, Module: name})
			default:
				sayings = append(sayings, model.Saying{Key: model.OnlyRead, Module: name, Names: to})
			}
		}
	}
	return exported, sayings
}

// nameOfPackage is the dotted name that begins at an index, and the index behind it.
func nameOfPackage(c lexing.Cursor, i int) (name string, end int) {
	end = i
	for end < len(c.Tokens) && (c.Is(end, '.') || c.Word(end) != "" && (end == i || c.Is(end-1, '.'))) {
		end++
	}
	return c.Dotted(i, end), end
}

// IsNative reports whether a name needs no import.
func (FrontEnd) IsNative(name string) bool { return natives[name] || primitives[name] }

// IsNativeModule reports whether a package comes with the language.
func (FrontEnd) IsNativeModule(name string) bool {
	return strings.HasPrefix(name, "java.") || strings.HasPrefix(name, "javax.") || strings.HasPrefix(name, "jdk.")
}

// AsksComment is true of all but what overrides something, which has its words from there,
// the parts of a record, which its own comment describes, and constructors without parameters.
func (FrontEnd) AsksComment(d *model.Declaration) bool {
	at := d.Speaks(model.Words)
	switch d.Kind() {
	case model.KindMethod:
		return !overrides(at)
	case model.KindField:
		return d.Parent == nil || d.Parent.Kind() != model.KindRecord
	case model.KindConstructor:
		return at.Callable != nil && len(at.Callable.Params) > 0 && (d.Parent == nil || d.Parent.Kind() != model.KindRecord)
	}
	return true
}

// overrides reports whether a method says that it overrides another one.
func overrides(at model.At) bool {
	return at.NameSpan.Start > at.Span.Start && strings.Contains(at.File.Text[at.Span.Start:at.NameSpan.Start], "@Override")
}

// AsksModuleComment is true of packages that hold anything.
func (FrontEnd) AsksModuleComment(m *model.Module) bool { return m.Count() > 0 && !m.Internal }

// ModuleWord is what the language calls a module.
func (FrontEnd) ModuleWord(*model.Module) string { return "package" }

// KindWord uses the words of the language's specification (JLS 8.9.1, 9.6).
func (FrontEnd) KindWord(d *model.Declaration) string {
	switch d.Kind() {
	case model.KindEnumMember:
		return "enum constant"
	case model.KindAnnotation:
		return "annotation interface"
	}
	return ""
}

// GroupKey is "": the usual headings fit.
func (FrontEnd) GroupKey(string) string { return "" }

// BringIn is the import of all that a package has.
func (FrontEnd) BringIn(m *model.Module, _ bool) string {
	if m.Path == unnamed {
		return ""
	}
	return "import " + m.Path + ".*;"
}

// BringNameIn is the import of a type.
func (FrontEnd) BringNameIn(from *model.Module, d *model.Declaration, name string) string {
	if from.Path == unnamed || !d.Kind().IsType() {
		return ""
	}
	return "import " + from.Path + "." + name + ";"
}
