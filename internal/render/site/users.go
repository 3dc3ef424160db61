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
	module := piece{Text: m.Path, Name: true}
	if v.plan.Links.ModuleInReach(m) {
		module.Href = v.to(v.plan.Module(m))
	}
	key := "part-of"
	if len(f.Conditions) > 0 {
		key = "part-of-for"
	}
	s := v.sentenceOf(key, slot("module", module), slot("conditions", piece{Text: strings.Join(f.Conditions, " and "), Name: true}))
	if f.Generated {
		s = append(s, piece{Text: v.say("is-generated")})
	}
	if v.plan.Source == plan.Signatures {
		s = append(s, piece{Text: v.say("bodies-gone")})
	}
	if address := v.forgeAddress(f.Path, 1); address != "" {
		s = append(s, v.sentenceOf("its-home", slot("file", piece{Text: f.Path, Href: address, Name: true}))...)
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
		return v.count(all, "line")
	}
	return v.say("lines-of", "from", strconv.Itoa(from), "to", strconv.Itoa(min(to, all)), "all", strconv.Itoa(all))
}

// sourceTurns are the pages that show the file.
func (v view) sourceTurns() []turn {
	var out []turn
	for i, first := range v.plan.SourceParts(v.page.File) {
		out = append(out, turn{v.say("from-line", "line", strconv.Itoa(int(first))), v.plan.SourcePart(v.page.File, i), i == v.page.Part})
	}
	return out
}

// usedBy is the note about who uses a declaration, or nil.
func (v view) usedBy(d *model.Declaration) []sentence {
	u, list := v.plan.Users(d)
	if u == nil {
		return nil
	}
	if list != "" {
		return []sentence{v.sentenceOf("used-on", slot("count", piece{Text: v.usersCount(u), Href: v.to(list)}))}
	}
	var places sentence
	for i, f := range u.Files {
		places = append(v.join(places, i, len(u.Files)), v.usedIn(f, path.Base(f.File.Path))...)
	}
	return []sentence{v.sentenceOf("used-in", filled{"place", places})}
}

func (v view) usersCount(u *link.UsersOf) string {
	return v.say("lines-files", "lines", v.count(u.Lines, "line"), "files", v.count(u.Count, "file"))
}

// usedIn writes "plan.go, lines 12, 14 and 3 more" of a file that is called so, with
// a link for each line.
func (v view) usedIn(u link.UsedIn, name string) sentence {
	var lines sentence
	for i, line := range u.Lines {
		lines = v.join(lines, i, u.Count)
		lines = append(lines, piece{Text: strconv.Itoa(int(line)), Href: v.to(v.plan.SourceLine(u.File, int(line)))})
	}
	if more := u.Count - len(u.Lines); more > 0 {
		lines = append(lines, piece{Text: v.say("and-more", "n", strconv.Itoa(more))})
	}
	key := "in-line"
	if u.Count > 1 {
		key = "in-lines"
	}
	return v.sentenceOf(key, slot("file", piece{Text: name, Name: true}), filled{"lines", lines})
}

// userLines writes the list of a page of users. There are as many links as on
// the rest of the reference together, so a plain writer makes them.
func (v view) userLines(_ context.Context, to io.Writer) error {
	var b strings.Builder
	for _, d := range v.page.Names {
		u, _ := v.plan.Users(d)
		b.WriteString(`<dt id="` + escape(d.Label()) + `"><a href="` + escape(v.toDeclaration(d)) + `"><code translate="no">` + breakable(d.Path()) +
			`</code></a> <span class="kind">` + escape(v.kindWords(d)+", "+v.usersCount(u)) + "</span></dt>\n")
		for _, f := range u.Files {
			b.WriteString("<dd>")
			name := path.Base(f.File.Path)
			if f.Module != v.page.Module {
				name = f.File.Path
			}
			for _, p := range v.usedIn(f, name) {
				writePiece(&b, p)
			}
			b.WriteString("</dd>\n")
		}
		if more := u.Count - len(u.Files); more > 0 {
			b.WriteString("<dd>" + escape(v.say("and-in", "files", v.count(more, "more-file"))) + "</dd>\n")
		}
	}
	_, err := io.WriteString(to, b.String())
	return err
}

func writePiece(b *strings.Builder, p piece) {
	text := escape(p.Text)
	if p.Name {
		text = `<code translate="no">` + breakable(p.Text) + "</code>"
	} else if p.Foreign {
		text = `<span translate="no">` + text + "</span>"
	}
	if p.Href != "" {
		text = `<a href="` + escape(p.Href) + `">` + text + "</a>"
	}
	b.WriteString(text)
}
