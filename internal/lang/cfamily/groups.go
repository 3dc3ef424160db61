package cfamily

import (
	"cmp"
	"sort"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file finds the groups that comments make: by marks around declarations ("@{" and "@}"),
// with a title of their own or one by whose name others belong to the group as well.

// deepestGroup is how deep groups in one another are told apart.
const deepestGroup = 30

// region is what stands between the marks of a group.
type region struct {
	from, to int32
	outer    int // index of the region around it, or -1
	group    group
}

// group is what a comment says of a group.
type group struct {
	name  string // by which other declarations belong to it; "" where it has none
	title string
	doc   *model.Doc // or nil
}

// groups puts declarations into the groups whose marks stand around them.
func (r *reader) groups() {
	regions := r.regions()
	for i := range r.Facts.Occurrences {
		r.putIntoGroup(&r.Facts.Occurrences[i], regions)
	}
}

// regions are the groups by marks, in the order in which they begin. What groups with names are
// called goes to the facts.
func (r *reader) regions() (out []region) {
	var open []int
	said, saidAt := group{}, int32(-1)
	for n := 0; n < len(r.Comments); n++ {
		c := r.Comments[n]
		for isLineComment(c.In(r.Text)) && isDoc(c.In(r.Text)) && n+1 < len(r.Comments) && r.follows(n, r.Comments[n+1]) && isDoc(r.Comments[n+1].In(r.Text)) {
			n++
			c.End = r.Comments[n].End
		}
		begins, ends := groupMarks(c.In(r.Text))
		g, titled := r.groupOf(c, begins)
		if titled {
			said, saidAt = g, c.End
		}
		if ends && len(open) > 0 {
			last := open[len(open)-1]
			out[last].to, open = c.Start, open[:len(open)-1]
		}
		if !begins || len(open) >= deepestGroup {
			continue
		}
		if !titled && saidAt >= 0 && strings.TrimSpace(r.Text[saidAt:c.Start]) == "" {
			g = said
		}
		outer := -1
		if len(open) > 0 {
			outer = open[len(open)-1]
		}
		open = append(open, len(out))
		out = append(out, region{from: c.End, to: int32(len(r.Text)), outer: outer, group: g})
	}
	return out
}

// groupMarks reports whether a comment begins a group, or ends one: by a mark that stands alone
// on a line, or behind what its last line says.
func groupMarks(text string) (begins, ends bool) {
	if strings.IndexByte(text, '{') < 0 && strings.IndexByte(text, '}') < 0 {
		return false, false
	}
	for line := range strings.SplitSeq(strings.TrimSuffix(text, "*/"), "\n") {
		line = strings.Trim(line, "/*! \t\r")
		begins = begins || isMark(line, '{')
		ends = ends || isMark(line, '}')
	}
	return begins, ends
}

// isMark reports whether a line is the mark of a group: alone, behind other words, or, where one
// ends, before them.
func isMark(line string, bracket byte) bool {
	for i := 0; i+1 < len(line); i++ {
		if (line[i] != '@' && line[i] != '\\') || line[i+1] != bracket {
			continue
		}
		before, behind := strings.TrimSpace(line[:i]), strings.TrimSpace(line[i+2:])
		if bracket == '}' {
			return before == ""
		}
		return behind == "" && (i == 0 || line[i-1] == ' ') && !strings.Contains(before, "`")
	}
	return false
}

// groupOf is the group that a comment speaks of. It is titled where the comment gives it a title
// or a name, so that its marks may stand in the next comment.
func (r *reader) groupOf(c source.Span, begins bool) (g group, titled bool) {
	if !isDoc(c.In(r.Text)) {
		return g, false
	}
	doc := r.peek(c)
	if doc == nil {
		return g, false
	}
	word, rest := subject(doc.Text)
	rest = strings.TrimSpace(strings.TrimRight(strings.TrimSuffix(strings.TrimSuffix(rest, "@{"), `\{`), " "))
	switch word {
	case "name":
		g.title, titled = rest, true
	case "defgroup", "addtogroup", "weakgroup":
		g.name, g.title, _ = strings.Cut(rest, " ")
		g.title, titled = strings.Trim(g.title, " \t"), g.name != ""
	default:
		if !begins {
			return g, false
		}
	}
	g.doc = r.withoutMarks(doc)
	if g.name != "" && (g.title != "" || g.doc != nil) {
		r.Facts.Groups = append(r.Facts.Groups, model.Group{Name: g.name, Title: cmp.Or(g.title, g.name), Doc: g.doc})
	}
	return g, titled
}

// withoutMarks is a comment without its lines that only say which group it is about, and where
// that begins.
func (r *reader) withoutMarks(doc *model.Doc) *model.Doc {
	var lines []source.Span
	for _, l := range doc.Lines {
		text := l.In(r.Text)
		switch word, _ := subject(text); word {
		case "name", "defgroup", "addtogroup", "weakgroup", "page":
			continue
		}
		trimmed := strings.TrimSpace(text)
		if isMark(trimmed, '{') && len(trimmed) == 2 || isMark(trimmed, '}') {
			continue
		}
		if strings.HasSuffix(trimmed, "@{") || strings.HasSuffix(trimmed, `\{`) {
			l.End = l.Start + int32(len(strings.TrimRight(text[:strings.LastIndexByte(text, '{')-1], " \t")))
		}
		lines = append(lines, l)
	}
	return lexing.MakeDoc(r.Text, lines, doc.Span)
}

// putIntoGroup puts a declaration into the innermost group around it that stands in the same type
// or namespace as it does.
func (r *reader) putIntoGroup(o *model.Occurrence, regions []region) {
	if name := inGroup(o.Doc); name != "" {
		r.part(o, name, o.Doc.Span)
		return
	}
	i := sort.Search(len(regions), func(i int) bool { return regions[i].from > o.NameSpan.Start }) - 1
	for ; i >= 0 && regions[i].to <= o.NameSpan.Start; i = regions[i].outer {
	}
	if i < 0 || o.Parent >= 0 && regions[i].from < r.Facts.Occurrences[o.Parent].NameSpan.Start {
		return
	}
	g := &regions[i].group
	if part := cmp.Or(g.name, g.title); part != "" {
		r.part(o, part, o.NameSpan)
	}
	if g.name == "" {
		o.GroupDoc = g.doc
	}
}

// part puts a declaration into a group, unless its author named another one.
func (r *reader) part(o *model.Occurrence, name string, at source.Span) {
	for _, d := range o.Directives() {
		if d.Verb == "part" {
			return
		}
	}
	extra := model.Extra{}
	if o.Extra != nil {
		extra = *o.Extra
	}
	extra.Directives = append(extra.Directives[:len(extra.Directives):len(extra.Directives)], model.Directive{Verb: "part", Object: name, Span: at})
	o.Extra = &extra
}

// inGroup is the name of the group that a comment says its declaration belongs to, or "".
func inGroup(doc *model.Doc) string {
	if doc == nil {
		return ""
	}
	at := strings.Index(doc.Text, "ingroup ")
	if at < 1 || doc.Text[at-1] != '@' && doc.Text[at-1] != '\\' {
		return ""
	}
	rest := strings.TrimLeft(doc.Text[at+len("ingroup "):], " ")
	if end := strings.IndexAny(rest, " \t\n,"); end >= 0 {
		rest = rest[:end]
	}
	return rest
}
