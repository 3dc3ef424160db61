package link

import (
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file resolves paths that say where they begin: in the library, in the module at hand or the
// one around it, or in a module that the file names.

// fromRoot finds what such a path means; ok is false for others.
func (x *Index) fromRoot(from Scope, r prose.Name) (result Result, ok bool) {
	if from.Module == nil || len(r.Path) == 0 {
		return Result{}, false
	}
	h := from.Module.Library.Habits
	if h == nil || len(h.Roots) == 0 {
		return Result{}, false
	}
	importer, ok := x.options.FrontEnds[h.Language].(lang.Importer)
	switch {
	case !ok:
		return Result{}, false
	case slices.Contains(h.Roots, r.Path[0]):
		result, found := x.belowModules(from, r, func(names []string) string {
			return importer.ImportPaths(from.Module, from.File, strings.Join(names, h.PathMark))[0]
		})
		if !found && x.throughOutside(from, r.Path) {
			return Result{Outcome: External}, true
		}
		result.Partial = !found // it is surely meant as one
		return result, true
	case len(r.Path) < 2:
		return Result{}, false
	}
	if native, ok := importer.(lang.Library); ok && native.IsNativeModule(r.Path[0]) && x.importable(from.Module.Library, r.Path[0]) == nil {
		return Result{Outcome: External, Target: Target{Address: x.outside(r.Path[0], strings.Join(r.Path[1:], "."))}}, true
	}
	for _, in := range x.imports[from.File] {
		if in.name != r.Path[0] {
			continue
		}
		module := in.module
		if in.member != "" {
			module = x.taken(from.Module.Library, in, &trail{}).Module
		}
		if module == nil {
			continue
		}
		if result, found := x.belowModules(from, r, func(names []string) string {
			return strings.Join(append([]string{module.Path}, names[1:]...), h.PathMark)
		}); found {
			return result, true
		}
	}
	return Result{}, false
}

// throughOutside reports whether a path goes through a module that hands on what comes from outside the
// project, under a name of the path or with everything.
func (x *Index) throughOutside(from Scope, path []string) bool {
	h := from.Module.Library.Habits
	importer, ok := x.options.FrontEnds[h.Language].(lang.Importer)
	if !ok || !h.Nested {
		return false
	}
	for k := len(path) - 1; k >= 1; k-- {
		for _, written := range importer.ImportPaths(from.Module, from.File, strings.Join(path[:k], h.PathMark)) {
			if m := x.importable(from.Module.Library, written); m != nil {
				return x.takesFromOutside(m, path[k])
			}
		}
	}
	return false
}

// belowModules finds what a name leads to whose first parts are those of modules: as many of them as
// there are. module gives the path of a module by its parts.
func (x *Index) belowModules(from Scope, r prose.Name, module func(names []string) string) (result Result, found bool) {
	var kept *Result // a module without a page, whose name something with one may have as well
	for k := len(r.Path); k >= 1; k-- {
		m := x.importable(from.Module.Library, module(r.Path[:k]))
		isModule := r.Kind == model.KindModule.String()
		if m == nil || r.Kind != "" && isModule != (k == len(r.Path)) { // another kind is asked for
			continue
		}
		inner := r
		inner.Module, inner.Path = m.Path, r.Path[k:]
		if result, ok := x.byModulePath(from, inner); ok && result.Outcome == Found && len(ofKind([]Target{result.Target}, r.Kind)) > 0 {
			result.Target = ofKind([]Target{result.Target}, r.Kind)[0]
			if m := result.Target.Module; m == nil || x.ModuleInReach(m) {
				return result, true
			} else if kept == nil {
				kept = &result
			}
		}
		if len(inner.Path) == 0 {
			continue
		}
		given := x.gives(m, inner.Path[0], &trail{}) // what it hands on
		d := given.Declaration
		switch {
		case len(inner.Path) < 2:
		case d != nil:
			d = x.below(d, inner.Path[1:])
		case given.Module != nil && given.Module != m:
			if list, _, _ := x.inOrBelow(given.Module, inner.Path[1:]); len(list) == 1 {
				d = list[0].Declaration
			}
		}
		if d != nil && len(ofKind([]Target{{Declaration: d}}, r.Kind)) > 0 {
			return Result{Outcome: Found, Target: Target{Declaration: d}}, true
		}
	}
	if kept != nil {
		return *kept, true
	}
	return Result{}, false
}
