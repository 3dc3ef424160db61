package check

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file holds the rules on files: of their comments, and of what no header declares.

var missingFileComment = Rule{
	Name: finding.MissingFileComment, Default: finding.Off, Language: "c",
	Summary: "a file has no comment at its head",
	Explanation: `Where people work by files, the first thing to say of each is what it is for. In C and
C++ that is the comment with @file; elsewhere any comment before the code, or the one on
the module. A file without it is shown all the same.

The rule is off. Switch it on under "checks" in codrel.yaml; "file-fields" there names
what each of these comments must say as well: checks: {rules: {missing-file-comment:
warning}, file-fields: [author, license]}. A field is a tag, or a word at the beginning
of a line.`,
	Wrong: `/** Opens a gauge. */
int gauge_open(void);
`,
	Right: `/** @file
 * Drives a gauge.
 */

/** Opens a gauge. */
int gauge_open(void);
`,
	Messages: map[string]string{
		"":       "{file} has no comment at its head",
		"fields": "the comment at the head of {file} does not say {fields}",
	},
	module: func(p *Pass) {
		for _, f := range p.Module.Files {
			if f.Generated || f.Role != model.RoleCode {
				continue
			}
			head, found := p.headOf(f)
			arguments := []finding.Argument{argument("file", path.Base(f.Path))}
			if !found {
				p.report(nil, finding.Finding{Rule: finding.MissingFileComment, Place: f.Place(source.Span{}), Arguments: arguments})
				continue
			}
			var missing []string
			for _, field := range p.fileFields {
				if !saysField(head, field) {
					missing = append(missing, field)
				}
			}
			if len(missing) > 0 {
				arguments = append(arguments, argument("fields", strings.Join(missing, ", ")))
				p.report(nil, finding.Finding{Rule: finding.MissingFileComment, Form: "fields", Place: f.Place(source.Span{}), Arguments: arguments})
			}
		}
	},
}

// longestHead is how many bytes of a file its first comments are looked for in.
const longestHead = 16 << 10

// headOf is what the comments at the head of a file say; found is whether there is one that
// speaks of the file.
func (p *Pass) headOf(f *model.Facts) (text string, found bool) {
	if f.ModuleDoc != nil {
		text, found = f.ModuleDoc.Text, true
	}
	scanner, ok := p.Links.FrontEnd(f.Language).(lang.Scanner)
	if !ok {
		return text, found
	}
	start := f.Text[:min(len(f.Text), longestHead)]
	end := 0
	for _, piece := range scanner.Scan(start, nil) {
		if piece.Class != model.PieceComment || strings.TrimSpace(start[end:piece.Span.Start]) != "" {
			break
		}
		end = int(piece.Span.End)
		text += "\n" + piece.Span.In(start)
		found = found || !p.Module.Library.Habits.ByFile
	}
	return text, found
}

// saysField reports whether a line of a text begins with a word, or with a tag that is called so.
func saysField(text, field string) bool {
	for line := range strings.SplitSeq(text, "\n") {
		line = strings.TrimLeft(line, " \t/*!#-;%@\\:")
		if len(line) < len(field) || !strings.EqualFold(line[:len(field)], field) {
			continue
		}
		if rest := line[len(field):]; rest == "" || !inWord(rest[0]) {
			return true
		}
	}
	return false
}

var headerlessFunction = Rule{
	Name: finding.HeaderlessFunction, Default: finding.Off, Language: "c",
	Summary: "no header declares a function that other files can link to",
	Explanation: `Its name is in the way of every program that links to the library, and nobody can call
it without a declaration of their own. Declare it in a header, or make it static.

The rule is off. Switch it on under "checks" in codrel.yaml: checks: {rules:
{headerless-function: warning}}.`,
	Wrong: `/** Reads a gauge. */
int gauge_read(void) { return 0; }
-- tide.h --
/** Opens a gauge. */
int gauge_open(void);
`,
	Right: `/** Reads a gauge. */
static int gauge_read(void) { return 0; }
-- tide.h --
/** Opens a gauge. */
int gauge_open(void);
`,
	Messages: map[string]string{"": "no header declares {name}, which other files can link to: declare it, or make it static"},
	module: func(p *Pass) {
		headers, ok := p.Links.FrontEnd(p.Module.Library.Language).(lang.Headers)
		if !ok {
			return
		}
		for d := range p.Module.Declarations {
			if d.Kind() != model.KindFunction || d.Parent != nil || d.Visibility == model.Private || d.Generated() || isStarted(d) {
				continue
			}
			declared := slices.ContainsFunc(d.Occurrences, func(o model.At) bool {
				return headers.IsHeader(o.File.Path) || o.File.Role != model.RoleCode
			})
			if !declared {
				p.report(d, finding.Finding{Rule: finding.HeaderlessFunction, Place: at(d), Arguments: []finding.Argument{argument("name", d.Path())}})
			}
		}
	},
}

// isStarted reports whether a declaration is what a program begins with.
func isStarted(d *model.Declaration) bool {
	h := d.Module.Library.Habits
	return h != nil && slices.Contains(h.Started, d.Name)
}
