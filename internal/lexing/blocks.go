package lexing

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// BlockDoc makes a doc comment of a comment in "/**" and "*/", or of lines that each begin
// with the same mark, such as "///": without its marks, and without the blanks and stars
// before each line. It is nil where no word is left.
func BlockDoc(text string, span source.Span) *model.Doc {
	whole := span.In(text)
	if !strings.HasPrefix(whole, "/*") {
		return LineDoc(text, span, false)
	}
	from, to := span.Start+2, span.End
	for from < to && text[from] == '*' {
		from++
	}
	if strings.HasSuffix(whole, "*/") {
		for to -= 2; to > from && text[to-1] == '*'; to-- {
		}
	}
	to = max(from, to)
	return MakeDoc(text, BlockLines(text, from, to, len(text)), span)
}

// BlockLines are the lines between two offsets of such a comment, each as [BlockLine] has it.
func BlockLines(text string, from, to int32, most int) []source.Span {
	lines := make([]source.Span, 0, 1+strings.Count(text[from:to], "\n"))
	for at := from; at <= to; {
		end := to
		if i := strings.IndexByte(text[at:to], '\n'); i >= 0 {
			end = at + int32(i)
		}
		lines = append(lines, BlockLine(text, at, end, at > from, most))
		at = end + 1
	}
	return lines
}

// BlockLine is one line of such a comment without the blanks at its end and, but for the
// first line, the stars before it: as many as stand in a row, up to a number.
func BlockLine(text string, from, to int32, starred bool, most int) source.Span {
	for to > from && strings.IndexByte(" \t\r\v\f", text[to-1]) >= 0 {
		to--
	}
	at := from
	for at < to && (text[at] == ' ' || text[at] == '\t') {
		at++
	}
	switch {
	case starred && at < to && text[at] == '*':
		for from = at; from < to && text[from] == '*' && int(from-at) < most; from++ {
		}
		if from < to && text[from] == ' ' {
			from++
		}
	case !starred:
		from = at
	}
	return source.Span{Start: min(from, to), End: to}
}

// LineDoc is the text of lines that begin with the same mark of slashes, behind which "<" stands
// where they speak of what is before them.
func LineDoc(text string, span source.Span, behind bool) *model.Doc {
	lines := make([]source.Span, 0, 1+strings.Count(span.In(text), "\n"))
	for at := span.Start; at <= span.End; {
		end := span.End
		if i := strings.IndexByte(text[at:span.End], '\n'); i >= 0 {
			end = at + int32(i)
		}
		from, to := at, end
		for from < to && (text[from] == ' ' || text[from] == '\t') {
			from++
		}
		for from < to && strings.IndexByte("/!", text[from]) >= 0 {
			from++
		}
		if behind && from < to && text[from] == '<' {
			from++
		}
		if from < to && text[from] == ' ' {
			from++
		}
		for to > from && strings.IndexByte(" \t\r", text[to-1]) >= 0 {
			to--
		}
		lines = append(lines, source.Span{Start: from, End: to})
		at = end + 1
	}
	return MakeDoc(text, lines, span)
}
