package check

import (
	"slices"
	"strings"
	"sync"

	"codrel/internal/finding"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// This file holds the rules on named sections: whether what a comment says of
// parameters, results and failures agrees with the signature and the body.

const partsHead = `"""Predicts water levels."""

class TooEarly(Exception):
    """Raised for an hour before the almanac begins."""


def height(hour: int, harbour: str = "Norhaven") -> float:
    """Predicts the water level for an hour of the day.

`

const partsTail = `    """
    if hour < 0:
        raise TooEarly(hour)
    return len(harbour) * 0.1
`

const (
	partHour    = "        hour: Counted from midnight.\n"
	partHarbour = "        harbour: The name of a harbour.\n"
	partResult  = "\n    Returns:\n        The level in metres.\n"
	partFailure = "\n    Raises:\n        TooEarly: If the hour lies before the almanac.\n"
	partsRight  = partsHead + "    Args:\n" + partHour + partHarbour + partResult + partFailure + partsTail
)

var phantomParameter = Rule{
	Name: finding.PhantomParameter, Default: finding.Error, Language: "python",
	Summary: "a comment describes a parameter that does not exist",
	Explanation: `A parameter was renamed or removed, and its description stayed. Readers who pass
what is described get an error. Correct the description or remove it.

Names that a function may accept beyond its list, through **options, a rest
parameter or "arguments", are not judged, nor is a function without a body of its
own: there the comment declares the parameters.`,
	Wrong: partsHead + "    Args:\n" + partHour + "        harbor: The name of a harbour.\n" + partHarbour + partResult + partFailure + partsTail,
	Right: partsRight,
	Messages: map[string]string{
		"":     "{name} has no parameter {parameter}",
		"near": "{name} has no parameter {parameter}; did you mean {near}?",
	},
	module: func(p *Pass) { p.parts((*Pass).phantoms) },
}

var undescribedParameter = Rule{
	Name: finding.UndescribedParameter, Default: finding.Warning, Language: "python",
	Summary: "a comment describes some parameters and leaves one out",
	Explanation: `Where a comment has sections, readers look for each parameter in them. Describe
the missing one, if only in a few words.

A comment without sections is prose and is not judged, nor is a parameter that the
prose mentions by name. Parameters that the language fills in itself, names that
begin with "_", and rest parameters need no description.`,
	Wrong:    partsHead + "    Args:\n" + partHour + partResult + partFailure + partsTail,
	Right:    partsRight,
	Messages: map[string]string{"": "parameter {parameter} of {name} is not described"},
	module:   func(p *Pass) { p.parts((*Pass).undescribedParameters) },
}

var undescribedResult = Rule{
	Name: finding.UndescribedResult, Default: finding.Note, Language: "python",
	Summary: "a comment has sections, but none on what the function returns",
	Explanation: `The function returns something, and the comment describes only its parameters. Say
what it returns. A comment that does so in its prose ("Returns ...", "Yields ...",
or "Creates ..." at the beginning) is fine.`,
	Wrong:    partsHead + "    Args:\n" + partHour + partHarbour + partFailure + partsTail,
	Right:    partsRight,
	Messages: map[string]string{"": "the comment on {name} does not say what it returns", "series": "the comment on {name} does not say what it yields"},
	module:   func(p *Pass) { p.parts((*Pass).undescribedResults) },
}

var undescribedFailure = Rule{
	Name: finding.UndescribedFailure, Default: finding.Note, Language: "python",
	Summary: "a comment has sections, but does not mention an exception that the function raises",
	Explanation: `The body raises or throws an exception by name, and the comment does not tell
callers when. Add it, or mention it in the prose.`,
	Wrong:    partsHead + "    Args:\n" + partHour + partHarbour + partResult + partsTail,
	Right:    partsRight,
	Messages: map[string]string{"": "the comment on {name} does not mention that it {verb} {failure}"},
	module:   func(p *Pass) { p.parts((*Pass).undescribedFailures) },
}

var repeatedSection = Rule{
	Name: finding.RepeatedSection, Default: finding.Warning, Language: "python",
	Summary: "a comment describes the same thing twice",
	Explanation: `Two sections of one name, or two descriptions of one parameter: one of them is
out of date, and readers cannot tell which. Keep the right one.`,
	Wrong:    partsHead + "    Args:\n" + partHour + partHarbour + "        hour: Counted from noon.\n" + partResult + partFailure + partsTail,
	Right:    partsRight,
	Messages: map[string]string{"": "{text} is described twice"},
	module:   func(p *Pass) { p.flaws(prose.RepeatedSection, finding.RepeatedSection) },
}

var unknownTag = Rule{
	Name: finding.UnknownTag, Default: finding.Warning, Language: "python",
	Summary: "a tag or section heading is not known",
	Explanation: `The text under an unknown word is shown as it is, but not understood: parameters
described under "Agruments" count as undescribed.

If the word is one of your own, say once in codrel.yaml what it means: a section such
as notes, a label (shown before its text), a mark (no text follows), or ignored:

  vocabulary:
    python: {tideTable: notes, internalOnly: ignored}`,
	Wrong:    strings.Replace(partsRight, "    Raises:\n", "    Riases:\n", 1),
	Right:    partsRight,
	Messages: map[string]string{"": `"{text}" is not a known word here; if it is your own, add to codrel.yaml: vocabulary: {{language}: {{word}: label}}`, "near": `"{text}" is not a known word here; did you mean {near}?`},
	module:   func(p *Pass) { p.flaws(prose.UnknownWord, finding.UnknownTag) },
}

// parts calls judge for every callable in reach that has a comment, and for
// every class, whose comment may describe what making it takes.
func (p *Pass) parts(judge func(*Pass, *described)) {
	for d := range p.shown {
		if forms := p.formsApart(d); forms != nil {
			for i := range forms {
				if c := p.describeForm(d, &forms[i]); c != nil {
					judge(p, c)
				}
			}
		} else if c := p.describe(d); c != nil {
			judge(p, c)
		}
	}
}

func (p *Pass) phantoms(c *described) {
	for _, own := range p.perForm(c) {
		p.phantomsOf(own)
	}
}

// perForm takes what is said of a callable apart into what is said of each of its overloads
// that has a comment of its own; such a comment speaks for those as well that have none.
// What has no overloads is one, as its first comment has it: what a class says of making it
// was judged there.
func (p *Pass) perForm(c *described) []*described {
	forms := c.d.Split()
	if len(forms) < 2 {
		one := *c
		one.sections = c.sections[:min(1, len(c.sections))]
		return []*described{&one}
	}
	var out []*described
	var bare []model.Param
	for i := range forms {
		doc, file := forms[i].Doc()
		params := paramsOf(&forms[i])
		if doc == nil {
			bare = append(bare, params...)
			continue
		}
		one := &described{d: c.d, sections: []*prose.Sections{p.Links.Comments.Of(p.Module.Library.Habits, file, doc)}, file: file, told: c.told, text: doc.Text}
		one.add(params)
		for _, at := range forms[i].Occurrences {
			one.loose = one.loose || at.Callable != nil && at.Callable.ReadsArguments
		}
		out = append(out, one)
	}
	for _, one := range out {
		one.add(bare)
	}
	return out
}

// paramsOf are the parameters of all that makes up a form.
func paramsOf(f *model.Form) (out []model.Param) {
	for _, at := range f.Occurrences {
		if at.Callable != nil {
			out = append(out, at.Callable.Params...)
		}
	}
	return out
}

// phantomsOf judges what one form's comment says.
func (p *Pass) phantomsOf(c *described) {
	entries := c.entries(prose.Parameters)
	if len(entries) == 0 || c.loose || c.told || isCompiled(c.d) {
		return
	}
	decorators := sync.OnceValue(func() []string { return p.decorators(c.d) })
	var names []string
	for _, param := range c.params {
		if !param.Implied {
			names = append(names, plainName(param.Name))
		}
	}
	named(entries, func(e prose.Entry, name string) {
		if c.takes(name) || c.takes("_"+name) || strings.HasSuffix(name, ".") || strings.EqualFold(name, "none") {
			return
		}
		if slices.ContainsFunc(decorators(), func(text string) bool { return mentions(text, name) }) || p.isMarked(c.d, name) {
			return // what is put around the function may well take it
		}
		if isTypeParameter(c.d, name) || isPlaceholder(e.Text) || mentions(c.ownSignature(), name) || ofResult(c.text) {
			return
		}
		f := finding.Finding{
			Rule: finding.PhantomParameter, Place: c.file.Place(e.Span),
			Arguments: []finding.Argument{argument("name", c.d.Path()), argument("parameter", name)},
		}
		if near := nearest.Word(name, names); near != "" {
			f.Form = "near"
			f.Arguments = append(f.Arguments, argument("near", near))
		}
		p.report(c.d, f)
	})
}

// isTypeParameter reports whether a declaration has a type parameter of a name: some describe
// these with the others.
func isTypeParameter(d *model.Declaration, name string) bool {
	return slices.ContainsFunc(d.Occurrences, func(at model.At) bool {
		return slices.ContainsFunc(at.TypeParams(), func(p model.Param) bool { return p.Name == name })
	})
}

// isCompiled reports whether a member stands in code alone, beside a file that declares what
// it is a member of: the names of parameters there may be a compiler's.
func isCompiled(d *model.Declaration) bool {
	return d.Parent != nil && d.Parent.InStub() && !d.InStub()
}

// isMarked reports whether what stands before the name of a callable, or of what makes a
// class, writes a name as a text, as marks do that take a parameter under another name.
func (p *Pass) isMarked(d *model.Declaration, name string) bool {
	if d.Kind() == model.KindClass {
		if d = constructor(d); d == nil {
			return false
		}
	}
	return slices.ContainsFunc(d.Occurrences, func(o model.At) bool {
		if o.Span.Start >= o.NameSpan.Start {
			return false
		}
		before := o.File.Text[o.Span.Start:o.NameSpan.Start]
		return strings.Contains(before, `"`+name+`"`) || strings.Contains(before, "'"+name+"'")
	})
}

// ownSignature is the line of a call that a comment begins with, as those of compiled
// functions do, or "".
func (c *described) ownSignature() string {
	first, _, _ := strings.Cut(strings.TrimSpace(c.text), "\n")
	if name := lastName(c.d.Path()); strings.HasPrefix(first, name+"(") && strings.Contains(first, ")") {
		return first[len(name):]
	}
	return ""
}

// ofResult reports whether a comment says that it goes on with what the returned function
// takes.
func ofResult(text string) bool {
	for line := range strings.Lines(text) {
		line = strings.ToLower(strings.TrimSpace(line))
		if strings.HasSuffix(line, ":") && (strings.Contains(line, "returned function") || strings.Contains(line, "function that takes") || strings.Contains(line, "function that is called with")) {
			return true
		}
	}
	return false
}

// isPlaceholder reports whether a text is a word in capitals that code replaces.
func isPlaceholder(nodes []prose.Node) bool {
	text := prose.Plain(nodes)
	return strings.Contains(text, "_") && strings.Trim(text, "ABCDEFGHIJKLMNOPQRSTUVWXYZ_") == ""
}

func (p *Pass) undescribedParameters(c *described) {
	if c.elsewhere || len(c.entries(prose.Parameters)) == 0 || c.d.Kind() == model.KindClass || madeByCode(c.text) || isCompiled(c.d) {
		return // prose, and a comment on the result alone, leave nobody looking for parameters
	}
	said := map[string]bool{}
	foreign := false
	for _, kind := range []prose.PartKind{prose.Parameters, prose.Fields} {
		named(c.entries(kind), func(_ prose.Entry, name string) {
			first, _, _ := strings.Cut(name, ".")
			foreign = foreign || !c.isParam(first)
			said[strings.TrimSuffix(first, "[]")], said[name] = true, true
		})
	}
	named(c.fromAbove(prose.Parameters), func(_ prose.Entry, name string) { said[name] = true })
	if p.mayTakeParts(c) {
		return
	}
	asked := map[string]bool{}
	for _, param := range c.asked {
		name := plainName(param.Name)
		if param.Implied || param.Variadic || c.d.Module.Library.Habits.IsUnused(name) || said[name] || asked[name] || mentions(c.text, name) {
			continue
		}
		if slices.ContainsFunc(param.Names(), func(field string) bool { return said[field] }) || isPattern(param) && foreign {
			continue // a pattern is described by what it takes out, or under a name of the comment's own
		}
		asked[name] = true
		p.report(c.d, finding.Finding{
			Rule: finding.UndescribedParameter, Place: c.place(),
			Arguments: []finding.Argument{argument("name", c.d.Path()), argument("parameter", name)},
		})
	}
}

// madeByCode reports whether a comment has places that code fills in when the program
// runs, such as "%(Spectral)s" and "${LIKE}": what they bring is not known here.
func madeByCode(text string) bool {
	for _, open := range []string{"%(", "${", "\n{"} {
		for at := 0; ; {
			i := strings.Index(text[at:], open)
			if i < 0 {
				break
			}
			at += i + len(open)
			end := at
			for end < len(text) && inWord(text[end]) {
				end++
			}
			if end > at && end < len(text) && (open == "%(" && strings.HasPrefix(text[end:], ")s") || open != "%(" && text[end] == '}') {
				return true
			}
		}
	}
	return false
}

// mentions reports whether a whole word stands in a text.
func mentions(text, word string) bool {
	if word == "" {
		return true
	}
	for at := 0; ; {
		i := strings.Index(text[at:], word)
		if i < 0 {
			return false
		}
		i += at
		at = i + len(word)
		if (i == 0 || !inWord(text[i-1])) && (at == len(text) || !inWord(text[at])) {
			return true
		}
	}
}

func inWord(c byte) bool {
	return c == '_' || '0' <= c && c <= '9' || 'a' <= c|0x20 && c|0x20 <= 'z' || c >= 0x80
}

func (p *Pass) undescribedResults(c *described) {
	if c.elsewhere || !c.structured() || c.d.Kind() == model.KindClass || c.d.Kind() == model.KindConstructor {
		return
	}
	if len(c.entries(prose.Results)) > 0 || len(c.entries(prose.Series)) > 0 || c.hasResultsAbove() || p.mayTakeParts(c) {
		return
	}
	lower := strings.ToLower(c.text)
	for _, word := range []string{"return", "returns", "returning", "returned", "yield", "yields", "gives", "result", "results"} {
		if mentions(lower, word) {
			return
		}
	}
	if p.saysWhatItIs(c) || changesItself(c) || givesAsOperatorsDo(c) || c.pointsToNamesake() {
		return
	}
	form := ""
	gives := false
	for _, o := range c.forms {
		if o.Callable == nil {
			continue
		}
		switch o.Callable.Returns {
		case model.ReturnsNever, model.ReturnsSelf: // there is nothing to say of it
			continue
		case model.ReturnsSeries:
			gives, form = true, "series"
		}
		if len(o.Callable.Results) > 0 { // what is declared outweighs what a body looks like
			gives = gives || !isNothing(p.Module.Library.Habits, o.Callable.Results[0].Type.Text(o.File.Text))
		} else {
			gives = gives || o.Callable.Returns == model.ReturnsResult || o.Callable.Returns == model.ReturnsForwarded && p.relayed(c.d, o, 0)
		}
	}
	if gives {
		p.report(c.d, finding.Finding{
			Rule: finding.UndescribedResult, Form: form, Place: c.place(), Arguments: []finding.Argument{argument("name", c.d.Path())},
		})
	}
}

// pointsToNamesake reports whether a comment says to see a member of the same name, as comments on
// what overrides others do.
func (c *described) pointsToNamesake() bool {
	found := false
	for _, s := range c.sections {
		for _, part := range s.Of(prose.SeeAlso) {
			prose.Walk(part.Body, func(n *prose.Node) bool {
				name, _, _ := strings.Cut(n.Target, "(")
				found = found || n.Kind == prose.Reference && lastName(name) == c.d.Name
				return true
			})
		}
	}
	return found
}

// changesItself reports whether a method gives what its type is and its first sentence says
// that it changes something: it gives the object itself, so that calls can be put in a row.
func changesItself(c *described) bool {
	if c.d.Parent == nil || !c.d.Parent.Kind().IsType() {
		return false
	}
	for _, o := range c.forms {
		if o.Callable == nil || len(o.Callable.Results) == 0 || slices.Contains(o.Modifiers(), "static") {
			return false
		}
		name, _, _ := strings.Cut(o.Callable.Results[0].Type.Text(o.File.Text), "<")
		if name != c.d.Parent.Name {
			return false
		}
	}
	for _, s := range c.sections {
		if words := strings.Fields(strings.ToLower(prose.Plain(prose.Summary(s.Body)))); len(words) > 0 {
			return changing[strings.TrimSuffix(words[0], "s")] || changing[strings.TrimSuffix(words[0], "es")]
		}
	}
	return false
}

// givesAsOperatorsDo reports whether an operator gives the object that it changes, or what its first
// operand refers to, or is a conversion to what it gives: nobody needs to be told.
func givesAsOperatorsDo(c *described) bool {
	if c.d.Kind() != model.KindOperator {
		return false
	}
	for _, o := range c.forms {
		if o.Callable == nil || len(o.Callable.Results) == 0 {
			return false
		}
		result := o.Callable.Results[0].Type.Text(o.File.Text)
		refers := strings.HasSuffix(result, "&")
		itself := refers && c.d.Parent != nil && strings.TrimRight(result, "& ") == c.d.Parent.Name
		first := refers && len(o.Callable.Params) > 0 && o.Callable.Params[0].Type.Text(o.File.Text) == result
		if !itself && !first && !strings.HasSuffix(c.d.Name, " "+result) {
			return false
		}
	}
	return len(c.forms) > 0
}

// changing are verbs for what changes an object.
var changing = map[string]bool{
	"add": true, "append": true, "attach": true, "change": true, "clear": true, "close": true, "configure": true, "decrease": true, "delete": true,
	"disable": true, "discard": true, "enable": true, "expand": true, "extend": true, "fill": true, "flush": true, "increase": true, "insert": true,
	"mark": true, "move": true, "open": true, "prepend": true, "push": true, "put": true, "register": true, "remove": true, "replace": true,
	"reposition": true, "request": true, "reset": true, "set": true, "skip": true, "specifie": true, "specify": true, "start": true, "stop": true, "store": true,
	"swap": true, "transfer": true, "update": true, "wait": true, "write": true,
}

// saysWhatItIs reports whether the first sentence tells what comes back without the
// word: by a verb whose object it is, as in "Creates an engine" and "Check whether it
// floats", or by a noun, as in "A validator that raises an error".
func (p *Pass) saysWhatItIs(c *described) bool {
	for _, s := range c.sections {
		words := strings.Fields(strings.ToLower(prose.Plain(prose.Summary(s.Body))))
		if isNounOf(words) {
			return true
		}
		for i, word := range words {
			word = strings.Trim(word, ".,;:()*`\"'")
			if i == 0 && nouns[word] {
				return true
			}
			if making[word] || making[strings.TrimSuffix(word, "s")] || making[strings.TrimSuffix(word, "es")] {
				return true
			}
		}
		if len(words) > 0 {
			return false
		}
	}
	return false
}

// isNounOf reports whether a sentence begins with what comes back, of something: as in
// "Differential entropy of the variable" and "Representation of a covariance". Behind a
// verb an article stands first.
func isNounOf(words []string) bool {
	const longest = 4 // words before "of"
	for i, word := range words[:min(len(words), longest+1)] {
		switch word {
		case "a", "an", "the", "this", "all", "each", "in", "to", "for", "with", "from", "as", "on", "at", "into":
			return false
		case "of":
			return i > 0 && i+1 < len(words) && (words[i+1] == "a" || words[i+1] == "an" || words[i+1] == "the")
		}
	}
	return false
}

// nouns begin a comment that says what its subject is, rather than what it does.
var nouns = map[string]bool{
	"a": true, "an": true, "the": true, "decorator": true, "wrapper": true, "context": true, "factory": true, "alias": true, "shortcut": true,
	"whether": true, "helper": true, "iterator": true, "generator": true, "version": true, "use": true, "number": true, "list": true, "true": true, "false": true,
}

// relayed reports whether a callable gives anything, whose body returns what others give.
func (p *Pass) relayed(d *model.Declaration, at model.At, depth int) bool {
	const deepest = 5
	if depth > deepest {
		return true
	}
	for _, name := range at.Callable.Relays() {
		of := p.callee(d, name)
		if self, _, member := strings.Cut(name, "."); of == nil && member && isSelf(d, self) {
			continue // of an object that it holds, which nobody here knows
		}
		if of == nil || of.Speaks(model.Words).Callable == nil {
			return true // told elsewhere
		}
		called := of.Speaks(model.Words)
		switch {
		case len(called.Callable.Results) > 0:
			if !isNothing(p.Module.Library.Habits, called.Callable.Results[0].Type.Text(called.File.Text)) {
				return true
			}
		case called.Callable.Returns == model.ReturnsNothing:
		case called.Callable.Returns != model.ReturnsForwarded || p.relayed(of, called, depth+1):
			return true
		}
	}
	return false
}

// callee is the callable that a body calls by a name: a member of its own object, or what
// its module knows by it.
func (p *Pass) callee(d *model.Declaration, name string) *model.Declaration {
	if self, member, ok := strings.Cut(name, "."); ok && d.Parent != nil && isSelf(d, self) && !strings.Contains(member, ".") {
		return d.Parent.Member(member)
	}
	r := p.Links.Resolve(link.Scope{Module: d.Module, File: d.Speaks(model.Words).File}, name, link.Loose)
	if r.Target.Declaration == nil || r.Target.Declaration.Kind().IsType() {
		return nil
	}
	return r.Target.Declaration
}

// isSelf reports whether a name is that of a method's own object.
func isSelf(d *model.Declaration, name string) bool {
	c := d.Speaks(model.Words).Callable
	return c != nil && len(c.Params) > 0 && c.Params[0].Implied && c.Params[0].Name == name
}

// making are the verbs whose object is what is given back; without the ending of the
// third person.
var making = map[string]bool{
	"produce": true, "create": true, "construct": true, "make": true, "build": true, "generate": true, "provide": true, "get": true,
	"fetch": true, "compute": true, "calculate": true, "retrieve": true, "obtain": true, "render": true, "tell": true, "convert": true, "check": true, "determine": true, "test": true, "resolve": true, "deserialize": true, "parse": true, "turn": true,
	"load": true, "read": true, "decode": true, "encode": true, "find": true, "look": true, "select": true, "copy": true, "clone": true, "format": true, "join": true,
	"split": true, "merge": true, "extract": true, "estimate": true, "evaluate": true, "count": true, "list": true, "wrap": true, "transform": true, "whether": true,
	"serialize": true, "compare": true, "derive": true, "query": true, "search": true, "choose": true, "pick": true, "sample": true, "draw": true, "open": true,
}

// isNothing knows the types of functions that give nothing back.
func isNothing(h *model.Habits, typ string) bool {
	typ = strings.Trim(typ, `"' `)
	first, _, _ := strings.Cut(typ, " ")
	return slices.Contains(h.Nothing, lastPart(typ)) || first != typ && slices.Contains(h.Nothing, first)
}

func (p *Pass) undescribedFailures(c *described) {
	if !c.structured() || c.d.Kind() == model.KindClass || c.told || c.tellsFailure() || c.inherits() {
		return
	}
	if isStarted(c.d) {
		return // nobody calls it who could be told
	}
	said := map[string]bool{}
	named(append(c.entries(prose.Failures), c.fromAbove(prose.Failures)...), func(_ prose.Entry, name string) { said[lastPart(name)] = true })
	for _, o := range c.forms {
		if o.Callable == nil {
			continue
		}
		declared := o.Declares()
		if p.mayTakeParts(c) {
			declared = nil // what is said of those comes along
		}
		for _, failure := range slices.Concat(declared, o.Callable.Fails()) {
			name := lastPart(failure.Name)
			if said[name] || mentions(c.text, name) || ordinary[name] || slices.ContainsFunc(o.TypeParams(), func(t model.Param) bool { return t.Name == name }) {
				continue
			}
			said[name] = true
			p.report(c.d, finding.Finding{
				Rule: finding.UndescribedFailure, Place: o.File.Place(failure.Span),
				Arguments: []finding.Argument{argument("name", c.d.Path()), argument("verb", p.failureVerb()), argument("failure", failure.Name)},
			})
		}
	}
}

// inherits reports whether some of what is said stands at what the callable takes the place of.
func (c *described) inherits() bool {
	inherits := false
	for _, s := range c.sections {
		for nodes := range s.All {
			prose.Walk(nodes, func(n *prose.Node) bool {
				inherits = inherits || n.Kind == prose.Inherited
				return !inherits
			})
		}
	}
	return inherits
}

// ordinary are failures that say nothing to callers: bodies that others fill, ends of
// iterations and checks of the author's own.
var ordinary = map[string]bool{
	"NotImplementedError": true, "AssertionError": true, "StopIteration": true, "StopAsyncIteration": true, "GeneratorExit": true,
	"NotImplemented": true, "UnsupportedOperation": true,
}

// tellsFailure reports whether a section says how it fails without naming a type.
func (c *described) tellsFailure() bool {
	for _, s := range c.sections {
		for _, part := range s.Of(prose.Failures) {
			if len(part.Body) > 0 || slices.ContainsFunc(part.Entries, func(e prose.Entry) bool { return e.Name == "" && len(e.Text) > 0 }) {
				return true
			}
		}
	}
	return false
}

func lastPart(name string) string { return name[strings.LastIndexByte(name, '.')+1:] }

// flaws reports what the dialect found wrong with how comments are written.
func (p *Pass) flaws(kind prose.FlawKind, rule string) {
	look := func(d *model.Declaration, doc *model.Doc, f *model.Facts) {
		if doc == nil || f.Generated {
			return
		}
		for _, flaw := range p.Links.Comments.Of(p.Module.Library.Habits, f, doc).Flaws {
			if flaw.Kind != kind {
				continue
			}
			found := finding.Finding{Rule: rule, Place: f.Place(flaw.Span), Arguments: []finding.Argument{argument("text", flaw.Text)}}
			if rule == finding.UnknownTag {
				found.Arguments = append(found.Arguments, argument("language", f.Language), argument("word", strings.TrimPrefix(flaw.Text, "@")))
			}
			if rule == finding.MalformedComment {
				found.Form = "unclosed"
				switch kind {
				case prose.AsWritten:
					found.Form, found.Arguments = "plain", nil
				case prose.Unopened:
					found.Form = "unopened"
				case prose.NoElement:
					found.Form = "no element"
				case prose.Unescaped:
					found.Form = "unescaped"
					found.Arguments = append(found.Arguments, argument("near", flaw.Near))
					p.report(d, found)
					continue
				}
			}
			if flaw.Near != "" {
				found.Form = "near"
				found.Arguments = append(found.Arguments, argument("near", flaw.Near))
			}
			p.report(d, found)
		}
	}
	if p.Links.ModuleInReach(p.Module) {
		for _, doc := range p.Module.Doc {
			look(nil, doc.Doc, doc.File)
		}
		for _, f := range p.Module.Files {
			if f.LibraryDoc != nil {
				look(nil, f.LibraryDoc, f)
			}
		}
	}
	for d := range p.shown {
		for _, o := range d.Occurrences {
			look(d, o.Doc, o.File)
		}
	}
}
