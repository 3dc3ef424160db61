package check

import (
	"slices"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file gathers what comments say of a callable, or of one of its overloads, and what it
// takes: the rules on named sections judge by that.

// formsApart are the overloads of a callable that users see, where each is described on its own;
// else nil.
func (p *Pass) formsApart(d *model.Declaration) []model.Form {
	if h := p.Module.Library.Habits; h == nil || !h.EachForm || !d.Kind().IsCallable() || len(d.Occurrences) < 2 {
		return nil
	}
	if len(d.Split()) < 2 {
		return nil
	}
	return p.Links.FormsInReach(d)
}

// describeForm gathers what is said of one overload, or is nil where it has no comment.
func (p *Pass) describeForm(d *model.Declaration, form *model.Form) *described {
	head := form.Head()
	if head.Callable == nil {
		return nil
	}
	c := &described{d: d, forms: form.Occurrences, at: &head, elsewhere: true}
	p.said(c, form.Occurrences)
	if len(c.sections) == 0 {
		return nil
	}
	p.taken(c, form)
	c.add(head.Callable.Params)
	c.asked, c.loose, c.told = head.Callable.Params, c.loose || head.Callable.ReadsArguments, head.Callable.Placeholder
	return c
}

// described is a callable with what its comments say.
type described struct {
	d         *model.Declaration
	forms     []model.At // what it is of the declaration: all, or one overload
	at        *model.At  // of one overload
	sections  []*prose.Sections
	file      *model.Facts      // of the first comment
	params    []model.Param     // of all forms
	names     map[string]bool   // plain names of params, once they were asked for
	asked     []model.Param     // of those that a comment stands on
	loose     bool              // it takes names beyond its list
	above     []*prose.Sections //  of the comments that it has from what it overrides what it does not say itself
	elsewhere bool              // its text is another's as a whole: what that lacks is said where it stands
	told      bool              // its parameters are what the comment names
	text      string
}

// describe gathers what is said of a callable, or is nil where nothing is to be judged.
func (p *Pass) describe(d *model.Declaration) *described {
	if d.Kind() == model.KindProperty || !d.Kind().IsCallable() && d.Kind() != model.KindClass {
		return nil
	}
	c := &described{d: d, forms: d.Occurrences, elsewhere: true}
	p.said(c, d.Occurrences)
	p.taken(c, nil)
	callable := d
	if d.Kind() == model.KindClass {
		if len(c.sections) == 0 || len(c.entries(prose.Parameters)) == 0 {
			return nil
		}
		if callable = constructor(d); callable == nil {
			return nil // what making it takes is inherited or made by the language
		}
		p.callables(c, d)
	} else if d.Kind() == model.KindConstructor && d.Parent != nil {
		if len(c.sections) == 0 {
			return nil
		}
		p.said(c, d.Parent.Occurrences)
	}
	if len(c.sections) == 0 {
		return nil
	}
	for _, o := range callable.Occurrences {
		if o.Callable == nil {
			continue
		}
		c.add(o.Callable.Params)
		c.loose = c.loose || o.Callable.ReadsArguments
		c.told = c.told || o.Callable.Placeholder
	}
	for _, o := range p.commented(callable) {
		c.asked = joined(c.asked, o.Callable.Params)
	}
	return c
}

// add adds parameters that a callable takes.
func (c *described) add(params []model.Param) {
	for i := range params {
		c.loose = c.loose || params[i].Variadic
	}
	c.params, c.names = joined(c.params, params), nil
}

// joined is both lists in a row, without a copy where there is but one.
func joined(list, more []model.Param) []model.Param {
	if len(list) == 0 {
		return slices.Clip(more)
	}
	return append(list, more...)
}

// commented are the forms of a callable whose parameters its comments describe: those
// with a comment that describes any, else all that callers see.
func (p *Pass) commented(callable *model.Declaration) []model.At {
	var own, seen []model.At
	for _, o := range callable.Occurrences {
		if o.Callable == nil {
			continue
		}
		if o.Doc != nil && len(p.Links.Comments.Of(p.Module.Library.Habits, o.File, o.Doc).Of(prose.Parameters)) > 0 {
			own = append(own, o)
		}
		if !o.Implementation {
			seen = append(seen, o)
		}
	}
	if len(own) > 0 {
		return own
	}
	return seen
}

// constructor is the member that making an object of a class calls, or nil.
func constructor(d *model.Declaration) *model.Declaration {
	for _, m := range d.Members {
		if m.Kind() == model.KindConstructor && m.Speaks(model.Words).Callable != nil {
			return m
		}
	}
	return nil
}

// callables adds what objects of a class take when they are called, which the comment
// on a class may describe as well.
func (p *Pass) callables(c *described, d *model.Declaration) {
	for _, m := range d.Members {
		if m.Kind() != model.KindMethod || m.Name != "__call__" {
			continue
		}
		for _, o := range m.Occurrences {
			if o.Callable == nil {
				continue
			}
			c.add(o.Callable.Params)
		}
	}
}

// decorators are the texts of what is put around a callable, where the project has them.
func (p *Pass) decorators(d *model.Declaration) (texts []string) {
	at := d.Speaks(model.Words)
	for t := range at.Tokens(at.Signature) {
		if t.Kind == model.TokenName {
			break
		}
		if t.Kind != model.TokenValue {
			continue
		}
		r := p.Links.Resolve(link.ScopeOf(d), t.Text, link.Loose)
		if r.Target.Declaration != nil {
			texts = append(texts, wholeText(r.Target.Declaration.Speaks(model.Words)))
		}
	}
	return texts
}

// wholeText is the text of a declaration with its body: up to the next that stands in
// the same scope.
func wholeText(at model.At) string {
	end := int32(len(at.File.Text))
	for i := range at.File.Occurrences {
		o := &at.File.Occurrences[i]
		if o.Scope == at.Scope && o.Span.Start > at.Span.Start && o.Span.Start < end {
			end = o.Span.Start
		}
	}
	return at.File.Text[at.Span.Start:end]
}

func (p *Pass) said(c *described, occurrences []model.At) {
	var text strings.Builder
	for _, o := range occurrences {
		if o.Doc == nil {
			continue
		}
		s := p.Links.Comments.Of(p.Module.Library.Habits, o.File, o.Doc)
		c.elsewhere = c.elsewhere && s.AllTaken() != nil
		c.sections = append(c.sections, s)
		if c.file == nil {
			c.file = o.File
		}
		text.WriteByte(' ')
		text.WriteString(o.Doc.Text)
	}
	c.text += text.String()
}

// taken adds what is said where the comment says that its text is another's.
func (p *Pass) taken(c *described, form *model.Form) {
	if form == nil {
		form = p.Links.MainForm(c.d)
	}
	if len(c.sections) > 0 {
		for _, above := range p.Links.PartsAbove(c.d, form) {
			c.above = append(c.above, above.Sections)
		}
	}
	for _, s := range c.sections {
		for i := range s.Body {
			if n := prose.Alone(&s.Body[i], prose.Inherited); n != nil {
				if sections, of := p.Links.TextTaken(c.d, form, n); of != nil {
					c.sections = append(c.sections, sections)
				}
			}
		}
	}
}

// place is where a finding about it stands.
func (c *described) place() finding.Place {
	if c.at != nil {
		return c.at.File.Place(c.at.NameSpan)
	}
	return at(c.d)
}

func (c *described) entries(kind prose.PartKind) []prose.Entry {
	var out []prose.Entry
	for _, s := range c.sections {
		for _, part := range s.Of(kind) {
			out = append(out, part.Entries...)
		}
	}
	return out
}

// fromAbove are the entries of comments that the comment has from what it overrides.
func (c *described) fromAbove(kind prose.PartKind) (out []prose.Entry) {
	for _, s := range c.above {
		for _, part := range s.Of(kind) {
			out = append(out, part.Entries...)
		}
	}
	return out
}

// hasResultsAbove reports whether one of those says what comes back.
func (c *described) hasResultsAbove() bool {
	return slices.ContainsFunc(c.above, func(s *prose.Sections) bool { return len(s.Of(prose.Results)) > 0 })
}

// mayTakeParts reports whether a comment has what it does not say from something that nobody
// here has read.
func (p *Pass) mayTakeParts(c *described) bool {
	h := c.d.Module.Library.Habits
	return h != nil && h.TakesParts && p.reachesOutside(c.d, 0)
}

// reachesOutside reports whether a member takes the place of one that nobody here has read, or
// of one that does.
func (p *Pass) reachesOutside(d *model.Declaration, depth int) bool {
	const highest = 20
	above := p.Links.Relations(d).Overrides
	if len(above) == 0 {
		return p.overridesOutside(d)
	}
	return depth < highest && slices.ContainsFunc(above, func(of *model.Declaration) bool { return p.reachesOutside(of, depth+1) })
}

// structured reports whether the comment has a section on how to call it.
func (c *described) structured() bool {
	for _, kind := range []prose.PartKind{prose.Parameters, prose.Results, prose.Series, prose.Failures} {
		for _, s := range c.sections {
			if len(s.Of(kind)) > 0 {
				return true
			}
		}
	}
	return false
}

// plainName is a parameter's name without the signs around it.
func plainName(name string) string {
	return strings.TrimPrefix(strings.TrimLeft(strings.TrimSpace(name), "*"), "...")
}

// named yields the names that entries describe, several of one entry included.
func named(entries []prose.Entry, yield func(e prose.Entry, name string)) {
	for _, e := range entries {
		for name := range strings.SplitSeq(e.Name, ",") {
			if name = plainName(name); name != "" {
				yield(e, name)
			}
		}
	}
}

// takes reports whether a parameter of the name exists, itself or as a part of one.
func (c *described) takes(name string) bool {
	first, rest, deeper := strings.Cut(name, ".")
	first = strings.TrimSuffix(first, "[]")
	if !deeper && c.isParam(first) {
		return true
	}
	return slices.ContainsFunc(c.params, func(param model.Param) bool {
		if !deeper && isPattern(param) && c.roots()[first] {
			return true // the name that a comment gives an argument which is taken apart at once
		}
		if deeper && len(param.Names()) > 0 && (param.Name == "{}" || plainName(param.Name) == first) {
			field, _, _ := strings.Cut(rest, ".")
			return slices.Contains(param.Names(), field) || slices.Contains(param.Names(), "...")
		}
		return plainName(param.Name) == first || slices.Contains(param.Names(), name)
	})
}

// roots are the names that the comment gives patterns: as many as there are, those
// with descriptions of fields first.
func (c *described) roots() map[string]bool {
	patterns := 0
	for _, param := range c.params {
		if isPattern(param) {
			patterns++
		}
	}
	roots := map[string]bool{}
	for _, deep := range []bool{true, false} {
		named(c.entries(prose.Parameters), func(_ prose.Entry, name string) {
			first, _, deeper := strings.Cut(name, ".")
			if first = strings.TrimSuffix(first, "[]"); deeper == deep && !c.isParam(first) && (roots[first] || len(roots) < patterns) {
				roots[first] = true
			}
		})
	}
	return roots
}

// isPattern reports whether a parameter is written as a pattern and has no name.
func isPattern(param model.Param) bool { return param.Name == "{}" || param.Name == "[]" }

func (c *described) isParam(name string) bool {
	if c.names == nil {
		c.names = map[string]bool{}
		for i := range c.params {
			c.names[plainName(c.params[i].Name)] = true
		}
	}
	return c.names[name]
}
