package perl

import (
	"path"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file knows how files make modules, and what the language calls things.

var (
	_ lang.Moduler          = FrontEnd{}
	_ lang.Placer           = FrontEnd{}
	_ lang.Importer         = FrontEnd{}
	_ lang.TestNamer        = FrontEnd{}
	_ lang.Interpreted      = FrontEnd{}
	_ lang.CommentPolicy    = FrontEnd{}
	_ lang.Terminology      = FrontEnd{}
	_ lang.ImportWriter     = FrontEnd{}
	_ lang.NameImportWriter = FrontEnd{}
	_ lang.Scanner          = FrontEnd{}
	_ lang.Offerer          = FrontEnd{}
)

// ModulePaths gives each file its module: the package that it is about.
func (FrontEnd) ModulePaths(lib *model.Library, files []*model.Facts) []string {
	out := make([]string, len(files))
	for i, f := range files {
		if out[i] = f.Package; out[i] == "" {
			out[i] = strings.TrimSuffix(path.Base(f.Path), path.Ext(f.Path))
		}
	}
	return out
}

// InternalModule reports whether a module is one for the library itself by its name.
func (FrontEnd) InternalModule(module string) bool {
	for part := range strings.SplitSeq(module, "::") {
		if strings.HasPrefix(part, "_") {
			return true
		}
	}
	return false
}

// ImportPaths is the module that a path means.
func (FrontEnd) ImportPaths(_ *model.Module, _ *model.Facts, written string) []string {
	return []string{written}
}

// Below is the path of a module in another one.
func (FrontEnd) Below(module, name string) string { return module + "::" + name }

// conventional are subs that packages have for the language or for others, whose meaning is known.
var conventional = map[string]bool{
	"import": true, "unimport": true, "TIEHASH": true, "TIEARRAY": true, "TIESCALAR": true, "TIEHANDLE": true, "FETCH": true, "STORE": true, "DELETE": true, "CLEAR": true, "EXISTS": true, "FIRSTKEY": true, "NEXTKEY": true,
	"SCALAR": true, "UNTIE": true, "FETCHSIZE": true, "STORESIZE": true, "PUSH": true, "POP": true, "SHIFT": true, "UNSHIFT": true, "SPLICE": true, "EXTEND": true, "PRINT": true, "PRINTF": true, "WRITE": true, "READLINE": true, "GETC": true, "READ": true, "CLOSE": true,
	"FREEZE": true, "THAW": true, "TO_JSON": true, "STORABLE_freeze": true, "STORABLE_thaw": true, "can": true, "isa": true, "DOES": true,
}

// AsksComment is true of what is not there by convention.
func (FrontEnd) AsksComment(d *model.Declaration) bool { return !conventional[d.Name] }

// AsksModuleComment is true of modules that hold anything.
func (FrontEnd) AsksModuleComment(m *model.Module) bool { return m.Count() > 0 && !m.Internal }

// ModuleWord is what the language calls modules.
func (FrontEnd) ModuleWord(m *model.Module) string {
	if len(m.Files) > 0 && path.Ext(m.Files[0].Path) != ".pm" && path.Ext(m.Files[0].Path) != ".pod" {
		return "program"
	}
	return "module-word"
}

// KindWord uses the words of the language's manual.
func (FrontEnd) KindWord(d *model.Declaration) string {
	switch d.Kind() {
	case model.KindProperty:
		return "attribute"
	case model.KindFunction:
		if isMethod(d.Speaks(model.Words).Occurrence) {
			return "method"
		}
		if d.Name == "new" { // whatever it takes its class from
			return "method"
		}
		return "sub"
	}
	return ""
}

// GroupKey calls functions as the manual does.
func (FrontEnd) GroupKey(title string) string {
	switch title {
	case "Functions":
		return "subroutines"
	case "Fields":
		return "Attributes"
	}
	return ""
}

// BringIn is the line that brings in a module.
func (FrontEnd) BringIn(m *model.Module, _ bool) string {
	if len(m.Files) > 0 && path.Ext(m.Files[0].Path) != ".pm" {
		return ""
	}
	return "use " + m.Path + ";"
}

// BringNameIn is the line that brings in a name.
func (e FrontEnd) BringNameIn(from *model.Module, d *model.Declaration, name string) string {
	if e.Offered(d).Asked {
		return "use " + from.Path + " qw(" + name + ");"
	}
	return e.BringIn(from, false)
}

// Offered reads what the lists of exports say of a declaration.
func (FrontEnd) Offered(d *model.Declaration) (out lang.Offer) {
	for _, word := range d.Speaks(model.Words).Modifiers() {
		switch {
		case word == exported:
			out.Always = true
		case word == onRequest:
			out.Asked = true
		case strings.HasPrefix(word, ":"):
			out.Sets = append(out.Sets, word)
		}
	}
	return out
}
