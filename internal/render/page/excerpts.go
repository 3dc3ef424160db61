package page

import (
	"cmp"
	"slices"

	"codrel/internal/excerpt"
	"codrel/internal/link"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// This file makes the pieces of source that guides show.

// excerpt is what the source says now where a fence asks for a piece of it; where that is not
// there, the copy that the fence has.
func (b *Builder) excerpt(n *prose.Node) Block {
	ask, ok, err := excerpt.Read(n.Info)
	out := Block{Kind: Code, Text: n.Text, Info: ask.Language}
	if !ok || err != nil {
		return out
	}
	out.Excerpt = &Excerpt{Name: cmp.Or(ask.Name, ask.File)}
	piece, bad := excerpt.Find(b.Links, ask, n.Text)
	if bad != nil {
		return out
	}
	out.Text, out.Info = piece.Text, cmp.Or(ask.Language, piece.Language)
	out.Excerpt.File, out.Excerpt.Line, out.Excerpt.Source = piece.File, piece.Line, &Target{File: piece.File, Line: piece.Line}
	if d := piece.Declaration; d != nil {
		out.Excerpt.Name, out.Excerpt.To = d.Path(), Declared(d)
	}
	if piece.Source != nil {
		out.Excerpt.Source = InSource(piece.Source, piece.Line)
		out.Marks = b.excerptMarks(piece)
	}
	return out
}

// excerptMarks are the names in a piece that lead somewhere.
func (b *Builder) excerptMarks(p *excerpt.Piece) (out []Mark) {
	f := p.Source
	m := b.Links.ModuleOf(f)
	if m == nil || f.Inside == nil || len(p.Runs) == 0 {
		return nil
	}
	first, last := p.Runs[0].Source.Start, p.Runs[len(p.Runs)-1].Source.End
	add := func(span source.Span, t link.Target) {
		for _, run := range p.Runs {
			if run.Source.Start <= span.Start && span.End <= run.Source.End {
				from := run.At + int(span.Start-run.Source.Start)
				out = append(out, Mark{From: from, To: from + span.Len(), Kind: Link, Target: &Target{Target: t}})
				return
			}
		}
	}
	if uses := b.Links.Uses(m, f); uses != nil {
		for span, i := range uses.All() {
			if span.Start >= last {
				break
			}
			if span.Start >= first {
				add(span, uses.Targets[i])
			}
		}
	}
	for i := range f.Occurrences {
		o := &f.Occurrences[i]
		if o.NameSpan.Start < first || o.NameSpan.Start >= last {
			continue
		}
		if d := m.OfAny(f, o); d != nil && b.Links.InReach(d) && !d.Blank() {
			add(o.NameSpan, link.Target{Declaration: d})
		}
	}
	slices.SortStableFunc(out, func(x, y Mark) int { return cmp.Compare(x.From, y.From) })
	return slices.CompactFunc(out, func(later, before Mark) bool { return later.From < before.To })
}
