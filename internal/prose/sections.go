package prose

import "codrel/internal/source"

// Sections is a doc comment, taken apart.
type Sections struct {
	Body       []Node // everything but the sections below
	Deprecated []Node // the advice of a deprecation, blocks
	Parts      []Part
	Flaws      []Flaw
	Type       []Node   // what the comment says of its subject's type, inline
	Words      []string // by which readers may look for its subject besides
	Marks      []string // what the comment says of its subject in one word, each one of Marks
	// Obsolete is set where the comment says that its subject is deprecated, also
	// where it gives no advice.
	Obsolete bool
}

// Marks are the words that say something of a declaration which its signature may
// not, in the order that pages show them.
var Marks = []string{"abstract", "static", "readonly", "async", "generator", "override", "final", "sealed", "event", "experimental", "alpha", "beta"}

// All are the nodes of every section, for walks that look at each reference.
func (s *Sections) All(yield func([]Node) bool) {
	if !yield(s.Body) || !yield(s.Deprecated) || !yield(s.Type) {
		return
	}
	for i := range s.Parts {
		p := &s.Parts[i]
		for j := range p.Entries {
			if !yield(p.Entries[j].Type) || !yield(p.Entries[j].Text) {
				return
			}
		}
		if !yield(p.Body) {
			return
		}
	}
}

// Of yields the parts of a kind.
func (s *Sections) Of(kind PartKind) []*Part {
	var out []*Part
	for i := range s.Parts {
		if s.Parts[i].Kind == kind {
			out = append(out, &s.Parts[i])
		}
	}
	return out
}

// Missing is as much of a part of another comment as this one does not say itself; ok is false
// where that is nothing. Examples, notes and the like are no part of it.
func (s *Sections) Missing(p *Part) (out Part, ok bool) {
	if p.Kind > Failures || p.Kind == Results && len(s.Of(Results)) > 0 {
		return Part{}, false
	}
	out = *p
	out.Entries = nil
	if len(s.Of(p.Kind)) > 0 {
		out.Body = nil
	}
	for _, e := range p.Entries {
		if s.Entry(p.Kind, e.Name) == nil {
			out.Entries = append(out.Entries, e)
		}
	}
	return out, len(out.Entries) > 0 || len(out.Body) > 0
}

// Gather is the section of a kind and title, which is made where there is none yet.
func (s *Sections) Gather(kind PartKind, title string, span source.Span) *Part {
	for i := range s.Parts {
		if p := &s.Parts[i]; p.Kind == kind && p.Title == title {
			return p
		}
	}
	s.Parts = append(s.Parts, Part{Kind: kind, Title: title, Span: span})
	return &s.Parts[len(s.Parts)-1]
}

// Enter adds an entry to the section of its kind. The second one on the same parameter, or
// the second result, is a flaw besides; what of a failure is said twice may be two cases.
func (s *Sections) Enter(kind PartKind, span source.Span, e Entry) {
	part := s.Gather(kind, "", span)
	if kind == Parameters || kind == TypeParameters || kind == Results {
		for i := range part.Entries {
			if i == mostCompared {
				break
			}
			if part.Entries[i].Name == e.Name {
				text := e.Name
				if kind == Results {
					text = "the result"
				}
				s.Flaws = append(s.Flaws, Flaw{Kind: RepeatedSection, Span: e.Span, Text: text})
				break
			}
		}
	}
	part.Entries = append(part.Entries, e)
}

// mostCompared is how many entries a further one is compared with.
const mostCompared = 200

// PartKind tells what a named section is about.
type PartKind uint8

// The kinds of named sections, in the order that pages show them.
const (
	TypeParameters PartKind = iota
	Parameters
	Results
	Series // values that are given one after the other
	Failures
	Warnings // that calling may raise
	Fields   // attributes, properties
	Notes
	Caution
	Examples
	SeeAlso
	Since
	Other   // under a title of the comment's own
	Authors // in the margin
	Version // in the margin: of what the subject is in now
)

// PartNames are the names of the kinds of sections, as texts are looked up by.
var PartNames = [...]string{
	"type-parameters", "parameters", "results", "series", "failures", "warnings", "fields", "notes", "caution", "examples", "see-also", "since", "other", "author", "version",
}

// Part is one named section.
type Part struct {
	Kind    PartKind
	Title   string      // as written
	Span    source.Span // of the word that names it
	Entries []Entry
	Body    []Node // what is said without entries
}

// Entry describes one parameter, result, failure or field.
type Entry struct {
	Name     string // as written, a path such as "options.depth" included; "" where it has none
	Span     source.Span
	Type     []Node // inline
	Text     []Node // blocks
	Default  string
	Optional bool
}

// Flaw is something wrong with how a comment is written.
type Flaw struct {
	Kind FlawKind
	Span source.Span
	Text string // the word or markup in question
	Near string // the word that was probably meant, or ""
}

// FlawKind tells what is wrong.
type FlawKind uint8

// The kinds of flaws.
const (
	UnknownWord FlawKind = iota
	RepeatedSection
	Unclosed
	AsWritten // nothing was made of a part of the text, since that would take too long
	Unescaped // a sign of the markup that stands for itself; Near is how it is written
	Unopened  // what closes something closes nothing
	NoElement // a tag of an element that there is not, which is shown as it is written
)
