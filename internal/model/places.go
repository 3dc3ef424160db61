package model

import (
	"sort"
	"strings"

	"codrel/internal/source"
)

// Places tells where the offsets of a comment's text stand in the file.
type Places struct {
	doc    *Doc
	starts []int // of the lines of the text
}

// Places finds the lines of the comment's text.
func (d *Doc) Places() Places {
	starts := append(make([]int, 0, len(d.Lines)+1), 0)
	for at := 0; ; {
		i := strings.IndexByte(d.Text[at:], '\n')
		if i < 0 {
			return Places{d, starts}
		}
		at += i + 1
		starts = append(starts, at)
	}
}

// Starts are the offsets at which the lines of the text begin.
func (p *Places) Starts() []int { return p.starts }

// At is where an offset of the text stands in the file.
func (p *Places) At(offset int) int32 {
	if len(p.doc.Lines) == 0 {
		return p.doc.Span.Start
	}
	i := min(sort.SearchInts(p.starts, offset+1)-1, len(p.doc.Lines)-1)
	line := p.doc.Lines[i]
	return min(line.Start+int32(offset-p.starts[i]), max(line.Start, line.End)) // text that was taken from elsewhere may be longer
}

// Span is where a piece of the text stands in the file.
func (p *Places) Span(from, to int) source.Span {
	start := p.At(from)
	if to <= from {
		return source.Span{Start: start, End: start}
	}
	return source.Span{Start: start, End: max(start, p.At(to-1)+1)}
}

// Replaced is the comment with another text in place of a piece of its own. What stands in
// that has the piece's place in the file.
func (d *Doc) Replaced(from, to int, text string) *Doc {
	p := d.Places()
	first := sort.SearchInts(p.starts, from+1) - 1
	last := sort.SearchInts(p.starts, to+1) - 1
	out := *d
	out.Text = d.Text[:from] + text + d.Text[to:]
	if len(d.Lines) <= last {
		return &out
	}
	piece := source.Span{Start: p.At(from), End: max(p.At(from), p.At(to))}
	out.Lines = append([]source.Span{}, d.Lines[:first]...)
	for i := 0; i <= strings.Count(text, "\n"); i++ {
		line := piece
		if i == 0 {
			line.Start = d.Lines[first].Start
		}
		out.Lines = append(out.Lines, line)
	}
	out.Lines[len(out.Lines)-1].End = max(out.Lines[len(out.Lines)-1].End, d.Lines[last].End)
	out.Lines = append(out.Lines, d.Lines[last+1:]...)
	return &out
}
