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
	var lines []source.Span
	for at := from; at <= to; {
		end := to
		if i := strings.IndexByte(r.text[at:to], '\n'); i >= 0 {
			end = at + int32(i)
		}
		lines = append(lines, r.docLine(at, end, len(lines) > 0))
		at = end + 1
	}
	doc := lexing.MakeDoc(r.text, lines, span)
	if doc == nil {
		r.facts.Empty = append(r.facts.Empty, model.Blank{Span: span})
	}
	return doc
}

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
	if strings.Trim(r.text[min(from, to):to], "* \t") == "" {
		from = to // an ornament
	}
	return source.Span{Start: min(from, to), End: to}
}

// hasTag reports whether a line of a comment begins with a block tag.
func hasTag(text, tag string) bool {
	for at := 0; ; {
		i := strings.Index(text[at:], "@"+tag)
		if i < 0 {
			return false
		}
		i += at
		at = i + 1 + len(tag)
		before := strings.TrimLeft(text[strings.LastIndexByte(text[:i], '\n')+1:i], " \t")
		if before == "" && (at == len(text) || !inNames[text[at]]) {
			return true
		}
	}
}

// aboutFile reports whether a comment speaks of the whole file.
func aboutFile(text string) bool {
	for _, tag := range []string{"file", "fileoverview", "overview", "module", "packageDocumentation", "license", "copyright"} {
		if hasTag(text, tag) {
			return true
		}
	}
	return false
}
