package link

import (
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/symbols"
)

// Symbols is what the project makes known of itself: everything that has a place
// among its pages. The site's address is left to who knows it.
func (x *Index) Symbols() *symbols.Table {
	t := &symbols.Table{Name: x.Project.Name, Release: x.Project.Version, Libraries: []symbols.Library{}}
	for _, lib := range x.Project.Libraries {
		out := symbols.Library{Name: lib.Name, Language: lib.Language, Package: lib.Package, Modules: []symbols.Module{}}
		packaged, _ := x.options.FrontEnds[lib.Language].(lang.PackageImports)
		for _, m := range lib.Modules {
			if !x.ModuleInReach(m) {
				continue
			}
			made := symbols.Module{Path: m.Path, Open: x.takesAllFromOutside(m), Gives: x.givenSymbols(m), Scope: x.scopeSymbols(x.Tops(m))}
			if m.Name != made.LastName() {
				made.Name = m.Name
			}
			if packaged != nil {
				made.As = packaged.ImportedAs(m)
			}
			out.Modules = append(out.Modules, made)
		}
		t.Libraries = append(t.Libraries, out)
	}
	return t
}

// takesAllFromOutside reports whether a module takes all names of a module that
// nobody here has read: its users may know it by them.
func (x *Index) takesAllFromOutside(m *model.Module) bool {
	for _, f := range m.Files {
		for _, i := range x.imports[f] {
			if i.member == "*" && (i.module == nil || i.module.Library.Elsewhere != nil) {
				return true
			}
		}
	}
	return false
}

func placeOf(m *model.Module, d *model.Declaration) symbols.Place {
	to := symbols.Place{Library: m.Library.Name, Module: m.Path}
	if d != nil {
		to.Path, to.Arity = d.Path(), int(d.Arity())
	}
	return to
}

// givenSymbols are the names of a module that stand on the pages of others, and where:
// those that it re-exports, and those that others re-export for it.
func (x *Index) givenSymbols(m *model.Module) map[string]string {
	var out map[string]string
	for _, g := range x.Exports(m) {
		to := ""
		switch t := g.Target; {
		case t.Declaration != nil && x.known(t.Declaration) && (x.Home(t.Declaration) != m || g.Name != t.Declaration.Name):
			to = symbols.Reference(placeOf(m, nil), placeOf(x.Home(t.Declaration), t.Declaration))
		case t.Module != nil && t.Module.Library.Elsewhere == nil && x.ModuleInReach(t.Module):
			to = symbols.Reference(placeOf(m, nil), placeOf(t.Module, nil))
		default:
			continue
		}
		if out == nil {
			out = map[string]string{}
		}
		out[g.Name] = to
	}
	for _, d := range x.Lent(m) {
		if out == nil {
			out = map[string]string{}
		}
		out[d.Name] = symbols.Reference(placeOf(m, nil), placeOf(x.Home(d), d))
	}
	return out
}

// known reports whether a declaration is listed among the project's symbols.
func (x *Index) known(d *model.Declaration) bool {
	return d.Module.Library.Elsewhere == nil && !d.Blank() && x.InReach(d) && x.ModuleInReach(x.Home(d))
}

func (x *Index) scopeSymbols(list []*model.Declaration) symbols.Scope {
	var s symbols.Scope
	for _, d := range list {
		if !x.known(d) || d.Parent == nil && d.Scope != "" {
			continue // what comments put into something that nothing declares has no place there
		}
		if forms := x.formSymbols(d); forms != nil {
			if s.Forms == nil {
				s.Forms = map[string][]symbols.Form{}
			}
			s.Forms[d.Name] = forms
		}
		if h, more := x.holderSymbols(d); more {
			s.Holders = append(s.Holders, h)
			continue
		}
		if s.Names == nil {
			s.Names = map[string][]string{}
		}
		kind := d.Kind().String()
		s.Names[kind] = append(s.Names[kind], d.Name)
		if d.Deprecated() {
			s.Gone = append(s.Gone, d.Name)
		}
	}
	return s
}

// formSymbols are the forms of a callable that has several, else nil.
func (x *Index) formSymbols(d *model.Declaration) []symbols.Form {
	var out []symbols.Form
	for _, form := range x.Overloads(d) {
		types := form.ParamTypes()
		params := symbols.Form{}
		for i := range form.Callable.Params {
			if p := &form.Callable.Params[i]; !p.Implied {
				params = append(params, symbols.Param(p.Name, types[len(params)]))
			}
		}
		out = append(out, params)
	}
	return out
}

// holderSymbols is a declaration with all that is to be said of it; more is false
// where name and kind are all.
func (x *Index) holderSymbols(d *model.Declaration) (h symbols.Holder, more bool) {
	h = symbols.Holder{Name: d.Name, Kind: d.Kind().String(), Arity: int(d.Arity()), Gone: d.Deprecated(), Scope: x.scopeSymbols(d.Members)}
	if !d.Kind().IsType() {
		return h, len(h.Names) > 0 || len(h.Holders) > 0 || h.Arity > 0
	}
	h.Open = x.open(d, 0)
	for _, base := range x.bases(d) {
		if x.known(base) || base.Module.Library.Elsewhere != nil {
			h.Bases = append(h.Bases, symbols.Reference(placeOf(x.Home(d), nil), placeOf(x.Home(base), base)))
		}
	}
	if d.Kind() == model.KindInterface && x.implicit(d.Module.Library) {
		h.Asks = x.interfaceSet(d, 0)
	}
	return h, h.Open || h.Arity > 0 || len(h.Names) > 0 || len(h.Holders) > 0 || len(h.Bases) > 0 || len(h.Asks) > 0
}

// MemberTexts are the comments on members of types, by module and path: what
// members of other projects' types may take over.
func (x *Index) MemberTexts() map[string]map[string]string {
	out := map[string]map[string]string{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if !x.ModuleInReach(m) {
				continue
			}
			texts := map[string]string{}
			for d := range x.OnPagesOf(m) {
				if d.Parent == nil || !d.Parent.Kind().IsType() || d.Kind() == model.KindField || d.Kind() == model.KindEnumMember || !x.known(d) {
					continue
				}
				x.memberTexts(d, texts)
			}
			if len(texts) > 0 {
				out[m.Path] = texts
			}
		}
	}
	return out
}

// memberTexts puts the comments on a member, or on each of its forms where it has several,
// into a module's texts.
func (x *Index) memberTexts(d *model.Declaration, into map[string]string) {
	put := func(key string, doc *model.Doc) {
		if doc != nil && (!doc.Escaped || !strings.Contains(doc.Text, `\`)) && strings.TrimSpace(doc.Text) != "" {
			into[key] = doc.Text
		}
	}
	put(d.Label(), d.Speaks(model.Words).Doc)
	if h := d.Module.Library.Habits; h == nil || !h.EachForm || x.Overloads(d) == nil {
		return
	}
	for _, form := range x.FormsInReach(d) {
		doc, _ := form.Doc()
		put(symbols.TextKey(d.Label(), form.Head().ParamTypes()), doc)
	}
}
