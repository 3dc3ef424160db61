package page

import (
	"slices"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/render/plan"
)

// Words are all that a comment says.
type Words struct {
	Of       *model.Declaration // whose comment it is, nil where it is no declaration's
	Language string             // of the source, whose words for parts differ
	Type     []Inline           // that the comment says, where the signature has none
	Gone     *Gone              // of a module's comment
	Body     []Block
	Forms    []FormText
	Parts    []Part
}

// Gone says that something is deprecated.
type Gone struct {
	Lines [][]Inline // of the advice, on one line
	Rest  []Block
}

// FormText is what the comment on one form of a declaration says of its own.
type FormText struct {
	N     int    // from 1; 0 where it is no overload
	Title string // of one that is none
	Same  []int  // others with the same comment
	Gone  *Gone
	Body  []Block
	From  *model.Declaration // whose text it is, where that is another's
}

// Example is code from the tests that shows how something is used.
type Example struct {
	Variant  string // what tells it from others, or ""
	At       model.At
	Body     []Block
	Code     string
	Language string
	Output   string
}

func (m *Maker) builder(scope link.Scope) *Builder {
	b := NewBuilder(m.Links, scope)
	b.Hidden = m.Hidden
	return b
}

// Words are those of a declaration, or of what it has its text from; nil where there are none.
func (m *Maker) Words(d *model.Declaration) *Words {
	about := d
	if d = m.Links.TextOf(d); d == nil {
		return m.listed(about)
	}
	sections, forms := m.sectionsFor(about, d)
	b := m.builder(link.ScopeOf(d))
	out := &Words{Of: d, Language: d.Module.Library.Language, Type: b.TypeOf(about, sections.Type), Body: b.Blocks(sections.Body)}
	if gone := m.goneForm(about); gone != nil {
		out.Forms = append(out.Forms, *gone)
	}
	shown := make([]otherForm, len(out.Forms))
	for _, f := range forms {
		gone := f.sections.Obsolete || len(f.sections.Deprecated) > 0
		if !gone && f.of == nil && prose.Same(f.sections.Body, sections.Body) {
			continue // it holds for both
		}
		if k := saidBefore(shown, f); k >= 0 && !gone && out.Forms[k].Gone == nil {
			if f.n > 0 {
				out.Forms[k].Same = append(append(out.Forms[k].Same, f.n), f.same...)
			}
			continue
		}
		if gone || len(f.sections.Body) > 0 {
			out.Forms, shown = append(out.Forms, m.formText(f, gone)), append(shown, f)
		}
	}
	taken := b.Inherited(sections)
	said := *sections
	said.Parts = slices.Clone(sections.Parts)
	for _, p := range taken {
		said.Parts = append(said.Parts, *p.Part)
	}
	for _, of := range m.Links.Taken(about, m.Links.MainForm(about), &said) {
		if len(of.Body) > 0 {
			b.elsewhere(link.ScopeOf(of.Of), b.File, func() { out.Body = b.Blocks(of.Body) })
		}
		for i := range of.Parts {
			taken = append(taken, PartOf{Part: &of.Parts[i], Scope: link.ScopeOf(of.Of)})
			said.Parts = append(said.Parts, of.Parts[i])
		}
	}
	out.Parts = b.Parts(sections, append(taken, ofForms(&said, forms)...)...)
	return out
}

// goneForm says that the overload which speaks for all is deprecated, where not all are; else it
// is nil.
func (m *Maker) goneForm(about *model.Declaration) *FormText {
	said, _ := m.Links.Sections(about)
	doc := about.Speaks(model.Words).Doc
	if doc == nil || about.Deprecated() || !said.Obsolete && len(said.Deprecated) == 0 {
		return nil
	}
	for i, form := range m.Links.FormsInReach(about) {
		if form.Head().Doc == doc {
			return &FormText{N: i + 1, Gone: m.builder(link.ScopeOf(about)).gone(said.Deprecated)}
		}
	}
	return nil
}

// saidBefore is the overload, or the form under the same condition, that said the same of itself
// as another before, or -1.
func saidBefore(shown []otherForm, f otherForm) int {
	return slices.IndexFunc(shown, func(o otherForm) bool {
		return (o.n > 0) == (f.n > 0) && o.title == f.title && o.of == f.of && prose.Same(o.sections.Body, f.sections.Body)
	})
}

// sectionsFor is what describes a declaration out of the comment of another one, or of itself,
// and what describes its other forms. Where the text is another's and each form stands for
// itself, it is that of the forms whose place the declaration's take.
func (m *Maker) sectionsFor(about, of *model.Declaration) (*prose.Sections, []otherForm) {
	sections, _ := m.Links.Sections(of)
	if h := about.Module.Library.Habits; about == of || h == nil || !h.EachForm {
		return sections, m.otherForms(of)
	}
	forms := m.Links.FormsInReach(about)
	for i := range forms {
		text := m.Links.TextOfForm(about, &forms[i])
		if text.Doc == nil || text.Of != of {
			continue
		}
		own := m.Links.Comments.Of(of.Module.Library.Habits, text.File, text.Doc)
		others := slices.DeleteFunc(m.otherForms(about), func(f otherForm) bool { return f.doc == text.Doc })
		return link.AsCalled(own, text.Form, &forms[i]), others
	}
	return sections, m.otherForms(of)
}

// formText is what the comment on one form says.
func (m *Maker) formText(f otherForm, gone bool) FormText {
	out := FormText{N: f.n, Title: upperFirst(f.title), Same: f.same, From: f.of}
	b := m.builder(f.scope)
	if f.of == nil {
		b.form = f.form
	}
	if gone {
		out.Gone = b.gone(f.sections.Deprecated)
	}
	out.Body = b.Blocks(f.sections.Body)
	return out
}

// listed is the comment beside a name in a list of exports, for what has no other.
func (m *Maker) listed(d *model.Declaration) *Words {
	g := m.Links.Listed(d)
	if g == nil {
		return nil
	}
	home := m.Links.Home(d)
	b := m.builder(link.Scope{Module: home, File: g.File})
	sections := m.Links.Comments.Of(d.Module.Library.Habits, g.File, g.Doc)
	return &Words{Language: home.Library.Language, Body: b.Blocks(sections.Body), Parts: b.Parts(sections)}
}

// ModuleWords are the comments on a module, one for each file that has one.
func (m *Maker) ModuleWords(of *model.Module) (out []*Words) {
	for _, doc := range of.Doc {
		b := m.builder(link.Scope{Module: of, File: doc.File})
		sections := m.Links.Comments.Of(of.Library.Habits, doc.File, doc.Doc)
		words := &Words{Language: of.Library.Language}
		if sections.Obsolete || len(sections.Deprecated) > 0 {
			words.Gone = b.gone(sections.Deprecated)
		}
		words.Body, words.Parts = b.Blocks(sections.Body), b.Parts(sections)
		out = append(out, words)
	}
	return out
}

// LibraryWords are the comments on a library, one for each file that has one.
func (m *Maker) LibraryWords(of *model.Contents) (out []*Words) {
	for _, module := range of.Modules {
		for _, f := range module.Files {
			if f.LibraryDoc == nil {
				continue
			}
			b := m.builder(link.Scope{Module: module, File: f})
			sections := m.Links.Comments.Of(of.Habits, f, f.LibraryDoc)
			out = append(out, &Words{Language: of.Language, Body: b.Blocks(sections.Body), Parts: b.Parts(sections)})
		}
	}
	return out
}

// TextWords are what a text says that stands for itself in a comment.
func (m *Maker) TextWords(t plan.Text) *Words {
	words := &Words{Language: t.Module.Library.Language}
	if t.Doc != nil {
		sections := m.Links.Comments.Of(t.Module.Library.Habits, t.File, t.Doc)
		b := m.builder(link.Scope{Module: t.Module, File: t.File})
		words.Body, words.Parts = b.Blocks(sections.Body), b.Parts(sections)
	}
	return words
}

// GuideWords are the text of a guide.
func (m *Maker) GuideWords(g *link.Guide) *Words {
	b := m.builder(link.Scope{})
	b.File, b.Shown = g.Page, g
	return &Words{Body: b.Blocks(g.Body)}
}

// GuideSummary is the first sentence of a guide.
func (m *Maker) GuideSummary(g *link.Guide) []Inline {
	nodes, scope := m.Links.Opening(g.Body, link.Scope{})
	b := m.builder(scope)
	b.File = g.Page
	return b.Inlines(prose.Summary(nodes))
}

// GroupWords are the comment of the group that a declaration stands in, or nil.
func (m *Maker) GroupWords(d *model.Declaration) *Words {
	at := d.Speaks(model.Words)
	if at.GroupDoc == nil {
		return nil
	}
	b := m.builder(link.ScopeOf(d))
	return &Words{Of: d, Body: b.Blocks(m.Links.Comments.Of(d.Module.Library.Habits, at.File, at.GroupDoc).Body)}
}

// GroupText is what comments say of a group that they give a title, or nil. References are
// those of a module.
func (m *Maker) GroupText(g plan.Group, of *model.Module) *Words {
	if g.Of.Group == nil || g.Of.Doc == nil {
		return nil
	}
	b := m.builder(link.Scope{Module: of, File: g.Of.File})
	return &Words{Language: of.Library.Language, Body: b.Blocks(m.Links.Comments.Of(of.Library.Habits, g.Of.File, g.Of.Doc).Body)}
}

// gone is a deprecation with its advice: what comes first is on one line.
func (b *Builder) gone(advice []prose.Node) *Gone {
	out := &Gone{}
	for len(advice) > 0 && advice[0].Kind == prose.Paragraph {
		out.Lines = append(out.Lines, b.Inlines(advice[0].Children))
		advice = advice[1:]
	}
	out.Rest = b.Blocks(advice)
	return out
}

// Deprecation says that a declaration is deprecated, with all its advice; nil where it is not.
func (m *Maker) Deprecation(d *model.Declaration) *Gone {
	if !d.Deprecated() {
		return nil
	}
	return m.builder(link.ScopeOf(d)).gone(m.Links.Advice(d))
}

// Advice is the text of a deprecation on one line.
func (m *Maker) Advice(d *model.Declaration) (out []Inline) {
	b := m.builder(link.ScopeOf(d))
	for i, n := range m.Links.Advice(d) {
		if i > 0 {
			out = append(out, Inline{Kind: Text, Text: " "})
		}
		out = append(out, b.Inlines(n.Children)...)
	}
	return out
}

// Summary is the first sentence of what describes a declaration; here is the module whose
// page says it.
func (m *Maker) Summary(here *model.Module, d *model.Declaration) []Inline {
	nodes, scope := m.Links.Summary(d)
	if len(nodes) > 0 {
		return m.builder(scope).Inlines(nodes)
	}
	if g := m.Links.Listed(d); g != nil {
		return m.ExportSummary(here, *g)
	}
	return nil
}

// ModuleSummary is the first sentence of a module's comment.
func (m *Maker) ModuleSummary(of *model.Module) []Inline {
	if len(of.Doc) == 0 {
		return nil
	}
	doc := of.Doc[0]
	sections := m.Links.Comments.Of(of.Library.Habits, doc.File, doc.Doc)
	nodes, scope := m.Links.Opening(sections.Body, link.Scope{Module: of, File: doc.File})
	return m.builder(scope).Inlines(prose.Summary(nodes))
}

// ExportSummary is the first sentence of what describes a name that a module re-exports: the
// comment beside the name, else that on what it means.
func (m *Maker) ExportSummary(here *model.Module, g link.Export) []Inline {
	if g.Doc != nil {
		from := link.Scope{Module: here, File: g.File}
		nodes, _ := m.Links.Opening(m.Links.Comments.Of(here.Library.Habits, g.File, g.Doc).Body, from)
		return m.builder(from).Inlines(nodes)
	}
	if g.Stands != nil {
		if text := m.Summary(here, g.Stands); len(text) > 0 {
			return text
		}
	}
	if g.Target.Module != nil {
		return m.ModuleSummary(g.Target.Module)
	}
	return m.Summary(here, g.Target.Declaration)
}

// Examples are those among the tests of a declaration, or of a module where d is nil.
func (m *Maker) Examples(of *model.Module, d *model.Declaration) (out []Example) {
	list := m.Links.Examples(of, d)
	if of == nil {
		return nil
	}
	scope := link.Scope{Module: of}
	if d != nil {
		scope = link.ScopeOf(d)
	}
	for _, e := range list[:min(len(list), mostExamples)] {
		made := Example{Variant: e.Variant, At: e.At, Code: e.Code, Language: of.Library.Language, Output: e.Output}
		if e.At.Doc != nil {
			made.Body = m.builder(scope).Blocks(m.Links.Comments.Of(of.Library.Habits, e.At.File, e.At.Doc).Body)
		}
		out = append(out, made)
	}
	return out
}

// mostExamples is how many examples a declaration shows.
const mostExamples = 12
