package plan

import (
	"cmp"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"codrel/internal/model"
)

// fullIndex is how many entries a page of the A to Z list has at most.
const fullIndex = 4000

// makeIndex plans the pages of the A to Z list, in order; there are more than one where it
// is long.
func (p *Plan) makeIndex() []*Page {
	entries := p.entries()
	first := &Page{Kind: IndexPage, Address: IndexAddress, Title: "A to Z", Entries: entries}
	letters := []*Page{first}
	if len(entries) <= longIndex {
		return letters
	}
	first.Entries = nil
	for _, e := range entries {
		letter := Letter(e.Name)
		last := letters[len(letters)-1]
		switch {
		case last.Letter != letter:
			last = &Page{Kind: IndexPage, Address: "a-z/" + letterFile(letter) + ".html", Title: "A to Z: " + letter, Letter: letter}
			letters = append(letters, last)
		case len(last.Entries) == fullIndex:
			part := last.Part + 1
			last = &Page{Kind: IndexPage, Address: "a-z/" + letterFile(letter) + "-" + strconv.Itoa(part+1) + ".html", Title: "A to Z: " + letter, Letter: letter, Part: part}
			letters = append(letters, last)
		}
		last.Entries = append(last.Entries, e)
	}
	return letters
}

// entries are all modules and declarations but fields, by name.
func (p *Plan) entries() []Entry {
	var out []Entry
	for _, lib := range p.Links.Project.Libraries {
		for _, m := range p.Modules(lib.Library) {
			out = append(out, Entry{Name: m.Last(), Module: m})
			for d := range p.Links.OnPagesOf(m) {
				if p.Links.InReach(d) && d.Kind() != model.KindField && !d.Blank() {
					out = append(out, Entry{Name: d.Name, Declaration: d})
				}
			}
		}
	}
	type filed struct {
		key   string
		entry Entry
	}
	keys := make(map[string]string, len(out)) // many names are the same
	list := make([]filed, len(out))
	for i, e := range out {
		k, ok := keys[e.Name]
		if !ok {
			k = Letter(e.Name) + strings.ToLower(e.Name)
			keys[e.Name] = k
		}
		list[i] = filed{k, e}
	}
	slices.SortStableFunc(list, func(a, b filed) int {
		return cmp.Or(strings.Compare(a.key, b.key), strings.Compare(a.entry.Name, b.entry.Name))
	})
	for i := range list {
		out[i] = list[i].entry
	}
	return out
}

// Letter is what a name is filed under: its first letter as a capital, or "#"
// for names that begin with something else.
func Letter(name string) string {
	r, _ := utf8.DecodeRuneInString(strings.TrimLeft(name, "_"))
	if !unicode.IsLetter(r) {
		return "#"
	}
	return string(unicode.ToUpper(r))
}

func letterFile(letter string) string {
	if letter == "#" {
		return "other"
	}
	return segment(strings.ToLower(letter)) + "-names"
}
