package python

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads docstrings: a statement that is nothing but a string, the
// first of a module, class or function (PEP 257), or right behind an assignment.

// docstring reads the string that a statement at an offset consists of, and
// returns the offset behind it. ok is false where it is another statement. A
// string without a word counts, and gives no comment.
func (r *reader) docstring(at int) (doc *model.Doc, end int, ok bool) {
	if at >= len(r.text) {
		return nil, at, false
	}
	if c := r.text[at]; c != '"' && c != '\'' && c != '(' && !startsName(c) {
		return nil, at, false
	}
	brackets := 0
	for at < len(r.text) && r.text[at] == '(' {
		brackets++
		at = r.blanks(at+1, true)
	}
	var lines []source.Span
	start, escaped := at, false
	for at < len(r.text) {
		open, raw, isText := r.stringPrefix(at)
		if !isText {
			break
		}
		stop, closed := r.plainString(open)
		if !closed {
			return nil, at, false
		}
		quotes := 1
		if r.triple(open) {
			quotes = 3
		}
		lines = r.docLines(lines, open+quotes, max(open+quotes, stop-quotes), raw)
		escaped = escaped || !raw
		end = stop
		at = r.blanks(stop, brackets > 0)
	}
	if end == 0 {
		return nil, at, false
	}
	for ; brackets > 0; brackets-- {
		if at >= len(r.text) || r.text[at] != ')' {
			return nil, at, false
		}
		at = r.blanks(at+1, brackets > 1)
	}
	if at < len(r.text) && strings.IndexByte("\n#;", r.text[at]) < 0 {
		return nil, at, false
	}
	span := source.NewSpan(start, end)
	doc = lexing.MakeDoc(r.text, lines, span)
	if doc == nil {
		r.facts.Empty = append(r.facts.Empty, model.Blank{Span: span, Inside: true})
	} else {
		doc.Escaped = escaped && strings.Contains(doc.Text, "\\")
	}
	return doc, at, true
}

// stringPrefix finds the opening quote of a string that can be a docstring:
// neither bytes nor a formatted string.
func (l *lexer) stringPrefix(at int) (open int, raw, ok bool) {
	for open = at; open < len(l.text) && open <= at+2; open++ {
		switch l.text[open] {
		case '"', '\'':
			return open, raw, true
		case 'r', 'R':
			raw = true
		case 'u', 'U':
		default:
			return open, false, false
		}
	}
	return open, false, false
}

// docLines appends the lines of a string without what the lines behind the first
// are all indented by (PEP 257, "Handling Docstring Indentation").
func (r *reader) docLines(lines []source.Span, from, to int, raw bool) []source.Span {
	first := len(lines)
	for at := from; ; {
		end := strings.IndexByte(r.text[at:to], '\n')
		if end < 0 {
			lines = append(lines, source.NewSpan(at, to))
			break
		}
		lines = append(lines, source.NewSpan(at, at+end))
		at += end + 1
	}
	margin := -1
	for i := first; i < len(lines); i++ {
		l := &lines[i]
		for l.End > l.Start && isBlank(r.text[l.End-1]) {
			l.End--
		}
		if !raw && i == first && i+1 < len(lines) && strings.TrimSpace(l.In(r.text)) == "\\" {
			l.End = l.Start // the text begins on the next line
		}
		if i == first {
			for l.Start < l.End && isBlank(r.text[l.Start]) {
				l.Start++
			}
			continue
		}
		if column, at := r.indentation(int(l.Start)); at < int(l.End) && (margin < 0 || column < margin) {
			margin = column
		}
	}
	for i := first + 1; i < len(lines); i++ {
		lines[i].Start = r.behindMargin(lines[i], margin)
	}
	return lines
}

// behindMargin is the offset behind the first columns of a line.
func (r *reader) behindMargin(l source.Span, margin int) int32 {
	column := 0
	for l.Start < l.End && column < margin && isBlank(r.text[l.Start]) {
		if r.text[l.Start] == '\t' {
			column = (column/tabWidth + 1) * tabWidth
		} else {
			column++
		}
		l.Start++
	}
	return l.Start
}

// underlines reports whether a text has a line of dashes below another: a section begins.
func underlines(text string) bool {
	for at := 0; ; {
		i := strings.Index(text[at:], "\n---")
		if i < 0 {
			return false
		}
		i += at + 1
		at = i
		line, _, _ := strings.Cut(text[i:], "\n")
		if strings.Trim(line, "- \r") == "" && i > 1 && text[i-2] != '\n' {
			return true
		}
	}
}

// deprecates reports whether a docstring says that its subject is deprecated, by
// the directive or by a line that begins with the word. What stands deeper, or in a
// section of the docstring, speaks of a part of the subject.
func deprecates(text string) bool {
	for at := 0; ; {
		i := strings.Index(text[at:], "eprecated")
		if i < 0 {
			return false
		}
		i += at
		at = i + len("eprecated")
		start := strings.LastIndexByte(text[:i], '\n') + 1
		line := text[start:i]
		if line == "" || line[0] == ' ' || line[0] == '\t' || underlines(text[:start]) {
			continue
		}
		rest := text[at:]
		switch {
		case line == ".. d" && strings.HasPrefix(rest, "::"),
			(line == "D" || line == "@d" || line == ":d") && strings.HasPrefix(rest, ":"):
			return true
		case line == "D" && (strings.HasPrefix(rest, "\n---") || strings.HasPrefix(rest, " since ")):
			return true
		}
	}
}
