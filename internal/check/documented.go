package check

import (
	"slices"
	"strings"

	"codrel/internal/comment"
	"codrel/internal/finding"
	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file holds the rules on whether there is a comment, and whether it says anything.

var undocumented = Rule{
	Name: finding.Undocumented, Default: finding.Warning, Language: "go",
	Summary: "a declaration has no doc comment",
	Explanation: `Readers have nothing but the name and the signature to go by. Say what it does,
what its parameters mean, what it returns, and what can go wrong.

A comment on a group of constants or variables covers all of them. Fields need no
comment. The only method of an interface is described by the interface's own
comment. A comment that consists of tags alone, such as @since, documents nothing.

A member without a comment inherits the text of what it overrides or implements, and
its page says so. That is enough; with "inherited-text: asked" under "checks" in
codrel.yaml such a member is reported too.`,
	Wrong: `// Package tide predicts water levels.
package tide

func Height(hour int) float64 { return 0 }
`,
	Right: `// Package tide predicts water levels.
package tide

// Height gives the water level at an hour of the day, in metres.
func Height(hour int) float64 { return 0 }
`,
	Messages: map[string]string{
		"":      "{kind} {name} has no doc comment",
		"form":  "overload {form} of {kind} {name} has no doc comment",
		"tags":  "the comment on {kind} {name} consists of tags alone",
		"taken": "{kind} {name} has no doc comment of its own; it inherits the text of {of}",
	},
	module: func(p *Pass) {
		for d := range p.shown {
			if !p.asks(d) {
				continue
			}
			tags := p.tagsAlone(d)
			if d.Documented() && !tags {
				p.undocumentedForms(d)
				continue
			}
			f := finding.Finding{
				Rule: finding.Undocumented, Place: at(d),
				Arguments: []finding.Argument{argument("kind", p.kindOf(d)), argument("name", d.Path())},
			}
			if of := p.Links.TextOf(d); of != nil && of != d {
				if p.inheritedCounts {
					continue
				}
				f.Form = "taken"
				f.Arguments = append(f.Arguments, argument("of", candidateName(link.Target{Declaration: of})))
			} else if tags {
				f.Form = "tags"
			}
			p.report(d, f)
		}
	},
}

// undocumentedForms reports the overloads that have no comment where others have one, in
// languages that describe each.
func (p *Pass) undocumentedForms(d *model.Declaration) {
	if !p.Module.Library.Habits.EachForm {
		return
	}
	forms := p.Links.FormsInReach(d)
	for i := range forms {
		if doc, _ := forms[i].Doc(); doc != nil || len(forms) < 2 {
			continue
		}
		if p.inheritedCounts && p.Links.TextOfForm(d, &forms[i]).Doc != nil {
			continue
		}
		head := forms[i].Head()
		if asker, ok := p.Links.FrontEnd(p.Module.Library.Language).(lang.FormPolicy); ok && !asker.AsksFormComment(head) {
			continue
		}
		p.report(d, finding.Finding{
			Rule: finding.Undocumented, Form: "form", Place: head.File.Place(head.NameSpan),
			Arguments: []finding.Argument{argument("kind", p.kindOf(d)), argument("name", d.Path()), argument("form", d.Name+"("+strings.Join(typesOf(head), ", ")+")")},
		})
	}
}

// typesOf are the types of the parameters that callers give, as they are written.
func typesOf(at model.At) (out []string) {
	for i := range at.Callable.Params {
		if param := &at.Callable.Params[i]; !param.Implied {
			out = append(out, strings.Join(strings.Fields(param.Type.Code(at.File.Text)), " "))
		}
	}
	return out
}

// tagsAlone reports whether the comments on a declaration say nothing but what tags
// do. Few begin with a tag, and only those need be taken apart to know.
func (p *Pass) tagsAlone(d *model.Declaration) bool {
	tags := false
	for _, o := range d.Occurrences {
		if o.GroupDoc != nil {
			return false
		}
		if o.Doc == nil {
			continue
		}
		text := strings.TrimLeft(o.Doc.Text, " \t\r\n")
		if text == "" || strings.IndexByte("@:.<", text[0]) < 0 || p.Links.Comments.Of(p.Module.Library.Habits, o.File, o.Doc).Described() {
			return false
		}
		tags = true
	}
	return tags
}

// overridesOutside reports whether a member says itself that it takes the place of one which
// nobody here has read.
func (p *Pass) overridesOutside(d *model.Declaration) bool {
	policy, ok := p.Links.FrontEnd(d.Module.Library.Language).(lang.CommentPolicy)
	return ok && !policy.AsksComment(d)
}

// asks reports whether a declaration should have a comment of its own.
func (p *Pass) asks(d *model.Declaration) bool {
	if d.IsSecond() {
		return false // what it is a name of is asked for
	}
	if asker, ok := p.Links.FrontEnd(d.Module.Library.Language).(lang.CommentPolicy); ok {
		return asker.AsksComment(d)
	}
	switch {
	case d.Kind() == model.KindField || d.Blank():
		return false
	case d.Parent == nil && d.Kind() == model.KindFunction && slices.Contains(p.Module.Library.Habits.Started, d.Name):
		return false
	case d.Parent != nil && d.Parent.Kind() == model.KindInterface:
		return len(d.Parent.Members) > 1 || !d.Parent.Documented()
	}
	return true
}

// count adds up which declarations that ask for a comment have one.
func (p *Pass) count() {
	for d := range p.shown {
		if !p.asks(d) {
			continue
		}
		if forms := p.formsApart(d); forms != nil && d.Documented() {
			p.countForms(d, forms)
			continue
		}
		p.coverage.Total++
		taken := false
		if doc := d.Speaks(model.Words).Doc; doc == nil && !d.Documented() || doc != nil && comment.MayTake(p.Module.Library.Habits, doc) {
			of := p.Links.TextOf(d)
			taken = of != nil && of != d
		}
		switch {
		case p.tagsAlone(d) && !taken:
		case taken && (d.Documented() || p.inheritedCounts):
			p.coverage.Inherited++
			p.coverage.Documented++
		case taken:
			p.coverage.InheritedOnly++
		case d.Documented():
			p.coverage.Documented++
		}
	}
}

// countForms adds up which overloads have a comment, where each is described on its own.
func (p *Pass) countForms(d *model.Declaration, forms []model.Form) {
	for i := range forms {
		p.coverage.Total++
		if doc, _ := forms[i].Doc(); doc != nil {
			p.coverage.Documented++
			continue
		}
		switch {
		case p.Links.TextOfForm(d, &forms[i]).Doc == nil:
		case p.inheritedCounts:
			p.coverage.Inherited++
			p.coverage.Documented++
		default:
			p.coverage.InheritedOnly++
		}
	}
}

var missingModuleComment = Rule{
	Name: finding.MissingModuleComment, Default: finding.Warning, Language: "go",
	Summary: "a module or package has no doc comment",
	Explanation: `The page of a module opens with what the module is for. Without a comment it
opens with a list of names, and readers have to guess.

In Go, write a comment directly above the package clause of one of the files; in
Python, begin the file with a string.`,
	Wrong: `package tide

// Height gives the water level at an hour of the day, in metres.
func Height(hour int) float64 { return 0 }
`,
	Right: `// Package tide predicts water levels.
package tide

// Height gives the water level at an hour of the day, in metres.
func Height(hour int) float64 { return 0 }
`,
	Messages: map[string]string{"": "{kind} {name} has no doc comment"},
	module: func(p *Pass) {
		if !p.Links.ModuleInReach(p.Module) || len(p.Module.Doc) > 0 {
			return
		}
		if asker, ok := p.Links.FrontEnd(p.Module.Library.Language).(lang.CommentPolicy); ok && !asker.AsksModuleComment(p.Module) {
			return
		}
		for _, f := range p.Module.Files {
			if f.Generated || f.Package == "" {
				continue
			}
			p.withoutComment(f.Place(f.ModuleSpan))
			return
		}
		for _, f := range p.Module.More {
			for _, m := range f.Modules { // one that stands in a file
				if !m.Span.Empty() && !m.Elsewhere && !f.Generated && strings.HasSuffix(p.Module.Path, p.Module.Library.Habits.PathMark+m.Name) {
					p.withoutComment(f.Place(m.Span))
					return
				}
			}
		}
	},
}

// withoutComment reports that the module has no comment.
func (p *Pass) withoutComment(at finding.Place) {
	p.report(nil, finding.Finding{
		Rule: finding.MissingModuleComment, Place: at,
		Arguments: []finding.Argument{argument("kind", p.moduleWord()), argument("name", p.Module.Path)},
	})
}

var emptyComment = Rule{
	Name: finding.EmptyComment, Default: finding.Warning, Language: "go",
	Summary: "a doc comment is empty",
	Explanation: `An empty comment looks as if its text had been lost. Write the text, or remove the
comment.`,
	Wrong: `// Package tide predicts water levels.
package tide

//
func Height(hour int) float64 { return 0 }
`,
	Right: `// Package tide predicts water levels.
package tide

// Height gives the water level at an hour of the day, in metres.
func Height(hour int) float64 { return 0 }
`,
	Messages: map[string]string{"": "the comment on {name} is empty"},
	module: func(p *Pass) {
		for _, f := range p.Module.Files {
			for _, blank := range f.Empty {
				span := blank.Span
				d := p.behind(f, span.End)
				if blank.Inside {
					d = p.around(f, span.Start)
				}
				if f.Generated || !p.Links.InReach(d) {
					continue
				}
				p.report(d, finding.Finding{
					Rule: finding.EmptyComment, Place: f.Place(span),
					Arguments: []finding.Argument{argument("name", d.Path())},
				})
			}
		}
	},
}

// around finds the innermost declaration whose text an offset lies in, or nil.
func (p *Pass) around(f *model.Facts, offset int32) *model.Declaration {
	var found *model.Occurrence
	for i := range f.Occurrences {
		if o := &f.Occurrences[i]; o.Span.Contains(offset) && (found == nil || o.Span.Len() <= found.Span.Len()) {
			found = o
		}
	}
	if found == nil {
		return nil
	}
	return p.Module.OfAny(f, found)
}

// behind finds the declaration whose occurrence begins next after an offset.
func (p *Pass) behind(f *model.Facts, offset int32) *model.Declaration {
	for i := range f.Occurrences {
		if o := &f.Occurrences[i]; o.NameSpan.Start >= offset {
			return p.Module.OfAny(f, o)
		}
	}
	return nil
}

var strayComment = Rule{
	Name: finding.StrayComment, Default: finding.Warning, Language: "go",
	Summary: "a comment looks like a doc comment, but belongs to no declaration",
	Explanation: `A blank line separates a comment from its declaration: the comment appears on no
page, and the declaration counts as undocumented. Remove the blank line.`,
	Wrong: `// Package tide predicts water levels.
package tide

// Height gives the water level at an hour of the day, in metres.

func Height(hour int) float64 { return 0 }
`,
	Right: `// Package tide predicts water levels.
package tide

// Height gives the water level at an hour of the day, in metres.
func Height(hour int) float64 { return 0 }
`,
	Messages: map[string]string{"": "this comment seems to describe {name}, but a blank line separates the two"},
	module: func(p *Pass) {
		for _, f := range p.Module.Files {
			for _, s := range f.Stray {
				d := p.Module.Lookup(s.Name)
				aboutModule := strings.Contains(s.Name, " ")
				if f.Generated || aboutModule && (!p.Links.ModuleInReach(p.Module) || len(p.Module.Doc) > 0) || !aboutModule && !p.Links.InReach(d) {
					continue
				}
				p.report(d, finding.Finding{
					Rule: finding.StrayComment, Place: f.Place(s.Span),
					Arguments: []finding.Argument{argument("name", s.Name)},
				})
			}
		}
	},
}

var deprecatedWithoutAdvice = Rule{
	Name: finding.DeprecatedWithoutAdvice, Default: finding.Note, Language: "go",
	Summary: "a deprecation does not say what to use instead",
	Explanation: `A deprecation without advice leaves readers with a warning and no way forward.
Say what to use instead, or why there is no replacement.`,
	Wrong: `// Package tide predicts water levels.
package tide

// Height gives the water level at an hour of the day, in metres.
//
// Deprecated: yes.
func Height(hour int) float64 { return 0 }
`,
	Right: `// Package tide predicts water levels.
package tide

// Height gives the water level at an hour of the day, in metres.
//
// Deprecated: use [Level], which knows the day as well.
func Height(hour int) float64 { return 0 }

// Level gives the water level at an hour of a day of the year, in metres.
func Level(day, hour int) float64 { return 0 }
`,
	Messages: map[string]string{"": "{kind} {name} is deprecated, but its comment does not say what to use instead"},
	module: func(p *Pass) {
		for d := range p.shown {
			said := d.Speaks(model.Words)
			if !said.Deprecated || len(p.Links.Relations(d).Overrides) > 0 || d.Kind().IsCallable() && p.overridesOutside(d) {
				continue // what to use instead is said where it stands first
			}
			if d.Parent != nil && d.Parent.Kind().IsType() && d.Parent.Speaks(model.Words).Deprecated {
				continue // it goes with its type
			}
			if said.Doc == nil && p.Module.ByFile() {
				continue // a macro says it, and there is no comment that could say more
			}
			if said.Callable != nil && said.Callable.Returns == model.ReturnsNever {
				continue // there is no use to replace
			}
			sections, _ := p.Links.Sections(d)
			if len(sections.Of(prose.SeeAlso)) > 0 || advises(p.Links.Advice(d)) || d.Speaks(model.Words).Advice() != nil || advisesInProse(sections.Body) || hasMessage(d.Speaks(model.Words)) {
				continue
			}
			p.report(d, finding.Finding{
				Rule: finding.DeprecatedWithoutAdvice, Place: at(d),
				Arguments: []finding.Argument{argument("kind", p.kindOf(d)), argument("name", d.Path())},
			})
		}
	},
}

// fewestWords is how many words a piece of advice has at least, where it names nothing.
const fewestWords = 3

// hasMessage reports whether the mark that makes a declaration deprecated is given a
// message by its name, whose words are elsewhere.
func hasMessage(at model.At) bool {
	mark := strings.ToLower(at.File.Text[at.Span.Start:max(at.Span.Start, at.NameSpan.Start)])
	_, arguments, found := strings.Cut(mark, "deprecated(")
	return found && (strings.Contains(arguments, "message") || strings.Contains(arguments, "msg") || strings.Contains(arguments, "reason"))
}

func advises(nodes []prose.Node) bool {
	words := strings.Fields(prose.Plain(nodes))
	if len(words) >= fewestWords || len(words) > 1 && strings.EqualFold(words[0], "use") {
		return true
	}
	names := false
	prose.Walk(nodes, func(n *prose.Node) bool {
		names = names || n.Kind == prose.Reference || n.Kind == prose.Link || n.Kind == prose.Code
		return !names
	})
	return names
}

// advisesInProse reports whether a text that says in its prose that its subject is
// deprecated also says what to use.
func advisesInProse(body []prose.Node) bool {
	text := strings.ToLower(prose.Plain(body))
	for _, words := range []string{"instead", "replaced by", "replaced with", "in favor of", "in favour of", "superseded by", "deprecated, use ", "deprecated. use ", "deprecated alias "} {
		if strings.Contains(text, words) {
			return true
		}
	}
	return false
}

// kindOf is what a declaration's language calls what it is written as: an object that holds
// names is the constant or variable that it is bound to.
func (p *Pass) kindOf(d *model.Declaration) string {
	if d.IsObject() {
		return d.Speaks(model.Nature).Kind.Words()
	}
	if worder, ok := p.Links.FrontEnd(d.Module.Library.Language).(lang.Terminology); ok {
		if word := worder.KindWord(d); word != "" {
			return word
		}
	}
	return d.Kind().Words()
}
