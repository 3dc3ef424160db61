package rust

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads attributes (chapter 7 of Rust's reference) and the comments among them: both
// stand before an item in any order, and comments are attributes in another form.

// attributes are what stands before an item.
type attributes struct {
	doc        *model.Doc
	directives []model.Directive
	conditions []string // under which the item exists
	words      []string // that say something to its users: "must_use", "non_exhaustive"
	deprecated bool
	advice     *model.Doc
	inlined    bool // of what is handed on: its page is where that is
	hidden     bool // its author hides it from readers
	plain      bool // its author lets it go without a comment
	test       bool // it exists for tests
	exported   bool // of a macro: it is for users of the crate
	derived    [][2]int
	procedural string // of a function: the kind of macro that it is
	macroName  [2]int // and the tokens of the name that it has as one, where that is another
	path       string // of a module: the file that it is in
}

// piece is one piece of a comment on an item.
type piece struct {
	span      source.Span // with its marks
	lines     []source.Span
	raw       bool // escapes stand for other characters
	attribute bool // it is no comment
	block     bool
	text      string
}

// attributes reads the attributes before an item, and gives the index behind them.
func (r *reader) attributes(i, end int) (next int, a attributes) {
	from := i
	for i+1 < end && r.Is(i, '#') && r.Is(i+1, '[') {
		r.attribute(i+2, r.Close(i+1, end), &a, 0)
		i = min(r.Over(i+1), end)
	}
	low := int32(0)
	if from > 0 {
		low = r.Tokens[from-1].To
	}
	if i < len(r.Tokens) {
		a.doc = r.docBetween(low, r.Tokens[i].From, from, i, outer, &a)
	}
	return i, a
}

// innerAttributes reads the attributes at the beginning of what they speak of.
func (r *reader) innerAttributes(i int) (next int, a attributes) {
	from := i
	for r.Is(i, '#') && r.Is(i+1, '!') && r.Is(i+2, '[') {
		r.attribute(i+3, r.Close(i+2, len(r.Tokens)), &a, 0)
		i = r.Over(i + 2)
	}
	if a.doc == nil && i > from {
		a.doc = r.docOf(r.docAttributes(from, i, nil))
	}
	return i, a
}

// attribute reads one attribute, or what stands in a conditional one.
func (r *reader) attribute(i, end int, a *attributes, depth int) {
	if r.Word(i) == "unsafe" && r.Is(i+1, '(') && depth < 4 {
		r.attribute(i+2, r.Close(i+1, end), a, depth+1)
		return
	}
	switch r.Word(i) {
	case "cfg":
		if when := r.inBrackets(i+1, end); when != "" {
			if when == "test" {
				a.test = true
			} else {
				a.conditions = append(a.conditions, when)
			}
		}
	case "cfg_attr":
		if !r.Is(i+1, '(') || depth > 3 {
			return
		}
		stop := r.Close(i+1, end)
		for at, first := i+2, true; at < stop; {
			next := at
			for next < stop && !r.Is(next, ',') {
				next = r.Over(next)
			}
			if !first && r.Word(at) != "deprecated" && r.Word(at) != "path" && r.Word(at) != "cfg" { // what holds under a condition alone
				r.attribute(at, next, a, depth+1)
			}
			first, at = false, next+1
		}
	case "doc":
		if !r.Is(i+1, '(') {
			return
		}
		stop := r.Close(i+1, end)
		for at := i + 2; at < stop; at++ {
			switch r.Word(at) {
			case "hidden":
				a.hidden = true
			case "inline":
				a.inlined = true
			case "alias":
				for at++; at < stop && !r.Is(at, ','); at++ {
					r.aliases(at, r.Over(at), a)
					if r.Is(at, '(') {
						at = r.Over(at) - 1
					}
				}
			}
		}
	case "deprecated":
		a.deprecated = true
		if r.Is(i+1, '=') {
			a.advice = r.stringDoc(i + 2)
		}
		for at := i + 1; at+2 < end; at++ {
			if r.Word(at) == "note" && r.Is(at+1, '=') {
				a.advice = r.stringDoc(at + 2)
			}
		}
	case "allow", "expect":
		for at := i + 2; at < end; at++ {
			a.plain = a.plain || r.Word(at) == "missing_docs"
		}
	case "must_use", "non_exhaustive", "track_caller":
		if w := r.Word(i); w != "track_caller" {
			a.words = append(a.words, w)
		}
	case "derive":
		if r.Is(i+1, '(') {
			stop := r.Close(i+1, end)
			for at := i + 2; at < stop; {
				next := at
				for next < stop && !r.Is(next, ',') {
					next = r.Over(next)
				}
				if next > at {
					a.derived = append(a.derived, [2]int{at, next})
				}
				at = next + 1
			}
		}
	case "macro_export":
		a.exported = true
	case "test", "bench":
		a.test = true
	case "proc_macro", "proc_macro_attribute":
		a.procedural = r.Word(i)
	case "proc_macro_derive":
		a.procedural = r.Word(i)
		if r.Is(i+1, '(') && r.Word(i+2) != "" {
			a.macroName = [2]int{i + 2, i + 3}
		}
	case "path":
		if r.Is(i+1, '=') && i+2 < end && r.Tokens[i+2].Kind == lexing.Value {
			a.path = path.Clean(strings.Trim(r.Span(i+2, i+3).In(r.Text), `"`))
		}
	}
}

// aliases adds the strings between two tokens to the words by which an item is found.
func (r *reader) aliases(i, end int, a *attributes) {
	for ; i < end; i++ {
		if doc := r.stringDoc(i); doc != nil {
			a.directives = append(a.directives, model.Directive{Verb: "words", Object: doc.Text, Span: doc.Span})
		}
	}
}

func boolean(is bool) int {
	if is {
		return 1
	}
	return 0
}

// inBrackets is what stands in the brackets at an index, with single blanks.
func (r *reader) inBrackets(open, end int) string {
	if !r.Is(open, '(') {
		return ""
	}
	return strings.Join(strings.Fields(r.Span(open+1, r.Close(open, end)).In(r.Text)), " ")
}

// stringDoc is a string as a text, or nil.
func (r *reader) stringDoc(i int) *model.Doc {
	if i >= len(r.Tokens) || r.Tokens[i].Kind != lexing.Value {
		return nil
	}
	inside, ok := insideString(r.Text, r.Span(i, i+1))
	if !ok || strings.ContainsAny(inside.In(r.Text), "\\\n") {
		return nil
	}
	return lexing.MakeDoc(r.Text, []source.Span{inside}, r.Span(i, i+1))
}

// insideString is what stands between the quotes of a string.
func insideString(text string, span source.Span) (source.Span, bool) {
	whole := span.In(text)
	open := strings.IndexByte(whole, '"')
	shut := strings.LastIndexByte(whole, '"')
	if open < 0 || shut <= open {
		return source.Span{}, false
	}
	return source.Span{Start: span.Start + int32(open) + 1, End: span.Start + int32(shut)}, true
}

// side says which comments are meant: those before an item, or those in it.
type side bool

const (
	outer side = false
	inner side = true
)

// isDoc reports whether a comment is one for users, and of which side. Rows of slashes and stars are
// ornaments (2.4 of the reference).
func isDoc(text string, of side) bool {
	if of == inner {
		return strings.HasPrefix(text, "//!") || strings.HasPrefix(text, "/*!")
	}
	switch {
	case strings.HasPrefix(text, "///"):
		return !strings.HasPrefix(text, "////")
	case strings.HasPrefix(text, "/**"):
		return len(text) > 4 && text[3] != '*' && text[3] != '/'
	}
	return false
}

// docBetween is what comments and attributes say between two offsets, the attributes being those
// between two tokens.
func (r *reader) docBetween(low, high int32, from, to int, of side, a *attributes) *model.Doc {
	pieces, spans := r.pieces[:0], r.spans[:0]
	n := r.CommentAt(low)
	for ; n < len(r.Comments) && r.Comments[n].Start < high; n++ {
		c := r.Comments[n]
		text := c.In(r.Text)
		if rest, ok := strings.CutPrefix(text, "//"); ok && !isDoc(text, of) {
			if d, ok := lexing.ParseDirective(strings.TrimSpace(rest), c); ok && a != nil {
				a.directives = append(a.directives, d)
			}
		}
		if isDoc(text, of) {
			from := len(spans)
			spans = appendLines(spans, r.Text, c)
			pieces = append(pieces, piece{span: c, lines: spans[from:len(spans):len(spans)], block: strings.HasPrefix(text, "/*")})
		}
	}
	r.pieces, r.spans = pieces, spans // room for the next ones
	return r.docOf(r.docAttributes(from, to, pieces))
}

// docAttributes adds the texts in attributes to those in comments, in the order of the text. Of texts under
// a condition and under its opposite the first ones count.
func (r *reader) docAttributes(from, to int, pieces []piece) []piece {
	comments := len(pieces)
	var under []string // conditions of texts
	for i := from; i+2 < to; i++ {
		if r.Word(i) == "cfg_attr" && r.Is(i+1, '(') {
			when := r.firstArgument(i+1, to)
			if slices.ContainsFunc(under, func(other string) bool { return when == "not("+other+")" || other == "not("+when+")" }) {
				i = r.Close(i+1, to)
				continue
			}
			under = append(under[max(0, len(under)-mostAlternatives):], when)
		}
		if r.Word(i) != "doc" || !r.Is(i+1, '=') || i == 0 {
			continue
		}
		switch {
		case r.Tokens[i+2].Kind == lexing.Value:
			inside, ok := insideString(r.Text, r.Span(i+2, i+3))
			if !ok {
				continue
			}
			p := piece{span: r.Span(i, i+3), attribute: true, raw: !strings.HasPrefix(r.Span(i+2, i+3).In(r.Text), "r") && strings.Contains(inside.In(r.Text), `\`)}
			for at := inside.Start; at <= inside.End; {
				stop := inside.End
				if k := strings.IndexByte(r.Text[at:inside.End], '\n'); k >= 0 {
					stop = at + int32(k)
				}
				p.lines = append(p.lines, source.Span{Start: at, End: stop})
				at = stop + 1
			}
			pieces = append(pieces, p)
		case r.Word(i+2) == "concat" && r.Is(i+3, '!') && r.Is(i+4, '('):
			if text := r.concatenated(i+5, r.Close(i+4, to)); text != "" {
				pieces = append(pieces, piece{span: r.Span(i, i+5), text: text})
			}
		case r.Word(i+2) == "include_str" && r.Is(i+3, '!') && r.Is(i+4, '('):
			if text := r.taken(i + 5); text != "" {
				pieces = append(pieces, piece{span: r.Span(i, i+5), text: text})
			}
		}
	}
	if len(pieces) > comments { // they stand among the comments
		slices.SortStableFunc(pieces, func(a, b piece) int { return int(a.span.Start - b.span.Start) })
	}
	return pieces
}

// mostAlternatives is how many conditions back the opposite of one is looked for.
const mostAlternatives = 16

// firstArgument is what stands behind an open bracket up to the first comma, without blanks.
func (r *reader) firstArgument(open, end int) string {
	stop, i := r.Close(open, end), open+1
	for i < stop && !r.Is(i, ',') {
		i = r.Over(i)
	}
	if i <= open+1 {
		return ""
	}
	return strings.Join(strings.Fields(r.Span(open+1, min(i, len(r.Tokens))).In(r.Text)), "")
}

// concatenated is the text that strings between two tokens make, one behind the other. What is not
// known before a build, such as the version, is left out.
func (r *reader) concatenated(i, end int) string {
	var b strings.Builder
	for ; i < end; i++ {
		if r.Word(i) != "" && r.Is(i+1, '!') && r.Is(i+2, '(') { // another macro
			if r.Word(i) == "include_str" {
				b.WriteString(r.taken(i + 3))
			}
			i = r.Over(i+2) - 1
			continue
		}
		if r.Tokens[i].Kind != lexing.Value {
			continue
		}
		span := r.Span(i, i+1)
		inside, ok := insideString(r.Text, span)
		if !ok {
			b.WriteString(span.In(r.Text)) // a number
			continue
		}
		b.WriteString(unescaped(inside.In(r.Text), strings.HasPrefix(span.In(r.Text), "r")))
	}
	return b.String()
}

// unescaped is the text of a string: what its escapes stand for in it (2.5 of the reference).
func unescaped(text string, raw bool) string {
	if raw || !strings.Contains(text, `\`) {
		return text
	}
	return escapes.Replace(text)
}

var escapes = strings.NewReplacer(`\n`, "\n", `\t`, "\t", `\r`, "", `\"`, `"`, `\'`, "'", `\\`, `\`)

// taken is the text of the file that a string names, or "".
func (r *reader) taken(i int) string {
	if r.other == nil || i >= len(r.Tokens) || r.Tokens[i].Kind != lexing.Value {
		return ""
	}
	inside, ok := insideString(r.Text, r.Span(i, i+1))
	if !ok {
		return ""
	}
	file := path.Join(path.Dir(r.Facts.Path), inside.In(r.Text))
	if strings.HasPrefix(file, "..") {
		return ""
	}
	r.Facts.Takes = append(r.Facts.Takes, file)
	return string(r.other(file))
}

// appendLines puts the lines of a comment, without its marks, behind others.
func appendLines(to []source.Span, text string, c source.Span) []source.Span {
	whole := c.In(text)
	if strings.HasPrefix(whole, "//") {
		end := c.End
		for end > c.Start+3 && strings.IndexByte(" \t\r", text[end-1]) >= 0 {
			end--
		}
		return append(to, source.Span{Start: min(c.Start+3, end), End: end})
	}
	from, last := c.Start+3, c.End
	if strings.HasSuffix(whole, "*/") {
		last -= 2
	}
	return append(to, starless(text, lexing.BlockLines(text, from, max(from, last), 0))...)
}

// starless are the lines of a block without the column of stars that stands before all of them but
// the first.
func starless(text string, lines []source.Span) []source.Span {
	column := -1
	for n, l := range lines {
		line := l.In(text)
		star := strings.IndexByte(line, '*')
		switch {
		case n == 0:
		case strings.TrimSpace(line) == "" && n == len(lines)-1:
		case star < 0 || strings.TrimSpace(line[:star]) != "" || column >= 0 && star != column:
			return lines
		default:
			column = star
		}
	}
	if column < 0 {
		return lines
	}
	for n := 1; n < len(lines); n++ {
		lines[n].Start = min(lines[n].Start+int32(column)+1, lines[n].End)
	}
	return lines
}

// docOf makes one text of its pieces: what all lines are indented by is left out.
func (r *reader) docOf(pieces []piece) *model.Doc {
	if len(pieces) == 0 {
		return nil
	}
	span := source.Span{Start: pieces[0].span.Start, End: pieces[len(pieces)-1].span.End}
	if slices.ContainsFunc(pieces, func(p piece) bool { return p.text != "" }) {
		return r.mixed(pieces)
	}
	r.unindent(pieces)
	var lines []source.Span
	for _, p := range pieces {
		lines = append(lines, p.lines...)
	}
	doc := lexing.MakeDoc(r.Text, lines, span)
	if doc == nil {
		r.Facts.Empty = append(r.Facts.Empty, model.Blank{Span: span})
		return nil
	}
	doc.Escaped = len(pieces) == 1 && pieces[0].raw
	return doc
}

// mixed makes one text of pieces of which some come from elsewhere, each a paragraph of its own.
func (r *reader) mixed(pieces []piece) *model.Doc {
	out := &model.Doc{Span: source.Span{Start: pieces[0].span.Start, End: pieces[len(pieces)-1].span.End}}
	var text strings.Builder
	put := func(doc *model.Doc) {
		if doc == nil {
			return
		}
		if text.Len() > 0 {
			text.WriteString("\n\n")
			out.Lines = append(out.Lines, source.Span{Start: doc.Span.Start, End: doc.Span.Start})
		}
		text.WriteString(doc.Text)
		out.Lines = append(out.Lines, doc.Lines...)
	}
	from := 0
	for n := range pieces {
		if pieces[n].text != "" {
			put(r.docOf(pieces[from:n]))
			put(taken(pieces[n].text, pieces[n].span))
			from = n + 1
		}
	}
	put(r.docOf(pieces[from:]))
	out.Text = text.String()
	return out
}

// unindent leaves out what all lines in comments are indented by; the first line of a block says
// nothing of that, since it stands behind the mark.
func (r *reader) unindent(pieces []piece) {
	blanks := func(l source.Span) int32 {
		line := l.In(r.Text)
		return int32(len(line) - len(strings.TrimLeft(line, " \t")))
	}
	least := int32(-1)
	for _, p := range pieces {
		for n, l := range p.lines {
			if blank := blanks(l); !p.attribute && blank < int32(l.Len()) && (least < 0 || blank < least) && !(n == 0 && p.block) {
				least = blank
			}
		}
	}
	for _, p := range pieces {
		for n := range p.lines {
			switch blank := blanks(p.lines[n]); {
			case p.attribute:
				p.lines[n].Start += min(1, blank)
			case n == 0 && p.block:
				p.lines[n].Start += blank
			default:
				p.lines[n].Start += min(max(least, 0), blank)
			}
		}
	}
}

// taken is a text of another file: all of it stands where it is asked for.
func taken(text string, span source.Span) *model.Doc {
	doc := &model.Doc{Text: strings.TrimRight(text, "\n"), Span: span}
	for range strings.Count(doc.Text, "\n") + 1 {
		doc.Lines = append(doc.Lines, span)
	}
	return doc
}

// innerDoc is what comments at the beginning of the file say of it, before the token at an index.
func (r *reader) innerDoc(i int) *model.Doc {
	high := int32(len(r.Text))
	if i < len(r.Tokens) {
		high = r.Tokens[i].From
	}
	return r.docBetween(0, high, 0, min(i, len(r.Tokens)), inner, nil)
}

// innerDocAfter is the same for a module whose brace a token is.
func (r *reader) innerDocAfter(open, first int) *model.Doc {
	high := int32(len(r.Text))
	if first < len(r.Tokens) {
		high = r.Tokens[first].From
	}
	return r.docBetween(r.Tokens[open].To, high, open+1, min(first, len(r.Tokens)), inner, nil)
}
