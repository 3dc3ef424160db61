package link

import (
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/prose"
)

// This file resolves paths that say where they begin: in the library, in the module at hand or the
// one around it, or in a module that the file names.

// fromRoot finds what such a path means; ok is false for others.
func (x *Index) fromRoot(from Scope, r prose.Name) (Result, bool) {
	if from.Module == nil || from.Module.Library.Habits == nil || len(from.Module.Library.Habits.Roots) == 0 || len(r.Path) == 0 {
		return Result{}, false
	}
	h := from.Module.Library.Habits
	importer, ok := x.options.FrontEnds[h.Language].(lang.Importer)
	if !ok {
		return Result{}, false
	}
	begins := slices.Contains(h.Roots, r.Path[0])
	if begins {
		if result, found := x.belowModules(from, r.Path, func(names []string) string {
			return importer.ImportPaths(from.Module, from.File, strings.Join(names, h.PathMark))[0]
		}, r); found {
			return result, true
		}
		return Result{Partial: true}, true
	}
	if len(r.Path) < 2 {
		return Result{}, false
	}
	if native, ok := importer.(lang.Library); ok && native.IsNativeModule(r.Path[0]) && x.importable(from.Module.Library, r.Path[0]) == nil {
		return Result{Outcome: External, Target: Target{Address: x.outside(r.Path[0], strings.Join(r.Path[1:], "."))}}, true
	}
	for _, in := range x.imports[from.File] {
		if in.name != r.Path[0] || in.name == "." {
			continue
		}
		module := in.module
		if in.member != "" {
			module = x.taken(from.Module.Library, in, &trail{}).Module
		}
		if module == nil {
			continue
		}
		if result, found := x.belowModules(from, r.Path, func(names []string) string {
			return strings.Join(append([]string{module.Path}, names[1:]...), h.PathMark)
		}, r); found {
			return result, true
		}
	}
	return Result{}, false
}

// belowModules finds what names lead to of which the first ones are those of modules: as many as there are.
func (x *Index) belowModules(from Scope, names []string, module func(names []string) string, r prose.Name) (Result, bool) {
	for k := len(names); k >= 1; k-- {
		m := x.importable(from.Module.Library, module(names[:k]))
		if m == nil {
			continue
		}
		inner := r
		inner.Module, inner.Path = m.Path, names[k:]
		if result, ok := x.byModulePath(from, inner); ok && result.Outcome == Found {
			return result, true
		}
		if len(names[k:]) > 0 {
			if d := x.gives(m, names[k], &trail{}).Declaration; d != nil {
				if len(names[k:]) == 1 {
					return Result{Outcome: Found, Target: Target{Declaration: d}}, true
				}
				if inner := x.below(d, names[k+1:]); inner != nil {
					return Result{Outcome: Found, Target: Target{Declaration: inner}}, true
				}
			}
		}
	}
	return Result{}, false
}
