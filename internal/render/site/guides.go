package site

import (
	"slices"
	"strconv"
	"strings"

	"codrel/internal/link"
	"codrel/internal/render/plan"
)

// This file draws guides, and their places in the contents.

// head is a heading of a text that was drawn.
type head struct {
	anchor string
	text   string
	level  int
}

// guideText is the text of the guide that the page shows, and its headings.
func (v view) guideText() (string, []head) {
	w := v.proseWriter(1)
	w.words(v.maker.GuideWords(v.page.Guide))
	w.rest(nil)
	return w.String(), w.heads
}

// mostHeads is how many headings the contents of a text list; where there are more, those of
// the lowest levels are left out first.
const mostHeads = 40

// headList is the list of headings beside a text, two levels deep.
func headList(heads []head) string {
	top := slices.MinFunc(heads, func(a, b head) int { return a.level - b.level }).level
	deep := top + 1
	if n := len(shallow(heads, deep)); n > mostHeads {
		deep = top
	}
	shown := shallow(heads, deep)
	shown = shown[:min(len(shown), mostHeads)]
	var b strings.Builder
	b.WriteString(`<ul class="tree">`)
	open := false
	for i, h := range shown {
		switch inner := h.level > top; {
		case inner && !open && i > 0:
			b.WriteString("<ul>")
			open = true
		case inner && open || i == 0:
			if i > 0 {
				b.WriteString("</li>")
			}
		case open:
			b.WriteString("</li></ul></li>")
			open = false
		default:
			b.WriteString("</li>")
		}
		b.WriteString(`<li><a href="#` + escape(h.anchor) + `">` + escape(h.text) + "</a>")
	}
	if open {
		b.WriteString("</li></ul>")
	}
	b.WriteString("</li></ul>")
	return b.String()
}

// shallow are the headings down to a level.
func shallow(heads []head, level int) []head {
	return slices.DeleteFunc(slices.Clone(heads), func(h head) bool { return h.level > level })
}

// guideCrumbs are the steps to the page of a guide.
func (v view) guideCrumbs() []crumb {
	out := []crumb{{Text: v.say("guides"), Href: v.to(plan.GuidesAddress)}}
	if part := v.page.Guide.Part; part != "" && part != v.page.Title {
		out = append(out, crumb{Text: part, Href: v.to(plan.GuidesAddress)})
	}
	return append(out, crumb{Text: v.page.Title})
}

// editAddress is where the text of a file can be changed, or "" where the settings do not say.
func (v view) editAddress(file string) string {
	if v.options.Edit == "" {
		return ""
	}
	return strings.ReplaceAll(v.options.Edit, "{path}", escapedPath(file))
}

// guides lists the guides: all of them on the landing page and on pages of guides, elsewhere
// the way to their list.
func (w *contentsWriter) guides() {
	v := w.v
	if !v.plan.HasGuides() || v.page.File != nil {
		return
	}
	w.guide(v.to(plan.GuidesAddress), v.say("guides"), v.page.Kind == plan.GuidesPage)
	if kind := v.page.Kind; kind == plan.HomePage || kind == plan.GuidesPage || kind == plan.GuidePage {
		w.raw("<ul>")
		for _, part := range v.plan.Parts() {
			w.part(part)
		}
		w.raw("</ul>")
	}
	w.raw("</li>")
}

// mostBesideGuide is how many guides of a part the contents list around the page's own, and
// mostOfPart how many of another part.
const (
	mostBesideGuide = 40
	mostOfPart      = 12
)

func (w *contentsWriter) part(part plan.Part) {
	at := slices.IndexFunc(part.Guides, func(g *link.Guide) bool { return g == w.v.page.Guide })
	most := mostOfPart
	if at >= 0 {
		most = mostBesideGuide
	}
	shown := windowAt(part.Guides, at, most)
	if len(w.out) > fullContents && at < 0 && part.Index != w.v.page.Guide {
		return
	}
	switch {
	case part.Index != nil:
		w.guide(w.v.to(plan.Guide(part.Index.Page)), part.Title, part.Index == w.v.page.Guide)
	case part.Title != "":
		w.raw("<li><span>" + escape(part.Title) + "</span>")
	}
	if part.Title != "" {
		if len(shown) == 0 {
			w.raw("</li>")
			return
		}
		w.raw("<ul>")
	}
	for _, g := range shown {
		if len(w.out) < fullContents || g == w.v.page.Guide {
			w.guide(w.v.to(plan.Guide(g.Page)), g.Title, g == w.v.page.Guide)
			w.raw("</li>")
		}
	}
	if len(shown) < len(part.Guides) {
		w.raw(`<li><a href="` + escape(w.v.to(plan.GuidesAddress)) + `">` + escape(w.v.say("all-of", "count", strconv.Itoa(len(part.Guides)))) + "</a></li>")
	}
	if part.Title != "" {
		w.raw("</ul></li>")
	}
}

// guide begins the line of one; the caller ends it.
func (w *contentsWriter) guide(href, title string, current bool) {
	w.raw(`<li><a href="` + escape(href) + `"`)
	if current {
		w.raw(` aria-current="page"`)
	}
	w.raw(">" + escape(title) + "</a>")
}
