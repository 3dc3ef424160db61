package site

import (
	"cmp"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/a-h/templ"

	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// view is one page while it is drawn: what the templates ask.
type view struct {
	*Site
	page *plan.Page
	said *page.Notes
}

// Page is the component that draws a page.
func (s *Site) Page(shown *plan.Page) templ.Component {
	if shown.Same != nil {
		shown = shown.Same
	}
	v := view{Site: s, page: shown, said: &page.Notes{Maker: s.maker, Plan: s.plan, Here: shown.Module}}
	switch shown.Kind {
	case plan.HomePage:
		return v.frame(v.homePage())
	case plan.GuidePage, plan.GuidesPage:
		return v.frame(v.guidePage())
	case plan.LibraryPage:
		return v.frame(v.libraryPage())
	case plan.ModulePage, plan.WholePage:
		return v.frame(v.modulePage())
	case plan.NamesPage:
		return v.frame(v.namesPage())
	case plan.RelatedPage:
		return v.frame(v.relatedPage())
	case plan.DetailsPage:
		return v.frame(v.detailsPage())
	case plan.FindingsPage:
		return v.frame(v.findingsPage())
	case plan.CoveragePage:
		return v.frame(v.coveragePage())
	case plan.ToDosPage:
		return v.frame(v.toDosPage())
	case plan.TypePage:
		if len(shown.Twins) > 0 {
			return v.frame(v.twinsPage())
		}
		return v.frame(v.typePage())
	case plan.TreePage:
		return v.frame(v.treePage())
	case plan.LostPage:
		return v.frame(v.lostPage())
	case plan.GonePage:
		return v.frame(v.gonePage())
	case plan.SourcePage:
		return v.frame(v.sourcePage())
	case plan.UsersPage:
		return v.frame(v.usersPage())
	default:
		return v.frame(v.indexPage())
	}
}

func (v view) project() *model.Project { return v.plan.Links.Project }

// to is the way from this page to an address of the site.
// A server shows the page for lost readers at any address, so the ways from it
// begin at the site's root.
func (v view) to(address string) string {
	if v.page.Kind == plan.LostPage && !plan.IsAddress(address) {
		return v.basePath() + address
	}
	return plan.Relative(v.page.Address, address)
}

// root is the way from this page to the site's root.
func (v view) root() string {
	if v.page.Kind == plan.LostPage {
		return v.basePath()
	}
	return plan.Root(v.page.Address)
}

func (v view) basePath() string {
	if u, err := url.Parse(v.options.Base); err == nil && u.Path != "" {
		return u.Path
	}
	return "/"
}

// canonical is the page's whole address, or "" where nobody knows the site's.
func (v view) canonical() string {
	if v.options.Base == "" || v.page.Kind == plan.LostPage {
		return ""
	}
	return v.options.Base + strings.TrimSuffix(v.page.Address, "index.html")
}

// description is one sentence about the page for those who see only a link to it.
func (v view) description() string {
	switch v.page.Kind {
	case plan.TypePage:
		return v.plan.Summary(v.page.Type)
	case plan.ModulePage:
		return v.plan.ModuleSummary(v.page.Module)
	case plan.HomePage, plan.GuidePage, plan.GuidesPage:
		if v.page.Guide != nil {
			return v.plan.GuideSummary(v.page.Guide)
		}
	}
	return ""
}

func (v view) toDeclaration(d *model.Declaration) string {
	if v.onWhole(d) {
		return "#" + plan.Label(d)
	}
	return v.to(v.plan.Declaration(d))
}

// toForm is the way to what a target means: one form of it, or all of it.
func (v view) toForm(t link.Target) string {
	if t.Form == nil {
		return v.toDeclaration(t.Declaration)
	}
	anchor := v.anchorOf(t)
	if anchor == "" {
		return v.toDeclaration(t.Declaration)
	}
	if v.onWhole(t.Declaration) {
		return "#" + fragmentOf(anchor)
	}
	return v.to(cmp.Or(v.plan.Away(t.Declaration), v.plan.PageOf(t.Declaration)) + "#" + fragmentOf(anchor))
}

// onWhole reports whether a declaration stands on the page being drawn because
// all of its module does.
func (v view) onWhole(d *model.Declaration) bool {
	if v.page.Kind == plan.TypePage && len(v.page.Twins) > 0 {
		return slices.Contains(v.page.Twins, plan.Owner(d))
	}
	return v.page.Kind == plan.WholePage && v.plan.Links.Home(d) == v.page.Module
}

func (v view) url(address string) templ.SafeURL { return templ.SafeURL(address) }

// title is what the browser shows: the page's own words, then the project's name.
func (v view) title() string {
	name := v.project().Name
	switch v.page.Kind {
	case plan.HomePage:
		return v.page.Title
	case plan.TypePage, plan.UsersPage, plan.RelatedPage, plan.DetailsPage:
		return v.pageTitle() + " · " + v.page.Module.Path + " · " + name
	}
	return v.pageTitle() + " · " + name
}

// href is where a target leads from this page, or "" where it has no page.
func (v view) href(t link.Target) string {
	switch {
	case v.plan.Links.Pageless(t):
		return v.plan.Links.OutsideAddress(t)
	case t.Declaration != nil && v.plan.Links.InReach(t.Declaration) && !t.Declaration.Blank():
		return v.toForm(t)
	case t.Module != nil && v.plan.Links.ModuleInReach(t.Module):
		if t.Heading != "" {
			return v.to(v.plan.Module(t.Module) + "#s-" + t.Heading)
		}
		return v.to(v.plan.Module(t.Module))
	case t.Declaration != nil || t.Module != nil:
		return ""
	}
	return t.Address
}

// target is the way to what a text leads to, or "" where the site does not hold it.
func (v view) target(t *page.Target) string {
	switch {
	case t == nil:
		return ""
	case t.Guide != nil && t.Heading != "":
		return v.to(plan.Guide(t.Guide.Page) + "#s-" + t.Heading)
	case t.Guide != nil:
		return v.to(plan.Guide(t.Guide.Page))
	case t.Page != "":
		return v.to(t.Page)
	case t.Source != nil:
		return v.sourceAddress(t.Source, t.Line)
	case t.Group != nil && v.shows(t.Module, t.Group):
		return v.to(v.plan.Module(t.Module) + "#" + overviewAnchor(t.Group.Title))
	case t.File == "":
		return v.href(t.Target)
	}
	if address := v.plan.SourceFile(t.File, t.Line); address != "" {
		return v.to(address)
	}
	return v.forgeAddress(t.File, t.Line)
}

// shows reports whether the page of a module has a heading for a group.
func (v view) shows(m *model.Module, g *model.Group) bool {
	return m != nil && v.plan.Links.ModuleInReach(m) && slices.ContainsFunc(v.plan.GroupsOf(m), func(shown plan.Group) bool { return shown.Of.Group == g })
}

// sourceAddress is where a line of the source can be read, or "": on a page of
// this site, else at the forge.
func (v view) sourceAddress(f *model.Facts, line int) string {
	if address := v.plan.SourceLine(f, line); address != "" {
		return v.to(address)
	}
	return v.forgeAddress(f.Path, line)
}

// forgeAddress is where the project's forge shows a line, or "".
func (v view) forgeAddress(file string, line int) string {
	pattern := v.options.Source
	if pattern == "" {
		return ""
	}
	return strings.NewReplacer("{path}", escapedPath(file), "{line}", strconv.Itoa(line)).Replace(pattern)
}

// bringIn is the line that a reader copies to use a module, or a declaration of it.
func (v view) bringIn(m *model.Module, d *model.Declaration) string {
	for d != nil && d.Parent != nil {
		d = d.Parent // a name in a namespace comes with that
	}
	if using, ok := v.options.FrontEnds[m.Library.Language].(lang.NameImportWriter); ok && d != nil {
		return using.BringNameIn(m, d, v.plan.Links.NameIn(m, d))
	}
	if using, ok := v.options.FrontEnds[m.Library.Language].(lang.ImportWriter); ok {
		return using.BringIn(m, v.plan.Links.Shadowed(m))
	}
	return ""
}

// summary is the first sentence of a declaration's comment as HTML.
func (v view) summary(d *model.Declaration) string {
	return v.sentenceText(v.maker.Summary(v.page.Module, d))
}

func (v view) moduleSummary(m *model.Module) string { return v.sentenceText(v.maker.ModuleSummary(m)) }

// givenText is the first sentence of what describes a name that a module re-exports.
func (v view) givenText(g link.Export) string {
	return v.sentenceText(v.maker.ExportSummary(v.page.Module, g))
}

// sentenceText draws a first sentence, of which a page may have thousands.
func (v view) sentenceText(line []page.Inline) string {
	if len(line) == 0 {
		return ""
	}
	w := proseWriter{v: v, most: longestSummary}
	w.line(line)
	return w.String()
}

// text is the comment of a declaration as HTML, with headings from level on.
func (v view) text(d *model.Declaration, level int) string {
	words := v.maker.Words(d)
	if words == nil {
		return ""
	}
	w := v.proseWriter(level)
	w.about = d
	w.words(words)
	w.rest(words.Of)
	return w.String()
}

// advice is the text of a deprecation as HTML, on one line.
func (v view) advice(d *model.Declaration) string {
	w := v.proseWriter(0)
	w.line(v.maker.Advice(d))
	return w.String()
}

// deprecation says that a declaration is deprecated, with all its advice.
func (v view) deprecation(d *model.Declaration) string {
	w := v.proseWriter(4)
	w.gone(v.maker.Deprecation(d))
	return w.String()
}

func (v view) moduleText(m *model.Module) string {
	w := v.proseWriter(2)
	for _, words := range v.maker.ModuleWords(m) {
		w.words(words)
	}
	w.rest(nil)
	return w.String()
}

// libraryText is what the comments on the library of the page say.
func (v view) libraryText() string {
	for _, lib := range v.project().Libraries {
		if lib.Library == v.page.Library {
			w := v.proseWriter(2)
			for _, words := range v.maker.LibraryWords(lib) {
				w.words(words)
			}
			w.rest(nil)
			return w.String()
		}
	}
	return ""
}

// textOf is what a text says that stands for itself.
func (v view) textOf(t plan.Text) string {
	w := v.proseWriter(3)
	w.words(v.maker.TextWords(t))
	w.rest(nil)
	return w.String()
}

// special are the modules of the page's library of which its own files say something, in the
// order in which they do.
func (v view) special() (paths []string) {
	for _, said := range v.page.Library.Said() {
		if said.Module != "" && !slices.Contains(paths, said.Module) {
			paths = append(paths, said.Module)
		}
	}
	return paths
}

// groupDoc is the comment of the group that a declaration stands in, where the
// declaration before it stands in another.
func (v view) groupDoc(list []*model.Declaration, i int) string {
	doc := list[i].Speaks(model.Words).GroupDoc
	if doc == nil || i > 0 && list[i-1].Speaks(model.Words).GroupDoc == doc {
		return ""
	}
	w := v.proseWriter(4)
	w.words(v.maker.GroupWords(list[i]))
	w.rest(list[i])
	return w.String()
}

// groupText is what comments say of a group that they give a title.
func (v view) groupText(g plan.Group) string {
	words := v.maker.GroupText(g, v.page.Module)
	if words == nil {
		return ""
	}
	w := v.proseWriter(4)
	w.words(words)
	w.rest(nil)
	return w.String()
}

// escapedPath is a path as it stands in an address: blanks and "#" are common in file names.
func escapedPath(file string) string { return (&url.URL{Path: file}).EscapedPath() }

// plainAnchor is the anchor that a member has where its type has a page alone: on a
// page of several types the first that has it keeps it, so that no address moves; but where
// one of the types is called so, that one has it.
func (v view) plainAnchor(d *model.Declaration) string {
	anchor := plan.Anchor(d)
	if v.page.Kind != plan.TypePage || len(v.page.Twins) == 0 || anchor == "" {
		return ""
	}
	if slices.ContainsFunc(v.page.Twins, func(twin *model.Declaration) bool { return plan.Label(twin) == anchor }) {
		return ""
	}
	for _, twin := range v.page.Twins {
		if twin == plan.Owner(d) {
			return anchor
		}
		for _, other := range v.plan.Within(twin) {
			if plan.Anchor(other) == anchor {
				return ""
			}
		}
	}
	return ""
}
