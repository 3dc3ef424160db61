// Package check owns the rules, as values, and the run that applies them.
//
// A rule has a name, a default severity, an explanation with a wrong and a right
// example that the tests run, and a function over one module. What it reports
// are findings without text; [Text] makes the text at the edge. The package
// knows the linked project and nothing of output.
package check

import (
	"codrel/internal/finding"
	"codrel/internal/nearest"
)

// Rule is one thing that the program watches for.
type Rule struct {
	Name    string
	Default finding.Severity
	Summary string // one line
	// Explanation says why it matters and what to do, as paragraphs of plain text.
	Explanation string
	Language    string // of the examples
	Wrong       string // a file that gives one finding of the rule
	Right       string // the file put right: it gives none
	// Messages are the forms of the finding's text, with {arguments}; "" is the usual one.
	Messages map[string]string
	module   func(*Pass) // nil where other stages report it
}

// OfPages reports whether the rule is on texts and files of the maintainer's alone, beside which
// no declaration stands.
func (r *Rule) OfPages() bool {
	switch r.Name {
	case finding.BrokenGuide, finding.BrokenGuideLink, finding.BrokenExcerpt, finding.StaleExcerpt, finding.FaintAccent, finding.BrokenLook:
		return true
	}
	return false
}

// Rules is the explicit list of all rules, in the order that "explain" lists them.
var Rules = []Rule{
	undocumented, missingModuleComment, emptyComment, strayComment, deprecatedWithoutAdvice,
	phantomParameter, undescribedParameter, undescribedResult, undescribedFailure, undescribedUnsafety, repeatedSection, unknownTag, conflictingComments,
	brokenReference, ambiguousReference, leakedType, brokenExport, importCycle, malformedComment, unreadableSource, missingFileComment, headerlessFunction,
	brokenGuideLink, brokenGuide, brokenExcerpt, staleExcerpt, brokenFragment, faintAccent, brokenLook,
}

// ByName finds a rule, or nil.
func ByName(name string) *Rule {
	for i := range Rules {
		if Rules[i].Name == name {
			return &Rules[i]
		}
	}
	return nil
}

// Names are the names of all rules.
func Names() []string {
	names := make([]string, len(Rules))
	for i, r := range Rules {
		names[i] = r.Name
	}
	return names
}

// Nearest is the name of the rule that a wrong name was probably meant to be, or "".
func Nearest(name string) string { return nearest.Word(name, Names()) }

// Text says a finding in words.
func Text(f *finding.Finding) string {
	rule := ByName(f.Rule)
	if rule == nil {
		return f.Rule
	}
	form, ok := rule.Messages[f.Form]
	if !ok {
		form = rule.Messages[""]
	}
	return f.Fill(form)
}
