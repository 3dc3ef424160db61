package script

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file makes doc comments of "/**" blocks.

// doc makes a doc comment without its markers, or nil where no word is left.
func (r *reader) doc(span source.Span) *model.Doc {
	if span.Empty() {
		return nil
	}
	from, to := span.Start+3, span.End-2
	if !strings.HasSuffix(span.In(r.text), "*/") {
		to = span.End
	}
	lines := r.lines
	if cap(lines)-len(lines) < mostLines {
		lines = make([]source.Span, 0, 8*mostLines)
	}
	first := len(lines)
	for at := from; at <= to; {
		end := to
		if i := strings.IndexByte(r.text[at:to], '\n'); i >= 0 {
			end = at + int32(i)
		}
		lines = append(lines, r.docLine(at, end, len(lines) > first))
		at = end + 1
	}
	r.lines = lines
	doc := lexing.MakeDoc(r.text, lines[first:len(lines):len(lines)], span)
	if doc == nil {
		r.facts.Empty = append(r.facts.Empty, model.Blank{Span: span})
	}
	return doc
}

// mostLines is how many lines nearly no comment has: there is room for so many
// before one is read.
const mostLines = 32

// docLine is one line without the star before it and the blanks at its end.
func (r *reader) docLine(from, to int32, starred bool) source.Span {
	for to > from && isBlank(r.text[to-1]) {
		to--
	}
	at := from
	for at < to && (r.text[at] == ' ' || r.text[at] == '\t') {
		at++
	}
	if starred && at < to && r.text[at] == '*' {
		from = at + 1
		if from < to && r.text[from] == ' ' {
			from++
		}
	} else if !starred {
		from = at
	}
	if from < to && (r.text[from] == '*' || r.text[from] == ' ') && strings.Trim(r.text[from:to], "* \t") == "" {
		from = to // an ornament
	}
	return source.Span{Start: min(from, to), End: to}
}

// tags yields the words of the block tags in a comment: those that begin a line.
func tags(text string, yield func(word string)) {
	for at := 0; ; {
		i := strings.IndexByte(text[at:], '@')
		if i < 0 {
			return
		}
		i += at
		end := i + 1
		for end < len(text) && inNames[text[end]] {
			end++
		}
		at = end
		start := i
		for start > 0 && (text[start-1] == ' ' || text[start-1] == '\t') {
			start--
		}
		if start == 0 || text[start-1] == '\n' {
			yield(text[i+1 : end])
		}
	}
}

// aboutFile reports whether a comment speaks of the whole file.
func aboutFile(text string) bool {
	about := false
	tags(text, func(word string) {
		switch word {
		case "file", "fileoverview", "overview", "module", "packageDocumentation", "license", "copyright":
			about = true
		}
	})
	return about
}
