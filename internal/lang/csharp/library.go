package csharp

import (
	"encoding/xml"
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file knows what lies beyond one file: how project files name libraries, what the
// language brings along, and what it calls things.

var (
	_ lang.RootFinder       = FrontEnd{}
	_ lang.Placer           = FrontEnd{}
	_ lang.TestNamer        = FrontEnd{}
	_ lang.Native           = FrontEnd{}
	_ lang.Library          = FrontEnd{}
	_ lang.CommentPolicy    = FrontEnd{}
	_ lang.Terminology      = FrontEnd{}
	_ lang.ImportWriter     = FrontEnd{}
	_ lang.NameImportWriter = FrontEnd{}
	_ lang.Scanner          = FrontEnd{}
	_ lang.Standard         = FrontEnd{}
)

// MarkerNames are the project files by which the language's build tool knows a library.
func (FrontEnd) MarkerNames() []string { return []string{"*.csproj"} }

// Root reads a project file.
func (FrontEnd) Root(file string, data []byte) (lang.Root, bool) {
	root := lang.Root{Folder: path.Dir(file)}
	var project struct {
		XMLName xml.Name `xml:"Project"`
		Groups  []struct {
			Package  string `xml:"PackageId"`
			Assembly string `xml:"AssemblyName"`
			Version  string `xml:"Version"`
			Prefix   string `xml:"VersionPrefix"`
			Implicit string `xml:"ImplicitUsings"`
			For      string `xml:"TargetFramework"`
			ForAll   string `xml:"TargetFrameworks"`
			Old      string `xml:"TargetFrameworkVersion"`
		} `xml:"PropertyGroup"`
		Sdk   string `xml:"Sdk,attr"`
		Items []struct {
			Usings []struct {
				Include string `xml:"Include,attr"`
				Remove  string `xml:"Remove,attr"`
				Static  string `xml:"Static,attr"`
				Alias   string `xml:"Alias,attr"`
			} `xml:"Using"`
			LetsIn []struct {
				Include string `xml:"Include,attr"`
			} `xml:"InternalsVisibleTo"`
		} `xml:"ItemGroup"`
	}
	if err := xml.Unmarshal(data, &project); err != nil {
		return root, false
	}
	for _, group := range project.Groups {
		root.Name = first(root.Name, group.Package, group.Assembly)
		root.Version = first(root.Version, group.Version, group.Prefix)
	}
	implicit := project.Sdk != ""
	for _, group := range project.Groups {
		if said := strings.TrimSpace(group.Implicit); said != "" {
			implicit = strings.EqualFold(said, "enable") || strings.EqualFold(said, "true")
		}
	}
	if implicit { // also where nothing is said: a file for several projects may say it
		root.Imports = slices.Clone(implicitUsings)
	}
	var frameworks, friends []string
	for _, group := range project.Groups {
		for _, list := range []string{group.For, group.ForAll} {
			frameworks = appendNames(frameworks, list)
		}
		if version, ok := strings.CutPrefix(first(group.Old), "v"); ok {
			frameworks = appendNames(frameworks, ".NET Framework "+version)
		}
	}
	for _, items := range project.Items {
		for _, friend := range items.LetsIn {
			name, _, _ := strings.Cut(friend.Include, ",") // a key may follow
			friends = appendNames(friends, name)
		}
	}
	assembly := strings.TrimSuffix(path.Base(file), path.Ext(file))
	for _, group := range project.Groups {
		if name := first(group.Assembly); name != "" {
			assembly = name
			break
		}
	}
	root.Sayings = append(root.Sayings, model.Saying{Key: model.Assembly, Names: []string{assembly}})
	if len(frameworks) > 0 {
		root.Sayings = append(root.Sayings, model.Saying{Key: model.BuiltFor, Names: frameworks})
	}
	if len(friends) > 0 {
		root.Sayings = append(root.Sayings, model.Saying{Key: model.LetsIn, Names: friends})
	}
	for _, items := range project.Items {
		for _, using := range items.Usings {
			for name := range strings.SplitSeq(using.Remove, ";") {
				root.Imports = slices.DeleteFunc(root.Imports, func(have string) bool { return have == strings.TrimSpace(name) })
			}
			if using.Static != "" || using.Alias != "" {
				continue
			}
			for name := range strings.SplitSeq(using.Include, ";") {
				if name = first(name); name != "" {
					root.Imports = append(root.Imports, name)
				}
			}
		}
	}
	root.Name = first(root.Name, strings.TrimSuffix(path.Base(file), path.Ext(file)))
	return root, true
}

// appendNames adds the names of a list between semicolons, each once. What hangs on other
// properties says nothing by itself.
func appendNames(to []string, list string) []string {
	for name := range strings.SplitSeq(list, ";") {
		if name = first(name); name != "" && !slices.Contains(to, name) {
			to = append(to, name)
		}
	}
	return to
}

// implicitUsings are the namespaces that the build tool's own project kind has in all files.
var implicitUsings = []string{
	"System", "System.Collections.Generic", "System.IO", "System.Linq", "System.Net.Http", "System.Threading", "System.Threading.Tasks",
}

// first is the first of some values that says anything by itself.
func first(values ...string) string {
	for _, v := range values {
		if v = strings.TrimSpace(v); v != "" && !strings.Contains(v, "$(") {
			return v
		}
	}
	return ""
}

// IsNative reports whether a name is a type that is a word of the language.
func (FrontEnd) IsNative(name string) bool {
	return predefined[name] || name == "dynamic" || name == "nint" || name == "nuint"
}

// IsNativeModule reports whether a namespace comes with the language.
func (FrontEnd) IsNativeModule(name string) bool {
	return name == "System" || strings.HasPrefix(name, "System.") || strings.HasPrefix(name, "Microsoft.")
}

// AsksComment is true of all but what has its words from elsewhere: what overrides
// something, what a record has by its parameters, a method for one interface alone, and
// constructors without parameters, static constructors, finalizers, and what editors are told not
// to offer.
func (FrontEnd) AsksComment(d *model.Declaration) bool {
	at := d.Speaks(model.Words)
	switch d.Kind() {
	case model.KindConstructor:
		return at.Callable != nil && len(at.Callable.Params) > 0
	case model.KindDestructor:
		return false
	case model.KindProperty:
		if d.Parent != nil && d.Parent.Kind() == model.KindRecord && at.Span.End == at.NameSpan.End {
			return false
		}
	}
	for _, word := range at.Modifiers() {
		if word == "override" {
			return false
		}
	}
	return d.Space() == "" && !d.Aside()
}

// AsksModuleComment is never true: a namespace has no place for one in the source.
func (FrontEnd) AsksModuleComment(*model.Module) bool { return false }

// ModuleWord is what the language calls a module.
func (FrontEnd) ModuleWord(*model.Module) string { return "namespace" }

// KindWord is "": the usual words are the language's.
func (FrontEnd) KindWord(*model.Declaration) string { return "" }

// GroupKey calls what answers to brackets by the language's own word.
func (FrontEnd) GroupKey(title string) string {
	if title == "Index signatures" {
		return "Indexers"
	}
	return ""
}

// BringIn is the line by which a file uses a namespace.
func (FrontEnd) BringIn(m *model.Module, _ bool) string {
	if m.Path == global {
		return ""
	}
	return "using " + m.Path + ";"
}

// BringNameIn is the same line: names are not brought in on their own.
func (f FrontEnd) BringNameIn(from *model.Module, _ *model.Declaration, _ string) string {
	return f.BringIn(from, false)
}
