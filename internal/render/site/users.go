package site

import (
	"context"
	"io"
	"path"
	"strconv"
	"strings"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/render/plan"
)

// This file writes the sentences about source pages and about who uses what.

// sourceNote says what a source page belongs to and where else it can be read.
func (v view) sourceNote() sentence {
	f, m := v.page.File, v.page.Module
	s := sentence{{Text: "Part of "}, {Text: m.Path, Name: true}}
	if v.plan.Links.ModuleInReach(m) {
		s[1].Href = v.to(v.plan.Module(m))
	}
	if c := conditions(f); c != "" {
		s = append(s, piece{Text: ", for "}, piece{Text: c, Name: true})
	}
	if f.Generated {
		s = append(s, piece{Text: ", generated"})
	}
	s = append(s, piece{Text: "."})
	if v.plan.Source == plan.Signatures {
		s = append(s, piece{Text: " The bodies of functions are left out."})
	}
	if address := v.forgeAddress(f.Path, 1); address != "" {
		s = append(s, piece{Text: " Its home is "}, piece{Text: f.Path, Href: address, Name: true}, piece{Text: "."})
	}
	return s
}

// extent says which lines of a file a page shows.
func (v view) extent(from, to int) string {
	f := v.page.File
	all := f.Lines.Count()
	if int(f.Lines.Start(all)) == len(f.Text) && all > 1 {
		all--
	}
	if len(v.plan.SourceParts(f)) == 1 {
		return counted(all, "line")
	}
	return "lines " + strconv.Itoa(from) + " to " + strconv.Itoa(min(to, all)) + " of " + strconv.Itoa(all)
}

// mostFiles is how many neighbours of a file the contents list.
const mostFiles = 24

// near are the files around one in the list of its module's.
func near(list []*model.Facts, f *model.Facts) []*model.Facts {
	if len(list) <= mostFiles {
		return list
	}
	at := 0
	for at < len(list) && list[at] != f {
		at++
	}
	from := max(0, min(at-mostFiles/2, len(list)-mostFiles))
	return list[from : from+mostFiles]
}

// usedBy is the note about who uses a declaration, or nil.
func (v view) usedBy(d *model.Declaration) []sentence {
	u, list := v.plan.Users(d)
	if u == nil {
		return nil
	}
	if list != "" {
		return []sentence{{{Text: "Used on "}, {Text: v.usersCount(u), Href: v.to(list)}, {Text: "."}}}
	}
	var out []sentence
	for _, f := range u.Files {
		s := append(sentence{{Text: "Used in "}}, v.usedIn(f)...)
		out = append(out, append(s, piece{Text: "."}))
	}
	return out
}

func (v view) usersCount(u *link.UsersOf) string {
	return counted(u.Lines, "line") + " of " + counted(u.Count, "file")
}

// usedIn writes "plan.go, lines 12, 14 and 3 more", with a link for each line.
func (v view) usedIn(u link.UsedIn) sentence {
	name := path.Base(u.File.Path)
	if u.Module != v.page.Module {
		name = u.File.Path
	}
	s := sentence{{Text: name, Name: true}, {Text: ", line "}}
	if u.Count > 1 {
		s[1].Text = ", lines "
	}
	for i, line := range u.Lines {
		switch {
		case i == 0:
		case i == u.Count-1:
			s = append(s, piece{Text: " and "})
		default:
			s = append(s, piece{Text: ", "})
		}
		s = append(s, piece{Text: strconv.Itoa(int(line)), Href: v.to(v.plan.SourceLine(u.File, int(line)))})
	}
	if more := u.Count - len(u.Lines); more > 0 {
		s = append(s, piece{Text: " and " + strconv.Itoa(more) + " more"})
	}
	return s
}

// userLines writes the list of a page of users. There are as many links as on
// the rest of the reference together, so a plain writer makes them.
func (v view) userLines(_ context.Context, to io.Writer) error {
	var b strings.Builder
	for _, d := range v.page.Users {
		u, _ := v.plan.Users(d)
		b.WriteString(`<dt id="` + escape(d.Path()) + `"><a href="` + escape(v.toDeclaration(d)) + `"><code translate="no">` + breakable(d.Path()) +
			`</code></a> <span class="kind">` + escape(kindWords(d)+", "+v.usersCount(u)) + "</span></dt>\n")
		for _, f := range u.Files {
			b.WriteString("<dd>")
			for _, p := range v.usedIn(f) {
				writePiece(&b, p)
			}
			b.WriteString("</dd>\n")
		}
		if more := u.Count - len(u.Files); more > 0 {
			b.WriteString("<dd>and in " + counted(more, "more file") + "</dd>\n")
		}
	}
	_, err := io.WriteString(to, b.String())
	return err
}

func writePiece(b *strings.Builder, p piece) {
	text := escape(p.Text)
	if p.Name {
		text = `<code translate="no">` + breakable(p.Text) + "</code>"
	}
	if p.Href != "" {
		text = `<a href="` + escape(p.Href) + `">` + text + "</a>"
	}
	b.WriteString(text)
}
