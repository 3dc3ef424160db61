package site

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/render/colour"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// proseWriter draws text as HTML. All text is escaped here, and addresses were filtered when
// the prose tree was made.
type proseWriter struct {
	v     view
	level int // of the page's headings that the text stands under
	most  int // bytes of HTML
	b     strings.Builder
	slugs prose.Slugs
	heads []head             // of the guide that is drawn
	about *model.Declaration // whose text this is, where the words are another's
}

func (v view) proseWriter(level int) *proseWriter {
	return &proseWriter{v: v, level: level, most: plan.LongestText}
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

// words draws all that a comment says.
func (w *proseWriter) words(words *page.Words) {
	if len(words.Type) > 0 {
		w.raw(`<p class="of-type">` + escape(w.v.say("type")) + ": ")
		w.line(words.Type)
		w.raw("</p>")
	}
	w.gone(words.Gone)
	w.draw(words.Body)
	w.formTexts(words.Forms)
	for i := 0; i < len(words.Parts) && !w.full(); i++ {
		w.part(&words.Parts[i], words.Language)
	}
}

func (w *proseWriter) draw(blocks []page.Block) {
	for i := 0; i < len(blocks) && !w.full(); i++ {
		w.block(&blocks[i])
	}
}

func (w *proseWriter) line(list []page.Inline) {
	for i := 0; i < len(list) && !w.full(); i++ {
		w.piece(&list[i])
	}
}

// tagged draws pieces within an element.
func (w *proseWriter) tagged(name string, list []page.Inline) {
	w.raw("<" + name + ">")
	w.line(list)
	w.raw("</" + name + ">")
}

// longestSummary is how much of a first sentence a page shows, in bytes of HTML. As with
// [plan.LongestText], only a machine writes more, and nobody reads it.
const longestSummary = 3_000

// full reports whether the page shows as much of the text as it may. What is
// left out is said once, behind the text.
func (w *proseWriter) full() bool { return w.b.Len() > w.most }

// rest says that a text goes on in the source: where the declaration stands, if it is one's.
func (w *proseWriter) rest(d *model.Declaration) {
	if !w.full() {
		return
	}
	href := ""
	if d != nil {
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
func (w *proseWriter) codeBlock(b *page.Block) {
	text := w.clipped(b.Text)
	word, _, _ := strings.Cut(strings.TrimSpace(b.Info), " ")
	scanner, ok := w.v.fenced(strings.ToLower(word)).(lang.Scanner)
	c := codeMarks{w: w, text: text, marks: b.Marks}
	if !ok {
		at := 0
		for _, p := range colour.Pieces(word, text) {
			tags := markTags[colourMarks[p.Class]]
			c.write(at, p.From, "", "")
			c.write(p.From, p.To, tags[0], tags[1])
			at = p.To
		}
		c.write(at, len(text), "", "")
		return
	}
	at := int32(0)
	for _, p := range scanner.Scan(text, nil) {
		as, ok := pieceMarks[p.Class]
		if !ok {
			continue
		}
		c.write(int(at), int(p.Span.Start), "", "")
		c.write(int(p.Span.Start), int(p.Span.End), markTags[as][0], markTags[as][1])
		at = p.Span.End
	}
	c.write(int(at), len(text), "", "")
}

// colourMarks draws what another library tells apart as the front ends' own pieces are drawn.
var colourMarks = map[colour.Class]markKind{colour.Keyword: asKeyword, colour.Remark: asComment, colour.Text: asText}

// codeMarks writes code in which parts are marked.
type codeMarks struct {
	w     *proseWriter
	text  string
	marks []page.Mark // those that are not yet passed
}

// write writes a stretch of the code between two tags, with the tags of marks around its parts.
func (c *codeMarks) write(from, to int, open, end string) {
	for from < to {
		for len(c.marks) > 0 && c.marks[0].To <= from {
			c.marks = c.marks[1:]
		}
		stop, before, behind := to, "", ""
		if len(c.marks) > 0 {
			switch m := c.marks[0]; {
			case m.From > from:
				stop = min(to, m.From)
			default:
				stop = min(to, m.To)
				before, behind = c.w.markOf(m)
			}
		}
		c.w.raw(before + open)
		c.w.escaped(c.text[from:stop])
		c.w.raw(end + behind)
		from = stop
	}
}

// markOf is the tags around a marked part of code.
func (w *proseWriter) markOf(m page.Mark) (open, end string) {
	switch m.Kind {
	case page.Link:
		if href := w.v.target(m.Target); href != "" {
			return `<a href="` + escape(href) + `">`, "</a>"
		}
		return "", ""
	case page.Emphasis:
		return "<em>", "</em>"
	}
	return "<mark>", "</mark>"
}

func (w *proseWriter) block(b *page.Block) {
	switch b.Kind {
	case page.Paragraph:
		w.tagged("p", b.Inlines)
	case page.Heading:
		w.heading(b)
	case page.Code:
		if b.Excerpt != nil {
			w.raw(`<div class="plate excerpt"><p class="edge">`)
			w.excerptEdge(b.Excerpt)
			w.raw("</p>")
			defer w.raw("</div>\n")
		} else if remark := b.Tried.Words(w.v.look().Texts); remark != "" {
			w.raw(`<div class="plate example"><p class="edge">`)
			w.escaped(remark)
			w.raw("</p>")
			defer w.raw("</div>\n")
		}
		w.raw("<pre><code translate=\"no\">")
		w.codeBlock(b)
		w.raw("</code></pre>\n")
	case page.List:
		w.list(b)
	case page.Item:
		w.raw("<li>")
		w.line(b.Inlines)
		w.draw(b.Blocks)
		w.raw("</li>")
	case page.Quote:
		w.raw("<blockquote>")
		w.draw(b.Blocks)
		w.raw("</blockquote>")
	case page.Ruler:
		w.raw("<hr>")
	case page.Table:
		w.table(b)
	case page.Display:
		w.raw(`<div class="formula">`)
		w.line(b.Inlines)
		w.raw("</div>\n")
	case page.Bare:
		w.line(b.Inlines)
	}
}

// excerptEdge says what a piece of the source shows, and where it stands.
func (w *proseWriter) excerptEdge(e *page.Excerpt) {
	if e.To != nil || e.File == "" {
		w.anchored(w.v.target(e.To), func() { w.codeText(e.Name) })
	}
	if e.File == "" {
		return
	}
	if e.To != nil {
		w.raw(" · ")
	}
	w.anchored(w.v.target(e.Source), func() {
		w.escaped(w.v.say("file-line", "file", e.File, "line", strconv.Itoa(e.Line)))
	})
}

func (w *proseWriter) heading(b *page.Block) {
	level := strconv.Itoa(max(2, min(6, w.level+b.Level-1)))
	if w.level == 0 {
		level = "4"
	}
	slug := "s-" + prose.Slug(b.Text)
	if about := b.Of; about != nil {
		if w.about != nil {
			about = w.about
		}
		if len(w.v.page.Twins) > 0 { // their names differ by case alone
			slug += "-" + about.Path()
		} else {
			slug += "-" + prose.Slug(about.Path())
		}
	}
	slug = w.slugs.Next(slug)
	w.heads = append(w.heads, head{slug, b.Text, b.Level})
	fmt.Fprintf(&w.b, `<h%s id="%s">`, level, escape(slug))
	href := ""
	if w.v.page.Guide != nil && b.Of == nil && !leads(b.Inlines) { // readers of guides want to pass its address on
		href = "#" + slug
	}
	w.anchored(href, func() { w.line(b.Inlines) })
	w.raw("</h" + level + ">\n")
}

// leads reports whether there is a link among pieces, or a place, which a link cannot hold.
func leads(list []page.Inline) bool {
	return slices.ContainsFunc(list, func(p page.Inline) bool {
		return p.Kind == page.Link || p.Kind == page.Place || p.To != nil || p.Or != nil || leads(p.Children)
	})
}

func (w *proseWriter) list(b *page.Block) {
	open, end := "<ul>", "</ul>\n"
	if b.Info != "" {
		open = `<ul class="` + b.Info + `">`
	}
	if b.Level > 0 {
		open, end = "<ol>", "</ol>\n"
		if b.Level > 1 {
			open = fmt.Sprintf(`<ol start="%d">`, b.Level)
		}
	}
	w.raw(open)
	for i := 0; i < len(b.Blocks) && !w.full(); i++ {
		w.block(&b.Blocks[i])
		w.raw("\n")
	}
	w.raw(end)
}

func (w *proseWriter) table(b *page.Block) {
	w.raw(`<div class="wide" tabindex="0"><table>`)
	part := ""
	for i := 0; i < len(b.Rows) && !w.full(); i++ {
		row := &b.Rows[i]
		in, cell := "tbody", "td"
		if row.Head && part != "tbody" {
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
		for j := 0; j < len(row.Cells) && !w.full(); j++ {
			w.raw("<" + cell)
			w.over("colspan", row.Cells[j].Columns)
			w.over("rowspan", row.Cells[j].Rows)
			if at := row.Cells[j].Aligned; at != "" {
				w.raw(` class="` + at + `"`)
			}
			w.raw(">")
			w.line(row.Cells[j].Inlines)
			w.raw("</" + cell[:2] + ">")
		}
		w.raw("</tr>\n")
	}
	if part != "" {
		w.raw("</" + part + ">")
	}
	w.raw("</table></div>\n")
}

// over writes over how many columns or rows a cell goes, where that is more than one.
func (w *proseWriter) over(attribute string, n int) {
	if n > 1 {
		w.raw(" " + attribute + `="` + strconv.Itoa(n) + `"`)
	}
}

// elements are those that pieces of a kind are drawn in.
var elements = map[page.InlineKind]string{
	page.Emphasis: "em", page.Strong: "strong", page.Struck: "s", page.Superscript: "sup", page.Subscript: "sub",
}

func (w *proseWriter) piece(p *page.Inline) {
	switch p.Kind {
	case page.Text:
		w.escaped(w.clipped(p.Text))
	case page.Label:
		w.label(p)
	case page.Formula:
		w.formula(p)
	case page.CodeSpan:
		w.code(p)
	case page.Break:
		w.raw("<br>")
	case page.Link:
		w.told(p.To, w.v.target(p.To), func() { w.line(p.Children) })
	case page.Picture, page.Film:
		w.picture(p)
	case page.Place:
		w.raw(`<span id="s-` + escape(p.Text) + `"></span>`) // it may stand in a link
	case page.Group:
		w.line(p.Children)
	default:
		w.tagged(elements[p.Kind], p.Children)
	}
}

// label draws the word that a note begins with, in the words of the page.
func (w *proseWriter) label(p *page.Inline) {
	text := w.v.say("label-"+p.Text, "version", p.Short)
	if p.Colon {
		text += ":"
	}
	w.raw("<strong>")
	w.escaped(text)
	w.raw("</strong>")
}

// formula draws mathematics as text where that says the same, else its source.
func (w *proseWriter) formula(p *page.Inline) {
	if len(p.Children) == 0 {
		w.raw(`<code class="tex" translate="no">`)
		w.escaped(w.clipped(p.Text))
		w.raw("</code>")
		return
	}
	w.raw(`<span class="maths" translate="no">`)
	w.line(p.Children)
	w.raw("</span>")
}

// code draws a code span, as a link where it means something that has a page.
func (w *proseWriter) code(p *page.Inline) {
	href, text := w.v.target(p.To), p.Text
	switch {
	case href != "" && p.Short != "":
		text = p.Short
	case href == "":
		href = w.v.target(p.Or)
	}
	w.told(p.To, href, func() { w.codeText(text) })
}

// told draws what leads to a target. What another project without pages says of itself in
// one sentence is shown to who points at it, since there is nowhere to read it.
func (w *proseWriter) told(to *page.Target, href string, inside func()) {
	if to == nil || to.Target.Declaration == nil || !w.v.plan.Links.Pageless(to.Target) {
		w.anchored(href, inside)
		return
	}
	summary := w.v.plan.Summary(to.Target.Declaration)
	switch {
	case summary == "":
		w.anchored(href, inside)
	case href == "":
		w.raw(`<span title="` + escape(summary) + `">`)
		inside()
		w.raw("</span>")
	default:
		w.raw(`<a href="` + escape(href) + `" title="` + escape(summary) + `">`)
		inside()
		w.raw("</a>")
	}
}

func (w *proseWriter) codeText(text string) {
	w.raw(`<code translate="no">`)
	w.raw(breakable(text))
	w.raw("</code>")
}

func (w *proseWriter) anchored(href string, inside func()) {
	if href == "" {
		inside()
		return
	}
	w.raw(`<a href="` + escape(href) + `">`)
	inside()
	w.raw("</a>")
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
