package site

import (
	"cmp"
	"context"
	"io"
	"slices"
	"strconv"
	"strings"
	"sync"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/render/plan"
	"codrel/internal/source"
)

// This file shows source text: a plain byte writer, since source pages are most
// of a site. A line is a list item, which needs no end tag and numbers itself.

// mostOfLine is how many bytes of a line are shown; data pressed into one line
// helps nobody who reads.
const mostOfLine = 4000

// mark is a run of source text that is drawn otherwise than the rest.
type mark struct {
	span  source.Span
	open  string
	close string
	skip  bool // it is left out, and open stands for it
}

// pieceTags draws keywords in weight, comments in slant and strings in an ink of
// their own; the style sheet says how.
var pieceTags = map[lexing.Class][2]string{
	lexing.Keyword: {"<b>", "</b>"}, lexing.Comment: {"<i>", "</i>"}, lexing.Text: {"<u>", "</u>"},
}

// sourceWriter draws one page of source.
type sourceWriter struct {
	v     view
	text  string
	out   []byte
	pos   int32 // what of the text is drawn
	line  int32 // number of the line being drawn
	limit int32 // where the line being drawn ends at the latest
	hrefs map[*model.Declaration]string
	marks []mark
}

var sourceWriters = sync.Pool{New: func() any { return &sourceWriter{} }}

// sourceText writes the lines of the page as HTML.
func (v view) sourceText(_ context.Context, to io.Writer) error {
	w := sourceWriters.Get().(*sourceWriter)
	defer sourceWriters.Put(w)
	f := v.page.File
	*w = sourceWriter{v: v, text: f.Text, out: w.out[:0], marks: w.marks[:0], hrefs: map[*model.Declaration]string{}}
	from, to64 := v.sourceLines()
	page := source.Span{Start: f.Lines.Start(from), End: f.Lines.Start(to64 + 1)}
	w.collect(page)
	w.pos, w.line = page.Start, int32(from)
	w.beginLine(page.Start)
	for _, m := range w.marks {
		if m.span.Start < w.pos {
			continue
		}
		w.plain(m.span.Start, "", "")
		if m.skip {
			w.out = append(w.out, m.open...)
			w.leaveOut(m.span)
			continue
		}
		w.out = append(w.out, m.open...)
		w.plain(min(m.span.End, page.End), m.open, m.close)
		w.out = append(w.out, m.close...)
	}
	w.plain(page.End, "", "")
	_, err := to.Write(w.out)
	return err
}

// sourceLines are the first and last line of the page.
func (v view) sourceLines() (from, to int) {
	f := v.page.File
	parts := v.plan.SourceParts(f)
	from, to = int(parts[v.page.Part]), f.Lines.Count()
	if v.page.Part+1 < len(parts) {
		to = int(parts[v.page.Part+1]) - 1
	}
	return from, to
}

// collect lists what is drawn otherwise on the page, in order.
func (w *sourceWriter) collect(page source.Span) {
	v, f := w.v, w.v.page.File
	add := func(m mark) {
		if m.span.End > page.Start && m.span.Start < page.End {
			m.span.Start = max(m.span.Start, page.Start)
			w.marks = append(w.marks, m)
		}
	}
	if scanner, ok := v.options.FrontEnds[f.Language].(lang.Scanner); ok {
		pieces := piecePool.Get().(*[]lexing.Piece)
		*pieces = scanner.Scan(w.text, (*pieces)[:0])
		for _, p := range *pieces {
			if tags, ok := pieceTags[p.Class]; ok {
				add(mark{span: p.Span, open: tags[0], close: tags[1]})
			}
		}
		piecePool.Put(pieces)
	}
	v.plan.Links.Uses(v.page.Module, f, func(u link.Used) {
		if href := w.href(u.Target); href != "" {
			add(mark{span: u.Span, open: `<a href=` + href + `>`, close: "</a>"})
		}
	})
	for i := range f.Occurrences {
		o := &f.Occurrences[i]
		if d := v.page.Module.Find(o.Scope, o.Name); d != nil && v.plan.Links.InReach(d) && d.Name != "_" {
			add(mark{span: o.NameSpan, open: `<a class=d href=` + w.href(link.Target{Declaration: d}) + `>`, close: "</a>"})
		}
	}
	if v.plan.Source == plan.Signatures && f.Inside != nil {
		for _, body := range f.Inside.Bodies {
			add(mark{span: body, open: "{ … }", skip: true})
		}
	}
	slices.SortStableFunc(w.marks, func(a, b mark) int { return cmp.Compare(a.span.Start, b.span.Start) })
}

var piecePool = sync.Pool{New: func() any { return &[]lexing.Piece{} }}

// href is where a name in the source leads: to the plate of what has one, else
// to the line where it is declared.
func (w *sourceWriter) href(t link.Target) string {
	d := t.Declaration
	if d == nil {
		return attribute(w.v.href(t))
	}
	href, ok := w.hrefs[d]
	if !ok {
		if href = w.v.href(t); href == "" {
			href = w.declaredAt(d)
		}
		href = attribute(href)
		w.hrefs[d] = href
	}
	return href
}

func (w *sourceWriter) declaredAt(d *model.Declaration) string {
	at := d.Main()
	for _, o := range d.Occurrences {
		if o.File == w.v.page.File {
			at = o
			break
		}
	}
	if address := w.v.plan.SourceLine(at.File, int(at.Line)); address != "" {
		return w.v.to(address)
	}
	return ""
}

// attribute writes an address as the value of an attribute, in quotes where it
// needs them.
func attribute(address string) string {
	if address == "" || !strings.ContainsAny(address, " \t\n\"'`<>=&") {
		return address
	}
	return `"` + escape(address) + `"`
}

// plain draws the text up to an offset. The open tag is closed at the end of
// each line and opened again behind it.
func (w *sourceWriter) plain(end int32, open, close string) {
	for from := w.pos; from < end; {
		i := from
		for i < end && i < w.limit && plainBytes[w.text[i]] {
			i++
		}
		w.out = append(w.out, w.text[from:i]...)
		if i == end {
			w.pos = end
			return
		}
		if i >= w.limit && w.text[i] != '\n' {
			i = w.cutLine(i)
			from = i
			w.pos = i
			continue
		}
		from = i + int32(w.special(i, end, open, close))
		w.pos = from
	}
}

// plainBytes are those that HTML shows as they are. 0xE2 begins the marks that
// turn the direction of text.
var plainBytes = func() (set [256]bool) {
	for c := range set {
		set[c] = c >= ' ' && c != '<' && c != '>' && c != '&' && c != 0x7F && c != 0xE2
	}
	set['\t'] = true
	return set
}()

// special draws the character at i and returns its length.
func (w *sourceWriter) special(i, end int32, open, close string) int {
	switch c := w.text[i]; {
	case c == '\n':
		w.out = append(w.out, close...)
		w.line++
		if int(i)+1 < len(w.text) && (i+1 < end || open != "" || w.morePage(i+1)) {
			w.beginLine(i + 1)
			w.out = append(w.out, open...)
		} else {
			w.out = append(w.out, '\n')
		}
	case c == '<':
		w.out = append(w.out, "&lt;"...)
	case c == '>':
		w.out = append(w.out, "&gt;"...)
	case c == '&':
		w.out = append(w.out, "&amp;"...)
	case c == '\r':
	case c == 0xE2:
		r := []rune(w.text[i:min(int(i)+3, len(w.text))])[0]
		if turnsDirection(r) {
			w.out = append(w.out, "<mark>U+"+strings.ToUpper(strconv.FormatInt(int64(r), 16))+"</mark>"...)
		} else {
			w.out = append(w.out, string(r)...)
		}
		return len(string(r))
	default: // a control character, shown as its picture
		w.out = append(w.out, string(rune(0x2400+int(min(c, 0x21))))...)
	}
	return 1
}

func turnsDirection(r rune) bool {
	return r >= 0x202A && r <= 0x202E || r >= 0x2066 && r <= 0x2069 || r == 0x200E || r == 0x200F
}

// morePage reports whether a line that begins at offset belongs to the page.
func (w *sourceWriter) morePage(offset int32) bool {
	_, last := w.v.sourceLines()
	return int(w.line) <= last && int(offset) < len(w.text)
}

func (w *sourceWriter) beginLine(at int32) {
	w.out = append(w.out, "\n<li id=L"...)
	w.out = strconv.AppendInt(w.out, int64(w.line), 10)
	w.out = append(w.out, '>')
	w.limit = at + mostOfLine
}

// cutLine leaves out the rest of a line that is too long to be read.
func (w *sourceWriter) cutLine(at int32) int32 {
	rest := int32(strings.IndexByte(w.text[at:], '\n'))
	if rest < 0 {
		rest = int32(len(w.text)) - at
	}
	w.out = append(w.out, "<mark>… "+strconv.Itoa(int(rest))+" more bytes</mark>"...)
	return at + rest
}

// leaveOut goes on behind a span that is not shown; the lines in it are counted.
func (w *sourceWriter) leaveOut(span source.Span) {
	skipped := int32(strings.Count(w.text[span.Start:span.End], "\n"))
	w.line += skipped
	w.pos = span.End
	w.limit = max(w.limit, span.End+mostOfLine)
}
