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
	Summary: "a file, or part of it, cannot be read",
	Explanation: `What could be read is shown; the rest is missing from the pages. The finding points
at the first problem: a syntax error, bytes that are not text, a file without read
permission, a symbolic link that leaves the folder, names nested hundreds deep. A page whose name the file system
of the site refuses is left out in the same way.`,
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
		"":         "not valid {language}: {problem}",
		"more":     "not valid {language}: {problem} (more errors follow)",
		"encoding": "not valid UTF-8 from here on; the bytes were read as ISO 8859-1",
		"deep":     "what is nested deeper than {problem} levels, from here on, is not read",
		"file":     "the file cannot be read: {problem}",
		"fault":    "Codrel itself failed at this file, so nothing in it is shown ({problem}); please report this with the file",
		"page":     "this page cannot be written: {problem}",
		"symbols":  "the names of another project cannot be read from {file}: {problem}",
	},
}

// Verbs are the words that may follow "codrel:" in a comment.
var Verbs = []string{"let", "hide", "part", "words"}

var malformedComment = Rule{
	Name: finding.MalformedComment, Default: finding.Warning, Language: "go",
	Summary: "a comment has broken markup, or an instruction that Codrel does not understand",
	Explanation: `A comment line "codrel: ..." is an instruction and is not shown to readers. It has
no effect if its word is unknown, or if it excuses a declaration without naming a
rule or giving a reason:

  codrel: let RULE pass, REASON   ignore the rule for this declaration
  codrel: hide                    leave the declaration out of the pages
  codrel: part NAME               put it into this group
  codrel: words WORD, WORD        further words to find it by

Markup that is opened must be closed. A text that nests very deep, is longer than
1 MB or has thousands of marks in one paragraph is shown as it is written; divide
it, or write it more simply. This holds for guides and fragments as well.`,
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
		"command":     `"{text}" is no command of POD, so it is shown as text; the manual (perlpod) lists them`,
		"line before": `an empty line must stand before "{text}"`,
		"line behind": `an empty line must stand behind "{text}": what follows is a part of the command`,
		"item":        `"=item" stands in no list: write "=over" before the first one`,
		"mixed":       `this entry is of another kind than the first one of its list: stars, numbers and terms do not mix`,
		"over":        `"=over" is never closed: write "=back" behind its last entry`,
		"back":        `"=back" closes nothing: no "=over" is open`,
		"encoding":    `there are characters beyond ASCII here: write "{text}" before the first text`,
		"unclosed":    `{text} is opened here and never closed`,
		"no element":  `{text} is not an HTML element, so it is shown as text; put code into {@code ...}, or write &lt; for the sign`,
		"unopened":    `{text} closes nothing that is open here`,
		"unescaped":   `"{text}" begins markup here; write {near} for the sign itself`,
		"long":        `this text has {size} MB and is shown as it is written; up to 1 MB is read as Markdown: divide it`,
		"plain":       `this text is shown as it is written: it nests too deep, is too long or has too many marks to be read as Markdown`,
		"":            `"codrel: {verb}" is not a known instruction; use let, hide, part or words`,
		"near":        `"codrel: {verb}" is not a known instruction; did you mean {near}?`,
		"rule":        `there is no rule {rule}; "codrel explain" lists the rules`,
		"reason":      `a reason is missing, so this has no effect; write "{excuse}"`,
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
		p.flaws(prose.Unopened, finding.MalformedComment)
		p.flaws(prose.NoElement, finding.MalformedComment)
		p.flaws(prose.Unescaped, finding.MalformedComment)
		p.flaws(prose.AsWritten, finding.MalformedComment)
	},
}

// excuse is the line that lets a rule pass, in the language's own comment syntax.
func (p *Pass) excuse(rule, reason string) string {
	return p.Module.Library.Habits.Directive + "let " + rule + " pass, " + reason
}

func (p *Pass) directives(d *model.Declaration, f *model.Facts, list []model.Directive) {
	for _, w := range list {
		form, args := judge(w, p.known)
		if form == fine {
			continue
		}
		if form == "reason" {
			args = append(args, argument("excuse", p.excuse(w.Object, "REASON")))
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
