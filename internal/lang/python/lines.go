package python

import (
	"strings"

	"codrel/internal/source"
)

// This file goes through logical lines ("Logical lines" and "Indentation" in
// the language reference).

// tabWidth is what a tab rounds the column up to.
const tabWidth = 8

// indentation is the column of the first byte of a line that is no blank, and its offset.
func (l *lexer) indentation(at int) (column, first int) {
	for at < len(l.text) {
		switch l.text[at] {
		case ' ':
			column++
		case '\t':
			column = (column/tabWidth + 1) * tabWidth
		case '\f':
			column = 0
		case '\r':
		default:
			return column, at
		}
		at++
	}
	return column, at
}

// next goes to the next line that holds a statement and returns its column. The
// comments right above it are kept. ok is false at the end of the text.
func (r *reader) next() (column int, ok bool) {
	r.above = r.above[:0]
	aboveColumn := 0
	defer func() {
		if column != aboveColumn {
			r.above = r.above[:0]
		}
	}()
	for r.at < len(r.text) {
		column, first := r.indentation(r.at)
		if first == len(r.text) {
			break
		}
		switch r.text[first] {
		case '\n':
			r.above = r.above[:0]
			r.at = first + 1
			continue
		case '#':
			if end := len(r.above); end > 0 && column != aboveColumn {
				r.above = r.above[:0]
			}
			aboveColumn = column
			end := r.endOfLine(first)
			r.above = append(r.above, source.NewSpan(first, end))
			r.at = min(end+1, len(r.text))
			continue
		case '\\':
			if next, joined := r.continued(first); joined {
				if r.at = r.blanks(next, false); r.at < len(r.text) && r.text[r.at] != '\n' {
					return column, true
				}
				continue
			}
		}
		r.at = first
		return column, true
	}
	r.at = len(r.text)
	return 0, false
}

// logicalEnd is the offset behind the logical line that an offset is in.
func (r *reader) logicalEnd(at int) int {
	text, depth, opened := r.text, 0, at
	for at < len(text) {
		class := bytesOfLines[text[at]]
		for class == plain {
			if at++; at == len(text) {
				break
			}
			class = bytesOfLines[text[at]]
		}
		switch class {
		case plain:
		case lineEnd:
			at++
			if depth == 0 {
				return at
			}
			if r.definitionAt(at) {
				r.problem(opened, "this bracket is not closed")
				return at
			}
		case comment:
			at = r.endOfLine(at)
		case quote:
			at = r.string(at)
		case opening:
			if depth == 0 {
				opened = at
			}
			depth++
			at++
		case closing:
			depth = r.close(at, depth)
			at++
		case backslash:
			at, _ = r.continued(at)
		}
	}
	if depth > 0 {
		r.problem(opened, "this bracket is not closed")
	}
	return at
}

// lineStart is the offset of the first byte of the line that an offset is in.
func (l *lexer) lineStart(at int) int { return strings.LastIndexByte(l.text[:at], '\n') + 1 }

func (r *reader) close(at, depth int) int {
	if depth == 0 {
		r.problem(at, "this bracket closes nothing")
		return 0
	}
	return depth - 1
}

// string is the offset behind a string, whose end it complains of where there is none.
func (r *reader) string(at int) int {
	end, closed := r.stringEnd(at)
	if !closed {
		r.problem(at, "this string is not closed")
	}
	return end
}

// definitionAt reports whether the line that begins at an offset can only be the
// start of a definition: those words cannot stand at the start of a line within
// brackets, so that a bracket above it was never closed.
func (r *reader) definitionAt(at int) bool {
	if at+3 < len(r.text) && strings.IndexByte(" \tdca", r.text[at]) < 0 {
		return false
	}
	for at < len(r.text) && (r.text[at] == ' ' || r.text[at] == '\t') {
		at++
	}
	if at == len(r.text) {
		return false
	}
	switch r.text[at] {
	case 'd':
		return r.definesAt(at, "def ")
	case 'c':
		return r.definesAt(at, "class ")
	case 'a':
		return r.definesAt(at, "async def ")
	}
	return false
}

// runsInto reports whether a definition begins at an offset, on a line of its own:
// what was read before it was never closed.
func (r *reader) runsInto(at int) bool {
	return r.definitionAt(at) && strings.Trim(r.text[r.lineStart(at):at], " \t\f\r") == ""
}

func (r *reader) definesAt(at int, words string) bool {
	if !strings.HasPrefix(r.text[at:], words) {
		return false
	}
	name := at + len(words)
	end := r.nameEnd(name)
	return end > name && end < len(r.text) && strings.IndexByte("(:[ ", r.text[end]) >= 0
}

// statement is what a scan over one simple or compound statement finds.
type statement struct {
	stop      int   // where its text ends: at a line end, comment or semicolon
	end       int   // behind the line end or semicolon
	colon     int   // the first at depth 0, or -1
	equals    []int // signs of assignment at depth 0
	comment   int   // the last comment on it, or -1
	augmented bool
	more      bool // another statement follows on the line
}

// scan looks through the statement at an offset. With header set it ends behind
// the colon that ends a header.
func (r *reader) scan(at int, header bool) statement {
	s := statement{colon: -1, comment: -1}
	text, depth, opened, lambdas := r.text, 0, at, 0
	for at < len(text) {
		c := text[at]
		class := bytesOfStatements[c]
		if depth > 0 && class >= equals {
			at++
			continue
		}
		switch class {
		case lineEnd:
			if depth == 0 {
				s.stop, s.end = stopBefore(s, at), at+1
				return s
			}
			if r.definitionAt(at + 1) {
				r.problem(opened, "this bracket is not closed")
				s.stop, s.end = at, at+1
				return s
			}
			at++
		case comment:
			s.comment = at
			s.stop = at
			at = r.endOfLine(at)
			if depth > 0 {
				s.comment = -1
			}
		case quote:
			at = r.string(at)
		case opening:
			if depth == 0 {
				opened = at
			}
			depth++
			at++
		case closing:
			depth = r.close(at, depth)
			at++
		case backslash:
			at, _ = r.continued(at)
		case equals:
			at = r.equalsSign(&s, at, lambdas > 0)
		case colon:
			switch {
			case lambdas > 0:
				lambdas--
			case at+1 < len(text) && text[at+1] == '=':
				at++
			case s.colon < 0 && len(s.equals) == 0:
				s.colon = at
				if header {
					s.stop, s.end = at, at+1
					return s
				}
			}
			at++
		case semicolon:
			s.stop, s.end, s.more = at, at+1, true
			return s
		case letterL:
			if at > 0 && inNames[text[at-1]] || !r.wordAt(at, "lambda") {
				at++
				continue
			}
			lambdas++
			at += len("lambda")
		default:
			at++
		}
	}
	if depth > 0 {
		r.problem(opened, "this bracket is not closed")
	}
	s.stop, s.end = stopBefore(s, at), at
	return s
}

// stopBefore is where the text of a statement ends whose line ends at an offset.
func stopBefore(s statement, at int) int {
	if s.comment >= 0 {
		return s.comment
	}
	return at
}

// equalsSign tells a sign of assignment from comparisons and returns the offset behind it.
func (r *reader) equalsSign(s *statement, at int, inLambda bool) int {
	if at+1 < len(r.text) && r.text[at+1] == '=' {
		return at + 2
	}
	before := byte(0)
	if at > 0 {
		before = r.text[at-1]
	}
	switch {
	case inLambda:
	case strings.IndexByte("+-*/%&|^@", before) >= 0, strings.IndexByte("<>", before) >= 0 && at > 1 && r.text[at-2] == before:
		s.augmented = true
	case strings.IndexByte("<>!", before) >= 0:
	default:
		s.equals = append(s.equals, at)
	}
	return at + 1
}

// trimmed is a span without the blanks at its ends.
func (l *lexer) trimmed(from, to int) (int, int) {
	for from < to && isBlank(l.text[from]) {
		from++
	}
	for to > from && isBlank(l.text[to-1]) {
		to--
	}
	return from, max(from, to)
}

func isBlank(c byte) bool { return c == ' ' || c == '\t' || c == '\r' || c == '\n' || c == '\f' }
