package site

import (
	"context"
	"io"
	"path"
	"strconv"
	"strings"

	"codrel/internal/link"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// This file writes the sentences about source pages and about who uses what.

// sourceNote says what a source page belongs to and where else it can be read.
func (v view) sourceNote() page.Sentence {
	f, m := v.page.File, v.page.Module
	module := page.Piece{Text: m.Path, Name: true}
	if v.plan.Links.ModuleInReach(m) {
		module.To = page.At(v.plan.Module(m))
	}
	key := "part-of"
	if len(f.Conditions) > 0 {
		key = "part-of-for"
	}
	s := v.said.Of(key, page.Slot("module", module), page.Slot("conditions", page.Piece{Text: strings.Join(f.Conditions, " and "), Name: true}))
	if f.Generated {
		s = append(s, page.Piece{Text: v.say("is-generated")})
	}
	if v.plan.Source == plan.Signatures {
		s = append(s, page.Piece{Text: v.say("bodies-gone")})
	}
	if address := v.forgeAddress(f.Path, 1); address != "" {
		s = append(s, v.said.Of("its-home", page.Slot("file", page.Piece{Text: f.Path, To: &page.Target{Target: link.Target{Address: address}}, Name: true}))...)
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

// userLines writes the list of a page of users. There are as many links as on
// the rest of the reference together, so a plain writer makes them.
func (v view) userLines(_ context.Context, to io.Writer) error {
	var b strings.Builder
	for _, d := range v.page.Names {
		u, _ := v.plan.Users(d)
		b.WriteString(`<dt id="` + escape(plan.Label(d)) + `"><a href="` + escape(v.toDeclaration(d)) + `"><code translate="no">` + breakable(d.Path()) +
			`</code></a> <span class="kind">` + escape(v.said.KindWords(d)+", "+v.said.UsersCount(u)) + "</span></dt>\n")
		for _, f := range u.Files {
			b.WriteString("<dd>")
			name := path.Base(f.File.Path)
			if f.Module != v.page.Module {
				name = f.File.Path
			}
			for _, p := range v.said.UsedIn(f, name) {
				v.writePiece(&b, p)
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

func (v view) writePiece(b *strings.Builder, p page.Piece) {
	text := escape(p.Text)
	if p.Name {
		text = `<code translate="no">` + breakable(p.Text) + "</code>"
	} else if p.Foreign {
		text = `<span translate="no">` + text + "</span>"
	}
	if href := v.target(p.To); href != "" {
		text = `<a href="` + escape(href) + `">` + text + "</a>"
	}
	b.WriteString(text)
}
