package link

import (
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file resolves types that name their module where they stand.

// ImportedType is what a type means that names its module, as a file has it; short is what
// is enough to show of it. ok is false where the type is none of these.
func (x *Index) ImportedType(m *model.Module, f *model.Facts, text string) (t Target, short string, ok bool) {
	if m == nil || f == nil || strings.IndexByte(text, '(') < 0 {
		return Target{}, "", false
	}
	end := x.options.FrontEnds[m.Library.Language]
	typer, ok := end.(lang.ImportTyper)
	if !ok {
		return Target{}, "", false
	}
	from, name, short, ok := typer.ImportedType(text)
	if !ok {
		return Target{}, "", false
	}
	if of := x.importedFrom(m, f, from); of != nil {
		t = x.under(Target{Module: of}, name)
	}
	return t, short, true
}

// importedFrom is the module that a file means by what an import names, or nil.
func (x *Index) importedFrom(m *model.Module, f *model.Facts, from string) *model.Module {
	if importer, ok := x.options.FrontEnds[m.Library.Language].(lang.Importer); ok {
		for _, path := range importer.ImportPaths(m, f, from) {
			if of := x.importable(m.Library, path); of != nil {
				return of
			}
		}
	}
	return nil
}
