package excerpt

import (
	"cmp"
	"io/fs"
	"path"
	"slices"
	"strconv"
	"strings"

	"github.com/pmezard/go-difflib/difflib"

	"codrel/internal/finding"
	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// Piece is what the source says now where a fence asks for something.
type Piece struct {
	Text        string
	Language    string             // as fences name it; "" where nobody knows
	File        string             // from the project's root
	Line        int                // the first that is shown
	Source      *model.Facts       // of the file, where it is source; nil of another text
	Declaration *model.Declaration // that is shown, or nil
	Runs        []Run              // where parts of the text stand in the file
}

// Run is a part of a piece that stands in the file as it is.
type Run struct {
	At     int // in the text of the piece
	Source source.Span
}

// Trouble is why there is no piece: a form of the message of the rule broken-excerpt, with
// what it says.
type Trouble struct {
	Form   string
	Values []finding.Argument
}

func trouble(form string, pairs ...string) *Trouble {
	t := &Trouble{Form: form}
	for i := 0; i+1 < len(pairs); i += 2 {
		t.Values = append(t.Values, finding.Argument{Name: pairs[i], Value: pairs[i+1]})
	}
	return t
}

// Find is the piece of source that a fence asks for, or why there is none. Copy is the text that
// the fence has: it tells what a thing may be called now that is gone.
func Find(links *link.Index, ask Ask, copy string) (*Piece, *Trouble) {
	p, lines, bad := place(links, ask, copy)
	if bad != nil {
		return nil, bad
	}
	if lines, bad = ask.choose(lines); bad != nil {
		return nil, bad
	}
	if bad := ask.nested(p, lines); bad != nil {
		return nil, bad
	}
	p.write(ask.leaveOut(lines))
	if strings.TrimSpace(p.Text) == "" {
		return nil, trouble("empty", "name", ask.What())
	}
	return p, nil
}

// What is what the fence asks for, as a message has it.
func (a Ask) What() string { return cmp.Or(a.Name, a.File) }

// line is one line of a file.
type line struct {
	text   string
	number int
	start  int // in the file
}

// linesOf are the lines that a span of a text touches.
func linesOf(text string, lines *source.Lines, span source.Span) (out []line) {
	number := lines.Line(span.Start)
	for at := int(lines.Start(number)); at < int(span.End) || at == int(span.Start); number++ {
		rest, _, ended := strings.Cut(text[at:], "\n")
		end := at + len(rest)
		out = append(out, line{strings.TrimSuffix(rest, "\r"), number, at})
		if at = end + 1; !ended {
			break
		}
	}
	return out
}

// place finds the lines of the declaration or file.
func place(links *link.Index, ask Ask, copy string) (*Piece, []line, *Trouble) {
	if ask.File != "" {
		return placeFile(links, ask)
	}
	r := links.Resolve(link.Scope{}, ask.Name, link.Explicit)
	if r.Outcome != link.Found && r.Outcome != link.Ambiguous {
		r = kept(links, ask.Name)
	}
	switch {
	case r.Outcome == link.Found && r.Target.Declaration != nil && r.Target.Declaration.Module.Library.Elsewhere == nil:
	case r.Outcome == link.Found && r.Target.Module != nil:
		return nil, nil, trouble("module", "name", ask.Name)
	case r.Outcome == link.Ambiguous:
		return nil, nil, trouble("several", "name", ask.Name, "first", named(r.Candidates[0]), "second", named(r.Candidates[1]))
	default:
		if now := Renamed(links, ask, copy); now != "" {
			return nil, nil, trouble("renamed", "name", ask.Name, "near", now)
		}
		if near := links.Near(link.Scope{}, ask.Name); near != "" {
			return nil, nil, trouble("near", "name", ask.Name, "near", near)
		}
		return nil, nil, trouble("", "name", ask.Name)
	}
	return placeDeclaration(links, ask, r.Target)
}

// kept finds what users have no name for: guides may show what they cannot call.
func kept(links *link.Index, written string) link.Result {
	name := prose.ParseName(written)
	parts := name.Path
	if name.Module != "" {
		parts = append([]string{name.Module}, parts...)
	}
	var found []link.Target
	for _, lib := range links.Project.Libraries {
		for _, m := range lib.Modules {
			for i := range parts {
				if i > 0 && !isOf(m, strings.Join(parts[:i], ".")) {
					continue
				}
				if d := m.Lookup(strings.Join(parts[i:], ".")); d != nil {
					found = append(found, link.Target{Declaration: d})
					break
				}
			}
		}
	}
	switch len(found) {
	case 0:
		return link.Result{}
	case 1:
		return link.Result{Outcome: link.Found, Target: found[0]}
	}
	return link.Result{Outcome: link.Ambiguous, Candidates: found}
}

// isOf reports whether a module is called so, or its path ends so.
func isOf(m *model.Module, name string) bool {
	path := strings.ReplaceAll(m.Path, "/", ".")
	name = strings.ReplaceAll(name, "/", ".")
	return m.Name == name || path == name || strings.HasSuffix(path, "."+name)
}

// named is a target as a reader can ask for it.
func named(t link.Target) string {
	if t.Declaration == nil {
		return t.Module.Path
	}
	return t.Declaration.Module.Path + "." + t.Declaration.Path()
}

// largestFile is the size of a file that a piece may be taken of, in bytes.
const largestFile = 8 << 20

func placeFile(links *link.Index, ask Ask) (*Piece, []line, *Trouble) {
	file := path.Clean(strings.TrimPrefix(ask.File, "/"))
	p := &Piece{File: file}
	for f := range links.Project.Files {
		if f.Path == file {
			p.Source, p.Language = f, f.Language
			return p, linesOf(f.Text, &f.Lines, source.NewSpan(0, len(f.Text))), nil
		}
	}
	files := links.Options().Files
	if files == nil || !fs.ValidPath(file) {
		return nil, nil, trouble("outside", "name", ask.File)
	}
	info, err := fs.Stat(files, file)
	switch {
	case err != nil:
		if near := nearest.Word(path.Base(file), links.Beside(file)); near != "" {
			return nil, nil, trouble("near file", "name", file, "near", path.Join(path.Dir(file), near))
		}
		return nil, nil, trouble("file", "name", file)
	case !info.Mode().IsRegular() || info.Size() > largestFile:
		return nil, nil, trouble("no text", "name", file)
	}
	data, err := fs.ReadFile(files, file)
	if err != nil || strings.ContainsRune(string(data), 0) {
		return nil, nil, trouble("no text", "name", file)
	}
	text := source.Decode(data)
	return p, linesOf(text.String, &text.Lines, source.NewSpan(0, len(text.String))), nil
}

// placeDeclaration finds the lines of what a name means: of one form where the name says which,
// else of all that stand one behind the other.
func placeDeclaration(links *link.Index, ask Ask, t link.Target) (*Piece, []line, *Trouble) {
	places := t.Declaration.Occurrences
	if t.Form != nil {
		places = slices.DeleteFunc(slices.Clone(places), func(at model.At) bool { return at.Occurrence != t.Form })
	}
	f := places[0].File
	at := extentOf(places, insideOf(links, f))
	span, ok := at.part(f.Text, ask.Part)
	if !ok {
		return nil, nil, trouble("no body", "name", ask.Name)
	}
	lines := cutEnds(f.Text, linesOf(f.Text, &f.Lines, trimmed(f.Text, span)), span, ask.Part)
	if ask.Part != Commented {
		lines = without(lines, at.comment, ask.Part)
	}
	return &Piece{File: f.Path, Source: f, Language: f.Language, Declaration: t.Declaration}, lines, nil
}

// extent is where a declaration stands in its file: all of it, its body and its comment. The last
// two may be empty.
type extent struct{ whole, body, comment source.Span }

// extentOf is that of places in one file which stand one behind the other. What stands apart
// gives way to what has a body.
func extentOf(places []model.At, inside *model.Inside) (out extent) {
	f := places[0].File
	for _, at := range places {
		if at.File != f {
			continue
		}
		whole, body := wholeOf(at, inside)
		if apart := !out.whole.Empty() && !adjacent(f.Text, out.whole, whole); apart && !out.body.Empty() {
			break
		} else if apart {
			out = extent{}
		}
		if out.whole.Empty() {
			out.whole = whole
			if at.Doc != nil {
				out.comment = at.Doc.Span
			}
		}
		out.whole.End, out.body = whole.End, body
	}
	return out
}

// part is the span of a part; ok is false where there is no such part.
func (e *extent) part(text string, part Part) (span source.Span, ok bool) {
	span = e.whole
	switch part {
	case Head:
		if !e.body.Empty() {
			span.End = e.body.Start
		}
	case Body:
		if span = e.body; span.Empty() {
			span = braced(text, e.whole)
		}
	case Commented:
		if !e.comment.Empty() {
			span.Start, span.End = min(span.Start, e.comment.Start), max(span.End, e.comment.End)
		}
	}
	return span, !span.Empty()
}

// without are lines but for those of a comment that stands among them, as a docstring does;
// where next to nothing would be left, all stay.
func without(lines []line, comment source.Span, part Part) []line {
	if comment.Empty() || len(lines) == 0 || int(comment.Start) <= lines[0].start {
		return lines
	}
	kept := slices.DeleteFunc(slices.Clone(lines), func(l line) bool {
		return l.start+len(l.text) > int(comment.Start) && l.start < int(comment.End)
	})
	if len(kept) > 1 || len(kept) == 1 && part == Body {
		return kept
	}
	return lines
}

// insideOf is what is known of the bodies of a file; where nobody asked for them before, the
// file is read again.
func insideOf(links *link.Index, f *model.Facts) *model.Inside {
	if f.Inside != nil {
		return f.Inside
	}
	end := links.FrontEnd(f.Language)
	if end == nil {
		return &model.Inside{}
	}
	text := source.Text{String: f.Text, Lines: f.Lines, Encoding: f.Encoding}
	if again := end.Read(lang.File{Path: f.Path, Text: text, Deep: true}); again != nil && again.Inside != nil {
		return again.Inside
	}
	return &model.Inside{}
}

// longestGap is how far behind a signature its body begins at most.
const longestGap = 200

// wholeOf is an occurrence with its body, and the body, which is empty where there is none.
func wholeOf(at model.At, inside *model.Inside) (whole, body source.Span) {
	whole = at.Span
	i, _ := slices.BinarySearchFunc(inside.Bodies, at.NameSpan.End, func(b source.Span, end int32) int { return cmp.Compare(b.Start, end) })
	if i == len(inside.Bodies) || at.Callable == nil {
		return whole, body
	}
	b := inside.Bodies[i]
	between := at.File.Text[min(whole.End, b.Start):b.Start]
	switch {
	case whole.Start <= b.Start && b.End <= whole.End:
		return whole, b
	case b.Start >= whole.End && b.Start-whole.End <= longestGap && strings.TrimSpace(between) == "":
		return source.Span{Start: whole.Start, End: b.End}, b
	}
	return whole, body
}

// adjacent reports whether nothing but blanks and the ends of statements stand between two spans.
func adjacent(text string, a, b source.Span) bool {
	return b.Start >= a.End && strings.Trim(text[a.End:b.Start], " \t\r\n;") == ""
}

// braced is what stands between the first and the last brace of a span, with them.
func braced(text string, span source.Span) source.Span {
	inside := span.In(text)
	from, to := strings.IndexByte(inside, '{'), strings.LastIndexByte(inside, '}')
	if from < 0 || to < from {
		return source.Span{}
	}
	return source.NewSpan(int(span.Start)+from, int(span.Start)+to+1)
}

// trimmed is a span without the blanks at its ends.
func trimmed(text string, span source.Span) source.Span {
	inside := span.In(text)
	span.Start += int32(len(inside) - len(strings.TrimLeft(inside, " \t\r\n")))
	span.End = max(span.Start, span.End-int32(len(inside)-len(strings.TrimRight(inside, " \t\r\n"))))
	return span
}

// cutEnds takes off the first and last line what is no part of a span: of a body the braces.
func cutEnds(text string, lines []line, span source.Span, part Part) []line {
	if len(lines) == 0 {
		return nil
	}
	span = trimmed(text, span)
	if part == Body && span.Len() >= 2 && text[span.Start] == '{' && text[span.End-1] == '}' {
		span = trimmed(text, source.Span{Start: span.Start + 1, End: span.End - 1})
		kept := lines[:0]
		for _, l := range lines {
			if l.start+len(l.text) > int(span.Start) && l.start < int(span.End) {
				kept = append(kept, l)
			}
		}
		if lines = kept; len(lines) == 0 {
			return nil
		}
	}
	last := &lines[len(lines)-1]
	if rest := strings.TrimSpace(text[span.End:max(int(span.End), last.start+len(last.text))]); !ends(rest) || part == Body {
		last.text = last.text[:int(span.End)-last.start]
	}
	first := &lines[0]
	if before := text[first.start:span.Start]; !begins(before) || part == Body && strings.TrimSpace(before) != "" {
		first.text = first.text[int(span.Start)-first.start:]
		first.start = int(span.Start)
	}
	return lines
}

// ends reports whether what follows on a line belongs to what ends there: the end of the
// statement, or a remark on it.
func ends(rest string) bool {
	rest = strings.TrimLeft(rest, ";, \t")
	for _, mark := range []string{"//", "#", "/*", "--"} {
		if strings.HasPrefix(rest, mark) {
			return true
		}
	}
	return rest == ""
}

// begins reports whether what stands before something on its line belongs to it: blanks and words
// such as "export".
func begins(before string) bool {
	return strings.IndexFunc(before, func(r rune) bool {
		return r != ' ' && r != '\t' && (r < 'a' || r > 'z')
	}) < 0
}

// choose keeps the lines that the patterns and numbers ask for.
func (a Ask) choose(lines []line) ([]line, *Trouble) {
	if a.From != "" {
		var at, alone []int
		for i, l := range lines {
			if strings.Contains(l.text, a.From) {
				at = append(at, i)
			}
			if strings.TrimSpace(l.text) == strings.TrimSpace(a.From) {
				alone = append(alone, i)
			}
		}
		if len(alone) == 1 {
			at = alone
		}
		switch {
		case len(at) == 0:
			return nil, trouble("no start", "name", a.What(), "pattern", a.From)
		case len(at) > 1:
			return nil, trouble("starts", "name", a.What(), "pattern", a.From, "first", strconv.Itoa(lines[at[0]].number), "second", strconv.Itoa(lines[at[1]].number))
		}
		lines = lines[at[0]:]
	}
	if a.To != "" {
		i := slices.IndexFunc(lines, func(l line) bool { return strings.Contains(l.text, a.To) })
		if i == 0 && a.From != "" && len(lines) > 1 { // the first line begins it; the end lies behind
			if next := slices.IndexFunc(lines[1:], func(l line) bool { return strings.Contains(l.text, a.To) }); next >= 0 {
				i = next + 1
			}
		}
		if i < 0 {
			return nil, trouble("no end", "name", a.What(), "pattern", a.To)
		}
		lines = lines[:i+1]
	}
	if len(a.Lines) == 0 {
		return lines, nil
	}
	if last := a.Lines[len(a.Lines)-1].Last; last > len(lines) {
		return nil, trouble("no line", "name", a.What(), "line", strconv.Itoa(last), "lines", strconv.Itoa(len(lines)))
	}
	var kept []line
	for i, l := range lines {
		if in(a.Lines, i+1) {
			kept = append(kept, l)
		}
	}
	return kept, nil
}

// nested tells a piece that holds an excerpt itself: what that shows may be out of date.
func (a Ask) nested(p *Piece, lines []line) *Trouble {
	if p.Source != nil {
		return nil
	}
	for _, l := range lines {
		words := strings.TrimLeft(l.text, " \t>`~")
		if words != l.text && prose.MayBeExcerpt(words) {
			return trouble("nested", "name", a.What(), "line", strconv.Itoa(l.number))
		}
	}
	return nil
}

// Marks in the source, in a remark of its language on a line of its own, between which lines are
// left out of excerpts.
const (
	leaveOut = "codrel: leave out"
	goOn     = "codrel: go on"
)

// remark is what a line says that is nothing but a remark.
func remark(text string) string {
	return strings.TrimSpace(strings.TrimRight(strings.TrimLeft(strings.TrimSpace(text), "/#-*;<!% \t"), "*/->% \t"))
}

// leaveOut puts a line with "…" in the place of lines that are left out; it has no number.
func (a Ask) leaveOut(lines []line) (out []line) {
	gap := func(l line) {
		if n := len(out); n == 0 || out[n-1].number > 0 {
			out = append(out, line{text: indentOf(l.text) + "…"})
		}
	}
	leaving := false
	for i, l := range lines {
		switch said := remark(l.text); {
		case said == leaveOut:
			leaving = true
			gap(l)
		case said == goOn:
			leaving = false
		case leaving, in(a.Without, i+1):
			gap(l)
		default:
			out = append(out, l)
		}
	}
	return out
}

func indentOf(text string) string { return text[:len(text)-len(strings.TrimLeft(text, " \t"))] }

// write makes the text of the piece: its lines without the indentation that all have.
func (p *Piece) write(lines []line) {
	for len(lines) > 0 && strings.TrimSpace(lines[0].text) == "" {
		lines = lines[1:]
	}
	for len(lines) > 0 && strings.TrimSpace(lines[len(lines)-1].text) == "" {
		lines = lines[:len(lines)-1]
	}
	common, some := "", false
	for _, l := range lines {
		if strings.TrimSpace(l.text) == "" {
			continue
		}
		if indent := indentOf(l.text); !some {
			common, some = indent, true
		} else {
			for !strings.HasPrefix(indent, common) {
				common = common[:len(common)-1]
			}
		}
	}
	var b strings.Builder
	for _, l := range lines {
		text := strings.TrimRight(strings.TrimPrefix(l.text, common), " \t")
		if l.number > 0 && text != "" {
			from := l.start + len(l.text) - len(strings.TrimPrefix(l.text, common))
			p.Runs = append(p.Runs, Run{b.Len(), source.NewSpan(from, from+len(text))})
			if p.Line == 0 {
				p.Line = l.number
			}
		}
		b.WriteString(text + "\n")
	}
	p.Text = strings.TrimSuffix(b.String(), "\n")
}

// Same reports whether a copy says what the piece does, but for blanks at the ends of lines.
func (p *Piece) Same(copy string) bool { return plain(copy) == plain(p.Text) }

func plain(text string) string {
	var b strings.Builder
	for l := range strings.Lines(text) {
		b.WriteString(strings.TrimRight(l, " \t\r\n") + "\n")
	}
	return strings.TrimRight(b.String(), "\n")
}

// Difference is the first line at which a copy differs from the piece, counted from 1, what the
// copy has there and what the source has; and how many lines differ.
func (p *Piece) Difference(copy string) (at int, was, now string, lines int) {
	a, b := strings.Split(plain(copy), "\n"), strings.Split(plain(p.Text), "\n")
	first := func(list []string, from, to int) string {
		if from < to {
			return strings.TrimSpace(list[from])
		}
		return ""
	}
	for _, op := range difflib.NewMatcherWithJunk(a, b, false, nil).GetOpCodes() {
		if op.Tag == 'e' {
			continue
		}
		if lines == 0 {
			at, was, now = op.I1+1, first(a, op.I1, op.I2), first(b, op.J1, op.J2)
		}
		lines += max(op.I2-op.I1, op.J2-op.J1)
	}
	return at, was, now, lines
}
