package site

import (
	"cmp"
	"path"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/render/plan"
)

// This file writes the notes in the margin: short sentences about a
// declaration, made of text and links.

// piece is a part of a sentence; Href is "" for plain text.
type piece struct {
	Text string
	Href string
	Name bool // a name of the code
	Gone bool // names something deprecated
	// Foreign is text that no translation may touch, and no name to be set as one.
	Foreign bool
}

type sentence []piece

// mostNames is how many files a sentence lists; the rest is counted.
const mostNames = 12

// mostModules is how many modules a sentence lists.
const mostModules = 7

// filled is what stands in one of the braces of a text.
type filled struct {
	slot   string
	pieces sentence
}

func slot(name string, pieces ...piece) filled { return filled{name, pieces} }

// sentenceOf says the text of a key with pieces in its braces.
func (v view) sentenceOf(key string, with ...filled) sentence {
	var out sentence
	for _, part := range v.look().Texts.Parts(key) {
		if part.Slot == "" {
			out = append(out, piece{Text: part.Words})
			continue
		}
		for _, f := range with {
			if f.slot == part.Slot {
				out = append(out, f.pieces...)
			}
		}
	}
	return out
}

// enumerated says "A, B and C" of a list, each as say has it. Where there are more
// than most, the rest is counted and rest, if it is not "", leads there.
func enumerated[T any](v view, list []T, most int, rest string, say func(T) sentence) sentence {
	shown := list
	if len(shown) > most {
		shown = shown[:most-1]
	}
	var s sentence
	for i, item := range shown {
		s = append(v.join(s, i, len(list)), say(item)...)
	}
	if more := len(list) - len(shown); more > 0 {
		s = append(s, piece{Text: v.say("and-more", "n", strconv.Itoa(more)), Href: rest})
	}
	return s
}

// names says the text of a key with "A, B and C" in it, each a link. Where there
// are more than most, the rest is counted and rest, if it is not "", leads there.
func (v view) names(key string, list []*model.Declaration, most int, rest string) sentence {
	s := enumerated(v, list, most, rest, func(d *model.Declaration) sentence {
		s := sentence{{Text: v.nameFromHere(d), Href: v.toDeclaration(d), Name: true, Gone: d.Deprecated()}}
		if at := d.Module.Library.Elsewhere; at != nil {
			s = append(s, piece{Text: " (" + at.Project + ")", Foreign: true})
		}
		return s
	})
	return v.sentenceOf(key, filled{"names", s})
}

// join puts what stands before the i-th of n things in a row.
func (v view) join(s sentence, i, n int) sentence {
	switch i {
	case 0:
		return s
	case n - 1:
		return append(s, piece{Text: v.say("and")})
	}
	return append(s, piece{Text: v.say("comma")})
}

// nameFromHere is a declaration's path, with its module's name before it where
// that is another than the page's.
func (v view) nameFromHere(d *model.Declaration) string {
	home := v.plan.Links.Home(d)
	if home == v.page.Module {
		return d.Path()
	}
	return moduleName(home) + "." + d.Path()
}

func moduleName(m *model.Module) string {
	if m.Name == "" || m.IsProgram() {
		return path.Base(m.Path)
	}
	return m.Name
}

// notes are the sentences beside a declaration.
func (v view) notes(d *model.Declaration) []sentence {
	out := v.written(d)
	switch {
	case d.IsSecond():
		out = append(out, v.sentenceOf("second-name", slot("names", v.baseName(d.Origin))))
	case d.Origin != nil && d.Origin.Parent != nil:
		out = append(out, v.sentenceOf("declared-by", slot("name", piece{Text: d.Origin.Parent.Path(), Name: true})))
	}
	if d.Generated() {
		out = append(out, sentence{{Text: v.say("generated")}})
	}
	if names := v.maker.Told(d, d.Speaks(model.Words)); len(names) > 0 {
		out = append(out, sentence{{Text: v.say("told-parameters")}})
	}
	out = append(out, v.marked(d)...)
	if scripts := mixedScripts(d.Name); scripts != nil {
		out = append(out, sentence{{Text: v.say("mixed-scripts", "scripts", strings.Join(scripts, v.say("and")))}})
	}
	if seen := v.plan.Links.Visibility(d); seen != model.Public {
		out = append(out, sentence{{Text: v.say(visibilityKeys[seen])}})
	}
	return append(append(append(out, v.inherited(d)...), v.usedBy(d)...), v.namedBy(d)...)
}

// marked says what the comment says of its subject in one word, unless the
// signature or a relation says the same.
func (v view) marked(d *model.Declaration) []sentence {
	sections, _ := v.plan.Links.Sections(d)
	var out []sentence
	for _, mark := range prose.Marks {
		if !slices.Contains(sections.Marks, mark) || hasKeyword(d.Speaks(model.Words), mark) || mark == d.Kind().String() {
			continue
		}
		if mark == "override" && len(v.plan.Links.Relations(d).Overrides) > 0 {
			continue
		}
		out = append(out, sentence{{Text: v.say("mark-" + mark)}})
	}
	return out
}

// hasKeyword reports whether a signature says a word.
func hasKeyword(at model.At, word string) bool {
	for t := range at.Tokens(at.Signature) {
		if t.Kind == model.TokenKeyword && strings.Contains(t.Text, word) {
			return true
		}
	}
	return false
}

// inherited says what a member takes the place of, what takes its place, and
// whose text it is described by.
func (v view) inherited(d *model.Declaration) []sentence {
	var out []sentence
	r := v.plan.Links.Relations(d)
	if len(r.Overrides) > 0 {
		key := "overrides"
		if of := r.Overrides[0].Parent; of != nil && of.Kind() == model.KindInterface {
			key = "fulfils"
		}
		out = append(out, v.names(key, r.Overrides, mostNames, ""))
	}
	if len(r.OverriddenBy) > 0 {
		key := "overridden"
		if d.Parent != nil && d.Parent.Kind() == model.KindInterface {
			key = "implemented"
		}
		out = append(out, v.names(key, r.OverriddenBy, mostNames, ""))
	}
	if of := v.plan.Links.TextOf(d); of != nil && of != d && v.plan.Links.InReach(of) {
		out = append(out, v.names("text-from", []*model.Declaration{of}, 1, ""))
	}
	parts := slices.DeleteFunc(v.plan.Links.TextsFrom(d), func(of *model.Declaration) bool { return !v.plan.Links.InReach(of) })
	if len(parts) > 0 {
		out = append(out, v.names("text-part-from", parts, mostNames, ""))
	}
	return out
}

// namedBy says which tests name a declaration, and which pages of the maintainer's.
func (v view) namedBy(d *model.Declaration) []sentence {
	var out []sentence
	if tests := v.plan.Links.NamedInTests(d); len(tests) > 0 {
		s := enumerated(v, tests, mostTests, "", func(t link.NamedInTest) sentence {
			return sentence{{Text: cmp.Or(t.Test, path.Base(t.File.Path)), Href: v.sourceAddress(t.File, int(t.Line)), Name: true}}
		})
		out = append(out, v.sentenceOf("named-in-tests", filled{"tests", s}))
	}
	for _, page := range v.plan.Links.MentionedIn(d) {
		out = append(out, v.sentenceOf("mentioned-in", slot("page", piece{Text: path.Base(page.Path), Href: v.to(plan.HomeAddress), Foreign: true})))
	}
	return out
}

// mostTests is how many tests a note names; the rest is counted.
const mostTests = 3

// mixedScripts names the scripts of a name that has letters of several which
// look alike, or is nil: such a name may be read as another.
func mixedScripts(name string) []string {
	var out []string
	for _, s := range []struct {
		name  string
		table *unicode.RangeTable
	}{{"Latin", unicode.Latin}, {"Greek", unicode.Greek}, {"Cyrillic", unicode.Cyrillic}, {"Armenian", unicode.Armenian}} {
		if strings.IndexFunc(name, func(r rune) bool { return unicode.Is(s.table, r) }) >= 0 {
			out = append(out, s.name)
		}
	}
	if len(out) < 2 {
		return nil
	}
	return out
}

var visibilityKeys = map[model.Visibility]string{
	model.Protected: "protected", model.Internal: "internal", model.PackageWide: "package-wide", model.Private: "private",
}

// mostPlaces is how many places of a declaration the margin lists.
const mostPlaces = 4

// written says where a declaration stands, and under which conditions: a
// sentence for each file.
func (v view) written(d *model.Declaration) []sentence {
	var out []sentence
	left := 0
	for i := 0; i < len(d.Occurrences); {
		first, end := d.Occurrences[i], i+1
		for end < len(d.Occurrences) && d.Occurrences[end].File == first.File && conditions(d.Occurrences[end]) == conditions(first) {
			end++
		}
		if len(out) == mostPlaces {
			left += end - i
			i = end
			continue
		}
		key, lines := "written", strconv.Itoa(int(first.Line))
		if end > i+1 {
			key = "written-lines"
			for _, o := range d.Occurrences[i+1 : min(end, i+mostPlaces)] {
				lines += v.say("comma") + strconv.Itoa(int(o.Line))
			}
			if end > i+mostPlaces {
				lines += v.say("and-more", "n", strconv.Itoa(end-i-mostPlaces))
			}
		}
		if conditions(first) != "" {
			key += "-for"
		}
		out = append(out, v.sentenceOf(key,
			slot("file", piece{Text: path.Base(first.File.Path), Href: v.sourceAddress(first.File, int(first.Line)), Name: true}),
			slot("line", piece{Text: lines}),
			slot("conditions", piece{Text: conditions(first), Name: true})))
		i = end
	}
	if left > 0 {
		out = append(out, sentence{{Text: v.say("more-places", "n", strconv.Itoa(left))}})
	}
	return out
}

// conditions are what must hold for an occurrence to exist.
func conditions(o model.At) string {
	return strings.Join(o.AllConditions(), " and ")
}

// relations are the sentences at the end of a type's page.
func (v view) relations(d *model.Declaration) []sentence {
	var out []sentence
	for _, r := range v.plan.Relations(d) {
		rest := ""
		if len(r.Names) > plan.MostRelated {
			rest = v.to(v.plan.Related(d))
		}
		out = append(out, v.names(v.look().Texts.In(r.Key, d.Module.Library.Language), r.Names, plan.MostRelated, rest))
	}
	return out
}

// allRelations are the same without an end.
func (v view) allRelations(d *model.Declaration) []sentence {
	var out []sentence
	for _, r := range v.plan.Relations(d) {
		out = append(out, v.names(v.look().Texts.In(r.Key, d.Module.Library.Language), r.Names, len(r.Names), ""))
	}
	return out
}

// moduleNotes are the sentences beside a module's heading.
func (v view) moduleNotes(m *model.Module) []sentence {
	var out []sentence
	switch {
	case m.IsProgram():
		out = append(out, sentence{{Text: v.say("a-program")}})
	case m.Internal:
		out = append(out, sentence{{Text: v.say("internal")}})
	}
	var files sentence
	all := m.AllFiles()
	shown := all
	if len(shown) > mostNames {
		shown = shown[:mostNames-1]
	}
	for i, f := range shown {
		if i > 0 {
			files = append(files, piece{Text: v.say("comma")})
		}
		files = append(files, piece{Text: path.Base(f.Path), Href: v.sourceAddress(f, 1), Name: true})
	}
	if more := len(all) - len(shown); more > 0 {
		files = append(files, piece{Text: v.say("and-more", "n", strconv.Itoa(more))})
	}
	out = append(out, v.sentenceOf("files", slot("count", piece{Text: v.count(len(all), "file")}), filled{"files", files}))
	if others := m.Library.OtherNames(m.Path); len(others) > 0 {
		out = append(out, v.sentenceOf("also-imported", filled{"names", enumerated(v, others, mostNames, "", func(name string) sentence {
			return sentence{{Text: name, Name: true}}
		})}))
	}
	var imports []*model.Module
	for _, e := range v.plan.Links.Imports(m) {
		imports = append(imports, e.To)
	}
	out = v.modulesSaid(out, "imports", imports)
	out = v.modulesSaid(out, "imported-by", v.plan.Links.ImportedBy(m))
	if list := v.plan.UsersOfModule(m); list != "" {
		out = append(out, v.sentenceOf("who-uses-link", slot("who-uses", piece{Text: v.say("who-uses-it"), Href: v.to(list)})))
	}
	return out
}

// modulesSaid adds a sentence that names modules, if there are any.
func (v view) modulesSaid(out []sentence, key string, list []*model.Module) []sentence {
	if len(list) == 0 {
		return out
	}
	s := enumerated(v, list, mostModules, "", func(m *model.Module) sentence {
		p := piece{Text: shortPath(m), Name: true}
		if v.plan.Links.ModuleInReach(m) {
			p.Href = v.to(v.plan.Module(m))
		}
		return sentence{p}
	})
	return append(out, v.sentenceOf(key, filled{"names", s}))
}

// typeCrumbs are the steps to the page's type: the namespaces around it, and itself.
func (v view) typeCrumbs() []crumb {
	p := v.page
	if len(p.Twins) > 0 {
		return []crumb{{Text: p.Title, Name: true, Href: v.to(v.plan.PageOf(p.Type))}}
	}
	var out []crumb
	for d := p.Type; d != nil; d = d.Parent {
		out = append(out, crumb{Text: d.Name, Name: true, Href: v.to(v.plan.PageOf(d))})
	}
	slices.Reverse(out)
	return out
}

// crumb is one step of the way from the landing page to this one.
type crumb struct {
	Text string
	Href string // "" for the page itself
	Name bool
}

func (v view) crumbs() []crumb {
	p := v.page
	out := []crumb{{Text: v.project().Name, Href: v.to(plan.HomeAddress)}}
	if p.Library != nil {
		out = append(out, crumb{Text: p.Library.Name, Href: v.to(v.plan.Library(p.Library)), Name: true})
	}
	if p.Module != nil {
		out = append(out, crumb{Text: p.Module.Path, Href: v.to(v.plan.Module(p.Module)), Name: true})
	}
	switch p.Kind {
	case plan.TypePage:
		out = append(out, v.typeCrumbs()...)
	case plan.RelatedPage:
		out = append(append(out, v.typeCrumbs()...), crumb{Text: v.say("relations")})
	case plan.DetailsPage, plan.NamesPage:
		if p.Type != nil {
			out = append(out, v.typeCrumbs()...)
		}
		if p.Kind == plan.NamesPage {
			out = append(out, crumb{Text: v.count(len(p.Names), "name")})
		} else {
			out = append(out, crumb{Text: v.say("details", "n", strconv.Itoa(p.Part+1))})
		}
	case plan.SourcePage:
		out = append(out, crumb{Text: path.Base(p.File.Path), Name: true})
		if !v.plan.Links.ModuleInReach(p.Module) {
			out[len(out)-2].Href = ""
		}
	case plan.TreePage, plan.IndexPage, plan.LostPage, plan.GonePage, plan.UsersPage, plan.FindingsPage, plan.CoveragePage:
		out = append(out, crumb{Text: v.pageTitle()})
	}
	out[len(out)-1].Href = ""
	return out
}
