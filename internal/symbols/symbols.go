// Package symbols owns the file by which other projects know a site's names: its
// form, how it is written, and how one of unknown origin is read.
//
// The file lists modules, declarations by kind, what holds members, and what a
// module re-exports. It holds no addresses: those are pure functions of names and
// kinds. Texts that members of other projects may take over stand in a second file
// beside it, so that the first stays small. The package knows neither the model nor
// the linker, and opens nothing.
package symbols

import (
	"bytes"
	_ "embed"
	"encoding/json"
	"strconv"
	"strings"
)

// FileName is the name of the file at a site's root, TextsName that of the texts beside it.
const (
	FileName  = "symbols.json"
	TextsName = "symbols-texts.json"
)

// Version is the version of the form that this package writes, and the newest it reads.
const Version = 1

// form is what the first key of the files says they are.
const (
	form      = "symbols"
	formTexts = "texts"
)

// Schema is the JSON Schema (2020-12) of the file.
//
//go:embed symbols.schema.json
var Schema []byte

// Table is what one project makes known of itself.
type Table struct {
	Codrel    string    `json:"codrel"`  // "symbols"
	Version   int       `json:"version"` // of the form
	Name      string    `json:"name"`    // of the project
	Release   string    `json:"release,omitempty"`
	Site      string    `json:"site,omitempty"` // where it is served from, with "/" at the end
	Libraries []Library `json:"libraries"`
}

// Library is one library of the project.
type Library struct {
	Name     string   `json:"name"`
	Language string   `json:"language"`
	Package  string   `json:"package,omitempty"` // what users import the library by as a whole
	Modules  []Module `json:"modules"`
}

// Module is one module that has a page.
type Module struct {
	Path  string            `json:"path"`
	Name  string            `json:"name,omitempty"`  // where it is not the last part of the path
	As    string            `json:"as,omitempty"`    // what users import it by, where that is not the path
	Open  bool              `json:"open,omitempty"`  // it may have more names than are listed
	Gives map[string]string `json:"gives,omitempty"` // names it re-exports: see [Reference]
	Scope
}

// LastName is the last part of the module's path.
func (m *Module) LastName() string { return m.Path[strings.LastIndexAny(m.Path, "./")+1:] }

// Scope is what a module, or a declaration in it, holds.
type Scope struct {
	Names   map[string][]string `json:"names,omitempty"` // plain names, by kind
	Gone    []string            `json:"gone,omitempty"`  // which of the plain names are deprecated
	Forms   map[string][]Form   `json:"forms,omitempty"` // of callables that have several, by name, in the order of their page
	Holders []Holder            `json:"holders,omitempty"`
}

// Form is one form of a callable: the parameters that callers give, each its name, a
// colon and its type in normal form, which may be empty.
type Form []string

// Param writes a parameter of a form.
func Param(name, typ string) string { return name + ":" + typ }

// CutParam reads a parameter of a form.
func CutParam(param string) (name, typ string) {
	name, typ, _ = strings.Cut(param, ":")
	return name, typ
}

// Tops are the names of all that the scope holds.
func (s *Scope) Tops() []string {
	var out []string
	for _, names := range s.Names {
		out = append(out, names...)
	}
	for i := range s.Holders {
		out = append(out, s.Holders[i].Name)
	}
	return out
}

// Holder is a declaration of which there is more to say than a name and a kind.
type Holder struct {
	Name  string            `json:"name"`
	Kind  string            `json:"kind"`
	Arity int               `json:"arity,omitempty"` // how many type parameters are a part of the name
	Gone  bool              `json:"deprecated,omitempty"`
	Open  bool              `json:"open,omitempty"`  // it may have more members than are listed
	Bases []string          `json:"bases,omitempty"` // see [Reference]
	Asks  map[string]string `json:"asks,omitempty"`  // of an interface that is fulfilled without a word: methods with their signatures in normal form
	Scope
}

// Texts are comments, by module and by path in it: see [TextKey].
type Texts struct {
	Codrel  string                       `json:"codrel"` // "texts"
	Version int                          `json:"version"`
	Texts   map[string]map[string]string `json:"texts"`
}

// TextKey is what the text of a form of a callable that has several is found by.
func TextKey(path string, types []string) string { return path + "(" + strings.Join(types, ",") + ")" }

// Place is where a declaration stands: its library, module, and path in that. A path
// of "" stands for the module itself.
type Place struct {
	Library, Module, Path string
	Arity                 int // how many type parameters are a part of the last name
}

// Reference writes what a base, or a name that is re-exported, means to somebody in
// another module: "library:module#path", without the library or the module where it is the
// own one, and with "`2" behind a name that two type parameters are a part of.
func Reference(own, to Place) string {
	path := to.Path
	if to.Arity > 0 {
		path += "`" + strconv.Itoa(to.Arity)
	}
	switch {
	case own.Library != to.Library, own.Module != to.Module && strings.Contains(to.Module, ":"):
		return to.Library + ":" + to.Module + "#" + path
	case own.Module != to.Module:
		return to.Module + "#" + path
	}
	return "#" + path
}

// Referred is what a reference means to somebody in a module.
func Referred(own Place, reference string) Place {
	module, path, _ := strings.Cut(reference, "#")
	to := Place{Library: own.Library, Module: own.Module, Path: path}
	if i := strings.LastIndexByte(path, '`'); i > 0 {
		if arity, err := strconv.Atoi(path[i+1:]); err == nil && arity > 0 {
			to.Path, to.Arity = path[:i], arity
		}
	}
	if module == "" {
		return to
	}
	to.Module = module
	if library, rest, ok := strings.Cut(module, ":"); ok {
		to.Library, to.Module = library, rest
	}
	return to
}

// Write writes a table.
func Write(t *Table) ([]byte, error) {
	t.Codrel, t.Version = form, Version
	return plain(t)
}

// WriteTexts writes texts, by module and path.
func WriteTexts(texts map[string]map[string]string) ([]byte, error) {
	return plain(Texts{formTexts, Version, texts})
}

// plain writes JSON for files: what a page in HTML would need escaped is not.
func plain(value any) ([]byte, error) {
	var out bytes.Buffer
	e := json.NewEncoder(&out)
	e.SetEscapeHTML(false)
	err := e.Encode(value)
	return out.Bytes(), err
}
