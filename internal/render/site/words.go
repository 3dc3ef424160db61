package site

import (
	"cmp"
	"path"
	"strconv"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/look"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/render/plan"
)

// This file names things in words.

// look is how the maintainer wants the pages.
func (v view) look() *look.Look { return v.options.Look }

func (v view) say(key string, pairs ...string) string { return v.look().Texts.Say(key, pairs...) }

func (v view) count(n int, thing string) string { return v.look().Texts.Count(n, thing) }

func (v view) moduleKind(m *model.Module) string {
	if worder, ok := v.options.FrontEnds[m.Library.Language].(lang.Terminology); ok {
		return v.say(worder.ModuleWord(m))
	}
	return v.say("module-word")
}

// placeName is where a file lies: its folder, or itself where that is the top. Of a folder
// that lies deep, as those of Java do, the end is enough.
func placeName(file string) string {
	dir := path.Dir(file)
	if dir == "." {
		return file
	}
	cut := max(0, len(dir)-longestPlace)
	if i := strings.IndexByte(dir[cut:], '/'); cut > 0 && i >= 0 {
		return "…" + dir[cut+i:]
	}
	return dir
}

// longestPlace is about how many bytes of a folder's path are named.
const longestPlace = 40

// letterOf names a page of the A to Z list: its letter, and which of several of
// that letter it is.
func letterOf(p *plan.Page) string {
	if p.Part == 0 {
		return p.Letter
	}
	return p.Letter + " " + strconv.Itoa(p.Part+1)
}

// turn is one of the pages that something too long for one is cut into.
type turn struct {
	Text    string
	Address string // from the site's root
	Current bool
}

// letters are the pages of the A to Z list.
func (v view) letters() []turn {
	var out []turn
	for _, p := range v.plan.Letters() {
		if p.Letter != "" {
			out = append(out, turn{letterOf(p), p.Address, p == v.page})
		}
	}
	return out
}

// pageTitle is the heading of a page that is about no declaration.
func (v view) pageTitle() string {
	switch v.page.Kind {
	case plan.GuidesPage:
		return cmp.Or(v.page.Title, v.say("guides"))
	case plan.TreePage:
		return v.say("all-modules")
	case plan.GonePage:
		return v.say("gone-title")
	case plan.LostPage:
		return v.say("lost-title")
	case plan.FindingsPage:
		return v.say("findings")
	case plan.CoveragePage:
		return v.say("coverage")
	case plan.ToDosPage:
		return v.say("to-dos")
	case plan.RelatedPage:
		return v.page.Title + ": " + v.say("relations")
	case plan.DetailsPage:
		return v.page.Title + ": " + v.say("details", "n", strconv.Itoa(v.page.Part+1))
	case plan.UsersPage:
		return v.say("users-title", "module", v.page.Module.Last())
	case plan.IndexPage:
		if v.page.Letter != "" {
			return v.say("a-z-letter", "letter", letterOf(v.page))
		}
		return v.say("a-z")
	}
	return v.page.Title
}

// version is that of the package that a reader brings in, or "": the library's
// own, else the project's.
func (v view) version(m *model.Module) string {
	if m.Library.Version != "" {
		return m.Library.Version
	}
	return v.project().Version
}

// libraryName is the library that the page belongs to, or "".
func (v view) libraryName() string {
	if v.page.Library == nil {
		return ""
	}
	return v.page.Library.Name
}

// overviewAnchor is where the overview lists what is in a group that the maintainer named.
func overviewAnchor(title string) string { return "s-" + link.GroupAnchor(title) }

// groupAnchor is where all of a group stands: a group that the maintainer named may have the title of a kind.
func groupAnchor(g plan.Group) string {
	if g.Named {
		return "s--all-part-" + prose.Slug(g.Title)
	}
	return "s--all-" + prose.Slug(g.Title)
}

// entriesByLetter cuts a sorted list of entries where the first letter changes.
func entriesByLetter(list []plan.Entry) [][]plan.Entry {
	var out [][]plan.Entry
	for i, e := range list {
		if i == 0 || plan.Letter(list[i-1].Name) != plan.Letter(e.Name) {
			out = append(out, nil)
		}
		out[len(out)-1] = append(out[len(out)-1], e)
	}
	return out
}

// memberName is a declaration's name within its page.
func memberName(d *model.Declaration) string {
	if owner := plan.Owner(d); owner != nil && owner != d {
		return strings.TrimPrefix(d.Path(), owner.Path()+".")
	}
	return d.Path()
}

// calledMember is the name of a member's heading.
func calledMember(d *model.Declaration) string {
	if d.Parent == nil {
		return knownAs(d)
	}
	return memberName(d)
}

// permalink is the declaration's address from its own page: the one that it always has.
func (v view) permalink(d *model.Declaration) string {
	anchor := plan.Anchor(d)
	switch {
	case anchor != "" && v.plan.PageOf(d) == v.page.Address:
		return "#" + anchor
	case v.page.Kind == plan.DetailsPage:
		return v.to(v.plan.PageOf(d) + "#" + anchor)
	}
	return v.toDeclaration(d)
}

// mostLinked is how many bare names are links each; where there are more, the
// page would be too heavy, and each run of names has one link before it.
const mostLinked = 10_000

// bareNames lists names whose lines stand on pages of their own. Their anchors
// are here, where they have been and will be. It is HTML with as little of it as
// there can be.
func (v view) bareNames(list []*model.Declaration) string {
	var b strings.Builder
	last := ""
	for _, d := range list {
		line := v.to(v.plan.Line(d))
		page, _, _ := strings.Cut(line, "#")
		anchor := attribute(v.anchor(d))
		if plain := v.plainAnchor(d); plain != "" {
			b.WriteString("<li><a id=" + attribute(plain) + "></a>\n")
		}
		switch {
		case len(list) <= mostLinked:
			b.WriteString("<li><a id=" + anchor + " href=" + attribute(line) + ">" + escape(d.Name) + "</a>\n")
			continue
		case page != last:
			last = page
			b.WriteString("<li><a href=" + attribute(line) + ">" + escape(v.say("lines-from", "name", d.Name)) + "</a>\n")
		}
		b.WriteString("<li id=" + anchor + ">" + escape(d.Name) + "\n")
	}
	return b.String()
}

// mostConstants is how many constants of a type its page lists; the rest is counted.
const mostConstants = 200

// makersTitle is the heading over functions that return a type: they stand for
// constructors where the type has none.
func (v view) makersTitle(d *model.Declaration) string {
	for _, member := range d.Members {
		if member.Kind() == model.KindConstructor {
			return v.say("created-by")
		}
	}
	return v.say("makers")
}

// knownAs is the name that users know a declaration by: the path that its comment calls
// it by, else its own.
func knownAs(d *model.Declaration) string {
	if path := d.Called(); path != "" {
		return path
	}
	return d.Path()
}
