package parts

import (
	"codrel/internal/model"
	"codrel/internal/source"
)

// sound reports whether facts fit their text: whoever works on facts takes for granted
// that what they point at is there.
func sound(f *model.Facts) bool {
	s := soundness{text: f.Text, whole: true}
	s.doc(f.ModuleDoc)
	s.doc(f.LibraryDoc)
	s.spans(f.ModuleSpan)
	for _, m := range f.Modules {
		s.doc(m.Doc)
		s.spans(m.Whole)
	}
	for _, g := range f.Given {
		s.tokens(g.Of)
		s.tokens(g.Bounds)
		s.tokens(g.Base.Type)
		s.spans(g.Base.Span)
	}
	for _, c := range f.Classes {
		s.spans(c.Span)
	}
	for _, a := range f.About {
		s.doc(a.Doc)
		s.spans(a.Span)
	}
	for _, g := range f.Groups {
		s.doc(g.Doc)
	}
	for _, l := range f.ExportList {
		s.spans(l.Span)
	}
	s.directives(f.Directives)
	for i := range f.Occurrences {
		o := &f.Occurrences[i]
		s.whole = s.whole && o.Parent >= -1 && int(o.Parent) < len(f.Occurrences)
		s.occurrence(o)
	}
	s.whole = s.whole && !circle(f.Occurrences) // in this order: a circle is looked for among parents that are there
	for i := range f.Imports {
		s.doc(f.Imports[i].Doc)
		s.spans(f.Imports[i].Span)
	}
	for _, stray := range f.Stray {
		s.spans(stray.Span)
	}
	for _, blank := range f.Empty {
		s.spans(blank.Span)
	}
	if f.Inside != nil {
		s.spans(f.Inside.Bodies...)
		for use := range f.Inside.Uses.All() {
			s.spans(use.Span)
			if use.Form >= model.UseMember {
				s.spans(use.Type)
			}
		}
	}
	return s.whole
}

// circle reports whether an occurrence stands in itself. Its parents are all in the list.
func circle(list []model.Occurrence) bool {
	clear := make([]bool, len(list)) // of circles
	for i := range list {
		steps := 0
		for at := int32(i); at >= 0 && !clear[at]; at = list[at].Parent {
			if steps++; steps > len(list) {
				return true
			}
		}
		for at := int32(i); at >= 0 && !clear[at]; at = list[at].Parent {
			clear[at] = true
		}
	}
	return false
}

// soundness looks at all that facts point at.
type soundness struct {
	text  string
	whole bool
}

func (s *soundness) spans(list ...source.Span) {
	for _, span := range list {
		s.whole = s.whole && span.Start >= 0 && span.Start <= span.End && int(span.End) <= len(s.text)
	}
}

func (s *soundness) tokens(list ...model.Tokens) {
	for _, t := range list {
		s.whole = s.whole && t.Sound(len(s.text))
	}
}

// doc looks at a comment: each line of its text has a place.
func (s *soundness) doc(doc *model.Doc) {
	if doc == nil {
		return
	}
	s.spans(doc.Span)
	s.spans(doc.Lines...)
	lines := 1
	for i := range len(doc.Text) {
		if doc.Text[i] == '\n' {
			lines++
		}
	}
	s.whole = s.whole && len(doc.Lines) >= lines
}

func (s *soundness) directives(list []model.Directive) {
	for _, d := range list {
		s.spans(d.Span)
	}
}

func (s *soundness) params(list []model.Param) {
	for _, p := range list {
		s.tokens(p.Type)
		s.spans(p.Default)
	}
}

func (s *soundness) failures(list []model.Failure) {
	for _, f := range list {
		s.spans(f.Span)
	}
}

func (s *soundness) occurrence(o *model.Occurrence) {
	s.spans(o.NameSpan, o.Span)
	s.tokens(o.Signature)
	s.doc(o.Doc)
	s.doc(o.GroupDoc)
	s.whole = s.whole && o.Kind.Known()
	if c := o.Callable; c != nil {
		s.params(c.Params)
		s.params(c.Results)
		s.tokens(c.Receiver)
		s.failures(c.Fails())
	}
	if e := o.Extra; e != nil {
		s.params(e.TypeParams)
		for _, b := range e.Bases {
			s.tokens(b.Type)
			s.spans(b.Span)
		}
		s.directives(e.Directives)
		s.failures(e.Failures)
		s.doc(e.Advice)
	}
}
