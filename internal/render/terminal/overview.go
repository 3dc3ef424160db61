package terminal

import (
	"slices"
	"strconv"
	"strings"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// This file writes what declarations, modules and files are.

// Declaration writes all of a declaration: its signatures, words, members and relations.
func (w *Writer) Declaration(d *model.Declaration) {
	said := w.notes(w.plan.Links.Home(d))
	w.wrapped(0, 2, bold+clean(d.Path())+plain+" "+dim+clean(said.KindWords(d))+" in "+clean(page.ShortPath(w.plan.Links.Home(d)))+plain)
	w.places(d)
	for _, note := range said.Beside(d) {
		w.wrapped(0, 2, dim+sentence(note)+plain)
	}
	w.signatures(d)
	if gone := w.maker.Deprecation(d); gone != nil {
		w.gone(gone)
	}
	w.words(w.maker.Words(d))
	for _, e := range w.maker.Examples(w.plan.Links.Home(d), d) {
		w.example(e)
	}
	for _, g := range w.plan.MembersOf(d) {
		w.group(g)
	}
	for _, from := range w.plan.Inherited(d) {
		w.inherited(from)
	}
	if relations := said.Relations(d); len(relations) > 0 {
		w.space()
		for _, s := range relations {
			w.wrapped(0, 2, sentence(s))
		}
	}
}

// Outside writes what is known of a declaration of another project: its words, the names in it
// and where its page is.
func (w *Writer) Outside(d *model.Declaration) {
	w.wrapped(0, 2, bold+clean(d.Path())+plain+" "+dim+clean(w.notes(d.Module).KindWords(d))+" in "+clean(page.ShortPath(d.Module))+" ("+clean(d.Module.Library.Elsewhere.Project)+")"+plain)
	w.pageElsewhere(d.Module, w.plan.Declaration(d))
	w.words(w.maker.Words(d))
	w.contents(d.Members)
}

// OutsideModule writes what is known of a module of another project.
func (w *Writer) OutsideModule(m *model.Module) {
	w.line(0, bold+clean(m.Path)+plain+"  "+dim+clean(m.Library.Name)+" ("+clean(m.Library.Elsewhere.Project)+")"+plain)
	w.pageElsewhere(m, w.plan.Module(m))
	w.contents(m.Top)
}

// Guide writes a guide.
func (w *Writer) Guide(g *link.Guide) {
	w.wrapped(0, 2, bold+clean(g.Title)+plain)
	of := "guide"
	if g.Part != "" {
		of += " in " + clean(g.Part)
	}
	w.line(0, dim+of+", "+clean(w.options.Place(g.Page.Path))+plain)
	w.words(w.maker.GuideWords(g))
}

// pageElsewhere writes where a page is that another project's site has.
func (w *Writer) pageElsewhere(m *model.Module, address string) {
	site := m.Library.Elsewhere.Site
	if site == "" {
		return // there are names but no pages
	}
	if !strings.Contains(site, "://") {
		file, anchor, found := strings.Cut(address, "#")
		address = w.options.Place(file)
		if found {
			address += "#" + anchor
		}
	}
	w.line(0, dim+clean(address)+plain)
}

// contents writes names in lines of their own with their first sentences.
func (w *Writer) contents(list []*model.Declaration) {
	if len(list) > 0 {
		w.space()
	}
	for _, d := range list {
		w.member(d, dim+clean(w.notes(d.Module).KindWords(d))+plain+" ")
	}
}

// mostPlaces is how many of the places of a declaration are listed.
const mostPlaces = 6

// places writes where a declaration is written, as editors and terminals know to open it.
func (w *Writer) places(d *model.Declaration) {
	seen := slices.DeleteFunc(slices.Clone(d.Occurrences), func(o model.At) bool { // overloads that are kept from users
		return len(d.Occurrences) > 1 && o.Callable != nil && !w.plan.Links.Reach().Includes(o.Visibility)
	})
	for i, o := range seen {
		if i == mostPlaces {
			w.line(0, dim+w.look.Texts.Say("and-more", "n", strconv.Itoa(len(seen)-i))+plain)
			return
		}
		place := w.options.Place(o.File.Path) + ":" + strconv.Itoa(int(o.Line))
		if when := w.maker.Conditions(o); !when.None() {
			place += " (" + when.Words(w.look.Texts) + ")"
		}
		w.line(0, dim+clean(place)+plain)
	}
}

func (w *Writer) signatures(d *model.Declaration) {
	shown := w.maker.Signatures(d)
	w.space()
	for i, at := range shown.Forms {
		if when := w.maker.Conditions(at); !when.None() && shown.Overloads == 0 && len(shown.Forms) > 1 {
			w.line(4, dim+clean(when.Words(w.look.Texts))+plain)
		}
		text := ""
		for _, t := range w.maker.Signature(d, at) {
			piece := codeText(t.Text)
			if t.Kind == model.TokenName {
				piece = bold + piece + plain
			}
			text += piece
		}
		for k, line := range strings.Split(text, "\n") {
			if i < shown.Overloads && k == 0 {
				line = dim + strconv.Itoa(i+1) + plain + " " + line
			}
			w.line(4, line)
		}
	}
	switch {
	case shown.More > 0 && shown.Overloads > 0:
		w.line(4, dim+w.look.Texts.Say("more-overloads", "n", strconv.Itoa(shown.More))+plain)
	case shown.More > 0:
		w.line(4, dim+w.look.Texts.Say("more-forms", "n", strconv.Itoa(shown.More))+plain)
	}
}

func (w *Writer) example(e page.Example) {
	w.space()
	title := w.look.Texts.Say("example")
	if e.Variant != "" {
		title += " (" + clean(e.Variant) + ")"
	}
	w.line(0, bold+title+plain)
	w.blocks(0, e.Body)
	w.code(e.Code)
	if e.Output != "" {
		w.space()
		w.line(0, w.look.Texts.Say("output"))
		w.code(e.Output)
	}
}

// code writes lines as they stand.
func (w *Writer) code(text string) {
	w.space()
	for line := range strings.SplitSeq(strings.TrimRight(codeText(text), "\n"), "\n") {
		w.line(4, line)
	}
}

func (w *Writer) group(g plan.Group) {
	all := g.All()
	if len(all) == 0 {
		return
	}
	w.space()
	w.line(0, bold+clean(w.maker.GroupTitle(g))+plain)
	for _, d := range all {
		w.member(d, "")
	}
}

// member writes a name with what stands before it on the line and behind it in its signature, and
// its first sentence.
func (w *Writer) member(d *model.Declaration, before string) {
	name := before + bold + clean(strings.TrimSuffix(d.Name, "[]")) + plain + clean(w.behind(d))
	if forms := len(w.plan.Links.Overloads(d)); forms > 1 {
		name += dim + ", " + w.look.Texts.Say("forms", "n", strconv.Itoa(forms)) + plain
	}
	if d.Deprecated() {
		name += dim + ", " + w.look.Texts.Say("deprecated") + plain
	}
	w.wrapped(2, 6, name)
	if summary := strings.Join(strings.Fields(inlines(w.maker.Summary(w.plan.Links.Home(d), d))), " "); summary != "" {
		w.wrapped(6, 0, summary)
	}
}

// behind is what stands behind a name: of what holds a value its type, of all else the rest of the
// signature.
func (w *Writer) behind(d *model.Declaration) string {
	if d.Kind().IsCallable() || d.Kind().IsType() {
		return w.maker.Short(d)
	}
	text := ""
	for _, t := range w.maker.BehindName(d) {
		text += t.Text
	}
	if text = strings.TrimSpace(text); text == "" || strings.HasPrefix(text, "[") {
		return text
	}
	return " " + text
}

func (w *Writer) inherited(from link.InheritedFrom) {
	if len(from.Members) == 0 {
		return
	}
	base := ""
	if from.Base != nil {
		base = from.Base.Path()
	} else {
		base = from.Module.Path
	}
	var names []string
	for _, m := range from.Members {
		names = append(names, clean(m.Name))
	}
	w.space()
	w.wrapped(0, 2, "From "+bold+clean(base)+plain+": "+strings.Join(names, ", "))
}

// Module writes what a module is and what it has, a line or two each.
func (w *Writer) Module(m *model.Module) {
	said := w.notes(m)
	w.line(0, bold+clean(m.Path)+plain+"  "+dim+clean(m.Library.Name)+plain)
	for _, note := range said.Module(m) {
		w.wrapped(0, 2, dim+sentence(note)+plain)
	}
	for _, words := range w.maker.ModuleWords(m) {
		w.words(words)
	}
	for _, g := range w.plan.GroupsOf(m) {
		w.group(g)
	}
	for _, from := range w.plan.InheritedByModule(m) {
		w.inherited(from)
	}
}

// File writes what a file declares, in its order.
func (w *Writer) File(f *model.Facts, top []*model.Declaration) {
	w.line(0, bold+clean(w.options.Place(f.Path))+plain)
	w.space()
	for _, d := range top {
		before := strconv.Itoa(int(d.Speaks(model.Words).Line))
		if kind := w.notes(d.Module).KindWords(d); w.behind(d) != " "+kind { // a Go type says it behind its name
			before += " " + clean(kind)
		}
		w.member(d, dim+before+plain+" ")
	}
}
