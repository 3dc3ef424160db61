package link

import (
	"maps"
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// This file leads to the headings of a module's text, in dialects whose references name these.

// headings are the places of a module's text.
type headings struct {
	exact  map[string]string // the anchors of headings, by their text
	places *prose.Anchors
	groups map[string]string             // the anchors of groups of declarations, by their titles; "" of those that nothing is in
	below  map[string]string             // the anchors of the headings above entries of lists, by the entries' text
	inside map[string]*model.Declaration // what the texts of declarations have headings and entries for, by these
}

// headingsOf are the places of a module's text, that of all its files, and of what it declares.
func (x *Index) headingsOf(m *model.Module) *headings {
	if known, ok := x.headed.Load(m); ok {
		return known.(*headings)
	}
	h := &headings{exact: map[string]string{}, groups: map[string]string{}, below: map[string]string{}, inside: map[string]*model.Declaration{}, places: prose.NewAnchors()}
	h.readGroups(m, x.titles()[m.Library][m.Written()])
	for _, doc := range m.Doc {
		last := ""
		prose.Walk(x.Comments.Of(m.Library.Habits, doc.File, doc.Doc).Body, func(n *prose.Node) bool {
			switch n.Kind {
			case prose.Heading:
				h.places.Note(n)
				text := prose.Plain(n.Children)
				last, _ = h.places.Find(text)
				if _, ok := h.exact[text]; !ok {
					h.exact[text] = last
				}
			case prose.Item:
				for _, key := range entryNames(n) {
					if h.below[key] == "" && last != "" {
						h.below[key] = last
					}
				}
			}
			return true
		})
	}
	for _, d := range m.Top {
		if !x.InReach(d) || d.Speaks(model.Words).Doc == nil {
			continue
		}
		sections, _ := x.Sections(d)
		prose.Walk(sections.Body, func(n *prose.Node) bool {
			var keys []string
			switch n.Kind {
			case prose.Heading:
				keys = []string{prose.Plain(n.Children)}
			case prose.Item:
				keys = entryNames(n)
			}
			for _, key := range keys {
				if h.inside[key] == nil {
					h.inside[key] = d
				}
			}
			return true
		})
	}
	known, _ := x.headed.LoadOrStore(m, h)
	return known.(*headings)
}

// readGroups reads the groups of a module's declarations, by their titles. A group is called as its module and
// its title are.
func (h *headings) readGroups(m *model.Module, titles []string) {
	full := map[string]bool{}
	for _, d := range m.Top {
		for _, o := range d.Occurrences {
			for _, w := range o.Directives() {
				if w.Verb == "part" {
					full[w.Object] = true
				}
			}
		}
	}
	for _, title := range titles {
		if h.groups[title] = ""; full[m.Path+" "+title] {
			h.groups[title] = GroupAnchor(title)
		}
	}
}

// titlesOfGroups are the titles of the groups of each module of the project.
func (x *Index) titlesOfGroups() map[*model.Library]map[string][]string {
	out := map[*model.Library]map[string][]string{}
	for _, lib := range x.Project.Libraries {
		of := map[string][]string{}
		for name, g := range lib.Groups {
			if path, ok := strings.CutSuffix(name, " "+g.Title); ok {
				of[path] = append(of[path], g.Title)
			}
		}
		out[lib.Library] = of
	}
	return out
}

// isPlainName reports whether a text is one word, called or not.
func isPlainName(text string) bool {
	return !strings.ContainsAny(strings.TrimSuffix(text, "()"), " ()$\n")
}

// entryNames is the text of an entry of a list, and its first word: the rest may be what it is called with.
func entryNames(n *prose.Node) []string {
	if len(n.Children) == 0 {
		return nil
	}
	text := prose.Plain(n.Children[0].Children)
	first, _, _ := strings.Cut(text, " ")
	return []string{text, first}
}

// section is what a reference means that names a heading, of the page that it stands on or of another
// module's: a heading with these words, something declared of that name, or a heading that is
// written in another way.
func (x *Index) section(from Scope, r prose.Name, how Strictness) Result {
	m, asked := from.Module, r.Section
	if len(r.Path) > 0 {
		r.Section = ""
		result := x.ResolveName(from, r, how)
		if m = result.Target.Module; result.Outcome != Found || m == nil || !x.ModuleInReach(m) {
			return result
		}
	}
	if m == nil {
		return Result{}
	}
	h := x.headingsOf(m)
	if anchor := h.exact[asked]; anchor != "" {
		return Result{Outcome: Found, Target: Target{Module: m, Heading: anchor}}
	}
	if t := x.declaredAs(m, asked); !t.None() {
		return Result{Outcome: Found, Target: t}
	}
	anchor, ok := h.groups[asked]
	if !ok {
		for _, title := range slices.Sorted(maps.Keys(h.groups)) {
			if strings.EqualFold(title, asked) {
				anchor, ok = h.groups[title], true
				break
			}
		}
	}
	if !ok {
		anchor, ok = h.places.Find(asked)
	}
	if !ok {
		anchor, ok = h.below[asked]
	}
	d := h.inside[asked]
	if d == nil && isPlainName(asked) {
		d = m.Find(strings.TrimSuffix(asked, "()")) // users have no page of it
	}
	switch {
	case !ok && d != nil:
		return Result{Outcome: Found, Target: Target{Declaration: d}}
	case ok:
		return Result{Outcome: Found, Target: Target{Module: m, Heading: anchor}}
	}
	if meant := anchored(asked); meant != "" {
		inner := r
		inner.Path, inner.Section = nil, meant
		if result := x.section(Scope{Module: m}, inner, how); !result.NoHeading {
			return result
		}
	}
	if len(r.Path) > 0 {
		return Result{Outcome: Found, Target: Target{Module: m}, NoHeading: true}
	}
	return Result{NoHeading: true}
}

// anchored is the heading that was meant by the name of its place on a page, as programs that render documentation
// make such names: "item_search" for the entry "search", "enqueue1" for the second heading "enqueue". It is "" where
// a name is none of these.
func anchored(name string) string {
	if rest, ok := strings.CutPrefix(name, "item_"); ok && isPlainName(rest) {
		return rest
	}
	if rest := strings.TrimRight(name, "0123456789"); rest != name && isPlainName(rest) {
		return rest
	}
	return ""
}

// NearHeading is the heading of a module's text, or the name of something in it, that is most like a
// text which is none of them, or "".
func (x *Index) NearHeading(m *model.Module, text string) string {
	var names []string
	for _, d := range m.Top {
		if x.InReach(d) {
			names = append(names, d.Name)
		}
	}
	h := x.headingsOf(m)
	names = slices.AppendSeq(slices.AppendSeq(names, maps.Keys(h.exact)), maps.Keys(h.groups))
	slices.Sort(names)
	return nearest.Word(text, names)
}

// declaredAs is what a module declares that a heading speaks of: by its name alone, called, or with
// what it is called with behind it.
func (x *Index) declaredAs(m *model.Module, heading string) Target {
	name := heading
	if i := strings.IndexAny(name, "({"); i > 0 {
		name = name[:i]
	}
	if h := m.Library.Habits; h != nil {
		for _, mark := range h.NameMarks {
			if i := strings.LastIndex(name, mark); i >= 0 {
				name = name[i+len(mark):]
			}
		}
	}
	name, rest, _ := strings.Cut(strings.TrimSpace(name), " ")
	if name == "" || rest != "" && rest != strings.ToUpper(rest) { // words, and not what it is called with
		return Target{}
	}
	if t := x.gives(m, name, &trail{}); t.Declaration != nil && x.InReach(t.Declaration) {
		return t
	}
	return Target{}
}
