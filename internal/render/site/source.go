package site

import (
	"cmp"
	"context"
	"io"
	"slices"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"

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

// mark is a run of source text that is drawn otherwise than the rest. There is
// one for every few letters of a page, so it holds nothing that must be collected.
type mark struct {
	span source.Span
	as   markKind
	href int32 // of a link: which of the writer's addresses
}

type markKind uint8

const (
	asKeyword markKind = iota
	asComment
	asText
	asUse         // a link to what the name means
	asDeclaration // a link to the plate of what is declared here
	asOmission    // left out
)

// pieceMarks draws keywords in weight, comments in slant and strings in an ink
// of their own; the style sheet says how.
var pieceMarks = map[lexing.Class]markKind{lexing.Keyword: asKeyword, lexing.Comment: asComment, lexing.Text: asText}

var markTags = [...][2]string{asKeyword: {"<b>", "</b>"}, asComment: {"<i>", "</i>"}, asText: {"<u>", "</u>"}}

// sourceWriter draws one page of source.
type sourceWriter struct {
	v      view
	text   string
	page   source.Span // of the text that is on the page
	out    []byte
	pos    int32 // what of the text is drawn
	line   int32 // number of the line being drawn
	jumped bool  // lines were left out since the last one began
	limit  int32 // where the line being drawn ends at the latest
	hrefs  []string
	known  []int32 // of each target of the file's uses: where its address is
	pieces []lexing.Piece
	marks  []mark // of pieces
	links  []mark
}

var sourceWriters = sync.Pool{New: func() any { return &sourceWriter{} }}

// sourceText writes the lines of the page as HTML.
func (v view) sourceText(_ context.Context, to io.Writer) error {
	w := sourceWriters.Get().(*sourceWriter)
	defer sourceWriters.Put(w)
	f := v.page.File
	from, last := v.sourceLines()
	w.v, w.text, w.page = v, f.Text, source.Span{Start: f.Lines.Start(from), End: f.Lines.Start(last + 1)}
	w.out, w.marks, w.links = w.out[:0], w.marks[:0], w.links[:0]
	w.findPieces()
	w.findLinks()
	w.pos, w.line = w.page.Start, int32(from)
	w.beginLine(w.page.Start)
	w.draw()
	_, err := to.Write(w.out)
	return err
}

// draw merges pieces and links, which are in order each.
func (w *sourceWriter) draw() {
	marks, links := w.marks, w.links
	for len(marks) > 0 || len(links) > 0 {
		var m mark
		if len(links) == 0 || len(marks) > 0 && before(marks[0].span, links[0].span) {
			m, marks = marks[0], marks[1:]
			for m.as == asText && len(links) > 0 && m.span.Start >= w.pos && m.span.Start < links[0].span.Start && links[0].span.End <= m.span.End { // a name that stands in quotes
				w.drawMark(mark{span: source.Span{Start: m.span.Start, End: links[0].span.Start}, as: m.as})
				w.drawMark(links[0])
				m.span.Start, links = links[0].span.End, links[1:]
				for len(links) > 0 && links[0].span.Start < m.span.Start {
					links = links[1:]
				}
			}
			if m.span.Start >= m.span.End {
				continue
			}
		} else {
			m, links = links[0], links[1:]
		}
		if m.span.Start >= w.pos {
			w.drawMark(m)
		}
	}
	w.plain(w.page.End, "", "")
}

// before reports whether a piece is drawn before a link. A path that begins with a word of the language
// is a link whole.
func before(piece, link source.Span) bool {
	return piece.Start < link.Start || piece.Start == link.Start && piece.End >= link.End
}

func (w *sourceWriter) drawMark(m mark) {
	w.plain(m.span.Start, "", "")
	end := min(m.span.End, w.page.End)
	switch m.as {
	case asOmission:
		w.out = append(w.out, "{ … }"...)
		w.leaveOut(m.span)
	case asUse, asDeclaration:
		w.out = append(w.out, "<a "...)
		if m.as == asDeclaration {
			w.out = append(w.out, "class=d "...)
		}
		w.out = append(w.out, "href="...)
		w.out = append(w.out, w.hrefs[m.href]...)
		w.out = append(w.out, '>')
		w.plain(end, "", "")
		w.out = append(w.out, "</a>"...)
	default:
		tags := &markTags[m.as]
		w.out = append(w.out, tags[0]...)
		w.plain(end, tags[0], tags[1])
		if w.text[end-1] != '\n' { // else the line's end has closed it, and the page ends here
			w.out = append(w.out, tags[1]...)
		}
	}
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

func (w *sourceWriter) findPieces() {
	f := w.v.page.File
	if f.Inside != nil && !f.Inside.Pieces.Empty() { // the front end told them apart when it read the file
		for p := range f.Inside.Pieces.All() {
			if p.Span.Start >= w.page.End {
				break
			}
			if as, ok := pieceMarks[p.Class]; ok {
				w.marks = w.add(w.marks, mark{span: p.Span, as: as})
			}
		}
		return
	}
	scanner, ok := w.v.options.FrontEnds[f.Language].(lang.Scanner)
	if !ok {
		return
	}
	pieces := w.pieces[:0]
	if parts := len(w.v.plan.SourceParts(f)); parts > 1 {
		pieces = w.v.shared(f, parts, scanner)
	} else {
		pieces = scanner.Scan(w.text, pieces)
		w.pieces = pieces
	}
	from, _ := slices.BinarySearchFunc(pieces, w.page.Start, func(p lexing.Piece, at int32) int { return cmp.Compare(p.Span.End, at+1) })
	for _, p := range pieces[from:] {
		if p.Span.Start >= w.page.End {
			break
		}
		if as, ok := pieceMarks[p.Class]; ok {
			w.marks = w.add(w.marks, mark{span: p.Span, as: as})
		}
	}
}

// sharedPieces are those of a file that is shown on several pages: it is scanned
// once, since where a page begins nobody knows what a quote means.
type sharedPieces struct {
	once   sync.Once
	pieces []lexing.Piece
	left   atomic.Int32 // pages that still need them
}

func (s *Site) shared(f *model.Facts, parts int, scanner lang.Scanner) []lexing.Piece {
	made, _ := s.pieces.LoadOrStore(f, &sharedPieces{})
	shared := made.(*sharedPieces)
	shared.once.Do(func() {
		shared.left.Store(int32(parts))
		shared.pieces = scanner.Scan(f.Text, nil)
	})
	if shared.left.Add(-1) == 0 {
		s.pieces.Delete(f)
	}
	return shared.pieces
}

// add appends what of a mark is on the page.
func (w *sourceWriter) add(to []mark, m mark) []mark {
	if !w.onPage(m.span) {
		return to
	}
	m.span.Start = max(m.span.Start, w.page.Start)
	return append(to, m)
}

func (w *sourceWriter) onPage(s source.Span) bool {
	return s.End > w.page.Start && s.Start < w.page.End
}

func (w *sourceWriter) findLinks() {
	v, f := w.v, w.v.page.File
	if v.plan.Source == plan.Signatures && f.Inside != nil {
		for _, body := range f.Inside.Bodies {
			w.links = w.add(w.links, mark{span: body, as: asOmission})
		}
	}
	uses := v.plan.Links.Uses(v.page.Module, f)
	w.reset(len(uses.Targets))
	for span, i := range uses.All() {
		if span.Start >= w.page.End {
			break
		}
		if !w.onPage(span) {
			continue
		}
		if w.known[i] == unknown {
			w.known[i] = w.address(w.href(uses.Targets[i]))
		}
		if w.known[i] != nowhere {
			w.links = w.add(w.links, mark{span: span, as: asUse, href: w.known[i]})
		}
	}
	for i := range f.Occurrences {
		o := &f.Occurrences[i]
		if !w.onPage(o.NameSpan) {
			continue
		}
		if d := v.page.Module.OfAny(f, o); d != nil && v.plan.Links.InReach(d) && !d.Blank() {
			w.links = w.add(w.links, mark{span: o.NameSpan, as: asDeclaration, href: w.address(v.toDeclaration(d))})
		}
	}
	slices.SortStableFunc(w.links, func(a, b mark) int { return cmp.Compare(a.span.Start, b.span.Start) })
}

const (
	unknown = int32(-1) // an address that was not asked for yet
	nowhere = int32(0)
)

// reset forgets the addresses of another page.
func (w *sourceWriter) reset(targets int) {
	w.hrefs = append(w.hrefs[:0], "")
	w.known = w.known[:0]
	for range targets {
		w.known = append(w.known, unknown)
	}
}

// href is where a name in the source leads: within a module to the line that
// declares it, since who reads there reads the code, and from there to its plate;
// elsewhere to the plate of what has one. "" is nowhere.
func (w *sourceWriter) href(t link.Target) string {
	if t.Declaration != nil && t.Declaration.Module == w.v.page.Module {
		return w.declaredAt(t.Declaration)
	}
	if href := w.v.href(t); href != "" || t.Declaration == nil {
		return href
	}
	return w.declaredAt(t.Declaration)
}

func (w *sourceWriter) address(href string) int32 {
	if href == "" {
		return nowhere
	}
	w.hrefs = append(w.hrefs, attribute(href))
	return int32(len(w.hrefs) - 1)
}

func (w *sourceWriter) declaredAt(d *model.Declaration) string {
	at := d.Speaks(model.Words)
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
	if !strings.ContainsAny(address, " \t\n\"'`<>=&") {
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
		from = i + int32(w.special(i, open, close))
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
func (w *sourceWriter) special(i int32, open, close string) int {
	switch c := w.text[i]; {
	case c == '\n':
		w.out = append(w.out, close...)
		w.line++
		if i+1 < w.page.End {
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

func (w *sourceWriter) beginLine(at int32) {
	w.out = append(w.out, "\n<li "...)
	if w.jumped {
		w.jumped = false
		w.out = append(w.out, "value="...)
		w.out = strconv.AppendInt(w.out, int64(w.line), 10)
		w.out = append(w.out, ' ')
	}
	w.out = append(w.out, "id=L"...)
	w.out = strconv.AppendInt(w.out, int64(w.line), 10)
	w.out = append(w.out, '>')
	w.limit = at + mostOfLine
}

// cutLine leaves out the rest of a line that is too long to be read.
func (w *sourceWriter) cutLine(at int32) int32 {
	for w.text[at]&0xC0 == 0x80 { // within a character
		at--
		w.out = w.out[:len(w.out)-1]
	}
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
	w.jumped = w.jumped || skipped > 0
	w.pos = span.End
	w.limit = max(w.limit, span.End+mostOfLine)
}
