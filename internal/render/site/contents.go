package site

import (
	"context"
	"io"
	"path"
	"slices"
	"sync"

	"codrel/internal/model"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// This file writes the contents: the way to here, what stands beside, and what
// is below. They are on every page and much alike, so a plain writer makes them.

// What is around the text of a page weighs 8 kB at most, so the lists of the
// contents show what is near; the page of all modules, the overview of a module
// and the A to Z list hold the rest.
const (
	mostLibraries = 30
	mostContents  = 60   // modules on the pages of a library
	mostBeside    = 20   // modules beside the page's own
	mostOwn       = 18   // declarations, and members
	fullContents  = 4800 // bytes: lines behind that are left out
)

// window is the part of a list around one of its items.
func window[T comparable](list []T, item T, most int) []T {
	if len(list) <= most {
		return list
	}
	return windowAt(list, slices.Index(list, item), most)
}

// windowAt is the same around the item at an index, or at the beginning where that is negative.
func windowAt[T any](list []T, at, most int) []T {
	if len(list) <= most {
		return list
	}
	from := max(0, min(max(0, at)-most/2, len(list)-most))
	return list[from : from+most]
}

// contentsWriter writes nested lists of links.
type contentsWriter struct {
	v   view
	out []byte
}

var contentsWriters = sync.Pool{New: func() any { return &contentsWriter{} }}

func (v view) contents(_ context.Context, to io.Writer) error {
	w := contentsWriters.Get().(*contentsWriter)
	defer contentsWriters.Put(w)
	w.v, w.out = v, w.out[:0]
	w.raw(`<ul class="tree">`)
	w.guides()
	libraries := window(v.plan.Libraries(), v.page.Library, mostLibraries)
	for _, lib := range libraries {
		if v.page.File != nil && lib != v.page.Library {
			continue // there are many source pages, and their readers stay with the code
		}
		w.item(v.to(v.plan.Library(lib)), escape(lib.Name), lib == v.page.Library && v.page.Kind == plan.LibraryPage, false)
		switch {
		case lib != v.page.Library:
		case v.page.File != nil:
			w.files()
		case v.page.Module != nil:
			w.modules()
		default:
			w.library(lib)
		}
		w.raw("</li>")
	}
	if all := len(v.plan.Libraries()); len(libraries) < all && v.page.File == nil {
		w.raw(`<li><a href="` + escape(v.to(plan.TreeAddress)) + `">` + escape(v.say("all-of", "count", v.count(all, "library"))) + "</a></li>")
	}
	w.raw("</ul>")
	_, err := to.Write(w.out)
	return err
}

func (w *contentsWriter) raw(s string) { w.out = append(w.out, s...) }

// item begins a line: the caller ends it, since a list may stand in it. text is HTML.
func (w *contentsWriter) item(href, text string, current, gone bool) {
	w.raw(`<li><a href="`)
	w.raw(escape(href))
	w.raw(`"`)
	if gone {
		w.raw(` class="gone"`)
	}
	if current {
		w.raw(` aria-current="page"`)
	}
	w.raw(` translate="no">`)
	w.raw(text)
	w.raw("</a>")
}

func (w *contentsWriter) module(m *model.Module, text string) {
	w.item(w.v.to(w.v.plan.Module(m)), text, m == w.v.page.Module && w.v.page.Kind == plan.ModulePage, false)
}

func (w *contentsWriter) library(lib *model.Library) {
	w.raw("<ul>")
	modules := w.v.plan.Modules(lib)
	shown := 0
	for shown < min(len(modules), mostContents) && len(w.out) < fullContents {
		w.module(modules[shown], breakable(page.ShortPath(modules[shown])))
		w.raw("</li>")
		shown++
	}
	if shown < len(modules) {
		w.raw(`<li><a href="` + escape(w.v.to(plan.TreeAddress)) + `">` + escape(w.v.say("all-of", "count", w.v.count(len(modules), "module"))) + "</a></li>")
	}
	w.raw("</ul>")
}

// modules lists those with the same parent that are near, the page's own opened.
func (w *contentsWriter) modules() {
	own := w.v.page.Module
	beside, below := w.v.plan.Siblings(own)
	w.raw("<ul>")
	passed := false
	for _, m := range window(beside, own, mostBeside) {
		passed = passed || m == own
		if room := fullContents; m != own && (len(w.out) > room || !passed && len(w.out) > room/2) {
			continue
		}
		w.module(m, breakable(page.ShortPath(m)))
		if m == own {
			w.inside(own, below)
		}
		w.raw("</li>")
	}
	w.raw("</ul>")
}

// behindModule is the mark by which a module is told from what is declared beside it: that between the names of
// modules where the language writes names in names so.
func behindModule(m *model.Module) string {
	if h := m.Library.Habits; h != nil && h.Nested && h.PathMark != "" {
		return h.PathMark
	}
	return "/"
}

// inside lists what is below the page's module and what it declares.
func (w *contentsWriter) inside(own *model.Module, below []*model.Module) {
	way := w.way()
	list, place := w.listed(own, first(way))
	if len(below)+len(list) == 0 {
		return
	}
	w.raw("<ul>")
	for _, sub := range below[:min(len(below), mostBeside)] {
		w.module(sub, escape(sub.Last()+behindModule(sub)))
		w.raw("</li>")
	}
	shown := windowAt(list, place, mostOwn)
	for _, d := range shown {
		if len(w.out) < fullContents || d == first(way) {
			w.declaration(d, way)
		}
	}
	if len(shown) < len(list) {
		w.raw(`<li><a href="` + escape(w.v.to(w.v.plan.Module(own))) + `#s--overview">` + escape(w.v.say("all-of", "count", w.v.count(len(list), "name"))) + "</a></li>")
	}
	w.raw("</ul>")
}

// listed are the declarations of a module that the contents list, in the order of the
// overview: all of them on the module's own page, the types elsewhere. place is that of one
// of them.
func (w *contentsWriter) listed(m *model.Module, of *model.Declaration) (list []*model.Declaration, place int) {
	if w.v.page.Kind != plan.ModulePage {
		return w.v.plan.Types(m, of)
	}
	for _, g := range w.v.plan.GroupsOf(m) {
		list = append(list, g.All()...)
	}
	return list, slices.Index(list, of)
}

// way are the namespaces that lead to the page's type, and itself, from the outermost on.
func (w *contentsWriter) way() []*model.Declaration {
	var out []*model.Declaration
	for d := w.v.page.Type; d != nil; d = d.Parent {
		out = append(out, d)
	}
	slices.Reverse(out)
	return out
}

func first(way []*model.Declaration) *model.Declaration {
	if len(way) == 0 {
		return nil
	}
	return way[0]
}

// declaration lists one, opened where it is the next on the way to the page's type.
func (w *contentsWriter) declaration(d *model.Declaration, way []*model.Declaration) {
	open := w.v.page.Type == d && w.v.page.Kind == plan.TypePage
	w.item(w.v.toDeclaration(d), breakable(d.Name), open, d.Deprecated())
	if len(way) > 1 && d == way[0] {
		w.raw("<ul>")
		for _, nested := range window(w.v.plan.Nested(d), way[1], mostOwn) {
			if len(w.out) < fullContents || nested == way[1] {
				w.declaration(nested, way[1:])
			}
		}
		w.raw("</ul></li>")
		return
	}
	if !open {
		w.raw("</li>")
		return
	}
	if members := w.members(d); len(members) > 0 {
		w.raw("<ul>")
		for _, member := range members[:min(len(members), mostOwn)] {
			href := "#" + w.v.anchor(member)
			if plan.HasPage(member) {
				href = w.v.toDeclaration(member)
			}
			w.item(href, breakable(member.Name), false, member.Deprecated())
			w.raw("</li>")
		}
		if len(members) > mostOwn {
			target := membersAnchor
			if len(w.v.page.Twins) > 0 {
				target = plan.Label(d)
			}
			w.raw(`<li><a href="#` + escape(target) + `">` + escape(w.v.say("all-of", "count", w.v.count(len(members), "member"))) + "</a></li>")
		}
		w.raw("</ul>")
	}
	w.raw("</li>")
}

// members are those of a type in the order of its page.
func (w *contentsWriter) members(d *model.Declaration) (out []*model.Declaration) {
	for _, g := range w.v.plan.MembersOf(d) {
		for _, member := range g.All() {
			if member.Parent == d {
				out = append(out, member)
			}
		}
	}
	return out
}

// files lists those of a source page's module that stand near its own.
func (w *contentsWriter) files() {
	m := w.v.page.Module
	w.raw("<ul>")
	if w.v.plan.Links.ModuleInReach(m) {
		w.module(m, breakable(page.ShortPath(m)))
	} else {
		w.raw(`<li><span translate="no">` + breakable(page.ShortPath(m)) + "</span>")
	}
	w.raw("<ul>")
	for _, f := range window(m.Files, w.v.page.File, mostBeside) {
		w.item(w.v.to(w.v.plan.SourcePart(f, 0)), escape(path.Base(f.Path)), f == w.v.page.File, false)
		w.raw("</li>")
	}
	w.raw("</ul></li></ul>")
}

// membersAnchor is where the members of a type begin on its page.
const membersAnchor = "s-members"
