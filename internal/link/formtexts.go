package link

import (
	"slices"

	"codrel/internal/comment"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file finds the words of single forms of a callable: whose place each takes, and which
// of several comments speaks for it.

// FormAbove is the form that a form of a member takes the place of, and the member of a base
// that it is of, in languages whose overloads stand each for itself; ok is false where there
// is none.
func (x *Index) FormAbove(member *model.Declaration, form *model.Form) (of *model.Declaration, above model.Form, ok bool) {
	if h := member.Module.Library.Habits; h == nil || !h.EachForm {
		return nil, model.Form{}, false
	}
	if standsAlone(form.Head(), member.Module.Library.Habits) {
		return nil, model.Form{}, false
	}
	for _, of := range x.Relations(member).Overrides {
		aboves := x.boundForms(of)
		if i := formAbove(form, aboves, of.Parent); i >= 0 {
			return of, aboves[i], true
		}
	}
	return nil, model.Form{}, false
}

// FormText is the comment that describes a form.
type FormText struct {
	model.DocOf                    // empty where there is none
	Of          *model.Declaration // in whose words it is
	Form        *model.Form        // of which that one's form; nil where nobody can tell
}

// TextOfForm is the comment that describes a form: its own, or, where that says that its text
// is another's, that of the form that is meant, else that of the nearest form whose place it
// takes.
func (x *Index) TextOfForm(d *model.Declaration, form *model.Form) FormText {
	for level := 0; d != nil && level < highest; level++ {
		doc, f := form.Doc()
		if doc != nil {
			taken := x.takesAll(d, doc, f)
			if taken == nil {
				return FormText{model.DocOf{Doc: doc, File: f}, d, form}
			}
			if of := x.textAbove(d, form, taken); of != nil {
				above := x.formTaken(d, form, of, taken)
				if above == nil {
					at := of.Speaks(model.Words)
					return FormText{model.DocOf{Doc: at.Doc, File: at.File}, of, x.MainForm(of)}
				}
				d, form = of, above
				continue
			}
		}
		of, above, ok := x.FormAbove(d, form)
		if !ok {
			break
		}
		d, form = of, &above
	}
	return FormText{}
}

// PartsAbove are what comments on the forms say whose place a form takes, the nearest first, in
// languages whose comments have from there what they do not say themselves.
func (x *Index) PartsAbove(d *model.Declaration, form *model.Form) (out []SectionsOf) {
	if h := d.Module.Library.Habits; h == nil || !h.TakesParts || form == nil {
		return nil
	}
	own := form
	for level := 0; level < highest; level++ {
		of, above, ok := x.FormAbove(d, form)
		if !ok {
			break
		}
		if doc, f := above.Doc(); doc != nil {
			sections := x.Comments.Of(of.Module.Library.Habits, f, doc)
			out = append(out, SectionsOf{AsCalled(sections, &above, own), of})
		}
		d, form = of, &above
	}
	return out
}

// Taken are as much of the comments above a form, the nearest first, as neither a text that is
// said there already nor one nearer says: the body of one where there is none, and parts.
func (x *Index) Taken(d *model.Declaration, form *model.Form, already *comment.Sections) (out []SectionsOf) {
	said := *already
	said.Parts = slices.Clone(already.Parts)
	for _, of := range x.PartsAbove(d, form) {
		taken := &comment.Sections{}
		if len(said.Body) == 0 {
			taken.Body, said.Body = of.Body, of.Body
		}
		for i := range of.Parts {
			if p, ok := said.Missing(&of.Parts[i]); ok {
				taken.Parts, said.Parts = append(taken.Parts, p), append(said.Parts, p)
			}
		}
		if len(taken.Body) > 0 || len(taken.Parts) > 0 {
			out = append(out, SectionsOf{taken, of.Of})
		}
	}
	return out
}

// SectionsOf are the sections of a comment and whose they are.
type SectionsOf struct {
	*comment.Sections
	Of *model.Declaration
}

// AsCalled are the sections of a comment on a form as they speak of another form that takes
// its place: what stands at a place in the list of parameters goes by the name that it has
// there, as callers give arguments by their places.
func AsCalled(sections *comment.Sections, above, own *model.Form) *comment.Sections {
	if above == nil || own == nil || above.Head().Callable == nil || own.Head().Callable == nil {
		return sections
	}
	theirs, ours := above.Head().Callable.Params, own.Head().Callable.Params
	names := map[string]string{}
	for i := range min(len(theirs), len(ours)) {
		if theirs[i].Name != ours[i].Name {
			names[theirs[i].Name] = ours[i].Name
		}
	}
	if len(names) == 0 || len(theirs) != len(ours) {
		return sections
	}
	out := *sections
	out.Parts = slices.Clone(sections.Parts)
	for i := range out.Parts {
		if out.Parts[i].Kind != prose.Parameters {
			continue
		}
		out.Parts[i].Entries = slices.Clone(out.Parts[i].Entries)
		for j := range out.Parts[i].Entries {
			if name, other := names[out.Parts[i].Entries[j].Name]; other {
				out.Parts[i].Entries[j].Name = name
			}
		}
	}
	return &out
}

// takesAll is the node that stands for all of a comment, or nil.
func (x *Index) takesAll(d *model.Declaration, doc *model.Doc, f *model.Facts) *prose.Node {
	if h := d.Module.Library.Habits; comment.MayTake(h, doc) {
		return x.Comments.Of(h, f, doc).AllTaken()
	}
	return nil
}

// TextTaken is what the comment says that a node of a declaration's comment stands for, and
// whose comment that is: of several forms that of the one which is named, or whose place the
// form takes that the comment is on, and of that the part which the node asks for. It is nil
// where there is none. A form that is nil stands for the one that speaks for the declaration.
func (x *Index) TextTaken(d *model.Declaration, own *model.Form, n *prose.Node) (*comment.Sections, *model.Declaration) {
	if own == nil {
		own = x.MainForm(d)
	}
	of := x.textAbove(d, own, n)
	if of == nil {
		return nil, nil
	}
	at := of.Speaks(model.Words)
	doc, file := at.Doc, at.File
	form := x.formTaken(d, own, of, n)
	if form == nil {
		form = x.MainForm(of)
	} else if text := x.TextOfForm(of, form); text.Doc != nil {
		doc, file, of, form = text.Doc, text.File, text.Of, text.Form
	}
	var sections *comment.Sections
	switch {
	case doc == nil:
		sections, _ = x.Sections(of)
	case n.Info != "":
		sections = x.Comments.Select(of.Module.Library.Habits, doc, n.Info)
	default:
		sections = x.Comments.Of(of.Module.Library.Habits, file, doc)
	}
	if h := d.Module.Library.Habits; n.Target == "" && h != nil && h.EachForm {
		sections = AsCalled(sections, form, own)
	}
	return sections, of
}

// textAbove is [Index.InheritedText] of a form of a declaration: where nothing is named, of what
// has the form whose place it takes.
func (x *Index) textAbove(d *model.Declaration, form *model.Form, n *prose.Node) *model.Declaration {
	if n.Target == "" && form != nil {
		if of, _, ok := x.FormAbove(d, form); ok && x.hasText(of) {
			return of
		}
	}
	return x.InheritedText(d, n)
}

// formTaken is the form of a declaration whose text a node in the comment of a form of another
// one means, or nil where it has one form or nobody can tell.
func (x *Index) formTaken(d *model.Declaration, form *model.Form, of *model.Declaration, n *prose.Node) *model.Form {
	if x.Overloads(of) == nil {
		return nil
	}
	forms := x.FormsInReach(of)
	if n.Target != "" {
		named := x.takenFrom(d, n).Form
		for i := range forms {
			if slices.ContainsFunc(forms[i].Occurrences, func(at model.At) bool { return named != nil && at.Occurrence == named }) {
				return &forms[i]
			}
		}
		return nil
	}
	if form != nil {
		if i := formAbove(form, forms, of.Parent); i >= 0 {
			return &forms[i]
		}
	}
	return nil
}

// MainForm is the form whose comment speaks for a declaration, or nil.
func (x *Index) MainForm(d *model.Declaration) *model.Form {
	if d.Speaks(model.Words).Callable == nil {
		return nil
	}
	for _, form := range x.FormsInReach(d) {
		if doc, _ := form.Doc(); doc == d.Speaks(model.Words).Doc {
			return &form
		}
	}
	return nil
}
