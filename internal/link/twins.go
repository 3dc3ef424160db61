package link

import "codrel/internal/model"

// This file finds the code of what only declares: a stub's declarations stand for code of
// the same module, or for what that module takes from others; declarations that are
// published beside built code stand for what that gives under their names.

// twinOf is the declaration with the body of one that is without, or nil.
func (x *Index) twinOf(d *model.Declaration) *model.Declaration {
	for _, o := range d.Occurrences {
		if !o.File.Stub {
			return nil
		}
	}
	if d.Parent != nil {
		if of := x.twinOf(d.Parent); of != nil {
			return x.promoted(of, d.Name, 0)
		}
		return nil
	}
	if of := x.besides()[d]; of != nil {
		return of
	}
	for _, f := range d.Module.Files {
		if f.Stub {
			continue
		}
		for _, i := range x.imports[f] {
			if i.name == d.Written() && i.module != nil {
				if t := x.taken(d.Module.Library, i, &trail{}); t.Declaration != nil && t.Declaration != d {
					return t.Declaration
				}
			}
			if i.member == "*" && i.module != nil && i.module != d.Module {
				if t := x.star(i.module, d.Written(), &trail{}); t.Declaration != nil && t.Declaration != d {
					return t.Declaration
				}
			}
		}
	}
	return nil
}

// findBesides finds, for what the entries of libraries only declare, what has the code.
func (x *Index) findBesides() map[*model.Declaration]*model.Declaration {
	out := map[*model.Declaration]*model.Declaration{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if x.stubbed[m] {
				for _, g := range x.Exports(m) {
					if d := g.Target.Declaration; d != nil && g.Stands != nil && out[d] == nil {
						out[d] = g.Stands
					}
				}
			}
		}
		for _, e := range lib.Entries {
			if e.Beside == "" {
				continue
			}
			m, code := x.module(lib.Library, e.Path), x.module(lib.Library, e.Beside)
			if m == nil || code == nil {
				continue
			}
			pair := func(name string, d *model.Declaration) {
				if of := x.gives(code, name, &trail{}).Declaration; d != nil && of != nil && of != d && out[d] == nil {
					out[d] = of
				}
			}
			for _, d := range m.Top {
				pair(d.Written(), d)
			}
			for _, g := range x.Exports(m) {
				pair(g.Name, g.Target.Declaration)
			}
		}
	}
	return out
}
