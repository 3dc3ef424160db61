// Package lexing is the toolkit that front ends share. A [Stream] is what one pass over a
// text gives: tokens, the partner of each bracket, and the pieces that are coloured; front
// ends of languages that descend from C fill it by a [Shape], which says as data what they
// write strings and comments with. [Names] finds what code in functions means by its names.
// Doc comments are made out of spans, and the words to Codrel that stand in comments read.
//
// It knows characters and spans, and no language.
package lexing

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// MakeDoc makes a doc comment of the lines of a text. Empty lines at both ends
// are dropped; nil means that nothing is left.
func MakeDoc(text string, lines []source.Span, whole source.Span) *model.Doc {
	for len(lines) > 0 && blank(lines[0].In(text)) {
		lines = lines[1:]
	}
	for len(lines) > 0 && blank(lines[len(lines)-1].In(text)) {
		lines = lines[:len(lines)-1]
	}
	if len(lines) == 0 {
		return nil
	}
	if len(lines) == 1 {
		return &model.Doc{Text: lines[0].In(text), Lines: lines, Span: whole}
	}
	size := len(lines) - 1
	for _, l := range lines {
		size += l.Len()
	}
	var b strings.Builder
	b.Grow(size)
	for i, l := range lines {
		if i > 0 {
			b.WriteByte('\n')
		}
		b.WriteString(l.In(text))
	}
	return &model.Doc{Text: b.String(), Lines: lines, Span: whole}
}

func blank(s string) bool { return strings.TrimSpace(s) == "" }

// directiveWord begins a comment line that speaks to Codrel.
const directiveWord = "codrel:"

// ParseDirective reads a comment line such as "codrel: let RULE pass, REASON".
// ok is false where the line is an ordinary one.
func ParseDirective(line string, span source.Span) (d model.Directive, ok bool) {
	rest, ok := strings.CutPrefix(line, directiveWord)
	if !ok {
		return model.Directive{}, false
	}
	d = model.Directive{Span: span}
	d.Verb, rest, _ = strings.Cut(strings.TrimSpace(rest), " ")
	rest = strings.TrimSpace(rest)
	if d.Verb != "let" {
		d.Object = rest
		return d, true
	}
	head, reason, _ := strings.Cut(rest, ",")
	rule, _ := strings.CutSuffix(strings.TrimSpace(head), " pass")
	d.Object, d.Reason = strings.TrimSpace(rule), strings.TrimSpace(reason)
	return d, true
}

// JoinDocs is a comment that goes on in another one, behind an empty line; either may be nil.
func JoinDocs(a, b *model.Doc) *model.Doc {
	switch {
	case a == nil:
		return b
	case b == nil:
		return a
	}
	between := source.Span{Start: b.Span.Start, End: b.Span.Start}
	return &model.Doc{Text: a.Text + "\n\n" + b.Text, Lines: slices.Concat(a.Lines, []source.Span{between}, b.Lines), Span: a.Span}
}
