package page

import (
	"slices"
	"unicode"
	"unicode/utf8"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file makes what comments on single forms of a declaration say of their own.

// otherForm is a form with a comment of its own, beside the one that speaks for all.
type otherForm struct {
	n        int    // from 1, or 0 where it is no overload
	title    string // of one that is none
	same     []int  // others with the same comment
	form     *model.Form
	doc      *model.Doc
	sections *prose.Sections
	scope    link.Scope         // where names in the text stand
	of       *model.Declaration // whose text it is, where that is another's
}

// otherForms are the forms whose comments say something else than the first one's: overloads,
// what shares the name, and what stands for it under other conditions.
func (m *Maker) otherForms(d *model.Declaration) []otherForm {
	var out []otherForm
	main := d.Speaks(model.Words).Doc
	seen := map[string]int{} // index in out
	forms := m.Links.FormsInReach(d)
	for i := range forms {
		text := link.FormText{DocOf: model.DocOf{Doc: forms[i].Head().Doc, File: forms[i].Head().File}, Of: d}
		if h := d.Module.Library.Habits; h != nil && h.EachForm {
			text = m.Links.TextOfForm(d, &forms[i])
		}
		if len(forms) < 2 || text.Doc == nil || main != nil && text.Doc.Text == main.Text {
			continue
		}
		if k, known := seen[text.Doc.Text]; known {
			out[k].same = append(out[k].same, i+1)
			continue
		}
		seen[text.Doc.Text] = len(out)
		sections := m.Links.Comments.Of(text.Of.Module.Library.Habits, text.File, text.Doc)
		form := otherForm{n: i + 1, form: &forms[i], doc: text.Doc, sections: link.AsCalled(sections, text.Form, &forms[i]), scope: link.ScopeOf(text.Of)}
		if text.Of != d {
			form.of = text.Of
		}
		out = append(out, form)
	}
	for _, at := range d.Occurrences {
		if at.Visibility > d.Speaks(model.Words).Visibility && at.Callable != nil {
			continue // an overload that is kept from users
		}
		if at.Doc == nil || at.Implementation || main == nil || at.Doc.Text == main.Text {
			continue
		}
		title := at.Kind.Words()
		if when := m.Conditions(at); when != m.Conditions(d.Speaks(model.Words)) {
			title = when.Words(m.Texts)
		} else if at.Kind == d.Speaks(model.Words).Kind {
			continue
		}
		if _, known := seen[at.Doc.Text]; !known && title != "" {
			seen[at.Doc.Text] = len(out)
			out = append(out, otherForm{title: title, sections: m.Links.Comments.Of(d.Module.Library.Habits, at.File, at.Doc), scope: link.ScopeOf(d)})
		}
	}
	return out
}

// ofForms are the parts of other forms' comments: what the first one says nothing of, or
// says in other words, and results, which may differ from form to form.
func ofForms(own *prose.Sections, forms []otherForm) []PartOf {
	var out []PartOf
	if len(forms) == 0 {
		return nil
	}
	type described struct {
		kind       prose.PartKind
		name, text string
	}
	of := func(kind prose.PartKind, e prose.Entry) described {
		return described{kind, e.Name, prose.Plain(e.Text)}
	}
	said := map[described]bool{}
	note := func(s *prose.Sections) {
		for i := range s.Parts {
			for j := range s.Parts[i].Entries {
				e := s.Parts[i].Entries[j]
				said[of(s.Parts[i].Kind, e)] = true
				said[described{kind: s.Parts[i].Kind, name: e.Name}] = true // a name without a text says nothing new
			}
		}
	}
	note(own)
	var before []*prose.Part // what comments of the declaration itself have said
	for i := range own.Parts {
		before = append(before, &own.Parts[i])
	}
	mine := len(before)
	formsWith := map[described][]int{} // that say the same
	for _, f := range forms {
		for i := range f.sections.Parts {
			for _, e := range f.sections.Parts[i].Entries {
				key := of(f.sections.Parts[i].Kind, e)
				for _, n := range append([]int{f.n}, f.same...) {
					if n > 0 && !slices.Contains(formsWith[key], n) {
						formsWith[key] = append(formsWith[key], n)
					}
				}
			}
		}
	}
	shown := map[described]bool{} // of results, which have no names
	for _, f := range forms {
		for i := range f.sections.Parts {
			p := f.sections.Parts[i]
			p.Entries = slices.DeleteFunc(slices.Clone(p.Entries), func(e prose.Entry) bool {
				key := of(p.Kind, e)
				if e.Name != "" || f.n == 0 {
					return e.Name != "" && said[key]
				}
				was := shown[key]
				shown[key] = true
				return was
			})
			if f.of == nil && p.Kind > prose.Failures { // which are not told by their forms
				p = unlike(before, p)
				before = append(before, &f.sections.Parts[i])
			} else if f.of == nil && p.Kind == prose.Results {
				p = unlike(before[:mine], p)
			}
			if len(p.Entries) > 0 || len(p.Body) > 0 {
				out = append(out, PartOf{Part: &p, Scope: f.scope, Form: f.n, Also: func(e *prose.Entry) []int {
					return slices.DeleteFunc(slices.Clone(formsWith[of(p.Kind, *e)]), func(n int) bool { return n == f.n })
				}})
			}
		}
		note(f.sections)
	}
	return out
}

// unlike is as much of a part as none of others of its kind says in the same words.
func unlike(others []*prose.Part, p prose.Part) prose.Part {
	for _, o := range others {
		if o.Kind != p.Kind || o.Title != p.Title {
			continue
		}
		switch {
		case prose.Same(o.Body, p.Body):
			p.Body = nil
		case p.Kind == prose.SeeAlso: // each block is a reference
			p.Body = slices.DeleteFunc(slices.Clone(p.Body), func(n prose.Node) bool {
				return slices.ContainsFunc(o.Body, func(said prose.Node) bool { return prose.Same([]prose.Node{said}, []prose.Node{n}) })
			})
		}
		p.Entries = slices.DeleteFunc(p.Entries, func(e prose.Entry) bool {
			return slices.ContainsFunc(o.Entries, func(said prose.Entry) bool {
				return said.Name == e.Name && prose.Same(said.Type, e.Type) && prose.Same(said.Text, e.Text)
			})
		})
	}
	return p
}

// upperFirst is a text with a capital at its beginning.
func upperFirst(s string) string {
	r, size := utf8.DecodeRuneInString(s)
	if size == 0 {
		return ""
	}
	return string(unicode.ToUpper(r)) + s[size:]
}
