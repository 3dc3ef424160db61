// Package todo finds what comments say is still to do, and what they say is known to be wrong:
// by the tags of doc comments, and by the words that people begin such remarks with.
//
// It looks at all comments of the files of a project, not only at those for users. It knows
// neither rules nor pages.
package todo

import (
	"context"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/parallel"
	"codrel/internal/source"
)

// Entry is one remark.
type Entry struct {
	Bug  bool   // it says what is wrong, else what is to do
	Who  string // the name in brackets behind its word, or ""
	Text string // on one line
	File *model.Facts
	Span source.Span // of the first line, from its word on
	// In is the innermost declaration around it, or that it speaks of, or nil.
	In *model.Declaration
}

// longest is over how many bytes a remark is told.
const longest = 600

// Find gives the remarks in the code of a project, in the order of files and lines.
func Find(ctx context.Context, project *model.Project, ends map[string]lang.FrontEnd, workers int) []Entry {
	var files []*model.Facts
	homes := map[*model.Facts][]*model.Declaration{}
	for _, lib := range project.Libraries {
		for _, f := range lib.Files {
			if f.Role == model.RoleCode && !f.Generated {
				files = append(files, f)
			}
		}
		for _, m := range lib.Modules {
			for d := range m.Declarations {
				for _, o := range d.Occurrences {
					if list := homes[o.File]; len(list) == 0 || list[len(list)-1] != d {
						homes[o.File] = append(list, d)
					}
				}
			}
		}
	}
	found := make([][]Entry, len(files))
	_ = parallel.Each(ctx, workers, len(files), func(i int) { // who asks looks at the context
		if end := ends[files[i].Language]; end != nil {
			found[i] = inFile(files[i], end)
			place(found[i], homes[files[i]])
		}
	})
	all := slices.Concat(found...)
	slices.SortStableFunc(all, func(a, b Entry) int { return strings.Compare(a.File.Path, b.File.Path) })
	return all
}

// place says of each remark which declaration it stands in, or before.
func place(list []Entry, of []*model.Declaration) {
	for i := range list {
		e, least := &list[i], int32(-1)
		for _, d := range of {
			for _, o := range d.Occurrences {
				from, size := o.Span.Start, o.Span.End-o.Span.Start
				if o.Doc != nil {
					from = min(from, o.Doc.Span.Start)
				}
				if o.File == e.File && from <= e.Span.Start && e.Span.Start < o.Span.End && (least < 0 || size < least) {
					e.In, least = d, size
				}
			}
		}
	}
}

// line is one line of a comment, without its marks.
type line struct {
	text string
	at   int32 // offset of the text
	run  int   // lines that go on have the same number
}

// inFile are the remarks of a file, in order.
func inFile(f *model.Facts, end lang.FrontEnd) (out []Entry) {
	if !mayHave(f.Text) {
		return nil
	}
	lines := commentLines(f, end)
	for i := 0; i < len(lines); i++ {
		e, ok := begin(lines[i])
		if !ok {
			continue
		}
		e.File = f
		for i+1 < len(lines) && lines[i+1].run == lines[i].run && goesOn(lines[i+1]) && len(e.Text) < longest {
			i++
			e.Text += " " + lines[i].text
		}
		if e.Text = strings.TrimSpace(e.Text); e.Text != "" {
			out = append(out, e)
		}
	}
	return out
}

// mayHave reports whether any of the words is in a text.
func mayHave(text string) bool {
	for word := range words {
		if strings.Contains(text, word) {
			return true
		}
	}
	return false
}

// commentLines are the lines of all comments, and of all texts that are doc comments, in order
// and each once.
func commentLines(f *model.Facts, end lang.FrontEnd) (out []line) {
	run := 0
	if scanner, ok := end.(lang.Scanner); ok {
		last := int32(-1)
		for _, piece := range scanner.Scan(f.Text, nil) {
			if piece.Class != model.PieceComment {
				continue
			}
			between := ""
			if last >= 0 {
				between = f.Text[last:piece.Span.Start]
			}
			if last < 0 || strings.TrimSpace(between) != "" || strings.Count(between, "\n") > 1 {
				run++
			}
			out = appendLines(out, f.Text, piece.Span, run)
			last = piece.Span.End
		}
	}
	known := map[int]bool{}
	for _, l := range out {
		known[f.Lines.Line(l.at)] = true
	}
	docs := []*model.Doc{f.ModuleDoc, f.LibraryDoc}
	for i := range f.Occurrences {
		docs = append(docs, f.Occurrences[i].Doc)
	}
	for _, doc := range docs {
		if doc == nil {
			continue
		}
		run++
		for _, l := range doc.Lines {
			if !known[f.Lines.Line(l.Start)] {
				out = appendLines(out, f.Text, l, run)
			}
		}
	}
	slices.SortStableFunc(out, func(a, b line) int { return int(a.at - b.at) })
	return out
}

// appendLines adds the lines of a comment.
func appendLines(out []line, text string, span source.Span, run int) []line {
	at := span.Start
	for part := range strings.SplitSeq(span.In(text), "\n") {
		trimmed := strings.TrimLeft(part, " \t/*!#;-<")
		from := at + int32(len(part)-len(trimmed))
		whole := strings.TrimRight(strings.TrimSuffix(strings.TrimRight(trimmed, " \t\r"), "*/"), " \t*")
		if tag := tagIn(whole); tag > 0 { // a tag begins something of its own behind other words, too
			out = append(out, line{text: strings.TrimRight(whole[:tag], " "), at: from, run: run})
			whole, from = whole[tag:], from+int32(tag)
		}
		out = append(out, line{text: whole, at: from, run: run})
		at += int32(len(part)) + 1
	}
	return out
}

// tagIn is where one of the tags stands behind other words, or 0.
func tagIn(text string) int {
	for i := 1; i < len(text); i++ {
		if (text[i] == '@' || text[i] == '\\') && text[i-1] == ' ' {
			if _, ok := begin(line{text: text[i:]}); ok {
				return i
			}
		}
	}
	return 0
}

// words are those that remarks begin with, and whether they say what is wrong. Tags are written
// small, other words in capitals.
var words = map[string]bool{
	"@todo": false, `\todo`: false, "@bug": true, `\bug`: true, "@fixme": true, `\fixme`: true,
	"TODO": false, "FIXME": true, "BUG": true, "XXX": false, "HACK": false,
	"Todo:": false, ".. todo::": false,
}

// begin reads the first line of a remark.
func begin(l line) (e Entry, ok bool) {
	for word, bug := range words {
		rest, found := strings.CutPrefix(l.text, word)
		if !found || rest != "" && isLetter(rest[0]) {
			continue
		}
		e = Entry{Bug: bug, Span: source.NewSpan(int(l.at), int(l.at)+len(l.text))}
		if strings.HasPrefix(rest, "(") {
			if end := strings.IndexByte(rest, ')'); end > 0 {
				e.Who, rest = strings.TrimSpace(rest[1:end]), rest[end+1:]
			}
		} else if rest != "" && strings.IndexByte(" :\t-", rest[0]) < 0 {
			continue // "TODO.md", "XXX_name"
		}
		e.Text = strings.TrimLeft(rest, " \t:-")
		return e, true
	}
	return e, false
}

// goesOn reports whether a line says more of the remark before it.
func goesOn(l line) bool {
	if l.text == "" || l.text[0] == '@' || l.text[0] == '\\' {
		return false
	}
	_, begins := begin(l)
	return !begins
}

func isLetter(c byte) bool { return c == '_' || 'a' <= c|0x20 && c|0x20 <= 'z' || '0' <= c && c <= '9' }
