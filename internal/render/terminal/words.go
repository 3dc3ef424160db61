package terminal

import (
	"strconv"
	"strings"
	"unicode"

	"codrel/internal/prose"
	"codrel/internal/render/page"
)

// This file writes what comments say.

func (w *Writer) words(words *page.Words) {
	if words == nil {
		return
	}
	if words.Gone != nil {
		w.gone(words.Gone)
	}
	w.blocks(0, words.Body)
	for i := range words.Forms {
		form := &words.Forms[i]
		title := form.Title
		if form.N > 0 {
			title = w.look.Texts.Say("form", "n", strconv.Itoa(form.N))
		}
		for _, n := range form.Same {
			title += w.look.Texts.Say("comma") + w.look.Texts.Say("form", "n", strconv.Itoa(n))
		}
		w.space()
		w.line(0, bold+clean(title)+plain)
		if form.Gone != nil {
			w.gone(form.Gone)
		}
		w.blocks(0, form.Body)
	}
	for i := range words.Parts {
		w.part(&words.Parts[i], words.Language)
	}
}

// gone says that something is deprecated.
func (w *Writer) gone(g *page.Gone) {
	w.space()
	text := bold + w.look.Texts.Say("gone-mark") + plain
	for _, line := range g.Lines {
		text += " " + inlines(line)
	}
	w.wrapped(0, 0, text)
	w.blocks(0, g.Rest)
}

func (w *Writer) blocks(indent int, list []page.Block) {
	for i := range list {
		w.space()
		w.block(indent, &list[i])
	}
}

func (w *Writer) block(indent int, b *page.Block) {
	switch b.Kind {
	case page.Heading:
		w.wrapped(indent, 0, bold+inlines(b.Inlines)+plain)
	case page.Code:
		if e := b.Excerpt; e != nil && e.File != "" {
			w.line(indent+4, dim+clean(e.Name)+", "+clean(w.options.Place(e.File))+":"+strconv.Itoa(e.Line)+plain)
		}
		if remark := b.Tried.Words(w.look.Texts); remark != "" {
			w.line(indent+4, dim+remark+plain)
		}
		for line := range strings.SplitSeq(strings.TrimRight(codeText(b.Text), "\n"), "\n") {
			w.line(indent+4, line)
		}
	case page.List:
		w.list(indent, b)
	case page.Quote:
		w.blocks(indent+4, b.Blocks)
	case page.Table:
		w.table(indent, b)
	case page.Ruler:
		w.line(indent, strings.Repeat("─", max(0, min(w.options.Width-indent, 20))))
	default:
		w.wrapped(indent, 0, inlines(b.Inlines)+clean(b.Text))
		w.blocks(indent, b.Blocks)
	}
}

// codeText is code with its tabs as blanks.
func codeText(text string) string { return clean(strings.ReplaceAll(text, "\t", "    ")) }

func (w *Writer) list(indent int, b *page.Block) {
	for i := range b.Blocks {
		item := &b.Blocks[i]
		mark := "• "
		switch {
		case b.Info == prose.Terms:
			mark = ""
		case b.Level > 0:
			mark = strconv.Itoa(b.Level+i) + ". "
		}
		inner := indent + max(2, length(mark))
		rest := item.Blocks
		text := inlines(item.Inlines)
		if text == "" && len(rest) > 0 && rest[0].Kind == page.Paragraph {
			text, rest = inlines(rest[0].Inlines), rest[1:]
		}
		w.wrapped(indent, inner-indent, mark+text)
		for k := range rest {
			w.block(inner, &rest[k])
		}
	}
}

// table writes the cells of a row in a line where all fit, else one below the other.
func (w *Writer) table(indent int, b *page.Block) {
	var widths []int
	rows, aligned := make([][]string, len(b.Rows)), make([][]string, len(b.Rows))
	for i, row := range b.Rows {
		for _, cell := range row.Cells {
			text := strings.Join(strings.Fields(inlines(cell.Inlines)), " ")
			if row.Head {
				text = bold + text + plain
			}
			rows[i], aligned[i] = append(rows[i], text), append(aligned[i], cell.Aligned)
			for range cell.Columns - 1 {
				rows[i], aligned[i] = append(rows[i], ""), append(aligned[i], "")
			}
		}
		for k, text := range rows[i] {
			if k == len(widths) {
				widths = append(widths, 0)
			}
			widths[k] = max(widths[k], length(text))
		}
	}
	total := indent - 2
	for _, width := range widths {
		total += width + 2
	}
	for i, row := range rows {
		if total > w.options.Width {
			for k, text := range row {
				w.wrapped(indent+2*min(k, 1), 2, text)
			}
			continue
		}
		line := ""
		for k, text := range row {
			free := widths[k] - length(text)
			before := 0
			switch aligned[i][k] {
			case "right":
				before = free
			case "center":
				before = free / 2
			}
			line += strings.Repeat(" ", before) + text + strings.Repeat(" ", free-before+2)
		}
		w.line(indent, line)
	}
}

// inlines is what stands in a line.
func inlines(list []page.Inline) string {
	var b strings.Builder
	for i := range list {
		in := &list[i]
		switch in.Kind {
		case page.Strong:
			b.WriteString(bold + inlines(in.Children) + clean(in.Text) + plain)
		case page.CodeSpan:
			b.WriteString(bold + clean(in.Text) + plain)
		case page.Label:
			b.WriteString(bold + clean(in.Text) + plain)
			if in.Short != "" {
				b.WriteString(" " + clean(in.Short))
			}
			if in.Colon {
				b.WriteString(":")
			}
		case page.Break:
			b.WriteString(hard)
		case page.Place:
			b.WriteString(inlines(in.Children))
		case page.Superscript:
			b.WriteString(raised(prose.Superscript, in, list[i+1:]))
		case page.Subscript:
			b.WriteString(raised(prose.Subscript, in, list[i+1:]))
		case page.Picture, page.Film:
			b.WriteString("[" + clean(in.Text) + inlines(in.Children) + "]")
		default:
			inside := inlines(in.Children)
			b.WriteString(clean(in.Text) + inside)
			if in.Kind == page.Link && in.To != nil && in.To.Address != "" && len(in.Children) > 0 && in.To.Address != inside {
				b.WriteString(" <" + clean(in.To.Address) + ">")
			}
		}
	}
	return b.String()
}

// raised is a power or an index, apart from a letter that follows it.
func raised(kind prose.Kind, in *page.Inline, rest []page.Inline) string {
	text := prose.Raised(kind, clean(in.Text)+inlines(in.Children))
	if strings.HasPrefix(text, "^") || strings.HasPrefix(text, "_") {
		if unicode.IsLetter(first(rest)) {
			text += " "
		}
	}
	return text
}

// first is the first rune of what stands in a line, or 0.
func first(list []page.Inline) rune {
	for i := range list {
		for _, r := range list[i].Text {
			return r
		}
		if r := first(list[i].Children); r != 0 {
			return r
		}
	}
	return 0
}

// part writes a named section of a comment.
func (w *Writer) part(p *page.Part, language string) {
	w.space()
	w.line(0, bold+clean(w.maker.PartTitle(p, language))+plain)
	for i := range p.Items {
		item := &p.Items[i]
		if item.Entry == nil {
			if item.Remark {
				w.line(2, dim+item.InForms(w.look.Texts)+plain)
			}
			for k := range item.Blocks {
				w.block(2, &item.Blocks[k])
			}
			continue
		}
		w.entry(p.Kind, item)
	}
}

func (w *Writer) entry(kind prose.PartKind, item *page.PartItem) {
	e := item.Entry
	head := ""
	if kind == prose.Since && e.Default != "" {
		head = w.look.Texts.Say("since-"+e.Default, "version", clean(e.Name))
	} else if e.Name != "" {
		head = bold + clean(e.Name) + plain
	}
	if len(e.Type) > 0 {
		head += " " + inlines(e.Type)
	}
	switch {
	case kind == prose.Since:
	case e.Default != "":
		head += " " + dim + w.look.Texts.Say("default", "value", clean(e.Default)) + plain
	case e.Optional:
		head += " " + dim + w.look.Texts.Say("optional") + plain
	}
	if item.Form > 0 {
		head += " " + dim + item.InForms(w.look.Texts) + plain
	}
	if strings.TrimSpace(head) != "" {
		w.wrapped(2, 4, head)
	}
	if len(e.Line) > 0 {
		w.wrapped(6, 0, inlines(e.Line))
	}
	for k := range e.Text {
		w.block(6, &e.Text[k])
	}
}
