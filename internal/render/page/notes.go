package page

import (
	"cmp"
	"path"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/render/plan"
)

// This file makes the notes beside what a page shows: short sentences about a declaration
// or a module, in the words of the pages, with what their names lead to.

// Notes makes the notes of one page.
type Notes struct {
	*Maker
	Plan *plan.Plan
	Here *model.Module // whose page it is, or nil
}

func (n *Notes) say(key string, pairs ...string) string { return n.Texts.Say(key, pairs...) }

// At leads to a page of the plan.
func At(address string) *Target { return &Target{Page: address} }

// Declared leads to a declaration.
func Declared(d *model.Declaration) *Target { return &Target{Target: link.Target{Declaration: d}} }

// Outside leads to an address of another site.
func Outside(address string) *Target { return &Target{Target: link.Target{Address: address}} }

// InFile leads to a file of the project.
func InFile(file string) *Target { return &Target{File: file, Line: 1} }

// InSource leads to a line of the source.
func InSource(f *model.Facts, line int) *Target { return &Target{Source: f, Line: line} }

// Piece is a part of a sentence.
type Piece struct {
	Text string
	To   *Target // what it leads to; nil for plain text
	Name bool    // a name of the code
	Gone bool    // names something deprecated
	// Foreign is text that no translation may touch, and no name to be set as one.
	Foreign bool
}

// Sentence is a note on something, in pieces.
type Sentence []Piece

// mostNames is how many files a sentence lists; the rest is counted.
const mostNames = 12

// mostModules is how many modules a sentence lists.
const mostModules = 7

// Filled is what stands in one of the braces of a text.
type Filled struct {
	slot   string
	pieces Sentence
}

// Slot puts pieces into the braces with a name.
func Slot(name string, pieces ...Piece) Filled { return Filled{name, pieces} }

// Of says the text of a key with pieces in its braces.
func (n *Notes) Of(key string, with ...Filled) Sentence {
	out := make(Sentence, 0, 3*len(with)+1)
	for part := range n.Texts.Parts(key) {
		if part.Slot == "" {
			out = append(out, Piece{Text: part.Words})
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
func enumerated[T any](n *Notes, list []T, most int, rest *Target, say func(T) Sentence) Sentence {
	shown := list
	if len(shown) > most {
		shown = shown[:most-1]
	}
	var s Sentence
	for i, item := range shown {
		s = append(n.join(s, i, len(list)), say(item)...)
	}
	if more := len(list) - len(shown); more > 0 {
		s = append(s, Piece{Text: n.say("and-more", "n", strconv.Itoa(more)), To: rest})
	}
	return s
}

// Names says the text of a key with "A, B and C" in it, each a link. Where there
// are more than most, the rest is counted and rest, if it is not "", leads there.
func (n *Notes) Names(key string, list []*model.Declaration, most int, rest *Target) Sentence {
	s := enumerated(n, list, most, rest, func(d *model.Declaration) Sentence {
		s := Sentence{{Text: n.NameFromHere(d), To: Declared(d), Name: true, Gone: d.Deprecated()}}
		if at := d.Module.Library.Elsewhere; at != nil {
			s = append(s, Piece{Text: " (" + at.Project + ")", Foreign: true})
		}
		return s
	})
	return n.Of(key, Filled{"names", s})
}

// join puts what stands before the i-th of some things in a row.
func (n *Notes) join(s Sentence, i, all int) Sentence {
	switch i {
	case 0:
		return s
	case all - 1:
		return append(s, Piece{Text: n.say("and")})
	}
	return append(s, Piece{Text: n.say("comma")})
}

// NameFromHere is a declaration's path, with its module's name before it where
// that is another than the page's.
func (n *Notes) NameFromHere(d *model.Declaration) string {
	home := n.Links.Home(d)
	if home == n.Here || home.Library.Habits != nil && home.Library.Habits.Bare {
		return d.Path()
	}
	if h := home.Library.Habits; h != nil && h.Whole {
		return home.Path + h.PathMark + d.Path()
	}
	return ModuleName(home) + "." + d.Path()
}

// ModuleName is what a module is called in text: its name, or where it has none, or is a
// program, the last part of its path.
func ModuleName(m *model.Module) string {
	if m.Name == "" || m.IsProgram() {
		return path.Base(m.Path)
	}
	return m.Name
}

// Declaration are the sentences beside a declaration.
func (n *Notes) Declaration(d *model.Declaration) []Sentence {
	return append(n.written(d), n.Beside(d)...)
}

// Beside are those sentences but for where it is written.
func (n *Notes) Beside(d *model.Declaration) (out []Sentence) {
	switch {
	case d.IsSecond():
		out = append(out, n.Of("second-name", Slot("names", n.BaseName(d.Origin()))))
	case d.Origin() != nil && d.Origin().Parent != nil:
		out = append(out, n.Of("declared-by", Slot("name", Piece{Text: d.Origin().Parent.Path(), Name: true})))
	}
	if d.Generated() {
		out = append(out, Sentence{{Text: n.say("generated")}})
	}
	if names := n.Told(d, d.Speaks(model.Words)); len(names) > 0 {
		out = append(out, Sentence{{Text: n.say("told-parameters")}})
	}
	out = append(append(out, n.marked(d)...), n.offered(d)...)
	sections, _ := n.Links.Sections(d)
	out = append(out, n.credits(sections)...)
	if scripts := mixedScripts(d.Name); scripts != nil {
		out = append(out, Sentence{{Text: n.say("mixed-scripts", "scripts", strings.Join(scripts, n.say("and")))}})
	}
	if seen := n.Links.Visibility(d); seen != model.Public {
		out = append(out, Sentence{{Text: n.say(visibilityKeys[seen])}})
	}
	return append(append(append(out, n.inherited(d)...), n.usedBy(d)...), n.namedBy(d)...)
}

// credits says who wrote something, and which version it is of, by its comment.
func (n *Notes) credits(sections *prose.Sections) (out []Sentence) {
	for _, credit := range []struct {
		kind prose.PartKind
		key  string
	}{{prose.Authors, "authors"}, {prose.Version, "comment-version"}} {
		if n.Hidden[prose.PartNames[credit.kind]] {
			continue
		}
		var names []string
		for _, p := range sections.Of(credit.kind) {
			for i := range p.Entries {
				if name := strings.Join(strings.Fields(prose.Plain(p.Entries[i].Text)), " "); name != "" {
					names = append(names, name)
				}
			}
		}
		if len(names) > 0 {
			out = append(out, n.Of(credit.key, Filled{"names", enumerated(n, names, mostNames, nil, func(name string) Sentence { return Sentence{{Text: name}} })}))
		}
	}
	return out
}

// marked says what the comment says of its subject in one word, unless the
// signature or a relation says the same.
func (n *Notes) marked(d *model.Declaration) []Sentence {
	sections, _ := n.Links.Sections(d)
	var out []Sentence
	for _, mark := range prose.Marks {
		said := slices.Contains(sections.Marks, mark) || mark == "experimental" && slices.Contains(d.Speaks(model.Words).Modifiers(), mark)
		if !said || hasKeyword(d.Speaks(model.Words), mark) || mark == d.Kind().String() {
			continue
		}
		if mark == "override" && len(n.Links.Relations(d).Overrides) > 0 {
			continue
		}
		out = append(out, Sentence{{Text: n.say("mark-" + mark)}})
	}
	return out
}

// offered says how users get the name of a declaration, in languages that have several ways.
func (n *Notes) offered(d *model.Declaration) (out []Sentence) {
	end := n.FrontEnds[d.Module.Library.Language]
	offerer, ok := end.(lang.Offerer)
	if !ok {
		return nil
	}
	offer := offerer.Offered(d)
	switch line, _ := end.(lang.NameImportWriter); {
	case offer.Always:
		out = append(out, n.Of("offered"))
	case offer.Asked && line != nil:
		out = append(out, n.Of("offered-asked", Slot("line", Piece{Text: line.BringNameIn(d.Module, d, d.Name), Name: true})))
	}
	if len(offer.Sets) > 0 {
		sets := enumerated(n, offer.Sets, mostNames, nil, func(name string) Sentence { return Sentence{{Text: name, Name: true}} })
		out = append(out, n.Of("offered-sets", Filled{"names", sets}))
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
func (n *Notes) inherited(d *model.Declaration) []Sentence {
	var out []Sentence
	r := n.Links.Relations(d)
	if len(r.Overrides) > 0 {
		key := "overrides"
		if of := r.Overrides[0].Parent; of != nil && isContract(of.Kind()) {
			key = "fulfils"
		}
		out = append(out, n.Names(key, r.Overrides, mostNames, nil))
	}
	if len(r.OverriddenBy) > 0 {
		key := "overridden"
		if d.Parent != nil && isContract(d.Parent.Kind()) {
			key = "implemented"
		}
		out = append(out, n.Names(key, r.OverriddenBy, mostNames, nil))
	}
	if of := n.Links.TextOf(d); of != nil && of != d && n.Links.InReach(of) {
		out = append(out, n.Names("text-from", []*model.Declaration{of}, 1, nil))
	}
	parts := slices.DeleteFunc(n.Links.TextsFrom(d), func(of *model.Declaration) bool { return !n.Links.InReach(of) })
	if len(parts) > 0 {
		out = append(out, n.Names("text-part-from", parts, mostNames, nil))
	}
	return out
}

// namedBy says which tests name a declaration, and which pages of the maintainer's.
func (n *Notes) namedBy(d *model.Declaration) []Sentence {
	var out []Sentence
	if tests := n.Links.NamedInTests(d); len(tests) > 0 {
		s := enumerated(n, tests, mostTests, nil, func(t link.NamedInTest) Sentence {
			return Sentence{{Text: cmp.Or(t.Test, path.Base(t.File.Path)), To: InSource(t.File, int(t.Line)), Name: true}}
		})
		out = append(out, n.Of("named-in-tests", Filled{"tests", s}))
	}
	if guides := n.Links.MentionedIn(d); len(guides) > 0 {
		s := enumerated(n, guides, mostGuides, nil, func(g *link.Guide) Sentence {
			title := g.Title
			if g.Page.Landing {
				title = path.Base(g.Page.Path)
			}
			return Sentence{{Text: title, To: &Target{Guide: g}, Foreign: true}}
		})
		out = append(out, n.Of("mentioned-in", Filled{"page", s}))
	}
	return out
}

// How many tests and guides a note names; the rest is counted.
const (
	mostTests  = 3
	mostGuides = 5
)

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
func (n *Notes) written(d *model.Declaration) []Sentence {
	var out []Sentence
	occurrences, left := n.seen(d), 0
	for i := 0; i < len(occurrences); {
		first, end := occurrences[i], i+1
		when := n.Conditions(first)
		if d.Parent != nil && when == n.Conditions(d.Parent.Speaks(model.Words)) {
			when = When{} // said of the type
		}
		for end < len(occurrences) && occurrences[end].File == first.File && aside(occurrences[end]) == aside(first) && n.Conditions(occurrences[end]) == n.Conditions(first) {
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
			for _, o := range occurrences[i+1 : min(end, i+mostPlaces)] {
				lines += n.say("comma") + strconv.Itoa(int(o.Line))
			}
			if end > i+mostPlaces {
				lines += n.say("and-more", "n", strconv.Itoa(end-i-mostPlaces))
			}
		}
		if aside(first) {
			key, lines = "described", strconv.Itoa(int(first.Line))
		}
		out = append(out, n.Of(when.Key(key),
			Slot("file", Piece{Text: path.Base(first.File.Path), To: InSource(first.File, int(first.Line)), Name: true}),
			Slot("line", Piece{Text: lines}),
			when.Slot()))
		i = end
	}
	if left > 0 {
		out = append(out, Sentence{{Text: n.say("more-places", "n", strconv.Itoa(left))}})
	}
	return out
}

// aside reports whether what stands in a place is words alone, on what stands elsewhere.
func aside(at model.At) bool { return at.FromComment && at.Implementation }

// seen are the places where what the page shows of a declaration stands: not those of overloads
// that are kept from users.
func (n *Notes) seen(d *model.Declaration) []model.At {
	if len(d.Occurrences) < 2 || d.Speaks(model.Words).Callable == nil {
		return d.Occurrences
	}
	kept := map[*model.Occurrence]bool{}
	for _, form := range n.Links.FormsInReach(d) {
		for _, at := range form.Occurrences {
			kept[at.Occurrence] = true
		}
	}
	return slices.DeleteFunc(slices.Clone(d.Occurrences), func(at model.At) bool { return !kept[at.Occurrence] })
}

// Relations are the sentences at the end of a type's page.
func (n *Notes) Relations(d *model.Declaration) []Sentence {
	var out []Sentence
	for _, r := range n.Plan.Relations(d) {
		var rest *Target
		if len(r.Names) > plan.MostRelated {
			rest = At(n.Plan.Related(d))
		}
		out = append(out, n.Names(n.Texts.In(r.Key, d.Module.Library.Language), r.Names, plan.MostRelated, rest))
	}
	if end, ok := n.FrontEnds[d.Module.Library.Language].(lang.Follower); ok {
		if key := end.Follows(d, func(at model.At, t model.Token) *model.Declaration { return n.Links.TypeOf(d, at.File, t).Declaration }); key != "" {
			out = append(out, Sentence{{Text: n.say(key)}})
		}
		if at, t, ok := end.Dereferences(d); ok {
			if to := n.Links.TypeOf(d, at.File, t).Declaration; to != nil && n.Links.InReach(to) {
				out = append(out, n.Of("dereferences", Slot("name", Piece{Text: to.Path(), To: Declared(to), Name: true})))
			}
		}
	}
	return append(out, n.generals(d)...)
}

// generals say what a type has because of what it meets, and which types have a trait so.
func (n *Notes) generals(d *model.Declaration) (out []Sentence) {
	has, isOne := n.Links.Generals(d)
	for _, g := range has {
		out = append(out, n.Of("has-general", Slot("name", Piece{Text: g.Trait.Path(), To: Declared(g.Trait), Name: true}),
			Slot("every", Piece{Text: g.Every, Name: true}), Slot("bounds", Piece{Text: g.Bounds, Name: true})))
	}
	for _, g := range isOne {
		key := "every-has"
		if g.Bounds == "" {
			key = "every-type-has"
		}
		out = append(out, n.Of(key, Slot("every", Piece{Text: g.Every, Name: true}), Slot("bounds", Piece{Text: g.Bounds, Name: true})))
	}
	return out
}

// mostRelated is how many names of a relation are listed at all.
const mostRelated = 1000

// AllRelations are the same with many more names.
func (n *Notes) AllRelations(d *model.Declaration) []Sentence {
	var out []Sentence
	for _, r := range n.Plan.Relations(d) {
		out = append(out, n.Names(n.Texts.In(r.Key, d.Module.Library.Language), r.Names, mostRelated, nil))
	}
	return out
}

// Module are the sentences beside a module's heading.
func (n *Notes) Module(m *model.Module) []Sentence {
	var out []Sentence
	switch {
	case m.IsProgram():
		out = append(out, Sentence{{Text: n.say("a-program")}})
	case m.Internal && !n.Links.HandsOver(m):
		out = append(out, Sentence{{Text: n.say("internal")}})
	}
	if when := n.OfModule(m); !when.None() {
		out = append(out, n.Of(when.Key("exists"), when.Slot()))
	}
	var files Sentence
	all := slices.DeleteFunc(slices.Clone(m.AllFiles()), func(f *model.Facts) bool { return f.OfLibrary })
	shown := all
	if len(shown) > mostNames {
		shown = shown[:mostNames-1]
	}
	for i, f := range shown {
		if i > 0 {
			files = append(files, Piece{Text: n.say("comma")})
		}
		files = append(files, Piece{Text: path.Base(f.Path), To: InSource(f, 1), Name: true})
	}
	if more := len(all) - len(shown); more > 0 {
		files = append(files, Piece{Text: n.say("and-more", "n", strconv.Itoa(more))})
	}
	out = append(out, n.Of("files", Slot("count", Piece{Text: n.Texts.Count(len(all), "file")}), Filled{"files", files}))
	for _, doc := range m.Doc {
		out = append(out, n.credits(n.Links.Comments.Of(m.Library.Habits, doc.File, doc.Doc))...)
	}
	out = append(out, n.Sayings(m.Library, m.Path)...)
	if others := m.Library.OtherNames(m.Path); len(others) > 0 {
		out = append(out, n.Of("also-imported", Filled{"names", enumerated(n, others, mostNames, nil, func(name string) Sentence {
			return Sentence{{Text: name, Name: true}}
		})}))
	}
	bases, users := n.Links.BaseModules(m), n.Links.ExtendedModules(m)
	out = n.modulesSaid(n.modulesSaid(out, "extends", bases), "extended", users)
	var imports []*model.Module
	for _, e := range n.Links.Imports(m) {
		if !slices.Contains(bases, e.To) && n.tells(e.To) {
			imports = append(imports, e.To)
		}
	}
	importedBy := slices.DeleteFunc(slices.Clone(n.Links.ImportedBy(m)), func(by *model.Module) bool { return !n.tells(by) })
	switch {
	case OfFiles(m, "", "files") == "":
		out = n.modulesSaid(out, "imports", imports)
		out = n.throughSaid(out, "imported-by", importedBy, users)
	case len(m.Files) > 0: // and not a namespace
		out = n.modulesSaid(out, "includes", imports)
		if outside := n.Links.ImportedOutside(m); len(outside) > 0 {
			out = append(out, n.Of("includes-outside", Filled{"names", enumerated(n, outside, mostNames, nil, func(name string) Sentence {
				return Sentence{{Text: "<" + name + ">", Name: true}}
			})}))
		}
		out = n.throughSaid(out, "includes-through", n.Links.ImportsThrough(m), imports)
		out = n.modulesSaid(out, "included-by", n.Links.ImportedBy(m))
		out = n.throughSaid(out, "included-through", n.Links.ImportedThrough(m), n.Links.ImportedBy(m))
	}
	if list := n.Plan.UsersOfModule(m); list != "" {
		out = append(out, n.Of("who-uses-link", Slot("who-uses", Piece{Text: n.say("who-uses-it"), To: At(list)})))
	}
	return out
}

// tells reports whether users are told that a module takes another one: in languages whose modules lie in one
// another, files are modules that are mostly kept to their crate.
func (n *Notes) tells(m *model.Module) bool {
	h := m.Library.Habits
	return h == nil || !h.Nested || n.Links.ModuleInReach(m)
}

// OfFiles is one text for modules, and another one in languages whose modules are files that
// include one another.
func OfFiles(m *model.Module, modules, files string) string {
	if h := m.Library.Habits; h != nil && h.ByFile {
		return files
	}
	return modules
}

// Sayings are what a library's own files say of a module, or with "" of the library itself.
func (n *Notes) Sayings(lib *model.Library, module string) []Sentence {
	var out []Sentence
	for _, said := range lib.SaidOf(module) {
		out = append(out, n.Of(said.Key, Filled{"names", enumerated(n, said.Names, mostSaid, nil, func(name string) Sentence {
			return Sentence{{Text: name, Name: true}}
		})}))
	}
	return out
}

// mostSaid is how many names a saying lists.
const mostSaid = 30

// modulesSaid adds a sentence that names modules, if there are any.
func (n *Notes) modulesSaid(out []Sentence, key string, list []*model.Module) []Sentence {
	if len(list) == 0 {
		return out
	}
	s := enumerated(n, list, mostModules, nil, func(m *model.Module) Sentence {
		p := Piece{Text: ShortPath(m), Name: true}
		if n.Links.ModuleInReach(m) {
			p.To = At(n.Plan.Module(m))
		}
		return Sentence{p}
	})
	return append(out, n.Of(key, Filled{"names", s}))
}

// throughSaid is the note about modules that others lead to, without those that lead there.
func (n *Notes) throughSaid(out []Sentence, key string, all, direct []*model.Module) []Sentence {
	return n.modulesSaid(out, key, slices.DeleteFunc(all, func(m *model.Module) bool { return slices.Contains(direct, m) }))
}

// usedBy is the note about who uses a declaration, or nil.
func (n *Notes) usedBy(d *model.Declaration) []Sentence {
	u, list := n.Plan.Users(d)
	if u == nil {
		return nil
	}
	if list != "" {
		return []Sentence{n.Of("used-on", Slot("count", Piece{Text: n.UsersCount(u), To: At(list)}))}
	}
	var places Sentence
	for i, f := range u.Files {
		places = append(n.join(places, i, len(u.Files)), n.UsedIn(f, path.Base(f.File.Path))...)
	}
	return []Sentence{n.Of("used-in", Filled{"place", places})}
}

// UsersCount is the text that says in how many lines of how many files something is used.
func (n *Notes) UsersCount(u *link.UsersOf) string {
	return n.say("lines-files", "lines", n.Texts.Count(u.Lines, "line"), "files", n.Texts.Count(u.Count, "file"))
}

// UsedIn writes "plan.go, lines 12, 14 and 3 more" of a file that is called so, with
// a link for each line.
func (n *Notes) UsedIn(u link.UsedIn, name string) Sentence {
	var lines Sentence
	for i, line := range u.Lines {
		lines = n.join(lines, i, u.Count)
		lines = append(lines, Piece{Text: strconv.Itoa(int(line)), To: InSource(u.File, int(line))})
	}
	if more := u.Count - len(u.Lines); more > 0 {
		lines = append(lines, Piece{Text: n.say("and-more", "n", strconv.Itoa(more))})
	}
	key := "in-line"
	if u.Count > 1 {
		key = "in-lines"
	}
	return n.Of(key, Slot("file", Piece{Text: name, Name: true}), Filled{"lines", lines})
}

// KindWords say what a declaration is, "deprecated" included: a heading must
// read well without colours and lines.
func (n *Notes) KindWords(d *model.Declaration) string {
	if d.Deprecated() {
		return n.KindWord(d) + ", " + n.say("deprecated")
	}
	return n.KindWord(d)
}

// KindWord is what the declaration's language calls it.
func (n *Notes) KindWord(d *model.Declaration) string {
	if worder, ok := n.FrontEnds[d.Module.Library.Language].(lang.Terminology); ok {
		if word := worder.KindWord(d); word != "" {
			return word
		}
	}
	kind := d.Kind()
	if kind == model.KindOperator && strings.Contains(d.Name, kind.String()) {
		return model.KindMethod.String() // its name says the rest
	}
	if main := d.Speaks(model.Words); kind.IsType() && main.Callable != nil && main.Kind.IsCallable() && main.Kind != kind { // one name for both
		return main.Kind.Words() + ", " + kind.Words()
	}
	return kind.Words()
}

// PlaceOf says what a declaration is and where, for lists of names.
func (n *Notes) PlaceOf(d *model.Declaration) Sentence {
	key := "kind-in"
	if d.Scope != "" {
		key = "kind-of-in"
	}
	return n.Of(key, Slot("kind", Piece{Text: n.KindWords(d)}),
		Slot("scope", Piece{Text: d.Scope, Foreign: true}), Slot("module", Piece{Text: ShortPath(n.Links.Home(d)), Foreign: true}))
}

// Field says beside a field what its margin would: that it is another's, or not
// for all users.
func (n *Notes) Field(d *model.Declaration) string {
	var notes []string
	say := func(list []Sentence) {
		for _, s := range list {
			text := ""
			for _, p := range s {
				text += p.Text
			}
			notes = append(notes, text)
		}
	}
	if d.Origin() != nil && d.Origin().Parent != nil && !d.IsSecond() {
		say([]Sentence{n.Of("declared-by", Slot("name", Piece{Text: d.Origin().Parent.Path(), Name: true}))})
	}
	if seen := n.Links.Visibility(d); seen != model.Public {
		say([]Sentence{{{Text: n.say(visibilityKeys[seen])}}})
	}
	say(n.marked(d))
	say(n.inherited(d))
	if when := n.Conditions(d.Speaks(model.Words)); !when.None() {
		say([]Sentence{n.Sentence(when)})
	}
	return strings.Join(notes, " ")
}

// BaseName is a type's name as its page's reader may know it.
func (n *Notes) BaseName(d *model.Declaration) Piece {
	if !n.Links.InReach(d) {
		return Piece{Text: d.Path(), Name: true}
	}
	return Piece{Text: n.NameFromHere(d), To: Declared(d), Name: true, Gone: d.Deprecated()}
}

// InheritedBase is what members are inherited from.
func (n *Notes) InheritedBase(from link.InheritedFrom) Piece {
	if from.Base != nil {
		return n.BaseName(from.Base)
	}
	p := Piece{Text: from.Module.Path, Name: true}
	if n.Links.ModuleInReach(from.Module) {
		p.To = At(n.Plan.Module(from.Module))
	}
	return p
}

// ShortPath is a module's path without what all modules of its library begin with.
func ShortPath(m *model.Module) string {
	if rest, ok := strings.CutPrefix(m.Path, m.Library.Prefix+"/"); ok && m.Library.Prefix != "" {
		return rest
	}
	return m.Path
}

// isContract reports whether types implement what is of a kind.
func isContract(k model.Kind) bool { return k == model.KindInterface || k == model.KindTrait }
