package check

import (
	"strconv"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/model"
)

var conflictingComments = Rule{
	Name: finding.ConflictingComments, Default: finding.Warning, Language: "c",
	Summary: "a declaration and its definition are described in different words",
	Explanation: `Pages show one text, that of the declaration that users include. What the definition
says besides is read by nobody but its authors, and one of the two will be forgotten
when the other changes. Keep one of them: one text serves both places.`,
	Wrong: `/** Opens a gauge. */
int gauge_open(int port);

/** Opens the gauge at a port. */
int gauge_open(int port) { return port; }
`,
	Right: `/** Opens the gauge at a port. */
int gauge_open(int port);

int gauge_open(int port) { return port; }
`,
	Messages: map[string]string{"": "the comment on the definition of {name} differs from that at its declaration ({file}, line {line})"},
	module: func(p *Pass) {
		if h := p.Module.Library.Habits; h == nil || !h.ByFile {
			return // elsewhere a body stands with its declaration, or speaks for all forms of it
		}
		for d := range p.Module.Declarations {
			if len(d.Occurrences) < 2 || !p.Links.InReach(d) || d.Generated() {
				continue
			}
			for _, form := range d.Split() {
				p.conflicts(d, &form)
			}
		}
	},
}

// conflicts compares the comments on the definitions of a form with that on its declaration.
func (p *Pass) conflicts(d *model.Declaration, form *model.Form) {
	var head *model.At
	for i := range form.Occurrences {
		if at := &form.Occurrences[i]; !at.Implementation && at.Doc != nil {
			head = at
			break
		}
	}
	if head == nil {
		return
	}
	for _, at := range form.Occurrences {
		if !at.Implementation || at.Doc == nil || sameWords(at.Doc.Text, head.Doc.Text) {
			continue
		}
		p.report(d, finding.Finding{
			Rule: finding.ConflictingComments, Place: at.File.Place(at.Doc.Span),
			Arguments: []finding.Argument{argument("name", d.Path()), argument("file", head.File.Path), argument("line", strconv.Itoa(int(head.Line)))},
			Related:   []finding.Related{{Place: head.File.Place(head.Doc.Span), Label: d.Path()}},
		})
	}
}

// sameWords reports whether two comments say the same, whatever blanks stand between the words.
func sameWords(a, b string) bool {
	return strings.Join(strings.Fields(a), " ") == strings.Join(strings.Fields(b), " ")
}
