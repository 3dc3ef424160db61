// Package finding owns what the checks say: one thing that is wrong, at a
// place, by a rule, with a severity.
//
// A finding carries arguments, not text. The text is made from the rule's
// message forms at the edge, so that a finding can be counted, joined
// and translated. The package knows neither the rules' logic nor any output.
package finding

import (
	"cmp"
	"slices"
	"strings"

	"codrel/internal/source"
)

// Severity orders findings by weight.
type Severity uint8

// The severities, lightest first. Off means that a rule does not speak.
const (
	Off Severity = iota
	Note
	Warning
	Error
)

var severityNames = [...]string{"off", "note", "warning", "error"}

// String is the word that settings and output use.
func (s Severity) String() string { return severityNames[s] }

// ParseSeverity reads the word of a setting.
func ParseSeverity(word string) (Severity, bool) {
	i := slices.Index(severityNames[:], word)
	return Severity(max(i, 0)), i >= 0
}

// The names of the rules, in one place because readers, linker and checks each
// report some of them. What a rule means is in package check.
const (
	Undocumented            = "undocumented"
	BrokenReference         = "broken-reference"
	AmbiguousReference      = "ambiguous-reference"
	StrayComment            = "stray-comment"
	EmptyComment            = "empty-comment"
	MissingModuleComment    = "missing-module-comment"
	DeprecatedWithoutAdvice = "deprecated-without-advice"
	LeakedType              = "leaked-type"
	UnreadableSource        = "unreadable-source"
	ImportCycle             = "import-cycle"
	BrokenExport            = "broken-export"
	MalformedComment        = "malformed-comment"
	FaintAccent             = "faint-accent"
	BrokenLook              = "broken-look"
	BrokenFragment          = "broken-fragment"
	BrokenGuide             = "broken-guide"
	BrokenGuideLink         = "broken-guide-link"
	BrokenExcerpt           = "broken-excerpt"
	StaleExcerpt            = "stale-excerpt"
	PhantomParameter        = "phantom-parameter"
	UndescribedParameter    = "undescribed-parameter"
	UndescribedResult       = "undescribed-result"
	UndescribedFailure      = "undescribed-failure"
	RepeatedSection         = "repeated-section"
	UnknownTag              = "unknown-tag"
	ConflictingComments     = "conflicting-comments"
	MissingFileComment      = "missing-file-comment"
	UndescribedUnsafety     = "undescribed-unsafety"
	HeaderlessFunction      = "headerless-function"
)

// Argument is one named value of a finding's text.
type Argument struct {
	Name  string
	Value string
}

// Place is a span of a file with the position that people read.
type Place struct {
	File string // path from the project's root, with "/"
	Span source.Span
	At   source.Position
	End  source.Position // behind the span; zero where nobody knows it
}

// Related is a further place that explains a finding.
type Related struct {
	Place Place
	Label string // what stands there, such as a declaration's name
}

// Edit replaces the text of a place. Edits of one finding do not overlap.
type Edit struct {
	Place Place
	Text  string
}

// Finding is one thing that is wrong.
type Finding struct {
	Rule      string
	Severity  Severity // set by package check from the settings; Off until then
	Place     Place
	Subject   string // ID of the declaration it is about, or ""
	Form      string // which of the rule's message forms applies; "" is the usual one
	Arguments []Argument
	Related   []Related
	Others    []Place // further places of the same cause, in order
	Edits     []Edit
}

// Arg is the value of a named argument, or "".
func (f *Finding) Arg(name string) string {
	for _, a := range f.Arguments {
		if a.Name == name {
			return a.Value
		}
	}
	return ""
}

// Fill replaces each "{name}" of form by the finding's argument of that name.
func (f *Finding) Fill(form string) string {
	pairs := make([]string, 0, 2*len(f.Arguments))
	for _, a := range f.Arguments {
		pairs = append(pairs, "{"+a.Name+"}", a.Value)
	}
	return strings.NewReplacer(pairs...).Replace(form)
}

// Sort puts findings in the order they are shown: file, place, rule, arguments.
// The order depends on the findings alone, never on the order they came in.
func Sort(list []Finding) {
	slices.SortStableFunc(list, func(a, b Finding) int {
		return cmp.Or(
			strings.Compare(a.Place.File, b.Place.File),
			cmp.Compare(a.Place.At.Line, b.Place.At.Line),
			cmp.Compare(a.Place.At.Column, b.Place.At.Column),
			cmp.Compare(a.Place.Span.Start, b.Place.Span.Start),
			cmp.Compare(a.Place.Span.End, b.Place.Span.End),
			strings.Compare(a.Rule, b.Rule),
			strings.Compare(a.Form, b.Form),
			slices.CompareFunc(a.Arguments, b.Arguments, func(x, y Argument) int {
				return cmp.Or(strings.Compare(x.Name, y.Name), strings.Compare(x.Value, y.Value))
			}),
		)
	})
}

// Unique drops repeats of the same rule, place and arguments from a sorted list.
func Unique(list []Finding) []Finding {
	return slices.CompactFunc(list, func(a, b Finding) bool {
		return a.Rule == b.Rule && a.Place.File == b.Place.File && a.Place.Span == b.Place.Span &&
			a.Form == b.Form && slices.Equal(a.Arguments, b.Arguments)
	})
}

// OneLine is a text on one line, without the control characters that a comment may hold for
// a terminal.
func OneLine(s string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r == '\n' || r == '\t' || r == '\r':
			return ' '
		case r < ' ' || r >= 0x7f && r < 0xa0 || r >= 0x202a && r <= 0x202e || r >= 0x2066 && r <= 0x2069:
			return -1
		}
		return r
	}, s)
}
