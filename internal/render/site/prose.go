package site

import (
	"fmt"
	"path"
	"slices"
	"strconv"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/render/plan"
)

// proseWriter draws the prose tree as HTML. All text is escaped here, and
// addresses were filtered when the tree was made.
type proseWriter struct {
	v     view
	scope link.Scope
	level int         // of the page's headings that the text stands under
	file  *model.Page // the file the text is, where it is one
	most  int         // bytes of HTML
	b     strings.Builder
	slugs map[string]int

	depth int       // of texts that stand for others
	entry entryName // that is being described; empty outside of entries

	linking bool               // a link is open
	about   *model.Declaration // whose text this is, where the words are another's
}

func (v view) proseWriter(scope link.Scope, level int) *proseWriter {
	return &proseWriter{v: v, scope: scope, level: level, most: plan.LongestText}
}

// summaryWriter draws a first sentence, of which a page may have thousands.
func (v view) summaryWriter(scope link.Scope) *proseWriter {
	return &proseWriter{v: v, scope: scope, most: longestSummary}
}

// String is what was drawn.
func (w *proseWriter) String() string { return w.b.String() }

func (w *proseWriter) raw(s string) { w.b.WriteString(s) }

var escaper = strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;", `"`, "&#34;", "'", "&#39;",
	"\u202a", "", "\u202b", "", "\u202d", "", "\u202e", "", "\u2066", "", "\u2067", "", "\u2068", "")

// escape makes text safe in HTML. Marks that turn the direction of everything
// behind them are taken out: they could make a line read as what it is not.
func escape(s string) string {
	for i := 0; i < len(s); i++ {
		if escapedBytes[s[i]] {
			return escaper.Replace(s)
		}
	}
	return s
}

// escapedBytes begin what escape replaces: most text has none of them.
var escapedBytes = [256]bool{'&': true, '<': true, '>': true, '"': true, '\'': true, 0xE2: true}

func (w *proseWriter) escaped(s string) { w.raw(escape(s)) }

func (w *proseWriter) tag(name string, n *prose.Node, inside func([]prose.Node)) {
	w.raw("<" + name + ">")
	inside(n.Children)
	w.raw("</" + name + ">")
}

func (w *proseWriter) blocks(nodes []prose.Node) {
	for i := 0; i < len(nodes) && !w.full(); i++ {
		w.block(&nodes[i])
	}
}

// longestSummary is how much of a first sentence a page shows, in bytes of HTML. As with
// [plan.LongestText], only a machine writes more, and nobody reads it.
const longestSummary = 3_000

// full reports whether the page shows as much of the text as it may. What is
// left out is said once, behind the text.
func (w *proseWriter) full() bool { return w.b.Len() > w.most }

// rest says that a text goes on in the source.
func (w *proseWriter) rest() {
	if !w.full() {
		return
	}
	href := ""
	if d := w.scope.Declaration; d != nil {
		href = w.v.sourceAddress(d.Speaks(model.Words).File, int(d.Speaks(model.Words).Line))
	}
	w.raw("<p>")
	w.anchored(href, func() { w.escaped(w.v.say("text-cut")) })
	w.raw("</p>")
}

// clipped is as much of one piece of text as there is room for.
func (w *proseWriter) clipped(text string) string {
	room := max(0, w.most-w.b.Len())
	if len(text) <= room {
		return text
	}
	for room > 0 && text[room]&0xC0 == 0x80 {
		room--
	}
	w.b.Grow(room + 1)
	return text[:room] + "…"
}

// fenced is the front end of the language that a fence calls by a word, or nil.
func (v view) fenced(word string) lang.FrontEnd {
	for _, end := range v.options.FrontEnds {
		if slices.Contains(end.Habits().Fences, word) {
			return end
		}
	}
	return nil
}

// languageName is how people write the name of a language.
func (v view) languageName(language string) string {
	if h := lang.HabitsOf(v.options.FrontEnds[language]); h != nil {
		return h.Name
	}
	return language
}

// codeBlock draws source code with keywords and the like told apart, where the
// fence names a language that is read here.
func (w *proseWriter) codeBlock(n *prose.Node) {
	text := w.clipped(n.Text)
	word, _, _ := strings.Cut(strings.TrimSpace(n.Info), " ")
	scanner, ok := w.v.fenced(strings.ToLower(word)).(lang.Scanner)
	if !ok {
		w.escaped(text)
		return
	}
	at := int32(0)
	for _, p := range scanner.Scan(text, nil) {
		as, ok := pieceMarks[p.Class]
		if !ok {
			continue
		}
		w.escaped(text[at:p.Span.Start])
		w.raw(markTags[as][0])
		w.escaped(p.Span.In(text))
		w.raw(markTags[as][1])
		at = p.Span.End
	}
	w.escaped(text[at:])
}

func (w *proseWriter) block(n *prose.Node) {
	switch n.Kind {
	case prose.Paragraph:
		if !w.placeholder(n) {
			w.tag("p", n, w.inline)
		}
	case prose.Heading:
		w.heading(n)
	case prose.CodeBlock:
		w.raw("<pre><code translate=\"no\">")
		w.codeBlock(n)
		w.raw("</code></pre>\n")
	case prose.List:
		w.list(n)
	case prose.Item:
		w.tag("li", n, w.blocks)
	case prose.Quote:
		w.tag("blockquote", n, w.blocks)
	case prose.Ruler:
		w.raw("<hr>")
	case prose.Table:
		w.table(n)
	case prose.Display:
		w.raw(`<div class="formula">`)
		w.formula(n)
		w.raw("</div>\n")
	default:
		w.node(n)
	}
}

// formula draws mathematics as text where that says the same, else its source.
func (w *proseWriter) formula(n *prose.Node) {
	if len(n.Children) == 0 {
		w.raw(`<code class="tex" translate="no">`)
		w.escaped(w.clipped(n.Text))
		w.raw("</code>")
		return
	}
	w.raw(`<span class="maths" translate="no">`)
	w.inline(n.Children)
	w.raw("</span>")
}

func (w *proseWriter) heading(n *prose.Node) {
	level := strconv.Itoa(max(2, min(6, w.level+int(n.Level)-1)))
	if w.level == 0 {
		level = "4"
	}
	slug := "s-" + plan.Slug(prose.Plain(n.Children))
	if w.scope.Declaration != nil {
		about := w.scope.Declaration
		if w.about != nil {
			about = w.about
		}
		if len(w.v.page.Twins) > 0 { // their names differ by case alone
			slug += "-" + about.Path()
		} else {
			slug += "-" + plan.Slug(about.Path())
		}
	}
	if w.slugs == nil {
		w.slugs = map[string]int{}
	}
	w.slugs[slug]++
	if times := w.slugs[slug]; times > 1 {
		slug += "-" + strconv.Itoa(times)
	}
	fmt.Fprintf(&w.b, `<h%s id="%s">`, level, escape(slug))
	w.inline(n.Children)
	w.raw("</h" + level + ">\n")
}

func (w *proseWriter) list(n *prose.Node) {
	open, end := "<ul>", "</ul>\n"
	if n.Info != "" {
		open = `<ul class="` + n.Info + `">`
	}
	if n.Level > 0 {
		open, end = "<ol>", "</ol>\n"
		if n.Level > 1 {
			open = fmt.Sprintf(`<ol start="%d">`, n.Level)
		}
	}
	w.raw(open)
	for i := 0; i < len(n.Children) && !w.full(); i++ {
		item := &n.Children[i]
		w.raw("<li>")
		switch {
		case item.Kind != prose.Item:
			w.block(item)
		case !n.Loose && len(item.Children) > 0 && item.Children[0].Kind == prose.Paragraph:
			w.inline(item.Children[0].Children) // a tight item is a line, not a paragraph
			w.blocks(item.Children[1:])
		default:
			w.blocks(item.Children)
		}
		w.raw("</li>\n")
	}
	w.raw(end)
}

func (w *proseWriter) table(n *prose.Node) {
	w.raw(`<div class="wide" tabindex="0"><table>`)
	part := ""
	for i := 0; i < len(n.Children) && !w.full(); i++ {
		row := &n.Children[i]
		in, cell := "tbody", "td"
		if row.Level > 0 && part != "tbody" {
			in, cell = "thead", `th scope="col"`
		}
		if in != part {
			if part != "" {
				w.raw("</" + part + ">")
			}
			w.raw("<" + in + ">")
			part = in
		}
		w.raw("<tr>")
		for j := 0; j < len(row.Children) && !w.full(); j++ {
			w.raw("<" + cell + ">")
			w.inline(row.Children[j].Children)
			w.raw("</" + cell[:2] + ">")
		}
		w.raw("</tr>\n")
	}
	if part != "" {
		w.raw("</" + part + ">")
	}
	w.raw("</table></div>\n")
}

func (w *proseWriter) inline(nodes []prose.Node) {
	for i := 0; i < len(nodes) && !w.full(); i++ {
		w.node(&nodes[i])
	}
}

func (w *proseWriter) node(n *prose.Node) {
	switch n.Kind {
	case prose.Text:
		w.escaped(w.clipped(n.Text))
	case prose.Emphasis:
		w.tag("em", n, w.inline)
	case prose.Strong:
		w.strong(n)
	case prose.Struck:
		w.tag("s", n, w.inline)
	case prose.Superscript:
		w.tag("sup", n, w.inline)
	case prose.Subscript:
		w.tag("sub", n, w.inline)
	case prose.Formula, prose.Display:
		w.formula(n)
	case prose.Code:
		w.code(n)
	case prose.Break:
		w.raw("<br>")
	case prose.Link:
		w.link(n)
	case prose.Reference:
		w.reference(n)
	case prose.Image:
		w.image(n)
	case prose.Inherited:
		w.takenInLine(n)
	default:
		w.inline(n.Children)
	}
}

// strong draws strong text, or the label of a note in the words of the page.
func (w *proseWriter) strong(n *prose.Node) {
	if n.Info == "" {
		w.tag("strong", n, w.inline)
		return
	}
	text := w.v.say("label-"+n.Info, "version", n.Target)
	if strings.HasSuffix(prose.Plain(n.Children), ":") {
		text += ":"
	}
	w.raw("<strong>")
	w.escaped(text)
	w.raw("</strong>")
}

// code draws a code span, and links it where it means exactly one declaration.
// In Go comments there are no code spans, so those come from guides alone.
func (w *proseWriter) code(n *prose.Node) {
	href := ""
	if t, short, ok := w.v.plan.Links.ImportedType(w.scope.Module, w.scope.File, n.Text); ok && n.Typed {
		if href = w.v.href(t); href != "" {
			w.anchored(href, func() { w.codeText(short) })
			return
		}
	}
	if link.ReadsLikeName(n.Text) {
		if r := w.v.plan.Links.ResolveNode(w.scope, n); r.Outcome == link.Found {
			href = w.v.href(r.Target)
		}
	}
	w.anchored(href, func() { w.codeText(n.Text) })
}

func (w *proseWriter) codeText(text string) {
	w.raw(`<code translate="no">`)
	w.raw(breakable(text))
	w.raw("</code>")
}

func (w *proseWriter) anchored(href string, inside func()) {
	if href == "" || w.linking { // a link holds no other
		inside()
		return
	}
	w.linking = true
	w.raw(`<a href="` + escape(href) + `">`)
	inside()
	w.raw("</a>")
	w.linking = false
}

func (w *proseWriter) reference(n *prose.Node) {
	r := w.v.plan.Links.ResolveNode(w.scope, n)
	href := ""
	if r.Outcome == link.Found || r.Outcome == link.External {
		href = w.v.href(r.Target)
	}
	if href == "" && r.Outcome == link.Missing && n.Text != "" {
		w.escaped(n.Text) // brackets that are no reference stay as they were written
		return
	}
	w.anchored(href, func() { w.shown(n.Children) })
}

// shown draws the text of a link without links inside it: they may not nest.
func (w *proseWriter) shown(nodes []prose.Node) {
	for i := range nodes {
		n := &nodes[i]
		switch n.Kind {
		case prose.Code:
			w.codeText(n.Text)
		case prose.Link, prose.Reference:
			w.shown(n.Children)
		case prose.Emphasis:
			w.tag("em", n, w.shown)
		case prose.Strong:
			w.tag("strong", n, w.shown)
		case prose.Image:
			w.picture(n)
		default:
			w.node(n)
		}
	}
}

func (w *proseWriter) link(n *prose.Node) {
	href := n.Target
	if !strings.Contains(href, ":") {
		href = w.local(href)
	}
	w.anchored(href, func() { w.shown(n.Children) })
}

// local is where a relative link of a file leads: to a heading of the same
// page, to the page of a source file, or to the file on the forge. What the site
// does not hold is shown without a link.
func (w *proseWriter) local(target string) string {
	if anchor, ok := strings.CutPrefix(target, "#"); ok {
		if w.hasHeading(anchor) {
			return "#s-" + anchor
		}
		return ""
	}
	if w.file == nil {
		return ""
	}
	file, ok := localPath(path.Dir(w.file.Path), target)
	if !ok {
		return ""
	}
	if address := w.v.plan.SourceFile(file, lineOf(target)); address != "" {
		return w.v.to(address)
	}
	return w.v.forgeAddress(file, lineOf(target))
}

// lineOf is the line that an address such as "berth.go#L41" asks for, else the first.
func lineOf(target string) int {
	_, anchor, _ := strings.Cut(target, "#L")
	if line, err := strconv.Atoi(anchor); err == nil && line > 0 {
		return line
	}
	return 1
}

func (w *proseWriter) hasHeading(slug string) bool {
	guide := w.v.plan.Links.GuideOf(w.file)
	if guide == nil || guide != w.v.page.Guide {
		return false
	}
	found := false
	prose.Walk(guide.Body, func(n *prose.Node) bool {
		found = found || n.Kind == prose.Heading && plan.Slug(prose.Plain(n.Children)) == slug
		return !found
	})
	return found
}

// image draws a local picture, and a remote one as a link: pages ask nothing of the network.
func (w *proseWriter) image(n *prose.Node) {
	if !strings.Contains(n.Target, ":") {
		w.picture(n)
		return
	}
	text := prose.Plain(n.Children)
	if text == "" {
		text = path.Base(n.Target)
	}
	w.anchored(n.Target, func() { w.escaped(text) })
}

func (w *proseWriter) picture(n *prose.Node) {
	text := prose.Plain(n.Children)
	if w.file != nil {
		file, _ := localPath(path.Dir(w.file.Path), n.Target)
		if address, ok := w.v.images[file]; ok {
			fmt.Fprintf(&w.b, `<img src="%s" alt="%s">`, escape(w.v.to(escapedPath(address))), escape(text))
			return
		}
	}
	w.escaped(text)
}

// breakable escapes a name and lets it break behind "." "::" "_" "/" and
// between humps, so that long names never widen a narrow screen.
func breakable(s string) string {
	if len(s) < 16 {
		return escape(s)
	}
	var b strings.Builder
	last := 0
	for i := 1; i < len(s); i++ {
		hump := s[i] >= 'A' && s[i] <= 'Z' && s[i-1] >= 'a' && s[i-1] <= 'z'
		if hump || s[i-1] == '.' || s[i-1] == '_' || s[i-1] == '/' || s[i-1] == ':' && s[i] != ':' {
			b.WriteString(escape(s[last:i]))
			b.WriteString("<wbr>")
			last = i
		}
	}
	b.WriteString(escape(s[last:]))
	return b.String()
}
