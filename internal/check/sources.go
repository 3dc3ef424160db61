package check

import (
	"strings"

	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// This file holds the rules on what could not be read, and on words to Codrel
// that it does not understand.

var unreadableSource = Rule{
	Name: finding.UnreadableSource, Default: finding.Error, Language: "go",
	Summary: "a file, or a part of it, could not be read",
	Explanation: `What could be read is shown; the rest is missing from the pages. The finding
says where the first trouble is: a syntax error, bytes that are no text, a file
without permission, a link that leads out of the folder.`,
	Wrong: `// Package tide predicts water levels.
package tide

// Height gives the water level at an hour of the day, in metres.
func Height(hour int float64 { return 0 }
`,
	Right: `// Package tide predicts water levels.
package tide

// Height gives the water level at an hour of the day, in metres.
func Height(hour int) float64 { return 0 }
`,
	Messages: map[string]string{
		"":         "this cannot be read as {language}: {problem}",
		"more":     "this cannot be read as {language}: {problem} (and more errors behind it)",
		"encoding": "the file is not valid UTF-8 from here on; other bytes were read as ISO 8859-1",
		"file":     "the file cannot be read: {problem}",
		"symbols":  "the names of another project cannot be read from {file}: {problem}",
	},
}

// Verbs are the words that may follow "codrel:" in a comment.
var Verbs = []string{"let", "hide", "part", "words"}

var malformedComment = Rule{
	Name: finding.MalformedComment, Default: finding.Warning, Language: "go",
	Summary: "markup or a word to Codrel in a comment is not understood",
	Explanation: `A line "codrel: ..." in a comment is not shown to readers. When its word is
unknown, or an excuse names no rule or gives no reason, it does nothing at all:

  codrel: let RULE pass, REASON   one rule stays silent on this declaration
  codrel: hide                    the declaration has no place among the pages
  codrel: part NAME               the group it belongs to
  codrel: words WORD, WORD        more words that search finds it by`,
	Wrong: `// Package tide predicts water levels.
package tide

//codrel:let undocumented pass
func Height(hour int) float64 { return 0 }
`,
	Right: `// Package tide predicts water levels.
package tide

//codrel:let undocumented pass, the name says it all
func Height(hour int) float64 { return 0 }
`,
	Messages: map[string]string{
		"unclosed": `{text} opens here and is never closed`,
		"":         `"codrel: {verb}" is not known; there are let, hide, part and words`,
		"near":     `"codrel: {verb}" is not known; did you mean {near}?`,
		"rule":     `there is no rule {rule} to let pass; "codrel explain" lists the rules`,
		"reason":   `this excuse gives no reason, so it does not hold; write "codrel: let {rule} pass, REASON"`,
	},
	module: func(p *Pass) {
		for _, f := range p.Module.Files {
			p.directives(nil, f, f.Directives)
		}
		for d := range p.Module.Declarations {
			for _, o := range d.Occurrences {
				p.directives(d, o.File, o.Directives())
			}
		}
		p.flaws(prose.Unclosed, finding.MalformedComment)
	},
}

func (p *Pass) directives(d *model.Declaration, f *model.Facts, list []model.Directive) {
	for _, w := range list {
		form, args := judge(w, p.known)
		if form == fine {
			continue
		}
		p.report(d, finding.Finding{Rule: finding.MalformedComment, Form: form, Place: f.Place(w.Span), Arguments: args})
	}
}

// fine is the form of a directive that there is nothing to say about.
const fine = "fine"

func judge(w model.Directive, known func(rule string) bool) (form string, args []finding.Argument) {
	switch w.Verb {
	case "hide":
		return fine, nil
	case "part", "words":
		if strings.TrimSpace(w.Object) != "" {
			return fine, nil
		}
	case "let":
		args = []finding.Argument{argument("rule", w.Object)}
		switch {
		case !known(w.Object):
			return "rule", args
		case w.Reason == "":
			return "reason", args
		}
		return fine, nil
	}
	if near := nearest.Word(w.Verb, Verbs); near != "" {
		return "near", []finding.Argument{argument("verb", w.Verb), argument("near", near)}
	}
	return "", []finding.Argument{argument("verb", w.Verb)}
}
