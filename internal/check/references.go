package check

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"codrel/internal/finding"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// This file holds the rules on references in prose and types in signatures.

var brokenReference = Rule{
	Name: finding.BrokenReference, Default: finding.Error, Language: "go",
	Summary: "a reference in a comment leads nowhere",
	Explanation: `What the reference named was renamed, moved or removed, and the text is out of
date. Write the current name; the finding suggests the nearest one.

In Go comments a name in brackets is taken for a reference only if its first part is
known or it looks like an identifier. Other words in brackets are left alone.`,
	Wrong: `// Package tide predicts water levels.
package tide

// Height gives the water level; see [Tide.Hight].
func Height(hour int) float64 { return 0 }

// Tide is one high or low water.
type Tide struct {
	Height float64
}
`,
	Right: `// Package tide predicts water levels.
package tide

// Height gives the water level; see [Tide.Height].
func Height(hour int) float64 { return 0 }

// Tide is one high or low water.
type Tide struct {
	Height float64
}
`,
	Messages: map[string]string{
		"":                `"{text}" is not declared`,
		"near":            `"{text}" is not declared; did you mean {near}?`,
		"nothing to take": `"{text}" inherits nothing: nothing that {kind} {name} overrides or implements has a comment`,
		"fits no form":    `no overload has the parameters of "{text}"; there is {forms}`,
		"no text":         `"{text}" has no text to inherit`,
		"no file":         `{file} is not there, or cannot be read, to take text from`,
		"no part":         `"{text}" finds nothing in {file}`,
		"no heading":      `no heading of {page} is "{text}"`,
		"near a heading":  `no heading of {page} is "{text}"; did you mean "{near}"?`,
		"out of reach":    `"{text}" has no page to link to: it is not visible to users`,
	},
	module: func(p *Pass) {
		p.untaken()
		p.references(func(d *model.Declaration, place finding.Place, n *prose.Node, from link.Scope) {
			p.broken(d, place, n, from)
		})
	},
}

var ambiguousReference = Rule{
	Name: finding.AmbiguousReference, Default: finding.Warning, Language: "go",
	Summary: "a reference could mean more than one thing",
	Explanation: `Two declarations match equally well, so the reference becomes no link. Write more
of the name: put the module or the enclosing type before it.`,
	Wrong: `// Package tide predicts water levels. See [the moon].
//
// [the moon]: ref:Phase.Age
package tide
-- lunar/lunar.go --
// Package lunar knows the moon.
package lunar

// Phase is a phase of the moon.
type Phase struct{ Age int }
-- solar/solar.go --
// Package solar knows the sun.
package solar

// Phase is a phase of the sun.
type Phase struct{ Age int }
`,
	Right: `// Package tide predicts water levels. See [the moon].
//
// [the moon]: ref:lunar.Phase.Age
package tide
-- lunar/lunar.go --
// Package lunar knows the moon.
package lunar

// Phase is a phase of the moon.
type Phase struct{ Age int }
-- solar/solar.go --
// Package solar knows the sun.
package solar

// Phase is a phase of the sun.
type Phase struct{ Age int }
`,
	Messages: map[string]string{"": `"{text}" could mean {candidates}; write more of the name`},
	module: func(p *Pass) {
		p.references(func(d *model.Declaration, place finding.Place, n *prose.Node, from link.Scope) {
			p.ambiguous(d, place, n, from)
		})
	},
}

// untaken reports what comments take from other files that is not there.
func (p *Pass) untaken() {
	for _, f := range p.Module.Files {
		for _, u := range f.Untaken {
			found := finding.Finding{Rule: finding.BrokenReference, Form: "no file", Place: f.Place(u.Span), Arguments: []finding.Argument{argument("file", u.File)}}
			if u.Part != "" {
				found.Form = "no part"
				found.Arguments = append(found.Arguments, argument("text", u.Part))
			}
			p.report(nil, found)
		}
	}
}

// placer makes a finding's place of a span.
type placer = func(source.Span) finding.Place

// references calls visit for every reference in the comments of the module.
func (p *Pass) references(visit func(d *model.Declaration, place finding.Place, n *prose.Node, from link.Scope)) {
	characters := "[<{`@"
	if p.Module.ByFile() { // C's words begin with a backslash as well, and its names with a sign
		characters += "#\\"
	}
	p.eachText(func(d *model.Declaration, f *model.Facts, sections *prose.Sections, from link.Scope) {
		for nodes := range sections.All {
			prose.Walk(nodes, func(n *prose.Node) bool {
				if n.Kind == prose.Reference && (n.Target != "" || n.Info != prose.Value) || n.Kind == prose.Inherited && n.Strict {
					visit(d, f.Place(shownSpan(n)), n, from)
				}
				return true
			})
		}
	}, characters, "ref:")
}

// eachText calls visit for every comment of the module that has one of some characters,
// or a word, in it: most comments have none, and need not be taken apart.
func (p *Pass) eachText(visit func(d *model.Declaration, f *model.Facts, sections *prose.Sections, from link.Scope), characters, word string) {
	walk := func(d *model.Declaration, doc *model.Doc, f *model.Facts, from link.Scope) {
		if f.Generated || !strings.ContainsAny(doc.Text, characters) && !strings.Contains(doc.Text, word) {
			return
		}
		visit(d, f, p.Links.Comments.Of(p.Module.Library.Habits, f, doc), from)
	}
	if p.Links.ModuleInReach(p.Module) {
		for _, doc := range p.Module.Doc {
			walk(nil, doc.Doc, doc.File, link.Scope{Module: p.Module, File: doc.File})
		}
		for _, f := range p.Module.Files {
			if f.LibraryDoc != nil {
				walk(nil, f.LibraryDoc, f, link.Scope{Module: p.Module, File: f})
			}
		}
	}
	for _, f := range p.Module.Files {
		for _, g := range f.Groups {
			if g.Doc != nil && (g.Alone || p.Links.ModuleInReach(p.Module)) {
				walk(nil, g.Doc, f, link.Scope{Module: p.Module, File: f})
			}
		}
	}
	for d := range p.shown {
		for _, o := range d.Occurrences {
			from := link.Scope{Module: d.Site().Module, File: o.File, Declaration: d.Site()}
			if o.Doc != nil {
				walk(d, o.Doc, o.File, from)
			}
			if o.GroupDoc != nil {
				walk(d, o.GroupDoc, o.File, from)
			}
		}
	}
}

// shownSpan is the span of a reference's text, without its brackets.
func shownSpan(n *prose.Node) source.Span {
	if len(n.Children) > 0 && !n.Children[0].Span.Empty() {
		return n.Children[0].Span
	}
	return n.Span
}

func (p *Pass) resolve(from link.Scope, n *prose.Node) link.Result {
	return p.Links.ResolveNode(from, n)
}

// noPart reports a path that finds nothing in the comment whose text is to stand in its place.
func (p *Pass) noPart(d *model.Declaration, place finding.Place, n *prose.Node) bool {
	if d == nil || n.Info == "" {
		return false
	}
	part, of := p.Links.TextTaken(d, nil, n)
	if of == nil || len(part.Body)+len(part.Parts) > 0 {
		return false
	}
	p.report(d, finding.Finding{
		Rule: finding.BrokenReference, Form: "no part", Place: place,
		Arguments: []finding.Argument{argument("text", n.Info), argument("file", "the comment on "+of.Path())},
	})
	return true
}

func (p *Pass) broken(d *model.Declaration, place finding.Place, n *prose.Node, from link.Scope) {
	if n.Kind == prose.Inherited && p.noPart(d, place, n) {
		return
	}
	if n.Kind == prose.Inherited && n.Target == "" {
		p.nothingToTake(d, place, n)
		return
	}
	result := p.resolve(from, n)
	if result.NoHeading {
		p.noHeading(d, place, n, from, result)
		return
	}
	text := n.Target
	if kind, rest, ok := prose.CutPrefix(text); ok && !strings.Contains(place.Span.In(textOf(from)), kind+":") {
		text = rest // the dialect writes it in another way
	}
	if n.Named != nil && n.Named.Section != "" {
		text = n.Named.Section
	}
	f := finding.Finding{Rule: finding.BrokenReference, Place: place, Arguments: []finding.Argument{argument("text", text)}}
	switch {
	case result.Outcome == link.Found && n.Kind == prose.Inherited:
		if d == nil || p.Links.InheritedText(d, n) != nil {
			return
		}
		f.Form = "no text"
	case result.Outcome == link.Found && n.Strict && p.hidden(result.Target):
		if n.MayBeExternal && p.Links.MayBeOutside(from, n.Target) {
			return
		}
		f.Form, f.Severity = "out of reach", finding.Note // it is there, only not for users
	case result.Outcome != link.Missing:
		return
	case !n.Strict && n.MayBeExternal && !result.Partial: // a word in a list of names may be anybody's
		return
	case !n.Strict && !couldBeReference(n.Target, result):
		return
	case n.MayBeExternal && (p.Links.MayBeOutside(from, n.Target) || p.Links.MayBeUnseen(from, n.Target)):
		return
	case from.Module != nil && p.Links.MayBeMade(from.Module.Library, lastName(n.Target)):
		return
	case result.Unfit != nil:
		f.Form = "fits no form"
		f.Arguments = append(f.Arguments, argument("forms", listed(p.Links.FormsOf(result.Unfit))))
	default:
		near := p.Links.Near(from, n.Target)
		if len(lastName(n.Target)) < shortestNear {
			near = "" // one letter makes another word of any so short
		}
		if near == "" && (n.Strict || result.Partial) {
			near = p.Links.Moved(from, n.Target)
		}
		if !n.Strict && !result.Partial && near == "" && humps(n.Target) == 0 && !strings.Contains(n.Target, ".") {
			return // an aside in brackets, such as "[Optional]"
		}
		if near == "" && p.makesNames(from) {
			f.Severity = finding.Warning
		}
		switch {
		case near != "":
			f.Form = "near"
			f.Arguments = append(f.Arguments, argument("near", near))
			if from.File != nil && from.File.Path == place.File && place.Span.In(from.File.Text) == n.Target {
				f.Edits = []finding.Edit{{Place: place, Text: near}}
			}
		case n.Strict && p.Links.Kept(from, n.Target):
			f.Form, f.Severity = "out of reach", finding.Note
		}
	}
	p.report(d, f)
}

// textOf is the text of the file that a reference stands in.
func textOf(from link.Scope) string {
	if from.File == nil {
		return ""
	}
	return from.File.Text
}

// noHeading reports a reference to a heading that its page does not have.
func (p *Pass) noHeading(d *model.Declaration, place finding.Place, n *prose.Node, from link.Scope, result link.Result) {
	page := from.Module
	if result.Target.Module != nil {
		page = result.Target.Module
	}
	f := finding.Finding{
		Rule: finding.BrokenReference, Form: "no heading", Severity: finding.Warning, Place: place,
		Arguments: []finding.Argument{argument("text", n.Named.Section), argument("page", page.Path)},
	}
	if near := p.Links.NearHeading(page, n.Named.Section); near != "" {
		f.Form = "near a heading"
		f.Arguments = append(f.Arguments, argument("near", near))
	}
	p.report(d, f)
}

// nothingToTake reports a comment whose text is said to be another's where no other
// has any. Of what extends something that nobody here has read, nothing is claimed.
func (p *Pass) nothingToTake(d *model.Declaration, place finding.Place, n *prose.Node) {
	if d == nil || p.Links.InheritedText(d, n) != nil || p.Links.MayHaveMore(d) {
		return
	}
	p.report(d, finding.Finding{
		Rule: finding.BrokenReference, Form: "nothing to take", Place: place,
		Arguments: []finding.Argument{argument("text", prose.Plain(n.Children)), argument("kind", p.kindOf(d)), argument("name", d.Path())},
	})
}

// makesNames reports whether programs in the language of a place make names while they run.
func (p *Pass) makesNames(from link.Scope) bool {
	if from.Module == nil {
		return false
	}
	h := from.Module.Library.Habits
	return h != nil && h.Dynamic
}

// hidden reports whether a target is declared but has no page.
func (p *Pass) hidden(t link.Target) bool {
	if t.Module != nil {
		return !p.Links.ModuleInReach(t.Module)
	}
	return t.Declaration != nil && !p.Links.InReach(t.Declaration)
}

// couldBeReference judges a name in brackets that means nothing. Comments also
// use brackets for asides, indexes and footnotes, so it takes a sign: a part of
// the name was found, or all of it reads like identifiers.
func couldBeReference(target string, result link.Result) bool {
	if result.Partial {
		return true
	}
	if strings.Contains(target, "/") || len(target) < shortestName {
		return false
	}
	first, rest, _ := strings.Cut(target, ".")
	for name := range strings.SplitSeq(rest, ".") {
		if r, _ := utf8.DecodeRuneInString(name); rest != "" && !unicode.IsUpper(r) {
			return false
		}
	}
	return readsExported(first)
}

// shortestNear is how long a name must be for another to be suggested.
const shortestNear = 3

func lastName(target string) string {
	return target[strings.LastIndexAny(target, ".#:/")+1:]
}

// shortestName is how long a name in brackets must be to be compared with others.
const shortestName = 5

// readsExported reports whether a name begins with a capital and is not all capitals.
func readsExported(name string) bool {
	for i, r := range name {
		if i == 0 && !unicode.IsUpper(r) {
			return false
		}
		if unicode.IsLower(r) {
			return true
		}
	}
	return false
}

// humps counts the capitals that follow a small letter.
func humps(name string) int {
	n, small := 0, false
	for _, r := range name {
		if unicode.IsUpper(r) && small {
			n++
		}
		small = unicode.IsLower(r)
	}
	return n
}

func (p *Pass) ambiguous(d *model.Declaration, place finding.Place, n *prose.Node, from link.Scope) {
	if n.Target == "" {
		return
	}
	result := p.resolve(from, n)
	if result.Outcome != link.Ambiguous || n.MayBeExternal && p.Links.MayBeOutside(from, n.Target) {
		return
	}
	var names []string
	f := finding.Finding{Rule: finding.AmbiguousReference, Place: place}
	for _, c := range result.Candidates {
		names = append(names, candidateName(c))
		if c.Declaration != nil {
			f.Related = append(f.Related, finding.Related{Place: at(c.Declaration), Label: candidateName(c)})
		}
	}
	f.Arguments = []finding.Argument{argument("text", n.Target), argument("candidates", listed(names))}
	p.report(d, f)
}

// mostListed is how many names a finding lists; for more it says "others".
const mostListed = 4

func listed(names []string) string {
	if len(names) > mostListed {
		names = append(names[:mostListed-1:mostListed-1], "others")
	}
	return strings.Join(names, " or ")
}

func candidateName(t link.Target) string {
	if t.Module != nil {
		return t.Module.Path
	}
	return t.Declaration.Module.Path + "." + t.Declaration.Path()
}

var leakedType = Rule{
	Name: finding.LeakedType, Default: finding.Note, Language: "go",
	Summary: "a public signature names a type that users cannot name",
	Explanation: `Readers see a type that has no page and that their code cannot name. Make the type
public, or let the signature use an interface or another type that is.

Unexported types whose values are keys or tokens to pass on are often meant so:
let this finding pass there.`,
	Wrong: `// Package tide predicts water levels.
package tide

type table struct{}

// Load reads the table of a harbour.
func Load(harbour string) *table { return nil }
`,
	Right: `// Package tide predicts water levels.
package tide

// Table holds the tides of a harbour.
type Table struct{}

// Load reads the table of a harbour.
func Load(harbour string) *Table { return nil }
`,
	Messages: map[string]string{"": "the signature of {kind} {name} has the type {type}, which users cannot name"},
	module: func(p *Pass) {
		for d := range p.shown {
			switch k := d.Kind(); { // variables are values to pass on: who has one need not name its type
			case k == model.KindField, k == model.KindVariable, k == model.KindConstant, k.IsType():
			default:
				p.leaks(d)
			}
		}
	},
}

func (p *Pass) leaks(d *model.Declaration) {
	for _, o := range d.Occurrences {
		if len(d.Occurrences) > 1 && !p.Links.Reach().Includes(o.Visibility) {
			continue // an overload that is kept from users
		}
		if o.Extra != nil && o.Extra.Aside {
			continue // something else asks for it, as a trait does
		}
		if o.Implementation && slices.ContainsFunc(d.Occurrences, func(o model.At) bool { return !o.Implementation }) {
			continue // what users see is where it is declared
		}
		for _, t := range shownTypes(o) {
			typ := p.Links.TypeOf(d, o.File, t).Declaration
			if typ == nil || typ.Hidden || !typ.Kind().IsType() || p.Links.Reach().Includes(typ.Visibility) || p.Links.InReach(typ) || typ.Speaks(model.Words).File.Global {
				continue
			}
			if h := typ.Module.Library.Habits; h != nil && h.PlainAliases && typ.Kind() == model.KindType {
				continue
			}
			if p.elsewhereBuilt(typ, o) {
				continue // another type of the name is meant, which comes from outside
			}
			p.report(d, finding.Finding{
				Rule: finding.LeakedType, Place: o.File.Place(o.NameSpan),
				Arguments: []finding.Argument{argument("kind", p.kindOf(d)), argument("name", d.Path()), argument("type", t.Text)},
				Related:   []finding.Related{{Place: at(typ), Label: typ.Path()}},
			})
			break
		}
	}
}

// elsewhereBuilt reports whether a type exists only under conditions, and what names it under none, or under
// such that exclude them: projects make types themselves where a platform has none of the name.
func (p *Pass) elsewhereBuilt(typ *model.Declaration, at model.At) bool {
	own := p.conditions(at)
	return !slices.ContainsFunc(typ.Occurrences, func(o model.At) bool {
		all := p.conditions(o)
		return len(all) == 0 || len(own) > 0 && !slices.ContainsFunc(own, func(when string) bool {
			return slices.ContainsFunc(all, func(other string) bool { return denies(when, other) || denies(other, when) })
		})
	})
}

// conditions are all those under which an occurrence exists, without blanks.
func (p *Pass) conditions(at model.At) []string {
	all := slices.Concat(p.Links.Under(at), at.AllConditions())
	for i := range all {
		all[i] = strings.Join(strings.Fields(all[i]), "")
	}
	return all
}

// denies reports whether a condition is that another one does not hold.
func denies(when, other string) bool { return when == "not("+other+")" || when == "!"+other }

// shownTypes are the names of types in a signature, without those of a method's
// receiver: a method in reach has a type in reach.
func shownTypes(o model.At) []model.Token {
	var types []model.Token
	add := func(tokens model.Tokens) {
		for t := range o.Tokens(tokens) {
			if t.Kind == model.TokenType {
				types = append(types, t)
			}
		}
	}
	if o.Callable == nil {
		add(o.Signature)
		return types
	}
	for _, list := range [][]model.Param{o.TypeParams(), o.Callable.Params, o.Callable.Results} {
		for _, p := range list {
			add(p.Type)
		}
	}
	return types
}
