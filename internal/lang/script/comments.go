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
	if len(lines)-first == 1 {
		lines = r.tagLines(lines)
	}
	r.lines = lines
	doc := lexing.MakeDoc(r.text, lines[first:len(lines):len(lines)], span)
	if doc == nil {
		r.facts.Empty = append(r.facts.Empty, model.Blank{Span: span})
	}
	return doc
}

// tagLines divides the line of a comment of one line before each block tag in it: to the
// compiler a tag begins wherever a blank stands before it. Only words that are tags
// everywhere count, since a sentence may well have another one in it.
func (r *reader) tagLines(lines []source.Span) []source.Span {
	line := lines[len(lines)-1]
	text := line.In(r.text)
	depth, quoted := 0, false
	for i := 0; i < len(text); i++ {
		switch c := text[i]; {
		case c == '`':
			quoted = !quoted
		case c == '{':
			depth++
		case c == '}':
			depth--
		case c == '@' && i > 0 && text[i-1] == ' ' && depth == 0 && !quoted:
			end := i + 1
			for end < len(text) && inNames[text[end]] {
				end++
			}
			if !inlineTags[text[i+1:end]] || strings.TrimSpace(text[:i]) == "" {
				continue
			}
			last := &lines[len(lines)-1]
			at := line.Start + int32(i)
			for last.End = at; last.End > last.Start && isBlank(r.text[last.End-1]); {
				last.End--
			}
			lines = append(lines, source.Span{Start: at, End: line.End})
		}
	}
	return lines
}

// inlineTags are the tags that end a sentence in comments of one line.
var inlineTags = map[string]bool{
	"abstract": true, "alpha": true, "beta": true, "class": true, "constructor": true, "default": true, "defaultValue": true, "deprecated": true, "experimental": true, "hidden": true, "ignore": true, "internal": true,
	"override": true, "param": true, "private": true, "protected": true, "public": true, "readonly": true, "return": true, "returns": true, "since": true, "static": true,
	"template": true, "throws": true, "type": true, "typeParam": true,
}

// mostLines is how many lines nearly no comment has: there is room for so many
// before one is read.
const mostLines = 32

// docLine is one line without the star before it and the blanks at its end.
func (r *reader) docLine(from, to int32, starred bool) source.Span {
	line := lexing.BlockLine(r.text, from, to, starred, 1)
	if text := line.In(r.text); text != "" && (text[0] == '*' || text[0] == ' ') && strings.Trim(text, "* \t") == "" {
		line.Start = line.End // an ornament
	}
	return line
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

// valueOf is what stands behind a block tag on its line.
func valueOf(text, word string) string {
	for line := range strings.Lines(text) {
		if rest, ok := strings.CutPrefix(strings.TrimSpace(line), "@"+word); ok && (rest == "" || rest[0] == ' ' || rest[0] == '\t') {
			return strings.TrimSpace(rest)
		}
	}
	return ""
}

// access reads "@access private" and the like.
func (r *reader) access(o *model.Occurrence) {
	switch valueOf(o.Doc.Text, "access") {
	case "private":
		o.Visibility = model.Private
	case "protected":
		o.Visibility = max(o.Visibility, model.Protected)
	case "package":
		o.Visibility = max(o.Visibility, model.Internal)
	}
}

// grouped makes "@category" and "@group" the group that a declaration belongs to, unless
// the maintainer named one.
func (r *reader) grouped(list []model.Directive, doc *model.Doc, word string) []model.Directive {
	name := valueOf(doc.Text, word)
	for _, d := range list {
		if d.Verb == "part" {
			return list
		}
	}
	if name == "" {
		return list
	}
	return append(list, model.Directive{Verb: "part", Object: name, Span: doc.Span})
}
