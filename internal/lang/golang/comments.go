package golang

import (
	"go/ast"
	"strings"
	"unicode"
	"unicode/utf8"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file takes comments apart: what is text, what is a directive for a
// tool, and what is a word to Codrel itself.

// doc makes a doc comment of a group, without the markers, and takes the
// "codrel:" lines out of it. The doc is nil where no text is left, as it is
// where a group holds nothing but directives; a group that holds nothing at all
// is kept among the empty ones.
func (r *reader) doc(group *ast.CommentGroup) (*model.Doc, []model.Directive) {
	if group == nil {
		return nil, nil
	}
	var lines []source.Span
	var directives []model.Directive
	tools := false
	for _, c := range group.List {
		start := r.offset(c.Slash)
		if strings.HasPrefix(r.text[start:], "/*") {
			lines = r.blockLines(lines, start)
			continue
		}
		line := r.lineComment(start)
		content := line.In(r.text)
		if d, ok := lexing.ParseDirective(strings.TrimPrefix(content, " "), line); ok {
			directives = append(directives, d)
			continue
		}
		if isDirective(content) {
			tools = true
			continue
		}
		if strings.HasPrefix(content, " ") {
			line.Start++
		}
		lines = append(lines, trimRight(r.text, line))
	}
	doc := lexing.MakeDoc(r.text, lines, r.groupSpan(group))
	if doc == nil && !tools && len(directives) == 0 {
		r.facts.Empty = append(r.facts.Empty, model.Blank{Span: r.groupSpan(group)})
	}
	return doc, directives
}

func (r *reader) docOrTrailing(above, behind *ast.CommentGroup) (*model.Doc, []model.Directive) {
	doc, directives := r.doc(above)
	if behind != nil {
		trailing, more := r.doc(behind)
		if doc == nil {
			doc = trailing
		}
		directives = append(directives, more...)
	}
	return doc, directives
}

// lineComment spans the text of a "//" comment behind the slashes. The end is
// looked for in the text, since the parser counts it without "\r".
func (r *reader) lineComment(start int32) source.Span {
	rest := r.text[start:]
	end := strings.IndexByte(rest, '\n')
	if end < 0 {
		end = len(rest)
	}
	return trimRight(r.text, source.Span{Start: start + 2, End: start + int32(end)})
}

// blockLines appends the lines of a block comment, without its markers.
func (r *reader) blockLines(lines []source.Span, start int32) []source.Span {
	rest := r.text[start+2:]
	end := strings.Index(rest, "*/")
	if end < 0 {
		end = len(rest)
	}
	at, stop := start+2, start+2+int32(end)
	for at < stop && r.text[at] == ' ' { // the blank behind the marker is no indentation
		at++
	}
	for at <= stop {
		next := strings.IndexByte(r.text[at:stop], '\n')
		if next < 0 {
			return append(lines, trimRight(r.text, source.Span{Start: at, End: stop}))
		}
		lines = append(lines, trimRight(r.text, source.Span{Start: at, End: at + int32(next)}))
		at += int32(next) + 1
	}
	return lines
}

func (r *reader) groupSpan(group *ast.CommentGroup) source.Span {
	last := r.offset(group.List[len(group.List)-1].Slash)
	span := source.Span{Start: r.offset(group.Pos()), End: last}
	if strings.HasPrefix(r.text[last:], "/*") {
		if i := strings.Index(r.text[last+2:], "*/"); i >= 0 {
			span.End = last + 2 + int32(i) + 2
			return span
		}
		span.End = int32(len(r.text))
		return span
	}
	span.End = r.lineComment(last).End
	return span
}

func trimRight(text string, s source.Span) source.Span {
	for s.End > s.Start && (text[s.End-1] == ' ' || text[s.End-1] == '\t' || text[s.End-1] == '\r') {
		s.End--
	}
	if s.End < s.Start {
		s.End = s.Start
	}
	return s
}

// isDirective reports whether the text behind "//" is a directive to a tool:
// "//line", "//extern", "//export", or "//name:argument" without a blank
// (Go's doc comment reference, "directives").
func isDirective(c string) bool {
	if strings.HasPrefix(c, "line ") || strings.HasPrefix(c, "extern ") || strings.HasPrefix(c, "export ") {
		return true
	}
	colon := strings.IndexByte(c, ':')
	if colon <= 0 || colon+1 >= len(c) {
		return false
	}
	for i := 0; i <= colon+1; i++ {
		if i != colon && !('a' <= c[i] && c[i] <= 'z' || '0' <= c[i] && c[i] <= '9') {
			return false
		}
	}
	return true
}

// deprecates reports whether a paragraph of the text begins with "Deprecated:".
func deprecates(text string) bool {
	const word = "Deprecated:"
	for at := 0; ; {
		i := strings.Index(text[at:], word)
		if i < 0 {
			return false
		}
		i += at
		if i == 0 || strings.HasSuffix(text[:i], "\n\n") {
			return true
		}
		at = i + len(word)
	}
}

// strays finds top-level comments that read like the doc comment of the next
// declaration, which has none, but are cut off from it by an empty line.
func (r *reader) strays(tree *ast.File) {
	if tree.Name != nil && tree.Doc == nil {
		r.strayPackageComment(tree)
	}
	next := 0
	for _, group := range tree.Comments {
		if group.Pos() < tree.Name.End() {
			continue
		}
		for next < len(tree.Decls) && tree.Decls[next].Pos() < group.Pos() {
			next++
		}
		if next == len(tree.Decls) {
			return
		}
		name := undocumentedName(tree.Decls[next])
		// A comment inside the declaration before this one describes nothing at the top level.
		if name == nil || next > 0 && group.Pos() < tree.Decls[next-1].End() {
			continue
		}
		r.strayBefore(group, name)
	}
}

func (r *reader) strayBefore(group *ast.CommentGroup, name *ast.Ident) {
	first := group.List[0].Text
	if len(first) < 3 || !beginsWithName(strings.TrimLeft(first[2:], " \t\r\n"), name.Name) {
		return
	}
	r.facts.Stray = append(r.facts.Stray, model.Stray{Span: r.groupSpan(group), Name: r.ident(name), Because: "empty line"})
}

func (r *reader) strayPackageComment(tree *ast.File) {
	for _, group := range tree.Comments {
		if group.Pos() > tree.Package {
			return
		}
		first := group.List[0].Text
		if len(first) > 2 && beginsWithName(strings.TrimLeft(first[2:], " \t\r\n"), "Package "+tree.Name.Name) {
			r.facts.Stray = append(r.facts.Stray, model.Stray{Span: r.groupSpan(group), Name: "package " + r.facts.Package, Because: "empty line"})
			return
		}
	}
}

func beginsWithName(text, name string) bool {
	rest, ok := strings.CutPrefix(text, name)
	if !ok {
		return false
	}
	next, _ := utf8.DecodeRuneInString(rest)
	return rest == "" || !unicode.IsLetter(next) && !unicode.IsDigit(next) && next != '_' && next != '.'
}

// undocumentedName is the name that a declaration without a comment declares
// first, or nil where it has a comment or no name.
func undocumentedName(d ast.Decl) *ast.Ident {
	switch d := d.(type) {
	case *ast.FuncDecl:
		if d.Doc == nil {
			return d.Name
		}
	case *ast.GenDecl:
		if d.Doc != nil || len(d.Specs) == 0 || d.Lparen.IsValid() {
			return nil
		}
		switch s := d.Specs[0].(type) {
		case *ast.TypeSpec:
			return s.Name
		case *ast.ValueSpec:
			return s.Names[0]
		}
	}
	return nil
}
